// core/draft/front_half.h
//
// The front half of the block: the side bust dart, the princess line through the bust point, further lines through the
// dart, the side above and below it.
#pragma once

#include "draft/block.h"

namespace armure {

// Draws block.front, the dart and the side below it. block.levels are laid out; those read off get their front share.
void draftFrontHalf(const Body& body, const Rules& rules, Block& block);

}  // namespace armure
