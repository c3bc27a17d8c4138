#include "alter/line_shift.h"

#include <algorithm>
#include <cmath>

#include "pattern/outline_parts.h"

namespace armure {
namespace {

// Square to a line there, out of the cloth, which lies on its right.
Vec2 outwards(const Path& path, double s) {
  const Vec2 along = path.tangentAt(s);
  return {along.y, -along.x};
}

// A level that ends at a corner crosses both lines there, whichever of them it is kept on.
std::optional<double> endOn(const Piece& piece, const Edge& line, const Anchor& end) {
  constexpr double kAtCorner = 0.5;  // mm
  if (!end.onOutline()) return std::nullopt;
  if (end.edge == line.id) return end.at;
  const Vec2 at = piece.point(end);
  if (distance(at, line.path.start()) < kAtCorner) return 0;
  if (distance(at, line.path.end()) < kAtCorner) return line.path.length();
  return std::nullopt;
}

std::string_view sideName(bool isA) { return isA ? "first" : "second"; }

}  // namespace

std::vector<Crossing> crossingsOf(const Piece& piece, size_t line) {
  std::vector<Crossing> found;
  const Edge& edge = piece.lineAt(line);
  for (size_t m = 0; m < piece.marks.size(); ++m) {
    const Mark& mark = piece.marks[m];
    if (!mark.isLevel()) continue;
    const LevelLine level = piece.line(mark);
    if (line < piece.edges.size()) {
      if (const auto s = endOn(piece, edge, mark.a)) found.push_back({*s, level, 2 * m});
      if (const auto s = endOn(piece, edge, mark.b)) found.push_back({*s, level, 2 * m + 1});
      continue;
    }
    const size_t leg = line - piece.edges.size();
    if (const auto dart = Piece::crossing(piece.darts[leg / 2], level))
      found.push_back({dart->onLeg[leg % 2], level, 2 * piece.marks.size() + leg});
  }
  std::sort(found.begin(), found.end(), [](const Crossing& a, const Crossing& b) { return a.s < b.s; });
  return found;
}

Direction::Direction(const Piece& piece, size_t line, ShiftWay way) : path_(&piece.lineAt(line).path) {
  down_ = way == ShiftWay::Along;
  if (!down_ && piece.lineAt(line).role == EdgeRole::Cup) return;  // it goes round: square to it all the way
  if (down_ && piece.lineAt(line).role == EdgeRole::Fold) {        // it stays on itself
    const Vec2 fold = unit(path_->end() - path_->start());
    first_ = fold.y < 0 ? -fold : fold;
    turn_.emplace(std::vector<Amounts::At>{{0, 0}});
    return;
  }
  std::vector<Amounts::At> turns;
  for (const Crossing& c : crossingsOf(piece, line)) {
    const Vec2 level = unit(c.level.b - c.level.a), out = outwards(*path_, c.s);
    const Vec2 across = dot(level, out) < 0 ? -level : level;
    const Vec2 wanted = way == ShiftWay::Across ? across : Vec2{-level.y, level.x};
    if (turns.empty()) first_ = wanted;
    turns.push_back({c.s, angleBetween(first_, wanted)});
  }
  if (!turns.empty()) turn_.emplace(std::move(turns));
}

Vec2 Direction::operator()(double s) const {
  if (turn_) return rotated(first_, (*turn_)(s));
  return down_ ? Vec2{0, 1} : outwards(*path_, s);
}

Vec2 LineShift::slopeAt(double s) const {
  constexpr double kStep = 1e-3;  // mm
  const double from = std::max(0.0, s - kStep), to = std::min(edge->path.length(), s + kStep);
  return to > from ? (shiftAt(to) - shiftAt(from)) / (to - from) : Vec2{};
}

LineShifts::LineShifts(const Pattern& pattern, std::span<const Alteration> alterations) : pattern_(pattern) {
  for (const Alteration& a : alterations)
    if (a.on)
      for (const Shift& s : a.shifts) add(a, s);
}

void LineShifts::add(const Alteration& alteration, const Shift& shift) {
  const std::vector<LineSide> lines = linesOf(pattern_, shift);
  if (lines.empty()) {
    idle.push_back({alteration.id, msg("there is no line {}", shift.line)});
    return;
  }
  const bool every = shift.line == kEveryLine;
  bool any = false;
  for (const LineSide& l : lines) {
    const double sign = shift.sides == ShiftSides::Over && !l.isA ? -1 : 1;
    if (addLine(alteration, shift, l, sign, every)) any = true;
  }
  if (every && !any) idle.push_back({alteration.id, "no line crosses the levels it names"});
  ++shifts_;
}

bool LineShifts::addLine(const Alteration& alteration, const Shift& shift, const LineSide& line, double sign,
                         bool every) {
  std::vector<Amounts::At> values;
  std::vector<std::string_view> missing;
  for (const ShiftAt& at : shift.at) {
    // The ends of every line are the garment's.
    if (every && !endsThere(line.side, at.place)) continue;
    if (const auto s = placeOnLine(pattern_, line.side, at.place)) {
      values.push_back({*s, at.mm});
    } else {
      missing.push_back(at.place);
    }
  }
  if (every && !settleMissing(shift, line.side, values)) return false;
  if (!every)
    for (std::string_view place : missing)
      idle.push_back({alteration.id, msg("the {} side of {} does not cross {}", verbatim(sideName(line.isA)),
                                         shift.line, pattern_.levelName(place))});
  if (values.empty()) return false;
  const Amounts amounts(std::move(values));
  if (amounts.isZero()) return true;
  double before = 0;
  const Piece& piece = pattern_.pieces[line.side.piece];
  for (const EdgeUse& use : line.side.chain) {
    const size_t number = edgePlace(piece, use.edge);
    const Edge& edge = piece.lineAt(number);
    all.push_back({shifts_,
                   {line.side.piece, number},
                   &edge,
                   amounts,
                   before,
                   use.reversed,
                   sign,
                   shift.way,
                   Direction(piece, number, shift.way)});
    before += edge.path.length();
  }
  return true;
}

// Whether "top" or "hem" is meant of this line too: it ends in a finished edge there. Other places always are.
bool LineShifts::endsThere(const SeamSide& side, std::string_view place) const {
  if (place != kUpperEnd && place != kLowerEnd) return true;
  return endsFree(pattern_, side, place == kUpperEnd);
}

// A line that crosses only some of the levels a shift of every line names takes the amount of the one next above its
// upper end, or below its lower end. Nothing where it crosses no level of the pattern.
bool LineShifts::settleMissing(const Shift& shift, const SeamSide& side, std::vector<Amounts::At>& values) const {
  std::optional<size_t> first, last;  // levels of the pattern the line crosses
  std::vector<double> places(pattern_.levels.size(), 0);
  for (size_t i = 0; i < pattern_.levels.size(); ++i)
    if (const auto s = placeOnLine(pattern_, side, pattern_.levels[i].id)) {
      places[i] = *s;
      if (!first) first = i;
      last = i;
    }
  if (!first) return false;
  const auto levelOf = [&](std::string_view id) {
    return static_cast<size_t>(std::ranges::find(pattern_.levels, id, &PatternLevel::id) - pattern_.levels.begin());
  };
  for (const ShiftAt& at : shift.at) {
    const size_t i = levelOf(at.place);
    if (i < *first && std::none_of(values.begin(), values.end(), [&](const auto& v) { return v.s < places[*first]; }))
      values.push_back({places[*first] - 1, at.mm});
  }
  // From below: the lowest named level under the line's last one.
  for (auto at = shift.at.rbegin(); at != shift.at.rend(); ++at) {
    const size_t i = levelOf(at->place);
    if (i < pattern_.levels.size() && i > *last &&
        std::none_of(values.begin(), values.end(), [&](const auto& v) { return v.s > places[*last]; }))
      values.push_back({places[*last] + 1, at->mm});
  }
  return !values.empty();
}

}  // namespace armure
