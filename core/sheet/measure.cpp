#include "sheet/measure.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

namespace armure {
namespace {

const Edge& edgeOf(const Pattern& pattern, size_t piece, const std::string& id) {
  for (const Edge& e : pattern.pieces.at(piece).edges)
    if (e.id == id) return e;
  throw std::out_of_range("sheet: no edge " + id);
}

// The direction a curve leaves its start in: to the first control point that is not the start itself.
Vec2 leaving(const Cubic& c) {
  constexpr double kSame = 1e-9;  // mm
  for (const Vec2 p : {c.p1, c.p2, c.p3})
    if (distance(c.p0, p) > kSame) return unit(p - c.p0);
  return {};
}
Vec2 leavingStart(const Path& path) { return leaving(path.cubics().front()); }
Vec2 leavingEnd(const Path& path) {
  const Cubic& c = path.cubics().back();
  return leaving({c.p3, c.p2, c.p1, c.p0});
}

void shareEase(const Seam& seam, std::vector<MeasuredStretch>& stretches) {
  for (const PlannedEase& e : seam.eases) {
    double spanned = 0;
    for (const bool sum : {true, false}) {
      bool within = false;
      for (MeasuredStretch& s : stretches) {
        within = within || s.from == e.from;
        if (within && sum) spanned += s.lengthA;
        if (within && !sum && spanned > 0) s.plannedEase += e.amount * s.lengthA / spanned;
        if (s.to == e.to) within = false;
      }
    }
  }
}

}  // namespace

const SidePlace* MeasuredSide::find(std::string_view id) const {
  for (const SidePlace& n : notches)
    if (n.id == id) return &n;
  return nullptr;
}

MeasuredSide measureSide(const Pattern& pattern, const SeamSide& side) {
  MeasuredSide out;
  std::vector<Cubic> cubics;
  for (const EdgeUse& use : side.chain) {
    const Path& path = edgeOf(pattern, side.piece, use.edge).path;
    const double length = path.length();
    for (const Mark& m : pattern.pieces[side.piece].marks)
      if (m.isNotch() && m.a.edge == use.edge)
        out.notches.push_back({m.id, out.length + (use.reversed ? length - m.a.at : m.a.at)});
    const Path walked = use.reversed ? path.reversed() : path;
    cubics.insert(cubics.end(), walked.cubics().begin(), walked.cubics().end());
    out.length += length;
  }
  std::sort(out.notches.begin(), out.notches.end(), [](const SidePlace& x, const SidePlace& y) { return x.at < y.at; });
  out.path = Path(std::move(cubics));
  return out;
}

MeasuredSeam measureSeam(const Pattern& pattern, const Seam& seam) {
  MeasuredSeam out{measureSide(pattern, seam.a), measureSide(pattern, seam.b), {}, 0};
  SidePlace lastA{"top", 0}, lastB = lastA;
  const auto until = [&](const SidePlace& a, const SidePlace& b) {
    out.stretches.push_back({lastA.id, a.id, a.at - lastA.at, b.at - lastB.at, 0});
    lastA = a;
    lastB = b;
  };
  for (const SidePlace& n : out.a.notches)
    if (const SidePlace* partner = out.b.find(n.id)) until(n, *partner);
  until({"hem", out.a.length}, {"hem", out.b.length});
  for (const PlannedEase& e : seam.eases) out.plannedEase += e.amount;
  shareEase(seam, out.stretches);
  return out;
}

MeasuredCorner measureCorner(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  const std::vector<Edge>& edges = pattern.pieces.at(side.piece).edges;
  const auto mine = std::find_if(edges.begin(), edges.end(), [&](const Edge& e) { return e.id == use.edge; });
  if (mine == edges.end()) throw std::out_of_range("sheet: no edge " + use.edge);
  // Round the piece clockwise the seam begins in its corner, or ends there.
  const bool begins = atTop != use.reversed;
  const auto i = static_cast<size_t>(mine - edges.begin()), n = edges.size();
  const Edge& across = edges[begins ? (i + n - 1) % n : (i + 1) % n];
  const Vec2 along = begins ? leavingStart(mine->path) : leavingEnd(mine->path),
             other = begins ? leavingEnd(across.path) : leavingStart(across.path);
  // Clockwise with y down the piece lies on the right: from the edge that leaves the corner round to the one that came.
  const double inside = begins ? angleBetween(along, other) : angleBetween(other, along);
  return {&across, begins ? mine->path.start() : mine->path.end(), inside < 0 ? inside + 2 * std::numbers::pi : inside};
}

double turnBetween(const MeasuredCorner& a, const MeasuredCorner& b) {
  return std::remainder(a.insideRad + b.insideRad - std::numbers::pi, 2 * std::numbers::pi);
}

double measureGirth(const Pattern& pattern, const PatternLevel& level) {
  double sum = level.gaps.opening + level.gaps.skin + level.gaps.gathers + level.gaps.swing;
  for (const Piece& p : pattern.pieces)
    for (const Mark& m : p.marks)
      if (p.layer == "shell" && m.isLevel() && m.id == level.id)
        sum += distance(p.point(m.a), p.point(m.b)) * p.girthWeight();
  return sum;
}

double measureEdges(const Pattern& pattern, const std::vector<PieceEdge>& edges) {
  double sum = 0;
  for (const PieceEdge& e : edges) sum += edgeOf(pattern, e.piece, e.edge).path.length();
  return sum;
}

}  // namespace armure
