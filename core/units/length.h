// core/units/length.h
//
// Lengths as makers write them. Inside the program every length is a double in millimetres; inches in eighths or
// sixteenths and centimetres exist only here, where text is read and written.
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

// Reads a length. Accepts whole numbers, decimals with point or comma, fractions ("9 1/2", "9-1/2", "1/2", "9½"; beside
// a whole number less than one) and an optional unit after the number, which then counts instead of `bareUnit`. Returns
// millimetres, rounded to 1e-9. A sign is read; whether a negative value makes sense is the caller's to say. Never
// returns NaN or infinity.
Result<double> parseLength(std::string_view text, Unit bareUnit);

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
