// core/pattern/marks.h
//
// Marks through operations. An operation says which stretch of which edge became which (an EdgeMap), and every mark
// follows, of whatever kind: no operation knows of notches or levels one by one.
//
//   edges "left" (0 to 80 mm of it stay) and "left-2" (the rest) came of "left":
//   carryMarks(piece, {{"left", 0, 80, "left"}, {"left", 80, 200, "left-2"}});
//
// Invariants: a mark that is kept lies at the same place of the cloth; a mark whose place is gone is taken away and
// returned; marks on edges that the map does not name stay as they are.
#pragma once

#include <limits>
#include <optional>
#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// The stretch `from` to `to` of the edge `was` is now the edge `is` from `start` on; a reshaped edge is `scale` times
// as long. Both run the same way.
struct EdgePart {
  std::string was;
  double from = 0, to = std::numeric_limits<double>::infinity();  // mm
  std::string is;
  double start = 0, scale = 1;

  double place(double at) const { return start + (at - from) * scale; }
};
using EdgeMap = std::vector<EdgePart>;

// Where an anchor is now; nothing where no part of its edge holds it. A place at the end of two parts is on the first.
std::optional<Anchor> carried(const Anchor& anchor, const EdgeMap& map);

// Carries every mark of a piece whose edges have become what the map says. Returns the marks that are gone.
std::vector<Mark> carryMarks(Piece& piece, const EdgeMap& map);

// An anchor for a point: on the outline where it lies on it (to 1e-3 mm), else beside the nearest edge.
Anchor anchorAt(const Piece& piece, Vec2 point);
Mark levelMark(const Piece& piece, std::string level, Vec2 a, Vec2 b);

// Brings both ends of a level to where its line, as it `was` before the outline was redrawn, meets the outline now; an
// end that still lies on the outline stays at its point.
void settleLevel(const Piece& piece, Mark& mark, const LevelLine& was);
// All levels of a piece, from their lines before; in the order of piece.levelMarks().
void settleLevels(Piece& piece, const std::vector<LevelLine>& were);

// The notches both sides of a seam carry, from its upper end down: what Seam::notches has to say once marks were moved,
// taken away or added. A notch on one side only is for that piece alone.
std::vector<SeamNotch> notchesOf(const Pattern& pattern, const Seam& seam);

}  // namespace armure
