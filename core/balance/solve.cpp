#include "balance/solve.h"

#include <Eigen/Cholesky>
#include <Eigen/QR>
#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>
#include <tuple>

#include "balance/tridiagonal_cholesky.h"

namespace armure {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double kStill = 1e-6;     // mm: an unknown
constexpr double kHolds = 1e-7;     // mm: a constraint
constexpr double kViolated = 1e-4;  // mm: a constraint that does not hold
constexpr int kMostSteps = 40;
constexpr double kNearlyStill = 0.05,
                 kNearlyHolds = 1e-2;  // mm: where rounding keeps the last steps from becoming still

double largest(const VectorXd& v) { return v.size() > 0 ? v.cwiseAbs().maxCoeff() : 0; }

template <class Action>
void forEachMoving(const BalanceProblem& problem, Action&& action) {
  for (size_t e = 0; e < problem.edges().size(); ++e)
    if (const auto offset = problem.edges()[e].offset) action(e, *offset, problem.edges()[e].moving.unknowns());
}

// J' v.
VectorXd pulled(const BalanceProblem& problem, const Linearised& linear, const VectorXd& v) {
  VectorXd out = VectorXd::Zero(problem.unknowns());
  forEachMoving(problem, [&](size_t e, Index offset, Index n) {
    const auto& rows = linear.rows[e];
    for (size_t k = 0; k < rows.size(); ++k)
      out.segment(offset, n) += v(rows[k]) * linear.jacobian[e].col(static_cast<Index>(k));
  });
  return out;
}

// J x.
VectorXd along(const BalanceProblem& problem, const Linearised& linear, const VectorXd& x) {
  VectorXd out = VectorXd::Zero(linear.residual.size());
  forEachMoving(problem, [&](size_t e, Index offset, Index n) {
    const VectorXd part = linear.jacobian[e].transpose() * x.segment(offset, n);
    for (size_t k = 0; k < linear.rows[e].size(); ++k) out(linear.rows[e][k]) += part(static_cast<Index>(k));
  });
  return out;
}

// A block for each edge that moves.
class Blocks {
 public:
  explicit Blocks(const BalanceProblem& problem) : problem_(problem) {
    for (const BalancedEdge& e : problem.edges()) {
      hessians_.push_back(e.offset ? e.moving.hessian() : MatrixXd());
      plain_.emplace_back(hessians_.back());
    }
  }

  // H x.
  VectorXd timesHessian(const VectorXd& x) const {
    return byEdge(x, [&](size_t e, const auto& part) { return VectorXd(hessians_[e] * part); });
  }

  // W = H - sum lambda_r C_r, factored; where a block of it is not positive, that of H.
  std::vector<TridiagonalCholesky> factored(const VectorXd& x, const VectorXd& lambda) const {
    if (lambda.size() == 0) return plain_;
    std::vector<TridiagonalCholesky> all = plain_;
    const std::vector<MatrixXd> bent = problem_.hessians(x, lambda);
    forEachMoving(problem_, [&](size_t e, Index, Index) {
      TridiagonalCholesky with(hessians_[e] - bent[e]);
      if (with.isPositive()) all[e] = std::move(with);
    });
    return all;
  }

  template <class Action>
  VectorXd byEdge(const VectorXd& x, Action&& action) const {
    VectorXd out(x.size());
    forEachMoving(problem_,
                  [&](size_t e, Index offset, Index n) { out.segment(offset, n) = action(e, x.segment(offset, n)); });
    return out;
  }

 private:
  const BalanceProblem& problem_;
  std::vector<MatrixXd> hessians_;
  std::vector<TridiagonalCholesky> plain_;
};

// J W^-1 J'.
MatrixXd schurOf(const BalanceProblem& problem, const Linearised& linear,
                 const std::vector<TridiagonalCholesky>& blocks) {
  const Index n = linear.residual.size();
  MatrixXd schur = MatrixXd::Zero(n, n);
  forEachMoving(problem, [&](size_t e, Index, Index) {
    const MatrixXd half = blocks[e].half(linear.jacobian[e]), part = half.transpose() * half;
    const auto& rows = linear.rows[e];
    for (size_t i = 0; i < rows.size(); ++i)
      for (size_t j = 0; j < rows.size(); ++j)
        schur(rows[i], rows[j]) += part(static_cast<Index>(i), static_cast<Index>(j));
  });
  return schur;
}

// S = J W^-1 J', positive semidefinite, factored. Rows that nothing movable takes part in, or that follow from others,
// leave it singular: then the shortest lambda of least squares, by a rank-revealing decomposition (a complete
// orthogonal one, from QR with column pivoting). The pivots of Eigen's L D L' tell that S is singular, but not its
// rank: they are chosen before they are updated and need not fall.
class FactoredSchur {
 public:
  explicit FactoredSchur(MatrixXd schur) : schur_(std::move(schur)), factor_(schur_) {
    constexpr double kFollows = 1e-10;  // of the largest pivot
    const VectorXd pivots = factor_.vectorD();
    if (pivots.size() == 0 || pivots.minCoeff() > kFollows * pivots.maxCoeff()) return;
    complete_.emplace();
    complete_->setThreshold(kFollows);
    complete_->compute(schur_);
  }

  VectorXd solve(const VectorXd& wanted) const {
    return complete_ ? refined(*complete_, wanted) : refined(factor_, wanted);
  }

 private:
  // Once more for what rounding has left.
  template <class Factor>
  VectorXd refined(const Factor& factor, const VectorXd& wanted) const {
    const VectorXd first = factor.solve(wanted);
    return first + factor.solve(wanted - schur_ * first);
  }

  MatrixXd schur_;
  Eigen::LDLT<MatrixXd> factor_;
  std::optional<Eigen::CompleteOrthogonalDecomposition<MatrixXd>> complete_;
};

// The system of a Newton step, factored at one place: what a step costs most for.
class Factored {
 public:
  Factored(const BalanceProblem& problem, const Blocks& blocks, const Linearised& there, const VectorXd& x,
           const VectorXd& lambda)
      : problem_(problem),
        blocks_(blocks),
        there_(there),
        divisors_(blocks.factored(x, lambda)),
        schur_(schurOf(problem, there, divisors_)) {}

  using Step = std::pair<VectorXd, VectorXd>;  // towards where, and lambda

  // From x, the place it was factored at.
  Step newton(const VectorXd& x) const {
    const VectorXd force = blocks_.timesHessian(x);
    const VectorXd lambda = schur_.solve(along(problem_, there_, divided(force)) - there_.residual);
    return {divided(pulled(problem_, there_, lambda) - force), lambda};
  }

  // The same system for another place near it, where the rows are `now` (the chord method): what is still out of
  // balance there, H x - J' lambda and c, is brought to nothing to first order.
  Step chord(const VectorXd& x, const VectorXd& lambda, const Linearised& now) const {
    const VectorXd out = blocks_.timesHessian(x) - pulled(problem_, now, lambda);
    const VectorXd more = schur_.solve(along(problem_, there_, divided(out)) - now.residual);
    return {divided(pulled(problem_, there_, more) - out), lambda + more};
  }

 private:
  VectorXd divided(const VectorXd& v) const {
    return blocks_.byEdge(v, [&](size_t e, const auto& part) { return VectorXd(divisors_[e].solve(part)); });
  }

  const BalanceProblem& problem_;
  const Blocks& blocks_;
  const Linearised there_;
  std::vector<TridiagonalCholesky> divisors_;
  FactoredSchur schur_;
};

// A step is halved while it makes the constraints worse: far from the draft the linear model may mislead. Where they
// cannot all hold they get no better at the end, and that is not worse.
double shortened(const BalanceProblem& problem, const VectorXd& x, const VectorXd& towards, double now) {
  constexpr double kSmallest = 1.0 / 32, kGoodEnough = 1e-3;
  if (now < kGoodEnough) return 1;
  for (double part = 1; part > kSmallest; part /= 2)
    if (problem.residual(x + part * towards).norm() < now * (1 + 1e-4)) return part;
  return kSmallest;
}

// The gradients of some rows against each other: J_r J_s'.
MatrixXd gramOf(const Linearised& linear, const std::vector<size_t>& rows) {
  const auto n = static_cast<Index>(rows.size());
  MatrixXd gram = MatrixXd::Zero(n, n);
  for (size_t e = 0; e < linear.jacobian.size(); ++e) {
    const auto& at = linear.rows[e];
    const auto column = [&](size_t row) {
      return std::lower_bound(at.begin(), at.end(), static_cast<Index>(row)) - at.begin();
    };
    const auto has = [&](size_t row) { return std::binary_search(at.begin(), at.end(), static_cast<Index>(row)); };
    for (Index i = 0; i < n; ++i)
      for (Index j = 0; j < n; ++j) {
        const size_t a = rows[static_cast<size_t>(i)], b = rows[static_cast<size_t>(j)];
        if (has(a) && has(b)) gram(i, j) += linear.jacobian[e].col(column(a)).dot(linear.jacobian[e].col(column(b)));
      }
  }
  return gram;
}

// What no movement mends of these rows taken alone, to first order; by row, mm.
VectorXd unmendable(const Linearised& linear, const std::vector<size_t>& rows) {
  VectorXd c(static_cast<Index>(rows.size()));
  for (size_t i = 0; i < rows.size(); ++i) c(static_cast<Index>(i)) = linear.residual(static_cast<Index>(rows[i]));
  const MatrixXd gram = gramOf(linear, rows);
  Eigen::CompleteOrthogonalDecomposition<MatrixXd> cod;
  cod.setThreshold(1e-9);
  cod.compute(gram);
  return c - gram * cod.solve(c);
}

// Sets of rows that fight. What is left over is itself orthogonal to every movement, so the rows it touches already are
// such a set; rows are then left out one by one as long as the others still cannot hold (a deletion filter).
std::vector<Conflict> conflictsIn(const Linearised& linear) {
  std::vector<size_t> all(static_cast<size_t>(linear.residual.size()));
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
      return std::abs(linear.residual(static_cast<Index>(a))) < std::abs(linear.residual(static_cast<Index>(b)));
    });
    all.erase(std::find(all.begin(), all.end(), *worst));
  }
  return conflicts;
}

// Close to the end the system of the last step is good for the next ones, at a fraction of what a new one costs: as
// long as each is a small part of the one before. Whether it came to rest.
bool settled(const BalanceProblem& problem, const Factored& system, double last, Solution& s) {
  constexpr double kSmaller = 0.1;
  for (;;) {
    const auto [towards, lambda] = system.chord(s.x, s.lambda, s.there);
    const double now = largest(towards);
    if (now > kSmaller * last) return false;
    const bool ended = now < kStill && largest(s.there.residual) < kHolds;
    last = now;
    s.x += towards;
    s.lambda = lambda;
    s.there = problem.linearised(s.x);
    ++s.iterations;
    if (ended) return true;
  }
}

}  // namespace

Solution solve(const BalanceProblem& problem, const VectorXd& start, const VectorXd& lambda) {
  const Blocks blocks(problem);
  Solution s;
  s.x = VectorXd::Zero(problem.unknowns());
  const bool nearer = start.size() == s.x.size() && problem.residual(start).norm() < problem.residual(s.x).norm();
  if (nearer) s.x = start;
  s.there = problem.linearised(s.x);
  if (nearer && lambda.size() == s.there.residual.size()) s.lambda = lambda;
  Solution best;  // of the steps that were nearly still
  double least = kNearlyHolds;
  for (; s.iterations < kMostSteps && !s.ended; ++s.iterations) {
    const Factored system(problem, blocks, s.there, s.x, s.lambda);
    VectorXd towards;
    std::tie(towards, s.lambda) = system.newton(s.x);
    s.ended = largest(towards) < kStill;
    s.x += shortened(problem, s.x, towards, s.there.residual.norm()) * towards;
    s.there = problem.linearised(s.x);
    if (!s.ended) s.ended = settled(problem, system, largest(towards), s);
    constexpr int kUsual = 12;  // steps
    if (s.iterations < kUsual) continue;
    if (const double off = largest(s.there.residual); off < least && largest(towards) < kNearlyStill) {
      least = off;
      best = s;
    }
  }
  if (!s.ended && best.x.size() > 0) {
    best.iterations = s.iterations;
    best.ended = true;
    s = std::move(best);
  }
  const VectorXd force = blocks.timesHessian(s.x);
  s.stationarity = largest(force - pulled(problem, s.there, s.lambda)) / std::max(1.0, largest(force));
  if (s.ended && largest(s.there.residual) > kViolated) s.conflicts = conflictsIn(s.there);
  return s;
}

std::vector<Vec2> sharesOfRows(const BalanceProblem& problem, const Solution& solution, size_t edge, size_t joint) {
  std::vector<Vec2> shares(problem.rows().size());
  const BalancedEdge& e = problem.edges()[edge];
  if (!e.offset) return shares;
  const Linearised& linear = solution.there;
  const Index at = MovingEdge::at(joint);
  MatrixXd axes = MatrixXd::Zero(e.moving.unknowns(), 2);
  axes(at, 0) = axes(at + 1, 1) = 1;
  const MatrixXd asked = linear.jacobian[edge].transpose() * TridiagonalCholesky(e.moving.hessian()).solve(axes);
  for (size_t k = 0; k < linear.rows[edge].size(); ++k) {
    const Index r = linear.rows[edge][k], c = static_cast<Index>(k);
    shares[static_cast<size_t>(r)] = solution.lambda(r) * Vec2{asked(c, 0), asked(c, 1)};
  }
  return shares;
}

}  // namespace armure
