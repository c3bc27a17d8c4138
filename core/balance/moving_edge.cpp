#include "balance/moving_edge.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

#include "geometry/gauss.h"

namespace armure {
namespace {

constexpr double kReach = 100;       // mm: L0
constexpr double kBending = 5e5;     // mm^4: phi
constexpr double kSameJoint = 1e-4;  // mm

// Bernstein derivatives of degree 3 at t.
std::array<double, 4> bernsteinSlopes(double t) {
  const double u = 1 - t;
  return {-3 * u * u, 3 * u * u - 6 * u * t, 6 * u * t - 3 * t * t, 3 * t * t};
}

void addSamples(const Cubic& c, double from, double to, LengthGradient& g) {
  const double half = (to - from) / 2, mid = (from + to) / 2;
  for (const GaussNode& n : kGauss16)
    for (const double sign : {-1.0, 1.0}) {
      const double t = mid + sign * half * n.x;
      const Vec2 d = c.derivative(t);
      const double speed = norm(d), weight = half * n.weight;
      g.length += weight * speed;
      if (speed < 1e-12) continue;
      const auto slopes = bernsteinSlopes(t);
      for (size_t i = 0; i < 4; ++i) g.by[i] = g.by[i] + (weight * slopes[i] / speed) * d;
    }
}

}  // namespace

LengthGradient lengthGradient(const Cubic& c) {
  LengthGradient g;
  addSamples(c, 0, 0.5, g);
  addSamples(c, 0.5, 1, g);
  return g;
}

MovingEdge::MovingEdge(const Path& path, const std::vector<double>& cuts) {
  std::vector<double> all = cuts;
  all.push_back(0);
  all.push_back(path.length());
  double at = 0;
  for (const Cubic& c : path.cubics()) all.push_back(at += c.length());
  std::sort(all.begin(), all.end());
  for (double s : all)
    if (s >= -kSameJoint && s <= path.length() + kSameJoint && (along_.empty() || s - along_.back() > kSameJoint))
      along_.push_back(std::clamp(s, 0.0, path.length()));
  for (size_t i = 0; i + 1 < along_.size(); ++i) {
    const Path part = path.sub(along_[i], along_[i + 1]);
    // A drafted joint within rounding of a cut leaves a crumb beside the cubic; the cubic is what counts.
    const auto longest =
        std::max_element(part.cubics().begin(), part.cubics().end(),
                         [](const Cubic& a, const Cubic& b) { return distance(a.p0, a.p3) < distance(b.p0, b.p3); });
    cubics_.push_back(*longest);
    if (i > 0) cubics_[i].p0 = cubics_[i - 1].p3;
  }
  for (const Cubic& c : cubics_) {
    handle1_.push_back(distance(c.p0, c.p1));
    handle2_.push_back(distance(c.p2, c.p3));
  }
}

size_t MovingEdge::jointAt(double s) const {
  for (size_t j = 0; j < along_.size(); ++j)
    if (std::abs(along_[j] - s) <= 2 * kSameJoint) return j;
  throw std::invalid_argument("MovingEdge: no joint there");
}

Eigen::MatrixXd MovingEdge::hessian() const {
  Eigen::MatrixXd h = Eigen::MatrixXd::Zero(unknowns(), unknowns());
  for (size_t i = 0; i < cubics_.size(); ++i) {
    const double l = along_[i + 1] - along_[i];
    const auto a = at(i), b = a + kPerJoint;
    // A beam of length l: 12, 6l; 6l, 4l^2, divided by l^3.
    const double k = kBending / kReach / (l * l * l);
    for (Eigen::Index c = 0; c < 2; ++c) {
      h(a + c, a + c) += l / 2 / kReach;
      h(b + c, b + c) += l / 2 / kReach;
      const Eigen::Index index[4] = {a + c, a + 2 + c, b + c, b + 2 + c};
      const double beam[4][4] = {{12, 6 * l, -12, 6 * l},
                                 {6 * l, 4 * l * l, -6 * l, 2 * l * l},
                                 {-12, -6 * l, 12, -6 * l},
                                 {6 * l, 2 * l * l, -6 * l, 4 * l * l}};
      for (int p = 0; p < 4; ++p)
        for (int q = 0; q < 4; ++q) h(index[p], index[q]) += k * beam[p][q];
    }
  }
  return h;
}

Cubic MovingEdge::moved(size_t i, const Eigen::VectorXd& x) const {
  const auto a = at(i), b = a + kPerJoint;
  const Vec2 da{x(a), x(a + 1)}, ma{x(a + 2), x(a + 3)}, db{x(b), x(b + 1)}, mb{x(b + 2), x(b + 3)};
  const Cubic& c = cubics_[i];
  return {c.p0 + da, c.p1 + da + handle1_[i] * ma, c.p2 + db - handle2_[i] * mb, c.p3 + db};
}

Vec2 MovingEdge::movedJoint(size_t j, const Eigen::VectorXd& x) const {
  return (j == 0 ? cubics_[0].p0 : cubics_[j - 1].p3) + displacement(x, j);
}

Path MovingEdge::path(const Eigen::VectorXd& x) const {
  std::vector<Cubic> all;
  for (size_t i = 0; i < cubics_.size(); ++i) all.push_back(moved(i, x));
  return Path(std::move(all));
}

double MovingEdge::length(size_t from, size_t to, const Eigen::VectorXd& x, double factor,
                          Eigen::Ref<Eigen::VectorXd> gradient) const {
  double sum = 0;
  for (size_t i = from; i < to; ++i) {
    const LengthGradient g = lengthGradient(moved(i, x));
    sum += g.length;
    const auto a = at(i), b = a + kPerJoint;
    const auto add = [&](Eigen::Index at, Vec2 v) {
      gradient(at) += factor * v.x;
      gradient(at + 1) += factor * v.y;
    };
    add(a, g.by[0] + g.by[1]);
    add(a + 2, handle1_[i] * g.by[1]);
    add(b, g.by[2] + g.by[3]);
    add(b + 2, -handle2_[i] * g.by[2]);
  }
  return sum;
}

}  // namespace armure
