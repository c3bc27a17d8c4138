// core/measure/estimate.h
//
// From the measures taken to the body the draft works on: every measure the draft needs, taken or estimated
// (predict.h). Each estimate says its formula, its source and its spread (one standard deviation).
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "measure/figure.h"
#include "measure/measure_set.h"
#include "result.h"
#include "working.h"

namespace armure {

// One measure of the body.
struct Fact {
  std::string id;
  double mm = 0;
  double spread = 0;  // mm, one standard deviation of an estimate; 0 for a taken measure
  Source source = Source::Taken;
  Working working;
};

class Body {
 public:
  explicit Body(std::vector<Fact> facts) : facts_(std::move(facts)) {}
  // Throws std::out_of_range when the body has no such measure: ask has() first for optional ones.
  double mm(std::string_view id) const { return fact(id).mm; }
  const Fact& fact(std::string_view id) const;
  bool has(std::string_view id) const;
  const Fact* find(std::string_view id) const;  // nullptr when there is none
  const std::vector<Fact>& facts() const { return facts_; }
  // A copy in which one measure is replaced or added.
  Body with(Fact fact) const;

 private:
  std::vector<Fact> facts_;
};

// Full less upper bust by the thresholds of figure.h.
Figure figureOf(const Body& body);

// The fact of one measure: taken, or else estimated from those taken by the formula of predict.h, with its working.
// Throws std::out_of_range for a measure the table does not know.
Fact factOf(std::string_view id, const MeasureSet& taken);

// Every measure the draft needs and every one taken, whatever is missing: also bust, waist and hip are estimated. For
// drawing a figure while its measures are still being entered.
Body completeBody(const MeasureSet& taken);

// The body the draft works on. Fails when a required measure (bust, waist) is missing, or a value cannot be that
// measure (outside the table's bounds), or the waist is so far over the bust that no such bodice can be drafted. The
// hip is estimated where it was not taken; whether the garment reaches it is not known here (recalc.h).
Result<Body> resolveBody(const MeasureSet& taken);

}  // namespace armure
