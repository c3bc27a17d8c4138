// cli/commands.h
//
// The commands of armure-cli. Each prints to stdout, explains problems on stderr as "armure-cli: WHERE: WHAT; REMEDY",
// and returns the exit code: 0 done, 1 something fails the balance sheet, 2 bad input.
#pragma once

#include <string>
#include <vector>

namespace armure::cli {

inline constexpr int kDone = 0, kFails = 1, kBadInput = 2;

struct NewArguments {
  std::string measurements, style, school, output, title;
  std::vector<std::string> settings;  // KEY=VALUE
};
struct ExportArguments {
  std::string order, pieces, svg, pdf, measurements, paper;
};

int newOrder(const NewArguments& arguments);
int check(const std::string& order, bool asJson);
int exportFiles(const ExportArguments& arguments);
int set(const std::string& order, const std::vector<std::string>& settings, const std::string& output);
int measures(const std::string& order, bool asJson);
int styles();
int schools();
int keys();

}  // namespace armure::cli
