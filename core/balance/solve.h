// core/balance/solve.h
//
// The numerics of balancing: the minimum of the objective of a BalanceProblem on its constraints.
//
// With x the unknowns, H the Hessian of f, c the constraints, J their Jacobian and C_r the Hessian of row
// r, each step p is that of Newton's method on H x = J' lambda, c = 0:
//   W = H - sum_r lambda_r C_r
//   lambda_(k+1) = (J W^-1 J')^-1 (J W^-1 H x_k - c)        p = W^-1 (J' lambda_(k+1) - H x_k)
// (J. Nocedal, S. Wright, Numerical Optimization, 2nd ed., 18.1), the step halved while it makes the constraints worse.
// The first step has no lambda and takes W = H: the minimum of f on the linearised constraints. W falls apart into one
// small block for each edge and J touches few edges in each row, so J W^-1 J' is summed edge by edge and nothing larger
// than the number of rows squared is ever stored; a block of W that is not positive is replaced by that of H.
//
// Near the end the factored system of the last step serves the next ones as well (the chord method; C. T. Kelley,
// Iterative Methods for Linear and Nonlinear Equations, 5.4.1): with g = H x - J' lambda and c where they are now,
//   dlambda = (J W^-1 J')^-1 (J W^-1 g - c)        p = W^-1 (J' dlambda - g)
// as long as each p is a tenth of the one before or less.
//
// Rows that all but follow from others may keep the last steps from becoming still; after forty of them the one counts
// on which the rows held best, if that is to 1e-2 mm.
//
// It has converged when every constraint holds to 1e-7 mm and no unknown moves by more than 1e-6 mm; then
// H x = J' lambda holds as well, which is stationarity. Any start leads to the same end: a near one in fewer steps.
#pragma once

#include <Eigen/Core>
#include <string>
#include <vector>

#include "balance/problem.h"

namespace armure {

// Rows that cannot hold together, none of which could be left out: without any one of them the others would fit.
struct Conflict {
  std::vector<size_t> rows;  // indices into BalanceProblem::rows()
  double residual = 0;       // mm, the largest of theirs
};

struct Solution {
  Eigen::VectorXd x;
  Eigen::VectorXd lambda;   // by row
  Linearised there;         // the rows at x; their residual is what is left over, mm
  int iterations = 0;       // steps of both kinds
  bool ended = false;       // the steps became still; else there is no solution near
  double stationarity = 0;  // largest component of H x - J' lambda, in parts of that of H x
  std::vector<Conflict> conflicts;
};

// From `start` and `lambda` where they have the right size and the rows hold better there than on the draft; else from
// the draft, and with W = H first.
Solution solve(const BalanceProblem& problem, const Eigen::VectorXd& start = {}, const Eigen::VectorXd& lambda = {});

// How far each row alone moves a joint of an edge at the solution: x = sum over rows of lambda_r H^-1 J_r'. By row, the
// displacement (x, y) it asks of that joint; this is what a movement is explained by.
std::vector<Vec2> sharesOfRows(const BalanceProblem& problem, const Solution& solution, size_t edge, size_t joint);

}  // namespace armure
