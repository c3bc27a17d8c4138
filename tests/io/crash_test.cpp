// A program killed in the middle of saving: the order file is the old one or the new one, whole.
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>

#include "io/order_file.h"
#include "tests/support/bodies.h"
#include "tests/support/killed.h"

using namespace armure;
using namespace armure::testing;
namespace fs = std::filesystem;

TEST_CASE("killed while saving, again and again, an order is never lost or half written") {
  const fs::path folder = fs::temp_directory_path() / ("armure-crash-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const fs::path file = folder / "order.armure";
  Order first = plainOrder(), second = plainOrder();
  first.notes = std::string(40000, 'a');  // long enough that a write takes a while
  second.notes = std::string(60000, 'b');
  REQUIRE_FALSE(writeOrder(file, {first, "", {}}));
  size_t changed = 0;
  for (int round = 0; killsAgain(round, 80, changed); ++round) {
    killedAfter(static_cast<useconds_t>(700 + 137 * round), [&](int i) {
      (void)writeOrder(file, {i % 2 ? first : second, "", {}});
    });
    const auto read = readOrder(file);
    REQUIRE(read.ok());
    REQUIRE((read->order == first || read->order == second));
    changed += read->order == second;
  }
  CHECK(changed > 0);
  // What a killed writer left lying goes with the next save.
  REQUIRE_FALSE(writeOrder(file, {first, "", {}}));
  CHECK(std::distance(fs::directory_iterator(folder), fs::directory_iterator()) == 1);
  fs::remove_all(folder);
}
