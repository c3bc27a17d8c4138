#include "solid/block_cholesky.h"

#include <Eigen/Cholesky>
#include <Eigen/OrderingMethods>
#include <Eigen/SparseCore>
#include <algorithm>
#include <array>
#include <utility>

namespace armure {

using Eigen::Matrix3d;
using Eigen::Vector3d;
using Eigen::VectorXd;

BlockCholesky::BlockCholesky(const BlockMatrix& pattern) {
  order(pattern);
  gather(pattern);
  layOut();
}

void BlockCholesky::order(const BlockMatrix& pattern) {
  const int n = pattern.vertices();
  std::vector<Eigen::Triplet<double>> all;
  for (int column = 0; column < n; ++column)
    for (size_t b = pattern.start(column); b < pattern.end(column); ++b) {
      all.emplace_back(pattern.row(b), column, 1);
      all.emplace_back(column, pattern.row(b), 1);
    }
  Eigen::SparseMatrix<double> whole(n, n);
  whole.setFromTriplets(all.begin(), all.end());
  Eigen::PermutationMatrix<Eigen::Dynamic, Eigen::Dynamic, int> vertexAt;
  Eigen::AMDOrdering<int>()(whole, vertexAt);
  place_.resize(static_cast<size_t>(n));
  for (int k = 0; k < n; ++k) place_[static_cast<size_t>(vertexAt.indices()[k])] = k;
}

void BlockCholesky::gather(const BlockMatrix& pattern) {
  sources_.resize(place_.size());
  for (int column = 0; column < pattern.vertices(); ++column)
    for (size_t b = pattern.start(column); b < pattern.end(column); ++b) {
      const int here = place_[static_cast<size_t>(pattern.row(b))], there = place_[static_cast<size_t>(column)];
      sources_[static_cast<size_t>(std::max(here, there))].push_back({std::min(here, there), b, here < there});
    }
  for (std::vector<Source>& row : sources_)
    std::sort(row.begin(), row.end(), [](const Source& a, const Source& b) { return a.column < b.column; });
}

// Row k of the factor reaches, from each column of the matrix's row, up the elimination tree to k.
void BlockCholesky::layOut() {
  struct Node {
    int parent = -1, reachedFrom = -1;
    size_t below = 0;  // blocks in its column
  };
  std::vector<Node> tree(place_.size());
  columns_.resize(tree.size());
  for (size_t k = 0; k < tree.size(); ++k) {
    const int row = static_cast<int>(k);
    tree[k].reachedFrom = row;
    for (const Source& s : sources_[k])
      for (int i = s.column; tree[static_cast<size_t>(i)].reachedFrom != row; i = tree[static_cast<size_t>(i)].parent) {
        Node& node = tree[static_cast<size_t>(i)];
        if (node.parent < 0) node.parent = row;
        node.reachedFrom = row;
        ++node.below;
        columns_[k].push_back(i);
      }
    std::sort(columns_[k].begin(), columns_[k].end());
  }
  starts_.push_back(0);
  for (const Node& node : tree) starts_.push_back(starts_.back() + node.below);
  rows_.resize(starts_.back());
  blocks_.resize(starts_.back());
  inverses_.resize(tree.size());
  std::vector<size_t> next(starts_.begin(), starts_.end() - 1);
  for (size_t k = 0; k < tree.size(); ++k)
    for (const int i : columns_[k]) rows_[next[static_cast<size_t>(i)]++] = static_cast<int>(k);
}

namespace {

// x -= a b'. Written out: most of the time goes in here, and under sanitizers a product of matrices takes fifty times
// as long as its numbers.
inline void subtractProduct(Matrix3d& x, const Matrix3d& a, const Matrix3d& b) {
  double* to = x.data();
  const double *from = a.data(), *by = b.data();
  for (int column = 0; column < 3; ++column, to += 3, ++by) {
    const double p = by[0], q = by[3], r = by[6];
    to[0] -= from[0] * p + from[3] * q + from[6] * r;
    to[1] -= from[1] * p + from[4] * q + from[7] * r;
    to[2] -= from[2] * p + from[5] * q + from[8] * r;
  }
}

}  // namespace

bool BlockCholesky::compute(const BlockMatrix& matrix) {
  std::vector<Matrix3d> row(place_.size(), Matrix3d::Zero());
  std::vector<size_t> next(starts_.begin(), starts_.end() - 1);
  for (size_t k = 0; k < place_.size(); ++k) {
    for (const Source& s : sources_[k]) {
      const Matrix3d& from = matrix.block(s.block);
      if (s.transposed)
        row[static_cast<size_t>(s.column)] = from.transpose();
      else
        row[static_cast<size_t>(s.column)] = from;
    }
    Matrix3d diagonal = std::exchange(row[k], Matrix3d::Zero());
    for (const int column : columns_[k]) {
      const auto i = static_cast<size_t>(column);
      const Matrix3d entry = row[i] * inverses_[i].transpose();
      row[i].setZero();
      for (size_t p = starts_[i]; p < next[i]; ++p)
        subtractProduct(row[static_cast<size_t>(rows_[p])], entry, blocks_[p]);
      subtractProduct(diagonal, entry, entry);
      blocks_[next[i]++] = entry;
    }
    const Eigen::LLT<Matrix3d> root(diagonal);
    if (root.info() != Eigen::Success) return false;
    inverses_[k] = root.matrixL().solve(Matrix3d::Identity());
  }
  return true;
}

VectorXd BlockCholesky::solve(const VectorXd& right) const {
  const auto at = [](VectorXd& x, size_t block) { return x.segment<3>(3 * static_cast<Eigen::Index>(block)); };
  VectorXd x(right.size());
  for (size_t v = 0; v < place_.size(); ++v)
    at(x, static_cast<size_t>(place_[v])) = right.segment<3>(3 * static_cast<Eigen::Index>(v));
  for (size_t i = 0; i < place_.size(); ++i) {
    const Vector3d mine = inverses_[i] * at(x, i);
    at(x, i) = mine;
    for (size_t p = starts_[i]; p < starts_[i + 1]; ++p) at(x, static_cast<size_t>(rows_[p])) -= blocks_[p] * mine;
  }
  for (size_t i = place_.size(); i-- > 0;) {
    Vector3d mine = at(x, i);
    for (size_t p = starts_[i]; p < starts_[i + 1]; ++p)
      mine -= blocks_[p].transpose() * at(x, static_cast<size_t>(rows_[p]));
    at(x, i) = inverses_[i].transpose() * mine;
  }
  VectorXd all(right.size());
  for (size_t v = 0; v < place_.size(); ++v)
    all.segment<3>(3 * static_cast<Eigen::Index>(v)) = at(x, static_cast<size_t>(place_[v]));
  return all;
}

}  // namespace armure
