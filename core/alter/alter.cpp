#include "alter/alter.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

#include "alter/displacement.h"
#include "alter/line_shift.h"
#include "alter/one_sided.h"
#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

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
  return isFree(pattern.pieces[side.piece].lineAt(lineBeyond(pattern, side, atTop)).role);
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
  if (isOneSided(alterations)) {
    const std::vector<double> right = letOut(source, ofSide(alterations, BodySide::Right));
    std::vector<double> mean = letOut(source, ofSide(alterations, BodySide::Left));
    for (size_t i = 0; i < mean.size(); ++i) mean[i] = (mean[i] + right[i]) / 2;
    return mean;
  }
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
