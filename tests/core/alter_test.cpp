// Altering a pattern: shifts of edges, level by level. What must hold of every one, on all styles.
#include <catch2/catch.hpp>
#include <cmath>

#include "alter/alter.h"
#include "alter/displacement.h"
#include "alter/wish.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order orderInStyle(std::string_view style) {
  Order o = plainOrder();
  o.style = style;
  o.measures = allMeasuresOf(realBodies()[40], 90);
  return o;
}

// The shell as drafted: what alterations are measured on.
Pattern draftOf(Order o) {
  o.choices["balance.keep"] = "drafted";
  const Design d = designOf(o);
  return shellOf(d.pattern);
}

// Along both, place by place: joints may have been added, lengths are the same.
double farthestApart(const Pattern& a, const Pattern& b) {
  constexpr int kPlaces = 24;
  double farthest = 0;
  for (size_t i = 0; i < a.pieces.size(); ++i)
    for (size_t k = 0; k < a.pieces[i].lines(); ++k) {
      const Path &p = a.pieces[i].lineAt(k).path, &q = b.pieces[i].lineAt(k).path;
      for (int n = 0; n <= kPlaces; ++n)
        farthest =
            std::max(farthest, distance(p.pointAt(p.length() * n / kPlaces), q.pointAt(q.length() * n / kPlaces)));
    }
  return farthest;
}

Alteration onSeam(const std::string& seam, std::vector<ShiftAt> at, ShiftSides sides = ShiftSides::Both) {
  Alteration a{.id = seam, .name = "test"};
  a.shifts = {{seam, sides, ShiftWay::Across, std::move(at)}};
  return a;
}

Alteration opposite(Alteration a) {
  a.id += "-back";
  for (Shift& s : a.shifts)
    for (ShiftAt& at : s.at) at.mm = -at.mm;
  return a;
}

Alteration asAlteration(const Shift& shift) {
  Alteration a{.id = "wish", .name = "wish"};
  a.shifts = {shift};
  return a;
}

// A shift of one or two places of a seam, by up to 8 mm.
Alteration randomShift(const Pattern& p, Dice& dice) {
  const std::vector<std::string> lines = shiftableLines(p);
  Alteration a{.id = "random", .name = "random"};
  for (int n = 0; n < 3; ++n) {
    const std::string& line = lines[static_cast<size_t>(dice.between(0, static_cast<double>(lines.size()) - 0.01))];
    const std::vector<std::string> places = placesOn(p, line);
    const bool along = dice.between(0, 1) < 0.3;
    Shift s{line,
            static_cast<ShiftSides>(static_cast<int>(dice.between(0, 3.99))),
            along ? ShiftWay::Along : ShiftWay::Across,
            {}};
    for (const std::string& place : places)
      if (dice.between(0, 1) < 0.6) s.at.push_back({place, dice.between(-8, 8)});
    if (!s.at.empty() && p.seam(line)) a.shifts.push_back(std::move(s));
  }
  return a;
}

}  // namespace

TEST_CASE("amounts between places are monotone, level at their ends and constant beyond") {
  const Amounts a({{0, 0}, {50, -6}, {120, -6}, {200, 0}});
  CHECK(a(-10) == 0);
  CHECK(a(300) == 0);
  CHECK(a(50) == Approx(-6));
  CHECK(a(80) == Approx(-6));  // between two equal amounts nothing swings past
  double last = 0;
  for (double s = 0; s <= 50; s += 1) {
    CHECK(a(s) <= last + 1e-12);
    last = a(s);
  }
  const double h = 1e-4;
  CHECK(std::abs(a(h) - a(0)) / h < 1e-3);
  CHECK(std::abs(a(200) - a(200 - h)) / h < 1e-3);
}

TEST_CASE("a path displaced by the same everywhere is moved, and keeps its lengths") {
  const Path p(
      std::vector<Cubic>{{{0, 0}, {10, 30}, {20, 60}, {15, 100}}, {{15, 100}, {12.5, 120}, {0, 150}, {0, 200}}});
  Displacement by;
  by.at.assign(3, {3, -4});
  by.slope.assign(3, {});
  const Path moved = displaced(p, by);
  CHECK(moved.length() == Approx(p.length()).margin(1e-9));
  CHECK(distance(moved.pointAt(70), p.pointAt(70)) == Approx(5));
  // A place stays at its part of the same cubic.
  CHECK(carriedAlong(p, moved, 130) == Approx(130).margin(1e-9));
  CHECK(withJoints(p, {40, 40.1, 150}).cubics().size() == 4);
  CHECK(withJoints(p, {40, 150}).length() == Approx(p.length()).margin(1e-7));
}

TEST_CASE("a level's width changes by what was asked there, and nothing else does") {
  for (const char* style : {"sweetheart-zip", "reducing-three-lines", "seamed-sheath", "covered-round"}) {
    const Pattern p = draftOf(orderInStyle(style));
    for (const ShiftSides sides : {ShiftSides::Both, ShiftSides::A, ShiftSides::Over}) {
      const Alteration a = onSeam("side", {{"bust", 0}, {"underbust", 2}, {"waist", -5}, {"high_hip", -1}}, sides);
      const auto altered = alter(p, std::vector{a});
      REQUIRE(altered.ok());
      INFO(style << " " << static_cast<int>(sides));
      const double edges = sides == ShiftSides::Both ? 2 : sides == ShiftSides::A ? 1 : 0;
      for (const auto& [level, each] : {std::pair{"underbust", 2.0}, {"waist", -5.0}, {"bust", 0.0}}) {
        const PatternLevel &was = *p.level(level), &is = *altered->pattern.level(level);
        if (!placeOnLine(p, p.seam("side")->a, level)) continue;  // the skirt's own seam
        CHECK(is.finishedGirth - was.finishedGirth == Approx(2 * edges * each).margin(1e-9));
        const auto place = static_cast<size_t>(&was - p.levels.data());
        CHECK(letOut(p, std::vector{a})[place] == Approx(2 * edges * each).margin(1e-9));
        if (was.ring)
          CHECK(altered->pattern.closedGirth(is) - p.closedGirth(was) == Approx(2 * edges * each).margin(1e-6));
      }
      CHECK_FALSE(patternProblem(altered->pattern).has_value());
    }
  }
}

TEST_CASE("an alteration and its opposite give the pattern back, in any order with others") {
  for (const Preset& style : styleTable()) {
    Dice dice(7);
    const Pattern p = draftOf(orderInStyle(style.id));
    const Alteration a = randomShift(p, dice), b = randomShift(p, dice);
    INFO(style.id);
    const auto back = alter(p, std::vector{a, b, opposite(a), opposite(b)});
    const auto ab = alter(p, std::vector{a, b}), ba = alter(p, std::vector{b, a});
    if (!back.ok() || !ab.ok()) continue;  // it would have bent a fold
    CHECK(farthestApart(back->pattern, p) < 1e-6);
    CHECK(farthestApart(ab->pattern, ba->pattern) < 1e-6);
    for (const PatternLevel& l : p.levels)
      CHECK(back->pattern.level(l.id)->finishedGirth == Approx(l.finishedGirth).margin(1e-9));
  }
}

TEST_CASE("whatever is shifted, the pieces stay pieces: closed, marks on their edges") {
  for (const Preset& style : styleTable()) {
    Dice dice(static_cast<unsigned>(style.id.size()) + 11);
    const Pattern p = draftOf(orderInStyle(style.id));
    for (int n = 0; n < 3; ++n) {
      const auto altered = alter(p, std::vector{randomShift(p, dice)});
      INFO(style.id << " " << n);
      if (!altered.ok()) continue;
      const auto fault = patternProblem(altered->pattern);
      INFO((fault ? fault->text() : ""));
      CHECK_FALSE(fault.has_value());
      for (size_t i = 0; i < p.pieces.size(); ++i)
        CHECK(altered->pattern.pieces[i].marks.size() == p.pieces[i].marks.size());
    }
  }
}

TEST_CASE("a shift adds no bend where it is the same all along, and a notch stays at its level") {
  const Pattern p = draftOf(orderInStyle("sweetheart-zip"));
  const auto altered = alter(p, std::vector{onSeam("side", {{"top", -6}})});
  REQUIRE(altered.ok());
  for (const Seam* s : {p.seam("side"), altered->pattern.seam("side")}) REQUIRE(s);
  const Path was = p.sidePath(p.seam("side")->a), is = altered->pattern.sidePath(p.seam("side")->a);
  CHECK(is.inflections() == was.inflections());
  // The dart was turned out of the front: its levels are not quite parallel any more.
  CHECK(is.length() == Approx(was.length()).margin(1.5));
  for (const SeamNotch& n : altered->pattern.seam("side")->notches) {
    INFO(n.id);
    CHECK(n.a == Approx(*placeOnLine(altered->pattern, altered->pattern.seam("side")->a, n.id)).margin(1e-6));
  }
}

TEST_CASE("lengthened between two levels the whole garment keeps its widths and its seams") {
  const Pattern p = draftOf(orderInStyle("shaping-two-lines"));
  const Result<Shift> longer = shiftOf(
      p, {.line = std::string(kEveryLine), .way = ShiftWay::Along, .from = "underbust", .to = "waist", .mm = 12});
  REQUIRE(longer.ok());
  const auto altered = alter(p, std::vector{asAlteration(*longer)});
  REQUIRE(altered.ok());
  CHECK(altered->idle.empty());
  for (const PatternLevel& l : p.levels) {
    CHECK(altered->pattern.level(l.id)->finishedGirth == l.finishedGirth);
    if (l.ring) CHECK(altered->pattern.closedGirth(l) == Approx(p.closedGirth(l)).margin(1e-6));
  }
  for (const Seam& s : p.seams) {
    INFO(s.id);
    const auto length = [&](const Pattern& q, const SeamSide& side) {
      return *placeOnLine(q, side, "waist") - *placeOnLine(q, side, "underbust");
    };
    // A slanted or bent line grows by a little less.
    CHECK(length(altered->pattern, s.a) - length(p, s.a) == Approx(12).margin(0.5));
    CHECK(length(altered->pattern, s.b) - length(p, s.b) == Approx(12).margin(0.5));
  }
}

TEST_CASE("a dart is shifted like a seam, and takes more by what its legs give") {
  Order o = orderInStyle("seamed-sheath");
  const Pattern p = draftOf(o);
  std::string dart, level;
  for (const Seam& s : p.seams)
    for (const PatternLevel& l : p.levels)
      if (s.kind == SeamKind::Dart && l.id != kUpperEnd && l.id != kLowerEnd && placeOnLine(p, s.a, l.id) &&
          placeOnLine(p, s.b, l.id))
        dart = s.id, level = l.id;
  REQUIRE_FALSE(dart.empty());
  const auto taken = [&](const Pattern& q) {
    double sum = 0;
    for (const Piece& piece : q.pieces)
      for (const LevelLine& l : piece.levelLines())
        if (l.level == level) sum += piece.taken(l);
    return sum;
  };
  const auto altered = alter(p, std::vector{onSeam(dart, {{"top", -1}, {level, -1}, {"hem", 0}})});
  REQUIRE(altered.ok());
  CHECK(taken(altered->pattern) - taken(p) == Approx(2).margin(0.05));
  CHECK(altered->pattern.level(level)->finishedGirth == Approx(p.level(level)->finishedGirth - 4).margin(1e-9));
}

TEST_CASE("what a pattern has nothing for is said, and the rest is done") {
  const Pattern p = draftOf(orderInStyle("sweetheart-zip"));
  Alteration a = onSeam("princess-2", {{"waist", -3}});
  a.shifts.push_back({"side", ShiftSides::Both, ShiftWay::Across, {{"bust", 0}, {"waist", -3}, {"knee", 0}}});
  const auto altered = alter(p, std::vector{a});
  REQUIRE(altered.ok());
  REQUIRE(altered->idle.size() == 3);
  CHECK(english(altered->idle[0].what).find("princess-2") != std::string::npos);
  CHECK(altered->pattern.level("waist")->finishedGirth == Approx(p.level("waist")->finishedGirth - 12));
  a.on = false;
  CHECK(farthestApart(alter(p, std::vector{a})->pattern, p) == 0);
}

TEST_CASE("a fold stays straight: shifted as a whole, or not at all") {
  const Pattern p = draftOf(orderInStyle("sweetheart-zip"));
  const auto moved = alter(p, std::vector{onSeam("front-1.fold", {{"top", 5}})});
  REQUIRE(moved.ok());
  CHECK(moved->pattern.level("waist")->finishedGirth == Approx(p.level("waist")->finishedGirth + 10));
  const auto bent = alter(p, std::vector{onSeam("front-1.fold", {{"bust", 0}, {"waist", 5}})});
  REQUIRE_FALSE(bent.ok());
  CHECK(bent.problem().text().find("fold") != std::string::npos);
}

TEST_CASE("a plunge moves with the centre: its gap grows, the girth with it") {
  const Pattern p = draftOf(orderInStyle("plunge-v-cups"));
  const auto moved = alter(p, std::vector{onSeam("front-1.fold", {{"top", 4}})});
  REQUIRE(moved.ok());
  bool plunging = false;
  for (const PatternLevel& l : p.levels) {
    const PatternLevel& is = *moved->pattern.level(l.id);
    INFO(l.id);
    plunging = plunging || l.gaps.skin > 0;
    CHECK(is.finishedGirth ==
          Approx(l.finishedGirth + (l.gaps.skin > 0 || moved->pattern.closedGirth(is) != p.closedGirth(l) ? 8 : 0))
              .margin(1e-6));
    if (l.gaps.skin > 0) CHECK(moved->pattern.closedGirth(is) == Approx(p.closedGirth(l) + 8).margin(0.01));
  }
  CHECK(plunging);
}

TEST_CASE("a wish is said as makers say it") {
  const Pattern p = draftOf(orderInStyle("sweetheart-zip"));
  const auto at = [&](const char* from, const char* to, ShiftWay way = ShiftWay::Across) {
    const Result<Shift> s = shiftOf(p, {.line = "side", .way = way, .from = from, .to = to, .mm = -6});
    REQUIRE(s.ok());
    return s->at;
  };
  CHECK(at("underbust", "high_hip") == std::vector<ShiftAt>{{"underbust", 0}, {"waist", -3}, {"high_hip", 0}});
  CHECK(at("waist", "waist") == std::vector<ShiftAt>{{"underbust", 0}, {"waist", -3}, {"high_hip", 0}});
  CHECK(at("underbust", "waist") == std::vector<ShiftAt>{{"underbust", 0}, {"underbust~waist", -3}, {"waist", 0}});
  CHECK(at("top", "underbust") == std::vector<ShiftAt>{{"top", -3}, {"bust", -3}, {"underbust", 0}});
  CHECK(at("waist", "hem", ShiftWay::Along) == std::vector<ShiftAt>{{"waist", 0}, {"hem", -6}});
  CHECK(at("top", "bust", ShiftWay::Along) == std::vector<ShiftAt>{{"top", 6}, {"bust", 0}});
  for (const auto& [line, from, to, word] : {std::tuple{"sid", "bust", "waist", "princess"},
                                             {"side", "knee", "waist", "underbust"},
                                             {"side", "waist", "bust", "below"},
                                             {"every-line", "bust", "waist", "lengthened"}}) {
    const Result<Shift> s = shiftOf(p, {.line = line, .from = from, .to = to, .mm = 1});
    REQUIRE_FALSE(s.ok());
    CHECK(s.problem().text().find(word) != std::string::npos);
  }
}

TEST_CASE("an altered order is balanced, judged and cut like any other") {
  for (const char* style : {"sweetheart-laced", "cup-two-pieces", "covered-round", "dress-with-slit"}) {
    Order o = orderInStyle(style);
    o.choices["balance.keep"] = "balanced";
    const Design before = designOf(o);
    o.alterations = {onSeam("side", {{"underbust", 0}, {"waist", -4}, {"hem", -4}})};
    if (style == std::string("dress-with-slit"))  // the skirt's side goes on from the bodice's
      o.alterations.push_back(onSeam("side-waist", {{"top", -4}, {"high_hip", 0}}));
    const Design after = designOf(o);
    INFO(style);
    for (const CheckRow& r : after.sheet.rows)
      if (r.fails()) UNSCOPED_INFO(english(r.subject) << " " << english(r.detail) << " " << r.amount);
    CHECK(after.sheet.failing() == before.sheet.failing());
    for (const PatternLevel& l : after.pattern.levels)
      if (l.ring) CHECK(after.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.1));
    CHECK(after.reduction().finished == Approx(before.reduction().finished - 16).margin(1e-6));
  }
}
