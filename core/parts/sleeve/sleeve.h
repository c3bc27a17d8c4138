// core/parts/sleeve/sleeve.h
//
// A plain sleeve for the armhole as it is drafted. Its cap is two curves that meet level at the crown and leave the
// underarm level; its width at the underarm is the upper arm with its room. Of the height of the cap h and how the
// width is divided, wf in front and wb behind, it is found that
//
//   length of the front curve (wf, h) = front armhole + its part of the ease
//   length of the back curve (wb, h)  = back armhole + its part of the ease      wf + wb = the width
//
// so that front and back fit at once, to rounding. The ease is shared by length and lies between the notches, which
// stand as far from the side on the armhole as from the underarm on the cap. A flounce at its hem is a ring whose inner
// edge is that hem (parts/trims/ring.h). A cap a third as high as the armhole is
// long is usual; common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds the sleeve, a mirrored pair. Fails where the garment has no whole armhole, or the sleeve would be wider than the
// armhole is long.
std::optional<Problem> addSleeve(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules);

}  // namespace armure
