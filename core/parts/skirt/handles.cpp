#include "parts/skirt/handles.h"

#include <algorithm>

#include "parts/skirt/rules.h"
#include "parts/skirt/skirt.h"

namespace armure {
namespace {

// Every swung edge at its lower corner; what is said of one stands beside the rule for all.
void addSwings(Handles& h) {
  const auto& workings = h.pattern().workings;
  const auto byRule =
      std::find_if(workings.begin(), workings.end(), [](const Working& w) { return w.key == kSwingWorking; });
  if (byRule == workings.end() || !h.isOf("Lines")) return;
  for (size_t i = 0; i < h.pattern().shellPieces(); ++i) {
    const Piece& p = h.pattern().pieces[i];
    for (size_t e = 0; e < p.edges.size(); ++e) {
      const auto place = swingKeyOf(p, e);
      if (!place) continue;
      const Path& path = p.edges[e].path;
      const bool runsDown = path.end().y > path.start().y;
      const Vec2 down = runsDown ? path.endTangent() : -path.startTangent();
      const Vec2 out = runsDown ? Vec2{down.y, -down.x} : Vec2{-down.y, down.x};
      h.addPlaced(place->text(), {i, runsDown ? path.end() : path.start()}, out,
                  h.rules().swing(place->level, place->line).value_or(byRule->result));
    }
  }
}

}  // namespace

void addSkirtHandles(Handles& h) {
  h.add(key::kWaistPoint, h.places().end("skirt-front-1", EdgeRole::Fold, false), way::kDown);
  const Vec2 swing = h.places().awayFromHemCorner();
  h.add(key::kSkirtFlare, h.places().hemCorner(), swing);
  h.add(key::kSkirtGore, h.places().hemCorner(), swing);
  h.add(key::kSkirtPeg, h.places().hemCorner(), -swing);
  addSwings(h);
}

}  // namespace armure
