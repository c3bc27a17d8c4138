#include "book/client_book.h"

#include <QSqlError>
#include <QStandardPaths>
#include <QUuid>
#include <cmath>
#include <map>

#include "book/seals.h"
#include "book/statement.h"
#include "book/versions.h"
#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"

namespace armure {
namespace {

std::string newId() { return QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString(); }

// Limits on what is read.
constexpr int kLongestText = 20'000;  // characters: a name, a note, what was typed
constexpr int kMostRows = 200'000;    // clients, sets of a client, takings of a set

}  // namespace

ClientBook::ClientBook(QString connection, std::filesystem::path file)
    : connection_(std::move(connection)), file_(std::move(file)) {}

ClientBook::ClientBook(ClientBook&& other) noexcept
    : connection_(std::exchange(other.connection_, QString())),
      file_(std::move(other.file_)),
      damage_(std::move(other.damage_)) {}

ClientBook::~ClientBook() {
  if (connection_.isEmpty()) return;
  database().close();
  QSqlDatabase::removeDatabase(connection_);
}

QSqlDatabase ClientBook::database() const { return QSqlDatabase::database(connection_, false); }

std::filesystem::path ClientBook::defaultFile() {
  return (QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/armure/clients.sqlite")
      .toStdString();
}

Problem ClientBook::problem(const std::string& doing, const QSqlError& error) const {
  return {verbatim(file_.string()), msg("could not {} ({})", doing, error.databaseText().toStdString()),
          "the book was left as it was; see that the folder can be written and the disk is not full, or move the file "
          "away to start a new book"};
}

std::optional<Problem> ClientBook::run(const char* sql, std::initializer_list<QVariant> values,
                                       const std::string& doing) const {
  QSqlQuery query = statement(database(), sql, values);
  return query.exec() ? std::nullopt : std::optional(problem(doing, query.lastError()));
}

std::optional<Problem> ClientBook::atomically(const std::string& doing, const Work& work) const {
  QSqlDatabase db = database();
  QSqlQuery begin(db);
  // IMMEDIATE: a second window waits here, not halfway.
  if (!begin.exec("BEGIN IMMEDIATE")) return problem(doing, begin.lastError());
  if (std::optional<Problem> failed = work()) {
    QSqlQuery(db).exec("ROLLBACK");
    return failed;
  }
  QSqlQuery commit(db);
  if (commit.exec("COMMIT")) {
    BookVersions(file_).keep(db);
    return std::nullopt;
  }
  const Problem failed = problem(doing, commit.lastError());
  QSqlQuery(db).exec("ROLLBACK");
  return failed;
}

Result<std::vector<ClientEntry>> ClientBook::clients() const {
  QSqlQuery query = statement(
      database(),
      "SELECT id, name, (SELECT COUNT(*) FROM measure_set WHERE client = client.id) FROM client ORDER BY name COLLATE "
      "NOCASE, id");
  if (!query.exec()) return problem("read the clients", query.lastError());
  std::vector<ClientEntry> rows;
  while (query.next() && rows.size() < kMostRows)
    rows.push_back({textAt(query, 0), textAt(query, 1), query.value(2).toInt()});
  return rows;
}

Result<std::vector<SetEntry>> ClientBook::sets(const std::string& client) const {
  QSqlQuery query = statement(
      database(),
      "SELECT id, client, taken_on, (SELECT COUNT(DISTINCT measure) FROM taking WHERE measure_set = measure_set.id) "
      "FROM measure_set WHERE client = ? ORDER BY taken_on DESC, rowid DESC",
      {sqlText(client)});
  if (!query.exec()) return problem("read the measures", query.lastError());
  std::vector<SetEntry> rows;
  while (query.next() && rows.size() < kMostRows)
    rows.push_back({textAt(query, 0), textAt(query, 1), textAt(query, 2), query.value(3).toInt()});
  return rows;
}

Result<MeasureSet> ClientBook::measures(const std::string& set) const {
  QSqlQuery query = statement(
      database(), "SELECT measure, mm, typed, note, mean FROM taking WHERE measure_set = ? ORDER BY measure, number",
      {sqlText(set)});
  if (!query.exec()) return problem("read the measures", query.lastError());
  struct Row {
    std::vector<Taking> takings;
    std::string note;
    Use use = Use::Last;
  };
  std::map<std::string, Row> rows;
  const auto damaged = [&](const Message& what) {
    return Problem{verbatim(file_.string()), msg("these measures are damaged: {}", what),
                   "close the program and start it again: the book is then restored from its last sound version"};
  };
  int count = 0;
  while (query.next()) {
    const std::string id = textAt(query, 0);
    Row& row = rows[id];
    const double mm = query.value(1).toDouble();
    if (++count > kMostRows || row.takings.size() >= kMostTakings) return damaged("there are too many");
    if (query.value(2).toString().size() > kLongestText || query.value(3).toString().size() > kLongestText)
      return damaged("a text is too long");
    if (!std::isfinite(mm) || mm <= 0) return damaged(msg("{} is {}", quotable(id), mm));
    if (const auto wrong = measureProblem(id, mm)) return damaged(wrong->what);
    row.takings.push_back({mm, textAt(query, 2)});
    row.note = textAt(query, 3);
    row.use = query.value(4).toInt() == 1 ? Use::Mean : Use::Last;
  }
  MeasureSet measures;
  for (auto& [id, row] : rows) measures.set(id, measureOf(std::move(row.takings), row.use, std::move(row.note)));
  return measures;
}

Result<std::string> ClientBook::addClient(const std::string& name) {
  const std::string id = newId(), doing = "keep the client";
  const auto failed = atomically(doing, [&]() -> std::optional<Problem> {
    if (auto problem = run("INSERT INTO client (id, name) VALUES (?, ?)", {sqlText(id), sqlText(name)}, doing))
      return problem;
    return sealClient(id, doing);
  });
  if (failed) return *failed;
  return id;
}

Result<std::string> ClientBook::addSet(const std::string& client, const std::string& date, const MeasureSet& measures) {
  const std::string id = newId(), doing = "keep the measures";
  const auto failed = atomically(doing, [&]() -> std::optional<Problem> {
    if (auto problem = insertSet(id, client, date, measures, doing)) return problem;
    return sealClient(client, doing);
  });
  if (failed) return *failed;
  return id;
}

std::optional<Problem> ClientBook::renameClient(const std::string& client, const std::string& name) {
  const std::string doing = "rename the client";
  return atomically(doing, [&]() -> std::optional<Problem> {
    if (auto failed = run("UPDATE client SET name = ? WHERE id = ?", {sqlText(name), sqlText(client)}, doing))
      return failed;
    return sealClient(client, doing);
  });
}

std::optional<Problem> ClientBook::putSet(const std::string& set, const std::string& date, const MeasureSet& measures) {
  const std::string doing = "keep the measures";
  return atomically(doing, [&]() -> std::optional<Problem> {
    QSqlQuery update =
        statement(database(), "UPDATE measure_set SET taken_on = ? WHERE id = ?", {sqlText(date), sqlText(set)});
    if (!update.exec()) return problem(doing, update.lastError());
    if (update.numRowsAffected() != 1)
      return Problem{verbatim(file_.string()), "these measures are no longer in the book", "keep them as a new set"};
    if (auto failed = run("DELETE FROM taking WHERE measure_set = ?", {sqlText(set)}, doing)) return failed;
    return writeMeasures(set, measures, doing);
  });
}

std::optional<Problem> ClientBook::insertSet(const std::string& set, const std::string& client, const std::string& date,
                                             const MeasureSet& measures, const std::string& doing) const {
  if (auto failed = run("INSERT INTO measure_set (id, client, taken_on) VALUES (?, ?, ?)",
                        {sqlText(set), sqlText(client), sqlText(date)}, doing))
    return failed;
  return writeMeasures(set, measures, doing);
}

// The takings of a set that has none, and its seal.
std::optional<Problem> ClientBook::writeMeasures(const std::string& set, const MeasureSet& measures,
                                                 const std::string& doing) const {
  for (const auto& [id, m] : measures.all()) {
    const std::vector<Taking> takings = takingsOf(m);
    for (size_t i = 0; i < takings.size(); ++i)
      if (auto failed = run(
              "INSERT INTO taking (measure_set, measure, number, mm, typed, note, mean) VALUES (?, ?, ?, ?, ?, ?, ?)",
              {sqlText(set), sqlText(id), static_cast<int>(i), takings[i].mm, sqlText(takings[i].typed),
               sqlText(m.note), m.use == Use::Mean ? 1 : 0},
              doing))
        return failed;
  }
  const auto refused = seals().sealSet(set);
  return refused ? std::optional(problem(doing, *refused)) : std::nullopt;
}

std::optional<Problem> ClientBook::sealClient(const std::string& client, const std::string& doing) const {
  const auto refused = seals().sealClient(client);
  return refused ? std::optional(problem(doing, *refused)) : std::nullopt;
}

std::optional<Problem> ClientBook::deleteClient(const std::string& client) {
  BookVersions(file_).drop();
  const std::string doing = "delete the client";
  return atomically(doing, [&]() -> std::optional<Problem> {
    if (const auto refused = seals().dropClient(client)) return problem(doing, *refused);
    if (auto failed = run("DELETE FROM client WHERE id = ?", {sqlText(client)}, doing)) return failed;
    const auto refused = seals().sealBook();
    return refused ? std::optional(problem(doing, *refused)) : std::nullopt;
  });
}

std::optional<Problem> ClientBook::deleteSet(const std::string& set) {
  BookVersions(file_).drop();
  const std::string doing = "delete the measures";
  return atomically(doing, [&]() -> std::optional<Problem> {
    QSqlQuery of = statement(database(), "SELECT client FROM measure_set WHERE id = ?", {sqlText(set)});
    if (!of.exec()) return problem(doing, of.lastError());
    const std::string client = of.next() ? textAt(of, 0) : std::string();
    of.finish();
    if (auto failed = run("DELETE FROM measure_set WHERE id = ?", {sqlText(set)}, doing)) return failed;
    if (const auto refused = seals().dropSet(set)) return problem(doing, *refused);
    return client.empty() ? std::nullopt : sealClient(client, doing);
  });
}

}  // namespace armure
