// How a maker says a shift, on every line of every style: what is asked for at a level is what that level gets.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "alter/alter.h"
#include "alter/proposal.h"
#include "alter/wish.h"
#include "layers/layer.h"
#include "pattern/outline_parts.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

Pattern shellIn(std::string_view style, size_t body = 40, double cup = 90) {
  Order o = plainOrder();
  o.style = style;
  o.choices = choicesOfNewOrders();
  o.choices["balance.keep"] = "drafted";
  o.measures = allMeasuresOf(realBodies()[body], cup);
  return shellOf(designOf(o).pattern);
}

Alteration only(Shift shift) {
  Alteration a{.id = "1", .name = "one"};
  a.shifts.push_back(std::move(shift));
  return a;
}

// How often an edge of the seam counts on a level: the weights of the pieces on either side of it.
double weightOf(const Pattern& p, const Seam& s) {
  return p.pieces[s.a.piece].girthWeight() + p.pieces[s.b.piece].girthWeight();
}

size_t levelPlace(const Pattern& p, std::string_view id) {
  return static_cast<size_t>(std::ranges::find(p.levels, id, &PatternLevel::id) - p.levels.begin());
}

// Seams between panels: levels run through them from edge to edge.
std::vector<const Seam*> panelSeams(const Pattern& p) {
  std::vector<const Seam*> seams;
  for (const Seam& s : p.seams)
    if (s.kind == SeamKind::Plain && p.pieces[s.a.piece].part == Part::Panel && p.pieces[s.b.piece].part == Part::Panel)
      seams.push_back(&s);
  return seams;
}

}  // namespace

TEST_CASE("between which places a wish is full") {
  const std::vector<std::string> places{"top", "bust", "underbust", "waist", "hem"};
  const auto full = [&](size_t from, size_t to, bool above = true, bool below = true) {
    return fullPlaces(places, from, to, above, below);
  };
  using Ids = std::vector<std::string>;
  CHECK(full(1, 3) == Ids{"underbust"});
  CHECK(full(1, 2) == Ids{"bust~underbust"});
  CHECK(full(2, 2) == Ids{"underbust"});
  CHECK(full(0, 2) == Ids{"top", "bust"});
  CHECK(full(0, 2, false) == Ids{"bust"});
  CHECK(full(0, 1, false) == Ids{"top~bust"});
  CHECK(full(3, 4) == Ids{"hem"});
  CHECK(full(3, 4, true, false) == Ids{"waist~hem"});
  CHECK(full(0, 4) == Ids{"top", "bust", "underbust", "waist", "hem"});
}

TEST_CASE("the places of every line follow each other from the top down") {
  for (const Preset& style : styleTable()) {
    const Pattern p = shellIn(style.id);
    INFO(style.id);
    for (const std::string& line : shiftableLines(p)) {
      const std::vector<std::string> places = placesOn(p, line);
      INFO(line);
      REQUIRE(places.size() >= 2);
      CHECK(places.front() == kUpperEnd);
      CHECK(places.back() == kLowerEnd);
      CHECK_FALSE(english(lineName(p, line)).empty());
      const Seam* s = p.seam(line);
      if (!s || p.pieces[s->a.piece].part != Part::Panel || s->kind == SeamKind::Shoulder) continue;
      for (const SeamSide* side : {&s->a, &s->b}) {
        double last = -1e-6;
        for (const std::string& place : places) {
          const auto at = placeOnLine(p, *side, place);
          REQUIRE(at);
          CHECK(*at >= last - 1e-6);
          last = *at;
        }
        CHECK(last == Approx(p.sidePath(*side).length()));
      }
    }
  }
}

TEST_CASE("what is let out at a seam is what its levels get, on every style; the levels named get nothing") {
  for (const Preset& style : styleTable()) {
    const Pattern p = shellIn(style.id);
    for (const Seam* s : panelSeams(p)) {
      const std::vector<std::string> places = placesOn(p, s->id);
      for (size_t from = 0; from + 2 < places.size(); ++from) {
        if (places[from] == kUpperEnd) continue;
        const size_t to = from + 2;
        if (places[to] == kLowerEnd) continue;
        const Result<Shift> wish = shiftOf(p, {.line = s->id, .from = places[from], .to = places[to], .mm = 4});
        REQUIRE(wish.ok());
        const std::vector<double> by = letOut(p, std::vector{only(*wish)});
        INFO(style.id << " " << s->id << " " << places[from] << " to " << places[to]);
        CHECK(by[levelPlace(p, places[from + 1])] == Approx(4 * weightOf(p, *s) / 2).margin(1e-9));
        CHECK(by[levelPlace(p, places[from])] == Approx(0).margin(1e-9));
        CHECK(by[levelPlace(p, places[to])] == Approx(0).margin(1e-9));
      }
    }
  }
}

TEST_CASE("a line moved over, and one lengthened, let nothing out") {
  for (const char* style : {"sweetheart-laced", "cup-four-pieces", "covered-gored", "waist-pointed-laced"}) {
    const Pattern p = shellIn(style);
    for (const Seam* s : panelSeams(p)) {
      const std::vector<std::string> places = placesOn(p, s->id);
      if (places.size() < 3 || p.pieces[s->a.piece].girthWeight() != p.pieces[s->b.piece].girthWeight()) continue;
      for (const bool along : {false, true}) {
        const Result<Shift> wish = shiftOf(p, {.line = s->id,
                                               .sides = along ? ShiftSides::Both : ShiftSides::Over,
                                               .way = along ? ShiftWay::Along : ShiftWay::Across,
                                               .from = places[1],
                                               .to = std::string(kLowerEnd),
                                               .mm = 5});
        REQUIRE(wish.ok());
        INFO(style << " " << s->id);
        for (const double by : letOut(p, std::vector{only(*wish)})) CHECK(by == Approx(0).margin(1e-9));
      }
    }
  }
}

TEST_CASE("one side of a seam is shifted alone") {
  const Pattern p = shellIn("sweetheart-zip");
  const Seam& s = *p.seam("side");
  const Result<Shift> wish =
      shiftOf(p, {.line = "side", .sides = ShiftSides::A, .from = "underbust", .to = "high_hip", .mm = -6});
  REQUIRE(wish.ok());
  CHECK(wish->at[1].mm == -6);  // all of it on that edge
  const Pattern altered = alter(p, std::vector{only(*wish)})->pattern;
  const auto moved = [&](const SeamSide& side) {
    return distance(p.sidePath(side).pointAt(*placeOnLine(p, side, "waist")),
                    altered.sidePath(side).pointAt(*placeOnLine(altered, side, "waist")));
  };
  CHECK(moved(s.a) == Approx(6).margin(1e-6));
  CHECK(moved(s.b) == Approx(0).margin(1e-9));
}

TEST_CASE("where a line ends in a finished edge, and where at another piece") {
  const Pattern strapless = shellIn("sweetheart-zip"), covered = shellIn("covered-round"),
                dress = shellIn("seamed-sheath");
  CHECK(endsFree(strapless, strapless.seam("princess")->a, true));
  CHECK(endsFree(strapless, strapless.seam("princess")->a, false));
  CHECK_FALSE(endsFree(covered, covered.seam("princess")->a, true));  // at the shoulder
  CHECK(endsFree(covered, covered.seam("side")->a, true));            // in the armhole
  CHECK_FALSE(endsFree(dress, dress.seam("side")->a, false));         // at the waist seam
  CHECK(roleName(strapless.pieces[strapless.seam("side")->a.piece]
                     .lineAt(lineBeyond(strapless, strapless.seam("side")->a, false))
                     .role) == "hem");
}

TEST_CASE("which side of a seam lies forward") {
  const Pattern p = shellIn("reducing-four-lines");
  for (const Seam* s : panelSeams(p)) {
    const Piece &a = p.pieces[s->a.piece], &b = p.pieces[s->b.piece];
    const auto place = [](const Piece& piece) {
      return piece.half == Half::Front ? piece.ordinal : 100 - piece.ordinal;
    };
    INFO(s->id);
    CHECK(aIsForward(p, s->id) == (place(a) < place(b)));
  }
}

TEST_CASE("seams are found by what they join") {
  const Pattern p = shellIn("reducing-four-lines");
  for (const Half half : {Half::Front, Half::Back})
    for (int n = 1; n <= 4; ++n) {
      const Seam* s = seamOutwards(p, Part::Panel, half, n);
      REQUIRE(s);
      CHECK(std::min(p.pieces[s->a.piece].ordinal, p.pieces[s->b.piece].ordinal) == n);
      CHECK(p.pieces[s->a.piece].half == half);
    }
  CHECK_FALSE(seamOutwards(p, Part::Panel, Half::Front, 5));
  CHECK_FALSE(seamOutwards(p, Part::Skirt, Half::Front, 1));
  REQUIRE(bodiceSide(p));
  CHECK(bodiceSide(p)->id == "side");
  const Pattern dress = shellIn("dress-with-slit");
  REQUIRE(bodiceSide(dress));
  CHECK(dress.pieces[bodiceSide(dress)->a.piece].part == Part::Panel);
}

TEST_CASE("an alteration is told line by line, with every amount") {
  const Pattern p = shellIn("sweetheart-zip");
  Alteration a = only({"side", ShiftSides::Both, ShiftWay::Across, {{"bust", 0}, {"waist", -3.175}, {"hem", 6.35}}});
  a.shifts.push_back({"side", ShiftSides::Over, ShiftWay::Across, {{"waist", 5}, {"hem", -5}}});
  a.shifts.push_back({"every-line", ShiftSides::Both, ShiftWay::Along, {{"bust~underbust", 4}, {"waist", 0}}});
  a.shifts.push_back({"princess", ShiftSides::Both, ShiftWay::Across, {{"waist", 0}}});  // nothing: not told
  const std::vector<Message> told = shiftWords(p, a);
  REQUIRE(told.size() == 3);
  const LengthFormat inInches{Unit::Inch, 16};
  CHECK(say(told[0], inInches) ==
        "Side seam, each edge: take in 1/8 in at the waist and let out 1/4 in at the lower end");
  const std::string over = say(told[1], inInches);
  CHECK(over.find("side front at the") != std::string::npos);
  CHECK(over.find("side back at the") != std::string::npos);
  CHECK(say(told[2], inInches).find("down between bust and underbust") != std::string::npos);
}

TEST_CASE("notes of any kind, thrown together, leave every pattern sound, and each is told what it gets") {
  for (const char* style :
       {"sweetheart-laced", "cup-cross-seam", "covered-v", "seamed-sheath", "reducing-three-lines"}) {
    const Pattern p = shellIn(style);
    const std::vector<const Seam*> seams = panelSeams(p);
    Dice dice(23);
    for (int trial = 0; trial < 12; ++trial) {
      Fitting f{.id = "1", .date = "2026-10-02"};
      const int count = 1 + static_cast<int>(dice.between(0, 4.99));
      for (int n = 0; n < count; ++n) {
        FitNote note;
        note.work = *(kFitWorks.begin() + static_cast<int>(dice.between(0, 9.99)));
        const bool every = dice.between(0, 1) < 0.25 && note.work != FitWork::Forward && note.work != FitWork::Backward;
        note.line =
            every ? "" : seams[static_cast<size_t>(dice.between(0, static_cast<double>(seams.size()) - 0.01))]->id;
        const std::vector<std::string> places = placesOn(p, every ? std::string(kEveryLine) : note.line);
        const auto from = static_cast<size_t>(dice.between(0, static_cast<double>(places.size()) - 0.01));
        const auto to = from + static_cast<size_t>(dice.between(0, static_cast<double>(places.size() - from) - 0.01));
        note.from = places[from];
        note.to = places[to];
        note.mm = dice.between(1, 9);
        f.notes.push_back(note);
      }
      const Proposal proposal = proposalFor(p, f);
      INFO(style << " " << trial);
      std::set<size_t> told;
      for (const NoteOutcome& o : proposal.outcomes) {
        told.insert(o.note);
        CHECK(std::isfinite(o.got));
        CHECK(std::abs(o.got) <= 10 * 9);
      }
      CHECK(told.size() == f.notes.size());
      const auto altered = alter(p, {&proposal.alteration, 1});
      REQUIRE(altered.ok());
      CHECK(altered->idle.empty());
      const auto fault = patternProblem(altered->pattern);
      INFO((fault ? fault->text() : ""));
      CHECK_FALSE(fault.has_value());
    }
  }
}
