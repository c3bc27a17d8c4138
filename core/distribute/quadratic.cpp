#include "distribute/quadratic.h"

#include <Eigen/Cholesky>
#include <Eigen/Jacobi>
#include <cmath>
#include <limits>
#include <stdexcept>
#include <vector>

namespace armure {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double kInfinity = std::numeric_limits<double>::infinity();

// A constraint n' x >= bound. Equalities come first; then, for each variable, its low and its high bound.
class ActiveSet {
 public:
  explicit ActiveSet(const QuadraticProgram& p) : p_(p), n_(p.c.size()), m_(p.b.size()) {
    const Eigen::LLT<MatrixXd> cholesky(p.G);
    if (cholesky.info() != Eigen::Success) throw std::invalid_argument("solveQuadratic: G is not positive definite");
    // J = inverse(L'), so that J J' = inverse(G).
    j_ = MatrixXd::Identity(n_, n_);
    cholesky.matrixU().solveInPlace(j_);
    r_ = MatrixXd::Zero(n_, n_);
    x_ = cholesky.solve(p.c);
    scale_ = 1 + x_.cwiseAbs().maxCoeff();
  }

  std::optional<QuadraticSolution> solve() && {
    for (Index i = 0; i < m_; ++i)
      if (!bring(i)) return std::nullopt;
    // A bound that is far off is met first.
    for (std::optional<Index> worst = mostViolated(); worst; worst = mostViolated()) {
      if (!bring(*worst)) return std::nullopt;
      if (steps_ > 40 * (n_ + m_)) throw std::logic_error("solveQuadratic: no end");
    }
    return solution();
  }

 private:
  bool isEquality(Index c) const { return c < m_; }
  Index variable(Index c) const { return (c - m_) / 2; }
  bool isHigh(Index c) const { return (c - m_) % 2 == 1; }

  // J' n for the constraint's normal n.
  VectorXd inJ(Index c) const {
    if (isEquality(c)) return sign_ * (j_.transpose() * p_.A.row(c).transpose());
    return (isHigh(c) ? -1 : 1) * j_.row(variable(c)).transpose();
  }
  double slack(Index c) const {
    if (isEquality(c)) return sign_ * (p_.A.row(c).dot(x_) - p_.b(c));
    const Index v = variable(c);
    return isHigh(c) ? p_.high(v) - x_(v) : x_(v) - p_.low(v);
  }

  std::optional<Index> mostViolated() const {
    std::optional<Index> worst;
    double least = -1e-11 * scale_;
    for (Index c = m_; c < m_ + 2 * n_; ++c)
      if (const double s = slack(c); s < least) {
        least = s;
        worst = c;
      }
    return worst;
  }

  // Moves x until the constraint holds with equality and is active. False when that cannot be.
  bool bring(Index c) {
    sign_ = 1;
    if (isEquality(c) && slack(c) > 0) sign_ = -1;  // taken from the side it is violated on
    double multiplier = 0;
    while (true) {
      ++steps_;
      const Index q = size();
      const VectorXd d = inJ(c);
      const VectorXd z = j_.rightCols(n_ - q) * d.tail(n_ - q);
      VectorXd r = d.head(q);
      r_.topLeftCorner(q, q).triangularView<Eigen::Upper>().solveInPlace(r);
      // The longest step that keeps every active inequality's multiplier from changing sign.
      double partial = kInfinity;
      Index dropped = -1;
      for (Index i = 0; i < q; ++i)
        if (!isEquality(active_[static_cast<size_t>(i)]) && r(i) > 0 && u_[static_cast<size_t>(i)] / r(i) < partial) {
          partial = u_[static_cast<size_t>(i)] / r(i);
          dropped = i;
        }
      const double along = d.tail(n_ - q).squaredNorm(), s = slack(c);
      const bool blocked = along < 1e-18 * (1 + d.squaredNorm());
      if (blocked && isEquality(c) && std::abs(s) < 1e-9 * scale_) return true;  // follows from the others
      const double full = blocked ? kInfinity : -s / along;
      const double step = std::min(partial, full);
      if (step == kInfinity) return false;
      if (!blocked) x_ += step * z;
      for (Index i = 0; i < q; ++i) u_[static_cast<size_t>(i)] -= step * r(i);
      multiplier += step;
      if (step == full) {
        add(c, d, multiplier);
        return true;
      }
      drop(dropped);
    }
  }

  Index size() const { return static_cast<Index>(active_.size()); }

  // Turns the free part of d onto its first axis, and J with it.
  void add(Index c, VectorXd d, double multiplier) {
    const Index q = size();
    for (Index i = n_ - 1; i > q; --i) {
      Eigen::JacobiRotation<double> turn;
      turn.makeGivens(d(i - 1), d(i));
      d.applyOnTheLeft(i - 1, i, turn.adjoint());
      j_.applyOnTheRight(i - 1, i, turn);
    }
    r_.col(q).head(q + 1) = d.head(q + 1);
    active_.push_back(c);
    signs_.push_back(isEquality(c) ? sign_ : 1);
    u_.push_back(multiplier);
  }

  void drop(Index which) {
    const Index q = size();
    for (Index k = which; k + 1 < q; ++k) r_.col(k).head(k + 2) = r_.col(k + 1).head(k + 2);
    r_.col(q - 1).setZero();
    for (Index k = which; k + 1 < q; ++k) {
      Eigen::JacobiRotation<double> turn;
      turn.makeGivens(r_(k, k), r_(k + 1, k));
      r_.block(0, k, n_, q - k).applyOnTheLeft(k, k + 1, turn.adjoint());
      j_.applyOnTheRight(k, k + 1, turn);
    }
    active_.erase(active_.begin() + which);
    signs_.erase(signs_.begin() + which);
    u_.erase(u_.begin() + which);
  }

  QuadraticSolution solution() const {
    QuadraticSolution out{x_, VectorXd::Zero(m_), VectorXd::Zero(n_), steps_};
    for (size_t i = 0; i < active_.size(); ++i) {
      const Index c = active_[i];
      if (isEquality(c)) {
        out.equality(c) = signs_[i] * u_[i];
        continue;
      }
      const Index v = variable(c);
      out.bound(v) += isHigh(c) ? -u_[i] : u_[i];
      out.x(v) = isHigh(c) ? p_.high(v) : p_.low(v);  // exactly on its bound
    }
    return out;
  }

  const QuadraticProgram& p_;
  const Index n_, m_;
  MatrixXd j_, r_;
  VectorXd x_;
  double scale_ = 1, sign_ = 1;
  std::vector<Index> active_;
  std::vector<double> signs_, u_;
  int steps_ = 0;
};

}  // namespace

std::optional<QuadraticSolution> solveQuadratic(const QuadraticProgram& p) {
  const Index n = p.c.size(), m = p.b.size();
  if (p.G.rows() != n || p.G.cols() != n || p.A.rows() != m || (m > 0 && p.A.cols() != n) || p.low.size() != n ||
      p.high.size() != n)
    throw std::invalid_argument("solveQuadratic: the sizes do not fit");
  if (n == 0) return QuadraticSolution{{}, VectorXd::Zero(m), {}, 0};
  for (Index i = 0; i < n; ++i)
    if (p.low(i) > p.high(i)) return std::nullopt;
  return ActiveSet(p).solve();
}

}  // namespace armure
