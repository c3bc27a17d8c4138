#include "operations/pivot.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "operations/darts.h"
#include "operations/join.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kOnCut = 0.5;  // mm

// Splits an edge and keeps every seam that uses it whole. Returns the id of the part that begins at the place; at an
// end of the edge nothing is split, and the neighbour begins there.
std::string splitAt(Pattern& pattern, size_t piece, const Anchor& at) {
  Piece& p = pattern.pieces.at(piece);
  const double length = p.edge(at.edge).path.length();
  const size_t i = edgePlace(p, at.edge);
  if (at.at < tolerance::kNothing) return at.edge;
  if (at.at > length - tolerance::kNothing) return p.edges[(i + 1) % p.edges.size()].id;
  const auto [first, second] = splitEdge(p, {at.edge, false}, at.at);
  for (Seam& s : pattern.seams)
    for (SeamSide* side : {&s.a, &s.b}) {
      if (side->piece != piece) continue;
      for (size_t k = 0; k < side->chain.size(); ++k) {
        if (side->chain[k].edge != at.edge) continue;
        const bool reversed = side->chain[k].reversed;
        const EdgeUse one{first.edge, reversed}, two{second.edge, reversed};
        side->chain[k] = reversed ? two : one;
        side->chain.insert(side->chain.begin() + static_cast<std::ptrdiff_t>(k) + 1, reversed ? one : two);
        break;
      }
    }
  return second.edge;
}

// Cuts a seam in two `along` its side, where an edge of that side ends; the other side is divided at as great a length
// from the nearest notch above.
void cutSeam(Pattern& pattern, size_t index, bool sideA, size_t uses, const std::string& suffix) {
  Seam& s = pattern.seams[index];
  SeamSide &mine = sideA ? s.a : s.b, &other = sideA ? s.b : s.a;
  double along = 0;
  for (size_t k = 0; k < uses; ++k) along += pattern.pieces[mine.piece].edge(mine.chain[k].edge).path.length();
  double from = 0, to = 0;
  for (const SeamNotch& n : s.notches) {
    const double m = sideA ? n.a : n.b, o = sideA ? n.b : n.a;
    if (m <= along + tolerance::kSamePlace) from = m, to = o;
  }
  const double there = to + along - from;
  const Anchor place = pattern.placeOnSide(other, there);
  const double length = pattern.pieces[other.piece].edge(place.edge).path.length();
  if (place.at > tolerance::kSamePlace && place.at < length - tolerance::kSamePlace)
    splitAt(pattern, other.piece, place);
  Seam lower = s;
  lower.id += suffix;
  lower.eases.clear();
  size_t split = 0;
  for (double sum = 0; split < other.chain.size() && sum < there - tolerance::kSamePlace; ++split)
    sum += pattern.pieces[other.piece].edge(other.chain[split].edge).path.length();
  const auto part = [](SeamSide& upper, SeamSide& below, size_t at) {
    const auto middle = static_cast<std::ptrdiff_t>(at);
    below.chain.assign(upper.chain.begin() + middle, upper.chain.end());
    upper.chain.erase(upper.chain.begin() + middle, upper.chain.end());
  };
  part(mine, sideA ? lower.a : lower.b, uses);
  part(other, sideA ? lower.b : lower.a, split);
  const double a = sideA ? along : there, b = sideA ? there : along;
  std::erase_if(s.notches,
                [&](const SeamNotch& n) { return n.a > a - tolerance::kSamePlace || n.b > b - tolerance::kSamePlace; });
  std::erase_if(lower.notches,
                [&](const SeamNotch& n) { return n.a < a + tolerance::kSamePlace || n.b < b + tolerance::kSamePlace; });
  for (SeamNotch& n : lower.notches) n.a -= a, n.b -= b;
  pattern.seams.insert(pattern.seams.begin() + static_cast<std::ptrdiff_t>(index) + 1, std::move(lower));
}

// The outline of a piece from its pivot on, cut at the mouth.
class Turner {
 public:
  Turner(Pattern& pattern, const DartCut& cut) : pattern_(pattern), index_(cut.piece), turned_(cut.turned) {
    pivot_ = piece().edge(cut.pivot.edge).path.pointAt(cut.pivot.at);
    mouth_ = piece().edge(cut.mouth.edge).path.pointAt(cut.mouth.at);
    mouthEdge_ = cut.mouth.edge;
    // The later place on an edge first, so that the earlier one keeps its meaning.
    const bool pivotLast = cut.pivot.edge == cut.mouth.edge && cut.pivot.at > cut.mouth.at;
    if (pivotLast) fromPivot_ = splitAt(pattern_, index_, cut.pivot);
    fromMouth_ = splitAt(pattern_, index_, cut.mouth);
    if (!pivotLast) fromPivot_ = splitAt(pattern_, index_, cut.pivot);
    Piece& p = piece();
    std::rotate(p.edges.begin(), p.edges.begin() + static_cast<std::ptrdiff_t>(edgePlace(p, fromPivot_)),
                p.edges.end());
    mouthAt_ = edgePlace(p, fromMouth_);
  }

  Vec2 pivot() const { return pivot_; }
  size_t mouthAt() const { return mouthAt_; }  // the edge that begins at the mouth, when the pivot's comes first
  const std::string& fromMouth() const { return fromMouth_; }
  const std::string& mouthEdge() const { return mouthEdge_; }
  Piece& piece() { return pattern_.pieces[index_]; }

  // Turns the part so that the mouth opens by `angle`. Marks across the cut fall into two.
  DartTurn turn(double angle) {
    const bool after = turned_ == TurnedPart::FromMouthToPivot;
    const Motion m = Motion::rotationAbout(pivot_, after ? angle : -angle);
    Piece& p = piece();
    const std::vector<LevelLine> levels = p.levelLines();  // before anything turns
    Polyline outline;
    for (size_t i = after ? mouthAt_ : 0; i < (after ? p.edges.size() : mouthAt_); ++i) {
      const Polyline part = p.edges[i].path.flattened(tolerance::kCoarseFlatness);
      outline.insert(outline.end(), part.begin(), part.end());
      p.edges[i].path = p.edges[i].path.transformed(m);
    }
    for (Dart& d : p.darts)  // with the part their points lie on
      if (contains(outline, d.point()))
        for (Edge& leg : d.legs) leg.path = leg.path.transformed(m);
    turnLevels(levels, outline, m);
    if (contains(outline, lerp(p.grainTop, p.grainBottom, 0.5))) {
      p.grainTop = m.apply(p.grainTop);
      p.grainBottom = m.apply(p.grainBottom);
    }
    const double reach = distance(pivot_, mouth_);
    return {angle, 2 * reach * std::sin(angle / 2)};
  }

 private:
  // Levels go with their ends; those across the cut fall into two, which end in the cut.
  void turnLevels(const std::vector<LevelLine>& levels, const Polyline& outline, const Motion& m) {
    // Judged a little inside, so that an end on the cut goes with the rest.
    const auto isTurned = [&](Vec2 end, Vec2 other) { return contains(outline, lerp(end, other, 0.02)); };
    const Vec2 cut = mouth_ - pivot_, cutLine = unit(cut);
    const auto onCut = [&](Vec2 end) { return std::abs(cross(cutLine, end - pivot_)) < kOnCut; };
    Piece& p = piece();
    std::erase_if(p.marks, [](const Mark& mark) { return mark.isLevel(); });
    const auto add = [&](const std::string& level, Vec2 a, Vec2 b) {
      if (distance(a, b) >= tolerance::kLeastLevel) p.marks.push_back(levelMark(p, level, a, b));
    };
    for (const LevelLine& l : levels) {
      if (onCut(l.a) && onCut(l.b)) {  // along the cut: it stays on the part that does
        add(l.level, l.a, l.b);
        continue;
      }
      const bool a = isTurned(l.a, l.b), b = isTurned(l.b, l.a);
      if (a == b) {
        add(l.level, a ? m.apply(l.a) : l.a, a ? m.apply(l.b) : l.b);
        continue;
      }
      const Vec2 x = l.a + cross(pivot_ - l.a, cut) / cross(l.b - l.a, cut) * (l.b - l.a);
      add(l.level, a ? m.apply(l.a) : l.a, a ? m.apply(x) : x);
      add(l.level, b ? m.apply(x) : x, b ? m.apply(l.b) : l.b);
    }
  }

  Pattern& pattern_;
  const size_t index_;
  const TurnedPart turned_;
  Vec2 pivot_, mouth_;
  std::string mouthEdge_, fromPivot_, fromMouth_;
  size_t mouthAt_ = 0;
};

// Ends of levels in the cut lie on the legs, which run to a point beside the pivot.
void endOnLegs(Piece& piece, size_t firstLeg) {
  for (Mark& mark : piece.levelMarks()) {
    const LevelLine line = piece.line(mark);
    for (const auto& [anchor, end] : {std::pair{&mark.a, line.a}, {&mark.b, line.b}}) {
      if (anchor->onOutline()) continue;
      double nearest = HUGE_VAL;
      for (size_t k = firstLeg; k < firstLeg + 2; ++k)
        for (const double s : piece.edges[k].path.crossings(line.a, line.b - line.a))
          if (const double d = distance(piece.edges[k].path.pointAt(s), end); d < nearest)
            nearest = d, *anchor = Anchor{piece.edges[k].id, s, {}};
    }
  }
}

// Both legs from the mouth's ends to a point on the middle line, `clear` short of the pivot.
std::pair<Path, Path> legs(Vec2 pivot, Vec2 m1, Vec2 m2, double clear) {
  const double reach = distance(pivot, m1);
  const Vec2 middle = unit(unit(m1 - pivot) + unit(m2 - pivot));
  const Vec2 tip = pivot + std::min(clear, 0.6 * reach) * middle;
  return {Path::line(m1, tip), Path::line(tip, m2)};
}

// The path with its handle at one end turned into a direction of travel.
Path aimed(const Path& path, bool atStart, Vec2 direction) {
  std::vector<Cubic> cubics = path.cubics();
  if (atStart) {
    Cubic& c = cubics.front();
    c.p1 = c.p0 + distance(c.p0, c.p1) * direction;
  } else {
    Cubic& c = cubics.back();
    c.p2 = c.p3 - distance(c.p2, c.p3) * direction;
  }
  return Path(std::move(cubics));
}

// Gives an edge another shape; its marks stay at their points, or as far along it in proportion.
void reshape(Piece& piece, Edge& edge, Path path) {
  const double scale = path.length() / edge.path.length();
  for (Mark& m : piece.marks)
    for (Anchor* anchor : {&m.a, &m.b})
      if (anchor->edge == edge.id && anchor->onOutline())
        anchor->at = nearOn(path, edge.path.pointAt(anchor->at)).value_or(anchor->at * scale);
  edge.path = std::move(path);
}

struct SlitDart {
  size_t piece = 0, first = 0;  // its legs are the edges first and first + 1, the pivot's edge first of all
};

// Finds a dart that was slit open, and turns the list of edges so that the pivot comes first.
SlitDart findDart(Pattern& pattern, std::string_view id, const Anchor& pivot) {
  const Seam* seam = pattern.seam(id);
  if (!seam || seam->a.piece != seam->b.piece) throw std::out_of_range("no dart " + std::string(id));
  SlitDart dart{seam->a.piece, 0};
  const std::string leg = seam->a.chain.front().edge;
  const std::string first = splitAt(pattern, dart.piece, pivot);
  Piece& p = pattern.pieces[dart.piece];
  std::rotate(p.edges.begin(), p.edges.begin() + static_cast<std::ptrdiff_t>(edgePlace(p, first)), p.edges.end());
  dart.first = edgePlace(p, leg);
  return dart;
}

}  // namespace

DartTurn openDart(Pattern& pattern, const DartCut& cut, double angleRad, const DartName& name) {
  Turner turner(pattern, cut);
  const DartTurn turn = turner.turn(angleRad);
  Piece& p = turner.piece();
  const auto mouth = static_cast<std::ptrdiff_t>(turner.mouthAt());
  const Vec2 m1 = p.edges[turner.mouthAt() - 1].path.end(), m2 = p.edges[turner.mouthAt()].path.start();
  const auto [leg1, leg2] = legs(turner.pivot(), m1, m2, name.clear);
  p.edges.insert(p.edges.begin() + mouth,
                 {{name.id + "-1", EdgeRole::Seam, 0, leg1}, {name.id + "-2", EdgeRole::Seam, 0, leg2}});
  endOnLegs(p, turner.mouthAt());
  // Seams that ran on across the mouth end there now.
  const std::string before = p.edges[turner.mouthAt() - 1].id;
  for (size_t i = 0; i < pattern.seams.size(); ++i)
    for (const bool a : {true, false}) {
      const SeamSide& side = a ? pattern.seams[i].a : pattern.seams[i].b;
      if (side.piece != cut.piece) continue;
      for (size_t k = 0; k + 1 < side.chain.size(); ++k) {
        const std::string &here = side.chain[k].edge, &next = side.chain[k + 1].edge;
        if ((here == before && next == turner.fromMouth()) || (next == before && here == turner.fromMouth())) {
          cutSeam(pattern, i, a, k + 1, "-below");
          break;
        }
      }
    }
  pattern.seams.push_back(
      {name.id, name.name, {cut.piece, {{name.id + "-1", false}}}, {cut.piece, {{name.id + "-2", true}}}});
  makeDart(pattern, name.id);
  return turn;
}

namespace {

// Seams read their notches off a piece again.
void readNotchesAgain(Pattern& pattern, size_t piece) {
  for (Seam& s : pattern.seams)
    for (const bool sideA : {true, false}) {
      const SeamSide& side = sideA ? s.a : s.b;
      if (side.piece != piece) continue;
      for (SeamNotch& n : s.notches)
        for (const Mark& mark : pattern.pieces[piece].notches())
          if (mark.id == n.id && side.uses(mark.a.edge)) (sideA ? n.a : n.b) = pattern.alongSide(side, mark.a);
    }
}

constexpr double kNarrow = 20;  // mm: less would bend too tightly on an edge of its own

// The edge behind a narrow spread reaches over it, both run on into each other.
void reachOver(Piece& piece, Edge& before, Edge& after) {
  reshape(piece, after, withEnds(after.path, before.path.end(), after.path.end()));
  const Vec2 on = unit(before.path.endTangent() + after.path.startTangent());
  reshape(piece, before, aimed(before.path, false, on));
  reshape(piece, after, aimed(after.path, true, on));
}

}  // namespace

DartTurn openSpread(Pattern& pattern, const DartCut& cut, double angleRad) {
  Turner turner(pattern, cut);
  const DartTurn turn = turner.turn(angleRad);
  Piece& p = turner.piece();
  Edge& before = p.edges[turner.mouthAt() - 1];
  Edge& after = p.edges[turner.mouthAt()];
  if (distance(before.path.end(), after.path.start()) < kNarrow) {
    reachOver(p, before, after);
    readNotchesAgain(pattern, cut.piece);
    return turn;
  }
  Edge added{before.id + "-spread", before.role, before.allowance, {}};
  while (hasEdge(p, added.id)) added.id += "-2";
  const Vec2 a = before.path.end(), b = after.path.start();
  // What is added is straight; the bends lie beside it, in what was there before, where there is room for them.
  const double third = distance(a, b) / 3;
  const Vec2 on = unit(b - a);
  reshape(p, before, aimed(before.path, false, on));
  added.path = Path(Cubic{a, a + third * on, b - third * on, b});
  reshape(p, after, aimed(after.path, true, on));
  for (Seam& s : pattern.seams)
    for (SeamSide* side : {&s.a, &s.b}) {
      if (side->piece != cut.piece) continue;
      for (size_t k = 0; k < side->chain.size(); ++k) {
        const EdgeUse& use = side->chain[k];
        if (use.edge != before.id) continue;
        const auto at = static_cast<std::ptrdiff_t>(use.reversed ? k : k + 1);
        side->chain.insert(side->chain.begin() + at, {added.id, use.reversed});
        break;
      }
    }
  p.edges.insert(p.edges.begin() + static_cast<std::ptrdiff_t>(turner.mouthAt()), std::move(added));
  readNotchesAgain(pattern, cut.piece);
  return turn;
}

DartTurn foldOut(Pattern& pattern, const DartCut& cut, double width) {
  const Path path = pattern.pieces.at(cut.piece).edge(cut.mouth.edge).path;
  const Vec2 pivot = pattern.pieces[cut.piece].edge(cut.pivot.edge).path.pointAt(cut.pivot.at);
  const double end = cut.mouth.at + width;
  if (end > path.length() - 1 || cut.mouth.at < 1) throw std::invalid_argument("foldOut: the edge is too short");
  // The far end of the fold, as far from the pivot as its near end, near `width` along the edge.
  const Vec2 m1 = path.pointAt(cut.mouth.at);
  const double angle = angleBetween(m1 - pivot, path.pointAt(end) - pivot);
  const Vec2 m2 = pivot + rotated(m1 - pivot, angle);
  Anchor far = cut.mouth;
  far.at = end;
  const std::string later = splitAt(pattern, cut.piece, far);
  DartCut inner = cut;
  Turner turner(pattern, inner);
  Piece& p = turner.piece();
  // Take the stretch between both ends away, then shut the mouth.
  const std::string gone = turner.fromMouth();
  p.edges[edgePlace(p, later)].path =
      withEnds(p.edges[edgePlace(p, later)].path, m2, p.edges[edgePlace(p, later)].path.end());
  for (Seam& s : pattern.seams)
    for (SeamSide* side : {&s.a, &s.b})
      if (side->piece == cut.piece) std::erase_if(side->chain, [&](const EdgeUse& u) { return u.edge == gone; });
  std::erase_if(p.marks, [&](const Mark& m) { return m.isNotch() && m.a.edge == gone; });
  p.edges.erase(p.edges.begin() + static_cast<std::ptrdiff_t>(edgePlace(p, gone)));
  const DartTurn turn = turner.turn(-std::abs(angle));
  Edge &e = p.edges[turner.mouthAt() - 1], &f = p.edges[turner.mouthAt()];
  const Vec2 corner = e.path.end();
  f.path = withEnds(f.path, corner, f.path.end());
  return turn;
}

double dartAngle(const Pattern& pattern, std::string_view id, const Anchor& pivot) {
  const Seam* seam = pattern.seam(id);
  if (!seam || seam->a.piece != seam->b.piece) throw std::out_of_range("no dart " + std::string(id));
  const Vec2 p = pattern.pieces[seam->a.piece].edge(pivot.edge).path.pointAt(pivot.at);
  return std::abs(angleBetween(pattern.sidePath(seam->a).start() - p, pattern.sidePath(seam->b).start() - p));
}

namespace {

// Takes both legs of a dart out of the outline; levels that ended on them end in the cloth there.
void takeLegsAway(Piece& piece, size_t firstLeg) {
  const std::vector<LevelLine> levels = piece.levelLines();
  const std::string one = piece.edges[firstLeg].id, two = piece.edges[firstLeg + 1].id;
  const auto onLeg = [&](const Anchor& a) { return a.edge == one || a.edge == two; };
  std::erase_if(piece.marks, [&](const Mark& m) { return m.isLevel() || onLeg(m.a); });
  const auto at = piece.edges.begin() + static_cast<std::ptrdiff_t>(firstLeg);
  piece.edges.erase(at, at + 2);
  for (const LevelLine& l : levels) piece.marks.push_back(levelMark(piece, l.level, l.a, l.b));
}

// Two parts of a level that meet in the cloth, where a dart was closed between them, are one again.
void runOnInCloth(Piece& piece) {
  for (size_t i = 0; i < piece.marks.size(); ++i)
    for (size_t k = 0; k < piece.marks.size(); ++k) {
      Mark &first = piece.marks[i], &second = piece.marks[k];
      if (i == k || !first.isLevel() || !second.isLevel() || first.id != second.id) continue;
      if (first.b.onOutline() || second.a.onOutline()) continue;
      if (distance(piece.point(first.b), piece.point(second.a)) > tolerance::kSamePlace) continue;
      first.b = second.b;
      piece.marks.erase(piece.marks.begin() + static_cast<std::ptrdiff_t>(k));
      return runOnInCloth(piece);
    }
}

}  // namespace

DartTurn closeDart(Pattern& pattern, std::string_view id, const Anchor& pivot, TurnedPart turned, double part) {
  const double whole = dartAngle(pattern, id, pivot), by = part * whole;
  const double clear = distance(pattern.sidePath(pattern.seam(id)->a).end(),
                                pattern.pieces[pattern.seam(id)->a.piece].edge(pivot.edge).path.pointAt(pivot.at));
  slitDart(pattern, id);
  const SlitDart dart = findDart(pattern, id, pivot);
  Piece& p = pattern.pieces[dart.piece];
  const Edge leg1 = p.edges[dart.first], leg2 = p.edges[dart.first + 1];
  const auto at = static_cast<std::ptrdiff_t>(dart.first);
  takeLegsAway(p, dart.first);
  DartCut cut{dart.piece, {p.edges.front().id, 0}, {p.edges[dart.first].id, 0}, turned};
  Turner turner(pattern, cut);
  const DartTurn turn = turner.turn(-by);
  if (whole - by > tolerance::kShut) {
    const Vec2 m1 = p.edges[dart.first - 1].path.end(), m2 = p.edges[dart.first].path.start();
    Edge one = leg1, two = leg2;
    std::tie(one.path, two.path) = legs(turner.pivot(), m1, m2, clear);
    p.edges.insert(p.edges.begin() + at, {one, two});
    endOnLegs(p, dart.first);
    makeDart(pattern, id);
    return turn;
  }
  Edge &before = p.edges[dart.first - 1], &after = p.edges[dart.first];
  std::vector<Cubic> cubics = after.path.cubics();
  cubics.front().p0 = before.path.end();  // to the last bit
  after.path = Path(std::move(cubics));
  runOnInCloth(p);
  std::erase_if(pattern.seams, [&](const Seam& s) { return s.id == id; });
  uniteSeams(pattern, std::string(id));
  return turn;
}

DartTurn transferDart(Pattern& pattern, std::string_view id, double part, const DartCut& to, TurnedPart turned,
                      const DartName& name) {
  const Vec2 mouth = pattern.pieces.at(to.piece).edge(to.mouth.edge).path.pointAt(to.mouth.at);
  const Vec2 pivot = pattern.pieces[to.piece].edge(to.pivot.edge).path.pointAt(to.pivot.at);
  const double angle = part * dartAngle(pattern, id, to.pivot);
  openDart(pattern, to, angle, name);
  // The pivot, wherever it lies on the outline now.
  const Piece& p = pattern.pieces[to.piece];
  for (const Edge& e : p.edges)
    if (distance(e.path.start(), pivot) < tolerance::kSamePlace) {
      closeDart(pattern, id, {e.id, 0}, turned, part);
      break;
    }
  return {angle, 2 * distance(pivot, mouth) * std::sin(angle / 2)};
}

}  // namespace armure
