#include "parts/band/handles.h"

#include "parts/band/rules.h"

namespace armure {

void addBandHandles(Handles& h) { h.add(key::kOffDepth, h.places().on("shoulder-band", "front", 0), way::kDown); }

}  // namespace armure
