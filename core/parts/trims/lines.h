// core/parts/trims/lines.h
//
// The lines of a garment that something can be sewn to: its upper edge, its hem, its armhole and the edges of its
// opening, each running on from piece to piece, with the marks a maker would name on it (the seams it crosses); and its
// seams, with their notches. One half of the body; the other is its mirror image.
//
//   const auto stretch = stretchOf(pattern, trim);       // "hem", from "side" to "end"
//   if (stretch.ok()) ... stretch->whole ...             // mm, on both halves together
#pragma once

#include <array>
#include <string>
#include <vector>

#include "operations/sew.h"
#include "rules/trims.h"

namespace armure {

struct LineMark {
  std::string id;  // "start", "side", "end"
  Message name;
  double at = 0;        // mm from the line's start
  bool isSide = false;  // a side seam is crossed there
};

struct GarmentLine {
  std::string id;                  // "hem"; of several the next is "hem-2"
  Message name;                    // "Hem"
  std::vector<SewnEdge> edges;     // from the centre front outwards, or from the shoulder down and up behind
  std::vector<double> ends;        // of each, mm from the start
  std::vector<LineMark> marks;     // from the start on
  std::array<bool, 2> runsOver{};  // at its start, at its end: over the centre, to the mirrored half
  // Of a seam, from its upper end down: the edges of its other side, where they end, and whether it runs into the hem.
  std::vector<SewnEdge> partner = {};
  std::vector<double> partnerEnds = {};
  bool atHem = false;
  bool isLoop = false;  // its end is its start: an armhole under a shoulder seam
  double openedAt = 0;  // a loop that is cut open elsewhere: so far on from its own start, mm
  bool isSeam() const { return !partner.empty(); }
  double length() const { return ends.empty() ? 0 : ends.back(); }
  const LineMark* side() const;  // where it first crosses the side; nullptr where it does not
};

// Of the shell, as it is.
std::vector<GarmentLine> garmentLines(const Pattern& pattern);

// Part of a line, and how often the garment has it.
struct TrimStretch {
  GarmentLine line;
  double from = 0, to = 0;     // mm along the line
  std::array<bool, 2> over{};  // whether what is sewn on runs on over the centre at either end
  bool apart = false;          // left and right are not alike: it is cut apart at the centre all the same
  double half() const { return to - from; }
  bool isOver() const { return !apart && (over[0] || over[1]); }
  int count() const { return isOver() ? 1 : 2; }                // of what is sewn on: one piece of work, or one a side
  double whole() const { return half() * (isOver() ? 2 : 1); }  // of each of them
  bool isRing() const { return !apart && over[0] && over[1]; }
};

// The same stretch on the other side of a seam.
TrimStretch onPartner(const TrimStretch& stretch);
// A short stretch of the line, `wide` mm about a place on it, as far as the line has room.
TrimStretch about(const TrimStretch& stretch, double at, double wide);

// Where a trim is sewn. On a line that comes back to itself it may run on over its start: from "end - 4 in" to
// "start + 4 in", over the shoulder. The Problem says which line or mark the garment lacks and which it has, or that
// nothing is left between the two.
Result<TrimStretch> stretchOf(const Pattern& pattern, const TrimChoice& trim);

}  // namespace armure
