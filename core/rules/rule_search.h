// core/rules/rule_search.h
//
// Finding a rule by what a maker calls it, and saying when it counts.
//
//   rulesNamed("waist dart back")   back.intake_waist, back.lines, ...: every word stands in the rule's name, group,
//                                   reason, options or key; those with all words in their name first
#pragma once

#include <string_view>
#include <vector>

#include "message.h"
#include "rules/rule_table.h"

namespace armure {

// Capitals do not matter; parts of words do. Empty for no words. In the order of the rule table within each rank.
std::vector<const RuleInfo*> rulesNamed(std::string_view words);

// "cover.kind = covered and back.lines = seams or darts"; empty where the rule always counts.
Message conditionOf(const RuleInfo& rule);
// What of that an option needs does not hold beside the choices in force; empty where it can be made.
Message missingFor(const RuleOption& option, const std::function<int(std::string_view)>& optionOf);

}  // namespace armure
