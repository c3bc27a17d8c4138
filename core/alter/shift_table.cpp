#include "alter/shift_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "measure/measure_table.h"

namespace armure {
namespace {

// The levels of the table, from the top down: the girth taken there, and the arc over the front.
struct TableLevel {
  std::string_view level, girth, arc;
  const char* name;
};
constexpr std::array<TableLevel, 6> kLevels{{
    {"chest", id::kUpperBust, "", "Upper bust"},
    {"bust", id::kBust, id::kFrontBustArc, "Bust"},
    {"underbust", id::kUnderbust, id::kFrontUnderbustArc, "Underbust"},
    {"waist", id::kWaist, "", "Waist"},
    {"high_hip", id::kHighHip, "", "High hip"},
    {"hip", id::kHip, "", "Hip"},
}};
constexpr std::array<std::string_view, 5> kLengths{id::kSideLength, "cup_down", "cup_out", "cup_up", "cup_in"};

const Measured* measureAt(const MeasuredAt& all, std::string_view id) {
  const auto it = id.empty() ? all.end() : all.find(id);
  return it == all.end() ? nullptr : &it->second;
}

class TableMaker {
 public:
  TableMaker(const MeasuredAt& client, const MeasuredAt& pattern, const ShiftTableOptions& options)
      : client_(client), pattern_(pattern), options_(options) {}

  ShiftTable made() {
    table_.toLines = options_.toLines;
    addLevels();
    centre();
    frontSide();
    backSide();
    options_.toLines ? keepSides() : solveSides();
    addLengths();
    table_.why = reason();
    return std::move(table_);
  }

 private:
  void addLevels() {
    for (const TableLevel& l : kLevels) {
      const Measured *mine = measureAt(client_, l.girth), *base = measureAt(pattern_, l.girth);
      if (!mine || !base) continue;
      ShiftRow row;
      row.level = l.level;
      row.name = l.name;
      row.client = *mine;
      row.pattern = *base;
      const Measured *arc = measureAt(client_, l.arc), *baseArc = measureAt(pattern_, l.arc);
      if (arc && baseArc) row.clientArc = *arc, row.patternArc = *baseArc;
      table_.rows.push_back(std::move(row));
    }
  }

  // A cell by its formula, or as the maker wrote it.
  ShiftCell cell(const std::string& id, Message title, std::vector<Term> terms, double mm, Message formula) const {
    ShiftCell c{mm, false, {"shift." + id, std::move(title), std::move(terms), mm, std::move(formula)}};
    if (const auto own = options_.cells.find(id); own != options_.cells.end()) {
      c.byHand = true;
      c.working.note = msg("written by hand; by the formula {}: {}", Length{mm}, c.working.note);
      c.mm = c.working.result = own->second;
    }
    return c;
  }

  void centre() {
    const Measured *mine = measureAt(client_, id::kBustSpan), *base = measureAt(pattern_, id::kBustSpan);
    const double e0 = mine && base ? (mine->mm - base->mm) / 2 : 0;
    std::vector<Term> terms;
    if (mine && base)
      terms = {{'+', "client's span", mine->mm, mine->source}, {'-', "pattern's span", base->mm, base->source}};
    const ShiftCell c = cell("e0", "Centre, every level", std::move(terms), e0, "half of it: e0 = (span - span') / 2");
    for (ShiftRow& r : table_.rows) r.e0 = c;
  }

  void frontSide() {
    std::optional<double> lastArc;  // the shift by the arc next above
    for (size_t i = 0; i < table_.rows.size(); ++i) {
      ShiftRow& r = table_.rows[i];
      const Message title = msg("{}, front side", r.name);
      if (r.clientArc) {
        r.f = cell(r.level + ".f", title,
                   {{'+', "client's front arc", r.clientArc->mm, r.clientArc->source},
                    {'-', "pattern's front arc", r.patternArc->mm, r.patternArc->source},
                    {'-', "centre, both halves", 2 * r.e0.mm, Source::Computed}},
                   (r.clientArc->mm - r.patternArc->mm - 2 * r.e0.mm) / 2, "half of it: f = (arc - (arc' + 2 e0)) / 2");
        lastArc = r.f.mm;
      } else if (const auto below = firstArcBelow(i); lastArc || below) {
        // The arcs' shifts are found from the top down; above the bust it is the bust's.
        const double f = lastArc ? *lastArc : *below;
        r.f = cell(r.level + ".f", title, {{'+', lastArc ? "as above it" : "as at the bust", f, Source::Computed}}, f,
                   lastArc ? "below the last front arc the front side keeps its shift, and with it its curve"
                           : "above the bust the front side keeps the bust's shift");
      } else {
        const double share = (r.client.mm - r.pattern.mm - 2 * r.e0.mm) / 4;
        r.f = cell(r.level + ".f", title, girthTerms(r), share,
                   "a quarter of it: without front arcs of both, front and back side share alike");
      }
    }
  }

  std::optional<double> firstArcBelow(size_t i) const {
    for (size_t j = i + 1; j < table_.rows.size(); ++j)
      if (const ShiftRow& r = table_.rows[j]; r.clientArc) {
        const auto own = options_.cells.find(r.level + ".f");
        return own != options_.cells.end() ? own->second : (r.clientArc->mm - r.patternArc->mm - 2 * r.e0.mm) / 2;
      }
    return std::nullopt;
  }

  static std::vector<Term> girthTerms(const ShiftRow& r) {
    return {{'+', "client's girth", r.client.mm, r.client.source},
            {'-', "pattern's girth", r.pattern.mm, r.pattern.source},
            {'-', "centre, both halves", 2 * r.e0.mm, Source::Computed}};
  }

  // T: what front and back side of one half have to let out together.
  static double wanted(const ShiftRow& r) { return (r.client.mm - r.pattern.mm - 2 * r.e0.mm) / 2; }

  void backSide() {
    for (ShiftRow& r : table_.rows) {
      std::vector<Term> terms = girthTerms(r);
      terms.push_back({'-', "front side, both halves", 2 * r.f.mm, Source::Computed});
      r.b = cell(r.level + ".b", msg("{}, back side by itself", r.name), std::move(terms), wanted(r) - r.f.mm,
                 "half of it: b = (girth - (girth' + 2 e0 + 2 f)) / 2");
      r.x = used(r, 'x', r.f.mm, {{'+', "front side", r.f.mm, Source::Computed}}, "as by itself");
      r.y = used(r, 'y', r.b.mm, {{'+', "back side", r.b.mm, Source::Computed}}, "as by itself");
      if (!options_.toLines) leaveRest(r);
    }
  }

  ShiftCell used(const ShiftRow& r, char which, double mm, std::vector<Term> terms, Message formula) const {
    return cell(fmt::format("{}.{}", r.level, which),
                which == 'x' ? msg("{}, front side as used", r.name) : msg("{}, back side as used", r.name),
                std::move(terms), mm, std::move(formula));
  }

  // Where she wrote one of both sides, the other takes what is left of the girth.
  void leaveRest(ShiftRow& r) const {
    const double t = wanted(r);
    const auto leaves = [&](const Message& side, double mm) {
      return std::vector<Term>{{'+', "T, both sides", t, Source::Computed}, {'-', side, mm, Source::Computed}};
    };
    if (r.x.byHand && !r.y.byHand)
      r.y = used(r, 'y', t - r.x.mm, leaves("front side", r.x.mm), "what the front side leaves: T - x");
    if (r.y.byHand && !r.x.byHand)
      r.x = used(r, 'x', t - r.y.mm, leaves("back side", r.y.mm), "what the back side leaves: T - y");
  }

  size_t firstSolved() const {
    const std::string_view from = options_.from == SolvedFrom::Waist ? "waist" : "underbust";
    size_t i = 0;
    while (i < table_.rows.size() && table_.rows[i].level != from) ++i;
    return i;
  }

  // x + y = T, x - y = A - B.
  void solveSides() {
    for (size_t i = firstSolved(); i < table_.rows.size(); ++i) {
      if (i == 0) continue;
      ShiftRow& r = table_.rows[i];
      const double t = wanted(r), a = table_.rows[i - 1].x.mm, b = table_.rows[i - 1].y.mm;
      const auto terms = [&](char ofA) {
        return std::vector<Term>{{'+', "T, both sides", t, Source::Computed},
                                 {ofA, "front side above, A", a, Source::Computed},
                                 {ofA == '+' ? '-' : '+', "back side above, B", b, Source::Computed}};
      };
      r.x = used(r, 'x', (t + a - b) / 2, terms('+'), "half of it: x = (T + A - B) / 2");
      r.y = used(r, 'y', (t - a + b) / 2, terms('-'), "half of it: y = (T - A + B) / 2");
      leaveRest(r);
      r.solved = true;
    }
  }

  // One value for the back side on every level; the rest is for further lines.
  void keepSides() {
    const size_t first = firstSolved();
    if (first >= table_.rows.size()) return;
    const double kept = table_.rows[first].b.mm;
    for (size_t i = 0; i < table_.rows.size(); ++i) {
      ShiftRow& r = table_.rows[i];
      r.y = used(r, 'y', kept, {{'+', msg("back side at the {}", table_.rows[first].name), kept, Source::Computed}},
                 "one value on every level keeps the side's shape; the rest goes to further lines");
      r.rest = wanted(r) - r.x.mm - r.y.mm;
      r.solved = i >= first;
    }
  }

  void addLengths() {
    for (const std::string_view id : kLengths) {
      const Measured *mine = measureAt(client_, id), *base = measureAt(pattern_, id);
      if (!mine || !base) continue;
      const MeasureInfo* row = findMeasure(id);
      LengthRow length;
      length.id = id;
      length.name = known(row->name);
      length.client = *mine;
      length.pattern = *base;
      length.shift = cell(length.id, length.name,
                          {{'+', "client", mine->mm, mine->source}, {'-', "pattern", base->mm, base->source}},
                          mine->mm - base->mm, "along its direction");
      table_.lengths.push_back(std::move(length));
    }
  }

  Message reason() const {
    const bool waist = options_.from == SolvedFrom::Waist;
    if (options_.toLines)
      return waist ? "front side as at the underbust, back side as at the waist, on every level; what is left of a "
                     "girth goes to the seams of the back and the front side's own line, so the side keeps its shape"
                   : "front side as at the underbust, back side as there too, on every level; what is left of a girth "
                     "goes to the seams of the back and the front side's own line, so the side keeps its shape";
    return waist
               ? "solved from the waist down: bust and underbust stay as measured, so the ribs fit; below, both sides "
                 "change by one shape"
               : "solved from the underbust down: its back side follows the bust's, so both sides change by one shape "
                 "from the bust on; front and back of the underbust then differ from its arc";
  }

  const MeasuredAt& client_;
  const MeasuredAt& pattern_;
  const ShiftTableOptions& options_;
  ShiftTable table_;
};

}  // namespace

const ShiftRow* ShiftTable::row(std::string_view level) const {
  const auto found = std::ranges::find(rows, level, &ShiftRow::level);
  return found == rows.end() ? nullptr : &*found;
}

const Working* ShiftTable::working(std::string_view key) const {
  for (const ShiftRow& r : rows)
    for (const ShiftCell* c : {&r.e0, &r.f, &r.b, &r.x, &r.y})
      if (c->working.key == key) return &c->working;
  for (const LengthRow& l : lengths)
    if (l.shift.working.key == key) return &l.shift.working;
  return nullptr;
}

ShiftTable shiftTable(const MeasuredAt& client, const MeasuredAt& pattern, const ShiftTableOptions& options) {
  return TableMaker(client, pattern, options).made();
}

MeasuredAt measuredOn(const Body& body) {
  MeasuredAt all;
  for (const Fact& f : body.facts()) all.insert_or_assign(f.id, Measured{f.mm, f.source});
  return all;
}

bool isShiftCell(std::string_view cell) {
  if (cell == "e0") return true;
  if (std::ranges::find(kLengths, cell) != kLengths.end()) return true;
  const size_t dot = cell.find('.');
  if (dot == std::string_view::npos) return false;
  const std::string_view which = cell.substr(dot + 1);
  return std::ranges::find(kLevels, cell.substr(0, dot), &TableLevel::level) != kLevels.end() &&
         (which == "f" || which == "b" || which == "x" || which == "y");
}

}  // namespace armure
