#include "balance/walk.h"

#include <algorithm>

namespace armure {
namespace {

struct Place {
  std::string id;
  double at;
};

// Notches of one side as lengths from its upper end.
std::vector<Place> marksOf(const Pattern& pattern, const SeamSide& side) {
  std::vector<Place> marks;
  for (const Mark& n : pattern.pieces.at(side.piece).notches())
    if (side.uses(n.a.edge)) marks.push_back({n.id, pattern.alongSide(side, n.a)});
  std::sort(marks.begin(), marks.end(), [](const Place& a, const Place& b) { return a.at < b.at; });
  return marks;
}

// Shares every planned ease out over the stretches between its two notches, by their lengths on side a.
void planEase(const Seam& seam, std::vector<Stretch>& stretches) {
  for (const PlannedEase& e : seam.eases) {
    const auto first =
        std::find_if(stretches.begin(), stretches.end(), [&](const Stretch& s) { return s.from == e.from; });
    const auto last = std::find_if(first, stretches.end(), [&](const Stretch& s) { return s.to == e.to; });
    if (last == stretches.end()) continue;
    double length = 0;
    for (auto s = first; s <= last; ++s) length += s->lengthA;
    for (auto s = first; s <= last && length > 0; ++s) s->plannedEase += e.amount * s->lengthA / length;
  }
}

}  // namespace

Walk walk(const Pattern& pattern, const Seam& seam) {
  Walk result;
  result.lengthA = pattern.sidePath(seam.a).length();
  result.lengthB = pattern.sidePath(seam.b).length();
  result.plannedEase = seam.ease();
  const std::vector<Place> a = marksOf(pattern, seam.a), b = marksOf(pattern, seam.b);

  std::string from = "top";
  double lastA = 0, lastB = 0;
  for (const Place& m : a) {
    const auto partner = std::find_if(b.begin(), b.end(), [&](const Place& n) { return n.id == m.id; });
    if (partner == b.end()) continue;
    result.stretches.push_back({from, m.id, m.at - lastA, partner->at - lastB, 0});
    from = m.id;
    lastA = m.at;
    lastB = partner->at;
  }
  result.stretches.push_back({from, "hem", result.lengthA - lastA, result.lengthB - lastB, 0});
  planEase(seam, result.stretches);
  return result;
}

}  // namespace armure
