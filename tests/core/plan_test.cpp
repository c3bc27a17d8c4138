// The panel plan: the sections of a garment and what becomes of every line in them; and the pieces that follow from it.
#include <algorithm>
#include <catch2/catch.hpp>

#include "draft/plan.h"
#include "garment/worn.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

PanelPlan planned(const Choices& choices, std::string_view style = "straight-zip") {
  return panelPlan(Rules(choices, style, "quarter-grid", Figure::Medium));
}

}  // namespace

TEST_CASE("every kind of cup plans the princess line in it") {
  // Common practice, no source: what each cup is called says which seams it has.
  struct Row {
    const char* kind;
    LineKind line;
    bool band;
  };
  for (const Row& r : {Row{"two", LineKind::Seam, false},
                       {"three", LineKind::Seam, true},
                       {"cross", LineKind::None, false},
                       {"four", LineKind::Seam, false},
                       {"gathered", LineKind::None, true},
                       {"moulded", LineKind::Dart, false}}) {
    INFO(r.kind);
    const PanelPlan plan = planned({{"cup.kind", r.kind}});
    CHECK(plan.line(SectionKind::Cups, true, 0) == r.line);
    CHECK((plan.find(SectionKind::Band, true) != nullptr) == r.band);
    CHECK(plan.line(SectionKind::Frame, true, 0) == LineKind::Seam);
    CHECK(planned({{"cup.kind", r.kind}, {"cup.frame", "one-piece"}}).line(SectionKind::Frame, true, 0) ==
          LineKind::None);
  }
  CHECK(planned({}).find(SectionKind::Cups, true) == nullptr);
  CHECK(planned({}).line(SectionKind::Cups, true, 0) == LineKind::Seam);  // as in the bodice
}

TEST_CASE("sections of a half have the bodice's lines, in order") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    const PanelPlan plan = planned({}, style.id);
    for (const Section& s : plan.sections) {
      const std::vector<PlannedLine>& all = plan.bodice(s.front).lines;
      REQUIRE(s.lines.size() <= all.size());
      for (size_t i = 0; i < s.lines.size(); ++i) CHECK(s.lines[i].id == all[i].id);
    }
  }
}

TEST_CASE("the pieces are those of the plan") {
  for (const Preset& style : styleTable()) {
    Order o = plainOrder();
    o.style = style.id;
    const Design d = designOf(o);
    INFO(style.id);
    const PanelPlan& plan = d.block.plan;
    for (const bool front : {true, false}) {
      const Half half = front ? Half::Front : Half::Back;
      // One panel more than lines; one less where the frame under a cup is in one piece.
      size_t panels = plan.bodice(front).lines.size() + 1;
      if (plan.line(SectionKind::Frame, front, 0) == LineKind::None && front) --panels;
      if (plan.line(SectionKind::Bodice, front, 0) != LineKind::Seam) panels = 1;  // its lines are darts, or not there
      size_t found = 0, yokes = 0;
      for (const Piece& p : d.pattern.pieces) {
        found += p.part == Part::Panel && p.half == half;
        yokes += p.part == Part::Yoke && p.half == half;
      }
      CHECK(found == panels);
      CHECK(yokes == (plan.find(SectionKind::Yoke, front) ? 1 : 0));  // all its lines are closed for good
      const auto first = d.pattern.panel(half, 1);
      REQUIRE(first);
      CHECK(std::any_of(d.pattern.pieces[*first].edges.begin(), d.pattern.pieces[*first].edges.end(),
                        [](const Edge& e) { return isCentre(e.role) || e.role == EdgeRole::Seam; }));
      CHECK_FALSE(d.pattern.panel(half, 9));
    }
  }
}

TEST_CASE("pieces hung up keep their measured widths, and both sides of a seam are one line") {
  for (const char* style : {"straight-zip", "reducing-four-lines", "cup-cross-seam"}) {
    Order o = plainOrder();
    o.style = style;
    o.choices["balance.keep"] = "balanced";
    const Design d = designOf(o);
    INFO(style);
    for (const bool front : {true, false}) {
      const WornHalf worn(d.pattern, d.block, front);
      for (const Seam& s : d.pattern.seams) {
        if (!worn.shows(s.a.piece) || !worn.shows(s.b.piece)) continue;
        INFO(s.id);
        const auto end = [&](const SeamSide& side) {
          const EdgeUse& last = side.chain.back();
          const Piece& p = d.pattern.pieces[side.piece];
          size_t l = 0;
          while (p.lineAt(l).id != last.edge) ++l;
          const Polyline line = worn.line(side.piece, l);
          return last.reversed ? line.front() : line.back();
        };
        CHECK(distance(end(s.a), end(s.b)) < 1e-6);
      }
      // From the centre to the side at the waist: the sum of the widths.
      double sum = 0;
      for (const size_t i : worn.pieces()) {
        const auto waist = d.pattern.pieces[i].level(level::kWaist);
        if (!waist) continue;
        sum += waist->width();
      }
      double least = HUGE_VAL;
      for (const Seam& s : d.pattern.seams)
        if (s.id == "side")
          for (const SeamSide* side : {&s.a, &s.b})
            if (worn.shows(side->piece))
              for (size_t l = 0; l < d.pattern.pieces[side->piece].lines(); ++l)
                if (side->uses(d.pattern.pieces[side->piece].lineAt(l).id))
                  for (const Vec2 p : worn.line(side->piece, l)) least = std::min(least, p.x);
      if (!d.block.back.opening.isLaced()) CHECK(least == Approx(sum).epsilon(0.03));
    }
  }
}
