#include "garment/garment.h"

#include <fmt/format.h>

#include "cups/cut_cup.h"
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

}  // namespace

Result<Pattern> makeGarment(const Block& block, const Rules& rules) {
  Result<Pattern> cut = cutPieces(block, rules);
  if (!cut.ok()) return cut;
  Pattern pattern = std::move(cut).value();
  if (auto problem = setCutCup(pattern, block, rules)) return *problem;
  addModestyPanels(pattern, block, rules);
  number(pattern);
  addWorkings(pattern, rules);
  return pattern;
}

}  // namespace armure
