#include "balance/roll.h"

#include <algorithm>

#include "balance/walk.h"

namespace armure {
namespace {

// How far from one mark to the next a place lies, in the stretch that holds it.
struct Within {
  const RolledMark &from, &to;
  double part;
};

Within find(const std::vector<RolledMark>& marks, double a) {
  size_t i = 0;
  while (i + 2 < marks.size() && marks[i + 1].a < a) ++i;
  const RolledMark &from = marks[i], &to = marks[i + 1];
  const double length = to.a - from.a;
  return {from, to, length > 0 ? std::clamp((a - from.a) / length, 0.0, 1.0) : 0};
}

double between(double from, double to, double part) { return from + part * (to - from); }

}  // namespace

double RolledSeam::partner(double a) const {
  const Within w = find(marks, a);
  return between(w.from.b, w.to.b, w.part);
}

double RolledSeam::difference(double a) const {
  const Within w = find(marks, a);
  return between(w.from.difference(), w.to.difference(), w.part);
}

RolledSeam roll(const Pattern& pattern, const Seam& seam) {
  const Walk walked = walk(pattern, seam);
  RolledSeam out;
  out.marks.push_back({"top"});
  std::vector<double> ease{0};
  for (const Stretch& s : walked.stretches) {
    const RolledMark& last = out.marks.back();
    out.marks.push_back({s.to, last.a + s.lengthA, last.b + s.lengthB});
    ease.push_back(ease.back() + s.plannedEase);
  }
  const auto anchor =
      std::find_if(out.marks.begin(), out.marks.end(), [](const RolledMark& m) { return m.id == level::kUnderbust; });
  const size_t at = anchor == out.marks.end() ? 0 : static_cast<size_t>(anchor - out.marks.begin());
  const RolledMark zero = out.marks[at];
  out.anchor = zero.id;
  for (size_t i = 0; i < out.marks.size(); ++i) {
    RolledMark& m = out.marks[i];
    m.a -= zero.a;
    m.b -= zero.b;
    m.ease = i < at ? ease[at] - ease[i] : ease[i] - ease[at];
  }
  return out;
}

SewnPoints sewnAt(const Pattern& pattern, const Seam& seam, const RolledSeam& rolled, double a) {
  const RolledMark& top = rolled.marks.front();
  return {pattern.sidePath(seam.a).pointAt(a - top.a), pattern.sidePath(seam.b).pointAt(rolled.partner(a) - top.b)};
}

}  // namespace armure
