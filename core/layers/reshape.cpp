#include "layers/reshape.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

#include "operations/grain.h"
#include "operations/join.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kLeastLeft = 5;  // mm of the edges beside it that must be left

// A run of edges of one role: from place `first`, `count` of them, with the lines before and after (Piece::lineAt): at
// the mouth of a dart, its legs.
struct Run {
  size_t first = 0, count = 0, before = 0, after = 0;
};

// The runs of a role on an outline that has other edges too.
std::vector<Run> runsOf(const Piece& piece, EdgeRole role) {
  std::vector<Run> runs;
  const size_t n = piece.edges.size();
  for (size_t i = 0; i < n; ++i) {
    if (piece.edges[i].role != role || piece.edges[(i + n - 1) % n].role == role) continue;
    size_t count = 1;
    while (count < n && piece.edges[(i + count) % n].role == role) ++count;
    runs.push_back({i, count, piece.previous(i), piece.next((i + count - 1) % n)});
  }
  return runs;
}

// Points of a path carried along: its start by one vector, its end by another, between them in proportion to the
// length.
class Carried {
 public:
  Carried(Vec2 atStart, Vec2 atEnd, double whole) : atStart_(atStart), atEnd_(atEnd), whole_(whole) {}
  // The edge that begins `from` mm along the run.
  Path of(const Path& edge, double from) const {
    std::vector<Cubic> cubics;
    double at = from;
    for (const Cubic& c : edge.cubics()) {
      const double length = c.length();
      const auto moved = [&](Vec2 p, double part) {
        return p + lerp(atStart_, atEnd_, whole_ > 0 ? (at + part * length) / whole_ : 0);
      };
      cubics.push_back({moved(c.p0, 0), moved(c.p1, 1.0 / 3), moved(c.p2, 2.0 / 3), moved(c.p3, 1)});
      if (cubics.size() > 1) cubics.back().p0 = cubics[cubics.size() - 2].p3;
      at += length;
    }
    return Path(std::move(cubics));
  }

 private:
  Vec2 atStart_, atEnd_;
  double whole_;
};

// The run as it lies `amount` mm further in along the edges beside it.
std::vector<Path> movedIn(const Piece& piece, const Run& run, double amount) {
  const size_t n = piece.edges.size();
  const Path &before = piece.lineAt(run.before).path, &after = piece.lineAt(run.after).path;
  double whole = 0;
  for (size_t k = 0; k < run.count; ++k) whole += piece.edges[(run.first + k) % n].path.length();
  const Carried carried(before.pointAt(before.length() - amount) - before.end(), after.pointAt(amount) - after.start(),
                        whole);
  std::vector<Path> lines;
  double at = 0;
  for (size_t k = 0; k < run.count; ++k) {
    const Path& edge = piece.edges[(run.first + k) % n].path;
    lines.push_back(carried.of(edge, at));
    at += edge.length();
  }
  return lines;
}

// What of the pattern has edges of the role, long enough beside them; or why not.
std::optional<Problem> tooShort(const Pattern& pattern, EdgeRole role, double amount, bool alongDarts) {
  for (const Piece& p : pattern.pieces)
    for (const Run& run : runsOf(p, role)) {
      if (!alongDarts && std::max(run.before, run.after) >= p.edges.size())
        return Problem{p.name, "a dart opens at the edge this layer is to follow", "leave the facing away"};
      const double least = std::min(p.lineAt(run.before).path.length(), p.lineAt(run.after).path.length());
      if (run.before == run.after || least < amount + kLeastLeft)
        return Problem{
            p.name, msg("the edge beside is only {} long, too short for a change of {}", Length{least}, Length{amount}),
            msg("choose at most {}", Length{std::max(0.0, least - kLeastLeft)})};
    }
  return std::nullopt;
}

bool hasRoom(const Piece& p, EdgeRole role, double amount) {
  return std::ranges::all_of(runsOf(p, role), [&](const Run& run) {
    return run.before != run.after && std::max(run.before, run.after) < p.edges.size() &&
           p.lineAt(run.before).path.length() >= amount + kLeastLeft &&
           p.lineAt(run.after).path.length() >= amount + kLeastLeft;
  });
}

// Ends one piece short; the edges beside keep their ids, darts their points.
void shorten(Piece& p, EdgeRole role, double amount) {
  for (const Run& run : runsOf(p, role)) {
    const std::vector<Path> lines = movedIn(p, run, amount);
    const size_t n = p.edges.size();
    Edge &before = p.lineAt(run.before), &after = p.lineAt(run.after);
    const double left = before.path.length() - amount;
    carryMarks(p, {{before.id, 0, left, before.id}, {after.id, amount, after.path.length(), after.id}});
    before.path = before.path.sub(0, left);
    after.path = after.path.sub(amount, after.path.length());
    for (size_t k = 0; k < run.count; ++k) p.edges[(run.first + k) % n].path = lines[k];
  }
  for (const Dart& d : p.darts)
    if (d.isOpen())
      for (Edge& e : p.edges)
        if (e.id == d.mouth) e.path = Path::line(d.legs[0].path.start(), d.legs[1].path.end());
}

// Only the strip along the first run of a role.
void strip(Piece& p, EdgeRole role, double depth) {
  const Run run = runsOf(p, role).front();
  const std::vector<Path> lines = movedIn(p, run, depth);
  const size_t n = p.edges.size();
  Edge before = p.edges[run.before], after = p.edges[run.after];
  const double whole = before.path.length();
  carryMarks(p, {{before.id, whole - depth, whole, before.id}, {after.id, 0, depth, after.id}});
  std::vector<Edge> edges;
  for (size_t k = 0; k < run.count; ++k) edges.push_back(p.edges[(run.first + k) % n]);
  after.path = after.path.sub(0, depth);
  before.path = before.path.sub(whole - depth, whole);
  edges.push_back(after);
  for (size_t k = lines.size(); k-- > 0;)
    edges.push_back({lines.size() == 1 ? "inner" : "inner-" + std::to_string(lines.size() - k), EdgeRole::Raw, 0,
                     lines[k].reversed()});
  edges.push_back(before);
  p.edges = std::move(edges);
  std::erase_if(p.marks,
                [&](const Mark& m) { return std::ranges::find(p.edges, m.a.edge, &Edge::id) == p.edges.end(); });
  p.darts.clear();
  if (std::ranges::find(p.edges, p.onFold, &Edge::id) == p.edges.end()) p.onFold.clear();
}

// The line beyond an end of a seam's side, where it is of the role, and whether it begins there.
struct Beyond {
  Edge* edge = nullptr;
  bool begins = false;
  Vec2 seam;  // the way the side runs there, out of the seam
};

Beyond beyondEnd(Pattern& pattern, const SeamSide& side, bool upper, EdgeRole role) {
  Piece& p = pattern.pieces[side.piece];
  const EdgeUse& use = upper ? side.chain.front() : side.chain.back();
  const bool forward = upper == use.reversed;  // along the outline, out of the seam
  Beyond b{&p.lineAt(lineBeyond(pattern, side, upper)), forward, {}};
  if (b.edge->role != role) return {};
  const Path& path = p.edge(use.edge).path;
  b.seam = forward ? path.endTangent() : -path.startTangent();
  return b;
}

// The way a line leaves the place it meets the seam at.
Vec2 leaving(const Beyond& b) { return b.begins ? b.edge->path.startTangent() : -b.edge->path.endTangent(); }

void turn(const Beyond& b, double angleRad) {
  std::vector<Cubic> cubics = b.edge->path.cubics();
  if (b.begins) {
    Cubic& c = cubics.front();
    c.p1 = c.p0 + rotated(c.p1 - c.p0, angleRad);
  } else {
    Cubic& c = cubics.back();
    c.p2 = c.p3 + rotated(c.p2 - c.p3, angleRad);
  }
  b.edge->path = Path(std::move(cubics));
}

// A line that ran on across the closed seams runs on again: both ends give way by half.
void smoothAcross(Pattern& pattern, EdgeRole role) {
  constexpr double kMeant = 0.26;  // radians: a corner of more was meant
  for (const Seam& s : pattern.seams)
    for (const bool upper : {true, false}) {
      const Beyond a = beyondEnd(pattern, s.a, upper, role), b = beyondEnd(pattern, s.b, upper, role);
      if (!a.edge || !b.edge) continue;
      const double off = std::remainder(
          angleBetween(a.seam, leaving(a)) - angleBetween(b.seam, leaving(b)) - std::numbers::pi, 2 * std::numbers::pi);
      if (std::abs(off) > kMeant) continue;
      turn(a, -off / 2);
      turn(b, off / 2);
    }
}

bool has(const Piece& piece, std::string_view edge) {
  for (size_t i = 0; i < piece.lines(); ++i)
    if (piece.lineAt(i).id == edge) return true;
  return false;
}

// Seams and lines of what is still there.
void keepWhatIsThere(Pattern& pattern, const std::set<size_t>& gone) {
  const auto placeNow = [&](size_t piece) {
    return piece - static_cast<size_t>(std::distance(gone.begin(), gone.lower_bound(piece)));
  };
  std::erase_if(pattern.seams, [&](const Seam& s) {
    for (const SeamSide* side : {&s.a, &s.b}) {
      if (gone.contains(side->piece)) return true;
      for (const EdgeUse& use : side->chain)
        if (!has(pattern.pieces[side->piece], use.edge)) return true;
    }
    return false;
  });
  std::vector<Piece> left;
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    if (!gone.contains(i)) left.push_back(std::move(pattern.pieces[i]));
  pattern.pieces = std::move(left);
  for (Seam& s : pattern.seams) {
    s.a.piece = placeNow(s.a.piece);
    s.b.piece = placeNow(s.b.piece);
    s.notches = notchesOf(pattern, s);
    std::erase_if(s.eases, [](const PlannedEase& e) { return std::abs(e.amount) < 1e-9; });
  }
}

// An edge that was sewn to what is gone is only cut.
void leaveRaw(Pattern& pattern) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (Edge& e : pattern.pieces[i].edges) {
      if (!isSewn(e.role)) continue;
      const bool sewn = std::ranges::any_of(pattern.seams, [&](const Seam& s) {
        return (s.a.piece == i && s.a.uses(e.id)) || (s.b.piece == i && s.b.uses(e.id));
      });
      if (!sewn) e.role = EdgeRole::Raw;
    }
}

// How far apart both sides lie, laid on each other by their ends.
double apart(const Pattern& pattern, const Seam& seam) {
  const Path a = pattern.sidePath(seam.a), b = pattern.sidePath(seam.b);
  if (std::abs(a.length() - b.length()) > kFlatSeam / 2) return HUGE_VAL;
  constexpr int kPlaces = 24;
  const auto along = [](const Path& p) { return unit(p.end() - p.start()); };
  const Vec2 ua = along(a), ub = along(b);
  double most = 0;
  for (int k = 0; k <= kPlaces; ++k) {
    const Vec2 p = a.pointAt(a.length() * k / kPlaces) - a.start(), q = b.pointAt(b.length() * k / kPlaces) - b.start();
    most = std::max(most, std::hypot(dot(ua, p) - dot(ub, q), cross(ua, p) - cross(ub, q)));
  }
  return most;
}

bool isStraight(const Path& path) {
  const Vec2 along = unit(path.end() - path.start());
  return std::ranges::all_of(path.flattened(0.1),
                             [&](Vec2 p) { return std::abs(cross(along, p - path.start())) <= kFlatSeam / 2; });
}

}  // namespace

std::optional<Problem> endShort(Pattern& pattern, EdgeRole role, double amount) {
  if (amount <= 0) return std::nullopt;
  if (auto problem = tooShort(pattern, role, amount, true)) return problem;
  for (Piece& p : pattern.pieces) {
    shorten(p, role, amount);
    layGrain(p);
  }
  for (Seam& s : pattern.seams) s.notches = notchesOf(pattern, s);
  smoothAcross(pattern, role);
  return std::nullopt;
}

std::optional<Problem> keepStrip(Pattern& pattern, EdgeRole role, double depth) {
  const bool isOpening = role == EdgeRole::Opening;  // beside it a narrow piece is faced with all of itself
  if (!isOpening)
    if (auto problem = tooShort(pattern, role, depth, false)) return problem;
  std::set<size_t> gone;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    Piece& p = pattern.pieces[i];
    if (runsOf(p, role).empty()) {
      gone.insert(i);
      continue;
    }
    if (isOpening && !hasRoom(p, role, depth)) continue;
    strip(p, role, depth);
    if (p.symmetry == Symmetry::OnFold && p.onFold.empty()) {  // beside an opening nothing lies on a fold
      p.symmetry = Symmetry::Pair;
      p.copies *= 2;
    }
    layGrain(p);
  }
  keepWhatIsThere(pattern, gone);
  leaveRaw(pattern);
  return std::nullopt;
}

std::vector<std::string> joinWhereFlat(Pattern& pattern) {
  std::set<std::string> changed;
  for (bool again = true; again;) {
    again = false;
    for (const Seam& s : pattern.seams) {
      if (s.kind != SeamKind::Plain || s.a.piece == s.b.piece || s.ease() != 0) continue;
      const Piece &a = pattern.pieces[s.a.piece], &b = pattern.pieces[s.b.piece];
      if (a.symmetry != Symmetry::Pair && b.symmetry != Symmetry::Pair) continue;
      if (a.half != b.half || a.part != b.part || !a.darts.empty() || !b.darts.empty()) continue;
      if (apart(pattern, s) > kFlatSeam) continue;
      changed.insert(a.id);
      changed.insert(b.id);
      joinPieces(pattern, std::string(s.id), msg("{} and {}", a.name, b.name));
      again = true;
      break;
    }
  }
  for (Piece& p : pattern.pieces)
    for (Edge& e : p.edges) {
      if (e.role != EdgeRole::Centre || !p.onFold.empty() || !isStraight(e.path)) continue;
      e.role = EdgeRole::Fold;
      e.allowance = 0;
      e.path = Path::line(e.path.start(), e.path.end());
      p.onFold = e.id;
      p.symmetry = Symmetry::OnFold;
      p.copies = std::max(1, p.copies / 2);
      std::erase_if(p.marks, [&](const Mark& m) { return m.a.edge == e.id; });
      changed.insert(p.id);
    }
  return {changed.begin(), changed.end()};
}

void layOnBias(Piece& piece) {
  const Vec2 middle = lerp(piece.grainTop, piece.grainBottom, 0.5);
  for (Vec2* end : {&piece.grainTop, &piece.grainBottom}) *end = middle + rotated(*end - middle, std::numbers::pi / 4);
  layGrain(piece);
}

}  // namespace armure
