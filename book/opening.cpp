// How a book is opened: its tables made, its seals read, a damaged one put aside and made good from its versions. What
// is done with it once it is open is in client_book.cpp.
#include <fmt/format.h>
#include <sys/stat.h>

#include <QSqlError>
#include <QUuid>
#include <algorithm>

#include "book/client_book.h"
#include "book/statement.h"
#include "quotable.h"

namespace armure {
namespace {

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

constexpr const char* kOpenNewer = "open it with a newer Armure; the file was not changed";

namespace fs = std::filesystem;

void ownerOnly(const fs::path& file) {
  std::error_code failed;
  fs::permissions(file, fs::perms::owner_read | fs::perms::owner_write, failed);
}

}  // namespace

Result<ClientBook> ClientBook::open(const std::filesystem::path& file) {
  Result<ClientBook> opened = openFile(file);
  if (opened.ok()) {
    const std::vector<std::string> damaged = opened->damaged();
    if (damaged.empty()) return opened;
    { const ClientBook closed = std::move(opened).value(); }
    return replaceDamaged(file, damaged);
  }
  // A file that is no book stays as it is, unless there are versions of the book it was.
  if (BookVersions(file).all().empty() || opened.problem().remedy == kOpenNewer) return opened;
  return replaceDamaged(file, {"all of it: " + english(opened.problem().what)});
}

Result<ClientBook> ClientBook::openFile(const std::filesystem::path& file) {
  std::error_code failed;
  if (file.has_parent_path() && !fs::exists(file.parent_path(), failed)) {
    fs::create_directories(file.parent_path(), failed);
    fs::permissions(file.parent_path(), fs::perms::owner_all, failed);
  }
  if (fs::exists(file, failed) && !fs::is_regular_file(file, failed))
    return Problem{verbatim(file.string()), "this is not a file", "name a file for the book"};
  if (!QSqlDatabase::isDriverAvailable("QSQLITE"))
    return Problem{verbatim(file.string()), "the client book needs the SQLite part of Qt",
                   "install the Debian package libqt6sql6-sqlite"};
  ClientBook book(QUuid::createUuid().toString(), file);  // a name for the connection
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
    return Problem{verbatim(file.string()),
                   msg("the client book is damaged and cannot be put aside: {}", failed.message()),
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
  book.damage_ = Problem{verbatim(file.string()), msg("the client book was damaged: {}", names),
                         msg("{}; {} sets were read from the damaged book, which is kept as {}",
                             from.empty() ? Message("no sound version of it was kept")
                                          : msg("it was restored from the kept version {}", from),
                             taken, aside.filename().string())};
  kept.keep(book.database());
  return Result<ClientBook>(std::move(book));
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
    return Problem{verbatim(file_.string()),
                   msg("the book has version {}, this program knows up to {}", found, kBookVersion), kOpenNewer};
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
      return Problem{verbatim(file_.string()),
                     msg("this is not a client book: it has a part \"{}\"", quotable(name.toStdString())),
                     "move the file away to start a new book"};
    ++known;
  }
  if (known == std::size(kTables)) return std::nullopt;
  return Problem{verbatim(file_.string()), "parts of the book are missing", "move the file away to start a new book"};
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
        found.push_back(fmt::format("the measures of {} of {}", quotable(c.name), quotable(s.date)));
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

}  // namespace armure
