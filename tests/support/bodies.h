// tests/support/bodies.h
//
// Bodies and orders for the tests: hand-made ones, every real one of data/bodies, and seeded random ones.
#pragma once

#include <initializer_list>
#include <string>
#include <vector>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure::testing {

// Measures in inches, as pairs of id and value.
MeasureSet inInches(const std::vector<std::pair<std::string, double>>& measures);

// A plain figure with round numbers: bust 36, upper bust 33, underbust 30, waist 28, high hip 35, hip 38; heights bust
// 10 1/2, underbust 13 1/2, waist 17 1/2, back waist 16; span 7 1/4, shoulder width 15.
MeasureSet plainFigure();
Order plainOrder();
// The plain order with these choices.
Order orderWith(std::initializer_list<std::pair<const char*, const char*>> choices);

struct RealBody {
  double upperBust, waist, highHip, hip, stature, biacromial;  // mm
  double roundShoulder, weight, chestDepth, chestBreadth;      // mm; weight in kg
};
std::vector<RealBody> realBodies();

// Draft measures of a real body with the bust `cup` mm over the upper bust.
MeasureSet measuresOf(const RealBody& body, double cup);

// The same with everything else the data set holds: shoulder width, round shoulder, weight.
MeasureSet allMeasuresOf(const RealBody& body, double cup);

// `count` orders: real bodies jittered by up to 4 %, cups of 2 to 16 cm, random strapless styles, schools and choices.
// The same seed gives the same orders.
std::vector<Order> randomOrders(size_t count, unsigned seed);

// The same with random distribution schools, top edges, hems, openings front and back, shares, and ends of the lines.
std::vector<Order> randomCombinations(size_t count, unsigned seed);

// The same orders with the bust in the princess seam: for what holds of panels alone.
std::vector<Order> withoutCups(std::vector<Order> orders);

std::string readText(const std::string& path);
std::string sourceDir();

}  // namespace armure::testing
