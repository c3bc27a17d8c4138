#include "parts/opening/opening_end.h"

#include <algorithm>
#include <cmath>

#include "parts/opening/rules.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kShortestPart = 2;  // mm: a shorter part is left with its neighbour

// Makes an edge the seam at the centre of a half.
void sew(Piece& piece, const std::string& id, const Rules& rules) {
  std::string name = piece.half == Half::Back ? "centre-back" : "centre-front";
  while (hasEdge(piece, name)) name += "-2";
  for (Edge& e : piece.edges)
    if (e.id == id) {
      e.id = name;
      e.role = EdgeRole::Centre;
      e.allowance = rules.length(key::kAllowanceSeam);
    }
  carryMarks(piece, {{.was = id, .is = name}});
}

// The opening of a piece ends at a depth: what of it lies above (or below) is sewn.
void closeBeyond(Piece& piece, double y, bool above, const Rules& rules) {
  const double beyond = above ? -1 : 1;
  for (size_t i = 0; i < piece.edges.size(); ++i) {
    const Edge edge = piece.edges[i];
    if (edge.role != EdgeRole::Opening) continue;
    const double nearest = std::min(beyond * edge.path.start().y, beyond * edge.path.end().y);
    if (nearest > beyond * y - kShortestPart) {
      sew(piece, edge.id, rules);
      continue;
    }
    const std::vector<double> met = edge.path.crossings({0, y}, {1, 0});
    if (met.empty() || met.front() < kShortestPart || met.front() > edge.path.length() - kShortestPart) continue;
    const bool openFirst = beyond * edge.path.end().y > beyond * edge.path.start().y;
    const auto [first, second] = splitEdge(piece, {edge.id, false}, met.front());
    const EdgeUse &open = openFirst ? first : second, &closed = openFirst ? second : first;
    piece.marks.push_back(notchMark(above ? "opening-start" : "opening-end",
                                    {open.edge, openFirst ? piece.edge(open.edge).path.length() : 0, {}},
                                    piece.half == Half::Back));
    // The part that stays open keeps the name of the opening.
    if (openFirst) {
      sew(piece, closed.edge, rules);
      return;
    }
    for (Edge& e : piece.edges) {
      if (e.id == closed.edge) {
        e.id = "closed";
      } else if (e.id == open.edge) {
        e.id = edge.id;
      }
    }
    carryMarks(piece, {{.was = closed.edge, .is = "closed"}, {.was = open.edge, .is = edge.id}});
    sew(piece, "closed", rules);
    return;
  }
}

// The seam an edge is in, and the piece on its other side.
struct Partner {
  const Seam* seam = nullptr;
  size_t piece = 0;
};
Partner partnerOf(const Pattern& pattern, size_t piece, const std::string& edge) {
  for (const Seam& s : pattern.seams) {
    if (s.a.piece == piece && s.a.uses(edge)) return {&s, s.b.piece};
    if (s.b.piece == piece && s.b.uses(edge)) return {&s, s.a.piece};
  }
  return {};
}

}  // namespace

void endOpenings(Pattern& pattern, const Block& block, const Rules& rules) {
  for (Piece& p : pattern.pieces) {
    if (p.layer != "shell" || p.half == Half::Both) continue;
    const Opening& o = (p.half == Half::Back ? block.back : block.front).opening;
    if (o.endsAbove(o.hemY)) closeBeyond(p, o.endY, false, rules);
    const double start = rules.length(key::kOpeningStart);
    if (start > 0 && o.isOpen() && p.part != Part::Yoke) closeBeyond(p, start, true, rules);
  }
}

void markLandings(Pattern& pattern) {
  constexpr double kSmooth = 0.26;  // rad, 15 degrees: more is a corner of the piece
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    Piece& p = pattern.pieces[i];
    if (p.layer != "shell") continue;
    for (size_t k = 0; k < p.edges.size(); ++k) {
      const Edge &edge = p.edges[k], &next = p.edges[(k + 1) % p.edges.size()];
      if (!isSewn(edge.role) || !isSewn(next.role)) continue;
      if (std::abs(angleBetween(edge.path.endTangent(), next.path.startTangent())) > kSmooth) continue;
      const Partner here = partnerOf(pattern, i, edge.id), there = partnerOf(pattern, i, next.id);
      if (!here.seam || !there.seam || here.seam == there.seam || here.piece == there.piece) continue;
      const auto landing = std::find_if(pattern.seams.begin(), pattern.seams.end(), [&](const Seam& s) {
        return (s.a.piece == here.piece && s.b.piece == there.piece) ||
               (s.b.piece == here.piece && s.a.piece == there.piece);
      });
      const std::string id = landing == pattern.seams.end() ? "joint" : "seam-" + landing->id;
      p.marks.push_back(notchMark(id, {edge.id, edge.path.length(), {}}, p.half == Half::Back));
    }
  }
}

}  // namespace armure
