#include "recalc/recalc.h"

#include "cups/moulded.h"
#include "garment/garment.h"
#include "prepare/cut_outlines.h"
#include "style/upper_outline.h"

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
  if (lengths.armholeBack > 0 && rules.option("yoke.back") != "none") lengths.armholeBack -= rules.length("yoke.fold");
  return lengths;
}

// The first thing wrong with a pattern that was made, as a Problem of the order.
std::optional<Problem> unsound(const Pattern& pattern) {
  auto problem = patternProblem(pattern);
  if (problem && problem->where.empty()) problem->where = "pattern";
  return problem;
}

}  // namespace

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
  Result<Body> body = resolveBody(order.measures);
  if (!body.ok()) return body.problem();
  Rules rules(order.choices, order.style, order.school, figureOf(*body));
  for (std::string_view id : furtherMeasures(rules))
    if (!body->has(id)) body = body->with(factOf(id, order.measures));
  body = overMouldedCup(*body, rules);
  Result<Block> block = draftBlock(*body, rules);
  if (!block.ok()) return block.problem();
  Result<Pattern> pattern = makeGarment(*block, *body, rules);
  if (!pattern.ok()) return pattern.problem();
  Pattern pieces = std::move(pattern).value();
  if (auto problem = unsound(pieces)) return *problem;
  std::optional<Balanced> balanced;
  std::optional<Pattern> drafted;
  if (rules.option("balance.keep") == "balanced") {
    const bool known = before && before->balanced;
    balanced = balance(pieces, balanceOptions(rules), known ? before->balanced->end : BalanceEnd{});
    drafted = std::move(pieces);
    pieces = balanced->pattern;
    if (auto problem = unsound(pieces)) return *problem;
  }
  std::vector<Polyline> outlines = cutOutlines(pieces);
  Sheet sheet = balanceSheet({pieces, outlines, block->intakes, *body, balanced ? &*balanced : nullptr,
                              rules.length("balance.free_limit"), upperLengths(*block, rules)});
  std::vector<Question> questions = questionsAbout(order.measures, order.units);
  return Design{std::move(body).value(), std::move(rules),    std::move(block).value(),
                std::move(pieces),       std::move(balanced), std::move(drafted),
                std::move(outlines),     std::move(sheet),    std::move(questions)};
}

Result<GarmentSketch> sketchOf(const Order& order) {
  Result<Body> body = resolveBody(order.measures);
  if (!body.ok()) return body.problem();
  const Rules rules(order.choices, order.style, order.school, figureOf(*body));
  for (std::string_view id : furtherMeasures(rules))
    if (!body->has(id)) body = body->with(factOf(id, order.measures));
  body = overMouldedCup(*body, rules);
  Result<Block> block = draftBlock(*body, rules);
  if (!block.ok()) return block.problem();
  return sketchOf(*block, *body, rules);
}

}  // namespace armure
