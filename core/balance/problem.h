// core/balance/problem.h
//
// Balancing as a problem of numerics: which edges may move, what must hold, and how both are written as functions of
// one vector of unknowns. Nothing is solved here; see solve.h, and balance.h for the whole.
//
// Unknowns. Every sewn edge that gives way is cut into cubics at its notches and level marks. At each joint j it has a
// displacement d_j and a change of tangent m_j (both vectors). With r1, r2 the drafted lengths of the handles,
//   p0' = p0 + d_j     p1' = p1 + d_j + r1 m_j     p2' = p2 + d_k - r2 m_k     p3' = p3 + d_k      (k the next joint)
// so that every joint stays smooth whatever the unknowns are.
//
// Objective. With l_j the length that falls to a joint, h the chord of a cubic and L0 = 100 mm,
//   f = 1/2 sum_j (l_j / L0) |d_j|^2  +  1/2 phi sum_cubics integral |d''|^2 / L0
// the second term with d as the cubic Hermite interpolant of d_j, m_j over h (a beam's bending energy): the character
// of a line stays, no bends are added. phi = 5e5 mm^4.
//
// Constraints, all in mm and all zero when they hold:
//   stretch   length on side a - length on side b - planned ease, for every stretch of every seam
//   girth     sum of the widths - what darts take + opening - finished girth, for every level that runs round
//   corner    two sewn edges that meet at a corner keep meeting there: d of one - d of the other, along x and along y;
//             where the neighbour may not move (an opening, a centre seam, an edge that is held) d itself;
//             where it is a fold, d square to the fold, which stays straight and grows or shrinks
//   join      a sewn line that runs on across the end of a seam (a cup line, a yoke's edge, the seam itself across a
//   cross
//             seam) does so without a kink: the angles inside both pieces sum to a straight angle. The same for two
//             sewn edges that meet on one piece. A corner of more than 15 degrees in the draft is meant and left. In
//             radians times 10 mm; an angle turns with its tangent t as t + m does.
// Four corners round one crossing ask for three rows: the fourth follows, and is left out.
// Lengths by Gauss-Legendre, with the exact derivative
//   dL/dp_i = integral B_i'(t) T(t) dt,   T the unit tangent, B_i the Bernstein polynomials.
#pragma once

#include <Eigen/Core>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "balance/moving_edge.h"
#include "balance/options.h"
#include "operations/crossing.h"
#include "pattern/pattern.h"

namespace armure {

enum class Family { Stretch, Girth, Corner, Join };

// An edge that takes part. `offset` is where its unknowns begin; none when it may not move.
struct BalancedEdge {
  size_t piece = 0, edge = 0;  // numbers in the pattern and the piece (Piece::lineAt): legs of darts take part too
  MovingEdge moving;
  std::optional<Eigen::Index> offset;
};

// A point of a piece: a joint of an edge that takes part, or one that stays.
struct Foot {
  std::optional<size_t> edge;
  size_t joint = 0;
  Vec2 still;
};

// Part of a length: an edge between two of its joints, counted `factor` times.
struct LengthTerm {
  size_t edge, from, to;
  double factor;
};

// A width across a piece, counted `factor` times.
struct WidthTerm {
  Foot a, b;
  double factor;
};

// dot(direction, displacement of a joint), counted `factor` times.
struct CornerTerm {
  size_t edge, joint;
  Vec2 direction;
  double factor;
};

// The angle by which the tangent at a joint has turned, counted `factor` times.
struct TurnTerm {
  size_t edge, joint;
  Vec2 tangent;  // as drafted
  double factor;
};

// One constraint: the sum of its terms + `constant` is to be zero.
struct BalanceRow {
  Family family{};
  Message what;      // "Princess seam, bust to underbust", "Waist girth"
  std::string seam;  // id; for stretches
  std::vector<LengthTerm> lengths = {};
  std::vector<WidthTerm> widths = {};
  std::vector<CornerTerm> corners = {};
  std::vector<TurnTerm> turns = {};
  double constant = 0;
};

// The constraints to first order: the residual of every row, mm, and the Jacobian, sparse and by edge. An edge has the
// rows it takes part in, and for each of these a column: the gradient of the row by the unknowns of the edge. Every row
// is found at few edges only.
struct Linearised {
  Eigen::VectorXd residual;
  std::vector<std::vector<Eigen::Index>> rows;  // by edge
  std::vector<Eigen::MatrixXd> jacobian;        // by edge, transposed: unknowns x rows[edge]
};

class BalanceProblem {
 public:
  // Throws std::out_of_range when a seam names an edge the pattern lacks, std::invalid_argument when the two sides of a
  // seam do not carry the notches it names.
  BalanceProblem(const Pattern& drafted, const BalanceOptions& options);

  Eigen::Index unknowns() const { return unknowns_; }
  const std::vector<BalancedEdge>& edges() const { return edges_; }
  const std::vector<BalanceRow>& rows() const { return rows_; }
  // What is eased in the seams that are fitted: what the pattern plans and what the choices ask, shared out stretch by
  // stretch over the drafted lengths.
  const std::map<std::string, std::vector<PlannedEase>, std::less<>>& eases() const { return eases_; }

  // Leaves a family of constraints out: what it is for then shows on the pieces.
  void leaveOut(Family family);

  Linearised linearised(const Eigen::VectorXd& x) const;
  Eigen::VectorXd residual(const Eigen::VectorXd& x) const;
  // Hessians of the rows, each counted lambda_r times and summed, by the unknowns of each edge that moves (empty for
  // the others). Widths are left out: their feet move along them, and they are straight to first order.
  std::vector<Eigen::MatrixXd> hessians(const Eigen::VectorXd& x, const Eigen::VectorXd& lambda) const;
  // The unknowns of one edge; zero for one that may not move.
  Eigen::VectorXd part(const Eigen::VectorXd& x, size_t edge) const;
  // The part of an edge of a piece, by index; nothing when it takes no part.
  std::optional<size_t> find(size_t piece, size_t edge) const;
  // Whether a piece takes part: those of the shell; where lengths are given, all.
  bool takesPart(size_t piece) const { return !options_.lengths.empty() || drafted_.pieces[piece].layer == "shell"; }

 private:
  void collectEdges();
  void addEdge(size_t piece, size_t edge, bool held);
  void collectStretches(const Seam& seam);
  void collectLengths();
  void collectGirths();
  void takeDart(BalanceRow& row, size_t piece, size_t dart, const LevelLine& level) const;
  void collectCorners();
  void addCorner(size_t edge, bool atStart);
  void collectJoins();
  size_t mineAt(const SeamSide& side, const SeamEnd& end) const;
  std::optional<TurnTerm> turnOf(size_t piece, size_t edge, bool atStart, double factor) const;
  Foot footOf(size_t piece, const Anchor& anchor) const;
  std::vector<LengthTerm> terms(const SeamSide& side, double from, double to, double factor) const;
  void collectPattern();

  const Pattern& drafted_;
  const BalanceOptions& options_;
  std::vector<BalancedEdge> edges_;
  std::vector<BalanceRow> rows_;
  std::vector<std::vector<Eigen::Index>> rowsOf_;  // by edge
  std::map<std::string, std::vector<PlannedEase>, std::less<>> eases_;
  Eigen::Index unknowns_ = 0;
};

// The largest displacement of a joint, mm.
double largestMovement(const BalanceProblem& problem, const Eigen::VectorXd& x);

}  // namespace armure
