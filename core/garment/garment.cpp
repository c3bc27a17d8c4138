#include "garment/garment.h"

#include <fmt/format.h>

#include <optional>
#include <stdexcept>

#include "cups/cut_cup.h"
#include "cups/inside.h"
#include "cups/moulded.h"
#include "draft/upper_block.h"
#include "garment/dart_dial.h"
#include "garment/inserts.h"
#include "garment/off_shoulder.h"
#include "garment/opening_end.h"
#include "garment/skirt.h"
#include "garment/straps.h"
#include "garment/yoke.h"
#include "geometry/tolerances.h"
#include "lowered.h"
#include "pieces/cutting.h"
#include "pieces/modesty.h"

namespace armure {
namespace {

void number(Pattern& pattern) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    pattern.pieces[i].number = static_cast<int>(i) + 1;
    pattern.pieces[i].of = static_cast<int>(pattern.pieces.size());
  }
}

// A level that only touches a corner is not a level across.
void dropEmptyMarks(Pattern& pattern) {
  for (Piece& p : pattern.pieces)
    std::erase_if(p.marks, [&](const Mark& m) { return m.isLevel() && p.line(m).width() < tolerance::kLeastLevel; });
}

// A line that leaves a piece, or runs over itself, leaves no cloth on one side.
std::optional<Problem> nothingLeft(const Pattern& pattern) {
  constexpr double kLeast = 150;  // mm^2: a postage stamp's quarter
  for (const Piece& p : pattern.pieces)
    if (signedArea(p.outline(0.5)) < kLeast)
      return Problem{p.name, "nothing is left of this piece",
                     "move the line that cuts it (the cup line, the band, the cross seam), or use fewer lines"};
  return std::nullopt;
}

// Every length of the cups and lines that counts, as a working of its own: what it is, where from, when to use which.
void addWorkings(Pattern& pattern, const Rules& rules) {
  for (const RuleInfo& rule : ruleTable()) {
    if (rule.kind != RuleKind::Length || (rule.stage != "Cups" && rule.stage != "Lines")) continue;
    if (!ruleCounts(rule, [&](std::string_view key) { return rules.option(key); })) continue;
    const std::string key(rule.key);
    pattern.workings.push_back({"rule." + key,
                                fmt::format("{}: {}", rule.group, lowered(std::string(rule.label))),
                                {rules.term(rule.key)},
                                rules.length(rule.key),
                                fmt::format("{}; common practice", rule.reason)});
  }
}

// What was bought, and what the dart pinched in it made of it. The client herself was measured again over it before the
// block was drawn.
void tellMould(Pattern& pattern, const Body& body, const Rules& rules) {
  if (!isMoulded(rules)) return;
  const MouldedCup cup = mouldedCup(body, rules);
  pattern.workings.push_back(
      {"mould.size",
       fmt::format("Moulded cup, size {} (cm bust): deep", cup.size.bustGirthCm),
       {{'+', "as bought", cup.asBought.depth, Source::Computed},
        {'+', "the dart pinched in it deepens it by", cup.pinched.depth - cup.asBought.depth, Source::Computed}},
       cup.pinched.depth,
       fmt::format("base {:.0f} mm wide, wire {:.0f} mm, volume {:.0f} ml, with the dart {:.0f} ml; a spherical cap, a "
                   "model of our own",
                   cup.size.baseWidth, cup.size.wireLength, cup.size.volume, cup.pinched.volume() / 1000)});
}

// What the lines take in on their way up over the shoulder, at the heights a maker would measure it again.
void tellGivenBack(Pattern& pattern, const Block& block, const Rules& rules) {
  if (!goesUp(rules, true)) return;
  const double shoulder = block.front.shoulder.end().y, chest = block.levels.at(level::kChest).front;
  Working w{"cover.given", "Given back at shoulder and armhole: at the shoulder point", {}, 0, ""};
  for (const auto& [where, y] : {std::pair{"at the shoulder point", shoulder},
                                 {"at the middle of the armhole", (shoulder + chest) / 2},
                                 {"at the chest line", chest}}) {
    double taken = 0;
    for (const PanelLine& line : block.front.lines) taken += line.intakeAtDepth(y);
    w.terms.push_back({'+', where, taken, Source::Computed});
  }
  w.result = w.terms.front().mm;
  w.note =
      "the panels beyond the line lie further out by what it takes in at each height, so that shoulder and armhole "
      "stay "
      "as long as on the body; the result is what the shoulder got; common practice";
  pattern.workings.push_back(std::move(w));
}

// A garment while it is made.
struct Making {
  Pattern pattern;
  Pattern panels;  // as they were before the cups were cut: what is inside them is traced from these
  const Block& block;
  const Body& body;
  const Rules& rules;
};

// One part of the garment, made on what the parts before it left. The pattern is sound before and after it.
struct Step {
  const char* name;
  std::optional<Problem> (*run)(Making&);
};

// A step that cannot fail.
template <auto part>
std::optional<Problem> always(Making& m) {
  part(m);
  return std::nullopt;
}

constexpr Step kSteps[] = {
    {"skirt", [](Making& m) { return addSkirt(m.pattern, m.body, m.rules); }},
    {"yokes", [](Making& m) { return setYokes(m.pattern, m.block, m.rules); }},
    {"keyhole", [](Making& m) { return cutKeyhole(m.pattern, m.block, m.rules); }},
    {"panels kept", always<[](Making& m) { m.panels = m.pattern; }>},
    {"dart dial", [](Making& m) { return setDial(m.pattern, m.block, m.rules); }},
    {"cups", [](Making& m) { return setCutCup(m.pattern, m.block, m.rules); }},
    {"inserts", [](Making& m) { return setInserts(m.pattern, m.rules); }},
    {"shoulder band", [](Making& m) { return addShoulderBand(m.pattern, m.body, m.rules); }},
    {"waist seam", [](Making& m) { return cutWaist(m.pattern, m.block, m.rules); }},
    {"marks", always<[](Making& m) { dropEmptyMarks(m.pattern); }>},
    {"cloth left", [](Making& m) { return nothingLeft(m.pattern); }},
    {"ends of openings", always<[](Making& m) { endOpenings(m.pattern, m.block, m.rules); }>},
    {"landings", always<[](Making& m) { markLandings(m.pattern); }>},
    {"inside the cups", [](Making& m) { return addInside(m.pattern, m.panels, m.block, m.rules); }},
    {"modesty panels", always<[](Making& m) { addModestyPanels(m.pattern, m.block, m.rules); }>},
    {"straps", always<[](Making& m) { addStraps(m.pattern, m.block, m.body, m.rules); }>},
    {"moulded cup", always<[](Making& m) { tellMould(m.pattern, m.body, m.rules); }>},
    {"given back", always<[](Making& m) { tellGivenBack(m.pattern, m.block, m.rules); }>},
    {"numbers", always<[](Making& m) { number(m.pattern); }>},
    {"workings", always<[](Making& m) { addWorkings(m.pattern, m.rules); }>},
};

// In builds for tests every step's pattern is checked: a fault is found where it is made. Where no cloth is left that
// is what is wrong.
std::optional<Problem> checked([[maybe_unused]] const Pattern& pattern, [[maybe_unused]] const Step& step) {
#ifndef NDEBUG
  if (auto problem = nothingLeft(pattern)) return problem;
  if (const auto fault = patternProblem(pattern))
    throw std::logic_error(fmt::format("{} after the step {}", fault->text(), step.name));
#endif
  return std::nullopt;
}

}  // namespace

std::vector<std::string_view> furtherMeasures(const Rules& rules) {
  std::vector<std::string_view> all;
  if (hasSkirt(rules)) all = {"waist_to_knee", "waist_to_floor"};
  if (rules.option("cover.kind") == "off-shoulder") all.insert(all.end(), {"round_shoulder", "bicep"});
  if (rules.option("cover.kind") == "halter") all.emplace_back("neck");
  return all;
}

Result<Pattern> makeGarment(const Block& block, const Body& body, const Rules& rules) {
  Result<Pattern> cut = cutPieces(block, rules);
  if (!cut.ok()) return cut;
  Making making{std::move(cut).value(), {}, block, body, rules};
  for (const Step& step : kSteps) {
    if (auto problem = step.run(making)) return *problem;
    if (auto problem = checked(making.pattern, step)) return *problem;
  }
  return std::move(making.pattern);
}

}  // namespace armure
