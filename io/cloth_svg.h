// io/cloth_svg.h
//
// Layouts on cloth as one SVG at true size, one cloth below the other: the cloth with its fold, every copy's outline to
// cut with its grain, name and number. One group a cloth, in it one a copy, each with an id and a title.
#pragma once

#include <string>
#include <vector>

#include "prepare/cloth_laying.h"
#include "units/length.h"

namespace armure {

std::string clothSvg(const Pattern& pattern, const CutList& list, const std::vector<OnCloth>& cloths,
                     LengthFormat units);

}  // namespace armure
