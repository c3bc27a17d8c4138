// core/rules/prepare_rules.h
//
// What can be chosen of balancing and of preparing to cut: allowances and paper. Kinds as enumerations with their
// words, typed keys, and rows of the rule table. Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/inserts/rules.h"
#include "parts/opening/rules.h"
#include "parts/skirt/rules.h"
#include "parts/straps/rules.h"
#include "parts/yoke/rules.h"
#include "rules/paper_table.h"
#include "rules/rule_row.h"

namespace armure {

enum class KeptPieces { Drafted, Balanced };
inline constexpr std::array kKeep{
    row::of(KeptPieces::Drafted, "drafted", "as drafted", "seams are measured and shown, nothing is moved"),
    row::of(KeptPieces::Balanced, "balanced", "balanced",
            "every stretch fits and every girth is right, with the smallest movement of the edges"),
};

enum class CutFor { Garment, Toile };
inline constexpr std::array kCutFor{
    row::of(CutFor::Garment, "garment", "the garment", "all layers, with the allowances of every edge"),
    row::of(CutFor::Toile, "toile", "a toile",
            "one cheap cloth, wide allowances where it may be let out, levels drawn"),
};

enum class NotchKind { Slit, Triangle };
inline constexpr std::array kNotchKinds{
    row::of(NotchKind::Slit, "slit", "a slit", "a snip from the cutting line; quick, for firm cloth"),
    row::of(NotchKind::Triangle, "triangle", "a triangle", "standing out of the cutting line; for cloth that frays"),
};

enum class Corners { Mitred, Squared, Turned };
inline constexpr std::array kCorners{
    row::of(Corners::Mitred, "mitred", "mitred", "both cutting lines run on until they meet"),
    row::of(Corners::Squared, "squared", "squared", "cut off square at the end of a sewn edge: no tips to trim"),
    row::of(Corners::Turned, "turned", "turned", "mirrored on the sewn edge, so that it lies within when turned over"),
};

enum class AllowanceCustom { OnPaper, SideAndHem, OnCloth };
inline constexpr std::array kCustoms{
    row::of(AllowanceCustom::OnPaper, "paper", "all on paper", "cut along the outer line"),
    row::of(AllowanceCustom::SideAndHem, "side-and-hem", "side and hem only",
            "and the opening; the others are added on the cloth"),
    row::of(AllowanceCustom::OnCloth, "cloth", "none on paper", "all are added on the cloth"),
};

enum class Binding { None, Top, Hem, Both };
inline constexpr std::array kBindings{
    row::of(Binding::None, "none", "none", "faced or turned"),
    row::of(Binding::Top, "top", "the upper edges", "armholes too"),
    row::of(Binding::Hem, "hem", "the hem", "a corset's lower edge"),
    row::of(Binding::Both, "both", "both", "all round"),
};
enum class Piping { None, Seams };
inline constexpr std::array kPipings{
    row::of(Piping::None, "none", "none", "plain seams"),
    row::of(Piping::Seams, "seams", "in the panel seams", "all but the sides"),
};
enum class SidesSewn { Last, WithPanels };
inline constexpr std::array kSidesSewn{
    row::of(SidesSewn::Last, "last", "last", "on the folded garment, at the half girths: the zip lies in flat halves"),
    row::of(SidesSewn::WithPanels, "with-panels", "with the panels",
            "then bones and lining go in all round, the zip last"),
};

inline constexpr auto kPapers = [] {
  std::array<RuleOption, kPaperTable.size()> options{};
  for (size_t i = 0; i < options.size(); ++i)
    options[i] = {kPaperTable[i].id, kPaperTable[i].label, kPaperTable[i].note, static_cast<int>(i)};
  return options;
}();

namespace key {
inline constexpr OptionKey<KeptPieces> kBalanceKeep{"balance.keep"};
inline constexpr LengthKey kBalanceFreeLimit{"balance.free_limit"};
inline constexpr LengthKey kBalanceEaseLimit{"balance.ease_limit"};
inline constexpr LengthKey kAllowanceSeam{"allowance.seam"};
inline constexpr LengthKey kAllowanceSide{"allowance.side"};
inline constexpr LengthKey kAllowanceTop{"allowance.top"};
inline constexpr LengthKey kAllowanceCup{"allowance.cup"};
inline constexpr LengthKey kAllowanceYoke{"allowance.yoke"};
inline constexpr LengthKey kAllowanceShoulder{"allowance.shoulder"};
inline constexpr LengthKey kAllowanceArmhole{"allowance.armhole"};
inline constexpr LengthKey kAllowanceWaist{"allowance.waist"};
inline constexpr LengthKey kAllowanceLining{"allowance.lining"};
inline constexpr LengthKey kAllowanceHem{"allowance.hem"};
inline constexpr LengthKey kAllowanceZip{"allowance.zip"};
inline constexpr LengthKey kAllowanceLacing{"allowance.lacing"};
inline constexpr LengthKey kAllowanceLoops{"allowance.loops"};
inline constexpr LengthKey kAllowanceBusk{"allowance.busk"};
inline constexpr LengthKey kAllowanceModesty{"allowance.modesty"};
inline constexpr LengthKey kAllowanceStrap{"allowance.strap"};
inline constexpr OptionKey<CutFor> kCutFor{"cut.for"};
inline constexpr LengthKey kToileAllowance{"toile.allowance"};
inline constexpr LengthKey kToileSide{"toile.side"};
inline constexpr OptionKey<NotchKind> kNotchKind{"notch.kind"};
inline constexpr OptionKey<Corners> kCornerKind{"allowance.corners"};
inline constexpr OptionKey<AllowanceCustom> kAllowanceCustom{"allowance.custom"};
inline constexpr OptionKey<Binding> kBinding{"binding.edges"};
inline constexpr LengthKey kBindingWide{"binding.wide"};
inline constexpr OptionKey<Piping> kPiping{"piping.seams"};
inline constexpr OptionKey<SidesSewn> kSidesSewn{"sewing.sides"};
inline constexpr LengthKey kClothWidth{"cloth.width"};
inline constexpr TextKey kPaperSize{"paper.size"};
inline constexpr LengthKey kPaperRoll{"paper.roll"};
}  // namespace key

inline constexpr std::array kPrepareRules{
    row::option(key::kBalanceKeep, "Balance", "Pieces", "The pieces are", kKeep, "what is printed and exported"),
    row::length(key::kBalanceFreeLimit, "Balance", "Free edges", "Redrawn, at most", 6 / kMmPerInch, 0, 2,
                "how far balancing may redraw top edge, hem and armhole: 6 mm; beyond, the sheet fails"),
    row::length(key::kBalanceEaseLimit, "Balance", "Ease", "Eased in, at most", 0.125, 0, 1,
                "between two notches; 1/8 in on every 4 in goes in without a pucker"),
    row::length(key::kAllowanceSeam, "Prepare", "Allowances", "Panel seams", 0.5, 0, 2, "1/2 in"),
    row::length(key::kAllowanceSide, "Prepare", "Allowances", "Side seams", 1, 0, 2.5, "1 to 2 1/2 in, to let out"),
    row::length(key::kAllowanceTop, "Prepare", "Allowances", "Top edge", 0.5, 0, 2, "1/2 in"),
    row::onlyWhen({kIsCut}, row::length(key::kAllowanceCup, "Prepare", "Allowances", "Cup line and cup seams", 0.375, 0,
                                        1, "1/4 to 1/2 in: narrow, because it lies in a curve")),
    row::onlyWhen({row::when(key::kYokeFront, {YokeKind::Cloth, YokeKind::Net}),
                   row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net}),
                   row::when(key::kCoverKind, {CoverKind::OffShoulder}),
                   row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Shoulder, InsertKind::Both})},
                  row::length(key::kAllowanceYoke, "Prepare", "Allowances", "Yokes and inserts", 0.5, 0, 1, "1/2 in")),
    row::onlyWhen({kIsOverShoulder},
                  row::length(key::kAllowanceShoulder, "Prepare", "Allowances", "Shoulder", 0.5, 0, 2, "1/2 in")),
    row::onlyWhen(
        {row::when(key::kCoverKind,
                   {CoverKind::Straps, CoverKind::Halter, CoverKind::Covered, CoverKind::OffShoulder})},
        row::length(key::kAllowanceArmhole, "Prepare", "Allowances", "Armhole", 0.375, 0, 1, "1/4 to 1/2 in, faced")),
    row::onlyWhen({row::when(key::kWaistSeam, {WaistSeam::Level, WaistSeam::Pointed})},
                  row::length(key::kAllowanceWaist, "Prepare", "Allowances", "Waist seam", 0.5, 0, 2, "1/2 in")),
    row::onlyWhen({row::when(key::kCupInside, {CupInside::Lining, CupInside::Both})},
                  row::length(key::kAllowanceLining, "Prepare", "Allowances", "Cup lining", 0.375, 0, 1, "as the cup")),
    row::length(key::kAllowanceHem, "Prepare", "Allowances", "Hem", 0.5, 0, 3, "1/2 in"),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::Zip, OpeningKind::ZipLaced}),
                   row::when(key::kOpeningFront, {OpeningKind::Zip, OpeningKind::ZipLaced})},
                  row::length(key::kAllowanceZip, "Prepare", "Allowances", "Zip edge", 1.5, 0, 3, "1 to 2 in")),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::Lacing, OpeningKind::VLacing}),
                   row::when(key::kOpeningFront, {OpeningKind::Lacing, OpeningKind::VLacing})},
                  row::length(key::kAllowanceLacing, "Prepare", "Allowances", "Lacing edge", 1, 0, 3,
                              "1 in, for the eyelet facing")),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::Loops, OpeningKind::VLoops}),
                   row::when(key::kOpeningFront, {OpeningKind::Loops, OpeningKind::VLoops})},
                  row::length(key::kAllowanceLoops, "Prepare", "Allowances", "Edge with loops", 0.5, 0, 2,
                              "1/2 in: the loops lie in the seam")),
    row::onlyWhen({row::when(key::kOpeningFront, {OpeningKind::Busk, OpeningKind::Hooks})},
                  row::length(key::kAllowanceBusk, "Prepare", "Allowances", "Busk or hook edge", 0.75, 0, 2,
                              "3/4 in: room to sew close to the stiff edge")),
    row::onlyWhen(
        {row::when(key::kModestyKind, {ModestyKind::Panel})},
        row::length(key::kAllowanceModesty, "Prepare", "Allowances", "Modesty panel", 0.5, 0, 2, "1/2 in all round")),
    row::onlyWhen({row::when(key::kStrapKind, {StrapKind::Straight, StrapKind::Shaped})},
                  row::length(key::kAllowanceStrap, "Prepare", "Allowances", "Straps", 0.25, 0, 1, "1/4 in all round")),
};

inline constexpr std::array kPaperRules{
    row::option(key::kCutFor, "Prepare", "Cut", "What is cut", kCutFor, "the garment, or a toile to try it with"),
    row::onlyWhen({row::when(key::kCutFor, {CutFor::Toile})},
                  row::length(key::kToileAllowance, "Prepare", "Cut", "Toile, allowances", 1, 0.5, 2.5, "1 in")),
    row::onlyWhen({row::when(key::kCutFor, {CutFor::Toile})},
                  row::length(key::kToileSide, "Prepare", "Cut", "Toile, side, shoulder and centre", 2, 1, 2.5,
                              "1 to 2 1/2 in, where it may be let out")),
    row::option(key::kAllowanceCustom, "Prepare", "Cut", "Allowances are", kCustoms,
                "one custom for the whole pattern; it is printed on every piece"),
    row::option(key::kCornerKind, "Prepare", "Cut", "Corners of allowances", kCorners,
                "so that a seam pressed open or aside lies within the next edge"),
    row::option(key::kNotchKind, "Prepare", "Cut", "Notches", kNotchKinds, "as they are cut"),
    row::option(key::kBinding, "Prepare", "Edges", "Bound with bias", kBindings, "counted among the notions"),
    row::onlyWhen({row::when(key::kBinding, {Binding::Top, Binding::Hem, Binding::Both})},
                  row::length(key::kBindingWide, "Prepare", "Edges", "Binding, finished", 0.375, 0.125, 1,
                              "1/4 to 1/2 in; cut four times as wide")),
    row::option(key::kPiping, "Prepare", "Edges", "Piping", kPipings, "counted among the notions"),
    row::option(key::kSidesSewn, "Prepare", "Sewing", "Side seams", kSidesSewn, "when the sides are closed"),
    row::length(key::kClothWidth, "Prepare", "Cloth", "Cloth of the shell, wide", 54, 10, 120,
                "45, 54 or 60 in, from selvedge to selvedge; where it is other than in the list of cloths"),
    row::option(key::kPaperSize, "Prepare", "Paper", "Paper", kPapers, "for print and PDF"),
    row::length(key::kPaperRoll, "Prepare", "Paper", "Roll, wide", 36, 12, 72,
                "36 or 24 in; where the paper is a roll"),
};

}  // namespace armure
