#include "geometry/path.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numeric>
#include <stdexcept>

#include "geometry/tolerances.h"

namespace armure {
Path::Path(std::vector<Cubic> cubics) : cubics_(std::move(cubics)) {
  for (size_t i = 1; i < cubics_.size(); ++i) {
    if (distance(cubics_[i - 1].p3, cubics_[i].p0) > tolerance::kRounding)
      throw std::invalid_argument("Path: cubics do not meet");
    cubics_[i].p0 = cubics_[i - 1].p3;
  }
  lengths_.reserve(cubics_.size());
  for (const Cubic& c : cubics_) lengths_.push_back(c.length());
}

Path Path::polyline(const std::vector<Vec2>& points) {
  std::vector<Cubic> cubics;
  for (size_t i = 0; i + 1 < points.size(); ++i) cubics.push_back(Cubic::line(points[i], points[i + 1]));
  return Path(std::move(cubics));
}

Path Path::line(Vec2 from, Vec2 to) {
  Path p;
  p.cubics_ = {Cubic::line(from, to)};
  p.lengths_ = {distance(from, to)};
  return p;
}

double Path::length() const { return std::accumulate(lengths_.begin(), lengths_.end(), 0.0); }

std::pair<size_t, double> Path::locate(double s) const {
  if (cubics_.empty()) throw std::logic_error("Path: empty");
  for (size_t i = 0; i < cubics_.size(); ++i) {
    if (s <= lengths_[i] || i + 1 == cubics_.size()) return {i, cubics_[i].parameterAtLength(s, lengths_[i])};
    s -= lengths_[i];
  }
  throw std::logic_error("Path: not reached");
}

Vec2 Path::pointAt(double s) const {
  const auto [i, t] = locate(s);
  return cubics_[i].at(t);
}

Vec2 Path::tangentAt(double s) const {
  const auto [i, t] = locate(s);
  if (t <= 0) return cubics_[i].startTangent();
  if (t >= 1) return cubics_[i].endTangent();
  return unit(cubics_[i].derivative(t));
}

std::vector<Path::Place> Path::placesEvery(double apart) const {
  std::vector<Place> places;
  double before = 0;  // the length of the cubics before
  for (size_t i = 0; i < cubics_.size(); ++i) {
    const bool last = i + 1 == cubics_.size();
    Cubic::Reached reached;
    for (;;) {
      const double s = static_cast<double>(places.size()) * apart - before;
      if (s > lengths_[i] + (last ? tolerance::kRounding : 0)) break;
      reached = {s, cubics_[i].parameterAtLength(s, lengths_[i], reached)};
      const double t = reached.t;
      const Vec2 tangent = t <= 0   ? cubics_[i].startTangent()
                           : t >= 1 ? cubics_[i].endTangent()
                                    : unit(cubics_[i].derivative(t));
      places.push_back({cubics_[i].at(t), tangent});
    }
    before += lengths_[i];
  }
  return places;
}

Path::Foot Path::footNear(Vec2 point, double near) const {
  constexpr int kRounds = 8;
  constexpr double kStill = 1e-9;  // mm
  auto [k, t] = locate(std::clamp(near, 0.0, length()));
  for (int i = 0; i < kRounds; ++i) {
    const Vec2 along = cubics_[k].derivative(t);
    const double speed = norm(along);
    if (speed <= 0) break;
    const double by = dot(point - cubics_[k].at(t), along) / speed;  // mm
    double next = t + by / speed;
    // Beyond a joint it goes on in the next cubic, by what is left.
    const bool after = next > 1 && k + 1 < cubics_.size(), before = next < 0 && k > 0;
    if (after || before) {
      const double left = (after ? next - 1 : next) * speed;
      k = after ? k + 1 : k - 1;
      const double there = norm(cubics_[k].derivative(after ? 0 : 1));
      next = (after ? 0 : 1) + (there > 0 ? left / there : 0);
    }
    t = std::clamp(next, 0.0, 1.0);
    if (std::abs(by) < kStill) break;
  }
  double at = cubics_[k].lengthTo(t);
  for (size_t i = 0; i < k; ++i) at += lengths_[i];
  return {at, distance(point, cubics_[k].at(t))};
}

Path Path::reversed() const {
  Path r;
  r.cubics_.reserve(cubics_.size());
  for (auto it = cubics_.rbegin(); it != cubics_.rend(); ++it) r.cubics_.push_back(it->reversed());
  r.lengths_.assign(lengths_.rbegin(), lengths_.rend());
  return r;
}

Path Path::transformed(const Motion& m) const {
  Path r;
  r.cubics_.reserve(cubics_.size());
  for (const Cubic& c : cubics_) r.cubics_.push_back(c.transformed(m));
  r.lengths_ = lengths_;
  return r;
}

Path Path::sub(double from, double to) const {
  if (from > to) throw std::invalid_argument("Path::sub: from > to");
  std::vector<Cubic> kept;
  std::vector<double> lengths;
  double begin = 0;
  for (size_t i = 0; i < cubics_.size(); ++i) {
    const Cubic& whole = cubics_[i];
    const double len = lengths_[i];
    const double a = std::max(from - begin, 0.0), b = std::min(to - begin, len);
    begin += len;
    if (b - a <= tolerance::kRounding) continue;
    Cubic c = whole;
    const double ta = a > tolerance::kRounding ? whole.parameterAtLength(a, len) : 0.0;
    const double tb = b < len - tolerance::kRounding ? whole.parameterAtLength(b, len) : 1.0;
    if (tb < 1) c = c.split(tb).first;
    if (ta > 0) c = c.split(ta / tb).second;
    kept.push_back(c);
    lengths.push_back((tb < 1 ? b : len) - (ta > 0 ? a : 0));
  }
  if (kept.empty()) {
    const Vec2 p = pointAt(from);
    kept.push_back(Cubic{p, p, p, p});
    lengths.push_back(0);
  }
  for (size_t i = 1; i < kept.size(); ++i) kept[i].p0 = kept[i - 1].p3;
  Path r;
  r.cubics_ = std::move(kept);
  r.lengths_ = std::move(lengths);
  return r;
}

Path operator+(const Path& a, const Path& b) {
  if (!a.empty() && !b.empty() && distance(a.end(), b.start()) > tolerance::kRounding)
    throw std::invalid_argument("Path: cubics do not meet");
  Path sum = a;
  sum.cubics_.insert(sum.cubics_.end(), b.cubics_.begin(), b.cubics_.end());
  sum.lengths_.insert(sum.lengths_.end(), b.lengths_.begin(), b.lengths_.end());
  if (!a.empty() && !b.empty()) sum.cubics_[a.cubics_.size()].p0 = a.end();
  return sum;
}

std::vector<double> Path::crossings(Vec2 point, Vec2 direction) const {
  std::vector<double> found;
  double begin = 0;
  for (size_t i = 0; i < cubics_.size(); ++i) {
    const Cubic& c = cubics_[i];
    for (double t : c.crossings(point, direction)) {
      const double s = begin + c.lengthTo(t);
      if (found.empty() || s - found.back() > 1e-6) found.push_back(s);
    }
    begin += lengths_[i];
  }
  return found;
}

namespace {

// A cubic lies in the box of its control points: two that are apart cannot meet.
bool boxesApart(const Cubic& c, const Cubic& d) {
  constexpr double kMargin = 1e-6;  // mm
  const auto apart = [](std::pair<double, double> a, std::pair<double, double> b) {
    return a.second + kMargin < b.first || b.second + kMargin < a.first;
  };
  return apart(std::minmax({c.p0.x, c.p1.x, c.p2.x, c.p3.x}), std::minmax({d.p0.x, d.p1.x, d.p2.x, d.p3.x})) ||
         apart(std::minmax({c.p0.y, c.p1.y, c.p2.y, c.p3.y}), std::minmax({d.p0.y, d.p1.y, d.p2.y, d.p3.y}));
}

}  // namespace

std::vector<std::pair<double, double>> Path::meetings(const Path& other) const {
  constexpr int kPieces = 24;  // of a cubic, straight enough to find the crossings; Newton's method does the rest
  std::vector<std::pair<double, double>> found;
  double begin = 0;
  for (size_t i = 0; i < cubics_.size(); begin += lengths_[i++]) {
    double otherBegin = 0;
    for (size_t j = 0; j < other.cubics_.size(); otherBegin += other.lengths_[j++]) {
      const Cubic &c = cubics_[i], &d = other.cubics_[j];
      if (boxesApart(c, d)) continue;
      const double h = 1.0 / kPieces;
      std::array<Vec2, kPieces + 1> onC, onD;
      for (int p = 0; p <= kPieces; ++p) {
        onC[static_cast<size_t>(p)] = c.at(p * h);
        onD[static_cast<size_t>(p)] = d.at(p * h);
      }
      for (int p = 0; p < kPieces; ++p)
        for (int q = 0; q < kPieces; ++q) {
          const auto ip = static_cast<size_t>(p), iq = static_cast<size_t>(q);
          const Vec2 a = onC[ip], b = onC[ip + 1] - a, e = onD[iq], f = onD[iq + 1] - e;
          const double det = cross(b, f);
          if (std::abs(det) < 1e-12) continue;
          double t = cross(e - a, f) / det, u = cross(e - a, b) / det;
          constexpr double kSlack = 0.05;
          if (t < -kSlack || t > 1 + kSlack || u < -kSlack || u > 1 + kSlack) continue;
          t = (p + t) * h;
          u = (q + u) * h;
          for (int step = 0; step < 20; ++step) {
            const Vec2 off = c.at(t) - d.at(u), v = c.derivative(t), w = -d.derivative(u);
            const double slope = cross(v, w);
            if (std::abs(slope) < 1e-12) break;
            t -= cross(off, w) / slope;
            u -= cross(v, off) / slope;
          }
          constexpr double kEnds = 1e-9;
          if (t < -kEnds || t > 1 + kEnds || u < -kEnds || u > 1 + kEnds || distance(c.at(t), d.at(u)) > 1e-7) continue;
          const double s = begin + c.lengthTo(std::clamp(t, 0.0, 1.0));
          const bool known =
              std::any_of(found.begin(), found.end(), [&](const auto& m) { return std::abs(m.first - s) < 1e-6; });
          if (!known) found.emplace_back(s, otherBegin + d.lengthTo(std::clamp(u, 0.0, 1.0)));
        }
    }
  }
  std::sort(found.begin(), found.end());
  return found;
}

double Path::xAtDepth(double y) const {
  const auto continued = [y](Vec2 p, Vec2 tangent) {
    return tangent.y != 0 ? p.x + (y - p.y) * tangent.x / tangent.y : p.x;
  };
  if (y <= start().y) return continued(start(), startTangent());
  if (y >= end().y) return continued(end(), endTangent());
  for (const Cubic& c : cubics_) {
    const std::vector<double> t = c.crossings({0, y}, {1, 0});
    if (!t.empty()) return c.at(t.front()).x;
  }
  return continued(end(), endTangent());
}

Path Path::betweenDepths(double upper, double lower) const {
  const auto place = [&](double y, double otherwise) {
    const std::vector<double> s = crossings({0, y}, {1, 0});
    return s.empty() ? otherwise : s.front();
  };
  const double from = place(upper, 0);
  return sub(from, std::max(from, place(lower, length())));
}

std::vector<Vec2> Path::flattened(double tolerance) const {
  std::vector<Vec2> points{start()};
  for (const Cubic& c : cubics_) c.appendFlattened(points, tolerance);
  return points;
}

double Path::tightestRadius(int samples) const {
  double tightest = 0;
  for (const Cubic& c : cubics_)
    for (int i = 0; i <= samples; ++i)
      tightest = std::max(tightest, std::abs(c.curvature(static_cast<double>(i) / samples)));
  return tightest > 0 ? 1 / tightest : std::numeric_limits<double>::infinity();
}

double Path::tightestLeftRadius(int samples) const {
  double tightest = 0;
  for (const Cubic& c : cubics_)
    for (int i = 0; i <= samples; ++i) tightest = std::max(tightest, -c.curvature(static_cast<double>(i) / samples));
  return tightest > 0 ? 1 / tightest : std::numeric_limits<double>::infinity();
}

int Path::inflections(double visible) const {
  // Parts that bend one way. A part that turns by `turn` over `length` rises by about turn * length / 8.
  struct Bend {
    double turn = 0, length = 0;
    double rise() const { return std::abs(turn) * length / 8; }
  };
  constexpr int kSamples = 24;
  std::vector<Bend> bends;
  for (const Cubic& c : cubics_)
    for (int i = 0; i < kSamples; ++i) {
      const double t = (i + 0.5) / kSamples, step = norm(c.derivative(t)) / kSamples, turn = c.curvature(t) * step;
      if (bends.empty() || (turn > 0) != (bends.back().turn > 0)) bends.push_back({});
      bends.back().turn += turn;
      bends.back().length += step;
    }
  // The faintest is taken into its neighbours until all that is left can be seen.
  while (bends.size() > 1) {
    const auto faintest =
        std::min_element(bends.begin(), bends.end(), [](const Bend& a, const Bend& b) { return a.rise() < b.rise(); });
    if (faintest->rise() >= visible) break;
    const auto first = faintest == bends.begin() ? faintest : faintest - 1;
    const auto last = faintest + 1 == bends.end() ? faintest : faintest + 1;
    for (auto it = first + 1; it <= last; ++it) {
      first->turn += it->turn;
      first->length += it->length;
    }
    bends.erase(first + 1, last + 1);
  }
  return static_cast<int>(bends.size()) - 1;
}

}  // namespace armure
