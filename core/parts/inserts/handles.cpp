#include "parts/inserts/handles.h"

#include "parts/inserts/rules.h"

namespace armure {

void addInsertHandles(Handles& h) {
  h.add(key::kInsertTop, h.places().on("insert-centre", "insert-centre", 0), way::kOut);
  h.add(key::kInsertPoint, h.places().on("insert-centre", "insert-centre", 1), way::kUp);
  h.add(key::kInsertHem, h.places().on("insert-centre", "insert-centre", 1), way::kOut);
  h.add(key::kInsertShoulderLong, h.places().seamEnd("insert-wedge"), way::kDown);
  h.add(key::kInsertShoulder, h.places().on("insert-shoulder-front", "insert-shoulder-front", 1), way::kIn);
}

}  // namespace armure
