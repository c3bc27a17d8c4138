// app/selection.h
//
// What is selected in the window.
#pragma once

#include <cstddef>
#include <optional>
#include <string>

namespace armure {

// Any of these may be empty. `working` is the key of a Working; `row` an index into the sheet.
struct Selection {
  std::string working{}, piece{}, edge{}, seam{}, level{};
  std::optional<size_t> row{};
  bool operator==(const Selection&) const = default;
};

}  // namespace armure
