#include "order/base.h"

#include <algorithm>

namespace armure {
namespace {

bool sameEdge(const Edge& a, const Edge& b) {
  return a.id == b.id && a.role == b.role && a.allowance == b.allowance && a.path.cubics() == b.path.cubics();
}

bool sameMark(const Mark& a, const Mark& b) {
  const auto same = [](const Anchor& x, const Anchor& y) { return x.edge == y.edge && x.at == y.at; };
  return a.kind == b.kind && a.id == b.id && a.doubled == b.doubled && same(a.a, b.a) && same(a.b, b.b);
}

bool samePiece(const Piece& a, const Piece& b) {
  if (a.lines() != b.lines() || a.edges.size() != b.edges.size()) return false;
  for (size_t i = 0; i < a.lines(); ++i)
    if (!sameEdge(a.lineAt(i), b.lineAt(i))) return false;
  return a.id == b.id && a.name == b.name && a.half == b.half && a.part == b.part && a.ordinal == b.ordinal &&
         a.copies == b.copies && a.onFold == b.onFold && a.grainTop == b.grainTop && a.grainBottom == b.grainBottom &&
         std::ranges::equal(a.marks, b.marks, sameMark);
}

bool sameSeam(const Seam& a, const Seam& b) {
  const auto sameSide = [](const SeamSide& x, const SeamSide& y) {
    return x.piece == y.piece && std::ranges::equal(x.chain, y.chain, [](const EdgeUse& u, const EdgeUse& v) {
             return u.edge == v.edge && u.reversed == v.reversed;
           });
  };
  return a.id == b.id && a.name == b.name && a.kind == b.kind && a.ease() == b.ease() && sameSide(a.a, b.a) &&
         sameSide(a.b, b.b);
}

}  // namespace

bool TracedPieces::operator==(const TracedPieces& other) const {
  if (shell == other.shell) return opening == other.opening;
  return shell && other.shell && opening == other.opening &&
         std::ranges::equal(shell->pieces, other.shell->pieces, samePiece) &&
         std::ranges::equal(shell->seams, other.shell->seams, sameSeam);
}

}  // namespace armure
