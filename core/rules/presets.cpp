#include "rules/presets.h"

#include <algorithm>
#include <array>

namespace armure {
namespace {

constexpr std::array<PresetChoice, 2> kSweetheartZip{{{"top.shape", "sweetheart"}, {"opening.kind", "zip"}}};
constexpr std::array<PresetChoice, 2> kSweetheartLaced{{{"top.shape", "sweetheart"}, {"opening.kind", "lacing"}}};
constexpr std::array<PresetChoice, 2> kStraightZip{{{"top.shape", "straight"}, {"opening.kind", "zip"}}};
constexpr std::array<PresetChoice, 2> kStraightLaced{{{"top.shape", "straight"}, {"opening.kind", "lacing"}}};
constexpr std::array<PresetChoice, 4> kRaisedLaced{
    {{"top.shape", "sweetheart"}, {"opening.kind", "lacing"}, {"hem.shape", "raised"}, {"hem.length", "5 in"}}};

constexpr std::array<PresetChoice, 6> kTwoLines{{{"garment.kind", "shaping"},
                                                 {"top.shape", "straight"},
                                                 {"opening.kind", "lacing"},
                                                 {"lines.front", "2"},
                                                 {"lines.back", "2"},
                                                 {"distribution.school", "even"}}};
constexpr std::array<PresetChoice, 8> kThreeLines{{{"garment.kind", "reducing"},
                                                   {"top.shape", "sweetheart"},
                                                   {"opening.kind", "lacing"},
                                                   {"lines.front", "3"},
                                                   {"lines.below", "tapered"},
                                                   {"lines.back", "2"},
                                                   {"distribution.school", "side-weighted"},
                                                   {"hem.length", "5 in"}}};
constexpr std::array<PresetChoice, 10> kFourLines{{{"garment.kind", "reducing"},
                                                   {"top.shape", "straight"},
                                                   {"opening.kind", "lacing"},
                                                   {"opening.front", "busk"},
                                                   {"modesty.kind", "panel"},
                                                   {"lines.front", "4"},
                                                   {"lines.below", "tapered"},
                                                   {"lines.back", "4"},
                                                   {"distribution.school", "flat-front"},
                                                   {"hem.length", "5 in"}}};
constexpr std::array<PresetChoice, 6> kFrontLaced{{{"garment.kind", "shaping"},
                                                   {"top.shape", "straight"},
                                                   {"opening.kind", "seam"},
                                                   {"opening.front", "lacing"},
                                                   {"opening.gap", "1 in"},
                                                   {"modesty.kind", "panel"}}};
constexpr std::array<PresetChoice, 4> kMiddlePiece{{{"garment.kind", "bustier"},
                                                    {"top.shape", "straight"},
                                                    {"opening.kind", "loops"},
                                                    {"distribution.school", "middle-piece"}}};
constexpr std::array<PresetChoice, 8> kVLaced{{{"garment.kind", "reducing"},
                                               {"top.shape", "sweetheart"},
                                               {"opening.kind", "v-lacing"},
                                               {"opening.gap_top", "4 in"},
                                               {"opening.gap_hem", "2 in"},
                                               {"modesty.kind", "panel"},
                                               {"lines.front", "2"},
                                               {"distribution.school", "quarter-minus"}}};

constexpr std::array<Preset, 11> kStyles{{
    {"sweetheart-zip", "Sweetheart, zip", "strapless, sweetheart top, straight hem, zip at the back", kSweetheartZip},
    {"sweetheart-laced", "Sweetheart, laced", "strapless, sweetheart top, straight hem, laced at the back",
     kSweetheartLaced},
    {"straight-zip", "Straight, zip", "strapless, straight top, straight hem, zip at the back", kStraightZip},
    {"straight-laced", "Straight, laced", "strapless, straight top, straight hem, laced at the back", kStraightLaced},
    {"sweetheart-raised-laced", "Sweetheart, hem raised, laced",
     "strapless, sweetheart top, hem raised at the side, laced at the back", kRaisedLaced},
    {"shaping-two-lines", "Shaping bodice, two lines",
     "two lines in each half, taken in evenly, straight top, laced: everyday shaping", kTwoLines},
    {"reducing-three-lines", "Reducing corset, three lines",
     "three lines in front and two behind, most taken in at the side, sweetheart top, laced", kThreeLines},
    {"reducing-four-lines", "Reducing corset, four lines",
     "four lines in each half, flat front, busk, straight top, laced over a modesty panel: for a strong reduction",
     kFourLines},
    {"shaping-front-laced", "Shaping bodice, laced in front",
     "one line in each half, laced in front over a modesty panel, seam at the centre back", kFrontLaced},
    {"bustier-middle-piece", "Bustier, middle piece first",
     "the centre front drawn first and mirrored by the side front, closed with loops", kMiddlePiece},
    {"reducing-v-laced", "Reducing corset, laced in a V",
     "two lines in front, one behind, an inch off each quarter, laced in a V over a modesty panel", kVLaced},
}};

constexpr std::array<PresetChoice, 1> kGridEqual{{{"share.rule", "equal"}}};
constexpr std::array<PresetChoice, 4> kGridOld{{{"chest.school", "bust-sixth"},
                                                {"shoulder.slope_front", "1.5 in"},
                                                {"share.rule", "front-plus"},
                                                {"intake.waist", "1 in"}}};

constexpr std::array<Preset, 3> kSchools{{
    {"quarter-grid",
     "Quarter grid, breast in front",
     "the back keeps a quarter of the upper bust; for every figure, above all a full bust",
     {}},
    {"quarter-grid-equal", "Quarter grid, equal quarters", "front and back alike on every level; for a small bust",
     kGridEqual},
    {"quarter-grid-sixth", "Quarter grid by the sixth",
     "chest line by a sixth of the bust, front half an inch more; the older way", kGridOld},
}};

constexpr std::array<PresetChoice, 2> kShapingKind{{{"reduction.waist", "1.5 in"}, {"spring.high_hip", "0.5 in"}}};
constexpr std::array<PresetChoice, 4> kReducingKind{{{"reduction.waist", "3 in"},
                                                     {"reduction.underbust", "0.5 in"},
                                                     {"spring.high_hip", "1 in"},
                                                     {"spring.hip", "0.5 in"}}};

constexpr std::array<Preset, 3> kKinds{{
    {"bustier", "Bustier", "follows the body, nothing is reduced", {}},
    {"shaping", "Shaping bodice", "everyday shaping: 0 to 2 in off the waist", kShapingKind},
    {"reducing", "Reducing corset", "2 to 4 in off the waist, ribs firm, spring at the hips", kReducingKind},
}};

const Preset* find(std::span<const Preset> table, std::string_view id) {
  const auto row = std::find_if(table.begin(), table.end(), [&](const Preset& p) { return p.id == id; });
  return row == table.end() ? nullptr : &*row;
}

}  // namespace

std::span<const Preset> styleTable() { return kStyles; }
std::span<const Preset> schoolTable() { return kSchools; }
std::span<const Preset> kindTable() { return kKinds; }
const Preset* findKind(std::string_view id) { return find(kKinds, id); }
const Preset* findStyle(std::string_view id) { return find(kStyles, id); }
const Preset* findSchool(std::string_view id) { return find(kSchools, id); }

}  // namespace armure
