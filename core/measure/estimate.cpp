#include "measure/estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

#include "measure/measure_table.h"
#include "measure/predict.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kWaistOverBustLimit = 250;  // mm: beyond, no bodice of this kind can be drafted

Fact takenFact(const MeasureInfo& row, const TakenMeasure& m) {
  Working working{fmt::format("measure.{}", row.id), msg("{}, taken", known(row.name)), {}, m.mm, ""};
  const double share = m.use == Use::Mean && !m.takings.empty() ? 1.0 / static_cast<double>(m.takings.size()) : 1;
  if (share < 1) {
    for (const Taking& t : m.takings)
      working.terms.push_back(
          {'+', msg("taken as {}, 1/{} of it", t.typed, m.takings.size()), share * t.mm, Source::Taken});
  } else {
    const std::string typed = m.takings.empty() ? m.typed : m.takings.back().typed;
    working.terms.push_back(
        {'+', msg("taken as {}", typed.empty() ? Message("a number") : verbatim(typed)), m.mm, Source::Taken});
  }
  return {std::string(row.id), m.mm, 0, Source::Taken, std::move(working)};
}

Fact estimatedFact(const MeasureInfo& row, const Known& known) {
  Prediction p = predict(row.id, known);
  Working working{fmt::format("measure.{}", row.id), msg("{}, estimated", armure::known(row.name)), std::move(p.terms),
                  p.mm, std::move(p.note)};
  return {std::string(row.id), p.mm, p.spread, Source::Estimated, std::move(working)};
}

Result<bool> checkTaken(const MeasureSet& taken) {
  for (const MeasureInfo& row : measureTable()) {
    const auto value = taken.mm(row.id);
    if (row.need == Need::Required && !value)
      return Problem{verbatim(row.id), msg("{} was not taken", known(row.name)), "the draft needs bust and waist"};
    if (!value) continue;
    if (auto problem = measureProblem(row.id, *value)) return *problem;
  }
  const double over = *taken.mm(id::kWaist) - *taken.mm(id::kBust);
  if (over > kWaistOverBustLimit)
    return Problem{"waist", msg("the waist is {} more than the bust", Length{over}),
                   "measure both again; a bodice can be drafted up to 25 cm over"};
  return true;
}

}  // namespace

const Fact& Body::fact(std::string_view id) const {
  for (const Fact& f : facts_)
    if (f.id == id) return f;
  throw std::out_of_range(fmt::format("Body: no measure {}", id));
}

const Fact* Body::find(std::string_view measureId) const {
  const auto found = std::find_if(facts_.begin(), facts_.end(), [&](const Fact& f) { return f.id == measureId; });
  return found == facts_.end() ? nullptr : &*found;
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

Figure figureOf(const Body& body) { return figureFor(body.mm(id::kBust) - body.mm(id::kUpperBust)); }

Fact factOf(std::string_view measure, const MeasureSet& taken) {
  const MeasureInfo* row = findMeasure(measure);
  if (!row) throw std::out_of_range(fmt::format("factOf: no measure {}", measure));
  if (const TakenMeasure* m = taken.find(measure)) return takenFact(*row, *m);
  return estimatedFact(*row, Known(taken));
}

Body completeBody(const MeasureSet& taken) {
  const Known known(taken);
  std::vector<Fact> facts;
  for (const MeasureInfo& row : measureTable()) {
    if (const TakenMeasure* m = taken.find(row.id)) {
      facts.push_back(takenFact(row, *m));
    } else if (row.need == Need::Required || row.need == Need::Reached || row.need == Need::Estimated) {
      facts.push_back(estimatedFact(row, known));
    }
  }
  return Body{std::move(facts)};
}

Result<Body> resolveBody(const MeasureSet& taken) {
  if (const auto checked = checkTaken(taken); !checked.ok()) return checked.problem();
  return completeBody(taken);
}

}  // namespace armure
