// core/parts/edges/handles.h
//
// Where neck, shoulders, top edge, back edge and hem are taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

void addCoverHandles(Handles& handles);
void addEdgeHandles(Handles& handles);

}  // namespace armure
