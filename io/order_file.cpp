#include "io/order_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "io/atomic_file.h"
#include "io/bounded_json.h"
#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr std::string_view kFormat = "armure-order";

constexpr size_t kMostWarnings = 20;  // more are counted

// Reads members of the file into an Order; the first thing wrong is kept.
class OrderReader {
 public:
  OrderReader(const Json& doc, const std::string& name) : doc_(doc), name_(name) {}

  Result<OrderFile> read() && {
    if (!doc_.is_object() || !doc_.contains("format") || doc_["format"] != kFormat)
      return Problem{verbatim(name_), "this is not an Armure order",
                     "an order file is JSON with \"format\": \"armure-order\""};
    if (auto problem = wrongVersion()) return *problem;
    Order& o = file_.order;
    text("title", o.title);
    text("client", o.client);
    text("date", o.date);
    text("notes", o.notes);
    readUnits();
    text("style", o.style);
    text("school", o.school);
    if (!findStyle(o.style))
      warn(fmt::format("the style \"{}\" is not known; the rules' own defaults are used", quotable(o.style)));
    if (!findSchool(o.school))
      warn(fmt::format("the school \"{}\" is not known; the rules' own defaults are used", quotable(o.school)));
    readMeasures();
    readBook();
    readChoices();
    if (problem_) return *problem_;
    if (unsaid_ > 0) file_.warnings.push_back(fmt::format("and {} more like these", unsaid_));
    return std::move(file_);
  }

  void warn(std::string text) {
    if (file_.warnings.size() < kMostWarnings) {
      file_.warnings.push_back(std::move(text));
    } else {
      ++unsaid_;
    }
  }

 private:
  std::optional<Problem> wrongVersion() const {
    const Json* version = doc_.contains("version") ? &doc_["version"] : nullptr;
    if (!version || !version->is_number_integer())
      return at("version", "the version is missing or not a whole number", msg("it should be 1 to {}", kOrderVersion));
    const double number = version->get<double>();  // of any size
    if (number > kOrderVersion)
      return at("version", msg("the file has version {:.6g}, this program knows up to {}", number, kOrderVersion),
                "open it with a newer Armure; the file was not changed");
    if (number < 1)
      return at("version", msg("there is no version {:.6g}", number), msg("it should be 1 to {}", kOrderVersion));
    return std::nullopt;
  }
  Problem at(const std::string& member, Message what, Message remedy) const {
    return {msg("{}, {}", name_, quotable(member)), std::move(what), std::move(remedy)};
  }
  void fail(const std::string& member, Message what, Message remedy) {
    if (!problem_) problem_ = at(member, std::move(what), std::move(remedy));
  }

  void text(const char* member, std::string& into) {
    if (!doc_.contains(member)) return;
    if (!doc_[member].is_string()) return fail(member, "is not text", "put it in quotation marks");
    into = doc_[member].get<std::string>();
  }

  void readUnits() {
    std::string symbol = "in";
    text("units", symbol);
    const Result<Unit> unit = parseUnit(symbol);
    if (!unit.ok() || unit.value() == Unit::Millimetre)
      return fail("units", msg("\"{}\" is not known", quotable(symbol)), "use in or cm");
    file_.order.units.unit = unit.value();
    if (!doc_.contains("inchFraction")) return;
    const Json& fraction = doc_["inchFraction"];
    if (fraction != 8 && fraction != 16) return fail("inchFraction", "is neither 8 nor 16", "use 8 or 16");
    file_.order.units.inchFraction = fraction.get<int>();
  }

  void readMeasures() {
    if (!doc_.contains("measures")) return;
    if (!doc_["measures"].is_object())
      return fail("measures", "is not an object", "it should be { \"bust\": { \"mm\": 914.4, ... }, ... }");
    for (const auto& [id, entry] : doc_["measures"].items()) {
      const std::string member = "measures." + id;
      if (!entry.is_object() || !entry.contains("mm") || !entry["mm"].is_number())
        return fail(member, "has no number \"mm\"", "give the value in millimetres (weight in kilograms)");
      const double mm = entry["mm"].get<double>();
      if (const auto problem = measureProblem(id, mm)) return fail(member, problem->what, problem->remedy);
      if (!findMeasure(id)) warn(fmt::format("the measure \"{}\" is not known; it is kept but not used", quotable(id)));
      TakenMeasure measure{mm, optionalText(member, entry, "typed"), optionalText(member, entry, "note")};
      readTakings(id, member, entry, measure);
      if (measure.takings.empty()) holdAgainst(id, member, measure.typed, mm);
      file_.order.measures.set(id, std::move(measure));
    }
  }

  // A text that may be left out. One that is something else is kept in the file and told.
  std::string optionalText(const std::string& member, const Json& entry, const char* key) {
    if (!entry.contains(key)) return {};
    if (entry[key].is_string()) return entry[key].get<std::string>();
    warn(fmt::format("{}.{} is not text and is not shown; it is kept as it is", quotable(member), key));
    return {};
  }

  // What was typed should say what the number says.
  void holdAgainst(const std::string& id, const std::string& member, const std::string& typed, double mm) {
    if (typed.empty()) return;
    const bool isWeight = id == id::kWeight;
    const Result<double> said = isWeight ? parseWeight(typed) : parseLength(typed, Unit::Millimetre);
    const char* unit = isWeight ? "kg" : "mm";
    if (!said.ok()) {
      warn(fmt::format("{}: \"typed\" is \"{}\", which cannot be read; its number, {:.6g} {}, counts", quotable(member),
                       quotable(typed), mm, unit));
    } else if (std::abs(*said - mm) > 0.01) {
      warn(fmt::format("{}: \"typed\" says {}, which is {:.6g} {}, but the number is {:.6g}; the number counts",
                       quotable(member), quotable(typed), *said, unit, mm));
    }
  }

  // Several takings: their list, and whether their mean or the last of them counts.
  void readTakings(const std::string& id, const std::string& member, const Json& entry, TakenMeasure& measure) {
    if (!entry.contains("takings")) return;
    const char* remedy = "it should be a list like [ { \"mm\": 914.4, \"typed\": \"36 in\" }, ... ]";
    if (!entry["takings"].is_array()) return fail(member + ".takings", "is not a list", remedy);
    std::vector<Taking> takings;
    for (const Json& one : entry["takings"]) {
      if (!one.is_object() || !one.contains("mm") || !one["mm"].is_number())
        return fail(member + ".takings", "a taking has no number \"mm\"", remedy);
      if (takings.size() == kMostTakings)
        return fail(member + ".takings", msg("there are more than {} takings", kMostTakings), "keep those that agree");
      takings.push_back({one["mm"].get<double>(), optionalText(member + ".takings", one, "typed")});
      if (const auto problem = measureProblem(id, takings.back().mm))
        return fail(member + ".takings", problem->what, problem->remedy);
      holdAgainst(id, member + ".takings", takings.back().typed, takings.back().mm);
    }
    const Json use = entry.contains("use") ? entry["use"] : Json("last");
    if (use != "last" && use != "mean") return fail(member + ".use", "is neither last nor mean", "use last or mean");
    if (takings.empty()) return;
    const double mm = measure.mm;
    measure = measureOf(std::move(takings), use == "mean" ? Use::Mean : Use::Last, measure.note);
    if (std::abs(measure.mm - mm) > 1e-6)
      fail(member, msg("\"mm\" is {} but its takings give {}", mm, measure.mm), "make the two agree");
    measure.mm = mm;  // as written: files do not change by being read
  }

  void readBook() {
    if (!doc_.contains("book")) return;
    const Json& book = doc_["book"];
    const auto id = [&](const char* key) {
      return book.is_object() && book.contains(key) && book[key].is_string() ? book[key].get<std::string>()
                                                                             : std::string();
    };
    file_.order.book = {id("client"), id("set")};
    if (file_.order.book.client.empty() || file_.order.book.set.empty())
      fail("book", "does not name a client and a set", "give both ids, or leave \"book\" out");
  }

  void readChoices() {
    if (!doc_.contains("choices")) return;
    if (!doc_["choices"].is_object())
      return fail("choices", "is not an object", "it should be { \"hem.length\": \"5 in\", ... }");
    for (const auto& [key, value] : doc_["choices"].items()) {
      const std::string member = "choices." + key;
      if (!value.is_string()) return fail(member, "is not text", "write lengths with their unit: \"5 in\"");
      if (!isChoiceKey(key)) {
        warn(fmt::format("the choice \"{}\" is not known; it is kept but not used", quotable(key)));
        file_.order.choices[key] = value.get<std::string>();
        continue;
      }
      const Result<std::string> checked = checkChoice(key, value.get<std::string>(), Unit::Millimetre);
      if (!checked.ok()) return fail(member, checked.problem().what, checked.problem().remedy);
      file_.order.choices[key] = value.get<std::string>();  // as written: files do not change by being read
    }
  }

  const Json& doc_;
  const std::string& name_;
  OrderFile file_;
  size_t unsaid_ = 0;  // warnings
  std::optional<Problem> problem_;
};

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

// Measures in the order of the table, unknown ones after; members of an entry we do not know are kept.
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

Problem tooLarge(const std::string& where) {
  return {verbatim(where), msg("the order would have more than {} MB", kLargestFile >> 20),
          "shorten its notes, or take away what it carries from elsewhere"};
}

}  // namespace

Result<OrderFile> parseOrder(std::string_view text, const std::string& name) {
  if (text.find_first_not_of(" \t\r\n") == std::string_view::npos)
    return Problem{verbatim(name), "the file is empty", "open another copy, or the autosaved one"};
  try {
    const Result<BoundedJson> json = parseBounded(text, name);
    if (!json.ok()) return json.problem();
    OrderReader reader(json->doc, name);
    for (const std::string& member : json->doubled)
      reader.warn(fmt::format("{} stands twice; the last one counts", member));
    Result<OrderFile> file = std::move(reader).read();
    if (!file.ok()) return file.problem();
    OrderFile value = std::move(file).value();
    value.original = std::string(text);
    if (orderText(value).size() > kLargestFile) return tooLarge(name);
    return value;
  } catch (const Json::exception& e) {
    return Problem{verbatim(name), msg("the file cannot be understood ({})", quotable(e.what())),
                   "compare it with docs/format/order.schema.json"};
  }
}

Result<OrderFile> readOrder(const std::filesystem::path& path) {
  const Result<std::string> text = readFile(path);
  if (!text.ok()) return text.problem();
  return parseOrder(*text, quotable(path.string()));
}

std::string orderText(const OrderFile& file) {
  Json doc = Json::object();
  if (!file.original.empty())
    if (Result<BoundedJson> kept = parseBounded(file.original, ""); kept.ok() && kept->doc.is_object())
      doc = std::move(kept).value().doc;
  const Order& o = file.order;
  doc["format"] = kFormat;
  doc["version"] = kOrderVersion;
  doc["title"] = o.title;
  doc["client"] = o.client;
  doc["date"] = o.date;
  doc["notes"] = o.notes;
  doc["units"] = unitSymbol(o.units.unit);
  doc["inchFraction"] = o.units.inchFraction;
  doc["style"] = o.style;
  doc["school"] = o.school;
  doc["measures"] = measuresJson(o.measures, doc.contains("measures") ? doc["measures"] : Json());
  if (o.book == BookReference{}) {
    doc.erase("book");
  } else {
    Json book = doc.contains("book") && doc["book"].is_object() ? doc["book"] : Json::object();
    book["client"] = o.book.client;
    book["set"] = o.book.set;
    doc["book"] = std::move(book);
  }
  Json choices = Json::object();
  auto& object = choices.get_ref<Json::object_t&>();
  for (const auto& [key, value] : o.choices) object.Json::object_t::Container::emplace_back(key, value);
  doc["choices"] = std::move(choices);
  return jsonText(doc);
}

std::optional<Problem> writeOrder(const std::filesystem::path& path, const OrderFile& file) {
  const std::string text = orderText(file);
  if (text.size() > kLargestFile) return tooLarge(quotable(path.string()));
  return writeFileAtomically(path, text, Readers::Owner);
}

}  // namespace armure
