// cli/alter_commands.h
//
// The commands of armure-cli that alter a pattern: bases kept and listed, orders recalculated from one, the table of
// shifts, single alterations.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cli/printer.h"

namespace armure::cli {

struct KeepArguments {
  std::string order, measured, name, output;  // without an output into the maker's library
  bool force = false;
};
struct RecalcArguments {
  std::string base, measurements, from, rest, title, output;
  std::vector<std::string> cells;     // CELL=LENGTH
  std::vector<std::string> settings;  // KEY=VALUE
  bool force = false;
};
struct AlterArguments {
  std::string order, output;
  std::string line, from, to, by, sides, name, why;
  std::string off, on, remove;  // ids of alterations
  bool along = false, list = false, json = false, force = false;
};

int keepBase(Printer& out, const KeepArguments& arguments);
int listBases(Printer& out, const std::string& folder, bool asJson);
int recalcFromBase(Printer& out, const RecalcArguments& arguments);
int shifts(Printer& out, const std::string& order, bool asJson);
int alterOrder(Printer& out, const AlterArguments& arguments);

}  // namespace armure::cli
