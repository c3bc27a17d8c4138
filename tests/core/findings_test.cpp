// What a trial tells the maker: a fault put into a pattern is found, and what is offered against it mends it.
#include "tryon/findings.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Design orderInStyle(const char* style, std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order order = orderWith(choices);
  order.style = style;
  return designOf(order);
}

std::vector<Finding> found(const Design& d) {
  return findingsOf(tryOn(d.pattern, d.body, {.spacing = 24}).value(), d.pattern, d.body, d.rules);
}

const Finding* ofKind(const std::vector<Finding>& all, FindingKind kind, const std::string& part = "") {
  for (const Finding& f : all)
    if (f.kind == kind && english(f.text).find(part) != std::string::npos) return &f;
  return nullptr;
}

}  // namespace

TEST_CASE("a bust point taken too low is found, and what is offered mends it") {
  Order order = orderWith({});
  order.measures.set("shoulder_to_bust", {*plainFigure().mm("shoulder_to_bust") + 22, ""});
  const Design wrong = recalc(order).value();
  const std::vector<Finding> all = found(wrong);
  const Finding* f = ofKind(all, FindingKind::BustPoint, "lower");
  REQUIRE(f);
  REQUIRE(f->mending);
  CHECK(f->mending->key == "shoulder_to_bust");
  CHECK(f->mending->isMeasure);
  order.measures.set(f->mending->key, {f->mending->mm, ""});
  const Design mended = recalc(order).value();
  const auto before = tryOn(wrong.pattern, wrong.body, {.spacing = 24})->bustPoint;
  const auto after = tryOn(mended.pattern, mended.body, {.spacing = 24})->bustPoint;
  CHECK(std::abs(*after) < std::abs(*before) / 2);
}

TEST_CASE("a centre back shaped at the waist stands off above, and is straight again once mended") {
  const std::vector<Finding> all = found(orderInStyle("straight-zip", {{"centre_back.waist", "0.5 in"}}));
  const Finding* f = ofKind(all, FindingKind::Edge, "centre back");
  REQUIRE(f);
  REQUIRE(f->mending);
  CHECK(f->mending->key == "centre_back.waist");
  CHECK_FALSE(ofKind(found(orderInStyle("straight-zip", {{"centre_back.waist", f->mending->text.c_str()}})),
                     FindingKind::Edge, "centre back"));
}

TEST_CASE("cups that are too small for her press the breasts in, and it is told as a range") {
  Order order;
  order.style = "straight-zip";
  order.measures = measuresOf(realBodies()[80], 60);
  const Design small = recalc(order).value();
  order.measures = measuresOf(realBodies()[80], 100);
  const Body fuller = recalc(order).value().body;
  const TryOn right = tryOn(small.pattern, small.body, {.spacing = 20}).value();
  const TryOn tight = tryOn(small.pattern, fuller, {.spacing = 20}).value();
  REQUIRE(right.cups);
  REQUIRE(tight.cups);
  CHECK(right.cups->pressedLeast < 10);
  CHECK(tight.cups->pressedLeast > 20);
  CHECK(tight.cups->pressedMost > tight.cups->pressedLeast);
  const std::vector<Finding> all = findingsOf(tight, small.pattern, fuller, small.rules);
  CHECK(ofKind(all, FindingKind::Cups, "small for the breasts"));
}

TEST_CASE("a waist reduced by much is told with its pressure and when to loosen") {
  const std::vector<Finding> all = found(orderInStyle("reducing-three-lines", {{"reduction.waist", "4 in"}}));
  const Finding* f = ofKind(all, FindingKind::Pressure);
  REQUIRE(f);
  CHECK(english(f->text).find("Loosen at once") != std::string::npos);
  REQUIRE(f->mending);
  CHECK(f->mending->key == "reduction.waist");
  for (size_t i = 0; i + 1 < all.size(); ++i) CHECK(all[i].weight >= all[i + 1].weight);
}
