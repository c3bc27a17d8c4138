#include "draft/front_half.h"

#include <algorithm>
#include <cmath>

#include "draft/half_parts.h"
#include "draft/line_paths.h"
#include "draft/princess.h"
#include "draft/upper_block.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"

namespace armure {
namespace {

class FrontHalf : private HalfParts {
 public:
  FrontHalf(const Body& body, const Rules& rules, Block& block) : HalfParts(body, rules, block, true) {}

  void draft() && {
    HalfBlock& f = half();
    f.id = "front";
    drawCentre();
    const double bust = level(level::kBust).front;
    const double width = level(level::kBust).frontShare + centreIntake(bust);
    const std::vector<double> at = positions(width);
    setDart(at.front(), width);
    std::vector<double> starts;
    for (double x : at) starts.push_back(onLowerLeg(x).y);
    const bool closed = block_.plan.line(SectionKind::Frame, true, 0) == LineKind::None;
    shape({true, starts, width, block_.dart.lower, [this](double y) { return centreIntake(y); }, closed});
    const auto below = [this, &at](const ShapedLevel& l, double part) { return firstBelow(l, at.front(), part); };
    f.lines.push_back(drawPrincess(block_, body_, rules_, shaping_, at.front(), below, topY(), bottomY()));
    drawFurtherLines(at);
    passStraight(block_.dart.lower);
    for (const Level& l : block_.levels.all)
      if (!l.readOff) addLevel(l);
    drawSide();
    readOff(level::kChest, f.side);
    readOff(level::kHem, block_.sideBelowDart);
    giveBackRise(f.levels.back());
  }

 private:
  // What of the side bust dart is closed; the rest is taken off the foot of the side.
  double closedDart() const { return block_.levels.sideDart - block_.levels.sideFoot; }

  // A level that rises from the last line on ends as far from that as were it level.
  Vec2 risenBy(double rise, Vec2 level) const {
    const double last = half().lines.back().toSideX(level.y), width = level.x - last;
    return {last + std::sqrt(std::max(width * width - rise * rise, 0.25 * width * width)), level.y - rise};
  }
  // Of a level that was read off the side line, which runs risen.
  void giveBackRise(HalfLevel& l) const {
    const double rise = block_.riseAt(l.y);
    if (rise == 0) return;
    const double last = half().lines.back().toSideX(l.y), side = block_.frontSideAt(l.y).x - last;
    const double more = last + std::hypot(side, rise) - l.side;
    l.side += more, l.share += more;
    block_.levels.at(l.level).frontShare += more;
  }

  // The wedge: upper leg on the bust line, lower leg as long, `closedDart()` apart at the side: angle = 2 asin(w / 2L).
  void setDart(double position, double bustSide) {
    SideDart& d = block_.dart;
    const double bust = level(level::kBust).front;
    d.apex = {position, bust};
    d.upper = {bustSide, bust};
    d.angle = 2 * std::asin(std::min(1.0, closedDart() / (2 * distance(d.apex, d.upper))));
    d.lower = Motion::rotationAbout(d.apex, d.angle).apply(d.upper);
  }

  // Where the side dart's lower leg is met at the distance of `x` from the bust point.
  Vec2 onLowerLeg(double x) const {
    return Motion::rotationAbout(block_.dart.apex, block_.dart.angle).apply({x, block_.dart.apex.y});
  }

  // The lines beyond the bust point: nothing is taken in above the dart; below it both edges start on its lower leg.
  // Above and below they run so that the closed line is smooth, half of the turn on either side.
  void drawFurtherLines(const std::vector<double>& at) {
    const double top = level(level::kTop).front, bust = level(level::kBust).front;
    const double corner = std::tan(block_.dart.angle / 2);
    const auto below = levelsBelow(block_.levels, shaping_, true, [this](double y) { return centreIntake(y); });
    const std::vector<double>& topTakings = shaping_.at(level::kTop).taken;
    const auto atTop =
        furtherEdges(at, topTakings, half().lines.front().toSideX(top),
                     level(level::kTop).frontShare + centreIntake(top) + topTakings[0], spacedEvenly(at));
    for (size_t i = 1; i < at.size(); ++i) {
      const Vec2 start = onLowerLeg(at[i]);
      std::vector<Station> above{{top, topOf(i, atTop[i - 1].toCentre)}, {bust, at[i], corner, true}};
      if (goesUp(rules_, true) && !rules_.guide(level::kTop, lineId(true, i))) {
        const Vec2 end = endOfFurtherLine(body_, rules_, true, level(level::kChest).front, i, at.size(), at[i]);
        above.front() = {end.y, end.x + half().lines.front().intakeAtDepth(end.y)};
      }
      extend(above, topY(), bust);
      const FurtherLine line = furtherLine(i, at, below);
      auto [centre, outer] = sweptEdges({{start.y, start.x, -corner, true}}, {{start.y, 0, 0, true}}, below, line.edges,
                                        line.placed, start.y, bottomY());
      const Path upper = monotonePath(above);
      half().lines.push_back({lineId(true, i),
                              lineName(true, i),
                              at[i],
                              upper,
                              upper,
                              std::move(centre),
                              std::move(outer),
                              line.guides,
                              {}});
    }
  }

  // The front side above and below the dart. Where the dart is, both run in the direction halfway between them once the
  // dart is closed, so that the closed side is smooth.
  void drawSide() {
    const SideDart& d = block_.dart;
    HalfBlock& f = half();
    const HalfLevel &top = f.at(level::kTop), &under = f.at(level::kUnderbust);
    const Vec2 above = d.upper - Vec2{top.side, top.y},
               below = risenBy(block_.riseAt(under.y), {under.side, under.y}) - d.lower;
    const Vec2 through = unit(unit(above) + unit(rotated(below, -d.angle)));
    const Vec2 throughBelow = rotated(through, d.angle);
    const double secant = above.x / above.y, slope = through.x / through.y;
    std::vector<Station> upper{{top.y, top.side, 2 * secant - slope, true}, {d.upper.y, d.upper.x, slope, true}};
    extend(upper, topY(), d.upper.y);
    f.side = monotonePath(upper);
    std::vector<Station> lower{{d.lower.y, d.lower.x, throughBelow.x / throughBelow.y, true}};
    for (const HalfLevel& l : f.levels)
      if (const Vec2 end = risenBy(block_.riseAt(l.y), {l.side, l.y});
          l.y > d.upper.y && end.y >= lower.back().y + kLeastApart)
        lower.push_back({end.y, end.x});
    extend(lower, d.lower.y, bottomY());
    block_.sideBelowDart = monotonePath(withRoundedBends(lower, kSideBend));
  }
};

}  // namespace

void draftFrontHalf(const Body& body, const Rules& rules, Block& block) { FrontHalf(body, rules, block).draft(); }

}  // namespace armure
