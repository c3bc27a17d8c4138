#include "alter/alter.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

#include "alter/displacement.h"
#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

using LineKey = std::pair<size_t, size_t>;  // piece, and the number of the line on it

// Square to a line there, out of the cloth, which lies on its right.
Vec2 outwards(const Path& path, double s) {
  const Vec2 along = path.tangentAt(s);
  return {along.y, -along.x};
}

// Where a level crosses a line of a piece, as arc length on that line; `end` tells its ends on a piece apart.
struct Crossing {
  double s = 0;
  LevelLine level;
  size_t end = 0;
};

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

// The direction a line is shifted in, as a function of arc length: between two levels it turns from one to the other.
class Direction {
 public:
  Direction(const Piece& piece, size_t line, ShiftWay way) : path_(&piece.lineAt(line).path) {
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

  Vec2 operator()(double s) const {
    if (turn_) return rotated(first_, (*turn_)(s));
    return down_ ? Vec2{0, 1} : outwards(*path_, s);
  }

 private:
  const Path* path_;
  Vec2 first_{};
  std::optional<Amounts> turn_;
  bool down_ = false;
};

// One shift on one line of a piece: amounts along the chain it belongs to, and which way they go.
struct LineShift {
  size_t shift = 0;  // which of all
  LineKey line;
  const Edge* edge = nullptr;
  Amounts amounts;    // along the chain
  double before = 0;  // of the chain, mm
  bool reversed = false;
  double sign = 1;
  ShiftWay way{};
  Direction direction;

  double onChain(double s) const { return before + (reversed ? edge->path.length() - s : s); }
  double amount(double s) const { return sign * amounts(onChain(s)); }
  Vec2 shiftAt(double s) const { return amount(s) * direction(s); }
  Vec2 slopeAt(double s) const {
    constexpr double kStep = 1e-3;  // mm
    const double from = std::max(0.0, s - kStep), to = std::min(edge->path.length(), s + kStep);
    return to > from ? (shiftAt(to) - shiftAt(from)) / (to - from) : Vec2{};
  }
};

std::string_view sideName(bool isA) { return isA ? "first" : "second"; }

// All shifts of all alterations that are on, line by line.
class LineShifts {
 public:
  LineShifts(const Pattern& pattern, std::span<const Alteration> alterations) : pattern_(pattern) {
    for (const Alteration& a : alterations)
      if (a.on)
        for (const Shift& s : a.shifts) add(a, s);
  }

  std::vector<LineShift> all;
  std::vector<IdleShift> idle;

 private:
  void add(const Alteration& alteration, const Shift& shift) {
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

  bool addLine(const Alteration& alteration, const Shift& shift, const LineSide& line, double sign, bool every) {
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
  bool endsThere(const SeamSide& side, std::string_view place) const {
    if (place != kUpperEnd && place != kLowerEnd) return true;
    return endsFree(pattern_, side, place == kUpperEnd);
  }

  // A line that crosses only some of the levels a shift of every line names takes the amount of the one next above its
  // upper end, or below its lower end. Nothing where it crosses no level of the pattern.
  bool settleMissing(const Shift& shift, const SeamSide& side, std::vector<Amounts::At>& values) const {
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

  const Pattern& pattern_;
  size_t shifts_ = 0;
};

// One piece while its lines are displaced.
class PieceShift {
 public:
  PieceShift(const Piece& piece, size_t number, const std::vector<LineShift>& parts) : piece_(piece) {
    for (const LineShift& p : parts)
      if (p.line.first == number) parts_.push_back(&p);
  }
  bool isNothing() const { return parts_.empty(); }

  // The piece with every line displaced and every mark carried.
  Result<Piece> done() const {
    Piece out = piece_;
    EndShifts ends = endShifts();
    std::vector<Path> before(piece_.lines());
    for (size_t i = 0; i < piece_.lines(); ++i) {
      before[i] = withJoints(piece_.lineAt(i).path, jointsWanted(i));
      Displacement by = ownOf(i, before[i]);
      by.start = ends[i].first - by.at.front();
      by.end = ends[i].second - by.at.back();
      out.lineAt(i).path = displaced(before[i], by);
    }
    if (auto problem = bentFold(out)) return *problem;
    meetAgain(out);
    for (Mark& m : out.marks)
      for (Anchor* anchor : {&m.a, &m.b}) {
        if (anchor->edge.empty()) continue;
        const size_t i = edgePlace(piece_, anchor->edge);
        anchor->at = carriedAlong(before[i], out.lineAt(i).path, anchor->at);
      }
    return out;
  }

 private:
  using EndShifts = std::vector<std::pair<Vec2, Vec2>>;  // of every line, at its start and its end

  // Joints at every level a shifted line crosses, and at every place an amount is given for.
  std::vector<double> jointsWanted(size_t line) const {
    std::vector<double> at;
    for (const LineShift* p : parts_) {
      if (p->line.second != line) continue;
      for (const Crossing& c : crossingsOf(piece_, line)) at.push_back(c.s);
      for (const Station& s : p->amounts.stations()) {
        const double within = s.y - p->before, length = p->edge->path.length();
        at.push_back(p->reversed ? length - within : within);
      }
    }
    return at;
  }

  Displacement ownOf(size_t line, const Path& path) const {
    const std::vector<double> joints = jointsOf(path);
    Displacement by;
    by.at.assign(joints.size(), {});
    by.slope.assign(joints.size(), {});
    for (const LineShift* p : parts_) {
      if (p->line.second != line) continue;
      for (size_t j = 0; j < joints.size(); ++j) {
        by.at[j] = by.at[j] + p->shiftAt(joints[j]);
        by.slope[j] = by.slope[j] + p->slopeAt(joints[j]);
      }
    }
    return by;
  }

  // By how much every corner moves: each shift moves it once, by the mean of the lines of that shift which end there
  // (both legs at the point of a dart, two edges of one chain).
  EndShifts endShifts() const {
    struct Node {
      Vec2 at;
      std::map<size_t, std::pair<Vec2, int>> byShift = {};
    };
    std::vector<Node> nodes;
    const auto nodeAt = [&](Vec2 at) -> Node& {
      for (Node& n : nodes)
        if (distance(n.at, at) <= 10 * tolerance::kNothing) return n;
      return nodes.emplace_back(Node{at});
    };
    for (const LineShift* p : parts_) {
      const Path& path = p->edge->path;
      for (const double s : {0.0, path.length()}) {
        auto& [sum, count] = nodeAt(path.pointAt(s)).byShift[p->shift];
        sum = sum + p->shiftAt(s);
        ++count;
      }
    }
    const auto moved = [&](Vec2 at) {
      Vec2 sum;
      for (const Node& n : nodes)
        if (distance(n.at, at) <= 10 * tolerance::kNothing)
          for (const auto& [shift, one] : n.byShift) sum = sum + one.first / one.second;
      return sum;
    };
    EndShifts all;
    for (size_t i = 0; i < piece_.lines(); ++i)
      all.emplace_back(moved(piece_.lineAt(i).path.start()), moved(piece_.lineAt(i).path.end()));
    return all;
  }

  // Rounding apart, corners have stayed closed; closed to the last digit they have to be again.
  void meetAgain(Piece& out) const {
    for (size_t i = 0; i < out.edges.size(); ++i) {
      Edge &edge = out.edges[i], &next = out.edges[(i + 1) % out.edges.size()];
      next.path = withEnds(next.path, edge.path.end(), next.path.end());
    }
  }

  std::optional<Problem> bentFold(const Piece& out) const {
    for (const Edge& e : out.edges) {
      if (e.role != EdgeRole::Fold) continue;
      const Vec2 along = unit(e.path.end() - e.path.start());
      for (const Cubic& c : e.path.cubics())
        for (const Vec2 p : {c.p1, c.p2, c.p3})
          if (std::abs(cross(along, p - e.path.start())) > tolerance::kSamePlace)
            return Problem{piece_.name, "the alteration would bend its fold",
                           "shift a fold by the same amount on every level, or cut the piece in two there"};
    }
    return std::nullopt;
  }

  const Piece& piece_;
  std::vector<const LineShift*> parts_;
};

// The girth of every level changes by what was asked for on it.
double letOutBy(const Pattern& pattern, const std::vector<LineShift>& parts, std::string_view level) {
  double sum = 0;
  std::set<std::array<size_t, 3>> counted;  // shift, piece, end: at a corner of two shifted lines it counts once
  for (const LineShift& p : parts) {
    if (p.way != ShiftWay::Across) continue;
    const Piece& piece = pattern.pieces[p.line.first];
    if (piece.layer != "shell") continue;
    for (const Crossing& c : crossingsOf(piece, p.line.second))
      if (c.level.level == level && counted.insert({p.shift, p.line.first, c.end}).second)
        sum += p.amount(c.s) * piece.girthWeight();
  }
  return sum;
}

// What a plunge leaves open is measured from the centre: where the centre is let out, it grows by as much as the edges
// of the plunge do not follow.
void followCentre(const Pattern& source, const std::vector<LineShift>& parts, Pattern& altered) {
  const LineShift* centre = nullptr;
  for (const LineShift& p : parts)
    if (p.way == ShiftWay::Across && isCentre(p.edge->role) && source.pieces[p.line.first].half == Half::Front)
      centre = &p;
  if (!centre) return;
  const Path& path = centre->edge->path;
  const auto off = [&](Vec2 at) { return std::abs(cross(unit(path.end() - path.start()), at - path.start())); };
  const double by = centre->amount(path.start().y < path.end().y ? 0 : path.length());  // at its upper end
  for (PatternLevel& l : altered.levels) {
    if (l.gaps.skin == 0) continue;
    std::optional<std::pair<size_t, size_t>> innermost;  // piece, and which of its marks
    double least = HUGE_VAL;
    for (size_t i = 0; i < source.pieces.size(); ++i)
      for (size_t k = 0; k < source.pieces[i].marks.size(); ++k) {
        const Piece& piece = source.pieces[i];
        if (piece.layer != "shell" || piece.half != Half::Front || !piece.marks[k].isLevel()) continue;
        if (piece.marks[k].id != l.id) continue;
        if (const double d = off(piece.line(piece.marks[k]).a); d < least) least = d, innermost = {i, k};
      }
    if (!innermost) continue;
    const auto [i, k] = *innermost;
    const LevelLine was = source.pieces[i].line(source.pieces[i].marks[k]),
                    is = altered.pieces[i].line(altered.pieces[i].marks[k]);
    const double followed = dot(was.a - is.a, unit(was.b - was.a));
    l.gaps.skin += 2 * (by - followed);
    l.finishedGirth += 2 * by;
  }
}

// Lines a shift of every line moves: the sides of seams that run down, centre edges, dart legs; each edge once.
std::vector<LineSide> everyLine(const Pattern& pattern) {
  std::vector<LineSide> lines;
  for (const Seam& s : pattern.seams) {
    lines.push_back({s.a, true});
    lines.push_back({s.b, false});
  }
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const Edge& e : pattern.pieces[i].edges)
      if (!isSewn(e.role) && e.role != EdgeRole::Mouth)
        lines.push_back({{i, {{e.id, e.path.end().y < e.path.start().y}}}, true});
  return lines;
}

}  // namespace

bool endsFree(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const Piece& piece = pattern.pieces[side.piece];
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  const size_t line = edgePlace(piece, use.edge);
  return isFree(piece.lineAt(atTop != use.reversed ? piece.previous(line) : piece.next(line)).role);
}

std::optional<double> placeOnLine(const Pattern& pattern, const SeamSide& side, std::string_view place) {
  if (place == kUpperEnd) return 0;
  const Piece& piece = pattern.pieces[side.piece];
  if (place == kLowerEnd) return pattern.sidePath(side).length();
  if (const size_t between = place.find('~'); between != std::string_view::npos) {
    const auto a = placeOnLine(pattern, side, place.substr(0, between)),
               b = placeOnLine(pattern, side, place.substr(between + 1));
    return a && b ? std::optional((*a + *b) / 2) : std::nullopt;
  }
  for (const EdgeUse& use : side.chain)
    for (const Crossing& c : crossingsOf(piece, edgePlace(piece, use.edge)))
      if (c.level.level == place) return pattern.alongSide(side, {use.edge, c.s, {}});
  for (const Mark& m : piece.notches())
    if (m.id == place && side.uses(m.a.edge)) return pattern.alongSide(side, m.a);
  return std::nullopt;
}

std::vector<LineSide> linesOf(const Pattern& pattern, const Shift& shift) {
  if (shift.line == kEveryLine) return everyLine(pattern);
  std::vector<LineSide> lines;
  for (const Seam& s : pattern.seams) {
    if (s.id != shift.line) continue;
    if (shift.sides != ShiftSides::B) lines.push_back({s.a, true});
    if (shift.sides != ShiftSides::A) lines.push_back({s.b, false});
  }
  if (!lines.empty()) return lines;
  const size_t dot = shift.line.find('.');
  if (dot == std::string::npos) return lines;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& piece = pattern.pieces[i];
    if (piece.id != shift.line.substr(0, dot)) continue;
    const auto edge = std::ranges::find(piece.edges, shift.line.substr(dot + 1), &Edge::id);
    if (edge == piece.edges.end()) continue;
    const bool up = edge->path.end().y < edge->path.start().y;  // walked from its upper end
    lines.push_back({{i, {{edge->id, up}}}, true});
  }
  return lines;
}

std::vector<double> letOut(const Pattern& source, std::span<const Alteration> alterations) {
  const LineShifts shifts(source, alterations);
  std::vector<double> by;
  for (const PatternLevel& l : source.levels) by.push_back(letOutBy(source, shifts.all, l.id));
  return by;
}

Result<Altered> alter(const Pattern& source, std::span<const Alteration> alterations) {
  LineShifts parts(source, alterations);
  Altered out{source, std::move(parts.idle)};
  if (parts.all.empty()) return out;
  for (size_t i = 0; i < source.pieces.size(); ++i) {
    const PieceShift shift(source.pieces[i], i, parts.all);
    if (shift.isNothing()) continue;
    Result<Piece> piece = shift.done();
    if (!piece.ok()) return piece.problem();
    out.pattern.pieces[i] = std::move(piece).value();
  }
  for (PatternLevel& l : out.pattern.levels) l.finishedGirth += letOutBy(source, parts.all, l.id);
  followCentre(source, parts.all, out.pattern);
  for (Seam& s : out.pattern.seams) s.notches = notchesOf(out.pattern, s);
  return out;
}

}  // namespace armure
