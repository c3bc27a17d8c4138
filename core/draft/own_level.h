// core/draft/own_level.h
//
// Levels of the maker's own, set between those of the draft: as far above the waist as she says, with the girth she
// gives or one read off a smooth curve down the body.
#pragma once

#include "draft/levels.h"
#include "result.h"
#include "rules/rules.h"
#include "working.h"

namespace armure {

// They stand at least this far from every other level, mm.
inline constexpr double kLeastFromOwn = 15;

struct MadeLevel {
  Level level;
  Working working;  // of its finished girth
};

// Fails where it does not stand between the underbust and the lower edge (depth, mm), or too near to another level.
Result<MadeLevel> makeOwnLevel(const Levels& levels, double lowerEdge, const OwnLevel& own);

}  // namespace armure
