#include "operations/divide.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <optional>
#include <set>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kNotchClear = 3;  // mm from the end of an edge: a notch there is the end itself

// What became of an edge: the parts it fell into, in the order it runs.
struct Division {
  size_t piece = 0;  // where the part is now
  std::string edge;  // its id there
  double from = 0, to = 0;
};
using PartsOf = std::map<std::string, std::vector<Division>, std::less<>>;  // by the id of the edge

// Cuts one piece in two.
class PieceCut {
 public:
  PieceCut(const Piece& piece, const LineThrough& line, const std::string& edgeId, const DividingLine& all)
      : piece_(piece), line_(line), edgeId_(edgeId), all_(all) {
    if (distance(pointAt(line.from), line.path.start()) > tolerance::kSamePlace ||
        distance(pointAt(line.to), line.path.end()) > tolerance::kSamePlace)
      throw std::invalid_argument(fmt::format("divide: the line does not end on the outline of {}", piece.id));
    if (runsThroughDart(piece, line.path))
      throw std::invalid_argument(fmt::format("divide: the line runs through a dart of {}", piece.id));
  }

  // Both parts; `places` are where they will stand in the pattern, left first.
  std::pair<Piece, Piece> cut(size_t leftPlace, size_t rightPlace) {
    Piece left = part(line_.from, line_.to, leftPlace), right = part(line_.to, line_.from, rightPlace);
    close(left, line_.path.reversed());
    close(right, line_.path);
    shareDarts(left, right, leftPlace, rightPlace);
    shareMarks(left, right, leftPlace, rightPlace);
    return {std::move(left), std::move(right)};
  }

  PartsOf& parts() { return parts_; }

 private:
  Vec2 pointAt(const Anchor& p) const { return piece_.edge(p.edge).path.pointAt(p.at); }

  // The boundary clockwise from one place to another.
  Piece part(const Anchor& from, const Anchor& to, size_t place) {
    Piece out = piece_;
    out.edges.clear();
    out.marks.clear();
    out.darts.clear();
    for (const BoundaryStretch& s : boundaryBetween(piece_, from, to)) {
      Edge e = piece_.edges[s.edge];
      if (s.to - s.from < e.path.length() - tolerance::kNothing) e.path = e.path.sub(s.from, s.to);
      while (hasEdge(out, e.id)) e.id += "-2";
      parts_[piece_.edges[s.edge].id].push_back({place, e.id, s.from, s.to});
      out.edges.push_back(std::move(e));
    }
    return out;
  }

  void close(Piece& out, Path path) const {
    std::vector<Cubic> cubics = path.cubics();
    cubics.front().p0 = out.edges.back().path.end();
    cubics.back().p3 = out.edges.front().path.start();
    out.edges.push_back({edgeId_, all_.role, all_.allowance, Path(std::move(cubics))});
    if (!out.onFold.empty() && !hasEdge(out, out.onFold)) cutInPairs(out);
  }

  // Every dart is whole, on the part its point lies in.
  void shareDarts(Piece& left, Piece& right, size_t leftPlace, size_t rightPlace) {
    const Polyline outline = left.outline(tolerance::kCoarseFlatness);
    for (const Dart& d : piece_.darts) {
      const bool isLeft = contains(outline, d.point());
      (isLeft ? left : right).darts.push_back(d);
      for (const Edge& leg : d.legs)
        parts_[leg.id].push_back({isLeft ? leftPlace : rightPlace, leg.id, 0, leg.path.length()});
    }
  }

  EdgeMap mapTo(size_t place) const {
    EdgeMap map;
    for (const auto& [was, parts] : parts_)
      for (const Division& p : parts)
        if (p.piece == place) map.push_back({was, p.from, p.to, p.edge});
    return map;
  }

  void shareMarks(Piece& left, Piece& right, size_t leftPlace, size_t rightPlace) const {
    const EdgeMap toLeft = mapTo(leftPlace), toRight = mapTo(rightPlace);
    for (const Mark& m : piece_.notches())
      for (const auto& [piece, map] : {std::pair{&left, &toLeft}, {&right, &toRight}})
        if (const auto at = carried(m.a, *map); at && !atCut(m.a, *map))
          piece->marks.push_back(notchMark(m.id, *at, m.doubled));
    const Polyline outline = left.outline(tolerance::kCoarseFlatness);
    for (const Mark& m : piece_.levelMarks()) {
      const LevelLine level = piece_.line(m);
      const bool along = runsAlong(level);
      const std::vector<Crossing> cuts = along ? std::vector<Crossing>{{0, {}}, {1, {}}} : crossingsOf(level);
      for (size_t i = 0; i + 1 < cuts.size(); ++i) {
        const Vec2 a = lerp(level.a, level.b, cuts[i].part), b = lerp(level.a, level.b, cuts[i + 1].part);
        if (distance(a, b) < tolerance::kLeastLevel) continue;
        const bool isLeft = !along && contains(outline, lerp(a, b, 0.5));
        Piece& home = isLeft ? left : right;
        const EdgeMap& map = isLeft ? toLeft : toRight;
        const auto end = [&](const Crossing& c, const Anchor& drafted, Vec2 point) {
          if (c.onLine) return Anchor{edgeId_, isLeft ? line_.path.length() - *c.onLine : *c.onLine, {}};
          const auto kept = carried(drafted, map);
          return kept ? *kept : anchorAt(home, point);  // it ran into the end of the line
        };
        home.marks.push_back({MarkKind::Level, m.id, end(cuts[i], m.a, a), end(cuts[i + 1], m.b, b), false});
      }
    }
    notchLevels(left, right);
  }

  // A level that is the line itself (the waist, where a waist seam is level) is not crossed by it, and stays on the
  // right.
  bool runsAlong(const LevelLine& level) const {
    constexpr double kAlong = 0.5;  // mm
    const double length = line_.path.length();
    const Vec2 across = unit(level.b - level.a);
    for (const double part : {0.0, 0.25, 0.5, 0.75, 1.0})
      if (std::abs(cross(across, line_.path.pointAt(part * length) - level.a)) > kAlong) return false;
    return true;
  }

  // A notch beside the end of a part is that end.
  bool atCut(const Anchor& notch, const EdgeMap& map) const {
    const double length = piece_.edge(notch.edge).path.length();
    for (const EdgePart& p : map) {
      if (p.was != notch.edge || notch.at < p.from - tolerance::kNothing || notch.at > p.to + tolerance::kNothing)
        continue;
      if (p.from > tolerance::kNothing && notch.at < p.from + kNotchClear) return true;
      if (p.to < length - tolerance::kNothing && notch.at > p.to - kNotchClear) return true;
    }
    return false;
  }

  // Where a level begins, crosses the line, and ends: the part of its width, and the length along the line.
  struct Crossing {
    double part = 0;
    std::optional<double> onLine;
  };
  std::vector<Crossing> crossingsOf(const LevelLine& level) const {
    const Vec2 across = level.b - level.a;
    std::vector<Crossing> cuts{{0, std::nullopt}};
    for (const double s : line_.path.crossings(level.a, across)) {
      const double t = dot(line_.path.pointAt(s) - level.a, across) / dot(across, across);
      if (t * norm(across) > tolerance::kLeastLevel && (1 - t) * norm(across) > tolerance::kLeastLevel)
        cuts.push_back({t, s});
    }
    cuts.push_back({1, std::nullopt});
    std::sort(cuts.begin(), cuts.end(), [](const Crossing& a, const Crossing& b) { return a.part < b.part; });
    return cuts;
  }

  // Notches where levels meet the line, the same on both sides.
  void notchLevels(Piece& left, Piece& right) const {
    std::set<std::string> known;
    const double length = line_.path.length();
    std::vector<Mark> notches;
    for (const Mark& m : left.levelMarks())
      for (const Anchor* end : {&m.a, &m.b}) {
        const double s = length - end->at;
        if (end->edge != edgeId_ || s < kNotchClear || s > length - kNotchClear || !known.insert(m.id).second) continue;
        right.marks.push_back(notchMark(m.id, {edgeId_, s, {}}));
        notches.push_back(notchMark(m.id, {edgeId_, length - s, {}}));
      }
    left.marks.insert(left.marks.end(), notches.begin(), notches.end());
  }

  const Piece& piece_;
  const LineThrough& line_;
  const std::string edgeId_;
  const DividingLine& all_;
  PartsOf parts_;
};

// A run of a seam's side that lies in one piece.
struct Run {
  size_t piece = 0;
  std::vector<EdgeUse> chain;
  double from = 0, to = 0;  // along the side as it was
};

// Divides the seams after the pieces.
class SeamCut {
 public:
  SeamCut(const Pattern& before, Pattern& after, const DividingLine& line, const std::map<size_t, PartsOf>& parts,
          size_t firstLeft)
      : before_(before), after_(after), line_(line), parts_(parts), firstLeft_(firstLeft) {}

  std::vector<Seam> seams() {
    std::vector<Seam> out;
    for (const Seam& s : before_.seams)
      for (Seam& part : divided(s)) out.push_back(std::move(part));
    return out;
  }

 private:
  bool isLeft(size_t piece) const { return piece >= firstLeft_; }

  std::vector<Run> runsOf(const SeamSide& side) const {
    std::vector<Run> runs;
    double along = 0;
    for (const EdgeUse& use : side.chain) {
      const double length = before_.pieces[side.piece].edge(use.edge).path.length();
      std::vector<Division> parts{{side.piece, use.edge, 0, length}};
      if (const auto cut = parts_.find(side.piece); cut != parts_.end()) parts = cut->second.at(use.edge);
      std::sort(parts.begin(), parts.end(),
                [&](const Division& a, const Division& b) { return use.reversed ? a.from > b.from : a.from < b.from; });
      for (const Division& p : parts) {
        if (runs.empty() || runs.back().piece != p.piece) runs.push_back({p.piece, {}, along, along});
        runs.back().chain.push_back({p.edge, use.reversed});
        along += p.to - p.from;
        runs.back().to = along;
      }
    }
    return runs;
  }

  std::vector<Seam> divided(const Seam& seam) {
    std::vector<Run> a = runsOf(seam.a), b = runsOf(seam.b);
    if (a.size() == 1 && b.size() > 1) a = splitLike(seam, a.front(), b, true);
    if (b.size() == 1 && a.size() > 1) b = splitLike(seam, b.front(), a, false);
    if (a.size() != b.size())
      throw std::invalid_argument("divide: the sides of the seam " + seam.id + " are not cut at the same places");
    std::vector<Seam> out;
    for (size_t i = 0; i < a.size(); ++i) out.push_back(part(seam, a[i], b[i]));
    if (out.size() == 1) {
      out.front().id = seam.id;
      out.front().name = seam.name;
    }
    return out;
  }

  // Cuts the edges of a side that was not cut where the other one is, piece unchanged.
  std::vector<Run> splitLike(const Seam& seam, const Run& whole, const std::vector<Run>& other, bool isA) {
    std::vector<Run> runs;
    double from = whole.from;
    for (size_t i = 0; i < other.size(); ++i) {
      const double to = i + 1 == other.size() ? whole.to : across(seam, other[i].to, !isA);
      runs.push_back({whole.piece, {}, from, to});
      from = to;
    }
    double along = 0;
    size_t run = 0;
    for (const EdgeUse& use : whole.chain) {
      double left = after_.pieces[whole.piece].edge(use.edge).path.length();
      EdgeUse rest = use;
      while (run + 1 < runs.size() && along + left > runs[run].to + tolerance::kNothing) {
        const double here = runs[run].to - along;
        if (here > tolerance::kNothing) {
          const auto [first, second] = splitEdge(after_.pieces[whole.piece], rest, here);
          runs[run].chain.push_back(first);
          rest = second;
          along += here;
          left -= here;
        }
        ++run;
      }
      runs[run].chain.push_back(rest);
      along += left;
    }
    return runs;
  }

  // The place on the other side of a seam that is sewn to one on side a (or b), between notches in proportion.
  double across(const Seam& seam, double along, bool fromA) const {
    const double la = before_.sidePath(seam.a).length(), lb = before_.sidePath(seam.b).length();
    double x0 = 0, y0 = 0, x1 = fromA ? la : lb, y1 = fromA ? lb : la;
    for (const SeamNotch& n : seam.notches) {
      const double x = fromA ? n.a : n.b, y = fromA ? n.b : n.a;
      if (x <= along && x >= x0) x0 = x, y0 = y;
      if (x > along && x < x1) x1 = x, y1 = y;
    }
    return x1 - x0 < tolerance::kNothing ? y0 : y0 + (along - x0) * (y1 - y0) / (x1 - x0);
  }

  Seam part(const Seam& seam, const Run& a, const Run& b) const {
    Seam s;
    const bool left = isLeft(a.piece) || isLeft(b.piece);
    s.id = left ? seam.id + "-" + line_.id : seam.id;
    s.name = left ? msg("{} {}", seam.name, line_.leftWord) : seam.name;
    s.kind = seam.kind;
    s.a = {a.piece, a.chain};
    s.b = {b.piece, b.chain};
    for (const SeamNotch& n : seam.notches)
      if (n.a > a.from + kNotchClear && n.a < a.to - kNotchClear && n.b > b.from + kNotchClear &&
          n.b < b.to - kNotchClear)
        s.notches.push_back({n.id, n.a - a.from, n.b - b.from});
    if (a.from <= tolerance::kNothing && b.from <= tolerance::kNothing &&
        a.to >= before_.sidePath(seam.a).length() - tolerance::kNothing)
      s.eases = seam.eases;
    return s;
  }

  const Pattern& before_;
  Pattern& after_;
  const DividingLine& line_;
  const std::map<size_t, PartsOf>& parts_;
  const size_t firstLeft_;
};

// A notch so near to where its seam was cut that it was taken for the cut on the other side goes on this one too.
void dropLoneNotches(Pattern& pattern, const Seam& seam, const SeamSide& side) {
  constexpr double kNearCut = 2 * kNotchClear;
  Piece& piece = pattern.pieces[side.piece];
  std::erase_if(piece.marks, [&](const Mark& m) {
    if (!m.isNotch() || !side.uses(m.a.edge) || seam.notch(m.id)) return false;
    const double length = piece.edge(m.a.edge).path.length();
    return m.a.at < kNearCut || m.a.at > length - kNearCut;
  });
}

void uniqueIds(std::vector<Seam>& seams) {
  std::set<std::string> known;
  for (Seam& s : seams) {
    const std::string id = s.id;
    for (int n = 2; !known.insert(s.id).second; ++n) s.id = fmt::format("{}-{}", id, n);
  }
}

}  // namespace

bool runsThroughDart(const Piece& piece, const Path& line) {
  return std::any_of(piece.darts.begin(), piece.darts.end(), [&](const Dart& d) {
    return !d.legs[0].path.meetings(line).empty() || !d.legs[1].path.meetings(line).empty();
  });
}

void dividePieces(Pattern& pattern, const DividingLine& line, const std::vector<PieceName>& left) {
  if (left.size() != line.through.size()) throw std::invalid_argument("divide: a name for every piece is needed");
  const Pattern before = pattern;
  const size_t firstLeft = pattern.pieces.size();
  std::map<size_t, PartsOf> parts;
  std::vector<Seam> sewn;
  for (size_t k = 0; k < line.through.size(); ++k) {
    const LineThrough& through = line.through[k];
    const std::string id = line.through.size() == 1 ? line.id : fmt::format("{}-{}", line.id, k + 1);
    PieceCut cut(before.pieces.at(through.piece), through, id, line);
    auto [leftPart, rightPart] = cut.cut(firstLeft + k, through.piece);
    leftPart.id = left[k].id;
    leftPart.name = left[k].name;
    leftPart.part = left[k].part;
    Seam seam{id, line.name, {through.piece, {{id, false}}}, {firstLeft + k, {{id, true}}}, {}, {}};
    const double length = through.path.length();
    for (const Mark& n : rightPart.notches())
      if (n.a.edge == id) seam.notches.push_back({n.id, n.a.at, n.a.at});
    std::sort(seam.notches.begin(), seam.notches.end(),
              [](const SeamNotch& a, const SeamNotch& b) { return a.a < b.a; });
    std::erase_if(seam.notches, [&](const SeamNotch& n) { return n.a >= length; });
    sewn.push_back(std::move(seam));
    pattern.pieces[through.piece] = std::move(rightPart);
    pattern.pieces.push_back(std::move(leftPart));
    parts[through.piece] = std::move(cut.parts());
  }
  pattern.seams = SeamCut(before, pattern, line, parts, firstLeft).seams();
  for (Seam& s : sewn) pattern.seams.push_back(std::move(s));
  for (Seam& s : pattern.seams) {
    s.notches = notchesOf(pattern, s);
    for (const SeamSide* side : {&s.a, &s.b}) dropLoneNotches(pattern, s, *side);
  }
  uniqueIds(pattern.seams);
}

void keepFirst(Pattern& pattern, size_t pieces) {
  pattern.pieces.resize(pieces);
  std::erase_if(pattern.seams, [&](const Seam& s) { return s.a.piece >= pieces || s.b.piece >= pieces; });
  std::erase_if(pattern.trims, [&](const Trim& t) { return t.piece >= pieces; });
}

void reorderPieces(Pattern& pattern, const std::vector<size_t>& order) {
  std::vector<size_t> place(order.size());
  std::vector<Piece> pieces;
  for (size_t i = 0; i < order.size(); ++i) {
    place.at(order[i]) = i;
    pieces.push_back(std::move(pattern.pieces.at(order[i])));
  }
  pattern.pieces = std::move(pieces);
  for (Seam& s : pattern.seams)
    for (SeamSide* side : {&s.a, &s.b}) side->piece = place.at(side->piece);
  for (Trim& t : pattern.trims) t.piece = place.at(t.piece);
}

}  // namespace armure
