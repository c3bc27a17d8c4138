#include "sheet/measure.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "geometry/tolerances.h"

namespace armure {
namespace {

const Edge& edgeOf(const Pattern& pattern, size_t piece, const std::string& id) {
  const Piece& p = pattern.pieces.at(piece);
  for (const Edge& e : p.edges)
    if (e.id == id) return e;
  for (const Dart& d : p.darts)
    for (const Edge& leg : d.legs)
      if (leg.id == id) return leg;
  throw std::out_of_range("sheet: no edge " + id);
}

// The direction a curve leaves its start in: to the first control point that is not the start itself.
Vec2 leaving(const Cubic& c) {
  for (const Vec2 p : {c.p1, c.p2, c.p3})
    if (distance(c.p0, p) > tolerance::kRounding) return unit(p - c.p0);
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

namespace {

// The lines of a piece as they are walked with every dart slit open: round the outline, down and up the legs at each
// mouth; and round each dart that has none.
std::vector<std::vector<const Edge*>> slitOutlines(const Piece& piece) {
  std::vector<std::vector<const Edge*>> rounds(1);
  for (const Edge& e : piece.edges) {
    if (e.role != EdgeRole::Mouth) rounds.front().push_back(&e);
    for (const Dart& d : piece.darts)
      if (d.isOpen() && d.mouth == e.id)
        for (const Edge& leg : d.legs) rounds.front().push_back(&leg);
  }
  for (const Dart& d : piece.darts)
    if (!d.isOpen()) rounds.push_back({&d.legs[0], &d.legs[1]});
  return rounds;
}

}  // namespace

MeasuredCorner measureCorner(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  for (const std::vector<const Edge*>& round : slitOutlines(pattern.pieces.at(side.piece))) {
    const auto found = std::find_if(round.begin(), round.end(), [&](const Edge* e) { return e->id == use.edge; });
    if (found == round.end()) continue;
    // Clockwise the seam begins in its corner, or ends there.
    const bool begins = atTop != use.reversed;
    const auto i = static_cast<size_t>(found - round.begin()), n = round.size();
    const Edge &mine = **found, &across = *round[begins ? (i + n - 1) % n : (i + 1) % n];
    const Vec2 along = begins ? leavingStart(mine.path) : leavingEnd(mine.path),
               other = begins ? leavingEnd(across.path) : leavingStart(across.path);
    // Clockwise with y down the piece lies on the right of an edge.
    const double inside = begins ? angleBetween(along, other) : angleBetween(other, along);
    return {&across, begins ? mine.path.start() : mine.path.end(), inside < 0 ? inside + 2 * std::numbers::pi : inside};
  }
  throw std::out_of_range("sheet: no edge " + use.edge);
}

double turnBetween(const MeasuredCorner& a, const MeasuredCorner& b) {
  return std::remainder(a.insideRad + b.insideRad - std::numbers::pi, 2 * std::numbers::pi);
}

namespace {

// What a level loses in the darts it crosses, mm: between where it meets the one leg and where it meets the other, on
// the legs as fine polygons.
double inDarts(const Piece& piece, const Mark& level) {
  const Vec2 a = piece.point(level.a), along = unit(piece.point(level.b) - a);
  const double width = distance(a, piece.point(level.b));
  double sum = 0;
  for (const Dart& d : piece.darts) {
    std::vector<double> met;
    for (const Edge& leg : d.legs) {
      const Polyline line = leg.path.flattened(tolerance::kFileFlatness);
      for (size_t i = 0; i + 1 < line.size(); ++i) {
        const double here = cross(along, line[i] - a), next = cross(along, line[i + 1] - a);
        if (here == next || here * next > 0) continue;
        const double at = dot(along, lerp(line[i], line[i + 1], here / (here - next)) - a);
        if (at < 0 || at > width) continue;
        met.push_back(at);
        break;
      }
    }
    if (met.size() == 2) sum += std::abs(met[1] - met[0]);
  }
  return sum;
}

}  // namespace

double measureGirth(const Pattern& pattern, const PatternLevel& level) {
  double sum = level.gaps.opening + level.gaps.skin + level.gaps.gathers + level.gaps.swing;
  for (const Piece& p : pattern.pieces)
    for (const Mark& m : p.marks)
      if (p.layer == "shell" && m.isLevel() && m.id == level.id)
        sum += (distance(p.point(m.a), p.point(m.b)) - inDarts(p, m)) * p.girthWeight();
  return sum;
}

double measureEdges(const Pattern& pattern, const std::vector<PieceEdge>& edges) {
  double sum = 0;
  for (const PieceEdge& e : edges) sum += edgeOf(pattern, e.piece, e.edge).path.length();
  return sum;
}

}  // namespace armure
