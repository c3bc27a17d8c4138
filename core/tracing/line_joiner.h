// core/tracing/line_joiner.h
//
// Open lines of a drawing joined to closed outlines: what hangs loose at an end falls away, and of what is left the
// outer boundary is walked.
#pragma once

#include <vector>

#include "tracing/line_drawing.h"

namespace armure {

inline constexpr double kMeets = 0.1;  // mm: ends of two lines of one outline

// A shape as an outline walks it: from its start, or against its run.
struct WalkedShape {
  size_t shape = 0;
  bool start = true;
};

// Chains of shapes, each walked clockwise as seen; every shape in one of them at the most.
std::vector<std::vector<WalkedShape>> joinedOutlines(const std::vector<DrawnShape>& shapes);

}  // namespace armure
