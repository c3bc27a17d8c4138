// core/draft/half_parts.h
//
// What drafting the front half and the back half have in common: how far lines are drawn, where panel lines stand, the
// centre, and the levels with the side given back.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "draft/block.h"
#include "draft/further_lines.h"
#include "draft/shaping.h"

namespace armure {

class HalfParts {
 public:
  // `block` must outlive this; its levels are laid out.
  HalfParts(const Body& body, const Rules& rules, Block& block, bool front)
      : body_(body), rules_(rules), block_(block), front_(front) {}

 protected:
  // The side is rounded to this radius where it bends, in mm: half as much again as a sewn edge needs at the least.
  static constexpr double kSideBend = 18;

  HalfBlock& half() const { return front_ ? block_.front : block_.back; }
  const Level& level(std::string_view id) const { return block_.levels.at(id); }
  double depth(std::string_view id) const { return front_ ? level(id).front : level(id).back; }
  double share(std::string_view id) const { return front_ ? level(id).frontShare : level(id).backShare; }
  double topY() const;     // lines are drawn this far past top edge
  double bottomY() const;  // and hem, to be cut

  // Opening and centre line of the half; the centre's intake is what the line leaves beside half the gap.
  void drawCentre();
  double endOfOpening() const;
  Path edgeOfGap(double above, double below) const;
  double centreIntake(double y) const;

  size_t lineCount() const;
  // The first line stands at half the span; the others each half a span further, or evenly between it and the side,
  // and so where half spans do not fit.
  std::vector<double> positions(double width) const;
  bool spacedEvenly(const std::vector<double>& at) const;

  // Where the first line stands below the bust, `part` of what it takes in lying towards the centre: as far out as at
  // the bust (`position`), or so that the centre panel keeps its part of the half.
  double firstBelow(const ShapedLevel& level, double position, double part) const;

  // Where the lines beyond the first stand below the bust: by rule, or where the maker placed them; below the last
  // placed level they keep its distance from the rule.
  struct FurtherLine {
    std::vector<EdgePair> edges;  // by level below
    std::vector<bool> placed;
    std::vector<PanelLine::Guide> guides;
  };
  FurtherLine furtherLine(size_t i, const std::vector<double>& at, const std::vector<LevelBelow>& below) const;
  // How far the middle of a gap stands off its line where the maker gave the line a share there, outwards.
  double aside(std::string_view level, size_t line, double taken) const;
  double topOf(size_t i, double byRule) const;  // where a line meets the top edge's level

  // Which lines are there, and whether they run out below, is the plan's.
  void shape(ShapingFrame frame);
  void runOut(bool aboveSkirtHem);
  // Once the lines are drawn: the share of an underbust the side runs straight past, from `from` to the waist.
  void passStraight(Vec2 from);
  // A level with a prescribed girth: the side is given back what is taken in.
  void addLevel(const Level& l);
  // A level whose girth the draft gives: the smooth side line is read there, and the share is what the pieces leave.
  void readOff(std::string_view id, const Path& sideLine);

  const Body& body_;
  const Rules& rules_;
  Block& block_;
  const bool front_;
  Shaping shaping_;

 private:
  std::vector<double> intakesAt(double y) const;
};

}  // namespace armure
