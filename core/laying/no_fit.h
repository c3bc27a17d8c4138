// core/laying/no_fit.h
//
// The no-fit region of two outlines: all shifts of the second against the first by which they would lie over each
// other; the Minkowski sum of the first and the second mirrored in its origin. Background: J. A. Bennell, J. F.
// Oliveira, "The geometry of nesting problems: a tutorial", EJOR 184 (2008).
//
//   const NoFit region(a, b, 0);
//   if (region.depth(shiftOfB - shiftOfA) > 0) ...           // b lies over a
#pragma once

#include <vector>

#include "geometry/box.h"

namespace armure {

enum class Axis { X, Y };

struct Interval {
  double from = 0, to = 0;
};

class NoFit {
 public:
  // Simple rings, clockwise as seen, that are to lie at least `gap` mm apart.
  NoFit(const Polyline& first, const Polyline& second, double gap);

  // How far a shift lies within the region, mm: the distance from its border. Nothing outside, and on the border.
  double depth(Vec2 shift) const;

  // Which shifts along `axis` lie within the region, the other coordinate given: open intervals, added to `into`
  // sorted and apart from each other. Touching is not within.
  void along(Axis axis, double other, std::vector<Interval>& into) const;

  const Box& box() const { return box_; }

 private:
  struct Side {
    Vec2 from, along;
    double perLength;  // 1 / length^2
    Vec2 to() const { return from + along; }
  };
  template <bool X>
  void alongAxis(double other, std::vector<Interval>& into) const;
  template <bool X>
  bool stretches(double other, double moved, std::vector<Interval>& into) const;

  // Of the border, holes the other way round: within is what they wind round, for now and then the union leaves a ring
  // that lies over itself.
  std::vector<Side> sides_;
  Box box_;
};

}  // namespace armure
