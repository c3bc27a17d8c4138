// core/balance/balance.h
//
// Balancing: the smallest change of the pieces that makes every seam fit and every girth right at once. What is
// minimised, and what must hold, is in problem.h; how it is solved in solve.h; how the pieces follow in
// moved_pattern.h.
//
//   const Balanced b = balance(pattern, balanceOptions(rules));
//   b.pattern       the pieces, moved
//   b.moves         which edges moved, how far, and what asked for it
//   b.unreachable   what cannot hold together with these choices
//   b.certificate   what was reached, in numbers
//
// Edges that are not sewn (top, hem, armhole) follow the corners beside them and stay lines of the same character; what
// that does to them is reported like every other movement. Layers are made from the balanced shell afterwards
// (layers/recipe.h).
//
// Where 40 steps do not end it, or an edge would move by more than 30 mm, the pieces stay as drafted and the result
// says so. Parts of an intake need no unknowns of their own: to shift it, both edges of a line move the same way, which
// changes no girth.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "balance/options.h"
#include "balance/unreachable.h"
#include "pattern/pattern.h"

namespace armure {

class Rules;

// As the order has them.
BalanceOptions balanceOptions(const Rules& rules);

// How far an edge moved, and where most.
struct EdgeMove {
  size_t piece = 0;
  std::string edge;
  std::string seam;    // the seam it is sewn in; empty for a free edge
  double largest = 0;  // mm, at a joint; along the edge as well as across it
  double across = 0;   // mm, how far the line to cut moves: square to a sewn edge, the greatest distance of a free one
  Vec2 at, by;         // where, on the balanced piece, and which way
  std::string near;    // the notch or level there, or empty
  Message why;         // the constraint that asked for most of it: "Side seam, bust to underbust"
};

struct BalanceCertificate {
  bool converged = false;
  int iterations = 0;
  double worstStretch = 0, worstGirth = 0, worstCorner = 0;  // mm, of the constraints that were set
  double worstJoin = 0;                                      // rad times 10 mm
  double stationarity = 0;                                   // largest component of H x - J' lambda, of that of H x
  double largestMove = 0;    // mm, of a joint, notches that slide along their edge included
  double largestAcross = 0;  // mm, of a line to cut
};

// Where a balancing ended, for the next one of a pattern much like it to start from.
struct BalanceEnd {
  std::map<EdgeName, std::vector<double>> edges;  // the unknowns of every edge that gave way
  std::vector<double> lambda;                     // by row
  bool operator==(const BalanceEnd&) const = default;
};

struct Balanced {
  Pattern pattern;
  std::vector<EdgeMove> moves;           // of every edge that differs from the draft, the largest first
  std::vector<Unreachable> unreachable;  // what cannot be brought to fit with these options
  BalanceCertificate certificate;
  BalanceEnd end;
};

// The same result in any order of pieces, seams and edges, from any start, to 1e-5 mm; it keeps nothing between calls,
// so several threads may balance at once. `start` is where a pattern much like this one ended and saves steps; edges it
// does not know, or that had other joints, start from the draft. Throws std::out_of_range when a seam names an edge the
// pattern lacks.
Balanced balance(const Pattern& drafted, const BalanceOptions& options = {}, const BalanceEnd& start = {});

}  // namespace armure
