// core/parts/trims/sewn_on.h
//
// What every kind of trim needs: the width of the cloth it is cut from, and adding its pieces to the garment with the
// stretches they are sewn to.
#pragma once

#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// The id of the cloth a piece of a trim is cut of: what was chosen for it, for trims, for the shell; else satin.
std::string trimCloth(std::string_view piece, const Rules& rules);

// From selvedge to selvedge, of the cloth a trim is cut of, mm.
double trimClothWidth(const TrimChoice& trim, const Rules& rules);

// A new piece of the trim, once; `part` counts them where there are several ("frill-1-2").
Piece trimPiece(const TrimChoice& trim, int part, int parts);
// A rectangle's edges, all Raw, clockwise from its upper left corner: "sewn" above, "end", "free", "start".
std::vector<Edge> rectangle(Vec2 corner, double length, double deep, double allowance);
// Its grain, upright through the middle.
void grainDown(Piece& piece, Vec2 corner, double length, double deep);
// Where it begins: to the right of everything, level with the highest corner.
Vec2 besideAll(const Pattern& pattern);

// From one place to another; mm.
struct Along {
  double from = 0, to = 0;
};
// Tells that something of the trim is sewn to this stretch, without comparing lengths: a loop, the end of a tie.
void placeOn(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const PieceEdge& attached);

// Tells that a stretch of a trim's edge lies on this stretch of the line, evenly; either may run backwards. `reach` is
// how far the trim reaches from it, and which way.
void layAlong(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const PieceEdge& attached,
              Along line, Along onEdge, Reach reach);

// One on either side of the body is a pair.
Symmetry symmetryOn(const TrimStretch& stretch);

// Adds the piece and tells that its copies are sewn to the stretch one after the other by this edge, beginning `from`
// mm along the whole of it and each covering `each` mm. Of a piece cut in pairs the copies of the left half.
void sewOn(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, Piece piece, const std::string& edge,
           double from, double each, Reach reach);

}  // namespace armure
