// armure-cli check: the balance sheet of an order, or of many.
#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "io/bounded_json.h"
#include "recalc/idle.h"
#include "recalc/recalc.h"
#include "units/language.h"

namespace armure::cli {
namespace {

// Differences are told in mm, as edges are compared in the workroom, unless another unit is asked for.
std::string lengthText(double mm, std::optional<Unit> unit, int decimalsOfMm = 2) {
  switch (unit.value_or(Unit::Millimetre)) {
    case Unit::Inch:
      return fmt::format("{:.3f} in", mm / kMmPerInch);
    case Unit::Centimetre:
      return fmt::format("{:.3f} cm", mm / 10);
    case Unit::Millimetre:
      break;
  }
  return fmt::format("{:.{}f} mm", mm, decimalsOfMm);
}

std::string amountText(const CheckRow& r, double v, std::optional<Unit> unit) {
  switch (r.quantity) {
    case Quantity::Length:
      return lengthText(v, unit);
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
                       subject, detail, amountText(r, r.amount, out.units), amountText(r, r.limit, out.units),
                       say(r.remedy, units));
    case Verdict::Note:
      return out.print("{:<5} {:<16} {}: {}{}\n", r.kind == CheckKind::Idle ? "idle" : "note", checkName(r.kind),
                       subject, detail,
                       r.amount <= 0                ? ""
                       : r.kind == CheckKind::Facts ? " +/- " + lengthText(r.amount, out.units, 0)
                                                    : ", " + lengthText(r.amount, out.units, 1));
    case Verdict::Pass:
      break;
  }
  out.print("{:<5} {:<16} {}: {}\n", "pass", checkName(r.kind), subject, amountText(r, r.amount, out.units));
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
    out.print("\nBalanced: a line to cut moves by {} at most, a notch by {}.\n",
              lengthText(c.largestAcross, out.units, 1), lengthText(c.largestMove, out.units, 1));
    for (const EdgeMove& m : d.balanced->moves)
      out.print("moved {:>8}  {}.{}{}, for {}\n", lengthText(m.largest, out.units, 1), d.pattern.pieces[m.piece].id,
                m.edge, m.near.empty() ? "" : " at the " + m.near, english(m.why));
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

struct Checked {
  int code = kBadInput;
  Json sheet = nullptr;  // where it is wanted as JSON; else it was said
};

Checked checkOne(Printer& out, const std::string& path, bool asJson) {
  const Result<OrderFile> file = orderFrom(out, path);
  if (!file.ok()) return {complain(file.problem())};
  warn(path, file->warnings);
  Result<Design> made = recalc(file->order);
  if (!made.ok()) return {complain(inFile(path, made.problem()))};
  Design design = std::move(made).value();
  std::vector<std::pair<std::string, Message>> idle;
  for (const Idle& i : idleIn(file->order, design)) idle.emplace_back(i.key, i.reason);
  addIdleRows(design.sheet, idle);
  const int code = design.sheet.pass() ? kDone : kFails;
  if (asJson) return {code, sheetJson(design, file->order.units)};
  printSheet(out, file->order, design);
  return {code};
}

}  // namespace

int check(Printer& out, const std::vector<std::string>& orders, bool asJson) {
  Json all = Json::array();
  int worst = kDone;
  for (const std::string& path : orders) {
    if (orders.size() > 1 && !asJson) out.print("{}== {}\n", path == orders.front() ? "" : "\n", nameOf(path));
    Checked checked = checkOne(out, path, asJson);
    worst = std::max(worst, checked.code);
    if (!checked.sheet.is_null()) all.push_back({{"file", path}, {"sheet", std::move(checked.sheet)}});
  }
  if (asJson && !all.empty()) out.print("{}\n", text(orders.size() > 1 ? all : all.front()["sheet"]));
  return worst;
}

}  // namespace armure::cli
