// core/geometry/box.h
//
// Upright boxes, and the smallest one round some points.
#pragma once

#include <algorithm>

#include "geometry/polygon.h"

namespace armure {

struct Box {
  Vec2 low, high;
  double width() const { return high.x - low.x; }
  double height() const { return high.y - low.y; }
  bool meets(const Box& other) const {
    return low.x <= other.high.x && other.low.x <= high.x && low.y <= other.high.y && other.low.y <= high.y;
  }
};

// Its corners, in turn.
inline Polyline ringOf(const Box& b) { return {b.low, {b.high.x, b.low.y}, b.high, {b.low.x, b.high.y}}; }

// The smallest box round the points; they must not be empty.
inline Box boxRound(const Polyline& points) {
  Box box{points.front(), points.front()};
  for (const Vec2 p : points) {
    box.low = {std::min(box.low.x, p.x), std::min(box.low.y, p.y)};
    box.high = {std::max(box.high.x, p.x), std::max(box.high.y, p.y)};
  }
  return box;
}

}  // namespace armure
