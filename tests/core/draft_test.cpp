// The block: hand-worked values, the identity, the dart.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "draft/block.h"
#include "draft/dart.h"
#include "recalc/recalc.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tests/support/shaping_checks.h"

using namespace armure;
using namespace armure::testing;

namespace {

Block blockOf(const MeasureSet& m, Choices choices = {}, const char* school = "quarter-grid",
              const char* style = "straight-zip") {
  const Body body = *resolveBody(m);
  const auto block = draftBlock(body, Rules(choices, style, school, figureOf(body)));
  REQUIRE(block.ok());
  return *block;
}

Result<Block> tryBlock(const MeasureSet& m, Choices choices = {}) {
  const Body body = *resolveBody(m);
  return draftBlock(body, Rules(choices, "straight-zip", "quarter-grid", figureOf(body)));
}

}  // namespace

// Worked by hand from the rules of thumb (common practice, no source) for the plain figure: bust 36, upper bust 33.
TEST_CASE("the chest line by its three schools, worked by hand") {
  CHECK(inch(blockOf(plainFigure()).levels.at("chest").front) == Approx(8.5));  // 10 1/2 - 2
  CHECK(inch(blockOf(plainFigure(), {{"chest.school", "bust-sixth"}}).levels.at("chest").front) ==
        Approx(8.5));  // 1 + 36/6 + 1 1/2
  MeasureSet m = plainFigure();
  m.set("armhole", {inches(16.5), "", ""});
  CHECK(inch(blockOf(m, {{"chest.school", "armhole-half"}}).levels.at("chest").front) == Approx(8.25));  // 16 1/2 / 2
  m.set("shoulder_to_chest", {inches(8), "", ""});
  CHECK(inch(blockOf(m).levels.at("chest").front) == Approx(8));  // measured
}

TEST_CASE("shoulder, neck and armhole, worked by hand") {
  const Block b = blockOf(plainFigure(), {{"shoulder.slope_front", "1.5 in"}});
  CHECK(inch(b.front.shoulder.end().x) == Approx(7.5));  // half of 15
  CHECK(inch(b.front.shoulder.end().y) == Approx(1.5));
  CHECK(inch(b.back.shoulder.end().y) == Approx(1));
  CHECK(inch(b.front.neck.start().x) == Approx(3.25));
  CHECK(inch(b.back.neck.start().x) == Approx(3.25));  // the same front and back
  CHECK(inch(b.front.neck.end().y) == Approx(3.5));
  CHECK(inch(b.back.neck.end().y) == Approx(1.25));
  const Vec2 middle = b.front.armhole.cubics()[0].p3;
  CHECK(inch(middle.x) == Approx(7));  // 7 1/2 less 1/2
  CHECK(inch(middle.y) == Approx((1.5 + 8.5) / 2));
  CHECK(b.front.armhole.end().x == Approx(b.front.at("chest").side));
}

TEST_CASE("quarters and sides, worked by hand") {
  const Block b =
      blockOf(plainFigure(), {{"share.rule", "equal"}, {"hold.top", "0 in"}, {"centre_back.waist", "0.5 in"}});
  CHECK(inch(b.front.at("bust").side) == Approx(9));            // 36/4, nothing taken in at the bust point
  CHECK(inch(b.front.at("waist").side) == Approx(7 + 1.5));     // 28/4 + princess 1 1/2
  CHECK(inch(b.back.at("waist").side) == Approx(7 + 1 + 0.5));  // + back line 1 + centre back 1/2
  CHECK(inch(b.front.at("top").side) == Approx(8.25 + 1.75));   // 33/4 + over-bust intake
  const Block plus = blockOf(plainFigure(), {{"share.rule", "front-plus"}});
  CHECK(inch(plus.front.at("bust").side) == Approx(9.5));
  CHECK(inch(plus.levels.at("bust").backShare) == Approx(8.5));
  const Block breast = blockOf(plainFigure(), {{"hold.top", "0 in"}});
  CHECK(inch(breast.levels.at("bust").backShare) == Approx(8.25));        // a quarter of the upper bust
  CHECK(inch(breast.levels.at("bust").frontShare) == Approx(18 - 8.25));  // the rest of the half
}

TEST_CASE("measured front arcs set the front share where they were taken") {
  MeasureSet m = plainFigure();
  m.set("front_bust_arc", {inches(19.5), "", ""});
  const Block b = blockOf(m, {{"share.rule", "front-arcs"}});
  CHECK(inch(b.levels.at("bust").frontShare) == Approx(9.75));
  CHECK(inch(b.levels.at("waist").frontShare) == Approx(7));
}

TEST_CASE("the underbust intake is what is left when the quarter underbust is laid on its line") {
  const Block b = blockOf(plainFigure());
  // Side straight from the dart's lower end to the waist's side; worked here apart from the draft.
  const double dart = 17.5 - 8.5 - 0.49 * 16, leg = b.front.at("bust").side - inches(7.25 / 2),
               angle = 2 * std::asin(inches(dart) / 2 / leg);
  const double endX = inches(7.25 / 2) + leg * std::cos(angle), endY = inches(10.5) + leg * std::sin(angle);
  const double waistX = inches(7 + 1.5), width = endX + (waistX - endX) * (inches(13.5) - endY) / (inches(17.5) - endY);
  CHECK(b.front.at("underbust").lineIntake() == Approx(width - inches(7.5)).margin(1e-9));
  const Block fixed = blockOf(plainFigure(), {{"intake.underbust", "2 in"}});
  CHECK(inch(fixed.front.at("underbust").lineIntake()) == Approx(2));
  CHECK(inch(fixed.front.at("underbust").side) == Approx(7.5 + 2));
}

TEST_CASE("a lacing gap is part of the finished girth, a zip is not a gap") {
  const Block laced = blockOf(plainFigure(), {}, "quarter-grid", "straight-laced"), zipped = blockOf(plainFigure());
  CHECK(inch(laced.gapOn("waist")) == Approx(2));
  CHECK(zipped.gapOn("waist") == 0);
  CHECK(inch(laced.back.centre.xAtDepth(laced.back.at("waist").y)) == Approx(1));
  CHECK(inch(laced.back.at("waist").side) == Approx(7 + 1));  // no centre intake, the gap gives nothing back
  CHECK(inch(zipped.back.centre.xAtDepth(zipped.back.at("waist").y)) == Approx(0));
  const Block shaped = blockOf(plainFigure(), {{"centre_back.waist", "0.5 in"}});
  CHECK(inch(shaped.back.centre.xAtDepth(shaped.back.at("waist").y)) == Approx(0.5));
}

TEST_CASE("the identity holds to 1e-9 on every level of random blocks") {
  size_t drafted = 0;
  for (const Order& o : randomOrders(600, 11)) {
    const Body body = *resolveBody(o.measures);
    const auto made = draftBlock(body, Rules(o.choices, o.style, o.school, figureOf(body)));
    if (!made.ok()) {
      CHECK_FALSE(made.problem().text().empty());
      continue;
    }
    ++drafted;
    for (const HalfBlock* half : {&made->front, &made->back}) {
      for (const HalfLevel& l : half->levels) {
        INFO(o.title << " " << half->id << " " << l.level);
        REQUIRE(std::abs(l.side - (l.share + l.centreIntake + l.lineIntake())) < 1e-9);
        // The intake is the gap that is drawn, and the side line runs through the side.
        for (size_t i = 0; i < half->lines.size(); ++i)
          REQUIRE(half->lines[i].intakeAtDepth(l.y) == Approx(l.intakes[i]).margin(1e-9));
        const bool belowDart = half == &made->front && l.y > made->dart.upper.y;
        REQUIRE((belowDart ? made->sideBelowDart : half->side).xAtDepth(l.y) == Approx(l.side).margin(1e-9));
      }
    }
    for (const Level& l : made->levels.all)
      REQUIRE(l.frontShare + l.backShare == Approx(l.finishedGirth / 2).margin(1e-9));
  }
  CHECK(drafted > 570);
}

TEST_CASE("every working adds up to its result") {
  const Block b = blockOf(plainFigure());
  CHECK(b.workings.size() > 25);
  for (const Working& w : b.workings) {
    double sum = 0;
    for (const Term& t : w.terms) sum += t.sign == '-' ? -t.mm : t.mm;
    INFO(w.key);
    CHECK(sum == Approx(w.result).margin(1e-9));
    CHECK_FALSE(w.title.empty());
  }
}

TEST_CASE("both sides are as long as the side that was measured, from the chest line to the waist") {
  size_t drafted = 0, compared = 0;
  double nearest = 0, farthest = 0;
  for (Order o : randomOrders(150, 16)) {
    o.choices["side.school"] = "side-length";
    const Body guessed = *resolveBody(o.measures);
    const double estimated = guessed.mm("side_length"), taken = estimated * (0.96 + 0.0005 * (drafted % 120));
    o.measures.set("side_length", {taken, "", ""});
    const Body body = *resolveBody(o.measures);
    const auto made = draftBlock(body, Rules(o.choices, o.style, o.school, figureOf(body)));
    if (!made.ok()) continue;
    ++drafted;
    const Level &chest = made->levels.at("chest"), &bust = made->levels.at("bust"), &waist = made->levels.at("waist");
    CHECK(waist.back - chest.back == Approx(taken).margin(1e-9));
    CHECK(waist.front - chest.front - made->levels.sideDart == Approx(taken).margin(1e-9));
    CHECK(bust.back - chest.back == Approx(bust.front - chest.front).margin(1e-9));
    CHECK(waist.back == Approx(body.mm("back_waist_length")).margin(1e-9));
    // On the pieces, along the seam: what lies below the bust line, since a strapless side begins below the chest line.
    const Result<Design> d = recalc(o);
    const Seam* side = d.ok() ? d->pattern.seam("side") : nullptr;
    if (!side) continue;
    const auto at = [&](std::string_view level) {
      return *std::ranges::find_if(side->notches, [&](const SeamNotch& n) { return n.id == level; });
    };
    if (std::ranges::none_of(side->notches, [](const SeamNotch& n) { return n.id == "bust"; })) continue;
    ++compared;
    // As long as the body's, but for what the seam leans where the side takes in much.
    const double wanted = taken - (bust.front - chest.front);
    const Block& block = d->block;
    const double leans[2] = {block.front.at("waist").side - block.dart.lower.x,
                             block.back.at("waist").side - block.back.at("bust").side};
    const double found[2] = {at("waist").a - at("bust").a, at("waist").b - at("bust").b};
    for (const int k : {0, 1}) {
      nearest = std::min(nearest, found[k] - wanted);
      farthest = std::max(farthest, found[k] - std::hypot(wanted, leans[k]));
    }
  }
  CHECK(drafted > 100);
  CHECK(compared > 80);
  CHECK(nearest > -3);
  CHECK(farthest < 15);  // a curve is longer than its chord
}

TEST_CASE("as in front, the back's lines down to the bust stand as high as the front's") {
  const Block b = blockOf(plainFigure(), {{"side.school", "as-in-front"}});
  CHECK(b.levels.at("chest").back == b.levels.at("chest").front);
  CHECK(inch(b.levels.sideDart) == Approx(1.5));
  CHECK(b.levels.backRise == Approx(0).margin(1e-9));
  // 17 1/2 in of front, the chest line at 8 1/2 in, and 49 hundredths of the 16 in of back for the side.
  const Block plain = blockOf(plainFigure());
  CHECK(inch(plain.levels.sideDart) == Approx(17.5 - 8.5 - 0.49 * 16));
  CHECK(inch(plain.levels.at("chest").back) == Approx(16 - 0.49 * 16));
}

TEST_CASE("an estimated side asks for no dart the body cannot have") {
  MeasureSet m = plainFigure();
  m.set("shoulder_to_chest", {inches(6), "", ""});  // far above the bust: 3 2/3 in would be left for the dart
  const Block b = blockOf(m);
  CHECK(inch(b.levels.sideDart) == Approx(1.5));
  CHECK(b.levels.backRise == Approx(0).margin(1e-9));
  m.set("side_length", {inches(9.5), "", ""});  // measured, it counts: 11 1/2 in of front less 9 1/2 in
  CHECK(inch(blockOf(m).levels.sideDart) == Approx(2));
}

TEST_CASE("closing the side dart keeps every length on the turned part") {
  for (const Order& o : randomOrders(60, 12)) {
    const Body body = *resolveBody(o.measures);
    const auto made = draftBlock(body, Rules(o.choices, o.style, o.school, figureOf(body)));
    if (!made.ok()) continue;
    const Block& b = *made;
    const ClosedFront closed = closeSideDart(b);
    CHECK(distance(b.dart.apex, b.dart.upper) ==
          Approx(distance(b.dart.apex, b.dart.lower)).margin(1e-9));  // legs of one length
    CHECK(distance(b.dart.upper, b.dart.lower) == Approx(b.levels.sideDart).margin(1e-9));
    CHECK(distance(closed.turn.apply(b.dart.lower), b.dart.upper) < 1e-9);
    CHECK(distance(closed.turn.apply(b.dart.apex), b.dart.apex) < 1e-9);
    const auto [above, below] = splitAtDepth(b.front.lines[0].toSide, b.dart.apex.y);
    CHECK(closed.toSide[0].length() == Approx(above.length() + below.length()).margin(1e-8));
    CHECK(closed.side.length() == Approx(b.front.side.length() + b.sideBelowDart.length()).margin(1e-8));
    // Girths on the turned part: the width between its two edges is the same before and after.
    for (const char* level : {"underbust", "waist"}) {
      const double y = b.front.at(level).y;
      const Vec2 p{b.front.lines[0].toSide.xAtDepth(y), y}, q{b.front.at(level).side, y};
      CHECK(distance(closed.turn.apply(p), closed.turn.apply(q)) == Approx(distance(p, q)).margin(1e-9));
    }
  }
}

TEST_CASE("once the dart is closed the broken lines are smooth") {
  for (const Order& o : randomOrders(40, 13)) {
    const Body body = *resolveBody(o.measures);
    const auto made = draftBlock(body, Rules(o.choices, o.style, o.school, figureOf(body)));
    if (!made.ok()) continue;
    const ClosedFront closed = closeSideDart(*made);
    for (const Path* path : {&closed.toSide[0], &closed.side})
      for (size_t i = 1; i < path->cubics().size(); ++i)
        CHECK(std::abs(angleBetween(path->cubics()[i - 1].endTangent(), path->cubics()[i].startTangent())) < 1e-6);
  }
}

TEST_CASE("what cannot be drafted is explained, not clamped") {
  MeasureSet m = plainFigure();
  m.set("back_waist_length", {inches(14), "", ""});  // a dart of 3 1/2 in with 3 in between bust and underbust
  auto r = tryBlock(m);
  REQUIRE_FALSE(r.ok());
  CHECK(english(r.problem().where) == "dart.side");
  m.set("back_waist_length", {inches(18.5), "", ""});
  CHECK(english(tryBlock(m).problem().where) == "back_waist_length");
  CHECK(tryBlock(m, {{"dart.side", "1 in"}}).ok());  // the maker may set it by hand
  m = plainFigure();
  m.set("shoulder_to_chest", {inches(11), "", ""});
  CHECK(english(tryBlock(m).problem().where) == "bust");
  m = plainFigure();
  m.set("bust_span", {inches(14.1), "", ""});
  m.set("waist", {inches(25), "", ""});
  CHECK_FALSE(tryBlock(m).ok());
}

TEST_CASE("a chest line by a rule of thumb stays half an inch above the bust point, and says so") {
  MeasureSet m = plainFigure();
  m.set("armhole", {inches(21), "", ""});  // half of it is the bust point's height
  const Block b = blockOf(m, {{"chest.school", "armhole-half"}});
  CHECK(inch(b.levels.at("chest").front) == Approx(10));
  const Working* w = b.working("height.chest");
  REQUIRE(w);
  CHECK(inch(w->result) == Approx(10));
  CHECK(english(w->terms.back().label).find("above the bust point") != std::string::npos);
  m.set("shoulder_to_chest", {inches(10.4), "", ""});  // measured, it is a question of the tape
  CHECK_FALSE(tryBlock(m).ok());
}

TEST_CASE("what is taken off the foot of the front's side is not closed: the sides are as long, the waist as wide") {
  for (const char* foot : {"0.5", "1"}) {
    INFO(foot);
    Order o = orderWith({{"dial.foot", foot}, {"hem.at", "waist"}, {"cup.kind", "moulded"}});
    const Design drafted = designOf(o);
    CHECK(drafted.pattern.closing.changed < 0.01);
    o.choices["balance.keep"] = "balanced";
    const Design d = designOf(o);
    CHECK(d.sheet.pass());
    CHECK(d.balanced->moves.front().largest < 8);
  }
  // Nine of ten parts of an inch and a half: the front's waist ends that much higher at the side.
  const Block b = blockOf(plainFigure(), {{"dart.side", "1.5 in"}, {"dial.foot", "0.9"}});
  const double waist = b.levels.at("waist").front;
  const double rise = waist - b.frontSideAt(waist).y;
  CHECK(inch(rise) == Approx(1.35));
  const double last = b.front.lines.back().toSideX(waist), width = b.front.at("waist").side - last;
  CHECK(std::hypot(b.frontSideAt(waist).x - last, rise) == Approx(width).margin(1e-6));
}
