// core/rules/nearest.h
//
// What somebody may have meant who misspelt a word.
//
//   nearest("hem.lenght", {"hem.length", "hem.shape"})  ->  "hem.length"
#pragma once

#include <optional>
#include <string_view>
#include <vector>

namespace armure {

// How many letters have to be put in, left out, changed, or swapped with their neighbour to turn one word into the
// other (F. J. Damerau, "A technique for computer detection and correction of spelling errors", CACM 7 (1964), 171-176;
// the restricted form, in which no part is changed twice).
size_t editDistance(std::string_view a, std::string_view b);

// The word of the list that is nearest, the first of several; nothing where more than a third of the letters differ.
std::optional<std::string_view> nearest(std::string_view word, const std::vector<std::string_view>& words);

}  // namespace armure
