// What a body form has beyond its measured levels: neck, shoulders and arms above, both legs below.
#include <array>
#include <numbers>

#include "body/form_sections.h"
#include "geometry/hull.h"
#include "measure/measure_table.h"
#include "measure/predict.h"

namespace armure {

namespace {
using std::numbers::pi;
}

// What both legs together are to a skirt.
void BodyForm::addLegs(const Body& body) {
  constexpr double kKneeGirth = 0.23, kKneeRatio = 0.5, kKneeShare = 0.5;  // of the stature; depth to width
  const FormSection hip = section(bottom());
  const double knee = std::max(bottom() + 4 * kLevelsApart, yOf(id::kWaist) + anyMeasure(body, "waist_to_knee"));
  const FormSection s = sectionOfGirth(std::min(kKneeGirth * anyMeasure(body, id::kStature), levels_.back().girth),
                                       kKneeRatio, kKneeShare);
  stations_.push_back({knee, {s.halfWidth, s.front, s.back, hip.axis + (hip.front - hip.back) / 2}, {}});
}

// The neck point by what both tapes from it read. A height too little makes both too long, a place too far back only
// the one in front.
void BodyForm::findShoulders(const Body& body) {
  constexpr int kRounds = 12;
  constexpr double kLowest = 0.45, kBack = -30, kForward = 65, kSettled = 0.3;  // part of the chest's height; mm
  constexpr double kByLength = 0.8;  // mm the point goes forward for one that the front is too long by against the back
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
    z = std::clamp(z + kByLength * (tooLongInFront - tooLongBehind), kBack, kForward);
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

}  // namespace armure
