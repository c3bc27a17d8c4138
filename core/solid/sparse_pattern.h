// core/solid/sparse_pattern.h
//
// The lower half of a symmetric sparse matrix whose places are known beforehand: elements that couple the same
// coordinates again and again add to numbered slots instead of searching for them.
#pragma once

#include <Eigen/SparseCore>
#include <vector>

namespace armure {

class SparsePattern {
 public:
  // By element, the unknowns it couples; -1 for a coordinate that is held. Every unknown has a place on the diagonal.
  SparsePattern(int unknowns, const std::vector<std::vector<int>>& elements);

  void clear();
  // Adds the element's symmetric matrix, as many rows and columns as it has unknowns.
  template <typename Matrix>
  void add(size_t element, const Matrix& local) {
    const std::vector<int>& slots = slots_[element];
    const auto n = local.rows();
    size_t at = 0;
    for (Eigen::Index column = 0; column < n; ++column)
      for (Eigen::Index row = 0; row < n; ++row)
        if (const int slot = slots[at++]; slot >= 0) matrix_.valuePtr()[slot] += local(row, column);
  }
  double& diagonal(int unknown) { return matrix_.valuePtr()[matrix_.outerIndexPtr()[unknown]]; }
  const Eigen::SparseMatrix<double>& matrix() const { return matrix_; }

 private:
  Eigen::SparseMatrix<double> matrix_;
  std::vector<std::vector<int>> slots_;  // by element, column by column; -1 where nothing is added
};

}  // namespace armure
