#include "rules/rule_table.h"

#include <algorithm>
#include <array>

#include "units/length.h"

namespace armure {
namespace {

using enum RuleKind;

constexpr std::array<RuleOption, 3> kChestSchools{{
    {"above-bust", "from the bust point",
     "bust point less a fixed amount: always clear of the bust line; usual without a measured chest line"},
    {"bust-sixth", "by a sixth of the bust",
     "slope + a sixth of the bust + a fixed amount: the old rule; low on a full bust"},
    {"armhole-half", "half the armhole", "when the armhole was measured"},
}};
constexpr std::array<RuleOption, 4> kShares{{
    {"breast-in-front", "breast in front",
     "the back keeps a quarter of the upper bust, the bust's surplus belongs to the front; keeps the side seam at the "
     "side"},
    {"equal", "equal quarters", "a quarter to the front, a quarter to the back, on every level"},
    {"front-plus", "front a little more",
     "front quarter plus, back quarter minus the same amount: the side seam sits a little back"},
    {"front-arcs", "measured front arcs",
     "half the measured front arc to the front; where there is no arc, equal quarters"},
}};
constexpr std::array<RuleOption, 4> kLineCounts{{
    {"1", "one", "six to eight pieces in all"},
    {"2", "two", "a corset: the intake of the waist spreads over more seams"},
    {"3", "three", "a reducing corset"},
    {"4", "four", "a reducing corset for a large drop"},
}};
constexpr std::array<RuleOption, 2> kSpacings{{
    {"even", "evenly to the side", "what lies between the first line and the side is divided"},
    {"half-span", "half a span apart", "each line half the bust span further; evenly where that does not fit"},
}};
constexpr std::array<RuleOption, 4> kDistributions{{
    {"thumb", "rule of thumb", "every line by its own rule below; the side takes what is left"},
    {"even", "evenly", "every line and the side take the same"},
    {"side-weighted", "most at the side", "the further from the centre, the more"},
    {"flat-front", "flat front", "little at the first front line, most at the side"},
}};
constexpr std::array<RuleOption, 2> kTops{{
    {"straight", "straight", "level across the front, easing down to the side"},
    {"sweetheart", "sweetheart", "dips at the centre front, rises over the cups"},
}};
constexpr std::array<RuleOption, 2> kHems{{
    {"straight", "straight", "level all round"},
    {"raised", "raised at the side", "curved up at the side seam, the same on front and back"},
}};
constexpr std::array<RuleOption, 2> kOpenings{{
    {"zip", "zip", "closed edge to edge; the centre back is taken in at the waist so that the zip does not stand off"},
    {"lacing", "lacing", "a straight gap, part of the finished girth"},
}};
constexpr std::array<RuleOption, 3> kPapers{{
    {"full", "one sheet, full size", "for a plotter or a copy shop"},
    {"a4", "A4 sheets", "tiled, 210 x 297 mm (ISO 216)"},
    {"letter", "Letter sheets", "tiled, 8 1/2 x 11 in"},
}};

constexpr RuleInfo length(std::string_view key, std::string_view stage, std::string_view group, std::string_view label,
                          double small, double medium, double full, double lowest, double highest,
                          std::string_view reason) {
  return {key,          stage,          group,           label, Length, inches(small), inches(medium),
          inches(full), inches(lowest), inches(highest), reason};
}
constexpr RuleInfo length(std::string_view key, std::string_view stage, std::string_view group, std::string_view label,
                          double value, double lowest, double highest, std::string_view reason) {
  return length(key, stage, group, label, value, value, value, lowest, highest, reason);
}
constexpr RuleInfo measured(RuleInfo rule) {
  rule.fromMeasures = true;
  return rule;
}
constexpr RuleInfo onlyWhen(std::string_view key, std::string_view option, RuleInfo rule) {
  rule.onlyWhenKey = key;
  rule.onlyWhenOption = option;
  return rule;
}
constexpr RuleInfo share(std::string_view key, std::string_view stage, std::string_view group, std::string_view label,
                         double value, std::string_view reason) {
  return {key, stage, group, label, Share, value, value, value, 0, 1, reason};
}
constexpr RuleInfo option(std::string_view key, std::string_view stage, std::string_view group, std::string_view label,
                          std::span<const RuleOption> options, std::string_view reason) {
  return {key, stage, group, label, Option, 0, 0, 0, 0, static_cast<double>(options.size() - 1), reason, options};
}

// Lengths in inches, as makers think of them.
constexpr std::array kRules{
    // the grid
    option("chest.school", "Block", "Grid", "Chest line", kChestSchools, "not used when the chest line was measured"),
    onlyWhen(
        "chest.school", "above-bust",
        length("chest.above_bust", "Block", "Grid", "Chest line above bust", 2, 1, 4, "bust point height less this")),
    onlyWhen("chest.school", "bust-sixth",
             length("chest.addition", "Block", "Grid", "Chest line addition", 1.5, 0, 3,
                    "shoulder slope + bust / 6 + this")),
    length("shoulder.slope_front", "Block", "Grid", "Shoulder slope, front", 1, 0, 3,
           "1 in on both, or 1 1/2 in front and 1 in back"),
    length("shoulder.slope_back", "Block", "Grid", "Shoulder slope, back", 1, 0, 3, "1 in"),
    length("neck.width", "Block", "Grid", "Neck, half width", 3.25, 2, 5, "3 to 4 in, the same front and back"),
    length("neck.depth_front", "Block", "Grid", "Neck depth, front", 3.5, 1, 8, "3 to 4 1/2 in"),
    length("neck.depth_back", "Block", "Grid", "Neck depth, back", 1.25, 0.25, 6, "1 to 1 1/2 in"),
    length("armhole.inset_front", "Block", "Grid", "Armhole in, front", 0.5, 0, 2,
           "the middle of the armhole moved in: 1/2 or 3/4 in"),
    length("armhole.inset_back", "Block", "Grid", "Armhole in, back", 0, 0, 2, "nothing or 1/2 in"),
    // finished girths
    option("share.rule", "Block", "Girths", "Front and back share", kShares,
           "how each girth is divided between front and back"),
    onlyWhen("share.rule", "front-plus",
             length("share.front_plus", "Block", "Girths", "Front plus", 0.5, 0, 2,
                    "for the share \"front a little more\"")),
    length("ease.bust", "Block", "Girths", "Ease at the bust", 0, -2, 4, "nothing on a boned bodice"),
    length("hold.top", "Block", "Girths", "Top edge held in", 0.5, 0, 3,
           "a strapless edge closes to a little less than the upper bust"),
    length("reduction.underbust", "Block", "Girths", "Underbust reduction", 0, 0, 2,
           "bone does not yield: 0 to 1 in at the most"),
    length("reduction.waist", "Block", "Girths", "Waist reduction", 0, 0, 8,
           "natural waist less closed waist: 0 to 2 in for everyday shaping"),
    length("spring.high_hip", "Block", "Girths", "High-hip spring", 0, -1, 4,
           "0 to 2 in: what is pressed in at the waist goes somewhere"),
    // panel lines and intakes, both sides of a line together
    option("lines.front", "Block", "Panel lines", "Lines in each front half", kLineCounts,
           "the first runs through the bust point"),
    option("lines.back", "Block", "Panel lines", "Lines in each back half", kLineCounts,
           "the first stands at half the bust span"),
    option("lines.spacing", "Block", "Panel lines", "Further lines", kSpacings,
           "where the lines beyond the first stand"),
    option("distribution.school", "Block", "Panel lines", "What each line takes", kDistributions,
           "how the drop from bust to waist is shared out among the lines and the side"),
    length("intake.top", "Block", "Intakes", "Princess, top edge", 1.25, 1.75, 2.5, 0, 4,
           "against gaping: 1 to 2 1/2 in"),
    measured(length("intake.underbust", "Block", "Intakes", "Princess, underbust", 1.25, 1.75, 2.25, 0, 6,
                    "what is left when the quarter underbust is laid on the line; or a fixed amount, 1 to 2 1/2 in")),
    length("intake.waist", "Block", "Intakes", "Princess, waist", 1.25, 1.5, 2, 0, 4, "1 in, or as at the underbust"),
    length("intake.hem", "Block", "Intakes", "Princess, hem", 0.5, 0, 3, "1/2 to 2 in, or nothing with spring"),
    share("intake.centre_share", "Block", "Intakes", "Princess, part to the centre", 0.375,
          "the smaller part to the centre front: 3/4 of 2 in is 0.375"),
    onlyWhen("distribution.school", "thumb",
             length("intake.further", "Block", "Intakes", "Each further line, waist", 1, 0, 2.5,
                    "1 in, running out at bust and hem")),
    length("back.intake_waist", "Block", "Intakes", "Back line, waist", 1, 0, 3, "1 in, half to each side"),
    length("back.start", "Block", "Intakes", "Back line starts below chest", 1, 0, 4, "1 in below the chest line"),
    length("back.end", "Block", "Intakes", "Back line ends above hem", 1.5, 0, 4, "1 to 2 in above the hem"),
    onlyWhen("opening.kind", "zip",
             length("centre_back.waist", "Block", "Intakes", "Centre back in at waist (zip)", 0.5, 0, 1.5,
                    "so that a zip does not stand off")),
    length("cap.princess", "Block", "Intakes", "Most a princess line takes", 2.5, 0.5, 5,
           "beyond, the cup seam turns pointed"),
    length("cap.side", "Block", "Intakes", "Most the side takes in each half", 2, 0.5, 5,
           "for the schools that share out the drop"),
    length("cap.other", "Block", "Intakes", "Most another line takes", 1.5, 0.5, 4,
           "beyond, the cloth ripples and the bone twists"),
    // the bust
    length("bust.rounding", "Block", "Bust", "Bust point rounded over +/-", 0.75, 1, 1, 0.4, 1.25,
           "1/2 to 1 in above and below; more is rounder"),
    measured(length("dart.side", "Block", "Bust", "Side bust dart", 1, 1.5, 2, 0, 3.5,
                    "front waist length less back waist length; or 1, 1 1/2, 2 in by figure")),
    // style lines
    option("top.shape", "Lines", "Top edge", "Shape", kTops, "the upper edge of the front"),
    length("top.above_chest", "Lines", "Top edge", "Above the chest line", 1, -1, 2.5, "1 to 2 in for a covered bust"),
    length("top.side", "Lines", "Top edge", "At the side, above the chest line", 0, -1.5, 1.5,
           "at the chest line the arm moves freely"),
    onlyWhen("top.shape", "sweetheart",
             length("top.dip", "Lines", "Top edge", "Sweetheart dip", 1.25, 0.25, 3,
                    "how deep below the top edge at the centre front")),
    onlyWhen("top.shape", "sweetheart",
             length("top.rise", "Lines", "Top edge", "Sweetheart rise", 0.75, 0, 1.5, "1/2 to 1 in over the cups")),
    length("back.slope", "Lines", "Back edge", "Centre back below the chest line", 1, -1, 1.75,
           "the back edge slopes from the side to here"),
    option("hem.shape", "Lines", "Hem", "Shape", kHems, "the lower edge"),
    length("hem.length", "Lines", "Hem", "Below the waist", 4.5, 2.5, 12, "4 to 5 in on a corset top"),
    onlyWhen("hem.shape", "raised",
             length("hem.raise", "Lines", "Hem", "Raised at the side by", 1.5, 0.25, 3, "1 to 3 in")),
    option("opening.kind", "Lines", "Opening at the back", "Kind", kOpenings, "how the bodice is closed"),
    onlyWhen("opening.kind", "lacing",
             length("opening.gap", "Lines", "Opening at the back", "Lacing gap, both sides", 2, 0.5, 5,
                    "2 in; part of the finished girth")),
    // preparing to cut
    length("allowance.seam", "Prepare", "Allowances", "Panel seams", 0.5, 0, 2, "1/2 in"),
    length("allowance.side", "Prepare", "Allowances", "Side seams", 1, 0, 2.5, "1 to 2 1/2 in, to let out"),
    length("allowance.top", "Prepare", "Allowances", "Top edge", 0.5, 0, 2, "1/2 in"),
    length("allowance.hem", "Prepare", "Allowances", "Hem", 0.5, 0, 3, "1/2 in"),
    onlyWhen("opening.kind", "zip",
             length("allowance.zip", "Prepare", "Allowances", "Zip edge", 1.5, 0, 3, "1 to 2 in")),
    onlyWhen(
        "opening.kind", "lacing",
        length("allowance.lacing", "Prepare", "Allowances", "Lacing edge", 1, 0, 3, "1 in, for the eyelet facing")),
    option("paper.size", "Prepare", "Paper", "Paper", kPapers, "for print and PDF"),
};

}  // namespace

std::span<const RuleInfo> ruleTable() { return kRules; }

const RuleInfo* findRule(std::string_view key) {
  const auto row = std::find_if(kRules.begin(), kRules.end(), [&](const RuleInfo& r) { return r.key == key; });
  return row == kRules.end() ? nullptr : &*row;
}

}  // namespace armure
