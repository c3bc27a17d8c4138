// tests/support/design.h
//
// What nearly every test of a design needs: the design of an order that must be drafted, and dice that fall alike
// everywhere.
#pragma once

#include <catch2/catch.hpp>
#include <random>
#include <stdexcept>

#include "recalc/recalc.h"

namespace armure::testing {

inline Design designOf(const Order& order) {
  auto design = recalc(order);
  if (!design.ok()) FAIL(design.problem().text());
  return std::move(design).value();
}

// Throws std::out_of_range where the pattern has no such piece.
inline const Piece& pieceOf(const Pattern& pattern, const std::string& id) {
  for (const Piece& piece : pattern.pieces)
    if (piece.id == id) return piece;
  throw std::out_of_range(id);
}

// Portable: the standard's distributions may differ from library to library.
struct Dice {
  std::mt19937 random;
  explicit Dice(unsigned seed) : random(seed) {}
  double between(double a, double b) { return a + (b - a) * static_cast<double>(random()) / 4294967295.0; }
};

}  // namespace armure::testing
