// Bodices that go up over the shoulder: covered, on straps, as a halter, off the shoulder; yokes, keyholes, inserts.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "draft/upper_block.h"
#include "garment/garment.h"
#include "measure/measure_table.h"
#include "parts/band/rules.h"
#include "parts/edges/rules.h"
#include "parts/edges/style_line.h"
#include "parts/edges/upper_outline.h"
#include "parts/straps/rules.h"
#include "parts/yoke/rules.h"
#include "pattern/outline_parts.h"
#include "rules/draft_rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Design made(std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order o = plainOrder();
  o.choices["balance.keep"] = "balanced";
  for (const auto& [key, value] : choices) o.choices[key] = value;
  return designOf(o);
}

const Piece* find(const Pattern& p, std::string_view id) {
  for (const Piece& piece : p.pieces)
    if (piece.id == id) return &piece;
  return nullptr;
}

double shoulderOf(const Pattern& p, std::string_view half) {
  double sum = 0;
  for (const Piece& piece : p.pieces)
    if (piece.id.starts_with(half))
      for (const Edge& e : piece.edges)
        if (e.id.starts_with("shoulder")) sum += e.path.length();
  return sum;
}

void checkPasses(const Design& d) {
  for (const CheckRow& r : d.sheet.rows)
    if (r.fails()) FAIL_CHECK(r.subject << ": " << r.detail << " " << r.amount);
}

}  // namespace

TEST_CASE("what the shoulder dart took is given back: front and back shoulder are as long as on the body") {
  for (const char* end : {"shoulder", "armhole"}) {
    INFO(end);
    const Design d = made({{"cover.kind", "covered"}, {"princess.above", end}});
    checkPasses(d);
    // Half the shoulder width out and the slope down, from the neck: by Pythagoras.
    const double width = d.body.mm(id::kShoulderWidth) / 2 - d.rules.length(key::kNeckWidth);
    const double wanted = std::hypot(width, d.rules.length(key::kShoulderSlopeFront));
    CHECK(shoulderOf(d.pattern, "front") == Approx(wanted).margin(6));
    CHECK(shoulderOf(d.pattern, "front") == Approx(shoulderOf(d.pattern, "back")).margin(0.5));
    // And the line does take in what was asked at the shoulder: 2 in, less on the way.
    const PanelLine& line = d.block.front.lines.front();
    const double shoulder = d.rules.length(key::kShoulderSlopeFront) / 2;
    CHECK(line.intakeAtDepth(shoulder) == Approx(inches(2)).margin(0.5));
    const double half = (shoulder + d.block.levels.at(level::kBust).front) / 2;
    CHECK(line.intakeAtDepth(half) == Approx(inches(1)).margin(1.5));
  }
}

TEST_CASE("an outline opened by what the lines take in keeps its heights") {
  const Design d = made({{"cover.kind", "covered"}});
  const auto outline = upperOutline(d.block, d.rules, true);
  REQUIRE(outline);
  const UpperOutline open = opened(*outline, d.block.front, 1);
  for (size_t i = 0; i < open.size(); ++i)
    for (size_t k = 0; k < open[i].path.cubics().size(); ++k) {
      const Vec2 was = (*outline)[i].path.cubics()[k].p3, is = open[i].path.cubics()[k].p3;
      CHECK(is.y == Approx(was.y));
      CHECK(is.x - was.x == Approx(d.block.front.lines.front().intakeAtDepth(was.y)).margin(1e-9));
    }
}

TEST_CASE("the armhole is one smooth line over shoulder and side seam") {
  for (const char* neck : {"round", "v", "square"})
    for (const char* lines : {"1", "2"}) {
      INFO(neck << " " << lines);
      const Design d = made({{"cover.kind", "covered"}, {"neck.shape", neck}, {"lines.front", lines}});
      checkPasses(d);
      bool side = false;
      for (const CheckRow& r : d.sheet.rows)
        if (r.kind == CheckKind::Join && r.seam == "side") side = true;
      CHECK(side);
    }
}

TEST_CASE("a strap cut on is as wide as chosen, front and back, and rises as far from the armhole as chosen") {
  const Design d = made({{"cover.kind", "straps"}, {"cover.strap_width", "1.5 in"}, {"top.shape", "sweetheart"}});
  checkPasses(d);
  CHECK(shoulderOf(d.pattern, "front") == Approx(inches(1.5)).margin(1.5));
  CHECK(shoulderOf(d.pattern, "back") == Approx(inches(1.5)).margin(1.5));
  CHECK(find(d.pattern, "front-1")->edge("neck").role == EdgeRole::Top);
}

TEST_CASE("a halter leaves the back strapless and is closed behind the neck") {
  const Design d = made({{"cover.kind", "halter"}});
  checkPasses(d);
  CHECK(shoulderOf(d.pattern, "back") == 0);
  CHECK(find(d.pattern, "back-1")->edge("top").role == EdgeRole::Top);
  const Piece* strap = find(d.pattern, "halter-strap");
  REQUIRE(strap);
  CHECK(strap->edge("right").path.length() ==
        Approx(d.block.back.neck.length() + d.rules.length(key::kHalterWiden) + d.rules.length(key::kStrapExtra)));
}

TEST_CASE("a yoke is one piece, sewn along the upper edge of the style, on any line") {
  for (const char* top : {"straight", "sweetheart", "plunge-v", "plunge-u"}) {
    INFO(top);
    const Design d = made({{"cover.kind", "covered"}, {"yoke.front", "net"}, {"yoke.back", "net"}, {"top.shape", top}});
    if (std::string(top) != "plunge-u") checkPasses(d);  // a narrow U is tighter at its bottom than the sheet likes
    const Piece* yoke = find(d.pattern, "yoke-front");
    REQUIRE(yoke);
    CHECK(yoke->cloth == "net");
    CHECK(find(d.pattern, "yoke-back"));
    // Where the line leaves the centre is what the style says.
    const StyleLine line = topEdge(d.block, d.rules);
    const Piece* front = find(d.pattern, "front-1");
    const auto edge =
        std::find_if(front->edges.begin(), front->edges.end(), [](const Edge& e) { return e.role == EdgeRole::Yoke; });
    REQUIRE(edge != front->edges.end());
    CHECK(edge->path.start().y == Approx(line.depth[0]).margin(0.5));
    // The bust still closes to its girth: the yoke's width counts with the panels'.
    for (const PatternLevel& l : d.pattern.levels)
      if (l.ring) CHECK(d.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.5));
  }
}

TEST_CASE("cut cups stand under a yoke") {
  const Design d =
      made({{"cover.kind", "covered"}, {"yoke.front", "net"}, {"top.shape", "sweetheart"}, {"cup.kind", "three"}});
  checkPasses(d);
  CHECK(find(d.pattern, "cup-outer"));
  CHECK_FALSE(d.pattern.seam("princess-2"));
}

TEST_CASE("where neck, shoulder and armhole stay on the panels a cut cup is closed all round") {
  for (const char* kind : {"two", "three", "cross", "four", "upper", "gathered", "moulded"}) {
    INFO(kind);
    const Design d = made({{"cover.kind", "covered"}, {"cup.kind", kind}, {"top.below_shoulder", "6 in"}});
    checkPasses(d);
    CHECK(d.pattern.seam("princess"));    // from the shoulder down to the cup
    CHECK(d.pattern.seam("princess-2"));  // and below it
    for (const Piece& p : d.pattern.pieces)
      if (p.part == Part::Cup || p.part == Part::CupBand || p.part == Part::CupCover)
        for (const Edge& e : p.edges)
          CHECK((e.role == EdgeRole::Cup || e.role == EdgeRole::Seam || e.role == EdgeRole::Mouth));
  }
  Order o = plainOrder();
  o.choices = {{"cover.kind", "covered"}, {"cup.kind", "whole"}};
  const auto whole = recalc(o);
  REQUIRE_FALSE(whole.ok());
  CHECK(whole.problem().text().find("cup.kind=gathered") != std::string::npos);
}

TEST_CASE("what is folded out of the back yoke shortens its armhole by as much") {
  double armhole[2];
  for (const bool folded : {false, true}) {
    const Design d = made({{"cover.kind", "covered"},
                           {"yoke.back", "cloth"},
                           {"yoke.fold", folded ? "0.5 in" : "0"},
                           {"balance.keep", "drafted"}});
    const Piece* yoke = find(d.pattern, "yoke-back");
    REQUIRE(yoke);
    armhole[folded] = yoke->edge("armhole").path.length();
    if (folded) CHECK(yoke->edge("opening").path.tightestRadius() > 1e5);  // the centre is straight again
  }
  CHECK(armhole[0] - armhole[1] == Approx(inches(0.5)).margin(0.6));
}

TEST_CASE("a keyhole begins and ends where chosen and is as wide as chosen") {
  for (const char* where : {"back", "front"}) {
    INFO(where);
    const Design d = made({{"cover.kind", "covered"},
                           {"yoke.front", "cloth"},
                           {"yoke.back", "cloth"},
                           {"keyhole.kind", where},
                           {"balance.keep", "drafted"},
                           {"opening.kind", "lacing"}});
    const Piece* yoke = find(d.pattern, std::string("yoke-") + where);
    const Path& hole = yoke->edge("keyhole").path;
    CHECK(distance(hole.pointAt(hole.length() / 2), lerp(hole.start(), hole.end(), 0.5)) ==
          Approx(d.rules.length(key::kKeyholeWidth)).margin(0.2));
    const double top = std::min(hole.start().y, hole.end().y),
                 neck = where[0] == 'b' ? yoke->edge("neck").path.end().y : yoke->edge("neck").path.start().y;
    CHECK(top - neck == Approx(d.rules.length(key::kKeyholeFrom)).margin(0.01));
    CHECK(isSimple(yoke->outline(0.02)));
  }
  Order o = plainOrder();
  o.choices = {{"cover.kind", "covered"}, {"keyhole.kind", "front"}, {"neck.depth_front", "8 in"}};
  const auto refused = recalc(o);
  REQUIRE_FALSE(refused.ok());
  CHECK(refused.problem().text().find("Keyhole") != std::string::npos);
}

TEST_CASE("the band of an off-shoulder edge is a ring laid flat, with the lengths the measures give") {
  const Design d = made({{"cover.kind", "off-shoulder"}, {"top.shape", "straight"}, {"balance.keep", "drafted"}});
  const Piece* band = find(d.pattern, "shoulder-band");
  REQUIRE(band);
  const double upper = (d.body.mm("round_shoulder") - d.rules.length(key::kOffHold)) / 2;
  CHECK(band->edge("top").path.length() == Approx(upper).margin(0.01));
  CHECK(band->edge("arm").path.length() == Approx(d.body.mm("bicep") / 2).margin(0.01));
  CHECK(band->edge("front").path.length() == Approx(d.rules.length(key::kOffDepth)).margin(0.01));
  for (const char* id : {"band-front", "band-back"}) {
    const Seam* seam = d.pattern.seam(id);
    REQUIRE(seam);
    CHECK(d.pattern.sidePath(seam->a).length() == Approx(d.pattern.sidePath(seam->b).length()).margin(0.01));
  }
  checkPasses(made({{"cover.kind", "off-shoulder"}, {"top.shape", "straight"}}));
}

TEST_CASE("inserts are pieces of another cloth whose width belongs to the girth") {
  const Design d = made({{"cover.kind", "covered"}, {"insert.kind", "both"}});
  checkPasses(d);
  for (const char* id : {"insert-centre", "insert-shoulder-front", "insert-shoulder-back"}) {
    INFO(id);
    const Piece* insert = find(d.pattern, id);
    REQUIRE(insert);
    CHECK(insert->cloth == "net");
    REQUIRE(d.pattern.seam(id));
  }
  for (const PatternLevel& l : d.pattern.levels)
    if (l.ring) CHECK(d.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.5));
}
