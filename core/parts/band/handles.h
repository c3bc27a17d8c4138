// core/parts/band/handles.h
//
// Where a band off the shoulders is taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

void addBandHandles(Handles& handles);

}  // namespace armure
