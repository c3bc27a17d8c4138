// core/pieces/sew.h
//
// Sewing two lines of edges together that may be divided differently: a shoulder, a yoke's lower edge on the pieces
// below it, a band on an upper edge.
#pragma once

#include <string>
#include <vector>

#include "pieces/pattern.h"

namespace armure {

// An edge of one piece, as the line walks it.
struct SewnEdge {
  size_t piece = 0;
  EdgeUse use;
};

// Sews line a to line b, both walked the same way from ends that belong together. Where one falls into more edges than
// the other, the longer edge is divided in proportion, so that each edge is sewn once. The seams are called `id`,
// `id`-2, ...; consecutive ones between the same two pieces become one. Throws std::invalid_argument for an empty line.
void sewLines(Pattern& pattern, std::vector<SewnEdge> a, std::vector<SewnEdge> b, const std::string& id,
              const std::string& name);

}  // namespace armure
