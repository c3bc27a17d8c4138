// io/measurement_csv.h
//
// A client's measures as CSV: UTF-8, header "measure,value,unit,note" in any case (docs/format/measurements.md),
// divided by commas, semicolons or tabs; lines end as on any system; fields in quotation marks may hold all of these
// (RFC 4180). Units in, cm, mm (kg for weight); values as decimals or fractions. Lines starting with # and empty lines
// are skipped. Rows `client` and `date` carry text. Unknown measures are kept and warned about.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "measure/measure_set.h"
#include "result.h"
#include "units/length.h"

namespace armure {

struct MeasurementFile {
  MeasureSet measures;
  std::string client, date;
  Unit unit = Unit::Inch;             // the unit most rows use
  std::vector<std::string> warnings;  // "line 7: ..."
};

inline constexpr size_t kMostCsvRows = 10'000;

// Reads the text of a CSV file; `name` is used in Problems, which name the line.
Result<MeasurementFile> parseMeasurements(std::string_view text, const std::string& name);
Result<MeasurementFile> readMeasurements(const std::filesystem::path& path);

// Whether a text begins as such a list does.
bool looksLikeMeasures(std::string_view text);

// The measures as CSV, in the order of the measure table; each in the unit it was typed in.
std::string writeMeasurements(const MeasureSet& measures, const std::string& client, const std::string& date);

}  // namespace armure
