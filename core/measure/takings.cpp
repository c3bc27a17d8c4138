#include "measure/takings.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <stdexcept>

#include "measure/measure_table.h"
#include "quotable.h"

namespace armure {
namespace {

std::string_view trimmed(std::string_view s) {
  const size_t a = s.find_first_not_of(" \t"), b = s.find_last_not_of(" \t");
  return a == std::string_view::npos ? std::string_view{} : s.substr(a, b - a + 1);
}

// "62.5" or "62.5 kg" for weight; lengths as readLength reads them.
Result<Taking> readOne(std::string_view id, std::string_view text, Unit bareUnit) {
  if (id == id::kWeight) {
    const Result<double> kg = parseWeight(text);
    if (!kg.ok()) return kg.problem();
    if (auto problem = measureProblem(id, *kg)) return *problem;
    return Taking{*kg, fmt::format("{} kg", *kg)};
  }
  const Result<TypedLength> length = readLength(text, bareUnit);
  if (!length.ok()) return length.problem();
  if (auto problem = measureProblem(id, length->mm)) return *problem;
  return Taking{length->mm, length->text()};
}

std::string shownTaking(std::string_view id, const Taking& t, Unit unit) {
  if (id == id::kWeight) return fmt::format("{}", t.mm);
  const Result<TypedLength> read = readLength(t.typed, unit);
  const bool saysIt = read.ok() && std::abs(read->mm - t.mm) < 1e-6 && read->unit == unit;
  return saysIt ? read->number : formatLength(t.mm, {unit, 16});
}

}  // namespace

Result<std::vector<Taking>> readTakings(std::string_view id, std::string_view text, Unit bareUnit) {
  std::vector<Taking> takings;
  while (true) {
    const size_t end = std::min(text.find(';'), text.size());
    const std::string_view part = trimmed(text.substr(0, end));
    const bool last = end == text.size();
    if (!(last && part.empty() && !takings.empty())) {  // a semicolon at the end waits for the next taking
      Result<Taking> taking = readOne(id, part, bareUnit);
      if (!taking.ok()) return taking.problem();
      takings.push_back(std::move(taking).value());
    }
    if (takings.size() > kMostTakings)
      return Problem{verbatim(id), msg("there are more than {} takings", kMostTakings), "keep those that agree"};
    if (last) return takings;
    text.remove_prefix(end + 1);
  }
}

Result<double> parseWeight(std::string_view text) {
  std::string_view number = trimmed(text);
  if (number.ends_with("kg")) number.remove_suffix(2);
  const Result<double> kg = parseNumber(number);
  if (kg.ok()) return kg;
  return Problem{verbatim(id::kWeight), msg("\"{}\" is not a weight", quotable(text)), "write kilograms, like 62.5"};
}

TakenMeasure measureOf(std::vector<Taking> takings, Use use, std::string note) {
  if (takings.empty()) throw std::invalid_argument("measureOf: no taking");
  TakenMeasure m{takings.back().mm, takings.front().typed, std::move(note), {}, use};
  if (takings.size() == 1) return m;
  for (size_t i = 1; i < takings.size(); ++i) m.typed += "; " + takings[i].typed;
  if (use == Use::Mean) {
    const double sum = std::accumulate(takings.begin(), takings.end(), 0.0,
                                       [](double total, const Taking& t) { return total + t.mm; });
    m.mm = sum / static_cast<double>(takings.size());
  }
  m.takings = std::move(takings);
  return m;
}

std::vector<Taking> takingsOf(const TakenMeasure& measure) {
  if (!measure.takings.empty()) return measure.takings;
  return {Taking{measure.mm, measure.typed}};
}

double takingSpread(const TakenMeasure& measure) {
  if (measure.takings.empty()) return 0;
  const auto [low, high] = std::minmax_element(measure.takings.begin(), measure.takings.end(),
                                               [](const Taking& a, const Taking& b) { return a.mm < b.mm; });
  return high->mm - low->mm;
}

TakenMeasure takenAgain(const TakenMeasure& measure, Taking taking) {
  std::vector<Taking> takings = takingsOf(measure);
  if (takings.size() == kMostTakings) takings.erase(takings.begin());
  takings.push_back(std::move(taking));
  return measureOf(std::move(takings), measure.use, measure.note);
}

std::string fieldText(std::string_view id, const TakenMeasure& measure, Unit unit) {
  std::string text;
  for (const Taking& t : takingsOf(measure)) text += (text.empty() ? "" : "; ") + shownTaking(id, t, unit);
  return text;
}

}  // namespace armure
