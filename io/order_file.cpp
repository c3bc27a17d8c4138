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
    readState(doc_, file_.order);
    readRevisions();
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

  // The order itself, or one of its revisions.
  void readState(const Json& object, Order& o) {
    in_.text(object, "title", o.title);
    in_.text(object, "client", o.client);
    in_.text(object, "date", o.date);
    in_.text(object, "notes", o.notes);
    readUnits(object, o.units);
    in_.presets(object, o.style, o.school);
    in_.measures(object, "measures", o.measures);
    readBook(object, o.book);
    in_.choices(object, "choices", o.choices);
    readRecalculation(in_, object, o.base);
    readAlterations(in_, object, o.alterations);
    readFittings(in_, object, o.fittings);
  }

  void readRevisions() {
    constexpr size_t kMost = 500;
    in_.list(doc_, "revisions", kMost, [&](const Json& one) {
      Revision r;
      in_.text(one, "name", r.name);
      in_.text(one, "date", r.date);
      if (!one.contains("order") || !one["order"].is_object())
        return in_.fail("order", "is missing", "a revision holds the state of the order it names");
      Order state;
      in_.enter("order");
      readState(one["order"], state);
      in_.leave();
      r.order = std::make_shared<const Order>(std::move(state));
      file_.order.revisions.push_back(std::move(r));
    });
  }

  void readUnits(const Json& object, LengthFormat& units) {
    std::string symbol = "in";
    in_.text(object, "units", symbol);
    const Result<Unit> unit = parseUnit(symbol);
    if (!unit.ok() || unit.value() == Unit::Millimetre)
      return in_.fail("units", msg("\"{}\" is not known", quotable(symbol)), "use in or cm");
    units.unit = unit.value();
    if (!object.contains("inchFraction")) return;
    const Json& fraction = object["inchFraction"];
    if (fraction != 8 && fraction != 16) return in_.fail("inchFraction", "is neither 8 nor 16", "use 8 or 16");
    units.inchFraction = fraction.get<int>();
  }

  void readBook(const Json& object, BookReference& into) {
    if (!object.contains("book")) return;
    const Json& book = object["book"];
    const auto id = [&](const char* key) {
      return book.is_object() && book.contains(key) && book[key].is_string() ? book[key].get<std::string>()
                                                                             : std::string();
    };
    into = {id("client"), id("set")};
    if (into.client.empty() || into.set.empty())
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

namespace {

// The order itself, or one of its revisions, into what stood there.
void writeState(Json& doc, const Order& o) {
  doc["title"] = o.title;
  doc["client"] = o.client;
  doc["date"] = o.date;
  doc["notes"] = o.notes;
  doc["units"] = unitSymbol(o.units.unit);
  doc["inchFraction"] = o.units.inchFraction;
  doc["style"] = o.style;
  doc["school"] = o.school;
  doc["measures"] = measuresJson(o.measures, memberOf(doc, "measures"));
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
}

// Members of a revision that are not known stay with the revision at their place.
void writeRevisions(Json& doc, const std::vector<Revision>& revisions) {
  const Json old = memberOf(doc, "revisions");
  Json list = Json::array();
  for (size_t i = 0; i < revisions.size(); ++i) {
    const Revision& r = revisions[i];
    Json out = old.is_array() && i < old.size() && old[i].is_object() ? old[i] : Json::object();
    out["name"] = r.name;
    out["date"] = r.date;
    Json state = memberOf(out, "order");
    if (!state.is_object()) state = Json::object();
    writeState(state, *r.order);
    out["order"] = std::move(state);
    list.push_back(std::move(out));
  }
  if (list.empty()) {
    doc.erase("revisions");
  } else {
    doc["revisions"] = std::move(list);
  }
}

}  // namespace

std::string orderText(const OrderFile& file) {
  Json doc = Json::object();
  if (!file.original.empty())
    if (Result<BoundedJson> kept = parseBounded(file.original, ""); kept.ok() && kept->doc.is_object())
      doc = std::move(kept).value().doc;
  doc["format"] = kFormat;
  doc["version"] = kOrderVersion;
  writeState(doc, file.order);
  writeRevisions(doc, file.order.revisions);
  return jsonText(doc);
}

std::optional<Problem> writeOrder(const std::filesystem::path& path, const OrderFile& file) {
  const std::string text = orderText(file);
  if (text.size() > kLargestFile) return tooLarge(quotable(path.string()));
  return writeFileAtomically(path, text, Readers::Owner);
}

}  // namespace armure
