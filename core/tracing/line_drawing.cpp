#include "tracing/line_drawing.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "geometry/tolerances.h"

namespace armure {
namespace {

using Points = std::vector<Vec2>;

// Fits one smooth run of points.
class CurveFit {
 public:
  CurveFit(Points points, double tolerance) : points_(std::move(points)), tolerance_(tolerance) {}

  std::vector<Cubic> fitted() {
    const size_t last = points_.size() - 1;
    fit(0, last, endTangent(0, 1), endTangent(last, -1));
    return std::move(cubics_);
  }

 private:
  // The direction of travel at a point in the midst: of the circle through it and its neighbours, which for points of a
  // curve is right to second order, whatever their distances.
  Vec2 tangentAt(size_t i) const {
    const Vec2 a = points_[i] - points_[i - 1], b = points_[i + 1] - points_[i];
    const double la = norm(a), lb = norm(b);
    return unit(lb / la * a + la / lb * b);
  }
  // At an end: the chord turned by as much as the curve turns from its middle, by the circle through three points.
  Vec2 endTangent(size_t i, int step) const {
    const auto at = [&](int k) { return points_[static_cast<size_t>(static_cast<int>(i) + step * k)]; };
    const Vec2 first = at(1) - at(0);
    if (points_.size() < 3) return unit(first);
    const Vec2 second = at(2) - at(1);
    const double turn = angleBetween(first, second) * norm(first) / (norm(first) + norm(second));
    return unit(rotated(first, -turn));
  }

  Cubic bezier(size_t from, size_t to, const std::vector<double>& t, Vec2 start, Vec2 end) const {
    double c00 = 0, c01 = 0, c11 = 0, x0 = 0, x1 = 0;
    const Vec2 p0 = points_[from], p3 = points_[to];
    for (size_t i = from; i <= to; ++i) {
      const double u = t[i - from], v = 1 - u, b0 = v * v * v, b1 = 3 * u * v * v, b2 = 3 * u * u * v, b3 = u * u * u;
      const Vec2 a0 = b1 * start, a1 = b2 * end, rest = points_[i] - (b0 + b1) * p0 - (b2 + b3) * p3;
      c00 += dot(a0, a0);
      c01 += dot(a0, a1);
      c11 += dot(a1, a1);
      x0 += dot(a0, rest);
      x1 += dot(a1, rest);
    }
    const double det = c00 * c11 - c01 * c01, chord = distance(p0, p3);
    double left = det != 0 ? (x0 * c11 - x1 * c01) / det : 0, right = det != 0 ? (c00 * x1 - c01 * x0) / det : 0;
    // Handles that fold back, or run past all measure: the third of the chord.
    if (!(left > 1e-3 * chord) || !(right > 1e-3 * chord) || left > 3 * chord || right > 3 * chord)
      left = right = chord / 3;
    return {p0, p0 + left * start, p3 + right * end, p3};
  }

  std::vector<double> chordLengths(size_t from, size_t to) const {
    std::vector<double> t{0};
    for (size_t i = from + 1; i <= to; ++i) t.push_back(t.back() + distance(points_[i], points_[i - 1]));
    for (double& u : t) u /= t.back();
    return t;
  }

  // One Newton step towards the parameters at which the curve is nearest to the points.
  void reparameterise(const Cubic& c, size_t from, std::vector<double>& t) const {
    for (size_t i = 1; i + 1 < t.size(); ++i) {
      const Vec2 off = c.at(t[i]) - points_[from + i], d = c.derivative(t[i]), dd = c.secondDerivative(t[i]);
      const double slope = dot(d, d) + dot(off, dd);
      if (slope > 0) t[i] = std::clamp(t[i] - dot(off, d) / slope, 0.0, 1.0);
    }
  }

  void fit(size_t from, size_t to, Vec2 start, Vec2 end) {
    if (to - from < 2) {
      const double third = distance(points_[from], points_[to]) / 3;
      cubics_.push_back({points_[from], points_[from] + third * start, points_[to] + third * end, points_[to]});
      return;
    }
    constexpr int kSteps = 12;
    std::vector<double> t = chordLengths(from, to);
    size_t worst = from;
    for (int step = 0; step < kSteps; ++step) {
      const Cubic c = bezier(from, to, t, start, end);
      double most = 0;
      for (size_t i = from; i <= to; ++i)
        if (const double d = distance(c.at(t[i - from]), points_[i]); d > most) most = d, worst = i;
      if (most <= tolerance_) return cubics_.push_back(c);
      reparameterise(c, from, t);
    }
    worst = std::clamp(worst, from + 1, to - 1);
    const Vec2 along = tangentAt(worst);
    fit(from, worst, start, -along);
    fit(worst, to, along, end);
  }

  Points points_;
  double tolerance_;
  std::vector<Cubic> cubics_;
};

// Points of a run of straight lines, more of them where a line is long, so that the fit holds there too.
Points sampled(const Points& corners) {
  constexpr double kApart = 8;  // mm
  Points points{corners.front()};
  for (size_t i = 1; i < corners.size(); ++i) {
    const int parts = std::max(1, static_cast<int>(std::ceil(distance(corners[i - 1], corners[i]) / kApart)));
    for (int k = 1; k <= parts; ++k) points.push_back(lerp(corners[i - 1], corners[i], static_cast<double>(k) / parts));
  }
  return points;
}

// A line much longer than its neighbours was drawn straight.
bool standsAlone(const Points& p, size_t i) {
  constexpr double kLong = 12, kTimes = 4;  // mm
  const double length = distance(p[i], p[i + 1]);
  const double before = i > 0 ? distance(p[i - 1], p[i]) : 0,
               after = i + 2 < p.size() ? distance(p[i + 1], p[i + 2]) : 0;
  return length > kLong && length > kTimes * std::max(before, after);
}

void appendRun(const Points& run, double tolerance, std::vector<Cubic>& cubics) {
  constexpr size_t kFewest = 4;  // points: fewer are lines, not a curve
  if (run.size() < kFewest) {
    for (size_t i = 1; i < run.size(); ++i) cubics.push_back(Cubic::line(run[i - 1], run[i]));
    return;
  }
  for (const Cubic& c : CurveFit(sampled(run), tolerance).fitted()) cubics.push_back(c);
}

// A chain of straight lines, cut at corners and at lines that stand alone.
void appendSmooth(const Points& points, double tolerance, std::vector<Cubic>& cubics) {
  Points run{points.front()};
  const auto end = [&] {
    if (run.size() > 1) appendRun(run, tolerance, cubics);
    run = {run.back()};
  };
  for (size_t i = 0; i + 1 < points.size(); ++i) {
    const bool corner = i > 0 && std::abs(angleBetween(points[i] - points[i - 1], points[i + 1] - points[i])) > kCorner;
    if (corner || standsAlone(points, i)) end();
    run.push_back(points[i + 1]);
    if (standsAlone(points, i)) end();
  }
  end();
}

}  // namespace

bool isStraight(const Cubic& c) {
  const Vec2 along = unit(c.p3 - c.p0);
  return std::abs(cross(along, c.p1 - c.p0)) < tolerance::kSamePlace &&
         std::abs(cross(along, c.p2 - c.p0)) < tolerance::kSamePlace;
}

LineDrawing scaled(const LineDrawing& drawing, double factor) {
  LineDrawing out = drawing;
  for (DrawnShape& s : out.shapes) {
    std::vector<Cubic> cubics = s.path.cubics();
    for (Cubic& c : cubics)
      for (Vec2* p : {&c.p0, &c.p1, &c.p2, &c.p3}) *p = factor * *p;
    s.path = Path(std::move(cubics));
  }
  for (DrawnWord& w : out.words) w.at = factor * w.at;
  return out;
}

Path smoothed(const Path& path, double tolerance) {
  std::vector<Cubic> cubics;
  Points straight;
  const auto end = [&] {
    if (straight.size() > 1) appendSmooth(straight, tolerance, cubics);
    straight.clear();
  };
  for (const Cubic& c : path.cubics()) {
    if (!isStraight(c)) {
      end();
      cubics.push_back(c);
      continue;
    }
    if (straight.empty()) straight.push_back(c.p0);
    if (distance(straight.back(), c.p3) > tolerance::kNothing) straight.push_back(c.p3);
  }
  end();
  for (size_t i = 1; i < cubics.size(); ++i) cubics[i].p0 = cubics[i - 1].p3;
  return cubics.empty() ? path : Path(std::move(cubics));
}

}  // namespace armure
