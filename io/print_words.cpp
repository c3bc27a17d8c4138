#include "io/print_words.h"

#include <fmt/format.h>

#include "measure/measure_table.h"
#include "units/language.h"

namespace armure {
namespace {

std::string joined(const std::vector<std::string>& parts, const std::string& between) {
  std::string all;
  for (const std::string& p : parts) all += (all.empty() ? "" : between) + p;
  return all;
}

std::string lowerFirst(std::string text) {
  if (!text.empty() && text[0] >= 'A' && text[0] <= 'Z') text[0] = static_cast<char>(text[0] - 'A' + 'a');
  return text;
}

}  // namespace

std::string printTitle(const Order& order) { return order.title.empty() ? "Untitled order" : order.title; }

std::string printSubtitle(const Order& order) {
  std::vector<std::string> facts;
  for (const std::string& s : {order.client, order.date})
    if (!s.empty()) facts.push_back(s);
  if (const Preset* style = findStyle(order.style)) facts.emplace_back(style->name);
  if (const Preset* school = findSchool(order.school)) facts.emplace_back(school->name);
  return joined(facts, " · ");
}

std::vector<PrintWords> printFacts(const Order& order, const Design& design) {
  constexpr size_t kMostRows = 6;
  std::vector<PrintWords> said;
  std::vector<std::string> estimated;
  for (const Fact& f : design.body.facts())
    if (f.source == Source::Estimated && f.id != id::kStature)
      estimated.push_back(fmt::format("{} {} ± {}", lowerFirst(std::string(findMeasure(f.id)->name)),
                                      formatLengthWithUnit(f.mm, order.units), formatLength(f.spread, order.units)));
  said.push_back(
      {true, estimated.empty() ? "Every measure was taken." : "Estimated, not taken: measure before cutting"});
  if (!estimated.empty()) said.push_back({false, joined(estimated, ", ") + "."});
  const size_t failing = design.sheet.failing(), advice = design.sheet.count(Verdict::Advice);
  const std::string consider = advice == 0 ? "" : fmt::format("; {} to consider", advice);
  said.push_back({true, failing == 0 ? "Balance sheet: every check passes" + consider + "."
                                     : fmt::format("Balance sheet: {} to mend before cutting{}", failing, consider)});
  std::vector<std::string> rows;
  for (const CheckRow& r : design.sheet.rows)
    if (r.fails() && rows.size() < kMostRows)
      rows.push_back(english(r.subject) + (r.quantity == Quantity::Length
                                               ? " " + formatLengthWithUnit(r.amount, {Unit::Millimetre, 8})
                                               : std::string()));
  if (!rows.empty()) said.push_back({false, joined(rows, "; ") + (failing > kMostRows ? "; and others." : ".")});
  return said;
}

std::vector<PrintWords> printCautions(const Order& order, const Design& design) {
  const ReductionClass reduction = design.reduction();
  if (reduction.percent <= 0) return {};
  std::vector<std::string> cautions(reductionCautions().begin(), reductionCautions().end());
  return {
      {true, fmt::format("Waist {}, closed {}: {:.1f} % less, {}", formatLengthWithUnit(reduction.body, order.units),
                         formatLengthWithUnit(reduction.finished, order.units), reduction.percent, reduction.name)},
      {false, joined(cautions, " ")}};
}

std::vector<std::string> wrappedLines(const std::string& text, size_t letters) {
  std::vector<std::string> lines(1);
  for (size_t at = 0; at < text.size();) {
    const size_t end = std::min(text.find(' ', at), text.size());
    const std::string word = text.substr(at, end - at);
    if (!lines.back().empty() && lines.back().size() + 1 + word.size() > letters) lines.emplace_back();
    lines.back() += (lines.back().empty() ? "" : " ") + word;
    at = end + 1;
  }
  return lines;
}

}  // namespace armure
