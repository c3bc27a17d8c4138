// core/solid/equilibrium.h
//
// Where sewn cloth comes to rest on a body: the positions of its vertices with the least energy.
//
//   SolidScene scene(mesh, positions);
//   scene.addCloth(0, Cloth{});              // what piece 0 is cut from
//   scene.body = [](int, const Eigen::Vector3d& p) { return Touch{...}; };
//   scene.fix(vertex, 0);                    // x stays: a plane of symmetry
//   const Rest rest = settle(scene, {});
//
// The energy is the sum of
//   cloth      cloth.h
//   bending    per hinge 1/2 B/(A0 + A1) |sum of k x|^2, k by cotangents: the quadratic bending of a surface that does
//              not stretch (M. Bergou, M. Wardetzky, D. Harmon, D. Zorin, E. Grinspun, Symposium on Geometry Processing
//              2006), scaled so that a sheet bent to a cylinder of radius r takes B / 2 r^2 per area
//   bones      chains of vertices: 1/2 EA/l (|d| - l)^2 along, and 1/2 EI/l |d2/l2 - d1/l1|^2 against bending
//   contact    per vertex 1/2 k A depth^2, an elastic foundation (E. Winkler, Die Lehre von der Elasticitaet und
//              Festigkeit, Prague 1867); only outwards
//   weight     and holds, springs along an axis that may give way
// It is made least by Newton's steps with positive semidefinite second derivatives, a sparse factor whose pattern is
// analysed once (block_cholesky.h), steps cut to a longest, halved until the energy falls, and a parabola through what
// was found (J. Nocedal, S. Wright, Numerical Optimization, 2nd ed., 2006, 3.1 and 3.5).
//
// Lengths mm, forces N, y down.
#pragma once

#include <Eigen/Core>
#include <array>
#include <cmath>
#include <functional>
#include <vector>

#include "solid/cloth.h"
#include "solid/sewn_mesh.h"

namespace armure {

// A place against the body: how deep it lies under the skin (less than nothing outside), the way out, and how stiff the
// body is there, N per mm2 and mm of depth.
struct Touch {
  double depth = 0;
  Eigen::Vector3d outwards = Eigen::Vector3d::UnitX();
  double stiffness = 0;
};

// A bone or anything else that is stiff along a chain of vertices. It is straight when free.
struct Bone {
  std::vector<int> vertices;
  std::vector<double> lengths;               // between neighbours when free, mm; one fewer than the vertices
  double bending = 3000, stretching = 6000;  // EI, N mm2; EA, N
};

class SolidScene {
 public:
  // The touch of a vertex at a place. How stiff the body is may depend on the vertex, not on the place: only then is
  // the force the slope of the energy.
  using Body = std::function<Touch(int vertex, const Eigen::Vector3d& place)>;

  // `start` has a position for each vertex.
  SolidScene(SewnMesh mesh, std::vector<Eigen::Vector3d> start);

  // What a piece is cut from; without it the default. `bending` in N mm; `grain` as it runs on the flat piece.
  void setCloth(int piece, const Cloth& cloth, double bending = 1, double weight = 0, Vec2 grain = {1, 0});
  void addBone(Bone bone);
  // Keeps a coordinate (0 x, 1 y, 2 z) as it starts.
  void fix(int vertex, int axis);
  // A spring along an axis to a coordinate, N/mm, that never pulls with more than `most`, N: with it friction, which
  // gives way. Its energy is most^2 / k (sqrt(1 + (k off / most)^2) - 1).
  void hold(int vertex, int axis, double to, double stiffness, double most = HUGE_VAL);
  // Pulls a coordinate down to `least` with a force, N; there it is stopped.
  void pull(int vertex, int axis, double force, double least);
  Body body;  // none: no contact

  const SewnMesh& mesh() const { return mesh_; }
  const std::vector<Eigen::Vector3d>& start() const { return start_; }

 private:
  friend class EnergySum;
  struct PieceCloth {
    Cloth cloth;
    double bending = 1, weight = 0;  // N mm; N/mm2
    Vec2 grain{1, 0};
  };
  struct Spring {
    int vertex = 0, axis = 0;
    double to = 0, stiffness = 0, most = 0;
  };
  struct Pull {
    int vertex = 0, axis = 0;
    double force = 0, least = 0;
  };
  const PieceCloth& clothOf(int piece) const;

  SewnMesh mesh_;
  std::vector<Eigen::Vector3d> start_;
  std::vector<PieceCloth> cloths_;
  std::vector<Bone> bones_;
  std::vector<std::array<bool, 3>> fixed_;
  std::vector<Spring> springs_;
  std::vector<Pull> pulls_;
};

struct SettleOptions {
  double stopAt = 0.3;      // mm: the longest step of a vertex that still counts as rest
  double stopFall = 1e-7;   // of the energy: rest too, when a step promises to fall by less than twice that
  double longestStep = 12;  // mm
  int mostSteps = 200;
  std::function<bool()> stop = {};  // asked before each step; ends it where it is
};

struct Rest {
  std::vector<Eigen::Vector3d> positions;
  int steps = 0;
  bool settled = false;  // else mostSteps were not enough, or it was stopped
  bool stopped = false;
  double energy = 0;  // N mm
  // By triangle of the mesh.
  std::vector<ClothTriangle::State> cloth;
  // By vertex: contact pressure on the cloth as stretched, N/mm2 (1 N/mm2 = 1000 kPa); and depth under the skin, mm,
  // less than nothing outside.
  std::vector<double> pressure, depth;
};

Rest settle(const SolidScene& scene, const SettleOptions& options);

}  // namespace armure
