// core/balance/roll.h
//
// The two sides of a seam rolled out along one ruler, the way a maker rolls one paper edge along the other: from an
// anchor where they are laid together, with every notch where it falls, and how far they have run apart on the way.
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// A notch, or an end ("top", "hem"), on the ruler: mm from the anchor, downwards positive.
struct RolledMark {
  std::string id;
  double a = 0, b = 0;
  double ease = 0;  // planned between the anchor and here: how much longer side a is meant to be
  // How much longer side a has been on the way here than side b and the ease; mm.
  double difference() const { return (a > 0 ? 1 : -1) * (a - b) - ease; }
};

struct RolledSeam {
  std::string anchor;             // "underbust"; "top" where the sides carry no such notch
  std::vector<RolledMark> marks;  // from the top down, with both ends

  // All for a place on side a, mm from the anchor. Within a stretch the two sides go together in proportion.
  double partner(double a) const;     // the place on side b that is sewn to it
  double difference(double a) const;  // the running difference there
};

// Lengths are exact to 1e-6 mm; throws std::out_of_range if the seam names an edge the pattern lacks.
RolledSeam roll(const Pattern& pattern, const Seam& seam);

// The points on the two pieces, in their own axes, that are sewn together at a place on side a of the ruler.
struct SewnPoints {
  Vec2 a, b;
};
SewnPoints sewnAt(const Pattern& pattern, const Seam& seam, const RolledSeam& rolled, double a);

}  // namespace armure
