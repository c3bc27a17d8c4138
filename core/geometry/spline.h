// core/geometry/spline.h
//
// Smooth lines down the figure: x as a function of y through given stations, monotone between them, so that the line
// never swings past what the maker set (no overshoot, no wiggle).
#pragma once

#include <vector>

#include "geometry/path.h"

namespace armure {

// A station of a line: at depth y the line stands at x. Where `slope` (dx/dy) is not set it is found by the monotone
// rule. `handleAbove`/`handleBelow` are the reach of the Bezier handles in y, mm; 0 means a third of the interval.
struct Station {
  double y = 0, x = 0;
  double slope = 0;
  bool slopeGiven = false;
  double handleAbove = 0, handleBelow = 0;
};

// Slopes at the stations by the rule of F. N. Fritsch and J. Butland, "A method for constructing local monotone
// piecewise cubic interpolants", SIAM J. Sci. Stat. Comput. 5 (1984): zero where neighbouring secants differ in sign,
// else their weighted harmonic mean; at the ends the secant. Given slopes are kept. Stations strictly descend the
// figure (y grows).
std::vector<double> monotoneSlopes(const std::vector<Station>& stations);

// The same stations with longer handles where the line would bend at one with a radius of less than `radius` mm: a
// cubic whose second handle lies e aside of the tangent at its start bends there with the radius 3 a^2 / (2 e), a the
// length of the first handle. A handle reaches half the way to the next station at the most, in y and in x, so that the
// line stays monotone; where that is not enough the bend stays the tighter for it.
std::vector<Station> withRoundedBends(std::vector<Station> stations, double radius);

// The path through the stations, from the first down to the last. Needs two or more, y strictly growing
// (std::invalid_argument otherwise). With default handles it is exactly the cubic Hermite interpolant x(y).
Path monotonePath(const std::vector<Station>& stations);

}  // namespace armure
