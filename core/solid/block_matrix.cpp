#include "solid/block_matrix.h"

#include <algorithm>

namespace armure {

BlockMatrix::BlockMatrix(int vertices, const std::vector<std::vector<int>>& elements) {
  std::vector<std::vector<int>> columns(static_cast<size_t>(vertices));
  for (int v = 0; v < vertices; ++v) columns[static_cast<size_t>(v)].push_back(v);
  for (const std::vector<int>& e : elements)
    for (const int column : e)
      for (const int row : e)
        if (row > column) columns[static_cast<size_t>(column)].push_back(row);
  for (std::vector<int>& rows : columns) {
    std::sort(rows.begin(), rows.end());
    rows.erase(std::unique(rows.begin(), rows.end()), rows.end());
    starts_.push_back(rows_.size());
    rows_.insert(rows_.end(), rows.begin(), rows.end());
  }
  starts_.push_back(rows_.size());
  blocks_.assign(rows_.size(), Eigen::Matrix3d::Zero());

  for (const std::vector<int>& e : elements) {
    std::vector<Place>& places = places_.emplace_back();
    for (size_t c = 0; c < e.size(); ++c)
      for (size_t r = 0; r < e.size(); ++r) {
        if (e[r] < e[c]) continue;
        const auto first = rows_.begin() + static_cast<std::ptrdiff_t>(start(e[c]));
        const auto last = rows_.begin() + static_cast<std::ptrdiff_t>(end(e[c]));
        const auto found = std::lower_bound(first, last, e[r]);
        places.push_back(
            {static_cast<size_t>(found - rows_.begin()), static_cast<Eigen::Index>(r), static_cast<Eigen::Index>(c)});
      }
  }
}

void BlockMatrix::clear() { std::fill(blocks_.begin(), blocks_.end(), Eigen::Matrix3d::Zero()); }

void BlockMatrix::isolate(const std::vector<std::array<bool, 3>>& held) {
  for (int column = 0; column < vertices(); ++column)
    for (size_t b = start(column); b < end(column); ++b)
      for (int axis = 0; axis < 3; ++axis) {
        const auto a = static_cast<size_t>(axis);
        if (held[static_cast<size_t>(column)][a]) blocks_[b].col(axis).setZero();
        if (held[static_cast<size_t>(rows_[b])][a]) blocks_[b].row(axis).setZero();
        if (held[static_cast<size_t>(column)][a] && rows_[b] == column) blocks_[b](axis, axis) = 1;
      }
}

}  // namespace armure
