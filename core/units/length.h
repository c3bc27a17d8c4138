// core/units/length.h
//
// Lengths as makers write them. Inside the program every length is a double in millimetres; inches in eighths or
// sixteenths and centimetres exist only here, where text is read and written. Nothing here depends on the locale: a
// comma and a point both divide decimals, everywhere.
//
//   parseLength("9 1/2", Unit::Inch)   -> 241.3
//   parseLength("24,1 cm", Unit::Inch) -> 241.0
//   formatLength(241.3, {Unit::Inch, 8}) -> "9 1/2"
#pragma once

#include <string>
#include <string_view>

#include "result.h"

namespace armure {

// The international inch: 25.4 mm exactly (international yard and pound agreement, 1959).
inline constexpr double kMmPerInch = 25.4;
inline constexpr double kMmPerCm = 10.0;

constexpr double inches(double value) { return value * kMmPerInch; }
constexpr double centimetres(double value) { return value * kMmPerCm; }

enum class Unit { Inch, Centimetre, Millimetre };

double mmPer(Unit unit);
std::string_view unitSymbol(Unit unit);  // "in", "cm", "mm"

// Reads a unit symbol: in, inch, inches, ", cm, mm. The Problem names the three accepted ones.
Result<Unit> parseUnit(std::string_view text);

// A length as it was typed.
struct TypedLength {
  double mm = 0;
  std::string number;        // canonical: "9 1/2", "24.1", "-0.5"
  Unit unit{};               // the one the number is in
  bool unitWritten = false;  // the text named it; else it is the bare unit

  // The canonical form, "24.1 cm": readLength reads the same value and the same text from it, in any unit and locale.
  // This is how lengths are kept in files.
  std::string text() const;
};

// The one reader of lengths, for fields, choices, lists and tapes. Accepts whole numbers, decimals with point or comma,
// fractions ("9 1/2", "9-1/2", "1/2", "9½"; beside a whole number less than one) and an optional unit after the number
// (in, inch, inches, ", two primes, cm, mm), which then counts instead of `bareUnit`; blanks of every kind round them.
// Millimetres are rounded to 1e-9. A sign is read; whether a negative value makes sense is the caller's to say. Never
// gives NaN or infinity.
//   readLength(" 5″", Unit::Centimetre)  -> 127 mm, "5 in"
Result<TypedLength> readLength(std::string_view text, Unit bareUnit);
Result<double> parseLength(std::string_view text, Unit bareUnit);

// A plain number in the same spellings, with no unit: a share, a weight.
Result<double> parseNumber(std::string_view text);

// How lengths are shown: in which unit and, for inches, in which fraction (8, 16 or 32).
struct LengthFormat {
  Unit unit = Unit::Inch;
  int inchFraction = 8;
  bool operator==(const LengthFormat&) const = default;
};

// Without a unit symbol: "9 1/2", "24.1", "241.3". Inches are rounded to the nearest fraction, centimetres to 0.1, and
// millimetres to 0.1. Zero is never "-0".
std::string formatLength(double mm, LengthFormat format);

// With the unit: "9 1/2 in", "24.1 cm".
std::string formatLengthWithUnit(double mm, LengthFormat format);

// For small differences, where an eighth would hide what matters: "+1/32 in" or "+0.8 mm", always signed.
std::string formatDifference(double mm, LengthFormat format);

// The value as text that parseLength reads back exactly to 0.01 mm, in the given unit: fractions only when exact.
std::string formatExact(double mm, Unit unit);

}  // namespace armure
