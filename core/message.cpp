#include "message.h"

#include <fmt/args.h>
#include <fmt/format.h>

#include <algorithm>
#include <ostream>

namespace armure {
namespace {

constexpr std::string_view kItself = "{}";
constexpr double kInch = 25.4, kCentimetre = 10;

std::string uncapitalised(std::string text) {
  const auto isUpper = [](char c) { return c >= 'A' && c <= 'Z'; };
  if (!text.empty() && isUpper(text[0])) text[0] = static_cast<char>(text[0] - 'A' + 'a');
  return text;
}

// Whether the n-th place of a text stands where a sentence begins.
std::vector<bool> beginnings(std::string_view text) {
  std::vector<bool> all;
  for (size_t i = 0; i < text.size(); ++i) {
    if (text[i] != '{') continue;
    if (i + 1 < text.size() && text[i + 1] == '{') {
      ++i;
      continue;
    }
    all.push_back(i == 0 || text.substr(0, i).ends_with(": "));
  }
  return all;
}

class Speaker {
 public:
  explicit Speaker(const Language& language) : language_(language) {}

  std::string say(const Message& m) const {
    if (m.arguments().empty()) return translated(m.id());
    const std::string text = m.isVerbatim() ? std::string(kItself) : translated(m.id());
    const std::vector<bool> begins = beginnings(text);
    fmt::dynamic_format_arg_store<fmt::format_context> store;
    for (size_t i = 0; i < m.arguments().size(); ++i) push(store, m.arguments()[i], i < begins.size() && begins[i]);
    return fmt::vformat(text, store);
  }

 private:
  std::string translated(std::string_view id) const { return language_.text ? language_.text(id) : std::string(id); }

  void push(auto& store, const MessageArgument& argument, bool begins) const {
    if (const double* number = std::get_if<double>(&argument)) return store.push_back(*number);
    if (const long long* count = std::get_if<long long>(&argument)) return store.push_back(*count);
    store.push_back(text(argument, begins));
  }

  std::string text(const MessageArgument& argument, bool begins) const {
    if (const Length* length = std::get_if<Length>(&argument)) return shown(length->mm);
    if (const Verbatim* verbatim = std::get_if<Verbatim>(&argument)) return verbatim->text;
    const Listed& listed = std::get<Listed>(argument);
    std::string out;
    for (size_t i = 0; i < listed.all.size(); ++i) {
      if (i > 0) out += i + 1 < listed.all.size() ? ", " : translated(listed.by == Listed::By::And ? " and " : " or ");
      const Message& m = listed.all[i];
      const std::string words = say(m);
      const bool asItIs = language_.text || (begins && i == 0) || m.isVerbatim();  // a translation has its own ways
      out += asItIs ? words : uncapitalised(words);
    }
    return out;
  }

  std::string shown(double mm) const {
    if (language_.length) return language_.length(mm);
    return fmt::format("{:.4g} cm ({:.4g} in)", mm / kCentimetre, mm / kInch);
  }

  const Language& language_;
};

}  // namespace

Message verbatim(std::string text) {
  if (text.empty()) return {};
  return Message(kItself, {Verbatim{std::move(text)}});
}

bool Message::isVerbatim() const {
  return id_ == kItself && arguments().size() == 1 && std::holds_alternative<Verbatim>(arguments()[0]);
}

bool Message::operator==(const Message& other) const {
  return id_ == other.id_ && (arguments_ == other.arguments_ || std::ranges::equal(arguments(), other.arguments()));
}

std::string say(const Message& message, const Language& language) { return Speaker(language).say(message); }

std::string english(const Message& message) { return say(message, {}); }

std::ostream& operator<<(std::ostream& out, const Message& message) { return out << english(message); }

std::string capitalised(std::string text) {
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

}  // namespace armure
