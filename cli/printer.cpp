#include "cli/printer.h"

#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <string_view>

namespace armure::cli {

std::optional<Problem> Printer::flush() {
  std::string_view rest = text_;
  while (!rest.empty()) {
    const ssize_t n = ::write(STDOUT_FILENO, rest.data(), rest.size());
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0)
      return Problem{"standard output", msg("cannot be written: {}", verbatim(std::strerror(errno))),
                     "free some space, or send it elsewhere"};
    rest.remove_prefix(static_cast<size_t>(n));
  }
  return std::nullopt;
}

}  // namespace armure::cli
