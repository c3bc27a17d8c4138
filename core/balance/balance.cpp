#include "balance/balance.h"

#include <fmt/format.h>

#include <Eigen/Cholesky>
#include <Eigen/QR>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "balance/fit.h"
#include "balance/moving_edge.h"

namespace armure {
namespace {

constexpr double kHolds = 1e-7;  // mm: a constraint
constexpr double kStill = 1e-6;  // mm: an unknown
constexpr int kMostSteps = 40;
constexpr double kMostMovement = 30;  // mm
constexpr double kReported = 1e-3;    // mm: smaller movements are not worth a line

// An edge in the problem. `offset` is where its unknowns begin; none when it may not move.
struct EdgeState {
  size_t piece = 0, edge = 0;
  MovingEdge moving;
  std::optional<Eigen::Index> offset;
};

// A point of a piece on a level: a joint of an edge in the problem, or a point that stays.
struct Foot {
  std::optional<size_t> edge;
  size_t joint = 0;
  Vec2 still;
};

struct StretchRow {
  std::string what;
  size_t edge[2];
  size_t from[2], to[2];  // joints, from < to
  double ease = 0;
};

struct GirthRow {
  std::string what;
  struct Width {
    Foot a, b;
    double share;
  };
  std::vector<Width> widths;
  double constant = 0;  // opening gap - finished girth
};

double arcAt(const Path& path, Vec2 point, Vec2 across) {
  double best = 0, nearest = HUGE_VAL;
  for (double s : path.crossings(point, across)) {
    const double off = distance(path.pointAt(s), point);
    if (off < nearest) {
      nearest = off;
      best = s;
    }
  }
  return best;
}

class Balancer {
 public:
  Balancer(const Pattern& drafted, const BalanceOptions& options) : drafted_(drafted), options_(options) {}

  Balanced run() && {
    collectEdges();
    collectStretches();
    collectGirths();
    solve();
    rebuild();
    crossSeams();
    report();
    return std::move(out_);
  }

 private:
  SeamWish wishOf(const std::string& seam) const {
    const auto it = options_.seams.find(seam);
    return it == options_.seams.end() ? SeamWish::Both : it->second;
  }

  size_t edgeIndex(const Piece& piece, std::string_view id) const {
    for (size_t i = 0; i < piece.edges.size(); ++i)
      if (piece.edges[i].id == id) return i;
    throw std::out_of_range(fmt::format("balance: piece {} has no edge {}", piece.id, id));
  }

  std::optional<size_t> stateOf(size_t piece, size_t edge) const {
    for (size_t i = 0; i < edges_.size(); ++i)
      if (edges_[i].piece == piece && edges_[i].edge == edge) return i;
    return std::nullopt;
  }

  void collectEdges() {
    for (const Seam& seam : drafted_.seams) {
      const SeamWish wish = wishOf(seam.id);
      const bool gives[2] = {wish == SeamWish::Both || wish == SeamWish::FollowB,
                             wish == SeamWish::Both || wish == SeamWish::FollowA};
      for (int side = 0; side < 2; ++side) {
        const SeamSide& s = side == 0 ? seam.a : seam.b;
        const Piece& piece = drafted_.pieces.at(s.piece);
        const size_t edge = edgeIndex(piece, s.edge);
        if (stateOf(s.piece, edge)) continue;  // a dart sewn inside one edge
        EdgeState state{s.piece, edge, MovingEdge(piece.edges[edge].path, cutsOf(piece, edge)), std::nullopt};
        if (gives[side]) {
          state.offset = unknowns_;
          unknowns_ += state.moving.unknowns();
        }
        edges_.push_back(std::move(state));
      }
    }
  }

  // Notches and level marks on an edge, as arc lengths from its start.
  static std::vector<double> cutsOf(const Piece& piece, size_t edge) {
    std::vector<double> cuts;
    const Edge& e = piece.edges[edge];
    for (const Notch& n : piece.notches)
      if (n.edge == e.id) cuts.push_back(n.at);
    for (const LevelMark& l : piece.levels)
      if (const auto s = markOn(e.path, l)) cuts.push_back(*s);
    return cuts;
  }

  // Where a level mark lies on a path, if either of its ends does.
  static std::optional<double> markOn(const Path& path, const LevelMark& l) {
    for (const Vec2 p : {l.a, l.b}) {
      const double s = arcAt(path, p, l.b - l.a);
      if (distance(path.pointAt(s), p) < 1e-3) return s;
    }
    return std::nullopt;
  }

  void collectStretches() {
    for (const Seam& seam : drafted_.seams) {
      if (wishOf(seam.id) == SeamWish::Leave) continue;
      const SeamSide* sides[2] = {&seam.a, &seam.b};
      size_t state[2];
      double whole[2];
      for (int k = 0; k < 2; ++k) {
        const Piece& piece = drafted_.pieces.at(sides[k]->piece);
        const size_t edge = edgeIndex(piece, sides[k]->edge);
        state[k] = *stateOf(sides[k]->piece, edge);
        whole[k] = piece.edges[edge].path.length();
      }
      std::string from = "top";
      double last[2] = {0, 0};
      const auto add = [&](const std::string& to, double a, double b) {
        StretchRow row{fmt::format("{}, {} to {}", seam.name, from, to), {state[0], state[1]}, {}, {}, 0};
        row.ease = whole[0] > 0 ? seam.ease * (a - last[0]) / whole[0] : 0;
        const double ends[2] = {a, b};
        for (int k = 0; k < 2; ++k) {
          const auto joint = [&](double s) {
            return edges_[state[k]].moving.jointAt(sides[k]->reversed ? whole[k] - s : s);
          };
          row.from[k] = std::min(joint(last[k]), joint(ends[k]));
          row.to[k] = std::max(joint(last[k]), joint(ends[k]));
          last[k] = ends[k];
        }
        stretches_.push_back(std::move(row));
        from = to;
      };
      for (const SeamNotch& n : seam.notches) add(n.id, n.a, n.b);
      add("hem", whole[0], whole[1]);
    }
  }

  Foot footOf(size_t piece, Vec2 point, const LevelMark& mark) const {
    const Piece& p = drafted_.pieces[piece];
    for (size_t e = 0; e < p.edges.size(); ++e) {
      const auto state = stateOf(piece, e);
      if (!state) continue;
      const double s = arcAt(p.edges[e].path, point, mark.b - mark.a);
      if (distance(p.edges[e].path.pointAt(s), point) < 1e-3) return {state, edges_[*state].moving.jointAt(s), point};
    }
    return {std::nullopt, 0, point};
  }

  void collectGirths() {
    for (const PatternLevel& l : drafted_.levels) {
      if (!l.ring) continue;
      GirthRow row{l.name, {}, l.openingGap - l.finishedGirth};
      for (size_t i = 0; i < drafted_.pieces.size(); ++i) {
        const Piece& p = drafted_.pieces[i];
        const LevelMark* m = p.level(l.id);
        if (!m || p.layer != "shell") continue;
        row.widths.push_back({footOf(i, m->a, *m), footOf(i, m->b, *m), p.girthShare()});
      }
      girths_.push_back(std::move(row));
    }
  }

  Eigen::VectorXd unknownsOf(const EdgeState& e, const Eigen::VectorXd& x) const {
    return e.offset ? Eigen::VectorXd(x.segment(*e.offset, e.moving.unknowns()))
                    : Eigen::VectorXd(Eigen::VectorXd::Zero(e.moving.unknowns()));
  }

  Vec2 place(const Foot& f, const Eigen::VectorXd& x) const {
    return f.edge ? edges_[*f.edge].moving.movedJoint(f.joint, unknownsOf(edges_[*f.edge], x)) : f.still;
  }

  // Values and derivatives of all constraints: stretches, then girths.
  void evaluate(const Eigen::VectorXd& x, Eigen::VectorXd& c, Eigen::MatrixXd& j) const {
    const auto rows = static_cast<Eigen::Index>(stretches_.size() + girths_.size());
    c = Eigen::VectorXd::Zero(rows);
    j = Eigen::MatrixXd::Zero(rows, unknowns_);
    Eigen::Index r = 0;
    for (const StretchRow& row : stretches_) {
      c(r) = -row.ease;
      for (int k = 0; k < 2; ++k) {
        const EdgeState& e = edges_[row.edge[k]];
        const double sign = k == 0 ? 1 : -1;
        Eigen::VectorXd gradient = Eigen::VectorXd::Zero(e.moving.unknowns());
        c(r) += sign * e.moving.length(row.from[k], row.to[k], unknownsOf(e, x), sign, gradient);
        if (e.offset) j.row(r).segment(*e.offset, gradient.size()) += gradient.transpose();
      }
      ++r;
    }
    for (const GirthRow& row : girths_) {
      c(r) = row.constant;
      for (const GirthRow::Width& w : row.widths) {
        const Vec2 across = place(w.b, x) - place(w.a, x);
        c(r) += w.share * norm(across);
        const Vec2 along = (w.share / norm(across)) * across;
        for (const auto& [foot, sign] : {std::pair{&w.a, -1.0}, {&w.b, 1.0}}) {
          if (!foot->edge || !edges_[*foot->edge].offset) continue;
          const Eigen::Index at =
              *edges_[*foot->edge].offset + MovingEdge::kPerJoint * static_cast<Eigen::Index>(foot->joint);
          j(r, at) += sign * along.x;
          j(r, at + 1) += sign * along.y;
        }
      }
      ++r;
    }
  }

  // H^-1 applied to columns, block by block.
  Eigen::MatrixXd inverseHessianTimes(const Eigen::MatrixXd& columns) const {
    Eigen::MatrixXd out(columns.rows(), columns.cols());
    for (size_t i = 0; i < edges_.size(); ++i) {
      if (!edges_[i].offset) continue;
      const Eigen::Index n = edges_[i].moving.unknowns();
      out.middleRows(*edges_[i].offset, n) = factors_[i].solve(columns.middleRows(*edges_[i].offset, n));
    }
    return out;
  }

  void solve() {
    for (const EdgeState& e : edges_) factors_.emplace_back(e.moving.hessian());
    x_ = Eigen::VectorXd::Zero(unknowns_);
    Eigen::VectorXd c, lambda;
    Eigen::MatrixXd j;
    BalanceCertificate& cert = out_.certificate;
    for (cert.iterations = 0; cert.iterations < kMostSteps; ++cert.iterations) {
      evaluate(x_, c, j);
      const Eigen::MatrixXd spread = inverseHessianTimes(j.transpose());
      const Eigen::MatrixXd s = j * spread;
      // Constraints that nothing movable takes part in, or that follow from others, leave S singular: least squares.
      lambda = s.completeOrthogonalDecomposition().solve(j * x_ - c);
      const Eigen::VectorXd towards = spread * lambda - x_;
      const double step = unknowns_ > 0 ? towards.cwiseAbs().maxCoeff() : 0;
      x_ += shortened(towards, c.norm()) * towards;
      if (step < kStill) break;
    }
    refuseWild(c, j);
    const auto stretches = static_cast<Eigen::Index>(stretches_.size());
    const auto worst = [](const Eigen::VectorXd& v) { return v.size() > 0 ? v.cwiseAbs().maxCoeff() : 0.0; };
    cert.worstStretch = worst(c.head(stretches));
    cert.worstGirth = worst(c.tail(c.size() - stretches));
    cert.converged = std::max(cert.worstStretch, cert.worstGirth) < kHolds && cert.iterations < kMostSteps;
    if (unknowns_ > 0) cert.stationarity = (hessianTimes(x_) - j.transpose() * lambda).cwiseAbs().maxCoeff();
    for (Eigen::Index r = 0; r < c.size(); ++r) {
      if (std::abs(c(r)) < 1e-4) continue;
      const std::string& what =
          r < stretches ? stretches_[static_cast<size_t>(r)].what : girths_[static_cast<size_t>(r - stretches)].what;
      out_.unreachable.push_back(fmt::format("{}: {:.1f} mm are left with these choices", what, std::abs(c(r))));
    }
  }

  // A step is halved while it makes the constraints worse: far from the draft the linear model may mislead.
  double shortened(const Eigen::VectorXd& towards, double now) const {
    constexpr double kSmallest = 1.0 / 32, kGoodEnough = 1e-3;
    Eigen::VectorXd c;
    Eigen::MatrixXd j;
    for (double part = 1; part > kSmallest; part /= 2) {
      if (now < kGoodEnough) return part;
      evaluate(x_ + part * towards, c, j);
      if (c.norm() < now) return part;
    }
    return kSmallest;
  }

  // Where no end was reached, or only by moving edges further than anybody would cut, the pieces stay as drafted.
  void refuseWild(Eigen::VectorXd& c, Eigen::MatrixXd& j) {
    double most = 0;
    for (const EdgeState& e : edges_)
      if (e.offset)
        for (size_t joint = 0; joint < e.moving.joints(); ++joint) {
          const Eigen::Index at = *e.offset + MovingEdge::kPerJoint * static_cast<Eigen::Index>(joint);
          most = std::max(most, std::hypot(x_(at), x_(at + 1)));
        }
    const bool ended = out_.certificate.iterations < kMostSteps;
    if (!ended || !std::isfinite(most) || most > kMostMovement) {
      out_.unreachable.push_back(
          ended ? fmt::format("some edge would have to move by {:.0f} mm; the pieces stay as drafted", most)
                : std::string("no shape near the draft fits everything; the pieces stay as drafted"));
      x_.setZero();
    }
    evaluate(x_, c, j);
  }

  Eigen::VectorXd hessianTimes(const Eigen::VectorXd& x) const {
    Eigen::VectorXd out = Eigen::VectorXd::Zero(x.size());
    for (const EdgeState& e : edges_)
      if (e.offset)
        out.segment(*e.offset, e.moving.unknowns()) = e.moving.hessian() * x.segment(*e.offset, e.moving.unknowns());
    return out;
  }

  // The pieces with their sewn edges moved; what lies on them and what runs on from them goes along.
  void rebuild() {
    out_.pattern = drafted_;
    for (const EdgeState& e : edges_) {
      if (!e.offset) continue;
      const Piece& before = drafted_.pieces[e.piece];
      Piece& piece = out_.pattern.pieces[e.piece];
      const Eigen::VectorXd x = unknownsOf(e, x_);
      const std::string& id = before.edges[e.edge].id;
      piece.edges[e.edge].path = e.moving.path(x);
      for (size_t n = 0; n < before.notches.size(); ++n)
        if (before.notches[n].edge == id) piece.notches[n].at = lengthTo(e, before.notches[n].at, x);
      for (size_t l = 0; l < before.levels.size(); ++l) moveMark(e, before.levels[l], piece.levels[l], x);
    }
    for (Piece& piece : out_.pattern.pieces) followCorners(piece);
    for (Seam& seam : out_.pattern.seams)
      for (SeamNotch& n : seam.notches) {
        n.a = notchOn(seam.a, n.id);
        n.b = notchOn(seam.b, n.id);
      }
  }

  static double lengthTo(const EdgeState& e, double drafted, const Eigen::VectorXd& x) {
    Eigen::VectorXd unused = Eigen::VectorXd::Zero(e.moving.unknowns());
    return e.moving.length(0, e.moving.jointAt(drafted), x, 0, unused);
  }

  void moveMark(const EdgeState& e, const LevelMark& before, LevelMark& mark, const Eigen::VectorXd& x) const {
    const Path& path = drafted_.pieces[e.piece].edges[e.edge].path;
    for (const auto& [from, to] : {std::pair{&before.a, &mark.a}, {&before.b, &mark.b}}) {
      const double s = arcAt(path, *from, before.b - before.a);
      if (distance(path.pointAt(s), *from) < 1e-3) *to = e.moving.movedJoint(e.moving.jointAt(s), x);
    }
  }

  // Edges between moved ones keep their shape: ends and handles are shifted with the corners.
  static void followCorners(Piece& piece) {
    const size_t n = piece.edges.size();
    for (size_t i = 0; i < n; ++i) {
      Path& path = piece.edges[i].path;
      const Vec2 start = piece.edges[(i + n - 1) % n].path.end(), end = piece.edges[(i + 1) % n].path.start();
      if (distance(path.start(), start) < 1e-12 && distance(path.end(), end) < 1e-12) continue;
      if (piece.edges[i].role != EdgeRole::Top && piece.edges[i].role != EdgeRole::Hem) continue;
      std::vector<Cubic> cubics = path.cubics();
      const Vec2 first = start - path.start(), last = end - path.end();
      cubics.front().p0 = start;
      cubics.front().p1 = cubics.front().p1 + first;
      cubics.back().p2 = cubics.back().p2 + last;
      cubics.back().p3 = end;
      path = Path(std::move(cubics));
    }
  }

  double notchOn(const SeamSide& side, const std::string& id) const {
    const Piece& piece = out_.pattern.pieces[side.piece];
    for (const Notch& n : piece.notches)
      if (n.edge == side.edge && n.id == id) return side.reversed ? piece.edge(side.edge).path.length() - n.at : n.at;
    throw std::out_of_range(fmt::format("balance: piece {} has no notch {}", piece.id, id));
  }

  // Top edge and hem run on across every seam that moved: both pieces are turned by half of what is left.
  void crossSeams() {
    for (const Seam& seam : out_.pattern.seams)
      for (const bool atTop : {true, false}) {
        const SeamEnd a = seamEnd(out_.pattern, seam.a, atTop), b = seamEnd(out_.pattern, seam.b, atTop);
        if (a.acrossRole != b.acrossRole || wishOf(seam.id) == SeamWish::Leave) continue;
        const double turn = a.angleRad + b.angleRad - std::numbers::pi;
        if (std::abs(turn) < 1e-9) continue;
        for (const SeamSide* side : {&seam.a, &seam.b}) turnAcross(*side, atTop, turn / 2);
      }
  }

  // Makes the angle between the seam and the edge that runs on across it smaller.
  void turnAcross(const SeamSide& side, bool atTop, double by) {
    Piece& piece = out_.pattern.pieces[side.piece];
    const size_t i = edgeIndex(piece, side.edge), n = piece.edges.size();
    const bool leaves = atTop != side.reversed;
    Path& path = piece.edges[leaves ? (i + n - 1) % n : (i + 1) % n].path;
    std::vector<Cubic> cubics = path.cubics();
    if (leaves) {  // the other edge arrives at the corner
      Cubic& c = cubics.back();
      c.p2 = c.p3 + rotated(c.p2 - c.p3, -by);
    } else {
      Cubic& c = cubics.front();
      c.p1 = c.p0 + rotated(c.p1 - c.p0, by);
    }
    path = Path(std::move(cubics));
  }

  void report() {
    for (const EdgeState& e : edges_) {
      if (!e.offset) continue;
      const Eigen::VectorXd x = unknownsOf(e, x_);
      EdgeMove move{e.piece, drafted_.pieces[e.piece].edges[e.edge].id, 0, {}, {}, ""};
      size_t most = 0;
      for (size_t j = 0; j < e.moving.joints(); ++j) {
        const auto at = MovingEdge::kPerJoint * static_cast<Eigen::Index>(j);
        const double length = std::hypot(x(at), x(at + 1));
        if (length <= move.largest) continue;
        move.largest = length;
        move.by = {x(at), x(at + 1)};
        most = j;
      }
      if (move.largest < kReported) continue;
      move.at = e.moving.movedJoint(most, x);
      move.near = nameNear(out_.pattern.pieces[e.piece], move.at);
      out_.moves.push_back(std::move(move));
    }
    std::stable_sort(out_.moves.begin(), out_.moves.end(),
                     [](const EdgeMove& a, const EdgeMove& b) { return a.largest > b.largest; });
    out_.certificate.largestMove = out_.moves.empty() ? 0 : out_.moves.front().largest;
  }

  static std::string nameNear(const Piece& piece, Vec2 at) {
    for (const LevelMark& l : piece.levels)
      if (distance(l.a, at) < 1 || distance(l.b, at) < 1) return l.level;
    for (const auto& [role, name] : {std::pair{EdgeRole::Top, "top"}, {EdgeRole::Hem, "hem"}})
      for (const Edge& e : piece.edges)
        if (e.role == role && (distance(e.path.start(), at) < 1 || distance(e.path.end(), at) < 1)) return name;
    return "";
  }

  const Pattern& drafted_;
  const BalanceOptions& options_;
  std::vector<EdgeState> edges_;
  Eigen::Index unknowns_ = 0;
  std::vector<StretchRow> stretches_;
  std::vector<GirthRow> girths_;
  std::vector<Eigen::LLT<Eigen::MatrixXd>> factors_;
  Eigen::VectorXd x_;
  Balanced out_;
};

}  // namespace

BalanceOptions balanceOptions(const Rules& rules) {
  BalanceOptions options;
  for (const auto& [seam, wish] : rules.seamWishes())
    options.seams[seam] = wish == "follow-a"   ? SeamWish::FollowA
                          : wish == "follow-b" ? SeamWish::FollowB
                          : wish == "leave"    ? SeamWish::Leave
                                               : SeamWish::Both;
  return options;
}

Balanced balance(const Pattern& drafted, const BalanceOptions& options) { return Balancer(drafted, options).run(); }

}  // namespace armure
