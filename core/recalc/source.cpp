#include "recalc/source.h"

#include <algorithm>
#include <cmath>

#include "alter/one_sided.h"
#include "alter/recalculation.h"
#include "garment/garment.h"
#include "parts/cups/cup_line.h"
#include "parts/cups/moulded.h"
#include "parts/edges/upper_outline.h"
#include "parts/yoke/rules.h"
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

std::optional<Problem> unsound(const Pattern& pattern) {
  auto problem = patternProblem(pattern);
  if (problem && problem->where.empty()) problem->where = "pattern";
  return problem;
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

}  // namespace

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

namespace {

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

}  // namespace

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

}  // namespace armure
