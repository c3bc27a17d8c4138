// core/alter/displacement.h
//
// How a line is displaced along its length: amounts and directions given at some places, smooth and monotone between
// them, constant beyond the first and last.
#pragma once

#include <vector>

#include "geometry/path.h"
#include "geometry/spline.h"

namespace armure {

// A function of arc length through given values, monotone between them (geometry/spline.h), with a level tangent at the
// first and last, beyond which it is constant: a line that is shifted only below the underbust leaves it smoothly.
class Amounts {
 public:
  struct At {
    double s = 0, value = 0;
  };
  // In any order; of several at one place (to 0.01 mm) the first counts. Needs one at least.
  explicit Amounts(std::vector<At> values);

  double operator()(double s) const;
  bool isZero() const;
  const std::vector<Station>& stations() const { return stations_; }

 private:
  std::vector<Station> stations_;  // y: arc length, x: value
  std::vector<double> slopes_;
};

// What a path is displaced by: at each place `across(s)`, and where its ends are taken further, `start` at its start
// and `end` at its end, in proportion to the length between.
struct Displacement {
  std::vector<Vec2> at, slope;  // at every joint of the path: how far, and how fast that changes along it
  Vec2 start = {}, end = {};
};

// The path with joints at these arc lengths too, where none is near (0.5 mm).
Path withJoints(const Path& path, std::vector<double> at);
// Arc lengths of all joints, both ends included.
std::vector<double> jointsOf(const Path& path);

// Moves every joint by its displacement and every handle with it: p1' = p1 + d + r d', r the handle's length, so that
// smooth joints stay smooth.
Path displaced(const Path& path, const Displacement& by);

// Where a place on a path lies after it was displaced, as arc length: the same part of the same cubic.
double carriedAlong(const Path& before, const Path& after, double s);

}  // namespace armure
