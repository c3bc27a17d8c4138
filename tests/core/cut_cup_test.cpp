// Cut cups: what pieces come of every kind, that they fit, and that what cannot be is said.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "balance/balance.h"
#include "balance/moved_pattern.h"
#include "balance/solve.h"
#include "garment/garment.h"
#include "operations/crossing.h"
#include "parts/cups/cut_cup.h"
#include "parts/cups/rules.h"
#include "pattern/outline_parts.h"
#include "prepare/cut_outlines.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order withCup(const std::string& kind, const std::string& frame = "seams") {
  Order o = plainOrder();
  o.choices["cup.kind"] = kind;
  o.choices["cup.frame"] = frame;
  o.choices["balance.keep"] = "balanced";
  return o;
}

std::set<std::string> idsOf(const Pattern& p) {
  std::set<std::string> ids;
  for (const Piece& piece : p.pieces) ids.insert(piece.id);
  return ids;
}

// What balancing answers for; an intake beyond its cap or a piece too narrow are wishes of the draft.
bool isFault(const CheckRow& r) {
  return r.fails() && r.kind != CheckKind::Intake && r.kind != CheckKind::Piece && r.kind != CheckKind::Curve;
}

}  // namespace

TEST_CASE("every kind of cup gives the pieces a maker expects") {
  using Ids = std::set<std::string>;
  const Ids panels{"front-1", "front-2", "back-1", "back-2"};
  const auto with = [&](Ids cup) {
    cup.insert(panels.begin(), panels.end());
    return cup;
  };
  CHECK(idsOf(designOf(withCup("princess")).pattern) == panels);
  CHECK(idsOf(designOf(withCup("two")).pattern) == with({"cup-inner", "cup-outer"}));
  CHECK(idsOf(designOf(withCup("three")).pattern) == with({"cup-inner", "cup-outer", "band-inner"}));
  CHECK(idsOf(designOf(withCup("cross")).pattern) == with({"cup-inner", "cup-upper-inner"}));
  CHECK(idsOf(designOf(withCup("four")).pattern) ==
        with({"cup-inner", "cup-outer", "cup-upper-inner", "cup-upper-outer"}));
  CHECK(idsOf(designOf(withCup("cross", "one-piece")).pattern) ==
        Ids{"front-1", "back-1", "back-2", "cup-inner", "cup-upper-inner"});
  CHECK(pieceOf(designOf(withCup("three")).pattern, "band-inner").name == "Upper cup band");
}

TEST_CASE("the cup line runs where the working says") {
  const Design d = designOf([] {
    Order o = withCup("two");
    o.choices["balance.keep"] = "drafted";
    return o;
  }());
  const Seam &inner = *d.pattern.seam("cup-1"), &outer = *d.pattern.seam("cup-2");
  const Path line = d.pattern.sidePath(inner.a);
  // On the bust line it stands at the bridge; at its end it meets the princess seam at the underbust.
  const Vec2 bust = line.pointAt(inner.notches.front().a);
  CHECK(bust.x == Approx(d.rules.length(key::kCupBridge)));
  CHECK(d.working("cup.inner")->result == Approx(d.block.dart.apex.x - bust.x));
  const HalfLevel& under = d.block.front.at(level::kUnderbust);
  CHECK(line.end().y == Approx(under.y));
  // Its upper end lies on the top edge, as far from the side as asked.
  const Piece &frame = pieceOf(d.pattern, "front-2"), &cup = pieceOf(d.pattern, "cup-outer");
  CHECK(frame.edge("top").path.length() == Approx(d.rules.length(key::kCupSide)));
  CHECK(d.pattern.sidePath(outer.a).end() == frame.edge("top").path.start());
  CHECK(distance(cup.edge("top").path.end(), frame.edge("top").path.start()) < 1e-9);
  for (const char* key : {"cup.inner", "cup.outer", "cup.end", "cup.radius"}) {
    const Working* w = d.working(key);
    REQUIRE(w != nullptr);
    double sum = 0;
    for (const Term& t : w->terms) sum += t.sign == '-' ? -t.mm : t.mm;
    CHECK(sum == Approx(w->result));
  }
}

TEST_CASE("cups of every kind balance and pass the sheet on real bodies") {
  const std::vector<RealBody> bodies = realBodies();
  for (size_t b = 0; b < bodies.size(); b += 13)
    for (double cup : {50.0, 95.0, 140.0})
      for (const char* kind : {"two", "three", "cross", "four"})
        for (const char* frame : {"seams", "one-piece"}) {
          Order order = withCup(kind, frame);
          order.measures = measuresOf(bodies[b], cup);
          order.style = b % 2 == 0 ? "sweetheart-zip" : "straight-laced";
          INFO("body " << b << ", cup " << cup << ", " << kind << ", " << frame);
          const Design d = designOf(order);
          CHECK(d.balanced->unreachable.empty());
          for (const CheckRow& r : d.sheet.rows) {
            INFO(r.subject << " " << r.detail << " " << r.amount);
            CHECK_FALSE(isFault(r));
          }
          for (const Seam& s : d.pattern.seams)
            CHECK(d.pattern.sidePath(s.a).length() == Approx(d.pattern.sidePath(s.b).length()).margin(1e-5));
          for (const PatternLevel& l : d.pattern.levels)
            if (l.ring) CHECK(d.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(1e-4));
        }
}

TEST_CASE("a frame in one piece takes at every level below what it takes at the underbust") {
  for (const char* school : {"thumb", "even", "side-weighted", "flat-front", "quarter-minus", "middle-piece"}) {
    Order order = withCup("two", "one-piece");
    order.choices["distribution.school"] = school;
    INFO(school);
    const Design d = designOf(order);
    const PanelLine& line = d.block.front.lines.front();
    const double under = line.intakeAtDepth(d.block.front.at(level::kUnderbust).y);
    for (std::string_view id : {level::kWaist, level::kHem})
      CHECK(line.intakeAtDepth(d.block.front.at(id).y) == Approx(under).margin(1e-9));
    CHECK(d.working("cup.frame")->result < 1e-9);  // its edges were one line
    CHECK(d.pattern.seam("princess") == nullptr);
  }
}

TEST_CASE("under a halter a cup is closed all round, and with a low edge at the side it is widest below its end") {
  const std::vector<RealBody> bodies = realBodies();
  for (size_t b = 5; b < bodies.size(); b += 45)
    for (const char* kind : {"two", "three", "gathered", "moulded"}) {
      INFO(b << ' ' << kind);
      Order o = withCup(kind, "seams");
      o.measures = measuresOf(bodies[b], 95);
      o.choices["balance.keep"] = "balanced";
      o.choices["cover.kind"] = "halter";
      const Design halter = designOf(o);
      CHECK(halter.sheet.pass());
      CHECK(hasEdge(halter.pattern.pieces[halter.pattern.panel(Half::Front, 1).value()], "neck"));
      o.choices["cover.kind"] = "strapless";
      o.choices["top.side"] = "-2.5 in";  // down to the bust line and below it
      CHECK(designOf(o).sheet.pass());
    }
}

TEST_CASE("a frame that cannot be closed says what holds it open") {
  // A line held by hand cannot be closed without a seam.
  Order order = withCup("two", "one-piece");
  order.choices["hold.waist.princess"] = "0.25 in";
  const auto held = recalc(order);
  REQUIRE_FALSE(held.ok());
  CHECK(english(held.problem().where) == "Frame in one piece");
  CHECK(english(held.problem().remedy).find("held") != std::string::npos);
}

TEST_CASE("without the constraint for joins a sewn line kinks where it crosses a seam") {
  const std::vector<RealBody> bodies = realBodies();
  double most = 0;
  for (size_t b = 0; b < bodies.size(); b += 17) {
    Order order = withCup("two");
    order.choices["balance.keep"] = "drafted";
    order.measures = measuresOf(bodies[b], 140);
    const Design d = designOf(order);
    const BalanceOptions options;
    BalanceProblem problem(d.pattern, options);
    problem.leaveOut(Family::Join);
    const Pattern loose = movedPattern(d.pattern, problem, solve(problem, {}).x);
    most = std::max(most, std::abs(turnAcross(loose, *loose.seam("princess"), true)));
    const Balanced tied = balance(d.pattern);
    CHECK(std::abs(turnAcross(tied.pattern, *tied.pattern.seam("princess"), true)) < 1e-6);
    CHECK(std::abs(turnAcross(tied.pattern, *tied.pattern.seam("princess-cup"), false)) < 1e-6);
  }
  CHECK(most > 1e-3);
}
