#include "measure/predict.h"

#include <cmath>
#include <optional>
#include <span>
#include <stdexcept>

#include "measure/body_statistics.h"
#include "measure/figure.h"
#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr const char* kCommon = "common practice, no source";
constexpr const char* kMemory = "a proportion from memory, no source";
constexpr const char* kDrillis =
    "segment lengths as parts of stature; R. Drillis and R. Contini, \"Body Segment Parameters\", New York 1966, from "
    "memory";
constexpr const char* kBreast =
    "the length over the breast of the body form (body/body_form.h), fitted on 130 women; ours";
constexpr const char* kHeinz =
    "regression on 130 women; Heinz, Peterson, Johnson and Kerk, Journal of Statistics Education 11(2), 2003";

// From the bust point over the breast down to the underbust, mm:
//   constant + height x (length along the side from bust to underbust) + bust x (bust - upper bust) + upperBust x
//   (upper bust - underbust)
// Fitted to the body form of 130 women with four cups each, within 2 mm root mean square and 12 mm at most.
constexpr struct { double constant = -6.5, height = 0.754, bust = 0.426, upperBust = 0.187; } kOverBreast;
constexpr double kBackOfStature = 0.247;       // common practice, no source
constexpr double kUnderbustAboveWaist = 0.19;  // of the back waist length; common practice, no source
constexpr double kFromBustPoint = 0.6;         // weight of the estimate from the bust point
// Where no height was taken the bust stands above the underbust by this part of the back waist length, less
// kBustBelowChest.
constexpr double kHeightOfBack = kSideOfBack - kUnderbustAboveWaist;
constexpr double kOverBack = kOverBreast.height * kHeightOfBack,
                 kOverConstant = kOverBreast.constant - kOverBreast.height * kBustBelowChest;

struct Input {
  std::string_view id;
  double factor;
};

// target = constant + sum of factor x input, with its own spread. A row that `needsAll` counts only when every input is
// known; the last row of a target counts in any case.
struct Proportion {
  std::string_view target;
  std::array<Input, 6> inputs;  // unused ones have an empty id
  double constant, spread;      // mm
  bool needsAll;
  const char* source;
};

constexpr std::array kProportions{
    Proportion{id::kBust, {{{id::kUpperBust, 1}}}, 65, 50, false, kCommon},
    Proportion{id::kUnderbust, {{{id::kUpperBust, 0.55}, {id::kWaist, 0.42}}}, 0, 30, false, kCommon},
    Proportion{id::kShoulderToBust,
               {{{id::kShoulderToUnderbust, 1}, {id::kCupDown, -1}}},
               0,
               5,
               true,
               "the cup measured down from the bust point"},
    Proportion{id::kShoulderToBust,
               {{{id::kShoulderToUnderbust, 1},
                 {id::kBackWaistLength, -kOverBack},
                 {id::kBust, -kOverBreast.bust},
                 {id::kUpperBust, kOverBreast.bust - kOverBreast.upperBust},
                 {id::kUnderbust, kOverBreast.upperBust}}},
               -kOverConstant,
               12,
               true,
               kBreast},
    Proportion{id::kShoulderToBust,
               {{{id::kShoulderToWaist, 1},
                 {id::kBackWaistLength, -kUnderbustAboveWaist - kOverBack},
                 {id::kBust, -kOverBreast.bust},
                 {id::kUpperBust, kOverBreast.bust - kOverBreast.upperBust},
                 {id::kUnderbust, kOverBreast.upperBust}}},
               -kOverConstant,
               15,
               false,
               kBreast},
    Proportion{id::kShoulderToUnderbust,
               {{{id::kShoulderToBust, 1}, {id::kCupDown, 1}}},
               0,
               5,
               true,
               "the cup measured down from the bust point"},
    // Two estimates weighted by their spreads: over the breast from the bust point, and above the waist.
    Proportion{id::kShoulderToUnderbust,
               {{{id::kShoulderToBust, kFromBustPoint},
                 {id::kShoulderToWaist, 1 - kFromBustPoint},
                 {id::kBackWaistLength, kFromBustPoint* kOverBack - (1 - kFromBustPoint) * kUnderbustAboveWaist},
                 {id::kBust, kFromBustPoint* kOverBreast.bust},
                 {id::kUpperBust, kFromBustPoint*(kOverBreast.upperBust - kOverBreast.bust)},
                 {id::kUnderbust, -kFromBustPoint* kOverBreast.upperBust}}},
               kFromBustPoint* kOverConstant,
               9,
               false,
               kBreast},
    Proportion{id::kShoulderToChest, {{{id::kShoulderToBust, 1}}}, -kBustBelowChest, 20, false, kCommon},
    Proportion{id::kWaistToHighHip, {{{id::kStature, 0.0615}}}, 0, 15, false, kCommon},
    Proportion{id::kWaistToHip, {{{id::kStature, 0.123}}}, 0, 20, false, kCommon},
    Proportion{id::kSideLength, {{{id::kBackWaistLength, kSideOfBack}}}, 0, 20, false, kCommon},
    Proportion{
        id::kBustSpan, {{{id::kBust, 0.2}}}, 0, 12, false, "0.16 to 0.24 of the bust; common practice, no source"},
    Proportion{id::kFrontBustArc,
               {{{id::kBust, 1}, {id::kUpperBust, -0.5}}},
               0,
               25,
               false,
               "the back keeps half the upper bust; common practice, no source"},
    Proportion{id::kFrontUnderbustArc, {{{id::kUnderbust, 0.5}}}, 0, 20, false, kCommon},
    Proportion{id::kArmhole, {{{id::kUpperBust, 0.48}}}, 0, 30, false, kMemory},
    Proportion{id::kCupDown,
               {{{id::kShoulderToUnderbust, 1}, {id::kShoulderToBust, -1}}},
               0,
               6,
               false,
               "underbust less bust point; common practice, no source"},
    Proportion{"cup_out", {{{id::kBust, 0.5}, {id::kUpperBust, -0.25}, {id::kBustSpan, -0.5}}}, 0, 20, false, kCommon},
    Proportion{"cup_up",
               {{{id::kShoulderToBust, 1}, {id::kShoulderToChest, -1}}},
               inches(1),
               25,
               false,
               "to 1 in above the chest line; common practice, no source"},
    Proportion{"cup_in", {{{id::kBustSpan, 0.5}}}, 0, 12, false, kCommon},
    Proportion{"neck", {{{id::kUpperBust, 0.22}}}, 175, 20, false, kMemory},
    Proportion{"bicep", {{{id::kUpperBust, 0.33}}}, 0, 25, false, kMemory},
    Proportion{"wrist", {{{id::kStature, 0.06}, {id::kUpperBust, 0.07}}}, 0, 10, false, kMemory},
    Proportion{"arm_length", {{{id::kStature, 0.332}}}, 0, 22, false, kDrillis},
    Proportion{"waist_to_knee", {{{"waist_to_floor", 1}, {id::kStature, -0.285}}}, 0, 20, false, kDrillis},
    Proportion{"waist_to_floor", {{{id::kStature, 0.618}}}, 0, 25, false, kCommon},
};

bool isInStatistics(std::string_view id) {
  for (std::string_view one : statisticsMeasures())
    if (one == id) return true;
  return false;
}

size_t place(std::string_view id) {
  const MeasureInfo* row = findMeasure(id);
  if (!row) throw std::out_of_range("no measure " + std::string(id));
  return static_cast<size_t>(row - measureTable().data());
}

// Gathers the terms of one prediction.
class Sum {
 public:
  explicit Sum(const Known& known) : known_(known) {}

  double value(std::string_view id) {
    if (known_.has(id)) return known_.mm(id);
    return predict(id, known_).mm;
  }
  void add(double factor, std::string_view id) {
    double v = 0;
    Source source = Source::Computed;
    if (known_.has(id)) {
      v = known_.mm(id);
    } else {
      const Prediction p = predict(id, known_);
      v = p.mm;
      source = Source::Estimated;
      variance_ += factor * factor * p.spread * p.spread;
    }
    const Message name = armure::known(findMeasure(id)->name);
    add(factor * v, std::abs(factor) == 1 ? name : msg("{:.3g} x {}", std::abs(factor), name), source);
  }
  void add(double mm, Message label, Source source) {
    if (mm != 0) terms_.push_back({mm < 0 ? '-' : '+', std::move(label), std::abs(mm), source});
    total_ += mm;
  }
  Prediction done(double spread, Message note) && {
    return {total_, std::sqrt(variance_ + spread * spread), std::move(terms_), std::move(note)};
  }

 private:
  const Known& known_;
  double total_ = 0, variance_ = 0;
  std::vector<Term> terms_;
};

Prediction byRegression(std::string_view id, const Known& known) {
  std::array<std::string_view, 8> given;
  size_t n = 0;
  bool girth = false;
  for (std::string_view one : statisticsMeasures()) {
    if (one == id || !known.has(one)) continue;
    given[n++] = one;
    girth = girth || one != id::kStature;
  }
  // With no girth of the data set known, the upper bust stands in for the bust.
  if (!girth && id != id::kUpperBust && known.has(id::kBust)) given[n++] = id::kUpperBust;
  const Regression r = regress(id, std::span(given.data(), n));
  Sum sum(known);
  sum.add(r.constant, n == 0 ? Message("mean of 130 women") : Message("constant"), Source::Rule);
  for (const Regression::Part& part : r.parts) sum.add(part.coefficient, part.id);
  return std::move(sum).done(r.spread, armure::known(kHeinz));
}

// The bust tells most about the upper bust, the other girths a little: both estimates, weighted by 1 / spread^2.
Prediction upperBust(const Known& known) {
  Prediction regression = byRegression(id::kUpperBust, known);
  if (!known.has(id::kBust)) return regression;
  const double bust = known.mm(id::kBust);
  const bool both = known.has(id::kUnderbust);
  const double fromBust = both ? 0.55 * bust + 0.45 * known.mm(id::kUnderbust) : 0.92 * bust;
  const double spread = both ? 25 : 35;
  const double a = 1 / (spread * spread), b = 1 / (regression.spread * regression.spread);
  const double share = a / (a + b);
  Sum sum(known);
  sum.add(share * fromBust,
          msg("{:.2f} x ({})", share, Message(both ? "0.55 x Full bust + 0.45 x Underbust" : "0.92 x Full bust")),
          Source::Computed);
  sum.add((1 - share) * regression.mm, msg("{:.2f} x the regression on the other measures", 1 - share),
          Source::Computed);
  return std::move(sum).done(
      std::sqrt(1 / (a + b)),
      msg("common practice for the bust, and {}; weighted by their spreads", armure::known(kHeinz)));
}

// Front and back waist length: one from the other by the usual surplus of the figure, or both from the stature.
double overBreast(double height, double bustOverUpper, double upperOverUnder) {
  return kOverBreast.constant + kOverBreast.height * height + kOverBreast.bust * bustOverUpper +
         kOverBreast.upperBust * upperOverUnder;
}

// How much longer the front is than a back of this length: as the figure has it, or more where the breast alone uses up
// more below the chest line than the side leaves.
Term frontSurplus(Sum& sum, double back, Message& note) {
  const double bustOverUpper = sum.value(id::kBust) - sum.value(id::kUpperBust);
  const FigureClass& figure = figureClass(figureFor(bustOverUpper));
  const double over = overBreast(kHeightOfBack * back - kBustBelowChest, bustOverUpper,
                                 sum.value(id::kUpperBust) - sum.value(id::kUnderbust));
  const double sideDart = kBustBelowChest + over + (kUnderbustAboveWaist - kSideOfBack) * back;
  const bool byFigure = figure.frontSurplus >= sideDart;
  const Message label = "front longer over the bust";
  note = byFigure ? msg("{} of a {}; {}", label, armure::known(figure.name), armure::known(kCommon))
                  : msg("{}: {}", label, armure::known(kBreast));
  return {'+', label, std::max(figure.frontSurplus, sideDart), Source::Rule};
}

// Front and back waist length: one from the other by the front's surplus, or both from the stature.
Prediction waistLength(std::string_view id, const Known& known) {
  Sum sum(known);
  const bool front = id == id::kShoulderToWaist;
  const std::string_view other = front ? id::kBackWaistLength : id::kShoulderToWaist;
  Message note = armure::known(kCommon);
  if (!front && !known.has(other)) {
    sum.add(kBackOfStature, id::kStature);
    return std::move(sum).done(15, note);
  }
  const Term surplus = frontSurplus(sum, sum.value(other), note);
  if (known.has(other)) {
    sum.add(1, other);
    sum.add(front ? surplus.mm : -surplus.mm, surplus.label, Source::Rule);
    return std::move(sum).done(12, note);
  }
  sum.add(kBackOfStature, id::kStature);
  sum.add(surplus.mm, surplus.label, Source::Rule);
  return std::move(sum).done(15, note);
}

Prediction byProportion(std::string_view id, const Known& known) {
  const Proportion* chosen = nullptr;
  for (const Proportion& row : kProportions) {
    if (row.target != id) continue;
    bool all = true;
    for (const Input& in : row.inputs) all = all && (in.id.empty() || known.has(in.id));
    chosen = &row;
    if (all || !row.needsAll) break;
  }
  if (!chosen) throw std::logic_error("no way to predict " + std::string(id));
  Sum sum(known);
  for (const Input& in : chosen->inputs)
    if (!in.id.empty()) sum.add(in.factor, in.id);
  sum.add(chosen->constant, Message("constant"), Source::Rule);
  return std::move(sum).done(chosen->spread, armure::known(chosen->source));
}

}  // namespace

Known::Known(const MeasureSet& taken) {
  for (const auto& [id, m] : taken.all())
    if (findMeasure(id)) set(id, m.mm);
}

bool Known::has(std::string_view id) const { return (known_ >> place(id) & 1) != 0; }

double Known::mm(std::string_view id) const { return mm_.at(place(id)); }

void Known::set(std::string_view id, double mm) {
  mm_.at(place(id)) = mm;
  known_ |= uint64_t{1} << place(id);
}

Known Known::without(std::string_view id) const {
  Known copy = *this;
  copy.known_ &= ~(uint64_t{1} << place(id));
  return copy;
}

double lengthOverBreast(const Known& known) {
  const auto value = [&](std::string_view id) { return known.has(id) ? known.mm(id) : predict(id, known).mm; };
  const double aboveWaist = known.has(id::kShoulderToUnderbust)
                                ? value(id::kShoulderToWaist) - known.mm(id::kShoulderToUnderbust)
                                : kUnderbustAboveWaist * value(id::kBackWaistLength);
  const double belowChest =
      known.has(id::kShoulderToChest) ? value(id::kShoulderToBust) - known.mm(id::kShoulderToChest) : kBustBelowChest;
  return overBreast(value(id::kSideLength) - belowChest - aboveWaist, value(id::kBust) - value(id::kUpperBust),
                    value(id::kUpperBust) - value(id::kUnderbust));
}

Prediction predict(std::string_view id, const Known& all) {
  const Known known = all.without(id);
  if (id == id::kUpperBust) return upperBust(known);
  if (id == id::kShoulderToWaist || id == id::kBackWaistLength) return waistLength(id, known);
  return isInStatistics(id) ? byRegression(id, known) : byProportion(id, known);
}

double anyMeasure(const Body& body, std::string_view id) {
  if (body.has(id)) return body.mm(id);
  Known known;
  for (const Fact& f : body.facts()) known.set(f.id, f.mm);
  return predict(id, known).mm;
}

}  // namespace armure
