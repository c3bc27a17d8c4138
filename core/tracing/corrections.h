// core/tracing/corrections.h
//
// What a maker corrects of the names of a drawing (naming.h), one step at a time. Each takes names and gives others; a
// step that cannot be done gives a Problem, and nothing is half changed.
//
//   names = sewn(names, {"front", "edge-2"}, {"back", "edge-4"});
//   names = renamedEdge(names, {"front", "edge-2"}, "side");  // the seam follows
#pragma once

#include <string>

#include "tracing/naming.h"

namespace armure {

// An edge of a named piece.
struct TracedEdge {
  std::string piece, edge;
  bool operator==(const TracedEdge&) const = default;
};

// nullptr where there is none.
const NamedPiece* pieceNamed(const TracingNames& names, std::string_view id);
NamedPiece* pieceNamed(TracingNames& names, std::string_view id);
const NamedEdge* edgeNamed(const TracingNames& names, const TracedEdge& edge);
const NamedSeam* seamWith(const TracingNames& names, const TracedEdge& edge);
// The edges of the other side of its seam; none where it is sewn to nothing.
std::vector<TracedEdge> partnersOf(const TracingNames& names, const TracedEdge& edge);

// New ids are letters, figures and hyphens, and nobody else's.
Result<TracingNames> renamedPiece(TracingNames names, const std::string& piece, const std::string& id);
Result<TracingNames> renamedEdge(TracingNames names, const TracedEdge& edge, const std::string& id);
// Its seams go with it.
TracingNames withoutPiece(TracingNames names, const std::string& piece);
// What becomes of an edge. One that is no longer sewn leaves its seam.
TracingNames withRole(TracingNames names, const TracedEdge& edge, EdgeRole role);

// Sews two edges to each other; each leaves the seam it was in. The seam is called as both edges are, where they are
// called alike.
Result<TracingNames> sewn(TracingNames names, const TracedEdge& a, const TracedEdge& b);
TracingNames notSewn(TracingNames names, const TracedEdge& edge);

// A corner more: at the place of the edge's outline next to `at`. Its seam keeps the first part.
Result<TracingNames> splitAt(TracingNames names, const TracedEdge& edge, Vec2 at);
// A corner less: the edge and the one after it, clockwise, become one.
Result<TracingNames> oneWithNext(TracingNames names, const TracedEdge& edge);

}  // namespace armure
