// core/tracing/rings.h
//
// The levels of a traced pattern: which of them make a ring round the body, and what the pieces measure on them.
#pragma once

#include "pattern/pattern.h"

namespace armure {

// Adds a level for every one marked on the pieces, from the top down, closed to what they measure with `opening` mm
// left open. A level is a ring where its line goes on, piece after piece, from the centre front to the centre back;
// what a plunge leaves open there is skin.
void addTracedLevels(Pattern& pattern, double opening);

}  // namespace armure
