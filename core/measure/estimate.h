// core/measure/estimate.h
//
// From the measures taken to the body the draft works on: every measure the draft needs, taken or estimated. Each
// estimate says its formula, its source and its spread (one standard deviation).
#pragma once

#include <string>
#include <string_view>
#include <vector>

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
  const std::vector<Fact>& facts() const { return facts_; }
  // A copy in which one measure is replaced or added.
  Body with(Fact fact) const;

 private:
  std::vector<Fact> facts_;
};

// How much the bust stands out from the chest: chooses default intakes and darts.
enum class Figure { Small, Medium, Full };

// Full minus upper bust below 2 1/2 in: small; below 5 in: medium; else full. Common practice, no source.
Figure figureOf(const Body& body);

// Resolves every measure. Fails when a required one (bust, waist, hip) is missing, or a value cannot be that measure
// (outside the table's bounds), or the waist is so far over the bust that no such bodice can be drafted.
// Estimates:
//   high_hip       = -199.5 + 0.5999 waist + 0.6471 hip            mm, s = 46.7   regression, n = 130 (data/bodies)
//   shoulder_width = 105.7 + 0.1156 stature + 0.0824 upper bust    mm, s = 13.5   regression, n = 130 (data/bodies)
//   stature        = 1648.8                                        mm, s = 59.4   mean, n = 130 (data/bodies)
// from G. Heinz, L. J. Peterson, R. W. Johnson, C. J. Kerk, "Exploring Relationships in Body Dimensions", Journal of
// Statistics Education 11(2), 2003; all others are proportions of common practice, no source, each said at its place.
Result<Body> resolveBody(const MeasureSet& taken);

}  // namespace armure
