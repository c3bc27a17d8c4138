#include "operations/crossing.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

#include "draft/block.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

// Sets the direction in which an edge leaves or reaches the corner of `end`: turned by `by` from its chord, into the
// piece; the handle a third of the chord.
void aim(Piece& piece, const SeamEnd& end, double by) {
  Path& path = piece.edges[end.across].path;
  std::vector<Cubic> cubics = path.cubics();
  if (end.atItsStart) {
    Cubic& c = cubics.front();
    c.p1 = c.p0 + rotated((c.p3 - c.p0) / 3, by);
  } else {
    Cubic& c = cubics.back();
    c.p2 = c.p3 + rotated((c.p0 - c.p3) / 3, -by);
  }
  path = Path(std::move(cubics));
}

// Turns the handle at the corner of `end` by `by` into the piece.
void turnHandle(Piece& piece, const SeamEnd& end, double by) {
  Path& path = piece.edges[end.across].path;
  std::vector<Cubic> cubics = path.cubics();
  if (end.atItsStart) {
    Cubic& c = cubics.front();
    c.p1 = c.p0 + rotated(c.p1 - c.p0, by);
  } else {
    Cubic& c = cubics.back();
    c.p2 = c.p3 + rotated(c.p2 - c.p3, -by);
  }
  path = Path(std::move(cubics));
}

// The direction of a seam over its first millimetre, half a stitch: where it bends at its very end, that is what is
// sewn.
Vec2 firstStitch(const Path& path, bool atStart) {
  constexpr double kHalfStitch = 1;
  const double length = path.length();
  return atStart ? unit(path.pointAt(kHalfStitch) - path.start())
                 : unit(path.end() - path.pointAt(length - kHalfStitch));
}

// What two angles inside the pieces differ from a straight angle together, whichever way round each was measured.
double straightened(double sum) { return std::remainder(sum - std::numbers::pi, 2 * std::numbers::pi); }

constexpr double kCrossing = 200;  // mm; a tighter bend at a seam looks like a corner once it is sewn

double radiusAtStart(const Cubic& c) { return 1 / std::max(std::abs(c.curvature(0)), 1e-9); }

// Lengthens the first handle of a cubic that bends at its start with less than `least`: that radius grows as the square
// of the handle.
Cubic rounder(Cubic c, double least) {
  constexpr double kLongest = 0.57;  // of the chord
  const double radius = radiusAtStart(c), handle = distance(c.p0, c.p1);
  if (radius >= least || handle < 1e-9) return c;
  const double wanted = std::min(handle * std::sqrt(least / radius), kLongest * distance(c.p0, c.p3));
  if (wanted > handle) c.p1 = c.p0 + (wanted / handle) * (c.p1 - c.p0);
  return c;
}

// The cubic that starts in the corner of `end`.
Cubic fromCorner(const Piece& piece, const SeamEnd& end) {
  const std::vector<Cubic>& cubics = piece.edges[end.across].path.cubics();
  return end.atItsStart ? cubics.front() : cubics.back().reversed();
}

// Where one line runs on across one end of a seam.
struct Crossing {
  SeamEnd a, b;
  size_t pieceA = 0, pieceB = 0;
  double turn = 0;  // of the chords, or of the tangents, with the seam closed
};

enum class Turns { OfChords, OfTangents };

std::vector<Crossing> crossingsOf(const Pattern& pattern, Turns turns) {
  std::vector<Crossing> all;
  for (const Seam& seam : pattern.seams)
    for (const bool atTop : {true, false}) {
      const SeamEnd a = seamEnd(pattern, seam.a, atTop), b = seamEnd(pattern, seam.b, atTop);
      if (a.acrossRole != b.acrossRole || !isFree(a.acrossRole)) continue;
      const double sum = turns == Turns::OfChords ? a.chordAngleRad + b.chordAngleRad : a.angleRad + b.angleRad;
      all.push_back({a, b, seam.a.piece, seam.b.piece, straightened(sum)});
    }
  return all;
}

// How far the line is turned from its chord at one end of a cubic: constant + slope * (an unknown, if there is one).
struct EndTurn {
  double constant = 0, slope = 0;
  Eigen::Index unknown = -1;
};

// Ends that are at no seam keep the direction they have.
EndTurn turnAt(const std::vector<Crossing>& crossings, Turns turns, size_t piece, size_t edge, bool atStart,
               const Cubic& c) {
  for (size_t k = 0; k < crossings.size(); ++k) {
    const Crossing& x = crossings[k];
    const auto meets = [&](size_t p, const SeamEnd& e) {
      return p == piece && e.across == edge && e.atItsStart == atStart;
    };
    if (meets(x.pieceA, x.a)) return {0, 1, static_cast<Eigen::Index>(k)};
    if (meets(x.pieceB, x.b)) return {x.turn, -1, static_cast<Eigen::Index>(k)};
  }
  if (turns == Turns::OfTangents) return {};
  const Vec2 chord = c.p3 - c.p0;
  return {atStart ? angleBetween(chord, c.startTangent()) : -angleBetween(chord, c.endTangent()), 0, -1};
}

// By how much side a's line is turned from its chord at every crossing, so that the whole line bends least.
Eigen::VectorXd smoothestTurns(const Pattern& pattern, const std::vector<Crossing>& crossings, Turns turns) {
  const auto n = static_cast<Eigen::Index>(crossings.size());
  Eigen::MatrixXd h = Eigen::MatrixXd::Identity(n, n) * 1e-9;
  Eigen::VectorXd g = Eigen::VectorXd::Zero(n);
  const auto add = [&](const EndTurn& s, const EndTurn& t, double weight) {  // weight * s * t
    if (s.unknown >= 0) g(s.unknown) += weight * s.slope * t.constant;
    if (t.unknown >= 0) g(t.unknown) += weight * t.slope * s.constant;
    if (s.unknown < 0 || t.unknown < 0) return;
    h(s.unknown, t.unknown) += weight * s.slope * t.slope;
    h(t.unknown, s.unknown) += weight * s.slope * t.slope;
  };
  for (size_t p = 0; p < pattern.pieces.size(); ++p)
    for (size_t e = 0; e < pattern.pieces[p].edges.size(); ++e) {
      const Edge& edge = pattern.pieces[p].edges[e];
      if (!isFree(edge.role)) continue;
      const std::vector<Cubic>& cubics = edge.path.cubics();
      for (const Cubic& c : cubics) {
        const auto end = [&](bool atStart) {
          const bool outer = &c == (atStart ? &cubics.front() : &cubics.back());
          return turnAt(outer ? crossings : std::vector<Crossing>{}, turns, p, e, atStart, c);
        };
        const EndTurn s = end(true), t = end(false);
        const double stiff = 1 / std::max(distance(c.p0, c.p3), 1.0);
        add(s, s, stiff);
        add(t, t, stiff);
        add(s, t, -stiff);
      }
    }
  return h.ldlt().solve(-g);
}

// One end of a line at a crossing, and the piece it is on.
struct LineEnd {
  size_t piece = 0;
  SeamEnd end;
};
std::vector<LineEnd> endsOf(const std::vector<Crossing>& crossings) {
  std::vector<LineEnd> ends;
  for (const Crossing& c : crossings) ends.insert(ends.end(), {{c.pieceA, c.a}, {c.pieceB, c.b}});
  return ends;
}

// Rounds the line at each crossing to kCrossing, or to the bend it has in `character`, where there is one.
void roundCrossings(Pattern& pattern, const std::vector<Crossing>& crossings, const Pattern* character = nullptr) {
  const std::vector<LineEnd> ends = endsOf(crossings);
  // One end's handle changes the bend at the other: all are found first, and a second round settles it.
  for (int times = 0; times < 2; ++times) {
    std::vector<Vec2> handles;
    for (const LineEnd& e : ends) {
      const double had = character ? radiusAtStart(fromCorner(character->pieces[e.piece], e.end)) : kCrossing;
      handles.push_back(rounder(fromCorner(pattern.pieces[e.piece], e.end), std::min(kCrossing, had)).p1);
    }
    for (size_t i = 0; i < ends.size(); ++i) {
      Path& path = pattern.pieces[ends[i].piece].edges[ends[i].end.across].path;
      std::vector<Cubic> cubics = path.cubics();
      (ends[i].end.atItsStart ? cubics.front().p1 : cubics.back().p2) = handles[i];
      path = Path(std::move(cubics));
    }
  }
}

// Turns the lines at their crossings so that each bends least: from their chords, drawn anew, or from how they run.
void turnLines(Pattern& pattern, const std::vector<Crossing>& crossings, Turns turns) {
  const Eigen::VectorXd by = smoothestTurns(pattern, crossings, turns);
  const auto turn = turns == Turns::OfChords ? aim : turnHandle;
  for (size_t k = 0; k < crossings.size(); ++k) {
    const Crossing& c = crossings[k];
    const double v = by(static_cast<Eigen::Index>(k));
    turn(pattern.pieces[c.pieceA], c.a, v);
    turn(pattern.pieces[c.pieceB], c.b, c.turn - v);
  }
}

// Draws the lines anew that cross at these.
void runOn(Pattern& pattern, const std::vector<Crossing>& crossings) {
  turnLines(pattern, crossings, Turns::OfChords);
  roundCrossings(pattern, crossings);
}

// The line as it was, on both sides of a crossing.
void restore(const Pattern& before, Pattern& pattern, const Crossing& c) {
  for (const auto& [piece, end] : {std::pair{c.pieceA, &c.a}, {c.pieceB, &c.b}})
    pattern.pieces[piece].edges[end->across].path = before.pieces[piece].edges[end->across].path;
}

// How tightly a line bends at a seam: the smaller of the radii on both sides, mm.
double radiusAt(const Pattern& pattern, const Crossing& c) {
  return std::min(radiusAtStart(fromCorner(pattern.pieces[c.pieceA], c.a)),
                  radiusAtStart(fromCorner(pattern.pieces[c.pieceB], c.b)));
}

// Whether top edge or hem bends at a seam so tightly that it looks like a corner once it is sewn. A flared hem is
// drafted to bend as much: there it counts where it has come to bend more.
bool bendsAtSeam(const Pattern& before, const Pattern& pattern, const Crossing& c) {
  constexpr double kLikeCorner = 75, kTighter = 0.8;  // mm of radius; part of what it was
  if (c.a.acrossRole == EdgeRole::Armhole) return false;
  const bool hem = c.a.acrossRole == EdgeRole::Hem;
  return radiusAt(pattern, c) < (hem ? std::min(kLikeCorner, kTighter * radiusAt(before, c)) : kLikeCorner);
}

}  // namespace

SeamEnd seamEnd(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const Piece& piece = pattern.pieces.at(side.piece);
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  const size_t i = edgePlace(piece, use.edge);
  // Walking clockwise the seam either leaves the corner or arrives at it.
  const bool leaves = atTop != use.reversed;
  SeamEnd end;
  end.across = lineBeyond(pattern, side, atTop);
  end.atItsStart = !leaves;
  const Edge &mine = piece.lineAt(i), &across = piece.lineAt(end.across);
  end.acrossRole = across.role;
  const Cubic& next = leaves ? across.path.cubics().back() : across.path.cubics().front();
  end.corner = leaves ? next.p3 : next.p0;
  end.chord = distance(next.p0, next.p3);
  const Vec2 chord = unit(next.p3 - next.p0);
  const auto inside = [&](Vec2 along, Vec2 seam) {  // both in the direction of their edges
    return std::numbers::pi - (leaves ? angleBetween(along, seam) : angleBetween(seam, along));
  };
  end.angleRad = leaves ? inside(next.endTangent(), mine.path.startTangent())
                        : inside(next.startTangent(), mine.path.endTangent());
  end.chordAngleRad = inside(chord, firstStitch(mine.path, leaves));
  for (const Mark& notch : piece.notches())
    if (side.uses(notch.a.edge) && notch.id == level::kUnderbust) {
      const double along = pattern.alongSide(side, notch.a);
      end.fromUnderbust = atTop ? along : pattern.sidePath(side).length() - along;
    }
  return end;
}

double turnAcross(const Pattern& pattern, const Seam& seam, bool atTop) {
  return straightened(seamEnd(pattern, seam.a, atTop).angleRad + seamEnd(pattern, seam.b, atTop).angleRad);
}

Motion closedAt(const Pattern& pattern, const Seam& seam, bool atTop) {
  const Path a = pattern.sidePath(seam.a), b = pattern.sidePath(seam.b);
  const Vec2 cornerA = atTop ? a.start() : a.end(), cornerB = atTop ? b.start() : b.end();
  const double turn =
      atTop ? angleBetween(b.startTangent(), a.startTangent()) : angleBetween(b.endTangent(), a.endTangent());
  return Motion::rotationAbout(cornerB, turn).then(Motion::translation(cornerA - cornerB));
}

void followFreeEdges(const Pattern& before, Pattern& after) {
  for (size_t i = 0; i < after.pieces.size(); ++i) {
    const Piece& was = before.pieces[i];
    Piece& is = after.pieces[i];
    for (size_t k = 0; k < is.marks.size(); ++k) {
      Mark& mark = is.marks[k];
      if (!mark.isLevel()) continue;
      for (const auto& [end, other] : {std::pair{&Mark::a, &Mark::b}, {&Mark::b, &Mark::a}}) {
        const size_t e = edgePlace(is, (mark.*end).edge);
        const Path& path = is.lineAt(e).path;
        if (!isFree(is.lineAt(e).role) || path.cubics() == was.lineAt(e).path.cubics()) continue;
        // Where the level, from its other end, meets the edge now.
        const Vec2 drafted = was.point(was.marks[k].*end), from = is.point(mark.*other);
        std::optional<double> nearest;
        for (const double s : path.crossings(from, drafted - from))
          if (!nearest || distance(path.pointAt(s), drafted) < distance(path.pointAt(*nearest), drafted)) nearest = s;
        if (!nearest) continue;
        (mark.*end).at = *nearest;
        const double wider = distance(from, path.pointAt(*nearest)) - distance(from, drafted);
        for (PatternLevel& l : after.levels)
          if (l.id == mark.id && l.ring) (l.gaps.skin != 0 ? l.gaps.skin : l.gaps.opening) -= wider * is.girthWeight();
      }
    }
  }
}

void runOnAcrossSeams(Pattern& pattern) {
  const Pattern drafted = pattern;
  runOn(pattern, crossingsOf(pattern, Turns::OfChords));
  followFreeEdges(drafted, pattern);
}

void trueAcrossSeams(Pattern& pattern) {
  const Pattern before = pattern;
  const std::vector<Crossing> crossings = crossingsOf(pattern, Turns::OfTangents);
  turnLines(pattern, crossings, Turns::OfTangents);
  // With its corners moved and its handles turned it may bend tightly beside a seam now. An armhole keeps its length.
  std::vector<Crossing> rounded = crossings;
  std::erase_if(rounded, [](const Crossing& c) { return c.a.acrossRole == EdgeRole::Armhole; });
  roundCrossings(pattern, rounded, &before);
  // A line that cannot keep its character and run on smoothly is drawn anew; the others stay as they are.
  std::set<EdgeRole> bending;
  for (const Crossing& c : crossings)
    if (bendsAtSeam(before, pattern, c)) bending.insert(c.a.acrossRole);
  if (!bending.empty()) {
    for (const Crossing& c : crossings)
      if (bending.contains(c.a.acrossRole)) restore(before, pattern, c);
    std::vector<Crossing> again = crossingsOf(pattern, Turns::OfChords);
    std::erase_if(again, [&](const Crossing& c) { return !bending.contains(c.a.acrossRole); });
    runOn(pattern, again);
  }
  followFreeEdges(before, pattern);
}

}  // namespace armure
