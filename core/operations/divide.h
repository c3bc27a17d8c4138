// core/operations/divide.h
//
// Dividing pieces along a line: a cup line, a yoke's lower edge, a cross seam, an insert. The line runs through one
// piece after the other, across the closed seams between them; what lies on its left (as it travels, seen on the paper)
// becomes new pieces, and both sides are sewn together again along it. A seam the line crosses falls into two.
//
//   DividingLine cup{"cup", "Cup line", "in the cup", EdgeRole::Cup, 6.35, {through front-1, through front-2}};
//   dividePieces(pattern, cup, {{"cup-inner", "Inner cup"}, {"cup-outer", "Outer cup"}});
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// Where the line runs through one piece: from one place of its boundary to another.
struct LineThrough {
  size_t piece = 0;
  Anchor from, to;
  Path path;  // its ends lie on those places
};

struct DividingLine {
  std::string id;    // of the new seams, and of the new edges: "cup-1", "cup-2", ... one for each piece
  Message name;      // of the new seams
  Message leftWord;  // what a seam is on the left of the line: "in the cup"
  EdgeRole role = EdgeRole::Cup;
  double allowance = 0;  // mm
  std::vector<LineThrough> through;
};

struct PieceName {
  std::string id;
  Message name;
  Part part{};
};

// Divides. The parts on the right keep the places of the pieces in the pattern and their ids, and the seams there
// theirs; the parts on the left come last, named by `left`, one for each piece; a seam on the left gets the line's id
// behind its own. Every length, notch and level mark stays where it was. A seam of which only one side is cut gets a
// corner on the other side too, so that each edge is sewn once. Throws std::invalid_argument when the ends of a path
// are not on the boundary, the path runs through a dart, or a seam is cut at places of its two sides that do not belong
// together.
void dividePieces(Pattern& pattern, const DividingLine& line, const std::vector<PieceName>& left);

// Keeps the first so many pieces, and of seams and trims what concerns no other.
void keepFirst(Pattern& pattern, size_t pieces);

// Whether a line cuts through a dart of a piece: it cannot be divided there.
bool runsThroughDart(const Piece& piece, const Path& line);

// Puts the pieces into another order: `order[i]` is the old place of the piece that comes i-th.
void reorderPieces(Pattern& pattern, const std::vector<size_t>& order);

}  // namespace armure
