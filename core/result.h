// core/result.h
//
// How the program tells a user what went wrong. A Problem always says three things: what is wrong, where, and what
// would be right. Exceptions are kept for programmers' mistakes.
#pragma once

#include <stdexcept>
#include <string>
#include <utility>
#include <variant>

#include "message.h"

namespace armure {

struct Problem {
  Message where;   // the place: a file and line, a measure, a piece and edge
  Message what;    // what is wrong there, with the value
  Message remedy;  // what would be right

  // One line: "WHERE: WHAT; REMEDY".
  Message line() const {
    if (where.empty()) return remedy.empty() ? what : msg("{}; {}", what, remedy);
    return remedy.empty() ? msg("{}: {}", where, what) : msg("{}: {}; {}", where, what, remedy);
  }
  std::string text() const { return english(line()); }
};

// Either a value or the Problem that kept it from being made.
template <typename T>
class [[nodiscard]] Result {
 public:
  Result(T value) : content_(std::move(value)) {}
  Result(Problem problem) : content_(std::move(problem)) {}

  bool ok() const { return std::holds_alternative<T>(content_); }
  explicit operator bool() const { return ok(); }

  // The value. Throws std::logic_error when there is none: ask ok() first.
  const T& value() const& {
    if (!ok()) throw std::logic_error("Result without a value: " + problem().text());
    return std::get<T>(content_);
  }
  T& value() & {
    if (!ok()) throw std::logic_error("Result without a value: " + problem().text());
    return std::get<T>(content_);
  }
  T&& value() && {
    if (!ok()) throw std::logic_error("Result without a value: " + problem().text());
    return std::get<T>(std::move(content_));
  }
  const T& operator*() const& { return value(); }
  const T* operator->() const { return &value(); }
  T* operator->() { return &value(); }

  const Problem& problem() const { return std::get<Problem>(content_); }

 private:
  std::variant<T, Problem> content_;
};

}  // namespace armure
