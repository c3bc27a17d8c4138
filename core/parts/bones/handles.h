// core/parts/bones/handles.h
//
// Where bones the maker placed by hand are taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

// At the stage Prepare, one for every bone of the maker's own: across the piece, at the waist or the middle of it.
void addBoneHandles(Handles& handles);

}  // namespace armure
