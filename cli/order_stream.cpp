#include "cli/order_stream.h"

#include <unistd.h>

#include <array>
#include <cerrno>
#include <cstring>

#include "io/atomic_file.h"
#include "quotable.h"

namespace armure::cli {
namespace {

Result<std::string> standardInput() {
  std::string text;
  std::array<char, 1 << 16> part;
  for (;;) {
    const ssize_t n = ::read(STDIN_FILENO, part.data(), part.size());
    if (n < 0 && errno == EINTR) continue;
    if (n < 0)
      return Problem{"standard input", msg("cannot be read: {}", verbatim(std::strerror(errno))), "name a file"};
    if (n == 0) return text;
    text.append(part.data(), static_cast<size_t>(n));
    if (text.size() > kLargestFile)
      return Problem{"standard input", "is larger than any order", "send the text of one order or list of measures"};
  }
}

Result<std::string> textOf(const std::string& path) { return path == kStream ? standardInput() : readFile(path); }

std::vector<std::filesystem::path> filesOf(const std::vector<std::string>& inputs) {
  std::vector<std::filesystem::path> files;
  for (const std::string& input : inputs)
    if (input != kStream) files.emplace_back(input);
  return files;
}

}  // namespace

std::string nameOf(const std::string& path) { return path == kStream ? "standard input" : quotable(path); }

Result<OrderFile> orderToChange(const std::string& path) {
  const Result<std::string> text = textOf(path);
  if (!text.ok()) return text.problem();
  return parseOrder(*text, nameOf(path));
}

Result<OrderFile> orderFrom(const Printer& out, const std::string& path) {
  Result<OrderFile> file = orderToChange(path);
  if (file.ok() && out.units) file->order.units.unit = *out.units;
  return file;
}

Result<MeasurementFile> measurementsFrom(const std::string& path) {
  const Result<std::string> text = textOf(path);
  if (!text.ok()) return text.problem();
  return parseMeasurements(*text, nameOf(path));
}

std::optional<Problem> whyNotTo(const std::string& path, FileKind writes, const std::vector<std::string>& inputs,
                                bool force) {
  if (path == kStream) return std::nullopt;
  return whyNotWritten({path, writes}, filesOf(inputs), force);
}

std::optional<Problem> orderTo(Printer& out, const std::string& path, const OrderFile& file) {
  if (path != kStream) return writeOrder(path, file);
  out.write(orderText(file));
  return std::nullopt;
}

}  // namespace armure::cli
