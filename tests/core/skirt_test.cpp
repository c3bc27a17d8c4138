// Below the waist: flared hems, skirts, the seam at the waist.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>
#include <tuple>

#include "garment/line_handles.h"
#include "operations/crossing.h"
#include "parts/skirt/rules.h"
#include "recalc/idle.h"
#include "rules/shaping_keys.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

double hemRound(const Pattern& p) {
  double sum = 0;
  for (const Piece& piece : p.pieces)
    for (const Edge& e : piece.edges)
      if (e.role == EdgeRole::Hem) sum += e.path.length() * piece.girthWeight();
  return sum;
}

double girth(const Pattern& p, std::string_view id) {
  for (const PatternLevel& l : p.levels)
    if (l.id == id) return l.finishedGirth - l.gaps.swing;
  return 0;
}

}  // namespace

TEST_CASE("swinging the edges out keeps their lengths, so every seam stays as it was") {
  const Design plain = designOf(orderWith({})), flared = designOf(orderWith({{"skirt.kind", "flare"}}));
  for (const Seam& s : plain.pattern.seams) {
    const Seam& f = *flared.pattern.seam(s.id);
    CHECK(flared.pattern.sidePath(f.a).length() == Approx(plain.pattern.sidePath(s.a).length()).margin(1e-3));
    CHECK(flared.pattern.sidePath(f.b).length() == Approx(plain.pattern.sidePath(s.b).length()).margin(1e-3));
  }
  // Five edges of each half swing out (not the fold, not the zip's), each by about what was asked.
  const double grown = hemRound(flared.pattern) - hemRound(plain.pattern);
  const double asked = 2 * 6 * flared.rules.length(key::kSkirtFlare);
  CHECK(grown > 0.8 * asked);
  CHECK(grown < 1.25 * asked);
  // The corner has risen by itself: at the side the hem stands higher than at the fold.
  const Path& hem = pieceOf(flared.pattern, "front-1").edge("hem").path;
  CHECK(hem.end().y - hem.start().y > 5);
}

TEST_CASE("a flared hem is more finished girth below the waist, and closes to it") {
  const Design plain = designOf(orderWith({{"hem.length", "7 in"}})),
               flared =
                   designOf(orderWith({{"hem.length", "7 in"}, {"skirt.kind", "flare"}, {"balance.keep", "balanced"}}));
  CHECK(girth(flared.pattern, level::kWaist) == Approx(girth(plain.pattern, level::kWaist)));
  CHECK(girth(flared.pattern, level::kHighHip) > girth(plain.pattern, level::kHighHip) + 50);
  CHECK(flared.sheet.pass());
}

TEST_CASE("a skirt reaches to the knee or the floor, by the client's measures") {
  for (const char* to : {"knee", "floor"})
    for (const char* kind : {"straight", "peg", "gored"}) {
      INFO(kind << " to the " << to);
      Order o = orderWith({{"skirt.kind", kind}, {"skirt.to", to}, {"balance.keep", "balanced"}});
      const Design d = designOf(o);
      const Piece& front = pieceOf(d.pattern, "front-1");
      const double wanted = d.body.mm(std::string(to) == "knee" ? "waist_to_knee" : "waist_to_floor");
      const double waist = front.level(level::kWaist)->a.y;
      CHECK(front.edge("hem").path.end().y - waist == Approx(wanted).margin(0.5));
      for (const CheckRow& r : d.sheet.rows)
        if (r.fails() && r.kind != CheckKind::Curve) FAIL_CHECK(r.subject << " " << r.amount);
    }
}

TEST_CASE("a pegged skirt is narrower at its hem by the peg on every side edge, a straight one is not") {
  const Design straight = designOf(orderWith({{"skirt.kind", "straight"}, {"skirt.to", "knee"}})),
               pegged = designOf(orderWith({{"skirt.kind", "peg"}, {"skirt.to", "knee"}, {"skirt.peg", "1.5 in"}}));
  CHECK(hemRound(straight.pattern) - hemRound(pegged.pattern) == Approx(4 * inches(1.5)).margin(4));
}

TEST_CASE("a flared skirt of six panels is wider at the floor by eight inches on every panel edge") {
  const Design straight = designOf(orderWith({{"skirt.kind", "straight"}, {"skirt.to", "floor"}})),
               gored = designOf(orderWith({{"skirt.kind", "gored"}, {"skirt.to", "floor"}}));
  CHECK(hemRound(gored.pattern) - hemRound(straight.pattern) == Approx(2 * 6 * inches(8)).epsilon(0.06));
}

TEST_CASE("a waist seam parts bodice and skirt without changing a girth") {
  for (const char* seam : {"level", "pointed"}) {
    INFO(seam);
    const Design whole = designOf(orderWith({{"skirt.kind", "gored"}, {"skirt.to", "knee"}})),
                 parted = designOf(orderWith({{"skirt.kind", "gored"}, {"skirt.to", "knee"}, {"waist.seam", seam}}));
    CHECK(parted.pattern.pieces.size() == 2 * whole.pattern.pieces.size());
    for (const PatternLevel& l : parted.pattern.levels)
      if (l.ring) CHECK(parted.pattern.closedGirth(l) == Approx(whole.pattern.closedGirth(l)).margin(0.02));
    // It runs on across every seam without a kink.
    for (const Seam& s : parted.pattern.seams) {
      const SeamEnd a = seamEnd(parted.pattern, s.a, false), b = seamEnd(parted.pattern, s.b, false);
      if (a.acrossRole != EdgeRole::Seam || b.acrossRole != EdgeRole::Seam) continue;
      CHECK(std::abs(turnAcross(parted.pattern, s, false)) < 0.02);
    }
  }
  const Design pointed = designOf(orderWith({{"waist.seam", "pointed"}, {"waist.point", "1.5 in"}}));
  const Piece& front = pieceOf(pointed.pattern, "front-1");
  const double waist = pointed.block.levels.at(level::kWaist).front;
  double lowest = 0;
  for (const Edge& e : front.edges)
    if (e.id.starts_with("waist")) lowest = std::max(e.path.start().y, e.path.end().y);
  CHECK(lowest - waist == Approx(inches(1.5)).margin(0.1));
}

TEST_CASE("what ends at the waist is the bodice above it, its hem the waist itself") {
  const Design below = designOf(orderWith({{"balance.keep", "balanced"}}));
  const Design ends = designOf(orderWith({{"hem.at", "waist"}, {"balance.keep", "balanced"}}));
  CHECK(ends.sheet.pass());
  CHECK(ends.pattern.pieces.size() == below.pattern.pieces.size());
  // The hem lies on the waist: as long as the waist is round, but for the zip's edge, where nothing is open.
  CHECK(hemRound(ends.pattern) == Approx(girth(ends.pattern, level::kWaist)).margin(1.5));
  for (const std::string_view gone : {level::kHighHip, level::kHip, level::kHem}) CHECK_FALSE(ends.pattern.level(gone));
  for (const std::string_view kept : {level::kBust, level::kUnderbust, level::kWaist})
    CHECK(girth(ends.pattern, kept) == Approx(girth(below.pattern, kept)));
  for (const Piece& p : ends.pattern.pieces) {
    INFO(p.id);
    const Piece& longer = pieceOf(below.pattern, p.id);
    CHECK(p.level(level::kWaist)->width() == Approx(longer.level(level::kWaist)->width()).margin(0.5));
    CHECK(std::abs(signedArea(p.outline(1))) < std::abs(signedArea(longer.outline(1))));
  }
}

TEST_CASE("a bodice to the waist needs no hip, on unlike bodies, in every style that can end there") {
  for (const size_t body : {3U, 66U, 111U})
    for (const Preset& style : styleTable()) {
      Order order;
      order.style = style.id;
      order.measures = measuresOf(realBodies()[body], 80);
      order.measures.erase("hip");
      order.measures.erase("high_hip");
      order.choices = {{"balance.keep", "balanced"}};
      const bool endsThere =
          std::ranges::any_of(style.choices, [](const PresetChoice& c) { return c.key == "hem.at"; });
      INFO(style.id << " on body " << body);
      CHECK(recalc(order).ok() == endsThere);
      order.choices["hem.at"] = "waist";
      const Result<Design> d = recalc(order);
      REQUIRE(d.ok());
      for (const CheckRow& r : d->sheet.rows)
        if (r.kind != CheckKind::FreeEdge) CHECK_FALSE(r.fails());
    }
  Order order = orderWith({});
  order.measures.erase("hip");
  CHECK(english(recalc(order).problem().where) == "hip");
  CHECK(needs(order, *findMeasure("hip")));
  order.choices["hem.at"] = "waist";
  CHECK_FALSE(needs(order, *findMeasure("hip")));
  CHECK(needs(order, *findMeasure("waist")));
}

TEST_CASE("lacing in a V opens as far as was asked where the garment ends") {
  const Design d = designOf(orderWith({{"hem.at", "waist"},
                                       {"opening.kind", "v-lacing"},
                                       {"opening.gap_top", "6 in"},
                                       {"opening.gap_hem", "3 in"},
                                       {"balance.keep", "balanced"}}));
  CHECK(d.pattern.level(level::kWaist)->gaps.opening == Approx(inches(3)).margin(0.1));
  CHECK(d.pattern.level(level::kUnderbust)->gaps.opening > inches(3.5));
  CHECK(d.sheet.pass());
}

TEST_CASE("a level of one's own below a garment that ends at the waist is refused") {
  const Order order = orderWith({{"hem.at", "waist"}, {"rail.low", "-2 in"}});
  const Result<Design> d = recalc(order);
  REQUIRE_FALSE(d.ok());
  CHECK(english(d.problem().where) == "rail.low");
}

TEST_CASE("a point below the waist is as deep as it was asked, and nothing at the side") {
  const Design d = designOf(orderWith({{"hem.at", "waist-point"}, {"hem.dip", "1 1/2 in"}}));
  const Piece& centre = pieceOf(d.pattern, "front-1");
  double lowest = -HUGE_VAL;
  for (const Edge& e : centre.edges)
    if (e.role == EdgeRole::Hem) lowest = std::max(lowest, e.path.end().y);
  CHECK(lowest - centre.level(level::kWaist)->a.y == Approx(inches(1.5)).margin(0.5));
}

TEST_CASE("a slit is notched on the centre back, as far above the hem as it is long") {
  const auto withSlit = [](const char* opening) {
    return recalc(orderWith({{"skirt.kind", "peg"}, {"skirt.slit", "3 in"}, {"opening.kind", opening}}));
  };
  const Design d = *withSlit("zip");
  const Piece& back = pieceOf(d.pattern, "back-1");
  const auto slit = std::ranges::find_if(back.marks, [](const Mark& m) { return m.id == "slit-end"; });
  REQUIRE(slit != back.marks.end());
  const Edge& centre = back.edge(slit->a.edge);
  CHECK(centre.path.length() - slit->a.at == Approx(inches(3)).margin(1e-6));
  CHECK(centre.role == EdgeRole::Centre);
  // On a fold there is nothing to leave open.
  Order o =
      orderWith({{"skirt.kind", "peg"}, {"skirt.slit", "3 in"}, {"opening.kind", "fold"}, {"opening.front", "zip"}});
  const auto refused = recalc(o);
  REQUIRE_FALSE(refused.ok());
  CHECK(english(refused.problem().what).find("slit") != std::string::npos);
}

TEST_CASE("every edge of a flared skirt may be swung out by an amount of its own, and its seams still fit") {
  for (const auto& [kind, swing, mm] : {std::tuple{"flare", "4 in", inches(4)}, {"gored", "12 in", inches(12)}}) {
    INFO(kind);
    const Design all = designOf(orderWith({{"skirt.kind", kind}, {"skirt.to", "floor"}, {"hem.length", "12 in"}}));
    const Design one = designOf(orderWith(
        {{"skirt.kind", kind}, {"skirt.to", "floor"}, {"hem.length", "12 in"}, {"swing.side.princess", swing}}));
    const auto hem = [](const Design& d, const char* piece) {
      return pieceOf(d.pattern, piece).edge("hem").path.length();
    };
    CHECK(hem(one, "front-1") == Approx(hem(all, "front-1")).margin(0.01));
    const Working* byRule = all.working("skirt.swing");
    REQUIRE(byRule);
    CHECK(hem(one, "front-2") - hem(all, "front-2") == Approx(mm - byRule->result).epsilon(0.2));
    const Seam* seam = one.pattern.seam("princess");
    CHECK(one.pattern.sidePath(seam->a).length() == Approx(one.pattern.sidePath(seam->b).length()).margin(0.01));
    CHECK(one.working("rule.swing.side.princess")->result == Approx(mm));
    CHECK(one.rules.isChosen("swing.side.princess"));
    CHECK_FALSE(one.rules.isChosen("swing.centre.princess"));
  }
  const Order plain = orderWith({{"swing.side.princess", "4 in"}});  // without a skirt nothing swings
  const std::vector<Idle> idle = idleIn(plain, designOf(plain));
  CHECK(std::any_of(idle.begin(), idle.end(), [](const Idle& i) { return i.key == "swing.side.princess"; }));
}

TEST_CASE("the keys of swung edges name an edge of a line, or the panel's own at a side") {
  for (const char* key : {"swing.centre.princess", "swing.side.back-line-2", "swing.centre.front-side"})
    CHECK(parseShapingKey(key)->text() == key);
  for (const char* key : {"swing.side.front-side", "swing.waist.princess", "swing.centre.cup", "swing.centre"})
    CHECK_FALSE(parseShapingKey(key));
  CHECK_FALSE(checkChoice("swing.centre.princess", "-1 in", Unit::Inch).ok());
}

TEST_CASE("swung edges have their handles at the hem, each for its own choice") {
  const Design d = designOf(orderWith({{"skirt.kind", "flare"}, {"swing.centre.princess", "4 in"}}));
  std::set<std::string> keys;
  for (const LineHandle& h : lineHandles(d.pattern, d.rules, "Lines")) {
    keys.insert(h.key);
    if (h.key == "swing.centre.princess") CHECK(h.mm == Approx(inches(4)));
  }
  for (const char* key : {"skirt.flare", "swing.centre.princess", "swing.side.princess", "swing.centre.back-side"})
    CHECK(keys.contains(key));
}
