// core/rules/plain_id.h
//
// Ids that stand in keys: "satin", "front-1".
#pragma once

#include <algorithm>
#include <string_view>

namespace armure {

// Small letters, figures and single hyphens between them, at most `longest` of all.
inline bool isPlainId(std::string_view id, size_t longest) {
  const auto plain = [](char c) { return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '-'; };
  return !id.empty() && id.size() <= longest && std::ranges::all_of(id, plain) && id.front() != '-' &&
         id.back() != '-' && id.find("--") == std::string_view::npos;
}

}  // namespace armure
