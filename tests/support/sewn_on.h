// tests/support/sewn_on.h
//
// Orders with something sewn on, and what of it is measured on the pattern again.
#pragma once

#include <algorithm>
#include <catch2/catch.hpp>
#include <initializer_list>
#include <string>
#include <string_view>
#include <utility>

#include "order/order.h"
#include "recalc/idle.h"
#include "recalc/recalc.h"

namespace armure::testing {

inline Order sewnOn(Order order, std::initializer_list<std::pair<const char*, const char*>> choices) {
  for (const auto& [key, value] : choices) order.choices[key] = checkChoice(key, value, Unit::Inch).value();
  return order;
}

inline const Piece& pieceOf(const Design& design, std::string_view id) {
  const auto found = std::ranges::find(design.pattern.pieces, id, &Piece::id);
  REQUIRE(found != design.pattern.pieces.end());
  return *found;
}

// The stretch, measured on the edges again.
inline double wholeStretch(const Design& design, std::string_view trim) {
  double sum = 0;
  for (const Attachment& a : design.pattern.attachments)
    if (a.trim == trim) sum += 2 * (a.to - a.from);
  return sum;
}

inline double sewnLength(const Design& design, std::string_view trim) {
  double sum = 0;
  for (const Piece& p : design.pattern.pieces)
    if (p.layer == "trim" && p.id.starts_with(trim)) sum += p.copies * p.edge("sewn").path.length();
  return sum;
}

inline std::string idleReason(const Order& order, std::string_view key) {
  for (const Idle& i : idleIn(order, recalc(order).value()))
    if (i.key == key) return english(i.reason);
  return "";
}

}  // namespace armure::testing
