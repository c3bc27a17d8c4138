// core/rules/rule_value.h
//
// A rule in force: its number or its option, and how one is read from what the maker typed.
#pragma once

#include <string>
#include <string_view>

#include "measure/estimate.h"
#include "result.h"
#include "rules/rule_row.h"
#include "units/length.h"

namespace armure {

struct RuleValue {
  double number = 0;        // mm, share, number, or the option's place
  std::string_view option;  // the option's id
  int choice = 0;           // and its enumerator
  Source source = Source::Rule;
  bool chosen = false;  // by the maker or by a preset; else the default of the figure
};

// What stands where nothing was chosen.
RuleValue defaultValue(const RuleInfo& rule, Figure figure);

// A text as the value of a rule; a bare number is a length in `bareUnit`. The Problem names the choice and says what
// would be right.
Result<RuleValue> readRuleValue(const RuleInfo& rule, std::string_view text, Unit bareUnit);

// The text as it is kept in the order: a length with its unit. As readRuleValue() otherwise.
Result<std::string> keptRuleText(const RuleInfo& rule, std::string_view text, Unit bareUnit);

}  // namespace armure
