// book/client_book.h
//
// The client book: every client with her dated sets of measures, in one SQLite file (docs/format/book.md). Every change
// is one transaction, on the disk before the call returns: a program killed at any moment leaves the book as it was
// before or after the change. What is deleted is overwritten with zeros, in the book and in its copies. Nothing leaves
// the disk.
//
// Disks fail. Every set, every client and the book as a whole carry a checksum (a seal); the last ten versions of the
// book are kept in a folder beside it. A book that does not agree with its seals when it is opened is put aside, as it
// is, and the newest sound version takes its place, with everything of the damaged one whose seal still holds.
#pragma once

#include <QSqlDatabase>
#include <QVariant>
#include <filesystem>
#include <functional>
#include <initializer_list>
#include <optional>
#include <string>
#include <vector>

#include "book/seals.h"
#include "book/versions.h"
#include "measure/measure_set.h"
#include "result.h"

namespace armure {

// Version 2 added the seals; a book of version 1 is sealed as it stands.
inline constexpr int kBookVersion = 2;

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
  // Opens the book, or makes a new one with its folder. Fails on a file that is no book, or one of a newer version. A
  // damaged one is replaced as described above; damage() then says what was damaged, and where everything is.
  static Result<ClientBook> open(const std::filesystem::path& file);
  ClientBook(ClientBook&& other) noexcept;
  ClientBook& operator=(ClientBook&&) = delete;
  ~ClientBook();

  const std::optional<Problem>& damage() const { return damage_; }
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
  static Result<ClientBook> openFile(const std::filesystem::path& file);
  static Result<ClientBook> replaceDamaged(const std::filesystem::path& file, const std::vector<std::string>& damaged);
  QSqlDatabase database() const;
  Seals seals() const { return Seals(database()); }
  Problem problem(const std::string& doing, const QSqlError& error) const;
  // One statement with its values; the problem says what could not be done.
  std::optional<Problem> run(const char* sql, std::initializer_list<QVariant> values, const std::string& doing) const;
  // `work` within one transaction: all of it, or nothing. Then a version is kept.
  using Work = std::function<std::optional<Problem>()>;
  std::optional<Problem> atomically(const std::string& doing, const Work& work) const;

  std::optional<Problem> prepare() const;
  std::optional<Problem> makeTables() const;
  std::optional<Problem> strangeTables() const;

  // These write within a transaction and seal what they wrote.
  std::optional<Problem> insertSet(const std::string& set, const std::string& client, const std::string& date,
                                   const MeasureSet& measures, const std::string& doing) const;
  std::optional<Problem> writeMeasures(const std::string& set, const MeasureSet& measures,
                                       const std::string& doing) const;
  std::optional<Problem> sealClient(const std::string& client, const std::string& doing) const;

  // What is damaged, in words; empty for a sound book.
  std::vector<std::string> damaged() const;
  std::optional<Problem> restore(const ClientEntry& client, const SetEntry& set, const MeasureSet& measures);
  size_t takeIntact(const ClientBook& from);  // returns how many sets

  QString connection_;
  std::filesystem::path file_;
  std::optional<Problem> damage_;
};

}  // namespace armure
