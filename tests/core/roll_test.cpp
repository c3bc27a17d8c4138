// Rolling a seam out along one ruler: the running difference against lengths measured another way.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "balance/balance.h"
#include "balance/roll.h"
#include "balance/walk.h"
#include "operations/crossing.h"
#include "prepare/arrange.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

double polylineLength(const Path& path) {
  const Polyline line = path.flattened(1e-5);
  double sum = 0;
  for (size_t i = 1; i < line.size(); ++i) sum += distance(line[i - 1], line[i]);
  return sum;
}

}  // namespace

TEST_CASE("the ruler counts from the underbust, and its marks are the notches of both sides") {
  const Pattern p = designOf(plainOrder()).pattern;
  for (const Seam& seam : p.seams) {
    const RolledSeam r = roll(p, seam);
    CHECK(r.anchor == "underbust");
    REQUIRE(r.marks.size() == walk(p, seam).stretches.size() + 1);
    CHECK(r.marks.front().id == "top");
    CHECK(r.marks.back().id == "hem");
    for (const RolledMark& m : r.marks)
      if (m.id == "underbust") CHECK((m.a == 0 && m.b == 0 && m.difference() == 0));
    CHECK(r.marks.back().a - r.marks.front().a == Approx(polylineLength(p.sidePath(seam.a))).margin(1e-3));
    CHECK(r.marks.back().b - r.marks.front().b == Approx(polylineLength(p.sidePath(seam.b))).margin(1e-3));
  }
}

TEST_CASE("the running difference is how much longer side a has been since the anchor") {
  const Pattern p = designOf(plainOrder()).pattern;
  for (const Seam& seam : p.seams) {
    const RolledSeam r = roll(p, seam);
    double above = 0, below = 0;
    bool passed = false;
    for (const Stretch& s : walk(p, seam).stretches) {
      passed = passed || s.from == "underbust";
      (passed ? below : above) += s.mismatch();
    }
    CHECK(r.marks.front().difference() == Approx(above).margin(1e-9));
    CHECK(r.marks.back().difference() == Approx(below).margin(1e-9));
    CHECK(r.difference(0) == Approx(0).margin(1e-12));
    // Half way between two marks, half of what the stretch adds.
    const RolledMark &a = r.marks[r.marks.size() - 2], &b = r.marks.back();
    CHECK(r.difference((a.a + b.a) / 2) == Approx((a.difference() + b.difference()) / 2));
  }
}

TEST_CASE("the points under the finger lie on the two edges, at notches on the notches") {
  const Pattern p = balance(designOf(plainOrder()).pattern).pattern;
  const Seam& seam = p.seams[0];
  const RolledSeam r = roll(p, seam);
  for (const RolledMark& m : r.marks) {
    const SewnPoints points = sewnAt(p, seam, r, m.a);
    CHECK(distance(points.a, p.sidePath(seam.a).pointAt(m.a - r.marks.front().a)) < 1e-9);
    CHECK(distance(points.b, p.sidePath(seam.b).pointAt(m.b - r.marks.front().b)) < 1e-9);
    for (const Mark& n : p.pieces[seam.b.piece].notches())
      if (n.id == m.id && seam.b.uses(n.a.edge)) CHECK(distance(points.b, p.pieces[seam.b.piece].point(n.a)) < 1e-6);
  }
  // Balanced, both sides run alike all the way.
  for (double a = r.marks.front().a; a < r.marks.back().a; a += 5) CHECK(std::abs(r.difference(a)) < 1e-6);
}

TEST_CASE("an eased stretch counts no difference where the ease is planned") {
  Pattern p = designOf(plainOrder()).pattern;
  const Walk w = walk(p, p.seams[0]);
  for (const Stretch& s : w.stretches) p.seams[0].eases.push_back({s.from, s.to, s.mismatch()});
  for (const RolledMark& m : roll(p, p.seams[0]).marks) CHECK(m.difference() == Approx(0).margin(1e-9));
  CHECK(walk(p, p.seams[0]).mismatch() == Approx(0).margin(1e-9));
}

TEST_CASE("closed at one end, the corners meet, the seam runs the same way, and the line runs on") {
  const Pattern p = designOf(plainOrder()).pattern;
  for (const Seam& seam : p.seams)
    for (const bool atTop : {true, false}) {
      const Path a = p.sidePath(seam.a), b = p.sidePath(seam.b).transformed(closedAt(p, seam, atTop));
      CHECK(distance(atTop ? a.start() : a.end(), atTop ? b.start() : b.end()) < 1e-9);
      CHECK(std::abs(angleBetween(atTop ? a.startTangent() : a.endTangent(),
                                  atTop ? b.startTangent() : b.endTangent())) < 1e-9);
      CHECK(std::abs(turnAcross(p, seam, atTop)) * 180 / std::numbers::pi < 2);
    }
}

TEST_CASE("a seam that is left open keeps its pieces apart, the others stay taped") {
  const Pattern p = designOf(plainOrder()).pattern;
  const Arrangement taped = tape(p).motions, open = tape(p, {"side"}).motions;
  const auto gap = [&](const Arrangement& m, const Seam& s) {
    const Path a = p.sidePath(s.a).transformed(m[s.a.piece]), b = p.sidePath(s.b).transformed(m[s.b.piece]);
    return distance(a.pointAt(a.length() / 2), b.pointAt(b.length() / 2));
  };
  for (const Seam& s : p.seams) {
    if (s.id == "side") CHECK(gap(open, s) > gap(taped, s) + 50);
    if (s.id != "side") CHECK(gap(open, s) == Approx(gap(taped, s)).margin(1e-9));
  }
}

TEST_CASE("a corner that is wider than a straight angle turns the line by as little as it does") {
  // The hem of the left piece rises steeply to the seam, that of the right one falls from it, together straight.
  Pattern p;
  Piece left, right;
  left.id = "left";
  left.name = "left";
  right.id = "right";
  right.name = "right";
  const double lift = std::tan(70 * std::numbers::pi / 180) * 20;
  const auto edge = [](std::string id, EdgeRole role, Vec2 a, Vec2 b) {
    return Edge{std::move(id), role, 10, Path::line(a, b)};
  };
  left.edges = {edge("top", EdgeRole::Top, {0, 0}, {20, 0}), edge("seam", EdgeRole::Seam, {20, 0}, {20, 200}),
                edge("hem", EdgeRole::Hem, {20, 200}, {0, 200 - lift}),
                edge("left", EdgeRole::Opening, {0, 200 - lift}, {0, 0})};
  right.edges = {
      edge("top", EdgeRole::Top, {20, 0}, {40, 0}), edge("right", EdgeRole::Opening, {40, 0}, {40, 200 + lift}),
      edge("hem", EdgeRole::Hem, {40, 200 + lift}, {20, 200}), edge("seam", EdgeRole::Seam, {20, 200}, {20, 0})};
  p.pieces = {left, right};
  p.seams = {{"seam", "Seam", {0, {{"seam", false}}}, {1, {{"seam", true}}}}};
  CHECK(turnAcross(p, p.seams[0], false) == Approx(0).margin(1e-12));
  CHECK(turnAcross(p, p.seams[0], true) == Approx(0).margin(1e-12));
  runOnAcrossSeams(p);
  for (const Piece& piece : p.pieces) CHECK(piece.edge("hem").path.tightestRadius() > 1e4);
}

TEST_CASE("on the taped figure nothing lies over anything else") {
  size_t beside = 0;
  for (const Preset& style : styleTable()) {
    Order o = plainOrder();
    o.style = style.id;
    o.choices["balance.keep"] = "balanced";
    const Pattern p = designOf(o).pattern;
    const Taped t = tape(p);
    INFO(style.id);
    REQUIRE(t.group.size() == p.pieces.size());
    CHECK(t.group.front() == 0);
    std::vector<Polyline> lie;
    for (size_t i = 0; i < p.pieces.size(); ++i) {
      lie.push_back(p.pieces[i].outline(1));
      for (Vec2& v : lie.back()) v = t.motions[i].apply(v);
      beside += t.group[i] > 0;
    }
    for (size_t i = 0; i < lie.size(); ++i)
      for (size_t j = 0; j < i; ++j) {
        INFO(p.pieces[i].id << " over " << p.pieces[j].id);
        CHECK(sharedArea(lie[i], lie[j]) <= 120.0);
      }
  }
  CHECK(beside > 20);
}

TEST_CASE("what two rings share is the area of both") {
  const Polyline square{{0, 0}, {10, 0}, {10, 10}, {0, 10}}, moved{{6, 0}, {6, 20}, {26, 20}, {26, 0}};
  CHECK(sharedArea(square, moved) == Approx(40));
  CHECK(sharedArea(square, {{20, 0}, {30, 0}, {30, 10}}) == Approx(0));
}
