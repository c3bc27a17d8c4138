// core/alter/one_sided.h
//
// Corrections of one side of the body. A pattern stands for both halves; where an alteration is for one of them, each
// half is altered by itself, with what concerns it, and both are joined when they are made (operations/both_sides.h).
#pragma once

#include <span>
#include <vector>

#include "order/alteration.h"

namespace armure {

// Whether any that is on shifts one half only.
bool isOneSided(std::span<const Alteration> alterations);

// What they do to one half, as alterations of both: shifts of the other half are left out.
std::vector<Alteration> ofSide(std::span<const Alteration> alterations, BodySide side);

}  // namespace armure
