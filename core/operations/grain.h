// core/operations/grain.h
//
// Where the grain line of a piece is drawn when its outline has become another: along the grain it was cut with,
// through the widest part, so that the label finds room beside it.
#pragma once

#include "pattern/pattern.h"

namespace armure {

// Lays the grain line anew, in the direction it has. A piece too small for one keeps what it had.
void layGrain(Piece& piece);

}  // namespace armure
