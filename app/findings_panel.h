// app/findings_panel.h
//
// What the measures say, on the right of the stage Client: bust and cup with the figure they make and what it chooses,
// and every question about the measures. Each question leads to its field.
#pragma once

#include <QLabel>

#include "app/order_session.h"
#include "render/theme.h"

namespace armure {

// As rich text; links are ids of measures. Testable without a window.
QString findingsText(const Order& order, const std::vector<Question>& questions, const Theme& theme);

class FindingsPanel : public QWidget {
  Q_OBJECT
 public:
  explicit FindingsPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

 signals:
  void measureChosen(const std::string& id);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void refresh();  // puts itself off while not seen
  OrderSession& session_;
  const Theme* theme_;
  QLabel* text_;
};

}  // namespace armure
