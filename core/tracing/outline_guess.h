// core/tracing/outline_guess.h
//
// What one outline lets one guess of itself: its name, edges, grain, levels and notches; and its stretches from corner
// to corner, to be compared with those of others.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "tracing/naming.h"
#include "tracing/outlines.h"

namespace armure {

inline constexpr double kTouches = 0.5;  // mm: a line ends on the outline

// A part of the outline between corners, as it may be an edge.
struct TracedStretch {
  size_t piece = 0, edge = 0;  // in the names
  Path path;
  std::vector<double> notches;   // along it
  std::optional<double> beyond;  // to the line to cut, mm, from its middle
  double straight = 0;           // radians it turns from along the grain; HUGE_VAL where it is no straight line
};

// One outline read: the piece it may be, and its stretches in the order of its corners.
struct OutlineGuess {
  NamedPiece piece;
  std::vector<TracedStretch> stretches;  // numbered within this piece; whose piece it is, is said by who asks
  std::vector<bool> isFold;              // as the file says
};

// `number` is what it is called by where the file calls it nothing. Levels have no ids yet but those a word says.
OutlineGuess guessOutline(const LineDrawing& drawing, const TracedOutline& outline, size_t number);

}  // namespace armure
