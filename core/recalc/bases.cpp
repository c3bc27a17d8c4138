#include "recalc/bases.h"

#include <fmt/format.h>

#include <algorithm>

#include "parts/opening/rules.h"
#include "recalc/recalc.h"
#include "rules/prepare_choices.h"
#include "rules/seam_choices.h"

namespace armure {

namespace {

bool hasEdgeOf(const Pattern& shell, Half half, EdgeRole role) {
  return std::ranges::any_of(shell.pieces, [&](const Piece& p) {
    return p.half == half && std::ranges::any_of(p.edges, [&](const Edge& e) { return e.role == role; });
  });
}

}  // namespace

Result<BasePattern> keptAsBase(const Order& order, const MeasureSet& made, std::string name, std::string date) {
  const Result<Design> design = recalc(order);
  if (!design.ok()) return design.problem();
  BasePattern base;
  base.name = std::move(name);
  base.date = std::move(date);
  base.style = order.style;
  base.school = order.school;
  base.choices = order.choices;
  base.measures = order.measures;
  base.made = made;
  base.alterations = order.alterations;
  if (design->fromBase) {
    base.measures = order.base->base.measures;
    base.traced = order.base->base.traced;
    for (const auto& [id, measure] : order.measures.all())
      if (!base.made.has(id)) base.made.set(id, measure);
    base.alterations.insert(base.alterations.end(), order.base->base.alterations.begin(),
                            order.base->base.alterations.end());
    base.alterations.push_back(design->fromBase->alteration);
  }
  // Ids are unique in a base, wherever its alterations came from.
  for (size_t i = 0; i < base.alterations.size(); ++i) base.alterations[i].id = std::to_string(i + 1);
  return base;
}

Result<BasePattern> baseFromDrawing(Pattern shell, double opening, const MeasureSet& made, std::string name,
                                    std::string date) {
  BasePattern base;
  base.name = std::move(name);
  base.date = std::move(date);
  base.measures = base.made = made;
  base.choices = choicesOfNewOrders();
  const std::string kind = opening > 0 ? "lacing" : "zip";
  const bool behind = hasEdgeOf(shell, Half::Back, EdgeRole::Opening);
  if (hasEdgeOf(shell, Half::Front, EdgeRole::Opening)) base.choices["opening.front"] = kind;
  if (base.choices.contains("opening.front") && !behind)
    base.choices["opening.kind"] = hasEdgeOf(shell, Half::Back, EdgeRole::Fold) ? "fold" : "seam";
  if (behind) base.choices["opening.kind"] = kind;
  if (opening > 0) base.choices["opening.gap"] = fmt::format("{} mm", opening);
  base.traced = {std::make_shared<const Pattern>(std::move(shell)), opening};
  // What it measures must be enough to lay it on a body.
  if (const Result<Design> design = recalc(orderFromBase(base, made)); !design.ok()) return design.problem();
  return base;
}

bool isDraftChoice(std::string_view key) {
  if (const RuleInfo* rule = findRule(key))
    return rule->stage != "Prepare" && rule->stage != "Balance" &&
           (rule->group != "Opening" || key == key::kOpeningEnd.text);
  return isChoiceKey(key) && !parsePrepareKey(key) && !parseTrimKey(key) && !seamOfKey(key) && !lockOfKey(key);
}

std::optional<Problem> withoutEffect(const Order& now, const Order& next) {
  if (!now.base || !next.base || !now.base->base.traced || now.base->base != next.base->base) return std::nullopt;
  const Message why = "the pattern was read from a drawing: it is altered, not drafted",
                remedy = "shift its edges at the stage Fit";
  if (next.style != now.style || next.school != now.school) return Problem{"style", why, remedy};
  for (const auto& [key, value] : next.choices)
    if (const auto was = now.choices.find(key);
        isDraftChoice(key) && (was == now.choices.end() || was->second != value))
      return Problem{verbatim(key), why, remedy};
  return std::nullopt;
}

Order orderFromBase(const BasePattern& base, const MeasureSet& client) {
  Order order;
  order.style = base.style;
  order.school = base.school;
  order.choices = base.choices;
  order.measures = client;
  order.base = Recalculation{};
  order.base->base = base;
  return order;
}

}  // namespace armure
