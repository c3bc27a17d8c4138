#include "prepare/cut_outlines.h"

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
    all.push_back(cutOutline(edges));
  }
  return all;
}

}  // namespace armure
