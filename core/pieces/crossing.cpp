#include "pieces/crossing.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "draft/block.h"

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

// The direction of a seam over its first millimetre, half a stitch: where it bends at its very end, that is what is
// sewn.
Vec2 firstStitch(const Path& path, bool atStart) {
  constexpr double kHalfStitch = 1;
  const double length = path.length();
  return atStart ? unit(path.pointAt(kHalfStitch) - path.start())
                 : unit(path.end() - path.pointAt(length - kHalfStitch));
}

// Lengthens the first handle of a cubic where it bends at its start with less than kCrossing: that radius grows as the
// square of the handle.
Cubic rounder(Cubic c) {
  constexpr double kCrossing = 120;  // mm; a tighter bend at a seam looks like a corner once it is sewn
  constexpr double kLongest = 0.7;   // of the chord
  const double radius = 1 / std::max(std::abs(c.curvature(0)), 1e-9), handle = distance(c.p0, c.p1);
  if (radius >= kCrossing || handle < 1e-9) return c;
  const double wanted = std::min(handle * std::sqrt(kCrossing / radius), kLongest * distance(c.p0, c.p3));
  if (wanted > handle) c.p1 = c.p0 + (wanted / handle) * (c.p1 - c.p0);
  return c;
}

void roundCrossing(Piece& piece, const SeamEnd& end) {
  Path& path = piece.edges[end.across].path;
  std::vector<Cubic> cubics = path.cubics();
  if (end.atItsStart) {
    cubics.front() = rounder(cubics.front());
  } else {
    cubics.back() = rounder(cubics.back().reversed()).reversed();
  }
  path = Path(std::move(cubics));
}

}  // namespace

SeamEnd seamEnd(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const Piece& piece = pattern.pieces.at(side.piece);
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  size_t i = 0;
  while (piece.edges.at(i).id != use.edge) ++i;
  // Walking clockwise the seam either leaves the corner or arrives at it.
  const bool leaves = atTop != use.reversed;
  const size_t n = piece.edges.size();
  SeamEnd end;
  end.across = leaves ? (i + n - 1) % n : (i + 1) % n;
  end.atItsStart = !leaves;
  const Edge &mine = piece.edges[i], &across = piece.edges[end.across];
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
  for (const Notch& notch : piece.notches)
    if (side.uses(notch.edge) && notch.id == level::kUnderbust) {
      const double along = pattern.alongSide(side, {notch.edge, notch.at});
      end.fromUnderbust = atTop ? along : pattern.sidePath(side).length() - along;
    }
  return end;
}

void runOnAcrossSeams(Pattern& pattern) {
  std::vector<std::pair<SeamEnd, size_t>> ends;  // and their pieces
  for (const Seam& seam : pattern.seams)
    for (const bool atTop : {true, false}) {
      const SeamEnd a = seamEnd(pattern, seam.a, atTop), b = seamEnd(pattern, seam.b, atTop);
      const bool runsOn = a.acrossRole == EdgeRole::Top || a.acrossRole == EdgeRole::Hem;
      if (a.acrossRole != b.acrossRole || !runsOn) continue;
      const double turn = a.chordAngleRad + b.chordAngleRad - std::numbers::pi;
      aim(pattern.pieces[seam.a.piece], a, turn * a.chord / (a.chord + b.chord));
      aim(pattern.pieces[seam.b.piece], b, turn * b.chord / (a.chord + b.chord));
      ends.insert(ends.end(), {{a, seam.a.piece}, {b, seam.b.piece}});
    }
  // One end's handle changes the bend at the other: a second round settles it.
  for (int round = 0; round < 2; ++round)
    for (const auto& [end, piece] : ends) roundCrossing(pattern.pieces[piece], end);
}

}  // namespace armure
