#include "alter/proposal.h"

#include <Eigen/QR>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

#include "alter/alter.h"
#include "alter/complaints.h"
#include "alter/wish.h"

namespace armure {
namespace {

enum class Move { LetOut, Over, Longer };

// One unknown: what a line does at a place, or between a place and the next one below.
using Unknown = std::tuple<std::string, Move, std::string>;

struct Equation {
  size_t note = 0;
  std::vector<std::pair<Unknown, double>> terms;
  double wanted = 0;
};

bool isLonger(FitWork work) {
  return work == FitWork::Raise || work == FitWork::Lower || work == FitWork::Lengthen || work == FitWork::Shorten;
}

// Seams of the shell that go down the panels: what a girth is shared over.
std::vector<std::string> girthLines(const Pattern& p) {
  std::vector<std::string> lines;
  for (const Seam& s : p.seams) {
    const Piece &a = p.pieces[s.a.piece], &b = p.pieces[s.b.piece];
    if (s.kind == SeamKind::Plain && a.layer == "shell" && a.part == Part::Panel && b.part == Part::Panel)
      lines.push_back(s.id);
  }
  return lines;
}

// All notes, as equations.
class Equations {
 public:
  // Of the notes that concern this side of the body; `Both`: of all that concern both.
  Equations(const Pattern& pattern, const std::vector<FitNote>& notes, BodySide side) : pattern_(pattern) {
    for (size_t i = 0; i < notes.size(); ++i)
      if (notes[i].half == BodySide::Both || notes[i].half == side) add(i, notes[i]);
  }

  std::vector<Equation> all;
  std::vector<NoteOutcome> unanswered;
  // Places on lines that a note of the whole girth runs past: no girth is measured there.
  std::set<std::pair<std::string, std::string>> passed;

 private:
  void add(size_t i, const FitNote& note) {
    const std::string line = note.line.empty() ? std::string(kEveryLine) : note.line;
    const std::vector<std::string> places = placesOn(pattern_, line);
    const auto from = std::ranges::find(places, note.from), to = std::ranges::find(places, note.to);
    if (!note.line.empty() && linesOf(pattern_, {line, ShiftSides::Both, ShiftWay::Across, {}}).empty())
      return refuse(i, note, msg("this style has no line {}", note.line));
    if (from == places.end() || to == places.end())
      return refuse(i, note,
                    msg("{} does not cross {}", lineName(pattern_, line),
                        pattern_.levelName(from == places.end() ? note.from : note.to)));
    if (from > to) return refuse(i, note, "its upper level lies below its lower one");
    const auto a = static_cast<size_t>(from - places.begin()), b = static_cast<size_t>(to - places.begin());
    const size_t before = all.size();
    if (isLonger(note.work)) {
      lengths(i, note, line, places, a, b);
    } else {
      widths(i, note, places, a, b);
    }
    if (all.size() == before) refuse(i, note, "there is nothing between its levels");
  }

  void refuse(size_t i, const FitNote& note, Message why) { unanswered.push_back({i, note.mm, 0, std::move(why)}); }

  // Whether a note on a line holds in full at an end of it: where that is a finished edge; at a shoulder or another
  // piece it runs out.
  bool fullAtEnd(const std::string& line, bool atTop) const {
    const std::vector<LineSide> sides =
        line.empty() ? std::vector<LineSide>{} : linesOf(pattern_, {line, ShiftSides::Both, ShiftWay::Across, {}});
    return std::ranges::all_of(sides, [&](const LineSide& s) { return endsFree(pattern_, s.side, atTop); });
  }

  void widths(size_t i, const FitNote& note, const std::vector<std::string>& places, size_t from, size_t to) {
    const bool less = note.work == FitWork::TakeIn || note.work == FitWork::Shallower;
    const bool over = note.work == FitWork::Forward || note.work == FitWork::Backward;
    const double mm = less || note.work == FitWork::Backward ? -note.mm : note.mm;
    for (const std::string& place :
         fullPlaces(places, from, to, fullAtEnd(note.line, true), fullAtEnd(note.line, false))) {
      Equation e{i, {}, mm};
      if (!note.line.empty()) {
        e.terms.push_back({{note.line, over ? Move::Over : Move::LetOut, place}, 1});
      } else {
        const PatternLevel* level = pattern_.level(place);
        const bool end = place == kUpperEnd || place == kLowerEnd;
        for (const std::string& line : girthLines(pattern_)) {
          const Seam& s = *pattern_.seam(line);
          if (!end && level && !level->ring) {
            passed.insert({line, place});
          } else if (end ? endsFree(pattern_, s.a, place == kUpperEnd) && endsFree(pattern_, s.b, place == kUpperEnd)
                         : placeOnLine(pattern_, s.a, place) && placeOnLine(pattern_, s.b, place)) {
            e.terms.push_back({{line, Move::LetOut, place}, note.half == BodySide::Both ? 2.0 : 1.0});
          }
        }
      }
      if (!e.terms.empty()) all.push_back(std::move(e));
    }
  }

  void lengths(size_t i, const FitNote& note, const std::string& line, const std::vector<std::string>& places,
               size_t from, size_t to) {
    const auto longer = [&](size_t above, size_t below, double mm) {
      Equation e{i, {}, mm};
      for (size_t k = above; k < below; ++k) e.terms.push_back({{line, Move::Longer, places[k]}, 1});
      if (!e.terms.empty()) all.push_back(std::move(e));
    };
    if (note.work == FitWork::Lengthen || note.work == FitWork::Shorten)
      return longer(from, to, note.work == FitWork::Lengthen ? note.mm : -note.mm);
    // A place that is raised: shorter above it, longer below.
    const double up = note.work == FitWork::Raise ? note.mm : -note.mm;
    if (from != to) return longer(from, to, -up);
    if (from > 0) longer(from - 1, from, -up);
    if (from + 1 < places.size()) longer(from, from + 1, up);
  }

  const Pattern& pattern_;
};

// The unknowns of least squares, and what the equations get of them.
std::map<Unknown, double> solved(const std::vector<Equation>& equations, std::vector<double>& got) {
  std::map<Unknown, Eigen::Index> number;
  for (const Equation& e : equations)
    for (const auto& [unknown, factor] : e.terms) number.emplace(unknown, 0);
  Eigen::Index n = 0;
  for (auto& [unknown, column] : number) column = n++;
  const auto m = static_cast<Eigen::Index>(equations.size());
  Eigen::MatrixXd A = Eigen::MatrixXd::Zero(m, n);
  Eigen::VectorXd b(m);
  for (Eigen::Index i = 0; i < m; ++i) {
    const Equation& e = equations[static_cast<size_t>(i)];
    b[i] = e.wanted;
    for (const auto& [unknown, factor] : e.terms) A(i, number[unknown]) += factor;
  }
  const Eigen::VectorXd u = A.completeOrthogonalDecomposition().solve(b), reached = A * u;
  got.assign(reached.data(), reached.data() + m);
  std::map<Unknown, double> all;
  for (const auto& [unknown, column] : number) all[unknown] = u[column];
  return all;
}

// The shift of one line: at its places as found, nothing at the others.
Shift acrossShift(const Pattern& p, const std::string& line, Move move, const std::map<std::string, double>& at,
                  const std::set<std::pair<std::string, std::string>>& passed) {
  Shift shift{line, move == Move::Over ? ShiftSides::Over : ShiftSides::Both, ShiftWay::Across, {}};
  const bool shared = move == Move::LetOut && p.seam(line);
  const double factor = move == Move::Over ? (aIsForward(p, line) ? -1 : 1) : shared ? 0.5 : 1;
  const std::vector<std::string> places = placesOn(p, line);
  for (size_t k = 0; k < places.size(); ++k) {
    const auto found = at.find(places[k]);
    const bool end = k == 0 || k + 1 == places.size();
    // At its ends a line is as at the level next to it, unless a note speaks of the end.
    if (found != at.end()) {
      shift.at.push_back({places[k], factor * found->second});
    } else if (!end && !passed.contains({line, places[k]})) {
      shift.at.push_back({places[k], 0});
    } else if (!end) {
      continue;  // as between its neighbours
    } else if (const auto next = at.find(places[k == 0 ? 1 : places.size() - 2]); next != at.end()) {
      shift.at.push_back({places[k], 0});
    }
    if (k + 1 == places.size()) break;
    const auto half = at.find(places[k] + "~" + places[k + 1]);
    if (half != at.end()) shift.at.push_back({half->first, factor * half->second});
  }
  return shift;
}

// Amounts downwards that make every stretch longer as found; the waist stays, or the first place.
Shift alongShift(const Pattern& p, const std::string& line, const std::map<std::string, double>& longer) {
  Shift shift{line, ShiftSides::Both, ShiftWay::Along, {}};
  const std::vector<std::string> places = placesOn(p, line);
  double down = 0;
  for (size_t k = 0; k < places.size(); ++k) {
    shift.at.push_back({places[k], down});
    if (const auto found = longer.find(places[k]); found != longer.end()) down += found->second;
  }
  // What nothing is said of stays where it is: the lower end, unless it is spoken of itself.
  const bool lower = places.size() > 1 && longer.contains(places[places.size() - 2]);
  if (!lower)
    for (ShiftAt& at : shift.at) at.mm -= down;
  return shift;
}

std::vector<Shift> shiftsOf(const Pattern& p, const std::map<Unknown, double>& unknowns,
                            const std::set<std::pair<std::string, std::string>>& passed) {
  std::map<std::pair<std::string, Move>, std::map<std::string, double>> byLine;
  for (const auto& [unknown, value] : unknowns) {
    const auto& [line, move, place] = unknown;
    byLine[{line, move}][place] = value;
  }
  std::vector<Shift> shifts;
  for (const auto& [line, at] : byLine) {
    constexpr double kNothing = 1e-6;  // mm
    if (std::ranges::all_of(at, [&](const auto& a) { return std::abs(a.second) < kNothing; })) continue;
    shifts.push_back(line.second == Move::Longer ? alongShift(p, line.first, at)
                                                 : acrossShift(p, line.first, line.second, at, passed));
  }
  return shifts;
}

}  // namespace

namespace {

// What one half of the body asks for.
struct HalfProposal {
  std::vector<Shift> shifts;
  std::map<size_t, NoteOutcome> outcomes;  // by note
};

// Keeps of two outcomes of a note the one that is farther from what it asked for.
void keepWorse(std::map<size_t, NoteOutcome>& all, NoteOutcome outcome) {
  const auto [at, isNew] = all.try_emplace(outcome.note, outcome);
  if (isNew) return;
  const auto off = [](const NoteOutcome& o) { return std::abs(o.got - o.wanted); };
  if (off(outcome) > off(at->second)) at->second = std::move(outcome);
}

HalfProposal proposalOf(const Pattern& pattern, const Fitting& fitting, BodySide side) {
  Equations equations(pattern, fitting.notes, side);
  HalfProposal half;
  for (NoteOutcome& o : equations.unanswered) half.outcomes.emplace(o.note, std::move(o));
  if (equations.all.empty()) return half;
  std::vector<double> got;
  half.shifts = shiftsOf(pattern, solved(equations.all, got), equations.passed);
  for (size_t i = 0; i < equations.all.size(); ++i)
    keepWorse(half.outcomes, {equations.all[i].note, equations.all[i].wanted, got[i], {}});
  return half;
}

// The shifts of both halves: once where they are alike, else each for its own.
std::vector<Shift> ofBoth(std::vector<Shift> left, std::vector<Shift> right) {
  std::vector<Shift> all;
  for (Shift& s : left) {
    if (const auto same = std::ranges::find(right, s); same != right.end()) {
      right.erase(same);
    } else {
      s.half = BodySide::Left;
    }
    all.push_back(std::move(s));
  }
  for (Shift& s : right) {
    s.half = BodySide::Right;
    all.push_back(std::move(s));
  }
  return all;
}

}  // namespace

Proposal proposalFor(const Pattern& pattern, const Fitting& fitting) {
  Proposal proposal;
  proposal.alteration.date = fitting.date;
  proposal.alteration.fitting = fitting.id;
  HalfProposal made;
  if (std::ranges::all_of(fitting.notes, [](const FitNote& n) { return n.half == BodySide::Both; })) {
    made = proposalOf(pattern, fitting, BodySide::Both);
  } else {
    made = proposalOf(pattern, fitting, BodySide::Left);
    HalfProposal right = proposalOf(pattern, fitting, BodySide::Right);
    made.shifts = ofBoth(std::move(made.shifts), std::move(right.shifts));
    for (auto& [note, outcome] : right.outcomes) keepWorse(made.outcomes, std::move(outcome));
  }
  proposal.alteration.shifts = std::move(made.shifts);
  for (auto& [note, outcome] : made.outcomes) proposal.outcomes.push_back(std::move(outcome));
  return proposal;
}

Message workWords(FitWork work) {
  switch (work) {
    case FitWork::TakeIn:
      return "take in";
    case FitWork::LetOut:
      return "let out";
    case FitWork::Raise:
      return "raise";
    case FitWork::Lower:
      return "lower";
    case FitWork::Lengthen:
      return "lengthen";
    case FitWork::Shorten:
      return "shorten";
    case FitWork::Deeper:
      return "deepen";
    case FitWork::Shallower:
      return "make shallower";
    case FitWork::Forward:
      return "move forward";
    case FitWork::Backward:
      break;
  }
  return "move back";
}

namespace {

Message placeWords(const Pattern& pattern, std::string_view place) {
  if (place == kUpperEnd) return "upper end";
  if (place == kLowerEnd) return "lower end";
  return pattern.levelName(place);
}

}  // namespace

Message atPlace(const Pattern& pattern, std::string_view place) {
  if (const size_t between = place.find('~'); between != std::string_view::npos)
    return msg("between {} and {}", placeWords(pattern, place.substr(0, between)),
               placeWords(pattern, place.substr(between + 1)));
  return msg("at the {}", placeWords(pattern, place));
}

Message noteWords(const Pattern& pattern, const FitNote& note) {
  const Message line = onSide(lineName(pattern, note.line), note.half);
  if (note.from == note.to)
    return msg("{}, {} by {}, {}", line, workWords(note.work), Length{note.mm}, atPlace(pattern, note.from));
  return msg("{}, {} by {}, {} to {}", line, workWords(note.work), Length{note.mm}, placeWords(pattern, note.from),
             placeWords(pattern, note.to));
}

std::vector<Message> shiftWords(const Pattern& pattern, const Alteration& alteration) {
  std::vector<Message> lines;
  for (const Shift& s : alteration.shifts) {
    std::vector<Message> amounts;
    for (const ShiftAt& at : s.at) {
      if (at.mm == 0) continue;
      const Message place = atPlace(pattern, at.place);
      const Length by{std::abs(at.mm)};
      if (s.way == ShiftWay::Along) {
        amounts.push_back(at.mm > 0 ? msg("{} down {}", by, place) : msg("{} up {}", by, place));
      } else if (s.sides == ShiftSides::Over) {
        const Seam* seam = pattern.seam(s.line);
        const size_t gains = !seam ? 0 : at.mm > 0 ? seam->a.piece : seam->b.piece;
        amounts.push_back(msg("{} to the {} {}", by, pattern.pieces[gains].name, place));
      } else {
        amounts.push_back(at.mm > 0 ? msg("let out {} {}", by, place) : msg("take in {} {}", by, place));
      }
    }
    if (amounts.empty()) continue;
    const Message line = onSide(lineName(pattern, s.line), s.half);
    lines.push_back(s.sides == ShiftSides::Both && s.way == ShiftWay::Across && pattern.seam(s.line)
                        ? msg("{}, each edge: {}", line, Listed{amounts})
                        : msg("{}: {}", line, Listed{amounts}));
  }
  return lines;
}

}  // namespace armure
