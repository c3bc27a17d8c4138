#include "parts/skirt/handles.h"

#include "parts/skirt/rules.h"

namespace armure {

void addSkirtHandles(Handles& h) {
  h.add(key::kWaistPoint, h.places().end("skirt-front-1", EdgeRole::Fold, false), way::kDown);
  const Vec2 swing = h.places().awayFromHemCorner();
  h.add(key::kSkirtFlare, h.places().hemCorner(), swing);
  h.add(key::kSkirtGore, h.places().hemCorner(), swing);
  h.add(key::kSkirtPeg, h.places().hemCorner(), -swing);
}

}  // namespace armure
