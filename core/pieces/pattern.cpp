#include "pieces/pattern.h"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

namespace armure {

std::string_view roleName(EdgeRole role) {
  switch (role) {
    case EdgeRole::Seam:
      return "seam";
    case EdgeRole::Fold:
      return "fold";
    case EdgeRole::Top:
      return "top";
    case EdgeRole::Hem:
      return "hem";
    case EdgeRole::Opening:
    case EdgeRole::Centre:
      break;
  }
  return "opening";
}

const Edge& Piece::edge(std::string_view edgeId) const {
  for (const Edge& e : edges)
    if (e.id == edgeId) return e;
  throw std::out_of_range(fmt::format("piece {}: no edge {}", id, edgeId));
}

const LevelMark* Piece::level(std::string_view levelId) const {
  for (const LevelMark& l : levels)
    if (l.level == levelId) return &l;
  return nullptr;
}

Polyline Piece::outline(double tolerance) const {
  Polyline points;
  for (const Edge& e : edges) {
    const Polyline part = e.path.flattened(tolerance);
    points.insert(points.end(), part.begin(), part.end() - 1);
  }
  return points;
}

size_t Pattern::shellPieces() const {
  return static_cast<size_t>(
      std::count_if(pieces.begin(), pieces.end(), [](const Piece& p) { return p.layer == "shell"; }));
}

double Pattern::closedGirth(const PatternLevel& l) const {
  double sum = l.openingGap;
  for (const Piece& p : pieces)
    if (const LevelMark* mark = p.level(l.id); mark && p.layer == "shell") sum += mark->width() * p.girthShare();
  return sum;
}

Path Pattern::sidePath(const SeamSide& side) const {
  const Path& path = pieces.at(side.piece).edge(side.edge).path;
  return side.reversed ? path.reversed() : path;
}

}  // namespace armure
