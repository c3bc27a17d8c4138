// core/balance/tridiagonal_cholesky.h
//
// Cholesky's factor of a symmetric matrix that has 4 x 4 blocks on its diagonal and beside it and nothing else: the
// unknowns of one edge, of which each joint meets only its neighbours. Factor and solution take time in proportion to
// the number of joints (G. Golub, C. Van Loan, Matrix Computations, 3rd ed., 4.5.1).
//
//   A_ii = L_i L_i' + M_(i-1) M_(i-1)'      A_(i+1)i = M_i L_i'
#pragma once

#include <Eigen/Core>
#include <vector>

namespace armure {

class TridiagonalCholesky {
 public:
  static constexpr Eigen::Index kBlock = 4;

  TridiagonalCholesky() = default;
  // Reads the lower triangle of a square matrix whose size is a multiple of kBlock; what lies off the blocks is taken
  // for zero.
  explicit TridiagonalCholesky(const Eigen::MatrixXd& matrix);

  // Whether the matrix is positive; nothing can be solved otherwise.
  bool isPositive() const { return positive_; }
  // L^-1 rhs.
  Eigen::MatrixXd half(Eigen::MatrixXd rhs) const;
  // A^-1 rhs.
  Eigen::MatrixXd solve(Eigen::MatrixXd rhs) const;

 private:
  using Block = Eigen::Matrix<double, kBlock, kBlock>;
  std::vector<Block> diagonal_, below_;  // L_i, M_i
  bool positive_ = true;
};

}  // namespace armure
