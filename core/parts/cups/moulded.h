// core/parts/cups/moulded.h
//
// Ready-made moulded cups: a table of sizes of our own, what a chosen one measures, and the client measured again over
// it.
//
// A cup is a spherical cap over a round base. With a the base radius and h the depth,
//   R = (a^2 + h^2) / 2h        radius of the sphere
//   arc = 2 R asin(a / R)       over the apex, from rim to rim (h <= a)
//   volume = pi h (3 a^2 + h^2) / 6
//   wire = a W                  round the lower part of the rim, W = 200 degrees
// (Bronstein and Semendyayev, "Handbook of Mathematics", the spherical segment). The sizes follow
//   a = 0.07 girth,  h / a = 0.45 + 0.3 (girth - 760 mm) / 560 mm
// in steps of 4 cm of bust girth, rounded to half a millimetre: a model of ours, no maker's.
//
// A dart pinched at the lower rim takes its width off the rim; over the apex the cup stays as long as it was, so that
// it gets deeper: the cap with the same arc over the base radius a - wide / 2 pi.
#pragma once

#include <optional>
#include <span>

#include "measure/estimate.h"
#include "rules/rules.h"

namespace armure {

struct MouldedSize {
  int bustGirthCm = 0;
  double baseWidth = 0, depth = 0, wireLength = 0;  // mm
  double volume = 0;                                // ml
};

std::span<const MouldedSize> mouldedSizes();  // ascending

struct SphericalCap {
  double baseRadius = 0, depth = 0;  // mm

  double sphereRadius() const { return (baseRadius * baseRadius + depth * depth) / (2 * depth); }
  double arc() const;     // over the apex, mm
  double volume() const;  // mm^3
};

// The cap with this arc over the apex on this base radius; 0 < 2 baseRadius <= arc. Deeper than a half sphere for an
// arc longer than pi baseRadius.
SphericalCap capWithArc(double arc, double baseRadius);

// The cup an order takes, the dart pinched: the smallest size not below the client's bust and the offset; or the
// maker's own, as measured on it, which has no size (bustGirthCm is 0).
struct MouldedCup {
  MouldedSize size;
  SphericalCap asBought, pinched;
};
MouldedCup mouldedCup(const Body& body, const Rules& rules);

bool isMoulded(const Rules& rules);

// The rim of the maker's own cup where it is sewn in, mm; 0 where it was not measured.
double ownRim(const Rules& rules);

// A distance of the outline of the maker's own cup, as traced on paper: from the apex to the rim. Nothing where she did
// not measure it.
std::optional<double> traced(const Rules& rules, LengthKey distance);

// The client measured again over the cup: the bust girth as a tape laid round body and cups, and the heights from the
// underbust down, longer in front by what the way over the cup is longer than over the breast. Each of these facts
// carries its working. The length in front goes into the side bust dart with the rest.
Body overMouldedCup(const Body& body, const Rules& rules);

}  // namespace armure
