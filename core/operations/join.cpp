#include "operations/join.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <stdexcept>
#include <utility>

#include "geometry/tolerances.h"
#include "operations/crossing.h"
#include "operations/darts.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kPoint = 1;  // rad: sewn edges that turn by more end in a point on purpose
constexpr double kNear = 4;   // mm: an end of a level further from the outline is none

Piece moved(Piece piece, const Motion& m) {
  for (size_t i = 0; i < piece.lines(); ++i) piece.lineAt(i).path = piece.lineAt(i).path.transformed(m);
  piece.grainTop = m.apply(piece.grainTop);
  piece.grainBottom = m.apply(piece.grainBottom);
  return piece;
}

// Turns the handle at one end of a path by an angle.
Path aimed(const Path& path, bool atStart, double by) {
  std::vector<Cubic> cubics = path.cubics();
  if (atStart) {
    Cubic& c = cubics.front();
    c.p1 = c.p0 + rotated(c.p1 - c.p0, by);
  } else {
    Cubic& c = cubics.back();
    c.p2 = c.p3 + rotated(c.p2 - c.p3, by);
  }
  return Path(std::move(cubics));
}

class Joiner {
 public:
  Joiner(const Pattern& pattern, const Seam& seam) : seam_(seam), a_(pattern.pieces.at(seam.a.piece)) {
    const Path pa = pattern.sidePath(seam.a), pb = pattern.sidePath(seam.b);
    motion_ = endsTogether(pa, pb);
    b_ = moved(pattern.pieces.at(seam.b.piece), motion_);
    const Path laid = pb.transformed(motion_);
    constexpr int kSamples = 32;
    for (int i = 0; i <= kSamples; ++i) {
      const double part = static_cast<double>(i) / kSamples;
      done_.gap = std::max(done_.gap, distance(pa.pointAt(part * pa.length()), laid.pointAt(part * laid.length())));
    }
  }

  Piece join(const Message& name) {
    Piece out = a_;
    out.name = name;
    out.edges.clear();
    out.marks.clear();
    const std::vector<size_t> ra = rest(a_, seam_.a), rb = rest(b_, seam_.b);
    for (size_t i : ra) take(out, a_, i, namesA_);
    const size_t joint = out.edges.size();
    for (size_t i : rb) take(out, b_, i, namesB_);
    takeDarts(out);
    meet(out, joint - 1, joint);
    meet(out, out.edges.size() - 1, 0);
    for (Mark& n : out.notches()) n.a.at = std::clamp(n.a.at, 0.0, out.edge(n.a.edge).path.length());
    joinLevels(out);
    // Two edges that run on become one; the later joint first, so that the earlier keeps its place.
    uniteRound(out);
    unite(out, joint - 1);
    if (a_.onFold.empty() && !b_.onFold.empty()) {
      out.onFold = b_.onFold;
      out.symmetry = b_.symmetry;
      out.copies = b_.copies;
    }
    return out;
  }

  const Joined& done() const { return done_; }
  // Levels of which a part has no end on the new outline any more.
  const std::vector<std::string>& lost() const { return lost_; }

  // What an edge of either piece is called on the new one.
  std::string renamed(bool ofA, const std::string& edge) const {
    for (const auto& [was, is] : ofA ? namesA_ : namesB_)
      if (was == edge) return is;
    return edge;
  }

 private:
  using Names = std::vector<std::pair<std::string, std::string>>;

  // The edges that are not sewn away, clockwise from behind the seam.
  static std::vector<size_t> rest(const Piece& piece, const SeamSide& side) {
    const size_t n = piece.edges.size();
    size_t first = 0;
    while (!side.uses(piece.edges[first].id) || side.uses(piece.edges[(first + 1) % n].id)) ++first;
    std::vector<size_t> out;
    for (size_t i = (first + 1) % n; !side.uses(piece.edges[i].id); i = (i + 1) % n) out.push_back(i);
    return out;
  }

  static void take(Piece& out, const Piece& from, size_t i, Names& names) {
    Edge e = from.edges[i];
    while (hasEdge(out, e.id)) e.id += "-2";
    names.emplace_back(from.edges[i].id, e.id);
    for (const Mark& n : from.notches())
      if (n.a.edge == from.edges[i].id) out.marks.push_back(notchMark(n.id, {e.id, n.a.at, n.a.offset}, n.doubled));
    out.edges.push_back(std::move(e));
  }

  // Those of the first piece are there; the second's come with it.
  void takeDarts(Piece& out) {
    for (Dart d : b_.darts) {
      if (d.isOpen()) d.mouth = renamed(false, d.mouth);
      for (Edge& leg : d.legs) {
        const std::string was = leg.id;
        while (hasEdge(out, leg.id)) leg.id += "-2";
        namesB_.emplace_back(was, leg.id);
        for (const Mark& n : b_.notches())
          if (n.a.edge == was) out.marks.push_back(notchMark(n.id, {leg.id, n.a.at, {}}, n.doubled));
      }
      out.darts.push_back(std::move(d));
    }
    for (const Dart& d : a_.darts)
      for (const Edge& leg : d.legs)
        for (const Mark& n : a_.notches())
          if (n.a.edge == leg.id) out.marks.push_back(n);
  }

  // Where two edges come to meet: one corner, half way, and smooth where they are of one kind.
  void meet(Piece& out, size_t before, size_t after) {
    Edge &e = out.edges[before], &f = out.edges[after];
    const Vec2 corner = lerp(e.path.end(), f.path.start(), 0.5);
    const double shift = distance(corner, e.path.end());
    done_.shift = std::max(done_.shift, shift);
    if (shift > 0) {
      e.path = withEnds(e.path, e.path.start(), corner);
      f.path = withEnds(f.path, corner, f.path.end());
    }
    if (e.role != f.role) return;
    const double turn = angleBetween(e.path.endTangent(), f.path.startTangent());
    if (e.role == EdgeRole::Seam && std::abs(turn) > kPoint) return;  // the legs of a dart
    done_.turnRad = std::max(done_.turnRad, std::abs(turn));
    if (std::abs(turn) < tolerance::kSmooth) return;
    e.path = aimed(e.path, false, turn / 2);
    f.path = aimed(f.path, true, -turn / 2);
  }

  // A level that ended on the seam on both sides runs on as one line; their ends lie where the outline is now.
  void joinLevels(Piece& out) {
    struct Line {
      LevelLine drawn;
      bool atSeam = false;  // at its end towards the seam
    };
    std::vector<Line> lines, waiting;
    for (const Mark& m : a_.levelMarks()) {
      const bool atSeam = seam_.a.uses(m.b.edge) || onSeam(a_, seam_.a, a_.point(m.b));
      (atSeam ? waiting : lines).push_back({a_.line(m), atSeam});
    }
    for (const Mark& m : b_.levelMarks()) {
      LevelLine drawn = b_.line(m);
      const auto partner =
          std::find_if(waiting.begin(), waiting.end(), [&](const Line& w) { return w.drawn.level == m.id; });
      if (partner != waiting.end() && (seam_.b.uses(m.a.edge) || onSeam(b_, seam_.b, drawn.a))) {
        const Vec2 middle = lerp(partner->drawn.b, drawn.a, 0.5), from = partner->drawn.a;
        done_.bent.push_back({m.id, distance(from, middle) + distance(middle, drawn.b) - distance(from, drawn.b)});
        drawn.a = from;
        waiting.erase(partner);
      }
      lines.push_back({drawn, false});
    }
    // A level that ran into the end of the seam ends at the corner there.
    lines.insert(lines.end(), waiting.begin(), waiting.end());
    for (const Line& l : lines) {
      const auto a = settled(out, l.drawn, l.drawn.a, l.drawn.b);
      const auto b =
          a ? settled(out, {l.drawn.level, out.point(*a), l.drawn.b}, l.drawn.b, out.point(*a)) : std::nullopt;
      if (!b) lost_.push_back(l.drawn.level);
      if (b && distance(out.point(*a), out.point(*b)) >= tolerance::kSamePlace)
        out.marks.push_back({MarkKind::Level, l.drawn.level, *a, *b, false});
    }
  }

  // An end in the corner beside the seam lies on it too.
  static bool onSeam(const Piece& piece, const SeamSide& side, Vec2 p) {
    return std::any_of(piece.edges.begin(), piece.edges.end(),
                       [&](const Edge& e) { return side.uses(e.id) && nearOn(e.path, p); });
  }

  // Where one end of a level lies on the outline, which drawing it smooth may have moved: along the level, or in a
  // corner. In a corner it goes with the sewn edge: a finished one is drawn anew later.
  static std::optional<Anchor> settled(const Piece& piece, const LevelLine& level, Vec2 end, Vec2 other) {
    for (const bool free : {false, true})
      for (size_t i = 0; i < piece.lines(); ++i) {
        const Edge& e = piece.lineAt(i);
        if (e.role == EdgeRole::Mouth || isFree(e.role) != free) continue;  // a mouth closes up; its dart's legs stay
        if (const auto at = nearOn(e.path, end)) return Anchor{e.id, *at, {}};
      }
    std::optional<Anchor> found;
    double least = kNear;
    for (const Edge& e : piece.edges) {
      for (const double s : e.path.crossings(end, level.b - level.a)) {
        const Vec2 p = e.path.pointAt(s);
        if (distance(p, end) < least && distance(p, other) > tolerance::kSamePlace)
          least = distance(p, end), found = Anchor{e.id, s, {}};
      }
      if (distance(e.path.start(), end) < least) least = distance(e.path.start(), end), found = Anchor{e.id, 0, {}};
    }
    return found;
  }

  void uniteRound(Piece& out) {
    Edge &last = out.edges.back(), &first = out.edges.front();
    if (last.role != first.role || !isFree(first.role)) return;
    carryMarks(out, {{.was = first.id, .is = first.id, .start = last.path.length()}, {.was = last.id, .is = first.id}});
    rename(namesB_, last.id, first.id);
    first.path = last.path + first.path;
    out.edges.pop_back();
  }

  void unite(Piece& out, size_t at) {
    Edge &e = out.edges[at], &f = out.edges[at + 1];
    if (e.role != f.role || !isFree(e.role)) return;
    carryMarks(out, {{.was = f.id, .is = e.id, .start = e.path.length()}});
    rename(namesB_, f.id, e.id);
    e.path = e.path + f.path;
    out.edges.erase(out.edges.begin() + static_cast<std::ptrdiff_t>(at) + 1);
  }

  static void rename(Names& names, const std::string& was, const std::string& is) {
    for (auto& [from, to] : names)
      if (to == was) to = is;
  }

  const Seam seam_;
  Piece a_, b_;
  Motion motion_;
  Names namesA_, namesB_;
  Joined done_;
  std::vector<std::string> lost_;
};

// Gives the notch at place `k` of a seam another name, on both pieces.
void renameNotch(Pattern& pattern, Seam& seam, size_t k) {
  SeamNotch& n = seam.notches[k];
  const std::string name = n.id + "-2";
  for (const auto& [side, along] : {std::pair{&seam.a, n.a}, {&seam.b, n.b}}) {
    Mark* nearest = nullptr;
    const auto off = [&, at = along, of = side](const Mark& mark) {
      return std::abs(pattern.alongSide(*of, mark.a) - at);
    };
    for (Mark& mark : pattern.pieces[side->piece].notches())
      if (side->uses(mark.a.edge) && mark.id == n.id && (!nearest || off(mark) < off(*nearest))) nearest = &mark;
    if (nearest) nearest->id = name;
  }
  n.id = name;
}

// Where outlines were drawn smooth the edges of a joined piece have become a little longer or shorter there. Its
// notches are struck where they were along their seams, as when the seam is walked once more.
void walkAgain(Pattern& pattern, const Seam& seam, size_t piece) {
  for (const auto& [side, along] : {std::pair{&seam.a, &SeamNotch::a}, {&seam.b, &SeamNotch::b}}) {
    if (side->piece != piece) continue;
    const double length = pattern.sidePath(*side).length();
    for (const SeamNotch& n : seam.notches)
      for (Mark& m : pattern.pieces[piece].notches())
        if (m.id == n.id && side->uses(m.a.edge) && n.*along <= length) m.a = pattern.placeOnSide(*side, n.*along);
  }
}

}  // namespace

void uniteSeams(Pattern& pattern, const std::string& notch) {
  for (size_t i = 0; i < pattern.seams.size(); ++i)
    for (size_t j = 0; j < pattern.seams.size(); ++j) {
      if (i == j) continue;
      Seam &s = pattern.seams[i], &t = pattern.seams[j];
      if (s.a.piece != t.a.piece || s.b.piece != t.b.piece || s.a.piece == s.b.piece) continue;
      const Path a = pattern.sidePath(s.a), b = pattern.sidePath(s.b);
      if (distance(a.end(), pattern.sidePath(t.a).start()) > tolerance::kSamePlace ||
          distance(b.end(), pattern.sidePath(t.b).start()) > tolerance::kSamePlace)
        continue;
      for (const auto& [side, along] : {std::pair{&s.a, a.length()}, {&s.b, b.length()}}) {
        pattern.pieces[side->piece].marks.push_back(notchMark(notch, pattern.placeOnSide(*side, along)));
      }
      s.notches.push_back({notch, a.length(), b.length()});
      for (PlannedEase& e : s.eases)
        if (e.to == "hem") e.to = notch;
      for (PlannedEase e : t.eases) {
        if (e.from == "top") e.from = notch;
        s.eases.push_back(std::move(e));
      }
      for (const SeamNotch& n : t.notches) s.notches.push_back({n.id, a.length() + n.a, b.length() + n.b});
      s.a.chain.insert(s.a.chain.end(), t.a.chain.begin(), t.a.chain.end());
      s.b.chain.insert(s.b.chain.end(), t.b.chain.begin(), t.b.chain.end());
      for (size_t k = 0; k < s.notches.size(); ++k)  // a level that meets the line on either half: two notches
        for (size_t m = 0; m < k; ++m)
          if (s.notches[m].id == s.notches[k].id) renameNotch(pattern, s, k);
      pattern.seams.erase(pattern.seams.begin() + static_cast<std::ptrdiff_t>(j));
      return uniteSeams(pattern, notch);
    }
}

Joined joinPieces(Pattern& pattern, std::string_view seamId, const Message& name) {
  const Seam seam = seamOf(pattern, seamId);
  if (seam.a.piece == seam.b.piece) throw std::invalid_argument("join: both sides of " + seam.id + " are of one piece");
  Joiner joiner(pattern, seam);
  Piece whole = joiner.join(name);
  const size_t a = seam.a.piece, b = seam.b.piece;
  std::erase_if(pattern.seams, [&](const Seam& s) { return s.id == seam.id; });
  std::erase_if(pattern.trims, [&](const Trim& t) { return t.seam == seam.id; });
  for (Seam& s : pattern.seams)
    for (SeamSide* side : {&s.a, &s.b}) {
      if (side->piece != a && side->piece != b) continue;
      for (EdgeUse& use : side->chain) use.edge = joiner.renamed(side->piece == a, use.edge);
      side->piece = a;
    }
  // A level that ended on the seam, on one of its sides only, does not run round any more.
  for (PatternLevel& l : pattern.levels)
    if (std::find(joiner.lost().begin(), joiner.lost().end(), l.id) != joiner.lost().end()) l.ring = false;
  pattern.pieces[a] = std::move(whole);
  pattern.pieces.erase(pattern.pieces.begin() + static_cast<std::ptrdiff_t>(b));
  const auto shifted = [b](size_t piece) { return piece > b ? piece - 1 : piece; };
  for (Seam& s : pattern.seams)
    for (SeamSide* side : {&s.a, &s.b}) side->piece = shifted(side->piece);
  for (Trim& t : pattern.trims) t.piece = shifted(t.piece);
  for (const Seam& s : pattern.seams) walkAgain(pattern, s, shifted(a));
  Joined done = joiner.done();
  if (done.shift < tolerance::kRounding) done.shift = 0;
  return done;
}

}  // namespace armure
