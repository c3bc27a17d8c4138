// The cloth on the body as a picture: what is seen from where, the same on both halves, and what lies under the finger.
#include "render/body_picture.h"

#include <catch2/catch.hpp>

#include "recalc/recalc.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

const TryOn& tried() {
  static const TryOn t = [] {
    const Design d = recalc(orderWith({{"reduction.waist", "1 in"}})).value();
    return tryOn(d.pattern, d.body, {.spacing = 24}).value();
  }();
  return t;
}

constexpr QSize kSize(420, 420);

BodyPicture seen(const BodyLook& look) { return {tried(), look, lightTheme(), kSize}; }

// Pixels that are not paper.
int inked(const QImage& image) {
  int n = 0;
  for (int y = 0; y < image.height(); ++y)
    for (int x = 0; x < image.width(); ++x) n += image.pixelColor(x, y) != lightTheme().paper;
  return n;
}

}  // namespace

TEST_CASE("from the front the body fills the picture, alike on both halves") {
  const BodyPicture front = seen({});
  const QImage image = front.image();
  REQUIRE(image.size() == kSize);
  CHECK(inked(image) > 420 * 420 / 5);
  for (int y = 0; y < image.height(); y += 3) {
    int left = 0, right = 0;
    while (left < image.width() && image.pixelColor(left, y) == lightTheme().paper) ++left;
    while (right < image.width() && image.pixelColor(image.width() - 1 - right, y) == lightTheme().paper) ++right;
    CHECK(std::abs(left - right) <= 2);
  }
  for (int x : {0, image.width() - 1}) CHECK(image.pixelColor(x, 200) == lightTheme().paper);
}

TEST_CASE("what is found under the finger is drawn there, and what lies behind is not found") {
  for (const double turn : {kFromTheFront, kFromTheSide, kFromBehind}) {
    const BodyPicture picture = seen({.turn = turn});
    int shown = 0, hidden = 0;
    for (int i = 0; i < tried().vertices; i += 2) {
      const auto at = picture.placeOf(i);
      if (!at) {
        ++hidden;
        continue;
      }
      ++shown;
      const auto found = picture.pointAt(*at);
      REQUIRE(found);
      const auto again = picture.placeOf(*found);
      REQUIRE(again);
      CHECK(QLineF(*at, *again).length() < 3);
    }
    CHECK(shown > 20);
    CHECK(hidden > 10);
    CHECK_FALSE(picture.pointAt({2, 2}));
  }
}

TEST_CASE("the height of a level is where the cloth's marks on it are drawn") {
  const BodyPicture picture = seen({});
  double before = 0;
  for (const LevelSeat& l : tried().levels) {
    CHECK(picture.heightOf(l.y) > before);
    before = picture.heightOf(l.y);
  }
}

TEST_CASE("from near the cups fill the picture") {
  const BodyPicture near = seen({.near = true}), whole = seen({});
  const auto apart = [](const BodyPicture& p) {
    double bust = 0, under = 0;
    for (const LevelSeat& l : tried().levels) {
      if (l.level == "bust") bust = p.heightOf(l.y);
      if (l.level == "underbust") under = p.heightOf(l.y);
    }
    CHECK(bust > 0);
    CHECK(under < kSize.height());
    return under - bust;
  };
  CHECK(apart(near) > 1.3 * apart(whole));
}

TEST_CASE("colours run from least to most, and clear cloth shows the body") {
  for (const ClothColour colour : {ClothColour::Pressure, ClothColour::StandOff, ClothColour::Stretch}) {
    const ColourScale scale = scaleOf(colour, lightTheme());
    CHECK(scale.at(scale.least - 5) == scale.at(scale.least));
    CHECK(scale.at(scale.most + 5) == scale.at(scale.most));
    CHECK(scale.at(scale.least) != scale.at(scale.most));
    CHECK(valueOf(tried().cloth, 3, colour).has_value());
    CHECK(seen({.colour = colour}).image() != seen({}).image());
  }
  CHECK_FALSE(valueOf(tried().cloth, 3, ClothColour::Cloth));
  CHECK(scaleOf(ClothColour::StandOff, lightTheme()).at(0) == lightTheme().paper);
  CHECK(seen({.clear = true}).image() != seen({}).image());
}
