// Order files: round trip, kept members, broken files, writing safely.
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "io/atomic_file.h"
#include "io/order_file.h"
#include "measure/takings.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;
namespace fs = std::filesystem;

namespace {

struct Folder {
  fs::path path = fs::temp_directory_path() / ("armure-test-" + std::to_string(::getpid()));
  Folder() { fs::create_directories(path); }
  ~Folder() {
    fs::permissions(path, fs::perms::owner_all);
    fs::remove_all(path);
  }
  size_t files() const {
    return static_cast<size_t>(std::distance(fs::directory_iterator(path), fs::directory_iterator()));
  }
};

Problem orderProblem(const std::string& text) {
  const auto r = parseOrder(text, "o.armure");
  REQUIRE_FALSE(r.ok());
  CHECK_FALSE(r.problem().remedy.empty());
  return r.problem();
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
  const size_t at = text.find(from);
  REQUIRE(at != std::string::npos);
  return text.replace(at, from.size(), to);
}

}  // namespace

TEST_CASE("an order is read back as it was written, byte for byte when written again") {
  for (const Order& o : randomOrders(40, 51)) {
    const std::string text = orderText({o, "", {}});
    const auto read = parseOrder(text, "o");
    REQUIRE(read.ok());
    CHECK(read->order == o);
    CHECK(orderText(*read) == text);
  }
}

TEST_CASE("members this version does not know are kept") {
  std::string text = orderText({plainOrder(), "", {}});
  text = replaced(text, "\"title\"", "\"offers\": 2,\n  \"title\"");
  text = replaced(text, "\"typed\": \"36 in\"", "\"typed\": \"36 in\",\n      \"takenBy\": \"M.\"");
  text = replaced(text, "\"choices\": {}", "\"choices\": {\n    \"future.rule\": \"x\"\n  }");
  auto read = parseOrder(text, "o");
  REQUIRE(read.ok());
  CHECK(read->warnings.size() == 1);
  CHECK(orderText(*read) == text);
  OrderFile changed = *read;
  changed.order.measures.set("bust", {940, "94 cm", ""});
  const std::string again = orderText(changed);
  for (const char* kept : {"\"offers\"", "\"takenBy\": \"M.\"", "\"future.rule\": \"x\"", "\"mm\": 940"})
    CHECK(again.find(kept) != std::string::npos);
  CHECK(recalc(read->order).ok());  // and an unknown choice does not disturb the draft
}

TEST_CASE("a broken order file says where, and opens nothing") {
  const std::string text = orderText({plainOrder(), "", {}});
  CHECK(english(orderProblem("").where) == "o.armure");
  CHECK(english(orderProblem("[]").what).find("not an Armure order") != std::string::npos);
  CHECK(english(orderProblem(text.substr(0, text.size() / 2)).where).find("line ") != std::string::npos);
  CHECK(english(orderProblem(text.substr(0, text.size() / 2)).what).find("breaks off") != std::string::npos);
  CHECK(english(orderProblem(replaced(text, "\"mm\": 914.4", "\"mm\": 914.4.4")).where).find("line ") !=
        std::string::npos);
  CHECK(english(orderProblem(replaced(text, "\"version\": 3", "\"version\": 99")).remedy).find("newer") !=
        std::string::npos);
  CHECK(english(orderProblem(replaced(text, "\"version\": 3", "\"version\": \"1\"")).where) == "o.armure, version");
  CHECK(english(orderProblem(replaced(text, "\"mm\": 914.4", "\"mm\": \"36\"")).where) == "o.armure, measures.bust");
  CHECK(english(orderProblem(replaced(text, "\"mm\": 914.4", "\"mm\": 40000")).where) == "o.armure, measures.bust");
  CHECK(english(orderProblem(replaced(text, "\"choices\": {}", "\"choices\": {\"hem.length\": \"9 1/\"}")).where) ==
        "o.armure, choices.hem.length");
  CHECK(english(orderProblem(replaced(text, "\"units\": \"in\"", "\"units\": \"ell\"")).where) == "o.armure, units");
  CHECK(english(orderProblem(replaced(text, "\"title\": \"Plain bodice\"", "\"title\": 7")).where) ==
        "o.armure, title");
}

TEST_CASE("a file cut anywhere is refused, never half read") {
  const std::string text = orderText({plainOrder(), "", {}});
  for (size_t n = 0; n + 2 < text.size(); n += 3) CHECK_FALSE(parseOrder(text.substr(0, n), "o").ok());
}

TEST_CASE("takings and the place in the client book are kept in the file") {
  Order o = plainOrder();
  o.measures.set("waist", measureOf(*readTakings("waist", "28; 28 1/4; 28 1/2", Unit::Inch), Use::Mean, "calm"));
  o.book = {"client-7", "set-3"};
  const std::string text = orderText({o, "", {}});
  const auto read = parseOrder(text, "o");
  REQUIRE(read.ok());
  CHECK(read->order == o);
  CHECK(orderText(*read) == text);
  OrderFile once = *read;
  once.order.measures.set("waist", measureOf(*readTakings("waist", "28", Unit::Inch), Use::Last, ""));
  once.order.book = {};
  const std::string without = orderText(once);
  CHECK(without.find("takings") == std::string::npos);
  CHECK(without.find("\"book\"") == std::string::npos);
  CHECK(english(orderProblem(replaced(text, "\"use\": \"mean\"", "\"use\": \"best\"")).where) ==
        "o.armure, measures.waist.use");
  CHECK(english(orderProblem(replaced(text, "\"use\": \"mean\"", "\"use\": \"last\"")).what).find("takings") !=
        std::string::npos);
  CHECK(english(orderProblem(replaced(text, "\"set\": \"set-3\"", "\"set\": 3")).where) == "o.armure, book");
}

TEST_CASE("an order of the first version opens with everything in it, and is written as the present one") {
  const auto old = readOrder(sourceDir() + "/tests/data/orders/version-1.armure");
  REQUIRE(old.ok());
  CHECK(old->order.book == BookReference{});
  CHECK(orderText(*old) == replaced(old->original, "\"version\": 1", "\"version\": 3"));
}

TEST_CASE("files from the first version on open") {
  for (const auto& entry : fs::directory_iterator(sourceDir() + "/tests/data/orders")) {
    INFO(entry.path());
    const auto read = readOrder(entry.path());
    REQUIRE(read.ok());
    CHECK(recalc(read->order).ok());
  }
}

TEST_CASE("writing leaves the old file or the new one, and nothing beside it") {
  const Folder folder;
  const fs::path file = folder.path / "a.armure";
  REQUIRE_FALSE(writeFileAtomically(file, "old"));
  REQUIRE_FALSE(writeFileAtomically(file, "new"));
  CHECK(*readFile(file) == "new");
  CHECK(folder.files() == 1);
  const auto missing = writeFileAtomically(folder.path / "no" / "such" / "b.armure", "x");
  REQUIRE(missing);
  CHECK(english(missing->where).find("b.armure") != std::string::npos);
  fs::create_directory(folder.path / "d");
  CHECK(writeFileAtomically(folder.path / "d", "x"));  // a folder stands there
  CHECK(folder.files() == 2);
}

TEST_CASE("a link is written through, and permissions are kept") {
  const Folder folder;
  const fs::path file = folder.path / "real.armure", link = folder.path / "link.armure";
  REQUIRE_FALSE(writeFileAtomically(file, "old"));
  fs::permissions(file, fs::perms::owner_read | fs::perms::owner_write);
  fs::create_symlink(file, link);
  REQUIRE_FALSE(writeFileAtomically(link, "new"));
  CHECK(fs::is_symlink(link));
  CHECK(*readFile(file) == "new");
  CHECK(fs::status(file).permissions() == (fs::perms::owner_read | fs::perms::owner_write));
}

TEST_CASE("files that cannot be read say so") {
  const Folder folder;
  CHECK(readFile(folder.path / "none").problem().what == "there is no such file");
  CHECK(readFile(folder.path).problem().what == "this is a folder");
}
