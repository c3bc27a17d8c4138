// Drawings from elsewhere: lines made outlines, curves made smooth, what is guessed, what is corrected, what is
// refused.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <set>

#include "geometry/path_distance.h"
#include "prepare/arrange.h"
#include "recalc/bases.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tests/support/tracing.h"
#include "tests/support/two_panels.h"
#include "tracing/corrections.h"
#include "tracing/guess.h"
#include "tracing/naming_words.h"
#include "tracing/outlines.h"

using namespace armure;
using namespace armure::testing;

namespace {

const char* whyNot(const TracingNames& names, std::string& text) {
  const Result<Pattern> p = tracedPattern(twoPanels(), names);
  REQUIRE_FALSE(p.ok());
  CHECK_FALSE(p.problem().remedy.empty());
  text = p.problem().text();
  return text.c_str();
}

}  // namespace

TEST_CASE("short lines of a circle become a smooth curve as long as the circle") {
  // Against the closed form: a quarter of 2 pi r.
  for (const double radius : {12.0, 60.0, 400.0}) {
    std::vector<Vec2> points;
    const int n = static_cast<int>(std::ceil(std::numbers::pi / 4 / std::acos(1 - 0.004 / radius)));
    for (int i = 0; i <= n; ++i) {
      const double a = std::numbers::pi / 2 * i / n;
      points.push_back({radius * std::cos(a), radius * std::sin(a)});
    }
    const Path smooth = smoothed(Path::polyline(points), 0.02);
    INFO(radius);
    CHECK(smooth.cubics().size() <= 4);
    CHECK(smooth.length() == Approx(std::numbers::pi / 2 * radius).margin(0.03));
    CHECK(smooth.tightestRadius() == Approx(radius).epsilon(0.08));
    for (const Vec2 p : evenPoints(smooth, 60)) CHECK(norm(p) == Approx(radius).margin(0.03));
    CHECK(distance(smooth.start(), points.front()) < 1e-9);
    CHECK(distance(smooth.end(), points.back()) < 1e-9);
  }
}

TEST_CASE("corners and straight lines stay when a curve is smoothed") {
  const Path square = Path::polyline({{0, 0}, {100, 0}, {100, 100}, {0, 100}});
  const Path same = smoothed(square, 0.02);
  CHECK(same.length() == Approx(300));
  CHECK(distance(same.pointAt(100), Vec2{100, 0}) < 1e-9);
  // A straight line that runs on in a curve keeps both.
  std::vector<Vec2> points{{0, 0}, {0, 150}};
  for (int i = 1; i <= 30; ++i) {
    const double a = std::numbers::pi / 2 * i / 30;
    points.push_back({80 - 80 * std::cos(a), 150 + 80 * std::sin(a)});
  }
  const Path run = smoothed(Path::polyline(points), 0.02);
  CHECK(run.length() == Approx(150 + std::numbers::pi / 2 * 80).margin(0.05));
  for (const double s : {10.0, 75.0, 140.0}) CHECK(std::abs(run.pointAt(s).x) < 0.02);
}

TEST_CASE("edges drawn one by one, in any order and either way, are one outline") {
  const LineDrawing drawing = twoPanels();
  const auto outlines = outlinesOf(drawing);
  REQUIRE(outlines.size() == 2);
  CHECK(outlines[0].path.length() == Approx(1000));
  CHECK(outlines[1].path.length() == Approx(900));
  for (const TracedOutline& o : outlines) {
    CHECK(signedArea(o.polygon()) > 0);
    CHECK(o.corners.size() == 4);
    CHECK(o.inside.size() >= 3);  // two levels and the grain
  }
  Dice dice(5);
  LineDrawing shuffled = drawing;
  for (size_t i = shuffled.shapes.size(); i-- > 1;) {
    std::swap(shuffled.shapes[i], shuffled.shapes[static_cast<size_t>(dice.between(0, static_cast<double>(i)))]);
    if (dice.between(0, 1) < 0.5) shuffled.shapes[i].path = shuffled.shapes[i].path.reversed();
  }
  const auto again = outlinesOf(shuffled);
  REQUIRE(again.size() == 2);
  CHECK(again[0].path.length() == Approx(1000));
  CHECK(outlineAt(again, {50, 150}) == 0u);
  CHECK(outlineAt(again, {300, 150}) == 1u);
  CHECK_FALSE(outlineAt(again, {230, 150}));
}

TEST_CASE("the line round an outline is its cutting line, small shapes and test squares are no pieces") {
  LineDrawing d;
  d.shapes = {closedOf({{0, 0}, {200, 0}, {200, 300}, {0, 300}}),
              closedOf({{-12, -12}, {212, -12}, {212, 312}, {-12, 312}}),
              closedOf({{300, 0}, {400, 0}, {400, 100}, {300, 100}}), closedOf({{50, 50}, {55, 50}, {55, 55}})};
  const auto outlines = outlinesOf(d);
  REQUIRE(outlines.size() == 2);
  CHECK(outlines[0].path.length() == Approx(1000));
  REQUIRE(outlines[0].cutting);
  CHECK(outlines[0].cutting->length() == Approx(2 * (224 + 324)));
  CHECK(outlines[1].isTestSquare);
  CHECK(guessedNames(d).pieces.size() == 1);
  // What is drawn the other way round runs clockwise all the same.
  d.shapes[0].path = d.shapes[0].path.reversed();
  CHECK(signedArea(outlinesOf(d)[0].polygon()) > 0);
}

TEST_CASE("named panels are a pattern with girths") {
  const Result<Pattern> p = tracedPattern(twoPanels(), namedPanels());
  INFO((p.ok() ? "" : p.problem().text()));
  REQUIRE(p.ok());
  CHECK(p->pieces[0].id == "front");
  CHECK(p->pieces[0].symmetry == Symmetry::OnFold);
  CHECK(p->pieces[1].symmetry == Symmetry::Pair);
  const PatternLevel* waist = p->level("waist");
  REQUIRE(waist);
  CHECK(waist->ring);
  CHECK(waist->finishedGirth == Approx(2 * (200 + 150)));
  CHECK(p->sidePath(p->seam("side")->a).length() == Approx(300));
  // Both sides run from the upper end down.
  for (const SeamSide* side : {&p->seam("side")->a, &p->seam("side")->b})
    CHECK(p->sidePath(*side).start().y < p->sidePath(*side).end().y);
  // With a gap, and at another scale.
  TracingNames names = namedPanels();
  names.opening = 50;
  names.scale = 0.5;
  const Result<Pattern> half = tracedPattern(twoPanels(), names);
  REQUIRE(half.ok());
  CHECK(half->level("waist")->finishedGirth == Approx(350 + 50));
}

TEST_CASE("a piece drawn as the right half of the body is turned over") {
  TracingNames names = namedPanels();
  for (NamedPiece& p : names.pieces) p.mirrored = true;
  names.pieces[0].edges[1].role = EdgeRole::Fold;
  names.pieces[0].edges[3].role = EdgeRole::Seam;
  names.pieces[1].edges[1].role = EdgeRole::Seam;
  names.pieces[1].edges[3].role = EdgeRole::Opening;
  names.seams = {{"side", "Side seam", {"front", {"left"}}, {"back", {"right"}}}};
  const Result<Pattern> p = tracedPattern(twoPanels(), names);
  REQUIRE(p.ok());
  CHECK_FALSE(patternProblem(*p));
  const Piece& front = p->pieces[0];
  CHECK(front.edge("right").path.start().x < front.edge("left").path.start().x);  // the fold lies on the left
  CHECK(p->level("waist")->finishedGirth == Approx(700));
  for (const Mark& m : front.levelMarks()) CHECK(front.line(m).a.x < front.line(m).b.x);
}

TEST_CASE("a pointed and an open dart are read by their legs") {
  LineDrawing joined = twoPanels();
  joined.shapes.push_back({Path::polyline({{60, 120}, {50, 190}, {60, 280}}), false, "", ""});
  joined.shapes.push_back({Path::polyline({{60, 280}, {70, 190}, {60, 120}}), false, "", ""});
  joined.shapes.push_back(lineOf({320, 300}, {335, 210}));
  joined.shapes.push_back(lineOf({335, 210}, {350, 300}));
  TracingNames names = namedPanels();
  names.pieces[0].darts = {{"waist-dart", {52, 200}, {68, 200}}};
  names.pieces[1].edges = {{"top", {260, 0}, EdgeRole::Top},     {"right", {410, 0}, EdgeRole::Opening},
                           {"hem", {410, 300}, EdgeRole::Hem},   {"mouth", {350, 300}, EdgeRole::Mouth},
                           {"hem-2", {320, 300}, EdgeRole::Hem}, {"left", {260, 300}, EdgeRole::Seam}};
  names.pieces[1].darts = {{"back-dart", {327, 255}, {343, 255}}};
  const Result<Pattern> p = tracedPattern(joined, names);
  INFO((p.ok() ? "" : p.problem().text()));
  REQUIRE(p.ok());
  CHECK_FALSE(patternProblem(*p));
  const Piece &front = p->pieces[0], &back = p->pieces[1];
  REQUIRE(front.darts.size() == 1);
  CHECK_FALSE(front.darts[0].isOpen());
  CHECK(front.taken(*front.level("waist")) == Approx(160.0 / 9).margin(0.01));
  CHECK(back.darts[0].isOpen());
  CHECK(back.darts[0].mouth == "mouth");
  CHECK(p->level("waist")->finishedGirth == Approx(2 * (200 + 150) - 2 * 160.0 / 9).margin(0.05));
  CHECK(p->seam("waist-dart")->kind == SeamKind::Dart);
  names.pieces[0].darts = {{"waist-dart", {52, 200}, {335, 210}}};
  CHECK_FALSE(tracedPattern(joined, names).ok());
}

TEST_CASE("what is not sound in the names is said, with the piece and what would be right") {
  std::string text;
  const auto has = [&](const TracingNames& names, const char* what) {
    CHECK_THAT(whyNot(names, text), Catch::Contains(what));
  };
  TracingNames n = namedPanels();
  n.pieces[0].at = {230, 150};
  has(n, "no outline");
  n = namedPanels();
  std::swap(n.pieces[0].edges[1], n.pieces[0].edges[2]);
  has(n, "clockwise");
  n = namedPanels();
  n.pieces[0].edges[1].from = {120, 150};
  has(n, "does not begin on its outline");
  n = namedPanels();
  n.pieces[0].edges[1].id = "top";
  has(n, "two edges");
  n = namedPanels();
  n.pieces[1].id = "front";
  has(n, "two pieces");
  n = namedPanels();
  n.seams.clear();
  has(n, "sewn to nothing");
  n = namedPanels();
  n.seams[0].b.piece = "sleeve";
  has(n, "no piece sleeve");
  n = namedPanels();
  n.seams[0].b.edges = {"side"};
  has(n, "has no edge side");
  n = namedPanels();
  n.seams[0].b.edges = {"hem"};
  has(n, "not one that is sewn");
  n = namedPanels();
  n.pieces[1].edges[1].role = EdgeRole::Seam;
  n.seams[0].b.edges = {"left", "right"};
  has(n, "do not follow");
  n = namedPanels();
  n.seams.push_back(n.seams[0]);
  has(n, "two seams");
  n = namedPanels();
  n.pieces[0].levels[0].a = {100, 150};
  has(n, "does not end on its outline");
  n = namedPanels();
  n.pieces[0].notches = {{"n", {100, 150}}};
  has(n, "not on its outline");
  n = namedPanels();
  n.pieces[0].edges[0].role = EdgeRole::Fold;
  has(n, "straight line");
  n = {};
  has(n, "none is named");
}

TEST_CASE("a base from a drawing is recalculated like any other, and choices of drafting do nothing to it") {
  const Result<Pattern> shell = tracedPattern(twoPanels(), namedPanels());
  REQUIRE(shell.ok());
  MeasureSet made = plainFigure();
  made.set("bust", {700, "", ""});
  made.set("waist", {700, "", ""});
  made.set("underbust", {690, "", ""});
  made.set("upper_bust", {690, "", ""});
  made.set("hip", {760, "", ""});
  made.set("high_hip", {740, "", ""});
  Result<BasePattern> base = baseFromDrawing(*shell, 0, made, "two panels", "2026-11-30");
  INFO((base.ok() ? "" : base.problem().text()));
  REQUIRE(base.ok());
  MeasureSet client = made;
  client.set("waist", {720, "", ""});
  const Order order = orderFromBase(*base, client);
  const Design d = designOf(order);
  CHECK(d.isTraced());
  CHECK(d.pattern.level("waist")->finishedGirth == Approx(720).margin(1e-6));
  CHECK(d.pattern.closedGirth(*d.pattern.level("waist")) == Approx(720).margin(0.1));
  CHECK(d.pattern.closedGirth(*d.pattern.level("bust")) == Approx(700).margin(0.1));
  CHECK(d.sheet.failing() == 0);
  Order other = order;
  other.choices["hem.length"] = "3 in";
  CHECK(withoutEffect(order, other));
  CHECK(isDraftChoice("top.shape"));
  CHECK_FALSE(isDraftChoice("balance.keep"));
  CHECK_FALSE(isDraftChoice("opening.kind"));
  other = order;
  other.style = "cup-two-pieces";
  CHECK(withoutEffect(order, other));
  other = order;
  other.choices["balance.keep"] = "drafted";
  CHECK_FALSE(withoutEffect(order, other));
  // Kept again it is the pieces that are kept.
  const Result<BasePattern> kept = keptAsBase(order, {}, "again", "2026-11-30");
  REQUIRE(kept.ok());
  CHECK(kept->traced == base->traced);
  // What it measures must be enough to lay it on a body.
  MeasureSet few;
  few.set("waist", {700, "", ""});
  CHECK_FALSE(baseFromDrawing(*shell, 0, few, "two panels", "2026-11-30").ok());
}

TEST_CASE("every kind of piece and edge has its word in files, once") {
  const auto unique = [](const auto& table) {
    std::set<std::string_view> ids;
    for (const auto& row : table) CHECK(ids.insert(row.id).second);
  };
  unique(kEdgeWords);
  unique(kHalfWords);
  unique(kPartWords);
  unique(kSeamWords);
  CHECK(wordOf(kEdgeWords, EdgeRole::Fold).id == "fold");
  CHECK_THROWS_AS(wordOf(kEdgeWords, EdgeRole::Raw), std::out_of_range);
}

namespace {

// A drawing and what is said of it, turned and moved as a whole.
LineDrawing moved(const LineDrawing& drawing, const Motion& m) {
  LineDrawing out = drawing;
  for (DrawnShape& s : out.shapes) s.path = s.path.transformed(m);
  return out;
}
TracingNames moved(TracingNames names, const Motion& m) {
  for (NamedPiece& p : names.pieces) {
    for (Vec2* at : {&p.at, &p.grainTop, &p.grainBottom}) *at = m.apply(*at);
    for (NamedEdge& e : p.edges) e.from = m.apply(e.from);
    for (NamedLevel& l : p.levels) l.a = m.apply(l.a), l.b = m.apply(l.b);
    for (NamedNotch& n : p.notches) n.at = m.apply(n.at);
  }
  return names;
}

}  // namespace

TEST_CASE("however a drawing lies on its sheet, in whatever order and size, it is the same pattern") {
  Dice dice(23);
  const Pattern plain = *tracedPattern(twoPanels(), namedPanels());
  for (int trial = 0; trial < 60; ++trial) {
    INFO(trial);
    const Motion m = Motion::rotationAbout({dice.between(-300, 300), dice.between(-300, 300)}, dice.between(-3, 3))
                         .then(Motion::translation({dice.between(-900, 900), dice.between(-900, 900)}));
    LineDrawing drawing = moved(twoPanels(), m);
    TracingNames names = moved(namedPanels(), m);
    for (size_t i = drawing.shapes.size(); i-- > 1;)
      std::swap(drawing.shapes[i], drawing.shapes[static_cast<size_t>(dice.between(0, static_cast<double>(i)))]);
    for (DrawnShape& s : drawing.shapes)
      if (dice.between(0, 1) < 0.5) s.path = s.path.reversed();
    const double size = dice.between(0.3, 4);  // drawn so many times too small
    drawing = scaled(drawing, 1 / size);
    names = scaledNames(names, 1 / size);
    names.scale = size;
    const Result<Pattern> p = tracedPattern(drawing, names);
    INFO((p.ok() ? "" : p.problem().text()));
    REQUIRE(p.ok());
    for (size_t i = 0; i < plain.pieces.size(); ++i) CHECK(strayOf(p->pieces[i], plain.pieces[i]) < 1e-6);
    for (const PatternLevel& l : plain.levels) {
      CHECK(p->level(l.id)->ring == l.ring);
      CHECK(p->level(l.id)->finishedGirth == Approx(l.finishedGirth).margin(1e-6));
    }
    // Upright again: levels lie level, the waist of both at one depth.
    for (const Piece& piece : p->pieces)
      for (const LevelLine& l : piece.levelLines()) CHECK(std::abs(l.a.y - l.b.y) < 1e-6);
  }
}

TEST_CASE("a closed path is cut at places that follow each other, and only there") {
  const Path square = Path::polyline({{0, 0}, {100, 0}, {100, 100}, {0, 100}, {0, 0}});
  Dice dice(29);
  for (int trial = 0; trial < 100; ++trial) {
    std::vector<double> at;
    for (int i = 0; i < 5; ++i) at.push_back(dice.between(0, 400));
    std::ranges::sort(at);
    const auto turn = static_cast<long>(dice.between(0, 4.99));
    std::rotate(at.begin(), at.begin() + turn, at.end());  // from any of them on
    const std::vector<Path> parts = cutAtPlaces(square, at);
    REQUIRE(parts.size() == at.size());
    double sum = 0;
    for (size_t i = 0; i < parts.size(); ++i) {
      sum += parts[i].length();
      CHECK(distance(parts[i].end(), parts[(i + 1) % parts.size()].start()) < 1e-6);
      CHECK(distance(parts[i].start(), square.pointAt(at[i])) < 1e-6);
    }
    CHECK(sum == Approx(400));
    std::swap(at[1], at[3]);
    CHECK(cutAtPlaces(square, at).empty());
  }
  CHECK(cutAtPlaces(square, {0}).front().length() == Approx(400));
  CHECK(cutAtPlaces(square, {10, 10}).empty());
  CHECK(cutAtPlaces(square, {}).empty());
}
