#include "body/body_form.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <numbers>
#include <optional>
#include <stdexcept>
#include <string>

#include "geometry/hull.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"
#include "measure/predict.h"

namespace armure {
namespace {

using std::numbers::pi;

constexpr double kExponent = 2.3;
constexpr double kLeastApart = 20;  // mm between two levels
// Height of the breast's slope above the bust point, at least; exponent of its underside.
struct BreastCurves {
  double slopePerDepth, below;
};
BreastCurves curvesOf(BreastShape shape) {
  switch (shape) {
    case BreastShape::Supported:
      return {1, 1.7};
    case BreastShape::Unsupported:
      return {1.4, 2.6};
  }
  return {1, 1.7};
}
constexpr double kFlattestBelow = 1.2, kRoundestBelow = 4;  // exponents of the breast's underside
constexpr double kInnermost = 0.97;                         // of the torso's half width: a breast ends within it
constexpr int kHeightRounds = 3;                            // in which the heights settle to a tenth of a millimetre
constexpr double kTapeTolerance = 1e-3;                     // mm
constexpr int kTorsoSamples = 360, kBreastSamples = 60;

// How the torso stands at a level. Depth to width; share of the depth before the widest line; and how far forward of
// the upper back the back lies, in parts of the back waist length. Shares and back line: common practice, no source.
struct Posture {
  std::string_view level;
  double ratio, frontShare, backForward;
};
constexpr std::array kPostures{
    Posture{id::kUpperBust, 0, 0.48, 0},     Posture{id::kBust, 0, 0.5, 0.01},
    Posture{id::kUnderbust, 0, 0.52, 0.035}, Posture{id::kWaist, 0.72, 0.54, 0.075},
    Posture{id::kHighHip, 0.68, 0.5, 0.02},  Posture{id::kHip, 0.71, 0.46, -0.045},
};

double chestRatio(double upperBust) { return std::clamp(0.6767 + 0.000217 * (upperBust - 856.4), 0.55, 0.85); }

// The superellipse of radius 1, equally spaced in the angle parameter.
const Polyline& unitTorso() {
  static const Polyline points = [] {
    const auto part = [](double c) { return std::copysign(std::pow(std::abs(c), 2 / kExponent), c); };
    Polyline p;
    for (int i = 0; i < kTorsoSamples; ++i) {
      const double angle = 2 * pi * i / kTorsoSamples;
      p.push_back({part(std::cos(angle)), part(std::sin(angle))});
    }
    return p;
  }();
  return points;
}

Polyline torsoPoints(const FormSection& s) {
  Polyline points = unitTorso();
  for (Vec2& p : points) p = {s.halfWidth * p.x, s.axis + p.y * (p.y > 0 ? s.front : s.back)};
  return points;
}

// How deep half the torso is at x, of its depth in the middle.
double depthAt(const FormSection& s, double x) {
  const double t = std::min(1.0, std::abs(x) / s.halfWidth);
  return std::pow(1 - std::pow(t, kExponent), 1 / kExponent);
}

// z of the torso's front at x.
double torsoFront(const FormSection& s, double x) { return s.axis + s.front * depthAt(s, x); }

// How deep the breast is beside its bust point, in parts of its depth there: at its inner end for -1, its outer for 1.
double breastProfile(double u) {
  if (std::abs(u) >= 1) return 0;
  return u < 0 ? 0.5 * (1 + std::cos(pi * u)) : std::sqrt(1 - u * u);
}

// A point of the breast's outline, from its outer (0) to its inner end (pi).
Vec2 breastPoint(const FormSection& s, double angle) {
  const double u = std::cos(angle), x = s.breastX + u * (u < 0 ? s.breastInner : s.breastOuter);
  return {x, torsoFront(s, x) + s.breastDepth * breastProfile(u)};
}

void appendBreasts(const FormSection& s, Polyline& points) {
  for (int i = 0; i <= kBreastSamples; ++i) {
    const Vec2 p = breastPoint(s, pi * i / kBreastSamples);
    points.push_back(p);
    points.push_back({-p.x, p.y});
  }
}

// Where a function that grows is nothing, by the regula falsi of Illinois; `least` where it is more there already.
template <typename Function>
double rootOfGrowing(const Function& f, double near, double step, double least, double most) {
  double low = std::max(least, near - step), fLow = f(low), high = low, fHigh = fLow;
  while (fLow > 0) {
    if (low <= least) return least;
    high = low;
    fHigh = fLow;
    low = std::max(least, low - (step *= 2));
    fLow = f(low);
  }
  while (fHigh <= 0) {
    if (high >= most) return most;
    low = high;
    fLow = fHigh;
    high = std::min(most, high + (step *= 2));
    fHigh = f(high);
  }
  for (int i = 0; i < 60; ++i) {
    const double middle = (low * fHigh - high * fLow) / (fHigh - fLow), here = f(middle);
    if (std::abs(here) < kTapeTolerance) return middle;
    if (here < 0) {
      low = middle;
      fLow = here;
      fHigh /= 2;
    } else {
      high = middle;
      fHigh = here;
      fLow /= 2;
    }
  }
  return low;
}

// Half width and depths of the section with this girth: the unit section's girth scales.
FormSection sectionOfGirth(double girth, double ratio, double frontShare) {
  FormSection s{1, 2 * ratio * frontShare, 2 * ratio * (1 - frontShare), 0};
  const double scale = girth / ringLength(torsoPoints(s));
  s.halfWidth *= scale;
  s.front *= scale;
  s.back *= scale;
  return s;
}

// The part of the depth in front with which a torso of this girth leaves `behind` behind its widest line.
double frontShareFor(double girth, double ratio, double behind) {
  constexpr double kLeast = 0.3, kMost = 0.7;  // beyond these a measure is wrong
  const auto off = [&](double share) {
    const Polyline ring = torsoPoints(sectionOfGirth(girth, ratio, share));
    double back = distance(ring.back(), ring.front());
    for (size_t i = ring.size() / 2; i + 1 < ring.size(); ++i) back += distance(ring[i], ring[i + 1]);
    return behind - back;
  };
  return rootOfGrowing(off, 0.5, 0.05, kLeast, kMost);
}

// Nothing where it is estimated.
const Fact* takenFact(const Body& body, std::string_view id) {
  const Fact* fact = body.find(id);
  return fact && fact->source == Source::Taken ? fact : nullptr;
}

// What a taken arc of the front leaves of the girth behind; nothing where it was not taken.
std::optional<double> behind(const Body& body, std::string_view girth, std::string_view arc) {
  const Fact* taken = takenFact(body, arc);
  return taken ? std::optional(body.mm(girth) - taken->mm) : std::nullopt;
}

double sideLength(const Body& body) {
  return body.has(id::kSideLength) ? body.mm(id::kSideLength) : kSideOfBack * body.mm(id::kBackWaistLength);
}

double underbustAboveWaist(const Body& body) {
  return body.mm(id::kShoulderToWaist) - body.mm(id::kShoulderToUnderbust);
}

// Length of a line whose place (x, z) goes with the height, from y0 down to y1.
template <typename Place>
double pathLength(double y0, double y1, const Place& place) {
  constexpr int kParts = 16;
  double sum = 0;
  Vec2 last = place(y0);
  for (int i = 1; i <= kParts; ++i) {
    const Vec2 here = place(y0 + (y1 - y0) * i / kParts);
    sum += std::hypot(distance(last, here), (y1 - y0) / kParts);
    last = here;
  }
  return sum;
}

}  // namespace

BodyForm::BodyForm(const Body& body, BreastShape shape) : span_(body.mm(id::kBustSpan)), shape_(shape) {
  findHeights(body);
  findBreast(body);
  addLegs(body);
  findShoulders(body);
}

void BodyForm::findHeights(const Body& body) {
  const double waist = body.mm(id::kBackWaistLength), side = sideLength(body);
  const double under = underbustAboveWaist(body);
  setHeights(body, waist - side, waist - under);
  // Where the surface slants or curves it is longer than it is high: the tape went along it.
  for (int round = 0; round < kHeightRounds; ++round) {
    buildStations(body, levels_[0].girth);
    const double x = span_ / 2;
    const double overSide = pathLength(yChest_, waist, [&](double y) {
      const FormSection s = section(y);
      return Vec2{s.halfWidth, s.axis};
    });
    const double overFront = pathLength(yUnderbust_, waist, [&](double y) {
      return Vec2{0, torsoFront(section(y), x)};
    });
    setHeights(body, yChest_ + overSide - side, yUnderbust_ + overFront - under);
  }
}

// From the waist upwards, so that it keeps its height.
void BodyForm::setHeights(const Body& body, double chest, double underbust) {
  const double waist = body.mm(id::kBackWaistLength);
  const double bustBelowChest =
      body.has(id::kShoulderToChest) ? body.mm(id::kShoulderToBust) - body.mm(id::kShoulderToChest) : kBustBelowChest;
  yUnderbust_ = std::clamp(underbust, 4 * kLeastApart, std::max(4 * kLeastApart, waist - kLeastApart));
  yChest_ = std::clamp(chest, kLeastApart, yUnderbust_ - 2 * kLeastApart);
  yBust_ = std::clamp(yChest_ + bustBelowChest, yChest_ + kLeastApart, yUnderbust_ - kLeastApart);
  const std::array<double, 6> heights{
      yChest_, yBust_, yUnderbust_, waist, waist + body.mm(id::kWaistToHighHip), waist + body.mm(id::kWaistToHip)};
  levels_.clear();
  double above = 0;
  for (size_t i = 0; i < kPostures.size(); ++i) {
    above = std::max(heights[i], above + kLeastApart);
    levels_.push_back({kPostures[i].level, above, body.mm(kPostures[i].level)});
  }
}

void BodyForm::buildStations(const Body& body, double torsoAtChest) {
  const double upper = levels_[0].girth, bust = levels_[1].girth, under = levels_[2].girth;
  const std::array<std::optional<double>, 3> behinds{std::nullopt, behind(body, id::kBust, id::kFrontBustArc),
                                                     behind(body, id::kUnderbust, id::kFrontUnderbustArc)};
  const double torsoAtBust =
      std::min(bust, std::clamp(2 * behinds[1].value_or(upper / 2), std::min(upper, under), std::max(upper, under)));
  stations_.clear();
  double upperBack = 0;
  for (size_t i = 0; i < kPostures.size(); ++i) {
    const Posture& p = kPostures[i];
    const double girth = i == 0 ? torsoAtChest : i == 1 ? torsoAtBust : levels_[i].girth;
    const double ratio = p.ratio > 0 ? p.ratio : chestRatio(upper);
    const double share = i < behinds.size() && behinds[i] ? frontShareFor(girth, ratio, *behinds[i]) : p.frontShare;
    const FormSection s = sectionOfGirth(girth, ratio, share);
    if (i == 0) upperBack = s.back;
    const double axis = s.back - upperBack + p.backForward * body.mm(id::kBackWaistLength);
    stations_.push_back({levels_[i].y, {s.halfWidth, s.front, s.back, axis}, {}});
  }
  addBelowWaist();
  findSlopes();
}

// Between waist and high hip: a line smooth at the waist leaves it too slowly, by some 20 mm of girth in the middle.
void BodyForm::addBelowWaist() {
  constexpr double kWhere = 0.4, kGrown = 0.42;  // of the way down; of the difference. Above it the body turns
  const auto waist =
      std::find_if(stations_.begin(), stations_.end(), [&](const Station& s) { return s.y == yOf(id::kWaist); });
  const Station &w = *waist, &a = waist[1];
  Station below{w.y + kWhere * (a.y - w.y), {}, {}};
  for (size_t k = 0; k < 4; ++k) below.values[k] = w.values[k] + kGrown * (a.values[k] - w.values[k]);
  stations_.insert(waist + 1, below);
}

void BodyForm::findSlopes() {
  for (size_t k = 0; k < 4; ++k) {
    std::vector<armure::Station> line;
    for (const Station& s : stations_) line.push_back({.y = s.y, .x = s.values[k]});
    const std::vector<double> slopes = monotoneSlopes(line);
    for (size_t i = 0; i < stations_.size(); ++i) stations_[i].slopes[k] = slopes[i];
  }
}

// What both legs together are to a skirt.
void BodyForm::addLegs(const Body& body) {
  constexpr double kKneeGirth = 0.23, kKneeRatio = 0.5, kKneeShare = 0.5;  // of the stature; depth to width
  const FormSection hip = section(bottom());
  const double knee = std::max(bottom() + 4 * kLeastApart, yOf(id::kWaist) + anyMeasure(body, "waist_to_knee"));
  const FormSection s = sectionOfGirth(std::min(kKneeGirth * anyMeasure(body, id::kStature), levels_.back().girth),
                                       kKneeRatio, kKneeShare);
  stations_.push_back({knee, {s.halfWidth, s.front, s.back, hip.axis + (hip.front - hip.back) / 2}, {}});
}

// The neck point by what both tapes from it read. A height too little makes both too long, a place too far back only
// the one in front.
void BodyForm::findShoulders(const Body& body) {
  constexpr int kRounds = 12;
  constexpr double kLowest = 0.45, kBack = -30, kForward = 65, kSettled = 0.3;  // part of the chest's height; mm
  double y = 0.1 * yChest_, z = 20;
  const std::vector<Station> below = stations_;
  for (int round = 0; round < kRounds; ++round) {
    stations_ = below;
    setShoulders(body, y, z);
    const double tooLongBehind =
        fromNeckPoint(shoulder_.neckPoint.x, yOf(id::kWaist), true) - body.mm(id::kBackWaistLength);
    const double tooLongInFront = fromNeckPoint(span_ / 2, yBust_, false) - body.mm(id::kShoulderToBust);
    if (std::abs(tooLongBehind) < kSettled && std::abs(tooLongInFront) < kSettled) break;
    y = std::clamp(y + tooLongBehind, -20.0, kLowest * yChest_);
    z = std::clamp(z + 0.8 * (tooLongInFront - tooLongBehind), kBack, kForward);
  }
}

void BodyForm::setShoulders(const Body& body, double neckY, double neckZ) {
  constexpr double kDrop = 31.75;                        // mm, 1 1/4 in
  constexpr double kNeckHeight = 60, kNeckForward = 12;  // mm
  constexpr double kThick = 0.62, kChestward = 0.5;      // the shoulder's depth, of the chest's; where it stands
  constexpr double kArmDown = 0.4, kArmOut = 0.5;        // where the arm stands out most, and how far, of its radius
  constexpr double kArmFront = 0.8, kArmBack = 0.92;     // depths there, from the shoulder's towards the chest's
  const Station chest = stations_.front();
  const double halfWidth = chest.values[0], front = chest.values[1], back = chest.values[2], axis = chest.values[3];
  const double neck = anyMeasure(body, "neck") / (2 * pi), point = body.mm(id::kShoulderWidth) / 2;
  const double pointY = neckY + std::min(kDrop, (yChest_ - neckY) / 3);
  const double armY = pointY + kArmDown * (yChest_ - pointY), arm = anyMeasure(body, "bicep") / (2 * pi);
  const double thick = kThick * (front + back) / 2, pointZ = neckZ + kChestward * (axis - neckZ);
  const std::array<Station, 4> above{{
      {neckY - kNeckHeight, {neck, neck, neck, neckZ + kNeckForward}, {}},
      {neckY, {1.15 * neck, 1.1 * neck, 1.1 * neck, neckZ}, {}},
      {pointY, {point, thick, thick, pointZ}, {}},
      {armY,
       {std::max(point, halfWidth) + kArmOut * arm, thick + kArmFront * (front - thick),
        thick + kArmBack * (back - thick), (pointZ + axis) / 2},
       {}},
  }};
  stations_.insert(stations_.begin(), above.begin(), above.end());
  findSlopes();
  shoulder_ = {{1.15 * neck, neckY, neckZ}, {point, pointY, pointZ}};
}

// A tape from the neck point to a place on the front or the back, straight over hollows.
double BodyForm::fromNeckPoint(double x, double y, bool behind) const {
  constexpr int kParts = 24;
  const Vec3 from = shoulder_.neckPoint;
  Polyline line{{from.y, behind ? -from.z : from.z}};  // how far it stands out, by the height
  for (int i = 1; i <= kParts; ++i) {
    const double t = static_cast<double>(i) / kParts, at = from.y + t * (y - from.y),
                 beside = from.x + t * (x - from.x);
    const FormSection s = section(at);
    line.push_back({at, behind ? s.back * depthAt(s, beside) - s.axis : frontAt(beside, at)});
  }
  const Vec2 last = line.back();
  line.push_back({last.x, line.front().y - 500});  // closes the hull behind all of it
  line.push_back({line.front().x, line.front().y - 500});
  const double round = ringLength(convexHull(line));
  const double closing = (last.y - (line.front().y - 500)) + (last.x - line.front().x) + 500;
  return std::hypot(round - closing, x - from.x);
}

// Depth and width of the breast depend on each other where cup_out was taken, and the torso at the chest line on the
// breast's slope. A few rounds settle them.
void BodyForm::findBreast(const Body& body) {
  constexpr int kRounds = 8;
  constexpr double kSettled = 0.02;  // mm
  const double bust = levels_[1].girth;
  double torsoAtChest = levels_[0].girth;
  for (int round = 0; round < kRounds; ++round) {
    buildStations(body, torsoAtChest);
    breastInner_ = span_ / 2;
    breastOuter_ = breastWidthOutwards(body, section(yBust_));
    breastDepth_ = depthFor(bust, breastDepth_);
    if (breastDepth_ <= 0) return;
    const Fact* up = takenFact(body, "cup_up");
    slope_ = up ? std::sqrt(std::max(up->mm * up->mm, 1.25 * breastDepth_ * breastDepth_) - breastDepth_ * breastDepth_)
                : std::max(yBust_ - yChest_, curvesOf(shape_).slopePerDepth * breastDepth_);
    const double torso = torsoBeside(levels_[0].girth, torsoAtChest);
    if (std::abs(torso - torsoAtChest) < kSettled) break;
    torsoAtChest = torso;
  }
  below_ = roundnessBelow(body);
}

// How round the breast is below its bust point, so that over it the tape reads cup_down where that was taken.
double BodyForm::roundnessBelow(const Body& body) const {
  const Fact* down = takenFact(body, id::kCupDown);
  if (!down) return curvesOf(shape_).below;
  BodyForm tried = *this;
  const auto over = [&](double roundness) {
    tried.below_ = roundness;
    return tried.cupDown() - down->mm;
  };
  return rootOfGrowing(over, curvesOf(shape_).below, 0.3, kFlattestBelow, kRoundestBelow);
}

double BodyForm::breastWidthOutwards(const Body& body, const FormSection& torso) const {
  constexpr double kLeast = 10;  // mm
  const double room = std::max(kLeast, kInnermost * torso.halfWidth - span_ / 2);
  const Fact* out = takenFact(body, "cup_out");
  if (!out || breastDepth_ <= 0) return room;
  const auto over = [&](double width) {
    FormSection s = torso;
    s.breastDepth = breastDepth_;
    s.breastX = span_ / 2;
    s.breastInner = s.breastOuter = width;
    constexpr int kParts = 24;
    double sum = 0;
    for (int i = 0; i < kParts; ++i)
      sum += distance(breastPoint(s, pi / 2 * i / kParts), breastPoint(s, pi / 2 * (i + 1) / kParts));
    return sum - out->mm;
  };
  return rootOfGrowing(over, room / 2, room / 8, kLeast, room);
}

double BodyForm::yOf(std::string_view girth) const {
  for (const FormLevel& level : levels_)
    if (level.id == girth) return level.y;
  throw std::out_of_range("BodyForm: no level " + std::string(girth));
}

FormSection BodyForm::section(double y) const {
  y = std::clamp(y, highest(), lowest());
  size_t i = 0;
  while (i + 2 < stations_.size() && y > stations_[i + 1].y) ++i;
  const Station &a = stations_[i], &b = stations_[i + 1];
  const double h = b.y - a.y, t = (y - a.y) / h;
  std::array<double, 4> v{};
  for (size_t k = 0; k < 4; ++k)  // cubic Hermite
    v[k] = a.values[k] * (1 + 2 * t) * (1 - t) * (1 - t) + h * a.slopes[k] * t * (1 - t) * (1 - t) +
           b.values[k] * t * t * (3 - 2 * t) + h * b.slopes[k] * t * t * (t - 1);
  FormSection s{v[0], v[1], v[2], v[3]};
  s.breastX = span_ / 2;
  if (breastDepth_ <= 0 || y >= yUnderbust_) return s;
  const double part = y < yBust_ ? upperPart(y) : lowerPart(y);
  if (part <= 0) return s;
  s.breastDepth = breastDepth_ * part;
  s.breastInner = breastInner_ * std::sqrt(part);
  s.breastOuter = std::min(breastOuter_ * std::sqrt(part), std::max(1.0, kInnermost * s.halfWidth - s.breastX));
  return s;
}

// A quarter of a superellipse.
double BodyForm::lowerPart(double y) const {
  return std::pow(1 - std::pow((y - yBust_) / (yUnderbust_ - yBust_), below_), 1 / below_);
}

double BodyForm::upperPart(double y) const {
  const double t = (yBust_ - y) / slope_;
  return t < 1 ? std::pow(std::cos(pi / 2 * t), 1.5) : 0;
}

Polyline BodyForm::points(double y) const {
  const FormSection s = section(y);
  Polyline all = torsoPoints(s);
  if (s.breastDepth <= 0) return all;
  appendBreasts(s, all);
  return all;
}

Polyline BodyForm::torsoRing(double y) const {
  Polyline ring = torsoPoints(section(y));
  ring.push_back(ring.front());
  return ring;
}

Polyline BodyForm::breastOutline(double y) const {
  const FormSection s = section(y);
  Polyline outline;
  if (s.breastDepth <= 0) return outline;
  for (int i = 0; i <= kBreastSamples; ++i) outline.push_back(breastPoint(s, pi * i / kBreastSamples));
  return outline;
}

double BodyForm::tapeOf(Polyline points) { return ringLength(convexHull(std::move(points))); }

// The depth at the bust point with which the tape reads the bust.
double BodyForm::depthFor(double bust, double near) {
  breastDepth_ = 0;
  FormSection s = section(yBust_);
  s.breastInner = breastInner_;
  s.breastOuter = breastOuter_;
  Polyline ring = torsoPoints(s);
  std::sort(ring.begin(), ring.end(), isLeftOf);
  const auto over = [&](double depth) {
    s.breastDepth = depth;
    Polyline breasts, all;
    appendBreasts(s, breasts);
    std::sort(breasts.begin(), breasts.end(), isLeftOf);
    std::merge(ring.begin(), ring.end(), breasts.begin(), breasts.end(), std::back_inserter(all), isLeftOf);
    return ringLength(convexHullOfSorted(std::move(all))) - bust;
  };
  constexpr double kNone = 1e-6, kMost = 3200;  // mm
  if (near <= 0 && over(0) >= -kNone) return 0;
  return rootOfGrowing(over, near > 0 ? near : 50, near > 0 ? 0.5 : 20, 0, kMost);
}

// The torso's girth at the chest line with which the tape, over the slopes of the breasts, reads the upper bust.
double BodyForm::torsoBeside(double upperBust, double near) const {
  FormSection slopes = section(yChest_);
  if (slopes.breastDepth <= 0) return upperBust;
  const double ratio = chestRatio(upperBust);
  const auto over = [&](double girth) {
    FormSection s = sectionOfGirth(girth, ratio, kPostures[0].frontShare);
    s.axis = slopes.axis;
    s.breastDepth = slopes.breastDepth;
    s.breastX = slopes.breastX;
    s.breastInner = slopes.breastInner;
    s.breastOuter = slopes.breastOuter;
    Polyline all = torsoPoints(s);
    appendBreasts(s, all);
    return tapeOf(std::move(all)) - upperBust;
  };
  return rootOfGrowing(over, near, 2, 0.7 * upperBust, upperBust);
}

double BodyForm::cupDown() const {
  constexpr int kParts = 32;
  double sum = 0;
  Vec2 last{frontAt(span_ / 2, yBust_), yBust_};
  for (int i = 1; i <= kParts; ++i) {
    const double y = yBust_ + (yUnderbust_ - yBust_) * std::sin(pi / 2 * i / kParts);
    const Vec2 here{frontAt(span_ / 2, y), y};
    sum += distance(last, here);
    last = here;
  }
  return sum;
}

double BodyForm::halfWidth(double y) const { return section(y).halfWidth; }

double BodyForm::frontZ(double y) const {
  const FormSection s = section(y);
  double z = s.axis + s.front;
  if (s.breastDepth > 0)
    for (int i = 8; i <= 16; ++i) z = std::max(z, breastPoint(s, pi * i / 24).y);
  return z;
}

double BodyForm::frontAt(double x, double y) const {
  const FormSection s = section(y);
  if (s.breastDepth <= 0) return torsoFront(s, x);
  const double off = std::abs(x) - s.breastX;
  return torsoFront(s, x) + s.breastDepth * breastProfile(off / (off < 0 ? s.breastInner : s.breastOuter));
}

double BodyForm::backZ(double y) const {
  const FormSection s = section(y);
  return s.axis - s.back;
}

}  // namespace armure
