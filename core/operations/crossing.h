// core/operations/crossing.h
//
// Where a line runs on across a seam (top edge, hem): the corner of a piece there, and drawing the line so that it
// crosses the closed seam without a kink.
#pragma once

#include <optional>

#include "pattern/pattern.h"

namespace armure {

// The corner of a piece at one end of a seam.
struct SeamEnd {
  Vec2 corner;
  EdgeRole acrossRole = EdgeRole::Top;  // of the edge that runs on across the seam
  size_t across = 0;                    // that edge, its number in its piece (Piece::lineAt)
  bool atItsStart = false;              // the corner is where that edge starts
  double angleRad = 0;                  // inside the piece, between the seam and that edge
  double chordAngleRad = 0;             // between the seam's first millimetre and the chord of that edge's next cubic
  double chord = 0;                     // mm, its length
  std::optional<double> fromUnderbust;  // arc length from the underbust notch to the corner, mm
};

SeamEnd seamEnd(const Pattern& pattern, const SeamSide& side, bool atTop);

// How the line turns there with the seam closed, in radians: 0 when it runs on, positive when it points outwards.
double turnAcross(const Pattern& pattern, const Seam& seam, bool atTop);

// Lays side b's piece on side a's with that end of the seam closed: the corners meet, the seams run the same way.
Motion closedAt(const Pattern& pattern, const Seam& seam, bool atTop);

// Draws top edge and hem on across every seam, as a maker does with the pieces laid edge to edge: one smooth line
// through all corners. With the seams closed, the chords of two neighbouring pieces turn by t at their seam. Let s and
// e be how far the line is turned from its chord at the two ends of a piece, of chord L; then
//   s of one piece + e of its neighbour = t              no kink
//   sum over the pieces of (s^2 - s e + e^2) / L = min    a beam's bending energy, so the bend runs on across seams too
// A line's free ends (centre front, centre back) keep the direction they were drafted with. Where it would still bend
// at a seam with less than 200 mm of radius its handle is lengthened. Corners stay where they are.
void runOnAcrossSeams(Pattern& pattern);

// The same for lines that were drawn already and whose corners have moved a little: they keep their character. At every
// seam the kink that has come is taken away by turning the two handles there, with t now the turn of the tangents and
// s, e how far the handles are turned; free ends and everything within a piece stay; a handle at a seam is lengthened
// where it bends with less than 200 mm of radius, but on an armhole.
void trueAcrossSeams(Pattern& pattern);

// Where a level ended on a top edge or hem of a piece as it was `before`, it ends on that edge as it is now: moved
// along the level. What the cloth loses or wins there is skin, so the opening of that level takes the difference.
void followFreeEdges(const Pattern& before, Pattern& after);

}  // namespace armure
