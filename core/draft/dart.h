// core/draft/dart.h
//
// Closing the side bust dart: the princess line is cut open up to the bust point and the lower part of the side front
// is turned about the bust point until the legs of the dart meet. The turn is an exact rotation: every length on the
// turned part is kept. The draft has given both broken lines (the side, and the princess edge at the bust point) the
// directions that make them smooth once closed.
#pragma once

#include "draft/block.h"

namespace armure {

struct ClosedFront {
  // The edges of every front line, top to bottom, the dart closed. The first line's edge towards the centre belongs to
  // the centre front, which does not turn.
  std::vector<Path> toCentre, toSide;
  Path side;    // edge at the side, top to bottom
  Motion turn;  // of everything below the dart beyond the bust point: rotation by -angle about it
};

ClosedFront closeSideDart(const Block& block);

// The part of `path` above and below the depth `y`, at which the path has a joint or is crossed once.
std::pair<Path, Path> splitAtDepth(const Path& path, double y);

}  // namespace armure
