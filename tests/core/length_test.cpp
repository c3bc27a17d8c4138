// Lengths as makers type and read them.
#include <catch2/catch.hpp>
#include <cmath>

#include "units/length.h"

using namespace armure;

TEST_CASE("the inch is 25.4 mm exactly") {
  // International yard and pound agreement, 1959: 1 yd = 0.9144 m exactly.
  CHECK(kMmPerInch == 25.4);
  CHECK(inches(36) == Approx(914.4).margin(1e-12));
  CHECK(*parseLength("1", Unit::Inch) == 25.4);
  CHECK(*parseLength("2.54", Unit::Centimetre) == Approx(25.4).margin(1e-12));
}

TEST_CASE("lengths are read as makers write them") {
  const auto mm = [](const char* text, Unit unit = Unit::Inch) { return parseLength(text, unit).value(); };
  for (const char* text : {"9 1/2", "9.5", "9,5", "9½", "9 4/8", "9-1/2", " 9  1/2 ", "9 1/2 in", "9.5\"",
                           "9\xC2\xA0"
                           "1/2",
                           "24.13 cm", "241.3mm", "+9 1/2"})
    CHECK(mm(text) == Approx(241.3).margin(1e-9));
  CHECK(mm("24,1 cm") == Approx(241));
  CHECK(mm("92", Unit::Centimetre) == Approx(920));
  CHECK(mm("36 in", Unit::Centimetre) == Approx(914.4));
  CHECK(mm("3/8") == Approx(9.525));
  CHECK(mm("1 / 2") == Approx(12.7));
  CHECK(mm("½") == Approx(12.7));
  CHECK(mm("-1/2") == Approx(-12.7));
}

TEST_CASE("what is not a length is refused, with what would be right") {
  for (const char* text : {"", "  ", "9 1/", "/2", "9 1/0", "1/2/3", "nan", "NaN", "inf", "abc", "9..5", "9.5 1/2",
                           "1e400", "9 in in", "12 ft", "99999999999999999999999999", "9 1 1/2", "\x01"}) {
    const auto read = parseLength(text, Unit::Inch);
    INFO(text);
    REQUIRE_FALSE(read.ok());
    CHECK_FALSE(read.problem().remedy.empty());
  }
}

TEST_CASE("lengths are shown in eighths, sixteenths or tenths of a centimetre") {
  CHECK(formatLength(241.3, {Unit::Inch, 8}) == "9 1/2");
  CHECK(formatLength(inches(9.0625), {Unit::Inch, 16}) == "9 1/16");
  CHECK(formatLength(inches(0.125), {Unit::Inch, 8}) == "1/8");
  CHECK(formatLength(inches(3), {Unit::Inch, 8}) == "3");
  CHECK(formatLength(-inches(1.25), {Unit::Inch, 8}) == "-1 1/4");
  CHECK(formatLength(-0.01, {Unit::Inch, 8}) == "0");
  CHECK(formatLength(-0.01, {Unit::Centimetre, 8}) == "0.0");
  CHECK(formatLengthWithUnit(241, {Unit::Centimetre, 8}) == "24.1 cm");
  CHECK(formatDifference(inches(0.0625), {Unit::Inch, 8}) == "+1/16 in");
  CHECK(formatDifference(-0.8, {Unit::Centimetre, 8}) == "-0.8 mm");
  CHECK(formatDifference(0, {Unit::Inch, 8}) == "0 in");
}

TEST_CASE("every eighth from 0 to 60 in is read back as it was shown") {
  for (int eighths = 0; eighths <= 480; ++eighths) {
    const double mm = inches(eighths / 8.0);
    CHECK(*parseLength(formatLength(mm, {Unit::Inch, 8}), Unit::Inch) == Approx(mm).margin(1e-9));
    CHECK(*parseLength(formatExact(mm, Unit::Inch), Unit::Inch) == Approx(mm).margin(0.01));
    CHECK(*parseLength(formatExact(mm, Unit::Centimetre), Unit::Centimetre) == Approx(mm).margin(0.01));
  }
}
