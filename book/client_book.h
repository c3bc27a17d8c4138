// book/client_book.h
//
// The client book: every client with her dated sets of measures, in one SQLite file (docs/format/book.md). Every change
// is one transaction, on the disk before the call returns: a program killed at any moment leaves the book as it was
// before or after the change. What is deleted is overwritten with zeros. Nothing leaves the disk.
#pragma once

#include <QSqlDatabase>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "measure/measure_set.h"
#include "result.h"

namespace armure {

inline constexpr int kBookVersion = 1;

struct ClientEntry {
  std::string id;
  std::string name;
  int sets = 0;
};

struct SetEntry {
  std::string id;
  std::string client;
  std::string date;  // when the measures were taken, as written: "2026-11-23"
  int measures = 0;
};

class ClientBook {
 public:
  // Opens the book, or makes a new one with its folder. Fails on a file that is no book, or one of a newer version.
  static Result<ClientBook> open(const std::filesystem::path& file);
  ClientBook(ClientBook&& other) noexcept;
  ClientBook& operator=(ClientBook&&) = delete;
  ~ClientBook();

  // $XDG_DATA_HOME/armure/clients.sqlite.
  static std::filesystem::path defaultFile();

  // By name, then id; and a client's sets by date, the newest first.
  Result<std::vector<ClientEntry>> clients() const;
  Result<std::vector<SetEntry>> sets(const std::string& client) const;
  Result<MeasureSet> measures(const std::string& set) const;

  // Returns the new id.
  Result<std::string> addClient(const std::string& name);
  Result<std::string> addSet(const std::string& client, const std::string& date, const MeasureSet& measures);
  std::optional<Problem> renameClient(const std::string& client, const std::string& name);
  // Replaces what the set holds.
  std::optional<Problem> putSet(const std::string& set, const std::string& date, const MeasureSet& measures);

  // Deleted means deleted: with all that belongs to it, and overwritten in the file.
  std::optional<Problem> deleteClient(const std::string& client);
  std::optional<Problem> deleteSet(const std::string& set);

 private:
  explicit ClientBook(QString connection, std::filesystem::path file);
  QSqlDatabase database() const;
  Problem problem(const std::string& doing, const class QSqlError& error) const;
  std::optional<Problem> run(class QSqlQuery& query, const std::string& doing) const;
  std::optional<Problem> prepare() const;
  std::optional<Problem> writeMeasures(const std::string& set, const MeasureSet& measures) const;
  // `work` within one transaction: all of it, or nothing.
  template <typename Work>
  std::optional<Problem> atomically(const std::string& doing, const Work& work) const;

  QString connection_;
  std::filesystem::path file_;
};

}  // namespace armure
