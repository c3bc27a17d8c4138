// core/parts/opening/opening_end.h
//
// The ends of an opening (draft/opening.h) on the finished pieces: beyond them the edges of the opening are a seam of
// the piece with its own mirror image.
#pragma once

#include "draft/block.h"
#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

// Divides every edge of an opening that runs on beyond one of its ends, with a notch there; an edge that lies beyond it
// altogether becomes a seam. A yoke closes by itself, whatever the opening below it does. And sets a notch where a seam
// lands on a smooth line of another piece: on a frame in one piece, on an upper band, on a yoke, where the cup's
// princess seam or a panel seam ends.
void endOpenings(Pattern& pattern, const Block& block, const Rules& rules);
void markLandings(Pattern& pattern);

}  // namespace armure
