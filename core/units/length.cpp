#include "units/length.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <numeric>
#include <optional>

#include "quotable.h"

namespace armure {
namespace {

struct UnitName {
  std::string_view text;
  Unit unit;
};
constexpr std::array<UnitName, 8> kUnitNames{{{"in", Unit::Inch},
                                              {"inch", Unit::Inch},
                                              {"inches", Unit::Inch},
                                              {"\"", Unit::Inch},
                                              {"cm", Unit::Centimetre},
                                              {"centimetres", Unit::Centimetre},
                                              {"mm", Unit::Millimetre},
                                              {"millimetres", Unit::Millimetre}}};

// What stands for something plainer, in UTF-8: fractions in one character, signs, quotes for inches, blanks.
struct Plain {
  std::string_view written, plain;
};
constexpr std::array kPlain{
    Plain{"\xC2\xBC", " 1/4"},     Plain{"\xC2\xBD", " 1/2"},     Plain{"\xC2\xBE", " 3/4"},
    Plain{"\xE2\x85\x93", " 1/3"}, Plain{"\xE2\x85\x94", " 2/3"}, Plain{"\xE2\x85\x95", " 1/5"},
    Plain{"\xE2\x85\x96", " 2/5"}, Plain{"\xE2\x85\x97", " 3/5"}, Plain{"\xE2\x85\x98", " 4/5"},
    Plain{"\xE2\x85\x99", " 1/6"}, Plain{"\xE2\x85\x9A", " 5/6"}, Plain{"\xE2\x85\x9B", " 1/8"},
    Plain{"\xE2\x85\x9C", " 3/8"}, Plain{"\xE2\x85\x9D", " 5/8"}, Plain{"\xE2\x85\x9E", " 7/8"},
    Plain{"\xE2\x81\x84", "/"},    Plain{"\xE2\x88\x95", "/"},                                 // fraction slashes
    Plain{"\xE2\x88\x92", "-"},    Plain{"\xE2\x80\x93", "-"},    Plain{"\xE2\x80\x91", "-"},  // minus, dashes
    Plain{"\xE2\x80\xB3", "\""},   Plain{"\xE2\x80\x9D", "\""},   Plain{"\xE2\x80\xB2", "'"},  // primes, quotes
    Plain{"\xE2\x80\x99", "'"},    Plain{"\xC2\xA0", " "},        Plain{"\xE2\x80\xAF", " "},  // no-break
    Plain{"\xE2\x80\x80", " "},    Plain{"\xE2\x80\x81", " "},    Plain{"\xE2\x80\x82", " "},  // U+2000 ...
    Plain{"\xE2\x80\x83", " "},    Plain{"\xE2\x80\x84", " "},    Plain{"\xE2\x80\x85", " "},
    Plain{"\xE2\x80\x86", " "},    Plain{"\xE2\x80\x87", " "},    Plain{"\xE2\x80\x88", " "},
    Plain{"\xE2\x80\x89", " "},    Plain{"\xE2\x80\x8A", " "},    Plain{"\xE2\x81\x9F", " "},
    Plain{"\xE3\x80\x80", " "},    Plain{"\xE1\x9A\x80", " "},    Plain{"\xEF\xBB\xBF", " "},
    Plain{"\xE2\x80\x8B", " "},
};

bool isDigit(char c) { return c >= '0' && c <= '9'; }
bool allDigits(std::string_view s) { return !s.empty() && std::all_of(s.begin(), s.end(), isDigit); }

// The text in plain characters, with single blanks between its words and none round them.
std::string plainText(std::string_view raw) {
  std::string text;
  const auto blank = [&] {
    if (!text.empty() && text.back() != ' ') text += ' ';
  };
  for (size_t i = 0; i < raw.size();) {
    const auto known = std::find_if(kPlain.begin(), kPlain.end(),
                                    [&](const Plain& p) { return raw.substr(i).starts_with(p.written); });
    const std::string_view next = known == kPlain.end() ? raw.substr(i, 1) : known->plain;
    i += known == kPlain.end() ? 1 : known->written.size();
    for (char c : next) {
      if (c == ' ' || (c >= '\t' && c <= '\r')) {
        blank();
      } else if (c == '\'' && !text.empty() && text.back() == '\'') {
        text.back() = '"';  // two primes
      } else {
        text += c;
      }
    }
  }
  if (!text.empty() && text.back() == ' ') text.pop_back();
  return text;
}

// What is shown of a text that was not understood: short, and nothing but characters that can be seen.
Problem notALength(std::string_view text) {
  return {"", msg("\"{}\" is not a length", quotable(text)), "write it like 9 1/2, 9.5 or 24,1 cm"};
}

// A number and how it is written plainly.
struct Number {
  double value = 0;
  std::string text;
};

// An unsigned decimal with point or comma; digits on at least one side of it.
std::optional<Number> parseDecimal(std::string_view s) {
  if (s.empty() || s.size() > 24) return std::nullopt;
  const size_t point = s.find_first_of(".,");
  const std::string_view whole = s.substr(0, point);
  const std::string_view part = point == std::string_view::npos ? std::string_view{} : s.substr(point + 1);
  if ((!whole.empty() && !allDigits(whole)) || (!part.empty() && !allDigits(part)) || (whole.empty() && part.empty()))
    return std::nullopt;
  const size_t first = std::min(whole.find_first_not_of('0'), whole.size());
  Number n{0, std::string(first == whole.size() ? "0" : whole.substr(first))};
  if (!part.empty()) {
    n.text += '.';
    n.text += part;
  }
  std::from_chars(n.text.data(), n.text.data() + n.text.size(), n.value);
  return n;
}

std::optional<Number> parseFraction(std::string_view s) {
  const size_t slash = s.find('/');
  if (slash == std::string_view::npos) return std::nullopt;
  const std::string top = plainText(s.substr(0, slash)), bottom = plainText(s.substr(slash + 1));
  for (const std::string& part : {top, bottom})
    if (!allDigits(part) || part.size() > 6) return std::nullopt;
  const Number n = *parseDecimal(top), d = *parseDecimal(bottom);
  if (d.value == 0) return std::nullopt;
  return Number{n.value / d.value, n.text + "/" + d.text};
}

// "9", "9.5", "1/2", "9 1/2", "9-1/2"; unsigned, in plain characters.
std::optional<Number> parseUnsigned(std::string_view s) {
  if (s.find('/') == std::string_view::npos) return parseDecimal(s);
  const size_t gap = s.find_first_of(" -");
  if (gap == std::string_view::npos) return parseFraction(s);
  const auto whole = parseDecimal(plainText(s.substr(0, gap)));
  const auto part = parseFraction(plainText(s.substr(gap + 1)));
  if (part && !whole) return std::nullopt;
  if (!part) return parseFraction(s);  // "1 / 2": a gap inside the fraction, not before it
  if (!allDigits(whole->text) || part->value >= 1) return std::nullopt;  // "13 8/5": digits were swapped
  return Number{whole->value + part->value, whole->text + " " + part->text};
}

std::optional<Number> parseSigned(std::string_view s) {
  const bool negative = s.starts_with('-');
  if (negative || s.starts_with('+')) s.remove_prefix(1);
  auto n = parseUnsigned(plainText(s));
  if (!n || !std::isfinite(n->value)) return std::nullopt;
  if (negative && n->value != 0) return Number{-n->value, "-" + n->text};
  return n;
}

std::string inchText(double value, int fraction) {
  const long long units = std::llround(std::abs(value) * fraction);
  const long long whole = units / fraction, rest = units % fraction;
  const std::string sign = value < 0 && units != 0 ? "-" : "";
  if (rest == 0) return fmt::format("{}{}", sign, whole);
  const long long divisor = std::gcd(rest, static_cast<long long>(fraction));
  if (whole == 0) return fmt::format("{}{}/{}", sign, rest / divisor, fraction / divisor);
  return fmt::format("{}{} {}/{}", sign, whole, rest / divisor, fraction / divisor);
}

std::string decimalText(double value, int digits) {
  std::string s = fmt::format("{:.{}f}", value, digits);
  if (s.find_first_not_of("-0.") == std::string::npos && s.front() == '-') s.erase(0, 1);
  return s;
}

}  // namespace

double mmPer(Unit unit) {
  switch (unit) {
    case Unit::Inch:
      return kMmPerInch;
    case Unit::Centimetre:
      return kMmPerCm;
    case Unit::Millimetre:
      break;
  }
  return 1.0;
}

std::string_view unitSymbol(Unit unit) {
  switch (unit) {
    case Unit::Inch:
      return "in";
    case Unit::Centimetre:
      return "cm";
    case Unit::Millimetre:
      break;
  }
  return "mm";
}

Result<Unit> parseUnit(std::string_view text) {
  const std::string name = plainText(text);
  for (const UnitName& u : kUnitNames)
    if (u.text == name) return u.unit;
  if (name.empty()) return Problem{"", "the unit is missing", "write in, cm or mm"};
  return Problem{"", msg("unit \"{}\" is not known", quotable(text)), "write in, cm or mm"};
}

std::string TypedLength::text() const { return fmt::format("{} {}", number, unitSymbol(unit)); }

Result<TypedLength> readLength(std::string_view raw, Unit bareUnit) {
  constexpr size_t kLongest = 120;  // bytes; no length is written longer
  if (raw.size() > kLongest) return notALength(raw);
  const std::string text = plainText(raw);
  if (text.empty()) return Problem{"", "the value is missing", "write it like 9 1/2, 9.5 or 24,1 cm"};
  const size_t lastOfNumber = text.find_last_of("0123456789.,/");
  if (lastOfNumber == std::string::npos) return notALength(raw);
  TypedLength length{0, {}, bareUnit, false};
  if (const std::string suffix = plainText(std::string_view(text).substr(lastOfNumber + 1)); !suffix.empty()) {
    const Result<Unit> named = parseUnit(suffix);
    if (!named.ok()) return notALength(raw);
    length.unit = named.value();
    length.unitWritten = true;
  }
  auto number = parseSigned(std::string_view(text).substr(0, lastOfNumber + 1));
  if (!number) return notALength(raw);
  // To 1e-9 mm, so that 7 1/4 in is 184.15 and files say so.
  length.mm = std::round(number->value * mmPer(length.unit) * 1e9) / 1e9;
  length.number = std::move(number->text);
  return length;
}

Result<double> parseLength(std::string_view text, Unit bareUnit) {
  const Result<TypedLength> read = readLength(text, bareUnit);
  if (!read.ok()) return read.problem();
  return read->mm;
}

Result<double> parseNumber(std::string_view raw) {
  const auto number = parseSigned(plainText(raw));
  if (!number) return Problem{"", msg("\"{}\" is not a number", quotable(raw)), "write it like 0.4 or 3/8"};
  return number->value;
}

std::string formatLength(double mm, LengthFormat format) {
  if (format.unit == Unit::Inch) return inchText(mm / kMmPerInch, format.inchFraction);
  return decimalText(mm / mmPer(format.unit), 1);
}

std::string formatLengthWithUnit(double mm, LengthFormat format) {
  return formatLength(mm, format) + " " + std::string(unitSymbol(format.unit));
}

std::string formatDifference(double mm, LengthFormat format) {
  const std::string text =
      format.unit == Unit::Inch ? inchText(mm / kMmPerInch, 32) + " in" : decimalText(mm, 1) + " mm";
  const bool isZero = text.find_first_of("123456789") == std::string::npos;
  return isZero || text.front() == '-' ? text : "+" + text;
}

std::string formatExact(double mm, Unit unit) {
  const double value = mm / mmPer(unit);
  if (unit == Unit::Inch) {
    const double sixteenths = value * 16;
    if (std::abs(sixteenths - std::round(sixteenths)) < 0.01 * 16 / kMmPerInch / 2) return inchText(value, 16);
    return decimalText(value, 3);
  }
  std::string s = decimalText(value, unit == Unit::Centimetre ? 3 : 2);
  while (s.back() == '0') s.pop_back();
  if (s.back() == '.') s.pop_back();
  return s;
}

}  // namespace armure
