#include "tryon/radial_body.h"

#include <Eigen/Dense>
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace armure {
namespace {

using Eigen::Vector3d;
using std::numbers::pi;

// Weights of four neighbours, the place at t between the second and the third; and their slopes.
struct Weights {
  std::array<double, 4> value, slope;
  explicit Weights(double t)
      : value{((-t + 2) * t - 1) * t / 2, ((3 * t - 5) * t * t + 2) / 2, ((-3 * t + 4) * t + 1) * t / 2,
              (t - 1) * t * t / 2},
        slope{(-3 * t * t + 4 * t - 1) / 2, (9 * t * t - 10 * t) / 2, (-9 * t * t + 8 * t + 1) / 2,
              (3 * t * t - 2 * t) / 2} {}
};

}  // namespace

RadialBody::RadialBody(const BodyForm& form) : top_(form.highest()) {
  rows_ = std::max(4, static_cast<int>(std::ceil((form.lowest() - form.highest()) / kStep)) + 1);
  radii_.assign(static_cast<size_t>(rows_) * kAngles, 0);
  for (int row = 0; row < rows_; ++row) {
    const double y = top_ + kStep * row;
    const FormSection s = form.section(y);
    middles_.push_back(s.axis);
    lay(row, form.torsoRing(y), s.axis);
    lay(row, form.breastOutline(y), s.axis);
  }
}

// Puts the outermost of a curve of points (x, z) into a row.
void RadialBody::lay(int row, const Polyline& curve, double middle) {
  constexpr double kBetween = pi / (kAngles - 1), kOnPlane = 1e-9;
  double* radii = &radii_[static_cast<size_t>(row) * kAngles];
  for (size_t i = 0; i + 1 < curve.size(); ++i) {
    const auto seen = [&](Vec2 v) { return Vec2{std::abs(v.x) < kOnPlane ? 0.0 : v.x, v.y - middle}; };
    const Vec2 p = seen(curve[i]), q = seen(curve[i + 1]);
    const double a = std::atan2(p.x, p.y), b = std::atan2(q.x, q.y);
    if (std::abs(a - b) > pi) continue;  // across the back's middle: its other end is there too
    const int first = static_cast<int>(std::ceil(std::min(a, b) / kBetween - 1e-9)),
              last = static_cast<int>(std::floor(std::max(a, b) / kBetween + 1e-9));
    for (int k = std::max(0, first); k <= std::min(kAngles - 1, last); ++k) {
      // Where the ray at this angle meets the line through both.
      const Vec2 ray{std::sin(k * kBetween), std::cos(k * kBetween)};
      const double across = cross(ray, q - p);
      const double r =
          std::abs(across) > 1e-12 ? cross(p, q - p) / across : std::max(std::hypot(p.x, p.y), std::hypot(q.x, q.y));
      radii[k] = std::max(radii[k], r);
    }
  }
}

double RadialBody::at(int row, int angle) const {
  row = std::clamp(row, 0, rows_ - 1);
  angle = std::abs(angle);
  if (angle >= kAngles) angle = 2 * (kAngles - 1) - angle;
  return radii_[static_cast<size_t>(row) * kAngles + static_cast<size_t>(angle)];
}

RadialBody::Local RadialBody::local(double angle, double y) const {
  constexpr double kBetween = pi / (kAngles - 1);
  const bool onForm = y > top_ && y < bottom();
  const double u = std::abs(angle) / kBetween, v = std::clamp((y - top_) / kStep, 0.0, static_cast<double>(rows_ - 1));
  const int i = std::min(static_cast<int>(u), kAngles - 2), j = std::min(static_cast<int>(v), rows_ - 2);
  const Weights around(u - i), down(v - j);
  Local l;
  for (int b = 0; b < 4; ++b) {
    double value = 0, slope = 0;
    for (int a = 0; a < 4; ++a) {
      const double r = at(j + b - 1, i + a - 1);
      value += around.value[static_cast<size_t>(a)] * r;
      slope += around.slope[static_cast<size_t>(a)] * r;
    }
    l.value += down.value[static_cast<size_t>(b)] * value;
    l.byAngle += down.value[static_cast<size_t>(b)] * slope / kBetween;
    if (onForm) l.byHeight += down.slope[static_cast<size_t>(b)] * value / kStep;
  }
  if (angle < 0) l.byAngle = -l.byAngle;
  return l;
}

double RadialBody::radius(double angle, double y) const { return local(angle, y).value; }

double RadialBody::middle(double y) const {
  const double v = std::clamp((y - top_) / kStep, 0.0, static_cast<double>(rows_ - 1));
  const size_t i = std::min(static_cast<size_t>(v), static_cast<size_t>(rows_ - 2));
  const double t = v - static_cast<double>(i);
  return (1 - t) * middles_[i] + t * middles_[i + 1];
}

Vector3d RadialBody::skin(double angle, double y, double off) const {
  const double r = radius(angle, y) + off;
  return {r * std::sin(angle), y, middle(y) + r * std::cos(angle)};
}

RadialBody::Place RadialBody::place(const Vector3d& p) const {
  const double x = p.x(), z = p.z() - middle(p.y()), r = std::max(1e-9, std::hypot(x, z));
  const double angle = std::atan2(x, z);
  const Local l = local(angle, p.y());
  // F = r - R(angle, y); the middle moves too slowly with the height to be counted.
  Vector3d slope(x / r - l.byAngle * z / (r * r), -l.byHeight, z / r + l.byAngle * x / (r * r));
  const double steep = slope.norm();
  return {(l.value - r) / steep, slope / steep, std::abs(angle)};
}

// Gauss and Newton's steps over the skin, by angle and height, from where the flat skin has the foot.
RadialBody::Place RadialBody::nearest(const Vector3d& p) const {
  constexpr double kFlat = 0.2, kFarther = 2, kSettled = 1e-4;  // mm
  constexpr double kMostTurn = 0.1, kMostDown = 10;             // rad, mm
  constexpr int kSteps = 12;
  const Place first = place(p);
  if (std::abs(first.depth) < kFlat) return first;
  const Vector3d foot = p + first.depth * first.outwards;
  double angle = std::atan2(foot.x(), foot.z() - middle(foot.y())), y = foot.y();
  Vector3d off = p - skin(angle, y);
  for (int i = 0; i < kSteps; ++i) {
    const Local l = local(angle, y);
    const double s = std::sin(angle), c = std::cos(angle), drift = (middle(y + 1) - middle(y - 1)) / 2;
    const Vector3d round(l.byAngle * s + l.value * c, 0, l.byAngle * c - l.value * s);
    const Vector3d down(l.byHeight * s, 1, l.byHeight * c + drift);
    Eigen::Matrix2d normal;
    normal << round.dot(round), round.dot(down), round.dot(down), down.dot(down);
    const Eigen::Vector2d step = normal.ldlt().solve(Eigen::Vector2d(round.dot(off), down.dot(off)));
    angle += std::clamp(step[0], -kMostTurn, kMostTurn);
    y += std::clamp(step[1], -kMostDown, kMostDown);
    off = p - skin(angle, y);
    if (std::abs(step[0]) * l.value < kSettled && std::abs(step[1]) < kSettled) break;
  }
  const double far = off.norm();
  if (!(far < std::abs(first.depth) + kFarther) || far <= 0) return first;
  const double sign = first.depth > 0 ? 1 : -1;
  return {sign * far, -sign * off / far, std::abs(std::atan2(p.x(), p.z() - middle(p.y())))};
}

}  // namespace armure
