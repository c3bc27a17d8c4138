// app/standing_view.h
//
// The closed cup standing in its frame, turned with the mouse or the arrow keys. Found anew a moment after the last
// change, and only while it is seen.
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/order_session.h"
#include "parts/cups/standing.h"
#include "render/theme.h"

namespace armure {

class StandingView : public QWidget {
  Q_OBJECT
 public:
  explicit StandingView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  const StandingCup& cup() const { return cup_; }
  double turn() const { return turn_; }
  double tilt() const { return tilt_; }

 signals:
  void left();

 protected:
  void showEvent(QShowEvent*) override { refresh(); }
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void refresh();
  void turnBy(double turn, double tilt);

  OrderSession& session_;
  const Theme* theme_;
  QTimer later_;
  StandingCup cup_;
  bool asIfCut_ = false;                // the bust lies in the seam: drawn as a cut cup of two pieces would stand
  double turn_ = -0.45, tilt_ = -0.15;  // radians, about the upright and about the level axis
  QPointF lastAt_;
};

}  // namespace armure
