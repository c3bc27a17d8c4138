#include "recalc/recalc.h"

#include <algorithm>
#include <cmath>

#include "alter/one_sided.h"
#include "alter/recalculation.h"
#include "balance/balanced_whole.h"
#include "garment/garment.h"
#include "operations/both_sides.h"
#include "parts/cups/cup_line.h"
#include "parts/cups/moulded.h"
#include "parts/edges/upper_outline.h"
#include "parts/yoke/rules.h"
#include "prepare/cut_outlines.h"
#include "prepare/drawing.h"
#include "rules/prepare_rules.h"

namespace armure {

namespace {

// What shoulder and armhole have to be: as on the outline of each half with every intake closed, less what is folded
// out of the back armhole by choice.
UpperLengths upperLengths(const Block& block, const Rules& rules) {
  UpperLengths lengths;
  const auto read = [&](bool front, double& shoulder, double& armhole) {
    if (const auto outline = upperOutline(block, rules, front))
      for (const UpperStretch& s : *outline) {
        if (s.part == UpperPart::Shoulder) shoulder += s.path.length();
        if (s.part == UpperPart::Armhole) armhole += s.path.length();
      }
  };
  read(true, lengths.shoulderFront, lengths.armholeFront);
  read(false, lengths.shoulderBack, lengths.armholeBack);
  // A halter's strap is sewn to nothing behind.
  if (lengths.shoulderFront == 0 || lengths.shoulderBack == 0) lengths.shoulderFront = lengths.shoulderBack = 0;
  // The body has one shoulder; where front and back slope differently its length lies between theirs.
  lengths.shoulderFront = lengths.shoulderBack = (lengths.shoulderFront + lengths.shoulderBack) / 2;
  if (lengths.armholeBack > 0 && rules.option(key::kYokeBack) != YokeKind::None)
    lengths.armholeBack -= rules.length(key::kYokeFold);
  return lengths;
}

// The first thing wrong with a pattern that was made, as a Problem of the order.
std::optional<Problem> unsound(const Pattern& pattern) {
  auto problem = patternProblem(pattern);
  if (problem && problem->where.empty()) problem->where = "pattern";
  return problem;
}

// A garment that reaches the hip needs it measured.
std::optional<Problem> unreached(const MeasureSet& measures, const Rules& rules) {
  for (const MeasureInfo& row : measureTable())
    if (row.need == Need::Reached && goesBelowWaist(rules) && !measures.mm(row.id))
      return Problem{verbatim(row.id), msg("{} was not taken", known(row.name)),
                     "the draft needs bust, waist and hip; a garment that ends at the waist needs no hip"};
  return std::nullopt;
}

// The body an order is drafted for, with what this garment needs beside the usual; and what was chosen.
struct Grounds {
  Body body;
  Rules rules;
};

Result<Grounds> groundsOf(const Order& order, const MeasureSet& measures) {
  Result<Body> body = resolveBody(measures);
  if (!body.ok()) return body.problem();
  Rules rules(order.choices, order.style, order.school, figureOf(*body));
  if (auto problem = unreached(measures, rules)) return *problem;
  for (std::string_view id : furtherMeasures(rules))
    if (!body->has(id)) body = body->with(factOf(id, measures));
  return Grounds{overMouldedCup(*body, rules), std::move(rules)};
}

}  // namespace

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

// What the client measures, as far as it was taken: a number nobody took moves no edge.
MeasuredAt takenOn(const Body& body) {
  MeasuredAt all = measuredOn(body);
  std::erase_if(all, [](const auto& m) { return m.second.source != Source::Taken; });
  return all;
}

// What a base measures as made; where it was not measured, as it was drafted for.
MeasuredAt measuredOn(const BasePattern& base, const Body& drafted) {
  MeasuredAt all = measuredOn(drafted);
  for (const auto& [id, made] : base.made.all()) all.insert_or_assign(id, Measured{made.mm, Source::Taken});
  return all;
}

// The levels say what the client measures there, not what the base was drafted for.
void measureClient(Pattern& pattern, const ShiftTable& table) {
  for (PatternLevel& l : pattern.levels)
    if (const ShiftRow* row = table.row(l.id)) {
      l.bodyGirth = row->client.mm;
      l.girthTaken = true;
    }
}

Recalculated recalculated(const Recalculation& from, const Pattern& shell, const Grounds& base, const Body& client) {
  const bool toLines = from.rest == RestGoes::ToLines && takesRest(shell);
  ShiftTable table = shiftTable(takenOn(client), measuredOn(from.base, base.body), {from.from, toLines, from.cells});
  shareRest(table, shell, base.rules.length(key::kCapOther));
  Alteration alteration = recalculationOf(table, shell);
  return {std::move(table), std::move(alteration), shell, static_cast<bool>(from.base.traced)};
}

// Shoulder seams and armholes of the pieces, front and back.
UpperLengths measuredUpper(const Pattern& pattern) {
  UpperLengths sum;
  for (const Seam& s : pattern.seams)
    if (s.kind == SeamKind::Shoulder)
      for (const SeamSide* side : {&s.a, &s.b})
        (pattern.pieces[side->piece].half == Half::Back ? sum.shoulderBack : sum.shoulderFront) +=
            pattern.sidePath(*side).length();
  for (const Piece& p : pattern.pieces)
    for (const Edge& e : p.edges)
      if (p.layer == "shell" && e.role == EdgeRole::Armhole && p.half != Half::Both)
        (p.half == Half::Back ? sum.armholeBack : sum.armholeFront) += e.path.length();
  return sum;
}

// Shoulder and armhole as the block has them, and with what an alteration is meant to do to them.
UpperLengths withAltered(UpperLengths wanted, const Pattern& before, const Pattern& after) {
  const UpperLengths was = measuredUpper(before), is = measuredUpper(after);
  const auto add = [&](double UpperLengths::*length) {
    if (wanted.*length > 0) wanted.*length += is.*length - was.*length;
  };
  for (const auto length : {&UpperLengths::shoulderFront, &UpperLengths::shoulderBack, &UpperLengths::armholeFront,
                            &UpperLengths::armholeBack})
    add(length);
  return wanted;
}

// What one alteration lets out of every level, all round, mm.
struct LetOut {
  Message name;
  std::vector<double> by;
};

// An order's shell between its source and balancing.
struct Sourced {
  Body body;  // the client's
  Rules rules;
  Block block;
  Shell shell;
  UpperLengths upper;
  std::optional<Recalculated> fromBase;
  std::vector<IdleShift> idle;
  std::vector<double> girthsMade;  // finished, of every level, before it was altered; empty where nothing was
  std::vector<LetOut> letOut;      // by every alteration
};

// How the finished girth of every level that an alteration changed came to be.
std::vector<Working> alteredGirths(const std::vector<double>& made, const std::vector<LetOut>& all,
                                   const std::vector<PatternLevel>& levels) {
  constexpr double kNothing = 1e-6;  // mm
  std::vector<Working> workings;
  for (size_t i = 0; i < made.size(); ++i) {
    const PatternLevel& is = levels[i];
    if (std::abs(is.finishedGirth - made[i]) < kNothing) continue;
    Working w{"girth." + is.id,
              msg("{}, finished girth", is.name),
              {{'+', "as drafted", made[i], Source::Computed}},
              is.finishedGirth,
              "what every alteration lets out or takes in there, all round"};
    double told = made[i];
    const auto add = [&](Message what, double mm, Source source) {
      if (std::abs(mm) < kNothing) return;
      w.terms.push_back({mm < 0 ? '-' : '+', std::move(what), std::abs(mm), source});
      told += mm;
    };
    for (const LetOut& one : all) add(one.name, one.by[i], Source::Computed);
    add("the plunge moves with the centre", is.finishedGirth - told, Source::Computed);
    workings.push_back(std::move(w));
  }
  return workings;
}

// Alters the shell as the order asks, and what its layers are traced from with it.
std::optional<Problem> alterShell(Sourced& s, const Order& order, const Grounds& drafted, BodySide side) {
  std::vector<Alteration> all = ofSide(order.alterations, side);
  if (order.base) {
    s.fromBase = recalculated(*order.base, s.shell.pattern, drafted, s.body);
    all.push_back(s.fromBase->alteration);
    std::ranges::move(ofSide(order.base->base.alterations, side), std::back_inserter(all));
  }
  if (all.empty()) return std::nullopt;
  Result<Altered> altered = alter(s.shell.pattern, all);
  if (!altered.ok()) return altered.problem();
  if (const auto fault = patternProblem(altered->pattern))
    return Problem{fault->where, "the alterations leave no sound piece here", "make them smaller, or switch one off"};
  for (const PatternLevel& l : s.shell.pattern.levels) s.girthsMade.push_back(l.finishedGirth);
  for (const Alteration& a : all) s.letOut.push_back({verbatim(a.name), letOut(s.shell.pattern, {&a, 1})});
  s.upper = withAltered(s.upper, s.shell.pattern, altered->pattern);
  s.idle = std::move(altered->idle);
  s.shell.pattern = std::move(altered->pattern);
  if (s.fromBase) measureClient(s.shell.pattern, s.fromBase->table);
  if (!s.shell.sources.panels.pieces.empty()) {
    Result<Altered> panels = alter(s.shell.sources.panels, all);
    if (!panels.ok()) return panels.problem();
    s.shell.sources.panels = std::move(panels->pattern);
    // Where a side moved, the cup's line ends elsewhere.
    s.shell.sources.cupLine = cupLine(s.shell.sources.panels, s.block, drafted.body, drafted.rules);
  }
  return std::nullopt;
}

// The shell between source and alterations. Pieces read from a drawing are what they are: the block beside them says
// how the client is built and how the garment opens, and its intakes are not theirs.
struct Grown {
  Block block;
  Shell shell;
  UpperLengths upper;
};
Result<Grown> grown(const Order& order, const Grounds& drafted) {
  Result<Block> block = draftBlock(drafted.body, drafted.rules);
  if (!block.ok()) return block.problem();
  if (order.base && order.base->base.traced) {
    block.value().intakes.clear();
    Shell shell{*order.base->base.traced.shell, {}};
    const UpperLengths upper = measuredUpper(shell.pattern);
    return Grown{std::move(block).value(), std::move(shell), upper};
  }
  Result<Shell> shell = makeShell(*block, drafted.body, drafted.rules);
  if (!shell.ok()) return shell.problem();
  const UpperLengths upper = upperLengths(*block, drafted.rules);
  return Grown{std::move(block).value(), std::move(shell).value(), upper};
}

// Of one side of the body: with what is altered on both, and on this one.
Result<Sourced> sourceOf(const Order& order, BodySide side) {
  Result<Grounds> drafted = groundsOf(order, order.base ? order.base->base.measures : order.measures);
  if (!drafted.ok()) return drafted.problem();
  Result<Grounds> client = order.base ? groundsOf(order, order.measures) : *drafted;
  if (!client.ok()) return client.problem();
  Result<Grown> made = grown(order, *drafted);
  if (!made.ok()) return made.problem();
  auto& [block, shell, upper] = made.value();
  Sourced s{std::move(client->body), drafted->rules, std::move(block), std::move(shell), upper, {}, {}, {}, {}};
  if (auto problem = alterShell(s, order, *drafted, side)) return *problem;
  if (auto problem = unsound(s.shell.pattern)) return *problem;
  return s;
}

}  // namespace

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
  const auto dressed = [&](Pattern&& shell) {
    return dress(std::move(shell), source->shell.sources, source->block, source->body, source->rules);
  };
  std::optional<Balanced> balanced;
  std::optional<Pattern> drafted;
  if (rules.option(key::kBalanceKeep) == KeptPieces::Balanced) {
    const bool known = before && before->balanced;
    balanced = balance(made.pattern, balanceOptions(rules), known ? before->balanced->end : BalanceEnd{});
  }
  Result<Pattern> pattern = dressed(std::move(made.pattern));
  if (!pattern.ok()) return pattern.problem();
  Pattern pieces = std::move(pattern).value();
  if (balanced) {
    drafted = std::move(pieces);
    Result<Pattern> fitted = dressed(std::move(balanced->pattern));
    if (!fitted.ok()) return fitted.problem();
    pieces = balanced->pattern = std::move(fitted).value();
  }
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

Balanced proposal(const Design& design) {
  if (!design.halves.empty()) {
    const Balanced left = proposal(*design.halves[0]), right = proposal(*design.halves[1]);
    // Where the balanced halves do not go together, as the fold of one has become longer, the halves stay as they are.
    if (const auto whole = bothSides(left.pattern, right.pattern); whole.ok())
      return balancedWhole(left, right, *whole);
    return {design.pattern, {}, {{.why = Unreachable::Why::NoShape}}, {}, {}};
  }
  Balanced b = balance(shellOf(design.pattern), balanceOptions(design.rules));
  // Where a layer cannot be made of the balanced shell, the proposal is the shell alone.
  if (Result<Pattern> all = dress(b.pattern, design.sources, design.block, design.body, design.rules); all.ok())
    b.pattern = std::move(all).value();
  return b;
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
