#include "book/client_book.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <QSqlError>
#include <QStandardPaths>
#include <QUuid>
#include <algorithm>
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

// secure_delete overwrites what is deleted; the rollback journal (not a write-ahead log) leaves nothing of it beside
// the file; synchronous = FULL has every change on the disk before it is reported done.
// Nothing of a schema is trusted, and cells are checked before they are read.
constexpr const char* kPragmas[] = {"PRAGMA trusted_schema = OFF",  "PRAGMA cell_size_check = ON",
                                    "PRAGMA foreign_keys = ON",     "PRAGMA secure_delete = ON",
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
constexpr const char* kTables[] = {"client", "measure_set", "set_by_client", "taking", "seal"};

// Limits on what is read.
constexpr int kLongestText = 20'000;  // characters: a name, a note, what was typed
constexpr int kMostRows = 200'000;    // clients, sets of a client, takings of a set

constexpr std::string_view kDamagedSet = "the measures of";

namespace fs = std::filesystem;

void ownerOnly(const fs::path& file) {
  std::error_code failed;
  fs::permissions(file, fs::perms::owner_read | fs::perms::owner_write, failed);
}

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

Result<ClientBook> ClientBook::open(const std::filesystem::path& file) {
  Result<ClientBook> opened = openFile(file);
  if (opened.ok()) {
    const std::vector<std::string> damaged = opened->damaged();
    if (damaged.empty()) return opened;
    { const ClientBook closed = std::move(opened).value(); }
    return replaceDamaged(file, damaged);
  }
  // A file that is no book stays as it is, unless there are versions of the book it was.
  if (BookVersions(file).all().empty() || opened.problem().remedy.starts_with("open it with a newer")) return opened;
  return replaceDamaged(file, {"all of it: " + opened.problem().what});
}

Result<ClientBook> ClientBook::openFile(const std::filesystem::path& file) {
  std::error_code failed;
  if (file.has_parent_path() && !fs::exists(file.parent_path(), failed)) {
    fs::create_directories(file.parent_path(), failed);
    fs::permissions(file.parent_path(), fs::perms::owner_all, failed);
  }
  if (fs::exists(file, failed) && !fs::is_regular_file(file, failed))
    return Problem{file.string(), "this is not a file", "name a file for the book"};
  if (!QSqlDatabase::isDriverAvailable("QSQLITE"))
    return Problem{file.string(), "the client book needs the SQLite part of Qt",
                   "install the Debian package libqt6sql6-sqlite"};
  ClientBook book(sqlText(newId()), file);
  QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", book.connection_);
  db.setDatabaseName(sqlText(file.string()));
  db.setConnectOptions("QSQLITE_BUSY_TIMEOUT=5000");
  // Made with no more rights than its owner's, so that nobody reads it before they are set.
  const mode_t mask = ::umask(0077);
  const bool done = db.open();
  const auto problem = done ? book.prepare() : std::optional(book.problem("open the book", db.lastError()));
  ::umask(mask);
  if (problem) return *problem;
  ownerOnly(file);
  return Result<ClientBook>(std::move(book));
}

Result<ClientBook> ClientBook::replaceDamaged(const std::filesystem::path& file,
                                              const std::vector<std::string>& damaged) {
  const BookVersions kept(file);
  const fs::path aside = kept.asideName();
  std::error_code failed;
  fs::rename(file, aside, failed);
  if (failed)
    return Problem{file.string(), "the client book is damaged and cannot be put aside: " + failed.message(),
                   "see that its folder can be written"};
  ownerOnly(aside);
  // The newest version that is sound, or an empty book.
  std::string from;
  const std::vector<fs::path> versions = kept.all();
  for (auto version = versions.rbegin(); version != versions.rend() && from.empty(); ++version) {
    fs::copy_file(*version, file, fs::copy_options::overwrite_existing, failed);
    const Result<ClientBook> trial = failed ? Result<ClientBook>(Problem{}) : openFile(file);
    if (trial.ok() && trial->damaged().empty()) {
      from = version->filename().string();
    } else {
      fs::remove(file, failed);
    }
  }
  Result<ClientBook> opened = openFile(file);
  if (!opened.ok()) return opened;
  ClientBook book = std::move(opened).value();
  // What is sound in the damaged book may be newer than the version. It is read from a copy: it stays as it is.
  const fs::path copy = fs::path(file).concat(".reading");
  fs::copy_file(aside, copy, fs::copy_options::overwrite_existing, failed);
  size_t taken = 0;
  if (Result<ClientBook> old = openFile(copy); old.ok()) taken = book.takeIntact(*old);
  fs::remove(copy, failed);
  std::string names;
  for (size_t i = 0; i < damaged.size() && i < 5; ++i) names += (i == 0 ? "" : ", ") + damaged[i];
  if (damaged.size() > 5) names += fmt::format(" and {} more", damaged.size() - 5);
  book.damage_ = Problem{file.string(), "the client book was damaged: " + names,
                         fmt::format("{}; {} sets were read from the damaged book, which is kept as {}",
                                     from.empty() ? std::string("no sound version of it was kept")
                                                  : "it was restored from the kept version " + from,
                                     taken, aside.filename().string())};
  kept.keep(book.database());
  return Result<ClientBook>(std::move(book));
}

Problem ClientBook::problem(const std::string& doing, const QSqlError& error) const {
  return {file_.string(), fmt::format("could not {} ({})", doing, error.databaseText().toStdString()),
          "the book was left as it was; see that the folder can be written and the disk is not full, or move the file "
          "away to start a new book"};
}

std::optional<Problem> ClientBook::run(const char* sql, std::initializer_list<QVariant> values,
                                       const std::string& doing) const {
  QSqlQuery query = statement(database(), sql, values);
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
  if (commit.exec("COMMIT")) {
    BookVersions(file_).keep(db);
    return std::nullopt;
  }
  const Problem failed = problem(doing, commit.lastError());
  QSqlQuery(db).exec("ROLLBACK");
  return failed;
}

std::optional<Problem> ClientBook::prepare() const {
  QSqlDatabase db = database();
  for (const char* pragma : kPragmas)
    if (auto failed = run(pragma, {}, "open the book")) return failed;
  QSqlQuery begin(db);
  if (!begin.exec("BEGIN IMMEDIATE")) return problem("open the book", begin.lastError());
  const auto failed = makeTables();
  QSqlQuery end(db);
  if (!end.exec(failed ? "ROLLBACK" : "COMMIT") && !failed) return problem("open the book", end.lastError());
  return failed ? failed : strangeTables();
}

// The tables of a new book; the seals of one that has none.
std::optional<Problem> ClientBook::makeTables() const {
  QSqlDatabase db = database();
  QSqlQuery version(db);
  if (!version.exec("PRAGMA user_version") || !version.next()) return problem("open the book", version.lastError());
  const int found = version.value(0).toInt();
  if (found == kBookVersion) return std::nullopt;
  if (found > kBookVersion || found < 0)
    return Problem{file_.string(),
                   fmt::format("the book has version {}, this program knows up to {}", found, kBookVersion),
                   "open it with a newer Armure; the file was not changed"};
  version.finish();
  std::vector<const char*> statements{kSealTable};
  if (found == 0) statements.insert(statements.begin(), std::begin(kSchema), std::end(kSchema));
  for (const char* sql : statements)
    if (auto failed = run(sql, {}, "make the book")) return failed;
  if (const auto failed = seals().sealAll()) return problem("seal the book", *failed);
  QSqlQuery mark(db);
  if (!mark.exec(QString("PRAGMA user_version = %1").arg(kBookVersion)))
    return problem("make the book", mark.lastError());
  return std::nullopt;
}

// A book has these tables and no views, triggers or others: what else stands in the file was put there by nobody we
// know.
std::optional<Problem> ClientBook::strangeTables() const {
  QSqlQuery query(database());
  if (!query.exec("SELECT name FROM sqlite_master WHERE name NOT LIKE 'sqlite_%'"))
    return problem("open the book", query.lastError());
  size_t known = 0;
  while (query.next()) {
    const QString name = query.value(0).toString();
    if (std::none_of(std::begin(kTables), std::end(kTables), [&](const char* t) { return name == t; }))
      return Problem{file_.string(),
                     fmt::format("this is not a client book: it has a part \"{}\"", quotable(name.toStdString())),
                     "move the file away to start a new book"};
    ++known;
  }
  if (known == std::size(kTables)) return std::nullopt;
  return Problem{file_.string(), "parts of the book are missing", "move the file away to start a new book"};
}

std::vector<std::string> ClientBook::damaged() const {
  std::vector<std::string> found;
  QSqlQuery check(database());
  if (!check.exec("PRAGMA quick_check(5)") || !check.next()) {
    found.push_back("it cannot be checked (" + check.lastError().databaseText().toStdString() + ")");
  } else if (check.value(0).toString() != "ok") {
    found.push_back(quotable(check.value(0).toString().simplified().toStdString()));
  }
  if (!seals().bookHolds()) found.push_back("the list of clients");
  const auto all = clients();
  if (!all.ok()) return found;
  for (const ClientEntry& c : *all) {
    if (!seals().clientHolds(c.id)) found.push_back("the entry of " + quotable(c.name));
    const auto of = sets(c.id);
    if (!of.ok()) continue;
    for (const SetEntry& s : *of)
      if (!seals().setHolds(s.id))
        found.push_back(fmt::format("{} {} of {}", kDamagedSet, quotable(c.name), quotable(s.date)));
  }
  return found;
}

// One set of another book, with its client.
std::optional<Problem> ClientBook::restore(const ClientEntry& client, const SetEntry& set, const MeasureSet& measures) {
  const std::string doing = "restore the book";
  return atomically(doing, [&]() -> std::optional<Problem> {
    if (auto failed = run("INSERT OR IGNORE INTO client (id, name) VALUES (?, ?)",
                          {sqlText(client.id), sqlText(client.name)}, doing))
      return failed;
    if (auto failed = run("DELETE FROM measure_set WHERE id = ?", {sqlText(set.id)}, doing)) return failed;
    if (auto failed = insertSet(set.id, client.id, set.date, measures, doing)) return failed;
    return sealClient(client.id, doing);
  });
}

// Every set whose seal holds and that is not here as it is there.
size_t ClientBook::takeIntact(const ClientBook& from) {
  size_t taken = 0;
  const auto there = from.clients();
  if (!there.ok()) return 0;
  for (const ClientEntry& c : *there) {
    const auto of = from.sets(c.id);
    if (!of.ok()) continue;
    for (const SetEntry& s : *of) {
      if (!from.seals().setHolds(s.id) || from.seals().contentOfSet(s.id) == seals().contentOfSet(s.id)) continue;
      const auto measures = from.measures(s.id);
      if (measures.ok() && !restore(c, s, *measures)) ++taken;
    }
  }
  return taken;
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
  const auto damaged = [&](const std::string& what) {
    return Problem{file_.string(), "these measures are damaged: " + what,
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
    if (!std::isfinite(mm) || mm <= 0) return damaged(fmt::format("{} is {}", quotable(id), mm));
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
      return Problem{file_.string(), "these measures are no longer in the book", "keep them as a new set"};
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
