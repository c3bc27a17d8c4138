// core/draft/shaping.h
//
// What every line of a half takes in on every level, and what the side takes: the school's wish, and what becomes of it
// within the caps and with what the maker holds by hand. All levels and lines are one problem
// (distribute/distribution.h); the block is as wide everywhere as at the bust, and what the finished share leaves of it
// is the drop.
//
// Schools (the rule "distribution.school"):
//   thumb          every line by its rule; on the underbust what is left over beside a straight side; the side the rest
//   quarter-minus  thumb for what the natural figure asks, and the reduction of the quarter evenly on top of it
//   middle-piece   the first front line mirrors the middle piece; else thumb
//   even, side-weighted, flat-front    parts of the drop for the lines and the side
// The first three are granted as wished, whatever the caps (the sheet says where a seam takes more); the others keep
// within the caps, and what these leave goes to the side with the cures. A value held by hand stands in every school.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "draft/block.h"

namespace armure {

inline constexpr double kLeastApart = 4;  // mm: nearer levels are not both stations of a line

// A half before its lines are drawn.
struct ShapingFrame {
  bool front = true;
  std::vector<double> starts;  // by line, from the centre out: the depth at which it begins to take in below the bust
  double width = 0;            // of the block, as at the bust
  Vec2 sideFrom;               // where the side below the bust begins: on the front the end of the dart's lower leg
  std::function<double(double)> centreIntake;  // taken in at the centre, at a depth
  // The first line is closed for good below the bust (under a cut cup, plan.h): it takes as much on every level there
  // and its edges run straight down, so that they are one line.
  bool firstClosed = false;
  std::vector<bool> absent = {};  // by line: it is not there (plan.h) and takes nothing in; the side takes its part
  // How far the side stands inside the block at a depth below the bust, where it has the shape of the other half's:
  // then the first line takes what is left over.
  std::function<double(double)> tracedSide = {};
  bool straightPast = false;  // the side runs straight past the underbust, whatever the girth there (Level::follows)
  bool runsOutBelow = false;  // nothing is taken in at the hem: below the waist the lines are no seams
};

struct ShapedLevel {
  std::string id;
  double y = 0;
  bool drawn = true;          // the lines run through what is taken here; else only their ends follow from it
  std::vector<double> taken;  // by line, from the centre out; both sides of a line together
  std::vector<double> wished;
  double side = 0, sideWished = 0;  // how far the side stands inside the block
};

struct Shaping {
  std::vector<ShapedLevel> levels;  // from the top down: top (front), underbust, own levels, waist, high hip, hem
  std::vector<Working> workings;
  std::vector<Intake> atSide;  // what the side takes with its cap, in the schools that have one

  const ShapedLevel* find(std::string_view level) const;  // nullptr when the half is not shaped there
  const ShapedLevel& at(std::string_view level) const;    // throws std::out_of_range
};

// Whether the school shares out the drop in parts.
bool sharesOut(const Rules& rules);

Shaping shapeHalf(const Levels& levels, const Rules& rules, const ShapingFrame& frame);

}  // namespace armure
