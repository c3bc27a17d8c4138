// Paper, tiles, labels, cautions, undo.
#include <catch2/catch.hpp>
#include <cmath>

#include "order/history.h"
#include "prepare/arrange.h"
#include "prepare/cautions.h"
#include "prepare/marks.h"
#include "prepare/paper.h"
#include "tests/support/bodies.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("paper sizes are those of the standards") {
  // ISO 216:2007, trimmed sizes: A0 841 x 1189, A3 297 x 420, A4 210 x 297 mm. Letter 8 1/2 x 11 in (ANSI/ASME Y14.1).
  CHECK((findPaper("a4")->width == 210 && findPaper("a4")->height == 297));
  CHECK((findPaper("a3")->width == 297 && findPaper("a3")->height == 420));
  CHECK((findPaper("a0")->width == 841 && findPaper("a0")->height == 1189));
  CHECK(findPaper("letter")->width == Approx(215.9));
  CHECK(findPaper("letter")->height == Approx(279.4));
  CHECK(findPaper("foolscap") == nullptr);
  CHECK(findPaper("full") == nullptr);  // no sheet: as large as the pattern
  // What can be chosen is what can be printed on.
  const auto options = findRule("paper.size")->options;
  REQUIRE(options.size() == kPaperTable.size());
  for (size_t i = 0; i < options.size(); ++i) {
    CHECK(options[i].id == kPaperTable[i].id);
    CHECK((options[i].id == "full" || options[i].id == "roll") == (findPaper(options[i].id) == nullptr));
  }
  CHECK(kTestSquareInchMm == Approx(101.6));
}

TEST_CASE("the tiles cover every piece, neighbours overlap, no tile is empty") {
  for (const Order& o : randomOrders(12, 41)) {
    const auto d = recalc(o);
    if (!d.ok()) continue;
    const PaperLayout layout = layOutOnPaper(d->pattern, d->cutOutlines, 880);
    for (const PaperSize& paper : paperTable()) {
      const Tiling t = tile(layout, paper);
      for (size_t i = 0; i < d->cutOutlines.size(); ++i)
        for (Vec2 p : d->cutOutlines[i]) {
          const Vec2 q = layout.motions[i].apply(p);
          const bool covered = std::any_of(t.tiles.begin(), t.tiles.end(), [&](const Tile& x) {
            return x.area.meets({q, q});
          });
          REQUIRE(covered);
        }
      for (const Tile& x : t.tiles) {
        CHECK(x.area.width() == Approx(paper.width - 2 * kTileMargin));
        if (x.column > 0) CHECK(x.area.low.x == Approx(x.column * (paper.width - 2 * kTileMargin - kTileOverlap)));
      }
    }
  }
}

TEST_CASE("pieces on paper do not touch and stand upright") {
  const Design d = *recalc(plainOrder());
  const PaperLayout layout = layOutOnPaper(d.pattern, d.cutOutlines, 500);
  for (size_t i = 0; i < layout.boxes.size(); ++i) {
    CHECK(layout.boxes[i].low.x >= -1e-9);
    CHECK(layout.boxes[i].high.x <= 500);
    for (size_t k = 0; k < i; ++k) CHECK_FALSE(layout.boxes[i].meets(layout.boxes[k]));
    const Piece& p = d.pattern.pieces[i];
    const Vec2 grain = layout.motions[i].applyToDirection(p.grainBottom - p.grainTop);
    CHECK(grain.x == Approx(0).margin(1e-9));
    CHECK(grain.y > 0);
  }
}

TEST_CASE("taped pieces touch along their seams and do not lie over each other") {
  const Design d = *recalc(plainOrder());
  const Arrangement at = tape(d.pattern).motions;
  for (const Seam& s : d.pattern.seams) {
    const Path a = d.pattern.sidePath(s.a).transformed(at[s.a.piece]),
               b = d.pattern.sidePath(s.b).transformed(at[s.b.piece]);
    const Vec2 down = unit(a.end() - a.start()), right{down.y, -down.x};
    double nearest = 1e9;
    for (int i = 0; i <= 40; ++i)
      nearest = std::min(nearest, dot(b.pointAt(b.length() * i / 40) - a.pointAt(a.length() * i / 40), right));
    CHECK(nearest > -0.2);
    CHECK(nearest < 3);
  }
}

TEST_CASE("labels say what to cut, and edges what joins them") {
  const Design d = *recalc(plainOrder());
  CHECK(english(labelLines(d.pattern.pieces[0], d.rules)[2]) == "cut 1 on the fold: shell, duchesse satin");
  CHECK(english(labelLines(d.pattern.pieces[1], d.rules)[1]) == "2 of 4");
  const LengthFormat inch{Unit::Inch, 8}, cm{Unit::Centimetre, 8};
  CHECK(say(edgeNote(d.pattern, 0, d.pattern.pieces[0].edge("princess")), inch) == "1/2 in, joins 2");
  CHECK(say(edgeNote(d.pattern, 2, d.pattern.pieces[2].edge("side")), cm) == "2.5 cm, joins 2");
  CHECK(edgeNote(d.pattern, 0, d.pattern.pieces[0].edge("fold")) == "fold");
}

TEST_CASE("notch strokes lie in the allowance; the back has double notches") {
  const Design d = *recalc(plainOrder());
  const auto front = notchStrokes(d.pattern.pieces[0]), back = notchStrokes(d.pattern.pieces[3]);
  CHECK(front.size() == static_cast<size_t>(std::ranges::distance(d.pattern.pieces[0].notches())));
  CHECK(back.size() == 2 * static_cast<size_t>(std::ranges::distance(d.pattern.pieces[3].notches())));
  const Polyline outline = d.pattern.pieces[0].outline(0.01);
  for (const Stroke& s : front) {
    Polyline ring = outline;
    ring.push_back(ring.front());
    CHECK(distanceToPolyline(s.from, ring) < 0.02);
    CHECK(distanceToPolyline(s.to, ring) == Approx(6).margin(0.1));
  }
}

TEST_CASE("the classes of reduction and the cautions") {
  // Common practice, no source: to 5 % light, to 10 firm, to 15 strong.
  CHECK(classifyReduction(700, 700).name == "none");
  CHECK(classifyReduction(700, 672).name == "light");
  CHECK(classifyReduction(700, 640).name == "firm");
  CHECK(classifyReduction(700, 600).name == "strong");
  CHECK(classifyReduction(700, 560).name == "only for the experienced");
  std::string all;
  for (std::string_view c : reductionCautions()) all += c;
  for (const char* word :
       {"breathing", "circulation", "reflux", "thighs", "ribs", "pregnancy", "surgery", "heart", "lung", "hernia",
        "child", "Season", "Loosen", "open it fast", "no medical advice", "doctor"})
    CHECK(all.find(word) != std::string::npos);
}

TEST_CASE("undo goes back to the start and forward again; typing in one field is one step") {
  History<int> h(0);
  CHECK_FALSE(h.undo());
  h.record(1, "one", "field");
  h.record(12, "one", "field");
  h.record(120, "one", "field");
  h.settle();
  h.record(121, "one", "field");
  h.record(121, "nothing changed");
  h.record(5, "five");
  CHECK(h.undoName() == "five");
  CHECK(h.undo());
  CHECK(h.now() == 121);
  CHECK(h.undo());
  CHECK(h.now() == 120);
  CHECK(h.undo());
  CHECK(h.now() == 0);
  CHECK_FALSE(h.canUndo());
  while (h.redo()) {
  }
  CHECK(h.now() == 5);
  h.undo();
  h.record(9, "nine");
  CHECK_FALSE(h.canRedo());
}

TEST_CASE("choices are checked against the rule table") {
  CHECK(*checkChoice("hem.length", "5", Unit::Inch) == "5 in");
  CHECK(*checkChoice("hem.length", "12 cm", Unit::Inch) == "12 cm");
  CHECK(*checkChoice("hem.length", "4½", Unit::Inch) == "4 1/2 in");
  CHECK(*checkChoice("intake.centre_share", "3/8", Unit::Inch) == "0.375");
  CHECK_FALSE(checkChoice("hem.length", "50", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("hem.shape", "wavy", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("no.such", "1", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("intake.centre_share", "1.5", Unit::Inch).ok());
  for (const RuleInfo& r : ruleTable()) {
    INFO(r.key);
    CHECK(findRule(r.key) == &r);
    CHECK((r.small >= r.lowest && r.full <= r.highest));
    for (const Condition& c : r.conditions()) {
      CHECK_FALSE(optionsOf(c).empty());
      for (std::string_view option : optionsOf(c)) CHECK(checkChoice(c.key, option, Unit::Inch).ok());
    }
  }
  for (const Preset& p : styleTable())
    for (const PresetChoice& c : p.choices) CHECK(checkChoice(c.key, c.value, Unit::Inch).ok());
  for (const Preset& p : kindTable())
    for (const PresetChoice& c : p.choices) CHECK(checkChoice(c.key, c.value, Unit::Inch).ok());
  for (const Preset& p : schoolTable())
    for (const PresetChoice& c : p.choices) CHECK(checkChoice(c.key, c.value, Unit::Inch).ok());
}
