// core/operations/sew.h
//
// Sewing two lines of edges together that may be divided differently: a shoulder, a yoke's lower edge on the pieces
// below it, a band on an upper edge.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// An edge of one piece, as the line walks it.
struct SewnEdge {
  size_t piece = 0;
  EdgeUse use;
};

// Of all its edges, mm. Throws std::out_of_range for an edge the pattern lacks.
double lengthOfLine(const Pattern& pattern, const std::vector<SewnEdge>& line);

// Sews line a to line b, both walked the same way from ends that belong together. Where one falls into more edges than
// the other, the longer edge is divided in proportion, so that each edge is sewn once. The seams are called `id`,
// `id`-2, ...; consecutive ones between the same two pieces become one. Throws std::invalid_argument for an empty line.
void sewLines(Pattern& pattern, std::vector<SewnEdge> a, std::vector<SewnEdge> b, const std::string& id,
              const Message& name, SeamKind kind = SeamKind::Plain);

// The line an edge runs on in, clockwise across the closed seams at its end, as long as the edges there have its role:
// a whole upper edge from piece to piece. It ends before the seam `stop` is crossed, and where it comes back to itself.
std::vector<SewnEdge> lineFrom(const Pattern& pattern, const SewnEdge& first, std::string_view stop);

}  // namespace armure
