// book/versions.h
//
// The last versions of a book, kept in a folder beside it ("clients.sqlite.versions/00000042.sqlite"), readable by
// their owner only; and the names under which a damaged book is put aside.
#pragma once

#include <QSqlDatabase>
#include <filesystem>
#include <vector>

namespace armure {

inline constexpr size_t kKeptVersions = 10;

class BookVersions {
 public:
  explicit BookVersions(std::filesystem::path book) : book_(std::move(book)) {}

  std::filesystem::path folder() const;
  // Oldest first.
  std::vector<std::filesystem::path> all() const;

  // Keeps the book as it is now and lets go of the oldest beyond kKeptVersions. Written under another name and then
  // renamed, so that a version is whole or not there. What cannot be kept is no reason to refuse a change: no error.
  void keep(const QSqlDatabase& database) const;

  // Overwrites and removes every version: what is deleted from the book must not stand in one.
  void drop() const;

  // A free name for a damaged book, beside it: "clients.damaged-20261126-140533.sqlite".
  std::filesystem::path asideName() const;

 private:
  std::filesystem::path book_;
};

}  // namespace armure
