#include "tryon/laid_round.h"

#include <Eigen/SparseCholesky>
#include <Eigen/SparseCore>
#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numbers>

namespace armure {
namespace {

using Eigen::Vector3d;
using Eigen::VectorXd;
using std::numbers::pi;

// A field on the cloth by its values at the vertices: the least of sum A |slope - wanted|^2 + sum of holds.
class Field {
 public:
  explicit Field(const SewnMesh& mesh) : mesh_(mesh), right_(VectorXd::Zero(mesh.vertices)) {}

  // `wanted` by piece of the mesh.
  void follow(const std::function<Vec2(int piece)>& wanted) {
    for (const SewnMesh::Triangle& t : mesh_.triangles) {
      const double twice = cross(t.flat[1] - t.flat[0], t.flat[2] - t.flat[0]), area = std::abs(twice) / 2;
      std::array<Vec2, 3> slope;  // of the function that is 1 at the corner
      for (size_t i = 0; i < 3; ++i) {
        const Vec2 d = t.flat[(i + 2) % 3] - t.flat[(i + 1) % 3];
        slope[i] = {-d.y / twice, d.x / twice};
      }
      const Vec2 w = wanted(t.piece);
      for (size_t i = 0; i < 3; ++i) {
        right_[t.vertices[i]] += area * dot(slope[i], w);
        for (size_t k = 0; k < 3; ++k)
          places_.emplace_back(t.vertices[i], t.vertices[k], area * dot(slope[i], slope[k]));
      }
    }
  }
  // Holds the value between two vertices.
  void hold(int from, int to, double part, double value) {
    constexpr double kFirm = 1e3;
    const std::array<std::pair<int, double>, 2> ends{{{from, 1 - part}, {to, part}}};
    for (const auto& [a, wa] : ends) {
      right_[a] += kFirm * wa * value;
      for (const auto& [b, wb] : ends) places_.emplace_back(a, b, kFirm * wa * wb);
    }
  }
  VectorXd solve() const {
    Eigen::SparseMatrix<double> matrix(mesh_.vertices, mesh_.vertices);
    std::vector<Eigen::Triplet<double>> all = places_;
    for (int i = 0; i < mesh_.vertices; ++i) all.emplace_back(i, i, 1e-9);  // a piece that nothing holds
    matrix.setFromTriplets(all.begin(), all.end());
    const Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver(matrix);
    return solver.solve(right_);
  }

 private:
  const SewnMesh& mesh_;
  std::vector<Eigen::Triplet<double>> places_;
  VectorXd right_;
};

// Down the piece: square to its levels, else along its grain.
Vec2 downOf(const Piece& p) {
  Vec2 sum{0, 0};
  for (const LevelLine& l : p.levelLines()) sum = sum + Vec2{-(l.b - l.a).y, (l.b - l.a).x};
  if (dot(sum, sum) > 0) return unit(sum);
  const Vec2 grain = p.grainBottom - p.grainTop;
  return dot(grain, grain) > 0 ? unit(grain) : Vec2{0, 1};
}

// The angle at a part of the way round the body, by arc length.
double angleAt(const RadialBody& body, double y, double part) {
  constexpr int kParts = 60;
  std::array<double, kParts + 1> sums{};
  Vector3d last = body.skin(0, y);
  for (int i = 1; i <= kParts; ++i) {
    const Vector3d here = body.skin(pi * i / kParts, y);
    sums[static_cast<size_t>(i)] = sums[static_cast<size_t>(i) - 1] + (here - last).norm();
    last = here;
  }
  const double wanted = std::clamp(part, 0.0, 1.0) * sums.back();
  const size_t i = std::clamp<size_t>(
      static_cast<size_t>(std::upper_bound(sums.begin(), sums.end(), wanted) - sums.begin()), 1, kParts);
  return pi / kParts * (static_cast<double>(i) - 1 + (wanted - sums[i - 1]) / (sums[i] - sums[i - 1]));
}

}  // namespace

std::vector<int> centreVertices(const SewnPattern& sewn, const Pattern& pattern, Half half) {
  std::vector<int> all;
  for (const SewnPattern::Line& l : sewn.lines())
    if (isCentre(l.role) && pattern.pieces[l.piece].half == half)
      all.insert(all.end(), l.vertices.begin(), l.vertices.end());
  return all;
}

std::vector<size_t> linesOf(const SewnPattern& sewn, const Pattern& pattern, SeamKind kind) {
  std::vector<size_t> all;
  for (size_t i = 0; i < sewn.lines().size(); ++i) {
    const SewnPattern::Line& l = sewn.lines()[i];
    const auto uses = [&](const SeamSide& side) { return side.piece == l.piece && side.uses(l.edge); };
    if (std::any_of(pattern.seams.begin(), pattern.seams.end(),
                    [&](const Seam& s) { return s.kind == kind && (uses(s.a) || uses(s.b)); }))
      all.push_back(i);
  }
  return all;
}

namespace {

// A vertex of a shoulder seam and how far it lies from the shoulder point inwards, mm.
struct ShoulderVertex {
  int vertex = 0;
  double inwards = 0;
};

// The stretches of a half's shoulder from the outermost inwards, one after the other. Outlines run clockwise, so that a
// shoulder's edge runs outwards in front and inwards behind.
std::vector<ShoulderVertex> shoulderOf(const SewnPattern& sewn, const Pattern& pattern, Half half) {
  std::vector<std::vector<ShoulderVertex>> stretches;
  for (const size_t i : linesOf(sewn, pattern, SeamKind::Shoulder)) {
    const SewnPattern::Line& l = sewn.lines()[i];
    if (pattern.pieces[l.piece].half != half) continue;
    std::vector<ShoulderVertex>& stretch = stretches.emplace_back();
    for (size_t k = 0; k < l.vertices.size(); ++k)
      stretch.push_back({l.vertices[k], half == Half::Front ? l.at.back() - l.at[k] : l.at[k]});
    if (half == Half::Front) std::reverse(stretch.begin(), stretch.end());
  }
  std::vector<ShoulderVertex> all;
  double before = 0;
  while (!stretches.empty()) {
    // The one that begins where no other ends.
    const auto beginsInside = [&](const auto& s) {
      return std::any_of(stretches.begin(), stretches.end(),
                         [&](const auto& o) { return &o != &s && o.back().vertex == s.front().vertex; });
    };
    auto next = std::find_if_not(stretches.begin(), stretches.end(), beginsInside);
    if (next == stretches.end()) next = stretches.begin();
    for (const ShoulderVertex& v : *next) all.push_back({v.vertex, before + v.inwards});
    before += next->back().inwards;
    stretches.erase(next);
  }
  return all;
}

// Lays the shoulder seams on the body's shoulders.
void holdShoulders(const SewnPattern& sewn, const Pattern& pattern, const BodyForm::Shoulder& shoulder, Field& round,
                   Field& down) {
  constexpr double kHalfWay = 0.5;  // the ridge of the shoulder lies at the side of every section
  const Vec3 n = shoulder.neckPoint, p = shoulder.shoulderPoint;
  const double length = std::hypot(n.x - p.x, n.y - p.y, n.z - p.z);
  for (const Half half : {Half::Front, Half::Back})
    for (const ShoulderVertex& v : shoulderOf(sewn, pattern, half)) {
      round.hold(v.vertex, v.vertex, 0, kHalfWay);
      down.hold(v.vertex, v.vertex, 0, p.y + (n.y - p.y) * std::min(1.0, v.inwards / length));
    }
  // What ends in a strap round the neck ends at the neck point.
  for (const SewnPattern::Line& l : sewn.lines())
    if (l.role == EdgeRole::Strap)
      for (const int v : l.vertices) {
        round.hold(v, v, 0, kHalfWay);
        down.hold(v, v, 0, n.y);
      }
}

}  // namespace

std::vector<Vector3d> laidRound(const SewnPattern& sewn, const Pattern& pattern, const RadialBody& body,
                                const BodyForm::Shoulder& shoulder, const std::vector<LevelHeight>& heights,
                                double off) {
  const SewnMesh& mesh = sewn.mesh();
  Field round(mesh), down(mesh);
  round.follow([](int) { return Vec2{0, 0}; });
  for (const int v : centreVertices(sewn, pattern, Half::Front)) round.hold(v, v, 0, 0);
  for (const int v : centreVertices(sewn, pattern, Half::Back)) round.hold(v, v, 0, 1);
  holdShoulders(sewn, pattern, shoulder, round, down);
  down.follow([&](int piece) { return downOf(pattern.pieces[sewn.pieces()[static_cast<size_t>(piece)]]); });
  for (const size_t i : sewn.pieces())
    for (const Mark& m : pattern.pieces[i].levelMarks())
      for (const LevelHeight& h : heights)
        for (const Anchor* anchor : {&m.a, &m.b}) {
          const auto spot = h.level == m.id ? sewn.spot(i, *anchor) : std::nullopt;
          if (spot) down.hold(spot->from, spot->to, spot->part, h.y);
        }
  const VectorXd part = round.solve(), height = down.solve();
  std::vector<Vector3d> all;
  for (int v = 0; v < mesh.vertices; ++v) all.push_back(body.skin(angleAt(body, height[v], part[v]), height[v], off));
  return all;
}

std::vector<Vec2> middlesOf(const SewnMesh& mesh) {
  std::vector<Vec2> least, most;
  for (const SewnMesh::Triangle& t : mesh.triangles)
    for (const Vec2 p : t.flat) {
      const auto piece = static_cast<size_t>(t.piece);
      if (least.size() <= piece)
        least.resize(piece + 1, {HUGE_VAL, HUGE_VAL}), most.resize(piece + 1, {-HUGE_VAL, -HUGE_VAL});
      Vec2 &low = least[piece], &high = most[piece];
      low = {std::min(low.x, p.x), std::min(low.y, p.y)};
      high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    }
  for (size_t i = 0; i < least.size(); ++i) least[i] = 0.5 * (least[i] + most[i]);
  return least;
}

std::vector<Vector3d> carriedOver(const SewnPattern& coarse, const std::vector<Vector3d>& rest,
                                  const SewnPattern& fine) {
  std::vector<std::vector<const SewnMesh::Triangle*>> byPiece(coarse.pieces().size());
  for (const SewnMesh::Triangle& t : coarse.mesh().triangles) byPiece[static_cast<size_t>(t.piece)].push_back(&t);
  const std::vector<Vec2> before = middlesOf(coarse.mesh()), now = middlesOf(fine.mesh());
  // The triangle a place lies in, or the one it lies least outside of.
  const auto placed = [&](int piece, Vec2 p) {
    std::array<double, 3> best{};
    double inside = -HUGE_VAL;
    const SewnMesh::Triangle* found = nullptr;
    for (const SewnMesh::Triangle* t : byPiece[static_cast<size_t>(piece)]) {
      const double whole = cross(t->flat[1] - t->flat[0], t->flat[2] - t->flat[0]);
      std::array<double, 3> part{};
      for (size_t i = 0; i < 3; ++i) part[i] = cross(t->flat[(i + 1) % 3] - p, t->flat[(i + 2) % 3] - p) / whole;
      const double least = *std::min_element(part.begin(), part.end());
      if (least <= inside) continue;
      inside = least;
      best = part;
      found = t;
    }
    Vector3d at = Vector3d::Zero();
    for (size_t i = 0; found && i < 3; ++i) at += best[i] * rest[static_cast<size_t>(found->vertices[i])];
    return at;
  };
  std::vector<Vector3d> all(static_cast<size_t>(fine.mesh().vertices), Vector3d::Zero());
  std::vector<bool> done(all.size(), false);
  for (const SewnMesh::Triangle& t : fine.mesh().triangles)
    for (size_t i = 0; i < 3; ++i) {
      const auto v = static_cast<size_t>(t.vertices[i]);
      if (done[v]) continue;
      done[v] = true;
      const auto piece = static_cast<size_t>(t.piece);
      all[v] = placed(t.piece, t.flat[i] + (before[piece] - now[piece]));
    }
  return all;
}

}  // namespace armure
