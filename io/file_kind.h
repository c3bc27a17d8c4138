// io/file_kind.h
//
// What kind of file stands under a name, told by its content, and whether it may be written over: nothing is lost
// because two names were mixed up.
#pragma once

#include <filesystem>
#include <optional>
#include <string_view>
#include <vector>

#include "result.h"

namespace armure {

enum class FileKind { Nothing, Empty, Order, Base, Pieces, Svg, Dxf, Pdf, Html, Measures, Other };

std::string_view kindName(FileKind kind);  // "an order", "pieces", "an SVG", ...

// Told by the first 64 kB; Nothing where no such file stands.
FileKind kindOfFile(const std::filesystem::path& path);

struct Replacing {
  std::filesystem::path path;
  FileKind writes{};  // what is going to be written there
};

// Why `target` must not be written, or nothing: it is one of `inputs` (by whatever name), or whyNotReplaced() says so
// (atomic_file.h); or, unless `force`, a file of another kind stands there.
std::optional<Problem> whyNotWritten(const Replacing& target, const std::vector<std::filesystem::path>& inputs,
                                     bool force);

}  // namespace armure
