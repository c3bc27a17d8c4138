// book/seals.h
//
// Checksums in the client book: of every set of measures, of every client (her name and which sets are hers) and of the
// book (which clients there are). Whatever of it is changed, lost or added behind the program's back no longer agrees
// with its seal. SHA-256 (FIPS 180-4) over the fields, each with its length before it, so that no two contents look
// alike; a length in mm as its hexadecimal double, so that not one bit may change.
#pragma once

#include <QSqlDatabase>
#include <QSqlError>
#include <optional>
#include <string>

namespace armure {

// The table the seals stand in, by "set ID", "client ID" or "book".
inline constexpr const char* kSealTable = "CREATE TABLE seal (of TEXT PRIMARY KEY, sum TEXT NOT NULL)";

class Seals {
 public:
  explicit Seals(QSqlDatabase database) : database_(std::move(database)) {}

  bool setHolds(const std::string& set) const { return holds("set " + set, contentOfSet(set)); }
  bool clientHolds(const std::string& client) const { return holds("client " + client, contentOfClient(client)); }
  bool bookHolds() const { return holds("book", contentOfBook()); }

  // What is sealed of a set: two sets are the same when these are.
  std::string contentOfSet(const std::string& set) const;

  // Seals what stands there now, within the transaction of the change. Return what the database refused.
  std::optional<QSqlError> sealSet(const std::string& set) const { return seal("set " + set, contentOfSet(set)); }
  std::optional<QSqlError> sealClient(const std::string& client) const;  // and the book
  std::optional<QSqlError> sealBook() const { return seal("book", contentOfBook()); }
  std::optional<QSqlError> sealAll() const;

  // For what is deleted.
  std::optional<QSqlError> dropSet(const std::string& set) const;
  std::optional<QSqlError> dropClient(const std::string& client) const;  // and of all her sets

 private:
  std::string contentOfClient(const std::string& client) const;
  std::string contentOfBook() const;
  bool holds(const std::string& of, const std::string& content) const;
  std::optional<QSqlError> seal(const std::string& of, const std::string& content) const;

  QSqlDatabase database_;
};

}  // namespace armure
