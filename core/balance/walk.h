// core/balance/walk.h
//
// Walking a seam: measuring its two sides against each other, notch by notch, the way a maker rolls one paper edge
// along another. Everything is measured on the pieces as they are; nothing is changed here.
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// One stretch between neighbouring notches. Lengths in mm.
struct Stretch {
  std::string from, to;  // notch ids; "top" and "hem" at the ends
  double lengthA = 0, lengthB = 0;
  double plannedEase = 0;  // how much longer side a is meant to be
  double mismatch() const { return lengthA - lengthB - plannedEase; }
};

struct Walk {
  std::vector<Stretch> stretches;   // from the top down
  double lengthA = 0, lengthB = 0;  // of the whole sides, measured in one
  double plannedEase = 0;
  double mismatch() const { return lengthA - lengthB - plannedEase; }
};

// Walks `seam` from its upper end down. Notches are found on the pieces, not in the seam: a notch counts when both
// sides carry one of the same name. Throws std::out_of_range if the seam names an edge the pattern lacks. Arc lengths
// are exact to 1e-6 mm (Gauss-Legendre on each cubic; Abramowitz & Stegun 25.4.30).
Walk walk(const Pattern& pattern, const Seam& seam);

}  // namespace armure
