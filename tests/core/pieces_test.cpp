// The pieces, as a maker would check them before cutting, over many bodies.
#include <catch2/catch.hpp>
#include <cmath>

#include "prepare/cut_outlines.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {}  // namespace

TEST_CASE("a six-piece bodice: centre front on the fold, the rest in pairs") {
  const Design d = designOf(plainOrder());
  REQUIRE(d.pattern.pieces.size() == 4);
  int cut = 0;
  for (const Piece& p : d.pattern.pieces) cut += p.copies;
  CHECK(cut == 7);
  CHECK(d.pattern.pieces[0].onFold == "fold");
  CHECK(d.pattern.pieces[0].name == "Centre front");
  CHECK(d.pattern.pieces[3].edge("opening").role == EdgeRole::Opening);
  CHECK(d.pattern.seams.size() == 3);
}

TEST_CASE("pieces close, seams agree, girths are right, over random bodies and styles") {
  size_t made = 0;
  for (const Order& o : withoutCups(randomOrders(400, 21))) {
    const auto r = recalc(o);
    if (!r.ok()) {
      CHECK_FALSE(r.problem().remedy.empty());
      continue;
    }
    ++made;
    const Design& d = *r;
    INFO(o.title);
    for (size_t i = 0; i < d.pattern.pieces.size(); ++i) {
      const Piece& p = d.pattern.pieces[i];
      for (size_t k = 0; k < p.edges.size(); ++k)
        REQUIRE(distance(p.edges[k].path.end(), p.edges[(k + 1) % p.edges.size()].path.start()) < 1e-6);
      REQUIRE(signedArea(p.outline(0.02)) > 0);
      REQUIRE(isSimple(p.outline(0.02)));
      REQUIRE(isSimple(d.cutOutlines[i]));
      REQUIRE(signedArea(d.cutOutlines[i]) > signedArea(p.outline(0.02)));
      for (const Mark& n : p.notches()) REQUIRE((n.a.at > 0 && n.a.at < p.edge(n.a.edge).path.length()));
    }
    for (const Seam& s : d.pattern.seams) {
      const Path a = d.pattern.sidePath(s.a), b = d.pattern.sidePath(s.b);
      REQUIRE(a.length() == Approx(b.length()).margin(1e-6));
      for (const SeamNotch& n : s.notches)
        if (n.id == "underbust") REQUIRE(n.a == Approx(n.b).margin(1e-6));
      REQUIRE(a.start().y < a.end().y);  // from the upper end down
    }
    for (const PatternLevel& l : d.pattern.levels)
      if (l.ring) REQUIRE(d.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(1e-6));
    bool waistIsRing = false;
    for (const PatternLevel& l : d.pattern.levels) waistIsRing = waistIsRing || (l.id == "waist" && l.ring);
    REQUIRE(waistIsRing);
  }
  CHECK(made > 370);
}

TEST_CASE("what is trimmed is said, and the notch stays where it was") {
  const Design d = designOf(plainOrder());
  CHECK_FALSE(d.pattern.trims.empty());
  for (const Trim& t : d.pattern.trims) {
    CHECK(t.amount > 0);
    CHECK(t.piece < d.pattern.pieces.size());
  }
}

TEST_CASE("a changed waist moves the side seam and nothing above the bust") {
  Order o = plainOrder();
  const Design before = designOf(o);
  o.measures.set("waist", {inches(30), "", ""});
  const Design after = designOf(o);
  CHECK(after.block.front.at("waist").side - before.block.front.at("waist").side == Approx(inches(0.5)).margin(1e-9));
  CHECK(after.block.front.at("bust").side == Approx(before.block.front.at("bust").side));
  CHECK(after.block.front.at("top").side == Approx(before.block.front.at("top").side));
}

TEST_CASE("the same order gives the same pattern to the last bit") {
  for (const Order& o : randomOrders(5, 22)) {
    const auto a = recalc(o), b = recalc(o);
    if (!a.ok()) continue;
    for (size_t i = 0; i < a->pattern.pieces.size(); ++i)
      for (size_t k = 0; k < a->pattern.pieces[i].edges.size(); ++k)
        CHECK(a->pattern.pieces[i].edges[k].path.cubics() == b->pattern.pieces[i].edges[k].path.cubics());
  }
}

TEST_CASE("the sweetheart dips at the centre front and rises over the cups") {
  Order o = plainOrder();
  o.style = "sweetheart-zip";
  const Design d = designOf(o);
  const Path& top = d.pattern.pieces[0].edge("top").path;
  CHECK(top.start().y - top.end().y == Approx(inches(1.25 + 0.75)).margin(6));  // dip + rise, less what was trimmed
  o.style = "straight-zip";
  const Design straight = designOf(o);
  const Path& level = straight.pattern.pieces[0].edge("top").path;
  CHECK(std::abs(level.startTangent().y) < 1e-9);  // square to the fold
}

TEST_CASE("a raised hem is raised at the side, alike on front and back") {
  Order o = plainOrder();
  o.style = "sweetheart-raised-laced";
  const Design raised = designOf(o);
  o.choices["hem.shape"] = "straight";
  const Design straight = designOf(o);
  const auto side = [](const Design& d) { return d.pattern.pieces[2].edge("side").path.length(); };
  CHECK(side(straight) - side(raised) == Approx(inches(1.5)).margin(4));
  CHECK(raised.pattern.pieces[1].edge("side").path.length() == Approx(side(raised)).margin(1e-6));
}
