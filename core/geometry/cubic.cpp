#include "geometry/cubic.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "geometry/gauss.h"

namespace armure {
namespace {

constexpr double kCollapsed = 1e-9;        // handles shorter than this have no direction
constexpr double kLengthAgreement = 1e-9;  // mm
constexpr int kMaxHalvings = 24;

double gauss(const Cubic& c, double a, double b) {
  const double half = (b - a) / 2, mid = (a + b) / 2;
  double sum = 0;
  for (const GaussNode& n : kGauss16)
    sum += n.weight * (norm(c.derivative(mid - half * n.x)) + norm(c.derivative(mid + half * n.x)));
  return half * sum;
}

double adaptiveLength(const Cubic& c, double a, double b, double whole, int halvingsLeft) {
  const double mid = (a + b) / 2;
  const double left = gauss(c, a, mid), right = gauss(c, mid, b);
  if (halvingsLeft == 0 || std::abs(left + right - whole) <= kLengthAgreement) return left + right;
  return adaptiveLength(c, a, mid, left, halvingsLeft - 1) + adaptiveLength(c, mid, b, right, halvingsLeft - 1);
}

double component(double a, double b, double c, double d, double t) {
  const double u = 1 - t;
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
}

// Roots in [lo, hi] of the Bernstein cubic by subdivision at its turning points, then bisection and Newton.
void appendRoot(const std::array<double, 4>& f, double lo, double hi, std::vector<double>& roots) {
  const auto value = [&](double t) { return component(f[0], f[1], f[2], f[3], t); };
  double flo = value(lo), fhi = value(hi);
  const auto add = [&](double t) {
    if (roots.empty() || std::abs(roots.back() - t) > 1e-9) roots.push_back(t);
  };
  if (flo == 0) return add(lo);
  if (fhi == 0) return add(hi);
  if ((flo > 0) == (fhi > 0)) return;
  for (int i = 0; i < 200 && hi - lo > 1e-16; ++i) {
    const double mid = (lo + hi) / 2;
    const double fmid = value(mid);
    if (fmid == 0 || mid == lo || mid == hi) return add(mid);
    if ((fmid > 0) == (flo > 0)) {
      lo = mid;
      flo = fmid;
    } else {
      hi = mid;
    }
  }
  add((lo + hi) / 2);
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
  return adaptiveLength(*this, 0, t, gauss(*this, 0, t), kMaxHalvings);
}

double Cubic::parameterAtLength(double s, double total) const {
  if (s <= 0) return 0;
  if (s >= total) return 1;
  double lo = 0, hi = 1, t = s / total;
  double at = lengthTo(t);  // carried on from step to step
  for (int i = 0; i < 60; ++i) {
    const double error = at - s;
    if (std::abs(error) < 1e-10) break;
    (error > 0 ? hi : lo) = t;
    const double speed = norm(derivative(t));
    double next = speed > kCollapsed ? t - error / speed : (lo + hi) / 2;
    if (next <= lo || next >= hi) next = (lo + hi) / 2;
    if (next == t) break;
    at += adaptiveLength(*this, t, next, gauss(*this, t, next), kMaxHalvings);
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
