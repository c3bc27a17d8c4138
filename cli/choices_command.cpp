// armure-cli styles, schools and keys: what there is to choose.
#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "cli/commands.h"
#include "cli/complaints.h"
#include "io/bounded_json.h"
#include "measure/measure_table.h"
#include "rules/nearest.h"
#include "rules/prepare_rules.h"

namespace armure::cli {
namespace {

// A line of the list: a key, or a form of keys.
struct KeyLine {
  std::string key, type, range, standard, what;
  std::string_view group;
  std::vector<RuleOption> options = {};
};

std::string inches(double mm) { return fmt::format("{:.4g}", mm / kMmPerInch); }

KeyLine lineOf(const RuleInfo& r) {
  KeyLine line{std::string(r.key), "", "", "", fmt::format("{}: {}", r.label, r.reason), r.group};
  switch (r.kind) {
    case RuleKind::Option:
      line.type = "option";
      for (const RuleOption& o : r.options) line.range += (line.range.empty() ? "" : "|") + std::string(o.id);
      line.standard = r.options[0].id;
      line.options.assign(r.options.begin(), r.options.end());
      return line;
    case RuleKind::Share:
      line.type = "share";
      break;
    case RuleKind::Number:
      line.type = "number";
      break;
    case RuleKind::Length:
      line.type = "length";
      line.range = fmt::format("{} to {} in", inches(r.lowest), inches(r.highest));
      line.standard = r.fromMeasures ? "from the measures"
                      : r.small == r.full
                          ? inches(r.small) + " in"
                          : fmt::format("{}, {}, {} in by figure", inches(r.small), inches(r.medium), inches(r.full));
      return line;
  }
  line.range = fmt::format("{:g} to {:g}", r.lowest, r.highest);
  line.standard = fmt::format("{:g}", r.small);
  return line;
}

std::vector<KeyLine> allKeys() {
  std::vector<KeyLine> all;
  for (const RuleInfo& r : ruleTable()) all.push_back(lineOf(r));
  const auto place = [&](std::string_view form, const std::string& values, std::string_view reason,
                         std::string_view group) {
    all.push_back({std::string(form), "place", values, "", std::string(reason), group});
  };
  for (const ShapingForm& f : shapingForms())
    place(f.form, fmt::format("{} to {} in", inches(f.lowest), inches(f.highest)), f.reason, "Set by hand");
  for (const PrepareForm& f : prepareForms()) place(f.form, std::string(f.values), f.reason, "Cloths and layers");
  for (const TrimForm& f : trimForms()) place(f.form, f.values, f.reason, "Sewn on");
  for (const SeamForm& f : kSeamForms) place(f.form, std::string(f.values), f.reason, "Seams");
  for (const MeasureInfo& m : measureTable())
    all.push_back({std::string(m.id), "measure", "", "", fmt::format("{}: {}", m.name, m.how), "Measures"});
  return all;
}

std::string lower(std::string_view text) {
  std::string all(text);
  std::ranges::transform(all, all.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return all;
}

bool isAbout(const KeyLine& line, const std::string& word) {
  return word.empty() || lower(line.key).find(word) != std::string::npos ||
         lower(line.group).find(word) != std::string::npos || lower(line.what).find(word) != std::string::npos;
}

void printByGroup(Printer& out, const std::vector<KeyLine>& lines) {
  std::string_view group;
  for (const KeyLine& l : lines) {
    if (l.group != group) out.print("{}{}\n", group.empty() ? "" : "\n", l.group);
    group = l.group;
    out.print("  {}  ({}{}{})\n      {}\n", l.key, l.type, l.range.empty() || !l.options.empty() ? "" : ", " + l.range,
              l.standard.empty() ? "" : "; " + l.standard, l.what);
    for (const RuleOption& o : l.options) out.print("      {:<18} {}: {}\n", o.id, o.label, o.reason);
  }
}

Json keyJson(const KeyLine& l) {
  Json options = Json::array();
  for (const RuleOption& o : l.options) options.push_back({{"id", o.id}, {"label", o.label}, {"reason", o.reason}});
  return {{"key", l.key},
          {"type", l.type},
          {"group", l.group},
          {"range", l.range},
          {"default", l.standard},
          {"what", l.what},
          {"options", std::move(options)}};
}

void printPresets(Printer& out, std::span<const Preset> presets, bool asJson, bool named) {
  Json all = Json::array();
  for (const Preset& p : presets) {
    if (asJson)
      all.push_back({{"id", p.id}, {"name", p.name}, {"description", p.description}});
    else if (named)
      out.print("{}\t{}: {}\n", p.id, p.name, p.description);
    else
      out.print("{}\t{}\n", p.id, p.description);
  }
  if (asJson) out.print("{}\n", text(all));
}

}  // namespace

int styles(Printer& out, bool asJson) {
  printPresets(out, styleTable(), asJson, false);
  return kDone;
}

int schools(Printer& out, bool asJson) {
  printPresets(out, schoolTable(), asJson, true);
  return kDone;
}

int keys(Printer& out, const std::string& about, bool asJson) {
  const std::string word = lower(about);
  std::vector<KeyLine> lines = allKeys();
  std::vector<std::string> names;
  for (const KeyLine& l : lines) names.push_back(l.key);
  std::erase_if(lines, [&](const KeyLine& l) { return !isAbout(l, word); });
  if (lines.empty()) {
    const auto meant = nearest(about, {names.begin(), names.end()});
    return complain({"keys", msg("nothing is about \"{}\"", quotable(about)),
                     meant ? msg("did you mean {}?", verbatim(*meant)) : Message("armure-cli keys lists them all")});
  }
  if (asJson) {
    Json all = Json::array();
    for (const KeyLine& l : lines) all.push_back(keyJson(l));
    out.print("{}\n", text(all));
    return kDone;
  }
  if (!about.empty()) {
    std::ranges::stable_sort(lines, {}, &KeyLine::group);
    printByGroup(out, lines);
    return kDone;
  }
  for (const KeyLine& l : lines) out.print("{}\t{}\t{}\t{}\t{}\n", l.key, l.type, l.range, l.standard, l.what);
  return kDone;
}

}  // namespace armure::cli
