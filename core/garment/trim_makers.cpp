#include "garment/trim_makers.h"

#include <algorithm>
#include <array>

#include "parts/bow/bow.h"
#include "parts/collar/collar.h"
#include "parts/edging/edging.h"
#include "parts/flounce/flounce.h"
#include "parts/frill/frill.h"
#include "parts/garter_tabs/garter_tabs.h"
#include "parts/godet/godet.h"
#include "parts/hanging_sleeve/hanging_sleeve.h"
#include "parts/loops/loops.h"
#include "parts/peplum/peplum.h"
#include "parts/pleats/pleats.h"
#include "parts/pocket/pocket.h"
#include "parts/ruffle/ruffle.h"
#include "parts/sleeve/sleeve.h"
#include "parts/tie/tie.h"
#include "parts/trims/lines.h"

namespace armure {
namespace {

struct TrimMaker {
  TrimKind kind{};
  std::optional<Problem> (*add)(Pattern&, const TrimStretch&, const TrimChoice&, const Body&, const Rules&);
};
constexpr std::array kMakers{
    TrimMaker{TrimKind::Frill, addFrill},     TrimMaker{TrimKind::Ruffle, addRuffle},
    TrimMaker{TrimKind::Flounce, addFlounce}, TrimMaker{TrimKind::Peplum, addPeplum},
    TrimMaker{TrimKind::Sleeve, addSleeve},   TrimMaker{TrimKind::HangingSleeve, addHangingSleeve},
    TrimMaker{TrimKind::Collar, addCollar},   TrimMaker{TrimKind::Edging, addEdging},
    TrimMaker{TrimKind::Loops, addLoops},     TrimMaker{TrimKind::Tie, addTie},
    TrimMaker{TrimKind::Bow, addBow},         TrimMaker{TrimKind::Pocket, addPocket},
    TrimMaker{TrimKind::Godet, addGodet},     TrimMaker{TrimKind::GarterTabs, addGarterTabs},
};

std::optional<Problem> addTrim(Pattern& pattern, const TrimChoice& trim, const Body& body, const Rules& rules,
                               BodySide side) {
  if (trimKind(trim.kind()).onPiece) return addPleats(pattern, trim, rules);
  Result<TrimStretch> stretch = stretchOf(pattern, trim);
  if (!stretch.ok()) return stretch.problem();
  stretch->apart = side != BodySide::Both;
  return std::ranges::find(kMakers, trim.kind(), &TrimMaker::kind)->add(pattern, *stretch, trim, body, rules);
}

}  // namespace

void addTrims(Pattern& pattern, const Body& body, const Rules& rules, BodySide side) {
  for (const TrimChoice& trim : rules.trims())
    if (!trim.on().empty()) addTrim(pattern, trim, body, rules, side);
}

std::optional<Problem> trimProblem(const Pattern& pattern, const TrimChoice& trim, const Body& body,
                                   const Rules& rules) {
  Pattern tried = pattern;
  std::erase_if(tried.seams, [&](const Seam& s) { return tried.pieces[s.a.piece].part == Part::Trim; });
  return addTrim(tried, trim, body, rules, BodySide::Both);
}

}  // namespace armure
