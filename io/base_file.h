// io/base_file.h
//
// A base pattern as a file, *.armure-base: JSON, schema in docs/format/base.schema.json; and the maker's library of
// them, a folder of such files under her data folder (XDG Base Directory Specification 0.8).
#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "order/base.h"
#include "result.h"

namespace armure {

inline constexpr int kBaseVersion = 1;
inline constexpr std::string_view kBaseEnding = ".armure-base";

struct BaseFile {
  BasePattern base;
  std::string original;               // the text it was read from, for members not known
  std::vector<std::string> warnings;  // what could not be understood and is kept as it is
};

Result<BaseFile> parseBase(std::string_view text, const std::string& name);
Result<BaseFile> readBase(const std::filesystem::path& path);

// The text of the file, with a line end at its end. Writing what was read gives the same text again.
std::string baseText(const BaseFile& file);
std::optional<Problem> writeBase(const std::filesystem::path& path, const BaseFile& file);

// $XDG_DATA_HOME/armure/bases, or ~/.local/share/armure/bases.
std::filesystem::path baseFolder();

// The files of a folder that are called as bases are, by name; none where it is not there.
std::vector<std::filesystem::path> basesIn(const std::filesystem::path& folder);

// A name for a base's file in a folder that is not taken yet: letters, figures and hyphens of its own name.
std::filesystem::path newBasePath(const std::filesystem::path& folder, const std::string& name);

}  // namespace armure
