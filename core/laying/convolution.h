// core/laying/convolution.h
//
// The Minkowski sum of two outlines, P (+) Q = { p + q }, by their convolution: wherever one turns at a corner through
// the direction of a side of the other, that side is laid at the corner, backwards where the corner is hollow. These
// sides close to cycles; what they wind round is the sum. L. Guibas, L. Ramshaw, J. Stolfi, "A kinetic framework for
// computational geometry" (1983); R. Wein, "Exact and efficient construction of planar Minkowski sums using the
// convolution method" (2006).
#pragma once

#include <vector>

#include "geometry/polygon.h"

namespace armure {

// The cycles of the convolution. Both rings run the same way round and are simple.
std::vector<Polyline> convolution(const Polyline& p, const Polyline& q);

// The sum's outline, and its holes, mm; on a grid of 1e-5 mm. `grownBy` mm is added all round.
std::vector<Polyline> minkowskiSum(const Polyline& p, const Polyline& q, double grownBy = 0);

}  // namespace armure
