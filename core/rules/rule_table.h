// core/rules/rule_table.h
//
// Every rule of thumb and every choice of the draft: its key, where it stands in the window, its default by figure, its
// bounds, and one line on when to use it. All defaults are common practice, no source, and can be changed in every
// order.
#pragma once

#include <functional>
#include <span>
#include <string_view>
#include <vector>

namespace armure {

enum class RuleKind {
  Length,  // mm
  Share,   // 0 to 1, a part of a whole
  Option,  // one of a list
};

struct RuleOption {
  std::string_view id, label, reason;
};

struct RuleInfo {
  std::string_view key;
  std::string_view stage;  // where it is chosen: "Block", "Shape", "Cups", "Lines", "Balance", "Prepare"
  std::string_view group;
  std::string_view label;
  RuleKind kind;
  double small, medium, full;  // defaults by figure: mm, or the share, or the option's place in the list
  double lowest, highest;      // mm or share
  std::string_view reason;
  std::span<const RuleOption> options = {};
  bool fromMeasures = false;  // the default is worked out from the measures; small/medium/full only stand in
  // The rule counts only while one of these choices is one of these options; lists divided by "|".
  std::string_view onlyWhenKeys = {}, onlyWhenOptions = {};
};

std::span<const RuleInfo> ruleTable();

// The parts of a list "a|b|c".
std::vector<std::string_view> listed(std::string_view list);

// Whether the rule counts, given the option in force for a key.
bool ruleCounts(const RuleInfo& rule, const std::function<std::string_view(std::string_view)>& optionOf);

// The row, or nullptr for an unknown key.
const RuleInfo* findRule(std::string_view key);

}  // namespace armure
