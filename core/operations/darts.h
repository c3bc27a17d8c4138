// core/operations/darts.h
//
// Darts of a piece: made of two sewn edges that stand beside each other in the outline, slit open again, or cut inside.
//
//   openDart(...) and joinAbove(...) leave a seam between two edges of one piece; then
//   makeDart(pattern, "dart-side");  // its edges leave the outline, a mouth closes it
//
// Invariants: lengths of the legs and everything on the outline stay; a level that ended on both legs crosses the dart
// in one line, whose width counts without what the dart takes (Piece::taken). makeDart and slitDart undo each other
// but for levels, which come back straight.
#pragma once

#include <string>
#include <string_view>

#include "pattern/pattern.h"

namespace armure {

// Makes the seam of this id a dart: both its sides are edges of one piece, one behind the other, and meet in the point.
// What lay between their other ends becomes the mouth, straight, with the allowance of the edge before it. Throws
// std::out_of_range when there is no such seam, std::invalid_argument when its sides do not stand like that.
void makeDart(Pattern& pattern, std::string_view id);

// Puts the legs of an open dart back into the outline, slit open to its point; its seam stays. Throws std::out_of_range
// when there is no open dart of this id.
void slitDart(Pattern& pattern, std::string_view id);

// A dart pointed at both ends: both legs run from the upper point to the lower one, `left` nearer a level's start.
struct PointedDart {
  std::string id;
  Message name;
  Path left, right;
};

// Cuts it into a piece, with a notch on both legs at every level it crosses. Throws std::invalid_argument when its legs
// do not meet at both ends.
void cutPointedDart(Pattern& pattern, size_t piece, const PointedDart& dart);

// Lets a dart end `clear` mm short of its point (of its upper one, pointed at both ends), on the middle line between
// its legs: down to `until` mm from the point, along them, both are drawn anew, straight or in one bend. What is marked
// on a leg above that is gone. Throws std::out_of_range when there is no such dart.
void shortenDart(Pattern& pattern, std::string_view id, double clear, double until);

}  // namespace armure
