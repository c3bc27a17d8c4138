// Garments on their cloths: every copy once, within the cloth, on its grain, nothing over anything; folded and open;
// kept places.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

#include "laying/search.h"
#include "prepare/cloth_laying.h"
#include "recalc/recalc.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

std::vector<ClothLaying> layingsOf(const Design& design) {
  return clothLayings(design.pattern, design.cutOutlines, pieceList(design.pattern, design.rules),
                      design.rules.keptPlaces());
}

Polyline placed(const ClothLaying& laying, const ClothPlacement& p) {
  Polyline out;
  for (const Vec2 v : laying.outlines[p.piece]) out.push_back(p.motion().apply(v));
  return out;
}

// On the opened cloth, by Clipper: mm^2 shared by two copies, or beyond the cloth.
double worstOnCloth(const ClothLaying& laying, const std::vector<ClothPlacement>& placements, double length) {
  const Polyline cloth{{0, 0}, {length, 0}, {length, laying.width}, {0, laying.width}};
  double worst = 0;
  std::vector<Polyline> laid;
  for (const ClothPlacement& p : placements) {
    laid.push_back(placed(laying, p));
    worst = std::max(worst, std::abs(signedArea(laid.back())) - sharedArea(laid.back(), cloth));
    for (size_t i = 0; i + 1 < laid.size(); ++i) worst = std::max(worst, sharedArea(laid[i], laid.back()));
  }
  return worst;
}

void checkCloth(const Design& design, const CutList& list, const ClothLaying& laying) {
  REQUIRE_FALSE(laying.unfit);
  const StripLayout layout = LayingSearch(laying.problem).best();
  const std::vector<ClothPlacement> placements = laying.placements(layout);
  CHECK(worstOnCloth(laying, placements, layout.length) < 0.5);
  std::map<size_t, std::vector<int>> copies;
  for (const ClothPlacement& p : placements) {
    copies[p.piece].push_back(p.copy);
    const Piece& piece = design.pattern.pieces[list.pieces[p.piece].piece];
    const Vec2 grain = unit(p.motion().applyToDirection(piece.grainBottom - piece.grainTop));
    CHECK(std::abs(grain.y) < 1e-9);
    if (laying.cloth.as.oneWay && !laying.folded) CHECK(grain.x > 0);
    if (list.pieces[p.piece].mirrored) CHECK(p.turn.mirrored == (p.copy % 2 == 0));
  }
  for (size_t i = 0; i < list.pieces.size(); ++i) {
    if (list.pieces[i].cloth != laying.cloth.cloth) continue;
    std::ranges::sort(copies[i]);
    REQUIRE(copies[i].size() == static_cast<size_t>(list.pieces[i].copies));
    for (int k = 0; k < list.pieces[i].copies; ++k) CHECK(copies[i][static_cast<size_t>(k)] == k + 1);
  }
}

}  // namespace

TEST_CASE("every copy of every style is laid once, within its cloth and on its grain, and over nothing") {
  const std::vector<RealBody> bodies = realBodies();
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    for (const size_t b : {7u, 90u}) {
      Order order;
      order.style = std::string(style.id);
      order.measures = allMeasuresOf(bodies[b], 150);
      const Result<Design> design = recalc(order);
      if (!design.ok()) continue;
      const CutList list = pieceList(design->pattern, design->rules);
      for (const ClothLaying& laying : layingsOf(*design)) checkCloth(*design, list, laying);
    }
  }
}

// Two mirrored skirt pieces whose Minkowski sum comes back from the union as a ring that lies over itself.
TEST_CASE("what a region winds round twice is within it too") {
  Order order;
  order.style = "off-shoulder";
  order.measures = allMeasuresOf(realBodies()[93], 130);
  const Design design = recalc(order).value();
  const CutList list = pieceList(design.pattern, design.rules);
  for (const ClothLaying& laying : layingsOf(design)) checkCloth(design, list, laying);
}

TEST_CASE("on folded cloth what is cut at once lies mirrored about the fold") {
  const Design design = recalc(plainOrder()).value();
  const CutList list = pieceList(design.pattern, design.rules);
  const ClothLaying laying = layingsOf(design).front();
  REQUIRE(laying.folded);
  const StripLayout layout = quickLayout(laying);
  std::map<std::pair<size_t, int>, Polyline> laid;
  for (const ClothPlacement& p : laying.placements(layout)) laid[{p.piece, p.copy}] = placed(laying, p);
  for (const auto& [which, outline] : laid) {
    const Piece& piece = design.pattern.pieces[list.pieces[which.first].piece];
    if (piece.symmetry == Symmetry::OnFold) {
      const Box box = boxRound(outline);  // whole, its middle on the fold
      CHECK(box.low.y + box.high.y == Approx(laying.width));
      continue;
    }
    if (which.second % 2 == 0) continue;
    Polyline mirrored = outline;
    for (Vec2& p : mirrored) p.y = laying.width - p.y;
    CHECK(sharedArea(mirrored, laid.at({which.first, which.second + 1})) ==
          Approx(std::abs(signedArea(outline))).epsilon(1e-6));
  }
  CHECK(quickLayout(laying).length == layout.length);
}

TEST_CASE("the outline of a piece on the fold is laid whole: twice its half") {
  const Design design = recalc(plainOrder()).value();
  int onFold = 0;
  for (size_t i = 0; i < design.pattern.pieces.size(); ++i) {
    const Piece& piece = design.pattern.pieces[i];
    const Polyline whole = wholeOutline(piece, design.cutOutlines[i]);
    const double times = piece.symmetry == Symmetry::OnFold ? 2 : 1;
    onFold += times > 1;
    CHECK(std::abs(signedArea(whole)) == Approx(times * std::abs(signedArea(design.cutOutlines[i]))));
    CHECK(isSimple(whole));
  }
  CHECK(onFold > 0);
}

TEST_CASE("a cloth is as wide, lies and may be turned on as the maker says") {
  const Order order = orderWith({{"cloth.satin.width", "36 in"},
                                 {"cloth.satin.lies", "open"},
                                 {"cloth.satin.way", "either-way"},
                                 {"cloth.satin.off-grain", "3"},
                                 {"cloth.satin.apart", "6 mm"},
                                 {"cloth.satin.shrinks", "0.05"}});
  const Design design = recalc(order).value();
  const ClothLaying laying = layingsOf(design).front();
  CHECK(laying.width == Approx(36 * 25.4));
  CHECK_FALSE(laying.folded);
  const StripLayout layout = quickLayout(laying);
  CHECK(laying.needed(layout) == Approx(layout.length / 0.95));
  const std::vector<ClothPlacement> placements = laying.placements(layout);
  for (size_t i = 0; i < placements.size(); ++i) {
    for (size_t j = 0; j < i; ++j) {
      const Polyline b = placed(laying, placements[j]);
      for (const Vec2 p : placed(laying, placements[i])) CHECK(distanceToPolyline(p, b) > 5.99);
    }
    const Piece& piece =
        design.pattern.pieces[pieceList(design.pattern, design.rules).pieces[placements[i].piece].piece];
    const Vec2 grain = placements[i].motion().applyToDirection(piece.grainBottom - piece.grainTop);
    CHECK(std::abs(std::sin(angleBetween(grain, {1, 0}))) < std::sin(3.001 * std::numbers::pi / 180));
  }
}

TEST_CASE("a piece wider than half of the cloth opens it, and one wider than all of it is told") {
  const Design wide = recalc(orderWith({{"cloth.satin.width", "20 in"}})).value();
  CHECK_FALSE(layingsOf(wide).front().unfit);
  Order order = plainOrder();
  order.style = "covered-gored";
  order.choices["cloth.satin.width"] = "10 in";
  const ClothLaying laying = layingsOf(recalc(order).value()).front();
  REQUIRE(laying.unfit);
  CHECK(english(laying.unfit->what).find("no room") != std::string::npos);
}

TEST_CASE("a remnant's outline is what there is of the cloth") {
  Order order = plainOrder();
  order.choices["cloth.satin.remnant"] =
      checkChoice("cloth.satin.remnant", "0 x 0; 60 x 0; 60 x 20; 30 x 40; 0 x 40", Unit::Inch).value();
  const Design design = recalc(order).value();
  const ClothLaying laying = layingsOf(design).front();
  CHECK(laying.width == Approx(40 * 25.4));
  const StripLayout layout = quickLayout(laying);
  CHECK(laying.isEnough(layout));
  CHECK(worstOverlap(laying.problem, layout) < 0.5);
  CHECK_FALSE(checkChoice("cloth.satin.remnant", "0 x 0; 60 x 0", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("cloth.satin.remnant", "0 x 0; 60 x 40; 60 x 0; 0 x 40", Unit::Inch).ok());
  order.choices["cloth.satin.remnant"] = checkChoice("cloth.satin.remnant", "0x0;20x0;20x24;0x24", Unit::Inch).value();
  const ClothLaying scarce = layingsOf(recalc(order).value()).front();
  if (!scarce.unfit) CHECK_FALSE(scarce.isEnough(quickLayout(scarce)));
}

TEST_CASE("a copy kept in its place lies there, and one that cannot be is told") {
  Order order = orderWith({{"cloth.satin.lies", "open"}});
  const Design design = recalc(order).value();
  const CutList list = pieceList(design.pattern, design.rules);
  const ClothLaying before = layingsOf(design).front();
  const ClothPlacement first = before.placements(quickLayout(before)).at(1);
  KeptPlace place{"satin",
                  list.pieces[first.piece].id,
                  first.copy,
                  {first.at.x + 700, first.at.y},
                  first.turn.angleRad * 180 / std::numbers::pi,
                  first.turn.mirrored};
  const std::string key = keptPlaceKey(place);
  order.choices[key] = checkChoice(key, place.text(), Unit::Inch).value();
  const Design kept = recalc(order).value();
  const ClothLaying laying = layingsOf(kept).front();
  CHECK(laying.loosened.empty());
  bool found = false;
  for (const ClothPlacement& p : laying.placements(quickLayout(laying)))
    if (p.piece == first.piece && p.copy == first.copy) found = distance(p.at, place.at) < 1e-6;
  CHECK(found);

  for (const auto& [text, reason] : {std::pair("0 -900 0", "grain"), std::pair("100 100 45", "grain")}) {
    order.choices[key] = checkChoice(key, text, Unit::Inch).value();
    const ClothLaying loose = layingsOf(recalc(order).value()).front();
    REQUIRE(loose.loosened.size() == 1);
    CHECK(english(loose.loosened[0].reason).find(reason) != std::string::npos);
  }
  place.at.y += 5000;
  order.choices[key] = place.text();
  CHECK(english(layingsOf(recalc(order).value()).front().loosened.at(0).reason).find("beyond") != std::string::npos);
  CHECK_FALSE(checkChoice(key, "here", Unit::Inch).ok());
}

namespace {

// Every copy of the order's pieces on its cloths, by a first layout: what is wrong with it is told by the checks.
void checkOrder(const Order& order) {
  const Result<Design> design = recalc(order);
  REQUIRE(design.ok());
  const CutList list = pieceList(design->pattern, design->rules);
  size_t copies = 0, expected = 0;
  for (const ClothLaying& laying : layingsOf(*design)) {
    checkCloth(*design, list, laying);
    copies += laying.placements(LayingSearch(laying.problem).best()).size();
  }
  for (const CutPiece& piece : list.pieces) expected += static_cast<size_t>(piece.copies);
  CHECK(copies == expected);
}

}  // namespace

TEST_CASE("a garment of which one side was altered is laid whole: left and right once each") {
  Order order = plainOrder();
  order.choices = choicesOfNewOrders();
  Alteration taken{.id = "1", .name = "waist", .date = "2026-11-30"};
  taken.shifts = {{"side", ShiftSides::Both, ShiftWay::Across, {{"waist", -4}}, BodySide::Right}};
  order.alterations = {taken};
  const Design design = recalc(order).value();
  REQUIRE_FALSE(design.halves.empty());
  checkOrder(order);
  const CutList list = pieceList(design.pattern, design.rules);
  std::set<std::string> laid;
  for (const ClothLaying& laying : layingsOf(design))
    for (const ClothPlacement& p : laying.placements(quickLayout(laying))) laid.insert(list.pieces[p.piece].id);
  CHECK(std::ranges::any_of(laid, [](const std::string& id) { return id.ends_with("-left"); }));
  CHECK(std::ranges::any_of(laid, [](const std::string& id) { return id.ends_with("-right"); }));
}

TEST_CASE("toiles, layers and straps are laid with all their copies") {
  checkOrder(orderWith({{"cut.for", "toile"}}));
  checkOrder(orderWith({{"layer.strength", "panels"}, {"layer.interfacing", "single"}, {"layer.net", "doubled"}}));
  Order straps = plainOrder();
  straps.style = "straps-shaped";
  straps.measures = allMeasuresOf(realBodies()[12], 130);
  checkOrder(straps);
}

TEST_CASE("folded or open, in whatever width there is, the pieces lie on their grain and over nothing") {
  for (const char* lies : {"folded", "open"})
    for (const char* width : {"30 in", "45 in", "60 in"})
      for (const char* way : {"one-way", "either-way"}) {
        INFO(lies << " " << width << " " << way);
        checkOrder(orderWith({{"cloth.satin.lies", lies}, {"cloth.satin.width", width}, {"cloth.satin.way", way}}));
      }
}

TEST_CASE("a wider cloth never needs more of it, laid for long enough") {
  double before = HUGE_VAL;
  for (const char* width : {"36 in", "54 in", "90 in"}) {
    const Design design = recalc(orderWith({{"cloth.satin.lies", "open"}, {"cloth.satin.width", width}})).value();
    LayingSearch search(layingsOf(design).front().problem);
    for (int i = 0; i < 150 && !search.isShortest(); ++i) search.step();
    CHECK(search.best().length <= before + 1e-6);
    before = search.best().length;
  }
}
