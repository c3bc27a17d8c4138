// io/atomic_file.h
//
// Reading and writing whole files. A file is written beside its target, flushed to the disk and renamed over it, so
// that a full disk, a crash or a pulled plug leaves either the old file or the new one, never half of one. What a
// killed program left beside it is removed at the next save in that folder.
//
// Only regular files are read and replaced: a device, a pipe or a socket under that name is refused, and so is a file
// that is write-protected.
#pragma once

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "result.h"

namespace armure {

// Largest file this program reads, bytes: no order or measurement list comes near it.
inline constexpr std::uintmax_t kLargestFile = 16u << 20;

// A regular file of at most kLargestFile bytes.
Result<std::string> readFile(const std::filesystem::path& path);

// Who may read a file that is new; one that stands keeps its permissions.
enum class Readers {
  Anyone,  // as the user's file mask has it: exports
  Owner,   // what belongs to a client: orders, measures, autosaves
};

struct FileToWrite {
  std::filesystem::path path;
  std::string content;
  Readers readers = Readers::Anyone;
};

// The Problem, or nothing when the file stands complete on the disk.
std::optional<Problem> writeFileAtomically(const std::filesystem::path& path, std::string_view content,
                                           Readers readers = Readers::Anyone);

// All of them or none: where one cannot be written the others are left, or put back, as they were.
std::optional<Problem> writeFilesAtomically(const std::vector<FileToWrite>& files);

// Why a name must not be written to (a folder, a device, a pipe, a socket, a write-protected file), or nothing.
std::optional<Problem> whyNotReplaced(const std::filesystem::path& path);

}  // namespace armure
