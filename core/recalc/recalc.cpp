#include "recalc/recalc.h"

#include <algorithm>
#include <cmath>

#include "alter/one_sided.h"
#include "balance/balanced_whole.h"
#include "garment/garment.h"
#include "operations/both_sides.h"
#include "parts/cups/moulded.h"
#include "prepare/cut_outlines.h"
#include "prepare/drawing.h"
#include "recalc/source.h"
#include "rules/prepare_rules.h"

namespace armure {

bool needs(const Order& order, const MeasureInfo& measure) {
  if (measure.need != Need::Reached) return measure.need == Need::Required;
  const Rules rules(order.choices, order.style, order.school, figureOf(completeBody(order.measures)));
  return goesBelowWaist(rules);
}

ReductionClass Design::reduction() const {
  if (const PatternLevel* waist = level(level::kWaist))
    return classifyReduction(waist->bodyGirth, waist->finishedGirth);
  const Level& waist = block.levels.at(level::kWaist);
  return classifyReduction(waist.bodyGirth, waist.finishedGirth);
}

const PatternLevel* Design::level(std::string_view id) const {
  const auto found = std::ranges::find(wholeLevels, id, &PatternLevel::id);
  return found != wholeLevels.end() ? &*found : pattern.level(id);
}

const Working* Design::working(std::string_view key) const {
  for (const Working& w : altered)
    if (w.key == key) return &w;
  if (const Working* w = block.working(key)) return w;
  for (const Working& w : pattern.workings)
    if (w.key == key) return &w;
  for (const Fact& f : body.facts())
    if (f.working.key == key) return &f.working;
  return fromBase ? fromBase->table.working(key) : nullptr;
}

namespace {

// Everything of one half but its sheet, and what the sheet is made from.
struct MadeHalf {
  Design design;
  UpperLengths upper;
  std::vector<double> girthsMade;
  std::vector<LetOut> letOut;
};

Result<MadeHalf> madeHalf(const Order& order, BodySide side, const Design* before) {
  Result<Sourced> source = sourceOf(order, side);
  if (!source.ok()) return source.problem();
  auto& [body, rules, block, made, upper, fromBase, idleShifts, girthsMade, letOut] = source.value();
  std::optional<Balanced> balanced;
  std::optional<Pattern> drafted;
  if (rules.option(key::kBalanceKeep) == KeptPieces::Balanced) {
    const bool known = before && before->balanced;
    balanced = balance(made.pattern, balanceOptions(rules), known ? before->balanced->end : BalanceEnd{});
    drafted = std::move(made.pattern);
  }
  Result<Pattern> pattern =
      dress(std::move(balanced ? balanced->pattern : made.pattern), made.sources, block, body, rules, side);
  if (!pattern.ok()) return pattern.problem();
  Pattern pieces = std::move(pattern).value();
  if (balanced) balanced->pattern = pieces;
  if (auto problem = unsound(pieces)) return *problem;
  std::vector<Polyline> outlines = cutOutlines(pieces, rules.option(key::kCornerKind));
  std::vector<Working> altered = alteredGirths(girthsMade, letOut, pieces.levels);
  Design design{std::move(body),
                std::move(rules),
                std::move(block),
                std::move(fromBase),
                std::move(idleShifts),
                std::move(altered),
                std::move(pieces),
                std::move(balanced),
                std::move(drafted),
                std::move(made.sources),
                std::move(outlines),
                {},
                questionsAbout(order.measures)};
  return MadeHalf{std::move(design), upper, std::move(girthsMade), std::move(letOut)};
}

Sheet sheetOf(const Design& d, const UpperLengths& upper, std::vector<SheetHalf> halves = {}) {
  return balanceSheet({d.pattern, d.cutOutlines, d.block.intakes, d.body, d.balanced ? &*d.balanced : nullptr,
                       d.rules.length(key::kBalanceFreeLimit), upper, ownRim(d.rules), std::move(halves)});
}

// What the alterations let out all round: on each half, half of what it would be on both.
std::vector<LetOut> meanOf(const std::vector<LetOut>& left, const std::vector<LetOut>& right) {
  std::vector<LetOut> all = left;
  for (size_t k = 0; k < all.size(); ++k)
    for (size_t i = 0; i < all[k].by.size(); ++i) all[k].by[i] = (left[k].by[i] + right[k].by[i]) / 2;
  return all;
}

// The garment of two halves that are not alike; where they come to be alike after all, the left stands for both.
Result<Design> joined(MadeHalf left, MadeHalf right) {
  Design &l = left.design, &r = right.design;
  for (IdleShift& i : r.idleShifts)
    if (std::ranges::find(l.idleShifts, i) == l.idleShifts.end()) l.idleShifts.push_back(std::move(i));
  Design whole = l;
  if (sameHalves(l.pattern, r.pattern)) {
    whole.sheet = sheetOf(whole, left.upper);
    return whole;
  }
  if (l.pattern.pieces.size() != r.pattern.pieces.size())
    return Problem{"what is sewn on", "it is cut in more pieces on one side of the body than on the other",
                   "cut it in half rings, or alter both sides"};
  Result<Pattern> pattern = bothSides(l.pattern, r.pattern);
  if (!pattern.ok()) return pattern.problem();
  whole.pattern = std::move(pattern).value();
  if (auto problem = unsound(whole.pattern)) return *problem;
  whole.cutOutlines = cutOutlines(whole.pattern, whole.rules.option(key::kCornerKind));
  whole.altered = alteredGirths(left.girthsMade, meanOf(left.letOut, right.letOut), whole.pattern.levels);
  if (l.balanced && r.balanced) {
    Result<Pattern> drafted = bothSides(*l.drafted, *r.drafted);
    if (!drafted.ok()) return drafted.problem();
    whole.drafted = std::move(drafted).value();
    whole.balanced = balancedWhole(*l.balanced, *r.balanced, whole.pattern);
  }
  whole.sheet =
      sheetOf(whole, left.upper, {{BodySide::Left, l.pattern, left.upper}, {BodySide::Right, r.pattern, right.upper}});
  for (Design* half : {&l, &r}) {
    half->sheet = whole.sheet;
    half->altered = whole.altered;
    half->wholeLevels = whole.pattern.levels;
    half->idleShifts = whole.idleShifts;
    whole.halves.push_back(std::make_shared<const Design>(std::move(*half)));
  }
  return whole;
}

bool isOneSided(const Order& order) {
  return isOneSided(order.alterations) || (order.base && isOneSided(order.base->base.alterations));
}

}  // namespace

Result<Design> recalc(const Order& order, const Design* before) {
  if (isOneSided(order)) {
    Result<MadeHalf> left = madeHalf(order, BodySide::Left, before ? &before->half(BodySide::Left) : nullptr);
    if (!left.ok()) return left.problem();
    Result<MadeHalf> right = madeHalf(order, BodySide::Right, before ? &before->half(BodySide::Right) : nullptr);
    if (!right.ok()) return right.problem();
    return joined(std::move(left).value(), std::move(right).value());
  }
  Result<MadeHalf> made = madeHalf(order, BodySide::Both, before ? &before->half(BodySide::Left) : nullptr);
  if (!made.ok()) return made.problem();
  made->design.sheet = sheetOf(made->design, made->upper);
  return std::move(made->design);
}

namespace {

Balanced proposalOf(const Design& design, BodySide side) {
  Balanced b = balance(shellOf(design.pattern), balanceOptions(design.rules));
  // Where a layer cannot be made of the balanced shell, the proposal is the shell alone.
  if (Result<Pattern> all = dress(b.pattern, design.sources, design.block, design.body, design.rules, side); all.ok())
    b.pattern = std::move(all).value();
  return b;
}

}  // namespace

Balanced proposal(const Design& design) {
  if (!design.halves.empty()) {
    const Balanced left = proposalOf(*design.halves[0], BodySide::Left),
                   right = proposalOf(*design.halves[1], BodySide::Right);
    // Where the balanced halves do not go together, as the fold of one has become longer, the halves stay as they are.
    if (const auto whole = bothSides(left.pattern, right.pattern); whole.ok())
      return balancedWhole(left, right, *whole);
    return {design.pattern, {}, {{.why = Unreachable::Why::NoShape}}, {}, {}};
  }
  return proposalOf(design, BodySide::Both);
}

std::vector<Message> orderLines(const Order& order, const Design& design) {
  std::vector<Message> lines;
  const auto both = [](const std::string& a, const std::string& b) {
    return verbatim(a.empty() || b.empty() ? a + b : a + " · " + b);
  };
  if (!order.title.empty() || !order.client.empty()) lines.push_back(both(order.title, order.client));
  const Message version = msg("version {}", verbatim(patternVersion(design.cutOutlines)));
  lines.push_back(order.date.empty()
                      ? version
                      : msg("{}, version {}", verbatim(order.date), verbatim(patternVersion(design.cutOutlines))));
  return lines;
}

Result<GarmentSketch> sketchOf(const Order& order) {
  Result<Sourced> source = sourceOf(order, BodySide::Left);
  if (!source.ok()) return source.problem();
  const Sourced& s = *source;
  const Result<Pattern> pattern = dress(s.shell.pattern, s.shell.sources, s.block, s.body, s.rules);
  if (!pattern.ok()) return pattern.problem();
  return sketchOf(*pattern, s.block);
}

}  // namespace armure
