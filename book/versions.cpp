#include "book/versions.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <QDateTime>
#include <algorithm>
#include <charconv>
#include <fstream>

#include "book/statement.h"

namespace armure {
namespace {

namespace fs = std::filesystem;

int numberOf(const fs::path& version) {
  const std::string stem = version.stem().string();
  int number = 0;
  std::from_chars(stem.data(), stem.data() + stem.size(), number);
  return number;
}

void overwrite(const fs::path& file) {
  std::error_code failed;
  const auto size = fs::file_size(file, failed);
  std::ofstream out(file, std::ios::binary | std::ios::in);
  if (!out || failed) return;
  const std::string zeros(64u << 10, '\0');
  for (std::uintmax_t done = 0; done < size; done += zeros.size())
    out.write(zeros.data(), static_cast<std::streamsize>(std::min<std::uintmax_t>(zeros.size(), size - done)));
}

}  // namespace

fs::path BookVersions::folder() const { return fs::path(book_).concat(".versions"); }

std::vector<fs::path> BookVersions::all() const {
  std::vector<fs::path> found;
  std::error_code failed;
  for (const auto& entry : fs::directory_iterator(folder(), failed))
    if (entry.path().extension() == ".sqlite") found.push_back(entry.path());
  std::sort(found.begin(), found.end());
  return found;
}

void BookVersions::keep(const QSqlDatabase& database) const {
  std::error_code failed;
  fs::create_directories(folder(), failed);
  fs::permissions(folder(), fs::perms::owner_all, failed);
  for (const auto& entry : fs::directory_iterator(folder(), failed))
    if (entry.path().extension() == ".part") fs::remove(entry.path(), failed);
  const std::vector<fs::path> before = all();
  const int number = before.empty() ? 1 : numberOf(before.back()) + 1;
  const fs::path part = folder() / fmt::format("{:08}-{}.part", number, ::getpid());
  QSqlQuery copy = statement(database, "VACUUM INTO ?", {sqlText(part.string())});
  const mode_t mask = ::umask(0077);
  const bool done = copy.exec();
  ::umask(mask);
  if (!done) {
    fs::remove(part, failed);
    return;
  }
  fs::rename(part, folder() / fmt::format("{:08}.sqlite", number), failed);
  const std::vector<fs::path> now = all();
  for (size_t i = 0; i + kKeptVersions < now.size(); ++i) fs::remove(now[i], failed);
}

void BookVersions::drop() const {
  std::error_code failed;
  for (const fs::path& version : all()) {
    overwrite(version);
    fs::remove(version, failed);
  }
}

fs::path BookVersions::asideName() const {
  const std::string stamp = QDateTime::currentDateTime().toString("yyyyMMdd-HHmmss").toStdString();
  const auto named = [&](const std::string& ending) {
    return book_.parent_path() /
           fmt::format("{}.damaged-{}{}{}", book_.stem().string(), stamp, ending, book_.extension().string());
  };
  fs::path name = named("");
  for (int n = 2; fs::exists(name); ++n) name = named(fmt::format("-{}", n));
  return name;
}

}  // namespace armure
