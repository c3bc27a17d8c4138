// What is sewn on beside frills, flounces and plain sleeves: each kind against its own formula, on edges measured
// again. Amounts are common practice, no source; areas and lengths of circles and their sectors are closed formulas.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <tuple>

#include <fmt/format.h>

#include "garment/trim_makers.h"
#include "geometry/unfold.h"
#include "parts/trims/handles.h"
#include "parts/trims/lines.h"
#include "parts/trims/ring.h"
#include "parts/trims/strip.h"
#include "prepare/lists.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/sewn_on.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order styledOrder(const char* style, std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order order = sewnOn(plainOrder(), choices);
  order.style = style;
  return order;
}

// With the measures of arms and shoulders, inches.
Order withArms(Order order, double roundShoulder = 43, double bicep = 13) {
  order.measures.set("round_shoulder", {inches(roundShoulder), ""});
  order.measures.set("bicep", {inches(bicep), ""});
  order.measures.set("arm_length", {inches(23), ""});
  order.measures.set("wrist", {inches(7), ""});
  return order;
}

// On one half, of one edge of what is sewn on.
double coveredBy(const Design& d, std::string_view piece, std::string_view edge) {
  double sum = 0;
  for (const Attachment& a : d.pattern.attachments)
    if (d.pattern.pieces[a.attached.piece].id == piece && a.attached.edge == edge) sum += a.to - a.from;
  return sum;
}

const Notion* notionOf(const CutList& list, std::string_view id) {
  const auto found = std::ranges::find(list.notions, id, &Notion::id);
  return found == list.notions.end() ? nullptr : &*found;
}

bool trimRowsPass(const Design& d) {
  size_t rows = 0;
  for (const CheckRow& r : d.sheet.rows)
    if (r.kind == CheckKind::Trim) {
      ++rows;
      if (!r.passes()) return false;
    }
  return rows > 0;
}

}  // namespace

TEST_CASE("a ruffle off the shoulders is three times the way round both arms, in halves that cross") {
  // Job 09 (common practice): round shoulder 43, 43 x 3 = 129, 10 deep and double, two halves of 22.
  const Design d = recalc(withArms(sewnOn(plainOrder(), {{"ruffle.1.on", "top"}}))).value();
  const Piece& strip = pieceOf(d, "ruffle-1");
  const StripPlan plan = planStrip({.covers = inches(22), .longest = inches(53), .full = 64.5 / 22});
  CHECK(strip.copies == 2 * plan.lengths);
  CHECK(strip.copies * strip.edge("sewn").path.length() == Approx(inches(129)).margin(0.1));
  CHECK(strip.edge("end").path.length() == Approx(inches(20)));
  const Working& w = *d.working("trim.ruffle-1");
  CHECK(w.result == Approx(inches(22)));
  // Front, back and what is free over the arm come to the half; the free part is on no edge.
  double loose = 0;
  for (const Attachment& a : d.pattern.attachments) loose += a.loose;
  const double full = 64.5 / 22, sewn = wholeStretch(d, "ruffle-1") / 2;
  CHECK(sewn + loose / full == Approx(inches(22)).margin(0.01));
  CHECK(loose / full > inches(0.5) + 25);
  // It leaves the edge an inch and a half before the side and ends a quarter inch before the opening.
  const GarmentLine top = garmentLines(d.pattern).front();
  const double side = std::ranges::find(top.marks, "side", &LineMark::id)->at;
  CHECK(sewn == Approx(top.length() - inches(3) - inches(0.25)).margin(0.01));
  CHECK(side > inches(1.5));
  CHECK(pieceOf(d, "interfacing-ruffle-1").edge("end").path.length() == Approx(inches(10)));
  const CutList list = cutList(d.pattern, d.block, d.rules);
  REQUIRE(notionOf(list, "braid"));
  CHECK(notionOf(list, "braid")->count == 2);
  CHECK(notionOf(list, "braid")->length == Approx(inches(64.5 + 1)).margin(0.1));
  CHECK(trimRowsPass(d));
  CHECK(idleReason(withArms(sewnOn(plainOrder(),
                                   {{"ruffle.1.on", "top"}, {"ruffle.1.free_front", "0"}, {"ruffle.1.free_back", "0"}}),
                            28),
                   "ruffle.1.on")
            .find("nothing free over the arm") != std::string::npos);
  CHECK(idleReason(withArms(sewnOn(plainOrder(), {{"ruffle.1.on", "opening"}})), "ruffle.1.on").find("past the side") !=
        std::string::npos);
}

TEST_CASE("ruffles fit real bodies and every strapless style") {
  const std::vector<RealBody> bodies = realBodies();
  size_t b = 3, made = 0;
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order order;
    order.style = std::string(style.id);
    order.measures = allMeasuresOf(bodies[b = (b + 11) % bodies.size()], 130);
    const size_t failing = recalc(order).value().sheet.failing();
    order.choices["ruffle.1.on"] = "top";
    const Design d = recalc(order).value();
    CHECK(d.sheet.failing() == failing);
    CHECK_FALSE(patternProblem(d.pattern));
    if (!d.working("trim.ruffle-1")) continue;
    ++made;
    CHECK(trimRowsPass(d));
    CHECK(sewnLength(d, "ruffle-1") == Approx(3 * d.body.mm("round_shoulder")).margin(0.1));
  }
  CHECK(made > 20);
}

TEST_CASE("a sleeve that hangs is twice its stretch and what is turned in, double, stiffened and boned") {
  // Job 12 (common practice): 5 of the armhole, 5 x 2 = 10, cut 13; 8 x 2 = 16 on the fold.
  Order order = withArms(
      styledOrder("covered-round", {{"hanging-sleeve.1.on", "armhole"}, {"hanging-sleeve.1.to", "start + 5 1/2"}}), 43,
      16);
  const Design d = recalc(order).value();
  const Piece& sleeve = pieceOf(d, "hanging-sleeve-1");
  CHECK(sleeve.copies == 2);
  CHECK(sleeve.edge("sewn").path.length() == Approx(inches(10)).margin(0.1));
  CHECK(sleeve.edge("sewn").path.length() + sleeve.edge("end").allowance + sleeve.edge("start").allowance ==
        Approx(inches(13)).margin(0.1));
  CHECK(sleeve.edge("end").path.length() == Approx(inches(16)));
  CHECK(coveredBy(d, "hanging-sleeve-1", "sewn") == Approx(inches(5)).margin(0.01));
  CHECK(pieceOf(d, "interfacing-hanging-sleeve-1").copies == 4);
  const Notion* bones = notionOf(cutList(d.pattern, d.block, d.rules), "trim-bone");
  REQUIRE(bones);
  CHECK(bones->count == 4);
  CHECK(bones->length == Approx(inches(8) - 12));
  CHECK(trimRowsPass(d));
}

TEST_CASE("on a line that comes back to itself a stretch runs over its start") {
  Order order = withArms(styledOrder("covered-round", {{"hanging-sleeve.1.on", "armhole"},
                                                       {"hanging-sleeve.1.from", "end - 4"},
                                                       {"hanging-sleeve.1.to", "start + 3"},
                                                       {"hanging-sleeve.1.free", "0"}}));
  const Design d = recalc(order).value();
  CHECK(coveredBy(d, "hanging-sleeve-1", "sewn") == Approx(inches(7)).margin(0.01));
  bool front = false, behind = false;
  for (const Attachment& a : d.pattern.attachments) {
    const Piece& p = d.pattern.pieces[a.piece];
    (p.half == Half::Front ? front : behind) = true;
    CHECK(p.edge(a.edge).role == EdgeRole::Armhole);
  }
  CHECK((front && behind));
  CHECK(trimRowsPass(d));
  // Where it was cut open does not show: a place is said from the line's own start.
  const GarmentLine line = stretchOf(d.pattern, d.rules.trims().front()).value().line;
  const double four = std::ranges::find(line.marks, "end", &LineMark::id)->at - inches(4);
  CHECK(placeAlong(line, four, 0.5).starts_with("start + "));
  Order again = order;
  again.choices["hanging-sleeve.1.from"] = placeAlong(line, four, 0.5);
  CHECK(coveredBy(recalc(again).value(), "hanging-sleeve-1", "sewn") == Approx(inches(7)).margin(0.1));
}

TEST_CASE("bindings, facings and piping are as long as their edge, cut on the bias; the rest is bought") {
  for (const auto& [what, wide] : {std::pair{"binding", 4 * 0.375},
                                   {"facing", 0.375 + 2 * 0.25},
                                   {"piping", std::numbers::pi * 0.125 + 2 * 0.25}}) {
    INFO(what);
    const Design d =
        recalc(sewnOn(plainOrder(), {{"edging.1.on", "hem"}, {"edging.1.what", what}, {"edging.1.seam", "1/4"}}))
            .value();
    const Piece& strip = pieceOf(d, "edging-1");
    CHECK(sewnLength(d, "edging-1") == Approx(wholeStretch(d, "edging-1")).margin(0.1));
    const Vec2 grain = unit(strip.grainBottom - strip.grainTop);
    CHECK(std::abs(grain.x) == Approx(std::numbers::sqrt2 / 2));
    CHECK(strip.edge("end").path.length() + strip.edge("sewn").allowance + strip.edge("free").allowance ==
          Approx(inches(wide)).margin(0.01));
    CHECK(trimRowsPass(d));
  }
  const Design lace = recalc(sewnOn(plainOrder(), {{"edging.1.on", "princess"}, {"edging.1.what", "lace"}})).value();
  const Notion* bought = notionOf(cutList(lace.pattern, lace.block, lace.rules), "edging");
  REQUIRE(bought);
  CHECK(bought->count == 2);  // on either side
  CHECK(bought->length == Approx(lace.pattern.sidePath(lace.pattern.seam("princess")->a).length() + inches(1)));
}

TEST_CASE("loops, ties, belts, bows and garter tabs are counted and marked where they are caught") {
  const Design d = recalc(sewnOn(plainOrder(), {{"loops.1.on", "opening"},
                                                {"loops.1.count", "10"},
                                                {"tie.1.on", "opening"},
                                                {"tie.1.end", "pointed"},
                                                {"tie.2.on", "hem"},
                                                {"tie.2.what", "belt"},
                                                {"bow.1.on", "top"},
                                                {"bow.1.tails", "12"},
                                                {"garter-tabs.1.on", "hem"},
                                                {"garter-tabs.1.count", "3"}}))
                       .value();
  const auto places = [&](std::string_view trim) {
    return std::ranges::count(d.pattern.attachments, trim, &Attachment::trim);
  };
  const Piece& tube = pieceOf(d, "loops-1");
  CHECK(tube.copies * tube.edge("sewn").path.length() == Approx(inches(2 * 10 * 2)));
  CHECK(places("loops-1") == 10);
  const Piece& tie = pieceOf(d, "tie-1");
  double lowest = 0;
  for (const Cubic& c : tie.edge("free").path.cubics()) lowest = std::max(lowest, c.p3.y);
  CHECK(lowest - tie.edge("sewn").path.start().y == Approx(inches(24)));
  CHECK(tie.edge("sewn").path.length() == Approx(inches(2)));
  const double waist = d.pattern.level("waist")->finishedGirth;
  CHECK(pieceOf(d, "tie-2").edge("right").path.length() == Approx(waist + inches(24)));
  CHECK(pieceOf(d, "tie-2").copies == 1);
  CHECK(pieceOf(d, "bow-1").edge("sewn").path.length() == Approx(inches(12)));
  CHECK(pieceOf(d, "bow-1").copies == 1);  // on the fold in front
  CHECK(pieceOf(d, "bow-1-tails").edge("sewn").path.length() == Approx(inches(24)));
  CHECK(coveredBy(d, "garter-tabs-1", "sewn") == Approx(inches(3 * 0.75)));
  CHECK(pieceOf(d, "garter-tabs-1").copies == 6);
  CHECK(notionOf(cutList(d.pattern, d.block, d.rules), "garters")->count == 6);
  CHECK(trimRowsPass(d));
  CHECK(idleReason(sewnOn(plainOrder(), {{"loops.1.on", "opening"}, {"loops.1.count", "99"}}), "loops.1.on")
            .find("touch") != std::string::npos);
}

TEST_CASE("a pocket is sewn to both sides of its seam, a godet from its top to the hem") {
  const Design d = recalc(styledOrder("covered-gored", {{"pocket.1.on", "side"},
                                                        {"pocket.1.opening", "6 1/2"},
                                                        {"godet.1.on", "princess"},
                                                        {"godet.1.high", "10"},
                                                        {"godet.1.wide", "12"}}))
                       .value();
  const Seam& side = *d.pattern.seam("side");
  const Piece& bag = pieceOf(d, "pocket-1");
  CHECK(bag.copies == 4);
  CHECK(bag.edge("sewn").path.length() == Approx(inches(6.5)));
  CHECK(coveredBy(d, "pocket-1", "sewn") == Approx(2 * inches(6.5)).margin(0.1));
  CHECK(isSimple(bag.outline(0.05)));
  // Two inches below the waist, on front and back alike.
  const double waist = side.notch("waist")->a;
  for (const Attachment& a : d.pattern.attachments)
    if (a.trim == "pocket-1" && a.piece == side.a.piece) {
      const Anchor at{a.edge, a.from, {}}, to{a.edge, a.to, {}};
      const double upper = std::min(d.pattern.alongSide(side.a, at), d.pattern.alongSide(side.a, to));
      CHECK(upper == Approx(waist + inches(2)).margin(0.1));
    }
  const Piece& godet = pieceOf(d, "godet-1");
  CHECK(godet.edge("sewn").path.length() == Approx(inches(10)));
  CHECK(godet.edge("sewn-2").path.length() == Approx(inches(10)));
  CHECK(godet.edge("hem").path.length() == Approx(inches(12)).margin(0.01));
  CHECK(std::abs(signedArea(godet.outline(0.001))) == Approx(0.5 * inches(10) * inches(12)).epsilon(1e-5));
  CHECK(trimRowsPass(d));
  CHECK(idleReason(sewnOn(plainOrder(), {{"pocket.1.on", "hem"}}), "pocket.1.on").find("no seam") != std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"godet.1.on", "side"}, {"godet.1.to", "waist"}}), "godet.1.on")
            .find("does not end at the hem") != std::string::npos);
}

TEST_CASE("a peplum is sewn to the hem in front and behind, as long at each place as it is said") {
  const Design d = recalc(sewnOn(plainOrder(), {{"peplum.1.on", "hem"},
                                                {"peplum.1.front", "4"},
                                                {"peplum.1.side", "6"},
                                                {"peplum.1.back", "12"},
                                                {"peplum.1.flare", "5"}}))
                       .value();
  const Piece &front = pieceOf(d, "peplum-1-1"), &back = pieceOf(d, "peplum-1-2");
  CHECK(front.symmetry == Symmetry::OnFold);
  CHECK(back.symmetry == Symmetry::Pair);
  CHECK(front.edge("start").path.length() == Approx(inches(4)).margin(0.01));
  CHECK(front.edge("end").path.length() == Approx(inches(6)).margin(0.01));
  CHECK(back.edge("start").path.length() == Approx(inches(6)).margin(0.01));
  CHECK(back.edge("end").path.length() == Approx(inches(12)).margin(0.01));
  CHECK(2 * (front.edge("sewn").path.length() + back.edge("sewn").path.length()) ==
        Approx(wholeStretch(d, "peplum-1")).margin(0.1));
  // Square to both ends, so that hems meet without a corner.
  for (const Piece* p : {&front, &back})
    for (const bool atStart : {true, false}) {
      const Vec2 hem = atStart ? p->edge("free").path.endTangent() : p->edge("free").path.startTangent();
      const Vec2 end = p->edge(atStart ? "start" : "end").path.startTangent();
      CHECK(std::abs(dot(hem, end)) < 1e-3);
    }
  CHECK(trimRowsPass(d));
  // In more pieces it is the same ring, cut apart: as much edge, as much hem.
  Order cut = sewnOn(plainOrder(), {{"peplum.1.on", "hem"}, {"peplum.1.back", "12"}});
  const Design whole = recalc(cut).value();
  cut.choices["peplum.1.pieces"] = "3";
  const Design apart = recalc(cut).value();
  const auto hemOf = [](const Design& of) {
    double sum = 0;
    for (const Piece& p : of.pattern.pieces)
      if (p.id.starts_with("peplum")) sum += 2 * p.edge("free").path.length();
    return sum;
  };
  CHECK(hemOf(apart) == Approx(hemOf(whole)).margin(0.1));
  CHECK(std::ranges::count_if(apart.pattern.pieces, [](const Piece& p) { return p.id.starts_with("peplum"); }) == 6);
  CHECK(trimRowsPass(apart));
  // Of a little beside the side seam there is one piece.
  const Design little =
      recalc(sewnOn(plainOrder(),
                    {{"peplum.1.on", "hem"}, {"peplum.1.from", "side - 1/4"}, {"peplum.1.to", "side + 1/4"}}))
          .value();
  CHECK(trimRowsPass(little));
  CHECK(idleReason(sewnOn(plainOrder(), {{"peplum.1.on", "hem"}, {"peplum.1.flare", "80"}}), "peplum.1.on")
            .find("more than a ring") != std::string::npos);
}

TEST_CASE("unfolded, a rectangle is longer by twice the depth of each pleat") {
  const Polyline rectangle{{0, 0}, {100, 0}, {100, 40}, {0, 40}};
  const Polyline flat = unfolded(rectangle, {{30, 10}, {60, 10}});
  CHECK(signedArea(flat) == Approx((100 + 4 * 10) * 40).epsilon(1e-9));
  CHECK(isSimple(flat));
  // Of a triangle each pleat adds twice what lies over it: a trapeze between f - d and f.
  const Polyline triangle{{0, 0}, {100, 0}, {100, 50}};
  const double over = (20 * 0.5 + 30 * 0.5) / 2 * 10;
  CHECK(signedArea(unfolded(triangle, {{30, 10}})) == Approx(2500 + 2 * over).epsilon(1e-9));
}

TEST_CASE("pleats over a piece: its cloth is wider by what lies under, and folds back to the piece") {
  for (const auto& [piece, run, lie] : {std::tuple{"front-1", "lengthwise", "outwards"},
                                        {"front-1", "lengthwise", "inwards"},
                                        {"front-2", "crosswise", "outwards"},
                                        {"back-1", "crosswise", "inwards"}}) {
    INFO(piece << " " << run << " " << lie);
    const Design d = recalc(sewnOn(plainOrder(), {{"pleats.1.on", piece},
                                                  {"pleats.1.run", run},
                                                  {"pleats.1.lie", lie},
                                                  {"pleats.1.count", "3"},
                                                  {"pleats.1.deep", "1/4"},
                                                  {"pleats.1.seam", "1/2"}}))
                         .value();
    const Piece &over = pieceOf(d, piece), &flat = pieceOf(d, "pleats-1");
    CHECK(flat.copies == (over.symmetry == Symmetry::OnFold ? 1 : 2));
    CHECK(flat.onFold.empty() == over.onFold.empty());
    const auto extent = [&](const Piece& p) {
      const Polyline line = p.outline(0.01);
      const auto along = [&](Vec2 at) { return std::string_view(run) == "lengthwise" ? at.x : at.y; };
      const auto [low, high] = std::ranges::minmax(line, {}, along);
      return along(high) - along(low);
    };
    const double widened = extent(flat) - extent(over);
    const bool atFold = std::string_view(run) == "lengthwise" && !over.onFold.empty();
    // Three pleats lie under by a quarter inch each, and half an inch of allowance lies beyond either edge.
    CHECK(widened == Approx(3 * 2 * inches(0.25) + (atFold ? 1 : 2) * inches(0.5)).margin(inches(0.75)));
    CHECK(d.working("trim.pleats-1")->result == Approx(extent(flat)).margin(0.05));
    CHECK(isSimple(flat.outline(0.05)));
    CHECK_FALSE(patternProblem(d.pattern));
    CHECK(std::ranges::distance(flat.notches()) >= 6);
  }
  // A back on the fold has it on its right.
  const Design back =
      recalc(styledOrder("blouse-flared", {{"pleats.1.on", "back-1"}, {"pleats.1.count", "2"}})).value();
  CHECK(pieceOf(back, "pleats-1").onFold == "fold");
  CHECK_FALSE(patternProblem(back.pattern));
  CHECK(idleReason(sewnOn(plainOrder(), {{"pleats.1.on", "front-9"}}), "pleats.1.on").find("no piece") !=
        std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"pleats.1.on", "front-1"}, {"pleats.1.count", "40"}}), "pleats.1.on")
            .find("over each other") != std::string::npos);
}

TEST_CASE("a high collar is as long as the neckline below and drawn in above by its darts") {
  const Design d = recalc(styledOrder("covered-round", {{"collar.1.on", "top"},
                                                        {"collar.1.shape", "high"},
                                                        {"collar.1.high", "3"},
                                                        {"collar.1.overlap", "0"},
                                                        {"collar.1.tighter", "2"},
                                                        {"collar.1.darts", "2"},
                                                        {"collar.1.dart", "2"}}))
                       .value();
  const Piece& collar = pieceOf(d, "collar-1");
  REQUIRE(collar.darts.size() == 2);
  const double neck = wholeStretch(d, "collar-1") / 2;
  CHECK(collar.edge("sewn").path.length() == Approx(neck).margin(0.1));
  double mouths = 0;
  for (const Dart& dart : collar.darts) {
    CHECK(dart.legs[0].path.length() == Approx(dart.legs[1].path.length()).margin(0.01));
    mouths += collar.edge(dart.mouth).path.length();
  }
  CHECK(mouths == Approx(inches(1)).margin(0.1));  // of the half
  CHECK(d.sheet.failing() == recalc(styledOrder("covered-round", {})).value().sheet.failing());
  CHECK_FALSE(patternProblem(d.pattern));
}

TEST_CASE("a flounce at a sleeve's hem is a ring whose inner edge is that hem") {
  const Design d = recalc(withArms(styledOrder("covered-round", {{"sleeve.1.on", "armhole"},
                                                                 {"sleeve.1.ends", "elbow"},
                                                                 {"sleeve.1.flounce", "18"},
                                                                 {"sleeve.1.turns", "1.2"}})))
                       .value();
  const Piece &sleeve = pieceOf(d, "sleeve-1"), &ring = pieceOf(d, "sleeve-1-flounce");
  const double hem = sleeve.edge("hem").path.length();
  CHECK(ring.copies / 2 * ring.edge("sewn").path.length() == Approx(hem).margin(0.1));
  CHECK(ring.edge("end").path.length() == Approx(inches(18)));
  CHECK(trimRowsPass(d));
  CHECK_FALSE(planRing({.edge = 40, .turns = 3, .seam = 10}));
}

TEST_CASE("every line of every style, its seams too, takes an edging and a frill that fit") {
  const std::vector<RealBody> bodies = realBodies();
  size_t b = 9;
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order order;
    order.style = std::string(style.id);
    order.measures = allMeasuresOf(bodies[b = (b + 29) % bodies.size()], 120);
    const Design bare = recalc(order).value();
    int n = 0;
    for (const GarmentLine& line : garmentLines(bare.pattern)) {
      order.choices[fmt::format("edging.{}.on", ++n)] = line.id;
      if (line.isSeam()) order.choices[fmt::format("frill.{}.on", n)] = line.id;
    }
    const Design d = recalc(order).value();
    CHECK_FALSE(patternProblem(d.pattern));
    CHECK(d.sheet.failing() == bare.sheet.failing());
    CHECK(trimRowsPass(d));
    for (int k = 1; k <= n; ++k) CHECK(d.working(fmt::format("trim.edging-{}", k)));
  }
}
