#include "solid/equilibrium.h"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <optional>
#include <stdexcept>
#include <utility>

#include "solid/block_cholesky.h"

namespace armure {

using Eigen::Matrix3d;
using Eigen::Vector3d;
using Eigen::VectorXd;

SolidScene::SolidScene(SewnMesh mesh, std::vector<Vector3d> start) : mesh_(std::move(mesh)), start_(std::move(start)) {
  if (start_.size() != static_cast<size_t>(mesh_.vertices))
    throw std::invalid_argument("a scene needs a position for each vertex");
  fixed_.resize(start_.size(), {false, false, false});
}

void SolidScene::setCloth(int piece, const Cloth& cloth, double bending, double weight, Vec2 grain) {
  if (cloths_.size() <= static_cast<size_t>(piece)) cloths_.resize(static_cast<size_t>(piece) + 1);
  cloths_[static_cast<size_t>(piece)] = {cloth, bending, weight, grain};
}

const SolidScene::PieceCloth& SolidScene::clothOf(int piece) const {
  static const PieceCloth plain;
  return static_cast<size_t>(piece) < cloths_.size() ? cloths_[static_cast<size_t>(piece)] : plain;
}

void SolidScene::addBone(Bone bone) {
  if (bone.vertices.size() < 2 || bone.lengths.size() + 1 != bone.vertices.size())
    throw std::invalid_argument("a bone needs a length between each two of its vertices");
  bones_.push_back(std::move(bone));
}

void SolidScene::fix(int vertex, int axis) { fixed_[static_cast<size_t>(vertex)][static_cast<size_t>(axis)] = true; }

void SolidScene::hold(int vertex, int axis, double to, double stiffness, double most) {
  springs_.push_back({vertex, axis, to, stiffness, most});
}

void SolidScene::pull(int vertex, int axis, double force, double least) {
  pulls_.push_back({vertex, axis, force, least});
}

namespace {

// The energy along one coordinate with its first and second derivatives.
struct Along {
  double value = 0, slope = 0, bend = 0;
};

Along springAlong(double off, double stiffness, double most) {
  const double part = stiffness * off / most;  // nothing for a spring that never gives way
  const double root = std::sqrt(1 + part * part);
  return {stiffness * off * off / (1 + root), stiffness * off / root, stiffness / (root * root * root)};
}

Along pullAlong(double x, double force, double least) {
  constexpr double kStop = 10;  // N/mm
  const double under = std::max(0.0, least - x);
  return {force * x + kStop / 2 * under * under, force - kStop * under, under > 0 ? kStop : 0};
}

double cotangent(Vec2 at, Vec2 a, Vec2 b) {
  const Vec2 u = a - at, v = b - at;
  return dot(u, v) / std::abs(cross(u, v));
}

}  // namespace

// The energy of a scene and its derivatives, three for each vertex; nothing moves along a coordinate that is held.
class EnergySum {
  // 1/2 weight |sum of factor x vertex|^2: bending of cloth and of bones.
  struct Combination {
    std::vector<int> vertices;
    std::vector<double> factors;
    double weight = 0;
  };
  struct BoneLink {
    int a = 0, b = 0;
    double length = 0, stiffness = 0;  // EA
  };

 public:
  explicit EnergySum(const SolidScene& scene) : scene_(scene), areas_(scene.mesh_.areas()) {
    for (const SewnMesh::Triangle& t : scene.mesh_.triangles) {
      triangles_.emplace_back(t.flat);
      stiffness_.push_back(stiffnessOf(scene.clothOf(t.piece).cloth, scene.clothOf(t.piece).grain));
    }
    for (const SewnMesh::Hinge& h : scene.mesh_.hinges)
      combinations_.push_back(bendingOf(h, scene.clothOf(h.piece).bending));
    for (const Bone& b : scene.bones_) addBone(b);
    weigh();
    couple();
  }

  double value(const std::vector<Vector3d>& x) const {
    double sum = 0;
    for (size_t i = 0; i < triangles_.size(); ++i) sum += triangles_[i].value(corners(i, x), stiffness_[i], relaxed(i));
    for (const Combination& c : combinations_) sum += c.weight / 2 * combined(c, x).squaredNorm();
    for (const BoneLink& l : links_) {
      const double off = (at(x, l.b) - at(x, l.a)).norm() - l.length;
      sum += l.stiffness / (2 * l.length) * off * off;
    }
    for (size_t v = 0; v < x.size(); ++v) {
      if (const Touch t = touch(v, x[v]); t.depth > 0) sum += t.stiffness * areas_[v] / 2 * t.depth * t.depth;
      sum -= weights_[v] * x[v].y();
    }
    eachAlong(x, [&](int, int, const Along& e) { sum += e.value; });
    return sum;
  }

  // Fills gradient and hessian().
  double derive(const std::vector<Vector3d>& x, VectorXd& gradient) {
    gradient.setZero(3 * static_cast<Eigen::Index>(x.size()));
    hessian_->clear();
    element_ = 0;
    double sum = 0;
    for (size_t i = 0; i < triangles_.size(); ++i) {
      const ClothTriangle::Energy e = triangles_[i].energy(corners(i, x), stiffness_[i], relaxed(i));
      sum += e.value;
      take(gradient, e.gradient, e.hessian);
    }
    for (const Combination& c : combinations_) sum += bend(c, x, gradient);
    for (const BoneLink& l : links_) sum += stretch(l, x, gradient);
    for (size_t v = 0; v < x.size(); ++v) sum += press(v, x[v], gradient);
    eachAlong(x, [&](int vertex, int axis, const Along& e) {
      sum += e.value;
      gradient[3 * vertex + axis] += e.slope;
      hessian_->diagonal(vertex, axis) += e.bend;
    });
    for (size_t v = 0; v < x.size(); ++v)
      for (size_t axis = 0; axis < 3; ++axis)
        if (scene_.fixed_[v][axis]) gradient[static_cast<Eigen::Index>(3 * v + axis)] = 0;
    hessian_->isolate(scene_.fixed_);
    return sum;
  }

  BlockMatrix& hessian() { return *hessian_; }

  void tell(Rest& rest) const {
    for (size_t i = 0; i < triangles_.size(); ++i)
      rest.cloth.push_back(triangles_[i].state(corners(i, rest.positions), stiffness_[i], relaxed(i)));
    const std::vector<double> worn = areasOf(rest.positions);
    for (size_t v = 0; v < rest.positions.size(); ++v) {
      const Touch t = touch(v, rest.positions[v]);
      rest.depth.push_back(t.depth);
      rest.pressure.push_back(t.stiffness * std::max(0.0, t.depth) * areas_[v] / worn[v]);
    }
  }

 private:
  // What acts along one coordinate of a vertex.
  template <typename Take>
  void eachAlong(const std::vector<Vector3d>& x, const Take& take) const {
    for (const auto& s : scene_.springs_)
      take(s.vertex, s.axis, springAlong(at(x, s.vertex)[s.axis] - s.to, s.stiffness, s.most));
    for (const auto& p : scene_.pulls_) take(p.vertex, p.axis, pullAlong(at(x, p.vertex)[p.axis], p.force, p.least));
  }

  static const Vector3d& at(const std::vector<Vector3d>& x, int vertex) { return x[static_cast<size_t>(vertex)]; }
  double relaxed(size_t triangle) const { return scene_.clothOf(scene_.mesh_.triangles[triangle].piece).cloth.relaxed; }
  Touch touch(size_t vertex, const Vector3d& p) const {
    return scene_.body ? scene_.body(static_cast<int>(vertex), p) : Touch{};
  }

  ClothTriangle::Corners corners(size_t triangle, const std::vector<Vector3d>& x) const {
    ClothTriangle::Corners c;
    for (int i = 0; i < 3; ++i) c.col(i) = at(x, scene_.mesh_.triangles[triangle].vertices[static_cast<size_t>(i)]);
    return c;
  }

  // By vertex, as the cloth is stretched now.
  std::vector<double> areasOf(const std::vector<Vector3d>& x) const {
    std::vector<double> all(x.size(), 0);
    for (size_t i = 0; i < triangles_.size(); ++i) {
      const auto c = corners(i, x);
      const double area = (c.col(1) - c.col(0)).cross(c.col(2) - c.col(0)).norm() / 2;
      for (const int v : scene_.mesh_.triangles[i].vertices) all[static_cast<size_t>(v)] += area / 3;
    }
    return all;
  }

  static Combination bendingOf(const SewnMesh::Hinge& h, double stiffness) {
    const auto& p = h.flat;
    const double a0 = cotangent(p[0], p[1], p[2]), a1 = cotangent(p[1], p[0], p[2]);
    const double b0 = cotangent(p[0], p[1], p[3]), b1 = cotangent(p[1], p[0], p[3]);
    const double areas = (std::abs(cross(p[1] - p[0], p[2] - p[0])) + std::abs(cross(p[1] - p[0], p[3] - p[0]))) / 2;
    return {{h.vertices.begin(), h.vertices.end()}, {a1 + b1, a0 + b0, -a0 - a1, -b0 - b1}, stiffness / areas};
  }

  static Vector3d combined(const Combination& c, const std::vector<Vector3d>& x) {
    Vector3d sum = Vector3d::Zero();
    for (size_t i = 0; i < c.vertices.size(); ++i) sum += c.factors[i] * at(x, c.vertices[i]);
    return sum;
  }

  void addBone(const Bone& bone) {
    for (size_t i = 0; i + 1 < bone.vertices.size(); ++i)
      links_.push_back({bone.vertices[i], bone.vertices[i + 1], bone.lengths[i], bone.stretching});
    for (size_t i = 0; i + 2 < bone.vertices.size(); ++i) {
      const double a = bone.lengths[i], b = bone.lengths[i + 1];
      combinations_.push_back({{bone.vertices[i], bone.vertices[i + 1], bone.vertices[i + 2]},
                               {1 / a, -1 / a - 1 / b, 1 / b},
                               2 * bone.bending / (a + b)});
    }
  }

  void weigh() {
    weights_.assign(scene_.start_.size(), 0);
    for (size_t i = 0; i < triangles_.size(); ++i)
      for (const int v : scene_.mesh_.triangles[i].vertices)
        weights_[static_cast<size_t>(v)] +=
            scene_.clothOf(scene_.mesh_.triangles[i].piece).weight * triangles_[i].area() / 3;
  }

  // The vertices of every element, in the order derive() takes them.
  void couple() {
    for (const SewnMesh::Triangle& t : scene_.mesh_.triangles)
      elements_.emplace_back(t.vertices.begin(), t.vertices.end());
    for (const Combination& c : combinations_) elements_.push_back(c.vertices);
    for (const BoneLink& l : links_) elements_.push_back({l.a, l.b});
    for (int v = 0; v < scene_.mesh_.vertices; ++v) elements_.push_back({v});
    hessian_.emplace(scene_.mesh_.vertices, elements_);
  }

  // Adds the next element.
  template <typename Vector, typename Matrix>
  void take(VectorXd& gradient, const Vector& g, const Matrix& h) {
    const std::vector<int>& vertices = elements_[element_];
    for (size_t i = 0; i < vertices.size(); ++i)
      gradient.segment<3>(3 * vertices[i]) += g.template segment<3>(3 * static_cast<Eigen::Index>(i));
    hessian_->add(element_++, h);
  }

  double bend(const Combination& c, const std::vector<Vector3d>& x, VectorXd& gradient) {
    const Vector3d sum = combined(c, x);
    const auto n = static_cast<Eigen::Index>(c.vertices.size());
    Eigen::Matrix<double, 12, 1> g;
    Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, 12, 12> h = Eigen::MatrixXd::Zero(3 * n, 3 * n);
    for (Eigen::Index i = 0; i < n; ++i) {
      g.segment<3>(3 * i) = c.weight * c.factors[static_cast<size_t>(i)] * sum;
      for (Eigen::Index k = 0; k < n; ++k)
        h.block<3, 3>(3 * i, 3 * k)
            .diagonal()
            .setConstant(c.weight * c.factors[static_cast<size_t>(i)] * c.factors[static_cast<size_t>(k)]);
    }
    take(gradient, g, h);
    return c.weight / 2 * sum.squaredNorm();
  }

  double stretch(const BoneLink& l, const std::vector<Vector3d>& x, VectorXd& gradient) {
    const Vector3d d = at(x, l.b) - at(x, l.a);
    const double length = d.norm(), off = length - l.length, k = l.stiffness / l.length;
    const Vector3d along = d / length;
    const Matrix3d axis = along * along.transpose();
    const Matrix3d block = k * (axis + std::max(0.0, off / length) * (Matrix3d::Identity() - axis));
    Eigen::Matrix<double, 6, 1> g;
    g << -k * off * along, k * off * along;
    Eigen::Matrix<double, 6, 6> h;
    h << block, -block, -block, block;
    take(gradient, g, h);
    return k / 2 * off * off;
  }

  double press(size_t vertex, const Vector3d& p, VectorXd& gradient) {
    const Touch t = touch(vertex, p);
    const double depth = std::max(0.0, t.depth), k = depth > 0 ? t.stiffness * areas_[vertex] : 0;
    Vector3d g = -k * depth * t.outwards;
    g.y() -= weights_[vertex];
    take(gradient, g, Matrix3d(k * t.outwards * t.outwards.transpose()));
    return k / 2 * depth * depth - weights_[vertex] * p.y();
  }

  const SolidScene& scene_;
  std::vector<double> areas_, weights_;  // by vertex
  std::vector<ClothTriangle> triangles_;
  std::vector<Matrix3d> stiffness_;
  std::vector<Combination> combinations_;
  std::vector<BoneLink> links_;
  std::vector<std::vector<int>> elements_;  // by vertex
  std::optional<BlockMatrix> hessian_;
  size_t element_ = 0;
};

namespace {

// A direction down, damped as far as the matrix asks for it. Nothing when it cannot be factored at all.
std::optional<VectorXd> newtonStep(BlockMatrix& hessian, BlockCholesky& factor, const VectorXd& gradient) {
  constexpr double kLeast = 1e-6;  // N/mm on the diagonal at first, then ten times as much each time
  double damping = 0;
  for (int attempt = 0; attempt < 12; ++attempt) {
    const double more = attempt == 0 ? kLeast : 9 * damping;
    damping += more;
    for (int v = 0; v < hessian.vertices(); ++v)
      for (int axis = 0; axis < 3; ++axis) hessian.diagonal(v, axis) += more;
    if (!factor.compute(hessian)) continue;
    VectorXd step = factor.solve(-gradient);
    if (step.allFinite() && step.dot(gradient) < 0) return step;
  }
  return std::nullopt;
}

std::vector<Vector3d> moved(std::vector<Vector3d> x, const VectorXd& step, double part) {
  for (size_t v = 0; v < x.size(); ++v) x[v] += part * step.segment<3>(3 * static_cast<Eigen::Index>(v));
  return x;
}

// The furthest a vertex goes.
double longestOf(const VectorXd& step) {
  return std::sqrt(step.reshaped(3, step.size() / 3).colwise().squaredNorm().maxCoeff());
}

// How far to go along a step: first all of it, or as far as the longest may go, halved until the energy falls; then,
// where the fall says that a parabola through it has its lowest place elsewhere, there, if that is lower still.
class LineSearch {
 public:
  LineSearch(const EnergySum& sum, const Rest& from, const VectorXd& step, double slope, double most)
      : sum_(sum), from_(from), step_(step), slope_(slope), most_(most) {
    constexpr int kHalvings = 25;
    constexpr double kEnough = 1e-4;  // of the fall the slope promises
    double part = std::min(1.0, most);
    go(part);
    for (int i = 0; i < kHalvings && !(energy <= from.energy + kEnough * part * slope); ++i) go(part /= 2);
    if (energy <= from.energy) tryLowest(part);
  }

  std::vector<Vector3d> positions;
  double energy = 0;

 private:
  void go(double part) {
    positions = moved(from_.positions, step_, part);
    energy = sum_.value(positions);
  }
  void tryLowest(double part) {
    constexpr double kFurther = 2.5, kAlike = 0.2;
    const double bend = (energy - from_.energy - part * slope_) / (part * part);
    const double lowest = std::min({bend > 0 ? -slope_ / (2 * bend) : HUGE_VAL, kFurther * part, most_});
    if (std::abs(lowest - part) < kAlike * part) return;
    std::vector<Vector3d> other = moved(from_.positions, step_, lowest);
    const double value = sum_.value(other);
    if (value >= energy) return;
    energy = value;
    positions = std::move(other);
  }

  const EnergySum& sum_;
  const Rest& from_;
  const VectorXd& step_;
  const double slope_, most_;
};

}  // namespace

Rest settle(const SolidScene& scene, const SettleOptions& options) {
  constexpr double kAlmost = 4;
  EnergySum sum(scene);
  BlockCholesky factor(sum.hessian());
  Rest rest;
  rest.positions = scene.start();
  VectorXd gradient;
  while (rest.steps < options.mostSteps && !rest.settled) {
    rest.stopped = options.stop && options.stop();
    if (rest.stopped) break;
    rest.energy = sum.derive(rest.positions, gradient);
    const auto step = newtonStep(sum.hessian(), factor, gradient);
    if (!step) break;
    const double longest = longestOf(*step), slope = gradient.dot(*step);
    rest.settled = longest < options.stopAt || -slope < options.stopFall * (1 + std::abs(rest.energy));
    LineSearch search(sum, rest, *step, slope, options.longestStep / longest);
    ++rest.steps;
    if (!(search.energy <= rest.energy)) {  // no further down to the accuracy of the sum and of the contact
      rest.settled = rest.settled || longest < kAlmost * options.stopAt;
      break;
    }
    rest.positions = std::move(search.positions);
    rest.energy = search.energy;
  }
  sum.tell(rest);
  return rest;
}

}  // namespace armure
