// A measure as it is typed, and taken more than once.
#include <catch2/catch.hpp>

#include "measure/takings.h"
#include "tests/support/bodies.h"

using namespace armure;

TEST_CASE("every way of writing a measure reads as the same length") {
  for (const char* text : {"36", "36 in", "36.0", "91.44cm", "91,44 cm", "914.4 mm", "36\""})
    CHECK(readTakings("bust", text, Unit::Inch)->front().mm == Approx(914.4).margin(1e-9));
  CHECK(readTakings("bust", "36½", Unit::Inch)->front().mm == Approx(927.1));
  CHECK(readTakings("bust", "92,5", Unit::Centimetre)->front().mm == Approx(925));
  CHECK(readTakings("weight", "62,5", Unit::Inch)->front().mm == Approx(62.5));
  CHECK(readTakings("weight", "62.5 kg", Unit::Centimetre)->front().typed == "62.5 kg");
}

TEST_CASE("several takings: their spread, their mean, or the last") {
  const auto takings = readTakings("bust", "36; 36 1/2 ;92cm", Unit::Inch);
  REQUIRE(takings.ok());
  REQUIRE(takings->size() == 3);
  const TakenMeasure last = measureOf(*takings, Use::Last, "calm"), mean = measureOf(*takings, Use::Mean, "");
  CHECK(last.mm == Approx(920));
  CHECK(mean.mm == Approx((914.4 + 927.1 + 920) / 3));
  CHECK(takingSpread(last) == Approx(12.7));
  CHECK(last.note == "calm");
  CHECK(last.typed == "36 in; 36 1/2 in; 92 cm");
  CHECK(fieldText("bust", last, Unit::Inch) == "36; 36 1/2; 36 1/4");  // 92 cm to a sixteenth
  CHECK(fieldText("bust", last, Unit::Centimetre).substr(0, 4) == "91.4");
  // What a field shows reads back.
  CHECK(readTakings("bust", fieldText("bust", last, Unit::Inch), Unit::Inch)->size() == 3);
}

TEST_CASE("a single taking has no spread; one more is added to it") {
  const TakenMeasure once = measureOf(*readTakings("waist", "26", Unit::Inch), Use::Mean, "");
  CHECK(once.takings.empty());
  CHECK(takingSpread(once) == 0);
  const TakenMeasure twice = takenAgain(once, {inches(26.5), "26 1/2 in"});
  CHECK(twice.takings.size() == 2);
  CHECK(twice.mm == Approx(inches(26.25)));  // the mean, as was chosen
  TakenMeasure many = once;
  for (int i = 0; i < 30; ++i) many = takenAgain(many, {inches(26), "26 in"});
  CHECK(many.takings.size() == kMostTakings);
}

TEST_CASE("a semicolon at the end waits for the next taking; elsewhere every part is read") {
  CHECK(readTakings("bust", "36;", Unit::Inch)->size() == 1);
  for (const char* text : {"", ";", ";36", "36;;37", "36; 3", "36; abc", "36; 13 8/5", "1;1;1;1;1;1;1;1;1;1;1"}) {
    const auto read = readTakings("bust", text, Unit::Inch);
    INFO(text);
    REQUIRE_FALSE(read.ok());
    CHECK_FALSE(read.problem().remedy.empty());
  }
  CHECK_FALSE(readTakings("weight", "62 cm", Unit::Inch).ok());
  CHECK_FALSE(readTakings("weight", "6.2 in", Unit::Centimetre).ok());
}
