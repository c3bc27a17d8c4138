// core/tracing/seam_tracer.h
//
// Named edges joined to a seam: which way its sides are walked, and whether they can be one seam at all.
#pragma once

#include "pattern/pattern.h"
#include "result.h"
#include "tracing/naming.h"

namespace armure {

// Of the pattern's pieces, which lie upright. Fails where a piece or an edge is not there or not sewn, edges of a side
// do not follow each other, or the sides differ by more than kMostUneven.
Result<Seam> tracedSeam(const Pattern& pattern, const NamedSeam& names);

}  // namespace armure
