// Pieces on sheets of paper: all of them, none over another, no sheet for nothing, no more than by rows.
#include <catch2/catch.hpp>
#include <cmath>

#include "prepare/sheets.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

Design inStyle(std::string_view style) {
  Order order = plainOrder();
  order.measures = allMeasuresOf(realBodies()[40], 140);
  order.style = std::string(style);
  return recalc(order).value();
}

// The pieces of a layout lie as they are: turned, not mirrored, and clear of each other.
void checkLayout(const Design& design, const PaperLayout& layout, double apart) {
  for (size_t k = 0; k < layout.pieces.size(); ++k) {
    const Polyline& cut = design.cutOutlines[layout.pieces[k]];
    REQUIRE(layout.outlines[k].size() == cut.size());
    CHECK(signedArea(layout.outlines[k]) == Approx(signedArea(cut)));
    CHECK(layout.motions[k].apply(cut.front()) == layout.outlines[k].front());
    CHECK(layout.boxes[k].low.x > -1e-6);
    CHECK(layout.boxes[k].low.y > -1e-6);
    CHECK(layout.boxes[k].high.x < layout.width + 1e-6);
    CHECK(layout.boxes[k].high.y < layout.height + 1e-6);
    for (size_t i = 0; i < k; ++i) {
      CHECK(sharedArea(layout.outlines[i], layout.outlines[k]) < 0.01);
      for (const Vec2 p : layout.outlines[k]) CHECK(distanceToPolyline(p, layout.outlines[i]) > apart - 0.01);
    }
  }
}

// Of the edge of a sheet's own area to the others' it is not needed.
bool isCovered(const Sheets& sheets, Vec2 p) {
  return std::ranges::any_of(sheets.tiling.tiles, [&](const Tile& t) { return t.area.meets({p, p}); });
}

}  // namespace

TEST_CASE("on sheets every piece lies once, apart from the others, and all of it is printed") {
  for (const char* style : {"sweetheart-laced", "reducing-four-lines", "covered-gored"}) {
    const Design design = inStyle(style);
    for (const char* paper : {"a4", "letter", "a3", "a0"}) {
      INFO(style << " " << paper);
      const Sheets sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = paper});
      CHECK(sheets.layout.pieces == allPieces(design.pattern));
      CHECK(sheets.paper.id == paper);
      checkLayout(design, sheets.layout, 4);
      for (const Polyline& outline : sheets.layout.outlines)
        for (const Vec2 p : outline) REQUIRE(isCovered(sheets, p));
      // Each sheet has a part of a piece on it.
      for (const Tile& t : sheets.tiling.tiles) {
        const Polyline area{t.area.low, {t.area.high.x, t.area.low.y}, t.area.high, {t.area.low.x, t.area.high.y}};
        double printed = 0;
        for (const Polyline& outline : sheets.layout.outlines) printed += sharedArea(outline, area);
        CHECK(printed > 0);
      }
    }
  }
}

TEST_CASE("no style takes more sheets than in rows, and all of them together a fifth less") {
  size_t laid = 0, inRows = 0;
  const std::span<const Preset> styles = styleTable();
  for (size_t s = 0; s < styles.size(); s += 6) {
    const Design design = inStyle(styles[s].id);
    const PaperSize& paper = *findPaper("a4");
    const size_t rows = tile(layOutOnPaper(design.pattern, design.cutOutlines, 880), paper).tiles.size();
    const size_t sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = "a4"}).tiling.tiles.size();
    INFO(styles[s].id << ": " << sheets << ", in rows " << rows);
    CHECK(sheets <= rows);
    laid += sheets;
    inRows += rows;
  }
  CHECK(static_cast<double>(laid) < 0.8 * static_cast<double>(inRows));
}

TEST_CASE("the same pieces are laid the same way again") {
  const Design design = inStyle("shaping-two-lines");
  const PrintWishes wishes{.paper = "a4"};
  const Sheets first = layOnSheets(design.pattern, design.cutOutlines, wishes),
               second = layOnSheets(design.pattern, design.cutOutlines, wishes);
  REQUIRE(first.layout.outlines == second.layout.outlines);
  CHECK(first.tiling.tiles.size() == second.tiling.tiles.size());
}

TEST_CASE("on a roll nothing lies beyond its width, and a piece that is wider is divided") {
  const Design design = inStyle("covered-gored");
  for (const double width : {610.0, 914.0}) {
    const Sheets sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = "roll", .roll = width});
    checkLayout(design, sheets.layout, 4);
    CHECK(sheets.paper.width == width);
    CHECK(sheets.layout.width <= width - 2 * kTileMargin + 1e-6);
    CHECK(sheets.tiling.columns == 1);
    CHECK(sheets.paper.height <= 5000);
  }
  const Sheets narrow = layOnSheets(design.pattern, design.cutOutlines, {.paper = "roll", .roll = 200});
  CHECK(narrow.tiling.columns > 1);
  for (const Tile& t : narrow.tiling.tiles) CHECK(t.area.width() == Approx(200 - 2 * kTileMargin));
  for (const Polyline& outline : narrow.layout.outlines)
    for (const Vec2 p : outline) REQUIRE(isCovered(narrow, p));
}

TEST_CASE("the full size is one sheet in rows, with the grain upright") {
  const Design design = inStyle("sweetheart-laced");
  const Sheets sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = "full"});
  REQUIRE(sheets.tiling.tiles.size() == 1);
  CHECK(sheets.paper.width == 0);
  for (size_t k = 0; k < sheets.layout.pieces.size(); ++k) {
    const Piece& piece = design.pattern.pieces[k];
    const Vec2 grain = sheets.layout.motions[k].applyToDirection(piece.grainBottom - piece.grainTop);
    CHECK(std::abs(grain.x) < 1e-9);
    CHECK(grain.y > 0);
  }
  CHECK_THROWS_AS(layOnSheets(design.pattern, design.cutOutlines, {.paper = "foolscap"}), std::invalid_argument);
}

TEST_CASE("some pieces alone are laid, and what is asked for that is not there is told") {
  const Design design = recalc(orderWith({{"layer.strength", "panels"}})).value();
  const auto idOf = [&](size_t i) { return design.pattern.pieces[i].id; };
  const std::vector<size_t> two = choosePieces(design.pattern, {"back-1", "front-1"}, {}).value();
  REQUIRE(two.size() == 2);
  CHECK(idOf(two[0]) == "front-1");  // in the pattern's order
  CHECK(idOf(two[1]) == "back-1");
  const Sheets sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = "a4", .pieces = two});
  CHECK(sheets.layout.pieces == two);
  CHECK(sheets.tiling.tiles.size() <
        layOnSheets(design.pattern, design.cutOutlines, {.paper = "a4"}).tiling.tiles.size());

  // A layer's pieces are those of the shell where it is cut as they are.
  CHECK(choosePieces(design.pattern, {}, {}).value() == allPieces(design.pattern));
  CHECK_FALSE(choosePieces(design.pattern, {}, {"strength"}).value().empty());
  const auto unknown = choosePieces(design.pattern, {"front-7"}, {});
  REQUIRE_FALSE(unknown.ok());
  CHECK(english(unknown.problem().what).find("front-7") != std::string::npos);
  CHECK(english(unknown.problem().remedy).find("front-1") != std::string::npos);
  CHECK_FALSE(choosePieces(design.pattern, {}, {"velvet"}).ok());
}
