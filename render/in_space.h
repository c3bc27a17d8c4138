// render/in_space.h
//
// What pictures of things in space share: places turned towards the viewer, which way a triangle looks, and light.
#pragma once

#include <QColor>
#include <algorithm>
#include <cmath>

#include "geometry/vec.h"

namespace armure {

constexpr Vec3 minus(const Vec3& a, const Vec3& b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
constexpr Vec3 plus(const Vec3& a, const Vec3& b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
constexpr Vec3 crossOf(const Vec3& u, const Vec3& v) {
  return {u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x};
}
inline double lengthOf(const Vec3& a) { return std::sqrt(a.x * a.x + a.y * a.y + a.z * a.z); }

// Square to a triangle, twice its area long.
constexpr Vec3 normalOf(const Vec3& a, const Vec3& b, const Vec3& c) { return crossOf(minus(b, a), minus(c, a)); }

// A place or direction as the viewer has it, who looks against z: turned about the upright, then tilted about the level
// axis; radians.
inline Vec3 turned(const Vec3& p, double turn, double tilt) {
  const double x = std::cos(turn) * p.x + std::sin(turn) * p.z, z = std::cos(turn) * p.z - std::sin(turn) * p.x;
  return {x, std::cos(tilt) * p.y - std::sin(tilt) * z, std::sin(tilt) * p.y + std::cos(tilt) * z};
}

// A colour in more or less light, -1 to 1.
inline QColor shaded(const QColor& base, double light) {
  const double l = std::clamp(0.6 + 0.45 * light, 0.4, 1.05);
  const auto lit = [&](float v) { return static_cast<float>(std::min(1.0, v * l)); };
  return QColor::fromRgbF(lit(base.redF()), lit(base.greenF()), lit(base.blueF()));
}

}  // namespace armure
