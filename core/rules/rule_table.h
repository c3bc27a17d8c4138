// core/rules/rule_table.h
//
// Every rule of thumb and every choice of the draft: its key, where it stands in the window, its default by figure, its
// bounds, and one line on when to use it. All defaults are common practice, no source, and can be changed in every
// order. The rows are those of draft_rules.h, prepare_rules.h and of every part's rules.h.
#pragma once

#include <functional>
#include <span>
#include <string_view>
#include <vector>

#include "rules/rule_row.h"

namespace armure {

std::span<const RuleInfo> ruleTable();

// Whether the rule counts, given the option in force for a key (as its enumerator).
bool ruleCounts(const RuleInfo& rule, const std::function<int(std::string_view)>& optionOf);

// Whether an option can be made, given the options in force: all it needs holds and counts.
bool optionFits(const RuleOption& option, const std::function<int(std::string_view)>& optionOf);

// The row, or nullptr for an unknown key.
const RuleInfo* findRule(std::string_view key);

// The options of a condition, from the table's row of its key.
std::vector<std::string_view> optionsOf(const Condition& condition);

}  // namespace armure
