// core/tryon/radial_body.h
//
// The body form as cloth meets it: how far its skin stands from its middle, by the angle round the body and the height.
//
//   const RadialBody body(form);
//   body.radius(0, y)                 // centre front; pi: centre back. Both sides are alike
//   body.depth({x, y, z})             // mm under the skin, less than nothing outside, and the way out
//
// A table every 2 degrees and 3 mm, the outermost of torso and breasts, between them cubic (E. Catmull, R. Rom, "A
// class of local interpolating splines", 1974). Above and below the form its last section goes on. The depth is the
// radial one over the slope of the skin, F / |grad F|: right to first order where the place is near the skin.
#pragma once

#include <Eigen/Core>
#include <vector>

#include "body/body_form.h"

namespace armure {

class RadialBody {
 public:
  explicit RadialBody(const BodyForm& form);

  double top() const { return top_; }
  double bottom() const { return top_ + kStep * static_cast<double>(rows_ - 1); }
  // mm from the middle; the angle from centre front, rad, to either side.
  double radius(double angle, double y) const;
  // The place on the skin, or `off` mm outside it.
  Eigen::Vector3d skin(double angle, double y, double off = 0) const;
  // The middle the angles are taken about, z at a height.
  double middle(double y) const;

  struct Place {
    double depth = 0;  // mm
    Eigen::Vector3d outwards = Eigen::Vector3d::UnitZ();
    double angle = 0;  // rad, 0 at the front to pi behind
  };
  Place place(const Eigen::Vector3d& p) const;
  // The same by the place of the skin that is truly nearest; `place` takes the skin for flat, which further off than a
  // millimetre or two is wrong where it is steep or bends. Falls back on it where the search finds nothing nearer.
  Place nearest(const Eigen::Vector3d& p) const;

 private:
  static constexpr double kStep = 3;  // mm
  static constexpr int kAngles = 91;  // from 0 to pi
  struct Local {
    double value = 0, byAngle = 0, byHeight = 0;
  };
  Local local(double angle, double y) const;
  double at(int row, int angle) const;
  void lay(int row, const Polyline& curve, double middle);

  double top_ = 0;
  int rows_ = 0;
  std::vector<double> radii_, middles_;  // by row, then angle; by row
};

}  // namespace armure
