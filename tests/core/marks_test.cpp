// Marks: places on edges that go where their edges go, and operations that carry every kind of them alike.
#include "pattern/marks.h"

#include "operations/divide.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// 200 mm wide, 100 mm high, its upper left corner at the origin; a notch half way down the right edge.
Piece rectangle() {
  Piece p;
  p.id = "rectangle";
  p.edges = {{"top", EdgeRole::Top, 10, Path::line({0, 0}, {200, 0})},
             {"right", EdgeRole::Seam, 10, Path::line({200, 0}, {200, 100})},
             {"hem", EdgeRole::Hem, 10, Path::line({200, 100}, {0, 100})},
             {"left", EdgeRole::Seam, 10, Path::line({0, 100}, {0, 0})}};
  p.marks = {notchMark("waist", {"right", 50}), levelMark(p, "waist", {0, 50}, {200, 50})};
  p.grainTop = {100, 10};
  p.grainBottom = {100, 90};
  return p;
}

}  // namespace

TEST_CASE("an anchor goes where its edge goes") {
  Piece p = rectangle();
  const Anchor notch = p.marks[0].a;
  CHECK(distance(p.point(notch), {200, 50}) < 1e-9);
  const Motion m = Motion::rotationAbout({30, -10}, 0.7);
  for (Edge& e : p.edges) e.path = e.path.transformed(m);
  CHECK(distance(p.point(notch), m.apply({200, 50})) < 1e-9);
  CHECK(p.level("waist")->width() == Approx(200));
  CHECK_FALSE(p.level("bust"));
}

TEST_CASE("a place in the cloth is kept beside the nearest edge, and turns with it") {
  Piece p = rectangle();
  Dice dice(11);
  for (int i = 0; i < 200; ++i) {
    const Vec2 point{dice.between(1, 199), dice.between(1, 99)};
    const Anchor a = anchorAt(p, point);
    REQUIRE_FALSE(a.onOutline());
    REQUIRE(distance(p.point(a), point) < 1e-6);
    REQUIRE(a.offset.y > 0);  // into the piece
    Piece turned = p;
    const Motion m = Motion::rotationAbout({10, 20}, dice.between(-3, 3));
    for (Edge& e : turned.edges) e.path = e.path.transformed(m);
    REQUIRE(distance(turned.point(a), m.apply(point)) < 1e-6);
  }
}

TEST_CASE("marks follow the map of their edges, and those without a place are returned") {
  Piece p = rectangle();
  p.marks.push_back(notchMark("low", {"right", 90}));
  SECTION("cut off below 80 mm") {
    const auto gone = carryMarks(p, {{"right", 0, 80, "right"}});
    REQUIRE(gone.size() == 1);
    CHECK(gone[0].id == "low");
    CHECK(p.marks.size() == 2);
  }
  SECTION("split at 60 mm") {
    CHECK(carryMarks(p, {{"right", 0, 60, "upper"}, {"right", 60, 100, "lower"}}).empty());
    CHECK(p.marks[0].a.edge == "upper");
    CHECK(p.marks[2].a.edge == "lower");
    CHECK(p.marks[2].a.at == Approx(30));
    CHECK(p.marks[1].b.edge == "upper");  // the level's end went the same way as the notch
  }
  SECTION("twice as long, behind another edge") {
    CHECK(carryMarks(p, {{.was = "right", .is = "whole", .start = 15, .scale = 2}}).empty());
    CHECK(p.marks[0].a.at == Approx(115));
  }
}

TEST_CASE("a level meets the outline where it is redrawn") {
  Piece p = rectangle();
  const LevelLine was = *p.level("waist");
  p.edges[1].path = Path(Cubic{{200, 0}, {240, 30}, {240, 70}, {200, 100}});  // bulges
  settleLevel(p, p.marks[1], was);
  const LevelLine now = *p.level("waist");
  CHECK(now.a == was.a);
  CHECK(now.b.y == Approx(50).margin(1e-6));
  CHECK(now.width() == Approx(230).margin(1e-6));
}

TEST_CASE("a level that is the dividing line itself stays whole, on one side") {
  Pattern pattern;
  pattern.pieces = {rectangle()};
  for (const double lean : {0.0, 1e-7, -1e-7, 1e-3, -1e-3, 0.2}) {
    Pattern p = pattern;
    // From the right to the left: what lies below is on its left.
    const DividingLine line{"waist", "Waist seam",
                            "below", EdgeRole::Seam,
                            10,      {{0, {"right", 50 + lean}, {"left", 50}, Path::line({200, 50 + lean}, {0, 50})}}};
    dividePieces(p, line, {{"skirt", "Skirt", Part::Skirt}});
    REQUIRE(p.pieces.size() == 2);
    INFO(lean);
    REQUIRE(p.pieces[0].level("waist"));
    CHECK(p.pieces[0].level("waist")->width() == Approx(200).margin(1e-3));
    CHECK_FALSE(p.pieces[1].level("waist"));
    CHECK(p.pieces[1].part == Part::Skirt);
    CHECK(std::ranges::distance(p.pieces[1].notches()) == 0);
  }
}

TEST_CASE("in every style each mark lies on its piece, and seams name the notches both sides carry") {
  for (const Preset& style : styleTable())
    for (const char* keep : {"balanced", "drafted"}) {
      Order o = plainOrder();
      o.style = style.id;
      o.choices["balance.keep"] = keep;
      const Design d = designOf(o);
      INFO(style.id << " " << keep);
      REQUIRE_FALSE(patternProblem(d.pattern));
      for (const Piece& p : d.pattern.pieces) {
        for (const LevelLine& l : p.levelLines()) REQUIRE(l.width() > 0);
        for (const Mark& m : p.marks) REQUIRE((m.a.onOutline() && (m.isNotch() || m.b.onOutline())));
      }
      if (std::string(keep) == "balanced")
        for (const Seam& s : d.pattern.seams) {
          const std::vector<SeamNotch> both = notchesOf(d.pattern, s);
          REQUIRE(both.size() == s.notches.size());
          for (size_t i = 0; i < both.size(); ++i) {
            REQUIRE(both[i].id == s.notches[i].id);
            REQUIRE(both[i].a == Approx(s.notches[i].a).margin(1e-6));
            REQUIRE(both[i].b == Approx(s.notches[i].b).margin(1e-6));
          }
        }
    }
}
