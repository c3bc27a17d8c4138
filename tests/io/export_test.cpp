// Exports against golden files. To make them anew after a wanted change: ARMURE_GOLDEN=write ctest -R io
#include <catch2/catch.hpp>
#include <cstdlib>

#include "io/atomic_file.h"
#include "io/order_file.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "tests/support/bodies.h"

#include <nlohmann/json.hpp>

using namespace armure;
using namespace armure::testing;

namespace {

void compareWithGolden(const std::string& name, const std::string& made) {
  const std::string path = sourceDir() + "/tests/data/golden/" + name;
  if (const char* mode = std::getenv("ARMURE_GOLDEN"); mode && std::string(mode) == "write")
    REQUIRE_FALSE(writeFileAtomically(path, made));
  const std::string golden = readText(path);
  // Not CHECK(made == golden): nobody reads two such files in a failure message.
  const auto differ = std::mismatch(made.begin(), made.end(), golden.begin(), golden.end());
  const auto at = differ.first - made.begin();
  INFO(name << " differs at byte " << at << ": ..." << made.substr(static_cast<size_t>(std::max<long>(0, at - 60)), 120)
            << "...");
  CHECK((differ.first == made.end() && differ.second == golden.end()));
}

}  // namespace

TEST_CASE("the demo orders export as they did") {
  for (const std::string name : {"1-ferry", "2-lamp-room", "3-harbour-wall"}) {
    auto order = readOrder(sourceDir() + "/demo/" + name + ".armure");
    REQUIRE(order.ok());
    // One of them lined; in the others it would only be the same edges once more.
    if (name != "2-lamp-room") order->order.choices["layer.lining"] = "none";
    const auto design = recalc(order->order);
    REQUIRE(design.ok());
    compareWithGolden(name + ".pieces.json", piecesJson(order->order, *design));
    compareWithGolden(name + ".svg", patternSvg(order->order, *design));
  }
}

TEST_CASE("the pieces carry exact curves and polylines that agree") {
  const Order o = plainOrder();
  const auto doc = nlohmann::json::parse(piecesJson(o, *recalc(o)));
  CHECK(doc["format"] == "armure-pieces");
  for (const auto& piece : doc["pieces"]) {
    for (const auto& edge : piece["edges"]) {
      CHECK(edge["points"].front() == edge["beziers"].front().front());
      CHECK(edge["points"].back() == edge["beziers"].back().back());
    }
  }
  CHECK(doc["pieces"][0]["onFold"] == "fold");
  CHECK(doc["pieces"][1]["onFold"].is_null());
}

TEST_CASE("names with quotes, brackets and bad bytes do not break an export") {
  Order o = plainOrder();
  o.title = "\"<Act> & \xFF\\";
  o.client = "]]>";
  const Design d = *recalc(o);
  CHECK(nlohmann::json::accept(piecesJson(o, d)));
  CHECK(patternSvg(o, d).find("<Act>") == std::string::npos);
  CHECK(parseOrder(orderText({o, "", {}}), "o").ok());
}
