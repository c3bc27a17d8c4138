// Top edge and hem over the closed figure, worked by hand for the plain figure.
#include <catch2/catch.hpp>
#include <cmath>

#include "parts/edges/style_line.h"
#include "tests/support/bodies.h"
#include "tests/support/shaping_checks.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Lines {
  StyleLine top, hem;
};

Lines linesOf(Choices choices) {
  const Body body = *resolveBody(plainFigure());
  const Rules rules(choices, "straight-zip", "quarter-grid", figureOf(body));
  const Block block = *draftBlock(body, rules);
  return {topEdge(block, rules), hemLine(block, rules)};
}

}  // namespace

TEST_CASE("a straight top is level over the front, at the chest line at the side, and slopes at the back") {
  const StyleLine top = linesOf({}).top;
  CHECK(inch(top.depth[0]) == Approx(7.5));  // chest line 8 1/2, 1 in above it
  CHECK(top.depth[1] == top.depth[0]);
  CHECK(inch(top.depth[2]) == Approx(8.5));
  CHECK(inch(top.sideDepthOnBack) == Approx(16 - 0.49 * 16));  // the back's chest line: back waist less side length
  CHECK(inch(top.depth[4]) == Approx(16 - 0.49 * 16 + 1));     // 1 in below the chest line
  CHECK(top.slope[0] == 0);
  CHECK(top.slope[1] == 0);
  CHECK(top.slope[4] == 0);  // both halves make one line
  CHECK((top.depth[3] > top.depth[2] && top.depth[3] < top.depth[4]));
}

TEST_CASE("a sweetheart dips at the centre and crests over the princess line") {
  const StyleLine top = linesOf({{"top.shape", "sweetheart"}}).top;
  CHECK(inch(top.depth[0]) == Approx(7.5 + 1.25));
  CHECK(inch(top.depth[1]) == Approx(7.5 - 0.75));
  CHECK(top.slope[1] == 0);  // the crest
  CHECK(top.slope[0] < -1);  // leaves the centre steeply
  CHECK(top.slope[2] > 0);
}

TEST_CASE("a straight hem follows the length, higher at the back by the side dart") {
  const StyleLine hem = linesOf({{"hem.length", "5 in"}}).hem;
  for (size_t b : std::vector<size_t>{0, 1, 2}) CHECK(inch(hem.depth[b]) == Approx(17.5 + 5));
  for (size_t b : std::vector<size_t>{3, 4}) CHECK(inch(hem.depth[b]) == Approx(16 + 5));  // dart 17 1/2 - 16
  CHECK(inch(hem.sideDepthOnBack) == Approx(16 + 5));
  for (double slope : hem.slope) CHECK(slope == Approx(0).margin(1e-12));
}

TEST_CASE("a raised hem rises to the side by its amount and is level at centres and side") {
  const StyleLine hem = linesOf({{"hem.shape", "raised"}, {"hem.raise", "2 in"}, {"hem.length", "5 in"}}).hem;
  CHECK(inch(hem.depth[0]) == Approx(22.5));
  CHECK(inch(hem.depth[2]) == Approx(20.5));
  CHECK(inch(hem.sideDepthOnBack) == Approx(19));
  CHECK(inch(hem.depth[4]) == Approx(21));
  CHECK((hem.depth[1] < hem.depth[0] && hem.depth[1] > hem.depth[2]));
  CHECK(hem.slope[2] == Approx(0).margin(1e-12));
  CHECK(hem.slope[0] == 0);
  CHECK(hem.slope[1] < 0);
  CHECK(hem.slope[3] > 0);
}
