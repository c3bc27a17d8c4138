// core/laying/nearest_place.h
//
// Where an outline goes that a hand lays down: the nearest place at which it lies over no other, and against its
// neighbour where it is nearly there.
//
//   if (const auto place = nearestPlace(table, item, {turn, wish}, layout.items)) layout.items[item] = *place;
#pragma once

#include <optional>

#include "laying/laying_table.h"

namespace armure {

// As near as half a millimetre of what is possible, in the turn of the wish. Where the wish is clear, what is no
// farther than `snap` mm to the side is lain against. Nothing where the strip is too narrow for it in this turn, or no
// place is found within half a metre.
std::optional<LaidItem> nearestPlace(const LayingTable& table, size_t item, const LaidItem& wish,
                                     const std::vector<LaidItem>& all, double snap = 6);

}  // namespace armure
