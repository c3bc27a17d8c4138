// core/parts/cups/standing.h
//
// The closed cup, standing: its pieces as thin sheets that keep their lengths, joined along their seams, filled a
// little from below and held with the cup line on a plane. It shows whether the cup stands up round or in a point,
// before anything is cut; it is for the eye, and says by how much it had to stretch.
//
// Every piece is sampled every `spacing` mm, its outline so that both sides of a seam share their points, and
// triangulated (Delaunay). Then position based dynamics (M. Mueller and others, "Position based dynamics", J. Vis.
// Commun. Image R. 18 (2007), 109-118): every side of a triangle keeps its length, points across a side keep theirs
// weakly (the stiffness of cloth), points of the cup line stay on the plane z = 0, and a light pressure pushes
// outwards.
#pragma once

#include <array>
#include <vector>

#include "geometry/vec.h"

#include "pattern/pattern.h"

namespace armure {

struct StandingCup {
  std::vector<Vec3> points;  // mm; z towards the front, y down
  std::vector<std::array<size_t, 3>> triangles;
  std::vector<size_t> pieceOf;                    // by triangle: which piece of the pattern
  std::vector<std::vector<size_t>> seams, edges;  // lines of points: sewn inside the cup; its outer edge
  double strain = 0;                              // mean change of length of the sides of the triangles, a part of them
  double depth = 0;                               // mm from the plane of the cup line to the highest point
};

// Of the pieces whose ids begin with "cup" or "band". Empty when the pattern has none.
StandingCup standingCup(const Pattern& pattern, double spacing = 8);

}  // namespace armure
