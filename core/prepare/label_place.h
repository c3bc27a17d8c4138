// core/prepare/label_place.h
//
// Where a block of text finds room inside a piece, clear of what is drawn on it: upright or along the piece, smaller
// only where it must.
#pragma once

#include <vector>

#include "geometry/polygon.h"
#include "geometry/vec.h"

namespace armure {

struct LabelPlace {
  Vec2 middle;
  double scale = 1;
  bool turned = false;  // a quarter turn: along a piece that is too narrow
};

// The lines a label had better not lie on, open ones; on those of `light` rather than on those of `heavy`.
struct LinesAcross {
  std::vector<Polyline> heavy, light;
};

// `outline` and the lines as they lie on the sheet; the block is `width` by `height` mm at scale 1. The largest scale
// at which it lies inside and clear of heavy lines is taken, upright before turned, and of its places the one that
// crosses fewest light lines and is nearest to the middle. Where none is clear, the largest that lies inside; where
// nothing fits, the middle of the outline at the smallest scale.
LabelPlace labelPlace(const Polyline& outline, const LinesAcross& drawn, double width, double height);

}  // namespace armure
