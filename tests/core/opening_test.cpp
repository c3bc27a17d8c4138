// Openings behind and in front: gaps, centre seams, modesty panels.
#include <catch2/catch.hpp>

#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tests/support/shaping_checks.h"

using namespace armure;
using namespace armure::testing;

namespace {

const Piece* pieceCalled(const Design& d, const std::string& id) {
  for (const Piece& p : d.pattern.pieces)
    if (p.id == id) return &p;
  return nullptr;
}

}  // namespace

TEST_CASE("every opening at the back with every one in front: closed widths and gap are the finished girth") {
  for (const RuleOption& back : findRule("opening.kind")->options)
    for (const RuleOption& front : findRule("opening.front")->options) {
      INFO(back.id << " behind, " << front.id << " in front");
      Order o = plainOrder();
      o.choices["opening.kind"] = back.id;
      o.choices["opening.front"] = front.id;
      o.choices["opening.gap"] = "1 in";
      o.choices["opening.gap_top"] = "3 in";
      o.choices["opening.gap_hem"] = "1 in";
      o.choices["modesty.kind"] = "panel";
      const auto made = recalc(o);
      if (back.id == "fold" && front.id == "fold") {
        REQUIRE_FALSE(made.ok());
        CHECK(english(made.problem().where) == "opening.kind");
        continue;
      }
      REQUIRE(made.ok());
      const Design& d = *made;
      checkIdentity(d);
      checkClosedGirths(d);
      const auto centre = [](const Piece& p, const std::string& id) {
        for (const Edge& e : p.edges)
          if (e.id == id) return true;
        return false;
      };
      const Piece &first = d.pattern.pieces.front(), &last = d.pattern.pieces[d.pattern.shellPieces() - 1];
      CHECK(centre(first, front.id == "fold" ? "fold" : front.id == "seam" ? "centre-front" : "opening"));
      CHECK(centre(last, back.id == "fold" ? "fold" : back.id == "seam" ? "centre-back" : "opening"));
      CHECK(first.onFold.empty() == (front.id != "fold"));
      CHECK(last.onFold.empty() == (back.id != "fold"));
      const bool stiff = front.id == "busk" || front.id == "hooks";
      if (stiff) CHECK(first.edge("opening").path.tightestRadius() > 1e6);  // straight
      const size_t laced = (d.block.front.opening.isLaced() ? 1u : 0u) + (d.block.back.opening.isLaced() ? 1u : 0u);
      CHECK(d.pattern.pieces.size() == d.pattern.shellPieces() + laced);
    }
}

TEST_CASE("a front laced in a V leaves a panel beside it: half as wide as behind, where nothing is chosen") {
  Order o = plainOrder();
  o.choices["opening.front"] = "v-lacing";
  o.choices["opening.kind"] = "v-lacing";
  const Design d = designOf(o);
  CHECK(d.block.front.opening.topGap == Approx(inches(3)));
  CHECK(d.block.front.opening.hemGap == Approx(inches(2)));
  CHECK(d.block.back.opening.topGap == Approx(inches(6)));
}

TEST_CASE("lacing in a V: three inches each side at the top, two at the hem, and straight between") {
  Order o = plainOrder();
  o.choices["opening.kind"] = "v-lacing";
  o.choices["modesty.kind"] = "panel";
  const Design d = designOf(o);
  const Opening& v = d.block.back.opening;
  CHECK(inch(v.gapAt(v.topY)) == Approx(6));
  CHECK(inch(v.gapAt(v.hemY)) == Approx(4));
  const double waist = d.block.levels.at("waist").back;
  CHECK(v.gapAt(waist) == Approx(inches(6) - inches(2) * (waist - v.topY) / (v.hemY - v.topY)));
  CHECK(d.block.back.centre.xAtDepth(waist) == Approx(v.gapAt(waist) / 2));
  // The panel: half of gap and overlap, on the fold; as long as the edge it lies behind.
  const Piece* panel = pieceCalled(d, "modesty-back");
  REQUIRE(panel);
  CHECK(panel->layer == "modesty");
  CHECK(inch(panel->edge("top").path.length()) == Approx(4));
  CHECK(inch(panel->edge("hem").path.length()) == Approx(3));
  const Piece& back = d.pattern.pieces[d.pattern.shellPieces() - 1];
  CHECK(panel->edge("fold").path.length() == Approx(back.edge("opening").path.length()));
}

TEST_CASE("a centre seam takes in at the waist and nowhere at its ends") {
  Order o = plainOrder();
  o.choices["opening.front"] = "seam";
  o.choices["opening.kind"] = "lacing";
  const Design d = designOf(o);
  CHECK(inch(d.block.front.at("waist").centreIntake) == Approx(0.25));
  CHECK(d.block.front.at("top").centreIntake == Approx(0).margin(1e-9));
  CHECK(d.block.front.at("hem").centreIntake == Approx(0).margin(1e-9));
  CHECK(d.pattern.pieces.front().edge("centre-front").role == EdgeRole::Centre);
}

TEST_CASE("an opening that ends at a waist seam stays whole when the pieces are balanced") {
  for (const char* style : {"v-back-hooks", "sweetheart-zip", "sweetheart-laced"}) {
    INFO(style);
    Order o = plainOrder();
    o.style = style;
    o.choices["opening.end"] = "waist";
    o.choices["waist.seam"] = "level";
    o.choices["balance.keep"] = "balanced";
    const Design d = designOf(o);
    CHECK_FALSE(patternProblem(d.pattern));
    CHECK(d.sheet.pass());
  }
}

TEST_CASE("an opening has two ends: above where it begins and below where it ends the seam is sewn") {
  for (const char* kind : {"zip", "lacing"}) {
    INFO(kind);
    const Design d = designOf(orderWith({{"cover.kind", "covered"},
                                         {"opening.kind", kind},
                                         {"opening.start", "8 in"},
                                         {"opening.end", "waist"},
                                         {"balance.keep", "balanced"}}));
    CHECK(d.sheet.pass());
    const Piece& back = d.pattern.pieces[d.pattern.panel(Half::Back, 1).value()];
    size_t sewn = 0;
    for (const Edge& e : back.edges) sewn += e.role == EdgeRole::Centre;
    CHECK(sewn == 2);
    const Path& open = back.edge("opening").path;
    CHECK(inch(std::min(open.start().y, open.end().y)) == Approx(8).margin(0.05));
    const auto notched = [&](std::string_view id) {
      return std::any_of(back.marks.begin(), back.marks.end(), [&](const Mark& m) { return m.id == id; });
    };
    CHECK(notched("opening-start"));
    CHECK(notched("opening-end"));
    // A gap has come to nothing at either end.
    CHECK(d.block.back.opening.gapAt(inches(8)) == Approx(0).margin(1e-9));
    CHECK(d.block.back.opening.gapAt(d.block.levels.at(level::kWaist).back) == Approx(0).margin(1e-9));
  }
  const auto shut = recalc(orderWith({{"opening.start", "20 in"}, {"opening.end", "waist"}}));
  REQUIRE_FALSE(shut.ok());
  CHECK(english(shut.problem().where) == "opening.start");
}
