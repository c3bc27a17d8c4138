#include "rules/rule_table.h"

#include <algorithm>
#include <array>

#include "rules/rule_options.h"
#include "units/length.h"

namespace armure {
namespace {

using enum RuleKind;

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
constexpr RuleInfo onlyWhen(std::string_view keys, std::string_view options, RuleInfo rule) {
  rule.onlyWhenKeys = keys;
  rule.onlyWhenOptions = options;
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

constexpr std::string_view kCutCups = "two|three|cross|four|gathered|moulded";
constexpr std::string_view kOverShoulder = "straps|halter|covered";

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
    option("share.rule", "Block", "Share", "Front and back share", kShares,
           "how each girth is divided between front and back"),
    onlyWhen(
        "share.rule", "front-plus",
        length("share.front_plus", "Block", "Share", "Front plus", 0.5, 0, 2, "for the share \"front a little more\"")),
    option("garment.kind", "Shape", "Girths", "Kind of garment", kKinds, "sets the defaults of the girths below"),
    length("ease.bust", "Shape", "Girths", "Ease at the bust", 0, -2, 4, "nothing on a boned bodice"),
    length("hold.top", "Shape", "Girths", "Top edge held in", 0.5, 0, 3,
           "a strapless edge closes to a little less than the upper bust"),
    length("reduction.underbust", "Shape", "Girths", "Underbust reduction", 0, 0, 2,
           "bone does not yield: 0 to 1 in at the most"),
    onlyWhen("distribution.school", "thumb|even|side-weighted|flat-front|middle-piece",
             length("reduction.waist", "Shape", "Girths", "Waist reduction", 0, 0, 8,
                    "natural waist less closed waist: 0 to 2 in for everyday shaping, 2 to 4 in a reducing corset")),
    onlyWhen("distribution.school", "quarter-minus",
             length("reduction.quarter", "Shape", "Girths", "Off each quarter waist", 1, 0, 2,
                    "quarter waist less 1 in: 4 in all told")),
    length("spring.high_hip", "Shape", "Girths", "High-hip spring", 0, -1, 4,
           "0 to 2 in: what is pressed in at the waist goes somewhere"),
    length("spring.hip", "Shape", "Girths", "Hip spring", 0, -1, 4, "0 to 2 in, on a long garment"),
    // panel lines and intakes, both sides of a line together
    option("lines.front", "Shape", "Panel lines", "Lines in each front half", kLineCounts,
           "the first runs through the bust point"),
    option("lines.back", "Shape", "Panel lines", "Lines in each back half", kLineCounts,
           "the first stands at half the bust span"),
    option("lines.spacing", "Shape", "Panel lines", "Further lines", kSpacings,
           "where the lines beyond the first stand"),
    option("lines.below", "Shape", "Panel lines", "First lines, below the bust", kBelow,
           "half the span all the way, or in proportion to the level"),
    option("distribution.school", "Shape", "Panel lines", "What each line takes", kDistributions,
           "how the drop from bust to waist is shared out among the lines and the side"),
    option("princess.above", "Shape", "Panel lines", "Princess above the bust", kLineEnds,
           "where the first front line goes on a covered shoulder; a strapless top cuts it off"),
    onlyWhen("distribution.school", "middle-piece",
             length("middle.top", "Shape", "Intakes", "Middle piece less at the top", 0.5, 0.5, 1, 0, 2,
                    "1/2 in less than half the span, 1 in on a full bust")),
    onlyWhen("distribution.school", "middle-piece",
             length("middle.underbust", "Shape", "Intakes", "Middle piece less below", 1, 1, 1.5, 0, 2.5,
                    "from the underbust straight down: 1 in less than half the span, 1 1/2 in on a full bust")),
    onlyWhen("distribution.school", "thumb|even|side-weighted|flat-front|quarter-minus",
             length("intake.top", "Shape", "Intakes", "Princess, top edge", 1.25, 1.75, 2.5, 0, 4,
                    "against gaping: 1 to 2 1/2 in")),
    onlyWhen("distribution.school", "thumb|quarter-minus",
             measured(length(
                 "intake.underbust", "Shape", "Intakes", "Princess, underbust", 1.25, 1.75, 2.25, 0, 6,
                 "what is left when the quarter underbust is laid on the line; or a fixed amount, 1 to 2 1/2 in"))),
    onlyWhen("distribution.school", "thumb|quarter-minus",
             length("intake.waist", "Shape", "Intakes", "Princess, waist", 1.25, 1.5, 2, 0, 4,
                    "1 in, or as at the underbust")),
    onlyWhen(
        "distribution.school", "thumb|quarter-minus",
        length("intake.hem", "Shape", "Intakes", "Princess, hem", 0.5, 0, 3, "1/2 to 2 in, or nothing with spring")),
    onlyWhen("distribution.school", "thumb|even|side-weighted|flat-front|quarter-minus",
             option("intake.share", "Shape", "Intakes", "Princess, either side", kShareRules,
                    "how the intake is divided between centre front and side front")),
    onlyWhen("intake.share", "rule",
             share("intake.centre_share", "Shape", "Intakes", "Princess, part to the centre", 0.375,
                   "the smaller part to the centre front: 3/4 of 2 in is 0.375")),
    onlyWhen("distribution.school", "thumb|quarter-minus|middle-piece",
             length("intake.further", "Shape", "Intakes", "Each further line, waist", 1, 0, 2.5,
                    "1 in, running out at bust and hem")),
    onlyWhen("distribution.school", "thumb|quarter-minus|middle-piece",
             length("back.intake_waist", "Shape", "Intakes", "Back line, waist", 1, 0, 3, "1 in, half to each side")),
    length("back.start", "Shape", "Intakes", "Back line starts below chest", 1, 0, 4, "1 in below the chest line"),
    onlyWhen("distribution.school", "thumb|quarter-minus|middle-piece",
             length("back.end", "Shape", "Intakes", "Back line ends above hem", 1.5, 0, 4, "1 to 2 in above the hem")),
    onlyWhen("opening.kind", "zip|seam",
             length("centre_back.waist", "Shape", "Intakes", "Centre back in at waist", 0.5, 0, 1.5,
                    "1/2 in in each half, so that a zip does not stand off")),
    onlyWhen("opening.front", "zip|seam",
             length("centre_front.waist", "Shape", "Intakes", "Centre front in at waist", 0.25, 0, 1,
                    "0 to 1/2 in in each half")),
    length("cap.princess", "Shape", "Intakes", "Most a princess line takes", 2.5, 2.5, 3, 0.5, 5,
           "beyond, the cup seam turns pointed; on a full bust single sides reach 2 in"),
    onlyWhen("distribution.school", "even|side-weighted|flat-front",
             length("cap.side", "Shape", "Intakes", "Most the side takes in each half", 2, 0.5, 5,
                    "for the schools that share out the drop")),
    length("cap.other", "Shape", "Intakes", "Most another line takes", 1.5, 0.5, 4,
           "beyond, the cloth ripples and the bone twists"),
    // the bust
    length("bust.rounding", "Block", "Bust", "Bust point rounded over +/-", 0.75, 1, 1, 0.4, 1.25,
           "1/2 to 1 in above and below; more is rounder"),
    measured(length("dart.side", "Block", "Bust", "Side bust dart", 1, 1.5, 2, 0, 3.5,
                    "front waist length less back waist length; or 1, 1 1/2, 2 in by figure")),
    // cups
    option("cup.kind", "Cups", "Cup", "The bust is housed", kCups, "in the princess seam, or in pieces of its own"),
    onlyWhen("cup.kind", kCutCups,
             length("cup.bridge", "Cups", "Cup", "Bridge, from the centre", 0.375, 0.125, 1.5,
                    "the cup line stays 1/4 to 1/2 in from the centre front")),
    onlyWhen("cup.kind", kCutCups,
             length("cup.outer_extra", "Cups", "Cup", "Outer cup wider by", 0, 0, 0.5, 0, 1.5,
                    "beside the bust point, as wide as the inner one; 1/2 in more on a full bust")),
    onlyWhen("cup.kind", kCutCups,
             length("cup.side", "Cups", "Cup", "Ends in from the side", 1.5, 0.75, 4,
                    "1 1/2 in in from the armhole, on the top edge")),
    onlyWhen("cup.kind", "three|gathered",
             length("cup.band_side", "Cups", "Upper band", "Deep at the ends", 2, 0.75, 4, "2 in at centre and side")),
    onlyWhen("cup.kind", "three|gathered",
             length("cup.band_middle", "Cups", "Upper band", "Deep in the middle", 2.25, 0.75, 4, "2 to 2 1/2 in")),
    onlyWhen("cup.kind", "cross|four",
             length("cup.cross_centre", "Cups", "Cross seam", "Above the bust line, at the centre", 0.5, -0.5, 1.5,
                    "1/2 in above it at the centre")),
    onlyWhen("cup.kind", "cross|four",
             length("cup.cross_side", "Cups", "Cross seam", "Below the bust line, at the side", 0.5, -0.5, 1.5,
                    "1/2 in below it at the side")),
    onlyWhen("cup.kind", kCutCups, option("cup.frame", "Cups", "Frame", "The frame below", kFrames, "under the cup")),
    onlyWhen("cup.kind", "gathered",
             option("gather.spread", "Cups", "Gathers", "Strips", kSpreads, "how the slashed piece is spread")),
    onlyWhen("cup.kind", "gathered",
             option("gather.to", "Cups", "Gathers", "Gathered into", kGathersTo, "the stretch of the cup line")),
    onlyWhen("cup.kind", "gathered",
             length("gather.strip", "Cups", "Gathers", "Strips, wide", 1, 0.5, 3, "slashed into strips of about 1 in")),
    onlyWhen("cup.kind", "gathered",
             length("gather.gap", "Cups", "Gathers", "Spread apart by", 1, 1.5, 2, 0.25, 4,
                    "1 to 2 in, 1 1/2 usual; wider is fuller")),
    onlyWhen("cup.kind", "gathered",
             length("gather.dip", "Cups", "Gathers", "Dip at the top, towards the centre", 0.25, 0, 1,
                    "the spread piece's top may dip, so that the gathers fall inwards")),
    onlyWhen("cup.kind", "moulded",
             length("mould.offset", "Cups", "Moulded cup", "Chosen above the bust by", 3, 3.5, 4, 0, 6,
                    "sized by bust girth, 3 to 4 in above the client's")),
    onlyWhen("cup.kind", "moulded",
             length("mould.dart_wide", "Cups", "Moulded cup", "Dart pinched in it, wide", 1, 0, 1.5,
                    "1 in at its lower edge, to deepen it")),
    onlyWhen("cup.kind", "moulded",
             length("mould.dart_long", "Cups", "Moulded cup", "Dart pinched in it, long", 2.5, 1, 4, "2 1/2 in")),
    onlyWhen("cup.kind", "moulded",
             length("mould.tilt", "Cups", "Moulded cup", "Tilted up at the side by", 0.5, 0, 1.5,
                    "so that it covers; measured at its outer end")),
    option("cup.inside", "Cups", "Inside the cup", "Inside the cup", kPads, "traced from underbust to top edge"),
    // the turn about the bust point
    onlyWhen("cup.kind", "princess",
             share("dial.side", "Cups", "Dart dial", "Left as a dart at the side", 0,
                   "a part of the side bust dart, from 0 to 1; the rest goes below the bust")),
    onlyWhen("cup.kind", "princess",
             share("dial.ease", "Cups", "Dart dial", "Left as ease at the side", 0,
                   "not sewn: the front side is eased onto the back by as much")),
    onlyWhen("cup.kind", "princess",
             share("dial.centre", "Cups", "Dart dial", "Moved to the centre front", 0,
                   "a dart from the centre front; the centre front is sewn then")),
    onlyWhen("cup.kind", "princess",
             share("dial.top", "Cups", "Dart dial", "Laid above the bust", 0,
                   "the side front is cut with its upper part upright instead of its lower")),
    // style lines
    option("cover.kind", "Lines", "Shoulders", "Above the upper edge", kCovers, "how far up the bodice goes"),
    onlyWhen("cover.kind", kOverShoulder,
             length("cover.dart", "Lines", "Shoulders", "Taken in, up to the shoulder", 2, 0, 3,
                    "the princess line takes 2 in at the shoulder, less on the way; shoulder and armhole get it back")),
    onlyWhen(
        "cover.kind", "covered|halter",
        option("neck.shape", "Lines", "Shoulders", "Neckline", kNecks, "in front; behind it follows the back edge")),
    onlyWhen("cover.kind", "straps",
             length("cover.strap_width", "Lines", "Shoulders", "Strap, wide at the shoulder", 1.75, 0.75, 4,
                    "1 to 1 3/4 in")),
    onlyWhen("cover.kind", "straps",
             length("cover.strap_from", "Lines", "Shoulders", "Rises from, in from the armhole", 2.5, 1, 5,
                    "2 1/2 in in from the armhole on the upper edge")),
    onlyWhen("cover.kind", "halter",
             length("halter.width", "Lines", "Shoulders", "Halter, wide at the neck", 1, 0.5, 3, "1 in")),
    onlyWhen("cover.kind", "halter",
             length("halter.widen", "Lines", "Shoulders", "Halter, neck widened by", 1, 0, 2, "1 in")),
    onlyWhen("cover.kind", "off-shoulder",
             length("off.depth", "Lines", "Shoulders", "Band, deep", 3, 1, 8, "from its upper to its lower edge")),
    onlyWhen("cover.kind", "off-shoulder",
             length("off.hold", "Lines", "Shoulders", "Band, held in", 1, 0, 4,
                    "shorter than the round-shoulder girth, so that it stays up")),
    onlyWhen(
        "cover.kind", "covered",
        option("yoke.front", "Lines", "Yokes", "Front yoke", kYokes, "its lower edge is the upper edge chosen above")),
    onlyWhen(
        "cover.kind", "covered",
        option("yoke.back", "Lines", "Yokes", "Back yoke", kYokes, "its lower edge is the back edge chosen below")),
    onlyWhen("yoke.front|yoke.back", "cloth|net",
             length("yoke.armhole", "Lines", "Yokes", "Ends at the armhole, above the chest line", 1.5, 0.5, 4,
                    "1 1/2 to 3 in above the chest line")),
    onlyWhen("yoke.back", "cloth|net",
             length("yoke.fold", "Lines", "Yokes", "Folded out at the back armhole", 0.5, 0, 1,
                    "1/2 in, so that it does not gape")),
    onlyWhen("cover.kind", "covered",
             option("keyhole.kind", "Lines", "Keyhole", "Keyhole", kKeyholes, "a slit that stands open at the centre")),
    onlyWhen("keyhole.kind", "back|front",
             length("keyhole.from", "Lines", "Keyhole", "Begins below the neck", 0.5, 0.25, 3, "1/2 in")),
    onlyWhen("keyhole.kind", "back|front",
             length("keyhole.above", "Lines", "Keyhole", "Ends above the yoke's lower edge", 2, 0.25, 6,
                    "2 in; without a yoke above the chest line")),
    onlyWhen("keyhole.kind", "back|front",
             length("keyhole.width", "Lines", "Keyhole", "Wide at the middle", 0.5, 0.125, 3,
                    "1/4 to 3/4 in to either side")),
    option("insert.kind", "Lines", "Inserts", "Sheer inserts", kInserts, "of net, doubled, or of lace"),
    onlyWhen("insert.kind", "centre|both",
             length("insert.top", "Lines", "Inserts", "At the centre, wide above", 1.5, 0.5, 3,
                    "from the centre, each half")),
    onlyWhen("insert.kind", "centre|both",
             length("insert.hem", "Lines", "Inserts", "At the centre, wide below", 1.125, 0.375, 3,
                    "from the centre, each half")),
    onlyWhen("insert.kind", "shoulder|both",
             length("insert.shoulder", "Lines", "Inserts", "At the shoulder, wide", 1.25, 0.75, 3,
                    "from the shoulder point in; needs covered shoulders")),
    option("top.shape", "Lines", "Top edge", "Shape", kTops, "the upper edge of the front"),
    length("top.above_chest", "Lines", "Top edge", "Above the chest line", 1, -1, 2.5, "1 to 2 in for a covered bust"),
    length("top.side", "Lines", "Top edge", "At the side, above the chest line", 0, -1.5, 1.5,
           "at the chest line the arm moves freely"),
    onlyWhen("top.shape", "sweetheart",
             length("top.dip", "Lines", "Top edge", "Sweetheart dip", 1.25, 0.25, 3,
                    "how deep below the top edge at the centre front")),
    onlyWhen("top.shape", "sweetheart|plunge-v|plunge-u",
             length("top.rise", "Lines", "Top edge", "Rise over the cups", 0.75, 0, 1.5, "1/2 to 1 in over the cups")),
    onlyWhen("top.shape", "plunge-v|plunge-u",
             length("top.plunge", "Lines", "Top edge", "Plunge below the underbust", 0.75, -1, 3,
                    "1/2 to 1 in below the underbust, or to the waist")),
    onlyWhen("top.shape", "plunge-v|plunge-u",
             length("top.plunge_beside", "Lines", "Top edge", "Beside the centre at the bust", 0.75, 0.25, 2,
                    "1/2 to 1 in from the centre front on the bust line")),
    option("back.shape", "Lines", "Back edge", "Shape", kBacks, "the upper edge of the back"),
    onlyWhen("back.shape", "slope|scoop|v",
             length("back.slope", "Lines", "Back edge", "Centre back below the chest line", 1, -1, 6,
                    "a slope 1 in; a scoop 1/2 to 3 in; a V deeper")),
    option("strap.kind", "Lines", "Straps", "Straps", kStraps, "over the shoulder"),
    onlyWhen("strap.kind", "straight|shaped",
             length("strap.width", "Lines", "Straps", "Finished width", 0.5, 0.25, 3, "1/2 to 1 3/4 in")),
    onlyWhen("strap.kind", "shaped",
             length("strap.front", "Lines", "Straps", "Wide in front", 1.75, 0.25, 5, "where it leaves the cup")),
    onlyWhen("strap.kind", "straight|shaped",
             length("strap.extra", "Lines", "Straps", "To adjust by", 1, 0, 4, "sewn in behind once it is tried on")),
    option("hem.shape", "Lines", "Hem", "Shape", kHems, "the lower edge"),
    length("hem.length", "Lines", "Hem", "Below the waist", 4.5, 2.5, 12, "4 to 5 in on a corset top"),
    onlyWhen("hem.shape", "raised|dipped",
             length("hem.raise", "Lines", "Hem", "Raised at the side by", 1.5, 0, 3, "1 to 3 in")),
    onlyWhen("hem.shape", "dipped",
             length("hem.dip", "Lines", "Hem", "Point below the hem", 1, 0.25, 3, "1/2 to 2 in at the centre front")),
    option("skirt.kind", "Lines", "Skirt", "Below the waist", kSkirts, "panels that run on below"),
    onlyWhen("skirt.kind", "straight|peg|gored",
             option("skirt.to", "Lines", "Skirt", "Reaches to", kSkirtEnds, "by the client's measures")),
    onlyWhen("skirt.kind", "flare",
             length("skirt.flare", "Lines", "Skirt", "Each panel edge swung out by", 2.75, 0.25, 6,
                    "2 1/2 to 3 in at the hem")),
    onlyWhen("skirt.kind", "gored",
             length("skirt.gore", "Lines", "Skirt", "Each half panel wider at the floor by", 8, 1, 14,
                    "8 in at floor length, less where it ends higher")),
    onlyWhen("skirt.kind", "peg",
             length("skirt.peg", "Lines", "Skirt", "In at the knee, each side edge", 1.5, 0.25, 3, "1 to 2 in")),
    option("waist.seam", "Lines", "Waist", "Waist seam", kWaistSeams, "bodice and skirt cut apart"),
    onlyWhen("waist.seam", "pointed",
             length("waist.point", "Lines", "Waist", "Point below the waist", 1.25, 0.25, 3,
                    "1/2 to 2 in at the centre front")),
    option("opening.kind", "Lines", "Opening", "At the back", kBackOpenings, "how the bodice is closed behind"),
    option("opening.front", "Lines", "Opening", "At the front", kFrontOpenings, "how the bodice is closed in front"),
    onlyWhen("opening.kind|opening.front", "zip|lacing|v-lacing|loops|busk|hooks",
             option("opening.end", "Lines", "Opening", "It ends", kOpeningEnds, "below, the seam is sewn")),
    onlyWhen("opening.kind|opening.front", "lacing|loops",
             length("opening.gap", "Lines", "Opening", "Straight gap, both sides", 2, 0.5, 5,
                    "lacing or loops: 2 in; part of the finished girth")),
    onlyWhen("opening.kind|opening.front", "v-lacing",
             length("opening.gap_top", "Lines", "Opening", "V gap at the top", 6, 0.5, 10,
                    "lacing in a V, both sides together: 6 in at the top")),
    onlyWhen("opening.kind|opening.front", "v-lacing",
             length("opening.gap_hem", "Lines", "Opening", "V gap at the hem", 4, 0.5, 10,
                    "lacing in a V, both sides together: 4 in at the hem")),
    onlyWhen(
        "opening.kind|opening.front", "lacing|v-lacing|loops",
        option("modesty.kind", "Lines", "Opening", "Behind the lacing", kModesty, "covers what the gap leaves open")),
    onlyWhen("modesty.kind", "panel",
             length("modesty.overlap", "Lines", "Opening", "Panel wider than the gap", 2, 0.5, 6, "2 in")),
    // balance
    option("balance.keep", "Balance", "Pieces", "The pieces are", kKeep, "what is printed and exported"),
    length("balance.free_limit", "Balance", "Free edges", "Redrawn, at most", 6 / kMmPerInch, 0, 2,
           "how far balancing may redraw top edge, hem and armhole: 6 mm; beyond, the sheet fails"),
    length("balance.ease_limit", "Balance", "Ease", "Eased in, at most", 0.125, 0, 1,
           "between two notches; 1/8 in on every 4 in goes in without a pucker"),
    // preparing to cut
    length("allowance.seam", "Prepare", "Allowances", "Panel seams", 0.5, 0, 2, "1/2 in"),
    length("allowance.side", "Prepare", "Allowances", "Side seams", 1, 0, 2.5, "1 to 2 1/2 in, to let out"),
    length("allowance.top", "Prepare", "Allowances", "Top edge", 0.5, 0, 2, "1/2 in"),
    onlyWhen("cup.kind", kCutCups,
             length("allowance.cup", "Prepare", "Allowances", "Cup line and cup seams", 0.375, 0, 1,
                    "1/4 to 1/2 in: narrow, because it lies in a curve")),
    onlyWhen("yoke.front|yoke.back|cover.kind|insert.kind", "cloth|net|off-shoulder|centre|shoulder|both",
             length("allowance.yoke", "Prepare", "Allowances", "Yokes and inserts", 0.5, 0, 1, "1/2 in")),
    onlyWhen("cover.kind", kOverShoulder,
             length("allowance.shoulder", "Prepare", "Allowances", "Shoulder", 0.5, 0, 2, "1/2 in")),
    onlyWhen("cover.kind", "straps|halter|covered|off-shoulder",
             length("allowance.armhole", "Prepare", "Allowances", "Armhole", 0.375, 0, 1, "1/4 to 1/2 in, faced")),
    onlyWhen("waist.seam", "level|pointed",
             length("allowance.waist", "Prepare", "Allowances", "Waist seam", 0.5, 0, 2, "1/2 in")),
    onlyWhen("cup.inside", "lining|both",
             length("allowance.lining", "Prepare", "Allowances", "Cup lining", 0.375, 0, 1, "as the cup")),
    length("allowance.hem", "Prepare", "Allowances", "Hem", 0.5, 0, 3, "1/2 in"),
    onlyWhen("opening.kind|opening.front", "zip",
             length("allowance.zip", "Prepare", "Allowances", "Zip edge", 1.5, 0, 3, "1 to 2 in")),
    onlyWhen(
        "opening.kind|opening.front", "lacing|v-lacing",
        length("allowance.lacing", "Prepare", "Allowances", "Lacing edge", 1, 0, 3, "1 in, for the eyelet facing")),
    onlyWhen("opening.kind|opening.front", "loops",
             length("allowance.loops", "Prepare", "Allowances", "Edge with loops", 0.5, 0, 2,
                    "1/2 in: the loops lie in the seam")),
    onlyWhen("opening.kind|opening.front", "busk|hooks",
             length("allowance.busk", "Prepare", "Allowances", "Busk or hook edge", 0.75, 0, 2,
                    "3/4 in: room to sew close to the stiff edge")),
    onlyWhen("modesty.kind", "panel",
             length("allowance.modesty", "Prepare", "Allowances", "Modesty panel", 0.5, 0, 2, "1/2 in all round")),
    onlyWhen("strap.kind", "straight|shaped",
             length("allowance.strap", "Prepare", "Allowances", "Straps", 0.25, 0, 1, "1/4 in all round")),
    option("paper.size", "Prepare", "Paper", "Paper", kPapers, "for print and PDF"),
};

}  // namespace

std::span<const RuleInfo> ruleTable() { return kRules; }

std::vector<std::string_view> listed(std::string_view list) {
  std::vector<std::string_view> parts;
  while (!list.empty()) {
    const size_t bar = list.find('|');
    parts.push_back(list.substr(0, bar));
    list = bar == std::string_view::npos ? "" : list.substr(bar + 1);
  }
  return parts;
}

bool ruleCounts(const RuleInfo& rule, const std::function<std::string_view(std::string_view)>& optionOf) {
  const auto keys = listed(rule.onlyWhenKeys), options = listed(rule.onlyWhenOptions);
  return keys.empty() || std::any_of(keys.begin(), keys.end(), [&](std::string_view key) {
           return std::find(options.begin(), options.end(), optionOf(key)) != options.end();
         });
}

const RuleInfo* findRule(std::string_view key) {
  const auto row = std::find_if(kRules.begin(), kRules.end(), [&](const RuleInfo& r) { return r.key == key; });
  return row == kRules.end() ? nullptr : &*row;
}

}  // namespace armure
