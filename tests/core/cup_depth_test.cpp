// How deep a cup is: tapes over known surfaces against their closed formulas, and the pattern beside the breast.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "parts/cups/depth.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;
using std::numbers::pi;

TEST_CASE("a cone takes up 2 pi (1 - a/s)") {
  // Worked by hand: base radius 6, height 8, so slant 10: 2 pi * 0.4 = 144 degrees.
  CHECK(coneIntake(6, 10) * 180 / pi == Approx(144).epsilon(1e-12));
  CHECK(coneDepth(coneIntake(6, 10), 10) == Approx(8).epsilon(1e-12));
  CHECK(coneIntake(10, 10) == Approx(0).margin(1e-12));
  // Its surface, measured with the tape.
  const HeightMap cone = [](double x, double y) { return 800 - std::hypot(x, y) * 8 / 6; };
  for (const double slant : {10.0, 35.0, 80.0}) {
    const double ring = ringLengths(cone, {slant}, 720).front();
    CHECK(2 * pi - ring / slant == Approx(coneIntake(6, 10)).epsilon(1e-4));
  }
}

// M. do Carmo, "Differential Geometry of Curves and Surfaces" (1976), section 4-6: the geodesic circle of radius r on a
// sphere of radius R is 2 pi R sin(r/R) long, the curvature inside 2 pi (1 - cos(r/R)).
TEST_CASE("rings on a spherical cap, its curvature and its volume") {
  const double R = 90;
  const HeightMap sphere = [R](double x, double y) { return std::sqrt(std::max(0.0, R * R - x * x - y * y)); };
  std::vector<double> radii;
  for (int i = 1; i <= 110; ++i) radii.push_back(i);
  const std::vector<double> rings = ringLengths(sphere, radii, 720);
  for (size_t i = 9; i < radii.size(); i += 20) {
    INFO("radius " << radii[i]);
    CHECK(rings[i] == Approx(2 * pi * R * std::sin(radii[i] / R)).epsilon(2e-4));
  }
  // Gauss-Bonnet: the curvature gathered inside is 2 pi - dL/dr, by central differences.
  for (size_t i = 20; i + 1 < radii.size(); i += 30) {
    const double gathered = 2 * pi - (rings[i + 1] - rings[i - 1]) / 2;
    CHECK(gathered == Approx(2 * pi * (1 - std::cos(radii[i] / R))).epsilon(5e-3));
  }
  // Volume of a cap of height h: pi h^2 (3R - h) / 3 (I. Bronshtein and others, "Handbook of Mathematics", 3.3.4).
  const double h = R * (1 - std::cos(radii.back() / R));
  CHECK(revolvedVolume(radii, rings) == Approx(pi * h * h * (3 * R - h) / 3).epsilon(2e-3));
}

TEST_CASE("curvature of an ellipsoid by rings agrees with its integral over the surface") {
  // z = c sqrt(1 - (x/a)^2 - (y/a)^2), round about its axis, so that tapes are geodesics. K dA integrated over the base
  // circle of radius p: for a surface of revolution 2 pi (1 - cos(slope angle at p)).
  const double a = 80, c = 50;
  const HeightMap f = [=](double x, double y) { return c * std::sqrt(std::max(0.0, 1 - (x * x + y * y) / (a * a))); };
  // The tape length to p by Simpson's rule.
  const double p = 50;
  const auto speed = [&](double t) {
    const double slope = -c * t / (a * a) / std::sqrt(1 - t * t / (a * a));
    return std::sqrt(1 + slope * slope);
  };
  double length = speed(0) + speed(p);
  for (int i = 1; i < 200; ++i) length += (i % 2 ? 4 : 2) * speed(p * i / 200);
  length *= p / 200 / 3;
  const std::vector<double> rings = ringLengths(f, {length - 1, length, length + 1}, 720);
  CHECK(rings[1] == Approx(2 * pi * p).epsilon(2e-4));
  CHECK(2 * pi - (rings[2] - rings[0]) / 2 == Approx(2 * pi * (1 - 1 / speed(p))).epsilon(1e-2));
}

TEST_CASE("the pattern is about as deep as the breast it was drafted for, on real bodies") {
  // Nothing of the form goes into the draft and nothing of the draft into the form, but both are drawn from the same
  // measures. Common practice leaves the cup within half an inch.
  const std::vector<RealBody> bodies = realBodies();
  for (size_t b = 0; b < bodies.size(); b += 7)
    for (double cup : {50.0, 95.0, 140.0}) {
      Order order;
      order.measures = measuresOf(bodies[b], cup);
      const Design d = designOf(order);
      const CupDepth depth = cupDepth(d.block, BodyForm(d.body));
      INFO("body " << b << ", cup " << cup << ", off by " << depth.difference());
      CHECK(std::abs(depth.difference()) < 12.7);
      CHECK(depth.bodyVolume > 0);
      // The breast asks for more the further out the tape reaches, until it runs out; so does the pattern, but for its
      // last inch.
      for (size_t i = 1; i < 2 * depth.stations.size() / 3; ++i)
        CHECK(depth.stations[i].bodyAngleRad > depth.stations[i - 1].bodyAngleRad - 0.02);
      CHECK(depth.stations.back().patternAngleRad > depth.stations[2].patternAngleRad);
    }
}

TEST_CASE("a larger side bust dart makes a deeper cup, and the words say which way it is off") {
  Order order = plainOrder();
  double before = -1e9;
  for (const char* dart : {"0.5 in", "1 in", "1.5 in", "2 in"}) {
    order.choices["dart.side"] = dart;
    const Design d = designOf(order);
    const double off = cupDepth(d.block, BodyForm(d.body)).difference();
    CHECK(off > before);
    before = off;
  }
  CupDepth depth;
  depth.stations = {{100, 1, 1, 40, 52.7}};
  CHECK(say(depthInWords(depth), LengthFormat{Unit::Inch, 8})
            .starts_with("1/2 in deeper than the breast at the underbust"));
  depth.stations[0].patternDepth = 27.3;
  CHECK(say(depthInWords(depth), LengthFormat{Unit::Inch, 8}).starts_with("1/2 in shallower"));
  depth.stations[0].patternDepth = 40.5;
  CHECK(depthInWords(depth) == "As deep as the breast at the underbust.");
}
