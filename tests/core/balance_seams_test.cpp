// Balancing any seam between any edges: darts, chains, folds; rows that fight; and what each family of constraints is
// for.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "balance/balance.h"
#include "balance/moved_pattern.h"
#include "balance/solve.h"
#include "balance/walk.h"
#include "prepare/cut_outlines.h"
#include "sheet/sheet.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Edge edgeOf(std::string id, EdgeRole role, Path path) { return {std::move(id), role, 10, std::move(path)}; }

// A piece with a dart sewn inside it: legs of different length from the top edge to its point.
Pattern withDart() {
  Piece p;
  p.id = "cup";
  p.name = "cup";
  const Vec2 point{105, 90};
  p.edges = {edgeOf("top", EdgeRole::Top, Path::line({0, 0}, {80, 0})),
             edgeOf("leg-1", EdgeRole::Seam, Path::line({80, 0}, point)),
             edgeOf("leg-2", EdgeRole::Seam, Path::line(point, {120, 3})),
             edgeOf("top-2", EdgeRole::Top, Path::line({120, 3}, {200, 0})),
             edgeOf("right", EdgeRole::Opening, Path::line({200, 0}, {200, 200})),
             edgeOf("hem", EdgeRole::Hem, Path::line({200, 200}, {0, 200})),
             edgeOf("left", EdgeRole::Opening, Path::line({0, 200}, {0, 0}))};
  Pattern out;
  out.pieces = {p};
  out.seams = {{"dart", "Dart", {0, {{"leg-1", false}}}, {0, {{"leg-2", true}}}}};
  return out;
}

// Two pieces sewn along a chain of two edges on the left one; beside the seam the right one has a fold.
Pattern withChain() {
  Piece left, right;
  left.id = "left";
  left.name = "left";
  left.edges = {edgeOf("top", EdgeRole::Top, Path::line({0, 0}, {100, 0})),
                edgeOf("upper", EdgeRole::Seam, Path::line({100, 0}, {112, 90})),
                edgeOf("lower", EdgeRole::Seam, Path::line({112, 90}, {100, 200})),
                edgeOf("hem", EdgeRole::Hem, Path::line({100, 200}, {0, 200})),
                edgeOf("opening", EdgeRole::Opening, Path::line({0, 200}, {0, 0}))};
  left.marks = {notchMark("underbust", {"upper", 60}), notchMark("waist", {"lower", 30})};
  right.id = "right";
  right.name = "right";
  right.symmetry = Symmetry::Once;
  right.copies = 1;
  right.onFold = "fold";
  right.edges = {edgeOf("fold", EdgeRole::Fold, Path::line({200, 208}, {200, 0})),
                 edgeOf("seam", EdgeRole::Seam, Path(Cubic{{200, 0}, {240, 60}, {240, 140}, {260, 200}})),
                 edgeOf("hem", EdgeRole::Hem, Path::line({260, 200}, {200, 208}))};
  right.marks = {notchMark("underbust", {"seam", 58}), notchMark("waist", {"seam", 130})};
  Pattern out;
  out.pieces = {left, right};
  out.seams = {{"joint",
                "Joint",
                {0, {{"upper", false}, {"lower", false}}},
                {1, {{"seam", false}}},
                {},
                {{"underbust", 60, 58}, {"waist", 120.8, 130}}}};
  return out;
}

void checkClosed(const Pattern& pattern) {
  for (const Piece& p : pattern.pieces)
    for (size_t i = 0; i < p.edges.size(); ++i)
      CHECK(distance(p.edges[i].path.end(), p.edges[(i + 1) % p.edges.size()].path.start()) < 1e-7);
}

}  // namespace

TEST_CASE("a dart sewn inside a piece is a seam like any other; its legs keep their point") {
  const Pattern p = withDart();
  CHECK(std::abs(walk(p, p.seams[0]).mismatch()) > 4);
  const Balanced b = balance(p);
  CHECK(b.certificate.converged);
  CHECK(b.certificate.worstCorner < 1e-7);
  CHECK(walk(b.pattern, b.pattern.seams[0]).mismatch() == Approx(0).margin(1e-6));
  checkClosed(b.pattern);
}

TEST_CASE("a side can be a chain of edges, and beside a fold the corner slides along it") {
  const Pattern p = withChain();
  const Balanced b = balance(p);
  CHECK(b.certificate.converged);
  for (const Stretch& s : walk(b.pattern, b.pattern.seams[0]).stretches) CHECK(s.mismatch() == Approx(0).margin(1e-6));
  checkClosed(b.pattern);
  const Path& fold = b.pattern.pieces[1].edge("fold").path;
  for (const Cubic& c : fold.cubics())
    for (const Vec2 q : {c.p0, c.p1, c.p2, c.p3}) CHECK(q.x == Approx(200).margin(1e-9));
  // Walked over both edges, the notch on the second of them is found.
  CHECK(p.alongSide(p.seams[0].a, {"lower", 30}) == Approx(p.pieces[0].edge("upper").path.length() + 30));
  const Anchor place = p.placeOnSide(p.seams[0].a, p.pieces[0].edge("upper").path.length() + 30);
  CHECK(place.edge == "lower");
  CHECK(place.at == Approx(30));
}

TEST_CASE("rows that fight are named, all of them and no others") {
  const Design d = designOf(plainOrder());
  Pattern torn = d.pattern;
  for (const PatternLevel& l : d.pattern.levels)
    if (l.id == "waist") {
      torn.levels.push_back(l);  // the waist is asked to be two things at once
      torn.levels.back().name = "Waist again";
      torn.levels.back().finishedGirth += 4;
    }
  const Balanced b = balance(torn);
  REQUIRE(b.unreachable.size() == 1);
  CHECK(b.unreachable[0].why == Unreachable::Why::Conflict);
  const std::string said = english(wordsOf(b.unreachable[0], b.pattern).line());
  CHECK(said.find("Waist girth") != std::string::npos);
  CHECK(said.find("waist again girth") != std::string::npos);
  CHECK(said.find("Princess") == std::string::npos);
  CHECK_FALSE(b.certificate.converged);
}

TEST_CASE("without any one family of constraints something fails that is checked") {
  const Design d = designOf(plainOrder());
  const auto worst = [](const Pattern& p, CheckKind kind, const Body& body) {
    double most = 0;
    for (const CheckRow& r : balanceSheet({p, cutOutlines(p), {}, body}).rows)
      if (r.kind == kind && r.fails()) most = std::max(most, r.amount);
    return most;
  };
  const auto solved = [&](const Pattern& p, Family removed) {
    BalanceProblem problem(p, {});
    problem.leaveOut(removed);
    return movedPattern(p, problem, solve(problem).x);
  };
  CHECK(worst(solved(d.pattern, Family::Stretch), CheckKind::Stretch, d.body) > limits::kLengthMm);
  // Girths: the widths that balancing changes by the way add up on the full figure.
  Order full = plainOrder();
  full.measures.set("bust", {1050, "", ""});
  const Design f = designOf(full);
  const Pattern noGirths = solved(f.pattern, Family::Girth);
  CHECK(worst(noGirths, CheckKind::Girth, f.body) > limits::kLengthMm);
  // Corners: the legs of a dart come apart at its point.
  const Pattern dart = withDart();
  const Pattern torn = solved(dart, Family::Corner);
  CHECK(distance(torn.pieces[0].edge("leg-1").path.end(), torn.pieces[0].edge("leg-2").path.start()) >
        limits::kClosedMm);
  // With all of them everything passes.
  for (const CheckKind kind :
       {CheckKind::Stretch, CheckKind::Girth, CheckKind::Seam, CheckKind::Corner, CheckKind::Join})
    CHECK(worst(balance(f.pattern).pattern, kind, f.body) == 0);
}

TEST_CASE("what cannot be reached is said in the maker's words, whatever its kind") {
  const Pattern p = designOf(plainOrder()).pattern;
  using Why = Unreachable::Why;
  const auto said = [&](const Unreachable& u) { return english(wordsOf(u, p).line()); };
  // One stretch alone is about its seam; several rows are named one by one.
  CHECK(said({.why = Why::Conflict, .seam = "princess", .rows = {"Princess seam, bust to underbust"}, .mm = 2.04}) ==
        "Princess seam: 2.0 mm are left");
  const std::string fight = said({.why = Why::Conflict,
                                  .rows = {"Waist girth", "Side seam, bust to underbust", "Hem girth"},
                                  .held = {{"front-1", "princess"}, {"gone", "edge"}},
                                  .mm = 3});
  CHECK(fight ==
        "Waist girth: 3.0 mm are left; it cannot hold together with side seam, bust to underbust and hem girth; held "
        "with these choices: the princess edge of the centre front and the edge edge of gone");
  CHECK(said({.why = Why::TooFar, .mm = 41.6}).find("42 mm") != std::string::npos);
  CHECK(wordsOf({.why = Why::NoShape}, p).subject.empty());
  CHECK(said({.why = Why::SewnOn, .seam = "side", .atTop = true}).find("Side seam: it is sewn on at its upper end") ==
        0);
  CHECK(said({.why = Why::SewnOn, .seam = "no-such-seam"}).find("no-such-seam: ") == 0);
}
