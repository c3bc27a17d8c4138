// Walking seams, and the balance sheet: that it passes what fits and fails what does not.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "balance/fit.h"
#include "balance/walk.h"
#include "geometry/spline.h"
#include "pattern/marks.h"
#include "prepare/cut_outlines.h"
#include "sheet/sheet.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

// Two rectangles 100 wide and 300 high, sewn along x = 100; side by side.
Pattern twoPanels() {
  Pattern p;
  const auto panel = [](std::string id, int number, double x, std::string left, std::string right, EdgeRole leftRole,
                        EdgeRole rightRole) {
    Piece piece;
    piece.name = verbatim(id);
    piece.id = std::move(id);
    piece.number = number;
    piece.of = 2;
    piece.grainTop = {x + 50, 50};
    piece.grainBottom = {x + 50, 250};
    piece.edges = {{"top", EdgeRole::Top, 10, Path::line({x, 0}, {x + 100, 0})},
                   {std::move(right), rightRole, 10, Path::line({x + 100, 0}, {x + 100, 300})},
                   {"hem", EdgeRole::Hem, 10, Path::line({x + 100, 300}, {x, 300})},
                   {std::move(left), leftRole, 10, Path::line({x, 300}, {x, 0})}};
    piece.marks = {levelMark(piece, "waist", {x, 200}, {x + 100, 200})};
    return piece;
  };
  p.pieces = {panel("left", 1, 0, "outer", "middle", EdgeRole::Opening, EdgeRole::Seam),
              panel("right", 2, 110, "middle", "outer", EdgeRole::Seam, EdgeRole::Opening)};
  for (size_t i : {0u, 1u}) {
    std::vector<Mark>& marks = p.pieces[i].marks;
    marks.insert(marks.begin(), {notchMark("underbust", {"middle", i == 0 ? 120.0 : 180.0}),
                                 notchMark("waist", {"middle", i == 0 ? 200.0 : 100.0})});
  }
  p.seams = {{"middle",
              "Middle seam",
              {0, {{"middle", false}}},
              {1, {{"middle", true}}},
              {},
              {{"underbust", 120, 120}, {"waist", 200, 200}}}};
  p.levels = {{.id = "waist", .name = "Waist", .bodyGirth = 400, .finishedGirth = 400, .ring = true}};
  return p;
}

Sheet sheetOf(const Pattern& p, const std::vector<Intake>& intakes = {}) {
  return balanceSheet({p, cutOutlines(p), intakes, *resolveBody(plainFigure())});
}

bool fails(const Sheet& s, CheckKind kind) {
  for (const CheckRow& r : s.rows)
    if (r.kind == kind && r.fails()) return true;
  return false;
}

bool advises(const Sheet& s, CheckKind kind) {
  for (const CheckRow& r : s.rows)
    if (r.kind == kind && r.verdict == Verdict::Advice && !r.remedy.empty()) return true;
  return false;
}

Edge& edge(Pattern& p, size_t piece, const std::string& id) {
  for (Edge& e : p.pieces[piece].edges)
    if (e.id == id) return e;
  throw std::out_of_range(id);
}

}  // namespace

TEST_CASE("a seam is walked notch by notch from its upper end") {
  Pattern p = twoPanels();
  p.pieces[1].marks[1].a.at = 97;  // the waist notch of the right piece 3 mm lower
  const Walk w = walk(p, p.seams[0]);
  REQUIRE(w.stretches.size() == 3);
  CHECK(w.stretches[0].from == "top");
  CHECK(w.stretches[0].mismatch() == Approx(0).margin(1e-9));
  CHECK(w.stretches[1].to == "waist");
  CHECK(w.stretches[1].mismatch() == Approx(-3));
  CHECK(w.stretches[2].mismatch() == Approx(3));
  CHECK(w.mismatch() == Approx(0).margin(1e-9));
  p.seams[0].b.chain[0].edge = "nowhere";
  CHECK_THROWS_AS(walk(p, p.seams[0]), std::out_of_range);
}

TEST_CASE("what fits passes every check") {
  const Sheet s = sheetOf(twoPanels());
  for (const CheckRow& r : s.rows) {
    INFO(r.subject << " " << r.amount);
    CHECK_FALSE(r.fails());
  }
  CHECK(s.pass());
}

// Each way a pattern can be wrong must be seen by the check that is there for it.
TEST_CASE("the sheet fails what does not fit") {
  SECTION("a stretch") {
    Pattern p = twoPanels();
    p.pieces[1].marks[0].a.at += 0.6;
    CHECK(fails(sheetOf(p), CheckKind::Stretch));
    CHECK_FALSE(fails(sheetOf(p), CheckKind::Seam));
  }
  SECTION("within the limit it passes") {
    Pattern p = twoPanels();
    p.pieces[1].marks[0].a.at += 0.4;
    CHECK_FALSE(fails(sheetOf(p), CheckKind::Stretch));
  }
  SECTION("a whole seam and its corner") {
    Pattern p = twoPanels();
    edge(p, 1, "middle").path = Path::line({110, 302}, {110, 0});
    edge(p, 1, "hem").path = Path::line({210, 300}, {110, 302});
    for (Mark& n : p.pieces[1].notches()) n.a.at += 2;
    CHECK(fails(sheetOf(p), CheckKind::Seam));
    CHECK(fails(sheetOf(p), CheckKind::Corner));
  }
  SECTION("a girth") {
    Pattern p = twoPanels();
    p.levels[0].finishedGirth = 401;
    CHECK(fails(sheetOf(p), CheckKind::Girth));
    p.levels[0].gaps.opening = 1;
    CHECK_FALSE(fails(sheetOf(p), CheckKind::Girth));
  }
  SECTION("a join") {
    Pattern p = twoPanels();
    edge(p, 1, "top").path = Path::line({110, 0}, {210, -10});
    edge(p, 1, "outer").path = Path::line({210, -10}, {210, 300});
    CHECK(fails(sheetOf(p), CheckKind::Join));
  }
  SECTION("a bend that is too tight, and one that wiggles") {
    Pattern p = twoPanels();
    edge(p, 0, "middle").path = Path(std::vector<Cubic>{{{100, 0}, {100, 60}, {100, 90}, {100, 100}},
                                                        {{100, 100}, {100, 108}, {92, 108}, {92, 116}},
                                                        {{92, 116}, {92, 120}, {100, 200}, {100, 300}}});
    CHECK(advises(sheetOf(p), CheckKind::Curve));
    std::vector<Station> wiggle;
    for (int i = 0; i < 9; ++i) wiggle.push_back({i * 300.0 / 8, 100.0 + (i % 2) * 6});
    edge(p, 0, "middle").path = monotonePath(wiggle);
    CHECK(advises(sheetOf(p), CheckKind::Curve));
  }
  SECTION("edges that do not meet, an outline that crosses itself") {
    Pattern p = twoPanels();
    const std::vector<Polyline> cut = cutOutlines(p);
    edge(p, 0, "hem").path = Path::line({100, 300.001}, {0, 300});
    CHECK(fails(balanceSheet({p, cut, {}, *resolveBody(plainFigure())}), CheckKind::Piece));
    Pattern q = twoPanels();
    edge(q, 0, "outer").path = Path(Cubic{{0, 300}, {400, 200}, {400, 100}, {0, 0}});
    CHECK(fails(balanceSheet({q, cut, {}, *resolveBody(plainFigure())}), CheckKind::Piece));
  }
  SECTION("a piece too narrow to sew") {
    Pattern p = twoPanels();
    p.pieces[0].marks.back().b = anchorAt(p.pieces[0], {15, 200});
    CHECK(advises(sheetOf(p), CheckKind::Piece));
    p.pieces[0].marks.back().b = anchorAt(p.pieces[0], {5, 200});
    CHECK(fails(sheetOf(p), CheckKind::Piece));
  }
  SECTION("an intake beyond its cap") {
    CHECK(advises(sheetOf(twoPanels(), {{"front", "princess", "waist", 40, 38}}), CheckKind::Intake));
    CHECK_FALSE(advises(sheetOf(twoPanels(), {{"front", "princess", "waist", 38, 38}}), CheckKind::Intake));
  }
  SECTION("front and back sides of different shape") {
    Pattern p = twoPanels();
    p.pieces[0].half = Half::Front;
    p.pieces[1].half = Half::Back;  // so that their seam is the side
    CHECK_FALSE(fails(sheetOf(p), CheckKind::Sides));
    // As wide at the waist, but hollow above it.
    edge(p, 0, "middle").path =
        Path(Cubic{{100, 0}, {20, 60}, {20, 140}, {100, 200}}) + Path::line({100, 200}, {100, 300});
    p.pieces[0].marks.back() = levelMark(p.pieces[0], "waist", {0, 200}, {100, 200});
    CHECK(fails(sheetOf(p), CheckKind::Sides));
  }
}

TEST_CASE("failing rows stand first, say what would mend them, and know where they are") {
  const Design d = *recalc(plainOrder());
  REQUIRE(d.sheet.failing() > 0);
  bool passed = false;
  for (const CheckRow& r : d.sheet.rows) {
    const bool failing = r.fails();
    if (!failing) passed = true;
    if (failing) {
      CHECK_FALSE(passed);
      CHECK_FALSE(r.remedy.empty());
      CHECK_FALSE((r.piece + r.level).empty());
    }
  }
}

TEST_CASE("every estimated measure stands in the sheet") {
  Order o;
  o.measures = inInches({{"bust", 36}, {"waist", 28}, {"hip", 38}, {"stature", 66}});
  const Design d = *recalc(o);
  size_t facts = 0, estimated = 0;
  for (const CheckRow& r : d.sheet.rows) facts += r.kind == CheckKind::Facts;
  for (const Fact& f : d.body.facts()) estimated += f.source == Source::Estimated;
  CHECK(facts == estimated);
  CHECK(facts > 5);
}

TEST_CASE("top edge and hem cross every seam without a kink, over random bodies") {
  std::vector<double> turns;
  double corner = 0;
  for (const Order& o : randomOrders(150, 31)) {
    const auto d = recalc(o);
    if (!d.ok()) continue;
    for (const CheckRow& r : d->sheet.rows)
      if (r.kind == CheckKind::Join) {
        turns.push_back(r.amount);
      } else if (r.kind == CheckKind::Corner) {
        corner = std::max(corner, r.amount);
      }
  }
  CHECK(corner < 1e-6);
  // Drawn against the first half stitch of the seam: where the seam bends at its very end the tangents differ a little.
  std::sort(turns.begin(), turns.end());
  CHECK(turns[turns.size() / 2] < 0.5);
  CHECK(turns.back() < 2);
}

TEST_CASE("a line laid on a moved copy of itself lies on it exactly") {
  const Path a(Cubic{{0, 0}, {30, 50}, {-10, 120}, {20, 200}});
  const Motion m = Motion::rotationAbout({40, 80}, 0.7).then(Motion::translation({300, -20}));
  CHECK(shapeDifference(a, a.transformed(m)) < 1e-8);
  CHECK(distance(bestFit(a, a.transformed(m)).apply(m.apply({5, 6})), {5, 6}) < 1e-8);
}
