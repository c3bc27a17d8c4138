#include "rules/rule_search.h"

#include <algorithm>
#include <cctype>
#include <string>

#include "rules/rule_table.h"

namespace armure {
namespace {

std::string small(std::string_view text) {
  std::string out(text);
  std::transform(out.begin(), out.end(), out.begin(), [](unsigned char c) { return std::tolower(c); });
  return out;
}

std::vector<std::string> wordsOf(std::string_view text) {
  std::vector<std::string> words(1);
  for (const char c : small(text)) {
    if (c == ' ' || c == ',' || c == '\t') {
      if (!words.back().empty()) words.emplace_back();
    } else {
      words.back() += c;
    }
  }
  if (words.back().empty()) words.pop_back();
  return words;
}

bool hasAll(const std::string& text, const std::vector<std::string>& words) {
  return std::ranges::all_of(words, [&](const std::string& w) { return text.find(w) != std::string::npos; });
}

// All that is said of a rule.
std::string saidOf(const RuleInfo& rule) {
  std::string all;
  for (const std::string_view part : {rule.label, rule.group, rule.reason, rule.key, rule.stage}) {
    all += part;
    all += ' ';
  }
  for (const RuleOption& o : rule.options) {
    all += o.label;
    all += ' ';
  }
  return small(all);
}

Message oneOf(const Condition& c) {
  Listed options{{}, Listed::By::Or};
  for (const std::string_view option : optionsOf(c)) options.all.push_back(verbatim(option));
  return msg("{} = {}", verbatim(c.key), std::move(options));
}

}  // namespace

std::vector<const RuleInfo*> rulesNamed(std::string_view text) {
  const std::vector<std::string> words = wordsOf(text);
  std::vector<const RuleInfo*> found;
  if (words.empty()) return found;
  for (const RuleInfo& rule : ruleTable())
    if (hasAll(small(rule.label), words)) found.push_back(&rule);
  for (const RuleInfo& rule : ruleTable())
    if (!hasAll(small(rule.label), words) && hasAll(saidOf(rule), words)) found.push_back(&rule);
  return found;
}

Message conditionOf(const RuleInfo& rule) {
  Listed conditions{{}, Listed::By::Or};
  for (const Condition& c : rule.conditions()) conditions.all.push_back(oneOf(c));
  if (rule.also.empty()) return conditions.all.empty() ? Message() : msg("{}", std::move(conditions));
  return conditions.all.empty() ? oneOf(rule.also) : msg("{} and {}", std::move(conditions), oneOf(rule.also));
}

Message missingFor(const RuleOption& option, const std::function<int(std::string_view)>& optionOf) {
  Listed missing{{}, Listed::By::And};
  for (const Condition& c : option.needs)
    if (RuleOption one{}; !c.empty()) {
      one.needs[0] = c;
      if (!optionFits(one, optionOf)) missing.all.push_back(oneOf(c));
    }
  RuleOption either{};
  either.needsOne = option.needsOne;
  if (!optionFits(either, optionOf)) {
    Listed wanted{{}, Listed::By::Or};
    for (const Condition& c : option.needsOne)
      if (!c.empty()) wanted.all.push_back(oneOf(c));
    missing.all.push_back(msg("{}", std::move(wanted)));
  }
  return missing.all.empty() ? Message() : msg("{}", std::move(missing));
}

}  // namespace armure
