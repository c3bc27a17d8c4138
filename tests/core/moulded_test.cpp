// Ready-made moulded cups: the spherical cap, the table of sizes, the client measured again; pads and linings.
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "measure/measure_table.h"
#include "parts/cups/moulded.h"
#include "rules/prepare_rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;
using std::numbers::pi;

TEST_CASE("a half sphere and a flat cap have the volume and arc the handbook gives") {
  // Bronstein and Semendyayev, "Handbook of Mathematics": half a sphere of 60 mm holds 2/3 pi r^3 = 452 389 mm^3.
  const SphericalCap half{60, 60};
  CHECK(half.sphereRadius() == Approx(60));
  CHECK(half.volume() == Approx(452389.3).epsilon(1e-6));
  CHECK(half.arc() == Approx(pi * 60));
  // By hand: a = 40, h = 20 gives R = (1600 + 400) / 40 = 50; arc = 100 asin(0.8) = 92.7295.
  const SphericalCap flat{40, 20};
  CHECK(flat.sphereRadius() == Approx(50));
  CHECK(flat.arc() == Approx(92.7295).epsilon(1e-5));
  CHECK(flat.volume() == Approx(pi * 20 * (3 * 1600 + 400) / 6));
}

TEST_CASE("volume and arc agree with numerical integration") {
  using boost::math::quadrature::gauss_kronrod;
  for (const MouldedSize& s : mouldedSizes()) {
    const SphericalCap cap{s.baseWidth / 2, s.depth};
    const double r = cap.sphereRadius();
    const double volume = gauss_kronrod<double, 31>::integrate([&](double z) { return pi * (r * r - z * z); },
                                                               r - cap.depth, r, 10, 1e-12);
    CHECK(cap.volume() == Approx(volume).epsilon(1e-9));
    const double arc = 2 * gauss_kronrod<double, 31>::integrate([&](double x) { return r / std::sqrt(r * r - x * x); },
                                                                0.0, cap.baseRadius, 15, 1e-12);
    CHECK(cap.arc() == Approx(arc).epsilon(1e-8));
  }
}

TEST_CASE("the table of sizes holds what its model says") {
  int last = 72;
  for (const MouldedSize& s : mouldedSizes()) {
    INFO(s.bustGirthCm);
    CHECK(s.bustGirthCm == last + 4);
    last = s.bustGirthCm;
    const double girth = 10.0 * s.bustGirthCm, a = 0.07 * girth, h = a * (0.45 + 0.3 * (girth - 760) / 560);
    CHECK(s.baseWidth == Approx(2 * a).margin(0.3));
    CHECK(s.depth == Approx(h).margin(0.3));
    CHECK(s.wireLength == Approx(a * 200 * pi / 180).margin(0.5));
    CHECK(s.volume == Approx(SphericalCap{a, h}.volume() / 1000).epsilon(0.02));
  }
}

TEST_CASE("a cap is found again from its arc and base") {
  Dice dice(5);
  for (int i = 0; i < 200; ++i) {
    const double a = dice.between(30, 100), h = a * dice.between(0.05, 1.6);
    const SphericalCap cap{a, h}, again = capWithArc(cap.arc(), a);
    CHECK(again.depth == Approx(h).epsilon(1e-6));
  }
}

TEST_CASE("a pinched dart deepens the cup, the more the wider it is") {
  double last = 0;
  for (const char* wide : {"0", "0.5 in", "1 in", "1.5 in"}) {
    Order o = plainOrder();
    o.choices["cup.kind"] = "moulded";
    o.choices["mould.dart_wide"] = wide;
    const Design d = designOf(o);
    const MouldedCup cup = mouldedCup(*resolveBody(o.measures), d.rules);
    CHECK(cup.pinched.arc() == Approx(cup.asBought.arc()).epsilon(1e-6));
    CHECK(cup.pinched.depth >= last);
    last = cup.pinched.depth;
    if (std::string(wide) == "0") CHECK(cup.pinched.depth == Approx(cup.asBought.depth).epsilon(1e-6));
  }
}

TEST_CASE("the client is measured again over the cup: bust and heights, and the front side grows with the dart") {
  Order o = plainOrder();
  const Design plain = designOf(o);
  o.choices["cup.kind"] = "moulded";
  o.choices["balance.keep"] = "balanced";
  const Design d = designOf(o);
  CHECK(d.body.mm(id::kBust) >= plain.body.mm(id::kBust));
  const double lift = d.body.mm(id::kShoulderToUnderbust) - plain.body.mm(id::kShoulderToUnderbust);
  CHECK(lift >= 0);
  CHECK(d.body.mm(id::kShoulderToWaist) - plain.body.mm(id::kShoulderToWaist) == Approx(lift));
  CHECK(d.block.levels.sideDart - plain.block.levels.sideDart == Approx(lift).margin(1e-9));
  CHECK(d.sheet.pass());
  // The cover is one piece on the bias with a dart of its own.
  const Seam* dart = d.pattern.seam("princess-cup");
  REQUIRE(dart);
  CHECK(dart->a.piece == dart->b.piece);
  const Piece& cover = d.pattern.pieces[dart->a.piece];
  CHECK(cover.id == "cup-cover");
  const double grain = std::abs(angleBetween({0, 1}, cover.grainBottom - cover.grainTop));
  CHECK(std::min(grain, pi - grain) == Approx(pi / 4).margin(0.02));
  for (const char* key : {"mould.size", "cup.cover", "bust"}) CHECK((d.working(key) || d.body.has(key)));
}

TEST_CASE("pads are traced from the panels and butt, linings have their allowance") {
  Order o = plainOrder();
  for (const char* kind : {"princess", "three", "gathered"}) {
    INFO(kind);
    o.choices = {{"cup.inside", "both"}, {"cup.kind", kind}, {"balance.keep", "balanced"}};
    const Design d = designOf(o);
    CHECK(d.sheet.pass());
    double areas[2] = {0, 0};
    for (size_t i = 0; i < d.pattern.pieces.size(); ++i) {
      const Piece& p = d.pattern.pieces[i];
      const bool pad = p.layer == "pad";
      if (!pad && p.layer != "cup-lining") continue;
      for (const Edge& e : p.edges) CHECK(e.allowance == (pad ? 0 : d.rules.length(key::kAllowanceLining)));
      areas[pad] += signedArea(p.outline(0.02));
      CHECK((signedArea(d.cutOutlines[i]) > signedArea(p.outline(0.02)) + 100) == !pad);
    }
    CHECK(areas[0] == Approx(areas[1]).epsilon(1e-6));
    CHECK(areas[0] > 5000);
  }
}
