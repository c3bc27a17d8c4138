// Sewing two lines of edges together: lines that are divided alike, differently, and across pieces; the line an edge
// runs on in.
#include <catch2/catch.hpp>

#include "operations/sew.h"
#include "pattern/outline_parts.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// A strip 50 mm high whose upper edge is divided into edges of these lengths, called up-0, up-1, ... from the left; its
// lower edge, from the right, is down-0, down-1, ...
Piece strip(const std::string& id, const std::vector<double>& up, const std::vector<double>& down, double x, double y) {
  Piece p;
  p.id = id;
  p.name = verbatim(id);
  double at = x;
  for (size_t i = 0; i < up.size(); at += up[i++])
    p.edges.push_back({"up-" + std::to_string(i), EdgeRole::Yoke, 6, Path::line({at, y}, {at + up[i], y})});
  p.edges.push_back({"right", EdgeRole::Hem, 6, Path::line({at, y}, {at, y + 50})});
  const double right = at;
  for (size_t i = 0; i < down.size(); at -= down[i++])
    p.edges.push_back({"down-" + std::to_string(i), EdgeRole::Yoke, 6,
                       Path::line({at, y + 50}, {i + 1 == down.size() ? x : at - down[i], y + 50})});
  p.edges.push_back({"left", EdgeRole::Hem, 6, Path::line({x, y + 50}, {x, y})});
  p.grainTop = {(x + right) / 2, y + 5};
  p.grainBottom = {(x + right) / 2, y + 45};
  return p;
}

// The lower edge of a piece from left to right.
std::vector<SewnEdge> lowerEdge(size_t piece, size_t edges) {
  std::vector<SewnEdge> line;
  for (size_t i = edges; i-- > 0;) line.push_back({piece, {"down-" + std::to_string(i), true}});
  return line;
}

std::vector<SewnEdge> upperEdge(size_t piece, size_t edges) {
  std::vector<SewnEdge> line;
  for (size_t i = 0; i < edges; ++i) line.push_back({piece, {"up-" + std::to_string(i), false}});
  return line;
}

// Each edge of both lines is sewn exactly once, to as much of the other line.
void checkSewn(const Pattern& p, double scale) {
  std::map<std::pair<size_t, std::string>, int> sewn;
  for (const Seam& s : p.seams) {
    CHECK(p.sidePath(s.b).length() == Approx(scale * p.sidePath(s.a).length()).margin(4.1));
    for (const SeamSide* side : {&s.a, &s.b})
      for (const EdgeUse& use : side->chain) ++sewn[{side->piece, use.edge}];
  }
  for (const auto& [edge, times] : sewn) CHECK(times == 1);
}

}  // namespace

TEST_CASE("two lines of one edge each become one seam, walked the same way") {
  Pattern p;
  p.pieces = {strip("above", {300}, {300}, 0, 0), strip("below", {300}, {300}, 0, 100)};
  sewLines(p, lowerEdge(0, 1), upperEdge(1, 1), "yoke", "Yoke seam");
  REQUIRE(p.seams.size() == 1);
  CHECK(p.seams[0].id == "yoke");
  CHECK(p.seams[0].name == "Yoke seam");
  CHECK(distance(p.sidePath(p.seams[0].a).start(), {0, 50}) < 1e-9);
  CHECK(distance(p.sidePath(p.seams[0].b).start(), {0, 100}) < 1e-9);
  checkSewn(p, 1);
}

TEST_CASE("an undivided edge is divided where the other line's pieces meet, in proportion where it is longer") {
  for (const double scale : {1.0, 1.5}) {
    Pattern p;
    p.pieces = {strip("yoke", {300 * scale}, {300 * scale}, 0, 0), strip("centre", {120}, {120}, 0, 100),
                strip("side", {180}, {180}, 300, 100)};
    sewLines(p, {{1, {"up-0", false}}, {2, {"up-0", false}}}, lowerEdge(0, 1), "yoke", "Yoke seam");
    REQUIRE(p.seams.size() == 2);
    CHECK(p.seams[1].id == "yoke-2");
    CHECK(p.sidePath(p.seams[0].b).length() == Approx(120 * scale).margin(1e-6));
    CHECK(p.sidePath(p.seams[1].b).length() == Approx(180 * scale).margin(1e-6));
    CHECK(p.seams[0].a.piece == 1);
    CHECK(p.seams[1].a.piece == 2);
    checkSewn(p, scale);
    // The yoke is still one closed outline, its lower edge as long as before.
    CHECK(lengthOfLine(p, {{0, p.seams[0].b.chain[0]}, {0, p.seams[1].b.chain[0]}}) == Approx(300 * scale));
    const Piece& yoke = p.pieces[0];
    for (size_t i = 0; i < yoke.edges.size(); ++i)
      CHECK(distance(yoke.edges[i].path.end(), yoke.edges[(i + 1) % yoke.edges.size()].path.start()) < 1e-9);
  }
}

TEST_CASE("edges of the same two pieces that follow each other are one seam") {
  Pattern p;
  p.pieces = {strip("above", {300}, {100, 80, 120}, 0, 0), strip("below", {120, 180}, {300}, 0, 100)};
  sewLines(p, lowerEdge(0, 3), upperEdge(1, 2), "yoke", "Yoke seam");
  REQUIRE(p.seams.size() == 1);
  CHECK(p.sidePath(p.seams[0].a).length() == Approx(300));
  CHECK(p.sidePath(p.seams[0].b).length() == Approx(300));
  checkSewn(p, 1);
}

TEST_CASE("ends that lie within a seam's width of each other are taken to meet") {
  Pattern p;
  p.pieces = {strip("above", {300}, {151, 149}, 0, 0), strip("left", {150}, {150}, 0, 100),
              strip("right", {150}, {150}, 200, 100)};
  sewLines(p, lowerEdge(0, 2), {{1, {"up-0", false}}, {2, {"up-0", false}}}, "yoke", "Yoke seam");
  REQUIRE(p.seams.size() == 2);
  for (const Seam& s : p.seams) {
    CHECK(s.a.chain.size() == 1);  // nothing was cut into crumbs
    CHECK(s.b.chain.size() == 1);
  }
  checkSewn(p, 1);
}

TEST_CASE("a line without edges is refused") {
  Pattern p;
  p.pieces = {strip("above", {300}, {300}, 0, 0)};
  CHECK_THROWS_AS(sewLines(p, {}, lowerEdge(0, 1), "yoke", "Yoke seam"), std::invalid_argument);
  CHECK_THROWS_AS(lengthOfLine(p, {{0, {"nowhere", false}}}), std::out_of_range);
}

TEST_CASE("the upper edge runs on from piece to piece as far as the seam it is to stop at") {
  const Design d = designOf(orderWith({{"lines.front", "2"}, {"lines.back", "2"}}));
  const auto indexOf = [&](const std::string& id) {
    return static_cast<size_t>(&pieceOf(d.pattern, id) - d.pattern.pieces.data());
  };
  const std::vector<SewnEdge> front = lineFrom(d.pattern, {indexOf("front-1"), {"top", false}}, "side");
  REQUIRE(front.size() == 3);
  for (size_t i = 0; i < front.size(); ++i)
    CHECK(d.pattern.pieces[front[i].piece].id == "front-" + std::to_string(i + 1));
  // With nothing to stop it, on to the centre back.
  const std::vector<SewnEdge> all = lineFrom(d.pattern, {indexOf("front-1"), {"top", false}}, "");
  REQUIRE(all.size() == 6);
  CHECK(d.pattern.pieces[all.back().piece].id == "back-1");
  double sum = 0;
  for (const Piece& p : d.pattern.pieces)
    if (p.layer == "shell" && hasEdge(p, "top")) sum += p.edge("top").path.length();
  CHECK(lengthOfLine(d.pattern, all) == Approx(sum).margin(1e-9));
}
