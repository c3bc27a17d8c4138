#include "draft/upper_block.h"

#include <algorithm>

#include "measure/measure_table.h"

namespace armure {

UpperPoints upperPoints(const Body& body, const Rules& rules, bool front, double chestY) {
  const double slope = rules.length(front ? "shoulder.slope_front" : "shoulder.slope_back");
  const double inset = rules.length(front ? "armhole.inset_front" : "armhole.inset_back");
  const Vec2 shoulder{body.mm(id::kShoulderWidth) / 2, slope};
  return {{rules.length("neck.width"), 0}, shoulder, {shoulder.x - inset, (slope + chestY) / 2}};
}

bool goesUp(const Rules& rules, bool front) {
  const std::string_view kind = rules.option("cover.kind");
  return kind == "covered" || kind == "straps" || (kind == "halter" && front);
}

double shoulderDartAt(const Rules& rules, double bustY, double y) {
  const double shoulder = rules.length("shoulder.slope_front") / 2;
  return rules.length("cover.dart") * (bustY - y) / (bustY - shoulder);
}

std::optional<Vec2> endOfFirstLine(const Body& body, const Rules& rules, bool front, double chestY) {
  const std::string_view where = rules.option("princess.above");
  if (where == "top" && !goesUp(rules, front)) return std::nullopt;
  const UpperPoints p = upperPoints(body, rules, front, chestY);
  if (rules.option("cover.kind") == "halter") {  // on the edge that runs from the neck to the side
    const Vec2 strap =
        p.neck + (rules.length("halter.widen") + rules.length("halter.width")) * unit(p.shoulder - p.neck);
    return Vec2{strap.x + 0.25 * (p.shoulder.x - strap.x), (strap.y + chestY) / 2};
  }
  return where == "armhole" ? p.armholeMiddle : lerp(p.neck, p.shoulder, 0.5);
}

Vec2 endOfFurtherLine(const Body& body, const Rules& rules, bool front, double chestY, size_t place, size_t count,
                      double position) {
  const UpperPoints p = upperPoints(body, rules, front, chestY);
  const double down = static_cast<double>(place) / static_cast<double>(count);
  return {std::max(p.armholeMiddle.x, position), p.armholeMiddle.y + down * (chestY - p.armholeMiddle.y)};
}

void drawUpperBlock(HalfBlock& half, const Body& body, const Rules& rules, std::vector<Working>& workings) {
  const bool front = half.id == "front";
  const double slope = rules.length(front ? "shoulder.slope_front" : "shoulder.slope_back");
  const double neckWidth = rules.length("neck.width");
  const double neckDepth = rules.length(front ? "neck.depth_front" : "neck.depth_back");
  const double inset = rules.length(front ? "armhole.inset_front" : "armhole.inset_back");
  const HalfLevel& chest = half.at(level::kChest);

  const auto [neckPoint, shoulderPoint, middle] = upperPoints(body, rules, front, chest.y);
  const Vec2 neckBase{0, neckDepth}, underarm{chest.side, chest.y};

  // A quarter-ellipse-like neck: level at the centre, upright at the shoulder (handles of 0.55, the circle's constant).
  half.neck =
      Path(Cubic{neckPoint, neckPoint + Vec2{0, 0.55 * neckDepth}, neckBase + Vec2{0.55 * neckWidth, 0}, neckBase});
  half.shoulder = Path::line(neckPoint, shoulderPoint);
  const double rise = (chest.y - slope) / 6;
  half.armhole = Path(std::vector<Cubic>{
      Cubic{shoulderPoint, shoulderPoint + Vec2{-inset * 0.5, rise}, middle - Vec2{0, rise}, middle},
      Cubic{middle, middle + Vec2{0, 2.2 * rise}, underarm - Vec2{0.55 * (underarm.x - middle.x), 0}, underarm}});

  const std::string name = front ? "Front" : "Back";
  const Fact& width = body.fact(id::kShoulderWidth);
  workings.push_back({half.id + ".shoulder",
                      name + " shoulder point, out from the centre",
                      {{'+', "half the shoulder width", width.mm / 2, width.source}},
                      width.mm / 2,
                      "half the shoulder width out; common practice"});
  workings.push_back({half.id + ".slope",
                      name + " shoulder point, down from the shoulder line",
                      {rules.term(front ? "shoulder.slope_front" : "shoulder.slope_back")},
                      slope,
                      "common practice"});
  workings.push_back({half.id + ".armhole",
                      name + " armhole, its middle from the centre",
                      {{'+', "half the shoulder width", width.mm / 2, width.source},
                       rules.term(front ? "armhole.inset_front" : "armhole.inset_back", '-')},
                      middle.x,
                      "halfway between shoulder point and chest line, moved in; common practice"});
}

}  // namespace armure
