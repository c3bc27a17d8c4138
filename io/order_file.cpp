#include "io/order_file.h"

#include <fmt/format.h>

#include "io/alteration_json.h"
#include "io/atomic_file.h"
#include "io/bounded_json.h"
#include "io/member_reader.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr std::string_view kFormat = "armure-order";

// Reads members of the file into an Order; the first thing wrong is kept.
class OrderReader {
 public:
  OrderReader(const Json& doc, const std::string& name) : doc_(doc), name_(name), in_(name) {}

  Result<OrderFile> read() && {
    if (!doc_.is_object() || !doc_.contains("format") || doc_["format"] != kFormat)
      return Problem{verbatim(name_), "this is not an Armure order",
                     "an order file is JSON with \"format\": \"armure-order\""};
    if (auto problem = wrongVersion()) return *problem;
    Order& o = file_.order;
    in_.text(doc_, "title", o.title);
    in_.text(doc_, "client", o.client);
    in_.text(doc_, "date", o.date);
    in_.text(doc_, "notes", o.notes);
    readUnits();
    in_.presets(doc_, o.style, o.school);
    in_.measures(doc_, "measures", o.measures);
    readBook();
    in_.choices(doc_, "choices", o.choices);
    readRecalculation(in_, doc_, o.base);
    readAlterations(in_, doc_, o.alterations);
    readFittings(in_, doc_, o.fittings);
    if (in_.problem()) return *in_.problem();
    file_.warnings = std::move(in_).warnings();
    return std::move(file_);
  }

  void warn(std::string text) { in_.warn(std::move(text)); }

 private:
  std::optional<Problem> wrongVersion() const {
    const Json* version = doc_.contains("version") ? &doc_["version"] : nullptr;
    if (!version || !version->is_number_integer())
      return in_.at("version", "the version is missing or not a whole number",
                    msg("it should be 1 to {}", kOrderVersion));
    const double number = version->get<double>();  // of any size
    if (number > kOrderVersion)
      return in_.at("version", msg("the file has version {:.6g}, this program knows up to {}", number, kOrderVersion),
                    "open it with a newer Armure; the file was not changed");
    if (number < 1)
      return in_.at("version", msg("there is no version {:.6g}", number), msg("it should be 1 to {}", kOrderVersion));
    return std::nullopt;
  }

  void readUnits() {
    std::string symbol = "in";
    in_.text(doc_, "units", symbol);
    const Result<Unit> unit = parseUnit(symbol);
    if (!unit.ok() || unit.value() == Unit::Millimetre)
      return in_.fail("units", msg("\"{}\" is not known", quotable(symbol)), "use in or cm");
    file_.order.units.unit = unit.value();
    if (!doc_.contains("inchFraction")) return;
    const Json& fraction = doc_["inchFraction"];
    if (fraction != 8 && fraction != 16) return in_.fail("inchFraction", "is neither 8 nor 16", "use 8 or 16");
    file_.order.units.inchFraction = fraction.get<int>();
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
      in_.fail("book", "does not name a client and a set", "give both ids, or leave \"book\" out");
  }

  const Json& doc_;
  const std::string& name_;
  MemberReader in_;
  OrderFile file_;
};

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
  doc["choices"] = choicesJson(o.choices);
  writeRecalculation(doc, o.base);
  writeAlterations(doc, o.alterations);
  writeFittings(doc, o.fittings);
  return jsonText(doc);
}

std::optional<Problem> writeOrder(const std::filesystem::path& path, const OrderFile& file) {
  const std::string text = orderText(file);
  if (text.size() > kLargestFile) return tooLarge(quotable(path.string()));
  return writeFileAtomically(path, text, Readers::Owner);
}

}  // namespace armure
