// Every style on one invented client against a small file of its own, so that whatever moves an edge by more than a
// hundredth of a millimetre shows, with piece and edge. To make them anew after a wanted change:
// ARMURE_GOLDEN=write build/debug/tests/io_tests
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <sstream>

#include "io/atomic_file.h"
#include "io/measurement_csv.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

constexpr double kSame = 0.0101;  // mm, and half of the last figure written

// A rounding error beside nothing is nothing, on either side of it.
double plain(double v) { return std::abs(v) < 0.005 ? 0 : v; }

std::string pointText(Vec2 p) { return fmt::format("{:.2f} {:.2f}", plain(p.x), plain(p.y)); }

// A line for every level, piece and edge: what it is, how long, and three of its points.
std::string summary(const Pattern& pattern) {
  std::string text;
  for (const PatternLevel& l : pattern.levels)
    text += fmt::format("level {} finished {:.2f} gap {:.2f}\n", l.id, l.finishedGirth, l.gaps.sum());
  for (const Piece& p : pattern.pieces) {
    text += fmt::format("piece {} {} {}\n", p.layer, p.id, p.copies);
    for (const Edge& e : p.edges) {
      const double length = e.path.length();
      text += fmt::format("  {} {} {:.2f} at {} {} {}\n", e.id, roleName(e.role), length, pointText(e.path.start()),
                          pointText(e.path.pointAt(length / 3)), pointText(e.path.pointAt(2 * length / 3)));
    }
  }
  for (const Seam& s : pattern.seams) {
    text += fmt::format("seam {}", s.id);
    for (const SeamNotch& n : s.notches) text += fmt::format(" {} {:.2f} {:.2f}", n.id, n.a, n.b);
    text += "\n";
  }
  return text;
}

// Words alike, numbers alike to kSame.
bool same(const std::string& a, const std::string& b) {
  std::istringstream left(a), right(b);
  std::string x, y;
  while (left >> x) {
    if (!(right >> y)) return false;
    if (x == y) continue;
    char *endX = nullptr, *endY = nullptr;
    const double numberX = std::strtod(x.c_str(), &endX), numberY = std::strtod(y.c_str(), &endY);
    if (*endX != '\0' || *endY != '\0' || std::abs(numberX - numberY) > kSame) return false;
  }
  return !(right >> y);
}

}  // namespace

TEST_CASE("every style makes the pieces it made") {
  const auto measures = readMeasurements(sourceDir() + "/demo/odalys-autumn.csv");
  REQUIRE(measures.ok());
  const char* mode = std::getenv("ARMURE_GOLDEN");
  for (const Preset& style : styleTable()) {
    Order order;
    order.measures = measures->measures;
    order.style = style.id;
    order.choices = choicesOfNewOrders();
    const std::string made = summary(designOf(order).pattern);
    const std::string path = fmt::format("{}/tests/data/golden/styles/{}.txt", sourceDir(), style.id);
    if (mode && std::string_view(mode) == "write") REQUIRE_FALSE(writeFileAtomically(path, made));
    std::istringstream now(made), before(readText(path));
    std::string a, b;
    size_t differing = 0;
    while (std::getline(now, a)) {
      std::getline(before, b);
      if (same(a, b)) continue;
      INFO(style.id << " has\n  " << a << "\nand had\n  " << b);
      CHECK(++differing == 0);
      if (differing == 3) break;
    }
    INFO(style.id);
    CHECK((differing > 0 || !std::getline(before, b)));
  }
}
