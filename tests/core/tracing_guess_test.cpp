// Drawings from elsewhere: what is guessed of them, the scale, and what is corrected.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "geometry/path_distance.h"
#include "prepare/arrange.h"
#include "recalc/recalc.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tests/support/tracing.h"
#include "tests/support/two_panels.h"
#include "tracing/corrections.h"
#include "tracing/guess.h"
#include "tracing/outlines.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("a known length gives the scale, and one that cannot be is refused") {
  CHECK(*scaleByLength({0, 0}, {0, 10}, 254) == Approx(25.4));
  CHECK_FALSE(scaleByLength({5, 5}, {5, 5}, 254).ok());
  CHECK_FALSE(scaleByLength({0, 0}, {0, 1}, 5000).ok());
  CHECK_FALSE(scaleByLength({0, 0}, {0, 10}, -3).ok());
}

TEST_CASE("a drawing without names is guessed: fold, opening, seam, levels, grain") {
  const TracingNames names = guessedNames(twoPanels());
  REQUIRE(names.pieces.size() == 2);
  REQUIRE(names.seams.size() == 1);
  CHECK(names.pieces[0].levels.size() == 2);
  CHECK(names.pieces[0].levels[0].id == "bust");
  CHECK(names.pieces[0].grainTop.y < names.pieces[0].grainBottom.y);
  const Result<Pattern> p = tracedPattern(twoPanels(), names);
  INFO((p.ok() ? "" : p.problem().text()));
  CHECK(p.ok());
}

TEST_CASE("a piece is called as the file calls it, but not as an editor counts its lines") {
  LineDrawing d;
  d.shapes = {closedOf({{0, 0}, {200, 0}, {200, 300}, {0, 300}}),
              closedOf({{300, 0}, {500, 0}, {500, 300}, {300, 300}})};
  d.shapes[0].id = "Side Front";
  d.shapes[1].id = "path1234";
  const TracingNames names = guessedNames(d);
  REQUIRE(names.pieces.size() == 2);
  CHECK(names.pieces[0].id == "side-front");
  CHECK(names.pieces[1].id == "piece-2");
  LineDrawing block = twoPanels();  // as a DXF has it: every line of a block by the block's name
  for (DrawnShape& s : block.shapes) s.id = s.path.start().x < 230 ? "FRONT" : "BACK";
  CHECK(guessedNames(block).pieces[1].id == "back");
  CHECK(guessedNames(block).pieces[1].half == Half::Back);
}

TEST_CASE("of every style's own drawing most seams are guessed right") {
  size_t right = 0, all = 0;
  for (const char* style : {"sweetheart-zip", "reducing-three-lines", "straight-laced", "shaping-two-lines"}) {
    Order o = plainOrder();
    o.style = style;
    const Design d = designOf(o);
    const std::vector<Motion> motions = layOutOnPaper(d.pattern, d.cutOutlines, 880).motions;
    LineDrawing drawing;
    for (size_t i = 0; i < d.pattern.shellPieces(); ++i)
      for (const DrawnLine& l : drawnLines(d.pattern.pieces[i], d.cutOutlines[i]))
        if (l.role != LineRole::Cut)
          drawing.shapes.push_back({l.path.transformed(motions[i]), false, "", l.role == LineRole::Fold ? "fold" : ""});
    const TracingNames names = guessedNames(drawing);
    CHECK(names.pieces.size() == d.pattern.shellPieces());
    for (const Seam& s : d.pattern.seams) {
      if (d.pattern.pieces[s.a.piece].layer != "shell") continue;
      ++all;
      right += std::ranges::any_of(names.seams, [&](const NamedSeam& n) {
        const NamedPiece* p = pieceNamed(names, n.a.piece);
        if (!p) return false;
        const auto e = std::ranges::find(p->edges, n.a.edges[0], &NamedEdge::id);
        const auto next = e + 1 == p->edges.end() ? p->edges.begin() : e + 1;
        const Path side = d.pattern.sidePath(s.a).transformed(motions[s.a.piece]);
        return (distance(e->from, side.start()) < 1 && distance(next->from, side.end()) < 1) ||
               (distance(next->from, side.start()) < 1 && distance(e->from, side.end()) < 1);
      });
    }
  }
  CHECK(right * 10 >= all * 6);
}

TEST_CASE("corrections follow through seams and are refused where they cannot be meant") {
  TracingNames n = namedPanels();
  const Result<TracingNames> renamed = renamedEdge(n, {"front", "right"}, "left-side");
  REQUIRE(renamed.ok());
  CHECK(renamed->seams[0].a.edges[0] == "left-side");
  CHECK(tracedPattern(twoPanels(), *renamed).ok());
  const Result<TracingNames> alike = renamedEdge(*renamed, {"back", "left"}, "left-side");
  REQUIRE(alike.ok());
  CHECK(alike->seams[0].id == "left-side");
  CHECK_FALSE(renamedEdge(n, {"front", "right"}, "hem").ok());
  CHECK_FALSE(renamedEdge(n, {"front", "right"}, "").ok());
  CHECK_FALSE(renamedEdge(n, {"front", "right"}, "a.b").ok());
  CHECK_FALSE(renamedEdge(n, {"front", "none"}, "x").ok());
  const Result<TracingNames> piece = renamedPiece(n, "front", "front-1");
  REQUIRE(piece.ok());
  CHECK(piece->seams[0].a.piece == "front-1");
  CHECK_FALSE(renamedPiece(n, "front", "back").ok());
  CHECK_FALSE(renamedPiece(n, "none", "x").ok());

  CHECK(partnersOf(n, {"front", "right"}) == std::vector<TracedEdge>{{"back", "left"}});
  TracingNames loose = notSewn(n, {"back", "left"});
  CHECK(loose.seams.empty());
  CHECK(partnersOf(loose, {"front", "right"}).empty());
  const Result<TracingNames> again = sewn(loose, {"front", "right"}, {"back", "left"});
  REQUIRE(again.ok());
  CHECK(tracedPattern(twoPanels(), *again).ok());
  CHECK_FALSE(sewn(n, {"front", "right"}, {"front", "right"}).ok());
  CHECK_FALSE(sewn(n, {"front", "right"}, {"back", "none"}).ok());
  // What is sewn to something else leaves its seam.
  const Result<TracingNames> other = sewn(n, {"front", "right"}, {"back", "right"});
  REQUIRE(other.ok());
  CHECK(other->seams.size() == 1);
  CHECK(edgeNamed(*other, {"back", "right"})->role == EdgeRole::Seam);

  const TracingNames opened = withRole(n, {"front", "right"}, EdgeRole::Opening);
  CHECK(opened.seams.empty());
  CHECK(withRole(n, {"front", "left"}, EdgeRole::Seam).pieces[0].copies == 2);
  CHECK(withRole(n, {"back", "right"}, EdgeRole::Fold).pieces[1].copies == 1);
  CHECK(withoutPiece(n, "back").seams.empty());
  CHECK(withoutPiece(n, "back").pieces.size() == 1);

  const Result<TracingNames> split = splitAt(n, {"front", "top"}, {100, 0});
  REQUIRE(split.ok());
  CHECK(split->pieces[0].edges.size() == 5);
  CHECK(tracedPattern(twoPanels(), *split).ok());
  const Result<TracingNames> joined = oneWithNext(*split, {"front", "top"});
  REQUIRE(joined.ok());
  CHECK(joined->pieces[0].edges == n.pieces[0].edges);
  CHECK_FALSE(splitAt(n, {"front", "none"}, {100, 0}).ok());
}
