// The shoulder band on every body, against the geometry of a cone laid flat; inserts: nothing is lost where a piece is
// divided, and what has no room is refused.
#include <catch2/catch.hpp>
#include <cmath>

#include "garment/garment.h"
#include "measure/measure_table.h"
#include "parts/band/rules.h"
#include "parts/inserts/rules.h"
#include "pattern/outline_parts.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order offShoulder() { return orderWith({{"cover.kind", "off-shoulder"}, {"top.shape", "straight"}}); }

double areaOf(const Piece& p) { return signedArea(p.outline(0.002)); }

double areaOf(const Pattern& pattern) {
  double sum = 0;
  for (const Piece& p : pattern.pieces) sum += areaOf(p);
  return sum;
}

bool hasPiece(const Pattern& pattern, std::string_view id) {
  return std::any_of(pattern.pieces.begin(), pattern.pieces.end(), [&](const Piece& p) { return p.id == id; });
}

// How far the points of a path are from a centre: least and most.
std::pair<double, double> radii(const Path& path, Vec2 centre) {
  double least = HUGE_VAL, most = 0;
  for (int i = 0; i <= 40; ++i) {
    const double r = distance(path.pointAt(path.length() * i / 40), centre);
    least = std::min(least, r);
    most = std::max(most, r);
  }
  return {least, most};
}

// Where the lines of both ends of the band meet: the tip of the cone.
Vec2 tipOf(const Piece& band) {
  const Path &a = band.edge("front").path, &b = band.edge("back").path;
  const Vec2 d = a.end() - a.start(), e = b.end() - b.start();
  return a.start() + cross(b.start() - a.start(), e) / cross(d, e) * d;
}

}  // namespace

// A cone of slant r1 to r2 laid flat is the part of a ring between both radii, its edges angle * radius long (common
// geometry; I. Bronshtein and others, "Handbook of Mathematics", 3.3.4).
TEST_CASE("the shoulder band is part of a ring, with the lengths the measures give, on every body") {
  const std::vector<RealBody> bodies = realBodies();
  int made = 0;
  for (size_t b = 0; b < bodies.size(); b += 6) {
    INFO("body " << b);
    Order o = offShoulder();
    o.measures = measuresOf(bodies[b], 95);
    const auto design = recalc(o);
    if (!design.ok()) {
      CHECK(design.problem().text().find("Off-shoulder band") != std::string::npos);
      continue;
    }
    ++made;
    const Piece& band = pieceOf(design->pattern, "shoulder-band");
    const double depth = design->rules.length(key::kOffDepth);
    const double upper = (design->body.mm("round_shoulder") - design->rules.length(key::kOffHold)) / 2;
    const double lower = design->working("off.lower")->result;
    CHECK(band.edge("top").path.length() == Approx(upper).margin(0.01));
    const Vec2 tip = tipOf(band);
    const auto [inner, innerMost] = radii(band.edge("top").path, tip);
    CHECK(innerMost - inner < 0.01);
    // Proportion of the edges to their radii: one angle.
    const double angle = (lower - upper) / depth;
    CHECK(inner == Approx(upper / std::abs(angle)).margin(0.01));
    double round = 0;
    for (const Edge& e : band.edges) {
      if (e.role != EdgeRole::Yoke && e.role != EdgeRole::Armhole) continue;
      const auto [least, most] = radii(e.path, tip);
      CHECK(most - least < 0.01);
      CHECK(least == Approx(inner + std::copysign(depth, angle)).margin(0.01));
      round += e.path.length();
    }
    CHECK(round == Approx(lower).margin(0.05));
    CHECK(areaOf(band) ==
          Approx(std::abs(angle) * std::abs(std::pow(inner + std::copysign(depth, angle), 2) - inner * inner) / 2)
              .epsilon(1e-4));
  }
  CHECK(made > 10);
}

TEST_CASE("what holds the band in shortens its upper edge and nothing else") {
  Order o = offShoulder();
  const Design before = designOf(o);
  o.choices["off.hold"] = "3 in";
  const Design after = designOf(o);
  const Piece &was = pieceOf(before.pattern, "shoulder-band"), &is = pieceOf(after.pattern, "shoulder-band");
  const double more = inches(3) - before.rules.length(key::kOffHold);
  CHECK(was.edge("top").path.length() - is.edge("top").path.length() == Approx(more / 2).margin(0.01));
  for (const char* id : {"arm", "front", "back"})
    CHECK(is.edge(id).path.length() == Approx(was.edge(id).path.length()).margin(0.01));
}

TEST_CASE("a band is cut on the fold where the front is, and in a pair where it opens") {
  const Design folded = designOf(offShoulder());
  CHECK(pieceOf(folded.pattern, "shoulder-band").onFold == "front");
  CHECK(pieceOf(folded.pattern, "shoulder-band").copies == 1);
  Order o = offShoulder();
  o.choices["opening.front"] = "busk";
  const Design opened = designOf(o);
  CHECK(pieceOf(opened.pattern, "shoulder-band").onFold.empty());
  CHECK(pieceOf(opened.pattern, "shoulder-band").copies == 2);
}

TEST_CASE("a band that would not lie on one sheet is refused with what would be right") {
  Order o = offShoulder();
  o.choices["off.depth"] = "1 in";
  o.measures.set("round_shoulder", {inches(30), "", ""});
  const auto refused = recalc(o);
  REQUIRE_FALSE(refused.ok());
  CHECK(refused.problem().text().find("deeper") != std::string::npos);
}

TEST_CASE("dividing off inserts loses no cloth and keeps every width, on many bodies") {
  const std::vector<RealBody> bodies = realBodies();
  for (size_t b = 0; b < bodies.size(); b += 13)
    for (const char* kind : {"centre", "shoulder", "both"}) {
      INFO("body " << b << ", " << kind);
      Order o = orderWith({{"cover.kind", "covered"}});
      o.measures = measuresOf(bodies[b], 95);
      const Design plain = designOf(o);
      o.choices["insert.kind"] = kind;
      const auto design = recalc(o);
      if (!design.ok()) {
        CHECK(design.problem().text().find("Insert") != std::string::npos);
        continue;
      }
      const bool centre = kind != std::string("shoulder"), shoulder = kind != std::string("centre");
      CHECK(hasPiece(design->pattern, "insert-centre") == centre);
      CHECK(hasPiece(design->pattern, "insert-shoulder-front") == shoulder);
      CHECK(hasPiece(design->pattern, "insert-shoulder-back") == shoulder);
      // Free edges are drawn anew over the new seams, by a hair.
      CHECK(areaOf(design->pattern) == Approx(areaOf(plain.pattern)).epsilon(2e-3));
      for (size_t i = 0; i < plain.pattern.levels.size(); ++i) {
        const PatternLevel &was = plain.pattern.levels[i], &is = design->pattern.levels[i];
        if (!was.ring || !is.ring) continue;
        CHECK(design->pattern.closedGirth(is) == Approx(plain.pattern.closedGirth(was)).margin(0.2));
      }
      for (const char* id : {"insert-centre", "insert-shoulder-front", "insert-shoulder-back"})
        if (const Seam* seam = design->pattern.seam(id))
          CHECK(design->pattern.sidePath(seam->a).length() ==
                Approx(design->pattern.sidePath(seam->b).length()).margin(0.01));
    }
}

TEST_CASE("an insert is as wide as it was asked to be, and tells so") {
  const Design d = designOf(orderWith(
      {{"cover.kind", "covered"}, {"insert.kind", "both"}, {"insert.top", "2 in"}, {"insert.shoulder", "1 in"}}));
  const Piece &centre = pieceOf(d.pattern, "insert-centre"), &shoulder = pieceOf(d.pattern, "insert-shoulder-front");
  double above = 0, hem = 0;
  for (const Edge& e : centre.edges) {
    if (e.role == EdgeRole::Top) above += std::abs(e.path.end().x - e.path.start().x);
    if (e.role == EdgeRole::Hem) hem += std::abs(e.path.end().x - e.path.start().x);
  }
  CHECK(above == Approx(inches(2)).margin(0.5));
  CHECK(hem == Approx(d.rules.length(key::kInsertHem)).margin(0.5));
  double across = 0;
  for (const Edge& e : shoulder.edges)
    if (e.id.starts_with("shoulder")) across += e.path.length();
  CHECK(across == Approx(inches(1)).margin(0.01));
  CHECK(d.working("insert-centre")->result == Approx(inches(2)));
  CHECK(d.working("insert-shoulder-front")->result == Approx(inches(1)));
}

TEST_CASE("an insert that leaves no cloth beside it is refused, naming the piece") {
  const auto refused =
      recalc(orderWith({{"cover.kind", "covered"}, {"insert.kind", "shoulder"}, {"insert.shoulder", "3 in"}}));
  REQUIRE_FALSE(refused.ok());
  CHECK(refused.problem().text().find("narrower") != std::string::npos);
  // Without shoulders there is nowhere to put it.
  const auto nowhere = recalc(orderWith({{"insert.kind", "shoulder"}}));
  REQUIRE_FALSE(nowhere.ok());
  CHECK(nowhere.problem().text().find("shoulder") != std::string::npos);
}
