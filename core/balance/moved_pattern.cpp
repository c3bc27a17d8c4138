#include "balance/moved_pattern.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "operations/crossing.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kRounding = 1e-4;  // mm

double lengthTo(const BalancedEdge& e, double drafted, const Eigen::VectorXd& x) {
  return e.moving.length(0, e.moving.jointAt(drafted), x);
}

void moveEdge(const Piece& before, Piece& piece, const BalancedEdge& e, const Eigen::VectorXd& x) {
  const Edge& edge = before.lineAt(e.edge);
  piece.lineAt(e.edge).path = e.moving.path(x);
  for (size_t m = 0; m < before.marks.size(); ++m)
    for (Anchor Mark::*anchor : {&Mark::a, &Mark::b})
      if ((before.marks[m].*anchor).edge == edge.id)
        (piece.marks[m].*anchor).at = lengthTo(e, (before.marks[m].*anchor).at, x);
}

// A straight line stays one.
Path shiftedEnds(const Path& path, Vec2 start, Vec2 end, bool straight) {
  return straight ? Path::line(start, end) : withEnds(path, start, end);
}

// Gives an edge another path. What was marked at its end stays there.
void reshape(Piece& piece, Edge& edge, Path path) {
  const double was = edge.path.length(), is = path.length();
  for (Mark& m : piece.marks)
    for (Anchor* a : {&m.a, &m.b})
      if (a->edge == edge.id) a->at = a->at >= was - tolerance::kSamePlace ? is : std::min(a->at, is);
  edge.path = std::move(path);
}

// Edges that took no part keep their shape: their ends and handles go with the corners that were moved. `moved` goes by
// Piece::lineAt.
void followCorners(Piece& piece, const std::vector<bool>& moved) {
  for (size_t i = 0; i < piece.lines(); ++i) {
    Edge& e = piece.lineAt(i);
    if (e.role == EdgeRole::Mouth) continue;
    const size_t before = piece.previous(i), after = piece.next(i);
    if (moved[i]) {  // two that moved meet as their constraint says; to the last bit
      const Vec2 corner = piece.lineAt(after).path.start();
      if (moved[after] && distance(e.path.end(), corner) < kRounding)
        e.path = shiftedEnds(e.path, e.path.start(), corner, false);
      continue;
    }
    const Vec2 start = moved[before] ? piece.lineAt(before).path.end() : e.path.start();
    const Vec2 end = moved[after] ? piece.lineAt(after).path.start() : e.path.end();
    if (distance(e.path.start(), start) < 1e-12 && distance(e.path.end(), end) < 1e-12) continue;
    reshape(piece, e, shiftedEnds(e.path, start, end, e.role == EdgeRole::Fold));
  }
  for (const Dart& d : piece.darts)
    if (d.isOpen())
      piece.edges[edgePlace(piece, d.mouth)].path = Path::line(d.legs[0].path.start(), d.legs[1].path.end());
}

// Cuts `amount` off an edge at its upper end as the side walks it, or at its lower end.
void cutEnd(Pattern& pattern, const SeamSide& side, bool atTop, double amount) {
  Piece& piece = pattern.pieces[side.piece];
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  const size_t i = edgePlace(piece, use.edge);
  const bool atStart = atTop != use.reversed;
  const Path old = piece.lineAt(i).path;
  if (amount >= old.length() - 1) throw std::invalid_argument("balance: more would be trimmed than the edge has");
  piece.lineAt(i).path = atStart ? old.sub(amount, old.length()) : old.sub(0, old.length() - amount);
  const double kept = old.length() - amount;
  const EdgePart rest =
      atStart ? EdgePart{use.edge, amount, old.length(), use.edge} : EdgePart{use.edge, 0, kept, use.edge};
  for (const Mark& gone : carryMarks(piece, {rest}))
    for (PatternLevel& p : pattern.levels)
      if (gone.isLevel() && p.id == gone.id) p.ring = false;
  std::vector<bool> moved(piece.lines(), false);
  moved[i] = true;
  followCorners(piece, moved);
}

}  // namespace

Pattern movedPattern(const Pattern& drafted, const BalanceProblem& problem, const Eigen::VectorXd& x) {
  Pattern out = drafted;
  std::vector<std::vector<bool>> moved;
  for (const Piece& p : out.pieces) moved.emplace_back(p.lines(), false);
  for (size_t e = 0; e < problem.edges().size(); ++e) {
    const BalancedEdge& edge = problem.edges()[e];
    if (!edge.offset) continue;
    moveEdge(drafted.pieces[edge.piece], out.pieces[edge.piece], edge, problem.part(x, e));
    moved[edge.piece][edge.edge] = true;
  }
  for (size_t i = 0; i < out.pieces.size(); ++i) followCorners(out.pieces[i], moved[i]);
  followFreeEdges(drafted, out);
  for (Seam& seam : out.seams) {
    seam.notches = notchesOf(out, seam);
    if (const auto asked = problem.eases().find(seam.id); asked != problem.eases().end()) seam.eases = asked->second;
  }
  return out;
}

void trimSeam(Pattern& pattern, size_t index, bool atTop) {
  Seam& seam = pattern.seams[index];
  const double a = pattern.sidePath(seam.a).length(), b = pattern.sidePath(seam.b).length();
  const double longer = a - seam.ease() - b;
  if (std::abs(longer) > 1e-9) {
    const SeamSide& side = longer > 0 ? seam.a : seam.b;
    cutEnd(pattern, side, atTop, std::abs(longer));
    pattern.trims.push_back({seam.id, atTop, side.piece, std::abs(longer)});
  }
  // Both sides are equally long now, so it is the same from which end the notches are marked.
  for (const SeamNotch& notch : notchesOf(pattern, seam))
    for (Mark& n : pattern.pieces[seam.b.piece].notches())
      if (n.id == notch.id && seam.b.uses(n.a.edge)) n.a = pattern.placeOnSide(seam.b, notch.a);
  seam.notches = notchesOf(pattern, seam);
}

}  // namespace armure
