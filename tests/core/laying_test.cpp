// Laying outlines on a strip: regions in which they cannot lie beside each other, layouts that are known to be the
// shortest, what is locked, remnants.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "laying/convolution.h"
#include "laying/search.h"
#include "laying/wrapped.h"

using namespace armure;

namespace {

Polyline rectangle(double width, double height) { return {{0, 0}, {width, 0}, {width, height}, {0, height}}; }
Polyline moved(Polyline ring, Vec2 by) {
  for (Vec2& p : ring) p = p + by;
  return ring;
}

// A star of random radii: simple, with hollows.
Polyline star(std::mt19937& random, size_t corners) {
  std::uniform_real_distribution<double> radius(20, 100);
  Polyline ring;
  for (size_t i = 0; i < corners; ++i) {
    const double angle = 2 * std::numbers::pi * static_cast<double>(i) / static_cast<double>(corners);
    ring.push_back(radius(random) * Vec2{std::cos(angle), std::sin(angle)});
  }
  return ring;
}

const std::vector<Turn> kUpright{{0, false}};
const std::vector<Turn> kEitherWay{{0, false}, {std::numbers::pi, false}};

StripProblem strip(double width, const std::vector<std::pair<Polyline, int>>& outlines,
                   const std::vector<Turn>& turns) {
  StripProblem problem;
  problem.width = width;
  for (const auto& [outline, count] : outlines) {
    for (int i = 0; i < count; ++i) problem.items.push_back({problem.outlines.size(), turns, false, std::nullopt});
    problem.outlines.push_back(outline);
  }
  return problem;
}

StripLayout laid(const StripProblem& problem, int rounds) {
  LayingSearch search(problem);
  for (int i = 0; i < rounds && !search.isShortest(); ++i) search.step();
  CHECK(worstOverlap(problem, search.best()) < 0.1);
  return search.best();
}

}  // namespace

TEST_CASE("the Minkowski sum of two convex outlines has their areas and their mixed area") {
  // |P (+) Q| = |P| + |Q| + 2 V(P, Q); of a rectangle a x b and one c x d: (a + c)(b + d) (H. Minkowski; the
  // Brunn-Minkowski theory as in R. Schneider, "Convex Bodies").
  const std::vector<Polyline> sum = minkowskiSum(rectangle(30, 20), rectangle(7, 5));
  REQUIRE(sum.size() == 1);
  CHECK(signedArea(sum[0]) == Approx(37 * 25));
  // Of a regular polygon with many corners and radius r, and a rectangle: r round it.
  Polyline disc;
  for (int i = 0; i < 360; ++i) disc.push_back(rotated({10, 0}, 2 * std::numbers::pi * i / 360));
  const double sides = 2 * 360 * 10 * std::sin(std::numbers::pi / 360);  // its circumference
  const double area = signedArea(minkowskiSum(disc, rectangle(30, 20))[0]);
  CHECK(area == Approx(600 + std::abs(signedArea(disc)) + 2 * 10 * (30 + 20)).epsilon(1e-4));
  CHECK(sides == Approx(2 * std::numbers::pi * 10).epsilon(1e-3));
}

TEST_CASE("outlines lie over each other just where the no-fit region says") {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> shift(-220, 220);
  int over = 0, clear = 0;
  for (int round = 0; round < 60; ++round) {
    const Polyline a = star(random, 5 + round % 9), b = star(random, 4 + round % 7);
    const NoFit region(a, b, 0);
    for (int i = 0; i < 20; ++i) {
      const Vec2 by{shift(random), shift(random)};
      const double shared = sharedArea(a, moved(b, by)), depth = region.depth(by);  // Clipper's intersection
      INFO("shared " << shared << " depth " << depth);
      if (depth == 0) CHECK(shared < 0.05);
      if (depth > 0.01) CHECK(shared > 0);
      (depth > 0 ? over : clear)++;
    }
  }
  CHECK(over > 200);
  CHECK(clear > 200);
}

TEST_CASE("sides that are parallel but for rounding are parallel") {
  // Turned by quarters, sines and cosines are off by 1e-16: rectangles and a gnomon against each other.
  const std::vector<Polyline> outlines{
      rectangle(40, 90), rectangle(45, 20), {{0, 0}, {60, 0}, {60, 20}, {25, 20}, {25, 70}, {0, 70}}};
  std::mt19937 random(13);
  std::uniform_real_distribution<double> shift(-130, 130);
  for (const Polyline& a : outlines)
    for (const Polyline& b : outlines)
      for (int quarters = 0; quarters < 16; ++quarters) {
        Polyline first, second;
        for (const Vec2 p : a) first.push_back(rotated(p, quarters % 4 * std::numbers::pi / 2));
        for (const Vec2 p : b) second.push_back(rotated(p, quarters / 4 * std::numbers::pi / 2));
        const NoFit region(first, second, 0);
        for (int i = 0; i < 12; ++i) {
          const Vec2 by{shift(random), shift(random)};
          const bool over = sharedArea(first, moved(second, by)) > 0.05;
          CHECK((region.depth(by) > 0) == over);
        }
      }
}

TEST_CASE("stretches along a line are those where two outlines lie over each other") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> shift(-150, 150);
  for (int round = 0; round < 40; ++round) {
    const NoFit region(star(random, 7), star(random, 6), 0);
    for (const Axis axis : {Axis::X, Axis::Y}) {
      const double other = shift(random);
      std::vector<Interval> stretches;
      region.along(axis, other, stretches);
      for (double at = -250; at <= 250; at += 1.7) {
        const double depth = region.depth(axis == Axis::X ? Vec2{at, other} : Vec2{other, at});
        const bool within = std::ranges::any_of(stretches, [&](const Interval& s) { return at > s.from && at < s.to; });
        if (depth > 1e-3) CHECK(within);
        if (!within) CHECK(depth <= 1e-3);
      }
    }
  }
}

TEST_CASE("rectangles that touch do not lie over each other") {
  const NoFit region(rectangle(10, 10), rectangle(4, 6), 0);
  CHECK(region.depth({10, 0}) == 0);
  CHECK(region.depth({10, 3}) == 0);
  CHECK(region.depth({-4, -6}) == 0);
  CHECK(region.depth({9.5, 3}) == Approx(0.5));
  for (const double side : {-6.0, 10.0}) {
    std::vector<Interval> stretches;
    region.along(Axis::X, side, stretches);
    CHECK(stretches.empty());
  }
}

TEST_CASE("an outline in its wrapping lies within it, and it within twice the tolerance") {
  std::mt19937 random(3);
  for (const double tolerance : {0.1, 0.5}) {
    Polyline ring;
    const double waist = std::uniform_real_distribution<double>(20, 50)(random);
    for (int i = 0; i < 400; ++i) {
      const double t = 2 * std::numbers::pi * i / 400;
      ring.push_back({(100 - waist * std::pow(std::sin(t), 2)) * std::cos(t), 220 * std::sin(t)});
    }
    const Polyline round = wrapped(ring, tolerance);
    CHECK(round.size() < ring.size() / 3);
    CHECK(sharedArea(round, ring) == Approx(std::abs(signedArea(ring))).epsilon(1e-7));
    for (const Vec2 p : round) CHECK(distanceToPolyline(p, ring) < 3 * 2 * tolerance);
  }
  CHECK(wrapped(rectangle(40, 30), 0.5) == rectangle(40, 30));
  CHECK_THROWS_AS(wrapped({{0, 0}, {1, 0}, {2, 0}}, 0.5), std::invalid_argument);
}

TEST_CASE("rectangles that fill a strip are laid without waste") {
  // Two of 60 x 100 and three of 40 x 50 (a half each of what is left): 100 wide, 120 + 60 long.
  const StripProblem problem = strip(100, {{rectangle(60, 100), 2}, {rectangle(30, 50), 4}}, kUpright);
  const StripLayout layout = laid(problem, 300);
  CHECK(layout.length == Approx(180).margin(0.01));
  CHECK(utilisation(problem, layout) == Approx(1).margin(1e-4));
}

TEST_CASE("a puzzle of five rectangles is put together") {
  // 100 x 120, cut up as a windmill: 70 x 40, 30 x 80, 70 x 40, 30 x 80 round 40 x 40.
  const StripProblem problem =
      strip(100, {{rectangle(80, 30), 2}, {rectangle(40, 70), 2}, {rectangle(40, 40), 1}}, kUpright);
  CHECK(laid(problem, 2000).length == Approx(120).margin(0.01));
}

TEST_CASE("right triangles are laid in pairs") {
  const Polyline triangle{{0, 0}, {90, 0}, {0, 60}};
  const StripProblem problem = strip(60, {{triangle, 6}}, kEitherWay);
  CHECK(laid(problem, 1000).length == Approx(3 * 90).margin(0.05));
  // Where they must not be turned round the hypotenuses lie against nothing.
  const StripProblem oneWay = strip(60, {{triangle, 2}}, kUpright);
  CHECK(laid(oneWay, 100).length > 130);
}

TEST_CASE("a layout is the same for the same seed, and never longer than the one before") {
  std::mt19937 random(5);
  StripProblem problem;
  problem.width = 400;
  for (size_t i = 0; i < 14; ++i) {
    problem.outlines.push_back(star(random, 8));
    problem.items.push_back({i, kEitherWay, false, std::nullopt});
  }
  LayingSearch first(problem, 3), second(problem, 3);
  double length = first.best().length;
  for (int i = 0; i < 40; ++i) {
    first.step();
    second.step();
    CHECK(first.best().length <= length);
    length = first.best().length;
  }
  REQUIRE(first.best().length == second.best().length);
  CHECK(length < LayingSearch(problem, 3).best().length);
  CHECK(length >= shortestLength(problem));
  CHECK(worstOverlap(problem, first.best()) < 0.1);
}

TEST_CASE("what is locked stays, and nothing lies over it") {
  StripProblem problem = strip(100, {{rectangle(50, 60), 3}}, kUpright);
  problem.items[2].locked = LaidItem{0, {120, 20}};
  const StripLayout layout = laid(problem, 50);
  CHECK(layout.items[2].at == Vec2{120, 20});
  CHECK(layout.length == Approx(170).margin(0.01));
}

TEST_CASE("an outline is not laid in a turn in which it is wider than the strip") {
  const StripProblem problem =
      strip(50, {{rectangle(40, 90), 3}, {rectangle(45, 20), 2}}, {{0, false}, {std::numbers::pi / 2, false}});
  const StripLayout layout = laid(problem, 60);
  for (size_t i = 0; i < 3; ++i) CHECK(layout.items[i].turn == 1);
  CHECK(layout.length < 3 * 90 + 45.1);
}

TEST_CASE("room is kept between outlines") {
  StripProblem problem = strip(100, {{rectangle(50, 100), 3}}, kUpright);
  problem.gap = 5;
  CHECK(laid(problem, 20).length == Approx(160).margin(0.01));
}

TEST_CASE("an outline is laid at the edge where it belongs to the fold") {
  StripProblem problem = strip(100, {{rectangle(50, 40), 3}}, kUpright);
  problem.items[0].atEdge = problem.items[1].atEdge = true;
  const StripLayout layout = laid(problem, 20);
  CHECK(layout.items[0].at.y == Approx(60));
  CHECK(layout.items[1].at.y == Approx(60));
  CHECK(layout.length == Approx(100).margin(0.01));
}

TEST_CASE("on a remnant nothing lies where there is no cloth") {
  // An L: 200 long at the near edge, only 80 long beyond 50 across.
  StripProblem problem = strip(100, {{rectangle(60, 45), 4}}, kUpright);
  problem.within = {{0, 0}, {200, 0}, {200, 50}, {80, 50}, {80, 100}, {0, 100}};
  const StripLayout layout = laid(problem, 200);
  CHECK(layout.length <= 200);
  CHECK(outsideOf(problem.within, {{0, 0}, {200, 100}}).size() == 1);
}

TEST_CASE("what is wider than the strip is told, and not laid") {
  const StripProblem problem = strip(50, {{rectangle(80, 40), 1}, {rectangle(20, 60), 1}}, kUpright);
  CHECK(tooWide(problem) == 1u);
  CHECK_THROWS_AS(LayingSearch(problem), std::invalid_argument);
}

TEST_CASE("the cycles of a convolution close, and do not depend on where an outline lies") {
  std::mt19937 random(23);
  for (int round = 0; round < 20; ++round) {
    const Polyline a = star(random, 4 + static_cast<size_t>(round % 6)),
                   b = star(random, 5 + static_cast<size_t>(round % 4));
    double wound = 0;
    for (const Polyline& cycle : convolution(a, b)) wound += signedArea(cycle);
    double shifted = 0;
    for (const Polyline& cycle : convolution(moved(a, {310, -70}), moved(b, {-20, 15}))) shifted += signedArea(cycle);
    CHECK(shifted == Approx(wound).epsilon(1e-9));
    // Every sum of corners lies in the sum, or on its border.
    const std::vector<Polyline> sum = minkowskiSum(a, b);
    const Box box = boxRound(sum.front());
    CHECK(box.high.x == Approx(boxRound(a).high.x + boxRound(b).high.x).margin(1e-4));
    CHECK(box.low.y == Approx(boxRound(a).low.y + boxRound(b).low.y).margin(1e-4));
  }
}

TEST_CASE("a layout from elsewhere is taken where it is sound and shorter, else not") {
  const StripProblem problem = strip(100, {{rectangle(60, 100), 2}, {rectangle(30, 50), 4}}, kUpright);
  LayingSearch search(problem);
  const StripLayout best = laid(problem, 300);
  StripLayout over = best;
  over.items[0].at = over.items[1].at;
  const double before = search.best().length;
  search.offer(over);  // two lie over each other
  CHECK(search.best().length == before);
  StripLayout beyond = best;
  beyond.items[2].at.y += 80;
  search.offer(beyond);
  CHECK(search.best().length == before);
  search.offer({{best.items.begin(), best.items.end() - 1}, 1});  // not all of them
  CHECK(search.best().length == before);
  search.offer(best);
  CHECK(search.best().length <= before);
  CHECK(search.best().length == Approx(std::min(before, best.length)));
}

TEST_CASE("pressing a layout never makes it longer, and leaves it sound") {
  std::mt19937 random(17);
  StripProblem problem;
  problem.width = 300;
  for (size_t i = 0; i < 8; ++i) {
    problem.outlines.push_back(star(random, 7));
    problem.items.push_back({i, kEitherWay, false, std::nullopt});
  }
  const LayingSearch search(problem);
  StripLayout loose = search.best();
  for (size_t i = 0; i < loose.items.size(); ++i) loose.items[i].at.x += 250.0 * static_cast<double>(i);
  loose.length = usedLength(problem, loose.items);
  const StripLayout pressed = search.pressed(loose);
  CHECK(pressed.length < loose.length);
  CHECK(pressed.length == Approx(usedLength(problem, pressed.items)));
  CHECK(worstOverlap(problem, pressed) < 0.1);
}

TEST_CASE("how much of a strip is used, and the least it could be") {
  const StripProblem problem = strip(100, {{rectangle(60, 50), 3}}, kUpright);
  const StripLayout layout = laid(problem, 50);
  CHECK(layout.length == Approx(120).margin(0.01));
  CHECK(utilisation(problem, layout) == Approx(3 * 60 * 50 / (100 * 120.0)).epsilon(1e-3));
  CHECK(shortestLength(problem) == Approx(90));
  CHECK(shortestLength(strip(100, {{rectangle(200, 10), 1}}, kUpright)) == Approx(200));
  CHECK(utilisation(problem, {{}, 0}) == 0);
}

TEST_CASE("room between outlines grows their no-fit region on all sides") {
  const NoFit close(rectangle(30, 20), rectangle(10, 10), 0), apart(rectangle(30, 20), rectangle(10, 10), 3);
  CHECK(close.box().high.x == Approx(30));
  CHECK(apart.box().high.x == Approx(33));
  CHECK(apart.box().low.y == Approx(-13));
  CHECK(close.depth({31, 5}) == 0);
  CHECK(apart.depth({31, 5}) == Approx(2));
}

TEST_CASE("what lies outside a ring within a box is all of the box but the ring") {
  const Box box{{0, 0}, {100, 80}};
  const std::vector<Polyline> rings{{{20, 20}, {60, 20}, {60, 60}, {20, 60}},         // with cloth all round it
                                    {{0, 0}, {100, 0}, {100, 40}, {0, 40}},           // a half
                                    {{0, 0}, {100, 0}, {70, 80}, {0, 80}},            // a corner cut off
                                    {{-10, -10}, {110, -10}, {110, 90}, {-10, 90}}};  // nothing is left
  for (const Polyline& ring : rings) {
    double outside = 0;
    for (const Polyline& part : outsideOf(ring, box)) {
      CHECK(isSimple(part));
      CHECK(sharedArea(part, ring) < 0.01);
      outside += std::abs(signedArea(part));
    }
    const Polyline all{box.low, {box.high.x, box.low.y}, box.high, {box.low.x, box.high.y}};
    CHECK(outside == Approx(100 * 80 - sharedArea(ring, all)).margin(0.01));
  }
}

TEST_CASE("items laid along a line are offered the places nearest to where they are wished") {
  StripProblem problem = strip(100, {{rectangle(30, 30), 2}}, kUpright);
  const LayingTable table(problem);
  const std::vector<LaidItem> all{{0, {100, 0}}, {0, {0, 0}}};
  const std::vector<double> weights(3, 1);
  const Box room = table.room(1, 0, 400);
  CHECK(room.high.x == Approx(370));
  const auto lowest = table.along(Axis::X, 1, {0, {0, 10}}, room, all, weights);
  REQUIRE_FALSE(lowest.empty());
  CHECK(lowest.front().at == Approx(0));
  CHECK(lowest.front().over == 0);
  CHECK(table.along(Axis::X, 1, {0, {0, 10}}, room, all, weights, 250).front().at == Approx(250));
  CHECK(table.along(Axis::X, 1, {0, {0, 10}}, room, all, weights, 120).front().at == Approx(130));  // beside the other
  CHECK(table.along(Axis::X, 1, {0, {0, 50}}, room, all, weights, 120).front().at == Approx(120));  // clear of it
  const std::vector<double> contacts = table.contacts(Axis::Y, 1, 0, all, weights);
  CHECK(contacts == std::vector<double>{0, 30, 70});
  CHECK(table.length(all) == Approx(130));
}
