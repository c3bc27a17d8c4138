// Top edge and hem over the closed figure, worked by hand for the plain figure.
#include <catch2/catch.hpp>
#include <cmath>

#include "style/style_line.h"
#include "tests/support/bodies.h"

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

double inch(double mm) { return mm / kMmPerInch; }

}  // namespace

TEST_CASE("a straight top is level over the front, at the chest line at the side, and slopes at the back") {
  const StyleLine top = linesOf({}).top;
  CHECK(inch(top.depth[kCentreFront]) == Approx(7.5));  // chest line 8 1/2, 1 in above it
  CHECK(top.depth[kPrincess] == top.depth[kCentreFront]);
  CHECK(inch(top.depth[kSideSeam]) == Approx(8.5));
  CHECK(top.sideDepthOnBack == top.depth[kSideSeam]);
  CHECK(inch(top.depth[kCentreBack]) == Approx(9.5));  // 1 in below the chest line
  CHECK(top.slope[kCentreFront] == 0);
  CHECK(top.slope[kPrincess] == 0);
  CHECK(top.slope[kCentreBack] == 0);  // both halves make one line
  CHECK((top.depth[kBackLine] > top.depth[kSideSeam] && top.depth[kBackLine] < top.depth[kCentreBack]));
}

TEST_CASE("a sweetheart dips at the centre and crests over the princess line") {
  const StyleLine top = linesOf({{"top.shape", "sweetheart"}}).top;
  CHECK(inch(top.depth[kCentreFront]) == Approx(7.5 + 1.25));
  CHECK(inch(top.depth[kPrincess]) == Approx(7.5 - 0.75));
  CHECK(top.slope[kPrincess] == 0);     // the crest
  CHECK(top.slope[kCentreFront] < -1);  // leaves the centre steeply
  CHECK(top.slope[kSideSeam] > 0);
}

TEST_CASE("a straight hem follows the length, higher at the back by the side dart") {
  const StyleLine hem = linesOf({{"hem.length", "5 in"}}).hem;
  for (Boundary b : {kCentreFront, kPrincess, kSideSeam}) CHECK(inch(hem.depth[b]) == Approx(17.5 + 5));
  for (Boundary b : {kBackLine, kCentreBack}) CHECK(inch(hem.depth[b]) == Approx(16 + 5));  // dart 17 1/2 - 16
  CHECK(inch(hem.sideDepthOnBack) == Approx(16 + 5));
  for (double slope : hem.slope) CHECK(slope == Approx(0).margin(1e-12));
}

TEST_CASE("a raised hem rises to the side by its amount and is level at centres and side") {
  const StyleLine hem = linesOf({{"hem.shape", "raised"}, {"hem.raise", "2 in"}, {"hem.length", "5 in"}}).hem;
  CHECK(inch(hem.depth[kCentreFront]) == Approx(22.5));
  CHECK(inch(hem.depth[kSideSeam]) == Approx(20.5));
  CHECK(inch(hem.sideDepthOnBack) == Approx(19));
  CHECK(inch(hem.depth[kCentreBack]) == Approx(21));
  CHECK((hem.depth[kPrincess] < hem.depth[kCentreFront] && hem.depth[kPrincess] > hem.depth[kSideSeam]));
  CHECK(hem.slope[kSideSeam] == Approx(0).margin(1e-12));
  CHECK(hem.slope[kCentreFront] == 0);
  CHECK(hem.slope[kPrincess] < 0);
  CHECK(hem.slope[kBackLine] > 0);
}
