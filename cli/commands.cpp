#include "cli/commands.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "io/atomic_file.h"
#include "io/bounded_json.h"
#include "io/file_kind.h"
#include "io/measurement_csv.h"
#include "io/order_file.h"
#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"
#include "recalc/idle.h"
#include "recalc/recalc.h"
#include "render/exporters.h"
#include "rules/nearest.h"
#include "rules/paper_table.h"
#include "rules/prepare_rules.h"
#include "units/language.h"

namespace armure::cli {
namespace {

Problem unknownPreset(const std::string& kind, const std::string& value) {
  std::vector<std::string_view> words;
  for (const Preset& p : kind == "style" ? styleTable() : schoolTable()) words.push_back(p.id);
  const auto meant = nearest(value, words);
  return {verbatim(kind), msg("\"{}\" is not known", quotable(value)),
          meant ? msg("did you mean {}? armure-cli {}s lists them", verbatim(*meant), kind)
                : msg("armure-cli {}s lists them", kind)};
}

std::optional<Problem> applySetting(Order& order, const std::string& setting);

}  // namespace

std::optional<Problem> applySettings(Order& order, const std::vector<std::string>& settings) {
  for (const std::string& s : settings)
    if (auto problem = applySetting(order, s)) return problem;
  return choicesProblem(order.choices);
}

void tellFailing(const std::string& file, const Design& design) {
  if (const size_t failing = design.sheet.failing(); failing > 0)
    fmt::print(stderr, "armure-cli: {}: {} of the balance sheet; armure-cli check lists them\n", nameOf(file),
               failing == 1 ? std::string("a row fails") : fmt::format("{} rows fail", failing));
}

void tell(Printer& out, const std::string& file, const Order& order, const Design& design, bool asJson) {
  tellFailing(file, design);
  Json idle = Json::array();
  for (const Idle& i : idleIn(order, design)) {
    if (asJson)
      idle.push_back({{"key", i.key}, {"reason", english(i.reason)}});
    else if (file == kStream)
      fmt::print(stderr, "idle  {}: {}\n", quotable(i.key), english(i.reason));
    else
      out.print("idle  {}: {}\n", quotable(i.key), english(i.reason));
  }
  if (asJson) out.print("{}\n", text({{"file", file}, {"failing", design.sheet.failing()}, {"idle", std::move(idle)}}));
}

namespace {

// Applies KEY=VALUE: a choice, a measure, or one of title, client, date, notes, style, school, units.
std::optional<Problem> applySetting(Order& order, const std::string& setting) {
  const size_t equals = setting.find('=');
  if (equals == std::string::npos)
    return Problem{verbatim(quotable(setting)), "is not of the form KEY=VALUE", "for example hem.length=\"5 in\""};
  const std::string key = setting.substr(0, equals), value = setting.substr(equals + 1);
  if (!isUtf8(setting)) return Problem{verbatim(quotable(setting)), "is not text in UTF-8", "write it in UTF-8"};
  for (const auto& [name, member] : {std::pair<const char*, std::string*>{"title", &order.title},
                                     {"client", &order.client},
                                     {"date", &order.date},
                                     {"notes", &order.notes}}) {
    if (key != name) continue;
    *member = value;
    return std::nullopt;
  }
  if (key == "style" || key == "school") {
    const bool known = key == "style" ? findStyle(value) != nullptr : findSchool(value) != nullptr;
    if (!known) return unknownPreset(key, value);
    (key == "style" ? order.style : order.school) = value;
    return std::nullopt;
  }
  if (key == "units") {
    const Result<Unit> unit = parseUnit(value);
    if (!unit.ok() || unit.value() == Unit::Millimetre)
      return Problem{verbatim(key), msg("\"{}\" is not known", quotable(value)), "use in or cm"};
    order.units.unit = unit.value();
    return std::nullopt;
  }
  if (findMeasure(key)) {
    if (value.empty()) {
      order.measures.erase(key);
      return std::nullopt;
    }
    Result<std::vector<Taking>> takings = readTakings(key, value, order.units.unit);
    if (!takings.ok()) return Problem{verbatim(key), takings.problem().what, takings.problem().remedy};
    order.measures.set(key, measureOf(std::move(takings).value(), Use::Last, ""));
    return std::nullopt;
  }
  if (value.empty()) {
    order.choices.erase(key);
    return std::nullopt;
  }
  const Result<std::string> choice = checkChoice(key, value, order.units.unit);
  if (!choice.ok()) return choice.problem();
  order.choices[key] = *choice;
  return std::nullopt;
}

}  // namespace

int newOrder(Printer& out, const NewArguments& a) {
  const Result<MeasurementFile> measured = measurementsFrom(a.measurements);
  if (!measured.ok()) return complain(measured.problem());
  if (const auto problem = whyNotTo(a.output, FileKind::Order, {a.measurements}, a.force)) return complain(*problem);
  warn(a.measurements, measured->warnings);
  OrderFile file;
  Order& order = file.order;
  order.measures = measured->measures;
  order.client = measured->client;
  order.date = measured->date;
  order.units.unit = measured->unit;
  order.title = a.title.empty() ? (order.client.empty() ? "Bodice" : order.client + ", bodice") : a.title;
  order.choices = choicesOfNewOrders();
  std::vector<std::string> settings{"title=" + order.title, "style=" + a.style, "school=" + a.school};
  settings.insert(settings.end(), a.settings.begin(), a.settings.end());
  if (const auto problem = applySettings(order, settings)) return complain(*problem);
  const Result<Design> design = recalc(order);
  if (!design.ok()) return complain(inFile(a.measurements, design.problem()));
  for (const Question& question : design->questions)
    if (question.severity != Severity::Note)
      fmt::print(stderr, "armure-cli: {}: please check {}: {}\n", nameOf(a.measurements), question.measure,
                 say(question.text, order.units));
  if (const auto problem = orderTo(out, a.output, file)) return complain(*problem);
  tell(out, a.output, order, *design, a.json);
  return kDone;
}

int set(Printer& out, const SetArguments& a) {
  const Result<OrderFile> read = orderToChange(a.order);
  if (!read.ok()) return complain(read.problem());
  if (const auto problem = whyNotTo(a.output, FileKind::Order, {a.order}, a.force)) return complain(*problem);
  warn(a.order, read->warnings);
  OrderFile file = *read;
  if (const auto problem = applySettings(file.order, a.settings)) return complain(*problem);
  const Result<Design> design = recalc(file.order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  if (const auto problem = orderTo(out, a.output, file)) return complain(*problem);
  tell(out, a.output, file.order, *design, a.json);
  return kDone;
}

int measures(Printer& out, const std::string& path, bool asJson) {
  const Result<OrderFile> file = orderFrom(out, path);
  if (!file.ok()) return complain(file.problem());
  const Result<Body> body = resolveBody(file->order.measures);
  if (!body.ok()) return complain(inFile(path, body.problem()));
  Json rows = Json::array();
  for (const Fact& f : body->facts()) {
    const bool estimated = f.source == Source::Estimated;
    if (asJson) {
      rows.push_back({{"id", f.id}, {"mm", f.mm}, {"source", estimated ? "estimated" : "taken"}, {"spread", f.spread}});
    } else {
      const auto said = [&](double mm) {  // the weight is no length
        return out.units && f.id != id::kWeight ? formatLengthWithUnit(mm, file->order.units)
                                                : fmt::format("{:.1f}", mm);
      };
      out.print("{}\t{}\t{}\t{}\n", f.id, said(f.mm), estimated ? "estimated" : "taken",
                estimated ? "+/- " + said(f.spread) : "");
    }
  }
  if (asJson) out.print("{}\n", text(rows));
  return kDone;
}

}  // namespace armure::cli
