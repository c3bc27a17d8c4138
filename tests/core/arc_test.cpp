// Circles and curves given by a formula, against closed formulas and a reference library's quadrature (Boost.Math,
// gauss_kronrod); roots of growing functions.
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "geometry/arc.h"
#include "geometry/root.h"

using namespace armure;

TEST_CASE("a stretch of a circle is as long as radius times angle, and lies on the circle") {
  const Vec2 centre{30, -20};
  for (const double radius : {12.0, 150.0, 900.0})
    for (const auto& [from, to] : {std::pair{-0.2, 0.2}, {-std::numbers::pi, std::numbers::pi * 0.98}, {2.5, -1.0}}) {
      INFO(radius << " from " << from << " to " << to);
      const Path path = arc(centre, radius, from, to);
      CHECK(path.length() == Approx(radius * std::abs(to - from)).epsilon(1e-6));
      for (int i = 0; i <= 40; ++i)
        CHECK(distance(path.pointAt(path.length() * i / 40), centre) == Approx(radius).epsilon(1e-6));
      CHECK(distance(path.start(), onCircle(centre, radius, from)) < 1e-9);
      CHECK(distance(path.end(), onCircle(centre, radius, to)) < 1e-9);
    }
}

TEST_CASE("angles are measured from straight down and grow to the right") {
  CHECK(distance(onCircle({}, 10, 0), {0, 10}) < 1e-12);
  CHECK(distance(onCircle({}, 10, std::numbers::pi / 2), {10, 0}) < 1e-12);
  const Path path = arc({}, 10, 0, 0.3);
  CHECK(path.startTangent().x == Approx(1));
  CHECK(path.startTangent().y == Approx(0).margin(1e-12));
}

TEST_CASE("a spiral in cubics is as long as its formula, and meets it everywhere") {
  for (const double rise : {0.5, 11.0, 40.0}) {
    const double first = 25, turn = 3.5 * std::numbers::pi;
    const auto spiral = [&](double phi) {
      const double r = first + rise * phi;
      const Vec2 away{std::sin(phi), std::cos(phi)};
      return CurvePoint{r * away, rise * away + r * Vec2{away.y, -away.x}};
    };
    const Path path = curve(spiral, 0, turn);
    const double length = boost::math::quadrature::gauss_kronrod<double, 31>::integrate(
        [&](double phi) { return std::hypot(first + rise * phi, rise); }, 0.0, turn, 15, 1e-12);
    INFO(rise);
    CHECK(path.length() == Approx(length).epsilon(2e-6));
    // Backwards it is the same line.
    const Path back = curve(spiral, turn, 0);
    CHECK(back.length() == Approx(path.length()).epsilon(1e-9));
    CHECK(distance(back.start(), path.end()) < 1e-9);
    for (const Cubic& c : path.cubics()) {
      const Vec2 middle = c.at(0.5);
      const double phi = std::fmod(std::atan2(middle.x, middle.y) + 2 * std::numbers::pi, 2 * std::numbers::pi);
      const double turns = std::round(((norm(middle) - first) / rise - phi) / (2 * std::numbers::pi));
      CHECK(norm(middle) == Approx(first + rise * (phi + 2 * std::numbers::pi * turns)).epsilon(1e-5));
    }
  }
}

TEST_CASE("where a growing function is nothing; at an end where it is nowhere") {
  CHECK(growingRoot([](double x) { return x * x * x - 2; }, 0, 2) == Approx(std::cbrt(2.0)).epsilon(1e-14));
  CHECK(growingRoot([](double x) { return x - 10; }, 0, 2) == Approx(2));
  CHECK(growingRoot([](double x) { return x + 10; }, 0, 2) == Approx(0).margin(1e-12));
  int asked = 0;
  growingRoot([&](double x) { return ++asked, std::exp(x) - 3; }, 0, 5);
  CHECK(asked < 100);
}
