// Balancing against a reference solver on the same problem.
#include <ceres/ceres.h>

#include <Eigen/Core>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <memory>

#include "balance/solve.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

// The reference: the Ceres Solver (S. Agarwal, K. Mierle and others, ceres-solver.org), given the same problem in its
// own terms. The objective is written as squares by hand (a beam's energy with end curvatures s0, s1 over a length l is
// l ((s0 + s1)^2 / 4 + (s1 - s0)^2 / 12)), lengths by five-point Gauss-Legendre on eight parts of each cubic,
// derivatives by Ceres' automatic differentiation, the constraints by the method of multipliers (Nocedal,
// Wright, 17.3).
namespace {

struct Shared {
  const BalanceProblem* problem;
  Eigen::VectorXd multipliers;
  double penalty = 1e3;
};

template <class T>
struct Point {
  T x, y;
};

template <class T>
T lengthOf(const std::array<Point<T>, 4>& p) {
  constexpr double kNodes[5] = {0, 0.5384693101056831, -0.5384693101056831, 0.9061798459386640, -0.9061798459386640};
  constexpr double kWeights[5] = {0.5688888888888889, 0.4786286704993665, 0.4786286704993665, 0.2369268850561891,
                                  0.2369268850561891};
  constexpr int kParts = 8;
  T sum(0);
  for (int part = 0; part < kParts; ++part)
    for (int k = 0; k < 5; ++k) {
      const double t = (part + 0.5 + 0.5 * kNodes[k]) / kParts, u = 1 - t;
      const double b[3] = {3 * u * u, 6 * u * t, 3 * t * t};
      T dx(0), dy(0);
      for (size_t i = 0; i < 3; ++i) {
        dx += b[i] * (p[i + 1].x - p[i].x);
        dy += b[i] * (p[i + 1].y - p[i].y);
      }
      sum += (kWeights[k] / 2 / kParts) * sqrt(dx * dx + dy * dy);
    }
  return sum;
}

struct Everything {
  std::shared_ptr<Shared> shared;

  template <class T>
  bool operator()(T const* const* parameters, T* residuals) const {
    const T* x = parameters[0];
    size_t next = 0;
    for (const BalancedEdge& e : shared->problem->edges()) {
      const T* mine = x + *e.offset;
      const auto& cubics = e.moving.cubics();
      for (size_t j = 0; j < e.moving.joints(); ++j) {
        const double before = j > 0 ? e.moving.along(j) - e.moving.along(j - 1) : 0;
        const double after = j < cubics.size() ? e.moving.along(j + 1) - e.moving.along(j) : 0;
        const double weight = std::sqrt((before + after) / 2 / 100);
        for (size_t c = 0; c < 2; ++c) residuals[next++] = weight * mine[4 * j + c];
      }
      for (size_t i = 0; i < cubics.size(); ++i) {
        const double l = e.moving.along(i + 1) - e.moving.along(i), stiff = std::sqrt(5e5 / 100 * l);
        for (size_t c = 0; c < 2; ++c) {
          const T rise = mine[4 * (i + 1) + c] - mine[4 * i + c];
          const T m0 = mine[4 * i + 2 + c], m1 = mine[4 * (i + 1) + 2 + c];
          const T s0 = 6.0 * rise / (l * l) - (4.0 * m0 + 2.0 * m1) / l;
          const T s1 = -6.0 * rise / (l * l) + (2.0 * m0 + 4.0 * m1) / l;
          residuals[next++] = stiff * (s0 + s1) / 2.0;
          residuals[next++] = stiff * (s1 - s0) / std::sqrt(12.0);
        }
      }
    }
    for (size_t r = 0; r < shared->problem->rows().size(); ++r) {
      const double shift = shared->multipliers(static_cast<Eigen::Index>(r)) / shared->penalty;
      residuals[next++] = std::sqrt(shared->penalty) * (value(shared->problem->rows()[r], x) + shift);
    }
    return true;
  }

  template <class T>
  T value(const BalanceRow& row, const T* x) const {
    T sum(row.constant);
    for (const LengthTerm& t : row.lengths) {
      const BalancedEdge& e = shared->problem->edges()[t.edge];
      for (size_t i = t.from; i < t.to; ++i) sum += t.factor * lengthOf(moved(e, i, x));
    }
    for (const WidthTerm& t : row.widths) {
      const Point<T> a = place(t.a, x), b = place(t.b, x);
      sum += t.factor * sqrt((b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y));
    }
    return sum;
  }

  template <class T>
  std::array<Point<T>, 4> moved(const BalancedEdge& e, size_t i, const T* x) const {
    const Cubic& c = e.moving.cubics()[i];
    const T *a = x + *e.offset + 4 * i, *b = a + 4;
    const double r1 = distance(c.p0, c.p1), r2 = distance(c.p2, c.p3);
    return {Point<T>{c.p0.x + a[0], c.p0.y + a[1]},
            {c.p1.x + a[0] + r1 * a[2], c.p1.y + a[1] + r1 * a[3]},
            {c.p2.x + b[0] - r2 * b[2], c.p2.y + b[1] - r2 * b[3]},
            {c.p3.x + b[0], c.p3.y + b[1]}};
  }

  template <class T>
  Point<T> place(const Foot& f, const T* x) const {
    if (!f.edge) return {T(f.still.x), T(f.still.y)};
    const BalancedEdge& e = shared->problem->edges()[*f.edge];
    const size_t last = e.moving.cubics().size();
    return f.joint < last ? moved(e, f.joint, x)[0] : moved(e, last - 1, x)[3];
  }
};

Eigen::VectorXd solvedByCeres(const BalanceProblem& problem) {
  auto shared = std::make_shared<Shared>();
  shared->problem = &problem;
  shared->multipliers = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(problem.rows().size()));
  Eigen::VectorXd x = Eigen::VectorXd::Zero(problem.unknowns());
  size_t residuals = problem.rows().size();
  for (const BalancedEdge& e : problem.edges()) residuals += 2 * e.moving.joints() + 4 * e.moving.cubics().size();
  for (int round = 0; round < 12; ++round) {
    auto* cost = new ceres::DynamicAutoDiffCostFunction<Everything, 16>(new Everything{shared});  // the problem owns it
    cost->AddParameterBlock(static_cast<int>(x.size()));
    cost->SetNumResiduals(static_cast<int>(residuals));
    ceres::Problem reference;
    reference.AddResidualBlock(cost, nullptr, x.data());
    ceres::Solver::Options options;
    options.linear_solver_type = ceres::DENSE_QR;
    options.function_tolerance = 1e-15;
    options.parameter_tolerance = 1e-12;
    options.gradient_tolerance = 1e-12;
    options.max_num_iterations = 30;
    ceres::Solver::Summary summary;
    ceres::Solve(options, &reference, &summary);
    REQUIRE(summary.IsSolutionUsable());
    const Eigen::VectorXd left = problem.residual(x);
    if (left.cwiseAbs().maxCoeff() < 1e-9) break;
    shared->multipliers += shared->penalty * left;
  }
  return x;
}

}  // namespace

TEST_CASE("the optimum agrees with Ceres on the same problem") {
  for (const char* style : {"sweetheart-zip", "straight-laced"}) {
    Order o = plainOrder();
    o.style = style;
    const Design d = designOf(o);
    const BalanceProblem problem(d.pattern, {});
    const Solution ours = solve(problem);
    const Eigen::VectorXd reference = solvedByCeres(problem);
    REQUIRE(ours.ended);
    CHECK(problem.residual(reference).cwiseAbs().maxCoeff() < 1e-6);
    CHECK((ours.x - reference).cwiseAbs().maxCoeff() < 1e-4);
  }
}
