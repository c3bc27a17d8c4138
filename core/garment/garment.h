// core/garment/garment.h
//
// From the block to all pieces of the garment, as drafted: the panels are cut, cups are set in, panels behind lacing
// and straps added, and every piece numbered.
#pragma once

#include "pieces/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Measures beyond those of every draft that what was chosen needs: for skirts, off-shoulder bands, halters.
std::vector<std::string_view> furtherMeasures(const Rules& rules);

// Fails with the first thing that keeps a piece from being drawn, naming it and what would be right.
Result<Pattern> makeGarment(const Block& block, const Body& body, const Rules& rules);

}  // namespace armure
