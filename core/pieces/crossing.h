// core/pieces/crossing.h
//
// Where a line runs on across a seam (top edge, hem): the corner of a piece there, and drawing the line so that it
// crosses the closed seam without a kink.
#pragma once

#include <optional>

#include "pieces/pattern.h"

namespace armure {

// The corner of a piece at one end of a seam.
struct SeamEnd {
  Vec2 corner;
  EdgeRole acrossRole = EdgeRole::Top;  // of the edge that runs on across the seam
  size_t across = 0;                    // that edge, an index into its piece
  bool atItsStart = false;              // the corner is where that edge starts
  double angleRad = 0;                  // inside the piece, between the seam and that edge
  double chordAngleRad = 0;             // between the seam's first millimetre and the chord of that edge's next cubic
  double chord = 0;                     // mm, its length
  std::optional<double> fromUnderbust;  // arc length from the underbust notch to the corner, mm
};

SeamEnd seamEnd(const Pattern& pattern, const SeamSide& side, bool atTop);

// Draws top edge and hem on across every seam, as a maker does with the pieces laid edge to edge: with a seam closed at
// its end, both run in the tangent of the circle through the corner and the two neighbouring corners. The angle between
// a chord and that tangent is as the length of the chord, so that with a turn of the chords of t
//   angle on side a = chord angle a - t La / (La + Lb),   the same on b:   together a straight angle, no kink.
// Where that would bend a line at the seam with less than 120 mm of radius, its handle is lengthened. Corners stay where
// they are.
void runOnAcrossSeams(Pattern& pattern);

}  // namespace armure
