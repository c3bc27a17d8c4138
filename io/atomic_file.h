// io/atomic_file.h
//
// Reading and writing whole files. A file is written beside its target, flushed to the disk and renamed over it, so
// that a full disk, a crash or a pulled plug leaves either the old file or the new one, never half of one.
#pragma once

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

#include "result.h"

namespace armure {

// Largest file this program reads, bytes: no order or measurement list comes near it.
inline constexpr std::uintmax_t kLargestFile = 64u << 20;

Result<std::string> readFile(const std::filesystem::path& path);

// The Problem, or nothing when the file stands complete on the disk.
std::optional<Problem> writeFileAtomically(const std::filesystem::path& path, std::string_view content);

}  // namespace armure
