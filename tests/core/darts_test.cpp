// Darts as parts of a piece: slit and closed again, walked, balanced, counted in the widths, cut with a roof.
#include "operations/darts.h"

#include <fmt/format.h>

#include <cmath>

#include "balance/balance.h"
#include "operations/divide.h"
#include "operations/join.h"
#include "operations/pivot.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "prepare/cut_outlines.h"
#include "prepare/marks.h"
#include "sheet/measure.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// The plain bodice as drafted with a two-pointed dart in the middle of its first back piece, `width` wide at the waist
// and 60 mm long above and below; the left leg bulges by `bulge` more, so that it is the longer one.
struct Darted {
  Pattern pattern;
  size_t piece = 0;
};
Darted withPointedDart(double width, double bulge) {
  Darted out{designOf(orderWith({{"balance.keep", "drafted"}})).pattern, 0};
  for (size_t i = 0; i < out.pattern.pieces.size(); ++i)
    if (out.pattern.pieces[i].id == "back-1") out.piece = i;
  const LevelLine waist = *out.pattern.pieces[out.piece].level(level::kWaist);
  const Vec2 middle = lerp(waist.a, waist.b, 0.5), half = width / 2 * unit(waist.b - waist.a);
  const Vec2 up = middle - Vec2{0, 60}, down = middle + Vec2{0, 60}, left = middle - half, right = middle + half;
  const auto leg = [&](Vec2 at, double by) {
    const Vec2 aside{by, 0};
    return Path({Cubic{up, lerp(up, at, 1.0 / 3) + aside, at - Vec2{0, 20}, at},
                 Cubic{at, at + Vec2{0, 20}, lerp(down, at, 1.0 / 3) + aside, down}});
  };
  cutPointedDart(out.pattern, out.piece, {"dart-back", "Back dart", leg(left, -bulge), leg(right, 0)});
  return out;
}

}  // namespace

TEST_CASE("a dart pointed at both ends is a sound part of its piece: its legs are found, walked and counted") {
  const Darted d = withPointedDart(18, 0);
  const Piece& piece = d.pattern.pieces[d.piece];
  CHECK_FALSE(patternProblem(d.pattern));
  CHECK(piece.lines() == piece.edges.size() + 2);
  CHECK(piece.next(piece.edges.size()) == piece.edges.size() + 1);  // down the one leg, up the other
  CHECK(piece.next(piece.edges.size() + 1) == piece.edges.size());
  CHECK(piece.previous(piece.edges.size()) == piece.edges.size() + 1);
  const Seam* seam = d.pattern.seam("dart-back");
  REQUIRE(seam);
  CHECK(seam->kind == SeamKind::Dart);
  REQUIRE(seam->notches.size() == 1);  // the waist
  const MeasuredSeam walked = measureSeam(d.pattern, *seam);
  CHECK(walked.a.length == Approx(walked.b.length).margin(1e-9));
  const LevelLine waist = *piece.level(level::kWaist);
  CHECK(piece.taken(waist) == Approx(18).margin(1e-9));
  CHECK(piece.taken(*piece.level(level::kUnderbust)) == 0);
}

TEST_CASE("what a dart takes is missing in the girth, in the pattern's sum and in the sheet's own") {
  const Darted d = withPointedDart(18, 0);
  const Pattern plain = designOf(orderWith({{"balance.keep", "drafted"}})).pattern;
  for (size_t i = 0; i < plain.levels.size(); ++i) {
    if (!plain.levels[i].ring) continue;
    const double missing = plain.levels[i].id == level::kWaist ? 2 * 18 : 0;
    INFO(plain.levels[i].id);
    CHECK(plain.closedGirth(plain.levels[i]) - d.pattern.closedGirth(d.pattern.levels[i]) ==
          Approx(missing).margin(1e-6));
    CHECK(measureGirth(plain, plain.levels[i]) - measureGirth(d.pattern, d.pattern.levels[i]) ==
          Approx(missing).margin(1e-3));
  }
}

TEST_CASE("balancing gives the girth back that a dart takes, and makes both its legs equally long") {
  Dice dice(5);
  for (int i = 0; i < 12; ++i) {
    const double width = dice.between(4, 14), bulge = dice.between(0, 4);
    INFO(width << " mm wide, bulging by " << bulge);
    const Darted d = withPointedDart(width, bulge);
    const Balanced b = balance(d.pattern, {}, {});
    REQUIRE(b.certificate.converged);
    REQUIRE(b.unreachable.empty());
    CHECK_FALSE(patternProblem(b.pattern));
    const Piece& piece = b.pattern.pieces[d.piece];
    CHECK(piece.darts[0].legs[0].path.length() == Approx(piece.darts[0].legs[1].path.length()).margin(1e-6));
    for (const PatternLevel& l : b.pattern.levels)
      if (l.ring) {
        INFO(l.id);
        CHECK(b.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.1));  // the dart's part to first order
        CHECK(measureGirth(b.pattern, l) == Approx(l.finishedGirth).margin(0.1));
      }
    CHECK(std::any_of(b.moves.begin(), b.moves.end(), [](const EdgeMove& m) { return m.edge == "dart-back-1"; }));
  }
}

TEST_CASE("a leg that is held stays, and the other comes to it") {
  const Darted d = withPointedDart(10, 4);
  BalanceOptions options;
  options.locks.insert({"back-1", "dart-back-1"});
  const Balanced b = balance(d.pattern, options, {});
  REQUIRE(b.certificate.converged);
  const Piece &was = d.pattern.pieces[d.piece], &is = b.pattern.pieces[d.piece];
  CHECK(is.edge("dart-back-1").path.cubics() == was.edge("dart-back-1").path.cubics());
  CHECK(is.edge("dart-back-2").path.length() == Approx(was.edge("dart-back-1").path.length()).margin(1e-6));
}

TEST_CASE("slit open and made again, a dart is what it was") {
  Order o = orderWith({{"dial.side", "0.6"}, {"balance.keep", "drafted"}});
  const Pattern before = designOf(o).pattern;
  Pattern p = before;
  slitDart(p, "dart-side");
  const Piece& slit = p.pieces[1];
  CHECK(slit.darts.empty());
  CHECK_THROWS_AS(slitDart(p, "dart-side"), std::out_of_range);
  for (size_t i = 0; i < slit.edges.size(); ++i)
    CHECK(distance(slit.edges[i].path.end(), slit.edges[(i + 1) % slit.edges.size()].path.start()) < 1e-9);
  CHECK(isSimple(slit.outline(0.02)));
  makeDart(p, "dart-side");
  CHECK_FALSE(patternProblem(p));
  REQUIRE(p.pieces[1].darts.size() == 1);
  for (const Edge& e : before.pieces[1].edges) CHECK(p.pieces[1].edge(e.id).path.cubics() == e.path.cubics());
  for (const Edge& e : before.pieces[1].darts[0].legs) CHECK(p.pieces[1].edge(e.id).path.cubics() == e.path.cubics());
  CHECK_THROWS_AS(makeDart(p, "side"), std::invalid_argument);
  CHECK_THROWS_AS(makeDart(p, "no such seam"), std::out_of_range);
}

TEST_CASE("the dial's darts balance, sit below the bust line and take nothing of it") {
  for (const char* key : {"dial.side", "dial.centre"}) {
    INFO(key);
    const Design d = designOf(orderWith({{key, "0.5"}, {"opening.front", "seam"}, {"balance.keep", "balanced"}}));
    CHECK(d.sheet.pass());
    size_t darts = 0;
    for (const Piece& p : d.pattern.pieces)
      for (const LevelLine& l : p.levelLines()) {
        darts += p.darts.size();
        CHECK(p.taken(l) == 0);
      }
    CHECK(darts > 0);
    for (const Seam& s : d.pattern.seams)
      if (s.kind == SeamKind::Dart) CHECK(std::abs(measureSeam(d.pattern, s).mismatch()) < 1e-6);
  }
}

TEST_CASE("what a pattern's darts must hold is told where it does not") {
  Pattern p = designOf(orderWith({{"dial.side", "0.6"}})).pattern;
  SECTION("a leg that ends elsewhere") {
    Edge& leg = p.pieces[1].darts[0].legs[0];
    leg.path = Path::line(leg.path.start(), leg.path.end() + Vec2{1, 0});
  }
  SECTION("a mouth without a dart") { p.pieces[1].darts.clear(); }
  SECTION("a dart that is not sewn") {
    std::erase_if(p.seams, [](const Seam& s) { return s.kind == SeamKind::Dart; });
  }
  SECTION("a dart without its mouth") {
    for (Edge& e : p.pieces[1].edges)
      if (e.role == EdgeRole::Mouth) e.role = EdgeRole::Seam;
  }
  CHECK(patternProblem(p));
}

// A dart from a straight edge: folded on its middle line and pressed, its cloth ends at the cutting line. With legs of
// r on a straight edge that is square to the closed dart, the fold is r / cos(angle / 2) long: elementary trigonometry.
TEST_CASE("the outline to cut is roofed over the mouth of a dart so that it lies flat when pressed") {
  constexpr double kAngle = 0.2, kLeg = 160, kAllowance = 10;
  Pattern p;
  Piece piece;
  piece.id = "panel";
  piece.edges = {{"top", EdgeRole::Top, kAllowance, Path::line({0, 0}, {200, 0})},
                 {"right", EdgeRole::Seam, kAllowance, Path::line({200, 0}, {200, 200})},
                 {"hem", EdgeRole::Hem, kAllowance, Path::line({200, 200}, {0, 200})},
                 {"left", EdgeRole::Seam, kAllowance, Path::line({0, 200}, {0, 0})}};
  piece.grainTop = {60, 120};
  piece.grainBottom = {60, 180};
  p.pieces = {piece};
  const DartCut cut{0, {"left", 100}, {"right", 100}, TurnedPart::FromMouthToPivot};
  openDart(p, cut, kAngle, {"dart", "Dart", 200 - kLeg});
  const Dart& dart = p.pieces[0].darts[0];
  const double leg = dart.legs[0].path.length(), half = std::abs(angleBetween(dart.legs[0].path.start() - dart.point(),
                                                                              dart.legs[1].path.end() - dart.point())) /
                                                        2;
  // Pressed down: the lower leg's edge runs at this angle to the leg.
  const Path& below = p.pieces[0].edge("right-2").path;
  const double corner = std::abs(angleBetween(dart.point() - below.start(), below.startTangent()));
  const double fold = leg * std::sin(corner) / std::sin(corner + half);  // law of sines
  const Vec2 tip = dart.point(), along = unit(lerp(dart.legs[0].path.start(), dart.legs[1].path.end(), 0.5) - tip);
  const Polyline outline = cutOutlines(p)[0];
  // Square to the roof's lower half, at its allowance, lies the cutting line.
  const Vec2 peak = tip + fold * along, low = dart.legs[1].path.end();
  const Vec2 middle = lerp(peak, low, 0.5), side = unit(low - peak), out{side.y, -side.x};
  Polyline ring = outline;
  ring.push_back(ring.front());
  CHECK(distanceToPolyline(middle + kAllowance * out, ring) < 1e-3);
  CHECK(fold > dot(lerp(dart.legs[0].path.start(), low, 0.5) - tip, along) + 0.5);  // a roof, not the mouth itself
  CHECK(isSimple(outline));
  REQUIRE(dartPoints(p.pieces[0]).size() == 1);
  CHECK(dartPoints(p.pieces[0])[0].at == tip);
}

namespace {

// Two rectangles of 100 x 200 mm beside each other, sewn along the middle, each with a pointed dart of the same id in
// its middle where `dart` says so.
Pattern twoPanels(bool left, bool right) {
  Pattern p;
  for (const double x : {0.0, 100.0}) {
    Piece piece;
    piece.id = x == 0 ? "one" : "two";
    piece.edges = {{"top", EdgeRole::Top, 10, Path::line({x, 0}, {x + 100, 0})},
                   {"right", EdgeRole::Seam, 10, Path::line({x + 100, 0}, {x + 100, 200})},
                   {"hem", EdgeRole::Hem, 10, Path::line({x + 100, 200}, {x, 200})},
                   {"left", EdgeRole::Seam, 10, Path::line({x, 200}, {x, 0})}};
    piece.grainTop = {x + 30, 20};
    piece.grainBottom = {x + 30, 180};
    piece.marks = {levelMark(piece, "waist", {x, 120}, {x + 100, 120})};
    p.pieces.push_back(piece);
  }
  p.seams.push_back({"middle", "Middle seam", {0, {{"right", false}}}, {1, {{"left", true}}}});
  const auto cut = [&](size_t piece, double x, const std::string& id) {
    const auto leg = [&](double by) { return Path(Cubic{{x, 80}, {x + by, 110}, {x + by, 130}, {x, 160}}); };
    cutPointedDart(p, piece, {id, "Dart", leg(-8), leg(8)});
  };
  if (left) cut(0, 50, "dart-one");
  if (right) cut(1, 150, "dart-two");
  return p;
}

}  // namespace

TEST_CASE("where pieces are joined their darts come with them, whole and sewn") {
  for (const bool both : {false, true}) {
    Pattern p = twoPanels(both, true);
    // As cut: the second piece lies somewhere else, turned.
    const Motion m = Motion::rotationAbout({100, 0}, 0.4).then(Motion::translation({60, 25}));
    for (size_t i = 0; i < p.pieces[1].lines(); ++i)
      p.pieces[1].lineAt(i).path = p.pieces[1].lineAt(i).path.transformed(m);
    joinPieces(p, "middle", "Joined");
    REQUIRE(p.pieces.size() == 1);
    CHECK_FALSE(patternProblem(p));
    const Piece& whole = p.pieces[0];
    REQUIRE(whole.darts.size() == (both ? 2u : 1u));
    const Dart& moved = whole.darts.back();
    CHECK(moved.id == "dart-two");
    CHECK(distance(moved.point(), {150, 160}) < 1e-6);  // it lies beside the first piece again
    const LevelLine waist = *whole.level("waist");
    CHECK(waist.width() == Approx(200).margin(1e-6));
    CHECK(whole.taken(waist) == Approx(both ? 24 : 12).margin(1e-6));
    for (const Seam& s : p.seams) CHECK(std::abs(measureSeam(p, s).mismatch()) < 1e-9);
    for (const Dart& d : whole.darts) {
      const Seam* seam = p.seam(d.id);
      REQUIRE(seam);
      CHECK(seam->a.piece == 0);
      CHECK(notchesOf(p, *seam).size() == 1);  // the waist's notch came with its leg
    }
  }
}

TEST_CASE("a piece is divided beside its dart, which stays whole on its part; through it, never") {
  for (const double y : {60.0, 180.0}) {
    INFO(y);
    Pattern p = twoPanels(true, false);
    const Path line = Path::line({0, y}, {100, y});
    CHECK_FALSE(runsThroughDart(p.pieces[0], line));
    dividePieces(p, {"cross", "Cross seam", "above", EdgeRole::Seam, 10, {{0, {"left", 200 - y}, {"right", y}, line}}},
                 {{"upper", "Upper part", Part::Panel}});
    CHECK_FALSE(patternProblem(p));
    const bool onUpper = y > 160;
    for (const Piece& piece : p.pieces) {
      INFO(piece.id);
      const bool isUpper = piece.id == "upper";
      if (piece.id != "two") CHECK(piece.darts.size() == (isUpper == onUpper ? 1u : 0u));
    }
    const Seam* dart = p.seam("dart-one");
    REQUIRE(dart);
    CHECK(dart->kind == SeamKind::Dart);
    CHECK(p.pieces[dart->a.piece].darts.size() == 1);
  }
  Pattern p = twoPanels(true, false);
  const Path through = Path::line({0, 120}, {100, 120});
  CHECK(runsThroughDart(p.pieces[0], through));
  CHECK_THROWS_AS(
      dividePieces(p,
                   {"cross", "Cross seam", "above", EdgeRole::Seam, 10, {{0, {"left", 80}, {"right", 120}, through}}},
                   {{"upper", "Upper part", Part::Panel}}),
      std::invalid_argument);
}

TEST_CASE("a second dart turns the first with the part it lies in, and keeps its legs") {
  Pattern p = twoPanels(true, false);
  const Vec2 was = p.pieces[0].darts[0].point();
  const double leg = p.pieces[0].darts[0].legs[0].path.length();
  openDart(p, {0, {"left", 150}, {"right", 50}, TurnedPart::FromMouthToPivot}, 0.1, {"side", "Side dart", 20});
  CHECK_FALSE(patternProblem(p));
  const Piece& piece = p.pieces[0];
  REQUIRE(piece.darts.size() == 2);
  const Motion m = Motion::rotationAbout({0, 50}, 0.1);
  CHECK(distance(piece.darts[0].point(), m.apply(was)) < 1e-9);
  CHECK(piece.darts[0].legs[0].path.length() == Approx(leg).margin(1e-9));
  // Closed in part and in whole, nothing of the other is lost.
  for (const double part : {0.5, 1.0}) {
    size_t pivot = 0;
    while (distance(p.pieces[0].edges[pivot].path.start(), {0, 50}) > 1e-6) ++pivot;
    closeDart(p, "side", {p.pieces[0].edges[pivot].id, 0}, TurnedPart::FromMouthToPivot, part);
    CHECK_FALSE(patternProblem(p));
    CHECK(p.pieces[0].darts.size() == (part < 1 ? 2u : 1u));
  }
  CHECK(distance(p.pieces[0].darts[0].point(), was) < 1e-6);
}

TEST_CASE("a notch on a leg is marked through the cloth, not cut; one on the outline is struck") {
  const Darted d = withPointedDart(12, 0);
  const Piece& piece = d.pattern.pieces[d.piece];
  size_t onLegs = 0, strokes = 0;
  for (const Mark& n : piece.notches()) {
    onLegs += isOnLeg(piece, n);
    strokes += isOnLeg(piece, n) ? 0 : n.doubled ? 2 : 1;
  }
  CHECK(onLegs == 2);
  CHECK(strokes > 0);
  CHECK(notchStrokes(piece).size() == strokes);
}

TEST_CASE("on real bodies, with any part of the dial at the side, the darts are sound, equal and clear of the levels") {
  Dice dice(77);
  const std::vector<RealBody> bodies = realBodies();
  size_t drafted = 0;
  for (size_t i = 0; i < bodies.size(); i += 13) {
    Order o = orderWith({{"balance.keep", "balanced"}});
    o.measures = measuresOf(bodies[i], dice.between(40, 120));
    const double dart = dice.between(0.2, 1), ease = dice.between(0, 1 - dart);
    o.choices["dial.side"] = fmt::format("{:.2f}", dart);
    if (i % 2) o.choices["dial.ease"] = fmt::format("{:.2f}", std::floor(ease * 100) / 100);
    const auto d = recalc(o);
    if (!d.ok()) continue;
    ++drafted;
    INFO("body " << i << ", dart " << o.choices["dial.side"] << ", ease " << o.choices["dial.ease"]);
    CHECK_FALSE(patternProblem(d->pattern));
    const Piece& front = d->pattern.pieces[1];
    REQUIRE(front.darts.size() == 1);
    for (const LevelLine& l : front.levelLines()) CHECK(front.taken(l) == 0);
    CHECK(std::abs(measureSeam(d->pattern, *d->pattern.seam("dart-side")).mismatch()) < 0.5);
    CHECK(isSimple(d->cutOutlines[1]));
    for (const PatternLevel& l : d->pattern.levels)
      if (l.ring) CHECK(measureGirth(d->pattern, l) == Approx(l.finishedGirth).margin(0.5));
  }
  CHECK(drafted > 5);
}
