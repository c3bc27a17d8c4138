// Labels find room, allowances end as asked: small cases that can be worked by hand.
#include "prepare/label_place.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "rules/prepare_choices.h"
#include "rules/rules.h"

using namespace armure;

namespace {

Polyline box(double wide, double high) { return {{0, 0}, {wide, 0}, {wide, high}, {0, high}}; }

// Top 100 wide with 20 allowance, sides with 10.
std::vector<AllowanceEdge> square(AllowanceEnd end, Vec2 topRight = {100, 0}) {
  std::vector<AllowanceEdge> edges{{{{0, 0}, topRight}, 20, false},
                                   {{topRight, {100, 100}}, 10, false},
                                   {{{100, 100}, {0, 100}}, 10, false},
                                   {{{0, 100}, {0, 0}}, 10, false}};
  edges[1].start = end;
  return edges;
}

bool hasCorner(const Polyline& outline, Vec2 p) {
  return std::ranges::any_of(outline, [&](Vec2 q) { return distance(p, q) < 0.01; });
}

}  // namespace

TEST_CASE("a label lies in the middle of an empty piece, upright and as large as it is") {
  const LabelPlace p = labelPlace(box(200, 300), {}, 100, 50);
  CHECK(p.scale == 1);
  CHECK_FALSE(p.turned);
  CHECK(distance(p.middle, {100, 150}) < 20);
}

TEST_CASE("a label steps aside of a bone, turns along a narrow piece, and shrinks only where it must") {
  const LabelPlace aside = labelPlace(box(200, 300), {{{{100, 0}, {100, 300}}}, {}}, 80, 40);
  CHECK(aside.scale == 1);
  CHECK(std::abs(aside.middle.x - 100) >= 40);
  const LabelPlace narrow = labelPlace(box(60, 300), {}, 120, 40);
  CHECK(narrow.turned);
  CHECK(narrow.scale == 1);
  const LabelPlace small = labelPlace(box(60, 100), {}, 120, 40);
  CHECK(small.scale < 1);
  CHECK((small.turned ? 120 : 40) * small.scale <= 100);
}

TEST_CASE("allowances end mitred, squared, or turned along the mirror of the next edge's") {
  // At a right angle all three reach the same corner but for the tip.
  const Polyline mitred = cutOutline(square(AllowanceEnd::Mitred));
  CHECK(hasCorner(mitred, {110, -20}));
  // A top edge that falls by half its length towards the side: 50 on 100..
  const Vec2 corner{100, 50};
  const double slope = 0.5;
  const double meets = 50 - 20 * std::sqrt(1 + slope * slope);
  const Polyline squared = cutOutline(square(AllowanceEnd::Squared, corner));
  CHECK(hasCorner(squared, {100, meets}));
  CHECK(hasCorner(squared, {110, meets}));
  // Mirrored on the side, the parallel rises again as steeply: 10 further out, 5 higher.
  const Polyline turned = cutOutline(square(AllowanceEnd::Turned, corner));
  CHECK(hasCorner(turned, {100, meets}));
  CHECK(hasCorner(turned, {110, meets - 5}));
  // Pressed over the side, the turned tip lies on the parallel of the top: within it.
  const double pressed = 100 - 10;
  CHECK(meets - 5 == Approx(0 + pressed * slope - 20 * std::sqrt(1 + slope * slope)).margin(1e-9));
}

TEST_CASE("choices of cutting are read back as they are kept, and refused with what would be right") {
  for (const auto& [key, value] : std::vector<std::pair<const char*, const char*>>{{"layers.order", "lining shell"},
                                                                                   {"cloth.of.lining", "velvet"},
                                                                                   {"cloth.own-1.width", "28 in"},
                                                                                   {"cloth.own-1.name", "Grüner Samt"},
                                                                                   {"cloth.own-1.lies", "open"},
                                                                                   {"cloth.own-1.way", "one-way"},
                                                                                   {"cloth.own-1.shrinks", "0.05"},
                                                                                   {"cloth.own-1.price", "12.5"},
                                                                                   {"bone.at.front-2.1", "0.25"},
                                                                                   {"bone.off.bone-princess", "yes"}}) {
    INFO(key);
    CHECK(isChoiceKey(key));
    const auto kept = checkChoice(key, value, Unit::Inch);
    REQUIRE(kept.ok());
    CHECK(*checkChoice(key, *kept, Unit::Centimetre) == *kept);
    CHECK(english(prepareName(*parsePrepareKey(key))).size() > 3);
  }
  for (const auto& [key, value] : std::vector<std::pair<const char*, const char*>>{{"layers.order", "lining lining"},
                                                                                   {"cloth.of.lining", "Two Words"},
                                                                                   {"cloth.own-1.width", "1 in"},
                                                                                   {"cloth.own-1.width", "wide"},
                                                                                   {"cloth.own-1.name", "a\nb"},
                                                                                   {"cloth.own-1.lies", "flat"},
                                                                                   {"cloth.own-1.way", "no"},
                                                                                   {"cloth.own-1.shrinks", "0.9"},
                                                                                   {"cloth.own-1.price", "-1"},
                                                                                   {"bone.at.front-2.1", "1.5"},
                                                                                   {"bone.off.bone-princess", "no"}}) {
    INFO(key << " = " << value);
    CHECK_FALSE(checkChoice(key, value, Unit::Inch).ok());
  }
  for (const char* key : {"cloth.of", "cloth.of.", "cloth.Own.width", "cloth.own-1.colour", "bone.at.front-2.0",
                          "bone.at.front-2", "bone.off.", "layers.sequence", "cloth.a--b.width"})
    CHECK_FALSE(parsePrepareKey(key));
  CHECK(choicesProblem({{"cloth.of.lining", "velvt"}})->text().find("velvet") != std::string::npos);
  CHECK_FALSE(choicesProblem({{"cloth.of.lining", "own-1"}, {"cloth.own-1.width", "28 in"}}));
}
