// The small drawing of a style: what it shows is what the style makes, at the heights and widths of the block.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "parts/edges/style_line.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Drawn {
  Design design;
  GarmentSketch sketch;
};

Drawn drawn(const Order& order) {
  auto sketch = sketchOf(order);
  if (!sketch.ok()) FAIL(sketch.problem().text());
  return {designOf(order), std::move(sketch).value()};
}

size_t count(const Sketch& sketch, SketchStroke stroke) {
  return static_cast<size_t>(
      std::count_if(sketch.lines.begin(), sketch.lines.end(), [&](const SketchLine& l) { return l.stroke == stroke; }));
}

struct Extent {
  double left = HUGE_VAL, top = HUGE_VAL, right = -HUGE_VAL, bottom = -HUGE_VAL;
};

Extent boxOf(const Sketch& sketch, SketchStroke stroke) {
  Extent box;
  for (const SketchLine& l : sketch.lines)
    if (l.stroke == stroke)
      for (Vec2 p : l.points) {
        box.left = std::min(box.left, p.x);
        box.right = std::max(box.right, p.x);
        box.top = std::min(box.top, p.y);
        box.bottom = std::max(box.bottom, p.y);
      }
  return box;
}

}  // namespace

TEST_CASE("every line of a drawing has its mirror image") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order o = plainOrder();
    o.style = style.id;
    const GarmentSketch sketch = drawn(o).sketch;
    for (const Sketch* view : {&sketch.front, &sketch.back})
      for (const SketchLine& line : view->lines) {
        const bool mirrored = std::any_of(view->lines.begin(), view->lines.end(), [&](const SketchLine& other) {
          if (other.stroke != line.stroke || other.points.size() != line.points.size()) return false;
          for (size_t i = 0; i < line.points.size(); ++i)
            if (distance(other.points[i], {-line.points[i].x, line.points[i].y}) > 1e-9) return false;
          return true;
        });
        const bool lace = line.stroke == SketchStroke::Lacing;  // each crosses to the other side
        if (!lace) CHECK(mirrored);
      }
  }
}

TEST_CASE("a bodice is drawn from its top edge to its hem, as wide at the waist as half the girth stands") {
  const Drawn d = drawn(orderWith({{"top.shape", "straight"}}));
  const StyleLine top = topEdge(d.design.block, d.design.rules), hem = hemLine(d.design.block, d.design.rules);
  const Extent box = boxOf(d.sketch.front, SketchStroke::Outline);
  // Between two lines the drawn edge may swing out a little further than at them.
  CHECK(box.top == Approx(*std::min_element(top.depth.begin(), top.depth.end())).margin(4));
  CHECK(box.bottom == Approx(*std::max_element(hem.depth.begin(), hem.depth.end())).margin(8));
  // w = 0.36 of the half girth, the opening's gap being part of it.
  const Level& waist = d.design.block.levels.at(level::kWaist);
  double atWaist = 0;
  for (const SketchLine& l : d.sketch.front.lines)
    for (size_t i = 0; i + 1 < l.points.size(); ++i) {
      const Vec2 a = l.points[i], b = l.points[i + 1];
      if ((a.y - waist.front) * (b.y - waist.front) > 0 || a.y == b.y) continue;
      atWaist = std::max(atWaist, lerp(a, b, (waist.front - a.y) / (b.y - a.y)).x);
    }
  CHECK(atWaist == Approx(0.36 * waist.finishedGirth / 2).epsilon(0.04));
}

TEST_CASE("a smaller waist is drawn smaller, and nothing else is") {
  const Drawn before = drawn(plainOrder()), after = drawn(orderWith({{"reduction.waist", "4 in"}}));
  const Extent was = boxOf(before.sketch.front, SketchStroke::Edge), is = boxOf(after.sketch.front, SketchStroke::Edge);
  CHECK(is.top == Approx(was.top).margin(2));
  CHECK(is.bottom == Approx(was.bottom).margin(2));
  const auto least = [](const Sketch& sketch) {  // of the side, which is the longest edge
    const auto side = std::max_element(sketch.lines.begin(), sketch.lines.end(), [](const auto& a, const auto& b) {
      const auto tall = [](const SketchLine& l) {
        return l.stroke == SketchStroke::Edge ? std::abs(l.points.back().y - l.points.front().y) : 0;
      };
      return tall(a) < tall(b);
    });
    double x = HUGE_VAL;
    for (Vec2 p : side->points) x = std::min(x, std::abs(p.x));
    return x;
  };
  CHECK(least(after.sketch.front) < least(before.sketch.front) - 5);
}

TEST_CASE("a laced back is drawn with its laces, a fold without a line") {
  const Drawn laced = drawn(orderWith({{"opening.kind", "lacing"}}));
  CHECK(count(laced.sketch.back, SketchStroke::Lacing) > 8);
  CHECK(count(laced.sketch.back, SketchStroke::Lacing) % 2 == 0);
  CHECK(count(laced.sketch.front, SketchStroke::Lacing) == 0);
  const Drawn zipped = drawn(orderWith({{"opening.kind", "zip"}}));
  CHECK(count(zipped.sketch.back, SketchStroke::Lacing) == 0);
}

TEST_CASE("each kind of cup is drawn with its own seams") {
  const auto seams = [](const char* kind) {
    return count(drawn(orderWith({{"cup.kind", kind}, {"cup.frame", "one-piece"}})).sketch.front, SketchStroke::Seam);
  };
  // Every seam of the finished pieces on both sides, piece by piece: what is cut is what is drawn.
  const size_t two = seams("two");
  CHECK(seams("three") > two);
  CHECK(seams("four") > seams("cross"));
  CHECK(seams("cross") > two);
  const size_t gathers = count(drawn(orderWith({{"cup.kind", "gathered"}})).sketch.front, SketchStroke::Lacing);
  CHECK(gathers >= 14);
  CHECK(gathers % 14 == 0);  // seven to every gathered seam, on both sides
}

TEST_CASE("what covers the shoulders, bands, straps and inserts are seen") {
  const Drawn strapless = drawn(plainOrder()), covered = drawn(orderWith({{"cover.kind", "covered"}}));
  const double chest = strapless.design.block.levels.at(level::kChest).front;
  CHECK(boxOf(strapless.sketch.front, SketchStroke::Outline).top > chest - 60);
  CHECK(boxOf(covered.sketch.front, SketchStroke::Outline).top < 30);  // at the shoulder
  CHECK(boxOf(covered.sketch.back, SketchStroke::Outline).top < 30);

  const Drawn band = drawn(orderWith({{"cover.kind", "off-shoulder"}, {"top.shape", "straight"}}));
  const Drawn without = drawn(orderWith({{"top.shape", "straight"}}));
  CHECK(count(band.sketch.front, SketchStroke::Outline) == count(without.sketch.front, SketchStroke::Outline) + 2);
  CHECK(boxOf(band.sketch.front, SketchStroke::Outline).right >
        1.05 * boxOf(strapless.sketch.front, SketchStroke::Outline).right);  // round the arms

  const Drawn insert = drawn(orderWith({{"cover.kind", "covered"}, {"insert.kind", "both"}}));
  CHECK(count(insert.sketch.front, SketchStroke::Seam) == count(covered.sketch.front, SketchStroke::Seam) + 4);
  CHECK(count(insert.sketch.back, SketchStroke::Seam) == count(covered.sketch.back, SketchStroke::Seam) + 2);

  const Drawn straps = drawn(orderWith({{"strap.kind", "straight"}}));
  CHECK(boxOf(straps.sketch.front, SketchStroke::Edge).top <
        boxOf(strapless.sketch.front, SketchStroke::Edge).top - 40);
}

TEST_CASE("a skirt is drawn down to where it ends") {
  for (const char* to : {"knee", "floor"}) {
    const Drawn d = drawn(orderWith({{"skirt.kind", "straight"}, {"skirt.to", to}}));
    const double waist = d.design.block.levels.at(level::kWaist).front;
    const double length = d.design.body.mm(to == std::string("knee") ? "waist_to_knee" : "waist_to_floor");
    CHECK(boxOf(d.sketch.front, SketchStroke::Outline).bottom == Approx(waist + length).margin(8));
  }
  const auto wide = [](const char* kind) {
    const Extent b =
        boxOf(drawn(orderWith({{"skirt.kind", kind}, {"skirt.to", "floor"}})).sketch.front, SketchStroke::Outline);
    return b.right;
  };
  CHECK(wide("gored") > 1.3 * wide("straight"));
}
