#include "parts/edges/style_line.h"

#include <algorithm>
#include <cmath>

#include "geometry/spline.h"
#include "parts/edges/rules.h"

namespace armure {
namespace {

// How far round from the centre front each boundary stands at the waist, intakes closed; mm.
std::vector<double> around(const Block& block) {
  const Boundaries at(block);
  std::vector<double> x{0};
  const auto widths = [](const HalfBlock& half) {
    const HalfLevel& waist = half.at(level::kWaist);
    std::vector<double> w;
    double from = half.centre.xAtDepth(waist.y);
    for (const PanelLine& line : half.lines) {
      w.push_back(line.toCentreX(waist.y) - from);
      from = line.toSideX(waist.y);
    }
    w.push_back(waist.side - from);
    return w;
  };
  for (double w : widths(block.front)) x.push_back(x.back() + w);
  const std::vector<double> back = widths(block.back);
  for (size_t i = back.size(); i-- > 0;) x.push_back(x.back() + back[i]);
  return x;
}

// `rise`: how much higher than its depth the line meets the front's side (Block::frontSideAt).
void smoothSlopes(StyleLine& line, const Boundaries& at, const std::vector<double>& x, double centreFrontSlope,
                  double rise = 0) {
  const double sideStep = line.sideDepthOnBack - line.depth[at.side()] + rise;
  std::vector<Station> s;
  for (size_t i = 0; i < at.count(); ++i)
    s.push_back({x[i], at.onBack(i)     ? line.depth[i] - sideStep
                       : i == at.side() ? line.depth[i] - rise
                                        : line.depth[i]});
  s.front().slope = centreFrontSlope;
  s.front().slopeGiven = true;
  s.back().slopeGiven = true;
  line.slope = monotoneSlopes(s);
}

// The point of a dipped hem leaves the centre front this much steeper than the straight way to the side.
constexpr double kPoint = 2;

// The sweetheart leaves the centre front this much steeper than the straight way to its crest.
constexpr double kHeart = 2.2;

constexpr double kSteep = 0.6;  // a scooped back leaves the side no steeper

double lastSlope(const StyleLine& line, const Boundaries& at, const std::vector<double>& x) {
  const size_t last = at.centreBack(), before = last - 1;
  const double from = before == at.side() ? line.sideDepthOnBack : line.depth[before];
  return (line.depth[last] - from) / (x[last] - x[before]);
}

// From its lowest point at the centre front to the bust line: a V runs straight, a U leaves the centre level.
void plunge(StyleLine& line, const Block& block, const Rules& rules) {
  const double bust = block.levels.at(level::kBust).front;
  const double centre = block.front.centre.xAtDepth(bust);
  const double lowest = block.levels.at(level::kUnderbust).front + rules.length(key::kTopPlunge);
  const Vec2 from{block.front.centre.xAtDepth(lowest), lowest},
      beside{centre + rules.length(key::kTopPlungeBeside), bust};
  line.depth[0] = lowest;
  const Vec2 straight = unit(beside - from);
  const double fall = lowest - bust;
  line.plunge =
      rules.option(key::kTopShape) == TopShape::PlungeV
          ? Path::line(from, beside)
          : Path(Cubic{from, {from.x + 0.55 * (beside.x - from.x), lowest}, {beside.x, bust + 0.6 * fall}, beside});
  line.slope[0] = rules.option(key::kTopShape) == TopShape::PlungeV ? straight.y / std::max(straight.x, 1e-6) : 0;
}

double smoothstep(double t) { return t * t * (3 - 2 * t); }

}  // namespace

bool hasPlunge(const Rules& rules) {
  const TopShape shape = rules.option(key::kTopShape);
  return shape == TopShape::PlungeV || shape == TopShape::PlungeU;
}

StyleLine topEdge(const Block& block, const Rules& rules) {
  const Boundaries at(block);
  const auto x = around(block);
  const double top = block.levels.at(level::kTop).front;
  const Level& chest = block.levels.at(level::kChest);
  const bool sweetheart = rules.option(key::kTopShape) == TopShape::Sweetheart, plunging = hasPlunge(rules);
  StyleLine line;
  line.depth.assign(at.count(), 0);
  line.depth[0] = sweetheart ? top + rules.length(key::kTopDip) : top;
  line.depth[1] = sweetheart || plunging ? top - rules.length(key::kTopRise) : top;
  line.depth[at.side()] = chest.front - rules.length(key::kTopSide);
  line.sideDepthOnBack = chest.back - rules.length(key::kTopSide);
  line.depth[at.centreBack()] = chest.back + rules.length(key::kBackSlope);
  // Between crest and side it eases down; between side and centre back it runs straight.
  for (size_t i = 2; i < at.side(); ++i) {
    const double part = (x[i] - x[1]) / (x[at.side()] - x[1]);
    line.depth[i] = line.depth[1] + part * part * (line.depth[at.side()] - line.depth[1]);
  }
  const auto back = rules.option(key::kBackShape);
  if (back == BackShape::Straight) line.depth[at.centreBack()] = line.sideDepthOnBack;
  const double drop = line.depth[at.centreBack()] - line.sideDepthOnBack;
  for (size_t i = at.side() + 1; i < at.centreBack(); ++i) {
    const double part = (x[i] - x[at.side()]) / (x[at.centreBack()] - x[at.side()]);
    line.depth[i] =
        line.sideDepthOnBack + drop * (back == BackShape::Scoop ? std::sqrt(1 - (1 - part) * (1 - part)) : part);
  }
  const double chord = (line.depth[1] - line.depth[0]) / x[1];
  smoothSlopes(line, at, x, sweetheart ? kHeart * chord : 0);
  if (back == BackShape::V) line.slope[at.centreBack()] = line.slope[at.centreBack() - 1] = lastSlope(line, at, x);
  if (back == BackShape::Scoop && at.centreBack() - at.side() > 1)
    line.slope[at.side()] = std::min(kSteep, 2 * drop / x[1]);
  if (plunging) plunge(line, block, rules);
  return line;
}

namespace {

// A lower edge at these depths, raised towards the side, with a point below it at the centre front: deepest there, run
// out in a curve before the side. Behind it rises, or falls, evenly eased from the side to the centre back.
StyleLine lowerLine(const Block& block, double atFront, double atBack, double raise, double dip, double backRaise) {
  const Boundaries at(block);
  const auto x = around(block);
  const double front = x[at.side()], back = x[at.centreBack()] - x[at.side()];
  StyleLine line;
  for (size_t i = 0; i < at.count(); ++i)
    line.depth.push_back(at.onBack(i) ? atBack - backRaise - (raise - backRaise) * smoothstep(1 - (x[i] - front) / back)
                                      : atFront - raise * smoothstep(x[i] / front));
  line.depth[at.side()] = atFront - raise;
  line.depth[at.centreBack()] = atBack - backRaise;
  line.sideDepthOnBack = atBack - raise;
  for (size_t i = 0; i < at.side(); ++i) {
    const double out = 1 - x[i] / front;
    line.depth[i] += dip * out * out;
  }
  smoothSlopes(line, at, x, dip > 0 ? -kPoint * dip / front : 0, block.riseAt(atFront - raise));
  return line;
}

}  // namespace

StyleLine hemLine(const Block& block, const Rules& rules) {
  const Level& hem = block.levels.at(level::kHem);
  const bool isLevel = hasSkirt(rules) || rules.option(key::kHemShape) == HemShape::Straight;
  const bool dipped = !isLevel && rules.option(key::kHemShape) == HemShape::Dipped;
  return lowerLine(block, hem.front, hem.back, isLevel ? 0 : rules.length(key::kHemRaise),
                   dipped ? rules.length(key::kHemDip) : 0, hasSkirt(rules) ? 0 : rules.length(key::kHemBack));
}

StyleLine endLine(const Block& block, const Rules& rules) {
  if (goesBelowWaist(rules)) return hemLine(block, rules);
  const Level& waist = block.levels.at(level::kWaist);
  const HemAt at = rules.option(key::kHemAt);
  const double above = at == HemAt::Above ? rules.length(key::kHemAboveWaist) : 0;
  return lowerLine(block, waist.front - above, waist.back - above, 0,
                   at == HemAt::WaistPoint ? rules.length(key::kHemDip) : 0, 0);
}

}  // namespace armure
