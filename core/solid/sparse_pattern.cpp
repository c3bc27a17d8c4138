#include "solid/sparse_pattern.h"

#include <algorithm>

namespace armure {

SparsePattern::SparsePattern(int unknowns, const std::vector<std::vector<int>>& elements)
    : matrix_(unknowns, unknowns) {
  std::vector<Eigen::Triplet<double>> places;
  for (int i = 0; i < unknowns; ++i) places.emplace_back(i, i, 0.0);
  for (const std::vector<int>& e : elements)
    for (const int column : e)
      for (const int row : e)
        if (column >= 0 && row > column) places.emplace_back(row, column, 0.0);
  matrix_.setFromTriplets(places.begin(), places.end());

  const auto slotOf = [&](int row, int column) {
    const int* begin = matrix_.innerIndexPtr() + matrix_.outerIndexPtr()[column];
    const int* end = matrix_.innerIndexPtr() + matrix_.outerIndexPtr()[column + 1];
    return static_cast<int>(std::lower_bound(begin, end, row) - matrix_.innerIndexPtr());
  };
  for (const std::vector<int>& e : elements) {
    std::vector<int>& slots = slots_.emplace_back();
    slots.reserve(e.size() * e.size());
    for (const int column : e)
      for (const int row : e) slots.push_back(column >= 0 && row >= column ? slotOf(row, column) : -1);
  }
}

void SparsePattern::clear() { std::fill_n(matrix_.valuePtr(), matrix_.nonZeros(), 0.0); }

}  // namespace armure
