// core/layers/layer.h
//
// A layer of the garment that lies on the shell, before it is added to it: its pieces with the seams between them, and
// which of its lines lie on which of the shell's.
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

struct Layer {
  std::string id;
  Pattern pattern;               // pieces and seams; nothing else
  std::vector<LayerLine> lines;  // `layer` counts the pieces of this layer, `shell` those of the shell
};

// Adds the layer behind all pieces of the garment, to the right of them. The garment's pieces keep their places.
void addLayer(Pattern& garment, Layer layer);

// The smallest change of the layer's pieces that makes every one of its lines as long as the shell's it lies on, and
// its own seams fit: the problem of balance/problem.h with lengths given instead of girths; the lines it does not share
// with the shell give way too. A layer that cannot be fitted stays as it is, and the sheet says by how much it differs.
void fitLayer(const Pattern& shell, Layer& layer);

// Only the shell: without pieces of other layers, their seams and lines.
Pattern shellOf(const Pattern& garment);

}  // namespace armure
