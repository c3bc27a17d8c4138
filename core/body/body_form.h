// core/body/body_form.h
//
// The body as a form: a stack of level cross-sections from the line under the arms to the hip, with two breasts, such
// that a tape laid round it at each measured level reads the measured girth.
//
// Axes in mm: x to the body's side, y down from the shoulder line, z forward. A section at height y is made of two half
// superellipses that share their widest line (exponent n = 2.3), the front one deeper or shallower than the back one:
//
//   |x / a|^n + |(z - axis) / b|^n = 1,   b = front for z > axis, back else
//
// Depth to width (front + back) / 2a:
//   chest      0.6767 + 0.000217 (upper bust - 856.4 mm), kept within 0.55 and 0.85: regression of chest depth over
//              chest breadth on the chest girth, n = 130 (data/bodies; Heinz and others, 2003)
//   high hip   0.68, hip 0.71: the depth an ellipse of the mean girth has over the mean bi-iliac and bitrochanteric
//              breadth of the same data set, with 12 % of soft tissue added to the bone; the 12 % from memory
//   waist      0.72, between the two; common practice, no source
// The half width a then follows from the girth. Between the levels width, depths and axis run monotone (spline.h).
//
// A breast adds to the torso's front, at height y and w(y) to each side of half the span, a half ellipse p(y) deep, the
// wider the deeper it is. The torso at the bust level is between upper bust and underbust; the depth at the bust point
// is found so that the hull of torso and breasts measures the full bust. Above, p runs out at the chest line; below, at
// the underbust. A bust not larger than the torso there has no breasts, and the torso is as large as the bust.
#pragma once

#include <string_view>
#include <vector>

#include "geometry/polygon.h"
#include "measure/estimate.h"

namespace armure {

struct FormSection {
  double halfWidth, front, back;                 // of the torso; depths from the axis
  double axis;                                   // z of the widest line
  double breastDepth, breastHalfWidth, breastX;  // depth 0: no breast at this height
};

// One station of the form; the tape reads `girth` there.
struct FormLevel {
  std::string_view id;  // of the girth measure
  double y, girth;
};

class BodyForm {
 public:
  // Any body completeBody() or resolveBody() gives. Heights that contradict each other are kept apart by 20 mm.
  explicit BodyForm(const Body& body);

  const std::vector<FormLevel>& levels() const { return levels_; }  // upper bust, bust, underbust, ... hip
  double yOf(std::string_view girth) const;                         // std::out_of_range for an id that is no level
  double top() const { return levels_.front().y; }
  double bottom() const { return levels_.back().y; }

  FormSection section(double y) const;  // y is kept within top() and bottom()
  // Points of torso and breasts at a height, as (x, z). Not in order round the body.
  Polyline points(double y) const;
  // The same apart: the torso's ring, closed, and one breast's outline from its outer to its inner end; empty where
  // there is none.
  Polyline torsoRing(double y) const;
  Polyline breastOutline(double y) const;
  double tape(double y) const { return tapeOf(points(y)); }

  double halfWidth(double y) const;  // of the silhouette from the front
  double frontZ(double y) const;     // of the silhouette from the side
  double backZ(double y) const;
  // z of the front at (x, y), torso and breast.
  double frontAt(double x, double y) const;

 private:
  struct Station {
    double y, values[4];  // halfWidth, front, back, axis
    double slopes[4];
  };
  static double tapeOf(Polyline points);
  void solveBreasts(double bust);

  std::vector<FormLevel> levels_;
  std::vector<Station> stations_;
  double span_ = 0, breastDepth_ = 0, breastHalfWidth_ = 0;
  double yChest_ = 0, yBust_ = 0, yUnderbust_ = 0;
};

}  // namespace armure
