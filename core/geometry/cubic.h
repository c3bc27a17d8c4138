// core/geometry/cubic.h
//
// One cubic Bezier curve, B(t) = (1-t)^3 p0 + 3(1-t)^2 t p1 + 3(1-t) t^2 p2 + t^3 p3, t in [0, 1]. A straight line is a
// cubic whose handles lie on it. Every edge of every piece is a chain of these (see path.h).
#pragma once

#include <utility>
#include <vector>

#include "geometry/vec.h"

namespace armure {

struct Cubic {
  Vec2 p0, p1, p2, p3;

  static Cubic line(Vec2 from, Vec2 to) { return {from, lerp(from, to, 1.0 / 3), lerp(from, to, 2.0 / 3), to}; }

  Vec2 at(double t) const;
  Vec2 derivative(double t) const;
  Vec2 secondDerivative(double t) const;

  // Direction of travel, of length 1; where a handle has collapsed, that of the next distinct control point.
  Vec2 startTangent() const;
  Vec2 endTangent() const;

  // Signed curvature in 1/mm at t; positive turns clockwise on the paper. 0 where the speed vanishes.
  double curvature(double t) const;

  // Arc length of the whole curve, or of [0, t], good to 1e-9 mm. Gauss and Kronrod's rules of 10 and 21 points (see
  // gauss.h), the stretch halved until they agree.
  double length() const { return lengthTo(1.0); }
  double lengthTo(double t) const;

  // The parameter at arc length s from the start, by Newton's method kept inside a shrinking bracket. s is clamped to
  // [0, length()]; the result is good to 1e-9 mm of length.
  double parameterAtLength(double s) const { return parameterAtLength(s, length()); }
  double parameterAtLength(double s, double wholeLength) const;  // where the whole length is known already
  // The same, walking on from a place before it: a step or two where it is near.
  struct Reached {
    double s = 0, t = 0;  // arc length and parameter
  };
  double parameterAtLength(double s, double wholeLength, const Reached& from) const;

  std::pair<Cubic, Cubic> split(double t) const;  // de Casteljau
  Cubic reversed() const { return {p3, p2, p1, p0}; }
  Cubic transformed(const Motion& m) const { return {m.apply(p0), m.apply(p1), m.apply(p2), m.apply(p3)}; }

  // Parameters in [0, 1], ascending, where the curve meets the infinite line through `point` along `direction`.
  std::vector<double> crossings(Vec2 point, Vec2 direction) const;

  // Appends points after p0 up to and with p3, so that the polyline stays within `tolerance` mm of the curve
  // (bound on the second difference: Wang's formula).
  void appendFlattened(std::vector<Vec2>& points, double tolerance) const;

  bool operator==(const Cubic&) const = default;
};

}  // namespace armure
