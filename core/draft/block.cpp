#include "draft/block.h"

#include <fmt/format.h>

#include <cmath>
#include <optional>
#include <stdexcept>

#include "draft/back_half.h"
#include "draft/front_half.h"
#include "draft/upper_block.h"
#include "parts/cups/rules.h"
#include "parts/opening/rules.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

// Once both halves stand, the levels that were read off have their girth. Of one that was not taken no more is known
// of the body than what the rule takes off it.
void finishReadOff(Block& block, const Rules& rules) {
  for (Level& l : block.levels.all) {
    if (!l.readOff && !l.follows) continue;
    l.finishedGirth = 2 * (l.frontShare + l.backShare);
    if (l.bodyGirth == 0) l.bodyGirth = l.finishedGirth;
    if (!l.follows) continue;
    l.bodyGirth = l.finishedGirth + rules.length(key::kReductionUnderbust);
    for (Working& w : block.workings)
      if (w.key == "girth." + l.id) {
        w.terms = {{'+', "front, read off the straight side", 2 * l.frontShare, Source::Computed},
                   {'+', "back, read off the straight side", 2 * l.backShare, Source::Computed}};
        w.result = l.finishedGirth;
        w.note =
            "the underbust was not taken: the side runs straight from bust to waist and nothing is bent by an estimate "
            "(underbust.untaken); common practice";
      }
  }
}

// An opening that begins where it has ended.
std::optional<Problem> closedOpening(const Block& block) {
  for (const HalfBlock* half : {&block.front, &block.back}) {
    const Opening& o = half->opening;
    const double end = std::min(o.endY, o.hemY);
    if (!o.isOpen() || end - o.startY >= kShortestOpening) continue;
    return Problem{
        "opening.start",
        msg("the opening would begin {} below the shoulder line, and it ends at {}", Length{o.startY}, Length{end}),
        "let it begin higher, or end lower (opening.end)"};
  }
  return std::nullopt;
}

// Panels that have shrunk away, or lines that cross, cannot be drawn.
std::optional<Problem> narrowPanel(const Block& block, const Rules& rules) {
  constexpr double kLeastWidth = 8;  // mm
  for (const HalfBlock* half : {&block.front, &block.back}) {
    for (const HalfLevel& l : half->levels) {
      const bool inArmhole = l.level == level::kTop && goesUp(rules, half == &block.front);
      if (block.levels.at(l.level).beyondHem || inArmhole) continue;
      double from = half->centre.xAtDepth(l.y);
      for (size_t i = 0; i <= half->lines.size(); ++i) {
        const bool last = i == half->lines.size();
        const double width = (last ? l.side : half->lines[i].toCentreX(l.y)) - from;
        if (!last) from = half->lines[i].toSideX(l.y);
        if (width >= kLeastWidth) continue;
        const Message panel = i == 0 ? Message("centre") : last ? Message("side") : msg("{}", i + 1);
        return Problem{msg("{} {}, {}", panel, half->front ? "front" : "back", block.levels.at(l.level).name),
                       msg("the panel is only {:.0f} mm wide there", width),
                       "take less into this half, use fewer lines, check the bust span, or measure again"};
      }
    }
  }
  return std::nullopt;
}

// What would bring a line that takes more than its cap back within it; each alone suffices.
Message curesFor(double taken, double cap, double capOfAnother) {
  if (taken <= cap + 1e-9) return "";
  const double over = taken - cap;
  const int more = static_cast<int>(std::ceil(over / capOfAnother));
  return msg("{} to take the {:.0f} mm beyond it, or {:.0f} mm more for its cap, or {:.0f} mm less reduction",
             moreLines(more), over, over, 4 * over);
}

void recordIntakes(Block& block, const Rules& rules) {
  for (const HalfBlock* half : {&block.front, &block.back})
    for (size_t i = 0; i < half->lines.size(); ++i) {
      const bool isPrincess = half == &block.front && i == 0;
      const double cap = rules.length(isPrincess ? key::kCapPrincess : key::kCapOther);
      for (const HalfLevel& l : half->levels)
        if (!block.levels.at(l.level).beyondHem)
          block.intakes.push_back({half->id, half->lines[i].id, l.level, l.intakes[i], cap, half->lines[i].name,
                                   curesFor(l.intakes[i], cap, rules.length(key::kCapOther))});
    }
}

}  // namespace

Message moreLines(int count) { return count == 1 ? Message("1 more line") : msg("{} more lines", count); }

const HalfLevel& HalfBlock::at(std::string_view level) const {
  for (const HalfLevel& l : levels)
    if (l.level == level) return l;
  throw std::out_of_range(fmt::format("HalfBlock: no level {}", level));
}

const Working* Block::working(std::string_view key) const {
  for (const Working& w : workings)
    if (w.key == key) return &w;
  return nullptr;
}

double Block::riseAt(double y) const { return y <= dart.upper.y ? 0 : levels.sideFoot; }

Vec2 Block::frontSideAt(double y) const {
  const double at = y - riseAt(y);
  return {y <= dart.upper.y ? front.side.xAtDepth(y) : sideBelowDart.xAtDepth(at), at};
}

double Block::gapOn(std::string_view level) const {
  const Level& l = levels.at(level);
  return front.opening.gapAt(l.front) + back.opening.gapAt(l.back);
}

Result<Block> draftBlock(const Body& body, const Rules& rules) {
  Result<Levels> levels = layOutLevels(body, rules);
  if (!levels.ok()) return levels.problem();
  Block block;
  block.plan = panelPlan(rules);
  block.levels = std::move(levels).value();
  block.workings = block.levels.workings;
  if (rules.option(key::kOpeningKind) == OpeningKind::Fold && rules.option(key::kOpeningFront) == OpeningKind::Fold)
    return Problem{"opening.kind", "the bodice has no opening: it is on the fold at the front and at the back",
                   "open it at the back or at the front"};
  if (frontIsInOne(rules) && rules.option(key::kCupKind) != CupKind::Princess)
    return Problem{"front.lines", "a front in one piece has no cup of its own",
                   "let its lines be seams (front.lines=seams), or keep the bust in them (cup.kind=princess)"};
  draftFrontHalf(body, rules, block);
  draftBackHalf(body, rules, block);
  if (const auto closed = closedOpening(block)) return *closed;
  finishReadOff(block, rules);
  if (const auto narrow = narrowPanel(block, rules)) return *narrow;
  drawUpperBlock(block.front, body, rules, block.workings);
  drawUpperBlock(block.back, body, rules, block.workings);
  recordIntakes(block, rules);
  return block;
}

}  // namespace armure
