// io/bounded_json.h
//
// JSON from files nobody vouches for. What is read is bounded before it is built: bytes, depth, number of values; the
// time is linear in the size of the text. Members keep their order; a name that stands twice in one object is told, and
// the last one counts.
#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <string_view>
#include <vector>

#include "result.h"

namespace armure {

using Json = nlohmann::ordered_json;

struct JsonBounds {
  size_t bytes = 16u << 20;
  size_t depth = 64;
  size_t values = 1'000'000;  // numbers, texts, lists and objects, all told
};

struct BoundedJson {
  Json doc;
  std::vector<std::string> doubled;  // "measures.bust": names that stand twice in one object; twenty at the most
};

// `name` is the file in Problems, which name line and column of what cannot be read, or the bound that is passed.
Result<BoundedJson> parseBounded(std::string_view text, const std::string& name, const JsonBounds& bounds = {});

// As text: indented, so that it diffs well, unless it has so many values that the blanks would outweigh them. Bytes
// that are not UTF-8 are replaced.
std::string jsonText(const Json& doc);

}  // namespace armure
