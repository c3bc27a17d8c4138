// core/draft/shaping_wishes.h
//
// What the schools wish every line and the side to take in, level by level, before caps and the maker's hand.
#pragma once

#include "draft/shaping.h"

namespace armure {

struct Wishes {
  // Wishes only; on every level those of the lines and the side add up to the drop. The hem has none for the side.
  std::vector<ShapedLevel> levels;
  std::vector<Working> workings;
};

Wishes wishesOf(const Levels& levels, const Rules& rules, const ShapingFrame& frame);

}  // namespace armure
