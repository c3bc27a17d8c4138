// app/standing_view.h
//
// The closed cup standing in its frame, turned with the mouse or the arrow keys. Found anew a moment after the last
// change, and only while it is seen.
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/order_session.h"
#include "app/turning.h"
#include "parts/cups/standing.h"
#include "render/theme.h"

namespace armure {

class StandingView : public QWidget {
  Q_OBJECT
 public:
  explicit StandingView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  const StandingCup& cup() const { return cup_; }
  double turn() const { return turning_.turn(); }
  double tilt() const { return turning_.tilt(); }

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

  OrderSession& session_;
  const Theme* theme_;
  QTimer later_;
  StandingCup cup_;
  bool asIfCut_ = false;  // the bust lies in the seam: drawn as a cut cup of two pieces would stand
  Turning turning_{-0.45, -0.15};
};

}  // namespace armure
