// core/draft/dart.h
//
// Closing the side bust dart: the princess line is cut open up to the bust point and the lower part of the side front is
// turned about the bust point until the legs of the dart meet. The turn is an exact rotation: every length on the turned
// part is kept. Then the two places where a smooth line was broken (the side where the dart was, the princess edge at the
// bust point) are made smooth again; that redrawing moves handles only, never a point of the draft.
#pragma once

#include "draft/block.h"

namespace armure {

struct ClosedSideFront {
  Path princess;       // edge towards the centre, top to bottom, redrawn smooth at the bust point
  Path side;           // edge at the side, top to bottom, redrawn smooth where the dart was
  Path turnedPrincess; // the turned parts as they were before the redrawing, from the bust point down
  Path turnedSide;     // and from the dart down
  Motion turn;         // of everything below the dart; rotation by -angle about the bust point
};

ClosedSideFront closeSideDart(const Block& block);

// The part of `path` above and below the depth `y`, at which the path has a joint or is crossed once.
std::pair<Path, Path> splitAtDepth(const Path& path, double y);

}  // namespace armure
