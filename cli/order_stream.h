// cli/order_stream.h
//
// What the commands read and write: files, or "-" for standard input and output.
//
//   armure-cli set order.armure waist="30 in" -o - | armure-cli check -
#pragma once

#include <string>
#include <string_view>

#include "cli/printer.h"
#include "io/file_kind.h"
#include "io/measurement_csv.h"
#include "io/order_file.h"

namespace armure::cli {

inline constexpr std::string_view kStream = "-";
// What a file is called in a complaint or an answer.
std::string nameOf(const std::string& path);

// An order that is to be changed, as it stands.
Result<OrderFile> orderToChange(const std::string& path);
// An order that is answered about: in the units asked for, where any were.
Result<OrderFile> orderFrom(const Printer& out, const std::string& path);
Result<MeasurementFile> measurementsFrom(const std::string& path);

// Why `path` must not be written (io/file_kind.h), or nothing; a stream always may.
std::optional<Problem> whyNotTo(const std::string& path, FileKind writes, const std::vector<std::string>& inputs,
                                bool force);
// Into the file, or as the command's answer.
std::optional<Problem> orderTo(Printer& out, const std::string& path, const OrderFile& file);

}  // namespace armure::cli
