// io/order_file.h
//
// The order file, *.armure: JSON, schema in docs/format/order.schema.json. Keys keep a fixed order so that files diff
// well. Members this version does not know are kept and written back. A broken file says where it is broken and opens
// nothing.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "order/order.h"
#include "result.h"

namespace armure {

// Version 2 added takings (several readings of one measure) and the reference to the client book; version 3 the base a
// pattern is recalculated from, alterations and fittings.
inline constexpr int kOrderVersion = 3;

struct OrderFile {
  Order order;
  std::string original;               // the text it was read from, kept for members we do not know; empty when new
  std::vector<std::string> warnings;  // what could not be understood and is kept as it is
};

Result<OrderFile> parseOrder(std::string_view text, const std::string& name);
Result<OrderFile> readOrder(const std::filesystem::path& path);

// The text of the file, with a line end at its end. Writing what was read gives the same text again.
std::string orderText(const OrderFile& file);
std::optional<Problem> writeOrder(const std::filesystem::path& path, const OrderFile& file);

}  // namespace armure
