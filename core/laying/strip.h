// core/laying/strip.h
//
// Outlines laid on a strip, of cloth or of paper, so that little of its length is used: the strip packing problem.
// x runs along the strip from 0, y across it from 0 to its width. Millimetres, radians.
#pragma once

#include <optional>
#include <vector>

#include "geometry/box.h"

namespace armure {

// How an outline may lie: mirrored (x -> -x) where it is, then turned.
struct Turn {
  double angleRad = 0;
  bool mirrored = false;
};
Motion turned(const Turn& turn);

// Where an outline lies: one of its turns, then the shift.
struct LaidItem {
  size_t turn = 0;
  Vec2 at;
};

struct StripItem {
  size_t outline = 0;              // of StripProblem::outlines
  std::vector<Turn> turns;         // at least one
  bool atEdge = false;             // its highest y lies at the far edge: an edge on the fold of the cloth
  std::optional<LaidItem> locked;  // it lies there and is not moved
};

struct StripProblem {
  double width = 0;
  double gap = 0;                  // between any two outlines
  std::vector<Polyline> outlines;  // simple, not closed
  std::vector<StripItem> items;
  Polyline within = {};    // a remnant: what there is of the strip; empty: all of its width, as long as is needed
  double tolerance = 0.3;  // outlines are wrapped within twice this (wrapped.h)
};

struct StripLayout {
  std::vector<LaidItem> items;  // in the order of StripProblem::items
  double length = 0;            // of the strip, from 0 to the last outline's end
};

// An item's outline as it lies.
Polyline laidOutline(const StripProblem& problem, size_t item, const LaidItem& laid);

// The end of the last outline.
double usedLength(const StripProblem& problem, const std::vector<LaidItem>& items);

// The part of width x length that the outlines cover.
double utilisation(const StripProblem& problem, const StripLayout& layout);

// No layout is shorter: the longest outline, or all of their area over the width.
double shortestLength(const StripProblem& problem);

// An outline that is wider than the strip, whichever way it may lie: its item. A problem with one has no layout.
std::optional<size_t> tooWide(const StripProblem& problem);

// The most that two outlines share, or an outline has outside the strip (or the remnant), mm^2: of a sound layout about
// nothing. On the outlines themselves, by Clipper.
double worstOverlap(const StripProblem& problem, const StripLayout& layout);

}  // namespace armure
