#include "balance/walk.h"

#include <algorithm>

namespace armure {
namespace {

struct Mark {
  std::string id;
  double at;
};

// Notches of one side as lengths from its upper end.
std::vector<Mark> marksOf(const Pattern& pattern, const SeamSide& side, double length) {
  std::vector<Mark> marks;
  for (const Notch& n : pattern.pieces.at(side.piece).notches)
    if (n.edge == side.edge) marks.push_back({n.id, side.reversed ? length - n.at : n.at});
  std::sort(marks.begin(), marks.end(), [](const Mark& a, const Mark& b) { return a.at < b.at; });
  return marks;
}

}  // namespace

Walk walk(const Pattern& pattern, const Seam& seam) {
  Walk result;
  result.lengthA = pattern.pieces.at(seam.a.piece).edge(seam.a.edge).path.length();
  result.lengthB = pattern.pieces.at(seam.b.piece).edge(seam.b.edge).path.length();
  result.plannedEase = seam.ease;
  const std::vector<Mark> a = marksOf(pattern, seam.a, result.lengthA), b = marksOf(pattern, seam.b, result.lengthB);

  std::string from = "top";
  double lastA = 0, lastB = 0;
  for (const Mark& m : a) {
    const auto partner = std::find_if(b.begin(), b.end(), [&](const Mark& n) { return n.id == m.id; });
    if (partner == b.end()) continue;
    result.stretches.push_back({from, m.id, m.at - lastA, partner->at - lastB, 0});
    from = m.id;
    lastA = m.at;
    lastB = partner->at;
  }
  result.stretches.push_back({from, "hem", result.lengthA - lastA, result.lengthB - lastB, 0});
  // Planned ease is shared by length: no notched ends of an eased stretch are known yet.
  for (Stretch& s : result.stretches) s.plannedEase = result.lengthA > 0 ? seam.ease * s.lengthA / result.lengthA : 0;
  return result;
}

}  // namespace armure
