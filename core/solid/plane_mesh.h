// core/solid/plane_mesh.h
//
// Triangles inside a flat outline: the cloth of one piece before it is sewn.
//
//   PlaneMesh m = meshOutline(corners, 12);   // corners in order round the piece, clockwise or not
//   m.vertices[i] == corners[i]               // the first ones: a seam finds its vertices again by their number
//
// A constrained Delaunay triangulation (CGAL, "2D Triangulations") of the outline's corners, none of which is moved or
// added to, and of points inside on a hexagonal grid of the given spacing, none nearer to the outline than 0.6 of it.
// So both sides of a seam that are sampled alike can be made one.
#pragma once

#include <array>
#include <vector>

#include "geometry/vec.h"

namespace armure {

struct PlaneMesh {
  std::vector<Vec2> vertices;  // mm
  std::vector<std::array<int, 3>>
      triangles;  // corners with a positive area (x to the right, y down: clockwise as seen)
};

// `outline` is a simple polygon, the last corner is joined to the first; a corner may follow another at any distance
// more than nothing. Throws std::invalid_argument for fewer than three corners, for corners that coincide and for an
// outline that crosses itself.
PlaneMesh meshOutline(const std::vector<Vec2>& outline, double spacing);

}  // namespace armure
