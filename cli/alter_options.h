// cli/alter_options.h
//
// The options of the commands that alter a pattern (alter_commands.h), and which of them was asked for.
#pragma once

#include <CLI/CLI.hpp>
#include <optional>
#include <string>

#include "cli/alter_commands.h"

namespace armure::cli {

class AlterOptions {
 public:
  // `app` keeps pointers to this: it must not outlive it.
  explicit AlterOptions(CLI::App& app);
  AlterOptions(const AlterOptions&) = delete;
  AlterOptions& operator=(const AlterOptions&) = delete;

  // After parsing: the exit code of the command asked for; nothing where it was none of these.
  std::optional<int> run(Printer& out) const;

 private:
  void addBase(CLI::App& app);
  void addRecalc(CLI::App& app);
  void addShifts(CLI::App& app);
  void addAlter(CLI::App& app);
  void addFit(CLI::App& app);

  KeepArguments kept_;
  ImportArguments imported_;
  RecalcArguments recalculated_;
  AlterArguments altered_;
  FitArguments fitted_;
  std::string folder_, order_;
  bool json_ = false;
  CLI::App *keeping_ = nullptr, *importing_ = nullptr, *listing_ = nullptr, *recalculating_ = nullptr,
           *shifting_ = nullptr, *altering_ = nullptr, *fitting_ = nullptr;
};

}  // namespace armure::cli
