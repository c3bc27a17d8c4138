// Gathered cups: slashing and spreading, how much is gathered into what.
#include <catch2/catch.hpp>
#include <cmath>

#include "parts/cups/gathered.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// 120 wide, 80 deep; the lower edge runs back from right to left round the sides.
const Path kUpper = Path::line({0, 0}, {120, 0});
const Path kLower = Path::line({120, 0}, {120, 80}) + Path::line({120, 80}, {0, 80}) + Path::line({0, 80}, {0, 0});

std::vector<Slash> threeSlashes() { return {{30, 80 + 90}, {60, 80 + 60}, {90, 80 + 30}}; }

const Piece* find(const Pattern& p, std::string_view id) {
  for (const Piece& piece : p.pieces)
    if (piece.id == id) return &piece;
  return nullptr;
}

Order gathered(std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order o = plainOrder();
  o.choices["cup.kind"] = "gathered";
  o.choices["balance.keep"] = "balanced";
  for (const auto& [key, value] : choices) o.choices[key] = value;
  return o;
}

}  // namespace

TEST_CASE("strips moved apart lengthen both edges by exactly the gaps") {
  const SpreadPiece s = slashAndSpread(kUpper, kLower, threeSlashes(), 25, false);
  CHECK(std::abs(s.upper.length() - (120 + 3 * 25)) < 1e-9);
  CHECK(std::abs(s.lower.length() - (280 + 3 * 25)) < 1e-9);
  CHECK(distance(s.upper.end(), s.lower.start()) < 1e-9);
  CHECK(distance(s.upper.start(), s.lower.end()) < 1e-9);
  CHECK(s.upper.end().x == Approx(195));
}

TEST_CASE("strips fanned out lengthen the lower edge alone, each turned by 2 asin(gap / 2 length)") {
  const SpreadPiece s = slashAndSpread(kUpper, kLower, threeSlashes(), 20, true);
  CHECK(std::abs(s.upper.length() - 120) < 1e-9);
  CHECK(std::abs(s.lower.length() - (280 + 3 * 20)) < 1e-9);
  const double turn = 3 * 2 * std::asin(20 / (2 * 80.0));  // worked by hand: slashes of 80 mm
  CHECK(angleBetween({1, 0}, s.upper.endTangent()) == Approx(-turn).margin(1e-9));
}

TEST_CASE("random slashes keep their sums") {
  Dice dice(3);
  for (int i = 0; i < 50; ++i) {
    std::vector<Slash> slashes;
    for (double x = dice.between(10, 30); x < 110; x += dice.between(12, 35)) slashes.push_back({x, 80 + 120 - x});
    const double gap = dice.between(5, 40);
    const bool fanned = i % 2;
    const SpreadPiece s = slashAndSpread(kUpper, kLower, slashes, gap, fanned);
    const double all = gap * static_cast<double>(slashes.size());
    CHECK(std::abs(s.lower.length() - 280 - all) < 1e-9);
    CHECK(std::abs(s.upper.length() - 120 - (fanned ? 0 : all)) < 1e-9);
  }
}

TEST_CASE("the lower cup is one piece, gathered into the frame and, spread straight, into the band") {
  for (const char* spread : {"straight", "fanned"})
    for (const char* to : {"whole", "middle", "centre"}) {
      INFO(spread << " " << to);
      const Design d = designOf(gathered({{"gather.spread", spread}, {"gather.to", to}}));
      for (const CheckRow& r : d.sheet.rows)
        if (r.fails() && r.kind != CheckKind::Curve) FAIL_CHECK(r.subject << " " << r.amount);
      CHECK(find(d.pattern, "cup-gathered"));
      CHECK_FALSE(find(d.pattern, "cup-inner"));
      // The frame is side a: what is gathered is planned, side b longer.
      double eased = 0, intoBand = 0;
      for (const Seam& s : d.pattern.seams) {
        if (s.id == "cup-1" || s.id == "cup-2") eased += s.ease();
        if (s.id.starts_with("band-")) intoBand += s.ease();
      }
      CHECK(eased < -30);
      CHECK((intoBand > 20) == (std::string(spread) == "straight"));
      CHECK((d.pattern.seam("cup-1")->notches.size() == 1) == (std::string(to) == "middle"));
      for (const PatternLevel& l : d.pattern.levels)
        if (l.ring) CHECK(d.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.5));
    }
}

TEST_CASE("wider spread is fuller, and the workings add up to the exact edge") {
  double last = 0;
  for (const char* gap : {"0.5 in", "1 in", "1.5 in", "2 in"}) {
    const Design d = designOf(gathered({{"gather.gap", gap}}));
    const Working* w = d.working("gather.lower");
    REQUIRE(w);
    double sum = 0;
    for (const Term& t : w->terms) sum += t.mm;
    CHECK(w->result == Approx(sum).margin(1e-6));
    CHECK(w->result > last + 20);
    last = w->result;
  }
}

TEST_CASE("a slash too short for what it is spread by is refused with what would be right") {
  size_t refused = 0, n = 0;
  for (const RealBody& body : realBodies()) {
    if (++n % 5 != 0) continue;
    Order o = gathered({{"gather.gap", "4 in"}, {"gather.strip", "0.5 in"}, {"ease.bust", "3.6 in"}});
    o.measures = measuresOf(body, 20);
    o.style = n % 2 == 0 ? "strap-neckline" : "sweetheart-zip";
    const Result<Design> d = recalc(o);  // throws nothing
    if (d.ok()) continue;
    CHECK_FALSE(d.problem().remedy.empty());
    refused += english(d.problem().what).starts_with("a slash is only") ? 1 : 0;
  }
  CHECK(refused >= 1);
}
