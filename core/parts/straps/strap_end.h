// core/parts/straps/strap_end.h
//
// The free end of a strap or a tie, as it is cut: straight, in a half circle, or pointed.
#pragma once

#include "geometry/path.h"
#include "parts/straps/rules.h"

namespace armure {

// From one corner to the other, bulging to the left of its way (outwards, on an outline that runs clockwise): half a
// circle, or two slants at right angles. Of a strap that is folded lengthwise it goes over the whole piece, so that the
// fold is longest: finished, the end is rounded or slanted from the fold to the other edge.
Path strapEnd(Vec2 from, Vec2 to, StrapEnd end);
// How far it bulges, mm, over a piece so wide.
double strapEndDepth(StrapEnd end, double wide);

}  // namespace armure
