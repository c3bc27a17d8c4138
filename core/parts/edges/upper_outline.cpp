#include "parts/edges/upper_outline.h"

#include <algorithm>
#include <cmath>

#include "parts/edges/rules.h"
#include "parts/edges/style_line.h"
#include "parts/yoke/rules.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

constexpr double kQuarter = 0.55;     // handle of a quarter circle
constexpr double kBesideLine = 10;    // mm: an edge that rises beyond the princess line ends so far beside its end
constexpr double kRiseOfHalter = 12;  // mm beyond the princess line where the edge leaves it upwards
constexpr double kLeastHollow = 30;   // mm: an armhole is cut in this far from the side at least

double takenBefore(const HalfBlock& half, size_t lines, double y) {
  double taken = 0;
  for (size_t i = 0; i < lines && i < half.lines.size(); ++i) taken += half.lines[i].intakeAtDepth(y);
  return taken;
}

class OutlineMaker {
 public:
  OutlineMaker(const Block& block, const Rules& rules, bool front)
      : block_(block),
        rules_(rules),
        front_(front),
        half_(front ? block.front : block.back),
        neckPoint_(half_.shoulder.start()),
        shoulderPoint_(half_.shoulder.end()) {}

  UpperOutline make() const {
    const auto kind = rules_.option(key::kCoverKind);
    const auto [inner, outer] = lowered(shoulderEnds(kind));
    const bool rises = kind == CoverKind::Straps && (front_ || rules_.option(key::kCoverBack) == CoverBack::AsInFront);
    const Path neck = rises ? strapNeck(inner) : (front_ ? frontNeck(inner) : backNeck(inner));
    return {{UpperPart::Neck, neck},
            {UpperPart::Shoulder, Path::line(inner, outer)},
            {UpperPart::Armhole, kind == CoverKind::Halter ? halterArmhole(outer) : armhole(outer)}};
  }

 private:
  std::pair<Vec2, Vec2> shoulderEnds(CoverKind kind) const {
    const Vec2 out = unit(shoulderPoint_ - neckPoint_);
    const double whole = distance(neckPoint_, shoulderPoint_);
    if (kind == CoverKind::Straps)
      return {shoulderPoint_ - std::min(rules_.length(key::kCoverStrapWidth), 0.8 * whole) * out, shoulderPoint_};
    if (kind == CoverKind::Halter) {
      const double from = std::min(rules_.length(key::kHalterWiden), 0.3 * whole),
                   wide = std::min(rules_.length(key::kHalterWidth), 0.5 * whole);
      return {neckPoint_ + from * out, neckPoint_ + (from + wide) * out};
    }
    const double narrower = std::min(rules_.length(key::kCoverNarrow), 0.8 * whole);  // dropped where negative
    const Vec2 end = shoulderPoint_ - narrower * out;
    if (rules_.option(key::kNeckShape) == NeckShape::Edge)  // beyond the end of the princess line
      return {lerp(neckPoint_, end, 0.5) + kBesideLine * out, end};
    return {neckPoint_, end};
  }

  // In front the neck end may be lowered, the shoulder turned about its outer end so that it keeps its length.
  std::pair<Vec2, Vec2> lowered(std::pair<Vec2, Vec2> ends) const {
    const bool rises = rules_.option(key::kCoverKind) != CoverKind::Covered;
    const double by = front_ && rises ? rules_.length(key::kNeckLowered) : 0;
    if (by <= 0) return ends;
    const auto& [inner, outer] = ends;
    const double length = distance(inner, outer), fall = std::clamp(inner.y + by - outer.y, -length, length);
    return {outer + Vec2{-std::sqrt(length * length - fall * fall), fall}, outer};
  }

  Path frontNeck(Vec2 end) const {
    if (rules_.option(key::kNeckShape) == NeckShape::Edge)
      return rising(
          end, rules_.option(key::kCoverKind) == CoverKind::Covered ? rules_.length(key::kNeckOpen) : kRiseOfHalter);
    return neckOf(rules_.option(key::kNeckShape), rules_.length(key::kNeckDepthFront), end);
  }

  Path backNeck(Vec2 end) const {
    const auto back = rules_.option(key::kBackShape);
    const bool low =
        (back == BackShape::Scoop || back == BackShape::V) && rules_.option(key::kYokeBack) == YokeKind::None;
    const NeckShape shape = rules_.option(key::kNeckShapeBack);
    if (!low && shape == NeckShape::V) return easedV(rules_.length(key::kNeckDepthBack), end);
    if (!low) return neckOf(shape, rules_.length(key::kNeckDepthBack), end);
    const double depth = block_.levels.at(level::kChest).back + rules_.length(key::kBackSlope);
    return neckOf(back == BackShape::V ? NeckShape::V : NeckShape::Round, depth, end);
  }

  // A V that comes up to the shoulder upright, so that a shallow one runs on over it into the front without a corner.
  static Path easedV(double depth, Vec2 end) {
    const Vec2 centre{0, std::max(depth, end.y + 5)}, chord = end - centre;
    return Path(Cubic{centre, centre + 0.4 * chord, end + Vec2{0, 0.3 * (centre.y - end.y)}, end});
  }

  // From the centre at a depth to the end of the shoulder.
  static Path neckOf(NeckShape shape, double depth, Vec2 end) {
    const Vec2 centre{0, std::max(depth, end.y + 5)};
    const double fall = centre.y - end.y;
    if (shape == NeckShape::V) return Path::line(centre, end);
    if (shape == NeckShape::Square) return Path::line(centre, {end.x, centre.y}) + Path::line({end.x, centre.y}, end);
    return Path(Cubic{centre, centre + Vec2{kQuarter * end.x, 0}, end + Vec2{0, kQuarter * fall}, end});
  }

  // What the upper edge of the style does between the centre and the first line, then level to where it rises, then
  // the curve to the strap. Behind: from the centre back straight into the curve.
  Path strapNeck(Vec2 end) const {
    const StyleLine top = topEdge(block_, rules_);
    const Boundaries at(block_);
    if (!front_) {
      const Vec2 centre{0, std::max(top.depth[at.centreBack()], end.y + 40)};
      const Vec2 chord = end - centre;
      if (rules_.option(key::kBackShape) == BackShape::V) return easedV(centre.y, end);
      return Path(Cubic{centre, centre + Vec2{0.6 * chord.x, 0}, end + Vec2{0, 0.55 * (centre.y - end.y)}, end});
    }
    const Vec2 crest = crestOf(top), rise{std::max(riseX(crest.y), crest.x + 4), crest.y};
    const double fall = rise.y - end.y;
    return toCrest(top) + Path::line(crest, rise) +
           Path(Cubic{rise, rise + Vec2{0.95 * (end.x - rise.x), 0}, end + Vec2{0, 0.35 * fall}, end});
  }

  // The upper edge of the style where it crosses the princess line, that closed.
  Vec2 crestOf(const StyleLine& top) const { return {half_.lines.front().toCentreX(top.depth[1]), top.depth[1]}; }

  Path toCrest(const StyleLine& top) const {
    const Vec2 centre{0, top.depth[0]}, crest = crestOf(top);
    const double third = crest.x / 3;
    return Path(Cubic{centre, centre + Vec2{third, third * top.slope[0]}, crest - Vec2{third, 0}, crest});
  }

  // Along the upper edge to a little beyond the princess line, and from there up to the shoulder in one curve.
  Path rising(Vec2 end, double beyond) const {
    const StyleLine top = topEdge(block_, rules_);
    const Vec2 crest = crestOf(top), rise = crest + Vec2{beyond, 0};
    const double fall = rise.y - end.y;
    return toCrest(top) + Path::line(crest, rise) +
           Path(Cubic{rise, rise + Vec2{0, -0.4 * fall}, end + Vec2{0, 0.3 * fall}, end});
  }

  // Where the curve leaves the upper edge: in from the armhole at that height.
  double riseX(double y) const {
    const Path arm = armhole(shoulderPoint_);
    const auto met = arm.crossings({0, y}, {1, 0});
    const double x = met.empty() ? closedSide().x : arm.pointAt(met.front()).x;
    return std::min(x - rules_.length(key::kCoverStrapFrom), shoulderPoint_.x - 10);
  }

  // The side where the armhole ends, what the lines take in there closed.
  Vec2 closedSide() const {
    const StyleLine top = topEdge(block_, rules_);
    const Boundaries at(block_);
    const double y = front_ ? top.depth[at.side()] : top.sideDepthOnBack;
    return {half_.side.xAtDepth(y) - takenBefore(half_, half_.lines.size(), y), y};
  }

  // Through the middle of its depth, moved in, then round to the side, where it arrives square to the side seam.
  Path armhole(Vec2 from) const {
    const Vec2 end = closedSide();
    const double inset = rules_.length(front_ ? key::kArmholeInsetFront : key::kArmholeInsetBack);
    const double fall = end.y - from.y;
    const Vec2 middle{std::min(shoulderPoint_.x - inset, end.x - kLeastHollow), from.y + 0.5 * fall};
    const double rise = fall / 6, reach = 0.6 * (end.x - middle.x);
    return Path(Cubic{from, from + Vec2{0.5 * (middle.x - from.x), rise}, middle - Vec2{0, rise}, middle}) +
           roundTo(Cubic{middle, middle + Vec2{0, 0.62 * (end.y - middle.y)}, end - reach * square(), end});
  }

  Path halterArmhole(Vec2 from) const {
    const Vec2 end = closedSide();
    const Vec2 down = 0.4 * (end.y - from.y) * unit({0.25, 1});
    return roundTo(Cubic{from, from + down, end - 0.5 * (end.x - from.x) * square(), end});
  }

  // The last part of an armhole has a joint of its own where it has come round, so that it can be drawn on across the
  // side seam without touching the rest.
  static Path roundTo(const Cubic& c) {
    constexpr double kRound = 0.38;
    const auto [above, below] = c.split(kRound);
    return Path(std::vector<Cubic>{above, below});
  }

  // Outwards, square to the side.
  Vec2 square() const {
    const Vec2 along = half_.side.startTangent();
    return unit({along.y, -along.x});
  }

  const Block& block_;
  const Rules& rules_;
  const bool front_;
  const HalfBlock& half_;
  const Vec2 neckPoint_, shoulderPoint_;
};

}  // namespace

std::optional<UpperOutline> upperOutline(const Block& block, const Rules& rules, bool front) {
  if (!goesUp(rules, front)) return std::nullopt;
  return OutlineMaker(block, rules, front).make();
}

UpperOutline opened(const UpperOutline& outline, const HalfBlock& half, size_t from) {
  constexpr double kStep = 0.5;  // mm
  const auto at = [&](Vec2 p) { return Vec2{p.x + takenBefore(half, from, p.y), p.y}; };
  const auto sheared = [&](Vec2 end, Vec2 handle) {
    const double slope =
        (takenBefore(half, from, end.y + kStep) - takenBefore(half, from, end.y - kStep)) / (2 * kStep);
    const Vec2 d = handle - end;
    return at(end) + Vec2{d.x + slope * d.y, d.y};
  };
  UpperOutline out = outline;
  for (UpperStretch& s : out) {
    std::vector<Cubic> cubics = s.path.cubics();
    for (Cubic& c : cubics) c = {at(c.p0), sheared(c.p0, c.p1), sheared(c.p3, c.p2), at(c.p3)};
    s.path = Path(std::move(cubics));
  }
  return out;
}

Path wholeOutline(const UpperOutline& outline) {
  Path whole;
  for (const UpperStretch& s : outline) whole = whole.empty() ? s.path : whole + s.path;
  return whole;
}

std::optional<std::pair<double, double>> meetOutline(const UpperOutline& outline, const Path& edge) {
  constexpr double kBeyond = 40;  // mm
  const Path inner = wholeOutline(outline);
  const Path whole = Path::line(inner.start() - kBeyond * inner.startTangent(), inner.start()) + inner +
                     Path::line(inner.end(), inner.end() + kBeyond * inner.endTangent());
  std::optional<std::pair<double, double>> lowest;
  for (const auto& [onEdge, onWhole] : edge.meetings(whole))
    if (!lowest || onEdge > lowest->first) lowest = {onEdge, std::clamp(onWhole - kBeyond, 0.0, inner.length())};
  return lowest;
}

Path withoutCrumbs(const Path& path) {
  constexpr double kCrumb = 5;  // mm
  std::vector<Cubic> cubics = path.cubics();
  while (cubics.size() > 1 && distance(cubics.back().p0, cubics.back().p3) < kCrumb) cubics.pop_back();
  while (cubics.size() > 1 && distance(cubics.front().p0, cubics.front().p3) < kCrumb) cubics.erase(cubics.begin());
  if (cubics.size() == path.cubics().size()) return path;
  const Vec2 first = path.start() - cubics.front().p0, last = path.end() - cubics.back().p3;
  cubics.front().p0 = path.start();
  cubics.front().p1 = cubics.front().p1 + first;
  cubics.back().p2 = cubics.back().p2 + last;
  cubics.back().p3 = path.end();
  return Path(std::move(cubics));
}

}  // namespace armure
