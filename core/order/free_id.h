// core/order/free_id.h
//
// Ids of what an order holds several of.
#pragma once

#include <algorithm>
#include <string>

namespace armure {

// The next number none of the entries has as its id.
template <typename Entries>
std::string freeId(const Entries& entries) {
  for (size_t n = entries.size() + 1;; ++n)
    if (std::ranges::none_of(entries, [&](const auto& e) { return e.id == std::to_string(n); }))
      return std::to_string(n);
}

}  // namespace armure
