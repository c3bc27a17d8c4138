// core/draft/opening.h
//
// What stands at the centre of a half: a fold, a seam, or the edge of an opening. A gap that stays open when the
// garment is worn is part of the finished girth.
#pragma once

#include <string_view>

#include "rules/rules.h"

namespace armure {

struct Opening {
  std::string_view kind = "fold";  // an option of "opening.kind" or "opening.front"
  double topY = 0, hemY = 1;       // where top edge and hem meet the centre, mm
  double topGap = 0, hemGap = 0;   // between both edges, worn, mm

  bool isFold() const { return kind == "fold"; }
  bool isSeam() const { return kind == "seam"; }
  bool isOpen() const { return !isFold() && !isSeam(); }
  bool isLaced() const { return topGap > 0; }
  // A centre that may take in at the waist: the others are straight.
  bool isShaped() const { return kind == "seam" || kind == "zip"; }
  // At any depth; a V runs on straight above the top edge and below the hem.
  double gapAt(double y) const { return topGap + (hemGap - topGap) * (y - topY) / (hemY - topY); }
};

// The opening of a half whose centre reaches from `topY` to `hemY`. A gap has one width, lacing in a V two.
inline Opening openingOf(const Rules& rules, bool front, double topY, double hemY) {
  Opening o{rules.option(front ? "opening.front" : "opening.kind"), topY, hemY};
  if (o.kind == "lacing" || o.kind == "loops") o.topGap = o.hemGap = rules.length("opening.gap");
  if (o.kind == "v-lacing") {
    o.topGap = rules.length("opening.gap_top");
    o.hemGap = rules.length("opening.gap_hem");
  }
  return o;
}

}  // namespace armure
