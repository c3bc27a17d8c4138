// core/geometry/arc.h
//
// Circles and other curves given by a formula, as paths. Angles in radians, measured from straight down and growing to
// the right (y grows down): p(a) = centre + r (sin a, cos a).
#pragma once

#include <functional>

#include "geometry/path.h"

namespace armure {

// The point of a circle at an angle.
Vec2 onCircle(Vec2 centre, double radius, double angleRad);

// A stretch of a circle from one angle to another; cubics of at most 0.5 rad, good to 1e-6 of the radius.
Path arc(Vec2 centre, double radius, double from, double to);

// A curve given by its place and its derivative, from one parameter to another, in cubics that have both at their ends
// (Hermite): handles a third of the derivative. Of steps of 0.1 rad round a spiral it is good to 1e-6 of its radius.
struct CurvePoint {
  Vec2 at, derivative;
};
Path curve(const std::function<CurvePoint(double)>& point, double from, double to, double step = 0.1);

}  // namespace armure
