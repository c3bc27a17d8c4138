// core/garment/sketch.h
//
// A small drawing of the garment as it is worn, from the front and from behind: outline, seams, cups, edges, opening.
// It is drawn from the block and its lines, not from a picture, so that every style shows what it would make on these
// measures.
//
// Each place of a half is put where it stands on a round body: c mm from the centre, of t mm to the side on that level,
// at x = w sin(pi/2 c / t), with w = 0.36 of the half girth there (a section half as deep again as wide; for the eye
// only).
#pragma once

#include <vector>

#include "draft/block.h"
#include "geometry/polygon.h"

namespace armure {

enum class SketchStroke {
  Outline,  // closed; the ground of the garment
  Edge,     // top edge and hem
  Seam,     // a centre seam and the edges of an opening too
  Lacing,   // one crossing lace
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

// The body has the measures garment.h's furtherMeasures() asks for.
GarmentSketch sketchOf(const Block& block, const Body& body, const Rules& rules);

}  // namespace armure
