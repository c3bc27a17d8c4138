#include "balance/unreachable.h"

namespace armure {
namespace {

Message edgeWords(const EdgeName& edge, const Pattern& pattern) {
  for (const Piece& p : pattern.pieces)
    if (p.id == edge.piece) return msg("the {} edge of the {}", edge.edge, p.name);
  return msg("the {} edge of {}", edge.edge, edge.piece);
}

Message conflictWords(const Unreachable& what, const Pattern& pattern) {
  Listed others, held;
  if (what.rows.size() > 1) others.all.assign(what.rows.begin() + 1, what.rows.end());
  for (const EdgeName& e : what.held) held.all.push_back(edgeWords(e, pattern));
  if (others.all.empty() && held.all.empty()) return msg("{:.1f} mm are left", what.mm);
  if (held.all.empty()) return msg("{:.1f} mm are left; it cannot hold together with {}", what.mm, std::move(others));
  if (others.all.empty()) return msg("{:.1f} mm are left; held with these choices: {}", what.mm, std::move(held));
  return msg("{:.1f} mm are left; it cannot hold together with {}; held with these choices: {}", what.mm,
             std::move(others), std::move(held));
}

}  // namespace

UnreachableWords wordsOf(const Unreachable& what, const Pattern& pattern) {
  const Seam* seam = pattern.seam(what.seam);
  switch (what.why) {
    case Unreachable::Why::Conflict:
      return {what.rows.size() == 1 && seam ? seam->name : what.rows.front(), conflictWords(what, pattern)};
    case Unreachable::Why::TooFar:
      return {"", msg("some edge would have to move by {:.0f} mm; the pieces stay as drafted", what.mm)};
    case Unreachable::Why::NoShape:
      return {"", "no shape near the draft fits everything; the pieces stay as drafted"};
    case Unreachable::Why::SewnOn:
      break;
  }
  return {seam ? seam->name : verbatim(what.seam),
          what.atTop ? "it is sewn on at its upper end and cannot be trimmed there; it stays as drafted"
                     : "it is sewn on at its lower end and cannot be trimmed there; it stays as drafted"};
}

}  // namespace armure
