// core/parts/skirt/handles.h
//
// Where a skirt and a pointed waist are taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

void addSkirtHandles(Handles& handles);

}  // namespace armure
