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

#include "measure/estimate.h"
#include "measure/measure_set.h"
#include "working.h"

namespace armure {

inline constexpr double kSideOfBack = 0.49;  // underarm to waist, of the back waist length; common practice, no source
inline constexpr double kBustBelowChest = 50.8;  // mm, 2 in, where the chest line was not taken; common practice

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

// From the bust point over the breast down to the underbust, mm, as a body of these girths has it: fitted to the body
// form (body/body_form.h). A tape that reads much less lay straight from one to the other, or did not reach both.
double lengthOverBreast(const Known& known);

// A measure of a body, as it has it; one that no pattern needs (neck, waist to knee) as it is likely to be.
double anyMeasure(const Body& body, std::string_view id);

// Never reads `id` itself from `known`. Throws std::out_of_range for an id that is not in the measure table.
Prediction predict(std::string_view id, const Known& known);

}  // namespace armure
