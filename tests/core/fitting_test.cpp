// Notes of a fitting, what follows from them, and corrections on another garment of the same client.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "alter/alter.h"
#include "alter/carry.h"
#include "alter/cloth_beyond.h"
#include "alter/complaints.h"
#include "alter/differences.h"
#include "alter/proposal.h"
#include "alter/wish.h"
#include "layers/layer.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order fittedIn(std::string_view style) {
  Order o = plainOrder();
  o.style = style;
  o.choices = choicesOfNewOrders();
  o.measures = allMeasuresOf(realBodies()[40], 90);
  return o;
}

Pattern shellFor(std::string_view style) { return shellOf(designOf(fittedIn(style)).pattern); }

FitNote note(FitWork work, const char* line, const char* from, const char* to, double mm) {
  FitNote n;
  n.work = work;
  n.line = line;
  n.from = from;
  n.to = to;
  n.mm = mm;
  return n;
}

Fitting fittingWith(std::vector<FitNote> notes) {
  Fitting f{.id = "1", .date = "2026-10-02"};
  f.notes = std::move(notes);
  return f;
}

// What the proposal lets out on a level, all round.
double girthChange(const Pattern& p, const Proposal& proposal, std::string_view level) {
  const std::vector<double> by = letOut(p, {&proposal.alteration, 1});
  return by[static_cast<size_t>(p.level(level) - p.levels.data())];
}

}  // namespace

TEST_CASE("one note is answered as it is said") {
  const Pattern p = shellFor("sweetheart-laced");
  const Proposal taken = proposalFor(p, fittingWith({note(FitWork::TakeIn, "side", "underbust", "high_hip", 6)}));
  REQUIRE(taken.outcomes.size() == 1);
  CHECK(taken.outcomes[0].got == Approx(-6));
  CHECK(girthChange(p, taken, "waist") == Approx(-12));  // both sides of the body
  CHECK(girthChange(p, taken, "underbust") == Approx(0).margin(1e-9));
  const Proposal deeper = proposalFor(p, fittingWith({note(FitWork::Deeper, "princess", "bust", "bust", 8)}));
  CHECK(girthChange(p, deeper, "bust") == Approx(16));
  const Proposal moved = proposalFor(p, fittingWith({note(FitWork::Forward, "side", "waist", "hem", 5)}));
  CHECK(girthChange(p, moved, "high_hip") == Approx(0).margin(1e-9));
  REQUIRE(moved.alteration.shifts.size() == 1);
  // Forward: the front loses.
  const Seam& side = *p.seam("side");
  const bool frontIsA = p.pieces[side.a.piece].half == Half::Front;
  for (const ShiftAt& at : moved.alteration.shifts[0].at)
    if (at.place == "hem") CHECK(at.mm == Approx(frontIsA ? -5 : 5));
}

TEST_CASE("a girth is shared over the seams alike, darts left out") {
  for (const char* style : {"reducing-three-lines", "dress-with-slit"}) {
    const Pattern p = shellFor(style);
    const Proposal proposal = proposalFor(p, fittingWith({note(FitWork::LetOut, "", "top", "hem", 24)}));
    INFO(style);
    REQUIRE_FALSE(proposal.alteration.shifts.empty());
    CHECK(proposal.outcomes[0].got == Approx(24));
    CHECK(girthChange(p, proposal, "underbust") == Approx(24).margin(1e-6));
    for (const Shift& s : proposal.alteration.shifts) {
      REQUIRE(p.seam(s.line));
      CHECK(p.seam(s.line)->kind != SeamKind::Dart);
    }
  }
}

TEST_CASE("notes that go together are all met; those that contradict each other are met half way, and say so") {
  const Pattern p = shellFor("reducing-three-lines");
  // The whole waist 20 mm less, and 6 mm of it known at the side.
  const Proposal both = proposalFor(p, fittingWith({note(FitWork::TakeIn, "", "underbust", "high_hip", 20),
                                                    note(FitWork::TakeIn, "side", "underbust", "high_hip", 6)}));
  CHECK(girthChange(p, both, "waist") == Approx(-20).margin(1e-6));
  for (const NoteOutcome& o : both.outcomes) CHECK(o.got == Approx(o.wanted).margin(1e-6));
  const Proposal torn = proposalFor(p, fittingWith({note(FitWork::TakeIn, "side", "underbust", "high_hip", 6),
                                                    note(FitWork::LetOut, "side", "underbust", "high_hip", 2)}));
  REQUIRE(torn.outcomes.size() == 2);
  CHECK(torn.outcomes[0].got == Approx(-2));
  CHECK(torn.outcomes[0].wanted == Approx(-6));
  CHECK(torn.outcomes[1].wanted == Approx(2));
}

TEST_CASE("five notes at once, of every kind, and the garment still fits together") {
  for (const char* style : {"sweetheart-laced", "cup-three-pieces", "covered-round", "shaping-two-lines"}) {
    Order o = fittedIn(style);
    const Design before = designOf(o);
    std::vector<FitNote> notes;
    for (const char* id : {"top-gapes", "waist-low", "side-leans-back", "cup-full", "gap-wide"})
      for (FitNote& n : notesFor(before.pattern, *findComplaint(id))) notes.push_back(std::move(n));
    REQUIRE(notes.size() >= 6);
    Proposal proposal = proposalFor(before.pattern, fittingWith(notes));
    INFO(style);
    for (const NoteOutcome& out : proposal.outcomes) {
      INFO(english(noteWords(before.pattern, notes[out.note])) << ": " << english(out.what));
      CHECK(out.what.empty());
      CHECK(out.got == Approx(out.wanted).margin(1e-6));
    }
    proposal.alteration.id = "1";
    o.alterations = {proposal.alteration};
    const Design after = designOf(o);
    CHECK(after.idleShifts.empty());
    for (const CheckRow& r : after.sheet.rows)
      if (r.fails()) UNSCOPED_INFO(english(r.subject) << ": " << english(r.detail) << " " << r.amount);
    CHECK(after.sheet.failing() <= before.sheet.failing());
    for (const PatternLevel& l : after.pattern.levels)
      if (l.ring) CHECK(after.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(0.1));
  }
}

TEST_CASE("every complaint has something that mends it, in every style") {
  std::set<std::string_view> ids;
  for (const Complaint& c : complaintTable()) {
    CHECK(ids.insert(c.id).second);
    CHECK_FALSE(c.reason.empty());
  }
  for (const char* style : {"sweetheart-zip", "cup-cross-seam", "plunge-net-corset", "covered-gored", "moulded-cup"}) {
    const Pattern p = shellFor(style);
    for (const Complaint& c : complaintTable()) {
      const std::vector<FitNote> notes = notesFor(p, c);
      INFO(style << " " << c.id);
      REQUIRE_FALSE(notes.empty());
      const Proposal proposal = proposalFor(p, fittingWith(notes));
      // A style without the line says so.
      CHECK((!proposal.alteration.shifts.empty() || !proposal.outcomes.front().what.empty()));
      CHECK(alter(p, {&proposal.alteration, 1}).ok());
    }
  }
}

TEST_CASE("a waist that is raised keeps the length of the whole") {
  const Pattern p = shellFor("sweetheart-laced");
  const Proposal raised = proposalFor(p, fittingWith({note(FitWork::Raise, "", "waist", "waist", 12)}));
  const auto altered = alter(p, {&raised.alteration, 1});
  REQUIRE(altered.ok());
  const SeamSide& side = p.seam("back-line")->a;
  const auto between = [&](const Pattern& q, const char* upper, const char* lower) {
    return *placeOnLine(q, side, lower) - *placeOnLine(q, side, upper);
  };
  CHECK(between(altered->pattern, "underbust", "waist") - between(p, "underbust", "waist") == Approx(-12).margin(0.4));
  CHECK(between(altered->pattern, "waist", "high_hip") - between(p, "waist", "high_hip") == Approx(12).margin(0.4));
  CHECK(altered->pattern.sidePath(side).length() == Approx(p.sidePath(side).length()).margin(0.6));
}

TEST_CASE("what cannot be answered says why") {
  const Pattern p = shellFor("sweetheart-zip");
  const Proposal proposal = proposalFor(p, fittingWith({note(FitWork::TakeIn, "princess-9", "bust", "waist", 5),
                                                        note(FitWork::TakeIn, "side", "waist", "bust", 5),
                                                        note(FitWork::TakeIn, "side", "bust", "knee", 5)}));
  REQUIRE(proposal.outcomes.size() == 3);
  for (const NoteOutcome& o : proposal.outcomes) CHECK_FALSE(o.what.empty());
  CHECK(proposal.alteration.shifts.empty());
}

TEST_CASE("a correction comes back on another style in the terms of the body") {
  const Pattern laced = shellFor("sweetheart-laced"), cups = shellFor("cup-three-pieces");
  Proposal proposal = proposalFor(laced, fittingWith({note(FitWork::Deeper, "princess", "bust", "bust", 6),
                                                      note(FitWork::TakeIn, "side", "underbust", "high_hip", 8),
                                                      note(FitWork::Forward, "side", "waist", "hem", 4)}));
  const Alteration carried = carriedTo(proposal.alteration, laced, cups);
  const auto altered = alter(cups, {&carried, 1});
  REQUIRE(altered.ok());
  CHECK(altered->idle.empty());
  std::set<std::string> lines;
  for (const Shift& s : carried.shifts) lines.insert(s.line);
  CHECK(lines == std::set<std::string>{"princess-cup", "side"});
  CHECK(altered->pattern.level("waist")->finishedGirth == Approx(cups.level("waist")->finishedGirth - 16));
  // What has no place there is kept, and told.
  Alteration foreign{.id = "2", .name = "x"};
  foreign.shifts = {{"front-line-2", ShiftSides::Both, ShiftWay::Across, {{"waist", -3}}}};
  const Alteration kept = carriedTo(foreign, laced, cups);
  CHECK(kept.shifts == foreign.shifts);
  CHECK(alter(cups, {&kept, 1})->idle.size() == 1);
}

TEST_CASE("two versions are laid on each other at a level, and every edge that differs is told") {
  const Pattern p = shellFor("sweetheart-laced");
  CHECK(differences(p, p, {"waist"}).empty());
  const Alteration a{
      .id = "1",
      .name = "x",
      .shifts = {{"side", ShiftSides::Both, ShiftWay::Across, {{"underbust", 0}, {"waist", -4}, {"high_hip", 0}}}}};
  const Pattern altered = alter(p, {&a, 1})->pattern;
  const std::vector<EdgeDifference> found = differences(p, altered, {"bust"});
  REQUIRE(found.size() >= 2);
  for (size_t i = 0; i < 2; ++i) {
    CHECK(found[i].edge == "side");
    CHECK(found[i].largest == Approx(4).margin(0.4));
  }
  // Turned and moved, it is the same pattern.
  Pattern turned = p;
  const Motion m = Motion::rotationAbout({100, 50}, 0.4).then(Motion::translation({300, -20}));
  for (Piece& piece : turned.pieces) {
    for (Edge& e : piece.edges) e.path = e.path.transformed(m);
    piece.grainTop = m.apply(piece.grainTop);
    piece.grainBottom = m.apply(piece.grainBottom);
  }
  CHECK(differences(p, turned, {"waist"}).empty());
}

TEST_CASE("pieces without the level are laid middle on middle, grain on grain") {
  const Pattern p = shellFor("sweetheart-laced");
  const Piece& piece = p.pieces[0];
  Piece turned = piece;
  const Motion m = Motion::rotationAbout({20, 30}, -0.7).then(Motion::translation({-90, 400}));
  for (Edge& e : turned.edges) e.path = e.path.transformed(m);
  turned.grainTop = m.apply(piece.grainTop);
  turned.grainBottom = m.apply(piece.grainBottom);
  const Motion back = laidOn(p, piece, p, turned, {"knee"});
  for (const Edge& e : turned.edges) CHECK(distance(back.apply(e.path.start()), piece.edge(e.id).path.start()) < 0.05);
}

TEST_CASE("versions are laid on each other at an end of a seam, grain along grain") {
  const Pattern p = shellFor("sweetheart-laced");
  Alteration a{.id = "1", .name = "in"};
  a.shifts = {{"side", ShiftSides::Both, ShiftWay::Across, {{"underbust", 0}, {"waist", -4}, {"hem", -6}}}};
  const Pattern altered = alter(p, {&a, 1})->pattern;
  for (const bool upper : {true, false}) {
    const LaidAt at{"waist", "side", upper};
    for (const EdgeDifference& d : differences(p, altered, at, 0)) {
      const Piece &piece = p.pieces[d.piece], &other = altered.pieces[d.piece];
      const Motion laid = laidOn(p, piece, altered, other, at);
      for (const SeamSide* side : {&p.seam("side")->a, &p.seam("side")->b}) {
        if (side->piece != d.piece) continue;
        const Path was = p.sidePath(*side), is = altered.sidePath(*side);
        CHECK(distance(upper ? was.start() : was.end(), laid.apply(upper ? is.start() : is.end())) < 1e-9);
      }
      CHECK(std::abs(angleBetween(laid.apply(other.grainBottom) - laid.apply(other.grainTop),
                                  piece.grainBottom - piece.grainTop)) < 1e-9);
    }
  }
  // Laid at the lower end, the waist has come out by what the hem was taken in more.
  const auto atHem = differences(p, altered, {"waist", "side", false});
  CHECK(std::ranges::any_of(atHem, [](const EdgeDifference& d) { return d.largest > 1.5; }));
}

TEST_CASE("of two orders only what both have is compared") {
  const Pattern plain = shellFor("sweetheart-zip"), cups = shellFor("cup-two-pieces");
  for (const EdgeDifference& d : differences(plain, cups, {"waist"})) {
    const Piece& piece = plain.pieces[d.piece];
    INFO(piece.id << "." << d.edge);
    const auto other = std::ranges::find(cups.pieces, piece.id, &Piece::id);
    REQUIRE(other != cups.pieces.end());
    CHECK_NOTHROW(other->edge(d.edge));
    CHECK(d.largest == Approx(norm(d.by)).margin(1e-9));
  }
}

TEST_CASE("alterations that leave no sound piece are refused, and say what would help") {
  Order o = fittedIn("sweetheart-laced");
  Alteration a{.id = "1", .name = "far too much"};
  a.shifts = {{"princess", ShiftSides::Both, ShiftWay::Across, {{"top", -400}}},
              {"side", ShiftSides::Both, ShiftWay::Across, {{"top", -400}}}};
  o.alterations = {a};
  const Result<Design> design = recalc(o);
  if (design.ok()) {
    CHECK(design->sheet.failing() > 0);  // or the sheet says it
  } else {
    CHECK(design.problem().text().find("fault of the program") == std::string::npos);
  }
}

TEST_CASE("letting out beyond the allowance is told, side by side") {
  const Pattern p = shellFor("sweetheart-laced");
  const Seam& side = *p.seam("side");
  const double cloth = p.pieces[side.a.piece].edge(side.a.chain.front().edge).allowance;
  Alteration a{.id = "1", .name = "side"};
  const auto asked = [&](ShiftSides sides, double mm) {
    a.shifts = {{"side", sides, ShiftWay::Across, {{"underbust", 0}, {"waist", mm}}}};
    return beyondCloth(p, a);
  };
  CHECK(asked(ShiftSides::Both, cloth - kSeamKeeps - 0.1).empty());
  const auto both = asked(ShiftSides::Both, cloth - kSeamKeeps + 0.1);
  REQUIRE(both.size() == 2);
  CHECK(both[0].piece != both[1].piece);
  CHECK(both[0].place == "waist");
  CHECK(both[0].most == Approx(cloth - kSeamKeeps));
  CHECK_THAT(english(beyondWords(p, both[0])), Catch::Contains("at the Waist") || Catch::Contains("at the waist"));
  CHECK(asked(ShiftSides::Over, cloth + 5).size() == 1);  // what one edge gains the other loses
  CHECK(asked(ShiftSides::Over, -cloth - 5).size() == 1);
  CHECK(asked(ShiftSides::Both, -60).empty());
  a.shifts = {{"side", ShiftSides::Both, ShiftWay::Along, {{"waist", 60}}}};
  CHECK(beyondCloth(p, a).empty());
}
