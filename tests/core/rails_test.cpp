// The rails: every level as a strip of panels and gaps.
#include <catch2/catch.hpp>

#include "draft/rails.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tests/support/shaping_checks.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("the rails: panels and gaps tile every strip from centre front to centre back") {
  for (const char* style : {"reducing-four-lines", "shaping-front-laced", "sweetheart-zip", "reducing-v-laced"}) {
    Order o = plainOrder();
    o.style = style;
    o.choices["rail.ribs"] = "1 3/4 in";
    const Design d = designOf(o);
    const std::vector<Rail> rails = railsOf(d.block, d.rules);
    REQUIRE(rails.size() >= 5);
    for (const Rail& rail : rails) {
      INFO(style << " " << rail.level);
      CHECK(rail.length == Approx(rails.front().length));  // the end does not move from level to level
      double at = rail.openFront, panels = 0;
      size_t gap = 0;
      for (size_t i = 0; i < rail.panels.size(); ++i) {
        CHECK(rail.panels[i].place == static_cast<int>(i) + 1);
        CHECK(rail.panels[i].from == Approx(at).margin(1e-6));
        panels += rail.panels[i].to - rail.panels[i].from;
        at = rail.panels[i].to;
        if (i + 1 == rail.panels.size()) break;
        const bool side = rail.gaps[gap].line == kFrontSide;
        for (int n = 0; n < (side ? 2 : 1); ++n, ++gap) {
          CHECK(rail.gaps[gap].from == Approx(at).margin(1e-6));
          at = rail.gaps[gap].to;
        }
      }
      CHECK(at == Approx(rail.length - rail.openBack).margin(1e-6));
      CHECK(gap == rail.gaps.size());
      // Panels, both halves, and what stays open are the finished girth.
      CHECK(2 * panels + d.block.gapOn(rail.level) == Approx(rail.finishedGirth).margin(1e-4));
    }
  }
}

TEST_CASE("the girth at a rail's end is set by the choice it names") {
  for (const char* school : {"even", "quarter-minus"}) {
    Order o = withSchool(school);
    o.choices["rail.ribs"] = "2 in";
    const Design before = designOf(o);
    for (const Rail& rail : railsOf(before.block, before.rules)) {
      const double wanted = rail.finishedGirth - 10;
      const auto choice = girthChoice(rail, before.rules, wanted);
      REQUIRE(choice);
      Order changed = o;
      changed.choices[choice->key] =
          *checkChoice(choice->key, formatExact(choice->mm, Unit::Millimetre), Unit::Millimetre);
      INFO(school << " " << rail.level << " " << choice->key);
      CHECK(designOf(changed).block.levels.at(rail.level).finishedGirth == Approx(wanted).margin(0.02));
    }
  }
}
