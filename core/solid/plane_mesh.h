// core/solid/plane_mesh.h
//
// Triangles inside a flat outline: the cloth of one piece before it is sewn.
//
//   PlaneMesh m = meshOutline(corners, 12);   // corners in order round the piece, clockwise or not
//   m.vertices[i] == corners[i]               // the first ones: a seam finds its vertices again by their number
//   meshOutline(corners, {14, 10, bustPoint, 90})   // 14 mm apart, but 10 within 90 of a place
//
// A constrained Delaunay triangulation (CGAL, "2D Triangulations") of the outline's corners, none of which is moved or
// added to, and of points inside on a hexagonal grid of the given spacing (two of them where a part is to be finer),
// none nearer to the outline, or to the finer grid, than 0.6 of it. So both sides of a seam that are sampled alike can
// be made one.
#pragma once

#include <algorithm>
#include <array>
#include <vector>

#include "geometry/vec.h"

namespace armure {

// How far apart vertices are to lie, mm: `plain`, and within `radius` of `centre` `fine`, where that is less.
struct MeshSpacing {
  double plain = 0, fine = 0;
  Vec2 centre{};
  double radius = 0;

  MeshSpacing(double everywhere) : plain(everywhere), fine(everywhere) {}  // NOLINT: a number is a spacing
  MeshSpacing(double plainly, double finely, Vec2 middle, double within)
      : plain(plainly), fine(std::min(plainly, finely)), centre(middle), radius(within) {}
  bool isFine(Vec2 p) const { return fine < plain && distance(p, centre) < radius; }
  double at(Vec2 p) const { return isFine(p) ? fine : plain; }
};

struct PlaneMesh {
  std::vector<Vec2> vertices;  // mm
  std::vector<std::array<int, 3>>
      triangles;  // corners with a positive area (x to the right, y down: clockwise as seen)
};

// `outline` is a simple polygon, the last corner is joined to the first; a corner may follow another at any distance
// more than nothing. Throws std::invalid_argument for fewer than three corners, for corners that coincide and for an
// outline that crosses itself.
PlaneMesh meshOutline(const std::vector<Vec2>& outline, const MeshSpacing& spacing);

}  // namespace armure
