#include "book/seals.h"

#include <fmt/format.h>

#include <QCryptographicHash>

#include "book/statement.h"

namespace armure {
namespace {

QString sumOf(const std::string& content) {
  return QString::fromLatin1(
      QCryptographicHash::hash(QByteArray::fromStdString(content), QCryptographicHash::Sha256).toHex());
}

// One field of what is sealed.
void addField(std::string& content, const std::string& field) { content += fmt::format("{}:{};", field.size(), field); }

// The first column of every row; nothing can be sealed as what stands for a query that failed.
void addColumn(std::string& content, QSqlQuery&& rows) {
  if (!rows.exec()) content += "unreadable";
  while (rows.next()) addField(content, textAt(rows, 0));
}

std::optional<QSqlError> run(QSqlQuery&& query) {
  return query.exec() ? std::nullopt : std::optional(query.lastError());
}

}  // namespace

std::string Seals::contentOfSet(const std::string& set) const {
  std::string content;
  QSqlQuery head = statement(database_, "SELECT client, taken_on FROM measure_set WHERE id = ?", {sqlText(set)});
  if (!head.exec() || !head.next()) return "missing";
  for (const int column : {0, 1}) addField(content, textAt(head, column));
  QSqlQuery rows = statement(
      database_,
      "SELECT measure, number, mm, typed, note, mean FROM taking WHERE measure_set = ? ORDER BY measure, number",
      {sqlText(set)});
  if (!rows.exec()) return "unreadable";
  while (rows.next()) {
    for (const int column : {0, 1, 3, 4, 5}) addField(content, textAt(rows, column));
    addField(content, fmt::format("{:a}", rows.value(2).toDouble()));
  }
  return content;
}

std::string Seals::contentOfClient(const std::string& client) const {
  std::string content;
  QSqlQuery head = statement(database_, "SELECT name FROM client WHERE id = ?", {sqlText(client)});
  if (!head.exec() || !head.next()) return "missing";
  addField(content, textAt(head, 0));
  addColumn(content,
            statement(database_, "SELECT id FROM measure_set WHERE client = ? ORDER BY id", {sqlText(client)}));
  return content;
}

std::string Seals::contentOfBook() const {
  std::string content;
  addColumn(content, statement(database_, "SELECT id FROM client ORDER BY id"));
  return content;
}

bool Seals::holds(const std::string& of, const std::string& content) const {
  QSqlQuery query = statement(database_, "SELECT sum FROM seal WHERE of = ?", {sqlText(of)});
  return query.exec() && query.next() && query.value(0).toString() == sumOf(content);
}

std::optional<QSqlError> Seals::seal(const std::string& of, const std::string& content) const {
  return run(
      statement(database_, "INSERT OR REPLACE INTO seal (of, sum) VALUES (?, ?)", {sqlText(of), sumOf(content)}));
}

std::optional<QSqlError> Seals::sealClient(const std::string& client) const {
  if (auto failed = seal("client " + client, contentOfClient(client))) return failed;
  return sealBook();
}

std::optional<QSqlError> Seals::sealAll() const {
  QSqlQuery sets = statement(database_, "SELECT id FROM measure_set");
  if (!sets.exec()) return sets.lastError();
  while (sets.next())
    if (auto failed = sealSet(textAt(sets, 0))) return failed;
  QSqlQuery clients = statement(database_, "SELECT id FROM client");
  if (!clients.exec()) return clients.lastError();
  while (clients.next())
    if (auto failed = sealClient(textAt(clients, 0))) return failed;
  return sealBook();
}

std::optional<QSqlError> Seals::dropSet(const std::string& set) const {
  return run(statement(database_, "DELETE FROM seal WHERE of = ?", {sqlText("set " + set)}));
}

std::optional<QSqlError> Seals::dropClient(const std::string& client) const {
  if (auto failed = run(
          statement(database_, "DELETE FROM seal WHERE of IN (SELECT 'set ' || id FROM measure_set WHERE client = ?)",
                    {sqlText(client)})))
    return failed;
  return run(statement(database_, "DELETE FROM seal WHERE of = ?", {sqlText("client " + client)}));
}

}  // namespace armure
