// app/client_tray.h
//
// The tray of the stage Client: whose order it is, and the measures in the order the tape goes.
#pragma once

#include <QLineEdit>
#include <QPlainTextEdit>
#include <map>
#include <string>

#include "app/order_session.h"
#include "app/value_row.h"

namespace armure {

class ClientTray : public QWidget {
  Q_OBJECT
 public:
  explicit ClientTray(OrderSession& session, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  QLineEdit* textField(const QString& name, const QString& label, std::string Order::*member);
  void addMeasures(const QString& group, const std::vector<std::string_view>& ids);
  void refresh();  // puts itself off while the tray is not seen
  QString typedText(const TakenMeasure& measure) const;

  OrderSession& session_;
  QLayout* layout_ = nullptr;
  std::map<std::string, ValueRow*> rows_;
  std::vector<std::pair<QLineEdit*, std::string Order::*>> texts_;
};

}  // namespace armure
