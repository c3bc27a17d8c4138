// cli/complaints.h
//
// What every command says on standard error.
#pragma once

#include <fmt/format.h>

#include <cstdio>
#include <string>
#include <utility>
#include <vector>

#include "cli/commands.h"
#include "quotable.h"
#include "result.h"

namespace armure::cli {

inline int complain(const Problem& problem) {
  fmt::print(stderr, "armure-cli: {}\n", problem.text());
  return kBadInput;
}

// The same problem, with the file put before the place.
inline Problem inFile(const std::string& file, Problem problem) {
  problem.where =
      problem.where.empty() ? verbatim(quotable(file)) : msg("{}, {}", quotable(file), std::move(problem.where));
  return problem;
}

inline void warn(const std::string& file, const std::vector<std::string>& warnings) {
  for (const std::string& w : warnings) fmt::print(stderr, "armure-cli: {}: {}\n", quotable(file), w);
}

}  // namespace armure::cli
