// core/parts/bones/eyelets.h
//
// The eyelets, or loops, of a laced edge, and how long a lace they take. Both edges carry them at the same places, at
// the maker's spacing and closer beside the waist. Common practice, no source.
//
//   lace = 2 rows sqrt((gap + 2 edge)^2 + apart^2) + ends
//
// with the gap it is opened to for getting in, the distance of the eyelets from the edge, their mean spacing, and what
// hangs down for bow and loops.
#pragma once

#include <string>
#include <vector>

#include "draft/block.h"
#include "pattern/pattern.h"

namespace armure {

// One laced edge: the pair on the other half is its mirror image.
struct EyeletRow {
  size_t piece = 0;          // index into Pattern::pieces
  std::string edge;          // the first edge of the opening, from above
  bool loops = false;        // of cloth, on the edge, instead of eyelets
  std::vector<Vec2> places;  // from the upper end down, on the axes of the piece
  double length = 0;         // of the laced edge, mm
  double aside = 0;          // from the edge, mm; loops stand on it
};

// Whether an opening is laced, by itself or over a zip.
bool isLaced(OpeningKind kind);

// From the edge of an opening of this kind to the channel of the bone beside it, and, where it is laced with eyelets,
// to their middles: clear of that channel; mm.
double firstChannelFromEdge(OpeningKind kind);
double eyeletsFromEdge(OpeningKind kind, const Rules& rules);

// One for each laced opening: behind, in front, or none.
std::vector<EyeletRow> eyeletsOf(const Pattern& pattern, const Block& block, const Rules& rules);

// mm; needs two rows of holes at least (std::invalid_argument otherwise).
double laceLength(const EyeletRow& row, const Rules& rules);

}  // namespace armure
