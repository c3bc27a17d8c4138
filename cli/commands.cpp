#include "cli/commands.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "cli/complaints.h"
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

void tell(Printer& out, const std::string& file, const Order& order, const Design& design) {
  if (const size_t failing = design.sheet.failing(); failing > 0)
    fmt::print(stderr, "armure-cli: {}: {} of the balance sheet; armure-cli check lists them\n", quotable(file),
               failing == 1 ? std::string("a row fails") : fmt::format("{} rows fail", failing));
  for (const Idle& i : idleIn(order, design)) out.print("idle  {}: {}\n", quotable(i.key), english(i.reason));
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

Json rowJson(const CheckRow& r, LengthFormat units) {
  return {{"check", checkName(r.kind)},
          {"result", verdictName(r.verdict)},
          {"subject", english(r.subject)},
          {"detail", say(r.detail, units)},
          {"amount", r.amount},
          {"limit", r.limit},
          {"unit", r.quantity == Quantity::Length  ? "mm"
                   : r.quantity == Quantity::Angle ? "degree"
                                                   : "count"},
          {"piece", r.piece},
          {"edge", r.edge},
          {"seam", r.seam},
          {"level", r.level},
          {"remedy", say(r.remedy, units)}};
}

void printRow(Printer& out, const CheckRow& r, LengthFormat units) {
  const std::string subject = english(r.subject), detail = say(r.detail, units);
  switch (r.verdict) {
    case Verdict::Fail:
    case Verdict::Advice:
      return out.print("{:<5} {:<16} {}: {}: {} (limit {}); {}\n", r.fails() ? "FAIL" : "advice", checkName(r.kind),
                       subject, detail, amountText(r, r.amount), amountText(r, r.limit), say(r.remedy, units));
    case Verdict::Note:
      return out.print("{:<5} {:<16} {}: {}{}\n", r.kind == CheckKind::Idle ? "idle" : "note", checkName(r.kind),
                       subject, detail,
                       r.amount <= 0                ? ""
                       : r.kind == CheckKind::Facts ? fmt::format(" +/- {:.0f} mm", r.amount)
                                                    : fmt::format(", {:.1f} mm", r.amount));
    case Verdict::Pass:
      break;
  }
  out.print("{:<5} {:<16} {}: {}\n", "pass", checkName(r.kind), subject, amountText(r, r.amount));
}

void printSheet(Printer& out, const Order& order, const Design& d) {
  for (const CheckRow& r : d.sheet.rows) printRow(out, r, order.units);
  for (const Question& q : d.questions) out.print("{:<13} {}\n", severityName(q.severity), say(q.text, order.units));
  const ReductionClass reduction = d.reduction();
  if (reduction.percent > 0) {
    out.print("\nWaist {} closed to {}: {:.1f} % less, {}.\n", formatLengthWithUnit(reduction.body, order.units),
              formatLengthWithUnit(reduction.finished, order.units), reduction.percent, reduction.name);
    for (std::string_view c : reductionCautions()) out.print("{}\n", c);
  }
  if (d.balanced) {
    const BalanceCertificate& c = d.balanced->certificate;
    out.print("\nBalanced: a line to cut moves by {:.1f} mm at most, a notch by {:.1f} mm.\n", c.largestAcross,
              c.largestMove);
    for (const EdgeMove& m : d.balanced->moves)
      out.print("moved {:5.1f} mm  {}.{}{}, for {}\n", m.largest, d.pattern.pieces[m.piece].id, m.edge,
                m.near.empty() ? "" : " at the " + m.near, english(m.why));
  }
  out.print("\n{} checks, {} to mend, {} to consider\n", d.sheet.rows.size(), d.sheet.failing(),
            d.sheet.count(Verdict::Advice));
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
                     {"why", english(m.why)}});
  Json unreachable = Json::array();
  for (const Unreachable& u : b.unreachable) unreachable.push_back(english(wordsOf(u, b.pattern).line()));
  const BalanceCertificate& c = b.certificate;
  return {{"converged", c.converged},
          {"steps", c.iterations},
          {"largestMoveMm", c.largestMove},
          {"largestAcrossMm", c.largestAcross},
          {"worstStretchMm", c.worstStretch},
          {"worstGirthMm", c.worstGirth},
          {"unreachable", std::move(unreachable)},
          {"moves", std::move(moves)}};
}

Json sheetJson(const Design& d, LengthFormat units) {
  Json rows = Json::array(), questions = Json::array();
  for (const CheckRow& r : d.sheet.rows) rows.push_back(rowJson(r, units));
  for (const Question& q : d.questions)
    questions.push_back({{"measure", q.measure}, {"severity", severityName(q.severity)}, {"text", say(q.text, units)}});
  Json cautions = Json::array();
  if (d.reduction().percent > 0)
    for (std::string_view c : reductionCautions()) cautions.push_back(c);
  Json sheet{{"failing", d.sheet.failing()},
             {"advice", d.sheet.count(Verdict::Advice)},
             {"rows", std::move(rows)},
             {"questions", std::move(questions)},
             {"reductionPercent", d.reduction().percent},
             {"cautions", std::move(cautions)}};
  if (d.balanced) sheet["balance"] = balanceJson(*d.balanced);
  return sheet;
}

}  // namespace

int newOrder(Printer& out, const NewArguments& a) {
  const Result<MeasurementFile> measured = readMeasurements(a.measurements);
  if (!measured.ok()) return complain(measured.problem());
  if (const auto problem = whyNotWritten({a.output, FileKind::Order}, {a.measurements}, a.force))
    return complain(*problem);
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
      fmt::print(stderr, "armure-cli: {}: please check {}: {}\n", quotable(a.measurements), question.measure,
                 say(question.text, order.units));
  if (const auto problem = writeOrder(a.output, file)) return complain(*problem);
  tell(out, a.output, order, *design);
  return kDone;
}

int check(Printer& out, const std::string& path, bool asJson) {
  const Result<OrderFile> file = readOrder(path);
  if (!file.ok()) return complain(file.problem());
  warn(path, file->warnings);
  Result<Design> made = recalc(file->order);
  if (!made.ok()) return complain(inFile(path, made.problem()));
  Design design = std::move(made).value();
  std::vector<std::pair<std::string, Message>> idle;
  for (const Idle& i : idleIn(file->order, design)) idle.emplace_back(i.key, i.reason);
  addIdleRows(design.sheet, idle);
  if (asJson) {
    out.print("{}\n", sheetJson(design, file->order.units).dump(1, ' ', false, Json::error_handler_t::replace));
  } else {
    printSheet(out, file->order, design);
  }
  return design.sheet.pass() ? kDone : kFails;
}

// The files a command is to write, checked against each other and against what stands there.
std::optional<Problem> whyNotExported(const std::vector<Replacing>& targets, const std::string& input, bool force) {
  for (size_t i = 0; i < targets.size(); ++i) {
    if (auto problem = whyNotWritten(targets[i], {input}, force)) return problem;
    std::error_code error;
    for (size_t k = 0; k < i; ++k)
      if (targets[k].path == targets[i].path || std::filesystem::equivalent(targets[k].path, targets[i].path, error))
        return Problem{verbatim(quotable(targets[i].path.string())), "two exports have this name", "give each its own"};
  }
  return std::nullopt;
}

std::string papersInWords() {
  std::string all;
  for (size_t i = 0; i < kPaperTable.size(); ++i)
    all += fmt::format("{}{}", i == 0 ? "" : i + 1 < kPaperTable.size() ? ", " : " or ", kPaperTable[i].id);
  return all;
}

namespace {

bool isPaper(std::string_view id) {
  return std::any_of(kPaperTable.begin(), kPaperTable.end(), [&](const PaperSize& p) { return p.id == id; });
}

// What is asked for of the order's own paper, another, or a roll, and of which pieces.
Result<PrintWishes> wishesOf(const ExportArguments& a, const Design& design, LengthFormat units) {
  constexpr double kNarrowest = 200, kWidest = 2000;  // mm
  PrintWishes wishes{std::string(design.rules.option(key::kPaperSize)), design.rules.length(key::kPaperRoll), {}};
  if (!a.paper.empty()) wishes.paper = a.paper;
  if (!a.roll.empty()) {
    const Result<double> width = parseLength(a.roll, units.unit);
    if (!width.ok()) return Problem{"--roll", width.problem().what, width.problem().remedy};
    if (*width < kNarrowest || *width > kWidest)
      return Problem{"--roll", msg("\"{}\" is no width of a roll", quotable(a.roll)),
                     msg("give a width between {} and {}", Length{kNarrowest}, Length{kWidest})};
    if (!a.paper.empty() && a.paper != kPaperTable.back().id)
      return Problem{"--roll", msg("--paper {} is asked for too", verbatim(a.paper)), "leave one of the two away"};
    wishes.paper = kPaperTable.back().id;
    wishes.roll = *width;
  }
  if (a.only.empty() && a.layers.empty()) return wishes;
  Result<std::vector<size_t>> pieces = choosePieces(design.pattern, a.only, a.layers);
  if (!pieces.ok()) return pieces.problem();
  wishes.pieces = std::move(pieces).value();
  return wishes;
}

}  // namespace

int exportFiles(Printer&, const ExportArguments& a) {
  const Result<OrderFile> file = readOrder(a.order);
  if (!file.ok()) return complain(file.problem());
  warn(a.order, file->warnings);
  std::vector<const Exporter*> wanted;
  std::vector<Replacing> targets;
  std::string options;
  for (const Exporter& e : exporterTable()) {
    options += fmt::format("{}--{}", options.empty() ? "" : ", ", e.id);
    const auto named = a.files.find(e.id);
    if (named == a.files.end() || named->second.empty()) continue;
    wanted.push_back(&e);
    targets.push_back({named->second, e.kind});
  }
  if (targets.empty()) return complain({"export", "nothing to export", msg("name at least one of {}", options)});
  if (!a.paper.empty() && !isPaper(a.paper))
    return complain({"--paper", msg("\"{}\" is not known", quotable(a.paper)), msg("use {}", papersInWords())});
  if (const auto problem = whyNotExported(targets, a.order, a.force)) return complain(*problem);
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  const Result<PrintWishes> wishes = wishesOf(a, *design, file->order.units);
  if (!wishes.ok()) return complain(wishes.problem());
  const bool ofSome = !a.only.empty() || !a.layers.empty();
  for (const Exporter* e : wanted)
    if (ofSome && !e->ofPieces)
      return complain({verbatim(fmt::format("--{}", e->id)), "it always has everything",
                       "leave --only and --layers away, or write it by itself"});
  std::vector<FileToWrite> files;
  for (size_t i = 0; i < wanted.size(); ++i)
    files.push_back({targets[i].path, wanted[i]->make(file->order, &*design, *wishes), wanted[i]->readers});
  if (const auto problem = writeFilesAtomically(files)) return complain(*problem);
  if (const size_t failing = design->sheet.failing(); failing > 0)
    fmt::print(stderr, "armure-cli: {}: {} of the balance sheet; armure-cli check lists them\n", quotable(a.order),
               failing == 1 ? std::string("a row fails") : fmt::format("{} rows fail", failing));
  return kDone;
}

int set(Printer& out, const SetArguments& a) {
  const Result<OrderFile> read = readOrder(a.order);
  if (!read.ok()) return complain(read.problem());
  if (const auto problem = whyNotWritten({a.output, FileKind::Order}, {a.order}, a.force)) return complain(*problem);
  warn(a.order, read->warnings);
  OrderFile file = *read;
  if (const auto problem = applySettings(file.order, a.settings)) return complain(*problem);
  const Result<Design> design = recalc(file.order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  if (const auto problem = writeOrder(a.output, file)) return complain(*problem);
  tell(out, a.output, file.order, *design);
  return kDone;
}

int measures(Printer& out, const std::string& path, bool asJson) {
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
      out.print("{}\t{:.1f}\t{}\t{}\n", f.id, f.mm, estimated ? "estimated" : "taken",
                estimated ? fmt::format("+/- {:.1f}", f.spread) : "");
    }
  }
  if (asJson) out.print("{}\n", rows.dump(1, ' ', false, Json::error_handler_t::replace));
  return kDone;
}

int styles(Printer& out) {
  for (const Preset& p : styleTable()) out.print("{}\t{}\n", p.id, p.description);
  return kDone;
}

int schools(Printer& out) {
  for (const Preset& p : schoolTable()) out.print("{}\t{}: {}\n", p.id, p.name, p.description);
  return kDone;
}

int keys(Printer& out) {
  for (const RuleInfo& r : ruleTable()) {
    if (r.kind == RuleKind::Option) {
      std::string options;
      for (const RuleOption& o : r.options) options += (options.empty() ? "" : "|") + std::string(o.id);
      out.print("{}\toption\t{}\t{}\t{}: {}\n", r.key, options, r.options[0].id, r.label, r.reason);
    } else if (r.kind == RuleKind::Share) {
      out.print("{}\tshare\t{:g} to {:g}\t{:g}\t{}: {}\n", r.key, r.lowest, r.highest, r.small, r.label, r.reason);
    } else {
      const std::string value = r.fromMeasures ? "from the measures"
                                : r.small == r.full
                                    ? fmt::format("{:.4g} in", r.small / kMmPerInch)
                                    : fmt::format("{:.4g}, {:.4g}, {:.4g} in by figure", r.small / kMmPerInch,
                                                  r.medium / kMmPerInch, r.full / kMmPerInch);
      out.print("{}\tlength\t{:.4g} to {:.4g} in\t{}\t{}: {}\n", r.key, r.lowest / kMmPerInch, r.highest / kMmPerInch,
                value, r.label, r.reason);
    }
  }
  for (const ShapingForm& f : shapingForms())
    out.print("{}\tplace\t{:.4g} to {:.4g} in\t\t{}\n", f.form, f.lowest / kMmPerInch, f.highest / kMmPerInch,
              f.reason);
  for (const PrepareForm& f : prepareForms()) out.print("{}\tplace\t{}\t\t{}\n", f.form, f.values, f.reason);
  for (const TrimForm& f : trimForms()) out.print("{}\tplace\t{}\t\t{}\n", f.form, f.values, f.reason);
  for (const SeamForm& f : kSeamForms) out.print("{}\tplace\t{}\t\t{}\n", f.form, f.values, f.reason);
  for (const MeasureInfo& m : measureTable()) out.print("{}\tmeasure\t\t\t{}: {}\n", m.id, m.name, m.how);
  return kDone;
}

}  // namespace armure::cli
