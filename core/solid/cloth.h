// core/solid/cloth.h
//
// What a cloth sets against being stretched and sheared: an orthotropic membrane that takes (almost) no pressure, since
// a cloth that is pressed folds. Lengths in mm, forces in N, energies in N mm, stiffnesses in N/mm of width.
//
// With the deformation gradient F of a triangle (3 x 2, in the axes of the cloth: u along its grain, v across), the
// strain is Green's, E = (F'F - I) / 2, written as (Euu, Evv, sqrt(2) Euv) (J. Mandel's order, in which turning the
// axes is orthogonal). It is split into a part of stretch and one of compression by its principal values, E = E+ + E-
// (C. Miehe, M. Hofacker, F. Welschinger, Computer Methods in Applied Mechanics and Engineering 199, 2010, eq. 21), and
//
//   energy per area = 1/2 E+ . C E+ + 1/2 relaxed E- . C E-,   C = diag(along, across, 2 shear)
//
// Stretched one way it does not narrow the other way: with pressure relaxed a coupling would pull the cloth together.
// The second derivative leaves out how the principal directions turn, and takes only the tensile part of the stress in
// its geometric part; so it is positive semidefinite.
#pragma once

#include <Eigen/Core>
#include <array>

#include "geometry/vec.h"

namespace armure {

struct Cloth {
  double alongGrain = 55, acrossGrain = 55;  // N/mm: the force per width that a strain of 1 would take
  double shear = 21;                         // N/mm
  double relaxed = 0.05;                     // part of the stiffness that stands against compression
};

// C in the order (uu, vv, sqrt(2) uv), N/mm, in axes of a flat piece in which the grain runs along `grain`; of any
// length but none.
Eigen::Matrix3d stiffnessOf(const Cloth& cloth, Vec2 grain = {1, 0});

// A triangle of flat cloth.
class ClothTriangle {
 public:
  // Corners in the plane of the cloth, mm; the axes its stiffness and its tension are given in. Throws
  // std::invalid_argument when they lie on a line.
  explicit ClothTriangle(const std::array<Vec2, 3>& rest);

  double area() const { return area_; }  // of the flat cloth, mm2

  struct Energy {
    double value = 0;                      // N mm
    Eigen::Matrix<double, 9, 1> gradient;  // N: against corner 0 x y z, corner 1, corner 2
    Eigen::Matrix<double, 9, 9> hessian;   // N/mm, positive semidefinite
  };
  using Corners = Eigen::Matrix3d;  // a column per corner, mm
  Energy energy(const Corners& x, const Eigen::Matrix3d& stiffness, double relaxed) const;
  double value(const Corners& x, const Eigen::Matrix3d& stiffness, double relaxed) const;

  // Force per width of flat cloth, N/mm, (uu, vv, sqrt(2) uv), and the principal strains, the greater first: how much
  // longer, as a part of the flat length.
  struct State {
    Eigen::Vector3d tension;
    double greater = 0, lesser = 0;
  };
  State state(const Corners& x, const Eigen::Matrix3d& stiffness, double relaxed) const;

 private:
  double area_ = 0;
  Eigen::Matrix<double, 3, 2> shape_;  // F = x shape
};

}  // namespace armure
