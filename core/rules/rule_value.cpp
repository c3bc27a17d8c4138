#include "rules/rule_value.h"

#include <fmt/format.h>

#include "quotable.h"

namespace armure {
namespace {

Message optionList(const RuleInfo& rule) {
  Listed ids{{}, Listed::By::Or};
  for (const RuleOption& o : rule.options) ids.all.push_back(verbatim(o.id));
  return msg("choose one of {}", std::move(ids));
}

Problem outside(const RuleInfo& rule, std::string_view value) {
  return {verbatim(rule.key), msg("\"{}\" is out of range for {}", quotable(value), known(rule.label)),
          rule.kind == RuleKind::Share ? msg("give a part between {} and {}", rule.lowest, rule.highest)
          : rule.kind == RuleKind::Number
              ? msg("give a number between {} and {}", rule.lowest, rule.highest)
              : msg("give a length between {} and {}", Length{rule.lowest}, Length{rule.highest})};
}

bool within(const RuleInfo& rule, double v) { return v >= rule.lowest - 1e-6 && v <= rule.highest + 1e-6; }

double defaultOf(const RuleInfo& rule, Figure figure) {
  switch (figure) {
    case Figure::Small:
      return rule.small;
    case Figure::Medium:
      return rule.medium;
    case Figure::Full:
      break;
  }
  return rule.full;
}

}  // namespace

RuleValue defaultValue(const RuleInfo& rule, Figure figure) {
  const double number = defaultOf(rule, figure);
  const RuleOption plain = rule.options.empty() ? RuleOption{} : rule.options[static_cast<size_t>(number)];
  return {number, plain.id, plain.value, Source::Rule};
}

Result<RuleValue> readRuleValue(const RuleInfo& rule, std::string_view text, Unit bareUnit) {
  if (rule.kind == RuleKind::Option) {
    for (size_t i = 0; i < rule.options.size(); ++i)
      if (rule.options[i].id == text)
        return RuleValue{static_cast<double>(i), rule.options[i].id, rule.options[i].value, Source::ByHand};
    return Problem{verbatim(rule.key), msg("there is no choice \"{}\" for {}", quotable(text), known(rule.label)),
                   optionList(rule)};
  }
  if (rule.kind != RuleKind::Length) {
    const Result<double> number = parseNumber(text);
    if (!number.ok()) return Problem{verbatim(rule.key), number.problem().what, number.problem().remedy};
    if (!within(rule, number.value())) return outside(rule, text);
    return RuleValue{number.value(), {}, 0, Source::ByHand};
  }
  const Result<double> mm = parseLength(text, bareUnit);
  if (!mm.ok()) return Problem{verbatim(rule.key), mm.problem().what, mm.problem().remedy};
  if (!within(rule, mm.value())) return outside(rule, text);
  return RuleValue{mm.value(), {}, 0, Source::ByHand};
}

Result<std::string> keptRuleText(const RuleInfo& rule, std::string_view text, Unit bareUnit) {
  const Result<RuleValue> read = readRuleValue(rule, text, bareUnit);
  if (!read.ok()) return read.problem();
  if (rule.kind == RuleKind::Option) return std::string(read->option);
  if (rule.kind != RuleKind::Length) return fmt::format("{:.6g}", read->number);
  return readLength(text, bareUnit)->text();
}

}  // namespace armure
