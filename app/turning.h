// app/turning.h
//
// Turning a thing that is seen in space with the mouse or the arrow keys, the same wherever one is.
#pragma once

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace armure {

class Turning {
 public:
  Turning(double turn, double tilt) : turn_(turn), tilt_(tilt) {}
  double turn() const { return turn_; }  // radians, about the upright
  double tilt() const { return tilt_; }  // about the level axis

  void to(double turn, double tilt) {
    turn_ = std::remainder(turn, 2 * std::numbers::pi);
    tilt_ = std::clamp(tilt, -kMostTilt, kMostTilt);
  }
  void press(const QMouseEvent& event) { lastAt_ = event.position(); }
  // Whether the event turned it.
  bool drag(const QMouseEvent& event) {
    if (!(event.buttons() & Qt::LeftButton)) return false;
    const QPointF by = event.position() - lastAt_;
    lastAt_ = event.position();
    to(turn_ + kPerPixel * by.x(), tilt_ - kPerPixel * by.y());
    return true;
  }
  bool key(const QKeyEvent& event) {
    const int key = event.key();
    const int across = key == Qt::Key_Right ? 1 : key == Qt::Key_Left ? -1 : 0;
    const int up = key == Qt::Key_Up ? 1 : key == Qt::Key_Down ? -1 : 0;
    if (across == 0 && up == 0) return false;
    to(turn_ + kStep * across, tilt_ + kStep * up);
    return true;
  }

 private:
  static constexpr double kStep = 0.1, kPerPixel = 0.01, kMostTilt = 1.5;  // radians
  double turn_, tilt_;
  QPointF lastAt_;
};

}  // namespace armure
