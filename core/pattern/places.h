// core/pattern/places.h
//
// Looking for places on a pattern by what they are: the end of an edge, a notch of a seam, a corner. Nothing where the
// pattern has no such place.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string_view>

#include "pattern/pattern.h"

namespace armure {

struct Place {
  size_t piece = 0;  // index
  Vec2 at;           // in the axes of the piece
};

class Places {
 public:
  // `pattern` must outlive this.
  explicit Places(const Pattern& pattern) : pattern_(pattern) {}

  // Where an edge of a role begins or ends on the piece of this id.
  std::optional<Place> end(std::string_view id, EdgeRole role, bool atStart) const;
  // A place on an edge, as a part of its length from its start.
  std::optional<Place> on(std::string_view id, std::string_view edge, double part) const;
  // The same on the first of these pieces that has it.
  std::optional<Place> onAny(std::span<const std::string_view> ids, std::string_view edge, double part) const;
  // The end of the side seam on the front.
  std::optional<Place> side(bool atTop) const;
  // The highest corner of the front's top edge.
  std::optional<Place> crest() const;
  // The corner of hem and side seam on the front, wherever the panels were parted.
  std::optional<Place> hemCorner() const;
  // Square to the side seam there, outwards.
  Vec2 awayFromHemCorner() const;
  // A joint inside the top edge of the piece: where a plunge bends at the bust line.
  std::optional<Place> joint(std::string_view id) const;
  // Where a notch, or the lower end, lies along the first side of a seam.
  std::optional<Place> notch(std::string_view seamId, std::string_view notchId) const;
  std::optional<Place> seamEnd(std::string_view seamId) const;

 private:
  const Seam* lowerSide() const;  // the side seam, or the one below a waist seam

  const Pattern& pattern_;
};

// Where to look for the upper edge of either half, in this order.
inline constexpr std::array<std::string_view, 3> kUpperFronts{"yoke-front", "front-1", "front-2"};
inline constexpr std::array<std::string_view, 2> kUpperBacks{"yoke-back", "back-1"};

}  // namespace armure
