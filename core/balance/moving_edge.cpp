#include "balance/moving_edge.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

#include "geometry/gauss.h"

namespace armure {
namespace {

constexpr double kReach = 100;                     // mm: L0
constexpr double kBending = 5e5;                   // mm^4: phi
constexpr double kCrumb = 0.5, kLeastBeam = 0.02;  // mm
constexpr double kSameJoint = 1e-4;                // mm

// Where an edge's velocity is sampled: Gauss-Legendre of 16 points on each of `parts` equal parts of [0, 1]. B_i' at
// each, i = 0 to 3.
struct Sample {
  double weight;
  std::array<double, 4> slopes;
};

template <size_t parts>
constexpr std::array<Sample, 2 * kGauss16.size() * parts> samples() {
  std::array<Sample, 2 * kGauss16.size() * parts> all{};
  constexpr double kHalf = 0.5 / parts;
  size_t i = 0;
  for (size_t part = 0; part < parts; ++part)
    for (const GaussNode& n : kGauss16)
      for (const double sign : {-kHalf, kHalf}) {
        const double t = (2 * static_cast<double>(part) + 1) * kHalf + sign * n.x, u = 1 - t;
        all[i++] = {kHalf * n.weight, {-3 * u * u, 3 * u * u - 6 * u * t, 6 * u * t - 3 * t * t, 3 * t * t}};
      }
  return all;
}
constexpr auto kLengthSamples = samples<2>();
constexpr auto kCurvatureSamples = samples<1>();  // steers the steps of the solution; not what they end at

constexpr double kStanding = 1e-12;  // mm: a speed that has no direction

Vec2 velocity(const Cubic& c, const Sample& s) {
  return s.slopes[0] * c.p0 + s.slopes[1] * c.p1 + s.slopes[2] * c.p2 + s.slopes[3] * c.p3;
}

}  // namespace

LengthGradient lengthGradient(const Cubic& c) {
  LengthGradient g;
  for (const Sample& s : kLengthSamples) {
    const Vec2 d = velocity(c, s);
    const double speed = norm(d);
    g.length += s.weight * speed;
    if (speed < kStanding) continue;
    const Vec2 pull = (s.weight / speed) * d;
    for (size_t i = 0; i < 4; ++i) g.by[i] = g.by[i] + s.slopes[i] * pull;
  }
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
    // A beam of length l: 12, 6l; 6l, 4l^2, divided by l^3. A crumb between a joint and a level beside it resists
    // turning no more than a beam of kCrumb, and is no shorter than kLeastBeam: its own stiffness, that of l^3 to
    // nothing, would drown all others in rounding.
    const double beamLength = std::max(l, kLeastBeam), square = beamLength * beamLength, six = 6 * beamLength;
    const double k = kBending / kReach / (square * std::max(l, kCrumb));
    for (Eigen::Index c = 0; c < 2; ++c) {
      h(a + c, a + c) += l / 2 / kReach;
      h(b + c, b + c) += l / 2 / kReach;
      const Eigen::Index index[4] = {a + c, a + 2 + c, b + c, b + 2 + c};
      const double beam[4][4] = {{12, six, -12, six},
                                 {six, 4 * square, -six, 2 * square},
                                 {-12, -six, 12, -six},
                                 {six, 2 * square, -six, 4 * square}};
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

double MovingEdge::length(size_t from, size_t to, const Eigen::VectorXd& x) const {
  double sum = 0;
  for (size_t i = from; i < to; ++i) {
    const Cubic c = moved(i, x);
    for (const Sample& s : kLengthSamples) sum += s.weight * norm(velocity(c, s));
  }
  return sum;
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

void MovingEdge::addHessian(size_t from, size_t to, const Eigen::VectorXd& x, double factor,
                            Eigen::Ref<Eigen::MatrixXd> into) const {
  for (size_t i = from; i < to; ++i) {
    const Cubic c = moved(i, x);
    // What the unknowns of a joint do to the velocity: d of the first and, the other way round, of the second; the two
    // m.
    constexpr size_t kWays = 3;
    std::array<std::array<std::array<double, 3>, kWays>, kWays> sums{};  // of xx, xy, yy
    for (const Sample& s : kCurvatureSamples) {
      const Vec2 d = velocity(c, s);
      const double speed = norm(d);
      if (speed < kStanding) continue;
      const double scale = s.weight / (speed * speed * speed);
      const std::array<double, 3> normal{scale * d.y * d.y, -scale * d.x * d.y, scale * d.x * d.x};
      const std::array<double, kWays> by{s.slopes[0] + s.slopes[1], handle1_[i] * s.slopes[1],
                                         -handle2_[i] * s.slopes[2]};
      for (size_t k = 0; k < kWays; ++k)
        for (size_t l = 0; l <= k; ++l)
          for (size_t axes = 0; axes < 3; ++axes) sums[k][l][axes] += by[k] * by[l] * normal[axes];
    }
    constexpr std::array<std::pair<size_t, double>, 4> kWayOf{{{0, 1}, {1, 1}, {0, -1}, {2, 1}}};
    const std::array<Eigen::Index, 4> first{at(i), at(i) + 2, at(i + 1), at(i + 1) + 2};
    for (size_t k = 0; k < 4; ++k)
      for (size_t l = 0; l < 4; ++l) {
        const auto [wk, sk] = kWayOf[k];
        const auto [wl, sl] = kWayOf[l];
        const auto& [xx, xy, yy] = wk >= wl ? sums[wk][wl] : sums[wl][wk];
        const double counts = factor * sk * sl;
        const Eigen::Index row = first[k], column = first[l];
        into(row, column) += counts * xx;
        into(row, column + 1) += counts * xy;
        into(row + 1, column) += counts * xy;
        into(row + 1, column + 1) += counts * yy;
      }
  }
}

}  // namespace armure
