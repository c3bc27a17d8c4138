#include "io/atomic_file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <fstream>
#include <utility>

namespace armure {
namespace {

Problem systemProblem(const std::filesystem::path& path, std::string_view doing, int error) {
  std::string remedy = "check the path and try another folder";
  if (error == ENOSPC || error == EDQUOT)
    remedy = "the disk is full: free some space or save elsewhere; nothing was overwritten";
  if (error == EACCES || error == EPERM || error == EROFS)
    remedy = "this folder may not be written to: choose another one; nothing was overwritten";
  return {path.string(), fmt::format("{}: {}", doing, std::strerror(error)), remedy};
}

class Descriptor {
 public:
  explicit Descriptor(int fd) : fd_(fd) {}
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  ~Descriptor() {
    if (fd_ >= 0) ::close(fd_);
  }
  int get() const { return fd_; }
  // Closes and reports: a full disk may show only here.
  bool close() { return ::close(std::exchange(fd_, -1)) == 0; }

 private:
  int fd_;
};

bool writeAll(int fd, std::string_view content) {
  while (!content.empty()) {
    const ssize_t n = ::write(fd, content.data(), content.size());
    if (n < 0 && errno == EINTR) continue;
    if (n <= 0) return false;
    content.remove_prefix(static_cast<size_t>(n));
  }
  return true;
}

// The file a link points at, so that saving through a link does not replace the link.
std::filesystem::path realTarget(const std::filesystem::path& path) {
  std::error_code error;
  if (!std::filesystem::is_symlink(path, error)) return path;
  const auto real = std::filesystem::canonical(path, error);
  return error ? path : real;
}

}  // namespace

Result<std::string> readFile(const std::filesystem::path& path) {
  std::error_code error;
  if (!std::filesystem::exists(path, error))
    return Problem{path.string(), "there is no such file", "check the name and the folder"};
  if (std::filesystem::is_directory(path, error))
    return Problem{path.string(), "this is a folder", "name a file in it"};
  const auto size = std::filesystem::file_size(path, error);
  if (!error && size > kLargestFile)
    return Problem{path.string(), fmt::format("the file has {} MB", size >> 20),
                   "no file of this program is larger than 64 MB"};
  std::ifstream in(path, std::ios::binary);
  if (!in)
    return Problem{path.string(), fmt::format("cannot be opened: {}", std::strerror(errno)),
                   "check that you may read it"};
  std::string content((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
  if (in.bad()) return Problem{path.string(), "cannot be read to its end", "check the disk"};
  return content;
}

std::optional<Problem> writeFileAtomically(const std::filesystem::path& target, std::string_view content) {
  const std::filesystem::path path = realTarget(target);
  std::string temporary = (path.parent_path() / fmt::format(".{}.XXXXXX", path.filename().string())).string();
  Descriptor fd(::mkstemp(temporary.data()));
  if (fd.get() < 0) return systemProblem(target, "cannot be written", errno);
  const auto fail = [&](std::string_view doing) {
    const int error = errno;
    ::unlink(temporary.c_str());
    return systemProblem(target, doing, error);
  };
  struct stat old {};
  const mode_t mask = ::umask(0);
  ::umask(mask);
  const mode_t mode = ::stat(path.c_str(), &old) == 0 ? old.st_mode & 07777 : 0666 & ~mask;
  if (::fchmod(fd.get(), mode) != 0) return fail("cannot be written");
  if (!writeAll(fd.get(), content)) return fail("cannot be written");
  if (::fsync(fd.get()) != 0) return fail("cannot be flushed to the disk");
  if (!fd.close()) return fail("cannot be closed");
  if (::rename(temporary.c_str(), path.c_str()) != 0) return fail("cannot be put in place");
  const std::filesystem::path folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
  const Descriptor dir(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
  if (dir.get() >= 0) ::fsync(dir.get());
  return std::nullopt;
}

}  // namespace armure
