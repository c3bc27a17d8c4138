#include "balance/moved_pattern.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "pieces/crossing.h"
#include "pieces/outline_parts.h"

namespace armure {
namespace {

constexpr double kRounding = 1e-4;  // mm

double lengthTo(const BalancedEdge& e, double drafted, const Eigen::VectorXd& x) {
  return e.moving.length(0, e.moving.jointAt(drafted), x);
}

void moveEdge(const Piece& before, Piece& piece, const BalancedEdge& e, const Eigen::VectorXd& x) {
  const Edge& edge = before.edges[e.edge];
  piece.edges[e.edge].path = e.moving.path(x);
  for (size_t n = 0; n < before.notches.size(); ++n)
    if (before.notches[n].edge == edge.id) piece.notches[n].at = lengthTo(e, before.notches[n].at, x);
  for (size_t l = 0; l < before.levels.size(); ++l) {
    const LevelMark& mark = before.levels[l];
    if (const auto s = nearOn(edge.path, mark.a)) piece.levels[l].a = e.moving.movedJoint(e.moving.jointAt(*s), x);
    if (const auto s = nearOn(edge.path, mark.b)) piece.levels[l].b = e.moving.movedJoint(e.moving.jointAt(*s), x);
  }
}

// A straight line stays one.
Path shiftedEnds(const Path& path, Vec2 start, Vec2 end, bool straight) {
  return straight ? Path::line(start, end) : withEnds(path, start, end);
}

// Edges that took no part keep their shape: their ends and handles go with the corners that were moved.
void followCorners(Piece& piece, const std::vector<bool>& moved) {
  const size_t n = piece.edges.size();
  for (size_t i = 0; i < n; ++i) {
    if (moved[i]) {  // two that moved meet as their constraint says; to the last bit
      const Vec2 corner = piece.edges[(i + 1) % n].path.start();
      if (moved[(i + 1) % n] && distance(piece.edges[i].path.end(), corner) < kRounding)
        piece.edges[i].path = shiftedEnds(piece.edges[i].path, piece.edges[i].path.start(), corner, false);
      continue;
    }
    const size_t before = (i + n - 1) % n, after = (i + 1) % n;
    Edge& e = piece.edges[i];
    const Vec2 start = moved[before] ? piece.edges[before].path.end() : e.path.start();
    const Vec2 end = moved[after] ? piece.edges[after].path.start() : e.path.end();
    if (distance(e.path.start(), start) < 1e-12 && distance(e.path.end(), end) < 1e-12) continue;
    e.path = shiftedEnds(e.path, start, end, e.role == EdgeRole::Fold);
  }
}

double notchOn(const Pattern& pattern, const SeamSide& side, const std::string& id) {
  for (const Notch& n : pattern.pieces[side.piece].notches)
    if (side.uses(n.edge) && n.id == id) return pattern.alongSide(side, {n.edge, n.at});
  throw std::out_of_range("balance: piece " + pattern.pieces[side.piece].id + " has no notch " + id);
}

// What the seam says of its notches follows the pieces.
void renewNotches(Pattern& pattern, Seam& seam) {
  for (SeamNotch& n : seam.notches) {
    n.a = notchOn(pattern, seam.a, n.id);
    n.b = notchOn(pattern, seam.b, n.id);
  }
}

// Cuts `amount` off an edge at its upper end as the side walks it, or at its lower end.
void cutEnd(Pattern& pattern, const SeamSide& side, bool atTop, double amount) {
  Piece& piece = pattern.pieces[side.piece];
  const EdgeUse& use = atTop ? side.chain.front() : side.chain.back();
  const size_t i = edgePlace(piece, use.edge);
  const bool atStart = atTop != use.reversed;
  const Path old = piece.edges[i].path;
  if (amount >= old.length() - 1) throw std::invalid_argument("balance: more would be trimmed than the edge has");
  piece.edges[i].path = atStart ? old.sub(amount, old.length()) : old.sub(0, old.length() - amount);
  std::erase_if(piece.levels, [&](const LevelMark& l) {
    for (const Vec2 end : {l.a, l.b})
      if (const auto s = nearOn(old, end))
        if (atStart ? *s < amount : *s > old.length() - amount) {
          for (PatternLevel& p : pattern.levels)
            if (p.id == l.level) p.ring = false;
          return true;
        }
    return false;
  });
  if (atStart)
    for (Notch& n : piece.notches)
      if (n.edge == use.edge) n.at -= amount;
  std::vector<bool> moved(piece.edges.size(), false);
  moved[i] = true;
  followCorners(piece, moved);
}

}  // namespace

Pattern movedPattern(const Pattern& drafted, const BalanceProblem& problem, const Eigen::VectorXd& x) {
  Pattern out = drafted;
  std::vector<std::vector<bool>> moved;
  for (const Piece& p : out.pieces) moved.emplace_back(p.edges.size(), false);
  for (size_t e = 0; e < problem.edges().size(); ++e) {
    const BalancedEdge& edge = problem.edges()[e];
    if (!edge.offset) continue;
    moveEdge(drafted.pieces[edge.piece], out.pieces[edge.piece], edge, problem.part(x, e));
    moved[edge.piece][edge.edge] = true;
  }
  for (size_t i = 0; i < out.pieces.size(); ++i) followCorners(out.pieces[i], moved[i]);
  followFreeEdges(drafted, out);
  for (Seam& seam : out.seams) {
    renewNotches(out, seam);
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
  for (Notch& n : pattern.pieces[seam.b.piece].notches) {
    if (!seam.b.uses(n.edge)) continue;
    const auto known =
        std::find_if(seam.notches.begin(), seam.notches.end(), [&](const SeamNotch& s) { return s.id == n.id; });
    if (known == seam.notches.end()) continue;
    const EdgePlace place = pattern.placeOnSide(seam.b, notchOn(pattern, seam.a, n.id));
    n.edge = place.edge;
    n.at = place.at;
  }
  renewNotches(pattern, seam);
}

}  // namespace armure
