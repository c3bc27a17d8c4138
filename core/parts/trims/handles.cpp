#include "parts/trims/handles.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace armure {
namespace {

constexpr double kInside = 12;  // mm

}  // namespace

void addTrimHandles(Handles& handles) {
  if (!handles.isOf("Lines")) return;
  for (const TrimChoice& trim : handles.rules().trims()) {
    const Result<TrimStretch> stretch = stretchOf(handles.pattern(), trim);
    if (!stretch.ok()) continue;
    const GarmentLine& line = stretch->line;
    for (const bool atStart : {true, false}) {
      // A little within, where no other line ends.
      const double at = atStart ? stretch->from : stretch->to, inside = std::min(kInside, stretch->half() / 4);
      const double seen = atStart ? at + inside : at - inside;
      size_t k = 0;
      while (k + 1 < line.edges.size() && line.ends[k] < seen) ++k;
      const SewnEdge& e = line.edges[k];
      const Path& path = handles.pattern().pieces[e.piece].edge(e.use.edge).path;
      const double on = e.use.reversed ? line.ends[k] - seen : seen - (line.ends[k] - path.length());
      const Vec2 along = path.tangentAt(on);
      handles.addPlaced(trimPlaceKey(trim, atStart), {e.piece, path.pointAt(on)}, e.use.reversed ? -1 * along : along,
                        at);
    }
  }
}

std::string placeAlong(const GarmentLine& line, double at, double snap) {
  const auto nearest = std::ranges::min_element(line.marks, {}, [&](const LineMark& m) { return std::abs(m.at - at); });
  if (nearest != line.marks.end() && std::abs(nearest->at - at) <= snap) return nearest->id;
  const double on = std::clamp(at, 0.0, line.length()) + line.openedAt;
  return fmt::format("start + {:.1f} mm", on > line.length() ? on - line.length() : on);
}

std::string trimPlaceKey(const TrimChoice& trim, bool atStart) {
  return TrimKey{trim.kind(), trim.name(), atStart ? "from" : "to"}.text();
}

}  // namespace armure
