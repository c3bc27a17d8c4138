// core/operations/pivot.h
//
// Turning part of a piece about a point of its outline: what a maker does with a pin and tracing paper. A dart is
// opened by it, closed, or moved to another place; with cloth left in the gap it is the slash and spread of a gathered
// piece.
//
// A piece is cut straight from the pivot to a place on its outline, the mouth, and the part of the outline that runs
// clockwise from the one to the other is turned about the pivot. The turn is an exact rotation: every length and angle
// on either part is kept. A dart is sewn to a point short of the pivot; between the two the cloth is whole.
//
//   DartCut cut{2, {"princess", 140}, {"side", 55}, TurnedPart::FromMouthToPivot};
//   openDart(pattern, cut, 0.2, {"dart-side", "Side dart", 25.4});
#pragma once

#include <string>

#include "pattern/pattern.h"

namespace armure {

enum class TurnedPart { FromPivotToMouth, FromMouthToPivot };  // clockwise

struct DartCut {
  size_t piece = 0;
  Anchor pivot, mouth;
  TurnedPart turned{};
};

struct DartName {
  std::string id;
  Message name;
  double clear = 0;  // how far short of the pivot it ends, mm
};

// What a turn did: the angle by which the mouth opened, and how wide, mm. Negative where it closed.
struct DartTurn {
  double angleRad = 0, width = 0;
};

// Opens a dart: turns the part away from the other and sews both legs to each other, a dart of the piece and a seam of
// this id (operations/darts.h). Seams that use the mouth's edge fall into two there, on both their pieces. The angle is
// below a half turn.
DartTurn openDart(Pattern& pattern, const DartCut& cut, double angleRad, const DartName& name);

// The same with cloth left in the gap: the outline runs on across the mouth, which grows by the width. What is added is
// an edge of the mouth's role, and the seams that use the mouth's edge use it too; less than 20 mm is no edge of its
// own but is added to the edge behind the mouth. The corners are rounded.
DartTurn openSpread(Pattern& pattern, const DartCut& cut, double angleRad);

// Folds out a dart `width` wide beside the mouth, clockwise from it, by turning the part until that shuts. Both ends
// are at the same distance from the pivot. Throws std::invalid_argument when the mouth's edge is too short for it.
DartTurn foldOut(Pattern& pattern, const DartCut& cut, double width);

// The angle at the pivot between the mouth's two ends of a dart.
double dartAngle(const Pattern& pattern, std::string_view id, const Anchor& pivot);

// Closes `part` of a dart that openDart made about this pivot, turning the part it turned back. The whole of it takes
// the dart away and joins the seams it divided. Throws std::out_of_range when there is no such dart.
DartTurn closeDart(Pattern& pattern, std::string_view id, const Anchor& pivot, TurnedPart turned, double part = 1);

// Moves `part` of a dart to another mouth about the same pivot; the whole angle stays. Throws as closeDart.
DartTurn transferDart(Pattern& pattern, std::string_view id, double part, const DartCut& to, TurnedPart turned,
                      const DartName& name);

}  // namespace armure
