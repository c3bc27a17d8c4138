// core/balance/options.h
//
// What the maker asks of the balancing, seam by seam and edge by edge.
#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "pattern/pattern.h"
#include "rules/seam_choices.h"

namespace armure {

// Edges that together have to be this long, whatever they were: a line of a layer, from the shell's.
struct PrescribedLength {
  Message what;
  std::vector<PieceEdge> edges;
  double mm = 0;
};

struct BalanceOptions {
  std::map<std::string, SeamChoice, std::less<>> seams;  // by seam id; both sides give way where none is given
  std::set<EdgeName> locks;                              // edges that are held as drafted
  double easeLimit = 3.175;                              // mm a seam may ease in, for SeamWish::Ease
  std::vector<PrescribedLength> lengths;                 // these edges give way, sewn or not
  // By level, mm: what its girth came out too wide by where darts were moved by more than the first order tells.
  std::map<std::string, double, std::less<>> tooWide;

  SeamChoice choiceOf(std::string_view seam) const;
};

}  // namespace armure
