// The table of exporters: each writes the kind of file it says, for every style of paper it is asked for.
#include "render/exporters.h"

#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <set>

#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("every exporter writes the kind of file it says, told by its content") {
  const auto folder = std::filesystem::temp_directory_path() / ("armure-exporters-" + std::to_string(::getpid()));
  std::filesystem::create_directories(folder);
  const Order order = plainOrder();
  const Design design = designOf(order);
  std::set<std::string_view> ids;
  for (const Exporter& e : exporterTable()) {
    INFO(e.id);
    CHECK(ids.insert(e.id).second);
    CHECK(e.suffix.front() == '.');
    CHECK_FALSE(e.help.empty());
    for (const char* paper : {"full", "a4"}) {
      const auto path = folder / ("x" + std::string(e.suffix));
      REQUIRE_FALSE(writeFileAtomically(path, e.make(order, &design, {.paper = paper}), e.readers));
      CHECK(kindOfFile(path) == e.kind);
    }
    // What needs no pattern is written from the order alone.
    if (!e.needsPattern) CHECK(e.make(order, nullptr, {}) == e.make(order, &design, {}));
  }
  CHECK(ids == std::set<std::string_view>{"pdf", "svg", "dxf", "pieces", "measurements", "sheet", "sheet-html",
                                          "by-hand", "by-hand-html"});
  std::filesystem::remove_all(folder);
}
