// core/draft/back_half.h
//
// The back half of the block: no wedge; its lines begin below the chest line.
#pragma once

#include "draft/block.h"

namespace armure {

// Draws block.back. block.levels are laid out; those read off get their back share.
void draftBackHalf(const Body& body, const Rules& rules, Block& block);

}  // namespace armure
