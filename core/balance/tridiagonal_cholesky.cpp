#include "balance/tridiagonal_cholesky.h"

#include <Eigen/Cholesky>

namespace armure {

using Eigen::Index;
using Eigen::MatrixXd;

TridiagonalCholesky::TridiagonalCholesky(const MatrixXd& matrix) {
  const Index n = matrix.rows() / kBlock;
  for (Index i = 0; i < n && positive_; ++i) {
    Block own = matrix.block<kBlock, kBlock>(kBlock * i, kBlock * i);
    if (i > 0) own -= below_.back() * below_.back().transpose();
    const Eigen::LLT<Block> factor(own);
    positive_ = factor.info() == Eigen::Success;
    diagonal_.push_back(Block(factor.matrixL()));
    if (i + 1 == n) break;
    const Block beside = matrix.block<kBlock, kBlock>(kBlock * (i + 1), kBlock * i);
    below_.push_back(
        diagonal_.back().triangularView<Eigen::Lower>().solve<Eigen::OnTheLeft>(beside.transpose()).transpose());
  }
}

MatrixXd TridiagonalCholesky::half(MatrixXd rhs) const {
  for (size_t i = 0; i < diagonal_.size(); ++i) {
    auto own = rhs.middleRows<kBlock>(kBlock * static_cast<Index>(i));
    if (i > 0) own -= below_[i - 1].lazyProduct(rhs.middleRows<kBlock>(kBlock * (static_cast<Index>(i) - 1)));
    diagonal_[i].triangularView<Eigen::Lower>().solveInPlace(own);
  }
  return rhs;
}

MatrixXd TridiagonalCholesky::solve(MatrixXd rhs) const {
  MatrixXd x = half(std::move(rhs));
  for (size_t i = diagonal_.size(); i-- > 0;) {
    auto own = x.middleRows<kBlock>(kBlock * static_cast<Index>(i));
    if (i + 1 < diagonal_.size())
      own -= below_[i].transpose().lazyProduct(x.middleRows<kBlock>(kBlock * (static_cast<Index>(i) + 1)));
    diagonal_[i].triangularView<Eigen::Lower>().transpose().solveInPlace(own);
  }
  return x;
}

}  // namespace armure
