#include "io/base_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdlib>

#include "io/alteration_json.h"
#include "io/atomic_file.h"
#include "io/bounded_json.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr std::string_view kFormat = "armure-base";

Result<BaseFile> fromJson(const BoundedJson& json, const std::string& name) {
  const Json& doc = json.doc;
  if (!doc.is_object() || !doc.contains("format") || doc["format"] != kFormat)
    return Problem{verbatim(name), "this is not a base pattern of Armure",
                   "a base is JSON with \"format\": \"armure-base\"; armure-cli base keep makes one of an order"};
  MemberReader in(name);
  for (const std::string& member : json.doubled) in.warn(fmt::format("{} stands twice; the last one counts", member));
  if (!doc.contains("version") || !doc["version"].is_number_integer() || doc["version"].get<double>() < 1 ||
      doc["version"].get<double>() > kBaseVersion)
    return in.at("version", "is missing, or of a version this program does not know",
                 msg("it should be {}; open others with a newer Armure", kBaseVersion));
  BaseFile file;
  readBase(in, doc, file.base);
  if (in.problem()) return *in.problem();
  file.warnings = std::move(in).warnings();
  return file;
}

}  // namespace

Result<BaseFile> parseBase(std::string_view text, const std::string& name) {
  try {
    const Result<BoundedJson> json = parseBounded(text, name);
    if (!json.ok()) return json.problem();
    Result<BaseFile> file = fromJson(*json, name);
    if (!file.ok()) return file.problem();
    file.value().original = std::string(text);
    return file;
  } catch (const Json::exception& e) {
    return Problem{verbatim(name), msg("the file cannot be understood ({})", quotable(e.what())),
                   "compare it with docs/format/base.schema.json"};
  }
}

Result<BaseFile> readBase(const std::filesystem::path& path) {
  const Result<std::string> text = readFile(path);
  if (!text.ok()) return text.problem();
  return parseBase(*text, quotable(path.string()));
}

std::string baseText(const BaseFile& file) {
  Json doc = Json::object();
  if (!file.original.empty())
    if (Result<BoundedJson> kept = parseBounded(file.original, ""); kept.ok() && kept->doc.is_object())
      doc = std::move(kept).value().doc;
  doc["format"] = kFormat;
  doc["version"] = kBaseVersion;
  writeBase(doc, file.base);
  return jsonText(doc);
}

std::optional<Problem> writeBase(const std::filesystem::path& path, const BaseFile& file) {
  const std::string text = baseText(file);
  if (text.size() > kLargestFile)
    return Problem{verbatim(quotable(path.string())), msg("the base would have more than {} MB", kLargestFile >> 20),
                   "shorten its notes"};
  return writeFileAtomically(path, text, Readers::Owner);
}

std::filesystem::path baseFolder() {
  const char *data = std::getenv("XDG_DATA_HOME"), *home = std::getenv("HOME");
  // A relative path there is to be ignored, says the specification.
  const std::filesystem::path given = data ? data : "";
  const std::filesystem::path under =
      given.is_absolute() ? given : std::filesystem::path(home ? home : ".") / ".local/share";
  return under / "armure/bases";
}

std::vector<std::filesystem::path> basesIn(const std::filesystem::path& folder) {
  std::vector<std::filesystem::path> found;
  std::error_code error;
  for (const auto& entry : std::filesystem::directory_iterator(folder, error))
    if (entry.path().extension() == kBaseEnding) found.push_back(entry.path());
  std::sort(found.begin(), found.end());
  return found;
}

std::filesystem::path newBasePath(const std::filesystem::path& folder, const std::string& name) {
  constexpr size_t kLongest = 60;
  std::string stem;
  for (const char c : name) {
    const bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
    if (plain) stem += c;
    if (!plain && !stem.empty() && stem.back() != '-') stem += '-';
    if (stem.size() >= kLongest) break;
  }
  while (!stem.empty() && stem.back() == '-') stem.pop_back();
  if (stem.empty()) stem = "base";
  std::filesystem::path path = folder / (stem + std::string(kBaseEnding));
  for (int n = 2; std::filesystem::exists(path); ++n) path = folder / fmt::format("{}-{}{}", stem, n, kBaseEnding);
  return path;
}

}  // namespace armure
