// How far paths lie from each other, against figures whose distance is known.
#include "geometry/path_distance.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// A quarter of a circle about the origin as one cubic; it strays by 2.7e-4 of the radius (a well-known bound).
Path quarter(double radius) {
  const double k = 4.0 / 3 * (std::numbers::sqrt2 - 1) * radius;
  return Path(Cubic{{radius, 0}, {radius, k}, {k, radius}, {0, radius}});
}

}  // namespace

TEST_CASE("between two parallel lines it is the same everywhere, and says which way") {
  const Path a = Path::line({0, 0}, {100, 0}), b = Path::line({0, 7}, {100, 7});
  const Farthest f = farthestFrom(a, b);
  CHECK(f.distance == Approx(7));
  CHECK(f.by.y == Approx(-7));  // from the other path to this one
  CHECK(f.by.x == Approx(0).margin(1e-9));
  CHECK(farthestFrom(a, a).distance == Approx(0).margin(1e-9));
}

TEST_CASE("between two quarter circles it is the difference of their radii") {
  CHECK(farthestFrom(quarter(100), quarter(94)).distance == Approx(6).margin(0.05));
  CHECK(farthestFrom(quarter(94), quarter(100)).distance == Approx(6).margin(0.05));
}

TEST_CASE("of a bow over its chord it is the bow's rise") {
  // A parabola y = 4 h x (L - x) / L^2 is the cubic with these handles.
  const double length = 120, rise = 9;
  const Path bow(Cubic{{0, 0}, {length / 3, rise * 4 / 3}, {length * 2 / 3, rise * 4 / 3}, {length, 0}});
  const Farthest f = farthestFrom(bow, Path::line({0, 0}, {length, 0}));
  CHECK(f.distance == Approx(rise).margin(0.01));
  CHECK(f.at.x == Approx(length / 2).margin(3));
  CHECK(f.by.y == Approx(rise).margin(0.01));
}

TEST_CASE("a longer line is as far as its free end, the shorter one not at all") {
  const Path shorter = Path::line({0, 0}, {60, 0}), longer = Path::line({0, 0}, {100, 0});
  CHECK(farthestFrom(longer, shorter).distance == Approx(40));
  CHECK(farthestFrom(shorter, longer).distance == Approx(0).margin(1e-9));
}

TEST_CASE("the farthest is found as by looking at every segment") {
  Dice dice(5);
  for (int n = 0; n < 40; ++n) {
    const auto place = [&] { return Vec2{dice.between(0, 200), dice.between(0, 200)}; };
    const auto random = [&] { return Path(Cubic{place(), place(), place(), place()}); };
    const Path a = random(), b = random();
    const auto line = b.flattened(0.005);
    double most = 0;
    for (const Vec2 p : evenPoints(a, 25)) {
      double least = HUGE_VAL;
      for (size_t i = 0; i + 1 < line.size(); ++i) {
        const Vec2 d = line[i + 1] - line[i];
        const double t = std::clamp(dot(p - line[i], d) / std::max(dot(d, d), 1e-18), 0.0, 1.0);
        least = std::min(least, distance(p, line[i] + t * d));
      }
      most = std::max(most, least);
    }
    CHECK(farthestFrom(a, b).distance == Approx(most).margin(1e-9));
  }
}

TEST_CASE("points at equal parts of a path's length lie on it, ends included") {
  const Path p = quarter(80) + Path::line({0, 80}, {-40, 80});
  const std::vector<Vec2> points = evenPoints(p, 9);
  REQUIRE(points.size() == 9);
  CHECK(distance(points.front(), p.start()) < 1e-9);
  CHECK(distance(points.back(), p.end()) < 1e-9);
  for (size_t i = 0; i < points.size(); ++i)
    CHECK(distance(points[i], p.pointAt(p.length() * static_cast<double>(i) / 8)) < 0.02);
}

TEST_CASE("the foot of a perpendicular is the nearest place near by, over joints and at the ends") {
  // An S of two bends, and a straight line beyond.
  const Path path = Path(std::vector<Cubic>{{{0, 0}, {0, 60}, {80, 40}, {80, 100}},
                                            {{80, 100}, {80, 160}, {0, 140}, {0, 200}},
                                            Cubic::line({0, 200}, {0, 300})});
  const double length = path.length();
  for (double at = 3; at < length; at += 17) {
    const Vec2 on = path.pointAt(at), along = path.tangentAt(at), off = 6 * Vec2{-along.y, along.x};
    for (const double near : {at - 10, at, at + 10}) {
      INFO(at << " from " << near);
      const Path::Foot foot = path.footNear(on + off, near);
      CHECK(foot.at == Approx(at).margin(1e-6));
      CHECK(foot.distance == Approx(6).margin(1e-6));
    }
  }
  CHECK(path.footNear({0, -5}, 4).at == Approx(0).margin(1e-9));
  CHECK(path.footNear({0, -5}, 4).distance == Approx(5));
  CHECK(path.footNear({3, 320}, length - 2).at == Approx(length));
}
