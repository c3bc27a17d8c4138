// Shaping a half: schools, what the hand holds and places, levels of the maker's own, kinds of garment.
#include <catch2/catch.hpp>
#include <cmath>

#include "draft/dart.h"
#include "draft/rails.h"
#include "draft/shaping.h"
#include "rules/draft_rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tests/support/shaping_checks.h"

using namespace armure;
using namespace armure::testing;

namespace {

const char* kSchools[] = {"thumb", "even", "side-weighted", "flat-front", "quarter-minus", "middle-piece"};

}  // namespace

TEST_CASE("keys of places are read and written, wrong ones refused with what would be right") {
  for (const char* key : {"hold.waist.princess", "hold.high_hip.front-line-4", "hold.top.front-side",
                          "guide.ribs.back-line-2", "rail.ribs", "girth.belly_2"}) {
    const auto parsed = parseShapingKey(key);
    REQUIRE(parsed);
    CHECK(parsed->text() == key);
    CHECK_FALSE(shapingName(*parsed).empty());
  }
  for (const char* key : {"hold.waist", "hold.waist.front-line-5", "hold.bust.princess", "guide.waist.front-side",
                          "rail.waist", "rail.Ribs", "rail.", "girth.1st", "held.waist.princess", "hold", "rail.a.b"})
    CHECK_FALSE(parseShapingKey(key));
  CHECK(*checkChoice("hold.waist.princess", "1 1/2", Unit::Inch) == "1 1/2 in");
  CHECK_FALSE(checkChoice("hold.waist.princess", "-1", Unit::Inch).ok());
  CHECK(checkChoice("hold.waist.back-side", "-1", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("hold.waist.princess", "wide", Unit::Inch).ok());
  const auto far = checkChoice("guide.waist.princess", "90", Unit::Inch);
  REQUIRE_FALSE(far.ok());
  CHECK(english(far.problem().remedy).find("between") != std::string::npos);
}

TEST_CASE(
    "what the hand holds stands in every school; the others share the rest; given back, the school has it again") {
  for (const char* school : kSchools) {
    for (const char* place : {"waist.princess", "waist.front-line-2", "underbust.princess", "waist.back-line",
                              "high_hip.back-line-2", "waist.front-side"}) {
      INFO(school << " " << place);
      Order o = withSchool(school);
      const Design before = designOf(o);
      const std::string key = std::string("hold.") + place;
      o.choices[key] = "7/8 in";
      const Design held = designOf(o);
      checkIdentity(held);
      checkClosedGirths(held);
      const ShapingKey k = *parseShapingKey(key);
      bool seen = false;
      for (const Rail& rail : railsOf(held.block, held.rules)) {
        if (rail.level != k.level) continue;
        for (const RailGap& g : rail.gaps) {
          if (g.line != k.line) continue;
          seen = true;
          CHECK(g.held);
          CHECK(inch(g.taken) == Approx(0.875).margin(1e-6));
        }
      }
      CHECK(seen);
      // The finished girth is what it was.
      CHECK(held.block.levels.at(k.level).finishedGirth == before.block.levels.at(k.level).finishedGirth);
      o.choices.erase(key);
      const Design again = designOf(o);
      CHECK(again.block.front.at(k.level).intakes == before.block.front.at(k.level).intakes);
    }
  }
}

TEST_CASE("held too much, the level says so and what to do") {
  Order o = withSchool("even", 1, 1);
  for (const char* line : {"princess", "front-side"}) o.choices[std::string("hold.waist.") + line] = "5 in";
  const Design d = designOf(o);
  checkIdentity(d);
  bool said = false;
  for (const Intake& i : d.block.intakes) said = said || english(i.cures).find("release a line") != std::string::npos;
  // The side carries what does not fit, or stands out; either way the sheet has a row that fails.
  bool fails = false;
  for (const CheckRow& r : d.sheet.rows)
    fails = fails || (r.kind == CheckKind::Intake && !r.passes() && r.level == "waist");
  CHECK((said || fails));
}

TEST_CASE("a wish is shown beside what became of it") {
  Order o = withSchool("even");
  o.choices["hold.waist.princess"] = "1/4 in";
  const Design d = designOf(o);
  const HalfLevel& waist = d.block.front.at("waist");
  CHECK(inch(waist.intakes[0]) == Approx(0.25).margin(1e-6));
  CHECK(waist.wished[0] > waist.intakes[0] + 5);
  CHECK(waist.intakes[1] > waist.wished[1]);
  CHECK(waist.sideTaken > waist.sideWished);
}

TEST_CASE("a level of one's own is a ring with its own girth, in every school") {
  for (const char* school : kSchools) {
    INFO(school);
    Order o = withSchool(school);
    o.choices["rail.ribs"] = "2 in";
    const Design d = designOf(o);
    checkIdentity(d);
    checkClosedGirths(d);
    const Level &ribs = d.block.levels.at("ribs"), &under = d.block.levels.at("underbust"),
                &waist = d.block.levels.at("waist");
    CHECK(ribs.own);
    CHECK(ribs.estimated());
    CHECK(inch(waist.front - ribs.front) == Approx(2));
    CHECK(inch(waist.back - ribs.back) == Approx(2));
    // Body between its neighbours, reduction between theirs.
    CHECK(ribs.bodyGirth < under.bodyGirth);
    CHECK(ribs.bodyGirth > waist.bodyGirth);
    const double less = ribs.bodyGirth - ribs.finishedGirth;
    CHECK(less > 0);
    CHECK(less < waist.bodyGirth - waist.finishedGirth);
    o.choices["girth.ribs"] = "28 1/4 in";
    o.choices["hold.ribs.princess"] = "1/2 in";
    const Design given = designOf(o);
    CHECK(inch(given.block.levels.at("ribs").finishedGirth) == Approx(28.25));
    CHECK(inch(given.block.front.at("ribs").intakes[0]) == Approx(0.5).margin(1e-6));
    checkClosedGirths(given);
    bool found = false;
    for (const PatternLevel& l : given.pattern.levels) found = found || (l.id == "ribs" && l.ring);
    CHECK(found);
  }
  Order near = withSchool("even");
  near.choices["rail.ribs"] = "1/4 in";
  const auto refused = recalc(near);
  REQUIRE_FALSE(refused.ok());
  CHECK(english(refused.problem().where) == "rail.ribs");
  near.choices["rail.ribs"] = "7 in";
  CHECK_FALSE(recalc(near).ok());
}

TEST_CASE("a line placed by hand runs through its place, and only there and below is it moved") {
  for (const char* line : {"princess", "front-line-2", "back-line", "back-line-2"}) {
    INFO(line);
    Order o = withSchool("even");
    const Design before = designOf(o);
    const bool front = std::string(line) == "princess" || std::string(line) == "front-line-2";
    const auto lineOf = [&](const Design& d) -> const PanelLine& {
      for (const PanelLine& l : (front ? d.block.front : d.block.back).lines)
        if (l.id == line) return l;
      throw std::logic_error("no such line");
    };
    const auto guideAt = [&](const Design& d, const std::string& level) {
      for (const PanelLine::Guide& g : lineOf(d).guides)
        if (g.level == level) return g;
      throw std::logic_error("no such guide");
    };
    const double moved = guideAt(before, "waist").x + 8;
    o.choices[std::string("guide.waist.") + line] = std::to_string(moved) + " mm";
    const Design d = designOf(o);
    checkIdentity(d);
    checkClosedGirths(d);
    CHECK(guideAt(d, "waist").placed);
    const double y = (front ? d.block.front : d.block.back).at("waist").y;
    const double middle = (lineOf(d).toCentreX(y) + lineOf(d).toSideX(y)) / 2,
                 was = (lineOf(before).toCentreX(y) + lineOf(before).toSideX(y)) / 2;
    CHECK(middle - was == Approx(8).margin(1e-5));
    const double bust = (front ? d.block.front : d.block.back).at("bust").y;
    // A back line begins above the bust and is one sweep from there.
    CHECK(lineOf(d).toCentreX(bust) == Approx(lineOf(before).toCentreX(bust)).margin(front ? 1e-9 : 1.0));
    // What every line takes is not changed by where it stands.
    CHECK((front ? d.block.front : d.block.back).at("waist").lineIntake() ==
          Approx((front ? before.block.front : before.block.back).at("waist").lineIntake()).margin(1e-6));
  }
  Order o = withSchool("even");
  o.choices["guide.waist.front-line-2"] = "1 in";  // across the princess line
  const auto crossed = recalc(o);
  REQUIRE_FALSE(crossed.ok());
  CHECK(english(crossed.problem().what).find("wide there") != std::string::npos);
}

TEST_CASE("the middle piece school, by its own rule") {
  // Common practice, no source: half the span at the bust; 1/2 in less at the top edge, 1 in less from the underbust
  // straight down; the side front as wide as the quarter leaves.
  Order o = withSchool("middle-piece", 1, 1);
  o.choices["dart.side"] = "1 in";
  const Design d = designOf(o);
  const PanelLine& line = d.block.front.lines[0];
  const auto widthOfMiddle = [&](const char* level) { return inch(line.toCentreX(d.block.front.at(level).y)); };
  CHECK(widthOfMiddle("bust") == Approx(7.25 / 2));
  CHECK(widthOfMiddle("top") == Approx(7.25 / 2 - 0.5));
  for (const char* level : {"underbust", "waist", "high_hip"})
    CHECK(widthOfMiddle(level) == Approx(7.25 / 2 - 1).margin(1e-6));
  for (const char* level : {"top", "bust", "underbust", "waist"}) {
    INFO(level);
    const HalfLevel& l = d.block.front.at(level);
    const double sideFront = l.side - line.toSideX(l.y);
    CHECK(sideFront == Approx(l.share - line.toCentreX(l.y)).margin(1e-6));
  }
  // Mirrored: as far beyond the line as the middle piece stays short of it.
  for (const char* level : {"top", "underbust", "waist"}) {
    const double y = d.block.front.at(level).y, span = inches(7.25) / 2;
    CHECK(line.toSideX(y) - span == Approx(span - line.toCentreX(y)).margin(1e-6));
  }
}

TEST_CASE("a quarter less an inch: four all told, spread over the lines and the side") {
  Order o = withSchool("quarter-minus", 2, 1);
  const Design d = designOf(o);
  CHECK(inch(d.block.levels.at("waist").finishedGirth) == Approx(28 - 4));
  const Design natural = [&] {
    Order n = o;
    n.choices["reduction.quarter"] = "0";
    return designOf(n);
  }();
  for (const auto& [half, lines] : {std::pair{&Block::front, 2.0}, {&Block::back, 1.0}}) {
    const HalfLevel &with = (d.block.*half).at("waist"), &without = (natural.block.*half).at("waist");
    for (size_t i = 0; i < with.intakes.size(); ++i)
      CHECK(inch(with.intakes[i] - without.intakes[i]) == Approx(1 / (lines + 1)).margin(1e-6));
    CHECK(inch(with.sideTaken - without.sideTaken) == Approx(1 / (lines + 1)).margin(1e-6));
  }
}

TEST_CASE("shares as balances best leave the edges of the princess line no further apart than any other share") {
  const auto imbalance = [](const Design& d) {
    double sum = 0;
    const Path a = d.block.front.lines[0].toCentre, b = closeSideDart(d.block).toSide[0];
    for (size_t i = 0; i < a.cubics().size(); ++i) {
      const bool within = a.cubics()[i].p0.y > d.block.levels.at("top").front - 1 &&
                          a.cubics()[i].p3.y < d.block.levels.at("hem").front + 1;
      if (within) sum += std::pow(Path(a.cubics()[i]).length() - Path(b.cubics()[i]).length(), 2);
    }
    return sum;
  };
  for (Order o : randomOrders(12, 71)) {
    o.style = "straight-laced";
    o.choices["intake.share"] = "balance";
    const auto best = recalc(o);
    if (!best.ok()) continue;
    const double least = imbalance(*best);
    o.choices["intake.share"] = "rule";
    for (const char* share : {"0.1", "0.25", "0.375", "0.45", "0.5", "0.55", "0.7"}) {
      o.choices["intake.centre_share"] = share;
      const auto other = recalc(o);
      if (other.ok()) CHECK(least <= imbalance(*other) + 1e-3);
    }
  }
}

TEST_CASE("the kind of garment sets the girths; style and maker come before it") {
  const auto reduction = [](const Choices& choices, const char* style) {
    return inch(Rules(choices, style, "quarter-grid", Figure::Medium).length(key::kReductionWaist));
  };
  CHECK(reduction({}, "straight-zip") == Approx(0));
  CHECK(reduction({}, "shaping-two-lines") == Approx(1.5));
  CHECK(reduction({}, "reducing-four-lines") == Approx(3));
  CHECK(reduction({{"garment.kind", "reducing"}}, "straight-zip") == Approx(3));
  CHECK(reduction({{"garment.kind", "bustier"}}, "reducing-four-lines") == Approx(0));
  CHECK(reduction({{"reduction.waist", "1 in"}}, "reducing-four-lines") == Approx(1));
  const Rules rules({}, "reducing-four-lines", "quarter-grid", Figure::Medium);
  CHECK(rules.value(key::kReductionWaist).source == Source::Rule);  // not by the maker's hand
}

TEST_CASE("the princess line leaves the bust upright and goes towards armhole or shoulder") {
  Order o = plainOrder();
  const auto topX = [](const Design& d) { return d.block.front.lines[0].guides[0].x; };
  const Design straight = designOf(o);
  CHECK(inch(topX(straight)) == Approx(7.25 / 2));
  CHECK(straight.block.front.lines[0].onward.empty());
  for (const char* end : {"shoulder", "armhole"}) {
    o.choices["princess.above"] = end;
    const Design d = designOf(o);
    const PanelLine& line = d.block.front.lines[0];
    const Vec2 target = std::string(end) == "shoulder"
                            ? d.block.front.shoulder.pointAt(d.block.front.shoulder.length() / 2)
                            : d.block.front.armhole.cubics()[0].p3;
    CHECK(distance(line.onward.start(), target) < 1e-6);
    CHECK(line.onward.end().x == Approx(topX(d)));
    CHECK((topX(d) - topX(straight)) * (target.x - topX(straight)) > 0);
    checkClosedGirths(d);
  }
}

TEST_CASE("narrowing lines leave the centre panels their part of the half on every level") {
  Order o = withSchool("flat-front", 3, 3);
  o.choices["lines.below"] = "tapered";
  const Design d = designOf(o);
  checkIdentity(d);
  checkClosedGirths(d);
  for (const HalfBlock* half : {&d.block.front, &d.block.back}) {
    const auto part = [&](const char* level) {
      const HalfLevel& l = half->at(level);
      return (half->lines[0].toCentreX(l.y) - half->centre.xAtDepth(l.y)) / (l.share - half->opening.gapAt(l.y) / 2);
    };
    for (const char* level : {"underbust", "waist"}) {
      INFO(half->id << " " << level);
      // The back line already takes in a little at the bust.
      CHECK(part(level) == Approx(part("bust")).margin(half->front ? 1e-6 : 0.02));
    }
  }
  o.choices["lines.below"] = "upright";
  const Design upright = designOf(o);
  CHECK(d.block.front.lines[0].toCentreX(d.block.front.at("waist").y) <
        upright.block.front.lines[0].toCentreX(d.block.front.at("waist").y) - 5);
}

TEST_CASE("a line beyond its cap says what would bring it back, each cure by itself") {
  Order o = withSchool("thumb", 1, 1);
  o.choices["intake.waist"] = "3 in";  // cap 2 1/2: half an inch too much
  const Design d = designOf(o);
  bool said = false;
  for (const CheckRow& r : d.sheet.rows)
    if (r.kind == CheckKind::Intake && !r.passes() && r.level == "waist") {
      said = true;
      CHECK(english(r.remedy).find("1 more line") != std::string::npos);
      CHECK(english(r.remedy).find("13 mm more for its cap") != std::string::npos);
      CHECK(english(r.remedy).find("51 mm less reduction") != std::string::npos);
    }
  CHECK(said);
}

namespace {

// Checks one random order of the great product, on the block alone. Returns whether it was drafted.
bool checkCombination(const Order& o) {
  const Result<Body> body = resolveBody(o.measures);
  REQUIRE(body.ok());
  const Rules rules(o.choices, o.style, o.school, figureOf(*body));
  const Result<Block> made = draftBlock(*body, rules);
  INFO(o.title << " " << o.style << " " << o.choices.at("distribution.school"));
  if (!made.ok()) {
    CHECK_FALSE(made.problem().where.empty());
    CHECK_FALSE(made.problem().remedy.empty());
    return false;
  }
  for (const HalfBlock* half : {&made->front, &made->back})
    for (const HalfLevel& l : half->levels) {
      const Level& level = made->levels.at(l.level);
      if (!std::isfinite(l.side) || std::abs(l.side - (l.share + l.centreIntake + l.lineIntake())) > 1e-9)
        FAIL("the identity fails at " << half->id << " " << l.level);
      if (level.beyondHem) continue;
      double from = half->centre.xAtDepth(l.y);
      for (size_t i = 0; i <= half->lines.size(); ++i) {
        const double to = i == half->lines.size() ? l.side : half->lines[i].toCentreX(l.y);
        if (to - from <= 0) FAIL("a panel of no width at " << half->id << " " << l.level);
        if (i < half->lines.size()) from = half->lines[i].toSideX(l.y);
      }
      // A cap that does not hold is said, with cures.
      const double cap = rules.length(key::kCapSide);
      if (level.readOff || level.follows || l.wished.empty() || !sharesOut(rules) || l.level == "top" ||
          l.sideTaken <= cap + 1e-6)
        continue;
      bool said = false;
      for (const Intake& i : made->intakes)
        said = said || (i.half == half->id && i.line == "side" && i.level == l.level && !i.cures.empty());
      if (!said) FAIL("a side beyond its cap without cures at " << half->id << " " << l.level);
    }
  return true;
}

Order combined(Order o, size_t style, size_t school, int reduction) {
  o.style = styleTable()[style].id;
  o.choices["distribution.school"] = kSchools[school];
  o.choices["reduction.waist"] = std::to_string(reduction) + " in";
  o.choices["reduction.quarter"] = std::to_string(reduction / 4.0) + " in";
  return o;
}

}  // namespace

TEST_CASE("bodies, styles, schools and reductions of 0 to 6 in: the identity holds and nothing is silent") {
  // 1,000 bodies; every combination of style, school and reduction comes at least twice.
  const std::vector<Order> orders = randomOrders(1000, 77);
  const size_t styles = styleTable().size(), schools = std::size(kSchools);
  size_t drafted = 0;
  for (size_t i = 0; i < orders.size(); ++i)
    drafted += checkCombination(combined(orders[i], i % styles, (i / styles) % schools,
                                         static_cast<int>((i / (styles * schools)) % 7)))
                   ? 1
                   : 0;
  WARN(drafted << " of " << orders.size() << " drafted, the others explained");
  CHECK(drafted > orders.size() * 8 / 10);
}

// The whole product, by hand: core_tests "[soak]".
TEST_CASE("every one of 1,000 bodies with every style, school and reduction", "[.][soak]") {
  size_t drafted = 0, all = 0;
  for (const Order& order : randomOrders(1000, 78))
    for (size_t style = 0; style < styleTable().size(); ++style)
      for (size_t school = 0; school < std::size(kSchools); ++school)
        for (int reduction = 0; reduction <= 6; ++reduction, ++all)
          drafted += checkCombination(combined(order, style, school, reduction)) ? 1 : 0;
  WARN(drafted << " of " << all << " drafted, the others explained");
  CHECK(all == 1000 * styleTable().size() * std::size(kSchools) * 7);
}
