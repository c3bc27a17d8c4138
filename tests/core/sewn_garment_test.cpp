// What is sewn on within the whole garment: the lines of every style, both sides of a body, toiles, the sheet, the
// order of sewing, cloth, drawing and handles.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "alter/alter.h"
#include "garment/line_handles.h"
#include "garment/sketch.h"
#include "parts/trims/handles.h"
#include "pattern/outline_parts.h"
#include "prepare/cloth_laying.h"
#include "prepare/drawing.h"
#include "prepare/sewing.h"
#include "recalc/idle.h"
#include "recalc/job_sheet.h"
#include "recalc/recalc.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order sewn(Order order, std::initializer_list<std::pair<const char*, const char*>> choices) {
  for (const auto& [key, value] : choices) order.choices[key] = checkChoice(key, value, Unit::Inch).value();
  return order;
}
Order styled(std::string_view style, std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order order = plainOrder();
  order.style = style;
  return sewn(std::move(order), choices);
}
size_t failingTrims(const Design& d) {
  return static_cast<size_t>(
      std::ranges::count_if(d.sheet.rows, [](const CheckRow& r) { return r.kind == CheckKind::Trim && r.fails(); }));
}

}  // namespace

TEST_CASE("every style has lines that marks divide in order, each edge in one of them") {
  size_t lines = 0;
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order order = plainOrder();
    order.style = std::string(style.id);
    const Result<Design> d = recalc(order);
    if (!d.ok()) continue;
    std::set<std::pair<size_t, std::string>> seen;
    std::set<std::string> ids;
    for (const GarmentLine& line : garmentLines(d->pattern)) {
      ++lines;
      INFO(line.id);
      CHECK(ids.insert(line.id).second);
      REQUIRE(line.edges.size() == line.ends.size());
      double length = 0;
      for (size_t k = 0; k < line.edges.size(); ++k) {
        CHECK(seen.emplace(line.edges[k].piece, line.edges[k].use.edge).second);
        length += d->pattern.pieces[line.edges[k].piece].edge(line.edges[k].use.edge).path.length();
        CHECK(line.ends[k] == Approx(length));
      }
      for (size_t m = 0; m + 1 < line.marks.size(); ++m) CHECK(line.marks[m].at <= line.marks[m + 1].at + 1e-9);
      CHECK(line.marks.front().at == Approx(0).margin(1e-9));
      CHECK(line.marks.back().at == Approx(length));
    }
  }
  CHECK(lines > 90);
}

TEST_CASE("an armhole runs from the shoulder down in front and up behind") {
  const Design d = recalc(styled("covered-round", {})).value();
  const std::vector<GarmentLine> lines = garmentLines(d.pattern);
  const auto armhole = std::ranges::find(lines, "armhole", &GarmentLine::id);
  REQUIRE(armhole != lines.end());
  CHECK(d.pattern.pieces[armhole->edges.front().piece].half == Half::Front);
  CHECK(d.pattern.pieces[armhole->edges.back().piece].half == Half::Back);
  const auto begins = [&](const SewnEdge& e) { return d.pattern.pieces[e.piece].edge(e.use.edge).path.start().y; };
  CHECK(begins(armhole->edges.front()) < d.block.levels.at("chest").front);
  CHECK_FALSE(armhole->runsOver[0]);
  CHECK_FALSE(armhole->runsOver[1]);
}

TEST_CASE("of a body whose sides are not alike each side gets what it needs, and the sheet passes") {
  for (const char* line : {"hem", "top"}) {
    INFO(line);
    Order order = sewn(plainOrder(), {{"frill.1.on", line}, {"flounce.1.on", line}, {"flounce.1.turns", "2"}});
    order.choices["balance.keep"] = "balanced";
    Alteration a{.id = "1", .name = "hip", .date = "2026-11-30"};
    a.shifts = {{"side", ShiftSides::Both, ShiftWay::Across, {{"waist", 0}, {"hem", 6}, {"top", 3}}, BodySide::Left}};
    order.alterations = {a};
    const Result<Design> made = recalc(order);
    REQUIRE(made.ok());
    const Design& d = *made;
    REQUIRE(isSplit(d.pattern));
    CHECK_FALSE(patternProblem(d.pattern));
    CHECK(failingTrims(d) == 0);
    // As much strip as both edges together ask for.
    double edge = 0, strip = 0;
    for (const BodySide side : {BodySide::Left, BodySide::Right})
      for (const Attachment& at : d.half(side).pattern.attachments)
        if (at.trim == "frill-1") edge += at.to - at.from;
    for (const Piece& p : d.pattern.pieces)
      if (p.layer == "trim" && chosenAs(p) == "frill-1") strip += p.copies * p.edge("sewn").path.length();
    CHECK(strip == Approx(2.5 * edge).margin(0.2));
    CHECK(d.pattern.pieces[d.pattern.pieces.size() - 1].of == static_cast<int>(d.pattern.pieces.size()));
    for (const Idle& i : idleIn(order, d)) CHECK_FALSE(i.key.starts_with("frill"));
  }
}

TEST_CASE("of such a body every kind is made for either side, and what is bought for it is counted once") {
  Order order = sewn(plainOrder(), {{"ruffle.1.on", "top"},
                                    {"peplum.1.on", "hem"},
                                    {"edging.1.on", "top"},
                                    {"edging.2.on", "princess"},
                                    {"loops.1.on", "opening"},
                                    {"tie.1.on", "opening"},
                                    {"bow.1.on", "top"},
                                    {"pocket.1.on", "side"},
                                    {"pocket.1.from", "start + 1"},
                                    {"pocket.1.opening", "3"},
                                    {"godet.1.on", "side"},
                                    {"godet.1.high", "3"},
                                    {"garter-tabs.1.on", "hem"},
                                    {"pleats.1.on", "front-1"},
                                    {"pleats.1.count", "1"}});
  order.measures.set("round_shoulder", {inches(43), ""});
  order.choices["balance.keep"] = "balanced";
  Alteration a{.id = "1", .name = "hip", .date = "2026-11-30"};
  a.shifts = {{"side", ShiftSides::Both, ShiftWay::Across, {{"waist", 0}, {"hem", 6}, {"top", 3}}, BodySide::Left}};
  order.alterations = {a};
  const Design d = recalc(order).value();
  REQUIRE(isSplit(d.pattern));
  CHECK_FALSE(patternProblem(d.pattern));
  CHECK(failingTrims(d) == 0);
  std::set<std::string> made;
  for (const Piece& p : d.pattern.pieces)
    if (p.layer == "trim") made.insert(std::string(chosenAs(p).substr(0, chosenAs(p).find('-'))));
  CHECK(made == std::set<std::string>{"bow", "edging", "garter", "godet", "loops", "peplum", "pleats", "pocket",
                                      "ruffle", "tie"});
  int garters = 0;
  for (const Notion& n : cutList(d.pattern, d.block, d.rules).notions)
    if (n.id == "garters") garters += n.count;
  CHECK(garters == 4);
}

TEST_CASE("a toile has its trims too, laid on its cloth") {
  const Design d = recalc(sewn(plainOrder(), {{"frill.1.on", "hem"}, {"cut.for", "toile"}})).value();
  const CutList list = pieceList(d.pattern, d.rules);
  const auto frill = std::ranges::find(list.pieces, "frill-1", &CutPiece::id);
  REQUIRE(frill != list.pieces.end());
  CHECK(frill->cloth == "calico");
  // Its lengths are what calico gives, not the garment's cloth.
  const Design narrow =
      recalc(sewn(plainOrder(), {{"frill.1.on", "hem"}, {"cut.for", "toile"}, {"cloth.calico.width", "30"}})).value();
  for (const Piece& p : narrow.pattern.pieces)
    if (p.id == "frill-1") CHECK(p.edge("sewn").path.length() <= inches(29));
  for (const ClothLaying& laying : clothLayings(d.pattern, d.cutOutlines, list)) {
    REQUIRE_FALSE(laying.unfit);
    size_t copies = 0;
    for (const ClothPlacement& p : laying.placements(quickLayout(laying)))
      copies += list.pieces[p.piece].id == "frill-1";
    CHECK(copies == static_cast<size_t>(frill->copies));
  }
}

TEST_CASE("the sheet finds what is sewn on and does not fit") {
  Design d = recalc(sewn(plainOrder(), {{"frill.1.on", "hem"}})).value();
  REQUIRE(failingTrims(d) == 0);
  Pattern wrong = d.pattern;
  for (Piece& p : wrong.pieces)
    if (p.id == "frill-1")
      for (Edge& e : p.edges) e.path = e.path.transformed(Motion::translation({0, 0}));
  const auto judged = [&](const Pattern& pattern) {
    const Sheet sheet = balanceSheet({pattern, d.cutOutlines, d.block.intakes, d.body});
    return std::ranges::count_if(sheet.rows, [](const CheckRow& r) { return r.kind == CheckKind::Trim && r.fails(); });
  };
  CHECK(judged(wrong) == 0);
  for (Attachment& a : wrong.attachments)
    if (a.trim == "frill-1") {
      a.onTo += 0.3;  // more of the strip on this stretch than its fullness
      break;
    }
  CHECK(judged(wrong) == 1);
  wrong = d.pattern;
  for (Piece& p : wrong.pieces)
    if (p.id == "frill-1") p.copies += 1;  // a length too many
  CHECK(judged(wrong) == 1);
}

TEST_CASE("trims are sewn after the edges and before the hem") {
  const Design d = recalc(sewn(plainOrder(), {{"frill.1.on", "hem"}})).value();
  std::vector<Work> works;
  for (const SewingStep& s : sewingOrder(d.pattern, d.block, d.rules)) works.push_back(s.work);
  const auto at = [&](Work w) { return std::ranges::find(works, w) - works.begin(); };
  REQUIRE(std::ranges::find(works, Work::Trims) != works.end());
  CHECK(at(Work::Sides) < at(Work::Trims));
  CHECK(at(Work::Trims) < at(Work::Hem));
  const Design bare = recalc(plainOrder()).value();
  for (const SewingStep& s : sewingOrder(bare.pattern, bare.block, bare.rules)) CHECK(s.work != Work::Trims);
}

TEST_CASE("where lengths of a strip meet is marked on the edge, and nothing at its seams") {
  const Design d = recalc(sewn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.full", "4"}})).value();
  const Boning boning = boningOf(d.pattern, d.block, d.rules);
  size_t ends = 0;
  for (const Attachment& a : d.pattern.attachments) {
    if (a.trim.empty()) continue;
    const double length = d.pattern.pieces[a.piece].edge(a.edge).path.length();
    for (const double at : {a.from, a.to}) ends += at > 0.5 && at < length - 0.5;
  }
  CHECK(ends > 0);
  CHECK(boning.placements.size() == ends);
  for (const Placement& p : boning.placements) {
    Polyline outline = d.pattern.pieces[p.piece].outline(0.02);
    CHECK(contains(outline, p.tick.end()));
  }
}

TEST_CASE("the drawing shows what is sewn on: lower than the bare garment, sleeves beside it") {
  const auto extent = [](const Order& order) { return extentOf(sketchOf(order).value()); };
  const SketchExtent bare = extent(plainOrder());
  CHECK(extent(sewn(plainOrder(), {{"flounce.1.on", "hem"}, {"flounce.1.long", "8"}})).bottom >
        bare.bottom + inches(6));
  CHECK(extent(sewn(plainOrder(), {{"flounce.1.on", "hem"}})).reach > bare.reach);
  const SketchExtent covered = extent(styled("covered-round", {}));
  CHECK(extent(styled("covered-round", {{"sleeve.1.on", "armhole"}, {"sleeve.1.ends", "wrist"}})).reach >
        covered.reach + 30);
  CHECK(extent(styled("covered-round", {{"collar.1.on", "top"}, {"collar.1.high", "2"}})).top < covered.top - 20);
}

TEST_CASE("both ends of a trim have a handle along its line, and a drag gives a place that can be read") {
  const Design d = recalc(sewn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.from", "side - 2"}})).value();
  const std::vector<LineHandle> handles = lineHandles(d.pattern, d.rules, "Lines");
  const auto find = [&](std::string_view key) { return std::ranges::find(handles, key, &LineHandle::key); };
  REQUIRE(find("frill.1.from") != handles.end());
  REQUIRE(find("frill.1.to") != handles.end());
  CHECK(norm(find("frill.1.from")->axis) == Approx(1));
  const TrimChoice& trim = d.rules.trims().front();
  const TrimStretch stretch = stretchOf(d.pattern, trim).value();
  CHECK(find("frill.1.from")->mm == Approx(stretch.from));
  for (const double at : {0.0, 17.3, stretch.from, stretch.line.length()}) {
    const std::string place = placeAlong(stretch.line, at, 2);
    const auto kept = checkChoice(trimPlaceKey(trim, true), place, Unit::Millimetre);
    REQUIRE(kept.ok());
    TrimChoice moved = trim;
    moved.set("from", *kept);
    moved.set("to", "end");
    if (at < stretch.line.length() - 20) CHECK(stretchOf(d.pattern, moved)->from == Approx(at).margin(2.1));
  }
  CHECK(lineHandles(d.pattern, d.rules, "Cups").empty() ==
        lineHandles(recalc(plainOrder())->pattern, d.rules, "Cups").empty());
}

TEST_CASE("the job sheet lists what was chosen of a trim in its words") {
  const Order order = sewn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.how", "box"}});
  const Design d = recalc(order).value();
  std::string text;
  for (const Working& w : d.pattern.workings)
    if (w.key == "trim.frill-1") text = english(w.note);
  CHECK(text.find("times its edge") != std::string::npos);
  CHECK(text.find("pleats in each") != std::string::npos);
  for (const Idle& i : idleIn(order, d)) CHECK_FALSE(i.key.starts_with("frill"));
}
