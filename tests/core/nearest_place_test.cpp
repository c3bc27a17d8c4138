// Laying an outline down by hand: the nearest place where it lies over nothing.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "laying/nearest_place.h"
#include "laying/search.h"

using namespace armure;

namespace {

StripProblem squares(size_t count) {
  StripProblem problem;
  problem.width = 100;
  problem.outlines = {{{0, 0}, {30, 0}, {30, 30}, {0, 30}}};
  for (size_t i = 0; i < count; ++i) problem.items.push_back({0, {{0, false}}, false, std::nullopt});
  return problem;
}

}  // namespace

TEST_CASE("an outline laid over another goes beside it, the shorter way") {
  const LayingTable table(squares(2));
  const std::vector<LaidItem> all{{0, {40, 40}}, {0, {300, 0}}};
  const auto right = nearestPlace(table, 1, {0, {60, 42}}, all);
  REQUIRE(right);
  CHECK(right->at.x == Approx(70).margin(1e-3));
  CHECK(right->at.y == Approx(42).margin(0.6));
  const auto above = nearestPlace(table, 1, {0, {41, 18}}, all);
  REQUIRE(above);
  CHECK(above->at.y == Approx(10).margin(1e-3));
}

TEST_CASE("where it is nearly against its neighbour it lies against it, else where it was laid") {
  const LayingTable table(squares(2));
  const std::vector<LaidItem> all{{0, {40, 40}}, {0, {300, 0}}};
  const auto snapped = nearestPlace(table, 1, {0, {74, 44}}, all);
  REQUIRE(snapped);
  CHECK(snapped->at.x == Approx(70).margin(1e-3));
  const auto free = nearestPlace(table, 1, {0, {120, 35}}, all);
  REQUIRE(free);
  CHECK(free->at == Vec2{120, 35});
  // Beyond the cloth it comes back onto it.
  CHECK(nearestPlace(table, 1, {0, {-50, 200}}, all)->at.x == Approx(0).margin(1e-3));
}

TEST_CASE("wherever it is laid it lies over nothing and on the cloth") {
  StripProblem problem = squares(7);
  problem.outlines.push_back({{0, 0}, {50, 5}, {20, 20}, {15, 45}});
  problem.items.push_back({1, {{0, false}, {2.1, false}}, false, std::nullopt});
  const LayingTable table(problem);
  const StripLayout layout = LayingSearch(problem).best();
  std::mt19937 random(2);
  std::uniform_real_distribution<double> along(-20, 250), across(-30, 130);
  for (int i = 0; i < 60; ++i) {
    const size_t item = static_cast<size_t>(i % 8);
    std::vector<LaidItem> all = layout.items;
    const size_t turn = item == 7 ? static_cast<size_t>(i / 8 % 2) : 0;
    const auto place = nearestPlace(table, item, {turn, {along(random), across(random)}}, all);
    REQUIRE(place);
    all[item] = *place;
    StripLayout changed{all, table.length(all)};
    CHECK(worstOverlap(problem, changed) < 0.1);
  }
}
