// core/tracing/level_names.h
//
// Levels of guessed pieces called alike where they meet across the seams, and by the body's names from the top down.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "tracing/outline_guess.h"

namespace armure {

// Seams by id, with the stretches they join.
using Joined = std::vector<std::pair<std::string, std::pair<TracedStretch, TracedStretch>>>;

// Names every level of the pieces. What a word in the drawing says stays; of the others those that go through most
// pieces are bust, underbust, waist and hips, as many as there are.
void nameLevels(TracingNames& names, const Joined& joined);

}  // namespace armure
