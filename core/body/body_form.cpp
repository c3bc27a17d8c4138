#include "body/body_form.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <numbers>
#include <stdexcept>
#include <string>

#include "geometry/hull.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"

namespace armure {
namespace {

using std::numbers::pi;

constexpr double kExponent = 2.3;
constexpr double kLeastApart = 20;       // mm between two levels
constexpr double kChestAboveBust = 0.3;  // of shoulder to bust, when the chest line was not measured
constexpr double kTapeTolerance = 1e-3;  // mm
constexpr int kTorsoSamples = 720, kBreastSamples = 120;

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

// z of the torso's front at x.
double torsoFront(const FormSection& s, double x) {
  const double t = std::min(1.0, std::abs(x) / s.halfWidth);
  return s.axis + s.front * std::pow(1 - std::pow(t, kExponent), 1 / kExponent);
}

// A point of the breast's outline, from its outer (0) to its inner end (pi).
Vec2 breastPoint(const FormSection& s, double angle) {
  const double x = s.breastX + s.breastHalfWidth * std::cos(angle);
  return {x, torsoFront(s, x) + s.breastDepth * std::sin(angle)};
}

void appendBreasts(const FormSection& s, Polyline& points) {
  for (int i = 0; i <= kBreastSamples; ++i) {
    const Vec2 p = breastPoint(s, pi * i / kBreastSamples);
    points.push_back(p);
    points.push_back({-p.x, p.y});
  }
}

// Half width and depths of the section with this girth: the unit section's girth scales.
FormSection sectionOfGirth(double girth, double ratio, double frontShare) {
  FormSection s{1, 2 * ratio * frontShare, 2 * ratio * (1 - frontShare), 0, 0, 0, 0};
  const double scale = girth / ringLength(torsoPoints(s));
  s.halfWidth *= scale;
  s.front *= scale;
  s.back *= scale;
  return s;
}

}  // namespace

BodyForm::BodyForm(const Body& body) : span_(body.mm(id::kBustSpan)) {
  // Lengths over the front go over the breast; on the standing body they shrink to the back's length.
  const double back = body.mm(id::kBackWaistLength);
  const double upright = back / body.mm(id::kShoulderToWaist);
  const double bustHeight = body.mm(id::kShoulderToBust);
  const double chest =
      body.has(id::kShoulderToChest) ? body.mm(id::kShoulderToChest) : (1 - kChestAboveBust) * bustHeight;
  const double waist = std::max(back, upright * body.mm(id::kShoulderToWaist));
  const std::array<double, 6> heights{upright * chest,
                                      upright * bustHeight,
                                      upright * body.mm(id::kShoulderToUnderbust),
                                      waist,
                                      waist + body.mm(id::kWaistToHighHip),
                                      waist + body.mm(id::kWaistToHip)};
  double above = 0;
  for (size_t i = 0; i < kPostures.size(); ++i) {
    above = std::max(heights[i], above + kLeastApart);
    levels_.push_back({kPostures[i].level, above, body.mm(kPostures[i].level)});
  }
  yChest_ = levels_[0].y;
  yBust_ = levels_[1].y;
  yUnderbust_ = levels_[2].y;

  const double upper = levels_[0].girth, bust = levels_[1].girth, under = levels_[2].girth;
  const double t = (yBust_ - yChest_) / (yUnderbust_ - yChest_);
  const double torsoAtBust = std::min(bust, upper + t * (under - upper));
  const double upperBack = sectionOfGirth(upper, chestRatio(upper), kPostures[0].frontShare).back;
  for (size_t i = 0; i < kPostures.size(); ++i) {
    const Posture& p = kPostures[i];
    const FormSection s = sectionOfGirth(i == 1 ? torsoAtBust : levels_[i].girth,
                                         p.ratio > 0 ? p.ratio : chestRatio(upper), p.frontShare);
    const double axis = s.back - upperBack + p.backForward * back;
    stations_.push_back({levels_[i].y, {s.halfWidth, s.front, s.back, axis}, {}});
  }
  for (size_t k = 0; k < 4; ++k) {
    std::vector<armure::Station> line;
    for (const Station& s : stations_) line.push_back({.y = s.y, .x = s.values[k]});
    const std::vector<double> slopes = monotoneSlopes(line);
    for (size_t i = 0; i < stations_.size(); ++i) stations_[i].slopes[k] = slopes[i];
  }
  solveBreasts(bust);
}

double BodyForm::yOf(std::string_view girth) const {
  for (const FormLevel& level : levels_)
    if (level.id == girth) return level.y;
  throw std::out_of_range("BodyForm: no level " + std::string(girth));
}

FormSection BodyForm::section(double y) const {
  y = std::clamp(y, top(), bottom());
  size_t i = 0;
  while (i + 2 < stations_.size() && y > stations_[i + 1].y) ++i;
  const Station &a = stations_[i], &b = stations_[i + 1];
  const double h = b.y - a.y, t = (y - a.y) / h;
  std::array<double, 4> v{};
  for (size_t k = 0; k < 4; ++k)  // cubic Hermite
    v[k] = a.values[k] * (1 + 2 * t) * (1 - t) * (1 - t) + h * a.slopes[k] * t * (1 - t) * (1 - t) +
           b.values[k] * t * t * (3 - 2 * t) + h * b.slopes[k] * t * t * (t - 1);
  FormSection s{v[0], v[1], v[2], v[3], 0, 0, span_ / 2};
  if (breastDepth_ <= 0 || y <= yChest_ || y >= yUnderbust_) return s;
  // Above the bust point a slope, below it a quarter round.
  const double part = y < yBust_ ? std::pow(std::sin(pi / 2 * (y - yChest_) / (yBust_ - yChest_)), 1.5)
                                 : std::sqrt(1 - std::pow((y - yBust_) / (yUnderbust_ - yBust_), 2));
  s.breastDepth = breastDepth_ * part;
  s.breastHalfWidth = breastHalfWidth_ * std::sqrt(part);
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

// The depth at the bust point, by the regula falsi of Illinois: the tape grows with the depth.
void BodyForm::solveBreasts(double bust) {
  const FormSection torso = section(yBust_);
  Polyline ring = torsoPoints(torso);
  std::sort(ring.begin(), ring.end(), isLeftOf);
  const auto over = [&](double depth) {
    breastDepth_ = depth;
    breastHalfWidth_ = std::min(0.47 * span_, std::max(10.0, 0.94 * torso.halfWidth - span_ / 2) + depth / 2);
    FormSection s = torso;
    s.breastDepth = depth;
    s.breastHalfWidth = breastHalfWidth_;
    Polyline breasts, all;
    appendBreasts(s, breasts);
    std::sort(breasts.begin(), breasts.end(), isLeftOf);
    std::merge(ring.begin(), ring.end(), breasts.begin(), breasts.end(), std::back_inserter(all), isLeftOf);
    return ringLength(convexHullOfSorted(std::move(all))) - bust;
  };
  double low = 0, high = 100, fLow = over(0), fHigh = over(high);
  if (fLow >= -1e-6) {
    breastDepth_ = 0;
    return;
  }
  while (fHigh < 0 && high < 3200) fHigh = over(high *= 2);
  for (int i = 0; i < 60; ++i) {
    const double middle = (low * fHigh - high * fLow) / (fHigh - fLow), f = over(middle);
    if (std::abs(f) < kTapeTolerance) return;
    if (f < 0) {
      low = middle;
      fLow = f;
      fHigh /= 2;
    } else {
      high = middle;
      fHigh = f;
      fLow /= 2;
    }
  }
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
  const double u = s.breastDepth > 0 ? (std::abs(x) - s.breastX) / s.breastHalfWidth : 2;
  return torsoFront(s, x) + (std::abs(u) < 1 ? s.breastDepth * std::sqrt(1 - u * u) : 0);
}

double BodyForm::backZ(double y) const {
  const FormSection s = section(y);
  return s.axis - s.back;
}

}  // namespace armure
