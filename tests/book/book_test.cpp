// The client book: what is kept comes back, what is deleted is gone, and a killed program loses nothing.
#define CATCH_CONFIG_EXTERNAL_INTERFACES
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <fmt/format.h>

#include <QSqlDatabase>
#include <QSqlQuery>
#include <QVariant>
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <random>

#include "book/client_book.h"
#include "measure/takings.h"
#include "tests/support/bodies.h"
#include "tests/support/killed.h"
#include "tests/support/qt_application.h"

using namespace armure;
using namespace armure::testing;
namespace fs = std::filesystem;

namespace {

struct Application : QtApplication<QCoreApplication> {
  using QtApplication::QtApplication;
};
CATCH_REGISTER_LISTENER(Application)

struct Folder {
  fs::path path = fs::temp_directory_path() / ("armure-book-" + std::to_string(::getpid()));
  fs::path file = path / "clients.sqlite";
  Folder() { fs::create_directories(path); }
  ~Folder() { fs::remove_all(path); }
};

ClientBook opened(const fs::path& file) {
  Result<ClientBook> book = ClientBook::open(file);
  if (!book.ok()) throw std::runtime_error(book.problem().text());
  return std::move(book).value();
}

bool holds(const fs::path& folder, const std::string& text) {
  for (const auto& entry : fs::recursive_directory_iterator(folder))
    if (entry.is_regular_file() && readText(entry.path().string()).find(text) != std::string::npos) return true;
  return false;
}

// Flips bits of a file, as a failing disk does.
void damage(const fs::path& file, size_t at, unsigned char mask) {
  std::fstream f(file, std::ios::binary | std::ios::in | std::ios::out);
  f.seekg(static_cast<std::streamoff>(at));
  const int byte = f.get();
  f.seekp(static_cast<std::streamoff>(at));
  f.put(static_cast<char>(byte ^ mask));
}

bool isSound(const fs::path& file) {
  bool sound = false;
  {
    QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", "check");
    db.setDatabaseName(QString::fromStdString(file.string()));
    REQUIRE(db.open());
    QSqlQuery query(db);
    sound = query.exec("PRAGMA integrity_check") && query.next() && query.value(0).toString() == "ok";
  }
  QSqlDatabase::removeDatabase("check");
  return sound;
}

// Starts the writer, kills it a while after it has reported `edits` of them, and returns the last it reported done.
int writeAndKill(const fs::path& file, const std::string& set, int first, int edits, useconds_t after) {
  int ends[2];
  REQUIRE(::pipe(ends) == 0);
  const pid_t child = ::fork();
  REQUIRE(child >= 0);
  if (child == 0) {
    ::dup2(ends[1], STDOUT_FILENO);
    ::close(ends[0]);
    ::close(ends[1]);
    ::execl(ARMURE_BOOK_WRITER, "book_writer", file.c_str(), set.c_str(), std::to_string(first).c_str(), nullptr);
    ::_exit(127);
  }
  ::close(ends[1]);
  std::string said;
  char bytes[4096];
  // The clock starts with edits, so that kills fall between and within them, not before them, on any machine.
  ssize_t count = 1;
  while (std::count(said.begin(), said.end(), '\n') < edits && (count = ::read(ends[0], bytes, sizeof bytes)) > 0)
    said.append(bytes, static_cast<size_t>(count));
  ::usleep(after);
  ::kill(child, SIGKILL);
  ::waitpid(child, nullptr, 0);
  while ((count = ::read(ends[0], bytes, sizeof bytes)) > 0) said.append(bytes, static_cast<size_t>(count));
  ::close(ends[0]);
  REQUIRE_FALSE(said.empty());
  said.erase(said.find_last_of('\n'));
  const size_t line = said.find_last_of('\n');
  return std::stoi(line == std::string::npos ? said : said.substr(line + 1));
}

}  // namespace

TEST_CASE("a client's dated measures come back as they were kept") {
  const Folder folder;
  MeasureSet spring = plainFigure(), autumn = plainFigure();
  autumn.set("waist", measureOf(*readTakings("waist", "27; 27 1/2", Unit::Inch), Use::Mean, "after lunch"));
  autumn.set("left_elbow", {220, "22 cm", "unknown to the program"});
  std::string client, first, second;
  {
    ClientBook book = opened(folder.file);
    CHECK(book.clients()->empty());
    client = *book.addClient("Ysolde O'Tarn; \"the tall one\"");
    first = *book.addSet(client, "2026-03-02", spring);
    second = *book.addSet(client, "2026-09-15", autumn);
    (void)book.addClient("anselma");
  }
  ClientBook again = opened(folder.file);
  const auto clients = *again.clients();
  REQUIRE(clients.size() == 2);
  CHECK(clients[0].name == "anselma");  // by name, whatever the case
  CHECK(clients[1].name == "Ysolde O'Tarn; \"the tall one\"");
  CHECK(clients[1].sets == 2);
  const auto sets = *again.sets(client);
  REQUIRE(sets.size() == 2);
  CHECK(sets[0].date == "2026-09-15");  // the newest first
  CHECK(sets[1].measures == static_cast<int>(spring.all().size()));
  CHECK(*again.measures(first) == spring);
  CHECK(*again.measures(second) == autumn);
  CHECK_FALSE(again.renameClient(client, "Ysolde"));
  CHECK(again.clients()->back().name == "Ysolde");
}

TEST_CASE("a set is replaced as a whole") {
  const Folder folder;
  ClientBook book = opened(folder.file);
  const std::string client = *book.addClient("Wren"), set = *book.addSet(client, "2026-03-02", plainFigure());
  MeasureSet less;
  less.set("bust", {900, "90 cm"});
  CHECK_FALSE(book.putSet(set, "2026-03-03", less));
  CHECK(*book.measures(set) == less);
  CHECK(book.sets(client)->front().date == "2026-03-03");
  CHECK(book.putSet("no such set", "", less)->remedy == "keep them as a new set");
  CHECK_FALSE(book.addSet("no such client", "", less).ok());
  CHECK(book.sets(client)->size() == 1);
}

TEST_CASE("deleted means deleted: nothing of it is left in the file or beside it") {
  const Folder folder;
  ClientBook book = opened(folder.file);
  MeasureSet measures = plainFigure();
  measures.set("neck", {361, "36.1 cm", "a note nobody else may read"});
  const std::string kept = *book.addClient("Kept Person"), gone = *book.addClient("Gone Person");
  (void)book.addSet(kept, "2026-01-01", plainFigure());
  const std::string set = *book.addSet(gone, "2026-01-02", measures);
  (void)book.addSet(gone, "2026-01-03", measures);
  REQUIRE(holds(folder.path, "nobody else may read"));
  CHECK_FALSE(book.deleteSet(set));
  CHECK(book.sets(gone)->size() == 1);
  CHECK(book.measures(set)->all().empty());
  CHECK_FALSE(holds(folder.path, "2026-01-02"));
  CHECK_FALSE(book.deleteClient(gone));
  for (const char* text : {"Gone Person", "nobody else may read", "2026-01-03"}) CHECK_FALSE(holds(folder.path, text));
  CHECK(book.clients()->size() == 1);
  CHECK(*book.measures(book.sets(kept)->front().id) == plainFigure());
}

TEST_CASE("what is no book, or a newer one, is refused and left as it is") {
  const Folder folder;
  const fs::path other = folder.path / "other.sqlite";
  std::ofstream(other) << "these are not the clients you are looking for, and long enough to be a header of a file";
  const std::string before = readText(other.string());
  const auto refused = ClientBook::open(other);
  REQUIRE_FALSE(refused.ok());
  CHECK_FALSE(refused.problem().remedy.empty());
  CHECK(readText(other.string()) == before);
  { const ClientBook book = opened(folder.file); }
  {
    QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", "newer");
    db.setDatabaseName(QString::fromStdString(folder.file.string()));
    REQUIRE(db.open());
    QSqlQuery(db).exec("PRAGMA user_version = 99");
  }
  QSqlDatabase::removeDatabase("newer");
  CHECK(english(ClientBook::open(folder.file).problem().remedy).find("newer Armure") != std::string::npos);
  CHECK_FALSE(ClientBook::open("/proc/no/such/clients.sqlite").ok());
}

TEST_CASE("only its user may read the book") {
  const Folder folder;
  const ClientBook book = opened(folder.file);
  CHECK((fs::status(folder.file).permissions() & (fs::perms::group_all | fs::perms::others_all)) == fs::perms::none);
}

TEST_CASE("two windows write in one book, one after the other") {
  const Folder folder;
  ClientBook one = opened(folder.file), two = opened(folder.file);
  const std::string client = *one.addClient("Shared");
  for (int i = 0; i < 20; ++i) REQUIRE((i % 2 ? one : two).addSet(client, std::to_string(i), plainFigure()).ok());
  CHECK(one.sets(client)->size() == 20);
}

TEST_CASE("killed again and again while it writes, the book loses at most the edit of the last keystroke") {
  const Folder folder;
  std::string client, set, other;
  {
    ClientBook book = opened(folder.file);
    client = *book.addClient("Edited");
    set = *book.addSet(client, "2026-11-23", plainFigure());
    other = *book.addSet(*book.addClient("Bystander"), "2026-11-01", plainFigure());
  }
  int next = 1, unreported = 0;
  for (int round = 0; round < kills(200); ++round) {
    const int reported =
        writeAndKill(folder.file, set, next, 1 + round % 4, static_cast<useconds_t>(97 * (round % 97)));
    REQUIRE(isSound(folder.file));
    ClientBook book = opened(folder.file);
    const MeasureSet now = *book.measures(set);
    REQUIRE(now.all().size() == plainFigure().all().size());
    const int found = std::stoi(now.find("waist")->typed);
    INFO("round " << round << ": " << reported << " was reported done, " << found << " is in the book");
    REQUIRE((found == reported || found == reported + 1));
    unreported += found - reported;
    REQUIRE(*book.measures(other) == plainFigure());
    next = found + 1;
  }
  WARN(next - 1 << " edits over " << kills(200) << " kills; " << unreported
                << " kills fell between writing and reporting");
  CHECK(next > 2 * kills(200));  // each round had its edits
}

TEST_CASE("a damaged book is told and restored; nothing is missing without a word, no number is wrong") {
  const Folder folder;
  std::string client;
  {
    ClientBook book = opened(folder.file);
    client = *book.addClient("Ann Example");
    (void)book.addSet(client, "2026-01-01", plainFigure());
    MeasureSet second = plainFigure();
    second.set("waist", measureOf(*readTakings("waist", "27; 27 1/2", Unit::Inch), Use::Mean, "calm"));
    (void)book.addSet(client, "2026-02-01", second);
    (void)book.addClient("Bea Example");
  }
  const std::string whole = readText(folder.file.string());
  const auto versions = BookVersions(folder.file).folder();
  const auto content = [&](const ClientBook& book) {
    std::string text;
    const auto clients = book.clients();
    for (const ClientEntry& c : *clients) {
      text += c.name;
      const auto sets = book.sets(c.id);
      for (const SetEntry& s : *sets) {
        const auto measures = book.measures(s.id);
        for (const auto& [id, m] : measures->all()) text += fmt::format("{} {} {} {};", s.date, id, m.mm, m.note);
      }
    }
    return text;
  };
  const std::string sound = content(opened(folder.file));
  std::mt19937 dice(7);
  size_t told = 0;
  for (int round = 0; round < 120; ++round) {
    std::ofstream(folder.file, std::ios::binary) << whole;
    for (int bits = 0; bits < 1 + round % 3; ++bits)
      damage(folder.file, 100 + dice() % (whole.size() - 100), static_cast<unsigned char>(1u << dice() % 8));
    const Result<ClientBook> book = ClientBook::open(folder.file);
    INFO(round);
    REQUIRE(book.ok());  // there are sound versions
    CHECK(content(*book) == sound);
    told += book->damage().has_value();
    if (book->damage()) CHECK(english(book->damage()->remedy).find("kept as") != std::string::npos);
    CHECK(static_cast<size_t>(std::distance(fs::directory_iterator(versions), fs::directory_iterator())) <=
          kKeptVersions);
    for (const auto& entry : fs::directory_iterator(folder.path))
      if (entry.path().filename().string().find(".damaged-") != std::string::npos) fs::remove(entry.path());
  }
  CHECK(told > 8);  // most bits flipped stand in unused room
  // Without a kept version what can be read is kept, and the rest named.
  std::ofstream(folder.file, std::ios::binary) << whole;
  fs::remove_all(versions);
  const size_t at = whole.find("calm");
  REQUIRE(at != std::string::npos);
  damage(folder.file, at, 1);
  const ClientBook rest = opened(folder.file);
  REQUIRE(rest.damage());
  CHECK(english(rest.damage()->what).find("2026-02-01") != std::string::npos);
  CHECK(rest.sets(client)->size() == 1);
}

TEST_CASE("a book of the first version is sealed as it stands; book and copies are its owner's alone") {
  const Folder folder;
  {
    ClientBook book = opened(folder.file);
    (void)book.addSet(*book.addClient("Ann Example"), "2026-01-01", plainFigure());
  }
  {
    QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", "old");
    db.setDatabaseName(QString::fromStdString(folder.file.string()));
    REQUIRE(db.open());
    QSqlQuery query(db);
    REQUIRE(query.exec("DROP TABLE seal"));
    REQUIRE(query.exec("PRAGMA user_version = 1"));
    db.close();
  }
  QSqlDatabase::removeDatabase("old");
  const ClientBook book = opened(folder.file);
  CHECK_FALSE(book.damage());
  CHECK(book.clients()->size() == 1);
  for (const auto& entry : fs::recursive_directory_iterator(folder.path))
    if (entry.is_regular_file())
      CHECK((entry.status().permissions() & (fs::perms::group_all | fs::perms::others_all)) == fs::perms::none);
}

TEST_CASE("a book with views or triggers of somebody else's is no book") {
  const Folder folder;
  { (void)opened(folder.file); }
  {
    QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", "strange");
    db.setDatabaseName(QString::fromStdString(folder.file.string()));
    REQUIRE(db.open());
    REQUIRE(QSqlQuery(db).exec("CREATE TRIGGER t AFTER INSERT ON client BEGIN DELETE FROM client; END"));
    db.close();
  }
  QSqlDatabase::removeDatabase("strange");
  CHECK_FALSE(ClientBook::open(folder.file).ok());
  CHECK_FALSE(ClientBook::open("/dev/null").ok());
}
