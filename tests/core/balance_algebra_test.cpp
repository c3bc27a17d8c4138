// The algebra under balancing: the rules of quadrature, a factor of blocks beside Eigen's, second derivatives beside
// differences of the first.
#include <Eigen/Cholesky>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "balance/solve.h"
#include "balance/tridiagonal_cholesky.h"
#include "geometry/gauss.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;
using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

namespace {

// Symmetric and positive, 4 x 4 blocks on the diagonal and beside it.
MatrixXd anyBlocks(Index joints, Dice& dice) {
  const Index n = TridiagonalCholesky::kBlock * joints;
  MatrixXd lower = MatrixXd::Zero(n, n);
  for (Index i = 0; i < n; ++i)
    for (Index j = 0; j <= i; ++j)
      if (i / TridiagonalCholesky::kBlock - j / TridiagonalCholesky::kBlock <= 1) lower(i, j) = dice.between(-1, 1);
  lower.diagonal().array() += 4;
  return lower * lower.transpose();
}

MatrixXd any(Index rows, Index columns, Dice& dice) {
  MatrixXd m(rows, columns);
  for (Index i = 0; i < m.size(); ++i) m(i) = dice.between(-10, 10);
  return m;
}

}  // namespace

// A rule of n Gauss points is exact for polynomials up to degree 2n - 1, Kronrod's extension of it to 2n + 1 points up
// to degree 3n + 1 (Piessens and others, QUADPACK, 1983, 2.2.1): 31 for 21 points.
TEST_CASE("the rules of quadrature are exact as far as theory says") {
  using Rule = KronrodPair;
  for (int degree = 0; degree <= 31; ++degree) {
    const double exact = degree % 2 ? 0 : 2.0 / (degree + 1);
    double fine = degree == 0 ? Rule::fineMiddle : 0, coarse = 0, legendre = 0;
    for (const double side : {-1.0, 1.0}) {
      for (size_t i = 0; i < Rule::x.size(); ++i) {
        fine += Rule::fine[i] * std::pow(side * Rule::x[i], degree);
        coarse += Rule::coarse[i] * std::pow(side * Rule::x[i], degree);
      }
      for (const GaussNode& n : kGauss16) legendre += n.weight * std::pow(side * n.x, degree);
    }
    INFO("degree " << degree);
    CHECK(fine == Approx(exact).margin(1e-14));
    CHECK(legendre == Approx(exact).margin(1e-14));
    if (degree < 20) CHECK(coarse == Approx(exact).margin(1e-14));
    if (degree == 20) CHECK(std::abs(coarse - exact) > 1e-8);  // and no further
  }
}

TEST_CASE("a factor by blocks solves as Eigen's factor of the whole matrix does") {
  Dice dice(21);
  for (Index joints = 1; joints <= 12; ++joints) {
    const MatrixXd matrix = anyBlocks(joints, dice), rhs = any(matrix.rows(), 3, dice);
    const TridiagonalCholesky ours(matrix);
    const Eigen::LLT<MatrixXd> whole(matrix);
    REQUIRE(ours.isPositive());
    CHECK((ours.solve(rhs) - whole.solve(rhs)).cwiseAbs().maxCoeff() < 1e-10);
    CHECK((ours.half(rhs) - whole.matrixL().solve(rhs)).cwiseAbs().maxCoeff() < 1e-10);
    CHECK((matrix * ours.solve(rhs) - rhs).cwiseAbs().maxCoeff() < 1e-9);
  }
}

TEST_CASE("a matrix that is not positive is seen, wherever the fault lies") {
  Dice dice(22);
  for (Index joint = 0; joint < 5; ++joint) {
    MatrixXd matrix = anyBlocks(5, dice);
    const Index at = TridiagonalCholesky::kBlock * joint + 2;
    matrix(at, at) = -1;
    CHECK_FALSE(TridiagonalCholesky(matrix).isPositive());
  }
}

TEST_CASE("the second derivative of a moved edge's length agrees with differences of the first") {
  const Design d = designOf(plainOrder());
  Dice dice(23);
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges) {
      if (e.role != EdgeRole::Seam) continue;
      const MovingEdge edge(e.path, {50, 130, 210});
      const size_t from = edge.jointAt(50), to = edge.jointAt(210);
      VectorXd x(edge.unknowns());
      for (Index i = 0; i < x.size(); ++i) x(i) = dice.between(-1, 1) * (i % 4 < 2 ? 2 : 0.02);
      MatrixXd curvature = MatrixXd::Zero(x.size(), x.size());
      edge.addHessian(from, to, x, 2, curvature);
      CHECK((curvature - curvature.transpose()).cwiseAbs().maxCoeff() < 1e-12);
      for (Index i = 0; i < x.size(); ++i) {
        VectorXd more = x, less = x, up = VectorXd::Zero(x.size()), down = up;
        more(i) += 1e-4;
        less(i) -= 1e-4;
        edge.length(from, to, more, 2, up);
        edge.length(from, to, less, 2, down);
        const VectorXd slope = (up - down) / 2e-4;
        CHECK((curvature.col(i) - slope).cwiseAbs().maxCoeff() < 1e-4 * std::max(1.0, slope.cwiseAbs().maxCoeff()));
      }
    }
}

TEST_CASE("the second derivatives of all rows but widths agree with differences of the first") {
  Order o = orderWith({{"cup.kind", "three"}});
  const Design d = designOf(o);
  BalanceProblem problem(d.pattern, {});
  problem.leaveOut(Family::Girth);
  Dice dice(24);
  VectorXd x(problem.unknowns()), lambda(static_cast<Index>(problem.rows().size()));
  for (Index i = 0; i < x.size(); ++i) x(i) = dice.between(-1, 1) * (i % 4 < 2 ? 1 : 0.01);
  for (Index i = 0; i < lambda.size(); ++i) lambda(i) = dice.between(-1, 1);
  const std::vector<MatrixXd> curvature = problem.hessians(x, lambda);
  // Of lambda'c by the unknowns of one edge.
  const auto gradient = [&](const VectorXd& at, size_t edge) {
    const Linearised linear = problem.linearised(at);
    VectorXd sum = VectorXd::Zero(problem.edges()[edge].moving.unknowns());
    for (size_t k = 0; k < linear.rows[edge].size(); ++k)
      sum += lambda(linear.rows[edge][k]) * linear.jacobian[edge].col(static_cast<Index>(k));
    return sum;
  };
  for (size_t e = 0; e < problem.edges().size(); ++e) {
    const Index offset = *problem.edges()[e].offset;
    for (Index i = 0; i < curvature[e].rows(); i += 3) {
      VectorXd more = x, less = x;
      more(offset + i) += 1e-4;
      less(offset + i) -= 1e-4;
      const VectorXd slope = (gradient(more, e) - gradient(less, e)) / 2e-4;
      INFO("edge " << e << ", unknown " << i);
      CHECK((curvature[e].col(i) - slope).cwiseAbs().maxCoeff() < 1e-3 * std::max(1.0, slope.cwiseAbs().maxCoeff()));
    }
  }
}

TEST_CASE("near the end every step of the solution squares what is left: few are needed on any style") {
  for (const Preset& style : styleTable()) {
    Order o = plainOrder();
    o.style = style.id;
    const Design d = designOf(o);
    const Solution s = solve(BalanceProblem(d.pattern, balanceOptions(d.rules)));
    INFO(style.id << ": " << s.iterations << " steps");
    CHECK(s.ended);
    CHECK(s.iterations <= 10);
    CHECK(s.stationarity < 1e-6);
  }
}
