// core/rules/rule_table.h
//
// Every rule of thumb and every choice of the draft: its key, where it stands in the window, its default by figure, its
// bounds, and one line on when to use it. All defaults are common practice, no source, and can be changed in every
// order.
#pragma once

#include <span>
#include <string_view>

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
  std::string_view stage;  // where it is chosen: "Block", "Lines", "Prepare"
  std::string_view group;
  std::string_view label;
  RuleKind kind;
  double small, medium, full;  // defaults by figure: mm, or the share, or the option's place in the list
  double lowest, highest;      // mm or share
  std::string_view reason;
  std::span<const RuleOption> options = {};
  bool fromMeasures = false;  // the default is worked out from the measures; small/medium/full only stand in
  std::string_view onlyWhenKey = {}, onlyWhenOption = {};  // the rule counts only while that choice is so
};

std::span<const RuleInfo> ruleTable();

// The row, or nullptr for an unknown key.
const RuleInfo* findRule(std::string_view key);

}  // namespace armure
