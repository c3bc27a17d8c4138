// core/draft/opening.h
//
// What stands at the centre of a half: a fold, a seam, or the edge of an opening. A gap that stays open when the
// garment is worn is part of the finished girth. An opening has two ends: below it runs to the hem or ends above it
// (over a skirt at the hip, say), where the seam below is sewn; above it begins at the upper edge or below that, the
// seam above it sewn; under a yoke it ends at the yoke, which closes by itself. A gap narrows to nothing towards such
// an end, over 4 in, so that all edges there meet.
#pragma once

#include <algorithm>
#include <string_view>

#include "parts/edges/rules.h"
#include "parts/opening/rules.h"
#include "parts/yoke/rules.h"
#include "rules/rules.h"
#include "units/length.h"

namespace armure {

inline constexpr double kShortestOpening = 50;  // mm

struct Opening {
  OpeningKind kind = OpeningKind::Fold;  // an option of "opening.kind" or "opening.front"
  double topY = 0, hemY = 1;             // where top edge and hem meet the centre, mm
  double topGap = 0, hemGap = 0;         // between both edges, worn, mm
  double startY = -1e6, endY = 1e6;      // where it begins and ends; beyond the edges where it runs through

  bool isFold() const { return kind == OpeningKind::Fold; }
  bool isSeam() const { return kind == OpeningKind::Seam; }
  bool isOpen() const { return !isFold() && !isSeam(); }
  bool isLaced() const { return topGap > 0; }
  // A centre that may take in at the waist: the others are straight.
  bool isShaped() const {
    return kind == OpeningKind::Seam || kind == OpeningKind::Zip || kind == OpeningKind::ZipLaced;
  }
  bool endsAbove(double y) const { return isOpen() && endY < y; }
  bool startsBelow(double y) const { return isOpen() && startY > y; }

  // At any depth; a V runs on straight above the top edge and below the hem.
  double gapAt(double y) const {
    const double full = topGap + (hemGap - topGap) * (y - topY) / (hemY - topY);
    const auto opened = [&](double from) {  // 0 at the end, 1 where the gap has its width
      const double t = std::clamp(from / narrowing(), 0.0, 1.0);
      return t * t * (3 - 2 * t);
    };
    return full * opened(y - startY) * opened(endY - y);
  }
  // Over how much a gap narrows, mm.
  double narrowing() const {
    constexpr double kOver = inches(4);
    return std::min(kOver, std::max(1.0, (std::min(endY, hemY) - std::max(startY, topY)) / 2.5));
  }
};

// The opening of a half whose centre reaches from `topY` to `hemY`, and which ends at `endY`. A gap has one width,
// lacing in a V two.
inline Opening openingOf(const Rules& rules, bool front, double topY, double hemY, double endY) {
  Opening o{rules.option(front ? key::kOpeningFront : key::kOpeningKind), topY, hemY};
  if (o.kind == OpeningKind::Lacing || o.kind == OpeningKind::Loops)
    o.topGap = o.hemGap = rules.length(key::kOpeningGap);
  if (o.kind == OpeningKind::VLacing || o.kind == OpeningKind::VLoops) {
    o.topGap = rules.length(front ? key::kOpeningFrontTop : key::kOpeningGapTop);
    o.hemGap = rules.length(front ? key::kOpeningFrontHem : key::kOpeningGapHem);
  }
  if (endY < hemY) o.endY = endY;
  const bool yoke = rules.option(key::kCoverKind) == CoverKind::Covered &&
                    rules.option(front ? key::kYokeFront : key::kYokeBack) != YokeKind::None;
  if (yoke) o.startY = topY;
  if (const double start = rules.length(key::kOpeningStart); start > 0 && o.isOpen())
    o.startY = std::max(o.startY, start);
  return o;
}

}  // namespace armure
