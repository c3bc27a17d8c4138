#include "cli/commands.h"

#include <fmt/format.h>

#include <cstdio>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "io/atomic_file.h"
#include "io/measurement_csv.h"
#include "io/order_file.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "measure/measure_table.h"
#include "measure/takings.h"
#include "recalc/recalc.h"
#include "render/print_plan.h"

namespace armure::cli {
namespace {

using Json = nlohmann::ordered_json;

int complain(const Problem& problem) {
  fmt::print(stderr, "armure-cli: {}\n", problem.text());
  return kBadInput;
}

// The same problem, with the file put before the place.
Problem inFile(const std::string& file, Problem problem) {
  problem.where = problem.where.empty() ? file : file + ", " + problem.where;
  return problem;
}

void warn(const std::string& file, const std::vector<std::string>& warnings) {
  for (const std::string& w : warnings) fmt::print(stderr, "armure-cli: {}: {}\n", file, w);
}

// Applies KEY=VALUE: a choice, a measure, or one of title, client, date, notes, style, school, units.
std::optional<Problem> applySetting(Order& order, const std::string& setting) {
  const size_t equals = setting.find('=');
  if (equals == std::string::npos)
    return Problem{setting, "is not of the form KEY=VALUE", "for example hem.length=\"5 in\""};
  const std::string key = setting.substr(0, equals), value = setting.substr(equals + 1);
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
    if (!known)
      return Problem{key, fmt::format("\"{}\" is not known", value), fmt::format("armure-cli {}s lists them", key)};
    (key == "style" ? order.style : order.school) = value;
    return std::nullopt;
  }
  if (key == "units") {
    const Result<Unit> unit = parseUnit(value);
    if (!unit.ok() || unit.value() == Unit::Millimetre)
      return Problem{key, fmt::format("\"{}\" is not known", value), "use in or cm"};
    order.units.unit = unit.value();
    return std::nullopt;
  }
  if (findMeasure(key)) {
    if (value.empty()) {
      order.measures.erase(key);
      return std::nullopt;
    }
    Result<std::vector<Taking>> takings = readTakings(key, value, order.units.unit);
    if (!takings.ok()) return Problem{key, takings.problem().what, takings.problem().remedy};
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

std::string amountText(const CheckRow& r, double v) {
  switch (r.quantity) {
    case Quantity::Length:
      return fmt::format("{:.2f} mm", v);
    case Quantity::Angle:
      return fmt::format("{:.1f} degrees", v);
    case Quantity::Count:
      break;
  }
  return fmt::format("{:.0f}", v);
}

Json rowJson(const CheckRow& r) {
  return {{"check", checkName(r.kind)},
          {"result", r.note   ? "note"
                     : r.pass ? "pass"
                              : "fail"},
          {"subject", r.subject},
          {"detail", r.detail},
          {"amount", r.amount},
          {"limit", r.limit},
          {"unit", r.quantity == Quantity::Length  ? "mm"
                   : r.quantity == Quantity::Angle ? "degree"
                                                   : "count"},
          {"piece", r.piece},
          {"edge", r.edge},
          {"seam", r.seam},
          {"level", r.level},
          {"remedy", r.remedy}};
}

void printSheet(const Order& order, const Design& d) {
  for (const CheckRow& r : d.sheet.rows) {
    if (r.note) {
      fmt::print("note  {:<16} {}: {}{}\n", checkName(r.kind), r.subject, r.detail,
                 r.amount <= 0                ? ""
                 : r.kind == CheckKind::Facts ? fmt::format(" +/- {:.0f} mm", r.amount)
                                              : fmt::format(", {:.1f} mm", r.amount));
    } else if (r.pass) {
      fmt::print("pass  {:<16} {}: {}\n", checkName(r.kind), r.subject, amountText(r, r.amount));
    } else {
      fmt::print("FAIL  {:<16} {}: {}: {} (limit {}); {}\n", checkName(r.kind), r.subject, r.detail,
                 amountText(r, r.amount), amountText(r, r.limit), r.remedy);
    }
  }
  for (const Question& q : d.questions) fmt::print("{:<13} {}\n", severityName(q.severity), q.text);
  const ReductionClass reduction = d.reduction();
  if (reduction.percent > 0) {
    const Level& waist = d.block.levels.at(level::kWaist);
    fmt::print("\nWaist {} closed to {}: {:.1f} % less, {}.\n", formatLengthWithUnit(waist.bodyGirth, order.units),
               formatLengthWithUnit(waist.finishedGirth, order.units), reduction.percent, reduction.name);
    for (std::string_view c : reductionCautions()) fmt::print("{}\n", c);
  }
  if (d.balanced) {
    const BalanceCertificate& c = d.balanced->certificate;
    fmt::print("\nBalanced: a line to cut moves by {:.1f} mm at most, a notch by {:.1f} mm.\n", c.largestAcross,
               c.largestMove);
    for (const EdgeMove& m : d.balanced->moves)
      fmt::print("moved {:5.1f} mm  {}.{}{}, for {}\n", m.largest, d.pattern.pieces[m.piece].id, m.edge,
                 m.near.empty() ? "" : " at the " + m.near, m.why);
  }
  fmt::print("\n{} checks, {} to look at\n", d.sheet.rows.size(), d.sheet.failing());
}

Json balanceJson(const Balanced& b) {
  Json moves = Json::array();
  for (const EdgeMove& m : b.moves)
    moves.push_back({{"piece", b.pattern.pieces[m.piece].id},
                     {"edge", m.edge},
                     {"seam", m.seam},
                     {"mm", m.largest},
                     {"acrossMm", m.across},
                     {"near", m.near},
                     {"why", m.why}});
  const BalanceCertificate& c = b.certificate;
  return {{"converged", c.converged},         {"steps", c.iterations},
          {"largestMoveMm", c.largestMove},   {"largestAcrossMm", c.largestAcross},
          {"worstStretchMm", c.worstStretch}, {"worstGirthMm", c.worstGirth},
          {"unreachable", b.unreachable},     {"moves", std::move(moves)}};
}

Json sheetJson(const Design& d) {
  Json rows = Json::array(), questions = Json::array();
  for (const CheckRow& r : d.sheet.rows) rows.push_back(rowJson(r));
  for (const Question& q : d.questions)
    questions.push_back({{"measure", q.measure}, {"severity", severityName(q.severity)}, {"text", q.text}});
  Json cautions = Json::array();
  if (d.reduction().percent > 0)
    for (std::string_view c : reductionCautions()) cautions.push_back(c);
  Json sheet{{"failing", d.sheet.failing()},
             {"rows", std::move(rows)},
             {"questions", std::move(questions)},
             {"reductionPercent", d.reduction().percent},
             {"cautions", std::move(cautions)}};
  if (d.balanced) sheet["balance"] = balanceJson(*d.balanced);
  return sheet;
}

}  // namespace

int newOrder(const NewArguments& a) {
  const Result<MeasurementFile> measured = readMeasurements(a.measurements);
  if (!measured.ok()) return complain(measured.problem());
  warn(a.measurements, measured->warnings);
  OrderFile file;
  Order& order = file.order;
  order.measures = measured->measures;
  order.client = measured->client;
  order.date = measured->date;
  order.units.unit = measured->unit;
  order.title = a.title.empty() ? (order.client.empty() ? "Bodice" : order.client + ", bodice") : a.title;
  std::vector<std::string> settings{"style=" + a.style, "school=" + a.school};
  settings.insert(settings.end(), a.settings.begin(), a.settings.end());
  for (const std::string& s : settings)
    if (const auto problem = applySetting(order, s)) return complain(*problem);
  const Result<Design> design = recalc(order);
  if (!design.ok()) return complain(inFile(a.measurements, design.problem()));
  for (const Question& question : design->questions)
    if (question.severity != Severity::Note)
      fmt::print(stderr, "armure-cli: {}: please check {}: {}\n", a.measurements, question.measure, question.text);
  if (const auto problem = writeOrder(a.output, file)) return complain(*problem);
  return kDone;
}

int check(const std::string& path, bool asJson) {
  const Result<OrderFile> file = readOrder(path);
  if (!file.ok()) return complain(file.problem());
  warn(path, file->warnings);
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(path, design.problem()));
  if (asJson) {
    fmt::print("{}\n", sheetJson(*design).dump(1));
  } else {
    printSheet(file->order, *design);
  }
  return design->sheet.pass() ? kDone : kFails;
}

int exportFiles(const ExportArguments& a) {
  const Result<OrderFile> file = readOrder(a.order);
  if (!file.ok()) return complain(file.problem());
  warn(a.order, file->warnings);
  if (a.pieces.empty() && a.svg.empty() && a.pdf.empty() && a.measurements.empty())
    return complain({"export", "nothing to export", "name at least one of --pieces, --svg, --pdf, --measurements"});
  if (a.paper != "full" && !findPaper(a.paper))
    return complain({"--paper", fmt::format("\"{}\" is not known", a.paper), "use full, a4, letter, a3 or a0"});
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  const auto write = [](const std::string& path, const std::string& content) {
    return path.empty() ? std::nullopt : writeFileAtomically(path, content);
  };
  if (const auto problem =
          write(a.measurements, writeMeasurements(file->order.measures, file->order.client, file->order.date)))
    return complain(*problem);
  if (!a.pieces.empty())
    if (const auto problem = write(a.pieces, piecesJson(file->order, *design))) return complain(*problem);
  if (!a.svg.empty())
    if (const auto problem = write(a.svg, patternSvg(file->order, *design))) return complain(*problem);
  if (!a.pdf.empty())
    if (const auto problem = writePdf(a.pdf, PrintPlan(file->order, *design, a.paper), file->order.title))
      return complain(*problem);
  return kDone;
}

int set(const std::string& path, const std::vector<std::string>& settings, const std::string& output) {
  const Result<OrderFile> read = readOrder(path);
  if (!read.ok()) return complain(read.problem());
  warn(path, read->warnings);
  OrderFile file = *read;
  for (const std::string& s : settings)
    if (const auto problem = applySetting(file.order, s)) return complain(*problem);
  if (const auto problem = writeOrder(output, file)) return complain(*problem);
  return kDone;
}

int measures(const std::string& path, bool asJson) {
  const Result<OrderFile> file = readOrder(path);
  if (!file.ok()) return complain(file.problem());
  const Result<Body> body = resolveBody(file->order.measures);
  if (!body.ok()) return complain(inFile(path, body.problem()));
  Json rows = Json::array();
  for (const Fact& f : body->facts()) {
    const bool estimated = f.source == Source::Estimated;
    if (asJson) {
      rows.push_back({{"id", f.id}, {"mm", f.mm}, {"source", estimated ? "estimated" : "taken"}, {"spread", f.spread}});
    } else {
      fmt::print("{}\t{:.1f}\t{}\t{}\n", f.id, f.mm, estimated ? "estimated" : "taken",
                 estimated ? fmt::format("+/- {:.1f}", f.spread) : "");
    }
  }
  if (asJson) fmt::print("{}\n", rows.dump(1));
  return kDone;
}

int styles() {
  for (const Preset& p : styleTable()) fmt::print("{}\t{}\n", p.id, p.description);
  return kDone;
}

int schools() {
  for (const Preset& p : schoolTable()) fmt::print("{}\t{}: {}\n", p.id, p.name, p.description);
  return kDone;
}

int keys() {
  for (const RuleInfo& r : ruleTable()) {
    if (r.kind == RuleKind::Option) {
      std::string options;
      for (const RuleOption& o : r.options) options += (options.empty() ? "" : "|") + std::string(o.id);
      fmt::print("{}\toption\t{}\t{}\t{}: {}\n", r.key, options, r.options[0].id, r.label, r.reason);
    } else if (r.kind == RuleKind::Share) {
      fmt::print("{}\tshare\t{:g} to {:g}\t{:g}\t{}: {}\n", r.key, r.lowest, r.highest, r.small, r.label, r.reason);
    } else {
      const std::string value = r.fromMeasures ? "from the measures"
                                : r.small == r.full
                                    ? fmt::format("{:.4g} in", r.small / kMmPerInch)
                                    : fmt::format("{:.4g}, {:.4g}, {:.4g} in by figure", r.small / kMmPerInch,
                                                  r.medium / kMmPerInch, r.full / kMmPerInch);
      fmt::print("{}\tlength\t{:.4g} to {:.4g} in\t{}\t{}: {}\n", r.key, r.lowest / kMmPerInch, r.highest / kMmPerInch,
                 value, r.label, r.reason);
    }
  }
  for (const ShapingForm& f : shapingForms())
    fmt::print("{}\tplace\t{:.4g} to {:.4g} in\t\t{}\n", f.form, f.lowest / kMmPerInch, f.highest / kMmPerInch,
               f.reason);
  for (const SeamForm& f : kSeamForms) fmt::print("{}\tplace\t{}\t\t{}\n", f.form, f.values, f.reason);
  for (const MeasureInfo& m : measureTable()) fmt::print("{}\tmeasure\t\t\t{}: {}\n", m.id, m.name, m.how);
  return kDone;
}

}  // namespace armure::cli
