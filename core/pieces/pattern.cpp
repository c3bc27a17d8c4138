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
    case EdgeRole::Cup:
      return "cup";
    case EdgeRole::Yoke:
      return "yoke";
    case EdgeRole::Armhole:
      return "armhole";
    case EdgeRole::Strap:
      return "strap";
    case EdgeRole::Opening:
    case EdgeRole::Centre:
      break;
  }
  return "opening";
}

bool isSewn(EdgeRole role) { return role == EdgeRole::Seam || role == EdgeRole::Cup || role == EdgeRole::Yoke; }

bool isFree(EdgeRole role) {
  return role == EdgeRole::Top || role == EdgeRole::Hem || role == EdgeRole::Armhole || role == EdgeRole::Strap;
}

bool isCentre(EdgeRole role) { return role == EdgeRole::Fold || role == EdgeRole::Opening || role == EdgeRole::Centre; }

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

double Pattern::right() const {
  double right = 0;
  for (const Piece& p : pieces)
    for (const Edge& e : p.edges) right = std::max({right, e.path.start().x, e.path.end().x});
  return right;
}

const Seam* Pattern::seam(std::string_view id) const {
  for (const Seam& s : seams)
    if (s.id == id) return &s;
  return nullptr;
}

double Pattern::closedGirth(const PatternLevel& l) const {
  double sum = l.openingGap;
  for (const Piece& p : pieces)
    if (p.layer == "shell")
      for (const LevelMark& mark : p.levels)
        if (mark.level == l.id) sum += mark.width() * p.girthShare();
  return sum;
}

bool SeamSide::uses(std::string_view edge) const {
  return std::any_of(chain.begin(), chain.end(), [&](const EdgeUse& u) { return u.edge == edge; });
}

double Seam::ease() const {
  double sum = 0;
  for (const PlannedEase& e : eases) sum += e.amount;
  return sum;
}

Path Pattern::sidePath(const SeamSide& side) const {
  Path path;
  for (const EdgeUse& use : side.chain) {
    const Path& edge = pieces.at(side.piece).edge(use.edge).path;
    const Path walked = use.reversed ? edge.reversed() : edge;
    path = path.empty() ? walked : path + walked;
  }
  return path;
}

double Pattern::alongSide(const SeamSide& side, const EdgePlace& place) const {
  double before = 0;
  for (const EdgeUse& use : side.chain) {
    const double length = pieces.at(side.piece).edge(use.edge).path.length();
    if (use.edge == place.edge) return before + (use.reversed ? length - place.at : place.at);
    before += length;
  }
  throw std::out_of_range(fmt::format("piece {}: edge {} is not on this side", pieces.at(side.piece).id, place.edge));
}

EdgePlace Pattern::placeOnSide(const SeamSide& side, double along) const {
  double before = 0;
  for (const EdgeUse& use : side.chain) {
    const double length = pieces.at(side.piece).edge(use.edge).path.length(), within = along - before;
    if (within <= length || &use == &side.chain.back()) return {use.edge, use.reversed ? length - within : within};
    before += length;
  }
  throw std::out_of_range("a side without edges");
}

}  // namespace armure
