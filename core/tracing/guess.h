// core/tracing/guess.h
//
// What a drawing lets one guess of its pieces, for the maker to correct: an outline for each piece, edges from corner
// to corner, a fold where a straight edge along the grain has no partner, seams of edges as long as each other with the
// same notches, levels of the lines that cross, grain of the longest line that touches nothing. What the file calls its
// lines ("front.side", a layer "fold", or the layers of ASTM D6673, from memory) is believed first.
#pragma once

#include "tracing/naming.h"
#include "tracing/outlines.h"

namespace armure {

struct GuessOptions {
  double scale = 1;         // every length of the drawing times this is its true one
  double allowance = 12.7;  // mm, where no line to cut is drawn
};

// Names for every outline that is no test square. Pieces it cannot make anything of are still named, so that nothing is
// lost; what is sewn to nothing is called an edge that is finished, so that the names as they are make a pattern.
TracingNames guessedNames(const LineDrawing& drawing, const GuessOptions& options = {});

}  // namespace armure
