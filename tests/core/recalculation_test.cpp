// Recalculating a base pattern: the shift table against worked examples of the trade, and what it makes of patterns.
#include <catch2/catch.hpp>
#include <cmath>

#include "alter/alter.h"
#include "alter/differences.h"
#include "alter/recalculation.h"
#include "geometry/polygon.h"
#include "layers/layer.h"
#include "recalc/bases.h"
#include "rules/draft_rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Measured onTape(double in) { return {in * kMmPerInch, Source::Taken}; }

// A straight dress recalculated: client and pattern as they were taken. Common practice, no source.
const MeasuredAt kClient{{"bust_span", onTape(7.1)},
                         {"front_bust_arc", onTape(18.1)},
                         {"front_underbust_arc", onTape(14.6)},
                         {"bust", onTape(33.5)},
                         {"underbust", onTape(29.1)},
                         {"waist", onTape(28)},
                         {"high_hip", onTape(35.8)},
                         {"hip", onTape(37.8)},
                         {"side_length", onTape(7.5)},
                         {"cup_out", onTape(3.5)},
                         {"cup_up", onTape(2)}};
const MeasuredAt kPattern{{"bust_span", onTape(7.9)},
                          {"front_bust_arc", onTape(19.3)},
                          {"front_underbust_arc", onTape(15.7)},
                          {"bust", onTape(36.6)},
                          {"underbust", onTape(33.1)},
                          {"waist", onTape(30.3)},
                          {"high_hip", onTape(37.4)},
                          {"hip", onTape(39.4)},
                          {"side_length", onTape(7.9)},
                          {"cup_out", onTape(4.2)},
                          {"cup_up", onTape(3.5)}};

double in(const ShiftCell& cell) { return cell.mm / kMmPerInch; }

struct Row {
  const char* level;
  double f, b, x, y;
};

// Hand rounding to a tenth makes each figure good to a tenth: one may differ by as much.
void checkAgainstHand(const ShiftTable& t, std::initializer_list<Row> rows) {
  constexpr double kHand = 0.1 + 1e-9;
  for (const Row& r : rows) {
    const ShiftRow* row = t.row(r.level);
    REQUIRE(row);
    INFO(r.level);
    CHECK(in(row->e0) == Approx(-0.4).margin(1e-9));
    CHECK(std::abs(in(row->f) - r.f) <= kHand);
    CHECK(std::abs(in(row->b) - r.b) <= kHand);
    CHECK(std::abs(in(row->x) - r.x) <= kHand);
    CHECK(std::abs(in(row->y) - r.y) <= kHand);
  }
}

Recalculation baseOf(const char* style, const MeasureSet& measures) {
  Recalculation r;
  r.base.name = "base";
  r.base.style = style;
  r.base.choices = choicesOfNewOrders();
  r.base.measures = measures;
  return r;
}

// Where a side of the shell stands against where it stood, at a place: outwards, laid off along the waist, mm.
double shiftedBy(const Pattern& before, const Pattern& after, const SeamSide& side, double s) {
  const Path was = before.sidePath(side), is = after.sidePath(side);
  const LevelLine waist = *before.pieces[side.piece].level("waist");
  const Vec2 at = was.pointAt(s), end = was.pointAt(*placeOnLine(before, side, "waist"));
  const Vec2 along = unit(waist.b - waist.a), out = distance(end, waist.b) < distance(end, waist.a) ? along : -along;
  double nearest = HUGE_VAL;
  for (const double m : is.crossings(at, out))
    if (const double d = dot(is.pointAt(m) - at, out); std::abs(d) < std::abs(nearest)) nearest = d;
  return nearest;
}

}  // namespace

// Common practice, no source: the worked example of recalculating a straight dress, rounded by hand to 0.1 in.
TEST_CASE("the shift table gives the worked example, from the waist down and from the underbust") {
  checkAgainstHand(shiftTable(kClient, kPattern, {.from = SolvedFrom::Underbust}),
                   {{"bust", -0.2, -1.0, -0.2, -1.0},
                    {"underbust", -0.2, -1.4, -0.4, -1.2},
                    {"waist", -0.2, -0.6, 0.0, -0.8},
                    {"high_hip", -0.2, -0.2, 0.2, -0.6},
                    {"hip", -0.2, -0.2, 0.2, -0.6}});
  checkAgainstHand(shiftTable(kClient, kPattern), {{"bust", -0.2, -1.0, -0.2, -1.0},
                                                   {"underbust", -0.2, -1.4, -0.2, -1.4},
                                                   {"waist", -0.2, -0.6, 0.2, -1.0},
                                                   {"high_hip", -0.2, -0.2, 0.4, -0.8},
                                                   {"hip", -0.2, -0.2, 0.4, -0.8}});
  const ShiftTable t = shiftTable(kClient, kPattern);
  REQUIRE(t.lengths.size() == 3);
  CHECK(t.lengths[0].shift.mm == Approx(-0.4 * kMmPerInch));  // side length
  CHECK(t.lengths[1].shift.mm == Approx(-0.7 * kMmPerInch));  // cup out
  CHECK(t.lengths[2].shift.mm == Approx(-1.5 * kMmPerInch));  // cup up
}

TEST_CASE("the equations hold exactly on every level") {
  for (const SolvedFrom from : {SolvedFrom::Waist, SolvedFrom::Underbust}) {
    const ShiftTable t = shiftTable(kClient, kPattern, {.from = from});
    for (size_t i = 0; i < t.rows.size(); ++i) {
      const ShiftRow& r = t.rows[i];
      INFO(r.level);
      // The girth comes out, each level by itself and as used.
      CHECK(r.pattern.mm + 2 * (r.e0.mm + r.f.mm + r.b.mm) == Approx(r.client.mm).margin(1e-9));
      CHECK(r.pattern.mm + 2 * (r.e0.mm + r.x.mm + r.y.mm) == Approx(r.client.mm).margin(1e-9));
      if (r.solved) CHECK(r.x.mm - r.y.mm == Approx(t.rows[i - 1].x.mm - t.rows[i - 1].y.mm).margin(1e-9));
      CHECK(r.x.working.key == "shift." + r.level + ".x");
    }
    CHECK_FALSE(t.why.empty());
  }
}

TEST_CASE("a cell the maker writes over stands, and the other side takes what is left") {
  const ShiftTable t = shiftTable(kClient, kPattern, {.cells = {{"waist.x", 0}, {"e0", -2}}});
  const ShiftRow& waist = *t.row("waist");
  CHECK(waist.x.byHand);
  CHECK(waist.x.mm == 0);
  CHECK(waist.e0.mm == -2);
  CHECK(waist.pattern.mm + 2 * (waist.e0.mm + waist.x.mm + waist.y.mm) == Approx(waist.client.mm));
  const ShiftRow& below = *t.row("high_hip");
  CHECK(below.x.mm - below.y.mm == Approx(waist.x.mm - waist.y.mm));
  for (const char* cell : {"e0", "waist.x", "bust.f", "hip.b", "side_length", "cup_out"}) CHECK(isShiftCell(cell));
  for (const char* cell : {"", "waist", "waist.z", "knee.x", "x", "waist."}) CHECK_FALSE(isShiftCell(cell));
}

TEST_CASE("without front arcs front and back side share alike; what was not taken has no row") {
  MeasuredAt client = kClient, pattern = kPattern;
  client.erase("front_bust_arc");
  client.erase("front_underbust_arc");
  client.erase("hip");
  const ShiftTable t = shiftTable(client, pattern);
  CHECK_FALSE(t.row("hip"));
  for (const ShiftRow& r : t.rows) CHECK(r.f.mm == Approx(r.b.mm));
}

TEST_CASE("a base recalculated for the body it was drafted for is the base") {
  for (const char* style : {"sweetheart-zip", "cup-three-pieces", "covered-round", "plunge-u", "seamed-sheath"}) {
    const MeasureSet measures = allMeasuresOf(realBodies()[50], 100);
    Order o;
    o.style = style;
    o.choices = choicesOfNewOrders();
    o.measures = measures;
    const Design drafted = designOf(o);
    o.base = baseOf(style, measures);
    const Design again = designOf(o);
    INFO(style);
    for (size_t i = 0; i < drafted.pattern.pieces.size(); ++i)
      for (size_t k = 0; k < drafted.pattern.pieces[i].edges.size(); ++k)
        CHECK(distance(drafted.pattern.pieces[i].edges[k].path.end(), again.pattern.pieces[i].edges[k].path.end()) <
              1e-9);
  }
}

// All 130 bodies on three bases: run by hand, with the figures in the notes; every 16th here.
TEST_CASE("the girths of a recalculated pattern are the client's, with the base's ease and reduction") {
  const std::vector<RealBody> bodies = realBodies();
  for (const char* style : {"sweetheart-zip", "reducing-three-lines", "cup-two-pieces"}) {
    const Recalculation base = baseOf(style, allMeasuresOf(bodies[60], 90));
    Order o;
    o.style = style;
    o.choices = choicesOfNewOrders();
    o.measures = base.base.measures;
    const Design drafted = designOf(o);
    o.base = base;
    for (size_t i = 0; i < bodies.size(); i += 16) {
      o.measures = allMeasuresOf(bodies[i], 90);
      const Design d = designOf(o);
      INFO(style << " body " << i);
      for (const ShiftRow& r : d.fromBase->table.rows) {
        const PatternLevel *is = d.pattern.level(r.level), *was = drafted.pattern.level(r.level);
        if (!is || !is->ring) continue;
        INFO(r.level);
        CHECK(is->finishedGirth == Approx(was->finishedGirth + r.client.mm - r.pattern.mm).margin(1e-6));
        CHECK(d.pattern.closedGirth(*is) == Approx(is->finishedGirth).margin(0.1));
        CHECK(is->bodyGirth == Approx(r.client.mm));
      }
    }
  }
}

TEST_CASE("front and back side keep one shape below the starting level; each level by itself does not") {
  // A straight dress whose back is in one piece: only the sides can take anything.
  Order o;
  o.style = "cup-two-pieces";
  o.choices = choicesOfNewOrders();
  o.choices["back.lines"] = "darts";
  o.choices["hem.length"] = "7 in";
  o.choices["balance.keep"] = "drafted";
  o.measures = allMeasuresOf(realBodies()[60], 90);
  const Pattern shell = shellOf(designOf(o).pattern);
  REQUIRE_FALSE(takesRest(shell));
  const Seam& side = *shell.seam("side");
  const bool frontIsA = shell.pieces[side.a.piece].half == Half::Front;
  const SeamSide &front = frontIsA ? side.a : side.b, &back = frontIsA ? side.b : side.a;
  // How far the difference of both shifts strays from what it is at the starting level, down to the lowest.
  const auto strays = [&](const ShiftTable& table) {
    const auto altered = alter(shell, std::vector{recalculationOf(table, shell)});
    REQUIRE(altered.ok());
    const double from = *placeOnLine(shell, front, "waist"), to = *placeOnLine(shell, front, "high_hip");
    const double fromBack = *placeOnLine(shell, back, "waist"), toBack = *placeOnLine(shell, back, "high_hip");
    double first = 0, most = 0;
    for (int i = 0; i <= 20; ++i) {
      const double t = i / 20.0 * 0.98;
      const double apart = shiftedBy(shell, altered->pattern, front, from + t * (to - from)) -
                           shiftedBy(shell, altered->pattern, back, fromBack + t * (toBack - fromBack));
      if (i == 0) first = apart;
      most = std::max(most, std::abs(apart - first));
    }
    return most;
  };
  ShiftTable table = shiftTable(kClient, kPattern);
  CHECK(strays(table) <= 0.5);
  for (ShiftRow& r : table.rows) r.x = r.f, r.y = r.b;  // each level by itself
  CHECK(strays(table) > 5);
}

TEST_CASE("with more lines the side keeps one value and the rest goes to them, darts left alone") {
  Order o;
  o.style = "reducing-three-lines";
  o.choices = choicesOfNewOrders();
  o.measures = allMeasuresOf(realBodies()[60], 90);
  const Pattern shell = shellOf(designOf(o).pattern);
  REQUIRE(takesRest(shell));
  ShiftTable t = shiftTable(kClient, kPattern, {.toLines = true});
  shareRest(t, shell, 31.75);
  REQUIRE(t.lines.size() >= 2);
  const double y = t.row("waist")->b.mm;  // -0.6 in, the waist's, by hand
  CHECK(y / kMmPerInch == Approx(-0.6).margin(0.1));
  for (size_t i = 0; i < t.rows.size(); ++i) {
    const ShiftRow& r = t.rows[i];
    double rest = 0;
    for (const RestLine& l : t.lines) rest += l.takes[i];
    INFO(r.level);
    if (r.level != "hip") CHECK(r.y.mm == Approx(y));  // no line reaches down there
    CHECK(r.pattern.mm + 2 * (r.e0.mm + r.x.mm + r.y.mm + rest) == Approx(r.client.mm).margin(1e-6));
    for (const RestLine& l : t.lines) CHECK(std::abs(l.takes[i]) <= 31.75 + 1e-9);
  }
  for (const RestLine& l : t.lines)
    for (const std::string& seam : l.seams) CHECK(shell.seam(seam)->kind == SeamKind::Plain);
  // More than the lines can take stays with the back side, and is in its working.
  ShiftTable tight = shiftTable(kClient, kPattern, {.toLines = true});
  shareRest(tight, shell, 1);
  CHECK(tight.row("underbust")->y.mm < y - 5);
  CHECK(tight.row("underbust")->y.working.terms.size() == 2);
}

TEST_CASE("a base measured on its toile is recalculated from what it measures") {
  Order o = plainOrder();
  o.choices["balance.keep"] = "balanced";
  const Design drafted = designOf(o);
  MeasureSet made;
  made.set("waist", {o.measures.mm("waist").value() + 10, "", ""});  // it came out 10 mm wider
  const Result<BasePattern> base = keptAsBase(o, made, "plain", "2026-11-30");
  REQUIRE(base.ok());
  const Design again = designOf(orderFromBase(*base, o.measures));
  CHECK(again.pattern.level("waist")->finishedGirth ==
        Approx(drafted.pattern.level("waist")->finishedGirth - 10).margin(1e-6));
  // A recalculated pattern kept again, and made for the same client, is the same pattern.
  Order second = orderFromBase(*base, allMeasuresOf(realBodies()[30], 80));
  const Design other = designOf(second);
  const Result<BasePattern> kept = keptAsBase(second, {}, "second", "2026-11-30");
  REQUIRE(kept.ok());
  const Design third = designOf(orderFromBase(*kept, second.measures));
  for (const PatternLevel& l : other.pattern.levels)
    if (l.ring) CHECK(third.pattern.level(l.id)->finishedGirth == Approx(l.finishedGirth).margin(1e-6));
}

TEST_CASE("of any client and any base the equations hold, from either level, whatever is written over") {
  Dice dice(17);
  const char* girths[] = {"upper_bust", "bust", "underbust", "waist", "high_hip", "hip"};
  for (int trial = 0; trial < 200; ++trial) {
    MeasuredAt client, base;
    for (const char* id : girths) {
      if (dice.between(0, 1) < 0.15) continue;  // not taken
      base[id] = {dice.between(650, 1200), Source::Taken};
      client[id] = {base[id].mm + dice.between(-90, 90), Source::Taken};
    }
    for (const char* id : {"bust_span", "front_bust_arc", "front_underbust_arc"}) {
      if (dice.between(0, 1) < 0.3) continue;
      base[id] = {dice.between(160, 520), Source::Taken};
      client[id] = {base[id].mm + dice.between(-40, 40), Source::Taken};
    }
    ShiftTableOptions options{.from = dice.between(0, 1) < 0.5 ? SolvedFrom::Waist : SolvedFrom::Underbust,
                              .toLines = dice.between(0, 1) < 0.5};
    if (dice.between(0, 1) < 0.4) options.cells["waist.x"] = dice.between(-10, 10);
    if (dice.between(0, 1) < 0.2) options.cells["e0"] = dice.between(-5, 5);
    const ShiftTable t = shiftTable(client, base, options);
    INFO(trial);
    bool solving = false;
    for (size_t i = 0; i < t.rows.size(); ++i) {
      const ShiftRow& r = t.rows[i];
      INFO(r.level);
      CHECK(r.e0.mm == t.rows.front().e0.mm);
      CHECK(r.pattern.mm + 2 * (r.e0.mm + r.f.mm + r.b.mm) == Approx(r.client.mm).margin(1e-9));
      CHECK(r.pattern.mm + 2 * (r.e0.mm + r.x.mm + r.y.mm + r.rest) == Approx(r.client.mm).margin(1e-9));
      solving = solving || r.solved;
      if (r.solved && !options.toLines && !r.x.byHand && i > 0)
        CHECK(r.x.mm - r.y.mm == Approx(t.rows[i - 1].x.mm - t.rows[i - 1].y.mm).margin(1e-9));
      if (options.toLines && solving) CHECK(r.y.mm == Approx(t.rows.back().y.mm));
      // Every cell can be traced: its working ends at it.
      for (const ShiftCell* c : {&r.e0, &r.f, &r.b, &r.x, &r.y}) {
        CHECK(c->working.result == c->mm);
        CHECK(t.working(c->working.key));
        CHECK_FALSE(c->working.note.empty());
      }
    }
  }
}

TEST_CASE("bodice and skirt meet at one amount on the side") {
  Order o;
  o.style = "dress-with-slit";
  o.choices = choicesOfNewOrders();
  o.measures = allMeasuresOf(realBodies()[60], 90);
  const Pattern shell = shellOf(designOf(o).pattern);
  const Alteration a = recalculationOf(shiftTable(kClient, kPattern), shell);
  const auto atEnd = [&](const char* line, std::string_view end, ShiftSides sides) {
    for (const Shift& s : a.shifts)
      if (s.line == line && s.sides == sides)
        for (const ShiftAt& at : s.at)
          if (at.place == end) return at.mm;
    FAIL(line << " has no " << end);
    return 0.0;
  };
  for (const ShiftSides sides : {ShiftSides::A, ShiftSides::B}) {
    const double above = atEnd("side", kLowerEnd, sides), below = atEnd("side-waist", kUpperEnd, sides);
    CHECK(above == Approx(below));
  }
  // And the seams still fit together.
  const auto altered = alter(shell, {&a, 1});
  REQUIRE(altered.ok());
  CHECK(altered->idle.empty());
  const Seam* waist = nullptr;
  for (const Seam& s : shell.seams)
    if (shell.pieces[s.a.piece].part != shell.pieces[s.b.piece].part && !waist) waist = &s;
  REQUIRE(waist);
  CHECK(altered->pattern.sidePath(waist->a).length() - altered->pattern.sidePath(waist->b).length() ==
        Approx(shell.sidePath(waist->a).length() - shell.sidePath(waist->b).length()).margin(0.5));
}

TEST_CASE("cup radii move the cup line, and what the cup gains its frame loses") {
  Order o;
  o.style = "cup-two-pieces";
  o.choices = choicesOfNewOrders();
  o.choices["balance.keep"] = "drafted";
  o.measures = allMeasuresOf(realBodies()[60], 90);
  const Pattern shell = shellOf(designOf(o).pattern);
  MeasuredAt client = kPattern, base = kPattern;
  client["cup_out"] = {base["cup_out"].mm + 8, Source::Taken};
  const Alteration a = recalculationOf(shiftTable(client, base), shell);
  REQUIRE_FALSE(a.shifts.empty());
  const Pattern altered = alter(shell, {&a, 1})->pattern;
  const auto area = [](const Pattern& p, Part part) {
    double sum = 0;
    for (const Piece& piece : p.pieces)
      if (piece.part == part && piece.half == Half::Front) sum += signedArea(piece.outline(0.05));
    return sum;
  };
  CHECK(area(altered, Part::Cup) > area(shell, Part::Cup) + 100);
  CHECK(area(altered, Part::Panel) < area(shell, Part::Panel) - 100);
  for (const PatternLevel& l : altered.levels)
    CHECK(l.finishedGirth == Approx(shell.level(l.id)->finishedGirth).margin(1e-9));
}

TEST_CASE("the side by itself and as used, as two curves over each other") {
  Order o;
  o.style = "cup-two-pieces";
  o.choices = choicesOfNewOrders();
  o.choices["balance.keep"] = "drafted";
  o.choices["back.lines"] = "darts";
  o.choices["hem.length"] = "7 in";
  o.measures = allMeasuresOf(realBodies()[60], 90);
  const Pattern shell = shellOf(designOf(o).pattern);
  const ShiftTable table = shiftTable(kClient, kPattern);
  // How far the distance of both edges strays below the waist from what it was on the base.
  const auto strays = [&](const Alteration& a) {
    const SideCurves base = sideCurves(shell, {}), now = sideCurves(shell, a);
    REQUIRE(now.front.size() > 10);
    REQUIRE(now.back.size() > 10);
    const auto outAt = [](const Polyline& line, double down) {
      for (size_t i = 0; i + 1 < line.size(); ++i)
        if (line[i].y <= down && down <= line[i + 1].y)
          return lerp(line[i], line[i + 1], (down - line[i].y) / (line[i + 1].y - line[i].y)).x;
      return line.back().x;
    };
    double most = 0;
    for (double down = 0; down < 90; down += 5)
      most = std::max(most, std::abs((outAt(now.front, down) - outAt(now.back, down)) -
                                     (outAt(base.front, down) - outAt(base.back, down))));
    return most;
  };
  CHECK(strays(recalculationOf(table, shell)) < 1);
  CHECK(strays(recalculationOf(eachByItself(table), shell)) > 5);
}
