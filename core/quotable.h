// core/quotable.h
//
// Foreign text inside a message: what a file or a field said, quoted short, with nothing in it that could move the
// cursor of a terminal or break a line.
//
//   quotable("7\x1b[2J")  ->  "7\\x1b[2J"
#pragma once

#include <string>
#include <string_view>

namespace armure {

inline constexpr size_t kLongestQuote = 80;  // characters

// The first 80 characters, then "..."; control characters and bytes that are not UTF-8 as \xNN.
std::string quotable(std::string_view text);

// Whether the text is well-formed UTF-8 (RFC 3629: shortest forms, no surrogates, up to U+10FFFF).
bool isUtf8(std::string_view text);

}  // namespace armure
