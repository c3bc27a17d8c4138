// core/measure/compare_sets.h
//
// Two sets of measures of one client, side by side: what changed from the first to the second.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "measure/measure_set.h"

namespace armure {

struct Compared {
  std::string id;
  std::optional<double> first, second;  // mm; kilograms for weight
  // second - first; nothing when one is missing.
  std::optional<double> change() const { return first && second ? std::optional(*second - *first) : std::nullopt; }
  // Whether the change is more than two careful takings of one measure differ: 1/4 in for lengths and girths up to
  // 20 in, 1/2 in beyond, 1 kg for weight. Common practice, no source.
  bool isMarked() const;
};

// Every measure in either set, in the order of the measure table, unknown ones last.
std::vector<Compared> compareSets(const MeasureSet& first, const MeasureSet& second);

}  // namespace armure
