// core/parts/inserts/handles.h
//
// Where sheer inserts are taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

void addInsertHandles(Handles& handles);

}  // namespace armure
