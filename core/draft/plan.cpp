#include "draft/plan.h"

#include "draft/levels.h"

#include <algorithm>

#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/skirt/rules.h"
#include "parts/yoke/rules.h"
#include "rules/draft_rules.h"
#include "rules/shaping_keys.h"

namespace armure {
namespace {

Section section(SectionKind kind, bool front, size_t lines, LineKind becomes) {
  Section s{kind, front, {}};
  for (size_t i = 0; i < lines; ++i) s.lines.push_back({lineId(front, i), lineName(front, i), becomes});
  return s;
}

size_t linesOf(const Rules& rules, bool front) {
  return static_cast<size_t>(rules.option(front ? key::kLinesFront : key::kLinesBack)) + 1;
}

LineKind becoming(LinesAre lines) {
  switch (lines) {
    case LinesAre::Seams:
      return LineKind::Seam;
    case LinesAre::Darts:
      return LineKind::Dart;
    case LinesAre::None:
      break;
  }
  return LineKind::None;
}

// The princess line inside the cup, below its band and cross seam.
LineKind inCup(CupKind kind) {
  switch (kind) {
    case CupKind::Princess:
    case CupKind::Two:
    case CupKind::Three:
    case CupKind::Four:
    case CupKind::Upper:
      return LineKind::Seam;
    case CupKind::Moulded:
      return LineKind::Dart;
    case CupKind::Cross:
    case CupKind::Gathered:
    case CupKind::Whole:
      break;
  }
  return LineKind::None;
}

// The princess line below a cut cup.
LineKind inFrame(CupFrame frame) {
  switch (frame) {
    case CupFrame::Seams:
      return LineKind::Seam;
    case CupFrame::Dart:
      return LineKind::Dart;
    case CupFrame::OnePiece:
      break;
  }
  return LineKind::None;
}

void planCups(PanelPlan& plan, const Rules& rules) {
  const CupKind kind = rules.option(key::kCupKind);
  if (kind == CupKind::Princess) return;
  plan.sections.push_back(section(SectionKind::Cups, true, 1, inCup(kind)));
  if (kind == CupKind::Three || kind == CupKind::Gathered)
    plan.sections.push_back(section(SectionKind::Band, true, 1, LineKind::None));
  plan.sections.push_back(section(SectionKind::Frame, true, 1, inFrame(rules.option(key::kCupFrame))));
}

}  // namespace

const Section* PanelPlan::find(SectionKind kind, bool front) const {
  const auto s = std::find_if(sections.begin(), sections.end(),
                              [&](const Section& x) { return x.kind == kind && x.front == front; });
  return s == sections.end() ? nullptr : &*s;
}

const Section& PanelPlan::bodice(bool front) const { return *find(SectionKind::Bodice, front); }

LineKind PanelPlan::line(SectionKind kind, bool front, size_t place) const {
  const Section* s = find(kind, front);
  if (!s || place >= s->lines.size()) s = &bodice(front);
  return s->lines.at(place).kind;
}

bool PanelPlan::runsOutBelow(bool front) const {
  const Section* skirt = find(SectionKind::Skirt, front);
  const Section* frame = find(SectionKind::Frame, front);
  return (skirt && skirt->lines.front().kind != LineKind::Seam) ||
         (frame && frame->lines.front().kind == LineKind::Dart);
}

bool frontIsInOne(const Rules& rules) { return rules.option(key::kFrontLinesAre) != LinesAre::Seams; }

PanelPlan panelPlan(const Rules& rules) {
  PanelPlan plan;
  for (const bool front : {true, false}) {
    const size_t lines = linesOf(rules, front);
    const LineKind kind = becoming(rules.option(front ? key::kFrontLinesAre : key::kBackLinesAre));
    plan.sections.push_back(section(SectionKind::Bodice, front, lines, kind));
    const bool yoke = rules.option(key::kCoverKind) == CoverKind::Covered &&
                      rules.option(front ? key::kYokeFront : key::kYokeBack) != YokeKind::None;
    if (yoke) plan.sections.push_back(section(SectionKind::Yoke, front, lines, LineKind::None));
    const bool seamed = rules.option(key::kWaistSeam) != WaistSeam::None;
    if ((seamed || rules.option(key::kSkirtKind) != SkirtKind::None) && goesBelowWaist(rules))
      plan.sections.push_back(
          section(SectionKind::Skirt, front, lines, seamed ? becoming(rules.option(key::kSkirtLinesAre)) : kind));
  }
  planCups(plan, rules);
  return plan;
}

}  // namespace armure
