// core/prepare/arrange.h
//
// Laying pieces out: taped edge to edge for the eye, or apart on paper with the grain upright for cutting.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "geometry/box.h"
#include "pattern/pattern.h"

namespace armure {

// Where each piece lies, in the order of Pattern::pieces: from the piece's own axes.
using Arrangement = std::vector<Motion>;

// Pieces taped edge to edge.
struct Taped {
  Arrangement motions;
  std::vector<size_t> group;  // by piece; pieces of one group are taped to each other
};

// Every piece laid against one before along their common seam, rigidly and without lying over it: the gaps of curved
// seams show. Seams in `open` are not taped: the pieces there lie a hand's breadth apart. What would lie over a piece
// that is there already, a cup in its frame or a skirt of another shape under its bodice, begins a group of its own
// beside the first, or below it.
Taped tape(const Pattern& pattern, const std::set<std::string>& open = {});

// Pieces side by side, grain upright, cut outlines `spacing` mm apart, in rows not wider than `widest` mm; the whole
// starts at (0, 0), with a little room all round.
struct PaperLayout {
  std::vector<size_t> pieces;      // of Pattern::pieces, those that are laid
  Arrangement motions;             // of each of these
  std::vector<Polyline> outlines;  // their cut outlines as placed
  std::vector<Box> boxes;          // and round those
  double width = 0, height = 0;

  void add(size_t piece, const Polyline& cutOutline, const Motion& motion);
};
PaperLayout layOutOnPaper(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, double widest,
                          double spacing = 12);
// The same of some of its pieces.
PaperLayout layOutOnPaper(const Pattern& pattern, const std::vector<Polyline>& cutOutlines,
                          const std::vector<size_t>& pieces, double widest, double spacing = 12);

// All pieces of a pattern, by number.
std::vector<size_t> allPieces(const Pattern& pattern);

// Turns a piece so that its grain is upright, its top up.
Motion upright(const Piece& piece);

}  // namespace armure
