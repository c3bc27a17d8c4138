// core/parts/yoke/yoke.h
//
// Yokes: the upper part of covered shoulders, cut apart from the panels below along the upper edge of the style
// (straight, sweetheart or plunging; the back edge behind), its parts joined into one piece. Nothing here is special to
// balancing: a yoke is pieces divided along a line and joined again (pieces/divide.h, pieces/join.h).
//
// The line runs from the centre over the lines of the half, where it stands as deep as a strapless edge would, to the
// armhole, `yoke.armhole` above the chest line; or level, at a height of its own. Where the front's upper edge stays
// open as far as over the cup (neck.shape=edge) the yoke is a part of a half: it begins beside the open edge. It
// crosses each line without a kink once that is closed.
#pragma once

#include <optional>

#include "draft/block.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Sets off the yokes the rules ask for; they come after all other pieces, on the outermost layer like the panels, since
// their width belongs to every girth they lie in. Fails when the line does not meet an edge it must meet.
std::optional<Problem> setYokes(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
