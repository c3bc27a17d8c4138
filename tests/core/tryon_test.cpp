// The pattern on the body: the skin against the form it is a table of, the sewn mesh against the pieces, and what comes
// of trying on.
#include "tryon/tryon.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

#include "geometry/hull.h"
#include "recalc/recalc.h"
#include "tests/support/bodies.h"
#include "tryon/laid_round.h"
#include "tryon/radial_body.h"
#include "tryon/sewn_pattern.h"

using namespace armure;
using namespace armure::testing;
using Eigen::Vector3d;
using std::numbers::pi;

namespace {

// mm2, by the shoelace formula.
double areaOf(const Polyline& outline) {
  double sum = 0;
  for (size_t i = 0; i < outline.size(); ++i) sum += cross(outline[i], outline[(i + 1) % outline.size()]) / 2;
  return std::abs(sum);
}

double areaOf(const SewnMesh& mesh) {
  double sum = 0;
  for (const double a : mesh.areas()) sum += a;
  return sum;
}

Design designed(std::initializer_list<std::pair<const char*, const char*>> choices,
                const char* style = "straight-zip") {
  Order order = orderWith(choices);
  order.style = style;
  return recalc(order).value();
}

}  // namespace

TEST_CASE("the skin is as large round as the form it was made from") {
  for (const RealBody& b : {realBodies()[3], realBodies()[90]}) {
    const BodyForm form(completeBody(measuresOf(b, 100)));
    const RadialBody skin(form);
    // Steep breasts and their lower end are rounded by the table.
    for (const auto& [level, margin] :
         {std::pair{"upper_bust", 0.1}, {"bust", 4.0}, {"underbust", 8.0}, {"waist", 0.1}, {"high_hip", 0.1}}) {
      Polyline ring;
      for (int i = -360; i < 360; ++i) {
        const Vector3d p = skin.skin(pi * i / 360, form.yOf(level));
        ring.push_back({p.x(), p.z()});
      }
      CHECK(ringLength(convexHull(ring)) == Approx(form.tape(form.yOf(level))).margin(margin));
    }
  }
}

TEST_CASE("how deep a place lies under the skin, and which way is out") {
  const BodyForm form(completeBody(plainFigure()));
  const RadialBody skin(form);
  for (double y = form.top() + 20; y < form.bottom() - 20; y += 17)
    for (double angle = 0.05; angle < pi; angle += 0.31) {
      CHECK(skin.place(skin.skin(angle, y)).depth == Approx(0).margin(1e-9));
      CHECK(skin.place(skin.skin(angle, y)).angle == Approx(angle).margin(1e-9));
      const Vector3d inside = skin.skin(angle, y, -1);
      const RadialBody::Place place = skin.place(inside);
      CHECK(place.depth > 0);
      CHECK(place.outwards.norm() == Approx(1));
      // Going out by the depth one comes to the skin.
      CHECK(std::abs(skin.place(inside + place.depth * place.outwards).depth) < 0.15);
    }
  // Both sides are alike.
  const Vector3d p{60, form.yOf("waist"), 70}, mirrored{-60, form.yOf("waist"), 70};
  CHECK(skin.place(p).depth == Approx(skin.place(mirrored).depth));
  CHECK(skin.place(p).outwards.x() == Approx(-skin.place(mirrored).outwards.x()));
}

TEST_CASE("the shell of every style is sewn: its whole area, and loose only where it has no seam") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    const Design design = designed({}, std::string(style.id).c_str());
    const SewnPattern sewn(design.pattern, 24);
    double area = 0;
    for (const size_t i : sewn.pieces()) area += areaOf(design.pattern.pieces[i].outline(0.05));
    for (const size_t i : sewn.pieces())
      for (const Dart& d : design.pattern.pieces[i].darts) {
        Polyline wedge = d.legs[0].path.flattened(0.05);
        const Polyline back = d.legs[1].path.flattened(0.05);
        wedge.insert(wedge.end(), back.begin(), back.end());
        area -= areaOf(wedge);
      }
    CHECK(areaOf(sewn.mesh()) == Approx(area).epsilon(0.01));

    // Every side of a triangle that no other has lies on a line without a seam.
    std::map<std::pair<int, int>, int> sides;
    for (const SewnMesh::Triangle& t : sewn.mesh().triangles)
      for (size_t i = 0; i < 3; ++i) ++sides[std::minmax(t.vertices[i], t.vertices[(i + 1) % 3])];
    std::set<int> loose;
    std::set<std::pair<size_t, std::string>> inSeams;
    const auto isWorn = [&](size_t piece) { return std::ranges::count(sewn.pieces(), piece) > 0; };
    for (const Seam& s : design.pattern.seams)
      if (isWorn(s.a.piece) && isWorn(s.b.piece))
        for (const SeamSide* side : {&s.a, &s.b})
          for (const EdgeUse& use : side->chain) inSeams.insert({side->piece, use.edge});
    for (const SewnPattern::Line& l : sewn.lines())
      if (!inSeams.contains({l.piece, l.edge})) loose.insert(l.vertices.begin(), l.vertices.end());
    int torn = 0;
    for (const auto& [side, count] : sides) {
      CHECK(count <= 2);
      if (count == 1 && !(loose.contains(side.first) && loose.contains(side.second))) ++torn;
    }
    CHECK(torn == 0);
  }
}

TEST_CASE("cloth laid round the body begins with its levels where the body has them") {
  const Design design = designed({});
  const SewnPattern sewn(design.pattern, 14);
  const BodyForm form(design.body);
  const RadialBody skin(form);
  const std::vector<LevelHeight> heights{{"bust", form.yOf("bust")}, {"waist", form.yOf("waist")}};
  const auto start = laidRound(sewn, design.pattern, skin, heights, 4);
  for (const size_t i : sewn.pieces())
    for (const Mark& m : design.pattern.pieces[i].levelMarks())
      for (const LevelHeight& h : heights) {
        if (h.level != m.id) continue;
        const auto spot = sewn.spot(i, m.a);
        REQUIRE(spot);
        const double y = (1 - spot->part) * start[static_cast<size_t>(spot->from)].y() +
                         spot->part * start[static_cast<size_t>(spot->to)].y();
        CHECK(y == Approx(h.y).margin(3));
      }
  for (const int v : centreVertices(sewn, design.pattern, Half::Front))
    CHECK(std::abs(start[static_cast<size_t>(v)].x()) < 3);
  for (const int v : centreVertices(sewn, design.pattern, Half::Back)) {
    CHECK(std::abs(start[static_cast<size_t>(v)].x()) < 3);
    CHECK(start[static_cast<size_t>(v)].z() < 0);
  }
}

TEST_CASE("carried over to another mesh, cloth lies where it lay") {
  const Design design = designed({});
  const SewnPattern coarse(design.pattern, 24), fine(design.pattern, 12);
  const BodyForm form(design.body);
  const RadialBody skin(form);
  const auto start = laidRound(coarse, design.pattern, skin, {{"waist", form.yOf("waist")}}, 4);
  const auto same = carriedOver(coarse, start, coarse);
  for (size_t i = 0; i < start.size(); ++i) CHECK((same[i] - start[i]).norm() < 1e-6);
  const auto finer = carriedOver(coarse, start, fine);
  for (const Vector3d& p : finer) {
    double nearest = HUGE_VAL;
    for (const Vector3d& q : start) nearest = std::min(nearest, (p - q).norm());
    CHECK(nearest < 24);
  }
}

TEST_CASE("tried on, a bodice keeps its waist at the waist, whatever the mesh") {
  const Design design = designed({});
  std::vector<TryOn> tries;
  for (const double spacing : {24.0, 16.0})
    tries.push_back(tryOn(design.pattern, design.body, {.spacing = spacing}).value());
  for (const TryOn& t : tries) {
    CHECK(t.settled);
    REQUIRE(t.levels.size() >= 4);
    REQUIRE(t.bustPoint);
    for (const LevelSeat& l : t.levels) {
      INFO(l.level);
      REQUIRE(l.side);
      if (l.level == "waist") CHECK(std::abs(*l.side) < 12);
      if (l.level == "waist" || l.level == "underbust") CHECK(l.pressure > 0.1);
    }
    CHECK(!t.top.empty());
    CHECK(std::is_sorted(t.top.begin(), t.top.end(), [](const auto& a, const auto& b) { return a.angle < b.angle; }));
  }
  CHECK(*tries[0].bustPoint == Approx(*tries[1].bustPoint).margin(4));
  for (size_t i = 0; i < tries[0].levels.size(); ++i)
    CHECK(*tries[0].levels[i].side == Approx(*tries[1].levels[i].side).margin(4));
}

TEST_CASE("a waist reduced further presses more") {
  double before = 0;
  for (const char* reduction : {"0 in", "1 in", "2 1/2 in"}) {
    const Design design = designed({{"reduction.waist", reduction}});
    const TryOn t = tryOn(design.pattern, design.body, {.spacing = 24}).value();
    for (const LevelSeat& l : t.levels)
      if (l.level == "waist") {
        CHECK(l.pressure > before);
        before = l.pressure;
      }
  }
}

TEST_CASE("what goes over the shoulders is not tried on, and it is said why") {
  const Design design = designed({}, "covered-round");
  const auto tried = tryOn(design.pattern, design.body, {});
  REQUIRE_FALSE(tried.ok());
  CHECK(english(tried.problem().what).find("shoulder") != std::string::npos);
  CHECK_FALSE(tried.problem().remedy.empty());
}
