#include "io/atomic_file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <utility>

#include "quotable.h"

namespace armure {
namespace {

namespace fs = std::filesystem;

// Files being written are called .armure-XXXXXX.part, whatever they will be: every name the folder can hold can be
// saved. While it is written such a file is locked, so that one without a lock has been left by a program that is gone.
constexpr std::string_view kPartPrefix = ".armure-", kPartSuffix = ".part";

Message shown(const fs::path& path) { return verbatim(quotable(path.string())); }

Problem systemProblem(const fs::path& path, const Message& doing, int error) {
  Message remedy = "check the path and try another folder";
  if (error == ENOSPC || error == EDQUOT)
    remedy = "the disk is full: free some space or save elsewhere; nothing was overwritten";
  if (error == EACCES || error == EPERM || error == EROFS)
    remedy = "this folder may not be written to: choose another one; nothing was overwritten";
  if (error == ENAMETOOLONG) remedy = "choose a shorter name";
  return {shown(path), msg("{}: {}", doing, verbatim(std::strerror(error))), remedy};
}

class Descriptor {
 public:
  explicit Descriptor(int fd) : fd_(fd) {}
  Descriptor(Descriptor&& other) noexcept : fd_(std::exchange(other.fd_, -1)) {}
  Descriptor& operator=(Descriptor&&) = delete;
  ~Descriptor() {
    if (fd_ >= 0) ::close(fd_);
  }
  int get() const { return fd_; }

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
fs::path realTarget(const fs::path& path) {
  std::error_code error;
  if (!fs::is_symlink(path, error)) return path;
  const auto real = fs::canonical(path, error);
  return error ? path : real;
}

fs::path folderOf(const fs::path& path) { return path.has_parent_path() ? path.parent_path() : fs::path("."); }

mode_t modeOfNew(Readers readers) {
  if (readers == Readers::Owner) return 0600;
  const mode_t mask = ::umask(0);
  ::umask(mask);
  return 0666 & ~mask;
}

// Takes away what programs that are gone have left in a folder.
void sweep(const fs::path& folder) {
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder, error)) {
    const std::string name = entry.path().filename().string();
    if (!name.starts_with(kPartPrefix) || !name.ends_with(kPartSuffix)) continue;
    const Descriptor fd(::open(entry.path().c_str(), O_RDONLY | O_NONBLOCK | O_NOFOLLOW | O_CLOEXEC));
    if (fd.get() >= 0 && ::flock(fd.get(), LOCK_EX | LOCK_NB) == 0) ::unlink(entry.path().c_str());
  }
}

// One file on its way: written and flushed beside its target, then put in its place, or taken away again.
class PendingFile {
 public:
  PendingFile(fs::path target, Readers readers)
      : target_(std::move(target)), path_(realTarget(target_)), readers_(readers) {}
  PendingFile(PendingFile&&) noexcept = default;
  PendingFile& operator=(PendingFile&&) = delete;
  ~PendingFile() {
    if (!temporary_.empty()) ::unlink(temporary_.c_str());
    if (!old_.empty()) ::unlink(old_.c_str());
  }

  std::optional<Problem> write(std::string_view content) {
    if (auto problem = whyNotReplaced(target_)) return problem;
    if (auto problem = create()) return problem;
    const int fd = fd_.back().get();
    if (!writeAll(fd, content)) return systemProblem(target_, "cannot be written", errno);
    struct stat old {};
    const mode_t mode = ::stat(path_.c_str(), &old) == 0 ? old.st_mode & 07777 : modeOfNew(readers_);
    if (::fchmod(fd, mode) != 0) return systemProblem(target_, "cannot be written", errno);
    if (::fsync(fd) != 0) return systemProblem(target_, "cannot be flushed to the disk", errno);
    return std::nullopt;
  }

  // A new file, locked. Another program may have swept it away between the two; then once more.
  std::optional<Problem> create() {
    while (true) {
      std::string name = (folderOf(path_) / fmt::format("{}XXXXXX{}", kPartPrefix, kPartSuffix)).string();
      fd_.clear();
      fd_.emplace_back(::mkostemps(name.data(), static_cast<int>(kPartSuffix.size()), O_CLOEXEC));
      if (fd_.back().get() < 0) return systemProblem(target_, "cannot be written", errno);
      temporary_ = name;
      struct stat status {};
      ::flock(fd_.back().get(), LOCK_EX);
      if (::fstat(fd_.back().get(), &status) == 0 && status.st_nlink > 0) return std::nullopt;
    }
  }

  // Keeps the file that stands there under another name as well, to put it back.
  void keepOld() {
    struct stat old {};
    if (::stat(path_.c_str(), &old) != 0) return;
    std::string name = temporary_;
    name.replace(name.size() - kPartSuffix.size(), kPartSuffix.size(), "-old");
    name += kPartSuffix;
    if (::link(path_.c_str(), name.c_str()) == 0) old_ = name;
  }

  std::optional<Problem> putInPlace() {
    if (::rename(temporary_.c_str(), path_.c_str()) != 0)
      return systemProblem(target_, "cannot be put in place", errno);
    temporary_.clear();
    inPlace_ = true;
    return std::nullopt;
  }

  void putBack() {
    if (!inPlace_) return;
    if (old_.empty()) {
      ::unlink(path_.c_str());
    } else if (::rename(old_.c_str(), path_.c_str()) == 0) {
      old_.clear();
    }
  }

  void flushFolder() const {
    const Descriptor dir(::open(folderOf(path_).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (dir.get() >= 0) ::fsync(dir.get());
  }
  fs::path folder() const { return folderOf(path_); }

 private:
  fs::path target_, path_;
  Readers readers_;
  std::vector<Descriptor> fd_;  // holds the lock
  std::string temporary_, old_;
  bool inPlace_ = false;
};

std::string kindOf(mode_t mode) {
  if (S_ISDIR(mode)) return "a folder";
  if (S_ISFIFO(mode)) return "a pipe";
  if (S_ISSOCK(mode)) return "a socket";
  return "a device";
}

}  // namespace

std::optional<Problem> whyNotReplaced(const fs::path& path) {
  struct stat old {};
  if (path.empty()) return Problem{"", "the file has no name", "name a file"};
  if (::stat(path.c_str(), &old) != 0) return std::nullopt;
  if (!S_ISREG(old.st_mode))
    return Problem{shown(path), msg("this is {}, not a file", kindOf(old.st_mode)),
                   "give the name of a file; nothing was written"};
  if ((old.st_mode & 0222) == 0)
    return Problem{shown(path), "this file is write-protected",
                   "choose another name, or take the protection away; nothing was overwritten"};
  return std::nullopt;
}

Result<std::string> readFile(const fs::path& path) {
  // Not blocking: a pipe nobody writes to must not hold the program up.
  const Descriptor fd(::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC | O_NOCTTY));
  if (fd.get() < 0 && errno == ENOENT)
    return Problem{shown(path), "there is no such file", "check the name and the folder"};
  struct stat status {};
  if (fd.get() < 0 || ::fstat(fd.get(), &status) != 0)
    return Problem{shown(path), msg("cannot be opened: {}", verbatim(std::strerror(errno))),
                   "check that you may read it"};
  if (S_ISDIR(status.st_mode)) return Problem{shown(path), "this is a folder", "name a file in it"};
  if (!S_ISREG(status.st_mode))
    return Problem{shown(path), msg("this is {}, not a file", kindOf(status.st_mode)), "name a file"};
  const Problem tooLarge{shown(path), msg("the file has {} MB", status.st_size >> 20),
                         msg("no file of this program is larger than {} MB", kLargestFile >> 20)};
  if (static_cast<std::uintmax_t>(status.st_size) > kLargestFile) return tooLarge;
  std::string content(static_cast<size_t>(status.st_size) + 1, '\0');  // one more byte: it may have grown
  size_t have = 0;
  while (true) {
    if (have == content.size()) content.resize(content.size() + (64u << 10));
    if (have > kLargestFile) return tooLarge;
    const ssize_t n = ::read(fd.get(), content.data() + have, content.size() - have);
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return Problem{shown(path), "cannot be read to its end", "check the disk"};
    if (n == 0) break;
    have += static_cast<size_t>(n);
  }
  content.resize(have);
  return content;
}

std::optional<Problem> writeFilesAtomically(const std::vector<FileToWrite>& files) {
  std::vector<PendingFile> parts;
  parts.reserve(files.size());
  for (const FileToWrite& f : files) {
    parts.emplace_back(f.path, f.readers);
    sweep(parts.back().folder());
    if (auto problem = parts.back().write(f.content)) return problem;
  }
  if (parts.size() > 1)
    for (PendingFile& part : parts) part.keepOld();
  for (PendingFile& part : parts)
    if (auto problem = part.putInPlace()) {
      for (PendingFile& done : parts) done.putBack();
      return problem;
    }
  for (const PendingFile& part : parts) part.flushFolder();
  return std::nullopt;
}

std::optional<Problem> writeFileAtomically(const fs::path& path, std::string_view content, Readers readers) {
  return writeFilesAtomically({{path, std::string(content), readers}});
}

}  // namespace armure
