// cli/printer.h
//
// What a command says on its standard output: gathered, and written at the end in one go, so that a full disk or a
// closed pipe is told like any other failure.
#pragma once

#include <fmt/format.h>

#include <optional>
#include <string>
#include <string_view>

#include "result.h"
#include "units/length.h"

namespace armure::cli {

class Printer {
 public:
  // As it was asked for; else every answer is in the units of its order, and in words.
  std::optional<Unit> units;

  template <typename... Arguments>
  void print(fmt::format_string<Arguments...> format, Arguments&&... arguments) {
    text_ += fmt::format(format, std::forward<Arguments>(arguments)...);
  }
  void write(std::string_view text) { text_ += text; }
  // Writes what was said. The Problem, or nothing.
  std::optional<Problem> flush();

 private:
  std::string text_;
};

}  // namespace armure::cli
