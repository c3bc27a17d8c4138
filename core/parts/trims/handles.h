// core/parts/trims/handles.h
//
// Where the two ends of what is sewn on are taken hold of, and the place a drag gives.
#pragma once

#include <string>

#include "parts/trims/lines.h"
#include "pattern/handles.h"

namespace armure {

// At the stage Lines, one at either end of every trim, along its line.
void addTrimHandles(Handles& handles);

// A place `at` mm along a trim's line as it is kept: a mark where one is within `snap` mm, else how far it is from the
// line's start: "side", "start + 120 mm".
std::string placeAlong(const GarmentLine& line, double at, double snap);

// The key of the place of an end.
std::string trimPlaceKey(const TrimChoice& trim, bool atStart);

}  // namespace armure
