// core/geometry/vec.h
//
// Points, directions and rigid motions of the plane. Millimetres; x to the right, y down, as on the paper. With y down
// a positive angle turns clockwise as seen.
#pragma once

#include <cmath>

namespace armure {

struct Vec2 {
  double x = 0, y = 0;
  bool operator==(const Vec2&) const = default;
};

constexpr Vec2 operator+(Vec2 a, Vec2 b) { return {a.x + b.x, a.y + b.y}; }
constexpr Vec2 operator-(Vec2 a, Vec2 b) { return {a.x - b.x, a.y - b.y}; }
constexpr Vec2 operator-(Vec2 a) { return {-a.x, -a.y}; }
constexpr Vec2 operator*(double s, Vec2 a) { return {s * a.x, s * a.y}; }
constexpr Vec2 operator*(Vec2 a, double s) { return s * a; }
constexpr Vec2 operator/(Vec2 a, double s) { return {a.x / s, a.y / s}; }

constexpr double dot(Vec2 a, Vec2 b) { return a.x * b.x + a.y * b.y; }
constexpr double cross(Vec2 a, Vec2 b) { return a.x * b.y - a.y * b.x; }
// Plain, not std::hypot: coordinates are millimetres of cloth, and this stands in the innermost loop of every length.
inline double norm(Vec2 a) { return std::sqrt(a.x * a.x + a.y * a.y); }
inline double distance(Vec2 a, Vec2 b) { return norm(b - a); }
constexpr Vec2 lerp(Vec2 a, Vec2 b, double t) { return a + t * (b - a); }

// The direction of `a`; the zero vector stays zero.
inline Vec2 unit(Vec2 a) {
  const double n = norm(a);
  return n > 0 ? a / n : Vec2{};
}

inline Vec2 rotated(Vec2 a, double angleRad) {
  const double c = std::cos(angleRad), s = std::sin(angleRad);
  return {c * a.x - s * a.y, s * a.x + c * a.y};
}

// Signed angle in (-pi, pi] that turns direction `from` into direction `to`.
inline double angleBetween(Vec2 from, Vec2 to) { return std::atan2(cross(from, to), dot(from, to)); }

// A rotation, possibly a mirroring, then a shift: p -> M p + t, with M kept as cosine, sine and handedness.
class Motion {
 public:
  constexpr Motion() = default;
  static Motion translation(Vec2 by) { return {1, 0, 1, by}; }
  static Motion rotationAbout(Vec2 pivot, double angleRad) {
    Motion m{std::cos(angleRad), std::sin(angleRad), 1, {}};
    m.shift_ = pivot - m.apply(pivot);
    return m;
  }
  // x -> -x.
  static constexpr Motion mirrorX() { return {1, 0, -1, {}}; }

  constexpr Vec2 applyToDirection(Vec2 d) const {
    const double x = handedness_ * d.x;
    return {cos_ * x - sin_ * d.y, sin_ * x + cos_ * d.y};
  }
  constexpr Vec2 apply(Vec2 p) const { return applyToDirection(p) + shift_; }
  // First this, then `next`.
  Motion then(const Motion& next) const {
    // R2 S2 R1 S1 = R(a2 + h2 a1) S2 S1, with S the mirroring and h its handedness.
    const double s1 = next.handedness_ * sin_;
    return {next.cos_ * cos_ - next.sin_ * s1, next.sin_ * cos_ + next.cos_ * s1, handedness_ * next.handedness_,
            next.apply(shift_)};
  }

 private:
  constexpr Motion(double c, double s, double handedness, Vec2 shift)
      : cos_(c), sin_(s), handedness_(handedness), shift_(shift) {}
  double cos_ = 1, sin_ = 0, handedness_ = 1;
  Vec2 shift_;
};

// A place in space, mm: x to the body's side, y down, z forward.
struct Vec3 {
  double x = 0, y = 0, z = 0;
  bool operator==(const Vec3&) const = default;
};

}  // namespace armure
