// core/distribute/distribution.h
//
// Sharing out what a half must lose: the drop of every level over the lines it can be taken in at.
//
// On level l the block is wider than the finished share by the drop D_l. Every line i takes an intake x_li; the side
// seam is one of the lines (its intake is how far the side stands inside the block's straight side, and may be less
// than nothing where the hip is wider than the bust). All levels are solved at once:
//
//   minimise   sum_li w_i (x_li - p_li)^2  +  s sum_li (e_(l+1)i - e_li)^2 h0 / (y_(l+1) - y_l),   e = x - p
//   subject to sum_i x_li = D_l  and  low_li <= x_li <= high_li
//
// p is the wish of the school, w how firmly a line keeps to it, s how much the deviations may jump from level to level
// (an intake that jumps makes a rippling seam), h0 = 100 mm. With w > 0 the solution is unique and does not depend on
// the order of the lines. A held intake has low = high.
//
// Where the caps make a drop impossible nothing is silently clamped: the level takes what it can, the rest is a Miss,
// and the cheapest cures are worked out.
#pragma once

#include <string>
#include <vector>

namespace armure {

struct TakingLine {
  std::string id;
  double weight = 1;  // > 0; a larger one keeps closer to its wish
};

struct TakingLevel {
  std::string id;
  double y = 0;     // depth, mm; strictly growing from level to level
  double drop = 0;  // mm, of one half
};

// One line on one level, mm.
struct TakingCell {
  double wish = 0;
  double low = 0, high = 0;  // low = high: held
};

struct DistributionProblem {
  std::vector<TakingLine> lines;
  std::vector<TakingLevel> levels;
  std::vector<TakingCell> cells;  // level by level, lines in order
  double smoothness = 0.3;        // s

  const TakingCell& cell(size_t level, size_t line) const { return cells[level * lines.size() + line]; }
};

// What would let the level take all of its drop; each alone suffices.
struct Cures {
  int moreLines = 0;         // further lines with the mean cap of the others there
  double higherCap = 0;      // mm more for every line that may take more
  double lessReduction = 0;  // mm less off the whole girth, both halves of front and back alike
};

struct Miss {
  size_t level;
  double amount;  // mm of the drop left over; negative where the lines take more than the drop even at their lowest
  Cures cures;
};

struct Distribution {
  std::vector<double> intakes;  // as cells
  std::vector<Miss> misses;
  int steps = 0;
};

// Throws std::invalid_argument when the sizes do not fit, a weight is not positive or the levels do not descend.
Distribution distribute(const DistributionProblem& problem);

}  // namespace armure
