#include "measure/takings.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <stdexcept>

#include "measure/measure_table.h"

namespace armure {
namespace {

std::string_view trimmed(std::string_view s) {
  const size_t a = s.find_first_not_of(" \t"), b = s.find_last_not_of(" \t");
  return a == std::string_view::npos ? std::string_view{} : s.substr(a, b - a + 1);
}

// "62.5" or "62.5 kg" for weight; lengths as parseLength reads them.
Result<Taking> readOne(std::string_view id, std::string_view text, Unit bareUnit) {
  if (id == id::kWeight) {
    if (text.size() > 2 && text.substr(text.size() - 2) == "kg") text = trimmed(text.substr(0, text.size() - 2));
    // A number without a unit reads the same in millimetres; one with a unit of length is no weight.
    const Result<double> kg = parseLength(text, Unit::Millimetre), other = parseLength(text, Unit::Centimetre);
    if (!kg.ok() || *kg == *other)
      return Problem{std::string(id), fmt::format("\"{}\" is not a weight", text), "write kilograms, like 62.5"};
    if (auto problem = measureProblem(id, *kg)) return *problem;
    return Taking{*kg, fmt::format("{} kg", text)};
  }
  const Result<double> mm = parseLength(text, bareUnit);
  if (!mm.ok()) return mm.problem();
  if (auto problem = measureProblem(id, *mm)) return *problem;
  // A text with its own unit reads the same whatever a bare number means.
  const Unit another = bareUnit == Unit::Millimetre ? Unit::Centimetre : Unit::Millimetre;
  const Result<double> otherwise = parseLength(text, another);
  const bool hasOwnUnit = otherwise.ok() && *otherwise == *mm && *mm != 0;
  return Taking{*mm, hasOwnUnit ? std::string(text) : fmt::format("{} {}", text, unitSymbol(bareUnit))};
}

// "92,5cm" into "92,5" and its unit; no unit when there is none.
std::pair<std::string_view, Result<Unit>> numberAndUnit(std::string_view typed) {
  const size_t end = typed.find_last_not_of("abcdefghijklmnopqrstuvwxyz\" \t");
  const size_t number = end == std::string_view::npos ? 0 : end + 1;
  return {typed.substr(0, number), parseUnit(trimmed(typed.substr(number)))};
}

std::string shownTaking(std::string_view id, const Taking& t, Unit unit) {
  const auto [number, own] = numberAndUnit(t.typed);
  if (id == id::kWeight) return number.empty() ? fmt::format("{:g}", t.mm) : std::string(number);
  const Result<double> read = parseLength(t.typed, unit);
  const bool saysIt = read.ok() && std::abs(*read - t.mm) < 1e-6 && (!own.ok() || *own == unit);
  return saysIt ? std::string(own.ok() ? number : t.typed) : formatLength(t.mm, {unit, 16});
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
      return Problem{std::string(id), fmt::format("there are more than {} takings", kMostTakings),
                     "keep those that agree"};
    if (last) return takings;
    text.remove_prefix(end + 1);
  }
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
