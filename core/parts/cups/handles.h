// core/parts/cups/handles.h
//
// Where the cup line, the band and the dial about the bust point are taken hold of.
#pragma once

#include "pattern/handles.h"

namespace armure {

void addCupHandles(Handles& handles);
void addDialHandles(Handles& handles);

}  // namespace armure
