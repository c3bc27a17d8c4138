// core/draft/block.h
//
// The block: half a body laid flat on the quarter grid, front and back, with every intake still in it as a gap. It is
// what a maker draws on paper before anything is cut.
//
// Each half has its own axes: x = 0 at the centre (front or back), growing towards the side; y = 0 on the shoulder
// line, growing down; mm.
//
// The identity the draft rests on holds on every level of each half:
//   side position = finished share + sum of the intakes of that half.
#pragma once

#include <numeric>
#include <string>
#include <vector>

#include "draft/levels.h"
#include "draft/opening.h"
#include "draft/plan.h"
#include "geometry/path.h"

namespace armure {

// A line along which the half is divided: its two edges, top to bottom. Between them lies the intake. A front line
// beyond the bust point is crossed by the side bust dart: its edges then come in two parts, above the dart's upper leg
// and below its lower one, and closing the dart joins them smoothly.
struct PanelLine {
  // Where the line was guided on a level: by rule, or by the maker's hand.
  struct Guide {
    std::string level;
    double x = 0;
    bool placed = false;
  };

  std::string id;
  Message name;
  double position = 0;              // x the line is drawn about
  Path toCentre;                    // edge of the piece on the centre's side
  Path toSide;                      // edge of the piece on the side's side
  Path toCentreBelow, toSideBelow;  // below the dart; empty when the line does not cross it
  std::vector<Guide> guides;        // from the top down
  Path onward;                      // above the top edge, towards armhole or shoulder; empty when it ends there

  double toCentreX(double y) const { return edgeX(toCentre, toCentreBelow, y); }
  double toSideX(double y) const { return edgeX(toSide, toSideBelow, y); }
  double intakeAtDepth(double y) const { return toSideX(y) - toCentreX(y); }

 private:
  static double edgeX(const Path& above, const Path& below, double y) {
    return !below.empty() && y >= below.start().y ? below.xAtDepth(y) : above.xAtDepth(y);
  }
};

// One level on one half.
struct HalfLevel {
  std::string level;
  double y = 0;
  double share = 0;             // finished, of this half
  double centreIntake = 0;      // taken in at the centre (zip)
  std::vector<double> intakes;  // taken in at each panel line, from the centre out
  double side = 0;              // x of the side
  // Where the half is shaped (draft/shaping.h): what the school wished for each line and, for the side, how far it
  // would stand inside the block; else empty.
  std::vector<double> wished = {};
  double sideTaken = 0, sideWished = 0;

  double lineIntake() const { return std::accumulate(intakes.begin(), intakes.end(), 0.0); }
};

struct HalfBlock {
  std::string id;  // "front" or "back", for names
  bool front = true;
  std::vector<HalfLevel> levels;
  Opening opening;               // what the centre is
  Path centre;                   // fold, seam, or the edge of the opening
  std::vector<PanelLine> lines;  // from the centre out
  Path side;                     // on the front: down to the side bust dart; below it see Block::sideBelowDart
  Path neck, shoulder, armhole;  // the covered block above the top edge, mostly cut away later

  const HalfLevel& at(std::string_view level) const;  // throws std::out_of_range
};

// The side bust dart: a wedge from the side to the bust point, on the front. Both legs are equally long.
struct SideDart {
  Vec2 apex;         // the bust point
  Vec2 upper;        // end of the upper leg, on the bust line
  Vec2 lower;        // end of the lower leg
  double angle = 0;  // radians; closing turns the part below by -angle about the apex
};

struct Intake {
  std::string half, line, level;
  double amount = 0, cap = 0;  // mm
  Message name = {};           // of the line
  Message cures = {};          // where the caps do not let a level take its drop: what would help
};

// "1 more line", "3 more lines".
Message moreLines(int count);

struct Block {
  PanelPlan plan;
  Levels levels;
  HalfBlock front, back;
  SideDart dart;
  Path sideBelowDart;  // the front side from the dart's lower leg down, before closing
  std::vector<Intake> intakes;
  std::vector<Working> workings;

  // Where the front's side meets a level that stands at a depth, and by how much it rises towards it: below the bust,
  // where part of the side bust dart is taken off the foot of the side (Levels::sideFoot).
  Vec2 frontSideAt(double y) const;
  double riseAt(double y) const;
  // What stays open on a level when the garment is worn, at front and back together, mm.
  double gapOn(std::string_view level) const;
  const Working* working(std::string_view key) const;  // nullptr when there is none
};

// Draws the block. Fails with the level and amount when it cannot be drawn.
Result<Block> draftBlock(const Body& body, const Rules& rules);

}  // namespace armure
