// cli/complaints.h
//
// What every command says on standard error, and how it says JSON.
#pragma once

#include <fmt/format.h>

#include <cstdio>
#include <string>
#include <utility>
#include <vector>

#include "cli/commands.h"
#include "cli/order_stream.h"
#include "io/bounded_json.h"
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
      problem.where.empty() ? verbatim(nameOf(file)) : msg("{}, {}", nameOf(file), std::move(problem.where));
  return problem;
}

inline std::string text(const Json& json) { return json.dump(1, ' ', false, Json::error_handler_t::replace); }

inline void warn(const std::string& file, const std::vector<std::string>& warnings) {
  for (const std::string& w : warnings) fmt::print(stderr, "armure-cli: {}: {}\n", nameOf(file), w);
}

}  // namespace armure::cli
