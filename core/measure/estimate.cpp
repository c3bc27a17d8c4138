#include "measure/estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kWaistOverBustLimit = 250;  // mm: beyond, no bodice of this kind can be drafted

// Collects facts: a taken measure wins, else the estimate given is used.
class Resolver {
 public:
  explicit Resolver(const MeasureSet& taken) : taken_(taken) {}

  double takeOr(std::string_view id, double estimate, double spread, std::vector<Term> terms, std::string note) {
    if (taken_.has(id)) return take(id);
    std::string key = fmt::format("measure.{}", id);
    std::string title = fmt::format("{}, estimated", findMeasure(id)->name);
    Working working{std::move(key), std::move(title), std::move(terms), estimate, std::move(note)};
    facts_.push_back({std::string(id), estimate, spread, Source::Estimated, std::move(working)});
    return estimate;
  }

  double take(std::string_view id) {
    const MeasureInfo& row = *findMeasure(id);
    const TakenMeasure& m = taken_.all().find(id)->second;
    Working working{fmt::format("measure.{}", id), fmt::format("{}, taken", row.name), {}, m.mm, std::string(row.how)};
    working.terms.push_back(
        {'+', fmt::format("taken as {}", m.typed.empty() ? "a number" : m.typed), m.mm, Source::Taken});
    facts_.push_back({std::string(id), m.mm, 0, Source::Taken, std::move(working)});
    return m.mm;
  }

  void takeIfThere(std::string_view id) {
    if (taken_.has(id)) take(id);
  }

  std::vector<Fact> facts() && { return std::move(facts_); }

 private:
  const MeasureSet& taken_;
  std::vector<Fact> facts_;
};

Term part(double factor, std::string_view id, double mm) {
  return {factor < 0 ? '-' : '+', fmt::format("{:.3g} x {}", std::abs(factor), findMeasure(id)->name),
          std::abs(factor) * mm, Source::Computed};
}

Term constant(double mm) { return {mm < 0 ? '-' : '+', "constant", std::abs(mm), Source::Rule}; }

constexpr const char* kRegression =
    "regression on 130 women; Heinz, Peterson, Johnson and Kerk, Journal of Statistics Education 11(2), 2003";
constexpr const char* kCommon = "common practice, no source";

Result<bool> checkTaken(const MeasureSet& taken) {
  for (const MeasureInfo& row : measureTable()) {
    const auto value = taken.mm(row.id);
    if (row.need == Need::Required && !value)
      return Problem{std::string(row.id), fmt::format("{} was not taken", row.name),
                     "the draft needs bust, waist and hip"};
    if (!value) continue;
    if (auto problem = measureProblem(row.id, *value)) return *problem;
  }
  const double over = *taken.mm(id::kWaist) - *taken.mm(id::kBust);
  if (over > kWaistOverBustLimit)
    return Problem{
        "waist",
        fmt::format("the waist is {:.4g} cm ({:.3g} in) more than the bust", over / kMmPerCm, over / kMmPerInch),
        "measure both again; a bodice can be drafted up to 25 cm over"};
  return true;
}

void resolveGirths(Resolver& r, const MeasureSet& taken) {
  const double bust = r.take(id::kBust), waist = r.take(id::kWaist), hip = r.take(id::kHip);
  double upper = 0;
  if (const auto under = taken.mm(id::kUnderbust)) {
    upper = r.takeOr(id::kUpperBust, 0.55 * bust + 0.45 * *under, 25,
                     {part(0.55, id::kBust, bust), part(0.45, id::kUnderbust, *under)}, kCommon);
  } else {
    upper = r.takeOr(id::kUpperBust, 0.92 * bust, 35, {part(0.92, id::kBust, bust)}, kCommon);
  }
  r.takeOr(id::kUnderbust, 0.55 * upper + 0.42 * waist, 30,
           {part(0.55, id::kUpperBust, upper), part(0.42, id::kWaist, waist)}, kCommon);
  r.takeOr(id::kHighHip, -199.5 + 0.5999 * waist + 0.6471 * hip, 46.7,
           {constant(-199.5), part(0.5999, id::kWaist, waist), part(0.6471, id::kHip, hip)}, kRegression);
}

Figure figureBy(double bust, double upper) {
  const double difference = bust - upper;
  if (difference < inches(2.5)) return Figure::Small;
  return difference < inches(5) ? Figure::Medium : Figure::Full;
}

// How much longer the front is than the back over the bust when only one was measured: the side bust dart of the
// figure. Common practice, no source.
double usualFrontSurplus(Figure figure) {
  switch (figure) {
    case Figure::Small:
      return inches(1);
    case Figure::Medium:
      return inches(1.5);
    case Figure::Full:
      break;
  }
  return inches(2);
}

void resolveHeights(Resolver& r, const MeasureSet& taken, double bust, double upper, double underbust) {
  const double stature =
      r.takeOr(id::kStature, 1648.8, 59.4, {constant(1648.8)}, "mean of 130 women; Heinz and others, 2003");
  const double surplus = usualFrontSurplus(figureBy(bust, upper));
  const Term surplusTerm{'+', "front longer over the bust", surplus, Source::Rule};
  double front = 0;
  if (taken.has(id::kShoulderToWaist) || !taken.has(id::kBackWaistLength)) {
    front = r.takeOr(id::kShoulderToWaist, 0.247 * stature + surplus, 15,
                     {part(0.247, id::kStature, stature), surplusTerm}, kCommon);
    r.takeOr(id::kBackWaistLength, front - surplus, 12,
             {part(1, id::kShoulderToWaist, front), {'-', surplusTerm.label, surplus, Source::Rule}}, kCommon);
  } else {
    const double back = r.take(id::kBackWaistLength);
    front =
        r.takeOr(id::kShoulderToWaist, back + surplus, 12, {part(1, id::kBackWaistLength, back), surplusTerm}, kCommon);
  }
  const double bustHeight =
      r.takeOr(id::kShoulderToBust, 0.615 * front, 15, {part(0.615, id::kShoulderToWaist, front)}, kCommon);
  if (const auto down = taken.mm(id::kCupDown)) {
    r.takeOr(id::kShoulderToUnderbust, bustHeight + *down, 5,
             {part(1, id::kShoulderToBust, bustHeight), part(1, id::kCupDown, *down)},
             "the cup measured down from the bust point");
  } else {
    const double cup = bust - underbust;
    r.takeOr(id::kShoulderToUnderbust, bustHeight + 0.12 * front + 0.15 * cup, 12,
             {part(1, id::kShoulderToBust, bustHeight),
              part(0.12, id::kShoulderToWaist, front),
              {'+', "0.15 x (bust - underbust)", 0.15 * cup, Source::Computed}},
             kCommon);
  }
  r.takeOr(id::kWaistToHighHip, 0.0615 * stature, 15, {part(0.0615, id::kStature, stature)}, kCommon);
  r.takeOr(id::kWaistToHip, 0.123 * stature, 20, {part(0.123, id::kStature, stature)}, kCommon);
  r.takeOr(id::kShoulderWidth, 105.7 + 0.1156 * stature + 0.0824 * upper, 13.5,
           {constant(105.7), part(0.1156, id::kStature, stature), part(0.0824, id::kUpperBust, upper)}, kRegression);
}

}  // namespace

const Fact& Body::fact(std::string_view id) const {
  for (const Fact& f : facts_)
    if (f.id == id) return f;
  throw std::out_of_range(fmt::format("Body: no measure {}", id));
}

bool Body::has(std::string_view id) const {
  return std::any_of(facts_.begin(), facts_.end(), [&](const Fact& f) { return f.id == id; });
}

Body Body::with(Fact fact) const {
  Body copy = *this;
  std::erase_if(copy.facts_, [&](const Fact& f) { return f.id == fact.id; });
  copy.facts_.push_back(std::move(fact));
  return copy;
}

Figure figureOf(const Body& body) { return figureBy(body.mm(id::kBust), body.mm(id::kUpperBust)); }

Result<Body> resolveBody(const MeasureSet& taken) {
  if (const auto checked = checkTaken(taken); !checked.ok()) return checked.problem();
  Resolver r(taken);
  resolveGirths(r, taken);
  Body girths{Resolver(r).facts()};
  resolveHeights(r, taken, girths.mm(id::kBust), girths.mm(id::kUpperBust), girths.mm(id::kUnderbust));
  const double bust = girths.mm(id::kBust);
  r.takeOr(id::kBustSpan, 0.2 * bust, 12, {part(0.2, id::kBust, bust)},
           "0.16 to 0.24 of the bust; common practice, no source");
  for (std::string_view optional :
       {id::kShoulderToChest, id::kFrontBustArc, id::kFrontUnderbustArc, id::kArmhole, id::kCupDown})
    r.takeIfThere(optional);
  return Body{std::move(r).facts()};
}

}  // namespace armure
