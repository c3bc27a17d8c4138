// The cup standing, and straps: sheets that keep their lengths, a plane cup line, the way over the shoulder.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <set>

#include "parts/cups/depth.h"
#include "parts/cups/standing.h"
#include "parts/straps/rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Design withCup(const std::string& kind, double cup, size_t body = 0) {
  Order o;
  o.measures = measuresOf(realBodies()[body], cup);
  o.choices["cup.kind"] = kind;
  o.choices["balance.keep"] = "balanced";
  return designOf(o);
}

}  // namespace

TEST_CASE("the standing cup is one sheet with every piece in it") {
  for (const char* kind : {"two", "three", "cross", "four"}) {
    INFO(kind);
    const Design d = withCup(kind, 95);
    const StandingCup cup = standingCup(d.pattern);
    REQUIRE_FALSE(cup.triangles.empty());
    std::set<size_t> pieces(cup.pieceOf.begin(), cup.pieceOf.end()), wanted;
    for (size_t i = 0; i < d.pattern.pieces.size(); ++i)
      if (d.pattern.pieces[i].id.starts_with("cup") || d.pattern.pieces[i].id.starts_with("band")) wanted.insert(i);
    CHECK(pieces == wanted);
    std::map<std::pair<size_t, size_t>, int> sides;
    for (const auto& t : cup.triangles)
      for (size_t k = 0; k < 3; ++k) ++sides[std::minmax(t[k], t[(k + 1) % 3])];
    // At a sharp corner of a piece the triangulation may leave a side out or take one twice; nowhere else.
    const auto twisted = std::count_if(sides.begin(), sides.end(), [](const auto& s) { return s.second > 2; });
    CHECK(twisted <= static_cast<long>(sides.size() / 100));
    // Of a disc: Euler's characteristic is 1 (points - sides + triangles).
    std::set<size_t> used;
    for (const auto& t : cup.triangles) used.insert(t.begin(), t.end());
    const int euler =
        static_cast<int>(used.size()) - static_cast<int>(sides.size()) + static_cast<int>(cup.triangles.size());
    CHECK(std::abs(euler - 1) <= 2);
    for (const Vec3& p : cup.points) REQUIRE((std::isfinite(p.x) && std::isfinite(p.y) && std::isfinite(p.z)));
  }
}

TEST_CASE("the standing cup keeps the cloth's lengths and about the depth of the cone") {
  for (size_t body : {0, 40, 80, 120})
    for (double size : {50.0, 95.0, 140.0}) {
      const Design d = withCup("two", size, body);
      const StandingCup cup = standingCup(d.pattern);
      INFO("body " << body << ", cup " << size << ", strain " << cup.strain << ", depth " << cup.depth);
      CHECK(cup.strain < 0.06);
      const double cone = cupDepth(d.block, BodyForm(d.body)).stations.back().patternDepth;
      CHECK(cup.depth > 0.6 * cone);
      CHECK(cup.depth < 1.7 * cone);
      // It stands on its cup line and rises to one side of it.
      double lowest = 0;
      for (const auto& t : cup.triangles)
        for (size_t id : t) lowest = std::min(lowest, cup.points[id].z);
      CHECK(lowest > -0.35 * cup.depth);
    }
  CHECK(standingCup(designOf(plainOrder()).pattern).triangles.empty());
}

TEST_CASE("a strap is as long as the way over the shoulder, and says how it came to be") {
  Order order = plainOrder();
  for (const char* kind : {"straight", "shaped"}) {
    INFO(kind);
    order.choices["strap.kind"] = kind;
    const Design d = designOf(order);
    const Piece& strap = d.pattern.pieces.back();
    REQUIRE(strap.id == "strap");
    CHECK(strap.layer == "strap");
    const Working* w = d.working("strap.length");
    REQUIRE(w != nullptr);
    double sum = 0;
    for (const Term& t : w->terms) sum += t.mm;
    CHECK(sum == Approx(w->result));
    CHECK(distance(lerp(strap.edge("back-end").path.start(), strap.edge("back-end").path.end(), 0.5),
                   lerp(strap.edge("front-end").path.start(), strap.edge("front-end").path.end(), 0.5)) ==
          Approx(w->result));
    // Common practice: about a foot, finished and without what it is adjusted by.
    CHECK(w->result - d.rules.length(key::kStrapExtra) > inches(8));
    CHECK(w->result - d.rules.length(key::kStrapExtra) < inches(17));
    const bool shaped = std::string(kind) == "shaped";
    CHECK(strap.edge("back-end").path.length() == Approx(d.rules.length(key::kStrapWidth) * (shaped ? 1 : 2)));
    CHECK(strap.edge("front-end").path.length() ==
          Approx(shaped ? d.rules.length(key::kStrapFront) : d.rules.length(key::kStrapWidth) * 2));
    CHECK(strap.copies == (shaped ? 4 : 2));
    CHECK(d.sheet.failing() == designOf(plainOrder()).sheet.failing());
  }
}
