// core/body/body_form.h
//
// The body as a form: a stack of level cross-sections from the neck to the knees, with two breasts, such that a tape
// laid round it at each measured level, from under the arms to the hip, reads the measured girth.
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
// Below the waist 0.42 of what they grow by down to the high hip is reached after 0.4 of the way: the parabola through
// the mean girths at waist, navel and hip of the same data set, taken as equally far apart. A high hip that was not
// taken is estimated from those bodies too (measure/body_statistics.h).
//
// Where the front arcs of bust and underbust were taken, the depth is divided so that the arcs behind are what is left.
//
// Heights go by lengths over the surface from the waist up, as the tape takes them and as the block is drawn: a stretch
// that stands upright keeps its length, one that slants is less high than long.
//   waist       the back waist length below the shoulder line
//   chest line  a side length up the side from the waist; the bust as far below it as it was measured, or 2 in
//   underbust   up the front from the waist by front waist length less shoulder to underbust
// How long it is from bust point to underbust over the breast follows from both (cupDown()).
//
// A breast is as it stands in a bra, the way measures are taken. It adds to the torso's front a profile p deep: a
// quarter ellipse outwards, ending within the torso's side; a raised cosine inwards, which runs out at the centre;
// downwards a quarter of a superellipse to the underbust (exponent 1.7, between the straight line and the ellipse);
// upwards a slope, sin^1.5, that is at least as long as the breast is deep and may end above the chest line. Without a
// bra the underside is rounder (2.6) and the slope 1.4 times as long, where neither was taken. Outwards,
// upwards and downwards it follows the cup radii where they were taken (cup_out, cup_up, cup_down).
// The torso at the bust is twice what the front arc leaves behind, which is the upper bust where no arc was taken; the
// depth at the bust point is found so that the hull of torso and breasts measures the full bust, and the torso at the
// chest line so that it measures the upper bust. A bust not larger than the torso has no breasts, and the torso is as
// large as the bust.
// Profiles, exponents and the length of the slope: common practice, no source.
//
// Above the chest line the form has what a garment over the shoulders lies on: the upper chest, the shoulder blades,
// the neck, and the arms cut off level with the shoulder points. The neck point lies where the tape from it down the
// back to the waist and the tape from it to the bust point both read what was measured. From there the shoulder falls
// by 1 1/4 in, the mean of the trade's slopes; widths by the shoulder width and the neck. Depths: common practice, no
// source. Below the hip it is what a skirt hangs over, both legs together: to the knees, whose girth together is 0.23
// of the stature (legs of 0.031 of it to either side as the figure is drawn, figure_outline.h).
#pragma once

#include <string_view>
#include <vector>

#include "geometry/polygon.h"
#include "geometry/vec.h"
#include "measure/estimate.h"

namespace armure {

// How she wears the garment: in a bra or with cups that carry, the way measures are taken; or without. Then the breast
// hangs: fuller below the bust point, flatter and longer above it; girths and heights stay as they were measured.
enum class BreastShape { Supported, Unsupported };

struct FormSection {
  double halfWidth, front, back;            // of the torso; depths from the axis
  double axis;                              // z of the widest line
  double breastDepth = 0, breastX = 0;      // depth 0: no breast at this height
  double breastInner = 0, breastOuter = 0;  // half widths, towards the centre and towards the side
};

// One station of the form; the tape reads `girth` there.
struct FormLevel {
  std::string_view id;  // of the girth measure
  double y, girth;
};

class BodyForm {
 public:
  // Any body completeBody() or resolveBody() gives. Heights that contradict each other are kept apart by 20 mm.
  explicit BodyForm(const Body& body, BreastShape shape = BreastShape::Supported);

  const std::vector<FormLevel>& levels() const { return levels_; }  // upper bust, bust, underbust, ... hip
  double yOf(std::string_view girth) const;                         // std::out_of_range for an id that is no level
  double top() const { return levels_.front().y; }                  // of what is measured: the line under the arms
  double bottom() const { return levels_.back().y; }
  double highest() const { return stations_.front().y; }  // of the neck
  double lowest() const { return stations_.back().y; }    // at the knees

  // The right shoulder: from the neck point to the shoulder point, (x, y, z).
  struct Shoulder {
    Vec3 neckPoint, shoulderPoint;
  };
  const Shoulder& shoulder() const { return shoulder_; }

  FormSection section(double y) const;  // y is kept within highest() and lowest()
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
  // Over the breast from the bust point straight down to the underbust, mm.
  double cupDown() const;

 private:
  struct Station {
    double y, values[4];  // halfWidth, front, back, axis
    double slopes[4];
  };
  static double tapeOf(Polyline points);
  void findHeights(const Body& body);
  void setHeights(const Body& body, double chest, double underbust);
  void buildStations(const Body& body, double torsoAtChest);
  void findBreast(const Body& body);
  void findShoulders(const Body& body);
  void setShoulders(const Body& body, double neckY, double neckZ);
  void addLegs(const Body& body);
  void addBelowWaist();
  void findSlopes();
  double fromNeckPoint(double x, double y, bool behind) const;
  double breastWidthOutwards(const Body& body, const FormSection& torso) const;
  double depthFor(double bust, double near);
  double torsoBeside(double upperBust, double near) const;
  double roundnessBelow(const Body& body) const;
  void putBreast(FormSection& s, double y) const;
  double upperPart(double y) const;  // of the breast's depth, above the bust point
  double lowerPart(double y) const;  // below it

  std::vector<FormLevel> levels_;
  std::vector<Station> stations_;
  Shoulder shoulder_;
  double span_ = 0;
  double breastDepth_ = 0, breastInner_ = 0, breastOuter_ = 0, slope_ = 0;  // at the bust point; height of the slope
  BreastShape shape_;
  double below_ = 1.7;  // exponent of the underside
  double yChest_ = 0, yBust_ = 0, yUnderbust_ = 0;
};

}  // namespace armure
