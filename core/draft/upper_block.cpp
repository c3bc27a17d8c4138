#include "draft/upper_block.h"

#include <algorithm>

#include "draft/plan.h"
#include "measure/measure_table.h"
#include "parts/edges/rules.h"
#include "rules/draft_rules.h"

namespace armure {

UpperPoints upperPoints(const Body& body, const Rules& rules, bool front, double chestY) {
  const double slope = rules.length(front ? key::kShoulderSlopeFront : key::kShoulderSlopeBack);
  const double inset = rules.length(front ? key::kArmholeInsetFront : key::kArmholeInsetBack);
  const Vec2 shoulder{body.mm(id::kShoulderWidth) / 2, slope};
  return {{rules.length(key::kNeckWidth), 0}, shoulder, {shoulder.x - inset, (slope + chestY) / 2}};
}

bool goesUp(const Rules& rules, bool front) {
  const auto kind = rules.option(key::kCoverKind);
  return kind == CoverKind::Covered || kind == CoverKind::Straps || (kind == CoverKind::Halter && front);
}

double shoulderDartAt(const Rules& rules, double bustY, double y) {
  if (frontIsInOne(rules)) return 0;
  const double shoulder = rules.length(key::kShoulderSlopeFront) / 2;
  return rules.length(key::kCoverDart) * (bustY - y) / (bustY - shoulder);
}

std::optional<Vec2> endOfFirstLine(const Body& body, const Rules& rules, bool front, double chestY) {
  const auto where = rules.option(key::kPrincessAbove);
  if (where == LineEnd::Top && !goesUp(rules, front)) return std::nullopt;
  const UpperPoints p = upperPoints(body, rules, front, chestY);
  if (rules.option(key::kCoverKind) == CoverKind::Halter) {  // on the edge that runs from the neck to the side
    const Vec2 strap =
        p.neck + (rules.length(key::kHalterWiden) + rules.length(key::kHalterWidth)) * unit(p.shoulder - p.neck);
    return Vec2{strap.x + 0.25 * (p.shoulder.x - strap.x), (strap.y + chestY) / 2};
  }
  if (where == LineEnd::Armhole) {
    if (rules.isDefault(key::kPrincessArmhole)) return p.armholeMiddle;
    // On the chord from the shoulder through the middle of the armhole, which the hollow runs beside.
    const double down = std::clamp(rules.length(key::kPrincessArmhole), p.shoulder.y + 25, chestY - 25);
    const double part = std::min(1.0, (down - p.shoulder.y) / (p.armholeMiddle.y - p.shoulder.y));
    return Vec2{p.shoulder.x + part * (p.armholeMiddle.x - p.shoulder.x), down};
  }
  // On what is left of the shoulder.
  const bool covered = rules.option(key::kCoverKind) == CoverKind::Covered;
  const double narrower = covered ? std::min(rules.length(key::kCoverNarrow), 0.8 * distance(p.neck, p.shoulder)) : 0;
  const Vec2 end = p.shoulder - narrower * unit(p.shoulder - p.neck);
  if (rules.isDefault(key::kPrincessShoulder) || where != LineEnd::Shoulder) return lerp(p.neck, end, 0.5);
  constexpr double kBesideEnds = 20;  // mm of shoulder on either side of it
  const double whole = distance(p.neck, end), from = rules.length(key::kPrincessShoulder);
  return lerp(p.neck, end, std::clamp(from, kBesideEnds, std::max(kBesideEnds, whole - kBesideEnds)) / whole);
}

Vec2 endOfFurtherLine(const Body& body, const Rules& rules, bool front, double chestY, size_t place, size_t count,
                      double position) {
  const UpperPoints p = upperPoints(body, rules, front, chestY);
  const double down = static_cast<double>(place) / static_cast<double>(count);
  return {std::max(p.armholeMiddle.x, position), p.armholeMiddle.y + down * (chestY - p.armholeMiddle.y)};
}

void drawUpperBlock(HalfBlock& half, const Body& body, const Rules& rules, std::vector<Working>& workings) {
  const bool front = half.front;
  const double slope = rules.length(front ? key::kShoulderSlopeFront : key::kShoulderSlopeBack);
  const double neckWidth = rules.length(key::kNeckWidth);
  const double neckDepth = rules.length(front ? key::kNeckDepthFront : key::kNeckDepthBack);
  const double inset = rules.length(front ? key::kArmholeInsetFront : key::kArmholeInsetBack);
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

  const Fact& width = body.fact(id::kShoulderWidth);
  workings.push_back({half.id + ".shoulder",
                      front ? "Front shoulder point, out from the centre" : "Back shoulder point, out from the centre",
                      {{'+', "half the shoulder width", width.mm / 2, width.source}},
                      width.mm / 2,
                      "half the shoulder width out; common practice"});
  workings.push_back(
      {half.id + ".slope",
       front ? "Front shoulder point, down from the shoulder line" : "Back shoulder point, down from the shoulder line",
       {rules.term(front ? key::kShoulderSlopeFront : key::kShoulderSlopeBack)},
       slope,
       "common practice"});
  workings.push_back({half.id + ".armhole",
                      front ? "Front armhole, its middle from the centre" : "Back armhole, its middle from the centre",
                      {{'+', "half the shoulder width", width.mm / 2, width.source},
                       rules.term(front ? "armhole.inset_front" : "armhole.inset_back", '-')},
                      middle.x,
                      "halfway between shoulder point and chest line, moved in; common practice"});
}

}  // namespace armure
