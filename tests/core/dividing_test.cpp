// Dividing pieces along a line and joining them again: nothing is lost, nothing moves that should not.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "cutting/cutting.h"
#include "operations/crossing.h"
#include "operations/divide.h"
#include "operations/join.h"
#include "parts/cups/cup_line.h"
#include "pattern/marks.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Pattern panelsOf(const Design& d) {
  auto cut = cutPieces(d.block, d.rules);
  if (!cut.ok()) FAIL(cut.problem().text());
  return std::move(cut).value();
}

double areaOf(const Piece& p) { return signedArea(p.outline(0.002)); }

double areaOf(const Pattern& pattern) {
  double sum = 0;
  for (const Piece& p : pattern.pieces) sum += areaOf(p);
  return sum;
}

std::map<std::string, double> widthsOf(const Pattern& pattern) {
  std::map<std::string, double> widths;
  for (const Piece& p : pattern.pieces)
    for (const LevelLine& m : p.levelLines()) widths[m.level] += m.width() * p.girthWeight();
  return widths;
}

Edge edgeOf(std::string id, EdgeRole role, Path path) { return {std::move(id), role, 10, std::move(path)}; }

// 200 by 100 mm, its right edge sewn to a second one.
Pattern twoRectangles() {
  const auto rectangle = [](std::string id, double x) {
    Piece p;
    p.name = verbatim(id);
    p.id = std::move(id);
    p.edges = {edgeOf("top", EdgeRole::Top, Path::line({x, 0}, {x + 200, 0})),
               edgeOf("right", EdgeRole::Seam, Path::line({x + 200, 0}, {x + 200, 100})),
               edgeOf("hem", EdgeRole::Hem, Path::line({x + 200, 100}, {x, 100})),
               edgeOf("left", EdgeRole::Seam, Path::line({x, 100}, {x, 0}))};
    p.grainTop = {x + 100, 10};
    p.grainBottom = {x + 100, 90};
    return p;
  };
  Pattern out;
  out.pieces = {rectangle("one", 0), rectangle("two", 300)};
  out.pieces[0].marks = {notchMark("waist", {"right", 70}), levelMark(out.pieces[0], "waist", {0, 70}, {200, 70})};
  out.pieces[1].marks = {notchMark("waist", {"left", 30}), levelMark(out.pieces[1], "waist", {300, 70}, {500, 70})};
  out.seams = {{"middle", "Middle seam", {0, {{"right", false}}}, {1, {{"left", true}}}, {}, {{"waist", 70, 70}}}};
  return out;
}

}  // namespace

TEST_CASE("a line across two pieces and their seam divides all three") {
  Pattern p = twoRectangles();
  DividingLine yoke{"yoke", "Yoke seam", "in the yoke", EdgeRole::Yoke, 6, {}};
  yoke.through = {{0, {"left", 60}, {"right", 40}, Path::line({0, 40}, {200, 40})},
                  {1, {"left", 60}, {"right", 40}, Path::line({300, 40}, {500, 40})}};
  dividePieces(p, yoke, {{"yoke-one", "Yoke one"}, {"yoke-two", "Yoke two"}});
  REQUIRE(p.pieces.size() == 4);
  CHECK(areaOf(p.pieces[0]) == Approx(200 * 60));
  CHECK(areaOf(p.pieces[2]) == Approx(200 * 40));
  REQUIRE(p.seams.size() == 4);
  const Seam &below = *p.seam("middle"), &above = *p.seam("middle-yoke");
  CHECK(p.sidePath(below.a).length() == Approx(60));
  CHECK(p.sidePath(above.b).length() == Approx(40));
  CHECK(english(above.name) == "Middle seam in the yoke");
  // The notch stays where it was on the paper.
  REQUIRE(below.notches.size() == 1);
  CHECK(below.notches[0].a == Approx(30));
  CHECK(above.notches.empty());
  CHECK(p.pieces[0].level("waist"));
  CHECK_FALSE(p.pieces[2].level("waist"));
  for (const char* id : {"yoke-1", "yoke-2"}) {
    const Seam& s = *p.seam(id);
    CHECK(p.sidePath(s.a).length() == Approx(200));
    CHECK(distance(p.sidePath(s.a).start(), p.sidePath(s.b).start()) < 1e-9);
  }
}

TEST_CASE("where a line cuts one side of a seam only, the other side gets a corner there") {
  Pattern p = twoRectangles();
  DividingLine line{"insert", "Insert seam", "in the insert", EdgeRole::Seam, 6, {}};
  line.through = {{0, {"top", 120}, {"right", 40}, Path::line({120, 0}, {200, 40})}};
  dividePieces(p, line, {{"insert", "Insert"}});
  REQUIRE(p.pieces.size() == 3);
  const Seam &below = *p.seam("middle"), &above = *p.seam("middle-insert");
  CHECK(p.sidePath(above.a).length() == Approx(40));
  CHECK(p.sidePath(above.b).length() == Approx(40));
  CHECK(above.b.piece == 1);
  CHECK(below.b.piece == 1);
  CHECK(above.b.chain.front().edge != below.b.chain.front().edge);
  CHECK(p.pieces[1].edges.size() == 5);
  CHECK(p.sidePath(above.b).end() == p.sidePath(below.b).start());
  CHECK(p.sidePath(below.b).length() + p.sidePath(above.b).length() == Approx(100).epsilon(1e-12));
}

TEST_CASE("a line that does not end on the outline is a mistake of the program") {
  Pattern p = twoRectangles();
  DividingLine line{
      "x", "X", "in x", EdgeRole::Seam, 6, {{0, {"left", 60}, {"right", 40}, Path::line({5, 40}, {200, 40})}}};
  CHECK_THROWS_AS(dividePieces(p, line, {{"a", "A"}}), std::invalid_argument);
  line.through[0].path = Path::line({0, 40}, {200, 40});
  CHECK_THROWS_AS(dividePieces(p, line, {}), std::invalid_argument);
}

TEST_CASE("dividing along the cup line keeps every length, width, notch and all of the cloth") {
  const std::vector<RealBody> bodies = realBodies();
  for (size_t b = 0; b < bodies.size(); b += 9)
    for (double cup : {50.0, 95.0, 140.0}) {
      INFO("body " << b << ", cup " << cup);
      Order order;
      order.measures = measuresOf(bodies[b], cup);
      order.choices["cup.kind"] = "two";
      const Design d = designOf(order);
      const Pattern before = panelsOf(d);
      Pattern after = before;
      const auto line = cupLine(before, d.block, d.body, d.rules);
      REQUIRE(line.ok());
      dividePieces(after, {"cup", "Cup line", "in the cup", EdgeRole::Cup, 6, line->through},
                   {{"cup-inner", "Inner cup"}, {"cup-outer", "Outer cup"}});
      CHECK(areaOf(after) == Approx(areaOf(before)).epsilon(1e-6));
      const auto was = widthsOf(before), is = widthsOf(after);
      for (const auto& [level, width] : was) CHECK(is.at(level) == Approx(width).epsilon(1e-9));
      for (const Seam& s : before.seams)
        for (auto side : {&Seam::a, &Seam::b}) {
          double sum = 0;
          for (const Seam& t : after.seams)
            if (t.id == s.id || t.id == s.id + "-cup") sum += after.sidePath(t.*side).length();
          CHECK(sum == Approx(before.sidePath(s.*side).length()).epsilon(1e-10));
        }
      // Both sides of the cup line are one line.
      for (const char* id : {"cup-1", "cup-2"}) {
        const Seam& s = *after.seam(id);
        CHECK(after.sidePath(s.a).length() == Approx(after.sidePath(s.b).length()).epsilon(1e-10));
      }
      // It crosses the closed princess seam without a kink, in the cup and in the frame.
      for (const auto& [id, atTop] : {std::pair{"princess-cup", false}, {"princess", true}})
        CHECK(std::abs(turnAcross(after, *after.seam(id), atTop)) < 1e-6);
    }
}

TEST_CASE("joining what was divided gives the piece back") {
  Pattern p = twoRectangles();
  DividingLine line{"cut",   "Cut",
                    "above", EdgeRole::Seam,
                    6,       {{0, {"left", 60}, {"right", 40}, Path(Cubic{{0, 40}, {60, 70}, {140, 10}, {200, 40}})}}};
  dividePieces(p, line, {{"upper", "Upper"}});
  const Joined done = joinPieces(p, "cut", "One");
  CHECK(done.gap < 1e-9);
  CHECK(done.shift < 1e-9);
  REQUIRE(p.pieces.size() == 2);
  CHECK(areaOf(p.pieces[0]) == Approx(20000));
  uniteSeams(p, "there");
  REQUIRE(p.seams.size() == 1);
  const Seam& s = p.seams.front();
  CHECK(p.sidePath(s.a).length() == Approx(100));
  CHECK(p.sidePath(s.b).length() == Approx(100));
  REQUIRE(s.notches.size() == 2);
  CHECK(s.notches[0].id == "there");
}

TEST_CASE("closing a seam for good is a rigid motion of the second piece") {
  // A wedge of 20 degrees between two pieces that meet at the lower end of their seam.
  Pattern p = twoRectangles();
  const Vec2 pivot{300, 100};
  const Motion lean = Motion::rotationAbout(pivot, 0.35);
  for (Edge& e : p.pieces[1].edges) e.path = e.path.transformed(lean);
  const Pattern before = p;
  const Joined done = joinPieces(p, "middle", "Whole");
  CHECK(done.gap < 1e-9);
  REQUIRE(p.pieces.size() == 1);
  const Piece& whole = p.pieces.front();
  CHECK(areaOf(whole) == Approx(40000));
  // Straight again: top and hem are one edge each, and the level runs on.
  CHECK(whole.edges.size() == 4);
  CHECK(whole.edge("top").path.length() == Approx(400));
  REQUIRE(whole.level("waist"));
  CHECK(whole.level("waist")->width() == Approx(400));
  CHECK_THROWS_AS(joinPieces(p, "middle", "Again"), std::out_of_range);
}
