#include "io/file_kind.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <string>

#include "io/atomic_file.h"
#include "io/measurement_csv.h"
#include "quotable.h"

namespace armure {
namespace {

std::string beginningOf(const std::filesystem::path& path) {
  std::string text(64u << 10, '\0');
  const int fd = ::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC | O_NOCTTY);
  if (fd < 0) return {};
  const ssize_t n = ::read(fd, text.data(), text.size());
  ::close(fd);
  text.resize(n > 0 ? static_cast<size_t>(n) : 0);
  return text;
}

}  // namespace

std::string_view kindName(FileKind kind) {
  switch (kind) {
    case FileKind::Order:
      return "an order";
    case FileKind::Base:
      return "a base pattern";
    case FileKind::Pieces:
      return "a file of pieces";
    case FileKind::Svg:
      return "an SVG";
    case FileKind::Dxf:
      return "a DXF";
    case FileKind::Pdf:
      return "a PDF";
    case FileKind::Html:
      return "an HTML page";
    case FileKind::Measures:
      return "a list of measures";
    case FileKind::Nothing:
    case FileKind::Empty:
    case FileKind::Other:
      break;
  }
  return "another file";
}

FileKind kindOfFile(const std::filesystem::path& path) {
  struct stat status {};
  if (::stat(path.c_str(), &status) != 0) return FileKind::Nothing;
  if (!S_ISREG(status.st_mode)) return FileKind::Other;
  if (status.st_size == 0) return FileKind::Empty;
  const std::string text = beginningOf(path);
  const auto has = [&](std::string_view word) { return text.find(word) != std::string::npos; };
  if (text.starts_with("%PDF")) return FileKind::Pdf;
  if (has("\"armure-order\"")) return FileKind::Order;
  if (has("\"armure-base\"")) return FileKind::Base;
  if (has("\"armure-pieces\"")) return FileKind::Pieces;
  if (has("<!DOCTYPE html") || has("<html")) return FileKind::Html;
  if (has("<svg")) return FileKind::Svg;
  if (text.find("SECTION") < 80 && has("HEADER")) return FileKind::Dxf;
  return looksLikeMeasures(text) ? FileKind::Measures : FileKind::Other;
}

std::optional<Problem> whyNotWritten(const Replacing& target, const std::vector<std::filesystem::path>& inputs,
                                     bool force) {
  std::error_code error;
  const std::string shown = quotable(target.path.string());
  for (const std::filesystem::path& input : inputs)
    if (std::filesystem::equivalent(target.path, input, error))
      return Problem{verbatim(shown), "this is the file that is read", "give another name; nothing was written"};
  if (auto problem = whyNotReplaced(target.path)) return problem;
  const FileKind there = kindOfFile(target.path);
  if (force || there == FileKind::Nothing || there == FileKind::Empty || there == target.writes) return std::nullopt;
  return Problem{verbatim(shown),
                 msg("{} stands there, not {}", known(kindName(there)), known(kindName(target.writes))),
                 "give another name, or --force to write over it; nothing was written"};
}

}  // namespace armure
