// core/rules/rule_options.h
//
// The options of every choice of the draft: id, what it is called, and one line on when to use which. The rules they
// belong to are in rule_table.cpp; nobody else needs this header.
#pragma once

#include <array>

#include "rules/paper_table.h"
#include "rules/rule_table.h"

namespace armure {

inline constexpr std::array<RuleOption, 3> kChestSchools{{
    {"above-bust", "from the bust point",
     "bust point less a fixed amount: always clear of the bust line; usual without a measured chest line"},
    {"bust-sixth", "by a sixth of the bust",
     "slope + a sixth of the bust + a fixed amount: the old rule; low on a full bust"},
    {"armhole-half", "half the armhole", "when the armhole was measured"},
}};
inline constexpr std::array<RuleOption, 4> kShares{{
    {"breast-in-front", "breast in front",
     "the back keeps a quarter of the upper bust, the bust's surplus belongs to the front; keeps the side seam at the "
     "side"},
    {"equal", "equal quarters", "a quarter to the front, a quarter to the back, on every level"},
    {"front-plus", "front a little more",
     "front quarter plus, back quarter minus the same amount: the side seam sits a little back"},
    {"front-arcs", "measured front arcs",
     "half the measured front arc to the front; where there is no arc, equal quarters"},
}};
inline constexpr std::array<RuleOption, 4> kLineCounts{{
    {"1", "one", "six to eight pieces in all"},
    {"2", "two", "a corset: the intake of the waist spreads over more seams"},
    {"3", "three", "a reducing corset"},
    {"4", "four", "a reducing corset for a large drop"},
}};
inline constexpr std::array<RuleOption, 2> kSpacings{{
    {"even", "evenly to the side", "what lies between the first line and the side is divided"},
    {"half-span", "half a span apart", "each line half the bust span further; evenly where that does not fit"},
}};
inline constexpr std::array<RuleOption, 6> kDistributions{{
    {"thumb", "rule of thumb", "every line by its own rule below; the side takes what is left"},
    {"even", "evenly", "every line and the side take the same"},
    {"side-weighted", "most at the side", "the further from the centre, the more"},
    {"flat-front", "flat front", "little at the first front line, most at the side"},
    {"quarter-minus", "off each quarter",
     "every quarter of the waist loses the same, spread over its lines and the side; what the figure itself asks goes "
     "by "
     "the rules of thumb"},
    {"middle-piece", "middle piece first",
     "the centre front is drawn first and the side front mirrors its curve; the side follows from the girths"},
}};
inline constexpr std::array<RuleOption, 3> kKinds{{
    {"bustier", "bustier", "follows the body, nothing is reduced"},
    {"shaping", "shaping bodice", "everyday shaping: a little off the waist, a little spring at the high hip"},
    {"reducing", "reducing corset", "several inches off the waist; ribs firm, spring at the hips"},
}};
inline constexpr std::array<RuleOption, 2> kShareRules{{
    {"rule", "by rule", "the smaller part to the centre front, as set below"},
    {"balance", "as balances best", "the part that leaves both edges of the line most nearly equal in every stretch"},
}};
inline constexpr std::array<RuleOption, 3> kLineEnds{{
    {"top", "straight up", "the line ends at the top edge, above the bust point"},
    {"armhole", "to the armhole", "towards the middle of the armhole"},
    {"shoulder", "to the shoulder", "towards the middle of the shoulder"},
}};
inline constexpr std::array<RuleOption, 4> kTops{{
    {"straight", "straight", "level across the front, easing down to the side"},
    {"sweetheart", "sweetheart", "dips at the centre front, rises over the cups"},
    {"plunge-v", "plunge in a V", "open at the centre front to below the underbust, straight"},
    {"plunge-u", "plunge in a U", "open at the centre front to below the underbust, round at the bottom"},
}};
inline constexpr std::array<RuleOption, 4> kBacks{{
    {"slope", "slope", "straight down from the side to the centre back"},
    {"straight", "straight", "level with the side"},
    {"scoop", "scooped", "falls soon behind the side, level at the centre back"},
    {"v", "in a V", "straight to a point at the centre back"},
}};
inline constexpr std::array<RuleOption, 3> kStraps{{
    {"none", "none", "the edge holds by itself"},
    {"straight", "straight", "cut twice as wide and folded lengthwise"},
    {"shaped", "shaped", "wide in front, narrowing over the shoulder; cut double"},
}};
inline constexpr std::array<RuleOption, 5> kCovers{{
    {"strapless", "strapless", "the edge holds by itself, or by straps sewn on"},
    {"straps", "rising to straps", "the upper edge rises in a curve to a strap cut on, over the shoulder to the back"},
    {"halter", "halter", "rises to a strap round the neck; the back stays bare"},
    {"covered", "covered shoulders", "neck, shoulder and armhole cut on, or set on as yokes"},
    {"off-shoulder", "off the shoulder", "a band round both arms, sewn to the upper edge"},
}};
inline constexpr std::array<RuleOption, 3> kNecks{{
    {"round", "round", "a quarter of an ellipse"},
    {"v", "in a V", "straight from the shoulder to the centre"},
    {"square", "square", "level, then straight up to the shoulder"},
}};
inline constexpr std::array<RuleOption, 3> kYokes{{
    {"none", "none", "cut in one with the panels"},
    {"cloth", "of cloth", "cut apart along the upper edge, its halves joined"},
    {"net", "of net", "sheer, over the skin; it should not carry a heavy sleeve"},
}};
inline constexpr std::array<RuleOption, 3> kKeyholes{{
    {"none", "none", "the centre edge runs through"},
    {"back", "at the back", "closed with a button at the neck"},
    {"front", "at the front", "open at the centre front"},
}};
inline constexpr std::array<RuleOption, 4> kInserts{{
    {"none", "none", "cloth throughout"},
    {"centre", "at the centre front", "a strip beside the centre front, from the upper edge to the hem"},
    {"shoulder", "at the shoulder", "the outer part of a covered shoulder"},
    {"both", "at both", "at the centre front and at the shoulder"},
}};
inline constexpr std::array<RuleOption, 5> kSkirts{{
    {"none", "none", "ends at the hem"},
    {"flare", "flared hem", "every panel swung out from the waist to the hem"},
    {"straight", "straight skirt", "the panels run on from the hip, upright"},
    {"peg", "pegged skirt", "runs on from the hip, in at the knee on the side seams"},
    {"gored", "flared skirt", "every panel swung out from the waist, as in a skirt of six panels"},
}};
inline constexpr std::array<RuleOption, 2> kSkirtEnds{{
    {"knee", "the knee", "to the middle of the knee"},
    {"floor", "the floor", "to the floor, in the shoes she will wear"},
}};
inline constexpr std::array<RuleOption, 3> kWaistSeams{{
    {"none", "none", "the panels run through"},
    {"level", "level", "cut apart and sewn again at the waist"},
    {"pointed", "in a point", "below the waist at the centre front, rising to the waist at the side"},
}};
inline constexpr std::array<RuleOption, 3> kHems{{
    {"straight", "straight", "level all round"},
    {"raised", "raised at the side", "curved up at the side seam, the same on front and back"},
    {"dipped", "dipped to a point", "to a point below at the centre front, up at the side"},
}};
inline constexpr std::array<RuleOption, 2> kBelow{{
    {"upright", "upright", "as far from the centre on every level as at the bust"},
    {"tapered", "narrowing", "the centre panels narrow with the waist as the others do; for many lines"},
}};
inline constexpr std::array<RuleOption, 6> kBackOpenings{{
    {"zip", "zip", "closed edge to edge; the centre back is taken in at the waist so that the zip does not stand off"},
    {"lacing", "lacing", "a straight gap, part of the finished girth"},
    {"v-lacing", "lacing in a V", "a gap of one width at the top and another at the hem"},
    {"loops", "loops", "laced through loops sewn into the edge; a straight gap"},
    {"seam", "sewn closed", "a centre back seam; the opening is in front"},
    {"fold", "on the fold", "no seam; the opening is in front"},
}};
inline constexpr std::array<RuleOption, 5> kOpeningEnds{{
    {"by-length", "by the length", "at the hem; over a skirt at the hip, which one gets into it through"},
    {"hem", "at the hem", "open all the way down"},
    {"hip", "at the hip", "the seam below is sewn"},
    {"high-hip", "at the high hip", "the seam below is sewn"},
    {"waist", "at the waist", "the seam below is sewn; for a skirt that is wide enough to step into"},
}};
inline constexpr std::array<RuleOption, 8> kFrontOpenings{{
    {"fold", "on the fold", "no seam at the centre front"},
    {"seam", "sewn closed", "a centre front seam, which can take in a little at the waist"},
    {"busk", "busk", "two stiff straight strips with studs and loops: the edge stays straight"},
    {"hooks", "hook tape", "hooks and eyes on a tape; straight and stiffened"},
    {"zip", "zip", "closed edge to edge"},
    {"lacing", "lacing", "a straight gap, part of the finished girth"},
    {"v-lacing", "lacing in a V", "a gap of one width at the top and another at the hem"},
    {"loops", "loops", "laced through loops sewn into the edge; a straight gap"},
}};
inline constexpr std::array<RuleOption, 7> kCups{{
    {"princess", "in the seam", "the shaped princess line alone, rounded at the bust point"},
    {"two", "cut, two pieces", "inner and outer cup, joined by the princess seam, set into a frame"},
    {"three", "cut, three pieces", "an upper band in one piece over an inner and an outer cup"},
    {"cross", "cut, cross seam", "an upper and a lower cup, joined by a seam across the bust point"},
    {"four", "cut, four pieces", "both seams: for the fullest bust, every line of it can be fitted"},
    {"gathered", "gathered",
     "an upper band over one lower piece, slashed, spread and gathered into the band and the frame"},
    {"moulded", "over a ready-made cup", "cloth on the bias over a moulded cup, what is too much taken up in a dart"},
}};
inline constexpr std::array<RuleOption, 2> kSpreads{{
    {"straight", "straight", "strips moved apart: as full above as below"},
    {"fanned", "fanned", "strips turned about their upper ends: full below only"},
}};
inline constexpr std::array<RuleOption, 3> kGathersTo{{
    {"whole", "the whole edge", "gathered all along the lower cup"},
    {"middle", "its middle half", "flat at both ends, full under the bust point"},
    {"centre", "towards the centre", "the half beside the bridge"},
}};
inline constexpr std::array<RuleOption, 4> kPads{{
    {"none", "none", "the cloth alone"},
    {"pad", "a pad", "the cup from underbust to top edge, edge to edge, no allowance"},
    {"lining", "a cup lining", "the same shape with allowances"},
    {"both", "pad and lining", "the pad lies between cloth and lining"},
}};
inline constexpr std::array<RuleOption, 2> kFrames{{
    {"seams", "with its panel seams", "the princess seam runs up to the cup line"},
    {"one-piece", "in one piece",
     "the underbust intake is closed: the princess line takes as much on every level below"},
}};
inline constexpr std::array<RuleOption, 2> kModesty{{
    {"none", "none", "where the gap may show"},
    {"panel", "a modesty panel", "as wide as the gap and the overlap"},
}};
inline constexpr std::array<RuleOption, 2> kKeep{{
    {"drafted", "as drafted", "seams are measured and shown, nothing is moved"},
    {"balanced", "balanced", "every stretch fits and every girth is right, with the smallest movement of the edges"},
}};
inline constexpr auto kPapers = [] {
  std::array<RuleOption, kPaperTable.size()> options{};
  for (size_t i = 0; i < options.size(); ++i)
    options[i] = {kPaperTable[i].id, kPaperTable[i].label, kPaperTable[i].note};
  return options;
}();

}  // namespace armure
