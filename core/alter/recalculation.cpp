#include "alter/recalculation.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "alter/alter.h"
#include "distribute/distribution.h"
#include "measure/measure_table.h"
#include "operations/crossing.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

const Piece& pieceOf(const Pattern& p, const SeamSide& side) { return p.pieces[side.piece]; }

bool crosses(const Pattern& p, const Seam& seam, std::string_view level) {
  return placeOnLine(p, seam.a, level) && placeOnLine(p, seam.b, level);
}

// The parts a line runs through down the garment.
constexpr std::array kStoreys{Part::Yoke, Part::Panel, Part::Skirt};

// One line down the garment: the seams that lie on it, from the top down.
using Line = std::vector<const Seam*>;

Line sideLine(const Pattern& p) {
  Line line;
  for (const Part part : kStoreys)
    for (const Seam& s : p.seams) {
      const Piece& a = pieceOf(p, s.a);
      if (a.layer == "shell" && a.part == part && isSideSeam(p, s)) line.push_back(&s);
    }
  return line;
}

// The lines that can take what would spoil the side: seams of the back, those of the front beyond the bust point, that
// run through from the bodice to the hem. A dart takes nothing: it is no seam.
std::vector<Line> furtherLines(const Pattern& p) {
  const bool skirt = std::ranges::any_of(p.pieces, [](const Piece& piece) { return piece.part == Part::Skirt; });
  std::vector<Line> lines;
  for (const auto& [half, first] : {std::pair{Half::Front, 2}, {Half::Back, 1}})
    for (int n = first; seamOutwards(p, Part::Panel, half, n); ++n) {
      Line line;
      bool through = true;
      for (const Part part : kStoreys) {
        const Seam* s = seamOutwards(p, part, half, n);
        if (s && s->kind == SeamKind::Plain) line.push_back(s);
        if (part != Part::Yoke && (!s || s->kind != SeamKind::Plain))
          through = through && part == Part::Skirt && !skirt;
      }
      if (through) lines.push_back(std::move(line));
    }
  return lines;
}

class ShiftMaker {
 public:
  ShiftMaker(const ShiftTable& table, const Pattern& shell) : table_(table), shell_(shell) {}

  Alteration made() {
    alteration_.id = "recalculation";
    alteration_.name = "recalculated from the base";
    centre();
    sides();
    for (const RestLine& line : table_.lines) further(line);
    lengths();
    return std::move(alteration_);
  }

 private:
  void add(Shift shift) {
    if (std::any_of(shift.at.begin(), shift.at.end(), [](const ShiftAt& a) { return a.mm != 0; }))
      alteration_.shifts.push_back(std::move(shift));
  }

  void centre() {
    if (table_.rows.empty()) return;
    const double e0 = table_.rows.front().e0.mm;
    for (const Piece& p : shell_.pieces)
      if (p.layer == "shell" && p.half == Half::Front)
        for (const Edge& e : p.edges)
          if (isCentre(e.role))
            add({p.id + "." + e.id, ShiftSides::A, ShiftWay::Across, {{std::string(kUpperEnd), e0}}});
  }

  // A row of the table a seam crosses, and how far below its upper end.
  struct CrossedRow {
    size_t row = 0;
    double at = 0;
  };
  std::vector<CrossedRow> crossed(const Seam& seam) const {
    std::vector<CrossedRow> rows;
    for (size_t i = 0; i < table_.rows.size(); ++i)
      if (crosses(shell_, seam, table_.rows[i].level))
        rows.push_back({i, *placeOnLine(shell_, seam.a, table_.rows[i].level)});
    return rows;
  }

  // The amounts of a column on each seam of a line. Where one seam ends on another (at a yoke, at the waist) both have
  // the amount between the nearest levels of either.
  std::vector<std::vector<ShiftAt>> amounts(const Line& line, const std::vector<double>& column) const {
    std::vector<std::vector<CrossedRow>> rows;
    std::vector<std::vector<ShiftAt>> all(line.size());
    for (size_t k = 0; k < line.size(); ++k) {
      rows.push_back(crossed(*line[k]));
      for (const CrossedRow& r : rows[k]) all[k].push_back({table_.rows[r.row].level, column[r.row]});
    }
    for (size_t k = 0; k + 1 < line.size(); ++k) {
      const auto& upper = rows[k];
      const auto& lower = rows[k + 1];
      double joint = column.empty() ? 0 : column.back();
      const double below = upper.empty() ? 0 : shell_.sidePath(line[k]->a).length() - upper.back().at;
      if (!upper.empty() && !lower.empty()) {
        const double u = column[upper.back().row], l = column[lower.front().row], whole = below + lower.front().at;
        joint = whole > 0 ? (u * lower.front().at + l * below) / whole : u;
      } else if (!upper.empty() || !lower.empty()) {
        joint = column[upper.empty() ? lower.front().row : upper.back().row];
      }
      all[k].push_back({std::string(kLowerEnd), joint});
      all[k + 1].push_back({std::string(kUpperEnd), joint});
    }
    return all;
  }

  void sides() {
    std::vector<double> x, y;
    for (const ShiftRow& row : table_.rows) {
      x.push_back(row.x.mm);
      y.push_back(row.y.mm);
    }
    const Line side = sideLine(shell_);
    const auto front = amounts(side, x), back = amounts(side, y);
    for (size_t k = 0; k < side.size(); ++k) {
      const Seam& s = *side[k];
      const bool frontIsA = pieceOf(shell_, s.a).half == Half::Front;
      add({s.id, frontIsA ? ShiftSides::A : ShiftSides::B, ShiftWay::Across, front[k]});
      add({s.id, frontIsA ? ShiftSides::B : ShiftSides::A, ShiftWay::Across, back[k]});
    }
  }

  void further(const RestLine& rest) {
    Line line;
    for (const std::string& id : rest.seams) line.push_back(shell_.seam(id));
    std::vector<double> each;  // of either edge
    for (const double taken : rest.takes) each.push_back(taken / 2);
    auto at = amounts(line, each);
    for (size_t j = 0; j < line.size(); ++j) {
      const Seam& s = *line[j];
      // On the way to a shoulder or an armhole it runs out: these keep their length.
      if (j == 0 && seamEnd(shell_, s.a, true).acrossRole != EdgeRole::Top)
        at[j].push_back({std::string(kUpperEnd), 0});
      add({s.id, ShiftSides::Both, ShiftWay::Across, std::move(at[j])});
    }
  }

  const LengthRow* length(std::string_view id) const {
    const auto found = std::ranges::find(table_.lengths, id, &LengthRow::id);
    return found == table_.lengths.end() ? nullptr : &*found;
  }
  double shiftOf(std::string_view id) const { return length(id) ? length(id)->shift.mm : 0; }

  void lengths() {
    const std::string waist = "waist", bust = "bust";
    for (const Seam& s : shell_.seams) {
      if (pieceOf(shell_, s.a).layer != "shell") continue;
      if (isSideSeam(shell_, s) && crosses(shell_, s, waist))
        add({s.id,
             ShiftSides::Both,
             ShiftWay::Along,
             {{std::string(kUpperEnd), -shiftOf(id::kSideLength)}, {waist, 0}}});
      const bool a = isCup(shell_.pieces[s.a.piece]), b = isCup(shell_.pieces[s.b.piece]);
      if (a && b && crosses(shell_, s, bust))
        add({s.id, ShiftSides::Both, ShiftWay::Along, {{std::string(kUpperEnd), -shiftOf("cup_up")}, {bust, 0}}});
      if (a != b && isCupLine(a ? s.a : s.b)) cupLine(s, a);
    }
  }

  bool isCupLine(const SeamSide& cup) const {
    return shell_.pieces[cup.piece].edge(cup.chain.front().edge).role == EdgeRole::Cup;
  }

  // A cup line runs from the centre front outwards, down to the underbust and up again. What the cup gains the frame
  // loses.
  void cupLine(const Seam& seam, bool cupIsA) {
    const SeamSide& cup = cupIsA ? seam.a : seam.b;
    const Path path = shell_.sidePath(cup);
    const double in = shiftOf("cup_in"), out = shiftOf("cup_out"), down = shiftOf("cup_down");
    const bool falls = path.end().y > path.start().y;
    const bool band = shell_.pieces[cup.piece].part == Part::CupBand;
    const double sign = cupIsA ? 1 : -1;
    const double start = falls ? in : band ? out : down, end = falls ? (band ? in : down) : out;
    add({seam.id,
         ShiftSides::Over,
         ShiftWay::Across,
         {{std::string(kUpperEnd), sign * start}, {std::string(kLowerEnd), sign * end}}});
  }

  const ShiftTable& table_;
  const Pattern& shell_;
  Alteration alteration_;
};

// What the lines can take of the rest of every level, the same of each to begin with.
DistributionProblem sharing(const ShiftTable& table, const Pattern& shell, const std::vector<Line>& lines, double cap) {
  constexpr double kApart = 100;  // mm: levels count as evenly spaced
  DistributionProblem problem;
  for (const Line& l : lines) problem.lines.push_back({l.front()->id, 1});
  for (size_t i = 0; i < table.rows.size(); ++i) {
    std::vector<bool> here;
    for (const Line& l : lines)
      here.push_back(std::ranges::any_of(l, [&](const Seam* s) { return crosses(shell, *s, table.rows[i].level); }));
    const auto count = static_cast<double>(std::ranges::count(here, true));
    const double taken = std::clamp(table.rows[i].rest, -count * cap, count * cap);
    problem.levels.push_back({table.rows[i].level, kApart * static_cast<double>(i), taken});
    for (const bool crossed : here)
      problem.cells.push_back(crossed ? TakingCell{taken / count, -cap, cap} : TakingCell{});
  }
  return problem;
}

}  // namespace

bool takesRest(const Pattern& shell) { return !furtherLines(shell).empty(); }

void shareRest(ShiftTable& table, const Pattern& shell, double cap) {
  const std::vector<Line> lines = furtherLines(shell);
  if (!table.toLines || lines.empty() || table.rows.empty()) return;
  const Distribution shared = distribute(sharing(table, shell, lines, cap));
  for (size_t k = 0; k < lines.size(); ++k) {
    RestLine rest{lines[k].front()->name, {}, {}};
    for (const Seam* s : lines[k]) rest.seams.push_back(s->id);
    for (size_t i = 0; i < table.rows.size(); ++i) rest.takes.push_back(shared.intakes[i * lines.size() + k]);
    table.lines.push_back(std::move(rest));
  }
  constexpr double kShared = 1e-6;  // mm
  for (size_t i = 0; i < table.rows.size(); ++i) {
    ShiftRow& row = table.rows[i];
    double left = row.rest;
    for (const RestLine& l : table.lines) left -= l.takes[i];
    if (std::abs(left) < kShared) continue;
    row.y.mm += left;
    row.rest -= left;
    row.y.working.terms.push_back({'+', "what the further lines cannot take", left, Source::Computed});
    row.y.working.result = row.y.mm;
  }
}

Alteration recalculationOf(const ShiftTable& table, const Pattern& shell) { return ShiftMaker(table, shell).made(); }

}  // namespace armure
