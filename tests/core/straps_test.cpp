// Straps: the way over the shoulder.
#include <catch2/catch.hpp>
#include <cmath>

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
