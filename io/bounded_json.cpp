#include "io/bounded_json.h"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_map>

#include "quotable.h"

namespace armure {
namespace {

constexpr size_t kMostDoubled = 20;
constexpr size_t kMostIndented = 20'000;  // values: beyond, a text without blanks

std::string placeInText(std::string_view text, size_t byte) {
  const std::string_view before = text.substr(0, std::min(byte, text.size()));
  const auto line = 1 + std::count(before.begin(), before.end(), '\n');
  const size_t start = before.rfind('\n');
  const size_t column = before.size() - (start == std::string_view::npos ? 0 : start + 1);
  return fmt::format("line {}, column {}", line, std::max<size_t>(column, 1));
}

// Builds the document as the parser meets it. The parser itself keeps no stack that a hostile text could exhaust; the
// bounds end it before the document could.
class Builder final : public nlohmann::json_sax<Json> {
 public:
  Builder(std::string_view text, const std::string& name, const JsonBounds& bounds)
      : text_(text), name_(name), bounds_(bounds) {}

  bool null() override { return put(Json()); }
  bool boolean(bool v) override { return put(Json(v)); }
  bool number_integer(number_integer_t v) override { return put(Json(v)); }
  bool number_unsigned(number_unsigned_t v) override { return put(Json(v)); }
  bool number_float(number_float_t v, const string_t&) override { return put(Json(v)); }
  bool string(string_t& v) override { return put(Json(std::move(v))); }
  bool binary(binary_t&) override { return false; }
  bool start_object(std::size_t) override { return open(Json::object()); }
  bool start_array(std::size_t) override { return open(Json::array()); }
  bool end_object() override { return close(); }
  bool end_array() override { return close(); }

  bool key(string_t& v) override {
    Open& top = open_.back();
    const auto [known, isNew] = top.places.emplace(v, top.members.size());
    top.at = known->second;
    if (isNew) {
      top.members.emplace_back(std::move(v), Json());
    } else if (found_.doubled.size() < kMostDoubled) {
      found_.doubled.push_back(path() + quotable(v));
    }
    return true;
  }

  bool parse_error(std::size_t byte, const std::string&, const nlohmann::detail::exception& e) override {
    if (e.id == 406)  // a number no double can hold
      return fail({msg("{}, {}", name_, placeInText(text_, byte)), "a number is too large",
                   "mend it there, or open another copy"});
    const bool cut = byte >= text_.size();
    return fail({msg("{}, {}", name_, placeInText(text_, byte)), cut ? "the file breaks off" : "this is not valid JSON",
                 cut ? "it was not written to its end; open another copy, or the autosaved one"
                     : "mend it there, or open another copy"});
  }

  Result<BoundedJson> finish() && {
    if (problem_) return *problem_;
    return std::move(found_);
  }

 private:
  // An object or list that is not closed yet. Members of an object stand here until it is: looking one up in the
  // document would search all before it.
  struct Open {
    Json value;
    std::vector<std::pair<std::string, Json>> members;
    std::unordered_map<std::string, size_t> places;
    size_t at = 0;  // the member whose value comes next
  };

  bool fail(Problem problem) {
    if (!problem_) problem_ = std::move(problem);
    return false;
  }
  std::string path() const {
    std::string text;
    for (size_t i = 0; i + 1 < open_.size(); ++i)
      text += (open_[i].value.is_object() ? quotable(open_[i].members[open_[i].at].first) : std::string("[]")) + ".";
    return text;
  }
  bool counted() {
    if (++values_ <= bounds_.values) return true;
    return fail({verbatim(name_), msg("there are more than {} values in it", bounds_.values),
                 "an order has a few hundred; open another copy"});
  }
  bool put(Json&& value) { return counted() && add(std::move(value)); }
  bool add(Json&& value) {
    if (open_.empty()) {
      found_.doc = std::move(value);
    } else if (open_.back().value.is_object()) {
      open_.back().members[open_.back().at].second = std::move(value);
    } else {
      open_.back().value.push_back(std::move(value));
    }
    return true;
  }
  bool open(Json&& value) {
    if (open_.size() >= bounds_.depth)
      return fail({verbatim(name_), msg("lists and objects stand in each other more than {} deep", bounds_.depth),
                   "an order has six levels at the most; open another copy"});
    if (!counted()) return false;
    open_.push_back({std::move(value), {}, {}, 0});
    return true;
  }
  bool close() {
    Open done = std::move(open_.back());
    open_.pop_back();
    if (done.value.is_object()) {
      auto& object = done.value.get_ref<Json::object_t&>();
      object.reserve(done.members.size());
      for (auto& [name, value] : done.members)
        object.Json::object_t::Container::emplace_back(std::move(name), std::move(value));
    }
    return add(std::move(done.value));
  }

  std::string_view text_;
  const std::string& name_;
  const JsonBounds bounds_;
  std::vector<Open> open_;
  size_t values_ = 0;
  BoundedJson found_;
  std::optional<Problem> problem_;
};

size_t valuesIn(const Json& doc, size_t enough) {
  size_t count = 1;
  if (doc.is_structured())
    for (const Json& one : doc)
      if ((count += valuesIn(one, enough)) > enough) break;
  return count;
}

}  // namespace

Result<BoundedJson> parseBounded(std::string_view text, const std::string& name, const JsonBounds& bounds) {
  if (text.size() > bounds.bytes)
    return Problem{verbatim(name), msg("it has {} MB", text.size() >> 20),
                   msg("no order is larger than {} MB", bounds.bytes >> 20)};
  Builder builder(text, name, bounds);
  Json::sax_parse(text.begin(), text.end(), &builder);
  return std::move(builder).finish();
}

std::string jsonText(const Json& doc) {
  const bool large = valuesIn(doc, kMostIndented) > kMostIndented;
  return doc.dump(large ? -1 : 2, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace armure
