#include "rules/rule_table.h"

#include <algorithm>
#include <array>
#include <map>

#include "parts/band/rules.h"
#include "parts/bones/rules.h"
#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/inserts/rules.h"
#include "parts/opening/rules.h"
#include "parts/skirt/rules.h"
#include "parts/straps/rules.h"
#include "parts/yoke/rules.h"
#include "rules/draft_rules.h"
#include "rules/layer_rules.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

template <size_t... sizes>
constexpr auto joined(const std::array<RuleInfo, sizes>&... tables) {
  std::array<RuleInfo, (sizes + ...)> all{};
  size_t at = 0;
  const auto add = [&](const auto& table) {
    for (const RuleInfo& rule : table) all[at++] = rule;
  };
  (add(tables), ...);
  return all;
}

// In the order of the window.
constexpr auto kRules =
    joined(kDraftRules, kCupRules, kCoverRules, kBandRules, kYokeRules, kInsertRules, kEdgeRules, kStrapRules,
           kHemRules, kSkirtRules, kOpeningRules, kPrepareRules, kLayerRules, kBoneRules, kPaperRules);

using OptionOf = std::function<int(std::string_view)>;

bool holds(const Condition& c, const OptionOf& optionOf) {
  return c.holdsFor(optionOf(c.key)) && ruleCounts(*findRule(c.key), optionOf);
}

}  // namespace

std::span<const RuleInfo> ruleTable() { return kRules; }

bool ruleCounts(const RuleInfo& rule, const OptionOf& optionOf) {
  const auto conditions = rule.conditions();
  return (rule.also.empty() || holds(rule.also, optionOf)) &&
         (conditions.empty() ||
          std::any_of(conditions.begin(), conditions.end(), [&](const Condition& c) { return holds(c, optionOf); }));
}

bool optionFits(const RuleOption& option, const OptionOf& optionOf) {
  const auto met = [&](const Condition& c) { return c.empty() || holds(c, optionOf); };
  return std::ranges::all_of(option.needs, met) &&
         (option.needsOne[0].empty() ||
          std::ranges::any_of(option.needsOne, [&](const Condition& c) { return !c.empty() && met(c); }));
}

const RuleInfo* findRule(std::string_view key) {
  static const std::map<std::string_view, const RuleInfo*> byKey = [] {
    std::map<std::string_view, const RuleInfo*> rows;
    for (const RuleInfo& r : kRules) rows.emplace(r.key, &r);
    return rows;
  }();
  const auto row = byKey.find(key);
  return row == byKey.end() ? nullptr : row->second;
}

std::vector<std::string_view> optionsOf(const Condition& condition) {
  std::vector<std::string_view> ids;
  for (const RuleOption& o : findRule(condition.key)->options)
    if (condition.holdsFor(o.value)) ids.push_back(o.id);
  return ids;
}

}  // namespace armure
