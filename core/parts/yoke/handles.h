// core/parts/yoke/handles.h
//
// Where yokes and keyholes are taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

void addYokeHandles(Handles& handles);

}  // namespace armure
