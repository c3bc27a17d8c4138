#include "body/body_form.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>
#include <stdexcept>
#include <string>

#include "body/form_sections.h"
#include "geometry/hull.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"
#include "measure/predict.h"

namespace armure {
namespace {

using std::numbers::pi;

constexpr int kHeightRounds = 3;  // in which the heights settle to a tenth of a millimetre

// How the torso stands at a level. Depth to width; share of the depth before the widest line; and how far forward of
// the upper back the back lies, in parts of the back waist length. Shares and back line: common practice, no source.
struct Posture {
  std::string_view level;
  double ratio, frontShare, backForward;
};
constexpr std::array kPostures{
    Posture{id::kUpperBust, 0, kChestFrontShare, 0}, Posture{id::kBust, 0, 0.5, 0.01},
    Posture{id::kUnderbust, 0, 0.52, 0.035},         Posture{id::kWaist, 0.72, 0.54, 0.075},
    Posture{id::kHighHip, 0.68, 0.5, 0.02},          Posture{id::kHip, 0.71, 0.46, -0.045},
};

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
  yUnderbust_ = std::clamp(underbust, 4 * kLevelsApart, std::max(4 * kLevelsApart, waist - kLevelsApart));
  yChest_ = std::clamp(chest, kLevelsApart, yUnderbust_ - 2 * kLevelsApart);
  yBust_ = std::clamp(yChest_ + bustBelowChest, yChest_ + kLevelsApart, yUnderbust_ - kLevelsApart);
  const std::array<double, 6> heights{
      yChest_, yBust_, yUnderbust_, waist, waist + body.mm(id::kWaistToHighHip), waist + body.mm(id::kWaistToHip)};
  levels_.clear();
  double above = 0;
  for (size_t i = 0; i < kPostures.size(); ++i) {
    above = std::max(heights[i], above + kLevelsApart);
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
  putBreast(s, y);
  return s;
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
