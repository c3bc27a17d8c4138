// core/solid/block_cholesky.h
//
// Solves positive definite systems of a BlockMatrix again and again: L L' by blocks, row after row ("up-looking"), in
// an order of least degree found once (T. A. Davis, Direct Methods for Sparse Linear Systems, 2006, 4.7 and 7.1). By
// blocks one index serves nine numbers; on the meshes of a trial that is three times as fast as by numbers, where
// supernodes are too narrow to gain anything.
//
//   BlockCholesky factor(matrix);          // orders the vertices and lays the factor out
//   if (factor.compute(matrix)) x = factor.solve(right);
#pragma once

#include <Eigen/Core>
#include <vector>

#include "solid/block_matrix.h"

namespace armure {

class BlockCholesky {
 public:
  // For matrices with the blocks of this one; their values may change.
  explicit BlockCholesky(const BlockMatrix& pattern);

  // False where the matrix is not positive definite: then nothing can be solved.
  bool compute(const BlockMatrix& matrix);
  // `right` has three numbers for each vertex.
  Eigen::VectorXd solve(const Eigen::VectorXd& right) const;

 private:
  // A block of the matrix as it stands in a row of the reordered one.
  struct Source {
    int column = 0;
    size_t block = 0;
    bool transposed = false;
  };
  void order(const BlockMatrix& pattern);
  void gather(const BlockMatrix& pattern);
  void layOut();

  std::vector<int> place_;                    // by vertex, its row
  std::vector<std::vector<Source>> sources_;  // by row; the last one stands on the diagonal
  std::vector<std::vector<int>> columns_;     // by row, where the factor has blocks left of the diagonal, ascending
  std::vector<size_t> starts_;                // by column of the factor, its first block under the diagonal; the end
  std::vector<int> rows_;                     // by block of the factor
  std::vector<Eigen::Matrix3d> blocks_;       // by block
  std::vector<Eigen::Matrix3d> inverses_;     // by row, of the factor's block on the diagonal
};

}  // namespace armure
