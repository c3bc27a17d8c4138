// cli/said.h
//
// What several commands read from their options: one of some words, the day.
#pragma once

#include <fmt/format.h>

#include <ctime>
#include <initializer_list>
#include <string>

#include "quotable.h"
#include "result.h"

namespace armure::cli {

inline std::string today() {
  const std::time_t now = std::time(nullptr);
  std::tm local{};
  localtime_r(&now, &local);
  return fmt::format("{:04}-{:02}-{:02}", local.tm_year + 1900, local.tm_mon + 1, local.tm_mday);
}

// One of several words, or what is wrong with it.
template <typename Option, typename Word>
Result<Option> oneOf(const char* option, const std::string& said, std::initializer_list<Option> all, Word word) {
  std::string words;
  for (const Option o : all) {
    if (word(o) == said) return o;
    words += (words.empty() ? "" : ", ") + std::string(word(o));
  }
  return Problem{verbatim(option), msg("\"{}\" is not known", quotable(said)), msg("use one of {}", words)};
}

}  // namespace armure::cli
