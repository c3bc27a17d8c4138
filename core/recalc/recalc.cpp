#include "recalc/recalc.h"

#include "garment/garment.h"
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
std::optional<Problem> unreached(const Order& order, const Rules& rules) {
  for (const MeasureInfo& row : measureTable())
    if (row.need == Need::Reached && goesBelowWaist(rules) && !order.measures.mm(row.id))
      return Problem{verbatim(row.id), msg("{} was not taken", known(row.name)),
                     "the draft needs bust, waist and hip; a garment that ends at the waist needs no hip"};
  return std::nullopt;
}

// The body an order is drafted for, with what this garment needs beside the usual; and what was chosen.
struct Grounds {
  Body body;
  Rules rules;
};

Result<Grounds> groundsOf(const Order& order) {
  Result<Body> body = resolveBody(order.measures);
  if (!body.ok()) return body.problem();
  Rules rules(order.choices, order.style, order.school, figureOf(*body));
  if (auto problem = unreached(order, rules)) return *problem;
  for (std::string_view id : furtherMeasures(rules))
    if (!body->has(id)) body = body->with(factOf(id, order.measures));
  return Grounds{overMouldedCup(*body, rules), std::move(rules)};
}

}  // namespace

bool needs(const Order& order, const MeasureInfo& measure) {
  if (measure.need != Need::Reached) return measure.need == Need::Required;
  const Rules rules(order.choices, order.style, order.school, figureOf(completeBody(order.measures)));
  return goesBelowWaist(rules);
}

ReductionClass Design::reduction() const {
  const Level& waist = block.levels.at(level::kWaist);
  return classifyReduction(waist.bodyGirth, waist.finishedGirth);
}

const Working* Design::working(std::string_view key) const {
  if (const Working* w = block.working(key)) return w;
  for (const Working& w : pattern.workings)
    if (w.key == key) return &w;
  for (const Fact& f : body.facts())
    if (f.working.key == key) return &f.working;
  return nullptr;
}

Result<Design> recalc(const Order& order, const Design* before) {
  Result<Grounds> grounds = groundsOf(order);
  if (!grounds.ok()) return grounds.problem();
  auto& [body, rules] = *grounds;
  Result<Block> block = draftBlock(body, rules);
  if (!block.ok()) return block.problem();
  Result<Shell> made = makeShell(*block, body, rules);
  if (!made.ok()) return made.problem();
  if (auto problem = unsound(made->pattern)) return *problem;
  const auto dressed = [&](Pattern&& shell) {
    return dress(std::move(shell), made->sources, *block, grounds->body, grounds->rules);
  };
  std::optional<Balanced> balanced;
  std::optional<Pattern> drafted;
  if (rules.option(key::kBalanceKeep) == KeptPieces::Balanced) {
    const bool known = before && before->balanced;
    balanced = balance(made->pattern, balanceOptions(rules), known ? before->balanced->end : BalanceEnd{});
  }
  Result<Pattern> pattern = dressed(std::move(made->pattern));
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
  Sheet sheet = balanceSheet({pieces, outlines, block->intakes, body, balanced ? &*balanced : nullptr,
                              rules.length(key::kBalanceFreeLimit), upperLengths(*block, rules), ownRim(rules)});
  std::vector<Question> questions = questionsAbout(order.measures);
  return Design{std::move(body),     std::move(rules),    std::move(block).value(), std::move(pieces),
                std::move(balanced), std::move(drafted),  std::move(made->sources), std::move(outlines),
                std::move(sheet),    std::move(questions)};
}

Balanced proposal(const Design& design) {
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
  const Result<Grounds> grounds = groundsOf(order);
  if (!grounds.ok()) return grounds.problem();
  const auto& [body, rules] = *grounds;
  const Result<Block> block = draftBlock(body, rules);
  if (!block.ok()) return block.problem();
  const Result<Pattern> pattern = makeGarment(*block, body, rules);
  if (!pattern.ok()) return pattern.problem();
  return sketchOf(*pattern, *block);
}

}  // namespace armure
