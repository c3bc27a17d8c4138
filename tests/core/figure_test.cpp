// Figures, bra sizes, standard sizes, and two sets compared.
#include <catch2/catch.hpp>

#include "measure/compare_sets.h"
#include "measure/estimate.h"
#include "measure/figure.h"
#include "measure/measure_table.h"
#include "measure/plausibility.h"
#include "measure/standard_sizes.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("the thresholds of the figures stand in one table, without gaps") {
  const auto table = figureTable();
  REQUIRE(table.size() == 3);
  CHECK(figureFor(-100) == Figure::Small);
  for (const FigureClass& row : table) {
    CHECK(figureFor(row.fromMm) == row.figure);
    CHECK(&figureClass(row.figure) == &row);
  }
  for (size_t i = 1; i < table.size(); ++i) {
    CHECK(table[i].fromMm > table[i - 1].fromMm);
    CHECK(figureFor(table[i].fromMm - 0.01) == table[i - 1].figure);
    CHECK(table[i].frontSurplus > table[i - 1].frontSurplus);
  }
}

TEST_CASE("bra sizes by the steps of EN 13402-3") {
  // EN 13402-3:2004: cup A for 12 to 14 cm between full bust and underbust, B 14 to 16, C 16 to 18; band 75 for an
  // underbust of 73 to 77 cm. From memory.
  const auto size = [](double bustCm, double underCm) { return english(braSize(10 * bustCm, 10 * underCm).text()); };
  CHECK(size(88, 75) == "75 A");
  CHECK(size(90, 75) == "75 B");
  CHECK(size(92.9, 75) == "75 C");
  CHECK(size(85.5, 75) == "75 AA");
  CHECK(size(97, 77.4) == "75 D");
  CHECK(size(97, 77.6) == "80 D");
  CHECK(braSize(850, 750).letter == "AA");  // exactly on a step
  CHECK(braSize(800, 750).letter.empty());
  CHECK(braSize(1200, 750).letter.empty());
  CHECK(braSize(700, 400).band == 0);
}

TEST_CASE("standard sizes grow in step and raise no question") {
  const auto sizes = standardSizes();
  for (size_t i = 0; i < sizes.size(); ++i) {
    const MeasureSet m = standardMeasures(sizes[i]);
    CHECK(resolveBody(m).ok());
    for (const Question& q : questionsAbout(m)) CHECK(q.severity == Severity::Note);
    for (const auto& [id, taken] : m.all()) CHECK_FALSE(taken.note.empty());  // it was not taken on the client
    if (i == 0) continue;
    CHECK(sizes[i].bust > sizes[i - 1].bust);
    CHECK(sizes[i].waist > sizes[i - 1].waist);
    CHECK(sizes[i].hip > sizes[i - 1].hip);
  }
  CHECK(english(standardSizeName(sizes[4])) == "bust 92, waist 76, hip 100 cm");
}

TEST_CASE("the ideal figure of a bust lies between the sizes, and scales beyond them") {
  const MeasureSet between = idealFigure(940, 1700);
  CHECK(*between.mm("bust") == 940);
  CHECK(*between.mm("waist") == Approx(780));
  CHECK(*between.mm("stature") == 1700);
  CHECK(*idealFigure(600, 1700).mm("waist") < 600);
  CHECK(*idealFigure(1800, 1700).mm("hip") > 1420);
  CHECK(*idealFigure(920, 1700).mm("hip") == Approx(1000));
}

TEST_CASE("two sets are compared in the order of the table, missing ones shown as missing") {
  MeasureSet spring = plainFigure(), autumn = plainFigure();
  autumn.set("waist", {inches(27.25), ""});
  autumn.set("bust_span", {inches(7.375), ""});
  autumn.erase("stature");
  autumn.set("neck", {350, ""});
  autumn.set("left_elbow", {220, ""});
  const auto rows = compareSets(spring, autumn);
  CHECK(rows.size() == spring.all().size() + 2);
  CHECK(rows.back().id == "left_elbow");
  const auto row = [&](std::string_view id) {
    return *std::find_if(rows.begin(), rows.end(), [&](const Compared& c) { return c.id == id; });
  };
  CHECK(*row("waist").change() == Approx(inches(-0.75)));
  CHECK(row("waist").isMarked());
  CHECK_FALSE(row("bust_span").isMarked());  // an eighth: two takings differ by more
  CHECK_FALSE(row("stature").change());
  CHECK_FALSE(row("neck").first);
  CHECK_FALSE(row("hip").isMarked());
  CHECK_FALSE(Compared{"hip", inches(42), inches(42.5)}.isMarked());  // just what two takings may differ
  CHECK(Compared{"hip", inches(42), inches(42.625)}.isMarked());
  CHECK(Compared{"weight", 60, 61.5}.isMarked());
}
