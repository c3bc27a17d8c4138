#include "io/member_reader.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"

namespace armure {

namespace {
constexpr size_t kMostWarnings = 20;  // more are counted
}

std::optional<Vec2> readPoint(const Json& json) {
  constexpr double kFarthest = 1e6;  // mm
  if (!json.is_array() || json.size() != 2 || !json[0].is_number() || !json[1].is_number()) return std::nullopt;
  const Vec2 p{json[0].get<double>(), json[1].get<double>()};
  if (!(std::abs(p.x) <= kFarthest) || !(std::abs(p.y) <= kFarthest)) return std::nullopt;
  return p;
}

Json pointJson(Vec2 point) { return Json::array({point.x, point.y}); }

std::vector<std::string> MemberReader::warnings() && {
  if (unsaid_ > 0) warnings_.push_back(fmt::format("and {} more like these", unsaid_));
  return std::move(warnings_);
}

std::string MemberReader::named(const std::string& member) const {
  std::string all;
  for (const std::string& part : path_) all += (all.empty() ? "" : ".") + part;
  if (!member.empty()) all += (all.empty() ? "" : ".") + member;
  return all;
}

Problem MemberReader::at(const std::string& member, Message what, Message remedy) const {
  return {msg("{}, {}", file_, quotable(named(member))), std::move(what), std::move(remedy)};
}

void MemberReader::fail(const std::string& member, Message what, Message remedy) {
  if (!problem_) problem_ = at(member, std::move(what), std::move(remedy));
}

void MemberReader::warn(std::string text) {
  if (warnings_.size() < kMostWarnings) {
    warnings_.push_back(std::move(text));
  } else {
    ++unsaid_;
  }
}

void MemberReader::text(const Json& object, const char* member, std::string& into) {
  if (!object.contains(member)) return;
  if (!object[member].is_string()) return fail(member, "is not text", "put it in quotation marks");
  into = object[member].get<std::string>();
}

void MemberReader::number(const Json& object, const char* member, double& into, double lowest, double highest) {
  if (!object.contains(member)) return;
  const double value = object[member].is_number() ? object[member].get<double>() : NAN;
  if (!(value >= lowest && value <= highest))
    return fail(member, "is not a number that can be meant", msg("it lies between {} and {}", lowest, highest));
  into = value;
}

void MemberReader::point(const Json& object, const char* member, Vec2& into) {
  if (!object.contains(member)) return;
  if (const auto read = readPoint(object[member])) {
    into = *read;
  } else {
    fail(member, "is no point", "write [x, y] in millimetres");
  }
}

void MemberReader::flag(const Json& object, const char* member, bool& into) {
  if (!object.contains(member)) return;
  if (!object[member].is_boolean()) return fail(member, "is neither true nor false", "write true or false");
  into = object[member].get<bool>();
}

void MemberReader::presets(const Json& object, std::string& style, std::string& school) {
  text(object, "style", style);
  text(object, "school", school);
  if (!findStyle(style))
    warn(fmt::format("the style \"{}\" is not known; the rules' own defaults are used", quotable(style)));
  if (!findSchool(school))
    warn(fmt::format("the school \"{}\" is not known; the rules' own defaults are used", quotable(school)));
}

void MemberReader::measures(const Json& object, const char* member, MeasureSet& into) {
  if (!object.contains(member)) return;
  if (!object[member].is_object())
    return fail(member, "is not an object", "it should be { \"bust\": { \"mm\": 914.4, ... }, ... }");
  for (const auto& [id, entry] : object[member].items()) {
    const std::string place = std::string(member) + "." + id;
    if (!entry.is_object() || !entry.contains("mm") || !entry["mm"].is_number())
      return fail(place, "has no number \"mm\"", "give the value in millimetres (weight in kilograms)");
    const double mm = entry["mm"].get<double>();
    if (const auto problem = measureProblem(id, mm)) return fail(place, problem->what, problem->remedy);
    if (!findMeasure(id)) warn(fmt::format("the measure \"{}\" is not known; it is kept but not used", quotable(id)));
    TakenMeasure measure{mm, optionalText(place, entry, "typed"), optionalText(place, entry, "note")};
    takings(id, place, entry, measure);
    if (measure.takings.empty()) holdAgainst(id, place, measure.typed, mm);
    into.set(id, std::move(measure));
  }
}

// A text that may be left out. One that is something else is kept in the file and told.
std::string MemberReader::optionalText(const std::string& member, const Json& entry, const char* key) {
  if (!entry.contains(key)) return {};
  if (entry[key].is_string()) return entry[key].get<std::string>();
  warn(fmt::format("{}.{} is not text and is not shown; it is kept as it is", quotable(named(member)), key));
  return {};
}

// What was typed should say what the number says.
void MemberReader::holdAgainst(const std::string& id, const std::string& member, const std::string& typed, double mm) {
  if (typed.empty()) return;
  const bool isWeight = id == id::kWeight;
  const Result<double> said = isWeight ? parseWeight(typed) : parseLength(typed, Unit::Millimetre);
  const char* unit = isWeight ? "kg" : "mm";
  if (!said.ok()) {
    warn(fmt::format("{}: \"typed\" is \"{}\", which cannot be read; its number, {:.6g} {}, counts",
                     quotable(named(member)), quotable(typed), mm, unit));
  } else if (std::abs(*said - mm) > 0.01) {
    warn(fmt::format("{}: \"typed\" says {}, which is {:.6g} {}, but the number is {:.6g}; the number counts",
                     quotable(named(member)), quotable(typed), *said, unit, mm));
  }
}

// Several takings: their list, and whether their mean or the last of them counts.
void MemberReader::takings(const std::string& id, const std::string& member, const Json& entry, TakenMeasure& measure) {
  if (!entry.contains("takings")) return;
  const char* remedy = "it should be a list like [ { \"mm\": 914.4, \"typed\": \"36 in\" }, ... ]";
  if (!entry["takings"].is_array()) return fail(member + ".takings", "is not a list", remedy);
  std::vector<Taking> all;
  for (const Json& one : entry["takings"]) {
    if (!one.is_object() || !one.contains("mm") || !one["mm"].is_number())
      return fail(member + ".takings", "a taking has no number \"mm\"", remedy);
    if (all.size() == kMostTakings)
      return fail(member + ".takings", msg("there are more than {} takings", kMostTakings), "keep those that agree");
    all.push_back({one["mm"].get<double>(), optionalText(member + ".takings", one, "typed")});
    if (const auto problem = measureProblem(id, all.back().mm))
      return fail(member + ".takings", problem->what, problem->remedy);
    holdAgainst(id, member + ".takings", all.back().typed, all.back().mm);
  }
  const Json use = entry.contains("use") ? entry["use"] : Json("last");
  if (use != "last" && use != "mean") return fail(member + ".use", "is neither last nor mean", "use last or mean");
  if (all.empty()) return;
  const double mm = measure.mm;
  measure = measureOf(std::move(all), use == "mean" ? Use::Mean : Use::Last, measure.note);
  if (std::abs(measure.mm - mm) > 1e-6)
    fail(member, msg("\"mm\" is {} but its takings give {}", mm, measure.mm), "make the two agree");
  measure.mm = mm;  // as written: files do not change by being read
}

void MemberReader::choices(const Json& object, const char* member, Choices& into) {
  if (!object.contains(member)) return;
  if (!object[member].is_object())
    return fail(member, "is not an object", "it should be { \"hem.length\": \"5 in\", ... }");
  for (const auto& [key, value] : object[member].items()) {
    const std::string place = std::string(member) + "." + key;
    if (!value.is_string()) return fail(place, "is not text", "write lengths with their unit: \"5 in\"");
    if (!isChoiceKey(key)) {
      warn(fmt::format("the choice \"{}\" is not known; it is kept but not used", quotable(key)));
      into[key] = value.get<std::string>();
      continue;
    }
    const Result<std::string> checked = checkChoice(key, value.get<std::string>(), Unit::Millimetre);
    if (!checked.ok()) return fail(place, checked.problem().what, checked.problem().remedy);
    into[key] = value.get<std::string>();  // as written: files do not change by being read
  }
}

namespace {

// Members of an object by name, found in one step.
class Members {
 public:
  explicit Members(const Json& object) {
    if (object.is_object())
      for (const auto& [name, value] : object.items()) places_.emplace(name, &value);
  }
  // The object of that name, to write into; a new one where there is none.
  Json object(const std::string& name) const {
    const auto known = places_.find(name);
    return known != places_.end() && known->second->is_object() ? *known->second : Json::object();
  }

 private:
  std::unordered_map<std::string, const Json*> places_;
};

// The list of takings. Members we do not know stay with the taking they stood beside: the same number in the same
// order.
Json takingsJson(const std::vector<Taking>& takings, const Json& old) {
  Json list = Json::array();
  size_t next = 0;
  for (const Taking& t : takings) {
    Json entry = Json::object();
    for (size_t i = next; old.is_array() && i < old.size(); ++i) {
      if (!old[i].is_object() || !old[i].contains("mm") || old[i]["mm"] != t.mm) continue;
      entry = old[i];
      next = i + 1;
      break;
    }
    entry["mm"] = t.mm;
    if (!t.typed.empty() || !entry.contains("typed") || entry["typed"].is_string()) entry["typed"] = t.typed;
    list.push_back(std::move(entry));
  }
  return list;
}

}  // namespace

Json measuresJson(const MeasureSet& measures, const Json& old) {
  Json out = Json::object();
  const Members before(old);
  auto& object = out.get_ref<Json::object_t&>();
  const auto text = [](Json& entry, const char* key, const std::string& value, bool always) {
    const bool foreign = entry.contains(key) && !entry[key].is_string();  // kept as it is
    if (!(foreign && value.empty()) && (always || !value.empty() || entry.contains(key))) entry[key] = value;
  };
  const auto put = [&](const std::string& id, const TakenMeasure& m) {
    Json entry = before.object(id);
    entry["mm"] = m.mm;
    text(entry, "typed", m.typed, true);
    text(entry, "note", m.note, false);
    if (m.takings.empty()) {
      entry.erase("takings");
      entry.erase("use");
    } else {
      entry["takings"] = takingsJson(m.takings, entry.contains("takings") ? entry["takings"] : Json());
      entry["use"] = m.use == Use::Mean ? "mean" : "last";
    }
    object.Json::object_t::Container::emplace_back(id, std::move(entry));
  };
  for (const MeasureInfo& info : measureTable())
    if (const auto it = measures.all().find(info.id); it != measures.all().end()) put(it->first, it->second);
  for (const auto& [id, m] : measures.all())
    if (!findMeasure(id)) put(id, m);
  return out;
}

Json choicesJson(const Choices& choices) {
  Json all = Json::object();
  auto& object = all.get_ref<Json::object_t&>();
  for (const auto& [key, value] : choices) object.Json::object_t::Container::emplace_back(key, value);
  return all;
}

Json memberOf(const Json& object, const char* member) {
  return object.is_object() && object.contains(member) ? object[member] : Json();
}

}  // namespace armure
