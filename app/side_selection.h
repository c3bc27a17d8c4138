// app/side_selection.h
//
// What is selected, where left and right are not alike: the same piece, edge and seam in the whole garment and in the
// half that is looked at.
#pragma once

#include <utility>

#include "app/selection.h"
#include "recalc/recalc.h"

namespace armure {

// What is selected in the whole garment, in the half it belongs to; unchanged, and `side`, where it belongs to both.
std::pair<Selection, BodySide> inHalf(const Design& whole, Selection selection, BodySide side);

// And the other way round.
Selection inWhole(const Design& whole, Selection selection, BodySide side);

}  // namespace armure
