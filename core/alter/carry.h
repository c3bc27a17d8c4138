// core/alter/carry.h
//
// A correction of one garment on the next one of the same client, in another style: seam by seam where the same seam is
// there, else in the terms of the body: the seam through the bust point on the seam through the bust point, whatever it
// is called, the side on the side, the first line behind on that.
#pragma once

#include "order/alteration.h"
#include "pattern/pattern.h"

namespace armure {

// What was altered on `from`, as an alteration of `to`. Shifts that have no line there keep theirs and will be idle.
Alteration carriedTo(const Alteration& alteration, const Pattern& from, const Pattern& to);

}  // namespace armure
