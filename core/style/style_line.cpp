#include "style/style_line.h"

#include "geometry/spline.h"

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

void smoothSlopes(StyleLine& line, const Boundaries& at, const std::vector<double>& x, double centreFrontSlope) {
  const double sideStep = line.sideDepthOnBack - line.depth[at.side()];
  std::vector<Station> s;
  for (size_t i = 0; i < at.count(); ++i) s.push_back({x[i], at.onBack(i) ? line.depth[i] - sideStep : line.depth[i]});
  s.front().slope = centreFrontSlope;
  s.front().slopeGiven = true;
  s.back().slopeGiven = true;
  line.slope = monotoneSlopes(s);
}

// The sweetheart leaves the centre front this much steeper than the straight way to its crest.
constexpr double kHeart = 2.2;

double smoothstep(double t) { return t * t * (3 - 2 * t); }

}  // namespace

StyleLine topEdge(const Block& block, const Rules& rules) {
  const Boundaries at(block);
  const auto x = around(block);
  const double top = block.levels.at(level::kTop).front;
  const double chest = block.levels.at(level::kChest).front;
  const bool sweetheart = rules.option("top.shape") == "sweetheart";
  StyleLine line;
  line.depth.assign(at.count(), 0);
  line.depth[0] = sweetheart ? top + rules.length("top.dip") : top;
  line.depth[1] = sweetheart ? top - rules.length("top.rise") : top;
  line.depth[at.side()] = line.sideDepthOnBack = chest - rules.length("top.side");
  line.depth[at.centreBack()] = chest + rules.length("back.slope");
  // Between crest and side it eases down; between side and centre back it runs straight.
  for (size_t i = 2; i < at.side(); ++i) {
    const double part = (x[i] - x[1]) / (x[at.side()] - x[1]);
    line.depth[i] = line.depth[1] + part * part * (line.depth[at.side()] - line.depth[1]);
  }
  for (size_t i = at.side() + 1; i < at.centreBack(); ++i) {
    const double part = (x[i] - x[at.side()]) / (x[at.centreBack()] - x[at.side()]);
    line.depth[i] = line.depth[at.side()] + part * (line.depth[at.centreBack()] - line.depth[at.side()]);
  }
  const double chord = (line.depth[1] - line.depth[0]) / x[1];
  smoothSlopes(line, at, x, sweetheart ? kHeart * chord : 0);
  return line;
}

StyleLine hemLine(const Block& block, const Rules& rules) {
  const Boundaries at(block);
  const auto x = around(block);
  const Level& hem = block.levels.at(level::kHem);
  const double raise = rules.option("hem.shape") == "raised" ? rules.length("hem.raise") : 0;
  const double front = x[at.side()], back = x[at.centreBack()] - x[at.side()];
  StyleLine line;
  for (size_t i = 0; i < at.count(); ++i)
    line.depth.push_back(at.onBack(i) ? hem.back - raise * smoothstep(1 - (x[i] - front) / back)
                                      : hem.front - raise * smoothstep(x[i] / front));
  line.depth[at.side()] = hem.front - raise;
  line.depth[at.centreBack()] = hem.back;
  line.sideDepthOnBack = hem.back - raise;
  smoothSlopes(line, at, x, 0);
  return line;
}

}  // namespace armure
