// Straps: the way over the shoulder.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "parts/straps/rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("a strap is as long as the way over the shoulder, and says how it came to be") {
  Order order = plainOrder();
  for (const char* kind : {"straight", "shaped"}) {
    INFO(kind);
    order.choices["strap.kind"] = kind;
    const Design d = designOf(order);
    const Piece& strap = d.pattern.pieces.back();
    REQUIRE(strap.id == "strap");
    CHECK(strap.layer == "strap");
    const Working* w = d.working("strap.length");
    REQUIRE(w != nullptr);
    double sum = 0;
    for (const Term& t : w->terms) sum += t.mm;
    CHECK(sum == Approx(w->result));
    CHECK(distance(lerp(strap.edge("back-end").path.start(), strap.edge("back-end").path.end(), 0.5),
                   lerp(strap.edge("front-end").path.start(), strap.edge("front-end").path.end(), 0.5)) ==
          Approx(w->result));
    // Common practice: about a foot, finished and without what it is adjusted by.
    CHECK(w->result - d.rules.length(key::kStrapExtra) > inches(8));
    CHECK(w->result - d.rules.length(key::kStrapExtra) < inches(17));
    const bool shaped = std::string(kind) == "shaped";
    CHECK(strap.edge("back-end").path.length() == Approx(d.rules.length(key::kStrapWidth) * (shaped ? 1 : 2)));
    CHECK(strap.edge("front-end").path.length() ==
          Approx(shaped ? d.rules.length(key::kStrapFront) : d.rules.length(key::kStrapWidth) * 2));
    CHECK(strap.copies == (shaped ? 4 : 2));
    CHECK(d.sheet.failing() == designOf(plainOrder()).sheet.failing());
  }
}

TEST_CASE("a strap as long as is set, its end curved or pointed, on the finished width") {
  // Job 17 (common practice): 12 long, on the fold, 0.875 wide (1.75 open), front end curved.
  for (const char* end : {"straight", "curved", "pointed"}) {
    INFO(end);
    const Design d = designOf(orderWith({{"strap.kind", "straight"},
                                         {"strap.width", "0.875 in"},
                                         {"strap.long", "given"},
                                         {"strap.given", "12 in"},
                                         {"strap.end", end}}));
    const Piece& strap = d.pattern.pieces.back();
    const double wide = inches(0.875);
    CHECK(strap.edge("back-end").path.length() == Approx(2 * wide));
    // Half a circle, or two slants, over the open width.
    const double shape = strap.edge("front-end").path.length();
    const bool curved = std::string(end) == "curved", straight = std::string(end) == "straight";
    CHECK(shape == Approx(straight ? 2 * wide
                          : curved ? std::numbers::pi * wide
                                   : 2 * std::numbers::sqrt2 * wide)
                       .epsilon(1e-3));
    double lowest = 0;
    for (const Cubic& c : strap.edge("front-end").path.cubics()) lowest = std::max(lowest, c.p3.y);
    CHECK(lowest - strap.edge("back-end").path.start().y == Approx(inches(12)));
    CHECK(d.sheet.failing() == designOf(plainOrder()).sheet.failing());
  }
}

TEST_CASE("a strap too short for a shaped end has a straight one") {
  const Design d = designOf(orderWith({{"strap.kind", "shaped"},
                                       {"strap.front", "5 in"},
                                       {"strap.long", "given"},
                                       {"strap.given", "2 in"},
                                       {"strap.end", "curved"}}));
  CHECK(d.pattern.pieces.back().edge("front-end").path.length() == Approx(inches(5)));
  CHECK_FALSE(patternProblem(d.pattern));
}

TEST_CASE("crossed straps are longer, a halter's go round the neck and leave the back bare; wadding has no allowance") {
  const auto made = [](const char* runs) {
    return designOf(orderWith({{"strap.kind", "straight"}, {"strap.runs", runs}, {"strap.pad", "padded"}}));
  };
  const Design over = made("over"), crossed = made("crossed"), halter = made("halter");
  CHECK(crossed.working("strap.length")->result > over.working("strap.length")->result + 5);
  const auto behind = [](const Design& d) {
    return std::ranges::count(d.pattern.attachments, "strap-back", &Attachment::id);
  };
  CHECK(behind(over) == 1);
  CHECK(behind(crossed) == 1);
  CHECK(behind(halter) == 0);
  const Piece& pad = over.pattern.pieces.back();
  REQUIRE(pad.id == "padding-strap");
  CHECK(pad.edge("back-end").path.length() == Approx(over.rules.length(key::kStrapWidth)));
  for (const Edge& e : pad.edges) CHECK(e.allowance == 0);
}
