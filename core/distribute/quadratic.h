// core/distribute/quadratic.h
//
// A small convex quadratic program with equalities and bounds:
//
//   minimise  1/2 x' G x - c' x   subject to  A x = b,  low <= x <= high
//
// by the dual active-set method of D. Goldfarb and A. Idnani, "A numerically stable dual method for solving strictly
// convex quadratic programs", Mathematical Programming 27 (1983): from the unconstrained minimum one violated
// constraint after the other is added, and dropped again where its multiplier would change sign. G must be positive
// definite: then the solution is unique, and the order in which constraints are added does not change it.
#pragma once

#include <Eigen/Core>
#include <optional>

namespace armure {

struct QuadraticProgram {
  Eigen::MatrixXd G;    // n x n, symmetric positive definite
  Eigen::VectorXd c;    // n
  Eigen::MatrixXd A;    // m x n, rows independent
  Eigen::VectorXd b;    // m
  Eigen::VectorXd low;  // n; -infinity for none
  Eigen::VectorXd high;
};

struct QuadraticSolution {
  Eigen::VectorXd x;
  Eigen::VectorXd equality;  // multipliers of A x = b
  Eigen::VectorXd bound;     // multipliers of the bounds: > 0 at an active low, < 0 at an active high, else 0
  int steps = 0;             // constraints added and dropped
};

// Nothing when no x satisfies the constraints. Throws std::invalid_argument when the sizes do not fit or G is not
// positive definite. At the solution, to about 1e-9 of the size of the numbers: G x - c = A' equality + bound.
std::optional<QuadraticSolution> solveQuadratic(const QuadraticProgram& program);

}  // namespace armure
