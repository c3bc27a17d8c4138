#include "pattern/outline_parts.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "pattern/marks.h"

namespace armure {

bool hasEdge(const Piece& piece, std::string_view id) {
  for (size_t i = 0; i < piece.lines(); ++i)
    if (piece.lineAt(i).id == id) return true;
  return false;
}

size_t hemPlace(const Piece& piece) {
  const auto hem =
      std::find_if(piece.edges.begin(), piece.edges.end(), [](const Edge& e) { return e.role == EdgeRole::Hem; });
  return static_cast<size_t>(hem - piece.edges.begin());
}

size_t edgePlace(const Piece& piece, std::string_view id) {
  for (size_t i = 0; i < piece.lines(); ++i)
    if (piece.lineAt(i).id == id) return i;
  throw std::out_of_range(fmt::format("piece {}: no edge {}", piece.id, id));
}

std::vector<BoundaryStretch> boundaryBetween(const Piece& piece, const Anchor& from, const Anchor& to) {
  const size_t n = piece.edges.size(), first = edgePlace(piece, from.edge), last = edgePlace(piece, to.edge);
  std::vector<BoundaryStretch> out;
  const auto add = [&](size_t edge, double a, double b) {
    if (b - a > tolerance::kNothing) out.push_back({edge, a, b});
  };
  if (first == last && to.at > from.at) {
    add(first, from.at, to.at);
    return out;
  }
  add(first, from.at, piece.edges[first].path.length());
  for (size_t i = (first + 1) % n; i != last; i = (i + 1) % n) add(i, 0, piece.edges[i].path.length());
  add(last, 0, to.at);
  return out;
}

std::optional<double> nearOn(const Path& path, Vec2 point) {
  constexpr int kSamples = 24;
  std::optional<double> best;
  double nearest = tolerance::kSamePlace;
  for (size_t i = 0; i < path.cubics().size(); ++i) {
    const Cubic& c = path.cubics()[i];
    // A cubic lies in the box of its control points.
    const auto [left, right] = std::minmax({c.p0.x, c.p1.x, c.p2.x, c.p3.x});
    const auto [top, bottom] = std::minmax({c.p0.y, c.p1.y, c.p2.y, c.p3.y});
    if (point.x < left - tolerance::kSamePlace || point.y < top - tolerance::kSamePlace ||
        point.x > right + tolerance::kSamePlace || point.y > bottom + tolerance::kSamePlace)
      continue;
    double t = 0, least = HUGE_VAL;
    for (int k = 0; k <= kSamples; ++k) {
      const double at = static_cast<double>(k) / kSamples, d = distance(c.at(at), point);
      if (d < least) least = d, t = at;
    }
    for (int step = 0; step < 12; ++step) {  // Newton on dot(B - p, B') = 0
      const Vec2 off = c.at(t) - point, v = c.derivative(t);
      const double slope = dot(v, v) + dot(off, c.secondDerivative(t));
      if (std::abs(slope) < 1e-12) break;
      const double next = std::clamp(t - dot(off, v) / slope, 0.0, 1.0);
      if (std::abs(next - t) < 1e-13) break;
      t = next;
    }
    const double d = distance(c.at(t), point);
    if (d >= nearest) continue;
    nearest = d;
    best = c.lengthTo(t);
    for (size_t k = 0; k < i; ++k) *best += path.cubics()[k].length();
  }
  return best;
}

bool contains(const Polyline& outline, Vec2 p) {
  bool inside = false;
  for (size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++) {
    const Vec2 a = outline[i], b = outline[j];
    if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

std::pair<EdgeUse, EdgeUse> splitEdge(Piece& piece, const EdgeUse& use, double along) {
  const size_t i = edgePlace(piece, use.edge);
  const Path whole = piece.edges[i].path;
  const double at = use.reversed ? whole.length() - along : along;
  Edge first = piece.edges[i], second = piece.edges[i];
  first.path = whole.sub(0, at);
  second.path = whole.sub(at, whole.length());
  do {
    second.id += "-2";
  } while (hasEdge(piece, second.id));
  carryMarks(piece, {{use.edge, 0, at, use.edge}, {use.edge, at, whole.length(), second.id}});
  piece.edges[i] = std::move(first);
  const EdgeUse one{use.edge, use.reversed}, two{second.id, use.reversed};
  piece.edges.insert(piece.edges.begin() + static_cast<std::ptrdiff_t>(i) + 1, std::move(second));
  return use.reversed ? std::pair{two, one} : std::pair{one, two};
}

size_t lineBeyond(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const Piece& piece = pattern.pieces.at(side.piece);
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  const size_t line = edgePlace(piece, use.edge);
  // Walking clockwise the seam either leaves its end or arrives at it.
  return atTop != use.reversed ? piece.previous(line) : piece.next(line);
}

const Seam* seamOutwards(const Pattern& pattern, Part part, Half half, int ordinal) {
  const auto isOne = [&](const Piece& p) { return p.layer == "shell" && p.part == part && p.half == half; };
  for (const Seam& s : pattern.seams) {
    const Piece &a = pattern.pieces[s.a.piece], &b = pattern.pieces[s.b.piece];
    if (isOne(a) && isOne(b) && s.a.piece != s.b.piece && std::min(a.ordinal, b.ordinal) == ordinal &&
        std::max(a.ordinal, b.ordinal) > ordinal)
      return &s;
  }
  return nullptr;
}

const Seam* bodiceSide(const Pattern& pattern) {
  for (const Seam& s : pattern.seams) {
    const Piece& a = pattern.pieces[s.a.piece];
    if (isSideSeam(pattern, s) && a.layer == "shell" && a.part == Part::Panel) return &s;
  }
  return nullptr;
}

bool isSideSeam(const Pattern& pattern, const Seam& seam) {
  const Half a = pattern.pieces.at(seam.a.piece).half, b = pattern.pieces.at(seam.b.piece).half;
  return seam.kind == SeamKind::Plain && a != b && a != Half::Both && b != Half::Both;
}

void turnSeam(const Pattern& pattern, Seam& seam) {
  for (SeamSide* side : {&seam.a, &seam.b}) {
    std::ranges::reverse(side->chain);
    for (EdgeUse& use : side->chain) use.reversed = !use.reversed;
  }
  for (PlannedEase& ease : seam.eases) {
    std::swap(ease.from, ease.to);
    for (std::string* end : {&ease.from, &ease.to})
      if (*end == "top" || *end == "hem") *end = *end == "top" ? "hem" : "top";
  }
  seam.notches = notchesOf(pattern, seam);
}

Seam& seamOf(Pattern& pattern, std::string_view id) {
  for (Seam& s : pattern.seams)
    if (s.id == id) return s;
  throw std::out_of_range("no seam " + std::string(id));
}

Motion endsTogether(const Path& a, const Path& b) {
  const double turn = angleBetween(b.end() - b.start(), a.end() - a.start());
  const Vec2 middle = lerp(b.start(), b.end(), 0.5);
  return Motion::rotationAbout(middle, turn).then(Motion::translation(lerp(a.start(), a.end(), 0.5) - middle));
}

Path hemBetween(const Path& right, const Path& left) {
  const Vec2 a = right.end(), b = left.end(), tr = right.endTangent(), tl = -left.endTangent();
  const double third = distance(a, b) / 3;
  return Path(Cubic{a, a + third * Vec2{-tr.y, tr.x}, b - third * Vec2{tl.y, -tl.x}, b});
}

Path withEnds(const Path& path, Vec2 start, Vec2 end) {
  std::vector<Cubic> cubics = path.cubics();
  const Vec2 first = start - path.start(), last = end - path.end();
  cubics.front().p0 = start;
  cubics.front().p1 = cubics.front().p1 + first;
  cubics.back().p2 = cubics.back().p2 + last;
  cubics.back().p3 = end;
  return Path(std::move(cubics));
}

void cutInPairs(Piece& piece) {
  piece.onFold.clear();
  piece.symmetry = Symmetry::Pair;
  piece.copies = 2;
}

}  // namespace armure
