// core/parts/cups/depth.h
//
// Is the cup deep enough? What the pattern takes in about the bust point, against what the breast itself asks for.
//
// Lay a tape of length r from the bust point over the breast in every direction; its ends draw a ring of length L(r).
// Cloth that lies on it must lose the angle
//   theta(r) = 2 pi - L(r) / r
// out of a flat disc of radius r. For a cone of base radius a and slant s that is 2 pi (1 - a / s); for a spherical cap
// of radius R it is 2 pi (1 - sin(r/R) / (r/R)). The curvature gathered inside the ring is 2 pi - dL/dr (Gauss-Bonnet;
// M. do Carmo, "Differential Geometry of Curves and Surfaces", 1976, sections 4-5 and 4-6).
//
// In the pattern theta(r) is what the two pieces beside the princess seam leave of a full turn about the bust point,
// between the places where their edges are r from it, the side bust dart closed.
//
// Depth at r: of the cone with the same ring and slant, sqrt(r^2 - a^2), a = L / 2 pi. Volume within r: of the solid of
// revolution with the same rings, integral of pi a^2 dh with dh^2 = dr^2 - da^2.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "body/body_form.h"
#include "draft/block.h"

namespace armure {

// Height of a surface over the plane, mm, at (x, y) from the bust point.
using HeightMap = std::function<double(double x, double y)>;

// Lengths of the rings at these radii (ascending, > 0), mm: tapes laid in `directions` directions, each in the upright
// plane of its direction. Good to 1e-3 of the length for
// smooth surfaces with the default.
std::vector<double> ringLengths(const HeightMap& surface, const std::vector<double>& radii, int directions = 144);

struct DepthStation {
  double radius = 0;
  double bodyAngleRad = 0, patternAngleRad = 0;  // theta
  double bodyDepth = 0, patternDepth = 0;        // mm
};

struct CupDepth {
  std::vector<DepthStation> stations;        // from near the bust point out to the underbust
  double bodyVolume = 0, patternVolume = 0;  // mm^3, within the last radius
  // How much deeper the pattern is than the breast at the underbust, mm; negative when it is shallower.
  double difference() const { return stations.back().patternDepth - stations.back().bodyDepth; }
};

// theta of the cone.
double coneIntake(double baseRadius, double slant);
// Depth of a cone that takes up `angleRad` over the slant r.
double coneDepth(double angleRad, double slant);

// Volume of the solid of revolution whose rings at these tape radii (ascending) have these lengths, mm^3, by frusta.
double revolvedVolume(const std::vector<double>& radii, const std::vector<double>& rings);

// The rings of the breast about the bust point, at even radii out to `reach`. They change with the body only, not with
// what is drafted for it.
struct BreastRings {
  std::vector<double> radii, lengths;  // mm
};
BreastRings breastRings(const BodyForm& form, double bustX, double reach);

// From the bust point to the underbust, along the princess edge of the centre front, mm.
double cupReach(const Block& block);

// For the block's front as drafted, beside the breast. The bust point must lie above the underbust; rings of
// cupReach().
CupDepth cupDepth(const Block& block, const BreastRings& breast);
CupDepth cupDepth(const Block& block, const BodyForm& form);

// In plain words: "As deep as the breast at the underbust (within 1/16 in)." or "1/2 in shallower than ...", and what
// would change it.
Message depthInWords(const CupDepth& depth);

}  // namespace armure
