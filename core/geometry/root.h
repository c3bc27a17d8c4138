// core/geometry/root.h
//
// The root of a function that grows, by halving: as exact as doubles are, and it cannot fail to end.
//
//   const double r = growingRoot([&](double r) { return lengthAt(r) - wanted; }, 0, 100);
#pragma once

namespace armure {

// Where `f`, which grows from `low` to `high`, is nothing; the nearer end where it is nowhere.
double growingRoot(const auto& f, double low, double high) {
  constexpr int kHalvings = 60;
  for (int i = 0; i < kHalvings; ++i) {
    const double middle = (low + high) / 2;
    (f(middle) < 0 ? low : high) = middle;
  }
  return (low + high) / 2;
}

}  // namespace armure
