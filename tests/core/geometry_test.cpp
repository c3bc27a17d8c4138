// Curves, motions and outlines, against reference libraries: Boost.Math (quadrature), Eigen (rotation), Boost.Geometry
// (area, offset).
#include <Eigen/Geometry>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/linestring.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "geometry/comb.h"
#include "geometry/path.h"
#include "geometry/polygon.h"
#include "geometry/spline.h"

using namespace armure;

namespace {

namespace bg = boost::geometry;
using BoostPolygon = bg::model::polygon<bg::model::d2::point_xy<double>, false, false>;

std::mt19937 generator(unsigned seed) { return std::mt19937(seed); }
double between(std::mt19937& r, double a, double b) { return a + (b - a) * static_cast<double>(r()) / 4294967295.0; }
Vec2 point(std::mt19937& r) { return {between(r, -200, 200), between(r, -200, 200)}; }
Cubic cubic(std::mt19937& r) { return {point(r), point(r), point(r), point(r)}; }

double referenceLength(const Cubic& c) {
  // Boost.Math, adaptive Gauss-Kronrod of 61 points.
  return boost::math::quadrature::gauss_kronrod<double, 61>::integrate([&](double t) { return norm(c.derivative(t)); },
                                                                       0.0, 1.0, 15, 1e-13);
}

BoostPolygon toBoost(const Polyline& ring) {
  BoostPolygon p;
  for (Vec2 v : ring) bg::append(p.outer(), bg::model::d2::point_xy<double>(v.x, v.y));
  bg::correct(p);
  return p;
}

// A clockwise (y down) outline like a panel: four edges, two of them curved.
std::vector<AllowanceEdge> panel(double allowance) {
  const Path right(Cubic{{100, 0}, {60, 80}, {60, 160}, {90, 300}}),
      left(Cubic{{0, 300}, {30, 200}, {30, 100}, {0, 0}});
  return {{{{0, 0}, {100, 0}}, allowance, false},
          {right.flattened(0.005), allowance, false},
          {{{90, 300}, {0, 300}}, allowance, false},
          {left.flattened(0.005), allowance, false}};
}

Polyline ringOf(const std::vector<AllowanceEdge>& edges) {
  Polyline ring;
  for (const AllowanceEdge& e : edges) ring.insert(ring.end(), e.points.begin(), e.points.end() - 1);
  return ring;
}

}  // namespace

TEST_CASE("a walk along a path comes by the same places as asking for each") {
  std::mt19937 r = generator(11);
  for (int round = 0; round < 50; ++round) {
    std::vector<Cubic> cubics{cubic(r)};
    for (int k = 0; k < 3; ++k) {
      const Vec2 from = cubics.back().p3;
      cubics.push_back(k == 1 ? Cubic::line(from, point(r)) : Cubic{from, point(r), point(r), point(r)});
    }
    const Path path(cubics);
    const double apart = between(r, 0.3, 40);
    const std::vector<Path::Place> places = path.placesEvery(apart);
    REQUIRE(places.size() == static_cast<size_t>(path.length() / apart) + 1);
    for (size_t i = 0; i < places.size(); ++i) {
      const double s = static_cast<double>(i) * apart;
      CHECK(distance(places[i].at, path.pointAt(s)) < 1e-7);
      CHECK(std::abs(cross(places[i].tangent, path.tangentAt(s))) < 1e-6);
    }
  }
  const std::vector<Path::Place> whole = Path::line({0, 0}, {10, 0}).placesEvery(2.5);
  REQUIRE(whole.size() == 5);
  CHECK(distance(whole.back().at, {10, 0}) < 1e-9);
}

TEST_CASE("arc length equals an independent quadrature to 1e-6 mm") {
  auto r = generator(1);
  for (int i = 0; i < 400; ++i) {
    const Cubic c = cubic(r);
    REQUIRE(c.length() == Approx(referenceLength(c)).margin(1e-6));
  }
}

TEST_CASE("arc length of known curves") {
  CHECK(Cubic::line({0, 0}, {3, 4}).length() == Approx(5).margin(1e-12));
  // A cusp: the curve runs out and back over the same line; 2 * 3/8 of the handle's reach by hand: x(t) = 3 t (1-t) a.
  const Cubic back{{0, 0}, {100, 0}, {100, 0}, {0, 0}};
  CHECK(back.length() == Approx(2 * 75).margin(1e-6));
}

TEST_CASE("a point at a length stands at that length") {
  auto r = generator(2);
  for (int i = 0; i < 100; ++i) {
    const Path path(std::vector<Cubic>{cubic(r)});
    const double total = path.length();
    for (double part : {0.0, 0.2, 0.5, 0.99, 1.0}) {
      const double t = path.cubics()[0].parameterAtLength(part * total);
      CHECK(path.cubics()[0].lengthTo(t) == Approx(part * total).margin(1e-8));
    }
    const Path middle = path.sub(0.25 * total, 0.75 * total);
    CHECK(middle.length() == Approx(total / 2).margin(1e-7));
    CHECK(distance(middle.start(), path.pointAt(0.25 * total)) < 1e-7);
  }
}

TEST_CASE("rotation equals Eigen's and keeps every length and angle") {
  auto r = generator(3);
  for (int i = 0; i < 200; ++i) {
    const Vec2 pivot = point(r), p = point(r), q = point(r);
    const double angle = between(r, -3, 3);
    const Motion m = Motion::rotationAbout(pivot, angle);
    const Eigen::Vector2d reference = Eigen::Translation2d(pivot.x, pivot.y) * Eigen::Rotation2Dd(angle) *
                                      Eigen::Translation2d(-pivot.x, -pivot.y) * Eigen::Vector2d(p.x, p.y);
    CHECK(distance(m.apply(p), {reference.x(), reference.y()}) < 1e-9);
    CHECK(distance(m.apply(p), m.apply(q)) == Approx(distance(p, q)).margin(1e-9));
    CHECK(distance(m.apply(pivot), pivot) < 1e-9);
  }
}

TEST_CASE("motions compose in the order they are given, mirrored ones too") {
  auto r = generator(4);
  for (int i = 0; i < 100; ++i) {
    const Motion a = i % 2 ? Motion::mirrorX() : Motion::rotationAbout(point(r), 0.3 * i);
    const Motion b =
        i % 3 ? Motion::mirrorX().then(Motion::translation(point(r))) : Motion::rotationAbout(point(r), 1.1);
    const Vec2 p = point(r);
    CHECK(distance(a.then(b).apply(p), b.apply(a.apply(p))) < 1e-9);
  }
}

TEST_CASE("crossings lie on the curve and on the line, and none is missed") {
  auto r = generator(5);
  for (int i = 0; i < 300; ++i) {
    const Cubic c = cubic(r);
    const Vec2 p = point(r), d = unit(point(r));
    const auto found = c.crossings(p, d);
    for (double t : found) CHECK(std::abs(cross(d, c.at(t) - p)) < 1e-8);
    int changes = 0;
    double before = cross(d, c.at(0) - p);
    for (int k = 1; k <= 2000; ++k) {
      const double now = cross(d, c.at(k / 2000.0) - p);
      if ((now > 0) != (before > 0)) ++changes;
      before = now;
    }
    CHECK(static_cast<int>(found.size()) >= changes);
  }
}

TEST_CASE("a flattened curve stays within its tolerance") {
  auto r = generator(6);
  for (int i = 0; i < 50; ++i) {
    const Path path(cubic(r));
    const Polyline line = path.flattened(0.02);
    for (int k = 0; k <= 100; ++k) CHECK(distanceToPolyline(path.cubics()[0].at(k / 100.0), line) <= 0.02);
  }
}

TEST_CASE("a monotone line never swings past its stations") {
  auto r = generator(7);
  for (int i = 0; i < 200; ++i) {
    std::vector<Station> s{{0, between(r, 0, 200)}};
    for (int k = 1; k < 6; ++k) s.push_back({s.back().y + between(r, 10, 120), between(r, 0, 200)});
    const Path path = monotonePath(s);
    for (size_t k = 0; k + 1 < s.size(); ++k) {
      const double low = std::min(s[k].x, s[k + 1].x), high = std::max(s[k].x, s[k + 1].x);
      for (int n = 0; n <= 20; ++n) {
        const Vec2 p = path.cubics()[k].at(n / 20.0);
        CHECK(p.x >= low - 1e-9);
        CHECK(p.x <= high + 1e-9);
      }
      CHECK(path.xAtDepth(s[k].y) == Approx(s[k].x).margin(1e-9));
    }
  }
}

TEST_CASE("stations that do not descend are a programmer's mistake") {
  CHECK_THROWS_AS(monotonePath({{0, 1}, {0, 2}}), std::invalid_argument);
  CHECK_THROWS_AS(monotonePath({{0, 1}}), std::invalid_argument);
  CHECK_THROWS_AS(Path(std::vector<Cubic>{Cubic::line({0, 0}, {1, 0}), Cubic::line({2, 0}, {3, 0})}),
                  std::invalid_argument);
}

TEST_CASE("the tightest radius of a quarter circle is its radius") {
  const double k = 0.5522847498;  // the usual cubic quarter circle; radial error below 0.03 %
  const Path quarter(Cubic{{100, 0}, {100, 100 * k}, {100 * k, 100}, {0, 100}});
  CHECK(quarter.tightestRadius() == Approx(100).epsilon(0.02));
  CHECK(quarter.length() == Approx(50 * std::numbers::pi).epsilon(0.0003));
  CHECK(quarter.inflections() == 0);
  CHECK(Path(Cubic{{0, 0}, {0, 50}, {100, 50}, {100, 100}}).inflections() == 1);
}

TEST_CASE("area equals Boost.Geometry's") {
  auto r = generator(8);
  for (int i = 0; i < 100; ++i) {
    Polyline ring;  // star-shaped, so simple
    for (int k = 0; k < 24; ++k)
      ring.push_back(between(r, 50, 150) *
                     Vec2{std::cos(k * std::numbers::pi / 12), std::sin(k * std::numbers::pi / 12)});
    CHECK(std::abs(signedArea(ring)) == Approx(bg::area(toBoost(ring))).epsilon(1e-12));
    CHECK(isSimple(ring));
    CHECK(isSimple(ring) == bg::is_simple(toBoost(ring)));
  }
  CHECK_FALSE(isSimple({{0, 0}, {10, 10}, {10, 0}, {0, 10}}));
  CHECK(signedArea({{0, 0}, {10, 0}, {10, 10}, {0, 10}}) == Approx(100));  // clockwise as seen
}

TEST_CASE("an even allowance equals Boost.Geometry's offset") {
  for (double allowance : {6.35, 12.7, 25.4}) {
    const auto edges = panel(allowance);
    bg::model::multi_polygon<BoostPolygon> reference;
    bg::buffer(toBoost(ringOf(edges)), reference, bg::strategy::buffer::distance_symmetric<double>(allowance),
               bg::strategy::buffer::side_straight(), bg::strategy::buffer::join_miter(2.5),
               bg::strategy::buffer::end_flat(), bg::strategy::buffer::point_circle(36));
    const BoostPolygon ours = toBoost(cutOutline(edges));
    bg::model::multi_polygon<BoostPolygon> difference;
    bg::sym_difference(ours, reference.front(), difference);
    CHECK(bg::area(difference) < 0.0005 * bg::area(ours));
  }
}

TEST_CASE("every edge gets its own allowance and nothing lies beyond a fold") {
  auto edges = panel(12.7);
  edges[1].allowance = 25.4;
  edges[2].allowance = 38.1;
  edges[3] = {{{0, 300}, {0, 0}}, 0, true};
  const Polyline cut = cutOutline(edges);
  Polyline ring = cut;
  ring.push_back(ring.front());
  for (const AllowanceEdge& e : edges) {
    const size_t n = e.points.size() / 2;
    CHECK(distanceToPolyline(lerp(e.points[n - 1], e.points[n], 0.5), ring) == Approx(e.allowance).margin(0.05));
  }
  for (Vec2 p : cut) CHECK(p.x >= -1e-4);
  CHECK(isSimple(cut));
}

TEST_CASE("outlines that do not close or run the wrong way are refused") {
  auto open = panel(10);
  open.pop_back();
  CHECK_THROWS_AS(cutOutline(open), std::invalid_argument);
  CHECK_THROWS_AS(
      cutOutline({{{{0, 0}, {0, 10}}, 1, false}, {{{0, 10}, {10, 10}}, 1, false}, {{{10, 10}, {0, 0}}, 1, false}}),
      std::invalid_argument);
}

TEST_CASE("the comb of a circle is a larger circle, that of a line has no teeth, and a wiggle changes sides") {
  // A quarter circle as a cubic (handles of 0.5522847, from memory; good to 0.03 % of the radius).
  const double r = 100, h = 0.5522847498 * r;
  const Path quarter(Cubic{{r, 0}, {r, h}, {h, r}, {0, r}});
  for (const CombTooth& t : curvatureComb(quarter, 1500)) {
    CHECK(distance(t.foot, t.tip) == Approx(1500 / r).epsilon(0.03));
    CHECK(norm(t.tip) > norm(t.foot));  // outside the bend
  }
  for (const CombTooth& t : curvatureComb(Path::line({0, 0}, {30, 40}))) CHECK(distance(t.foot, t.tip) < 1e-9);
  const Path wiggle(Cubic{{0, 0}, {60, 40}, {-60, 60}, {0, 100}});
  int left = 0, right = 0;
  for (const CombTooth& t : curvatureComb(wiggle)) (t.tip.x < t.foot.x ? left : right) += distance(t.foot, t.tip) > 0.1;
  CHECK(left > 2);
  CHECK(right > 2);
  for (const CombTooth& t : curvatureComb(quarter, 1e6, 40)) CHECK(distance(t.foot, t.tip) <= 40 + 1e-9);
}

TEST_CASE("a path knows its length after being moved, turned over, cut and joined") {
  const Path p(
      std::vector<Cubic>{Cubic{{0, 0}, {10, 30}, {-20, 60}, {5, 90}}, Cubic{{5, 90}, {30, 120}, {40, 150}, {20, 200}}});
  const auto measured = [](const Path& q) {
    double sum = 0;
    for (const Cubic& c : q.cubics()) sum += c.length();
    return sum;
  };
  const double whole = measured(p);
  CHECK(p.length() == Approx(whole).margin(1e-9));
  CHECK(p.reversed().length() == Approx(whole).margin(1e-9));
  CHECK(p.transformed(Motion::rotationAbout({3, 4}, 0.7)).length() == Approx(whole).margin(1e-9));
  for (double from : {0.0, 20.0, 95.0, 140.0}) {
    const Path part = p.sub(from, from + 60);
    CHECK(part.length() == Approx(measured(part)).margin(1e-7));
    CHECK(part.length() == Approx(std::min(60.0, whole - from)).margin(1e-7));
  }
  const Path joined = p.sub(0, 50) + p.sub(50, whole);
  CHECK(joined.length() == Approx(measured(joined)).margin(1e-7));
  CHECK_THROWS_AS(p + p, std::invalid_argument);
}

TEST_CASE("where two paths meet is found, wherever it is") {
  std::mt19937 random(11);
  const auto at = [&] {
    return Vec2{static_cast<double>(random() % 2000) / 10, static_cast<double>(random() % 2000) / 10};
  };
  int crossings = 0;
  for (int round = 0; round < 60; ++round) {
    const Path a(Cubic{at(), at(), at(), at()}), b(Cubic{at(), at(), at(), at()});
    const auto met = a.meetings(b);
    for (const auto& [s, t] : met) CHECK(distance(a.pointAt(s), b.pointAt(t)) < 1e-6);
    // Against Boost.Geometry on fine polylines: every crossing of theirs is one of ours.
    using Point = bg::model::d2::point_xy<double>;
    bg::model::linestring<Point> la, lb;
    for (Vec2 p : a.flattened(1e-4)) la.push_back({p.x, p.y});
    for (Vec2 p : b.flattened(1e-4)) lb.push_back({p.x, p.y});
    std::vector<Point> theirs;
    bg::intersection(la, lb, theirs);
    for (const Point& p : theirs) {
      double nearest = 1e9;
      for (const auto& m : met) nearest = std::min(nearest, distance(a.pointAt(m.first), {p.x(), p.y()}));
      INFO("round " << round << ", " << p.x() << " " << p.y());
      CHECK(nearest < 0.05);
    }
    crossings += static_cast<int>(theirs.size());
  }
  CHECK(crossings > 30);
  CHECK(Path::line({0, 0}, {10, 0}).meetings(Path::line({0, 5}, {10, 5})).empty());
}
