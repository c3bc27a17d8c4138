// core/balance/moving_edge.h
//
// A sewn edge while it is balanced: cubics between joints, moved by a displacement and a change of tangent at each
// joint (see problem.h for the formulas).
#pragma once

#include <Eigen/Core>
#include <string>
#include <vector>

#include "geometry/path.h"

namespace armure {

// Derivatives of the length of a cubic by its control points.
struct LengthGradient {
  double length = 0;
  Vec2 by[4];
};
LengthGradient lengthGradient(const Cubic& cubic);

class MovingEdge {
 public:
  static constexpr Eigen::Index kPerJoint = 4;  // dx, dy, mx, my

  // Where the unknowns of a joint begin, and its displacement among the unknowns of its edge.
  static Eigen::Index at(size_t joint) { return kPerJoint * static_cast<Eigen::Index>(joint); }
  static Vec2 displacement(const Eigen::VectorXd& x, size_t joint) { return {x(at(joint)), x(at(joint) + 1)}; }

  static Vec2 tangentChange(const Eigen::VectorXd& x, size_t joint) { return {x(at(joint) + 2), x(at(joint) + 3)}; }

  // `cuts` are arc lengths at which the edge gets joints, besides those it has.
  MovingEdge(const Path& path, const std::vector<double>& cuts);

  const std::vector<Cubic>& cubics() const { return cubics_; }
  size_t joints() const { return cubics_.size() + 1; }
  Eigen::Index unknowns() const { return kPerJoint * static_cast<Eigen::Index>(joints()); }
  // Arc length of a joint on the drafted edge.
  double along(size_t joint) const { return along_.at(joint); }
  // The joint at an arc length of the drafted edge; throws std::invalid_argument when there is none within 1e-4 mm.
  size_t jointAt(double arcLength) const;

  // The Hessian of the movement and the bending of this edge.
  Eigen::MatrixXd hessian() const;

  // The edge moved by the unknowns.
  Cubic moved(size_t cubic, const Eigen::VectorXd& x) const;
  Vec2 movedJoint(size_t joint, const Eigen::VectorXd& x) const;
  Path path(const Eigen::VectorXd& x) const;

  // Length between two joints once moved.
  double length(size_t from, size_t to, const Eigen::VectorXd& x) const;
  // The same; adds `factor` times its derivative to `gradient`, one entry per unknown.
  double length(size_t from, size_t to, const Eigen::VectorXd& x, double factor,
                Eigen::Ref<Eigen::VectorXd> gradient) const;
  // Adds `factor` times the second derivative of that length by the unknowns of the edge. With g_k what unknown k does
  // to the velocity v, and T = v / |v|:  integral g_k g_l (1 - T T') / |v| dt.
  void addHessian(size_t from, size_t to, const Eigen::VectorXd& x, double factor,
                  Eigen::Ref<Eigen::MatrixXd> into) const;

 private:
  std::vector<Cubic> cubics_;
  std::vector<double> along_;              // arc length of every joint
  std::vector<double> handle1_, handle2_;  // drafted lengths of the handles of every cubic
};

}  // namespace armure
