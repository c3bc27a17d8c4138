#include "book/client_book.h"

#include <fmt/format.h>

#include <QSqlError>
#include <QSqlQuery>
#include <QStandardPaths>
#include <QUuid>
#include <QVariant>

#include "measure/takings.h"

namespace armure {
namespace {

QString q(const std::string& s) { return QString::fromStdString(s); }

std::string newId() { return QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString(); }

// secure_delete overwrites what is deleted; the rollback journal (not a write-ahead log) leaves nothing of it beside
// the file; synchronous = FULL has every change on the disk before it is reported done.
constexpr const char* kPragmas[] = {"PRAGMA foreign_keys = ON", "PRAGMA secure_delete = ON",
                                    "PRAGMA journal_mode = DELETE", "PRAGMA synchronous = FULL"};

constexpr const char* kSchema[] = {
    "CREATE TABLE client (id TEXT PRIMARY KEY, name TEXT NOT NULL)",
    "CREATE TABLE measure_set (id TEXT PRIMARY KEY, client TEXT NOT NULL REFERENCES client(id) ON DELETE CASCADE, "
    "taken_on TEXT NOT NULL)",
    "CREATE INDEX set_by_client ON measure_set(client, taken_on)",
    // One row a taking; `mean` is 1 where the mean of all takings counts, else the last one does.
    "CREATE TABLE taking (measure_set TEXT NOT NULL REFERENCES measure_set(id) ON DELETE CASCADE, measure TEXT NOT "
    "NULL, number INTEGER NOT NULL, mm REAL NOT NULL, typed TEXT NOT NULL, note TEXT NOT NULL, mean INTEGER NOT NULL, "
    "PRIMARY KEY (measure_set, measure, number))",
};

}  // namespace

ClientBook::ClientBook(QString connection, std::filesystem::path file)
    : connection_(std::move(connection)), file_(std::move(file)) {}

ClientBook::ClientBook(ClientBook&& other) noexcept
    : connection_(std::exchange(other.connection_, QString())), file_(std::move(other.file_)) {}

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

Result<ClientBook> ClientBook::open(const std::filesystem::path& file) {
  std::error_code failed;
  if (file.has_parent_path()) std::filesystem::create_directories(file.parent_path(), failed);
  if (!QSqlDatabase::isDriverAvailable("QSQLITE"))
    return Problem{file.string(), "the client book needs the SQLite part of Qt",
                   "install the Debian package libqt6sql6-sqlite"};
  ClientBook book(q(newId()), file);
  QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", book.connection_);
  db.setDatabaseName(q(file.string()));
  db.setConnectOptions("QSQLITE_BUSY_TIMEOUT=5000");
  if (!db.open()) return book.problem("open the book", db.lastError());
  if (auto problem = book.prepare()) return *problem;
  std::filesystem::permissions(file, std::filesystem::perms::owner_read | std::filesystem::perms::owner_write, failed);
  return Result<ClientBook>(std::move(book));
}

Problem ClientBook::problem(const std::string& doing, const QSqlError& error) const {
  return {file_.string(), fmt::format("could not {} ({})", doing, error.databaseText().toStdString()),
          "the book was left as it was; see that the folder can be written and the disk is not full, or move the file "
          "away to start a new book"};
}

std::optional<Problem> ClientBook::run(QSqlQuery& query, const std::string& doing) const {
  return query.exec() ? std::nullopt : std::optional(problem(doing, query.lastError()));
}

template <typename Work>
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
  if (commit.exec("COMMIT")) return std::nullopt;
  const Problem failed = problem(doing, commit.lastError());
  QSqlQuery(db).exec("ROLLBACK");
  return failed;
}

std::optional<Problem> ClientBook::prepare() const {
  QSqlDatabase db = database();
  for (const char* pragma : kPragmas) {
    QSqlQuery query(db);
    if (!query.exec(pragma)) return problem("open the book", query.lastError());
  }
  return atomically("open the book", [&]() -> std::optional<Problem> {
    QSqlQuery version(db);
    if (!version.exec("PRAGMA user_version") || !version.next()) return problem("open the book", version.lastError());
    const int found = version.value(0).toInt();
    if (found == kBookVersion) return std::nullopt;
    if (found > kBookVersion)
      return Problem{file_.string(),
                     fmt::format("the book has version {}, this program knows up to {}", found, kBookVersion),
                     "open it with a newer Armure; the file was not changed"};
    version.finish();
    for (const char* statement : kSchema) {
      QSqlQuery query(db);
      if (!query.exec(statement)) return problem("make the book", query.lastError());
    }
    QSqlQuery mark(db);
    if (!mark.exec(QString("PRAGMA user_version = %1").arg(kBookVersion)))
      return problem("make the book", mark.lastError());
    return std::nullopt;
  });
}

Result<std::vector<ClientEntry>> ClientBook::clients() const {
  QSqlQuery query(database());
  query.prepare(
      "SELECT id, name, (SELECT COUNT(*) FROM measure_set WHERE client = client.id) FROM client ORDER BY name COLLATE "
      "NOCASE, id");
  if (auto failed = run(query, "read the clients")) return *failed;
  std::vector<ClientEntry> rows;
  while (query.next())
    rows.push_back(
        {query.value(0).toString().toStdString(), query.value(1).toString().toStdString(), query.value(2).toInt()});
  return rows;
}

Result<std::vector<SetEntry>> ClientBook::sets(const std::string& client) const {
  QSqlQuery query(database());
  query.prepare(
      "SELECT id, client, taken_on, (SELECT COUNT(DISTINCT measure) FROM taking WHERE measure_set = measure_set.id) "
      "FROM measure_set WHERE client = ? ORDER BY taken_on DESC, rowid DESC");
  query.addBindValue(q(client));
  if (auto failed = run(query, "read the measures")) return *failed;
  std::vector<SetEntry> rows;
  while (query.next())
    rows.push_back({query.value(0).toString().toStdString(), query.value(1).toString().toStdString(),
                    query.value(2).toString().toStdString(), query.value(3).toInt()});
  return rows;
}

Result<MeasureSet> ClientBook::measures(const std::string& set) const {
  QSqlQuery query(database());
  query.prepare("SELECT measure, mm, typed, note, mean FROM taking WHERE measure_set = ? ORDER BY measure, number");
  query.addBindValue(q(set));
  if (auto failed = run(query, "read the measures")) return *failed;
  struct Row {
    std::vector<Taking> takings;
    std::string note;
    Use use = Use::Last;
  };
  std::map<std::string, Row> rows;
  while (query.next()) {
    Row& row = rows[query.value(0).toString().toStdString()];
    row.takings.push_back({query.value(1).toDouble(), query.value(2).toString().toStdString()});
    row.note = query.value(3).toString().toStdString();
    row.use = query.value(4).toInt() == 1 ? Use::Mean : Use::Last;
  }
  MeasureSet measures;
  for (auto& [id, row] : rows) measures.set(id, measureOf(std::move(row.takings), row.use, std::move(row.note)));
  return measures;
}

Result<std::string> ClientBook::addClient(const std::string& name) {
  const std::string id = newId();
  QSqlQuery query(database());
  query.prepare("INSERT INTO client (id, name) VALUES (?, ?)");
  query.addBindValue(q(id));
  query.addBindValue(q(name));
  if (auto failed = run(query, "keep the client")) return *failed;
  return id;
}

Result<std::string> ClientBook::addSet(const std::string& client, const std::string& date, const MeasureSet& measures) {
  const std::string id = newId();
  const auto failed = atomically("keep the measures", [&]() -> std::optional<Problem> {
    QSqlQuery query(database());
    query.prepare("INSERT INTO measure_set (id, client, taken_on) VALUES (?, ?, ?)");
    query.addBindValue(q(id));
    query.addBindValue(q(client));
    query.addBindValue(q(date));
    if (auto problem = run(query, "keep the measures")) return problem;
    return writeMeasures(id, measures);
  });
  if (failed) return *failed;
  return id;
}

std::optional<Problem> ClientBook::renameClient(const std::string& client, const std::string& name) {
  QSqlQuery query(database());
  query.prepare("UPDATE client SET name = ? WHERE id = ?");
  query.addBindValue(q(name));
  query.addBindValue(q(client));
  return run(query, "rename the client");
}

std::optional<Problem> ClientBook::putSet(const std::string& set, const std::string& date, const MeasureSet& measures) {
  return atomically("keep the measures", [&]() -> std::optional<Problem> {
    QSqlQuery update(database());
    update.prepare("UPDATE measure_set SET taken_on = ? WHERE id = ?");
    update.addBindValue(q(date));
    update.addBindValue(q(set));
    if (auto problem = run(update, "keep the measures")) return problem;
    if (update.numRowsAffected() != 1)
      return Problem{file_.string(), "these measures are no longer in the book", "keep them as a new set"};
    QSqlQuery clear(database());
    clear.prepare("DELETE FROM taking WHERE measure_set = ?");
    clear.addBindValue(q(set));
    if (auto problem = run(clear, "keep the measures")) return problem;
    return writeMeasures(set, measures);
  });
}

std::optional<Problem> ClientBook::writeMeasures(const std::string& set, const MeasureSet& measures) const {
  QSqlQuery query(database());
  query.prepare(
      "INSERT INTO taking (measure_set, measure, number, mm, typed, note, mean) VALUES (?, ?, ?, ?, ?, ?, ?)");
  for (const auto& [id, m] : measures.all()) {
    const std::vector<Taking> takings = takingsOf(m);
    for (size_t i = 0; i < takings.size(); ++i) {
      query.addBindValue(q(set));
      query.addBindValue(q(id));
      query.addBindValue(static_cast<int>(i));
      query.addBindValue(takings[i].mm);
      query.addBindValue(q(takings[i].typed).isNull() ? QString("") : q(takings[i].typed));
      query.addBindValue(q(m.note).isNull() ? QString("") : q(m.note));
      query.addBindValue(m.use == Use::Mean ? 1 : 0);
      if (auto problem = run(query, "keep the measures")) return problem;
    }
  }
  return std::nullopt;
}

std::optional<Problem> ClientBook::deleteClient(const std::string& client) {
  QSqlQuery query(database());
  query.prepare("DELETE FROM client WHERE id = ?");
  query.addBindValue(q(client));
  return run(query, "delete the client");
}

std::optional<Problem> ClientBook::deleteSet(const std::string& set) {
  QSqlQuery query(database());
  query.prepare("DELETE FROM measure_set WHERE id = ?");
  query.addBindValue(q(set));
  return run(query, "delete the measures");
}

}  // namespace armure
