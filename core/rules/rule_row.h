// core/rules/rule_row.h
//
// What a row of the rule table is made of, and the typed keys by which a rule is read: of a length, a share, or one of
// an enumeration's options, so that none can be read as another. Each part of the garment has its rows in
// core/parts/<part>/rules.h, beside what is built from them; rule_table.h has them all.
//
//   enum class YokeKind { None, Cloth, Net };
//   inline constexpr std::array kYokes{row::of(YokeKind::None, "none", "none", "cut in one with the panels"), ...};
//   namespace key { inline constexpr OptionKey<YokeKind> kYokeFront{"yoke.front"}; }
//   ...
//   if (rules.option(key::kYokeFront) == YokeKind::Net) ...
#pragma once

#include <array>
#include <initializer_list>
#include <span>
#include <string_view>

#include "units/length.h"

namespace armure {

enum class RuleKind {
  Length,  // mm
  Share,   // 0 to 1, a part of a whole
  Number,  // how many, or how many times
  Option,  // one of a list
};

struct LengthKey {
  std::string_view text;
};
struct ShareKey {
  std::string_view text;
};
struct NumberKey {
  std::string_view text;
};
template <typename Option>
struct OptionKey {
  std::string_view text;
};
// Of a choice whose options are rows of a table of their own (paper): read as the option's id.
struct TextKey {
  std::string_view text;
};

// Some options of a choice. A bit for every enumerator.
struct Condition {
  std::string_view key;
  unsigned options = 0;

  bool empty() const { return key.empty(); }
  bool holdsFor(int option) const { return (options >> option & 1U) != 0; }
};

struct RuleOption {
  std::string_view id, label, reason;
  int value = 0;  // the enumerator
  // It can be made only while all of these hold; until then it is not offered.
  std::array<Condition, 4> needs = {};
  std::array<Condition, 2> needsOne = {};  // and, where there are any, one of these
};

inline constexpr size_t kMostConditions = 4;

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
  // The rule counts only while one of these holds; always where there is none.
  std::array<Condition, kMostConditions> onlyWhen = {};
  Condition also = {};  // and, where this is not empty, only while it holds too
  bool seldom = false;  // seldom chosen: out of sight until it is asked for, or chosen
  // A part of this; all rules that name the same share it, and come to 1 at the most.
  std::string_view whole = {};
  std::string_view follows = {};  // where it is not chosen and this rule is, its number is that one's

  std::span<const Condition> conditions() const {
    size_t n = 0;
    while (n < onlyWhen.size() && !onlyWhen[n].empty()) ++n;
    return {onlyWhen.data(), n};
  }
};

// Rows are written with these. Lengths in inches, as makers think of them.
namespace row {

template <typename Option>
constexpr RuleOption of(Option option, std::string_view id, std::string_view label, std::string_view reason) {
  return {id, label, reason, static_cast<int>(option)};
}

constexpr RuleInfo length(LengthKey key, std::string_view stage, std::string_view group, std::string_view label,
                          double small, double medium, double full, double lowest, double highest,
                          std::string_view reason) {
  return {key.text,     stage,          group,           label, RuleKind::Length, inches(small), inches(medium),
          inches(full), inches(lowest), inches(highest), reason};
}
constexpr RuleInfo length(LengthKey key, std::string_view stage, std::string_view group, std::string_view label,
                          double value, double lowest, double highest, std::string_view reason) {
  return length(key, stage, group, label, value, value, value, lowest, highest, reason);
}
constexpr RuleInfo share(ShareKey key, std::string_view stage, std::string_view group, std::string_view label,
                         double value, std::string_view reason) {
  return {key.text, stage, group, label, RuleKind::Share, value, value, value, 0, 1, reason};
}
constexpr RuleInfo number(NumberKey key, std::string_view stage, std::string_view group, std::string_view label,
                          double value, double lowest, double highest, std::string_view reason) {
  return {key.text, stage, group, label, RuleKind::Number, value, value, value, lowest, highest, reason};
}
template <typename Key>  // OptionKey or TextKey; the first option is the default
constexpr RuleInfo option(Key key, std::string_view stage, std::string_view group, std::string_view label,
                          std::span<const RuleOption> options, std::string_view reason) {
  const auto last = static_cast<double>(options.size() - 1);
  return {key.text, stage, group, label, RuleKind::Option, 0, 0, 0, 0, last, reason, options};
}

// Another option than the first is the default.
template <typename Option>
constexpr RuleInfo beginningWith(Option option, RuleInfo rule) {
  for (size_t i = 0; i < rule.options.size(); ++i)
    if (rule.options[i].value == static_cast<int>(option))
      rule.small = rule.medium = rule.full = static_cast<double>(i);
  return rule;
}

constexpr RuleInfo measured(RuleInfo rule) {
  rule.fromMeasures = true;
  return rule;
}

template <typename Option>
constexpr Condition when(OptionKey<Option> key, std::initializer_list<Option> options) {
  Condition c{key.text, 0};
  for (const Option o : options) c.options |= 1U << static_cast<int>(o);
  return c;
}
constexpr RuleInfo onlyWhen(std::initializer_list<Condition> conditions, RuleInfo rule) {
  size_t i = 0;
  for (const Condition& c : conditions) rule.onlyWhen.at(i++) = c;
  return rule;
}
// An option that can be made only with others.
constexpr RuleOption needing(std::initializer_list<Condition> conditions, RuleOption option) {
  size_t i = 0;
  for (const Condition& c : conditions) option.needs.at(i++) = c;
  return option;
}
// Or only with one of others.
constexpr RuleOption needingOne(std::initializer_list<Condition> conditions, RuleOption option) {
  size_t i = 0;
  for (const Condition& c : conditions) option.needsOne.at(i++) = c;
  return option;
}
// Besides its other conditions.
constexpr RuleInfo andWhen(Condition condition, RuleInfo rule) {
  rule.also = condition;
  return rule;
}

constexpr RuleInfo partOf(std::string_view whole, RuleInfo rule) {
  rule.whole = whole;
  return rule;
}
constexpr RuleInfo following(LengthKey other, RuleInfo rule) {
  rule.follows = other.text;
  return rule;
}
constexpr RuleInfo seldom(RuleInfo rule) {
  rule.seldom = true;
  return rule;
}

}  // namespace row

}  // namespace armure
