// core/parts/cups/cut_cup.h
//
// Cut cups: the bust housed in pieces of its own, set into a frame along the cup line. Everything is done to the pieces
// as they were cut from the block, by dividing and joining (pieces/divide.h, pieces/join.h), so that what comes out are
// pieces and seams like any other.
//
// On a front that goes up over the shoulder without a yoke the line is closed: it begins and ends on the princess seam,
// at the height of the upper edge; neck, strap and armhole stay on the panels.
//
// The cup line, on the front with its side bust dart closed; r the length of the princess seam from the bust point to
// the underbust, k = 0.5523 the handle of a quarter circle (common practice for where it stands, no source):
//   from the top edge down, `bridge` beside the centre (wider above by `bridge wider`), to the bust line; cups that
//   touch have none: the line leaves the centre level, `rise` above the underbust
//   a quarter ellipse to the princess seam at the underbust, square to it on either side, so without a kink
//   much like a quarter ellipse out and up to the bust line, as wide as the inner cup, half the span or the rest of it,
//   + `outer extra`, measured from the edge of the side front half way between bust point and underbust, or by the
//   outer cup radius from the bust point; and on, half way between upright and the straight way, to the top edge,
//   `side` in from the side seam
#pragma once

#include <optional>

#include "draft/block.h"
#include "measure/estimate.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Whether the order has a cup of its own, cut or gathered, in a frame.
bool hasCutCup(const Rules& rules);

// Sets the cup in that the rules ask for; nothing for a cup in the princess seam. The pieces of the front then are the
// frame, and the cup's pieces come after those of the back. What was done stands in pattern.workings. Fails when the
// cup line does not find its place, naming the piece and the rule.
std::optional<Problem> setCutCup(Pattern& pattern, const Block& block, const Body& body, const Rules& rules);

}  // namespace armure
