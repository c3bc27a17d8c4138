#include "book/client_book.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <QCryptographicHash>
#include <QDateTime>
#include <QSqlError>
#include <QSqlQuery>
#include <QStandardPaths>
#include <QUuid>
#include <QVariant>
#include <algorithm>
#include <charconv>
#include <cmath>
#include <fstream>
#include <map>

#include "measure/measure_table.h"
#include "measure/takings.h"
#include "quotable.h"

namespace armure {
namespace {

QString q(const std::string& s) { return QString::fromStdString(s); }

std::string newId() { return QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString(); }

// secure_delete overwrites what is deleted; the rollback journal (not a write-ahead log) leaves nothing of it beside
// the file; synchronous = FULL has every change on the disk before it is reported done.
// Nothing of a schema is trusted, and cells are checked before they are read.
constexpr const char* kPragmas[] = {"PRAGMA trusted_schema = OFF", "PRAGMA cell_size_check = ON", "PRAGMA foreign_keys = ON", "PRAGMA secure_delete = ON",
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
// The checksum of "set ID", "client ID", or "book".
constexpr const char* kSealTable = "CREATE TABLE seal (of TEXT PRIMARY KEY, sum TEXT NOT NULL)";
constexpr const char* kTables[] = {"client", "measure_set", "set_by_client", "taking", "seal"};

// Limits on what is read.
constexpr int kLongestText = 20'000;  // characters: a name, a note, what was typed
constexpr int kMostRows = 200'000;    // clients, sets of a client, takings of a set

constexpr std::string_view kDamagedSet = "the measures of";

QString sumOf(const std::string& content) {
  return QString::fromLatin1(
      QCryptographicHash::hash(QByteArray::fromStdString(content), QCryptographicHash::Sha256).toHex());
}

// One field of what is sealed; its length before it, so that no two contents look alike.
void addField(std::string& content, const std::string& field) { content += fmt::format("{}:{};", field.size(), field); }

namespace fs = std::filesystem;

// Where a book is put aside or restored: "clients.damaged-20261126-140533.sqlite".
fs::path asideName(const fs::path& file) {
  const std::string stamp = QDateTime::currentDateTime().toString("yyyyMMdd-HHmmss").toStdString();
  fs::path name = file.parent_path() / fmt::format("{}.damaged-{}{}", file.stem().string(), stamp, file.extension().string());
  for (int n = 2; fs::exists(name); ++n)
    name = file.parent_path() /
           fmt::format("{}.damaged-{}-{}{}", file.stem().string(), stamp, n, file.extension().string());
  return name;
}

void ownerOnly(const fs::path& file) {
  std::error_code failed;
  fs::permissions(file, fs::perms::owner_read | fs::perms::owner_write, failed);
}

// The kept versions, oldest first.
std::vector<fs::path> versionsIn(const fs::path& folder) {
  std::vector<fs::path> all;
  std::error_code failed;
  for (const auto& entry : fs::directory_iterator(folder, failed))
    if (entry.path().extension() == ".sqlite") all.push_back(entry.path());
  std::sort(all.begin(), all.end());
  return all;
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

std::filesystem::path ClientBook::versionsOf(const std::filesystem::path& file) {
  return std::filesystem::path(file).concat(".versions");
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
  if (versionsIn(versionsOf(file)).empty() || opened.problem().remedy.starts_with("open it with a newer")) return opened;
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
  ClientBook book(q(newId()), file);
  QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", book.connection_);
  db.setDatabaseName(q(file.string()));
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

Result<ClientBook> ClientBook::replaceDamaged(const std::filesystem::path& file, const std::vector<std::string>& damaged) {
  const fs::path aside = asideName(file);
  std::error_code failed;
  fs::rename(file, aside, failed);
  if (failed)
    return Problem{file.string(), "the client book is damaged and cannot be put aside: " + failed.message(),
                   "see that its folder can be written"};
  ownerOnly(aside);
  // The newest version that is sound, or an empty book.
  std::string from;
  const std::vector<fs::path> versions = versionsIn(versionsOf(file));
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
  book.keepVersion();
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
  if (commit.exec("COMMIT")) {
    keepVersion();
    return std::nullopt;
  }
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
  for (const char* statement : statements) {
    QSqlQuery query(db);
    if (!query.exec(statement)) return problem("make the book", query.lastError());
  }
  if (auto failed = sealAll()) return failed;
  QSqlQuery mark(db);
  if (!mark.exec(QString("PRAGMA user_version = %1").arg(kBookVersion)))
    return problem("make the book", mark.lastError());
  return std::nullopt;
}

// A book has these tables and no views, triggers or others: what else stands in the file was put there by nobody we know.
std::optional<Problem> ClientBook::strangeTables() const {
  QSqlQuery query(database());
  if (!query.exec("SELECT name FROM sqlite_master WHERE name NOT LIKE 'sqlite_%'"))
    return problem("open the book", query.lastError());
  size_t known = 0;
  while (query.next()) {
    const QString name = query.value(0).toString();
    if (std::none_of(std::begin(kTables), std::end(kTables), [&](const char* t) { return name == t; }))
      return Problem{file_.string(), fmt::format("this is not a client book: it has a part \"{}\"", quotable(name.toStdString())),
                     "move the file away to start a new book"};
    ++known;
  }
  if (known == std::size(kTables)) return std::nullopt;
  return Problem{file_.string(), "parts of the book are missing", "move the file away to start a new book"};
}

std::string ClientBook::contentOfSet(const std::string& set) const {
  std::string content;
  QSqlQuery head(database());
  head.prepare("SELECT client, taken_on FROM measure_set WHERE id = ?");
  head.addBindValue(q(set));
  if (!head.exec() || !head.next()) return "missing";
  for (int i = 0; i < 2; ++i) addField(content, head.value(i).toString().toStdString());
  QSqlQuery rows(database());
  rows.prepare("SELECT measure, number, mm, typed, note, mean FROM taking WHERE measure_set = ? ORDER BY measure, number");
  rows.addBindValue(q(set));
  if (!rows.exec()) return "unreadable";
  while (rows.next()) {
    for (int i : {0, 1, 3, 4, 5}) addField(content, rows.value(i).toString().toStdString());
    addField(content, fmt::format("{:a}", rows.value(2).toDouble()));
  }
  return content;
}

std::string ClientBook::contentOfClient(const std::string& client) const {
  std::string content;
  QSqlQuery head(database());
  head.prepare("SELECT name FROM client WHERE id = ?");
  head.addBindValue(q(client));
  if (!head.exec() || !head.next()) return "missing";
  addField(content, head.value(0).toString().toStdString());
  QSqlQuery rows(database());
  rows.prepare("SELECT id FROM measure_set WHERE client = ? ORDER BY id");
  rows.addBindValue(q(client));
  if (!rows.exec()) return "unreadable";
  while (rows.next()) addField(content, rows.value(0).toString().toStdString());
  return content;
}

std::string ClientBook::contentOfBook() const {
  std::string content;
  QSqlQuery rows(database());
  if (!rows.exec("SELECT id FROM client ORDER BY id")) return "unreadable";
  while (rows.next()) addField(content, rows.value(0).toString().toStdString());
  return content;
}

bool ClientBook::sealHolds(const std::string& of, const std::string& content) const {
  QSqlQuery query(database());
  query.prepare("SELECT sum FROM seal WHERE of = ?");
  query.addBindValue(q(of));
  return query.exec() && query.next() && query.value(0).toString() == sumOf(content);
}

std::optional<Problem> ClientBook::seal(const std::string& of, const std::string& content) const {
  QSqlQuery query(database());
  query.prepare("INSERT OR REPLACE INTO seal (of, sum) VALUES (?, ?)");
  query.addBindValue(q(of));
  query.addBindValue(sumOf(content));
  return run(query, "seal the book");
}

std::optional<Problem> ClientBook::sealSet(const std::string& set) const {
  return seal("set " + set, contentOfSet(set));
}

std::optional<Problem> ClientBook::sealClient(const std::string& client) const {
  if (auto failed = seal("client " + client, contentOfClient(client))) return failed;
  return seal("book", contentOfBook());
}

std::optional<Problem> ClientBook::sealAll() const {
  QSqlQuery sets(database()), clients(database());
  if (!sets.exec("SELECT id FROM measure_set")) return problem("seal the book", sets.lastError());
  while (sets.next())
    if (auto failed = sealSet(sets.value(0).toString().toStdString())) return failed;
  if (!clients.exec("SELECT id FROM client")) return problem("seal the book", clients.lastError());
  while (clients.next())
    if (auto failed = sealClient(clients.value(0).toString().toStdString())) return failed;
  return seal("book", contentOfBook());
}

std::vector<std::string> ClientBook::damaged() const {
  std::vector<std::string> found;
  QSqlQuery check(database());
  if (!check.exec("PRAGMA quick_check(5)") || !check.next()) {
    found.push_back("it cannot be checked (" + check.lastError().databaseText().toStdString() + ")");
  } else if (check.value(0).toString() != "ok") {
    found.push_back(quotable(check.value(0).toString().simplified().toStdString()));
  }
  if (!sealHolds("book", contentOfBook())) found.push_back("the list of clients");
  const auto all = clients();
  if (!all.ok()) return found;
  for (const ClientEntry& c : *all) {
    if (!sealHolds("client " + c.id, contentOfClient(c.id))) found.push_back("the entry of " + quotable(c.name));
    const auto of = sets(c.id);
    if (!of.ok()) continue;
    for (const SetEntry& s : *of)
      if (!sealHolds("set " + s.id, contentOfSet(s.id)))
        found.push_back(fmt::format("{} {} of {}", kDamagedSet, quotable(c.name), quotable(s.date)));
  }
  return found;
}

// Every set whose seal holds and that is not here as it is there.
size_t ClientBook::takeIntact(const ClientBook& from) const {
  size_t taken = 0;
  const auto there = from.clients();
  if (!there.ok()) return 0;
  for (const ClientEntry& c : *there) {
    const auto of = from.sets(c.id);
    if (!of.ok()) continue;
    for (const SetEntry& s : *of) {
      const std::string content = from.contentOfSet(s.id);
      if (!from.sealHolds("set " + s.id, content) || content == contentOfSet(s.id)) continue;
      const auto measures = from.measures(s.id);
      if (!measures.ok()) continue;
      const auto failed = atomically("restore the book", [&]() -> std::optional<Problem> {
        QSqlQuery client(database()), old(database()), set(database());
        client.prepare("INSERT OR IGNORE INTO client (id, name) VALUES (?, ?)");
        client.addBindValue(q(c.id));
        client.addBindValue(q(c.name));
        if (auto problem = run(client, "restore the book")) return problem;
        old.prepare("DELETE FROM measure_set WHERE id = ?");
        old.addBindValue(q(s.id));
        if (auto problem = run(old, "restore the book")) return problem;
        set.prepare("INSERT INTO measure_set (id, client, taken_on) VALUES (?, ?, ?)");
        set.addBindValue(q(s.id));
        set.addBindValue(q(c.id));
        set.addBindValue(q(s.date));
        if (auto problem = run(set, "restore the book")) return problem;
        if (auto problem = writeMeasures(s.id, *measures)) return problem;
        if (auto problem = sealSet(s.id)) return problem;
        return sealClient(c.id);
      });
      taken += failed ? 0 : 1;
    }
  }
  return taken;
}

// The book as it is now, beside it: written under another name and then renamed. What cannot be kept is no reason to
// refuse the change itself.
void ClientBook::keepVersion() const {
  const fs::path folder = versionsOf(file_);
  std::error_code failed;
  fs::create_directories(folder, failed);
  fs::permissions(folder, fs::perms::owner_all, failed);
  for (const auto& entry : fs::directory_iterator(folder, failed))
    if (entry.path().extension() == ".part") fs::remove(entry.path(), failed);
  std::vector<fs::path> versions = versionsIn(folder);
  int last = 0;
  if (!versions.empty()) {
    const std::string stem = versions.back().stem().string();
    std::from_chars(stem.data(), stem.data() + stem.size(), last);
  }
  const fs::path part = folder / fmt::format("{:08}-{}.part", last + 1, ::getpid());
  QSqlQuery copy(database());
  copy.prepare("VACUUM INTO ?");
  copy.addBindValue(q(part.string()));
  const mode_t mask = ::umask(0077);
  const bool done = copy.exec();
  ::umask(mask);
  if (!done) {
    fs::remove(part, failed);
    return;
  }
  fs::rename(part, folder / fmt::format("{:08}.sqlite", last + 1), failed);
  versions = versionsIn(folder);
  for (size_t i = 0; i + kKeptVersions < versions.size(); ++i) fs::remove(versions[i], failed);
}

// What is deleted must not stand in a kept version. The files are overwritten before they go.
void ClientBook::dropVersions() const {
  std::error_code failed;
  for (const fs::path& version : versionsIn(versionsOf(file_))) {
    const auto size = fs::file_size(version, failed);
    if (std::ofstream out(version, std::ios::binary | std::ios::in); out && !failed) {
      const std::string zeros(64u << 10, '\0');
      for (std::uintmax_t done = 0; done < size; done += zeros.size())
        out.write(zeros.data(), static_cast<std::streamsize>(std::min<std::uintmax_t>(zeros.size(), size - done)));
    }
    fs::remove(version, failed);
  }
}

Result<std::vector<ClientEntry>> ClientBook::clients() const {
  QSqlQuery query(database());
  query.prepare(
      "SELECT id, name, (SELECT COUNT(*) FROM measure_set WHERE client = client.id) FROM client ORDER BY name COLLATE "
      "NOCASE, id");
  if (auto failed = run(query, "read the clients")) return *failed;
  std::vector<ClientEntry> rows;
  while (query.next() && rows.size() < kMostRows)
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
  while (query.next() && rows.size() < kMostRows)
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
  const auto damaged = [&](const std::string& what) {
    return Problem{file_.string(), "these measures are damaged: " + what,
                   "close the program and start it again: the book is then restored from its last sound version"};
  };
  int count = 0;
  while (query.next()) {
    const std::string id = query.value(0).toString().toStdString();
    Row& row = rows[id];
    const double mm = query.value(1).toDouble();
    if (++count > kMostRows || row.takings.size() >= kMostTakings) return damaged("there are too many");
    if (query.value(2).toString().size() > kLongestText || query.value(3).toString().size() > kLongestText)
      return damaged("a text is too long");
    if (!std::isfinite(mm) || mm <= 0) return damaged(fmt::format("{} is {}", quotable(id), mm));
    if (const auto wrong = measureProblem(id, mm)) return damaged(wrong->what);
    row.takings.push_back({mm, query.value(2).toString().toStdString()});
    row.note = query.value(3).toString().toStdString();
    row.use = query.value(4).toInt() == 1 ? Use::Mean : Use::Last;
  }
  MeasureSet measures;
  for (auto& [id, row] : rows) measures.set(id, measureOf(std::move(row.takings), row.use, std::move(row.note)));
  return measures;
}

Result<std::string> ClientBook::addClient(const std::string& name) {
  const std::string id = newId();
  const auto failed = atomically("keep the client", [&]() -> std::optional<Problem> {
    QSqlQuery query(database());
    query.prepare("INSERT INTO client (id, name) VALUES (?, ?)");
    query.addBindValue(q(id));
    query.addBindValue(q(name));
    if (auto problem = run(query, "keep the client")) return problem;
    return sealClient(id);
  });
  if (failed) return *failed;
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
    if (auto problem = writeMeasures(id, measures)) return problem;
    if (auto problem = sealSet(id)) return problem;
    return sealClient(client);
  });
  if (failed) return *failed;
  return id;
}

std::optional<Problem> ClientBook::renameClient(const std::string& client, const std::string& name) {
  return atomically("rename the client", [&]() -> std::optional<Problem> {
    QSqlQuery query(database());
    query.prepare("UPDATE client SET name = ? WHERE id = ?");
    query.addBindValue(q(name));
    query.addBindValue(q(client));
    if (auto problem = run(query, "rename the client")) return problem;
    return sealClient(client);
  });
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
    if (auto problem = writeMeasures(set, measures)) return problem;
    return sealSet(set);
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
  dropVersions();
  return atomically("delete the client", [&]() -> std::optional<Problem> {
    QSqlQuery seals(database()), query(database()), own(database());
    seals.prepare("DELETE FROM seal WHERE of IN (SELECT 'set ' || id FROM measure_set WHERE client = ?)");
    seals.addBindValue(q(client));
    if (auto problem = run(seals, "delete the client")) return problem;
    query.prepare("DELETE FROM client WHERE id = ?");
    query.addBindValue(q(client));
    if (auto problem = run(query, "delete the client")) return problem;
    own.prepare("DELETE FROM seal WHERE of = ?");
    own.addBindValue(q("client " + client));
    if (auto problem = run(own, "delete the client")) return problem;
    return seal("book", contentOfBook());
  });
}

std::optional<Problem> ClientBook::deleteSet(const std::string& set) {
  dropVersions();
  return atomically("delete the measures", [&]() -> std::optional<Problem> {
    QSqlQuery of(database()), query(database()), own(database());
    of.prepare("SELECT client FROM measure_set WHERE id = ?");
    of.addBindValue(q(set));
    if (auto problem = run(of, "delete the measures")) return problem;
    const std::string client = of.next() ? of.value(0).toString().toStdString() : std::string();
    of.finish();
    query.prepare("DELETE FROM measure_set WHERE id = ?");
    query.addBindValue(q(set));
    if (auto problem = run(query, "delete the measures")) return problem;
    own.prepare("DELETE FROM seal WHERE of = ?");
    own.addBindValue(q("set " + set));
    if (auto problem = run(own, "delete the measures")) return problem;
    return client.empty() ? std::nullopt : sealClient(client);
  });
}

}  // namespace armure
