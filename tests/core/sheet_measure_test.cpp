// The sheet's own measuring against what construction and balancing measure with, and against figures worked by hand.
#include "balance/walk.h"
#include "operations/crossing.h"
#include "pattern/marks.h"
#include "sheet/measure.h"
#include "sheet/sheet.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// Two squares of 100 mm sewn along x = 100 and x = 300; the second one's top edge rises away from the seam.
Pattern twoSquares(double rise) {
  const auto square = [](std::string id, double x, double up) {
    Piece p;
    p.name = verbatim(id);
    p.id = std::move(id);
    p.edges = {{"top", EdgeRole::Top, 10, Path::line({x, 0}, {x + 100, -up})},
               {"right", EdgeRole::Seam, 10, Path::line({x + 100, -up}, {x + 100, 100})},
               {"hem", EdgeRole::Hem, 10, Path::line({x + 100, 100}, {x, 100})},
               {"left", EdgeRole::Seam, 10, Path::line({x, 100}, {x, 0})}};
    return p;
  };
  Pattern p;
  p.pieces = {square("one", 0, 0), square("two", 300, rise)};
  p.pieces[0].marks = {notchMark("underbust", {"right", 40}), notchMark("only-here", {"right", 60})};
  p.pieces[1].marks = {notchMark("underbust", {"left", 62})};  // 38 mm below the upper end
  p.seams = {{"middle", "Middle seam", {0, {{"right", false}}}, {1, {{"left", true}}}, {{"top", "underbust", 2}}}};
  return p;
}

}  // namespace

TEST_CASE("a seam is walked from its upper end, notch by notch, as it is sewn") {
  const Pattern p = twoSquares(0);
  const MeasuredSeam s = measureSeam(p, p.seams[0]);
  REQUIRE(s.stretches.size() == 2);  // a notch on one side only divides nothing
  CHECK(s.stretches[0].lengthA == Approx(40));
  CHECK(s.stretches[0].lengthB == Approx(38));
  CHECK(s.stretches[0].plannedEase == Approx(2));
  CHECK(s.stretches[0].mismatch() == Approx(0).margin(1e-9));
  CHECK(s.stretches[1].mismatch() == Approx(-2));
  CHECK(s.mismatch() == Approx(-2));
  CHECK_THROWS_AS(measureSide(p, {0, {{"gone", false}}}), std::out_of_range);
}

TEST_CASE("a corner's angle is the one inside the piece, and a line that rises points outwards") {
  const Pattern flat = twoSquares(0), rising = twoSquares(100 * std::tan(0.2));
  const auto turn = [](const Pattern& p, bool atTop) {
    return turnBetween(measureCorner(p, p.seams[0].a, atTop), measureCorner(p, p.seams[0].b, atTop));
  };
  CHECK(measureCorner(flat, flat.seams[0].a, true).insideRad == Approx(std::acos(0.0)));
  CHECK(measureCorner(flat, flat.seams[0].a, true).across->id == "top");
  CHECK(measureCorner(flat, flat.seams[0].b, false).across->id == "hem");
  CHECK(turn(flat, true) == Approx(0).margin(1e-12));
  CHECK(turn(rising, true) == Approx(0.2));
  CHECK(turn(rising, false) == Approx(0).margin(1e-12));
}

TEST_CASE("on every style and many bodies the sheet's measuring and the construction's agree") {
  size_t seams = 0;
  std::vector<Order> orders = randomOrders(40, 5);
  for (const Preset& style : styleTable()) {
    orders.push_back(plainOrder());
    orders.back().style = style.id;
  }
  for (Order& o : orders) {
    o.choices["balance.keep"] = seams % 2 ? "balanced" : "drafted";
    const auto made = recalc(o);
    if (!made.ok()) continue;
    const Pattern& p = made->pattern;
    INFO(o.title << " " << o.style);
    for (const Seam& s : p.seams) {
      ++seams;
      INFO(s.id);
      const MeasuredSeam mine = measureSeam(p, s);
      const Walk theirs = walk(p, s);
      REQUIRE(mine.stretches.size() == theirs.stretches.size());
      REQUIRE(mine.a.length == Approx(theirs.lengthA).margin(1e-6));
      for (size_t i = 0; i < mine.stretches.size(); ++i) {
        REQUIRE(mine.stretches[i].from == theirs.stretches[i].from);
        REQUIRE(mine.stretches[i].mismatch() == Approx(theirs.stretches[i].mismatch()).margin(1e-6));
      }
      for (const bool atTop : {true, false}) {
        const MeasuredCorner a = measureCorner(p, s.a, atTop), b = measureCorner(p, s.b, atTop);
        REQUIRE(a.across->role == seamEnd(p, s.a, atTop).acrossRole);
        REQUIRE(std::abs(std::remainder(turnBetween(a, b) - turnAcross(p, s, atTop), 2 * std::acos(-1.0))) < 1e-9);
      }
    }
    // Darts are measured on polygons there.
    const bool darts = std::ranges::any_of(p.pieces, [](const Piece& piece) { return !piece.darts.empty(); });
    for (const PatternLevel& l : p.levels)
      REQUIRE(measureGirth(p, l) == Approx(p.closedGirth(l)).margin(darts ? 0.05 : 1e-9));
  }
  CHECK(seams > 300);
}

TEST_CASE("the sheet sees a level that does not close, a plunge that opens further and a layer that is too long") {
  const auto failing = [](const Pattern& p, const Design& d, const std::string& words) {
    const Sheet sheet = balanceSheet({p, d.cutOutlines, d.block.intakes, d.body});
    return std::any_of(sheet.rows.begin(), sheet.rows.end(), [&](const CheckRow& r) {
      return r.fails() && english(r.subject).find(words) != std::string::npos;
    });
  };
  Order o = plainOrder();
  o.style = "plunge-v-cups";
  o.choices["cup.inside"] = "lining";
  o.choices["balance.keep"] = "balanced";
  const Design d = designOf(o);
  CHECK_FALSE(failing(d.pattern, d, "closed girth"));
  Pattern wide = d.pattern;
  for (PatternLevel& l : wide.levels)
    if (l.ring) l.gaps.opening += 1;
  CHECK(failing(wide, d, "closed girth"));

  Pattern open = d.pattern;
  bool skin = false;
  for (PatternLevel& l : open.levels)
    if (l.gaps.skin != 0) l.gaps.skin += 1, skin = true;
  if (skin) CHECK(failing(open, d, "open between the edges of the plunge"));

  Pattern layered = d.pattern;
  REQUIRE_FALSE(layered.layerLines.empty());
  layered.layerLines.front().uncovered += 1;
  CHECK(failing(layered, d, english(layered.layerLines.front().name)));
}

TEST_CASE("a plunge closes right whatever its centre front is") {
  for (const char* style : {"plunge-u", "plunge-v-cups"})
    for (const char* front : {"fold", "seam", "zip"})
      for (const char* keep : {"drafted", "balanced"}) {
        Order o = plainOrder();
        o.style = style;
        o.choices["opening.front"] = front;
        o.choices["balance.keep"] = keep;
        INFO(style << " " << front << " " << keep);
        const Design d = designOf(o);
        size_t closed = 0;
        for (const CheckRow& r : d.sheet.rows) {
          if (r.kind != CheckKind::Girth || r.verdict == Verdict::Note) continue;
          INFO(r.subject);
          CHECK_FALSE(r.fails());
          ++closed;
        }
        CHECK(closed >= 3);
      }
}
