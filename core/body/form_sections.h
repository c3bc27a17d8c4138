// core/body/form_sections.h
//
// The level section of a body form as a curve: the torso, two half superellipses, and the breasts on it. Only the form
// uses them (body_form.h has the formulas and their sources).
#pragma once

#include <algorithm>
#include <cmath>
#include <string_view>

#include "body/body_form.h"

namespace armure {

inline constexpr double kLevelsApart = 20;        // mm between two levels
inline constexpr double kChestFrontShare = 0.48;  // of the depth at the chest line, before the widest line
inline constexpr int kBreastSamples = 60;

// Depth to width at the chest line, by the upper bust.
double chestRatio(double upperBust);

// The torso's ring, not closed.
Polyline torsoPoints(const FormSection& s);
// How deep half the torso is at x, of its depth in the middle.
double depthAt(const FormSection& s, double x);
// z of the torso's front at x.
double torsoFront(const FormSection& s, double x);
// Half width and depths of the section with this girth.
FormSection sectionOfGirth(double girth, double ratio, double frontShare);

// How deep the breast is beside its bust point, in parts of its depth there: at its inner end for -1, its outer for 1.
double breastProfile(double u);
// A point of the breast's outline, from its outer (0) to its inner end (pi).
Vec2 breastPoint(const FormSection& s, double angle);
// The outlines of both, in no order.
void appendBreasts(const FormSection& s, Polyline& points);

// Nothing where it is estimated.
const Fact* takenFact(const Body& body, std::string_view id);

// Where a function that grows is nothing, by the regula falsi of Illinois; `least` where it is more there already.
template <typename Function>
double rootOfGrowing(const Function& f, double near, double step, double least, double most) {
  constexpr double kSmall = 1e-3;  // of the function, mm
  double low = std::max(least, near - step), fLow = f(low), high = low, fHigh = fLow;
  while (fLow > 0) {
    if (low <= least) return least;
    high = low;
    fHigh = fLow;
    low = std::max(least, low - (step *= 2));
    fLow = f(low);
  }
  while (fHigh <= 0) {
    if (high >= most) return most;
    low = high;
    fLow = fHigh;
    high = std::min(most, high + (step *= 2));
    fHigh = f(high);
  }
  for (int i = 0; i < 60; ++i) {
    const double middle = (low * fHigh - high * fLow) / (fHigh - fLow), here = f(middle);
    if (std::abs(here) < kSmall) return middle;
    if (here < 0) {
      low = middle;
      fLow = here;
      fHigh /= 2;
    } else {
      high = middle;
      fHigh = here;
      fLow /= 2;
    }
  }
  return low;
}

}  // namespace armure
