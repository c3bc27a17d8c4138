// The breasts of a body form: how deep, how wide and how round they are.
#include <iterator>
#include <numbers>

#include "body/form_sections.h"
#include "geometry/hull.h"
#include "measure/measure_table.h"

namespace armure {

namespace {

using std::numbers::pi;

constexpr double kFlattestBelow = 1.2, kRoundestBelow = 4;  // exponents of the breast's underside
constexpr double kInnermost = 0.97;                         // of the torso's half width: a breast ends within it

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

}  // namespace

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

void BodyForm::putBreast(FormSection& s, double y) const {
  s.breastX = span_ / 2;
  if (breastDepth_ <= 0 || y >= yUnderbust_) return;
  const double part = y < yBust_ ? upperPart(y) : lowerPart(y);
  if (part <= 0) return;
  s.breastDepth = breastDepth_ * part;
  s.breastInner = breastInner_ * std::sqrt(part);
  s.breastOuter = std::min(breastOuter_ * std::sqrt(part), std::max(1.0, kInnermost * s.halfWidth - s.breastX));
}

// A quarter of a superellipse.
double BodyForm::lowerPart(double y) const {
  return std::pow(1 - std::pow((y - yBust_) / (yUnderbust_ - yBust_), below_), 1 / below_);
}

double BodyForm::upperPart(double y) const {
  const double t = (yBust_ - y) / slope_;
  return t < 1 ? std::pow(std::cos(pi / 2 * t), 1.5) : 0;
}

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
    FormSection s = sectionOfGirth(girth, ratio, kChestFrontShare);
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

}  // namespace armure
