// What can be chosen of edges, shoulders, yokes and inserts: where a bodice ends, where lines end on the shoulder, what
// stays open over the cup, wedges. Figures of the trade are common practice, no source.
#include <catch2/catch.hpp>
#include <cmath>

#include "measure/measure_table.h"
#include "parts/edges/rules.h"
#include "pattern/outline_parts.h"
#include "rules/draft_rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

using Chosen = std::initializer_list<std::pair<const char*, const char*>>;

Design designWith(Chosen choices) { return designOf(orderWith(choices)); }

const Piece& panelOf(const Design& d, Half half, size_t place) {
  return d.pattern.pieces[d.pattern.panel(half, place).value()];
}

double sumOf(const Pattern& p, Half half, std::string_view edge) {
  double sum = 0;
  for (const Piece& piece : p.pieces)
    for (const Edge& e : piece.edges)
      if (piece.half == half && e.id.starts_with(edge)) sum += e.path.length();
  return sum;
}

const Edge& edgeOf(const Piece& piece, EdgeRole role) {
  for (const Edge& e : piece.edges)
    if (e.role == role) return e;
  throw std::out_of_range("no such edge");
}

std::string refused(Chosen choices) {
  const auto design = recalc(orderWith(choices));
  return design.ok() ? "" : design.problem().text();
}

}  // namespace

TEST_CASE("the centre back of the hem is raised by its own amount, the side left where it is") {
  const Design plain = designWith({}), raised = designWith({{"hem.back", "15 mm"}}),
               tail = designWith({{"hem.back", "-40 mm"}});
  const auto lowest = [](const Design& d, Half half, size_t place, bool atCentre) {
    const Path& hem = edgeOf(panelOf(d, half, place), EdgeRole::Hem).path;
    return atCentre ? std::max(hem.start().y, hem.end().y) : std::min(hem.start().y, hem.end().y);
  };
  const auto centreBack = [&](const Design& d) {
    const Path& centre = edgeOf(panelOf(d, Half::Back, 1), EdgeRole::Opening).path;
    return std::max(centre.start().y, centre.end().y);
  };
  CHECK(centreBack(plain) - centreBack(raised) == Approx(15).margin(0.1));
  CHECK(centreBack(tail) - centreBack(plain) == Approx(40).margin(0.1));
  CHECK(lowest(raised, Half::Front, 1, true) == Approx(lowest(plain, Half::Front, 1, true)).margin(0.05));
}

TEST_CASE("a cropped bodice ends above the waist, needs no hip and has no waist level") {
  Order o = orderWith({{"hem.at", "above"}, {"hem.above_waist", "30 mm"}});
  o.measures.erase("hip");
  o.measures.erase("high_hip");
  o.choices["balance.keep"] = "balanced";
  const Design d = designOf(o);
  CHECK_FALSE(d.pattern.level(level::kWaist));
  CHECK(d.pattern.level(level::kUnderbust));
  for (const CheckRow& r : d.sheet.rows) CHECK_FALSE(r.fails());
  const Piece& centre = panelOf(d, Half::Front, 1);
  const Path& fold = centre.edge(centre.onFold).path;
  CHECK(std::max(fold.start().y, fold.end().y) == Approx(d.block.levels.at(level::kWaist).front - 30).margin(0.5));
  CHECK(refused({{"hem.at", "above"}, {"hem.above_waist", "4.5 in"}}).find("underbust") != std::string::npos);
}

TEST_CASE("the princess line ends on the shoulder where the maker likes") {
  for (const double from : {40.0, 75.0, 90.0}) {
    Order o = orderWith({{"cover.kind", "covered"}, {"princess.above", "shoulder"}});
    o.choices["princess.shoulder"] = std::to_string(from) + " mm";
    const Design d = designOf(o);
    INFO(from);
    CHECK(panelOf(d, Half::Front, 1).edge("shoulder").path.length() == Approx(from).margin(4));
  }
  const Design d =
      designWith({{"cover.kind", "covered"}, {"princess.above", "armhole"}, {"princess.armhole", "80 mm"}});
  CHECK(panelOf(d, Half::Front, 2).edge("armhole").path.start().y == Approx(80).margin(12));
}

TEST_CASE("front and back shoulder are as long as the body's as drafted, wherever the line ends") {
  for (const Chosen& choices : std::initializer_list<Chosen>{
           {{"cover.kind", "covered"}, {"princess.above", "shoulder"}},
           {{"cover.kind", "covered"}, {"princess.above", "shoulder"}, {"princess.shoulder", "3.5 in"}},
           {{"cover.kind", "covered"}, {"princess.above", "shoulder"}, {"cover.narrow", "-0.5 in"}},
           {{"cover.kind", "covered"}, {"princess.above", "shoulder"}, {"back.intake_shoulder", "0.5 in"}},
           {{"cover.kind", "straps"}, {"neck.lowered", "0.5 in"}},
           {{"cover.kind", "covered"}, {"princess.above", "armhole"}}}) {
    const Design d = designWith(choices);
    const double front = sumOf(d.pattern, Half::Front, "shoulder"), back = sumOf(d.pattern, Half::Back, "shoulder");
    CHECK(front == Approx(back).margin(0.15));
    const double narrow = d.rules.length(key::kCoverNarrow);
    if (d.rules.option(key::kCoverKind) == CoverKind::Straps) continue;
    const double whole = std::hypot(inches(15) / 2 - d.rules.length(key::kNeckWidth), inches(1)) - narrow;
    CHECK(front == Approx(whole).margin(0.15));
  }
}

TEST_CASE("the back line takes in at the shoulder what a shoulder dart would, and nothing where it begins") {
  const Design d =
      designWith({{"cover.kind", "covered"}, {"princess.above", "shoulder"}, {"back.intake_shoulder", "12 mm"}});
  const PanelLine& line = d.block.back.lines.front();
  const double shoulder = d.block.back.shoulder.pointAt(d.block.back.shoulder.length() / 2).y,
               start = d.block.levels.at(level::kChest).back + inches(1);
  CHECK(line.intakeAtDepth(shoulder) == Approx(12).margin(0.3));
  CHECK(line.intakeAtDepth(start) == Approx(0).margin(0.1));
  CHECK(line.intakeAtDepth((shoulder + start) / 2) == Approx(6).margin(1.5));
}

TEST_CASE("a shoulder dart leaves at the upper edge its width times what lies between, over the bust's height") {
  // Common practice, no source: 5 1/2 in wide, 4 1/2 in below the shoulder line with the bust point at 10 1/2:
  // 5 1/2 x 6 / 10 1/2 = 3.14 in.
  const Design d =
      designWith({{"intake.top_by", "shoulder-dart"}, {"top.from", "shoulder"}, {"top.below_shoulder", "4.5 in"}});
  CHECK(d.block.front.lines.front().intakeAtDepth(inches(4.5)) == Approx(inches(5.5) * 6 / 10.5).margin(0.5));
}

TEST_CASE("a yoke beside an open upper edge begins beyond the princess line") {
  Order o = orderWith({{"cover.kind", "covered"},
                       {"princess.above", "shoulder"},
                       {"top.shape", "sweetheart"},
                       {"neck.shape", "edge"},
                       {"yoke.front", "net"},
                       {"yoke.back", "net"}});
  o.choices["balance.keep"] = "balanced";
  const Design d = designOf(o);
  const Piece& yoke = pieceOf(d.pattern, "yoke-front");
  CHECK(yoke.onFold.empty());
  CHECK(std::none_of(yoke.edges.begin(), yoke.edges.end(), [](const Edge& e) { return isCentre(e.role); }));
  CHECK(hasEdge(yoke, "shoulder"));
  CHECK_FALSE(hasEdge(panelOf(d, Half::Front, 1), "shoulder"));
  for (const CheckRow& r : d.sheet.rows) CHECK_FALSE(r.fails());
  o.choices["keyhole.kind"] = "front";
  const auto keyhole = recalc(o);
  REQUIRE_FALSE(keyhole.ok());
  CHECK(keyhole.problem().text().find("does not reach the centre") != std::string::npos);
  CHECK(refused({{"cover.kind", "covered"}, {"neck.shape", "edge"}, {"princess.above", "armhole"}})
            .find("princess.above") != std::string::npos);
}

TEST_CASE("a level yoke stands at its own height on either half") {
  const Design d = designWith({{"cover.kind", "covered"},
                               {"princess.above", "shoulder"},
                               {"yoke.front", "cloth"},
                               {"yoke.back", "cloth"},
                               {"yoke.line_front", "level"},
                               {"yoke.below_front", "150 mm"},
                               {"yoke.line_back", "level"},
                               {"yoke.below_back", "120 mm"}});
  for (const auto& [half, y] : {std::pair{Half::Front, 150.0}, {Half::Back, 120.0}}) {
    const Path& edge = edgeOf(panelOf(d, half, 1), EdgeRole::Yoke).path;
    CHECK(edge.start().y == Approx(y).margin(0.1));
    CHECK(edge.end().y == Approx(y).margin(0.1));
  }
}

TEST_CASE("a wedge at the centre lies on the fold and ends in a point above the underbust") {
  const Design d = designWith({{"insert.kind", "centre"}, {"insert.end", "point"}, {"insert.point", "20 mm"}});
  const Piece& wedge = pieceOf(d.pattern, "insert-centre");
  REQUIRE_FALSE(wedge.onFold.empty());
  double lowest = 0;
  for (const Vec2 p : wedge.outline(0.1)) lowest = std::max(lowest, p.y);
  CHECK(lowest == Approx(d.block.levels.at(level::kUnderbust).front - 20).margin(0.1));
  CHECK(wedge.girthWeight() == 2);
  CHECK(refused({{"insert.kind", "centre"}, {"insert.end", "point"}, {"opening.front", "zip"}}).find("insert.end") !=
        std::string::npos);
}

TEST_CASE("a wedge at the shoulder is one piece across the closed princess line") {
  Order o = orderWith({{"cover.kind", "covered"},
                       {"princess.above", "shoulder"},
                       {"insert.kind", "shoulder"},
                       {"insert.shoulder_as", "wedge"},
                       {"insert.shoulder", "38 mm"},
                       {"insert.shoulder_long", "150 mm"}});
  const Design d = designOf(o);
  const Piece& wedge = pieceOf(d.pattern, "insert-wedge");
  double across = 0;
  for (const Edge& e : wedge.edges)
    if (e.id.starts_with("shoulder")) across += e.path.length();
  CHECK(across == Approx(38).margin(0.5));
  CHECK_FALSE(d.pattern.seam("princess-insert-wedge"));
  o.choices["balance.keep"] = "balanced";
  for (const CheckRow& r : designOf(o).sheet.rows) CHECK_FALSE(r.fails());
  o.choices["princess.shoulder"] = "1 in";
  o.choices["insert.shoulder"] = "3 in";
  const auto wide = recalc(o);
  REQUIRE_FALSE(wide.ok());
  CHECK(wide.problem().text().find("insert.shoulder") != std::string::npos);
}

TEST_CASE("behind, the neck has a shape of its own, and one end above a keyhole laps over the other") {
  const auto covered = [](const char* shape) {
    return designWith({{"cover.kind", "covered"},
                       {"back.shape", "straight"},
                       {"neck.shape_back", shape},
                       {"neck.depth_back", "80 mm"}});
  };
  const double round = sumOf(covered("round").pattern, Half::Back, "neck"),
               v = sumOf(covered("v").pattern, Half::Back, "neck"),
               square = sumOf(covered("square").pattern, Half::Back, "neck");
  CHECK(v < round);
  CHECK(round < square);
  // As wide as the overlap on a tab; as long, above the keyhole, as before.
  const auto above = [](const char* overlap) {
    const Design d = designWith({{"cover.kind", "covered"},
                                 {"princess.above", "shoulder"},
                                 {"back.shape", "straight"},
                                 {"keyhole.kind", "back"},
                                 {"keyhole.overlap", overlap}});
    return edgeOf(panelOf(d, Half::Back, 1), EdgeRole::Opening).path.length();  // from the neck down
  };
  CHECK(above("20 mm") - above("0 mm") == Approx(40).margin(0.01));
}
