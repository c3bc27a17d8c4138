// cli/commands.h
//
// The commands of armure-cli. Each says its answer to a Printer, explains problems on stderr as "armure-cli: WHERE:
// WHAT; REMEDY", and returns the exit code: 0 done, 1 something fails the balance sheet (check alone) or has no
// room on its cloth (lay), 2 bad input, or a file that must not be written. `new`, `set` and `export` are done when the
// order could be drafted; they say on stderr how many rows fail, and as their answer what is idle. Their files are
// written all or none.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "cli/printer.h"
#include "recalc/recalc.h"

namespace armure::cli {

inline constexpr int kDone = 0, kFails = 1, kBadInput = 2;

struct NewArguments {
  std::string measurements, style, school, output, title;
  std::vector<std::string> settings;  // KEY=VALUE
  bool force = false;                 // also over a file of another kind
  bool json = false;                  // what was done, as JSON
};
struct SetArguments {
  std::string order, output;
  std::vector<std::string> settings;
  bool force = false, json = false;
};
struct ExportArguments {
  std::vector<std::string> orders;
  std::string into;                                       // a folder, for many orders
  std::vector<std::string> as;                            // ids of exporters: what is written into it
  std::string paper;                                      // an id, or empty for the order's own
  std::string roll;                                       // a width: on a roll as wide
  std::vector<std::string> only, layers;                  // pieces, by id and by layer; all where empty
  std::map<std::string, std::string, std::less<>> files;  // by the exporter's id; empty where none is wanted
  bool force = false, json = false;

  bool asksFor(std::string_view exporter) const;
};

struct LayArguments {
  std::string order, cloth, width, svg;  // all cloths, their own widths, no drawing where empty
  double seconds = 5;                    // of search, for each cloth
  bool asJson = false, force = false;
};

// "full, a4, ... or a0": the ids of the papers.
std::string papersInWords();

// KEY=VALUE in turn, and then whether they can be meant together.
std::optional<Problem> applySettings(Order& order, const std::vector<std::string>& settings);
// Says how many rows fail, on standard error.
void tellFailing(const std::string& file, const Design& design);
// The same, and what is idle, as the command's answer; beside an order that is the answer itself, on standard error.
void tell(Printer& out, const std::string& file, const Order& order, const Design& design, bool asJson = false);

int newOrder(Printer& out, const NewArguments& arguments);
// Of many orders the exit code is the worst of theirs.
int check(Printer& out, const std::vector<std::string>& orders, bool asJson);
// `laced`: N/cm; without it the opening stands open as the pattern has it.
int tryOnBody(Printer& out, const std::string& order, const std::string& half, std::optional<double> laced,
              bool asJson);
int exportFiles(Printer& out, const ExportArguments& arguments);
int set(Printer& out, const SetArguments& arguments);
int listAll(Printer& out, const std::string& order, bool asJson);
// Exit code 1 where a piece has no room on its cloth, or there is not enough of it.
int lay(Printer& out, const LayArguments& arguments);
int measures(Printer& out, const std::string& order, bool asJson);
int styles(Printer& out, bool asJson);
int schools(Printer& out, bool asJson);
// All keys, one a line; or those about a word, by group, with what each option means.
int keys(Printer& out, const std::string& about, bool asJson);

}  // namespace armure::cli
