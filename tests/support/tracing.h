// tests/support/tracing.h
//
// A pattern of ours as somebody else's drawing: named by script at the places where it lies there, written as a DXF of
// lines, and compared with what was read back.
#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

#include "geometry/path_distance.h"
#include "geometry/tolerances.h"
#include "pattern/outline_parts.h"
#include "prepare/drawing.h"
#include "tracing/naming.h"

namespace armure::testing {

// A place well inside a piece, clear of its edges and of its darts.
inline Vec2 insideOf(const Piece& piece) {
  const Polyline outline = piece.outline(0.5);
  Polyline ring = outline;
  ring.push_back(ring.front());
  Vec2 low = outline.front(), high = low, best = low;
  for (const Vec2 p : outline) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y)};
  }
  double most = 0;
  for (int i = 1; i < 16; ++i)
    for (int k = 1; k < 16; ++k) {
      const Vec2 p{low.x + (high.x - low.x) * i / 16, low.y + (high.y - low.y) * k / 16};
      if (const double d = distanceToPolyline(p, ring); contains(outline, p) && d > most) most = d, best = p;
    }
  return best;
}

// What a maker would say of the shell's pieces where `motions` lay them.
inline TracingNames namesOf(const Pattern& pattern, const std::vector<Motion>& motions) {
  TracingNames names;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    if (p.layer != "shell") continue;
    const Motion& m = motions[i];
    NamedPiece n{.id = p.id, .name = p.id, .at = m.apply(insideOf(p)), .half = p.half, .part = p.part};
    n.ordinal = p.ordinal;
    n.copies = p.copies;
    n.grainTop = m.apply(p.grainTop);
    n.grainBottom = m.apply(p.grainBottom);
    for (const Edge& e : p.edges) n.edges.push_back({e.id, m.apply(e.path.start()), e.role, e.allowance});
    for (const LevelLine& l : p.levelLines()) n.levels.push_back({l.level, m.apply(l.a), m.apply(l.b)});
    for (const Mark& k : p.notches()) n.notches.push_back({k.id, m.apply(p.point(k.a)), k.doubled});
    for (const Dart& d : p.darts)
      n.darts.push_back({d.id, m.apply(d.legs[0].path.pointAt(d.legs[0].path.length() / 2)),
                         m.apply(d.legs[1].path.pointAt(d.legs[1].path.length() / 2))});
    names.pieces.push_back(std::move(n));
  }
  for (const Seam& s : pattern.seams) {
    const Piece &a = pattern.pieces[s.a.piece], &b = pattern.pieces[s.b.piece];
    if (a.layer != "shell" || b.layer != "shell" || s.kind == SeamKind::Dart) continue;
    NamedSeam n{.id = s.id, .name = s.id, .a = {a.id, {}}, .b = {b.id, {}}, .kind = s.kind, .ease = s.ease()};
    for (const EdgeUse& use : s.a.chain) n.a.edges.push_back(use.edge);
    for (const EdgeUse& use : s.b.chain) n.b.edges.push_back(use.edge);
    names.seams.push_back(std::move(n));
  }
  return names;
}

// R12 ASCII: edges as polylines on layer 14, the line to cut on 1, levels on 8, notches on 4, grain on 7, as in ASTM
// D6673 (from memory). y up.
inline std::string dxfOf(const Pattern& pattern, const std::vector<Polyline>& cutOutlines,
                         const std::vector<Motion>& motions) {
  std::string out = "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
  const auto polyline = [&](const Polyline& points, const Motion& m, int layer, bool closed) {
    out += fmt::format("0\nPOLYLINE\n8\n{}\n66\n1\n10\n0.0\n20\n0.0\n70\n{}\n", layer, closed ? 1 : 0);
    for (const Vec2 p : points) {
      const Vec2 q = m.apply(p);
      out += fmt::format("0\nVERTEX\n8\n{}\n10\n{:.5f}\n20\n{:.5f}\n", layer, q.x, -q.y);
    }
    out += "0\nSEQEND\n";
  };
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const DrawnLine& l : drawnLines(pattern.pieces[i], cutOutlines[i])) {
      if (l.role == LineRole::Cut) {
        polyline(l.outline, motions[i], 1, true);
        continue;
      }
      const int layer = l.role == LineRole::Sewn    ? 14
                        : l.role == LineRole::Fold  ? 6
                        : l.role == LineRole::Notch ? 4
                        : l.role == LineRole::Grain ? 7
                                                    : 8;
      polyline(l.path.flattened(tolerance::kFileFlatness), motions[i], layer, false);
    }
  return out + "0\nENDSEC\n0\nEOF\n";
}

// The rigid motion between two lists of points by the first and the one furthest from it.
inline Motion between(const std::vector<Vec2>& from, const std::vector<Vec2>& to) {
  size_t far = 0;
  for (size_t i = 0; i < from.size(); ++i)
    if (distance(from[0], from[i]) > distance(from[0], from[far])) far = i;
  const double turn = angleBetween(from[far] - from[0], to[far] - to[0]);
  return Motion::rotationAbout({}, turn).then(Motion::translation(to[0] - rotated(from[0], turn)));
}

// By how much a piece that was read back differs at the most, edges, levels and notches, mm; HUGE_VAL where one of them
// is not there.
inline double strayOf(const Piece& is, const Piece& was) {
  if (is.edges.size() != was.edges.size() || is.marks.size() != was.marks.size() || is.darts.size() != was.darts.size())
    return HUGE_VAL;
  std::vector<Vec2> from, to;
  size_t first = 0;
  while (first < is.edges.size() && is.edges[first].id != was.edges[0].id) ++first;
  if (first == is.edges.size()) return HUGE_VAL;
  const auto edgeOf = [&](size_t i) -> const Edge& { return is.edges[(first + i) % is.edges.size()]; };
  for (size_t i = 0; i < was.edges.size(); ++i) {
    if (edgeOf(i).id != was.edges[i].id || edgeOf(i).role != was.edges[i].role) return HUGE_VAL;
    for (const Vec2 p : evenPoints(edgeOf(i).path, 17)) from.push_back(p);
    for (const Vec2 p : evenPoints(was.edges[i].path, 17)) to.push_back(p);
  }
  const auto add = [&](Vec2 a, Vec2 b) { from.push_back(a), to.push_back(b); };
  for (size_t k = 0; k < was.darts.size(); ++k)
    for (const size_t leg : {0, 1}) {
      const Path &a = is.darts[k].legs[leg].path, &b = was.darts[k].legs[leg].path;
      for (const double part : {0.0, 0.25, 0.5, 0.75, 1.0})
        add(a.pointAt(part * a.length()), b.pointAt(part * b.length()));
    }
  std::vector<Mark> left(is.marks);
  const Motion m = between(from, to);
  double most = 0;
  for (const Mark& mark : was.marks) {
    double least = HUGE_VAL;
    for (const Mark& other : left) {
      if (other.kind != mark.kind || other.id != mark.id) continue;
      double d = distance(m.apply(is.point(other.a)), was.point(mark.a));
      if (mark.isLevel()) d = std::max(d, distance(m.apply(is.point(other.b)), was.point(mark.b)));
      least = std::min(least, d);
    }
    most = std::max(most, least);
  }
  for (size_t i = 0; i < from.size(); ++i) most = std::max(most, distance(m.apply(from[i]), to[i]));
  return most;
}

}  // namespace armure::testing
