// core/measure/predict.h
//
// What a measure is likely to be, from any others: the estimate of a measure that was not taken, and the expectation
// one that was taken is held against (plausibility.h).
//
// The eight measures of the open data set are estimated by linear regression on whichever of the others are known
// (body_statistics.h); all others by proportions, each with its source or marked "common practice" or "from memory".
// Where a formula needs a measure that is not known either, that one is predicted first and its spread is added in
// quadrature: s^2 = s_formula^2 + sum (c_i s_i)^2.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "measure/measure_set.h"
#include "working.h"

namespace armure {

// The values known for a prediction, by place in the measure table. Cheap to copy.
class Known {
 public:
  Known() = default;
  explicit Known(const MeasureSet& taken);
  bool has(std::string_view id) const;
  double mm(std::string_view id) const;  // only when has(id)
  void set(std::string_view id, double mm);
  Known without(std::string_view id) const;

 private:
  std::array<double, 40> mm_{};
  uint64_t known_ = 0;
};

struct Prediction {
  double mm = 0;      // kilograms for weight
  double spread = 0;  // one standard deviation, same unit
  std::vector<Term> terms;
  Message note;  // the source
};

// Never reads `id` itself from `known`. Throws std::out_of_range for an id that is not in the measure table.
Prediction predict(std::string_view id, const Known& known);

}  // namespace armure
