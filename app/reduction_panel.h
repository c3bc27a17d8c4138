// app/reduction_panel.h
//
// The reduction: natural against closed waist in length and percent, what ribs and hips get, and the cautions. It
// stands in the column wherever the waist is reduced, always the same, and never asks.
#pragma once

#include <QLabel>
#include <QWidget>

#include "app/order_session.h"
#include "render/theme.h"

namespace armure {

// How much of the natural waist is taken, on a scale with the limits of the classes.
class ReductionBar : public QWidget {
 public:
  explicit ReductionBar(QWidget* parent = nullptr);
  void show(double percent, const Theme& theme);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  double percent_ = 0;
  const Theme* theme_;
};

class ReductionPanel : public QWidget {
 public:
  explicit ReductionPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

 private:
  void refresh();

  OrderSession& session_;
  const Theme* theme_;
  QLabel *head_, *levels_, *cautions_;
  ReductionBar* bar_;
};

}  // namespace armure
