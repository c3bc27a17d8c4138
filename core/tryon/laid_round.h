// core/tryon/laid_round.h
//
// Where the sewn cloth begins: laid round the body, a little off its skin, every vertex at an angle and a height.
//
// The way round, s, from centre front (0) to centre back (1) is the harmonic function on the sewn cloth with these
// ends. The height is the function whose slope is nearest to one, down each piece, and which is held at the levels
// marked on its edges to where the body has them (a Poisson problem). What goes over the shoulders is held there as
// well: its shoulder seams lie on the body's shoulders, their outer end at the shoulder point, halfway round. Both by
// linear finite elements on the flat
// triangles (G. Strang, G. Fix, An Analysis of the Finite Element Method, 1973). The angle follows from s by arc length
// round the body at that height.
#pragma once

#include <Eigen/Core>
#include <string>
#include <vector>

#include "tryon/radial_body.h"
#include "tryon/sewn_pattern.h"

namespace armure {

// A level of the pattern and the height the body has it at, mm.
struct LevelHeight {
  std::string level;
  double y = 0;
};

// By vertex. `off` mm outside the skin.
std::vector<Eigen::Vector3d> laidRound(const SewnPattern& sewn, const Pattern& pattern, const RadialBody& body,
                                       const BodyForm::Shoulder& shoulder, const std::vector<LevelHeight>& heights,
                                       double off);

// The edges that seams of a kind join, by their place in sewn.lines().
std::vector<size_t> linesOf(const SewnPattern& sewn, const Pattern& pattern, SeamKind kind);

// By piece of the mesh, the middle of its box, flat: what lies alike on the pieces of two patterns lies alike about
// these, since pieces move on the paper when a neighbour grows.
std::vector<Vec2> middlesOf(const SewnMesh& mesh);

// Where cloth that came to rest puts the vertices of another mesh of the same pieces, a finer one or one of the pattern
// after an edit: each as far between the corners of the triangle it lies in, flat, with the middles of both pieces on
// each other.
std::vector<Eigen::Vector3d> carriedOver(const SewnPattern& coarse, const std::vector<Eigen::Vector3d>& rest,
                                         const SewnPattern& fine);

// The vertices on the plane between both halves: centre front, centre back.
std::vector<int> centreVertices(const SewnPattern& sewn, const Pattern& pattern, Half half);

}  // namespace armure
