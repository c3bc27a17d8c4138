#include "io/order_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "io/atomic_file.h"
#include "measure/measure_table.h"
#include "measure/takings.h"

namespace armure {
namespace {

using Json = nlohmann::ordered_json;

constexpr const char* kFormat = "armure-order";

std::string placeInText(std::string_view text, size_t byte) {
  const std::string_view before = text.substr(0, std::min(byte, text.size()));
  const auto line = 1 + std::count(before.begin(), before.end(), '\n');
  const size_t start = before.rfind('\n');
  const size_t column = before.size() - (start == std::string_view::npos ? 0 : start + 1);
  return fmt::format("line {}, column {}", line, std::max<size_t>(column, 1));
}

// Reads members of the file into an Order; the first thing wrong is kept.
class OrderReader {
 public:
  OrderReader(const Json& doc, const std::string& name) : doc_(doc), name_(name) {}

  Result<OrderFile> read() && {
    if (!doc_.is_object() || doc_.value("format", Json()) != kFormat)
      return Problem{name_, "this is not an Armure order", "an order file is JSON with \"format\": \"armure-order\""};
    const Json version = doc_.value("version", Json());
    if (!version.is_number_integer() || version.get<int>() < 1)
      return at("version", "the version is missing or not a whole number",
                fmt::format("it should be 1 to {}", kOrderVersion));
    if (version.get<int>() > kOrderVersion)
      return at("version",
                fmt::format("the file has version {}, this program knows up to {}", version.get<int>(), kOrderVersion),
                "open it with a newer Armure; the file was not changed");
    Order& o = file_.order;
    text("title", o.title);
    text("client", o.client);
    text("date", o.date);
    text("notes", o.notes);
    readUnits();
    text("style", o.style);
    text("school", o.school);
    if (!findStyle(o.style))
      file_.warnings.push_back(fmt::format("the style \"{}\" is not known; the rules' own defaults are used", o.style));
    if (!findSchool(o.school))
      file_.warnings.push_back(
          fmt::format("the school \"{}\" is not known; the rules' own defaults are used", o.school));
    readMeasures();
    readBook();
    readChoices();
    if (problem_) return *problem_;
    return std::move(file_);
  }

 private:
  Problem at(const std::string& member, std::string what, std::string remedy) const {
    return {fmt::format("{}, {}", name_, member), std::move(what), std::move(remedy)};
  }
  void fail(const std::string& member, std::string what, std::string remedy) {
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
      return fail("units", fmt::format("\"{}\" is not known", symbol), "use in or cm");
    file_.order.units.unit = unit.value();
    const Json fraction = doc_.value("inchFraction", Json(8));
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
      if (!findMeasure(id))
        file_.warnings.push_back(fmt::format("the measure \"{}\" is not known; it is kept but not used", id));
      const auto string = [&](const char* key) {
        return entry.contains(key) && entry[key].is_string() ? entry[key].get<std::string>() : std::string();
      };
      TakenMeasure measure{mm, string("typed"), string("note")};
      readTakings(member, entry, measure);
      file_.order.measures.set(id, std::move(measure));
    }
  }

  // Several takings: their list, and whether their mean or the last of them counts.
  void readTakings(const std::string& member, const Json& entry, TakenMeasure& measure) {
    if (!entry.contains("takings")) return;
    const char* remedy = "it should be a list like [ { \"mm\": 914.4, \"typed\": \"36 in\" }, ... ]";
    if (!entry["takings"].is_array()) return fail(member + ".takings", "is not a list", remedy);
    std::vector<Taking> takings;
    for (const Json& one : entry["takings"]) {
      if (!one.is_object() || !one.contains("mm") || !one["mm"].is_number())
        return fail(member + ".takings", "a taking has no number \"mm\"", remedy);
      takings.push_back({one["mm"].get<double>(), one.contains("typed") && one["typed"].is_string()
                                                      ? one["typed"].get<std::string>()
                                                      : std::string()});
      const std::string id = member.substr(member.find('.') + 1);
      if (const auto problem = measureProblem(id, takings.back().mm))
        return fail(member + ".takings", problem->what, problem->remedy);
    }
    const Json use = entry.value("use", Json("last"));
    if (use != "last" && use != "mean") return fail(member + ".use", "is neither last nor mean", "use last or mean");
    if (takings.empty()) return;
    const double mm = measure.mm;
    measure = measureOf(std::move(takings), use == "mean" ? Use::Mean : Use::Last, measure.note);
    if (std::abs(measure.mm - mm) > 1e-6)
      fail(member, fmt::format("\"mm\" is {} but its takings give {}", mm, measure.mm), "make the two agree");
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
      if (!findRule(key) && !parseShapingKey(key) && !seamOfKey(key) && !lockOfKey(key)) {
        file_.warnings.push_back(fmt::format("the choice \"{}\" is not known; it is kept but not used", key));
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
  std::optional<Problem> problem_;
};

// Measures in the order of the table, unknown ones after; members of an entry we do not know are kept.
Json measuresJson(const MeasureSet& measures, const Json& old) {
  Json out = Json::object();
  const auto put = [&](const std::string& id, const TakenMeasure& m) {
    Json entry = old.is_object() && old.contains(id) && old[id].is_object() ? old[id] : Json::object();
    entry["mm"] = m.mm;
    entry["typed"] = m.typed;
    if (!m.note.empty() || entry.contains("note")) entry["note"] = m.note;
    entry.erase("takings");
    entry.erase("use");
    if (!m.takings.empty()) {
      Json takings = Json::array();
      for (const Taking& t : m.takings) takings.push_back({{"mm", t.mm}, {"typed", t.typed}});
      entry["takings"] = std::move(takings);
      entry["use"] = m.use == Use::Mean ? "mean" : "last";
    }
    out[id] = std::move(entry);
  };
  for (const MeasureInfo& info : measureTable())
    if (const auto it = measures.all().find(info.id); it != measures.all().end()) put(it->first, it->second);
  for (const auto& [id, m] : measures.all())
    if (!findMeasure(id)) put(id, m);
  return out;
}

}  // namespace

Result<OrderFile> parseOrder(std::string_view text, const std::string& name) {
  if (text.find_first_not_of(" \t\r\n") == std::string_view::npos)
    return Problem{name, "the file is empty", "open another copy, or the autosaved one"};
  try {
    const Json doc = Json::parse(text.begin(), text.end());
    Result<OrderFile> file = OrderReader(doc, name).read();
    if (!file.ok()) return file.problem();
    OrderFile value = std::move(file).value();
    value.original = std::string(text);
    return value;
  } catch (const Json::parse_error& e) {
    const bool cut = e.byte >= text.size();
    return Problem{fmt::format("{}, {}", name, placeInText(text, e.byte)),
                   cut ? "the file breaks off" : "this is not valid JSON",
                   cut ? "it was not written to its end; open another copy, or the autosaved one"
                       : "mend it there, or open another copy"};
  } catch (const Json::exception& e) {
    return Problem{name, fmt::format("the file cannot be understood ({})", e.what()),
                   "compare it with docs/format/order.schema.json"};
  }
}

Result<OrderFile> readOrder(const std::filesystem::path& path) {
  const Result<std::string> text = readFile(path);
  if (!text.ok()) return text.problem();
  return parseOrder(*text, path.string());
}

std::string orderText(const OrderFile& file) {
  Json doc = file.original.empty() ? Json::object() : Json::parse(file.original, nullptr, false);
  if (!doc.is_object()) doc = Json::object();
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
  for (const auto& [key, value] : o.choices) choices[key] = value;
  doc["choices"] = std::move(choices);
  return doc.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

std::optional<Problem> writeOrder(const std::filesystem::path& path, const OrderFile& file) {
  return writeFileAtomically(path, orderText(file));
}

}  // namespace armure
