#include "garment/garment.h"

#include <fmt/format.h>

#include <optional>
#include <span>
#include <stdexcept>

#include "cutting/cutting.h"
#include "cutting/uncut_lines.h"
#include "draft/upper_block.h"
#include "garment/trim_makers.h"
#include "geometry/tolerances.h"
#include "layers/allowances.h"
#include "measure/measure_table.h"
#include "parts/band/off_shoulder.h"
#include "parts/cups/cup_line.h"
#include "parts/cups/cut_cup.h"
#include "parts/cups/dart_dial.h"
#include "parts/cups/moulded.h"
#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/inserts/inserts.h"
#include "parts/opening/modesty.h"
#include "parts/opening/opening_end.h"
#include "parts/skirt/rules.h"
#include "parts/skirt/skirt.h"
#include "parts/skirt/waist_seam.h"
#include "parts/straps/straps.h"
#include "parts/yoke/keyhole.h"
#include "parts/yoke/yoke.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

void number(Pattern& pattern) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    pattern.pieces[i].number = static_cast<int>(i) + 1;
    pattern.pieces[i].of = static_cast<int>(pattern.pieces.size());
  }
}

// A level that only touches a corner is not a level across; nor is one that ran along an upper edge a cup was cut out
// of, and has lost an end with it.
void dropEmptyMarks(Pattern& pattern) {
  for (Piece& p : pattern.pieces)
    std::erase_if(p.marks, [&](const Mark& m) {
      return m.isLevel() && (p.line(m).width() < tolerance::kLeastLevel || !m.a.onOutline() || !m.b.onOutline());
    });
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
    if (!rules.counts(rule)) continue;
    const std::string key(rule.key);
    pattern.workings.push_back({"rule." + key,
                                msg("{}: {}", known(rule.group), known(rule.label)),
                                {rules.term(rule.key)},
                                rules.value(rule.key).number,
                                msg("{}; common practice", known(rule.reason))});
  }
}

// What was bought, and what the dart pinched in it made of it. The client herself was measured again over it before the
// block was drawn.
void tellMould(Pattern& pattern, const Body& body, const Rules& rules) {
  if (!isMoulded(rules)) return;
  const MouldedCup cup = mouldedCup(body, rules);
  pattern.workings.push_back(
      {"mould.size",
       cup.size.bustGirthCm > 0 ? msg("Moulded cup, size {} (cm bust): deep", cup.size.bustGirthCm)
                                : Message("Moulded cup, as measured on it: deep"),
       {{'+', "as bought", cup.asBought.depth, Source::Computed},
        {'+', "the dart pinched in it deepens it by", cup.pinched.depth - cup.asBought.depth, Source::Computed}},
       cup.pinched.depth,
       msg("base {:.0f} mm wide, wire {:.0f} mm, volume {:.0f} ml, with the dart {:.0f} ml; a spherical cap, a "
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
  LayerSources sources;  // while the shell is made, they are kept here
  const Block& block;
  const Body& body;
  const Rules& rules;
  BodySide side = BodySide::Both;
};

// The panels as they are before the cups are cut, and where they are to be.
void keepPanels(Making& m) {
  if (!needsPanels(m.rules)) return;
  m.sources.panels = m.pattern;
  m.sources.cupLine = cupLine(m.pattern, m.block, m.body, m.rules);
}

bool isToile(const Rules& rules) { return rules.option(key::kCutFor) == CutFor::Toile; }

// A toile is of one cloth.
std::optional<Problem> layOn(Making& m) {
  if (isToile(m.rules)) return std::nullopt;
  for (const LayerRecipe* recipe : layersOf(m.rules)) {
    if (!recipe) continue;
    if (isAsShell(*recipe, m.rules)) {
      alsoCut(m.pattern, *recipe, m.rules);
      continue;
    }
    Result<Layer> layer = deriveLayer(m.pattern, *recipe, m.sources, m.block, m.rules);
    if (!layer.ok()) return layer.problem();
    if (!layer->pattern.pieces.empty()) addLayer(m.pattern, std::move(layer).value());
  }
  return std::nullopt;
}

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

// The shell: all that carries a girth, and is balanced.
constexpr Step kShell[] = {
    {"skirt", [](Making& m) { return addSkirt(m.pattern, m.block, m.body, m.rules); }},
    {"yokes", [](Making& m) { return setYokes(m.pattern, m.block, m.rules); }},
    {"keyhole", [](Making& m) { return cutKeyhole(m.pattern, m.block, m.rules); }},
    {"panels kept", always<keepPanels>},
    {"dart dial", [](Making& m) { return setDial(m.pattern, m.block, m.rules); }},
    {"cups", [](Making& m) { return setCutCup(m.pattern, m.block, m.body, m.rules); }},
    {"inserts", [](Making& m) { return setInserts(m.pattern, m.block, m.rules); }},
    {"shoulder band", [](Making& m) { return addShoulderBand(m.pattern, m.body, m.rules); }},
    {"waist seam", [](Making& m) { return cutWaist(m.pattern, m.block, m.rules); }},
    {"lines sewn", [](Making& m) { return sewUncutLines(m.pattern, m.block.plan, m.rules); }},
    {"marks", always<[](Making& m) { dropEmptyMarks(m.pattern); }>},
    {"cloth left", [](Making& m) { return nothingLeft(m.pattern); }},
    {"ends of openings", always<[](Making& m) { endOpenings(m.pattern, m.block, m.rules); }>},
    {"slit", [](Making& m) { return markSlit(m.pattern, m.rules); }},
    {"landings", always<[](Making& m) { markLandings(m.pattern); }>},
};

// What lies on the shell or is sewn to it, made from the shell as it is, balanced or not.
constexpr Step kOnShell[] = {
    {"layers", layOn},
    {"modesty panels", always<[](Making& m) { addModestyPanels(m.pattern, m.block, m.rules); }>},
    {"straps", always<[](Making& m) { addStraps(m.pattern, m.block, m.body, m.rules); }>},
    {"trims", always<[](Making& m) { addTrims(m.pattern, m.body, m.rules, m.side); }>},
    {"allowances", always<[](Making& m) {
       if (isToile(m.rules)) widenForToile(m.pattern, m.rules);
       keepCustom(m.pattern, m.rules);
     }>},
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

std::optional<Problem> take(std::span<const Step> steps, Making& making) {
  for (const Step& step : steps) {
    if (auto problem = step.run(making)) return problem;
    if (auto problem = checked(making.pattern, step)) return problem;
  }
  return std::nullopt;
}

}  // namespace

std::vector<std::string_view> furtherMeasures(const Rules& rules) {
  std::vector<std::string_view> all;
  const bool byLength = rules.option(key::kSkirtTo) == SkirtEnd::Length;
  const auto skirt = rules.option(key::kSkirtKind);
  if (hasSkirt(rules) && (!byLength || skirt == SkirtKind::Peg)) all.emplace_back("waist_to_knee");
  if (hasSkirt(rules) && (!byLength || skirt == SkirtKind::Gored)) all.emplace_back("waist_to_floor");
  if (rules.option(key::kCoverKind) == CoverKind::OffShoulder) all.insert(all.end(), {"round_shoulder", "bicep"});
  if (rules.option(key::kCoverKind) == CoverKind::Halter) all.emplace_back("neck");
  if (rules.option(key::kTopFrom) == TopFrom::Cup) all.emplace_back(id::kCupUp);
  if (rules.option(key::kCupKind) != CupKind::Princess && rules.option(key::kCupSized) == CupSizedBy::Radii)
    all.insert(all.end(), {id::kCupIn, id::kCupOut});
  for (const TrimChoice& trim : rules.trims())
    if (!trim.on().empty())
      all.insert(all.end(), trimKind(trim.kind()).measures.begin(), trimKind(trim.kind()).measures.end());
  return all;
}

Result<Shell> makeShell(const Block& block, const Body& body, const Rules& rules) {
  Result<Pattern> cut = cutPieces(block, rules);
  if (!cut.ok()) return cut.problem();
  Making making{std::move(cut).value(), {}, block, body, rules};
  if (auto problem = take(kShell, making)) return *problem;
  return Shell{std::move(making.pattern), std::move(making.sources)};
}

Result<Pattern> dress(Pattern shell, const LayerSources& sources, const Block& block, const Body& body,
                      const Rules& rules, BodySide side) {
  Making making{std::move(shell), sources, block, body, rules, side};
  if (auto problem = take(kOnShell, making)) return *problem;
  return std::move(making.pattern);
}

Result<Pattern> makeGarment(const Block& block, const Body& body, const Rules& rules) {
  Result<Shell> shell = makeShell(block, body, rules);
  if (!shell.ok()) return shell.problem();
  return dress(std::move(shell->pattern), shell->sources, block, body, rules);
}

}  // namespace armure
