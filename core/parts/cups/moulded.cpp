#include "parts/cups/moulded.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "body/body_form.h"
#include "geometry/hull.h"
#include "measure/measure_table.h"
#include "parts/cups/rules.h"

namespace armure {
namespace {

using std::numbers::pi;

// bust girth cm; base width, depth, wire mm; volume ml
constexpr std::array<MouldedSize, 15> kSizes{{
    {76, 106.5, 24, 185.5, 114},
    {80, 112, 26.5, 195.5, 140},
    {84, 117.5, 29, 205.5, 171},
    {88, 123, 31.5, 215, 206},
    {92, 129, 34.5, 225, 248},
    {96, 134.5, 37.5, 234.5, 294},
    {100, 140, 40.5, 244.5, 347},
    {104, 145.5, 43.5, 254, 405},
    {108, 151, 47, 264, 475},
    {112, 157, 50.5, 273.5, 556},
    {116, 162.5, 54, 283.5, 642},
    {120, 168, 57.5, 293, 737},
    {124, 173.5, 61.5, 303, 849},
    {128, 179, 65, 313, 962},
    {132, 185, 69.5, 322.5, 1110},
}};

Fact replaced(const Body& body, std::string_view id, double mm, std::vector<Term> terms, const Message& note) {
  Fact f = body.fact(id);
  f.working = {f.working.key, msg("{}, over the cup", known(findMeasure(id)->name)), std::move(terms), mm, note};
  f.mm = mm;
  return f;
}

}  // namespace

std::span<const MouldedSize> mouldedSizes() { return kSizes; }

double SphericalCap::arc() const {
  const double r = sphereRadius(), half = std::asin(std::min(1.0, baseRadius / r));
  return 2 * r * (depth <= baseRadius ? half : pi - half);
}

double SphericalCap::volume() const { return pi * depth * (3 * baseRadius * baseRadius + depth * depth) / 6; }

SphericalCap capWithArc(double arc, double baseRadius) {
  // sin(t) / t = 2 a / arc with t half the angle at the centre, falling on (0, pi): by bisection.
  const double ratio = std::min(1.0, 2 * baseRadius / arc);
  double low = 1e-6, high = pi - 1e-6;
  for (int i = 0; i < 80; ++i) {
    const double t = (low + high) / 2;
    (std::sin(t) / t > ratio ? low : high) = t;
  }
  const double t = (low + high) / 2, radius = arc / (2 * t);
  return {baseRadius, radius * (1 - std::cos(t))};
}

bool isMoulded(const Rules& rules) { return rules.option(key::kCupKind) == CupKind::Moulded; }

std::optional<double> traced(const Rules& rules, LengthKey distance) {
  const bool own = isMoulded(rules) && rules.option(key::kMouldFrom) == MouldFrom::Own;
  return own && !rules.isDefault(distance) ? std::optional(rules.length(distance)) : std::nullopt;
}

double ownRim(const Rules& rules) { return traced(rules, key::kMouldRim).value_or(0); }

namespace {

// The figures of a cup that lies on the table; its wire as long as on ours.
MouldedSize ownCup(const Rules& rules) {
  constexpr double kWire = 200.0 / 180 * pi;
  const double width = rules.length(key::kMouldWidth), depth = rules.length(key::kMouldDepth);
  return {0, width, depth, kWire * width / 2, SphericalCap{width / 2, depth}.volume() / 1000};
}

MouldedSize sizeFor(const Body& body, const Rules& rules) {
  if (rules.option(key::kMouldFrom) == MouldFrom::Own) return ownCup(rules);
  const double wanted = (body.mm(id::kBust) + rules.length(key::kMouldOffset)) / 10;
  return *std::find_if(kSizes.begin(), kSizes.end() - 1, [&](const MouldedSize& s) { return s.bustGirthCm >= wanted; });
}

}  // namespace

MouldedCup mouldedCup(const Body& body, const Rules& rules) {
  const MouldedSize size = sizeFor(body, rules);
  MouldedCup cup{size, {size.baseWidth / 2, size.depth}, {}};
  // The dart reaches part of the way up: the rim loses its width, the arc over the apex stays.
  const double taken =
      rules.length(key::kMouldDartWide) * std::min(1.0, rules.length(key::kMouldDartLong) / (cup.asBought.arc() / 2));
  cup.pinched = capWithArc(cup.asBought.arc(), cup.asBought.baseRadius - taken / (2 * pi));
  return cup;
}

Body overMouldedCup(const Body& body, const Rules& rules) {
  if (!isMoulded(rules)) return body;
  const MouldedCup cup = mouldedCup(body, rules);
  const BodyForm form(body);
  const double y = form.yOf(id::kBust), x = body.mm(id::kBustSpan) / 2;
  // The base of the cup stands on the torso; where the breast is deeper than the cup it pushes it out.
  const FormSection section = form.section(y);
  const double own = section.breastDepth, further = std::max(0.0, cup.pinched.depth - own);
  Polyline points = form.points(y);
  constexpr double kAcross = 0.35;  // of the base radius: the round top of the cup
  for (const double side : {-1.0, 1.0})
    for (const double part : {-kAcross, 0.0, kAcross}) {
      const double round = cup.pinched.sphereRadius(), off = part * cup.pinched.baseRadius;
      const double drop = round - std::sqrt(round * round - off * off);
      points.push_back({side * x + off, form.frontAt(x, y) + further - drop});
    }
  const Polyline hull = convexHull(std::move(points));
  double tape = 0;
  for (size_t i = 0; i < hull.size(); ++i) tape += distance(hull[i], hull[(i + 1) % hull.size()]);
  const double girth = std::max(body.mm(id::kBust), tape);

  const double down = body.mm(id::kShoulderToUnderbust) - body.mm(id::kShoulderToBust);
  const double lift = std::max(0.0, cup.pinched.arc() / 2 - down);
  const Message note = "measured again over the cup; common practice";
  Body out = body;
  const Source source = body.fact(id::kBust).source;
  out = out.with(replaced(
      body, id::kBust, girth,
      {{'+', Message("bust"), body.mm(id::kBust), source},
       {'+', msg("the cup stands {:.0f} mm further out", further), girth - body.mm(id::kBust), Source::Computed}},
      note));
  for (const std::string_view id : {id::kShoulderToUnderbust, id::kShoulderToWaist})
    out = out.with(replaced(body, id, body.mm(id) + lift,
                            {{'+', known(findMeasure(id)->name), body.mm(id), body.fact(id).source},
                             {'+', "the way over the cup is longer by", lift, Source::Computed}},
                            note));
  return out;
}

}  // namespace armure
