#include "geometry/cubic.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "geometry/gauss.h"

namespace armure {
namespace {

constexpr double kCollapsed = 1e-9;        // handles shorter than this have no direction
constexpr double kLengthAgreement = 1e-8;  // mm, between the rules; the finer one is then good to 1e-9
constexpr double kEven = 1e-12;            // mm: the speed of a straight line changes by no more
constexpr int kMaxHalvings = 24;

// The derivative of a cubic, a + b t + c t^2.
struct Speed {
  Vec2 a, b, c;

  explicit Speed(const Cubic& q)
      : a(3 * (q.p1 - q.p0)), b(6 * (q.p0 - 2 * q.p1 + q.p2)), c(3 * (q.p3 - q.p0 + 3 * (q.p1 - q.p2))) {}

  // Length of [from, to]. At mid -+ s the derivative is (A + c s^2) -+ B s, with A and B as at mid.
  double length(double from, double to, int halvingsLeft = kMaxHalvings) const {
    if (std::max({std::abs(b.x), std::abs(b.y), std::abs(c.x), std::abs(c.y)}) < kEven) return norm(a) * (to - from);
    using Rule = KronrodPair;
    const double half = (to - from) / 2, mid = (from + to) / 2;
    const Vec2 middle = a + mid * (b + mid * c), slope = b + 2 * mid * c;
    std::array<double, Rule::kNodes> both;
    for (size_t i = 0; i < both.size(); ++i) {
      const double s = half * Rule::x[i];
      const Vec2 even = middle + (s * s) * c, odd = s * slope;
      both[i] = norm(even - odd) + norm(even + odd);
    }
    double fine = Rule::fineMiddle * norm(middle), coarse = 0;
    for (size_t i = 0; i < both.size(); ++i) {
      fine += Rule::fine[i] * both[i];
      coarse += Rule::coarse[i] * both[i];
    }
    if (halvingsLeft == 0 || std::abs(half * (fine - coarse)) <= kLengthAgreement) return half * fine;
    return length(from, mid, halvingsLeft - 1) + length(mid, to, halvingsLeft - 1);
  }
};

double component(double a, double b, double c, double d, double t) {
  const double u = 1 - t;
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
}

// The root of the Bernstein cubic in [lo, hi], where it turns nowhere: Newton's method kept inside a shrinking bracket.
void appendRoot(const std::array<double, 4>& f, double lo, double hi, std::vector<double>& roots) {
  const auto value = [&](double t) { return component(f[0], f[1], f[2], f[3], t); };
  const double flo = value(lo), fhi = value(hi);
  const auto add = [&](double t) {
    if (roots.empty() || std::abs(roots.back() - t) > 1e-9) roots.push_back(t);
  };
  if (flo == 0) return add(lo);
  if (fhi == 0) return add(hi);
  if ((flo > 0) == (fhi > 0)) return;
  double t = lo + (hi - lo) * flo / (flo - fhi);
  for (int i = 0; i < 200; ++i) {
    const double here = value(t), u = 1 - t;
    if (here == 0) break;
    ((here > 0) == (flo > 0) ? lo : hi) = t;
    const double slope = 3 * (u * u * (f[1] - f[0]) + 2 * u * t * (f[2] - f[1]) + t * t * (f[3] - f[2]));
    double next = slope != 0 ? t - here / slope : lo;
    if (next <= lo || next >= hi) next = (lo + hi) / 2;
    if (std::abs(next - t) < 1e-16 || next == lo || next == hi) break;
    t = next;
  }
  add(t);
}

}  // namespace

Vec2 Cubic::at(double t) const {
  const double u = 1 - t;
  return u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3;
}

Vec2 Cubic::derivative(double t) const {
  const double u = 1 - t;
  return 3 * (u * u * (p1 - p0) + 2 * u * t * (p2 - p1) + t * t * (p3 - p2));
}

Vec2 Cubic::secondDerivative(double t) const { return 6 * ((1 - t) * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1)); }

Vec2 Cubic::startTangent() const {
  for (Vec2 q : {p1, p2, p3})
    if (distance(p0, q) > kCollapsed) return unit(q - p0);
  return {};
}

Vec2 Cubic::endTangent() const { return -reversed().startTangent(); }

double Cubic::curvature(double t) const {
  const Vec2 d = derivative(t);
  const double speed = norm(d);
  return speed > kCollapsed ? cross(d, secondDerivative(t)) / (speed * speed * speed) : 0;
}

double Cubic::lengthTo(double t) const {
  t = std::clamp(t, 0.0, 1.0);
  return Speed(*this).length(0, t);
}

double Cubic::parameterAtLength(double s, double total) const {
  if (s <= 0) return 0;
  return parameterAtLength(s, total, {});
}

double Cubic::parameterAtLength(double s, double total, const Reached& from) const {
  if (s <= from.s) return from.t;
  if (s >= total) return 1;
  const Speed along(*this);
  const double speedThere = from.t > 0 ? norm(derivative(from.t)) : total;
  double lo = from.t, hi = 1, t = speedThere > kCollapsed ? lo + (s - from.s) / speedThere : hi;
  if (t >= hi) t = (lo + hi) / 2;
  double at = from.s + along.length(lo, t);  // carried on from step to step
  for (int i = 0; i < 60; ++i) {
    const double error = at - s;
    if (std::abs(error) < 1e-10) break;
    (error > 0 ? hi : lo) = t;
    const double speed = norm(derivative(t));
    double next = speed > kCollapsed ? t - error / speed : (lo + hi) / 2;
    if (next <= lo || next >= hi) next = (lo + hi) / 2;
    if (next == t) break;
    at += along.length(t, next);
    t = next;
  }
  return t;
}

std::pair<Cubic, Cubic> Cubic::split(double t) const {
  const Vec2 a = lerp(p0, p1, t), b = lerp(p1, p2, t), c = lerp(p2, p3, t);
  const Vec2 ab = lerp(a, b, t), bc = lerp(b, c, t);
  const Vec2 m = lerp(ab, bc, t);
  return {Cubic{p0, a, ab, m}, Cubic{m, bc, c, p3}};
}

std::vector<double> Cubic::crossings(Vec2 point, Vec2 direction) const {
  const Vec2 d = unit(direction);
  const std::array<double, 4> f{cross(d, p0 - point), cross(d, p1 - point), cross(d, p2 - point), cross(d, p3 - point)};
  // Turning points of f: its derivative is the Bernstein quadratic with these coefficients.
  const double a = f[1] - f[0], b = f[2] - f[1], c = f[3] - f[2];
  std::vector<double> cuts{0};
  const double qa = a - 2 * b + c, qb = 2 * (b - a), qc = a;
  if (std::abs(qa) > 1e-14) {
    const double disc = qb * qb - 4 * qa * qc;
    if (disc > 0) {
      const double q = -0.5 * (qb + std::copysign(std::sqrt(disc), qb));
      for (double t : {q / qa, q != 0 ? qc / q : -1.0})
        if (t > 0 && t < 1) cuts.push_back(t);
    }
  } else if (std::abs(qb) > 1e-14) {
    const double t = -qc / qb;
    if (t > 0 && t < 1) cuts.push_back(t);
  }
  cuts.push_back(1);
  std::sort(cuts.begin(), cuts.end());
  std::vector<double> roots;
  for (size_t i = 0; i + 1 < cuts.size(); ++i) appendRoot(f, cuts[i], cuts[i + 1], roots);
  return roots;
}

void Cubic::appendFlattened(std::vector<Vec2>& points, double tolerance) const {
  const double bend = std::max(norm(p0 - 2 * p1 + p2), norm(p1 - 2 * p2 + p3));
  const int n = std::max(1, static_cast<int>(std::ceil(std::sqrt(0.75 * bend / tolerance))));
  for (int i = 1; i < n; ++i) points.push_back(at(static_cast<double>(i) / n));
  points.push_back(p3);
}

}  // namespace armure
