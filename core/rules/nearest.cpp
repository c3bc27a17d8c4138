#include "rules/nearest.h"

#include <algorithm>

namespace armure {

size_t editDistance(std::string_view a, std::string_view b) {
  std::vector<size_t> twoAbove(b.size() + 1), above(b.size() + 1), row(b.size() + 1);
  for (size_t j = 0; j <= b.size(); ++j) above[j] = j;
  for (size_t i = 1; i <= a.size(); ++i) {
    row[0] = i;
    for (size_t j = 1; j <= b.size(); ++j) {
      row[j] = std::min({above[j] + 1, row[j - 1] + 1, above[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1)});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
        row[j] = std::min(row[j], twoAbove[j - 2] + 1);
    }
    std::swap(twoAbove, above);
    std::swap(above, row);
  }
  return above[b.size()];
}

std::optional<std::string_view> nearest(std::string_view word, const std::vector<std::string_view>& words) {
  constexpr size_t kLongest = 60;  // letters; nobody misspells more
  if (word.size() > kLongest) return std::nullopt;
  std::optional<std::string_view> best;
  size_t least = std::max<size_t>(word.size() / 3, 1) + 1;
  for (std::string_view w : words) {
    if (w.size() + least <= word.size() || word.size() + least <= w.size())
      continue;  // so many are missing at the least
    if (const size_t d = editDistance(word, w); d < least) {
      least = d;
      best = w;
    }
  }
  return best;
}

}  // namespace armure
