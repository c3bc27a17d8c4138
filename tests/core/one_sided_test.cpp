// Corrections of one side of the body: each half as if the other were like it, and both joined to one garment.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <set>

#include "alter/alter.h"
#include "alter/cloth_beyond.h"
#include "alter/one_sided.h"
#include "alter/proposal.h"
#include "geometry/path_distance.h"
#include "layers/layer.h"
#include "operations/both_sides.h"
#include "parts/bones/bones.h"
#include "pattern/outline_parts.h"
#include "prepare/lists.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order orderIn(std::string_view style, size_t body = 40) {
  Order o = plainOrder();
  o.style = style;
  o.choices = choicesOfNewOrders();
  o.measures = allMeasuresOf(realBodies()[body], 90);
  return o;
}

// Taken in along a whole seam, on these sides of the body.
Alteration takenIn(std::string line, BodySide half, double mm = 4) {
  Alteration a{.id = "1", .name = "waist", .date = "2026-11-30"};
  a.shifts = {{std::move(line), ShiftSides::Both, ShiftWay::Across, {{"waist", -mm}}, half}};
  return a;
}

std::string sideOf(const Pattern& p) {
  const Seam* side = bodiceSide(p);
  return side ? side->id : std::string();
}

// How far the lines of a half are from those they became in the whole: as lengths and as chords, which turning over
// does not change.
double apart(const Design& whole, BodySide side) {
  const Pattern& half = whole.half(side).pattern;
  double most = 0;
  for (const Piece& p : half.pieces)
    for (size_t i = 0; i < p.lines(); ++i) {
      const Edge& e = p.lineAt(i);
      if (e.id == p.onFold) continue;
      const PieceEdge at = inWhole(whole.pattern, p, e.id, side);
      const Path& there = whole.pattern.pieces[at.piece].edge(at.edge).path;
      most = std::max({most, std::abs(there.length() - e.path.length()),
                       std::abs(distance(there.start(), there.end()) - distance(e.path.start(), e.path.end()))});
    }
  return most;
}

}  // namespace

TEST_CASE("what is taken in on one side is half of what it is on both, and the other side stays as it was") {
  size_t tried = 0, refused = 0;
  for (const Preset& style : styleTable()) {
    const Order o = orderIn(style.id, tried % 100);
    const Result<Design> drafted = recalc(o);
    if (!drafted.ok() || sideOf(drafted->pattern).empty() || !drafted->pattern.level("waist")) continue;
    Order taken = o;
    taken.alterations = {takenIn(sideOf(drafted->pattern), BodySide::Both)};
    const Result<Design> both = recalc(taken);
    if (!both.ok() || !both->idleShifts.empty()) continue;
    const BodySide half = ++tried % 2 ? BodySide::Left : BodySide::Right,
                   other = tried % 2 ? BodySide::Right : BodySide::Left;
    INFO(style.id);
    taken.alterations = {takenIn(sideOf(drafted->pattern), half)};
    const Result<Design> made = recalc(taken);
    if (!made.ok() && english(made.problem().what).find("keyhole") != std::string::npos) {
      ++refused;
      continue;
    }
    if (!made.ok()) FAIL(made.problem().text());
    const Design& one = *made;
    REQUIRE(one.halves.size() == 2);
    CHECK_FALSE(patternProblem(one.pattern));
    CHECK(sameHalves(one.half(half).pattern, both->pattern));
    CHECK(sameHalves(one.half(other).pattern, drafted->pattern));
    CHECK(apart(one, BodySide::Left) < 0.05);
    CHECK(apart(one, BodySide::Right) < 0.05);
    for (const PatternLevel& l : one.pattern.levels) {
      INFO(l.id);
      const double was = drafted->level(l.id)->finishedGirth, all = both->level(l.id)->finishedGirth;
      CHECK(l.finishedGirth == Approx((was + all) / 2).margin(1e-9));
      if (l.ring)
        CHECK(one.pattern.closedGirth(l) ==
              Approx((drafted->pattern.closedGirth(*drafted->level(l.id)) +
                      both->pattern.closedGirth(*both->level(l.id))) /
                     2)
                  .margin(0.05));  // a level that slants to the fold is straight on the unfolded piece
    }
    for (const CheckRow& r : one.sheet.rows)
      if (r.fails()) UNSCOPED_INFO(english(r.subject) << ": " << english(r.detail) << " " << r.amount);
    CHECK(one.sheet.failing() <= std::max(drafted->sheet.failing(), both->sheet.failing()) * 2);
    // No piece is there twice under one name, and every seam joins two pieces of one side.
    std::set<std::string> ids;
    for (const Piece& p : one.pattern.pieces) CHECK(ids.insert(p.id).second);
    for (const Seam& s : one.pattern.seams)
      for (const SeamSide* side : {&s.a, &s.b})
        if (const BodySide on = one.pattern.pieces[side->piece].side; on != BodySide::Both && s.side != BodySide::Both)
          CHECK(on == s.side);
  }
  CHECK(tried > 40);
  CHECK(refused < 4);
}

TEST_CASE("the same correction on either side by itself is one of both, and nothing comes apart") {
  const Order o = orderIn("sweetheart-laced");
  Alteration a = takenIn("side", BodySide::Left);
  a.shifts.push_back(a.shifts[0]);
  a.shifts[1].half = BodySide::Right;
  CHECK(isOneSided({&a, 1}));
  Order either = o, both = o;
  either.alterations = {a};
  both.alterations = {takenIn("side", BodySide::Both)};
  const Design one = designOf(either), other = designOf(both);
  CHECK(one.halves.empty());
  CHECK_FALSE(isSplit(one.pattern));
  CHECK(sameHalves(one.pattern, other.pattern));
  CHECK(one.sheet.rows.size() == other.sheet.rows.size());
  a.on = false;
  CHECK_FALSE(isOneSided({&a, 1}));
}

TEST_CASE("a note of one side is answered there, and one of both sides on both") {
  const Pattern p = shellOf(designOf(orderIn("sweetheart-laced")).pattern);
  const auto note = [](FitWork work, const char* line, double mm, BodySide half) {
    FitNote n;
    n.work = work;
    n.line = line;
    n.from = "underbust";
    n.to = "high_hip";
    n.mm = mm;
    n.half = half;
    return n;
  };
  Fitting f{.id = "1", .date = "2026-11-30"};
  f.notes = {note(FitWork::TakeIn, "side", 6, BodySide::Right), note(FitWork::LetOut, "princess", 4, BodySide::Both)};
  const Proposal proposal = proposalFor(p, f);
  REQUIRE(proposal.outcomes.size() == 2);
  CHECK(proposal.outcomes[0].got == Approx(-6));
  CHECK(proposal.outcomes[1].got == Approx(4));
  std::map<std::string, BodySide> halves;
  for (const Shift& s : proposal.alteration.shifts) halves[s.line] = s.half;
  CHECK(halves == std::map<std::string, BodySide>{{"side", BodySide::Right}, {"princess", BodySide::Both}});
  const auto waist = static_cast<size_t>(p.level("waist") - p.levels.data());
  CHECK(letOut(p, {&proposal.alteration, 1})[waist] == Approx(2 * 4 - 6));
  CHECK(english(noteWords(p, f.notes[0])).find(", right,") != std::string::npos);
  CHECK(english(shiftWords(p, proposal.alteration)[1]).find(", right") != std::string::npos);

  // Without a line: of the half's girth, shared over its seams.
  f.notes = {note(FitWork::TakeIn, "", 12, BodySide::Left)};
  const Proposal girth = proposalFor(p, f);
  CHECK(girth.outcomes.at(0).got == Approx(-12));
  CHECK(letOut(p, {&girth.alteration, 1})[waist] == Approx(-12).margin(1e-9));
  for (const Shift& s : girth.alteration.shifts) CHECK(s.half == BodySide::Left);

  // Contradiction on one side only: met half way there, in full on the other.
  f.notes = {note(FitWork::TakeIn, "side", 6, BodySide::Both), note(FitWork::LetOut, "side", 2, BodySide::Left)};
  const Proposal torn = proposalFor(p, f);
  CHECK(torn.outcomes.at(0).got == Approx(-2));
  for (const Shift& s : torn.alteration.shifts)
    for (const ShiftAt& at : s.at)
      if (at.place == "waist") CHECK(at.mm == Approx(s.half == BodySide::Left ? -1 : -3));

  // The cloth of the side it is asked of.
  Alteration more = takenIn("side", BodySide::Right, -60);
  const auto beyond = beyondCloth(p, more);
  REQUIRE(beyond.size() == 2);
  CHECK(beyond[0].half == BodySide::Right);
}

TEST_CASE("what is cut, boned, laced and bought is as much as of two like halves, and is named by its side") {
  for (const char* style : {"sweetheart-laced", "cup-three-pieces", "moulded-cup", "reducing-three-lines"}) {
    INFO(style);
    Order o = orderIn(style);
    const Design drafted = designOf(o);
    o.alterations = {takenIn(sideOf(drafted.pattern), BodySide::Left)};
    const Design one = designOf(o);
    REQUIRE(isSplit(one.pattern));
    const CutList was = cutList(drafted.pattern, drafted.block, drafted.rules),
                  is = cutList(one.pattern, one.block, one.rules);
    const auto count = [](const auto& all, auto member) {
      int sum = 0;
      for (const auto& each : all) sum += each.*member;
      return sum;
    };
    CHECK(count(is.bones, &BoneLine::count) == count(was.bones, &BoneLine::count));
    const auto notions = [](const CutList& list) {
      std::map<std::string, int> all;
      for (const Notion& n : list.notions) all[std::string(n.id)] += n.count;
      return all;
    };
    CHECK(notions(is) == notions(was));
    // Cloth: a piece on the fold is two halves in one.
    CHECK(count(is.pieces, &CutPiece::copies) == count(was.pieces, &CutPiece::copies));
    for (const CutPiece& c : is.pieces)
      if (one.pattern.pieces[c.piece].side != BodySide::Both) CHECK_FALSE(c.mirrored);
  }
}

TEST_CASE("what was chosen for a piece or a bone holds on both of its sides") {
  Order o = orderIn("sweetheart-laced");
  const Design drafted = designOf(o);
  o.choices["bone.off.bone-princess"] = "yes";
  o.choices["cloth.of.front-2"] = "net";
  const Design both = designOf(o);
  o.alterations = {takenIn("side", BodySide::Right)};
  const Design one = designOf(o);
  const CutList was = cutList(both.pattern, both.block, both.rules), is = cutList(one.pattern, one.block, one.rules);
  const auto bones = [](const CutList& list) {
    int sum = 0;
    for (const BoneLine& b : list.bones) sum += b.count;
    return sum;
  };
  CHECK(bones(is) == bones(was));
  CHECK(bones(is) < bones(cutList(drafted.pattern, drafted.block, drafted.rules)));
  int ofNet = 0;
  for (const CutPiece& c : is.pieces) ofNet += c.cloth == "net" ? c.copies : 0;
  CHECK(ofNet == 2);
}

TEST_CASE("every bone by itself is taken away on both of its sides, and one of the maker's own lies on both") {
  for (const char* style : {"dress-with-slit", "reducing-three-lines"}) {
    Order o = orderIn(style);
    o.choices["bones.apart"] = "1 1/2 in";
    o.choices["bone.at.front-1.1"] = "0.3";
    const Design drafted = designOf(o);
    const auto seam = sideOf(drafted.pattern);
    const std::vector<Channel> all = channelsOf(drafted.pattern, drafted.block, drafted.rules);
    REQUIRE(all.size() > 8);
    // Lengths of channels tell them apart, and turning over does not change them.
    const auto lengths = [](const Design& d) {
      std::multiset<long> each;
      for (const Channel& c : channelsOf(d.pattern, d.block, d.rules))
        for (int k = 0; k < c.count; ++k) each.insert(std::lround(c.length() * 5));
      return each;
    };
    Order split = o;
    Alteration least = takenIn(seam, BodySide::Right, 0.02);  // so little that no bone is another
    split.alterations = {least};
    REQUIRE(isSplit(designOf(split).pattern));
    for (size_t i = 0; i < all.size(); i += 3) {
      INFO(style << " " << all[i].id);
      Order without = o, both = split;
      without.choices["bone.off." + all[i].id] = "yes";
      both.choices = without.choices;
      const auto was = lengths(designOf(without)), is = lengths(designOf(both));
      REQUIRE(is.size() == was.size());
      for (auto a = was.begin(), b = is.begin(); a != was.end(); ++a, ++b)
        CHECK(std::abs(*a - *b) <= 25);  // 5 mm: channels end at points 2 mm apart
    }
  }
}

TEST_CASE("what cannot be cut differently on one side is refused, and says why") {
  Order o = orderIn("sweetheart-yoke");
  o.alterations = {takenIn(sideOf(designOf(o).pattern), BodySide::Left)};
  const Result<Design> keyhole = recalc(o);
  REQUIRE_FALSE(keyhole.ok());
  CHECK(english(keyhole.problem().what) == "has a keyhole on its fold and cannot be unfolded");
  // The fold would be longer on one side than on the other.
  Order dress = orderIn("dress-with-slit");
  Alteration longer{.id = "1", .name = "longer"};
  longer.shifts = {
      {std::string(kEveryLine), ShiftSides::Both, ShiftWay::Along, {{"bust", 0}, {"waist", 12}}, BodySide::Left}};
  dress.alterations = {longer};
  const Result<Design> fold = recalc(dress);
  REQUIRE_FALSE(fold.ok());
  CHECK(english(fold.problem().what) == "is not as long on the fold on both sides of the body");
}

TEST_CASE("a girth that one side changes has its working") {
  Order o = orderIn("sweetheart-laced");
  o.alterations = {takenIn("side", BodySide::Left, 5)};
  const Design one = designOf(o);
  const Working* w = one.working("girth.waist");
  REQUIRE(w);
  CHECK(w->terms.back().mm == Approx(10));  // both edges of one side
  CHECK(w->result == Approx(one.level("waist")->finishedGirth));
  CHECK(one.half(BodySide::Right).working("girth.waist")->result == Approx(w->result));
}

TEST_CASE("a piece on the fold is unfolded: its other half is its mirror image, levels run from side to side") {
  Order o = orderIn("dress-with-slit");
  o.alterations = {takenIn(sideOf(designOf(o).pattern), BodySide::Right, 3)};
  const Design one = designOf(o);
  size_t unfolded = 0;
  for (const Piece& p : one.pattern.pieces) {
    if (!isUnfolded(p)) continue;
    INFO(p.id);
    ++unfolded;
    CHECK(p.symmetry == Symmetry::Once);
    CHECK(p.copies == 1);
    CHECK(p.onFold.empty());
    const Pattern& left = one.half(BodySide::Left).pattern;
    const Piece& half = pieceOf(left, p.splitOf);
    const Path& fold = half.edge(half.onFold).path;
    const Vec2 on = fold.start(), along = unit(fold.end() - fold.start());
    const auto mirrored = [&](Vec2 q) { return on + 2 * dot(q - on, along) * along - (q - on); };
    for (const Edge& e : p.edges) {
      if (e.side != BodySide::Left) continue;
      const Edge& other = p.edge(e.id.substr(0, e.id.size() - 4) + "right");
      CHECK(other.side == BodySide::Right);
      CHECK(other.role == e.role);
      CHECK(other.allowance == e.allowance);
      // The halves differ by what was altered, and by nothing far from it.
      CHECK(distance(mirrored(e.path.start()), other.path.end()) < 8);
    }
    for (const LevelLine& l : half.levelLines()) {
      const auto whole = p.level(l.level);
      REQUIRE(whole);
      const auto right = pieceOf(one.half(BodySide::Right).pattern, p.splitOf).level(l.level);
      REQUIRE(right);
      CHECK(whole->width() == Approx(l.width() + right->width()).margin(0.2));
    }
  }
  CHECK(unfolded >= 2);  // bodice and skirt
}

TEST_CASE("pieces of the right are turned over: clockwise, and their seams walk the same way") {
  Order o = orderIn("sweetheart-laced");
  o.alterations = {takenIn("side", BodySide::Left)};
  const Design one = designOf(o);
  const auto area = [](const Polyline& ring) {
    double sum = 0;
    for (size_t i = 0; i < ring.size(); ++i) sum += cross(ring[i], ring[(i + 1) % ring.size()]);
    return sum / 2;
  };
  for (const Piece& p : one.pattern.pieces) {
    if (p.side != BodySide::Right) continue;
    INFO(p.id);
    const Piece& half = pieceOf(one.half(BodySide::Right).pattern, p.splitOf);
    CHECK(area(p.outline(0.05)) == Approx(area(half.outline(0.05))).epsilon(1e-3));
    CHECK(std::distance(p.marks.begin(), p.marks.end()) == std::distance(half.marks.begin(), half.marks.end()));
  }
  for (const Seam& s : one.pattern.seams) {
    if (s.side != BodySide::Right) continue;
    INFO(s.id);
    const Pattern& half = one.half(BodySide::Right).pattern;
    const Seam& was = *half.seam(s.splitOf);
    REQUIRE(s.notches.size() == was.notches.size());
    for (size_t i = 0; i < s.notches.size(); ++i) {
      CHECK(s.notches[i].id == was.notches[i].id);
      CHECK(s.notches[i].a == Approx(was.notches[i].a).margin(1e-6));
      CHECK(s.notches[i].b == Approx(was.notches[i].b).margin(1e-6));
    }
    const Path is = one.pattern.sidePath(s.a), before = half.sidePath(was.a);
    CHECK(is.start().y == Approx(before.start().y).margin(1e-6));
    CHECK(is.end().y == Approx(before.end().y).margin(1e-6));
  }
}

TEST_CASE("what is chosen of balancing follows into the whole: moves on their pieces, seen from outside") {
  Order o = orderIn("cup-three-pieces");
  o.alterations = {takenIn(sideOf(designOf(o).pattern), BodySide::Left)};
  const Design one = designOf(o);
  REQUIRE(one.balanced);
  CHECK(one.balanced->certificate.converged);
  size_t right = 0;
  for (const EdgeMove& m : one.balanced->moves) {
    const Piece& p = one.pattern.pieces[m.piece];
    CHECK_NOTHROW(p.edge(m.edge));
    if (!m.seam.empty()) CHECK(one.pattern.seam(m.seam));
    const Path& path = p.edge(m.edge).path;
    CHECK(distance(path.pointAt(nearestPlace(path, m.at)), m.at) < 1);
    right += p.side == BodySide::Right;
  }
  CHECK(right > 0);
  // The proposal of a garment kept as drafted is one of both halves as well.
  o.choices["balance.keep"] = "drafted";
  const Design drafted = designOf(o);
  const Balanced proposed = proposal(drafted);
  CHECK(isSplit(proposed.pattern));
  CHECK_FALSE(patternProblem(proposed.pattern));
  CHECK(sameHalves(shellOf(proposed.pattern), shellOf(one.pattern)));
}
