#include "parts/yoke/handles.h"

#include "parts/yoke/rules.h"

namespace armure {

void addYokeHandles(Handles& h) {
  if (h.rules().option(key::kYokeFront) != YokeKind::None)
    h.add(key::kYokeArmhole, h.places().end("yoke-front", EdgeRole::Armhole, false), way::kUp);
  if (h.rules().option(key::kYokeBack) != YokeKind::None)
    h.add(h.rules().isDefault(key::kYokeArmholeBack) ? key::kYokeArmhole : key::kYokeArmholeBack,
          h.places().end("yoke-back", EdgeRole::Armhole, true), way::kUp);
  h.add(key::kYokeBelowFront, h.places().end("yoke-front", EdgeRole::Armhole, false), way::kDown);
  h.add(key::kYokeBelowBack, h.places().end("yoke-back", EdgeRole::Armhole, true), way::kDown);
  const bool behind = h.rules().option(key::kKeyholeKind) == KeyholeKind::Back;
  const std::span<const std::string_view> upper =
      behind ? std::span<const std::string_view>(kUpperBacks) : kUpperFronts;
  h.add(key::kKeyholeWidth, h.places().onAny(upper, "keyhole", 0.5), behind ? way::kIn : way::kOut);
  h.add(key::kKeyholeFrom, h.places().onAny(upper, "keyhole", behind ? 0 : 1), way::kDown);
}

}  // namespace armure
