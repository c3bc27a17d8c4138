// core/alter/differences.h
//
// Two versions of a pattern laid over each other: before and after, base and client, last order and this one. Pieces
// and edges are matched by id; a piece of the second is laid on that of the first as a maker lays paper on paper: with
// one level on itself, its nearer end on the nearer end, or with an end of one seam on itself, grain along grain.
#pragma once

#include <string>
#include <vector>

#include "alter/alter.h"
#include "alter/shift_table.h"
#include "geometry/polygon.h"
#include "pattern/pattern.h"

namespace armure {

// Where versions are laid on each other: at a level; or at the upper or the lower end of a seam, and at the level where
// a piece has no part in the seam.
struct LaidAt {
  std::string level{level::kWaist};
  std::string seam = {};  // id, or empty
  bool upper = true;
  bool operator==(const LaidAt&) const = default;
};

// From the axes of the second version of a piece to those of the first. Where they do not both have the place: their
// outlines' middles, and grain on grain.
Motion laidOn(const Pattern& first, const Piece& piece, const Pattern& second, const Piece& other, const LaidAt& at);

// Where an edge lies elsewhere in the second version.
struct EdgeDifference {
  size_t piece = 0;  // in the first version
  std::string edge;
  double largest = 0;  // mm: the greatest distance from the first's edge
  Vec2 at, by;         // where on the first's edge, and from there to the second's
  double longer = 0;   // mm: the second's edge less the first's
};

// Of all edges both have that differ by more than `least` mm, the largest first.
std::vector<EdgeDifference> differences(const Pattern& first, const Pattern& second, const LaidAt& at,
                                        double least = 0.1);

// Both edges of the side as they would be pinned: from the waist outwards and down, mm.
struct SideCurves {
  Polyline front, back;
};
// Of a pattern with these shifts; empty where it has no side seam that crosses the waist.
SideCurves sideCurves(const Pattern& shell, const Alteration& shifts);

// The table as it would be with every level by itself: x = f, y = b.
ShiftTable eachByItself(ShiftTable table);

}  // namespace armure
