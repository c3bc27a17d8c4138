#include "rules/presets.h"

#include <algorithm>
#include <array>

namespace armure {
namespace {

constexpr std::array<PresetChoice, 1> kGridEqual{{{"share.rule", "equal"}}};
constexpr std::array<PresetChoice, 4> kGridOld{{{"chest.school", "bust-sixth"},
                                                {"shoulder.slope_front", "1.5 in"},
                                                {"share.rule", "front-plus"},
                                                {"intake.waist", "1 in"}}};

constexpr std::array<PresetChoice, 3> kPlainQuarters{
    {{"share.rule", "equal"}, {"chest.quarter", "bust"}, {"side.school", "as-in-front"}}};

constexpr std::array<Preset, 4> kSchools{{
    {"quarter-grid",
     "Quarter grid, breast in front",
     "the back keeps a quarter of the upper bust; for every figure, above all a full bust",
     {}},
    {"quarter-grid-equal", "Quarter grid, equal quarters", "front and back alike on every level; for a small bust",
     kGridEqual},
    {"quarter-grid-sixth", "Quarter grid by the sixth",
     "chest line by a sixth of the bust, front half an inch more; the older way", kGridOld},
    {"plain-quarters", "Plain quarters",
     "a quarter of every girth in front and behind, of the bust on the chest line too, the back as high as the front; "
     "where upper bust and side were not taken",
     kPlainQuarters},
}};

constexpr std::array<PresetChoice, 1> kBustierKind{{{"layer.lining", "all"}}};
constexpr std::array<PresetChoice, 4> kShapingKind{
    {{"reduction.waist", "1.5 in"}, {"spring.high_hip", "0.5 in"}, {"layer.strength", "all"}, {"layer.lining", "all"}}};
constexpr std::array<PresetChoice, 6> kReducingKind{{{"layer.strength", "all"},
                                                     {"layer.lining", "all"},
                                                     {"reduction.waist", "3 in"},
                                                     {"reduction.underbust", "0.5 in"},
                                                     {"spring.high_hip", "1 in"},
                                                     {"spring.hip", "0.5 in"}}};

constexpr std::array<Preset, 3> kGarmentKinds{{
    {"bustier", "Bustier", "follows the body, nothing is reduced", kBustierKind},
    {"shaping", "Shaping bodice", "everyday shaping: 0 to 2 in off the waist", kShapingKind},
    {"reducing", "Reducing corset", "2 to 4 in off the waist, ribs firm, spring at the hips", kReducingKind},
}};

const Preset* find(std::span<const Preset> table, std::string_view id) {
  const auto row = std::find_if(table.begin(), table.end(), [&](const Preset& p) { return p.id == id; });
  return row == table.end() ? nullptr : &*row;
}

}  // namespace

std::span<const Preset> schoolTable() { return kSchools; }
std::span<const Preset> kindTable() { return kGarmentKinds; }
const Preset* findKind(std::string_view id) { return find(kGarmentKinds, id); }
const Preset* findStyle(std::string_view id) { return find(styleTable(), id); }
const Preset* findSchool(std::string_view id) { return find(kSchools, id); }

}  // namespace armure
