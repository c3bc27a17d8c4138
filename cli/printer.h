// cli/printer.h
//
// What a command says on its standard output: gathered, and written at the end in one go, so that a full disk or a
// closed pipe is told like any other failure.
#pragma once

#include <fmt/format.h>

#include <optional>
#include <string>

#include "result.h"

namespace armure::cli {

class Printer {
 public:
  template <typename... Arguments>
  void print(fmt::format_string<Arguments...> format, Arguments&&... arguments) {
    text_ += fmt::format(format, std::forward<Arguments>(arguments)...);
  }
  // Writes what was said. The Problem, or nothing.
  std::optional<Problem> flush();

 private:
  std::string text_;
};

}  // namespace armure::cli
