#include "body/form_sections.h"

#include <numbers>

#include "geometry/hull.h"

namespace armure {

namespace {

using std::numbers::pi;

constexpr double kExponent = 2.3;
constexpr int kTorsoSamples = 360;

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

}  // namespace

double chestRatio(double upperBust) { return std::clamp(0.6767 + 0.000217 * (upperBust - 856.4), 0.55, 0.85); }

Polyline torsoPoints(const FormSection& s) {
  Polyline points = unitTorso();
  for (Vec2& p : points) p = {s.halfWidth * p.x, s.axis + p.y * (p.y > 0 ? s.front : s.back)};
  return points;
}

double depthAt(const FormSection& s, double x) {
  const double t = std::min(1.0, std::abs(x) / s.halfWidth);
  return std::pow(1 - std::pow(t, kExponent), 1 / kExponent);
}

double torsoFront(const FormSection& s, double x) { return s.axis + s.front * depthAt(s, x); }

double breastProfile(double u) {
  if (std::abs(u) >= 1) return 0;
  return u < 0 ? 0.5 * (1 + std::cos(pi * u)) : std::sqrt(1 - u * u);
}

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

FormSection sectionOfGirth(double girth, double ratio, double frontShare) {
  FormSection s{1, 2 * ratio * frontShare, 2 * ratio * (1 - frontShare), 0};
  const double scale = girth / ringLength(torsoPoints(s));
  s.halfWidth *= scale;
  s.front *= scale;
  s.back *= scale;
  return s;
}

const Fact* takenFact(const Body& body, std::string_view id) {
  const Fact* fact = body.find(id);
  return fact && fact->source == Source::Taken ? fact : nullptr;
}

}  // namespace armure
