// core/body/figure_outline.h
//
// The figure to measure on: the form's silhouette from front, back and side, completed by head, neck, arms and legs so
// that every measure has a place, and where each measure lies on it.
//
// Trunk, shoulders and hips are the form's own, so a wrong number shows as a wrong body. The rest is drawn by
// proportion of the stature, only to be recognised: R. Drillis and R. Contini, "Body Segment Parameters", 1966 (head
// 0.13, knee 0.285, ankle 0.039 of the stature), from memory.
//
// Coordinates in mm: y down from the shoulder line, x across: for front and back as seen, from the middle of the body;
// for the side view forward, from the axis of the form.
#pragma once

#include <array>
#include <string_view>
#include <vector>

#include "body/body_form.h"

namespace armure {

enum class View { Front, Back, Side };

struct FigureOutline {
  std::vector<Polyline> behind;   // closed: arms
  Polyline body;                  // closed: from head to feet
  std::vector<Polyline> details;  // open: lines on the body
};

// Where a measure lies: a line on the front or back view. Closed girths show as their visible half.
struct MeasurePlace {
  std::string_view id;
  View view;
  Polyline line;
};

class MeasuredFigure {
 public:
  explicit MeasuredFigure(const Body& body);

  const BodyForm& form() const { return form_; }
  const FigureOutline& outline(View view) const { return outlines_[static_cast<size_t>(view)]; }
  // Weight lies nowhere. A girth has a place on both views.
  const std::vector<MeasurePlace>& places() const { return places_; }
  double top() const { return top_; }      // of the head
  double floor() const { return floor_; }  // under the feet
  double reach() const;                    // farthest x of the arms

 private:
  double shoulderX() const { return shoulder_ / 2; }
  double neckY() const { return form_.shoulder().neckPoint.y; }
  double pointY() const { return form_.shoulder().shoulderPoint.y; }
  FigureOutline makeOutline(View view) const;
  std::vector<MeasurePlace> makePlaces() const;
  Polyline trunkAndLegs() const;
  Polyline sideView() const;
  Polyline arm(double side) const;
  Vec2 armAt(double part) const;  // axis of the right arm, 0 at the shoulder, 1 at the wrist
  double legHalfWidth(double y) const;
  Polyline girthLine(double y, View view, double part = 1) const;

  BodyForm form_;
  double stature_, shoulder_, neck_, span_, armLength_, bicep_, wrist_;
  double top_, floor_, crotch_, knee_, ankle_;
  std::array<FigureOutline, 3> outlines_;  // by View
  std::vector<MeasurePlace> places_;
};

}  // namespace armure
