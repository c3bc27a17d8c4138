#include "recalc/recalc.h"

#include "cups/moulded.h"
#include "garment/garment.h"
#include "prepare/cut_outlines.h"

namespace armure {

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
  std::optional<Balanced> balanced;
  std::optional<Pattern> drafted;
  if (rules.option("balance.keep") == "balanced") {
    const bool known = before && before->balanced;
    balanced = balance(pieces, balanceOptions(rules), known ? before->balanced->end : BalanceEnd{});
    drafted = std::move(pieces);
    pieces = balanced->pattern;
  }
  std::vector<Polyline> outlines = cutOutlines(pieces);
  Sheet sheet = balanceSheet(pieces, outlines, block->intakes, *body,
                             balanced ? balanced->unreachable : std::vector<std::string>{});
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
