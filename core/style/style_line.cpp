#include "style/style_line.h"

#include "geometry/spline.h"

namespace armure {
namespace {

// How far round from the centre front each boundary stands at the waist, intakes closed; mm.
std::array<double, kBoundaries> around(const Block& block) {
  const HalfLevel &f = block.front.at(level::kWaist), &b = block.back.at(level::kWaist);
  const double princess = block.front.line.toCentre.xAtDepth(f.y);
  const double side = f.side - f.lineIntake;
  const double sideBack = b.side - block.back.line.toSide.xAtDepth(b.y);
  const double centreBack = block.back.line.toCentre.xAtDepth(b.y) - block.back.centre.xAtDepth(b.y);
  return {0, princess, side, side + sideBack, side + sideBack + centreBack};
}

void smoothSlopes(StyleLine& line, const std::array<double, kBoundaries>& x, double centreFrontSlope) {
  const double sideStep = line.sideDepthOnBack - line.depth[kSideSeam];
  std::vector<Station> s;
  for (int i = 0; i < kBoundaries; ++i) s.push_back({x[i], i > kSideSeam ? line.depth[i] - sideStep : line.depth[i]});
  s.front().slope = centreFrontSlope;
  s.front().slopeGiven = true;
  s.back().slopeGiven = true;
  const std::vector<double> m = monotoneSlopes(s);
  for (int i = 0; i < kBoundaries; ++i) line.slope[i] = m[i];
}

// The sweetheart leaves the centre front this much steeper than the straight way to its crest.
constexpr double kHeart = 2.2;

double smoothstep(double t) { return t * t * (3 - 2 * t); }

}  // namespace

StyleLine topEdge(const Block& block, const Rules& rules) {
  const auto x = around(block);
  const double top = block.levels.at(level::kTop).front;
  const double chest = block.levels.at(level::kChest).front;
  const bool sweetheart = rules.option("top.shape") == "sweetheart";
  StyleLine line;
  line.depth[kCentreFront] = sweetheart ? top + rules.length("top.dip") : top;
  line.depth[kPrincess] = sweetheart ? top - rules.length("top.rise") : top;
  line.depth[kSideSeam] = line.sideDepthOnBack = chest - rules.length("top.side");
  line.depth[kCentreBack] = chest + rules.length("back.slope");
  const double part = (x[kBackLine] - x[kSideSeam]) / (x[kCentreBack] - x[kSideSeam]);
  line.depth[kBackLine] = line.depth[kSideSeam] + part * (line.depth[kCentreBack] - line.depth[kSideSeam]);
  const double chord = (line.depth[kPrincess] - line.depth[kCentreFront]) / x[kPrincess];
  smoothSlopes(line, x, sweetheart ? kHeart * chord : 0);
  return line;
}

StyleLine hemLine(const Block& block, const Rules& rules) {
  const auto x = around(block);
  const Level& hem = block.levels.at(level::kHem);
  const double raise = rules.option("hem.shape") == "raised" ? rules.length("hem.raise") : 0;
  StyleLine line;
  const double whole = x[kCentreBack] - x[kSideSeam];
  line.depth = {hem.front, hem.front - raise * smoothstep(x[kPrincess] / x[kSideSeam]), hem.front - raise,
                hem.back - raise * smoothstep(1 - (x[kBackLine] - x[kSideSeam]) / whole), hem.back};
  line.sideDepthOnBack = hem.back - raise;
  smoothSlopes(line, x, 0);
  return line;
}

}  // namespace armure
