#include "io/alteration_json.h"

#include <fmt/format.h>

#include <algorithm>

#include "alter/shift_table.h"
#include "io/tracing_json.h"
#include "order/order_words.h"

namespace armure {
namespace {

constexpr size_t kMostEntries = 1000;  // alterations, fittings
constexpr size_t kMostShifts = 500;    // of one alteration, and places of one shift
constexpr double kMostShift = 500;     // mm: no edge of a garment is moved further
constexpr double kMostGap = 500;       // mm

// The members of an entry of a list that was there before under the same id.
Json before(const Json& doc, const char* member, const std::string& id) {
  const Json old = memberOf(doc, member);
  if (old.is_array())
    for (const Json& entry : old)
      if (entry.is_object() && entry.contains("id") && entry["id"] == id) return entry;
  return Json::object();
}

void textUnlessEmpty(Json& object, const char* member, const std::string& text) {
  if (text.empty()) {
    object.erase(member);
  } else {
    object[member] = text;
  }
}

template <typename Entries>
void uniqueIds(MemberReader& in, const char* member, Entries& entries) {
  for (size_t i = 0; i < entries.size(); ++i)
    for (size_t k = 0; k < i; ++k)
      if (entries[i].id == entries[k].id)
        in.fail(member, msg("the id \"{}\" stands twice", entries[i].id), "give each its own");
}

// Which half of the body; not said where it is both.
void readHalf(MemberReader& in, const Json& one, BodySide& half) {
  in.option(one, "half", half, {BodySide::Both, BodySide::Left, BodySide::Right}, bodySideId);
}
void writeHalf(Json& out, BodySide half) {
  if (half != BodySide::Both) out["half"] = bodySideId(half);
}

Shift readShift(MemberReader& in, const Json& one) {
  Shift shift;
  in.text(one, "line", shift.line);
  if (shift.line.empty()) in.fail("line", "is missing", "name a seam, PIECE.EDGE or every-line");
  in.option(one, "sides", shift.sides, {ShiftSides::Both, ShiftSides::A, ShiftSides::B, ShiftSides::Over}, sidesId);
  in.option(one, "way", shift.way, {ShiftWay::Across, ShiftWay::Along}, wayId);
  readHalf(in, one, shift.half);
  in.list(one, "at", kMostShifts, [&](const Json& at) {
    ShiftAt place;
    in.text(at, "place", place.place);
    in.number(at, "mm", place.mm, -kMostShift, kMostShift);
    shift.at.push_back(std::move(place));
  });
  return shift;
}

Json shiftJson(const Shift& shift) {
  Json at = Json::array();
  for (const ShiftAt& a : shift.at) at.push_back({{"place", a.place}, {"mm", a.mm}});
  Json out{{"line", shift.line}, {"sides", sidesId(shift.sides)}, {"way", wayId(shift.way)}, {"at", std::move(at)}};
  writeHalf(out, shift.half);
  return out;
}

FitNote readNote(MemberReader& in, const Json& one) {
  FitNote note;
  in.text(one, "complaint", note.complaint);
  in.option(one, "work", note.work, kFitWorks, workId);
  in.text(one, "line", note.line);
  in.text(one, "from", note.from);
  in.text(one, "to", note.to);
  in.number(one, "mm", note.mm, 0, kMostShift);
  in.text(one, "seen", note.seen);
  readHalf(in, one, note.half);
  return note;
}

Json noteJson(const FitNote& note) {
  Json out = Json::object();
  textUnlessEmpty(out, "complaint", note.complaint);
  out["work"] = workId(note.work);
  textUnlessEmpty(out, "line", note.line);
  out["from"] = note.from;
  out["to"] = note.to;
  out["mm"] = note.mm;
  textUnlessEmpty(out, "seen", note.seen);
  writeHalf(out, note.half);
  return out;
}

}  // namespace

void readAlterations(MemberReader& in, const Json& doc, std::vector<Alteration>& into) {
  in.list(doc, "alterations", kMostEntries, [&](const Json& one) {
    Alteration a;
    in.text(one, "id", a.id);
    in.text(one, "name", a.name);
    in.text(one, "date", a.date);
    in.text(one, "why", a.why);
    in.flag(one, "on", a.on);
    in.text(one, "fitting", a.fitting);
    in.list(one, "shifts", kMostShifts, [&](const Json& shift) { a.shifts.push_back(readShift(in, shift)); });
    into.push_back(std::move(a));
  });
  uniqueIds(in, "alterations", into);
}

void writeAlterations(Json& doc, const std::vector<Alteration>& alterations) {
  Json list = Json::array();
  for (const Alteration& a : alterations) {
    Json out = before(doc, "alterations", a.id);
    out["id"] = a.id;
    out["name"] = a.name;
    textUnlessEmpty(out, "date", a.date);
    textUnlessEmpty(out, "why", a.why);
    out["on"] = a.on;
    textUnlessEmpty(out, "fitting", a.fitting);
    Json shifts = Json::array();
    for (const Shift& s : a.shifts) shifts.push_back(shiftJson(s));
    out["shifts"] = std::move(shifts);
    list.push_back(std::move(out));
  }
  if (list.empty()) {
    doc.erase("alterations");
  } else {
    doc["alterations"] = std::move(list);
  }
}

void readFittings(MemberReader& in, const Json& doc, std::vector<Fitting>& into) {
  in.list(doc, "fittings", kMostEntries, [&](const Json& one) {
    Fitting f;
    in.text(one, "id", f.id);
    in.text(one, "date", f.date);
    in.option(one, "on", f.on, {FittedOn::Toile, FittedOn::Garment}, fittedOnId);
    if (one.contains("gap")) in.number(one, "gap", f.gap.emplace(), 0, kMostGap);
    in.list(one, "notes", kMostShifts, [&](const Json& note) { f.notes.push_back(readNote(in, note)); });
    into.push_back(std::move(f));
  });
  uniqueIds(in, "fittings", into);
}

void writeFittings(Json& doc, const std::vector<Fitting>& fittings) {
  Json list = Json::array();
  for (const Fitting& f : fittings) {
    Json out = before(doc, "fittings", f.id);
    out["id"] = f.id;
    out["date"] = f.date;
    out["on"] = fittedOnId(f.on);
    if (f.gap) {
      out["gap"] = *f.gap;
    } else {
      out.erase("gap");
    }
    Json notes = Json::array();
    for (const FitNote& n : f.notes) notes.push_back(noteJson(n));
    out["notes"] = std::move(notes);
    list.push_back(std::move(out));
  }
  if (list.empty()) {
    doc.erase("fittings");
  } else {
    doc["fittings"] = std::move(list);
  }
}

void readBase(MemberReader& in, const Json& object, BasePattern& into) {
  in.text(object, "name", into.name);
  in.text(object, "date", into.date);
  in.text(object, "notes", into.notes);
  in.presets(object, into.style, into.school);
  in.measures(object, "measures", into.measures);
  in.measures(object, "made", into.made);
  in.choices(object, "choices", into.choices);
  readAlterations(in, object, into.alterations);
  readTraced(in, object, into.traced);
}

void writeBase(Json& object, const BasePattern& base) {
  object["name"] = base.name;
  object["date"] = base.date;
  object["notes"] = base.notes;
  object["style"] = base.style;
  object["school"] = base.school;
  object["measures"] = measuresJson(base.measures, memberOf(object, "measures"));
  object["made"] = measuresJson(base.made, memberOf(object, "made"));
  object["choices"] = choicesJson(base.choices);
  writeAlterations(object, base.alterations);
  writeTraced(object, base.traced);
}

void readRecalculation(MemberReader& in, const Json& doc, std::optional<Recalculation>& into) {
  if (!doc.contains("recalculation")) return;
  const Json& object = doc["recalculation"];
  if (!object.is_object() || !object.contains("base") || !object["base"].is_object())
    return in.fail("recalculation", "has no base", "give the base with its measures, or leave \"recalculation\" out");
  Recalculation& r = into.emplace();
  in.enter("recalculation");
  in.option(object, "from", r.from, {SolvedFrom::Waist, SolvedFrom::Underbust}, solvedFromId);
  in.option(object, "rest", r.rest, {RestGoes::ToLines, RestGoes::ToSides}, restGoesId);
  if (object.contains("cells")) {
    if (!object["cells"].is_object()) in.fail("cells", "is not an object", "write { \"waist.x\": 3.2 }");
    if (object["cells"].is_object())
      for (const auto& [cell, value] : object["cells"].items()) {
        if (!isShiftCell(cell)) in.fail("cells." + cell, "is no cell of the shift table", "name one like waist.x");
        in.enter("cells");
        in.number(object["cells"], cell.c_str(), r.cells[cell], -kMostShift, kMostShift);
        in.leave();
      }
  }
  in.enter("base");
  readBase(in, object["base"], r.base);
  in.leave();
  in.leave();
}

void writeRecalculation(Json& doc, const std::optional<Recalculation>& recalculation) {
  if (!recalculation) {
    doc.erase("recalculation");
    return;
  }
  Json out = memberOf(doc, "recalculation");
  if (!out.is_object()) out = Json::object();
  out["from"] = solvedFromId(recalculation->from);
  out["rest"] = restGoesId(recalculation->rest);
  Json cells = Json::object();
  for (const auto& [cell, mm] : recalculation->cells) cells[cell] = mm;
  out["cells"] = std::move(cells);
  Json base = memberOf(out, "base");
  if (!base.is_object()) base = Json::object();
  writeBase(base, recalculation->base);
  out["base"] = std::move(base);
  doc["recalculation"] = std::move(out);
}

}  // namespace armure
