// core/alter/recalculation.h
//
// From the shift table to the shifts of a pattern: which edge each column belongs to.
//
//   e0     the centre front, on every level
//   x, y   the front and the back side
//   rest   the seams of the back, and those of the front beyond the bust point: shared out by the bounded least squares
//          of distribute/distribution.h, the same to both edges of a seam; darts are left as they are
//   side length   along the side seam, from its upper end to the waist
//   cup radii     the cup line, square to it: in, down and out; up along the seam through the cup
#pragma once

#include "alter/shift_table.h"
#include "order/alteration.h"
#include "pattern/pattern.h"

namespace armure {

// Whether the pattern has lines that can take what would spoil the side.
bool takesRest(const Pattern& shell);

// Shares the rest of every row out over the pattern's further lines; `cap` is the most one of them may take or give on
// a level, mm. What is more stays with the back side, and is told in its working.
void shareRest(ShiftTable& table, const Pattern& shell, double cap);

// The shifts of the table, rest and all, on this pattern.
Alteration recalculationOf(const ShiftTable& table, const Pattern& shell);

}  // namespace armure
