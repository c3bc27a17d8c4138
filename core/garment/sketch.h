// core/garment/sketch.h
//
// A small drawing of the garment as it is worn, from the front and from behind: a projection of the finished pieces
// (worn.h), so that every garment that can be cut has one and it shows what is cut.
//
// Each place of a half is put where it stands on a round body: c mm from the centre, of t mm to the side at that
// height, at x = w sin(pi/2 c / t), with w = 0.36 of the half girth there (a section half as deep again as wide; for
// the eye only). Below the hip only half of what a skirt is wider counts: the rest falls in folds.
#pragma once

#include <vector>

#include "draft/block.h"
#include "geometry/polygon.h"
#include "pattern/pattern.h"

namespace armure {

enum class SketchStroke {
  Outline,  // closed; the ground of the garment
  Sheer,    // the same, of net
  Edge,     // edges that are finished, and the side
  Seam,     // a centre seam and the edges of an opening too
  Lacing,   // one crossing lace; a gather
};

struct SketchLine {
  SketchStroke stroke{};
  Polyline points;
};

// One view, both halves; x = 0 at the centre, y down from the shoulder line, mm.
struct Sketch {
  std::vector<SketchLine> lines;
};

struct GarmentSketch {
  Sketch front, back;
};

// How far both views reach: to either side of the centre, up and down, mm.
struct SketchExtent {
  double reach = 1, top = 0, bottom = 0;
};
SketchExtent extentOf(const GarmentSketch& sketch);

GarmentSketch sketchOf(const Pattern& pattern, const Block& block);

}  // namespace armure
