// core/pattern/outline_parts.h
//
// Small tools on the outline of a piece: stretches of it, places on it, splitting an edge. Dividing and joining pieces
// share them, and balancing.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// Part of one edge of an outline.
struct BoundaryStretch {
  size_t edge = 0;  // index
  double from = 0, to = 0;
};

// The outline clockwise from one place to another, without parts shorter than 1e-6 mm.
std::vector<BoundaryStretch> boundaryBetween(const Piece& piece, const Anchor& from, const Anchor& to);

// Whether an edge, or a leg of a dart, has this id.
bool hasEdge(const Piece& piece, std::string_view id);
// The number of an edge, or of a leg (Piece::lineAt), by its id; throws std::out_of_range.
size_t edgePlace(const Piece& piece, std::string_view id);
// The number of the first hem among the edges; their count where there is none.
size_t hemPlace(const Piece& piece);

// Arc length at which a point lies on a path, if it does (to 1e-3 mm).
std::optional<double> nearOn(const Path& path, Vec2 point);

// Whether a point lies inside a closed outline (even-odd rule).
bool contains(const Polyline& outline, Vec2 point);

// Splits an edge `along` mm from where `use` walks it; returns both parts as they are walked. The first keeps the id.
// Marks go with their part.
std::pair<EdgeUse, EdgeUse> splitEdge(Piece& piece, const EdgeUse& use, double along);

// The number of the line that meets the upper or lower end of a side on the outline (Piece::lineAt).
size_t lineBeyond(const Pattern& pattern, const SeamSide& side, bool atTop);

// The seam of the shell between a panel of a half (or a piece of its skirt, its yoke) and the next one outwards,
// counted from the centre from 1; nullptr where there is none.
const Seam* seamOutwards(const Pattern& pattern, Part part, Half half, int ordinal);

// The side seam of the panels; nullptr where there is none.
const Seam* bodiceSide(const Pattern& pattern);

// Whether a seam joins a front and a back, other than at the shoulder: part of the side, to the hem of a skirt.
bool isSideSeam(const Pattern& pattern, const Seam& seam);

// Walks a seam the other way, from its other end; its notches and eases go with it.
void turnSeam(const Pattern& pattern, Seam& seam);

// The seam of this id; throws std::out_of_range when there is none.
Seam& seamOf(Pattern& pattern, std::string_view id);

// Lays path b on path a: chord on chord, middle on middle.
Motion endsTogether(const Path& a, const Path& b);

// From the lower end of the right edge to that of the left one, square to both. Both run down.
Path hemBetween(const Path& right, const Path& left);

// The path with new ends, its handles there moved with them.
Path withEnds(const Path& path, Vec2 start, Vec2 end);

// A piece that lay on the fold comes twice, mirrored.
void cutInPairs(Piece& piece);

}  // namespace armure
