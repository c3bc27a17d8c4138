// Lines that are not cut: sewn as darts inside one piece, or not there; and shares, heights and girths that a maker
// sets or leaves.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "draft/dart.h"
#include "operations/darts.h"
#include "operations/join.h"
#include "operations/join_stretch.h"
#include "parts/edges/rules.h"
#include "parts/skirt/rules.h"
#include "rules/draft_rules.h"
#include "rules/shaping_keys.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order balancedOrder(std::initializer_list<std::pair<const char*, const char*>> choices) {
  Order o = orderWith(choices);
  o.choices["balance.keep"] = "balanced";
  return o;
}

// What the pieces of one half measure on a level, darts sewn; one side of the body.
double halfWidth(const Pattern& p, Half half, std::string_view level, Part part = Part::Panel) {
  double sum = 0;
  for (const Piece& piece : p.pieces)
    if (piece.half == half && piece.part == part && piece.layer == "shell")
      for (const LevelLine& l : piece.levelLines())
        if (l.level == level) sum += l.width() - piece.taken(l);
  return sum;
}

size_t piecesOf(const Pattern& p, Half half, Part part) {
  return static_cast<size_t>(std::count_if(p.pieces.begin(), p.pieces.end(),
                                           [&](const Piece& x) { return x.half == half && x.part == part; }));
}

// Of a rectangle that is cut in two along a gap: nothing down to `from`, `deep` mm at the middle, nothing below `to`.
Pattern twoPieces(double from, double to, double deep) {
  const auto gap = [&](double y) {
    const double t = (y - from) / (to - from);
    return t <= 0 || t >= 1 ? 0 : deep * std::pow(std::sin(std::numbers::pi * t), 2);
  };
  std::vector<Vec2> left, right;
  for (int i = 0; i <= 150; ++i) {
    const double y = 2.0 * i;
    left.push_back({100 - gap(y) / 2, y});
    right.push_back({100 + gap(y) / 2, y});
  }
  const auto path = [](const std::vector<Vec2>& points) {
    std::vector<Cubic> cubics;
    for (size_t i = 0; i + 1 < points.size(); ++i) cubics.push_back(Cubic::line(points[i], points[i + 1]));
    return Path(std::move(cubics));
  };
  const auto piece = [](const char* id, std::vector<Edge> edges) {
    Piece p;
    p.id = id;
    p.edges = std::move(edges);
    p.grainTop = {50, 100};
    p.grainBottom = {50, 200};
    return p;
  };
  Pattern p;
  p.pieces.push_back(piece("left", {{"top", EdgeRole::Top, 0, Path::line({0, 0}, left.front())},
                                    {"line", EdgeRole::Seam, 0, path(left)},
                                    {"hem", EdgeRole::Hem, 0, Path::line(left.back(), {0, 300})},
                                    {"fold", EdgeRole::Opening, 0, Path::line({0, 300}, {0, 0})}}));
  std::vector<Vec2> up(right.rbegin(), right.rend());
  p.pieces.push_back(piece("right", {{"top", EdgeRole::Top, 0, Path::line(right.front(), {200, 0})},
                                     {"side", EdgeRole::Opening, 0, Path::line({200, 0}, {200, 300})},
                                     {"hem", EdgeRole::Hem, 0, Path::line({200, 300}, right.back())},
                                     {"line", EdgeRole::Seam, 0, path(up)}}));
  p.seams.push_back({"line", "Line", {0, {{"line", false}}}, {1, {{"line", true}}}});
  return p;
}

}  // namespace

TEST_CASE("pieces whose edges run together above and below become one, with a dart pointed at both ends between") {
  Pattern p = twoPieces(60, 240, 30);
  const double length = p.sidePath(p.seams[0].a).length();
  REQUIRE(joinLeavingDart(p, "line", "Whole"));
  REQUIRE(p.pieces.size() == 1);
  REQUIRE_FALSE(patternProblem(p));
  const Piece& whole = p.pieces.front();
  REQUIRE(whole.darts.size() == 1);
  CHECK_FALSE(whole.darts[0].isOpen());
  CHECK(p.seam("line")->kind == SeamKind::Dart);
  // The point lies where the edges have parted by a hair, and what was joined is no part of the legs.
  CHECK(whole.darts[0].legs[0].path.start().y == Approx(60).margin(8));
  CHECK(whole.darts[0].legs[0].path.end().y == Approx(240).margin(8));
  CHECK(p.sidePath(p.seam("line")->a).length() < length - 100);
  CHECK(std::abs(signedArea(whole.outline(0.01))) == Approx(200 * 300).epsilon(1e-3));
}

TEST_CASE("where they run together at one end only the dart is open at the other") {
  for (const bool openBelow : {true, false}) {
    Pattern p = openBelow ? twoPieces(60, 500, 30) : twoPieces(-200, 240, 30);
    REQUIRE(joinLeavingDart(p, "line", "Whole"));
    REQUIRE_FALSE(patternProblem(p));
    const Dart& dart = p.pieces.front().darts.at(0);
    REQUIRE(dart.isOpen());
    CHECK(dart.point().y == Approx(openBelow ? 60 : 240).margin(8));
    CHECK(p.pieces.front().edge(dart.mouth).path.start().y == Approx(openBelow ? 300 : 0).margin(1));
  }
}

TEST_CASE("edges that stand apart at both ends are not joined, and the pattern stays as it was") {
  Pattern p = twoPieces(-200, 500, 30);
  CHECK_FALSE(joinLeavingDart(p, "line", "Whole"));
  CHECK(p.pieces.size() == 2);
  CHECK(p.seams.size() == 1);
}

TEST_CASE("a back of sewn darts is one piece, as wide on every level as one of seams") {
  for (const char* lines : {"1", "2"}) {
    INFO(lines << " lines");
    const Design seams = designOf(balancedOrder({{"lines.back", lines}})),
                 darts = designOf(balancedOrder({{"lines.back", lines}, {"back.lines", "darts"}}));
    CHECK(piecesOf(darts.pattern, Half::Back, Part::Panel) == 1);
    const Piece& back = pieceOf(darts.pattern, "back-1");
    CHECK(back.darts.size() == static_cast<size_t>(lines[0] - '0'));
    for (const Dart& d : back.darts) CHECK_FALSE(d.isOpen());
    for (const std::string_view level : {level::kBust, level::kUnderbust, level::kWaist, level::kHighHip}) {
      INFO(level);
      CHECK(halfWidth(darts.pattern, Half::Back, level) ==
            Approx(halfWidth(seams.pattern, Half::Back, level)).margin(0.5));
    }
    CHECK(darts.sheet.pass());
  }
}

TEST_CASE("a bodice that ends at the waist has its back darts open there") {
  const Design d = designOf(balancedOrder({{"back.lines", "darts"}, {"hem.at", "waist"}}));
  const Piece& back = pieceOf(d.pattern, "back-1");
  REQUIRE(back.darts.size() == 1);
  CHECK(back.darts[0].isOpen());
  CHECK(d.sheet.pass());
}

TEST_CASE("where a back line is not there only the side takes in") {
  const Design d = designOf(balancedOrder({{"back.lines", "none"}, {"back.shape", "scoop"}}));
  CHECK(piecesOf(d.pattern, Half::Back, Part::Panel) == 1);
  CHECK(pieceOf(d.pattern, "back-1").darts.empty());
  for (const HalfLevel& l : d.block.back.levels) CHECK(l.lineIntake() == Approx(0).margin(1e-9));
  CHECK(d.sheet.pass());
  // Nothing of a line that is not there has a say.
  for (const char* key : {"back.intake_waist", "back.start", "back.end"}) CHECK_FALSE(d.rules.counts(*findRule(key)));
  Order held = orderWith({{"back.lines", "none"}, {"hold.waist.back-line", "1 in"}});
  CHECK(designOf(held).block.back.at(level::kWaist).lineIntake() == Approx(0).margin(1e-9));
}

TEST_CASE("a skirt with darts is a front on the fold and two backs, its waist as long as the bodice's") {
  for (const char* kind : {"straight", "peg", "gored"}) {
    INFO(kind);
    const Design d = designOf(balancedOrder(
        {{"back.lines", "darts"}, {"waist.seam", "level"}, {"skirt.kind", kind}, {"skirt.lines", "darts"}}));
    const Piece &front = pieceOf(d.pattern, "skirt-front-1"), &back = pieceOf(d.pattern, "skirt-back-1");
    CHECK(front.symmetry == Symmetry::OnFold);
    CHECK(back.symmetry == Symmetry::Pair);
    CHECK(front.darts.size() == 1);
    CHECK(back.darts.size() == 1);
    CHECK(front.darts[0].isOpen());
    // To nothing at the hip.
    CHECK(front.taken(*front.level(level::kHip)) == Approx(0).margin(0.5));
    CHECK(d.sheet.pass());
  }
}

TEST_CASE("a skirt without lines takes in at the side what they would") {
  const Design with = designOf(balancedOrder({{"waist.seam", "level"}, {"skirt.kind", "straight"}})),
               without = designOf(
                   balancedOrder({{"waist.seam", "level"}, {"skirt.kind", "straight"}, {"skirt.lines", "none"}}));
  const Piece& front = pieceOf(without.pattern, "skirt-front-1");
  CHECK(front.darts.empty());
  CHECK(without.sheet.pass());
  CHECK(front.level(level::kHip)->width() == Approx(with.block.front.at(level::kHip).share).margin(0.5));
  // The hem is one line, square to centre and side.
  const Path& hem = front.edge("hem").path;
  CHECK(hem.cubics().size() <= 2);
  const Path& fold = front.edge(front.onFold).path;
  CHECK(std::abs(dot(unit(hem.endTangent()), unit(fold.startTangent()))) < 0.01);
}

TEST_CASE("the side runs straight past an underbust that was not taken, whatever is taken in there") {
  for (const char* intake : {"1 in", "2.5 in"})
    for (const bool front : {true, false}) {
      Order o = orderWith({{"intake.underbust", intake}});
      o.measures.erase("underbust");
      const Design d = designOf(o);
      const HalfBlock& half = front ? d.block.front : d.block.back;
      const Vec2 from = front ? d.block.dart.lower : Vec2{half.at(level::kBust).side, half.at(level::kBust).y};
      const HalfLevel &under = half.at(level::kUnderbust), &waist = half.at(level::kWaist);
      const double t = (under.y - from.y) / (waist.y - from.y);
      CHECK(under.side == Approx(from.x + t * (waist.side - from.x)).margin(1e-6));
      CHECK(under.side == Approx(under.share + under.lineIntake() + under.centreIntake).margin(1e-9));
    }
  // Asked for, the estimate is drawn to; a girth that was taken always is.
  Order o = orderWith({{"intake.underbust", "2.5 in"}, {"underbust.untaken", "estimate"}});
  o.measures.erase("underbust");
  const Design estimated = designOf(o);
  CHECK(estimated.block.levels.at(level::kUnderbust).finishedGirth ==
        Approx(estimated.body.mm("underbust")).margin(1e-6));
  CHECK(designOf(orderWith({{"intake.underbust", "2.5 in"}})).block.levels.at(level::kUnderbust).finishedGirth ==
        Approx(inches(30)));
}

TEST_CASE("a share given on one level lays that part of the intake towards the centre there, and nowhere else") {
  const Design plain = designOf(orderWith({{"intake.centre_share", "0.5"}})),
               given = designOf(orderWith({{"intake.centre_share", "0.5"}, {"share.waist.princess", "0.1"}}));
  const PanelLine &was = plain.block.front.lines[0], &is = given.block.front.lines[0];
  const double waist = given.block.front.at(level::kWaist).y, top = given.block.front.at(level::kTop).y;
  const double taken = is.intakeAtDepth(waist);
  CHECK(taken == Approx(was.intakeAtDepth(waist)));
  CHECK(was.position - was.toCentreX(waist) == Approx(0.5 * taken).margin(1e-6));
  CHECK(is.position - is.toCentreX(waist) == Approx(0.1 * taken).margin(1e-6));
  CHECK(is.toCentreX(top) == Approx(was.toCentreX(top)));
  // Of a further line and of the back's, about where its middle was.
  const Design further = designOf(orderWith({{"share.waist.back-line", "0"}}));
  const PanelLine& back = further.block.back.lines[0];
  const double y = further.block.back.at(level::kWaist).y;
  CHECK(back.toCentreX(y) == Approx(back.position).margin(1e-6));
  CHECK_FALSE(checkChoice("share.waist.princess", "1.2", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("share.waist.front-side", "0.5", Unit::Inch).ok());
}

TEST_CASE("a line held at the hem ends there with what was held") {
  const Design d = designOf(orderWith({{"hold.hem.princess", "1.25 in"}, {"hold.hem.back-line", "0.75 in"}}));
  CHECK(d.block.front.lines[0].intakeAtDepth(d.block.front.at(level::kHem).y) == Approx(inches(1.25)).margin(0.01));
  CHECK(d.block.back.lines[0].intakeAtDepth(d.block.back.at(level::kHem).y) == Approx(inches(0.75)).margin(0.01));
}

TEST_CASE("a further line may grow to the hem") {
  const Design d =
      designOf(orderWith({{"lines.front", "2"}, {"intake.further", "0.4 in"}, {"intake.further_hem", "1 in"}}));
  const PanelLine& line = d.block.front.lines[1];
  CHECK(line.intakeAtDepth(d.block.front.at(level::kWaist).y) == Approx(inches(0.4)).margin(0.01));
  CHECK(line.intakeAtDepth(d.block.front.at(level::kHem).y) == Approx(inches(1)).margin(1));
}

TEST_CASE("a top edge stands where its height is counted from") {
  const auto top = [](std::initializer_list<std::pair<const char*, const char*>> choices) {
    return designOf(orderWith(choices)).block.levels.at(level::kTop).front;
  };
  // The plain figure: bust at 10 1/2, underbust at 13 1/2, chest line 2 in above the bust.
  CHECK(top({}) == Approx(inches(7.5)));
  CHECK(top({{"top.from", "bust"}, {"top.above_bust", "4 in"}}) == Approx(inches(6.5)));
  CHECK(top({{"top.from", "mirrored"}}) == Approx(inches(7.5)));
  CHECK(top({{"top.from", "shoulder"}, {"top.below_shoulder", "6 in"}}) == Approx(inches(6)));
}

TEST_CASE("random backs and skirts of darts balance, and what was made is what was asked") {
  size_t made = 0;
  Dice dice(1717);
  for (Order o : withoutCups(randomOrders(40, 177))) {
    o.choices["balance.keep"] = "balanced";
    o.choices["back.lines"] = dice.between(0, 1) < 0.6 ? "darts" : "none";
    o.choices["lines.back"] = dice.between(0, 1) < 0.7 ? "1" : "2";
    o.choices.erase("hem.at");
    if (dice.between(0, 1) < 0.5) {
      o.choices["waist.seam"] = "level";
      o.choices["skirt.kind"] = "straight";
      o.choices["skirt.lines"] = dice.between(0, 1) < 0.5 ? "darts" : "none";
    }
    INFO(o.title << " " << o.choices.at("back.lines"));
    const auto d = recalc(o);
    if (!d.ok()) continue;
    ++made;
    CHECK(piecesOf(d->pattern, Half::Back, Part::Panel) == 1);
    for (const CheckRow& r : d->sheet.rows) {
      const bool counts = r.kind == CheckKind::Stretch || r.kind == CheckKind::Girth || r.kind == CheckKind::Join;
      INFO(english(r.subject) << " " << r.amount);
      if (counts && d->balanced && d->balanced->unreachable.empty()) CHECK_FALSE(r.fails());
    }
  }
  CHECK(made > 25);
}

TEST_CASE("below a cut cup the princess line may be a dart of the frame, open at the cup line") {
  for (const char* kind : {"two", "moulded"}) {
    INFO(kind);
    const Design d = designOf(balancedOrder({{"cup.kind", kind}, {"cup.frame", "dart"}}));
    CHECK(piecesOf(d.pattern, Half::Front, Part::Panel) == 1);
    const Piece& frame = pieceOf(d.pattern, "front-1");
    REQUIRE(frame.darts.size() == 1);
    CHECK(std::ranges::any_of(frame.edges, [](const Edge& e) { return e.role == EdgeRole::Mouth; }));
    // It takes in at the waist what the princess line does, and nothing at the hem.
    for (const LevelLine& l : frame.levelLines())
      if (l.level == level::kWaist) CHECK(frame.taken(l) == Approx(inches(1.5)).margin(1.5));
    for (const CheckRow& r : d.sheet.rows) CHECK_FALSE(r.fails());
  }
  const auto atWaist = recalc(balancedOrder({{"cup.kind", "two"}, {"cup.frame", "dart"}, {"hem.at", "waist"}}));
  REQUIRE_FALSE(atWaist.ok());
  CHECK(atWaist.problem().text().find("both its ends") != std::string::npos);
}

TEST_CASE("a front in one piece: darts below the bust, nothing taken in above, the girths as with seams") {
  for (const char* lines : {"1", "2"})
    for (const char* opening : {"zip", "lacing"}) {
      INFO(lines << " lines, " << opening);
      const Design seams = designOf(balancedOrder({{"lines.front", lines}, {"opening.kind", opening}}));
      const Design darts =
          designOf(balancedOrder({{"lines.front", lines}, {"opening.kind", opening}, {"front.lines", "darts"}}));
      CHECK(darts.sheet.pass());
      CHECK(piecesOf(darts.pattern, Half::Front, Part::Panel) == 1);
      const Piece& front = pieceOf(darts.pattern, "front-1");
      CHECK(front.darts.size() == (*lines == '1' ? 1 : 2));
      for (std::string_view level : {level::kBust, level::kUnderbust, level::kWaist})
        CHECK(halfWidth(darts.pattern, Half::Front, level) ==
              Approx(halfWidth(seams.pattern, Half::Front, level)).margin(2));
      CHECK_FALSE(darts.rules.counts(*findRule("intake.top")));
      CHECK_FALSE(darts.rules.counts(*findRule("cover.dart")));
    }
}

TEST_CASE("the princess dart ends below the bust point by what the bust is rounded over, its legs as long") {
  const Design d = designOf(balancedOrder({{"front.lines", "darts"}, {"bust.rounding", "1 in"}}));
  const Piece& front = pieceOf(d.pattern, "front-1");
  const auto dart =
      std::find_if(front.darts.begin(), front.darts.end(), [](const Dart& x) { return x.id == "princess"; });
  REQUIRE(dart != front.darts.end());
  CHECK(dart->isOpen());
  const Vec2 apex = d.block.dart.apex, point = dart->point();
  CHECK(distance(apex, point) == Approx(inches(1)).margin(0.5));
  CHECK(point.y > apex.y);
  const Seam* seam = d.pattern.seam("princess");
  REQUIRE(seam);
  CHECK(seam->kind == SeamKind::Dart);
  // Both are as long down to the underbust, where they stand as far from the bust point.
  const SeamNotch* under = seam->notch(level::kUnderbust);
  REQUIRE(under);
  CHECK(under->a == Approx(under->b).margin(0.05));
  for (const Edge& leg : dart->legs) CHECK(leg.path.tightestRadius() > 25);
}

TEST_CASE("with the bust dart left at the side a front's waist dart is narrower, and both are sewn") {
  const Design whole = designOf(balancedOrder({{"front.lines", "darts"}}));
  const Design both = designOf(balancedOrder({{"front.lines", "darts"}, {"dial.side", "1"}}));
  CHECK(both.sheet.pass());
  const auto atUnderbust = [](const Design& d) {
    const Piece& front = pieceOf(d.pattern, "front-1");
    for (const LevelLine& l : front.levelLines())
      if (l.level == level::kUnderbust) return front.taken(l);
    return 0.0;
  };
  CHECK(atUnderbust(both) < atUnderbust(whole) - 5);
  CHECK(pieceOf(both.pattern, "front-1").darts.size() == 2);
}

TEST_CASE("a dart ends short of its point on the middle line; what is nearer than asked stays") {
  Pattern p = designOf(orderWith({{"back.lines", "darts"}, {"hem.at", "waist"}})).pattern;
  CHECK_THROWS_AS(shortenDart(p, "no such dart", 10, 30), std::out_of_range);
  Piece& back = p.pieces[p.panel(Half::Back, 1).value()];
  REQUIRE(back.darts.size() == 1);
  const Dart before = back.darts.front();
  shortenDart(p, before.id, 20, 60);
  CHECK_FALSE(patternProblem(p));
  const Dart& after = back.darts.front();
  CHECK(after.point().y == Approx(before.point().y + 20).margin(0.5));
  CHECK(distance(after.legs[0].path.start(), before.legs[0].path.start()) < 1e-9);
}

TEST_CASE("the back's side traced from the front: one shape below the bust, the girths kept") {
  for (const char* school : {"thumb", "even"}) {
    INFO(school);
    const Design own = designOf(balancedOrder({{"distribution.school", school}}));
    const Design d =
        designOf(balancedOrder({{"distribution.school", school}, {"back.side", "front"}, {"cap.other", "4 in"}}));
    CHECK(d.sheet.pass());
    const Path front = closeSideDart(d.block).side;
    const double bustFront = d.block.levels.at(level::kBust).front, bustBack = d.block.levels.at(level::kBust).back;
    for (std::string_view level : {level::kUnderbust, level::kWaist}) {
      const double y = d.block.levels.at(level).back;
      const double in = front.xAtDepth(bustFront) - front.xAtDepth(y + bustFront - bustBack);
      CHECK(d.block.back.side.xAtDepth(bustBack) - d.block.back.side.xAtDepth(y) == Approx(in).margin(0.5));
      CHECK(d.block.levels.at(level).finishedGirth == Approx(own.block.levels.at(level).finishedGirth));
    }
    CHECK_FALSE(d.rules.counts(*findRule("back.intake_waist")));
  }
}

TEST_CASE("a plain front: the whole bust dart at the side, nothing taken in by lines, the girths kept") {
  std::vector<RealBody> bodies = realBodies();
  for (size_t b = 3; b < bodies.size(); b += 40)
    for (const char* style : {"straight-zip", "covered-round"}) {
      INFO(b << ' ' << style);
      Order o = balancedOrder({{"front.lines", "none"}});
      o.style = style;
      o.measures = measuresOf(bodies[b], 50);
      const Design d = designOf(o);
      CHECK(d.sheet.pass());
      CHECK(piecesOf(d.pattern, Half::Front, Part::Panel) == 1);
      const Piece& front = pieceOf(d.pattern, "front-1");
      REQUIRE(front.darts.size() == 1);
      CHECK(front.darts.front().id == "dart-side");
      CHECK(front.darts.front().isOpen());
      CHECK(d.pattern.seam("princess") == nullptr);
      for (const PatternLevel& l : d.pattern.levels)
        if (l.ring) CHECK(d.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.01));
    }
  const Rules rules({{"front.lines", "none"}}, "straight-zip", "quarter-grid", Figure::Small);
  for (const char* key : {"intake.waist", "intake.top", "dial.side", "lines.front", "cap.princess", "cup.inside"})
    CHECK_FALSE(rules.counts(*findRule(key)));
  CHECK(rules.counts(*findRule("dial.ease")));
}

TEST_CASE("of a plain front's bust dart what is eased in is not sewn") {
  const auto mouth = [](const Design& d) {
    const Dart& dart = pieceOf(d.pattern, "front-1").darts.front();
    return distance(dart.legs.front().path.start(), dart.legs.back().path.end());
  };
  const Design whole = designOf(orderWith({{"front.lines", "none"}}));
  const Design eased = designOf(orderWith({{"front.lines", "none"}, {"dial.ease", "0.25"}}));
  CHECK(mouth(eased) == Approx(0.75 * mouth(whole)).margin(1));
}
