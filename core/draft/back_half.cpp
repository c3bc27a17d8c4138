#include "draft/back_half.h"

#include <algorithm>
#include <functional>
#include <tuple>

#include "draft/dart.h"
#include "draft/half_parts.h"
#include "draft/line_paths.h"
#include "draft/upper_block.h"
#include "geometry/spline.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

class BackHalf : private HalfParts {
 public:
  BackHalf(const Body& body, const Rules& rules, Block& block) : HalfParts(body, rules, block, false) {}

  void draft() && {
    HalfBlock& b = half();
    b.id = "back";
    b.front = false;
    drawCentre();
    const double bust = level(level::kBust).back;
    const double width = level(level::kBust).backShare + centreIntake(bust);
    const std::vector<double> at = positions(width);
    ShapingFrame frame{false, std::vector<double>(at.size(), start()), width, {width, bust}, [this](double y) {
                         return centreIntake(y);
                       }};
    if (isTraced()) frame.tracedSide = sideOfFront();
    shape(std::move(frame));
    b.lines.push_back(firstLine(at[0]));
    drawFurtherLines(at);
    double atBust = width;
    for (const PanelLine& line : b.lines) atBust += line.intakeAtDepth(bust);
    if (!isTraced()) passStraight({atBust, bust});
    for (const Level& l : block_.levels.all)
      if (!l.readOff) addLevel(l);
    std::vector<Station> side;
    for (const HalfLevel& l : b.levels) side.push_back({l.y, l.side});
    extend(side, topY(), bottomY());
    b.side = monotonePath(withRoundedBends(side, kSideBend));
    for (std::string_view id : {level::kChest, level::kHem}) readOff(id, b.side);
  }

 private:
  bool isTraced() const {
    return rules_.option(key::kBackSide) == BackSide::Front && rules_.counts(*findRule(key::kBackSide.text));
  }

  // How far inside of where it is at the bust the front's side stands, its dart closed: by the depth of the back.
  std::function<double(double)> sideOfFront() const {
    const double bust = level(level::kBust).front, down = bust - level(level::kBust).back;
    return [side = closeSideDart(block_).side, bust, down](double y) {
      return side.xAtDepth(bust) - side.xAtDepth(y + down);
    };
  }

  // Where the lines begin to take in.
  double start() const {
    const double chest = level(level::kChest).back, lowest = level(level::kUnderbust).back - 15;
    // A traced side leaves the bust as wide as it is: nothing is taken in above it.
    const double byRule = std::max(chest + rules_.length(key::kBackStart), isTraced() ? level(level::kBust).back : 0);
    if (block_.plan.line(SectionKind::Bodice, false, 0) != LineKind::Dart) return std::min(byRule, lowest);
    constexpr double kBelowEdge = 15;  // mm: the point of a dart lies in the cloth
    const double edge = rules_.option(key::kBackShape) == BackShape::Straight ? chest - rules_.length(key::kTopSide)
                                                                              : chest + rules_.length(key::kBackSlope);
    return std::min(std::max(byRule, edge + kBelowEdge), lowest);
  }

  // What the first line takes in where it ends on the shoulder, as a dart would.
  double atShoulder() const {
    const bool ends = rules_.option(key::kPrincessAbove) == LineEnd::Shoulder &&
                      block_.plan.line(SectionKind::Bodice, false, 0) == LineKind::Seam;
    return ends ? rules_.length(key::kBackIntakeShoulder) : 0;
  }

  // The first line: nothing above its start, most at the waist; by rules of thumb it ends above the hem. Its middle
  // stands upright, or where the maker placed it.
  PanelLine firstLine(double position) const {
    const double waist = level(level::kWaist).back, hem = level(level::kHem).back;
    std::vector<Station> gap{{start(), 0, 0, true}}, middle{{start(), topOf(0, position)}};
    const auto end = endOfFirstLine(body_, rules_, false, level(level::kChest).back);
    if (goesUp(rules_, false) && end && end->y < start() - kLeastApart) {
      const double taken = atShoulder();
      gap.insert(gap.begin(), {end->y, taken, -taken / (start() - end->y), true});
      middle.insert(middle.begin(), {end->y, end->x + taken / 2});
    }
    PanelLine line{lineId(false, 0), lineName(false, 0), position, {}, {}, {}, {}, {}, {}};
    double shift = 0;
    for (const ShapedLevel& l : shaping_.levels) {
      if (l.id == level::kHem || !l.drawn) continue;
      const auto guide = rules_.guide(l.id, lineId(false, 0));
      const double byRule = firstBelow(l, position, 0.5);
      if (guide) shift = *guide - byRule;
      line.guides.push_back({l.id, byRule + shift, guide.has_value()});
      gap.push_back({l.y, l.taken[0]});
      middle.push_back({l.y, byRule + shift + aside(l.id, 0, l.taken[0])});
    }
    const bool held = rules_.held(level::kHem, lineId(false, 0)).has_value();
    const bool toHem = (sharesOut(rules_) || held) && !block_.plan.runsOutBelow(false);
    const double ends =
        toHem ? hem
              : std::max({hem - rules_.length(key::kBackEnd), waist + 0.5 * (hem - waist), gap.back().y + kLeastApart});
    const double atHem = toHem ? shaping_.at(level::kHem).taken[0] : 0;
    gap.push_back({ends, atHem, 0, !toHem});
    middle.push_back(
        {ends, firstBelow(shaping_.at(level::kHem), position, 0.5) + shift + aside(level::kHem, 0, atHem)});
    extend(gap, topY(), bottomY());
    extend(middle, topY(), bottomY());
    std::tie(line.toCentre, line.toSide) = edgesAbout(middle, gap);
    return line;
  }

  // Back lines beyond the first: from the line's start, where nothing is taken in yet.
  void drawFurtherLines(const std::vector<double>& at) {
    const auto below = levelsBelow(block_.levels, shaping_, false, [this](double y) { return centreIntake(y); });
    const double bust = level(level::kBust).back, from = std::min(start(), bust);
    const std::vector<double> nothing(at.size(), 0);
    const double top = level(level::kTop).back;
    const auto upper =
        furtherEdges(at, nothing, at.front(), level(level::kBust).backShare + centreIntake(bust), spacedEvenly(at));
    const auto atTop =
        furtherEdges(at, nothing, at.front(), level(level::kTop).backShare + centreIntake(top), spacedEvenly(at));
    for (size_t i = 1; i < at.size(); ++i) {
      std::vector<Station> middle{{from, upper[i - 1].toCentre}}, gap{{from, 0, 0, true}};
      if (goesUp(rules_, false) && !rules_.guide(level::kTop, lineId(false, i))) {
        const Vec2 end = endOfFurtherLine(body_, rules_, false, level(level::kChest).back, i, at.size(), at[i]);
        middle.insert(middle.begin(), {end.y, end.x});
        gap.insert(gap.begin(), {end.y, 0, 0, true});
      } else if (top < from - kLeastApart) {
        middle.insert(middle.begin(), {top, topOf(i, atTop[i - 1].toCentre)});
        gap.insert(gap.begin(), {top, 0, 0, true});
      }
      const FurtherLine line = furtherLine(i, at, below);
      auto [centre, outer] = sweptEdges(std::move(middle), std::move(gap), below, line.edges, line.placed, topY(),
                                        bottomY(), block_.plan.line(SectionKind::Bodice, false, i) == LineKind::Dart);
      half().lines.push_back(
          {lineId(false, i), lineName(false, i), at[i], std::move(centre), std::move(outer), {}, {}, line.guides, {}});
    }
  }
};

}  // namespace

void draftBackHalf(const Body& body, const Rules& rules, Block& block) { BackHalf(body, rules, block).draft(); }

}  // namespace armure
