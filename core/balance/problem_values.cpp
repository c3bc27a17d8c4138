// What the rows of a BalanceProblem come to at a point, with their first and second derivatives. How the rows are
// collected is in problem.cpp; the formulas are in problem.h.
#include <algorithm>
#include <cmath>

#include "balance/problem.h"

namespace armure {

Eigen::VectorXd BalanceProblem::part(const Eigen::VectorXd& x, size_t edge) const {
  const BalancedEdge& e = edges_[edge];
  if (!e.offset) return Eigen::VectorXd::Zero(e.moving.unknowns());
  return x.segment(*e.offset, e.moving.unknowns());
}

Linearised BalanceProblem::linearised(const Eigen::VectorXd& x) const {
  Linearised out;
  out.residual.resize(static_cast<Eigen::Index>(rows_.size()));
  out.rows = rowsOf_;
  std::vector<Eigen::VectorXd> parts;
  for (size_t e = 0; e < edges_.size(); ++e) {
    parts.push_back(part(x, e));
    out.jacobian.emplace_back(Eigen::MatrixXd::Zero(parts[e].size(), static_cast<Eigen::Index>(rowsOf_[e].size())));
  }
  const auto column = [&](size_t edge, size_t row) -> Eigen::Ref<Eigen::VectorXd> {
    const auto& rows = rowsOf_[edge];
    const auto k = std::lower_bound(rows.begin(), rows.end(), static_cast<Eigen::Index>(row)) - rows.begin();
    return out.jacobian[edge].col(k);
  };
  const auto place = [&](const Foot& f) {
    return f.edge ? edges_[*f.edge].moving.movedJoint(f.joint, parts[*f.edge]) : f.still;
  };
  for (size_t r = 0; r < rows_.size(); ++r) {
    const BalanceRow& row = rows_[r];
    double value = row.constant;
    for (const LengthTerm& t : row.lengths) {
      const BalancedEdge& e = edges_[t.edge];
      value += t.factor * (e.offset ? e.moving.length(t.from, t.to, parts[t.edge], t.factor, column(t.edge, r))
                                    : e.moving.length(t.from, t.to, parts[t.edge]));
    }
    for (const WidthTerm& t : row.widths) {
      const Vec2 across = place(t.b) - place(t.a);
      value += t.factor * norm(across);
      const Vec2 along = (t.factor / norm(across)) * across;
      for (const auto& [foot, sign] : {std::pair{&t.a, -1.0}, {&t.b, 1.0}}) {
        if (!foot->edge || !edges_[*foot->edge].offset) continue;
        auto c = column(*foot->edge, r);
        c(MovingEdge::at(foot->joint)) += sign * along.x;
        c(MovingEdge::at(foot->joint) + 1) += sign * along.y;
      }
    }
    for (const CornerTerm& t : row.corners) {
      value += t.factor * dot(t.direction, MovingEdge::displacement(parts[t.edge], t.joint));
      auto c = column(t.edge, r);
      c(MovingEdge::at(t.joint)) += t.factor * t.direction.x;
      c(MovingEdge::at(t.joint) + 1) += t.factor * t.direction.y;
    }
    for (const TurnTerm& t : row.turns) {
      const Vec2 now = t.tangent + MovingEdge::tangentChange(parts[t.edge], t.joint);
      value += t.factor * angleBetween(t.tangent, now);
      const double square = dot(now, now);
      auto c = column(t.edge, r);
      c(MovingEdge::at(t.joint) + 2) -= t.factor * now.y / square;
      c(MovingEdge::at(t.joint) + 3) += t.factor * now.x / square;
    }
    out.residual(static_cast<Eigen::Index>(r)) = value;
  }
  return out;
}

Eigen::VectorXd BalanceProblem::residual(const Eigen::VectorXd& x) const {
  std::vector<Eigen::VectorXd> parts;
  for (size_t e = 0; e < edges_.size(); ++e) parts.push_back(part(x, e));
  const auto place = [&](const Foot& f) {
    return f.edge ? edges_[*f.edge].moving.movedJoint(f.joint, parts[*f.edge]) : f.still;
  };
  Eigen::VectorXd values(static_cast<Eigen::Index>(rows_.size()));
  for (size_t r = 0; r < rows_.size(); ++r) {
    double value = rows_[r].constant;
    for (const LengthTerm& t : rows_[r].lengths)
      value += t.factor * edges_[t.edge].moving.length(t.from, t.to, parts[t.edge]);
    for (const WidthTerm& t : rows_[r].widths) value += t.factor * distance(place(t.a), place(t.b));
    for (const CornerTerm& t : rows_[r].corners)
      value += t.factor * dot(t.direction, MovingEdge::displacement(parts[t.edge], t.joint));
    for (const TurnTerm& t : rows_[r].turns)
      value += t.factor * angleBetween(t.tangent, t.tangent + MovingEdge::tangentChange(parts[t.edge], t.joint));
    values(static_cast<Eigen::Index>(r)) = value;
  }
  return values;
}

std::vector<Eigen::MatrixXd> BalanceProblem::hessians(const Eigen::VectorXd& x, const Eigen::VectorXd& lambda) const {
  std::vector<Eigen::MatrixXd> all;
  std::vector<Eigen::VectorXd> parts;
  for (size_t e = 0; e < edges_.size(); ++e) {
    const Eigen::Index n = edges_[e].offset ? edges_[e].moving.unknowns() : 0;
    all.emplace_back(Eigen::MatrixXd::Zero(n, n));
    parts.push_back(part(x, e));
  }
  for (size_t r = 0; r < rows_.size(); ++r) {
    const double counts = lambda(static_cast<Eigen::Index>(r));
    for (const LengthTerm& t : rows_[r].lengths)
      if (edges_[t.edge].offset)
        edges_[t.edge].moving.addHessian(t.from, t.to, parts[t.edge], counts * t.factor, all[t.edge]);
    for (const TurnTerm& t : rows_[r].turns) {
      const Vec2 now = t.tangent + MovingEdge::tangentChange(parts[t.edge], t.joint);
      const double scale = counts * t.factor / std::pow(dot(now, now), 2);
      const double along = 2 * scale * now.x * now.y, across = scale * (now.y * now.y - now.x * now.x);
      const Eigen::Index m = MovingEdge::at(t.joint) + 2;
      Eigen::MatrixXd& into = all[t.edge];
      into(m, m) += along;
      into(m, m + 1) += across;
      into(m + 1, m) += across;
      into(m + 1, m + 1) -= along;
    }
  }
  return all;
}

}  // namespace armure
