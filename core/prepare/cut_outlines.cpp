#include "prepare/cut_outlines.h"

#include <algorithm>

namespace armure {

std::vector<Polyline> cutOutlines(const Pattern& pattern) {
  std::vector<Polyline> all;
  all.reserve(pattern.pieces.size());
  for (const Piece& piece : pattern.pieces) {
    std::vector<AllowanceEdge> edges;
    edges.reserve(piece.edges.size());
    for (const Edge& e : piece.edges) {
      const bool fold = e.role == EdgeRole::Fold;
      edges.push_back(
          {fold ? Polyline{e.path.start(), e.path.end()} : e.path.flattened(kOutlineTolerance), e.allowance, fold});
    }
    // Without any allowance one cuts along the edge itself.
    const bool butted =
        std::all_of(piece.edges.begin(), piece.edges.end(), [](const Edge& e) { return e.allowance <= 0; });
    all.push_back(butted ? piece.outline(kExportTolerance) : cutOutline(edges));
  }
  return all;
}

}  // namespace armure
