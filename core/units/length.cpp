#include "units/length.h"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <cstdlib>
#include <numeric>
#include <optional>

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
                                              {"\xE2\x80\xB3", Unit::Inch},
                                              {"cm", Unit::Centimetre},
                                              {"mm", Unit::Millimetre},
                                              {"millimetres", Unit::Millimetre}}};

struct VulgarFraction {
  std::string_view utf8;
  std::string_view plain;
};
constexpr std::array<VulgarFraction, 9> kVulgarFractions{{{"\xC2\xBC", " 1/4"},
                                                          {"\xC2\xBD", " 1/2"},
                                                          {"\xC2\xBE", " 3/4"},
                                                          {"\xE2\x85\x9B", " 1/8"},
                                                          {"\xE2\x85\x9C", " 3/8"},
                                                          {"\xE2\x85\x9D", " 5/8"},
                                                          {"\xE2\x85\x9E", " 7/8"},
                                                          {"\xE2\x85\x93", " 1/3"},
                                                          {"\xE2\x85\x94", " 2/3"}}};

bool isSpace(char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; }
bool isDigit(char c) { return c >= '0' && c <= '9'; }

std::string_view trimmed(std::string_view s) {
  while (!s.empty() && isSpace(s.front())) s.remove_prefix(1);
  while (!s.empty() && isSpace(s.back())) s.remove_suffix(1);
  return s;
}

std::string replaceAll(std::string text, std::string_view from, std::string_view to) {
  for (size_t at = 0; (at = text.find(from, at)) != std::string::npos; at += to.size())
    text.replace(at, from.size(), to);
  return text;
}

// Vulgar fractions to plain ones, the fraction slash and the no-break space to their plain forms.
std::string plainText(std::string_view raw) {
  std::string text(raw);
  for (const VulgarFraction& f : kVulgarFractions) text = replaceAll(text, f.utf8, f.plain);
  text = replaceAll(text, "\xE2\x81\x84", "/");
  text = replaceAll(text, "\xC2\xA0", " ");
  text = replaceAll(text, "\xE2\x88\x92", "-");
  return std::string(trimmed(text));
}

Problem notALength(std::string_view text) {
  return {"", fmt::format("\"{}\" is not a length", text), "write it like 9 1/2, 9.5 or 24,1 cm"};
}

// An unsigned decimal with point or comma; digits on at least one side of it.
std::optional<double> parseDecimal(std::string_view s) {
  if (s.empty() || s.size() > 24) return std::nullopt;
  std::string digits;
  bool separator = false, any = false;
  for (char c : s) {
    if (isDigit(c)) {
      any = true;
      digits += c;
    } else if ((c == '.' || c == ',') && !separator) {
      separator = true;
      digits += '.';
    } else {
      return std::nullopt;
    }
  }
  if (!any) return std::nullopt;
  return std::strtod(digits.c_str(), nullptr);
}

std::optional<double> parseFraction(std::string_view s) {
  const size_t slash = s.find('/');
  if (slash == std::string_view::npos) return std::nullopt;
  const std::string_view top = trimmed(s.substr(0, slash)), bottom = trimmed(s.substr(slash + 1));
  for (std::string_view part : {top, bottom}) {
    if (part.empty() || part.size() > 6) return std::nullopt;
    for (char c : part)
      if (!isDigit(c)) return std::nullopt;
  }
  const double n = *parseDecimal(top), d = *parseDecimal(bottom);
  if (d == 0) return std::nullopt;
  return n / d;
}

// "9", "9.5", "1/2", "9 1/2", "9-1/2".
std::optional<double> parseNumber(std::string_view s) {
  if (s.find('/') == std::string_view::npos) return parseDecimal(s);
  const size_t gap = s.find_first_of(" \t-");
  if (gap == std::string_view::npos) return parseFraction(s);
  const auto whole = parseDecimal(trimmed(s.substr(0, gap)));
  const auto part = parseFraction(trimmed(s.substr(gap + 1)));
  if (part && !whole) return std::nullopt;
  if (!part) return parseFraction(s);  // "1 / 2": a gap inside the fraction, not before it
  if (*whole != std::floor(*whole) || *part >= 1) return std::nullopt;  // "13 8/5": digits were swapped
  return *whole + *part;
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
  const std::string_view name = trimmed(text);
  for (const UnitName& u : kUnitNames)
    if (u.text == name) return u.unit;
  if (name.empty()) return Problem{"", "the unit is missing", "write in, cm or mm"};
  return Problem{"", fmt::format("unit \"{}\" is not known", name), "write in, cm or mm"};
}

Result<double> parseLength(std::string_view raw, Unit bareUnit) {
  const std::string text = plainText(raw);
  if (text.empty()) return Problem{"", "the value is missing", "write it like 9 1/2, 9.5 or 24,1 cm"};
  std::string_view rest = text;
  double sign = 1;
  if (rest.front() == '-' || rest.front() == '+') {
    sign = rest.front() == '-' ? -1 : 1;
    rest = trimmed(rest.substr(1));
  }
  const size_t lastOfNumber = rest.find_last_of("0123456789.,/");
  if (lastOfNumber == std::string_view::npos) return notALength(raw);
  const std::string_view suffix = trimmed(rest.substr(lastOfNumber + 1));
  Unit unit = bareUnit;
  if (!suffix.empty()) {
    const Result<Unit> named = parseUnit(suffix);
    if (!named.ok()) return notALength(raw);
    unit = named.value();
  }
  const auto number = parseNumber(trimmed(rest.substr(0, lastOfNumber + 1)));
  if (!number || !std::isfinite(*number)) return notALength(raw);
  // To 1e-9 mm, so that 7 1/4 in is 184.15 and files say so.
  return sign * std::round(*number * mmPer(unit) * 1e9) / 1e9;
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
