// core/solid/block_matrix.h
//
// A symmetric sparse matrix of 3 x 3 blocks, a row of blocks for each vertex in space, of which the lower half is kept.
// Elements that couple the same vertices again and again add to numbered blocks instead of searching for them.
//
//   BlockMatrix m(vertices, {{0, 1, 2}, {1, 2, 3}});   // two triangles
//   m.clear();
//   m.add(0, hessian);                                  // 9 x 9, coordinates of 0, then of 1, then of 2
#pragma once

#include <Eigen/Core>
#include <array>
#include <vector>

namespace armure {

class BlockMatrix {
 public:
  // By element, the vertices it couples. Every vertex has a block on the diagonal, the first of its column.
  BlockMatrix(int vertices, const std::vector<std::vector<int>>& elements);

  int vertices() const { return static_cast<int>(starts_.size()) - 1; }
  void clear();
  // Adds the element's symmetric matrix.
  template <typename Matrix>
  void add(size_t element, const Matrix& local) {
    for (const Place& p : places_[element]) blocks_[p.block] += local.template block<3, 3>(3 * p.row, 3 * p.column);
  }
  double& diagonal(int vertex, int axis) { return blocks_[starts_[static_cast<size_t>(vertex)]](axis, axis); }
  // Makes a coordinate stand alone, 1 on the diagonal: where the right side has 0 there, so has the solution.
  void isolate(const std::vector<std::array<bool, 3>>& held);

  // Columns of blocks from the diagonal down.
  size_t start(int column) const { return starts_[static_cast<size_t>(column)]; }
  size_t end(int column) const { return starts_[static_cast<size_t>(column) + 1]; }
  int row(size_t block) const { return rows_[block]; }
  const Eigen::Matrix3d& block(size_t number) const { return blocks_[number]; }

 private:
  struct Place {
    size_t block;
    Eigen::Index row, column;  // within the element
  };
  std::vector<size_t> starts_;  // by column, and the end
  std::vector<int> rows_;       // by block, ascending within a column
  std::vector<Eigen::Matrix3d> blocks_;
  std::vector<std::vector<Place>> places_;  // by element
};

}  // namespace armure
