#include "cli/alter_commands.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "alter/wish.h"
#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "cli/said.h"
#include "io/base_file.h"
#include "io/bounded_json.h"
#include "io/file_kind.h"
#include "io/measurement_csv.h"
#include "io/order_file.h"
#include "order/free_id.h"
#include "order/order_words.h"
#include "recalc/bases.h"
#include "recalc/recalc.h"
#include "units/language.h"

namespace armure::cli {
namespace {

double plainMm(double mm) { return std::round(mm * 1e6) / 1e6; }

// CELL=LENGTH, written over cells of the shift table.
std::optional<Problem> writeCells(Recalculation& into, const std::vector<std::string>& cells, Unit unit) {
  for (const std::string& cell : cells) {
    const size_t equals = cell.find('=');
    const std::string id = cell.substr(0, equals);
    if (equals == std::string::npos || !isShiftCell(id))
      return Problem{verbatim(quotable(cell)), "is no cell of the shift table",
                     "write e0=-1/4 in, waist.x=3 mm, bust.b=..., side_length=..."};
    const Result<double> mm = parseLength(cell.substr(equals + 1), unit);
    if (!mm.ok()) return Problem{verbatim(id), mm.problem().what, mm.problem().remedy};
    into.cells[id] = *mm;
  }
  return std::nullopt;
}

Json shiftsJson(const ShiftTable& table) {
  Json rows = Json::array();
  for (size_t i = 0; i < table.rows.size(); ++i) {
    const ShiftRow& r = table.rows[i];
    Json row{{"level", r.level},       {"client", plainMm(r.client.mm)}, {"pattern", plainMm(r.pattern.mm)},
             {"e0", plainMm(r.e0.mm)}, {"f", plainMm(r.f.mm)},           {"b", plainMm(r.b.mm)},
             {"x", plainMm(r.x.mm)},   {"y", plainMm(r.y.mm)},           {"rest", plainMm(r.rest)},
             {"solved", r.solved}};
    if (r.clientArc) {
      row["clientArc"] = plainMm(r.clientArc->mm);
      row["patternArc"] = plainMm(r.patternArc->mm);
    }
    for (const RestLine& l : table.lines) row["lines"][l.seams.front()] = plainMm(l.takes[i]);
    rows.push_back(std::move(row));
  }
  for (const LengthRow& l : table.lengths)
    rows.push_back({{"length", l.id},
                    {"client", plainMm(l.client.mm)},
                    {"pattern", plainMm(l.pattern.mm)},
                    {"shift", plainMm(l.shift.mm)}});
  return rows;
}

void printShifts(Printer& out, const ShiftTable& table, LengthFormat units) {
  const auto length = [&](double mm) { return formatLength(mm, units); };
  out.print("{:<12} {:>9} {:>9} {:>9} {:>9} {:>9} {:>9} {:>9}\n", "level", "client", "pattern", "e0", "f", "b", "x",
            "y");
  for (const ShiftRow& r : table.rows)
    out.print("{:<12} {:>9} {:>9} {:>9} {:>9} {:>9} {:>9} {:>9}\n", r.level, length(r.client.mm), length(r.pattern.mm),
              length(r.e0.mm), length(r.f.mm), length(r.b.mm), length(r.x.mm), length(r.y.mm));
  for (const RestLine& l : table.lines) {
    out.print("{} takes", english(l.name));
    for (size_t i = 0; i < l.takes.size(); ++i)
      out.print("{} {} {}", i ? "," : "", table.rows[i].level, length(l.takes[i]));
    out.print("\n");
  }
  for (const LengthRow& l : table.lengths)
    out.print("{:<12} {:>9} {:>9} {:>9}\n", l.id, length(l.client.mm), length(l.pattern.mm), length(l.shift.mm));
  out.print("{}\n", say(table.why, units));
}

Json alterationJson(const Alteration& a) {
  Json shifts = Json::array();
  for (const Shift& s : a.shifts) {
    Json at = Json::array();
    for (const ShiftAt& p : s.at) at.push_back({{"place", p.place}, {"mm", p.mm}});
    shifts.push_back({{"line", s.line},
                      {"sides", sidesId(s.sides)},
                      {"way", wayId(s.way)},
                      {"half", bodySideId(s.half)},
                      {"at", std::move(at)}});
  }
  return {{"id", a.id},   {"name", a.name}, {"date", a.date},
          {"why", a.why}, {"on", a.on},     {"shifts", std::move(shifts)}};
}

void listAlterations(Printer& out, const Order& order, bool asJson) {
  if (asJson) {
    Json all = Json::array();
    for (const Alteration& a : order.alterations) all.push_back(alterationJson(a));
    out.print("{}\n", text(all));
    return;
  }
  for (const Alteration& a : order.alterations)
    out.print("{}\t{}\t{}\t{}\n", a.id, a.date, a.on ? "on" : "off", a.name);
}

Result<Alteration> wishedAlteration(const AlterArguments& a, const Order& order) {
  const Result<double> by = parseLength(a.by, order.units.unit);
  if (!by.ok()) return Problem{"--by", by.problem().what, by.problem().remedy};
  const auto sides =
      oneOf("--side", a.sides, {ShiftSides::Both, ShiftSides::A, ShiftSides::B, ShiftSides::Over}, sidesId);
  if (!sides.ok()) return sides.problem();
  const auto half = oneOf("--half", a.half, {BodySide::Both, BodySide::Left, BodySide::Right}, bodySideId);
  if (!half.ok()) return half.problem();
  const Result<Design> design = recalc(order);
  if (!design.ok()) return design.problem();
  const Pattern& pattern = design->half(*half).pattern;
  const ShiftWish wish{a.line, *sides, a.along ? ShiftWay::Along : ShiftWay::Across, a.from, a.to, *by};
  Result<Shift> shift = shiftOf(pattern, wish);
  if (!shift.ok()) return shift.problem();
  shift->half = *half;
  Alteration made;
  made.id = freeId(order.alterations);
  made.name = a.name.empty() ? fmt::format("{}, {} to {}, {}", english(onSide(lineName(pattern, a.line), *half)),
                                           a.from, a.to, formatDifference(*by, order.units))
                             : a.name;
  made.date = a.date.empty() ? today() : a.date;
  made.why = a.why;
  made.shifts = {std::move(shift).value()};
  return made;
}

// Switches alterations on or off, or takes them away, by id.
std::optional<Problem> switchAlterations(Order& order, const AlterArguments& a) {
  for (const std::string& id : {a.on, a.off, a.remove}) {
    if (id.empty()) continue;
    const auto found = std::ranges::find(order.alterations, id, &Alteration::id);
    if (found == order.alterations.end())
      return Problem{"alteration", msg("there is no \"{}\"", quotable(id)), "armure-cli alter ORDER --list names them"};
    if (&id == &a.remove || id == a.remove) {
      order.alterations.erase(found);
    } else {
      found->on = id == a.on;
    }
  }
  return std::nullopt;
}

}  // namespace

int keepBase(Printer& out, const KeepArguments& a) {
  const Result<OrderFile> file = orderToChange(a.order);
  if (!file.ok()) return complain(file.problem());
  warn(a.order, file->warnings);
  MeasureSet made;
  if (!a.measured.empty()) {
    const Result<MeasurementFile> measured = measurementsFrom(a.measured);
    if (!measured.ok()) return complain(measured.problem());
    warn(a.measured, measured->warnings);
    made = measured->measures;
  }
  const std::string name = a.name.empty() ? file->order.title : a.name;
  Result<BasePattern> base = keptAsBase(file->order, made, name, a.date.empty() ? today() : a.date);
  if (!base.ok()) return complain(inFile(a.order, base.problem()));
  std::filesystem::path path = a.output;
  if (a.output.empty()) {
    std::error_code error;
    std::filesystem::create_directories(baseFolder(), error);
    path = newBasePath(baseFolder(), name);
  }
  if (const auto problem = whyNotWritten({path, FileKind::Base}, {a.order}, a.force)) return complain(*problem);
  if (const auto problem = writeBase(path, BaseFile{std::move(base).value(), {}, {}})) return complain(*problem);
  if (a.output.empty()) out.print("{}\n", quotable(path.string()));
  return kDone;
}

int listBases(Printer& out, const std::string& folder, bool asJson) {
  Json all = Json::array();
  for (const auto& path : basesIn(folder.empty() ? baseFolder() : std::filesystem::path(folder))) {
    const Result<BaseFile> file = readBase(path);
    if (!file.ok()) {  // named, and left out
      fmt::print(stderr, "armure-cli: {}\n", file.problem().text());
      continue;
    }
    const BasePattern& b = file->base;
    if (asJson)
      all.push_back({{"file", path.string()}, {"name", b.name}, {"date", b.date}, {"style", b.style}});
    else
      out.print("{}\t{}\t{}\t{}\n", quotable(path.string()), b.name, b.date, b.style);
  }
  if (asJson) out.print("{}\n", text(all));
  return kDone;
}

int recalcFromBase(Printer& out, const RecalcArguments& a) {
  const Result<BaseFile> base = readBase(a.base);
  if (!base.ok()) return complain(base.problem());
  warn(a.base, base->warnings);
  const Result<MeasurementFile> measured = measurementsFrom(a.measurements);
  if (!measured.ok()) return complain(measured.problem());
  warn(a.measurements, measured->warnings);
  if (const auto problem = whyNotTo(a.output, FileKind::Order, {a.base, a.measurements}, a.force))
    return complain(*problem);
  OrderFile file;
  file.order = orderFromBase(base->base, measured->measures);
  Order& order = file.order;
  order.client = measured->client;
  order.date = measured->date;
  order.units.unit = measured->unit;
  order.title = !a.title.empty()       ? a.title
                : order.client.empty() ? base->base.name
                                       : order.client + ", " + base->base.name;
  const auto from = oneOf("--from", a.from, {SolvedFrom::Waist, SolvedFrom::Underbust}, solvedFromId);
  if (!from.ok()) return complain(from.problem());
  const auto rest = oneOf("--rest", a.rest, {RestGoes::ToLines, RestGoes::ToSides}, restGoesId);
  if (!rest.ok()) return complain(rest.problem());
  order.base->from = *from;
  order.base->rest = *rest;
  if (const auto problem = writeCells(*order.base, a.cells, order.units.unit)) return complain(*problem);
  if (const auto problem = applySettings(order, a.settings)) return complain(*problem);
  const Result<Design> design = recalc(order);
  if (!design.ok()) return complain(inFile(a.measurements, design.problem()));
  if (const auto problem = orderTo(out, a.output, file)) return complain(*problem);
  tell(out, a.output, order, *design);
  return kDone;
}

int shifts(Printer& out, const std::string& path, bool asJson) {
  const Result<OrderFile> file = orderFrom(out, path);
  if (!file.ok()) return complain(file.problem());
  warn(path, file->warnings);
  const Result<Design> design = recalc(file->order);
  if (!design.ok()) return complain(inFile(path, design.problem()));
  if (!design->fromBase)
    return complain({verbatim(quotable(path)), "this order is drafted, not recalculated from a base",
                     "armure-cli recalc makes an order from a base"});
  const ShiftTable& table = design->fromBase->table;
  if (asJson)
    out.print("{}\n", text(shiftsJson(table)));
  else
    printShifts(out, table, file->order.units);
  return kDone;
}

int alterOrder(Printer& out, const AlterArguments& a) {
  const Result<OrderFile> read = orderToChange(a.order);
  if (!read.ok()) return complain(read.problem());
  warn(a.order, read->warnings);
  if (a.list) {
    listAlterations(out, read->order, a.json);
    return kDone;
  }
  const bool switches = !a.on.empty() || !a.off.empty() || !a.remove.empty();
  if (a.output.empty()) return complain({"--output", "is missing", "name the order to write with -o"});
  if (!switches && (a.line.empty() || a.from.empty() || a.to.empty() || a.by.empty()))
    return complain({"alter", "it is not said what to alter",
                     "give --seam, --from, --to and --by; or --on, --off or --remove with an alteration; or --list"});
  if (const auto problem = whyNotTo(a.output, FileKind::Order, {a.order}, a.force)) return complain(*problem);
  OrderFile file = *read;
  if (const auto problem = switchAlterations(file.order, a)) return complain(*problem);
  if (!a.line.empty()) {
    Result<Alteration> made = wishedAlteration(a, file.order);
    if (!made.ok()) return complain(inFile(a.order, made.problem()));
    file.order.alterations.push_back(std::move(made).value());
  }
  const Result<Design> design = recalc(file.order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  if (const auto problem = orderTo(out, a.output, file)) return complain(*problem);
  tell(out, a.output, file.order, *design);
  return kDone;
}

}  // namespace armure::cli
