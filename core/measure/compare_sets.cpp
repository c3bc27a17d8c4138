#include "measure/compare_sets.h"

#include <cmath>
#include <set>

#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {

bool Compared::isMarked() const {
  const auto by = change();
  if (!by) return false;
  if (id == id::kWeight) return std::abs(*by) >= 1;
  constexpr double kRounding = 1e-6;
  return std::abs(*by) > (*first > inches(20) ? inches(0.5) : inches(0.25)) + kRounding;
}

std::vector<Compared> compareSets(const MeasureSet& first, const MeasureSet& second) {
  std::vector<Compared> rows;
  const auto add = [&](const std::string& id) {
    if (first.has(id) || second.has(id)) rows.push_back({id, first.mm(id), second.mm(id)});
  };
  for (const MeasureInfo& row : measureTable()) add(std::string(row.id));
  std::set<std::string> unknown;
  for (const MeasureSet* set : {&first, &second})
    for (const auto& [id, m] : set->all())
      if (!findMeasure(id)) unknown.insert(id);
  for (const std::string& id : unknown) add(id);
  return rows;
}

}  // namespace armure
