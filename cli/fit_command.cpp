// armure-cli fit: notes of a fitting, and the pattern altered as they ask.
#include <fmt/format.h>

#include <algorithm>

#include "alter/cloth_beyond.h"
#include "alter/complaints.h"
#include "alter/proposal.h"
#include "cli/alter_commands.h"
#include "cli/commands.h"
#include "cli/complaints.h"
#include "cli/order_stream.h"
#include "cli/said.h"
#include "io/bounded_json.h"
#include "io/file_kind.h"
#include "io/order_file.h"
#include "order/free_id.h"
#include "order/order_words.h"
#include "recalc/recalc.h"
#include "units/language.h"

namespace armure::cli {
namespace {

// The notes a complaint begins with, the first of them changed by what else is said.
Result<std::vector<FitNote>> notesSaid(const FitArguments& a, const Pattern& pattern, Unit unit) {
  std::vector<FitNote> notes(1);
  if (!a.complaint.empty()) {
    const Complaint* complaint = findComplaint(a.complaint);
    if (!complaint)
      return Problem{"--complaint", msg("\"{}\" is not known", quotable(a.complaint)),
                     "armure-cli fit ORDER --complaints lists them"};
    notes = notesFor(pattern, *complaint);
  }
  FitNote& first = notes.front();
  if (!a.work.empty()) {
    const Result<FitWork> work = oneOf("--work", a.work, kFitWorks, workId);
    if (!work.ok()) return work.problem();
    first.work = *work;
  }
  if (!a.line.empty()) first.line = a.line == kEveryLine ? std::string() : a.line;
  if (!a.from.empty()) first.from = a.from;
  if (!a.to.empty()) first.to = a.to;
  first.seen = a.seen;
  if (!a.half.empty()) {
    const auto half = oneOf("--half", a.half, {BodySide::Both, BodySide::Left, BodySide::Right}, bodySideId);
    if (!half.ok()) return half.problem();
    for (FitNote& n : notes) n.half = *half;
  }
  if (!a.by.empty()) {
    const Result<double> by = parseLength(a.by, unit);
    if (!by.ok()) return Problem{"--by", by.problem().what, by.problem().remedy};
    first.mm = *by;
  }
  if (!(first.mm > 0))
    return Problem{"--by", "it is not said by how much", "give a length of more than nothing; --work says which way"};
  return notes;
}

// The order's fitting of that date, or a new one.
Fitting& fittingOf(Order& order, const std::string& date) {
  const auto found = std::ranges::find(order.fittings, date, &Fitting::date);
  if (found != order.fittings.end()) return *found;
  Fitting f;
  f.id = freeId(order.fittings);
  f.date = date;
  order.fittings.push_back(std::move(f));
  return order.fittings.back();
}

// Adds the notes to the fitting; the first that cannot be answered on this pattern is a Problem.
std::optional<Problem> noteDown(Order& order, const FitArguments& a, const Pattern& pattern) {
  Fitting& fitting = fittingOf(order, a.date.empty() ? today() : a.date);
  if (!a.on.empty()) {
    const auto on = oneOf("--on", a.on, {FittedOn::Toile, FittedOn::Garment}, fittedOnId);
    if (!on.ok()) return on.problem();
    fitting.on = *on;
  }
  if (!a.gap.empty()) {
    const Result<double> gap = parseLength(a.gap, order.units.unit);
    if (!gap.ok()) return Problem{"--gap", gap.problem().what, gap.problem().remedy};
    fitting.gap = *gap;
  }
  if (!a.complaint.empty() || !a.work.empty()) {
    const Result<std::vector<FitNote>> notes = notesSaid(a, pattern, order.units.unit);
    if (!notes.ok()) return notes.problem();
    fitting.notes.insert(fitting.notes.end(), notes->begin(), notes->end());
  }
  const Proposal proposal = proposalFor(pattern, fitting);
  for (const NoteOutcome& o : proposal.outcomes)
    if (!o.what.empty()) return Problem{msg("note {}", o.note + 1), o.what, "name another line or other levels"};
  if (!a.take) return std::nullopt;
  if (proposal.alteration.shifts.empty())
    return Problem{"--take", "nothing follows from these notes", "note what was seen first"};
  std::erase_if(order.alterations, [&](const Alteration& o) { return o.fitting == fitting.id; });
  Alteration made = proposal.alteration;
  made.id = freeId(order.alterations);
  made.name = "fitting of " + fitting.date;
  order.alterations.push_back(std::move(made));
  return std::nullopt;
}

// What it does, and where the cloth that was tried on does not reach.
void tellAlteration(Printer& out, const Pattern& cut, const Alteration& made, LengthFormat units) {
  for (const Message& m : shiftWords(cut, made)) out.print("{}\n", say(m, units));
  for (const BeyondCloth& b : beyondCloth(cut, made)) out.print("{}\n", say(beyondWords(cut, b), units));
}

void listComplaints(Printer& out, bool asJson) {
  Json all = Json::array();
  for (const Complaint& c : complaintTable()) {
    if (asJson)
      all.push_back({{"id", c.id}, {"name", c.name}, {"reason", c.reason}});
    else
      out.print("{}\t{}: {}\n", c.id, c.name, c.reason);
  }
  if (asJson) out.print("{}\n", all.dump(1, ' ', false, Json::error_handler_t::replace));
}

}  // namespace

int fit(Printer& out, const FitArguments& a) {
  const Result<OrderFile> read = orderToChange(a.order);
  if (!read.ok()) return complain(read.problem());
  warn(a.order, read->warnings);
  if (a.complaints) {
    listComplaints(out, a.json);
    return kDone;
  }
  if (a.output.empty()) return complain({"--output", "is missing", "name the order to write with -o"});
  if (const auto problem = whyNotTo(a.output, FileKind::Order, {a.order}, a.force)) return complain(*problem);
  OrderFile file = *read;
  const Result<Design> before = recalc(file.order);
  if (!before.ok()) return complain(inFile(a.order, before.problem()));
  const Pattern& cut = before->half(BodySide::Left).pattern;
  if (const auto problem = noteDown(file.order, a, cut)) return complain(inFile(a.order, *problem));
  const Result<Design> design = recalc(file.order);
  if (!design.ok()) return complain(inFile(a.order, design.problem()));
  for (const Alteration& made : file.order.alterations)
    if (a.take && made.fitting == fittingOf(file.order, a.date.empty() ? today() : a.date).id)
      tellAlteration(out, cut, made, file.order.units);
  if (const auto problem = orderTo(out, a.output, file)) return complain(*problem);
  tell(out, a.output, file.order, *design);
  return kDone;
}

}  // namespace armure::cli
