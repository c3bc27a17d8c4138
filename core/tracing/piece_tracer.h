// core/tracing/piece_tracer.h
//
// One named outline as a piece: its outline cut into edges, its darts, levels and notches found on it, laid upright as
// the left half of the body. See naming.h for what is said of it.
#pragma once

#include <vector>

#include "pattern/pattern.h"
#include "result.h"
#include "tracing/naming.h"
#include "tracing/outlines.h"

namespace armure {

// The drawing at its true size, its outlines, and the names at the same size. Fails with the first thing that does not
// hold, naming the piece and what would be right.
Result<Piece> tracedPiece(const LineDrawing& drawing, const std::vector<TracedOutline>& outlines,
                          const NamedPiece& names);

// Moves a piece, its marks with it.
void movePiece(Piece& piece, const Motion& motion);

// The name of a level people know: "High hip"; of others the id.
Message tracedLevelName(const std::string& id);

}  // namespace armure
