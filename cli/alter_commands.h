// cli/alter_commands.h
//
// The commands of armure-cli that alter a pattern: bases kept, imported and listed, orders recalculated from one, the
// table of shifts, single alterations.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cli/printer.h"

namespace armure::cli {

struct KeepArguments {
  std::string order, measured, name, date, output;  // without an output into the maker's library
  bool force = false;
};
// A drawing read as a base: without names what is guessed of it is written.
struct ImportArguments {
  std::string drawing, scale, known, names, measured, name, date, output;
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
  std::string line, from, to, by, sides, half, name, date, why;
  std::string off, on, remove;  // ids of alterations
  bool along = false, list = false, json = false, force = false;
};

// A note of a fitting: of a complaint of the table, changed by what else is said, or in full.
struct FitArguments {
  std::string order, output;
  std::string date, on, gap;  // of the fitting; one of that date is added to
  std::string complaint, line, work, from, to, by, half, seen;
  bool take = false, complaints = false, json = false, force = false;
};

int keepBase(Printer& out, const KeepArguments& arguments);
int importBase(Printer& out, const ImportArguments& arguments);
int listBases(Printer& out, const std::string& folder, bool asJson);
int recalcFromBase(Printer& out, const RecalcArguments& arguments);
int shifts(Printer& out, const std::string& order, bool asJson);
int alterOrder(Printer& out, const AlterArguments& arguments);
int fit(Printer& out, const FitArguments& arguments);

}  // namespace armure::cli
