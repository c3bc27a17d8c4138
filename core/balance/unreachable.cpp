#include "balance/unreachable.h"

#include <fmt/format.h>

#include "lowered.h"

namespace armure {
namespace {

std::string listed(const std::vector<std::string>& words) {
  std::string out;
  for (size_t i = 0; i < words.size(); ++i) out += (i == 0 ? "" : i + 1 == words.size() ? " and " : ", ") + words[i];
  return out;
}

std::string edgeWords(const EdgeName& edge, const Pattern& pattern) {
  for (const Piece& p : pattern.pieces)
    if (p.id == edge.piece) return fmt::format("the {} edge of the {}", edge.edge, lowered(p.name));
  return fmt::format("the {} edge of {}", edge.edge, edge.piece);
}

std::string conflictWords(const Unreachable& what, const Pattern& pattern) {
  std::string text = fmt::format("{:.1f} mm are left", what.mm);
  if (what.rows.size() > 1)
    text += fmt::format("; it cannot hold together with {}", listed({what.rows.begin() + 1, what.rows.end()}));
  std::vector<std::string> held;
  for (const EdgeName& e : what.held) held.push_back(edgeWords(e, pattern));
  if (!held.empty()) text += fmt::format("; held with these choices: {}", listed(held));
  return text;
}

}  // namespace

UnreachableWords wordsOf(const Unreachable& what, const Pattern& pattern) {
  const Seam* seam = pattern.seam(what.seam);
  switch (what.why) {
    case Unreachable::Why::Conflict:
      return {what.rows.size() == 1 && seam ? seam->name : what.rows.front(), conflictWords(what, pattern)};
    case Unreachable::Why::TooFar:
      return {"", fmt::format("some edge would have to move by {:.0f} mm; the pieces stay as drafted", what.mm)};
    case Unreachable::Why::NoShape:
      return {"", "no shape near the draft fits everything; the pieces stay as drafted"};
    case Unreachable::Why::SewnOn:
      break;
  }
  return {seam ? seam->name : what.seam,
          fmt::format("it is sewn on at its {} end and cannot be trimmed there; it stays as drafted",
                      what.atTop ? "upper" : "lower")};
}

}  // namespace armure
