#include "io/tape_protocol.h"

#include <fmt/format.h>

#include <cmath>

#include "io/bounded_json.h"

namespace armure {
namespace {

// A line of the tape, or nothing when it is no object. Lines are short, so that no bound but the depth is needed.
Json lineObject(std::string_view text) {
  Result<BoundedJson> json = parseBounded(text, "tape", {kLongestTapeLine, 8, 1000});
  return json.ok() && json->doc.is_object() && json->doubled.empty() ? std::move(json).value().doc : Json();
}

TapeEvent garbage(std::string text) {
  TapeEvent e{TapeEvent::Kind::Garbage};
  e.text = std::move(text);
  return e;
}

bool isNumber(const Json& doc, const char* key) {
  return doc.contains(key) && doc[key].is_number() && std::isfinite(doc[key].get<double>());
}

std::string line(const Json& doc) { return doc.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n"; }

}  // namespace

std::vector<TapeEvent> TapeInbox::feed(std::string_view bytes) {
  std::vector<TapeEvent> events;
  while (!bytes.empty()) {
    const size_t end = bytes.find('\n');
    const std::string_view part = bytes.substr(0, end);
    if (!skipping_) rest_ += part;
    if (rest_.size() > kLongestTapeLine) {
      rest_.clear();
      skipping_ = true;
      events.push_back(garbage("a line without end"));
    }
    if (end == std::string_view::npos) break;
    bytes.remove_prefix(end + 1);
    if (!skipping_ && rest_.find_first_not_of(" \t\r") != std::string::npos) events.push_back(understand(rest_));
    rest_.clear();
    skipping_ = false;
  }
  return events;
}

void TapeInbox::disconnected() {
  rest_.clear();
  skipping_ = false;
}

TapeEvent TapeInbox::understand(std::string_view text) {
  const Json doc = lineObject(text);
  if (!doc.is_object()) return garbage("something that is not a reading");
  if (doc.contains("armure-tape")) {
    if (doc["armure-tape"] != kTapeVersion) return garbage("a tape of another version");
    TapeEvent e{TapeEvent::Kind::Hello};
    e.text = doc.contains("name") && doc["name"].is_string() ? doc["name"].get<std::string>() : std::string("tape");
    const std::string count = e.text + "\n" + (doc.contains("count") ? doc["count"].dump() : std::string());
    if (count != count_) last_ = 0;  // another tape, or one started anew, counts its own readings
    count_ = count;
    return e;
  }
  if (!isNumber(doc, "reading") || !doc["reading"].is_number_integer() || doc["reading"].get<double>() < 1 ||
      doc["reading"].get<double>() > 1e9)
    return garbage("a reading without its number");
  if (!isNumber(doc, "mm")) return garbage("a reading without a length");
  TapeEvent e{TapeEvent::Kind::Reading, doc["reading"].get<long>(), doc["mm"].get<double>()};
  if (doc.contains("age") && (!isNumber(doc, "age") || doc["age"].get<double>() < 0))
    return garbage("a reading without its age");
  e.ageMs = isNumber(doc, "age") ? doc["age"].get<double>() : 0;
  if (e.number <= last_) {
    e.kind = TapeEvent::Kind::Duplicate;
    return e;
  }
  if (e.mm <= 0 || e.mm > 10000) return garbage(fmt::format("a length of {:.6g} mm", e.mm));
  e.missed = last_ > 0 ? e.number - last_ - 1 : 0;
  last_ = e.number;
  if (e.ageMs > kLateAfterMs) e.kind = TapeEvent::Kind::Late;
  return e;
}

std::string tapeHello(std::string_view name, std::string_view count) {
  return line({{"armure-tape", kTapeVersion}, {"name", std::string(name)}, {"count", std::string(count)}});
}

std::string tapeReading(long number, double mm, double ageMs) {
  return line({{"reading", number}, {"mm", mm}, {"age", ageMs}});
}

std::string tapeTaken(long number) { return line({{"taken", number}}); }

long takenNumber(std::string_view text) {
  const Json doc = lineObject(text);
  return doc.is_object() && doc.contains("taken") && doc["taken"].is_number_integer() ? doc["taken"].get<long>() : 0;
}

}  // namespace armure
