// Darts opened, closed, folded out and moved about a point: what keeps its length, what keeps its sum; the dial.
#include <boost/math/constants/constants.hpp>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "operations/pivot.h"
#include "parts/cups/dart_dial.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "recalc/idle.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

constexpr double kPi = boost::math::constants::pi<double>();

// A square of 200 mm with the pivot half way up its left edge.
Pattern square() {
  Pattern p;
  Piece piece;
  piece.id = "square";
  const Vec2 a{0, 0}, b{200, 0}, c{200, 200}, d{0, 200};
  piece.edges = {{"top", EdgeRole::Top, 0, Path::line(a, b)},
                 {"right", EdgeRole::Seam, 0, Path::line(b, c)},
                 {"hem", EdgeRole::Hem, 0, Path::line(c, d)},
                 {"left", EdgeRole::Seam, 0, Path::line(d, a)}};
  piece.marks = {levelMark(piece, "high", {0, 40}, {200, 40}), levelMark(piece, "low", {0, 160}, {200, 160})};
  piece.grainTop = {60, 120};
  piece.grainBottom = {60, 180};
  p.pieces = {piece};
  return p;
}

const DartCut kAcross{0, {"left", 100}, {"right", 100}, TurnedPart::FromMouthToPivot};

double perimeter(const Piece& p) {
  double sum = 0;
  for (const Edge& e : p.edges) sum += e.path.length();
  return sum;
}

// Lengths of all edges whose ids do not begin with `but`, in order of ids.
std::map<std::string, double> lengths(const Piece& p, const std::string& but) {
  std::map<std::string, double> all;
  for (const Edge& e : p.edges)
    if (!e.id.starts_with(but)) all[e.id] = e.path.length();
  return all;
}

void checkCloses(const Piece& p) {
  for (size_t i = 0; i < p.edges.size(); ++i)
    CHECK(distance(p.edges[i].path.end(), p.edges[(i + 1) % p.edges.size()].path.start()) < 1e-9);
  CHECK(isSimple(p.outline(0.02)));
}

}  // namespace

TEST_CASE("opening a dart keeps every length and angle on both parts") {
  Pattern p = square();
  const DartTurn turn = openDart(p, kAcross, 0.2, {"dart", "Dart", 25});
  const Piece& piece = p.pieces[0];
  checkCloses(piece);
  CHECK(turn.angleRad == Approx(0.2));
  // Chord of the turn at 200 mm from the pivot: 2 r sin(angle / 2).
  CHECK(turn.width == Approx(2 * 200 * std::sin(0.1)).margin(1e-9));
  CHECK(std::abs(perimeter(piece) - turn.width - 800) < 1e-9);  // the mouth has come to it
  CHECK(piece.edge("dart-mouth").path.length() == Approx(turn.width));
  REQUIRE(piece.darts.size() == 1);
  CHECK(!patternProblem(p));
  // The corner of hem and right edge is still a right angle, 100 mm below the mouth.
  const Path &right = piece.edge("right-2").path, &hem = piece.edge("hem").path;
  CHECK(std::abs(right.length() - 100) < 1e-9);
  CHECK(std::abs(hem.length() - 200) < 1e-9);
  CHECK(std::abs(dot(right.endTangent(), hem.startTangent())) < 1e-9);
  // Both legs are as long, and end 25 mm short of the pivot.
  CHECK(std::abs(piece.edge("dart-1").path.length() - piece.edge("dart-2").path.length()) < 1e-9);
  CHECK(distance(piece.edge("dart-1").path.end(), {0, 100}) == Approx(25));
  // The grain goes with the part it lies in.
  CHECK(angleBetween({0, 1}, piece.grainBottom - piece.grainTop) == Approx(0.2));
  const Seam* seam = p.seam("dart");
  REQUIRE(seam);
  CHECK(seam->kind == SeamKind::Dart);
  CHECK(seam->a.piece == seam->b.piece);
  CHECK(distance(p.sidePath(seam->a).end(), p.sidePath(seam->b).end()) < 1e-9);
}

TEST_CASE("a level across a dart is one line, less what the dart takes") {
  Pattern p = square();
  p.pieces[0].marks.push_back(levelMark(p.pieces[0], "aslant", {120, 0}, {80, 200}));
  openDart(p, kAcross, 0.15, {"dart", "Dart", 10});
  std::vector<LevelLine> lines = p.pieces[0].levelLines();
  std::erase_if(lines, [](const LevelLine& l) { return l.level != "aslant"; });
  REQUIRE(lines.size() == 1);
  // Straight across the open dart it is a little shorter than it was.
  CHECK(lines[0].width() - p.pieces[0].taken(lines[0]) == Approx(std::hypot(40, 200)).margin(1.5));
  CHECK(p.pieces[0].taken(lines[0]) > 5);
}

TEST_CASE("closing a dart that was opened gives the piece back") {
  Dice dice(11);
  for (int i = 0; i < 40; ++i) {
    const double angle = dice.between(0.02, 0.5), clear = dice.between(0, 40);
    Pattern p = square();
    DartCut cut = kAcross;
    cut.turned = i % 2 ? TurnedPart::FromMouthToPivot : TurnedPart::FromPivotToMouth;
    cut.mouth.at = dice.between(30, 170);
    cut.pivot.at = dice.between(40, 160);
    openDart(p, cut, angle, {"dart", "Dart", clear});
    const auto before = lengths(p.pieces[0], "dart");
    Anchor pivot{p.pieces[0].edges.front().id, 0};
    CHECK(std::abs(dartAngle(p, "dart", pivot) - angle) < 1e-12);
    closeDart(p, "dart", pivot, cut.turned);
    checkCloses(p.pieces[0]);
    CHECK(p.seam("dart") == nullptr);
    CHECK(std::abs(perimeter(p.pieces[0]) - 800) < 1e-9);
    for (const auto& [id, length] : before) CHECK(std::abs(p.pieces[0].edge(id).path.length() - length) < 1e-9);
    CHECK(std::abs(signedArea(p.pieces[0].outline(0.02)) - 40000) < 1e-6);
  }
}

TEST_CASE("a dart moved in part and in whole keeps the total angle") {
  for (const double part : {0.25, 0.6, 1.0}) {
    Pattern p = square();
    openDart(p, kAcross, 0.3, {"side", "Side dart", 20});
    const Anchor pivot{p.pieces[0].edges.front().id, 0};
    transferDart(p, "side", part, {0, pivot, {"hem", 80}, TurnedPart::FromMouthToPivot}, TurnedPart::FromMouthToPivot,
                 {"hem-dart", "Hem dart", 20});
    const Piece& piece = p.pieces[0];
    checkCloses(piece);
    Anchor now{"", 0};
    for (const Edge& e : piece.edges)
      if (distance(e.path.start(), {0, 100}) < 1e-6) now = {e.id, 0};
    REQUIRE(!now.edge.empty());
    const double left = p.seam("side") ? dartAngle(p, "side", now) : 0;
    CHECK(std::abs(left + dartAngle(p, "hem-dart", now) - 0.3) < 1e-9);
    CHECK((p.seam("side") == nullptr) == (part == 1.0));
    for (const auto& [id, length] : lengths(piece, "side"))
      if (id == "top") CHECK(std::abs(length - 200) < 1e-9);
  }
}

TEST_CASE("a spread keeps the cloth: the mouth grows by the width and nothing else") {
  Pattern p = square();
  const DartTurn turn = openSpread(p, kAcross, 0.2);
  const Piece& piece = p.pieces[0];
  checkCloses(piece);
  CHECK(piece.edge("hem").path.length() == Approx(200).margin(1e-9));
  CHECK(turn.width == Approx(2 * 200 * std::sin(0.1)).margin(1e-9));
  const double right = piece.edge("right").path.length() + piece.edge("right-spread").path.length() +
                       piece.edge("right-2").path.length();
  CHECK(right == Approx(200 + turn.width).margin(0.4));  // its corners are rounded off
}

TEST_CASE("a narrow spread is no edge of its own: the edge behind the mouth reaches over it") {
  for (const double angle : {0.002, 0.01, 0.05, 0.09}) {
    INFO("angle " << angle);
    Pattern p = square();
    const DartTurn turn = openSpread(p, kAcross, angle);
    const Piece& piece = p.pieces[0];
    checkCloses(piece);
    CHECK_FALSE(hasEdge(piece, "right-spread"));
    CHECK(piece.edge("right").path.length() + piece.edge("right-2").path.length() ==
          Approx(200 + turn.width).margin(0.05 * turn.width + 0.01));
    const Vec2 in = piece.edge("right").path.endTangent(), out = piece.edge("right-2").path.startTangent();
    CHECK(std::abs(angleBetween(in, out)) < 1e-9);
  }
}

TEST_CASE("however much is left as ease at the side, the pieces balance and no edge bends too tightly") {
  for (const char* ease : {"0.03", "0.05", "0.1", "0.2", "0.35", "0.6", "1"}) {
    INFO("ease " << ease);
    const Design d = designOf(orderWith({{"dial.ease", ease}, {"balance.keep", "balanced"}}));
    for (const CheckRow& r : d.sheet.rows)
      if (r.fails()) FAIL_CHECK(r.subject << ": " << r.detail << " " << r.amount);
    // What is eased in is what was left.
    const Seam& side = *d.pattern.seam("side");
    CHECK(d.pattern.sidePath(side.a).length() - d.pattern.sidePath(side.b).length() ==
          Approx(d.working("rule.dial.ease")->result).margin(0.5));
  }
}

TEST_CASE("what is folded out at an edge shortens it and shuts without a gap") {
  Pattern p = square();
  const DartTurn turn = foldOut(p, {0, {"left", 100}, {"right", 90}, TurnedPart::FromMouthToPivot}, 12);
  const Piece& piece = p.pieces[0];
  checkCloses(piece);
  CHECK(turn.width == Approx(-12).margin(0.05));
  CHECK(piece.edge("hem").path.length() == Approx(200).margin(1e-9));
}

TEST_CASE("a dart left at the side divides the side seam, and both seams and the legs fit") {
  Order o = plainOrder();
  o.choices["dial.side"] = "0.5";
  o.choices["balance.keep"] = "balanced";
  const Design d = designOf(o);
  REQUIRE(d.pattern.seam("dart-side"));
  REQUIRE(d.pattern.seam("side-below"));
  CHECK(d.sheet.pass());
  const Seam& dart = *d.pattern.seam("dart-side");
  CHECK(d.pattern.sidePath(dart.a).length() == Approx(d.pattern.sidePath(dart.b).length()).margin(1e-6));
}

TEST_CASE("ease left at the side is planned in the seam, bust to underbust") {
  Order o = plainOrder();
  o.choices["dial.ease"] = "0.2";
  o.choices["balance.keep"] = "balanced";
  const Design d = designOf(o);
  const Seam& side = *d.pattern.seam("side");
  const double width = 2 * distance(d.block.dart.apex, d.block.dart.upper) * std::sin(0.2 * d.block.dart.angle / 2);
  CHECK(side.ease() == Approx(width).margin(0.5));
  CHECK(d.sheet.pass());
}

TEST_CASE("whatever the dial moves, the angle about the bust point stays") {
  Dice dice(7);
  const Design plain = designOf(plainOrder());
  double total = 0;
  for (const DialPart& part : dartDial(plain.block, plain.rules)) total += part.angleRad;
  CHECK(total > 0.3);
  CHECK(total < kPi);
  for (int i = 0; i < 12; ++i) {
    Order o = plainOrder();
    o.choices["opening.front"] = "seam";
    double left = 1;
    for (const char* key : {"dial.side", "dial.ease", "dial.centre", "dial.top"}) {
      const double share = dice.between(0, left / 2);
      o.choices[key] = std::to_string(share);
      left -= share;
    }
    const Design d = designOf(o);
    double sum = 0;
    for (const DialPart& part : dartDial(d.block, d.rules)) sum += part.angleRad;
    CHECK(sum == Approx(total).epsilon(0.02));  // the sewn centre front draws the princess line a little otherwise
  }
}

TEST_CASE("more than the whole dart cannot be moved; a centre on the fold takes no dart") {
  Order o = plainOrder();
  o.choices["dial.side"] = "0.7";
  o.choices["dial.ease"] = "0.5";
  auto made = recalc(o);
  REQUIRE_FALSE(made.ok());
  CHECK(made.problem().text().find("120 %") != std::string::npos);
  o.choices = {{"dial.centre", "0.3"}};
  const Design folded = designOf(o);
  CHECK_FALSE(folded.rules.counts(*findRule("dial.centre")));
  CHECK(folded.pattern.seam("dart-centre") == nullptr);
  const std::vector<Idle> idle = idleIn(o, folded);
  const auto centre = std::find_if(idle.begin(), idle.end(), [](const Idle& i) { return i.key == "dial.centre"; });
  REQUIRE(centre != idle.end());
  CHECK(english(centre->reason).find("opening.front = seam") != std::string::npos);
}
