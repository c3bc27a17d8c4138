#include "balance/solve.h"

#include <Eigen/Cholesky>
#include <Eigen/QR>
#include <algorithm>
#include <cmath>
#include <numeric>

namespace armure {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double kStill = 1e-6;     // mm: an unknown
constexpr double kViolated = 1e-4;  // mm: a constraint that does not hold
constexpr int kMostSteps = 40;

double largest(const VectorXd& v) { return v.size() > 0 ? v.cwiseAbs().maxCoeff() : 0; }

// The linear algebra of one linearisation, edge by edge.
class Step {
 public:
  Step(const BalanceProblem& problem, const std::vector<Eigen::LLT<MatrixXd>>& hessians, Linearised linear)
      : problem_(problem), linear_(std::move(linear)) {
    const Index n = linear_.values.size();
    schur_ = MatrixXd::Zero(n, n);
    for (size_t e = 0; e < linear_.slopes.size(); ++e) {
      spread_.push_back(problem.edges()[e].offset ? MatrixXd(hessians[e].solve(linear_.slopes[e])) : MatrixXd());
      if (!problem.edges()[e].offset) continue;
      const MatrixXd part = linear_.slopes[e].transpose() * spread_[e];
      const auto& rows = linear_.rows[e];
      for (size_t i = 0; i < rows.size(); ++i)
        for (size_t j = 0; j < rows.size(); ++j)
          schur_(rows[i], rows[j]) += part(static_cast<Index>(i), static_cast<Index>(j));
    }
  }

  const VectorXd& values() const { return linear_.values; }
  const MatrixXd& spread(size_t edge) const { return spread_[edge]; }

  // lambda of the minimum on the linearised constraints. Rows that nothing movable takes part in, or that follow from
  // others, leave the system singular: least squares.
  VectorXd lambda(const VectorXd& x) const {
    VectorXd wanted = -linear_.values;
    forEachEdge([&](size_t e, Index offset, Index n) {
      const VectorXd part = linear_.slopes[e].transpose() * x.segment(offset, n);
      for (size_t k = 0; k < linear_.rows[e].size(); ++k) wanted(linear_.rows[e][k]) += part(static_cast<Index>(k));
    });
    constexpr double kWellSet = 1e-11;
    const Eigen::LDLT<MatrixXd> quick(schur_);
    if (quick.info() == Eigen::Success && quick.isPositive() && quick.rcond() > kWellSet) return quick.solve(wanted);
    return schur_.completeOrthogonalDecomposition().solve(wanted);
  }

  // H^-1 J' lambda.
  VectorXd minimum(const VectorXd& lambda) const { return applied(spread_, lambda); }
  // J' lambda.
  VectorXd pull(const VectorXd& lambda) const { return applied(linear_.slopes, lambda); }

 private:
  template <class Action>
  void forEachEdge(Action&& action) const {
    for (size_t e = 0; e < problem_.edges().size(); ++e)
      if (const auto offset = problem_.edges()[e].offset) action(e, *offset, problem_.edges()[e].moving.unknowns());
  }

  VectorXd applied(const std::vector<MatrixXd>& columns, const VectorXd& lambda) const {
    VectorXd out = VectorXd::Zero(problem_.unknowns());
    forEachEdge([&](size_t e, Index offset, Index n) {
      VectorXd mine(static_cast<Index>(linear_.rows[e].size()));
      for (size_t k = 0; k < linear_.rows[e].size(); ++k) mine(static_cast<Index>(k)) = lambda(linear_.rows[e][k]);
      if (mine.size() > 0) out.segment(offset, n) = columns[e] * mine;
    });
    return out;
  }

  const BalanceProblem& problem_;
  Linearised linear_;
  std::vector<MatrixXd> spread_;  // H^-1 J', by edge
  MatrixXd schur_;                // J H^-1 J'
};

std::vector<Eigen::LLT<MatrixXd>> factored(const BalanceProblem& problem) {
  std::vector<Eigen::LLT<MatrixXd>> all;
  for (const BalancedEdge& e : problem.edges()) all.emplace_back(e.offset ? e.moving.hessian() : MatrixXd());
  return all;
}

// A step is halved while it makes the constraints worse: far from the draft the linear model may mislead. Where they
// cannot all hold they get no better at the end, and that is not worse.
double shortened(const BalanceProblem& problem, const VectorXd& x, const VectorXd& towards, double now) {
  constexpr double kSmallest = 1.0 / 32, kGoodEnough = 1e-3;
  if (now < kGoodEnough) return 1;
  for (double part = 1; part > kSmallest; part /= 2)
    if (problem.values(x + part * towards).norm() < now * (1 + 1e-4)) return part;
  return kSmallest;
}

// The gradients of some rows against each other: J_r J_s'.
MatrixXd gramOf(const Linearised& linear, const std::vector<size_t>& rows) {
  const auto n = static_cast<Index>(rows.size());
  MatrixXd gram = MatrixXd::Zero(n, n);
  for (size_t e = 0; e < linear.slopes.size(); ++e) {
    const auto& at = linear.rows[e];
    const auto column = [&](size_t row) {
      return std::lower_bound(at.begin(), at.end(), static_cast<Index>(row)) - at.begin();
    };
    const auto has = [&](size_t row) { return std::binary_search(at.begin(), at.end(), static_cast<Index>(row)); };
    for (Index i = 0; i < n; ++i)
      for (Index j = 0; j < n; ++j) {
        const size_t a = rows[static_cast<size_t>(i)], b = rows[static_cast<size_t>(j)];
        if (has(a) && has(b)) gram(i, j) += linear.slopes[e].col(column(a)).dot(linear.slopes[e].col(column(b)));
      }
  }
  return gram;
}

// What no movement mends of these rows taken alone, to first order; by row, mm.
VectorXd unmendable(const Linearised& linear, const std::vector<size_t>& rows) {
  VectorXd c(static_cast<Index>(rows.size()));
  for (size_t i = 0; i < rows.size(); ++i) c(static_cast<Index>(i)) = linear.values(static_cast<Index>(rows[i]));
  const MatrixXd gram = gramOf(linear, rows);
  Eigen::CompleteOrthogonalDecomposition<MatrixXd> cod;
  cod.setThreshold(1e-9);
  cod.compute(gram);
  return c - gram * cod.solve(c);
}

// Sets of rows that fight. What is left over is itself orthogonal to every movement, so the rows it touches already are
// such a set; rows are then left out one by one as long as the others still cannot hold (a deletion filter).
std::vector<Conflict> conflictsIn(const Linearised& linear) {
  std::vector<size_t> all(static_cast<size_t>(linear.values.size()));
  std::iota(all.begin(), all.end(), size_t{0});
  std::vector<Conflict> conflicts;
  while (!all.empty()) {
    const VectorXd left = unmendable(linear, all);
    if (largest(left) < kViolated) break;
    std::vector<size_t> fighting;
    for (size_t i = 0; i < all.size(); ++i)
      if (std::abs(left(static_cast<Index>(i))) > 1e-3 * largest(left)) fighting.push_back(all[i]);
    for (size_t i = 0; fighting.size() > 1 && i < fighting.size();) {
      std::vector<size_t> fewer = fighting;
      fewer.erase(fewer.begin() + static_cast<std::ptrdiff_t>(i));
      if (largest(unmendable(linear, fewer)) >= kViolated) {
        fighting = std::move(fewer);
      } else {
        ++i;
      }
    }
    conflicts.push_back({fighting, largest(unmendable(linear, fighting))});
    // Without the one that is furthest out the rest of the pattern is looked at again.
    const auto worst = std::max_element(fighting.begin(), fighting.end(), [&](size_t a, size_t b) {
      return std::abs(linear.values(static_cast<Index>(a))) < std::abs(linear.values(static_cast<Index>(b)));
    });
    all.erase(std::find(all.begin(), all.end(), *worst));
  }
  return conflicts;
}

}  // namespace

Solution solve(const BalanceProblem& problem, const VectorXd& start) {
  const std::vector<Eigen::LLT<MatrixXd>> hessians = factored(problem);
  Solution s;
  s.x = start.size() == problem.unknowns() ? start : VectorXd(VectorXd::Zero(problem.unknowns()));
  for (; s.iterations < kMostSteps && !s.ended; ++s.iterations) {
    const Step step(problem, hessians, problem.linearised(s.x));
    s.lambda = step.lambda(s.x);
    const VectorXd towards = step.minimum(s.lambda) - s.x;
    s.ended = largest(towards) < kStill;
    s.x += shortened(problem, s.x, towards, step.values().norm()) * towards;
  }
  s.there = problem.linearised(s.x);
  const Step step(problem, hessians, s.there);
  const VectorXd pull = step.pull(s.lambda);
  double forces = 1;
  for (const BalancedEdge& e : problem.edges()) {
    if (!e.offset) continue;
    const Index n = e.moving.unknowns();
    const VectorXd force = e.moving.hessian() * s.x.segment(*e.offset, n);
    forces = std::max(forces, largest(force));
    s.stationarity = std::max(s.stationarity, largest(force - pull.segment(*e.offset, n)));
  }
  s.stationarity /= forces;
  if (s.ended && largest(s.there.values) > kViolated) s.conflicts = conflictsIn(s.there);
  return s;
}

std::vector<Vec2> sharesOfRows(const BalanceProblem& problem, const Solution& solution, size_t edge, size_t joint) {
  std::vector<Vec2> shares(problem.rows().size());
  const BalancedEdge& e = problem.edges()[edge];
  if (!e.offset) return shares;
  const Linearised& linear = solution.there;
  const MatrixXd spread = e.moving.hessian().llt().solve(linear.slopes[edge]);
  const Index at = MovingEdge::at(joint);
  for (size_t k = 0; k < linear.rows[edge].size(); ++k) {
    const Index r = linear.rows[edge][k], c = static_cast<Index>(k);
    shares[static_cast<size_t>(r)] = solution.lambda(r) * Vec2{spread(at, c), spread(at + 1, c)};
  }
  return shares;
}

}  // namespace armure
