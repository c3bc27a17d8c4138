#include "recalc/bases.h"

#include <algorithm>

#include "recalc/recalc.h"

namespace armure {

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
