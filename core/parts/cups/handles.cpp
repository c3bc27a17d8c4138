#include "parts/cups/handles.h"

#include "parts/cups/dart_dial.h"
#include "parts/cups/rules.h"
#include "parts/edges/style_line.h"

namespace armure {

void addCupHandles(Handles& h) {
  const Places& at = h.places();
  h.add(key::kCupBridge, at.notch("cup-1", level::kBust), way::kOut);
  h.add(key::kCupBridge, at.notch("cup", level::kBust), way::kOut);
  if (!hasPlunge(h.rules())) h.add(key::kCupBridgeWider, at.on("front-1", "cup-1", 0), way::kOut);
  h.add(key::kCupRise, at.on("front-1", "cup-1", 0), way::kUp);
  h.add(key::kCupOuterExtra, at.notch("cup-2", level::kBust), way::kOut);
  for (const char* upper : {"cup-2-band", "cup-2-cross", "cup-2"})
    if (!h.has(key::kCupSide.text)) h.add(key::kCupSide, at.seamEnd(upper), way::kIn);
}

void addDialHandles(Handles& h) {
  const auto centre = dialCentre(h.pattern());
  if (!centre || !h.isOf("Cups")) return;
  for (const ShareKey key : {key::kDialSide, key::kDialEase, key::kDialCentre, key::kDialTop}) {
    if (!h.rules().counts(*findRule(key.text))) continue;
    const Vec2 way = dialDirection(key.text.substr(key.text.find('.') + 1));
    const double mm = h.rules().share(key) * kDialReach;
    h.addShare(key, {centre->piece, centre->at + (kDialHandle + mm) * way}, way, mm, 1 / kDialReach);
  }
}

}  // namespace armure
