// core/at_once.h
//
// Two things worked out at once, on two processors where there are two. For what takes a good part of a millisecond:
// starting takes some hundredths of one.
//
//   auto [left, right] = atOnce([&] { return rowsOf(a); }, [&] { return rowsOf(b); });
#pragma once

#include <future>
#include <utility>

namespace armure {

// What both return, in this order. Neither may write what the other reads. What one of them throws goes on when both
// have ended.
template <class There, class Here>
auto atOnce(There&& there, Here&& here) {
  auto made = std::async(std::forward<There>(there));
  auto own = here();
  return std::pair{made.get(), std::move(own)};
}

}  // namespace armure
