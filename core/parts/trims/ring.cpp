#include "parts/trims/ring.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/root.h"

namespace armure {
namespace {

constexpr double kTurn = 2 * std::numbers::pi;
constexpr double kLeastRadius = 12;  // mm: a smaller ring can hardly be sewn
constexpr int kMostPieces = 48;

// The widest sector whose ends have room for their allowances.
double widest(double radius, double seam) {
  return kTurn - 2 * std::asin(std::min(1.0, (seam + kRingSpare) / std::max(radius - seam, 1e-9)));
}

// Of a sector's piece as it lies on the cloth.
double widthOf(const RingAsked& asked, double radius, double angle) {
  const double outer = radius + asked.longest;
  return angle >= std::numbers::pi ? 2 * (outer + asked.hem) : 2 * (outer * std::sin(angle / 2) + asked.seam);
}

}  // namespace

double leastRingRadius(double seam) { return std::max(kLeastRadius, 2 * seam + 2 * kRingSpare); }

std::optional<RingPlan> planRing(const RingAsked& asked) {
  RingPlan ring{std::max(1, static_cast<int>(std::ceil((asked.halves ? 2 : 1) * asked.turns - 1e-9))),
                asked.edge / (kTurn * asked.turns)};
  const double least = leastRingRadius(asked.seam);
  if (ring.radius < least) return std::nullopt;
  if (const double each = asked.edge / ring.pieces; each / ring.radius > widest(ring.radius, asked.seam))
    ring.radius = growingRoot([&](double r) { return r * widest(r, asked.seam) - each; }, least, each);
  const auto width = [&](int pieces) { return widthOf(asked, ring.radius, asked.edge / pieces / ring.radius); };
  if (width(kMostPieces) <= asked.clothWidth)
    while (ring.pieces < kMostPieces && width(ring.pieces) > asked.clothWidth) ++ring.pieces;
  ring.angle = asked.edge / ring.pieces / ring.radius;
  return ring;
}

}  // namespace armure
