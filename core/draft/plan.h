// core/draft/plan.h
//
// The panel plan of a garment: into which sections it falls between its boundaries, and for each half of each section
// which lines run through it and what becomes of them. It is worked out once, from the choices; what draws, cuts and
// joins asks the plan and not the choices.
//
//   a cross-seamed cup, its frame in one piece, under a net yoke:
//     bodice  front  princess seam, front line 2 seam     frame  front  princess none
//     cups    front  princess none                        yoke   front  princess none, front line 2 none
//
// Invariant: every section of a half has the lines of the bodice's, or the first few of them, in the same order from
// the centre out.
#pragma once

#include <string>
#include <vector>

#include "rules/rules.h"

namespace armure {

// From the shoulder down. Frame: what of the bodice lies round and below a cut cup. Band: the upper band of a cup.
enum class SectionKind { Yoke, Bodice, Band, Cups, Frame, Skirt };

// What becomes of a line in a section. Seam: cut along, sewn together. Dart: sewn inside one piece. None: not cut; what
// the line would take there is closed for good.
enum class LineKind { Seam, Dart, None };

struct PlannedLine {
  std::string id;
  Message name;  // "princess", "princess line"; the ids of rules/shaping_keys.h
  LineKind kind = LineKind::Seam;
};

struct Section {
  SectionKind kind{};
  bool front = true;
  std::vector<PlannedLine> lines;  // from the centre out
};

struct PanelPlan {
  std::vector<Section> sections;

  const Section* find(SectionKind kind, bool front) const;  // nullptr where the garment has no such section
  const Section& bodice(bool front) const;                  // every garment has both
  // What becomes of a line of a half, counted from the centre. Where the section does not run there, as in the bodice.
  LineKind line(SectionKind kind, bool front, size_t place) const;
  // Whether what the lines of a half take in runs out below the waist: there they are no seams, or the princess line is
  // a dart of the frame.
  bool runsOutBelow(bool front) const;
};

PanelPlan panelPlan(const Rules& rules);

// Whether the lines of the front are darts of one piece, below the bust: then nothing is taken in above it.
bool frontIsInOne(const Rules& rules);

}  // namespace armure
