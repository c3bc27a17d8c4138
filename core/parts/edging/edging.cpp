#include "parts/edging/edging.h"

#include <algorithm>
#include <numbers>
#include <utility>

#include "parts/edging/rules.h"
#include "parts/trims/strip.h"

namespace armure {
namespace {

using edging::EdgingKind;

constexpr double kJoin = 6;  // mm: allowance where strips join

// Of a strip of cloth, mm: what lies within its allowances, and what they are.
struct CutWidth {
  double between = 0, allowance = 0;
  double whole() const { return between + 2 * allowance; }
};
CutWidth cutWidth(const TrimChoice& trim) {
  const double wide = trim.length(edging::kWide), seam = trim.length(edging::kSeam);
  switch (trim.option(edging::kWhat)) {
    case EdgingKind::Binding:
      return {2 * wide, wide};  // sewn its own width from the edge, folded round it and under
    case EdgingKind::Piping:
      return {std::numbers::pi * trim.length(edging::kCord), seam};
    default:
      return {wide, seam};
  }
}

bool isBought(EdgingKind what) { return what >= EdgingKind::Lace; }

void buy(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim) {
  const double length = stretch.whole() + 2 * trim.length(edging::kEnds);
  const RuleOption& what = edging::kEdgings[static_cast<size_t>(trim.value(edging::kWhat.text).number)];
  pattern.supplies.push_back(
      {"edging", msg("{}, {} wide, {}", known(what.label), Length{trim.length(edging::kWide)}, trim.title()),
       stretch.count(), length, msg("along {} of {}", Length{stretch.whole()}, stretch.line.name)});
}

}  // namespace

std::optional<Problem> addEdging(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                 const Rules& rules) {
  const EdgingKind what = trim.option(edging::kWhat);
  Working w{"trim." + trim.id(), msg("{}, along its edge", trim.title()), {}, stretch.whole(), {}};
  w.terms.push_back({'+', stretch.line.name, stretch.whole(), Source::Computed});
  if (isBought(what)) {
    placeOn(pattern, stretch, trim, {stretch.line.edges.front().piece, stretch.line.edges.front().use.edge});
    buy(pattern, stretch, trim);
    w.note = msg("bought, {} longer to turn in at both ends", Length{2 * trim.length(edging::kEnds)});
    pattern.workings.push_back(std::move(w));
    return std::nullopt;
  }
  const CutWidth cut = cutWidth(trim);
  const double longest = longestStrip(trimClothWidth(trim, rules), strip::Grain::Bias, cut.whole(), kJoin);
  const StripPlan plan = planStrip({.covers = stretch.whole(), .longest = longest});
  const bool joined = plan.lengths > 1 || stretch.isRing() || stretch.apart;
  Piece piece = stripPiece(pattern, trim, plan,
                           {.deep = cut.between,
                            .seam = cut.allowance,
                            .caught = true,
                            .joined = joined,
                            .ends = std::max(joined ? kJoin : 0.0, trim.length(edging::kEnds)),
                            .grain = strip::Grain::Bias});
  piece.copies = plan.lengths * stretch.count();
  piece.symmetry = symmetryOn(stretch);
  const int copies = piece.copies;
  sewOn(pattern, stretch, trim, std::move(piece), "sewn", 0, plan.each, {0, ReachWay::Flat});
  w.note = msg("cut on the bias, {} wide, in {} lengths of {}; common practice", Length{cut.whole()}, copies,
               Length{plan.length + 2 * std::max(kJoin, trim.length(edging::kEnds))});
  pattern.workings.push_back(std::move(w));
  if (what == EdgingKind::Piping)
    pattern.supplies.push_back({"cord", msg("Cord, {} thick, {}", Length{trim.length(edging::kCord)}, trim.title()),
                                stretch.count(), stretch.whole(), "in the piping; it ends where the seam does"});
  return std::nullopt;
}

}  // namespace armure
