#include "rules/rules.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <stdexcept>

#include "measure/measure_table.h"
#include "quotable.h"
#include "rules/draft_rules.h"
#include "rules/nearest.h"

namespace armure {
namespace {

size_t placeOf(std::string_view key) {
  const RuleInfo* row = findRule(key);
  if (!row) throw std::out_of_range(fmt::format("Rules: no rule {}", key));
  return static_cast<size_t>(row - ruleTable().data());
}

// A key that does not exist, with the one that may have been meant.
Problem unknownKey(std::string_view key) {
  std::vector<std::string_view> words;
  for (const RuleInfo& r : ruleTable()) words.push_back(r.key);
  for (const MeasureInfo& m : measureTable()) words.push_back(m.id);
  std::vector<std::string> placed;  // keys of places: their words are tried one by one
  for (const char* level : {"top", "underbust", "waist", "high_hip", "hem"})
    for (const bool front : {true, false})
      for (size_t line = 0; line < 5; ++line)
        for (const char* form : {"hold", "guide", "share"})
          placed.push_back(fmt::format("{}.{}.{}", form, level,
                                       line < 4 ? lineId(front, line) : std::string(front ? kFrontSide : kBackSide)));
  for (std::string_view seam : seamExamples()) placed.push_back(seamKey(seam));
  words.insert(words.end(), placed.begin(), placed.end());
  const auto meant = nearest(key, words);
  return {verbatim(quotable(key)), "there is no such choice",
          meant ? msg("did you mean {}? armure-cli keys lists them all", verbatim(*meant))
                : Message("armure-cli keys lists them")};
}

}  // namespace

Choices choicesOfNewOrders() { return {{"balance.keep", "balanced"}}; }

namespace {

// A cloth that is neither of the list nor one the maker describes.
std::optional<Problem> noSuchCloth(const Choices& choices, std::string_view key, const std::string& id) {
  std::vector<std::string> own;
  std::vector<std::string_view> all;
  for (const ListedCloth& c : clothTable()) all.push_back(c.id);
  for (const auto& [other, unused] : choices)
    if (const auto cut = parsePrepareKey(other); cut && cut->kind == PrepareKind::ClothField) own.push_back(cut->of);
  all.insert(all.end(), own.begin(), own.end());
  if (std::ranges::find(all, id) != all.end()) return std::nullopt;
  const auto meant = nearest(id, all);
  return Problem{
      verbatim(quotable(key)), msg("there is no cloth \"{}\"", quotable(id)),
      meant ? msg("did you mean {}?", verbatim(*meant)) : msg("describe it first, with cloth.{}.width", quotable(id))};
}

}  // namespace

std::optional<Problem> choicesProblem(const Choices& choices) {
  for (const auto& [key, value] : choices) {
    if (const auto cut = parsePrepareKey(key); cut && cut->kind == PrepareKind::ClothOf)
      if (auto problem = noSuchCloth(choices, key, value)) return problem;
    const auto shaping = parseShapingKey(key);
    if (!shaping || shaping->kind == ShapingKind::Rail || shaping->kind == ShapingKind::Swing ||
        isDraftedLevel(shaping->level))
      continue;
    if (choices.contains(ShapingKey{ShapingKind::Rail, shaping->level, {}}.text())) continue;
    std::vector<std::string> own;
    std::vector<std::string_view> words{"top", "underbust", "waist", "high_hip", "hem"};
    for (const auto& [other, unused] : choices)
      if (const auto rail = parseShapingKey(other); rail && rail->kind == ShapingKind::Rail) own.push_back(rail->level);
    words.insert(words.end(), own.begin(), own.end());
    const auto meant = nearest(shaping->level, words);
    return Problem{
        verbatim(quotable(key)), msg("there is no level \"{}\"", quotable(shaping->level)),
        meant ? msg("did you mean {}?", verbatim(*meant)) : msg("add it first with rail.{}", quotable(shaping->level))};
  }
  return std::nullopt;
}

Result<std::string> checkChoice(std::string_view key, std::string_view value, Unit bareUnit) {
  if (const auto shaping = parseShapingKey(key)) {
    const Result<double> mm = shapingValue(*shaping, value, bareUnit);
    if (!mm.ok()) return mm.problem();
    if (shaping->kind == ShapingKind::Share) return fmt::format("{:.6g}", *mm);
    return readLength(value, bareUnit)->text();
  }
  if (seamOfKey(key)) {
    if (const auto choice = parseSeamChoice(value)) return seamChoiceText(*choice);
    return Problem{
        verbatim(key), msg("there is no choice \"{}\" for a seam", quotable(value)),
        "choose one of both, follow-a, follow-b, leave, trim-top, trim-hem, or ease with two notches from the "
        "top down, as in \"ease bust underbust\""};
  }
  if (lockOfKey(key)) {
    if (value == kLocked) return std::string(value);
    return Problem{verbatim(key), msg("there is no choice \"{}\" for a lock", quotable(value)),
                   "choose yes, or leave the lock away"};
  }
  if (const auto prepare = parsePrepareKey(key)) return checkPrepareChoice(key, *prepare, value, bareUnit);
  if (const auto trim = parseTrimKey(key)) return checkTrimChoice(*trim, value, bareUnit);
  const RuleInfo* rule = findRule(key);
  if (!rule) return unknownKey(key);
  return keptRuleText(*rule, value, bareUnit);
}

bool isChoiceKey(std::string_view key) {
  return findRule(key) || parseShapingKey(key) || seamOfKey(key) || lockOfKey(key) || parsePrepareKey(key) ||
         parseTrimKey(key);
}

Rules::Rules(const Choices& choices, std::string_view style, std::string_view school, Figure figure) {
  const auto table = ruleTable();
  values_.reserve(table.size());
  for (const RuleInfo& rule : table) values_.push_back(defaultValue(rule, figure));
  const auto apply = [&](std::string_view key, std::string_view text) {
    const size_t i = placeOf(key);
    const Result<RuleValue> parsed = readRuleValue(table[i], text, Unit::Millimetre);
    if (!parsed.ok()) throw std::invalid_argument(parsed.problem().text());
    values_[i] = parsed.value();
    values_[i].chosen = true;
  };
  const auto applyAll = [&](const Preset* preset) {
    if (preset)
      for (const PresetChoice& c : preset->choices) apply(c.key, c.value);
  };
  // The kind of garment sets defaults, so it is known before anything else is applied.
  std::string_view kind = value(key::kGarmentKind.text).option;
  for (const Preset* preset : {findSchool(school), findStyle(style)})
    if (preset)
      for (const PresetChoice& c : preset->choices)
        if (c.key == key::kGarmentKind.text) kind = c.value;
  if (const auto chosen = choices.find(key::kGarmentKind.text); chosen != choices.end()) kind = chosen->second;
  applyAll(findKind(kind));
  applyAll(findSchool(school));
  applyAll(findStyle(style));
  cloths_.assign(clothTable().begin(), clothTable().end());
  // What a preset sets is a rule like any other, not the maker's hand.
  for (RuleValue& v : values_)
    if (v.source == Source::ByHand) v.source = Source::Rule;
  for (const auto& [key, text] : choices) {
    if (findRule(key)) apply(key, text);
    if (const auto seam = seamOfKey(key)) {
      const auto choice = parseSeamChoice(text);
      if (!choice) throw std::invalid_argument("no choice for a seam: " + text);
      seamChoices_[*seam] = *choice;
    }
    if (const auto edge = lockOfKey(key)) locks_.insert(*edge);
    if (const auto cut = parsePrepareKey(key)) prepare(*cut, text);
    if (const auto trim = parseTrimKey(key)) sewOn(*trim, text);
    const auto shaping = parseShapingKey(key);
    if (!shaping) continue;
    const Result<double> mm = shapingValue(*shaping, text, Unit::Millimetre);
    if (!mm.ok()) throw std::invalid_argument(mm.problem().text());
    byHand_.emplace_back(*shaping, *mm);
  }
  for (size_t i = 0; i < table.size(); ++i) {
    if (table[i].follows.empty() || values_[i].chosen) continue;
    if (const RuleValue& followed = value(table[i].follows); followed.chosen) {
      values_[i].number = followed.number;
      values_[i].source = followed.source;
    }
  }
}

void Rules::sewOn(const TrimKey& key, const std::string& text) {
  auto trim =
      std::ranges::find_if(trims_, [&](const TrimChoice& t) { return t.kind() == key.kind && t.name() == key.name; });
  if (trim == trims_.end()) trim = trims_.insert(trims_.end(), TrimChoice(key.kind, key.name));
  trim->set(key.field, text);
}

void Rules::prepare(const PrepareKey& key, const std::string& text) {
  switch (key.kind) {
    case PrepareKind::LayerOrder:
      for (size_t at = 0; at < text.size();) {
        const size_t end = std::min(text.find(' ', at), text.size());
        layerOrder_.push_back(text.substr(at, end - at));
        at = end + 1;
      }
      return;
    case PrepareKind::ClothOf:
      clothOf_[key.of] = text;
      return;
    case PrepareKind::ClothField: {
      auto found = std::ranges::find(cloths_, key.of, &ListedCloth::id);
      if (found == cloths_.end()) {
        cloths_.push_back({key.of, key.of, inches(54), true, false, 0, 0, {}});
        found = cloths_.end() - 1;
      }
      setField(*found, key.field, text);
      return;
    }
    case PrepareKind::BoneAt:
      bonesAt_[key.of][key.number] = parseNumber(text).value();
      return;
    case PrepareKind::KeptPlace:
      kept_.push_back(keptPlace(key, text));
      return;
    case PrepareKind::BoneOff:
      bonesOff_.insert(key.of);
  }
}

const ListedCloth* Rules::cloth(std::string_view id) const {
  const auto found = std::ranges::find(cloths_, id, &ListedCloth::id);
  return found == cloths_.end() ? nullptr : &*found;
}

std::optional<std::string> Rules::chosenCloth(std::string_view layerOrPiece) const {
  const auto found = clothOf_.find(layerOrPiece);
  return found == clothOf_.end() ? std::nullopt : std::optional(found->second);
}

std::map<int, double> Rules::bonesAt(std::string_view piece) const {
  const auto found = bonesAt_.find(piece);
  return found == bonesAt_.end() ? std::map<int, double>() : found->second;
}

std::optional<double> Rules::shaping(ShapingKind kind, std::string_view level, std::string_view line) const {
  for (const auto& [key, mm] : byHand_)
    if (key.kind == kind && key.level == level && key.line == line) return mm;
  return std::nullopt;
}

std::optional<double> Rules::held(std::string_view level, std::string_view line) const {
  return shaping(ShapingKind::Hold, level, line);
}

std::optional<double> Rules::guide(std::string_view level, std::string_view line) const {
  return shaping(ShapingKind::Guide, level, line);
}

std::optional<double> Rules::shareAt(std::string_view level, std::string_view line) const {
  return shaping(ShapingKind::Share, level, line);
}

std::optional<double> Rules::swing(std::string_view edge, std::string_view line) const {
  return shaping(ShapingKind::Swing, edge, line);
}

bool Rules::isChosen(std::string_view key) const {
  if (findRule(key)) return value(key).chosen;
  return std::any_of(byHand_.begin(), byHand_.end(), [&](const auto& entry) { return entry.first.text() == key; });
}

bool Rules::anyHeld(std::string_view level) const {
  return std::any_of(byHand_.begin(), byHand_.end(), [&](const auto& entry) {
    return entry.first.kind == ShapingKind::Hold && entry.first.level == level;
  });
}

std::vector<OwnLevel> Rules::ownLevels() const {
  std::vector<OwnLevel> out;
  for (const auto& [key, mm] : byHand_)
    if (key.kind == ShapingKind::Rail) out.push_back({key.level, mm, shaping(ShapingKind::Girth, key.level, "")});
  std::sort(out.begin(), out.end(), [](const OwnLevel& a, const OwnLevel& b) {
    return a.aboveWaist != b.aboveWaist ? a.aboveWaist > b.aboveWaist : a.id < b.id;
  });
  return out;
}

const RuleValue& Rules::value(std::string_view key) const { return values_[placeOf(key)]; }

bool Rules::counts(const RuleInfo& rule) const {
  return ruleCounts(rule, [&](std::string_view key) { return value(key).choice; });
}

bool Rules::fits(const RuleOption& option) const {
  return optionFits(option, [&](std::string_view key) { return value(key).choice; });
}

bool Rules::allFit() const {
  return std::ranges::all_of(ruleTable(), [&](const RuleInfo& rule) {
    if (rule.kind != RuleKind::Option || !counts(rule)) return true;
    const auto chosen = std::ranges::find(rule.options, value(rule.key).option, &RuleOption::id);
    return chosen == rule.options.end() || fits(*chosen);
  });
}

Term Rules::term(std::string_view key, char sign, double factor) const {
  const RuleValue& v = value(key);
  const Message label = known(findRule(key)->label);
  return {sign, factor == 1 ? label : msg("{} x {:.4g}", label, factor), v.number * factor, v.source};
}

}  // namespace armure
