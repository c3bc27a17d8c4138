// core/message.h
//
// What the core says to people, as data: a text of the program with places for arguments, and the arguments. The
// sentence is made where it is shown, in the reader's units and language, and is never taken apart again.
//
//   const Message m = msg("the {} line at {} is only {:.0f} mm wide", name, Length{241.3}, 12.0);
//   english(m)              -> "the waist line at 24.13 cm (9.5 in) is only 12 mm wide"
//   say(m, inInches)        -> "the waist line at 9 1/2 in is only 12 mm wide"
//
// The English text is the id, as in GNU gettext and Qt Linguist: the code says what it means, a translation is looked
// up by it, and the arguments of each text are checked by the compiler. scripts/messages lists them all in
// docs/messages.pot. Whole sentences only: one that needs another in it takes it as an argument.
#pragma once

#include <fmt/core.h>

#include <concepts>
#include <functional>
#include <iosfwd>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <variant>
#include <vector>

namespace armure {

class Message;

// A length among the arguments, mm; shown in the reader's units.
struct Length {
  double mm = 0;
  bool operator==(const Length&) const = default;
};

// Several things named in one sentence: "the waist, the hip and the hem"; alternatives with "or".
struct Listed {
  std::vector<Message> all;
  enum class By { And, Or } by = By::And;
  bool operator==(const Listed&) const;
};

// Text that is in no language: what a file or a person said, an id.
struct Verbatim {
  std::string text;
  bool operator==(const Verbatim&) const = default;
};

using MessageArgument = std::variant<double, long long, Length, Verbatim, Listed>;

class Message {
 public:
  Message() = default;
  // A text of the program without arguments. It must be a literal: the id is not copied.
  Message(const char* literal) : id_(literal) {}  // NOLINT(google-explicit-constructor)
  // One with arguments; see msg.
  Message(std::string_view id, std::vector<MessageArgument> arguments)
      : id_(id), arguments_(arguments.empty() ? nullptr : std::make_shared<const Arguments>(std::move(arguments))) {}

  bool empty() const { return id_.empty(); }
  std::string_view id() const { return id_; }
  std::span<const MessageArgument> arguments() const;
  bool isVerbatim() const;

  bool operator==(const Message& other) const;

 private:
  using Arguments = std::vector<MessageArgument>;
  std::string_view id_;
  // Shared between copies and never changed: every piece of a pattern has names, and patterns are copied with each
  // step.
  std::shared_ptr<const Arguments> arguments_;
};

inline std::span<const MessageArgument> Message::arguments() const {
  return arguments_ ? std::span<const MessageArgument>(*arguments_) : std::span<const MessageArgument>();
}

inline bool Listed::operator==(const Listed&) const = default;

// A text from a table of the program, which lives as long as the program does.
inline Message known(std::string_view tableText) { return {tableText, {}}; }
// What is in no language: a key, a file, what someone typed.
Message verbatim(std::string text);
inline Message verbatim(std::string_view text) { return verbatim(std::string(text)); }
inline Message verbatim(const char* text) { return verbatim(std::string(text)); }

namespace message_detail {

// What an argument is formatted as: numbers as themselves, everything else as text.
template <typename T>
using Shown = std::conditional_t<std::floating_point<std::remove_cvref_t<T>>, double,
                                 std::conditional_t<std::integral<std::remove_cvref_t<T>>, long long, std::string>>;

inline MessageArgument argument(std::floating_point auto number) { return static_cast<double>(number); }
inline MessageArgument argument(std::integral auto number) { return static_cast<long long>(number); }
inline MessageArgument argument(Length length) { return length; }
inline MessageArgument argument(Listed listed) { return listed; }
inline MessageArgument argument(Message message) { return Listed{{std::move(message)}}; }
inline MessageArgument argument(const char* literal) { return Listed{{Message(literal)}}; }
inline MessageArgument argument(std::string text) { return Verbatim{std::move(text)}; }

}  // namespace message_detail

// A text with arguments: numbers, lengths, messages, lists of them; a std::string is taken verbatim. The text must be a
// literal in the syntax of std::format.
template <typename... Arguments>
Message msg(fmt::format_string<message_detail::Shown<Arguments>...> text, Arguments&&... arguments) {
  const fmt::string_view id = text;
  std::vector<MessageArgument> all;
  all.reserve(sizeof...(Arguments));
  (all.push_back(message_detail::argument(std::forward<Arguments>(arguments))), ...);
  return {std::string_view(id.data(), id.size()), std::move(all)};
}

// How messages are turned into sentences.
struct Language {
  // The text for an id, in the syntax of std::format with as many places; the id itself where there is none.
  std::function<std::string(std::string_view id)> text = {};
  std::function<std::string(double mm)> length = {};  // both units where this is empty: "24.1 cm (9.5 in)"
};

// Without a translation, in English, a message that stands inside another begins with a small letter, unless it is the
// beginning or follows a colon.
std::string say(const Message& message, const Language& language);
std::string english(const Message& message);
// In English, for what is logged.
std::ostream& operator<<(std::ostream& out, const Message& message);

// Of a name at the beginning and inside a sentence; the letters A to Z only, whatever the locale.
std::string capitalised(std::string text);

}  // namespace armure
