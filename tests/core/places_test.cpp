// Places on a pattern by what they are, and the handles of every part that stand on them.
#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "garment/line_handles.h"
#include "parts/edges/rules.h"
#include "pattern/places.h"
#include "rules/rule_table.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

bool onOutline(const Piece& p, Vec2 at) {
  return std::any_of(p.edges.begin(), p.edges.end(), [&](const Edge& e) {
    const std::vector<Vec2> line = e.path.flattened(0.01);
    for (size_t i = 0; i + 1 < line.size(); ++i) {
      const Vec2 d = line[i + 1] - line[i];
      const double t = std::clamp(dot(at - line[i], d) / std::max(dot(d, d), 1e-18), 0.0, 1.0);
      if (distance(at, line[i] + t * d) < 0.05) return true;
    }
    return false;
  });
}

}  // namespace

TEST_CASE("places lie where they are named") {
  const Design d = designOf(orderWith({{"top.shape", "sweetheart"}}));
  const Places at(d.pattern);
  const auto crest = at.crest();
  REQUIRE(crest);
  for (const Piece& p : d.pattern.pieces)  // nothing of the front's top edge is higher
    if (p.half == Half::Front)
      for (const Edge& e : p.edges)
        if (e.role == EdgeRole::Top) CHECK(std::min(e.path.start().y, e.path.end().y) >= crest->at.y - 1e-9);
  const Seam& side = *d.pattern.seam("side");
  CHECK(distance(at.side(true)->at, d.pattern.sidePath(side.a).start()) < 1e-9);
  CHECK(distance(at.side(false)->at, d.pattern.sidePath(side.a).end()) < 1e-9);
  CHECK(distance(at.hemCorner()->at, at.side(false)->at) < 1e-9);
  const Vec2 down = d.pattern.sidePath(side.a).endTangent();
  CHECK(dot(at.awayFromHemCorner(), down) == Approx(0).margin(1e-12));
  CHECK(at.awayFromHemCorner().x > 0);  // away from the front
  const auto bust = at.notch("princess", level::kBust);
  REQUIRE(bust);
  CHECK(bust->piece == d.pattern.panel(Half::Front, 1));
  CHECK(onOutline(d.pattern.pieces[bust->piece], bust->at));
  CHECK(at.onAny(kUpperFronts, "fold", 0)->piece == d.pattern.panel(Half::Front, 1));
}

TEST_CASE("where there is no such place there is none") {
  const Design d = designOf(plainOrder());
  const Places at(d.pattern);
  CHECK_FALSE(at.end("no-such-piece", EdgeRole::Top, true));
  CHECK_FALSE(at.on("front-1", "no-such-edge", 0.5));
  CHECK_FALSE(at.end("front-1", EdgeRole::Yoke, true));
  CHECK_FALSE(at.notch("no-such-seam", level::kBust));
  CHECK_FALSE(at.notch("princess", "no-such-notch"));
  CHECK_FALSE(at.seamEnd("cup-2"));
  CHECK_FALSE(at.joint("back-1"));
  const Pattern none;
  CHECK_FALSE(Places(none).side(true));
  CHECK_FALSE(Places(none).crest());
  CHECK_FALSE(Places(none).hemCorner());
}

TEST_CASE("every handle stands on its piece, for a rule that counts, one to a place, in every style") {
  for (const Preset& style : styleTable()) {
    Order o = plainOrder();
    o.style = style.id;
    o.choices["balance.keep"] = "balanced";
    const Design d = designOf(o);
    for (const char* stage : {"Lines", "Cups"}) {
      std::vector<std::pair<size_t, Vec2>> places;
      for (const LineHandle& h : lineHandles(d.pattern, d.rules, stage)) {
        INFO(style.id << ", " << stage << ": " << h.key);
        const RuleInfo* rule = findRule(h.key);
        CHECK((rule ? d.rules.counts(*rule) : parseShapingKey(h.key).has_value()));
        REQUIRE(h.piece < d.pattern.shellPieces());
        CHECK(h.axis.x * h.axis.x + h.axis.y * h.axis.y == Approx(1));
        if (h.sharePerMm > 0) continue;  // the dial's stand round the bust point
        if (rule) CHECK(h.mm == d.rules.value(h.key).number);
        CHECK(onOutline(d.pattern.pieces[h.piece], h.at));
        for (const auto& [piece, at] : places) CHECK((piece != h.piece || distance(at, h.at) >= 1));
        places.emplace_back(h.piece, h.at);
      }
    }
  }
}

TEST_CASE("the parts of a garment have their handles") {
  const auto keys = [](const Order& o, const char* stage) {
    const Design d = designOf(o);
    std::set<std::string> all;
    for (const LineHandle& h : lineHandles(d.pattern, d.rules, stage)) all.insert(h.key);
    return all;
  };
  const auto plunge = keys(orderWith({{"top.shape", "plunge-v"}}), "Lines");
  CHECK(plunge.contains("top.plunge"));
  CHECK(plunge.contains("top.plunge_beside"));
  const auto yoke =
      keys(orderWith({{"cover.kind", "covered"}, {"yoke.front", "net"}, {"keyhole.kind", "front"}}), "Lines");
  CHECK(yoke.contains("yoke.armhole"));
  CHECK(yoke.contains("keyhole.width"));
  CHECK(yoke.contains("neck.width"));
  CHECK(keys(orderWith({{"cup.kind", "two"}}), "Cups").contains("cup.bridge"));
  CHECK(keys(plainOrder(), "Cups").contains("dial.side"));
  CHECK(keys(orderWith({{"skirt.kind", "flare"}}), "Lines").contains("skirt.flare"));
  CHECK(keys(orderWith({{"cover.kind", "halter"}}), "Lines").contains("halter.width"));
}
