// What can be chosen of a cut or ready-made cup beside its kind: where it begins and ends, how wide it is, what it is
// sized by. Figures of the trade are common practice, no source.
#include <catch2/catch.hpp>
#include <cmath>

#include "measure/measure_table.h"
#include "parts/cups/moulded.h"
#include "pattern/outline_parts.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

using Chosen = std::initializer_list<std::pair<const char*, const char*>>;

Design cupDesign(Chosen choices) {
  Order o = orderWith(choices);
  o.choices.try_emplace("cup.kind", "two");
  return designOf(o);
}

double heightOf(const Design& d, std::string_view level) { return d.block.levels.at(level).front; }

const Piece& framePiece(const Design& d) { return d.pattern.pieces[d.pattern.panel(Half::Front, 1).value()]; }

double resultOf(const Design& d, std::string_view key) {
  const Working* w = d.working(key);
  REQUIRE(w);
  return w->result;
}

Order withRadii(double in, double out) {
  Order o = orderWith({{"cup.kind", "two"}, {"cup.sized", "radii"}});
  for (const auto& [id, mm] : {std::pair{id::kCupIn, in}, {id::kCupOut, out}}) {
    TakenMeasure m;
    m.mm = mm;
    o.measures.set(std::string(id), m);
  }
  return o;
}

const CheckRow* rowOf(const Design& d, std::string_view subject) {
  for (const CheckRow& r : d.sheet.rows)
    if (english(r.subject) == subject) return &r;
  return nullptr;
}

}  // namespace

TEST_CASE("the upper cup in one piece ends below the bust line at the centre and above it at the side") {
  const Design d = cupDesign({{"cup.kind", "upper"}, {"cup.upper_centre", "12 mm"}, {"cup.upper_side", "9 mm"}});
  const Seam *inner = d.pattern.seam("cross-1"), *frame = d.pattern.seam("cup-1");
  REQUIRE(inner);
  REQUIRE(frame);
  CHECK(pieceOf(d.pattern, "cup-upper-inner").name == Message("Upper cup"));
  CHECK(d.pattern.seam("princess-cup"));
  CHECK_FALSE(d.pattern.seam("princess-cup-cross"));
  // The cup line falls upright beside the centre, so what is laid along it is a height.
  const double corner = d.pattern.sidePath(inner->a).start().y;
  CHECK(corner == Approx(heightOf(d, level::kBust) + 12).margin(0.1));
}

TEST_CASE("cups that touch are sewn to each other above a frame on the fold") {
  for (const char* kind : {"two", "three", "upper", "cross", "whole", "gathered"}) {
    INFO(kind);
    Order o = orderWith({{"cup.kind", kind}, {"cup.centre", "touching"}, {"cup.rise", "20 mm"}});
    o.choices["balance.keep"] = "balanced";
    const Design d = designOf(o);
    const Piece& frame = framePiece(d);
    REQUIRE_FALSE(frame.onFold.empty());
    const Path& fold = frame.edge(frame.onFold).path;
    CHECK(std::min(fold.start().y, fold.end().y) == Approx(heightOf(d, level::kUnderbust) - 20).margin(0.5));
    size_t centres = 0;
    for (const Piece& p : d.pattern.pieces)
      for (const Edge& e : p.edges)
        if (e.role == EdgeRole::Centre) {
          ++centres;
          CHECK(p.onFold.empty());
          CHECK(p.copies == 2);
          CHECK(e.allowance == Approx(inches(0.375)));
        }
    CHECK(centres >= 1);
    for (const CheckRow& r : d.sheet.rows) CHECK_FALSE(r.fails());
  }
  const auto opened = recalc(orderWith({{"cup.kind", "two"}, {"cup.centre", "touching"}, {"opening.front", "busk"}}));
  REQUIRE_FALSE(opened.ok());
  CHECK(opened.problem().text().find("cup.centre") != std::string::npos);
}

TEST_CASE("a bridge may be wider at the upper edge than on the bust line") {
  const Design d = cupDesign({{"cup.bridge", "8 mm"}, {"cup.bridge_wider", "10 mm"}, {"top.shape", "straight"}});
  const Path& line = framePiece(d).edge("cup-1").path;
  CHECK(line.start().x == Approx(18).margin(0.05));
  const auto onBust = line.crossings({0, heightOf(d, level::kBust)}, {1, 0});
  REQUIRE(onBust.size() == 1);
  CHECK(line.pointAt(onBust.front()).x == Approx(8).margin(0.05));
}

TEST_CASE("the outer cup is as wide as the inner one, half the span, or the rest of it") {
  const auto outer = [](const char* rule) {
    return resultOf(cupDesign({{"cup.bridge", "10 mm"}, {"cup.outer", rule}}), "cup.outer");
  };
  CHECK(outer("half-span") - outer("inner") == Approx(10));
  CHECK(outer("span") - outer("inner") == Approx(20));
}

TEST_CASE("a cup sized by its radii is as wide as they were measured, the inner one up to the bridge") {
  const Design d = designOf(withRadii(70, 88));
  CHECK(resultOf(d, "cup.outer") == Approx(88));
  CHECK(resultOf(d, "cup.inner") == Approx(70));
  const Design wide = designOf(withRadii(200, 88));
  CHECK(resultOf(wide, "cup.inner") == Approx(inches(7.25) / 2 - inches(0.375)));
}

TEST_CASE("the top edge may stand as far above the bust point as the upper cup radius") {
  Order o = orderWith({{"top.from", "cup"}});
  TakenMeasure up;
  up.mm = 95;
  o.measures.set("cup_up", up);
  const Design d = designOf(o);
  CHECK(heightOf(d, level::kBust) - heightOf(d, level::kTop) == Approx(95));
}

TEST_CASE("the maker's own cup is as deep and wide as it was measured, and its rim is held against the opening") {
  const Design d =
      cupDesign({{"cup.kind", "moulded"}, {"mould.from", "own"}, {"mould.width", "140 mm"}, {"mould.depth", "45 mm"}});
  const MouldedCup cup = mouldedCup(d.body, d.rules);
  CHECK(cup.asBought.baseRadius == Approx(70));
  CHECK(cup.asBought.depth == Approx(45));
  CHECK(cup.pinched.depth > 45);
  CHECK_FALSE(rowOf(d, "Rim of the ready-made cup, against its opening"));
  double opening = 0;
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges)
      if (p.part == Part::Panel && e.role == EdgeRole::Cup) opening += e.path.length();
  for (const double off : {0.0, 5.0, -7.0}) {
    Order o = orderWith(
        {{"cup.kind", "moulded"}, {"mould.from", "own"}, {"mould.width", "140 mm"}, {"mould.depth", "45 mm"}});
    o.choices["mould.rim"] = std::to_string(opening + off) + " mm";
    const Design measured = designOf(o);
    const CheckRow* row = rowOf(measured, "Rim of the ready-made cup, against its opening");
    REQUIRE(row);
    CHECK(row->amount == Approx(std::abs(off)).margin(0.01));
    CHECK((row->verdict == Verdict::Pass) == (std::abs(off) <= 6));
  }
}

TEST_CASE("the cup choices balance on unlike bodies") {
  const std::vector<RealBody> bodies = realBodies();
  for (const Chosen& choices :
       std::initializer_list<Chosen>{{{"cup.kind", "upper"}},
                                     {{"cup.kind", "upper"}, {"cup.centre", "touching"}},
                                     {{"cup.kind", "four"}, {"cup.bridge_wider", "1 in"}, {"cup.frame", "one-piece"}},
                                     {{"cup.kind", "three"}, {"cup.outer", "span"}, {"cup.inside", "both"}},
                                     {{"cup.kind", "whole"}, {"cup.centre", "touching"}},
                                     {{"cup.kind", "two"}, {"cup.sized", "radii"}, {"top.from", "cup"}}})
    for (const size_t body : {3U, 77U})
      for (const double cup : {60.0, 130.0}) {
        Order o = orderWith(choices);
        o.measures = measuresOf(bodies[body], cup / 10);
        o.choices["balance.keep"] = "balanced";
        const Design d = designOf(o);
        for (const CheckRow& r : d.sheet.rows) {
          INFO(o.choices["cup.kind"] << " on body " << body << ": " << english(r.subject));
          CHECK_FALSE(r.fails());
        }
      }
}

TEST_CASE("the opening for the maker's own cup follows its outline, as traced from the apex") {
  const Design d = cupDesign({{"cup.kind", "moulded"},
                              {"mould.from", "own"},
                              {"mould.inner", "3 in"},
                              {"mould.outer", "3.25 in"},
                              {"mould.below", "2.75 in"}});
  const Vec2 apex = d.block.dart.apex;
  const Seam* frame = d.pattern.seam("cup-1");
  REQUIRE(frame);
  double inner = 0, below = 0;
  const Path line = d.pattern.sidePath(frame->a);
  for (double s = 0; s <= line.length(); s += 0.5) {
    const Vec2 p = line.pointAt(s);
    if (std::abs(p.y - apex.y) < 1) inner = std::max(inner, apex.x - p.x);
    below = std::max(below, p.y - apex.y);
  }
  CHECK(inner == Approx(inches(3)).margin(1));
  CHECK(resultOf(d, "cup.inner") == Approx(inches(3)));
  CHECK(resultOf(d, "cup.outer") == Approx(inches(3.25)));
  CHECK(resultOf(d, "cup.radius") == Approx(inches(2.75)));
  const auto wide = recalc(orderWith({{"cup.kind", "moulded"}, {"mould.from", "own"}, {"mould.inner", "6 in"}}));
  REQUIRE_FALSE(wide.ok());
  CHECK(wide.problem().text().find("mould.inner") != std::string::npos);
}
