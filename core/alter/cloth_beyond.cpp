#include "alter/cloth_beyond.h"

#include <algorithm>

#include "alter/alter.h"
#include "alter/proposal.h"

namespace armure {
namespace {

// The least cloth beyond the edges of a side.
double clothBeyond(const Pattern& cut, const SeamSide& side) {
  double least = 1e9;
  for (const EdgeUse& use : side.chain) {
    const Edge& e = cut.pieces[side.piece].edge(use.edge);
    least = std::min(least, e.allowance + e.onCloth);
  }
  return least;
}

}  // namespace

std::vector<BeyondCloth> beyondCloth(const Pattern& cut, const Alteration& alteration) {
  std::vector<BeyondCloth> found;
  for (const Shift& shift : alteration.shifts) {
    if (shift.way != ShiftWay::Across || shift.line == kEveryLine) continue;
    for (const LineSide& line : linesOf(cut, shift)) {
      const double sign = shift.sides == ShiftSides::Over && !line.isA ? -1 : 1;
      const auto furthest = std::ranges::max_element(shift.at, {}, [&](const ShiftAt& at) { return sign * at.mm; });
      if (furthest == shift.at.end()) continue;
      const double asked = sign * furthest->mm, most = std::max(0.0, clothBeyond(cut, line.side) - kSeamKeeps);
      if (asked > most)
        found.push_back({line.side.piece, line.side.chain.front().edge, furthest->place, asked, most, shift.half});
    }
  }
  return found;
}

Message beyondWords(const Pattern& cut, const BeyondCloth& b) {
  return msg("{}: let out by {} {}, but its allowance gives {} at the most", onSide(cut.pieces[b.piece].name, b.half),
             Length{b.asked}, atPlace(cut, b.place), Length{b.most});
}

}  // namespace armure
