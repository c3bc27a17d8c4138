#include "app/side_selection.h"

#include <algorithm>

#include "operations/both_sides.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

const Piece* pieceOf(const Pattern& pattern, const std::string& id) {
  const auto found = std::ranges::find(pattern.pieces, id, &Piece::id);
  return found == pattern.pieces.end() ? nullptr : &*found;
}

// The edge of a half that became this one of the whole.
std::string edgeInHalf(const Design& whole, const std::string& half, const std::string& edge, BodySide side) {
  const Piece* p = pieceOf(whole.half(side).pattern, half);
  for (size_t i = 0; p && i < p->lines(); ++i)
    if (inWhole(whole.pattern, *p, p->lineAt(i).id, side).edge == edge) return p->lineAt(i).id;
  return {};
}

}  // namespace

std::pair<Selection, BodySide> inHalf(const Design& whole, Selection s, BodySide side) {
  if (const Seam* seam = whole.pattern.seam(s.seam); seam && !seam->splitOf.empty()) {
    if (seam->side != BodySide::Both) side = seam->side;
    s.seam = seam->splitOf;
  }
  const Piece* piece = pieceOf(whole.pattern, s.piece);
  if (!piece || piece->splitOf.empty()) return {std::move(s), side};
  if (piece->side != BodySide::Both) {
    side = piece->side;
  } else if (hasEdge(*piece, s.edge) && piece->edge(s.edge).side != BodySide::Both) {
    side = piece->edge(s.edge).side;
  }
  if (hasEdge(*piece, s.edge)) s.edge = edgeInHalf(whole, piece->splitOf, s.edge, side);  // else it is a half's already
  s.piece = piece->splitOf;
  return {std::move(s), side};
}

Selection inWhole(const Design& whole, Selection s, BodySide side) {
  const Pattern& half = whole.half(side).pattern;
  if (const Seam* seam = half.seam(s.seam)) s.seam = inWhole(whole.pattern, *seam, side);
  if (const Piece* piece = pieceOf(half, s.piece)) {
    PieceEdge there = inWhole(whole.pattern, *piece, s.edge, side);
    s.piece = whole.pattern.pieces[there.piece].id;
    s.edge = s.edge.empty() ? std::string() : std::move(there.edge);
  }
  return s;
}

}  // namespace armure
