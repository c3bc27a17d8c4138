#include "quotable.h"

#include <fmt/format.h>

namespace armure {
namespace {

// Bytes of the character that begins at `at`, or 0 where no well-formed one does (RFC 3629, section 4).
size_t characterAt(std::string_view s, size_t at) {
  const auto byte = [&](size_t i) { return at + i < s.size() ? static_cast<unsigned char>(s[at + i]) : 0u; };
  const auto follows = [&](size_t i, unsigned low = 0x80, unsigned high = 0xBF) {
    return byte(i) >= low && byte(i) <= high;
  };
  const unsigned first = byte(0);
  if (first < 0x80) return 1;
  if (first >= 0xC2 && first <= 0xDF) return follows(1) ? 2 : 0;
  if (first >= 0xE0 && first <= 0xEF) {
    const unsigned low = first == 0xE0 ? 0xA0 : 0x80, high = first == 0xED ? 0x9F : 0xBF;
    return follows(1, low, high) && follows(2) ? 3 : 0;
  }
  if (first >= 0xF0 && first <= 0xF4) {
    const unsigned low = first == 0xF0 ? 0x90 : 0x80, high = first == 0xF4 ? 0x8F : 0xBF;
    return follows(1, low, high) && follows(2) && follows(3) ? 4 : 0;
  }
  return 0;
}

}  // namespace

std::string quotable(std::string_view text) {
  std::string out;
  size_t characters = 0;
  for (size_t i = 0; i < text.size();) {
    if (characters++ == kLongestQuote) return out + "...";
    const size_t bytes = characterAt(text, i);
    const auto first = static_cast<unsigned char>(text[i]);
    const bool isC1 = bytes == 2 && first == 0xC2 && static_cast<unsigned char>(text[i + 1]) < 0xA0;
    if (bytes == 0 || (bytes == 1 && (first < 0x20 || first == 0x7F)) || isC1) {
      for (size_t k = 0; k < std::max<size_t>(bytes, 1); ++k)
        out += fmt::format("\\x{:02x}", static_cast<unsigned char>(text[i + k]));
    } else {
      out += text.substr(i, bytes);
    }
    i += std::max<size_t>(bytes, 1);
  }
  return out;
}

bool isUtf8(std::string_view text) {
  for (size_t i = 0; i < text.size();) {
    const size_t bytes = characterAt(text, i);
    if (bytes == 0) return false;
    i += bytes;
  }
  return true;
}

}  // namespace armure
