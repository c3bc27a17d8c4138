// What can be said of a cloth and of where a copy lies on it: read in any spelling, kept in one, refused with the
// reason.
#include <catch2/catch.hpp>

#include "prepare/cloth_laying.h"
#include "recalc/idle.h"
#include "tests/support/bodies.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

std::string kept(std::string_view key, std::string_view value, Unit unit = Unit::Inch) {
  return checkChoice(key, value, unit).value();
}
std::string refused(std::string_view key, std::string_view value) {
  const Result<std::string> choice = checkChoice(key, value, Unit::Inch);
  REQUIRE_FALSE(choice.ok());
  return english(choice.problem().what) + "; " + english(choice.problem().remedy);
}
const ListedCloth& satinOf(const Rules& rules) { return *rules.cloth("satin"); }
Rules rulesOf(const Choices& choices) { return Rules(choices, "sweetheart-zip", "quarter-grid", Figure::Medium); }

}  // namespace

TEST_CASE("a remnant's corners are read in any unit and kept as they were written") {
  const std::string text = kept("cloth.satin.remnant", "0 x 0;40x0 ; 40 cm x 22½; 0 x 30,5");
  CHECK(text == "0 in x 0 in; 40 in x 0 in; 40 cm x 22 1/2 in; 0 in x 30.5 in");
  CHECK(kept("cloth.satin.remnant", text, Unit::Centimetre) == text);
  const Rules rules = rulesOf({{"cloth.satin.remnant", text}});
  const std::vector<Vec2>& corners = satinOf(rules).remnant;
  REQUIRE(corners.size() == 4);
  CHECK(corners[2].x == Approx(400));
  CHECK(corners[2].y == Approx(22.5 * 25.4));
  CHECK(corners[3].y == Approx(30.5 * 25.4));
}

TEST_CASE("what is no remnant is refused, with what would be right") {
  const std::string_view key = "cloth.satin.remnant";
  CHECK(refused(key, "40 in").find("corners in turn") != std::string::npos);
  CHECK(refused(key, "0 x 0; 40 x 0").find("three corners") != std::string::npos);
  CHECK(refused(key, "0 x 0; 40 x 30; 40 x 0; 0 x 30").find("three corners") != std::string::npos);  // crosses itself
  CHECK(refused(key, "0 x 0; 1 x 0; 1 x 1").find("three corners") != std::string::npos);             // no cloth at all
  CHECK(refused(key, "0 x 0; wide x 0; 40 x 22").size() > 5);
  CHECK(refused(key, "0 x 0; -40 x 0; 40 x 22").find("corners up to") != std::string::npos);
  CHECK(refused(key, "0 x 0; 40 x 0; 40 x 400").find("corners up to") != std::string::npos);
  CHECK_FALSE(checkChoice(key, "0 x 0 x 0; 40 x 0; 40 x 22", Unit::Inch).ok());
}

TEST_CASE("room between pieces and leaning off the grain have their bounds") {
  CHECK(kept("cloth.satin.apart", "1/4") == "1/4 in");
  CHECK(kept("cloth.satin.apart", "6 mm") == "6 mm");
  CHECK(refused("cloth.satin.apart", "3 in").find("between") != std::string::npos);
  CHECK(refused("cloth.satin.apart", "-1").find("between") != std::string::npos);
  CHECK(kept("cloth.satin.off-grain", "2,5") == "2.5");
  CHECK(refused("cloth.satin.off-grain", "40").find("between") != std::string::npos);
  const Rules rules = rulesOf({{"cloth.satin.apart", "6 mm"}, {"cloth.satin.off-grain", "2.5"}});
  CHECK(satinOf(rules).apart == Approx(6));
  CHECK(satinOf(rules).offGrain == Approx(2.5));
  CHECK(satinOf(rulesOf({})).apart == 0);
}

TEST_CASE("a kept place is written in one form and read back to the last figure") {
  const KeptPlace place{"satin", "front-1", 2, {120.512345, -3.25}, 275.638074925, true};
  const std::string key = keptPlaceKey(place);
  CHECK(key == "lay.satin.front-1.2");
  const std::string text = kept(key, place.text());
  CHECK(text == place.text());
  const Rules rules = rulesOf({{key, text}});
  REQUIRE(rules.keptPlaces().size() == 1);
  const KeptPlace& read = rules.keptPlaces()[0];
  CHECK(read.cloth == "satin");
  CHECK(read.piece == "front-1");
  CHECK(read.copy == 2);
  CHECK(read.at == place.at);
  CHECK(read.degrees == place.degrees);
  CHECK(read.mirrored);
  CHECK(kept(key, "1,5 2 90") == "1.5 2 90");
  for (const char* wrong : {"", "1 2", "1 2 3 4", "1 2 3 turned", "a b c", "1 2 90 mirrored again", "1e9 0 0"}) {
    INFO(wrong);
    CHECK_FALSE(checkChoice(key, wrong, Unit::Inch).ok());
  }
  for (const char* noKey : {"lay.satin.front-1", "lay.satin.front-1.0", "lay.satin.front-1.100",
                            "lay.satin.front-1.two", "lay.satin.Front-1.1", "lay.satin.front-1.01"})
    CHECK_FALSE(parsePrepareKey(noKey));
}

TEST_CASE("a place that cannot count is idle, and says why") {
  Order order = orderWith({{"cloth.satin.lies", "open"},
                           {"lay.satin.front-1.9", "0 0 0"},
                           {"lay.velvet.front-1.1", "0 0 0"},
                           {"lay.satin.back-1.1", "200 300 45"}});
  const Design design = recalc(order).value();
  std::map<std::string, std::string> why;
  for (const Idle& idle : idleIn(order, design)) why[idle.key] = english(idle.reason);
  CHECK(why["lay.satin.front-1.9"].find("no such copy") != std::string::npos);
  CHECK(why["lay.velvet.front-1.1"].find("nothing is cut of this cloth") != std::string::npos);
  CHECK(why["lay.satin.back-1.1"].find("grain") != std::string::npos);
  // Of two that lie over each other the first is kept.
  const CutList list = pieceList(design.pattern, design.rules);
  const ClothLaying laying = clothLayings(design.pattern, design.cutOutlines, list, {}).front();
  const StripLayout layout = quickLayout(laying);
  KeptPlace a = laying.keptAt(list, 0, layout.items[0]), b = laying.keptAt(list, 1, layout.items[1]);
  b.at = b.at + (boxRound(laidOutline(laying.problem, 0, layout.items[0])).low -
                 boxRound(laidOutline(laying.problem, 1, layout.items[1])).low);
  const ClothLaying both = clothLayings(design.pattern, design.cutOutlines, list, {a, b}).front();
  REQUIRE(both.loosened.size() == 1);
  CHECK(keptPlaceKey(both.loosened[0].place) == keptPlaceKey(b));
  CHECK(both.problem.items[0].locked);
  CHECK_FALSE(both.problem.items[1].locked);
}

TEST_CASE("of two copies cut at once the second may be kept: it is the first, mirrored about the fold") {
  const Design design = recalc(plainOrder()).value();
  const CutList list = pieceList(design.pattern, design.rules);
  const ClothLaying laying = clothLayings(design.pattern, design.cutOutlines, list, {}).front();
  REQUIRE(laying.folded);
  const StripLayout layout = quickLayout(laying);
  for (const ClothPlacement& p : laying.placements(layout)) {
    if (p.copy != 2) continue;
    const KeptPlace second{
        laying.cloth.cloth, list.pieces[p.piece].id, 2, p.at, p.turn.angleRad * 180 / 3.14159265358979323846,
        p.turn.mirrored};
    const ClothLaying kept = clothLayings(design.pattern, design.cutOutlines, list, {second}).front();
    CHECK(kept.loosened.empty());
    REQUIRE(kept.problem.items[p.item].locked);
    CHECK(distance(kept.problem.items[p.item].locked->at, layout.items[p.item].at) < 1e-6);
  }
}
