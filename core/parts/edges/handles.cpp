#include "parts/edges/handles.h"

#include "parts/edges/rules.h"
#include "parts/yoke/rules.h"
#include "rules/draft_rules.h"

namespace armure {

void addCoverHandles(Handles& h) {
  constexpr std::array<std::string_view, 2> kStrapFronts{"front-2", "front-1"};
  const CoverKind cover = h.rules().option(key::kCoverKind);
  if (cover == CoverKind::Covered || cover == CoverKind::Halter) {
    // Chosen with the block, drawn with the lines.
    for (const char* stage : {"Block", "Lines"}) {
      h.addAt(stage, key::kNeckDepthFront, h.places().onAny(kUpperFronts, "neck", 0), way::kDown);
      h.addAt(stage, key::kNeckWidth, h.places().onAny(kUpperFronts, "neck", 1), way::kOut);
    }
    h.add(key::kNeckLowered, h.places().onAny(kUpperFronts, "shoulder", 0.5), way::kDown);
    h.add(key::kHalterWidth, h.places().onAny(kUpperFronts, "shoulder", 1), way::kOut);
  }
  h.add(key::kCoverStrapWidth, h.places().onAny(kStrapFronts, "shoulder", 0), way::kIn);
}

void addEdgeHandles(Handles& h) {
  const Places& at = h.places();
  const bool yokeFront = at.on("front-1", "yoke-front-1", 0).has_value();
  const bool yokeBack = at.end("back-1", EdgeRole::Yoke, false).has_value();
  const CoverKind cover = h.rules().option(key::kCoverKind);
  const bool goesUp = at.onAny(kUpperFronts, "neck", 0).has_value();
  if (!goesUp || yokeFront || cover == CoverKind::Straps) {
    const auto front = at.end("front-1", yokeFront ? EdgeRole::Yoke : EdgeRole::Top, true);
    h.add(key::kTopDip, front, way::kDown);
    h.add(key::kTopPlunge, front, way::kDown);
  }
  h.add(key::kTopPlungeBeside, at.joint("front-1"), way::kOut);
  h.add(key::kTopRise, at.crest(), way::kUp);
  h.add(key::kTopAboveChest, at.crest(), way::kUp);
  h.add(key::kTopAboveBust, at.crest(), way::kUp);
  h.add(key::kTopBelowShoulder, at.crest(), way::kDown);
  h.add(key::kTopSide, at.side(true), way::kUp);
  const BackShape back = h.rules().option(key::kBackShape);
  if (cover != CoverKind::Covered || yokeBack || back == BackShape::Scoop || back == BackShape::V)
    h.add(key::kBackSlope, at.end("back-1", yokeBack ? EdgeRole::Yoke : EdgeRole::Top, false), way::kDown);
  h.add(key::kHemBack, at.end("back-1", EdgeRole::Hem, true), way::kUp);
  h.add(key::kHemDip, at.end("front-1", EdgeRole::Hem, false), way::kDown);
  h.add(key::kHemLength, at.end("front-1", EdgeRole::Hem, false), way::kDown);
  h.add(key::kHemLength, at.end("back-1", EdgeRole::Hem, true), way::kDown);
  h.add(key::kHemAboveWaist, at.end("front-1", EdgeRole::Hem, false), way::kUp);
  h.add(key::kHemRaise, at.side(false), way::kUp);
}

}  // namespace armure
