// core/measure/takings.h
//
// Reading a measure as it is typed, and taking it more than once. Several takings are divided by semicolons:
//
//   readTakings("bust", "36 1/2; 36 3/4", Unit::Inch)   -> two takings, 927.1 and 933.45 mm
//   measureOf(takings, Use::Mean, "")                   -> mm 930.275, typed "36 1/2 in; 36 3/4 in"
#pragma once

#include <string_view>
#include <vector>

#include "measure/measure_set.h"
#include "result.h"
#include "units/length.h"

namespace armure {

inline constexpr size_t kMostTakings = 9;

// Reads one taking or several. A bare number is in `bareUnit` (kilograms for weight). The Problem says what cannot be
// read, or which taking cannot be that measure.
Result<std::vector<Taking>> readTakings(std::string_view id, std::string_view text, Unit bareUnit);

// A weight in kilograms: "62.5", "62,5 kg".
Result<double> parseWeight(std::string_view text);

// The measure made of its takings, of which there must be one or more (std::invalid_argument).
TakenMeasure measureOf(std::vector<Taking> takings, Use use, std::string note);

// Every taking of a measure, one if it was taken once.
std::vector<Taking> takingsOf(const TakenMeasure& measure);

// The largest less the smallest taking, mm; 0 for one.
double takingSpread(const TakenMeasure& measure);

// The measure with one taking more.
TakenMeasure takenAgain(const TakenMeasure& measure, Taking taking);

// The measure as a field shows it in `unit`: as typed where that is in this unit, else converted to sixteenths or 0.1
// cm; takings divided by semicolons, no unit.
std::string fieldText(std::string_view id, const TakenMeasure& measure, Unit unit);

}  // namespace armure
