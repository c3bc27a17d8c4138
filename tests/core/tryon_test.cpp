// The pattern on the body: the skin against the form it is a table of, the sewn mesh against the pieces, and what comes
// of trying on.
#include "tryon/tryon.h"

#include <Eigen/Geometry>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

#include "geometry/hull.h"
#include "measure/measure_table.h"
#include "recalc/recalc.h"
#include "tests/support/bodies.h"
#include "tryon/laid_round.h"
#include "tryon/radial_body.h"
#include "tryon/sewn_pattern.h"
#include "tryon/trial.h"

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

TEST_CASE("the nearest place of the skin is nearest among all of them") {
  const BodyForm form(completeBody(plainFigure()));
  const RadialBody skin(form);
  for (double y = form.top() + 15; y < form.yOf("waist"); y += 23)
    for (double angle = 0.1; angle < 3; angle += 0.37)
      for (const double off : {-9.0, 6.0, 16.0}) {
        const Vector3d p = skin.skin(angle, y, off);
        const RadialBody::Place found = skin.nearest(p);
        double least = HUGE_VAL;
        for (double v = y - 40; v <= y + 40; v += 2)
          for (double a = angle - 0.4; a <= angle + 0.4; a += 0.01)
            least = std::min(least, (p - skin.skin(a, v)).norm());
        CHECK(std::abs(found.depth) < least + 1.5);
        CHECK(std::abs(found.depth) > least - 1.5);
        CHECK((found.depth > 0) == (off < 0));
        CHECK(found.outwards.norm() == Approx(1));
        // Going out by the depth one comes to the skin.
        CHECK(std::abs(skin.place(p + found.depth * found.outwards).depth) < 0.3);
      }
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
  const auto start = laidRound(sewn, design.pattern, skin, form.shoulder(), heights, 4);
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
  const auto start = laidRound(coarse, design.pattern, skin, form.shoulder(), {{"waist", form.yOf("waist")}}, 4);
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
      if (l.level == "waist" || l.level == "bust") CHECK(std::abs(*l.side) < 8);
      if (l.level == "waist" || l.level == "underbust") CHECK(l.pressure > 0.1);
    }
    CHECK(!t.top.empty());
    CHECK(std::is_sorted(t.top.begin(), t.top.end(), [](const auto& a, const auto& b) { return a.angle < b.angle; }));
  }
  CHECK(std::abs(*tries[1].bustPoint) < 10);
  CHECK(*tries[0].bustPoint == Approx(*tries[1].bustPoint).margin(4));
  for (size_t i = 0; i < tries[0].levels.size(); ++i)
    CHECK(*tries[0].levels[i].side == Approx(*tries[1].levels[i].side).margin(4));
}

namespace {

// How far the cloth is bent over at the sharpest side of two triangles, degrees: 180 lies flat on itself.
double sharpestFold(const LaidCloth& laid) {
  double sharpest = 0;
  for (const SewnMesh::Hinge& h : laid.sewn.mesh().hinges) {
    const auto at = [&](size_t i) { return laid.positions[static_cast<size_t>(h.vertices[i])]; };
    const Vector3d along = at(1) - at(0), one = along.cross(at(2) - at(0)), other = (at(3) - at(0)).cross(along);
    sharpest = std::max(sharpest, std::acos(std::clamp(one.dot(other) / (one.norm() * other.norm()), -1.0, 1.0)));
  }
  return sharpest * 180 / pi;
}

// How far two trials of one pattern differ.
void checkAlike(const TryOn& a, const TryOn& b) {
  CHECK(*a.bustPoint == Approx(*b.bustPoint).margin(4));
  for (const LevelSeat& l : a.levels) {
    INFO(l.level);
    const LevelSeat& other = *b.level(l.level);
    CHECK(*l.side == Approx(*other.side).margin(3));
    CHECK(*l.back == Approx(*other.back).margin(3));
    CHECK(l.pressure == Approx(other.pressure).epsilon(0.2));
  }
}

}  // namespace

TEST_CASE("over a deep breast cloth lies smooth and alike, whatever the mesh and the start") {
  Order order;
  order.style = "straight-zip";
  order.measures = measuresOf(realBodies()[50], 140);
  const Design design = recalc(order).value();
  const TryOn t = tryOn(design.pattern, design.body, {}).value();
  CHECK(sharpestFold(*t.laid) < 120);
  const TryOn coarser = tryOn(design.pattern, design.body, {.spacing = 20}).value();
  const TryOn otherStart = tryOn(design.pattern, design.body, {.coarse = 34}).value();
  order.choices["reduction.waist"] = "1 1/2 in";
  order.choices["hold.top"] = "1 in";
  const Design tighter = recalc(order).value();
  const TryOn before = tryOn(tighter.pattern, tighter.body, {.spacing = 20}).value();
  const TryOn afterEdit = tryOn(design.pattern, design.body, {.from = before.laid}).value();
  for (const TryOn* other : {&coarser, &otherStart, &afterEdit}) {
    CHECK(sharpestFold(*other->laid) < 120);
    checkAlike(t, *other);
  }
}

TEST_CASE("the middle of a piece's mesh goes where the piece goes on the paper") {
  const Design design = designed({});
  Pattern moved = design.pattern;
  const Motion there = Motion::translation({300, -40});
  for (Edge& e : moved.pieces.front().edges) e.path = e.path.transformed(there);
  const SewnPattern before(design.pattern, 24), after(moved, 24);
  const std::vector<Vec2> was = middlesOf(before.mesh()), is = middlesOf(after.mesh());
  REQUIRE(was.size() == before.pieces().size());
  for (size_t i = 0; i < was.size(); ++i) {
    const Vec2 by = before.pieces()[i] == 0 ? Vec2{300, -40} : Vec2{0, 0};
    CHECK(distance(is[i], was[i] + by) < 0.5);
  }
}

TEST_CASE("both sides of a seam get as many vertices where one of them is to be finer") {
  const Design design = designed({});
  const SewnPattern plain(design.pattern, 20);
  const Seam& seam = *std::find_if(design.pattern.seams.begin(), design.pattern.seams.end(),
                                   [](const Seam& s) { return s.kind == SeamKind::Plain; });
  const Piece& piece = design.pattern.pieces[seam.a.piece];
  const Path& path = piece.edge(seam.a.chain.front().edge).path;
  const SewnPattern finer(design.pattern, 20, {{seam.a.piece, {20, 8, path.pointAt(path.length() / 2), 50}}});
  const auto countOf = [&](const SewnPattern& sewn, const SeamSide& side) {
    size_t count = 0;
    for (const SewnPattern::Line& l : sewn.lines())
      if (l.piece == side.piece && side.uses(l.edge)) count += l.vertices.size();
    return count;
  };
  CHECK(countOf(finer, seam.a) >= countOf(plain, seam.a) + 5);
  CHECK(countOf(finer, seam.a) - countOf(plain, seam.a) == countOf(finer, seam.b) - countOf(plain, seam.b));
  CHECK(areaOf(finer.mesh()) == Approx(areaOf(plain.mesh())).epsilon(0.002));
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

TEST_CASE("after an edit the trial begins where the cloth lay, and ends where a fresh one does, sooner") {
  const Design before = designed({});
  const TryOn first = tryOn(before.pattern, before.body, {.spacing = 24}).value();
  const Design after = designed({{"hold.top", "1 in"}, {"reduction.waist", "1 in"}});
  const TryOn fresh = tryOn(after.pattern, after.body, {.spacing = 24}).value();
  const TryOn on = tryOn(after.pattern, after.body, {.spacing = 24, .from = first.laid}).value();
  CHECK(on.settled);
  CHECK(on.steps < fresh.steps);
  CHECK(*on.bustPoint == Approx(*fresh.bustPoint).margin(2));
  for (size_t i = 0; i < on.levels.size(); ++i) CHECK(*on.levels[i].side == Approx(*fresh.levels[i].side).margin(2));
  // Another style wears other pieces: it begins anew.
  const Design other = designed({}, "reducing-three-lines");
  CHECK(tryOn(other.pattern, other.body, {.spacing = 24, .from = first.laid}).ok());
}

TEST_CASE("laced with a tension the opening pulls with it, and closes the more the harder") {
  const Design design = designed({}, "straight-laced");
  double before = HUGE_VAL;
  for (const double tension : {1.0, 3.0}) {
    const TryOn t = tryOn(design.pattern, design.body, {.spacing = 24, .laced = tension}).value();
    CHECK(t.settled);
    REQUIRE(t.opening.size() > 6);
    double pull = 0, gap = 0;
    for (size_t i = 2; i + 2 < t.opening.size(); ++i) {  // clear of the corners
      pull += t.opening[i].tension / static_cast<double>(t.opening.size() - 4);
      gap += t.opening[i].gap / static_cast<double>(t.opening.size() - 4);
    }
    CHECK(pull == Approx(tension).epsilon(0.1));
    CHECK(gap > 5);
    CHECK(gap < before - 10);
    before = gap;
  }
  // Given its gap, it keeps it.
  const TryOn given = tryOn(design.pattern, design.body, {.spacing = 24}).value();
  for (const OpeningPull& o : given.opening)
    CHECK(o.gap == Approx(design.pattern.level("waist")->gaps.opening).margin(1e-6));
}

TEST_CASE("a tension for an opening that is not laced is refused") {
  const Design design = designed({});
  const auto tried = tryOn(design.pattern, design.body, {.spacing = 24, .laced = 2.0});
  REQUIRE_FALSE(tried.ok());
  CHECK(english(tried.problem().what).find("lacing") != std::string::npos);
}

TEST_CASE("cloth stays where she was put into it, but for what its girths and lengths ask for") {
  // Friction holds: the waist at the side within 3 mm, on unlike bodies.
  for (const size_t i : {8U, 47U, 101U}) {
    Order order;
    order.style = "straight-zip";
    order.measures = measuresOf(realBodies()[i], 100);
    const Design design = recalc(order).value();
    const TryOn t = tryOn(design.pattern, design.body, {.spacing = 20}).value();
    for (const LevelSeat& l : t.levels)
      if (l.level == "waist") CHECK(std::abs(*l.side) < 3);
  }
}

TEST_CASE("a trial that is stopped says so") {
  const Design design = designed({});
  int asked = 0;
  const auto stopped = tryOn(design.pattern, design.body, {.spacing = 24, .stop = [&] { return ++asked > 3; }});
  REQUIRE_FALSE(stopped.ok());
  CHECK(asked == 4);
  CHECK(english(stopped.problem().what).find("stopped") != std::string::npos);
}

TEST_CASE("the pictures of cloth and skin are whole, and the skin gives where the cloth presses") {
  const Design design = designed({{"reduction.waist", "2 in"}});
  const TryOn t = tryOn(design.pattern, design.body, {.spacing = 24}).value();
  const size_t points = t.cloth.points.size();
  CHECK(points == static_cast<size_t>(t.vertices));
  for (const auto* values : {&t.cloth.off, &t.cloth.pressure, &t.cloth.stretch, &t.cloth.slack})
    CHECK(values->size() == points);
  for (const ClothPicture::Triangle& triangle : t.cloth.triangles) {
    CHECK(triangle.piece < design.pattern.pieces.size());
    for (const int corner : triangle.corners) CHECK(static_cast<size_t>(corner) < points);
  }
  REQUIRE(t.skin.columns > 2);
  CHECK(t.skin.points.size() % t.skin.columns == 0);
  const BodyForm form(design.body);
  const auto widthAt = [&](double y) {
    double wide = 0;
    for (const Vec3& p : t.skin.points)
      if (std::abs(p.y - y) < 4) wide = std::max(wide, p.x);
    return wide;
  };
  CHECK(widthAt(form.yOf("waist")) < form.halfWidth(form.yOf("waist")) - 2);
  CHECK(widthAt(form.yOf("hip")) == Approx(form.halfWidth(form.yOf("hip"))).margin(1));
  for (const auto* line : {&t.top, &t.hem})
    for (const EdgeStand& e : *line) CHECK(e.off == Approx(t.cloth.off[static_cast<size_t>(e.vertex)]).margin(1e-6));
}

TEST_CASE("what goes over the shoulders hangs on them") {
  for (const char* style : {"covered-v", "sweetheart-yoke", "halter"}) {
    INFO(style);
    const Design design = designed({}, style);
    const TryOn t = tryOn(design.pattern, design.body, {.spacing = 24}).value();
    const BodyForm form(design.body);
    const RadialBody skin(form);
    double highest = HUGE_VAL, most = 0;
    for (size_t i = 0; i < t.cloth.points.size(); ++i) {
      const Vec3& p = t.cloth.points[i];
      highest = std::min(highest, p.y);
      // Over the shoulder, between neck and shoulder point: the cloth lies on the body.
      if (p.y < form.shoulder().shoulderPoint.y && p.x < 0.8 * form.shoulder().shoulderPoint.x)
        most = std::max(most, t.cloth.off[i]);
    }
    CHECK(highest < form.shoulder().shoulderPoint.y);
    CHECK(highest > form.highest());
    CHECK(most < 20);
    for (const LevelSeat& l : t.levels)
      if (l.level == "waist") CHECK(std::abs(*l.side) < 20);
    for (const double stretch : t.cloth.stretch) CHECK(stretch < 0.15);
  }
}

TEST_CASE("laid round, shoulder seams lie on the body's shoulders from the shoulder point inwards") {
  const Design design = designed({}, "covered-round");
  const SewnPattern sewn(design.pattern, 14);
  const BodyForm form(design.body);
  const RadialBody skin(form);
  const auto start = laidRound(sewn, design.pattern, skin, form.shoulder(), {{"waist", form.yOf("waist")}}, 4);
  const std::vector<size_t> lines = linesOf(sewn, design.pattern, SeamKind::Shoulder);
  CHECK(lines.size() == 4);
  const Vec3 point = form.shoulder().shoulderPoint, neck = form.shoulder().neckPoint;
  double outermost = 0;
  for (const size_t i : lines)
    for (const int v : sewn.lines()[i].vertices) {
      const Vector3d& p = start[static_cast<size_t>(v)];
      outermost = std::max(outermost, p.x());
      CHECK(p.y() > neck.y - 2);
      CHECK(p.y() < point.y + 2);
      CHECK(std::abs(p.z() - (neck.z + point.z) / 2) < 15);
    }
  CHECK(outermost == Approx(point.x).margin(12));
}
