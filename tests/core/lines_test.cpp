// Style lines: plunges, backs, hems; the handles by which they are held; the drawings of the styles.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "garment/line_handles.h"
#include "garment/sketch.h"
#include "measure/measure_table.h"
#include "parts/edges/rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("a plunge runs from below the underbust past its place on the bust line") {
  for (const char* shape : {"plunge-v", "plunge-u"}) {
    INFO(shape);
    const Design d = designOf(orderWith({{"top.shape", shape}}));
    const Path& top = pieceOf(d.pattern, "front-1").edge("top").path;
    const double under = d.block.levels.at(level::kUnderbust).front, bust = d.block.levels.at(level::kBust).front;
    CHECK(top.start().x == Approx(0).margin(1e-9));
    CHECK(top.start().y == Approx(under + d.rules.length(key::kTopPlunge)));
    const Vec2 beside = top.cubics().front().p3;
    CHECK(beside.y == Approx(bust));
    CHECK(beside.x == Approx(d.rules.length(key::kTopPlungeBeside)));
    // A V leaves the centre straight, a U level, so that both halves make one round line.
    if (std::string(shape) == "plunge-u") CHECK(top.startTangent().y == Approx(0).margin(1e-9));
    CHECK(dot(top.cubics().front().endTangent(), top.cubics().back().startTangent()) == Approx(1));
    // What it leaves open is skin, not cloth: the bust closes to its girth with it.
    for (const PatternLevel& l : d.pattern.levels)
      if (l.id == level::kBust) {
        REQUIRE(l.ring);
        CHECK(l.gaps.skin == Approx(2 * d.rules.length(key::kTopPlungeBeside)).margin(1e-6));
      }
  }
}

TEST_CASE("a plunge and the cup line meet: the cup begins beside the plunge") {
  const Design d = designOf(orderWith({{"top.shape", "plunge-v"}, {"cup.kind", "two"}}));
  const Path line = d.pattern.sidePath(d.pattern.seam("cup-1")->a);
  const Path& top = pieceOf(d.pattern, "front-1").edge("top").path;
  CHECK(distance(line.start(), top.end()) < 1e-9);
  CHECK(line.start().y > d.block.levels.at(level::kBust).front);
}

TEST_CASE("the back edge is level, sloped, scooped or a V") {
  std::map<std::string, double> atLine;
  for (const char* shape : {"straight", "slope", "scoop", "v"}) {
    INFO(shape);
    const Design d = designOf(orderWith({{"back.shape", shape}, {"back.slope", "2 in"}, {"balance.keep", "drafted"}}));
    const Path &side = pieceOf(d.pattern, "back-2").edge("top").path,
               &centre = pieceOf(d.pattern, "back-1").edge("top").path;
    const double drop = centre.end().y - side.start().y;
    if (std::string(shape) == "straight") {
      CHECK(std::abs(drop) < 1);
    } else {
      CHECK(drop == Approx(inches(2) + d.rules.length(key::kTopSide)).margin(1));
    }
    if (std::string(shape) == "scoop") CHECK(std::abs(centre.endTangent().y) < 0.05);
    if (std::string(shape) == "v") CHECK(centre.endTangent().y > 0.2);
    atLine[shape] = centre.start().y - side.start().y;
  }
  // A scoop falls soon behind the side, a V and a slope evenly.
  CHECK(atLine["scoop"] > atLine["v"] + 5);
  CHECK(atLine["v"] == Approx(atLine["slope"]).margin(1.5));
}

TEST_CASE("a hem dipped to a point is deepest at the centre front and up at the side") {
  const Design d = designOf(orderWith({{"hem.shape", "dipped"}, {"hem.dip", "2 in"}, {"hem.raise", "1 in"}}));
  const Path& hem = pieceOf(d.pattern, "front-1").edge("hem").path;
  const Level& level = d.block.levels.at(level::kHem);
  CHECK(hem.end().y == Approx(level.front + inches(2)).margin(1e-6));
  CHECK(hem.start().y < level.front + inches(1.2));
  // The deepest point, at whatever stands at the centre front.
  for (const char* opening : {"fold", "busk", "seam", "lacing"}) {
    INFO(opening);
    const Design deep = designOf(orderWith({{"hem.shape", "dipped"}, {"hem.dip", "3 in"}, {"opening.front", opening}}));
    CHECK(pieceOf(deep.pattern, "front-1").edge("hem").path.end().y == Approx(level.front + inches(3)).margin(1));
  }
  const auto sides = d.pattern.sidePath(d.pattern.seam("side")->b);
  CHECK(sides.end().y == Approx(level.back - inches(1)).margin(5));
}

TEST_CASE("a handle goes where its rule goes, as far") {
  // Every handle of many orders: its rule made 3 mm longer moves it 3 mm along its axis on the drafted pieces.
  int seen = 0;
  for (const auto& lines :
       {orderWith({{"top.shape", "plunge-v"}, {"hem.shape", "dipped"}, {"back.shape", "v"}}),
        orderWith({{"top.shape", "plunge-u"}, {"hem.shape", "raised"}, {"back.shape", "scoop"}}),
        orderWith({{"top.shape", "sweetheart"}, {"opening.kind", "lacing"}}),
        orderWith({{"top.shape", "straight"}, {"hem.shape", "raised"}}),
        orderWith({{"top.shape", "sweetheart"}, {"cup.kind", "two"}}),
        orderWith({{"top.shape", "plunge-v"}, {"cup.kind", "three"}}),
        orderWith({{"cover.kind", "covered"}, {"neck.shape", "round"}, {"skirt.kind", "flare"}}),
        orderWith({{"cover.kind", "covered"}, {"yoke.front", "net"}, {"yoke.back", "net"}, {"keyhole.kind", "back"}}),
        orderWith({{"cover.kind", "straps"}, {"back.shape", "scoop"}}),
        orderWith({{"cover.kind", "halter"}, {"waist.seam", "pointed"}}),
        orderWith({{"cover.kind", "off-shoulder"}, {"top.shape", "straight"}}),
        orderWith({{"cover.kind", "covered"}, {"insert.kind", "both"}}),
        orderWith({{"skirt.kind", "peg"}, {"waist.seam", "pointed"}})})
    for (const char* stage : {"Lines", "Cups"}) {
      Order order = lines;
      order.choices["balance.keep"] = "drafted";
      const Design before = designOf(order);
      for (const LineHandle& h : lineHandles(before.pattern, before.rules, stage)) {
        if (h.sharePerMm > 0) continue;  // the dial: pivot_test.cpp
        Order next = order;
        next.choices[h.key] = formatLengthWithUnit(h.mm + 3, {Unit::Centimetre, 1000});
        INFO(h.key << " on " << before.pattern.pieces[h.piece].id);
        const Design after = designOf(next);
        const double by = findRule(h.key) ? after.rules.value(h.key).number - h.mm : 3;
        for (const LineHandle& moved : lineHandles(after.pattern, after.rules, stage)) {
          if (moved.key != h.key || moved.piece != h.piece) continue;
          ++seen;
          // Along a slanted seam or edge the corner goes a little further or less far than its level; a flared
          // hem's turns.
          CHECK(dot(moved.at - h.at, h.axis) == Approx(by).margin(0.55 * by));
        }
      }
    }
  CHECK(seen > 60);
}

TEST_CASE("every length of a line can be traced to its rule") {
  const Design d = designOf(orderWith({{"top.shape", "plunge-v"}, {"cup.kind", "three"}, {"hem.shape", "dipped"}}));
  for (const char* stage : {"Lines", "Cups"})
    for (const LineHandle& h : lineHandles(d.pattern, d.rules, stage)) {
      const Working* w = d.working("rule." + h.key);
      INFO(h.key);
      REQUIRE(w != nullptr);
      if (h.sharePerMm == 0) CHECK(w->result == h.mm);
      CHECK(english(w->note).find("common practice") != std::string::npos);
    }
}

TEST_CASE("every style has a drawing: whole, mirrored on many bodies") {
  const std::vector<RealBody> bodies = realBodies();
  for (const Preset& style : styleTable())
    for (size_t b = 0; b < bodies.size(); b += 40) {
      INFO(style.id << ", body " << b);
      Order order;
      order.style = style.id;
      order.measures = measuresOf(bodies[b], 95);
      const auto sketch = sketchOf(order);
      REQUIRE(sketch.ok());
      for (const Sketch* view : {&sketch->front, &sketch->back}) {
        size_t outlines = 0;
        double sum = 0, wide = 0;
        for (const SketchLine& line : view->lines) {
          outlines += line.stroke == SketchStroke::Outline || line.stroke == SketchStroke::Sheer;
          for (Vec2 p : line.points) {
            REQUIRE(std::isfinite(p.x));
            REQUIRE(std::isfinite(p.y));
            sum += p.x;
            wide = std::max(wide, std::abs(p.x));
          }
        }
        CHECK(outlines >= 2);  // every piece, on both sides
        CHECK(outlines % 2 == 0);
        CHECK(std::abs(sum) < 1e-6 * wide * 1000);
        // Half a body seen from the front.
        const double bust = resolveBody(order.measures)->mm(id::kBust);
        CHECK(wide > bust / 8);
        CHECK(wide < bust);  // a skirt is the widest
      }
    }
}

TEST_CASE("no edge has a corner where its style has a curve") {
  const std::vector<RealBody> bodies = realBodies();
  for (const Preset& style : styleTable())
    for (size_t b = 5; b < bodies.size(); b += 50) {
      Order order;
      order.style = style.id;
      order.measures = measuresOf(bodies[b], 80);
      order.choices["balance.keep"] = "balanced";
      const Design d = designOf(order);
      const bool square =
          d.rules.option(key::kNeckShape) == NeckShape::Square && d.rules.option(key::kCoverKind) == CoverKind::Covered;
      const bool opens =
          d.rules.option(key::kNeckShape) == NeckShape::Edge && d.rules.option(key::kCoverKind) == CoverKind::Covered;
      for (const Piece& p : d.pattern.pieces)
        for (const Edge& e : p.edges) {
          INFO(style.id << ", body " << b << ": " << p.id << "." << e.id);
          int corners = 0;
          const auto& cubics = e.path.cubics();
          for (size_t i = 0; i + 1 < cubics.size(); ++i)
            corners +=
                std::abs(angleBetween(cubics[i].endTangent(), cubics[i + 1].startTangent())) > 0.035;  // 2 degrees
          if (opens && e.id == "neck" && p.half == Half::Front) {  // where it rises from the open edge
            CHECK(corners <= 1);
            continue;
          }
          CHECK(corners == (square && e.id == "neck" && p.id.starts_with("front") ? 1 : 0));
        }
    }
}
