// Measures and estimates.
#include <algorithm>
#include <catch2/catch.hpp>

#include "measure/estimate.h"
#include "measure/measure_table.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

MeasureSet plainWith(const char* id, double inch) {
  MeasureSet m = plainFigure();
  m.set(id, {inches(inch), "", ""});
  return m;
}

}  // namespace

TEST_CASE("bust, waist, hip and stature are enough; everything else is estimated and says so") {
  const Body body = *resolveBody(inInches({{"bust", 36}, {"waist", 28}, {"hip", 38}, {"stature", 66}}));
  for (const MeasureInfo& info : measureTable()) {
    if (info.need != Need::Required && info.need != Need::Estimated) continue;
    INFO(info.id);
    REQUIRE(body.has(info.id));
    const Fact& f = body.fact(info.id);
    const bool given = info.need == Need::Required || info.id == id::kStature;
    CHECK(f.source == (given ? Source::Taken : Source::Estimated));
    CHECK((f.spread > 0) == !given);
    if (!given) {
      double sum = 0;
      for (const Term& t : f.working.terms) sum += t.sign == '-' ? -t.mm : t.mm;
      CHECK(sum == Approx(f.mm).margin(0.01));  // the working adds up to the value
      CHECK_FALSE(f.working.note.empty());      // and names its source
      CHECK_FALSE(measureProblem(info.id, f.mm));
    }
  }
}

TEST_CASE("a taken measure is never replaced") {
  const MeasureSet m = plainFigure();
  const Body body = *resolveBody(m);
  for (const auto& [id, taken] : m.all()) {
    CHECK(body.mm(id) == taken.mm);
    CHECK(body.fact(id).source == Source::Taken);
  }
}

TEST_CASE("estimates of every real body keep the order of the levels") {
  for (const RealBody& b : realBodies())
    for (double cup : {20.0, 40.0, 100.0, 160.0, 200.0}) {
      const Body body = *resolveBody(measuresOf(b, cup));
      CHECK(body.mm("underbust") < body.mm("bust"));
      CHECK(body.mm("shoulder_to_bust") + 50 < body.mm("shoulder_to_underbust"));
      CHECK(body.mm("shoulder_to_underbust") + 40 < body.mm("shoulder_to_waist"));
      CHECK(body.mm("waist_to_high_hip") < body.mm("waist_to_hip"));
    }
}

TEST_CASE("what cannot be a body is refused with the measure's name") {
  const auto problem = [](MeasureSet m) {
    const auto r = resolveBody(m);
    REQUIRE_FALSE(r.ok());
    CHECK_FALSE(r.problem().remedy.empty());
    return english(r.problem().where);
  };
  CHECK(problem(inInches({{"bust", 36}, {"hip", 38}})) == "waist");
  CHECK(problem(plainWith("waist", 48)) == "waist");  // over the bust by 30 cm
  CHECK(problem(plainWith("bust", 4000 / 2.54)) == "bust");
  CHECK(problem(plainWith("hip", -38)) == "hip");
  MeasureSet nan = plainFigure();
  nan.set("hip", {std::nan(""), "", ""});
  CHECK(problem(nan) == "hip");
}

TEST_CASE("the figure follows full less upper bust") {
  const auto figure = [](double upper) { return figureOf(*resolveBody(plainWith("upper_bust", upper))); };
  CHECK(figure(34) == Figure::Small);
  CHECK(figure(33) == Figure::Medium);
  CHECK(figure(31) == Figure::Full);
}

TEST_CASE("every measure of the table can be estimated from the plain figure, within its bounds") {
  const MeasureSet plain = plainFigure();
  for (const MeasureInfo& info : measureTable()) {
    INFO(info.id);
    const Fact fact = factOf(info.id, plain);
    CHECK_FALSE(measureProblem(info.id, fact.mm));
    CHECK_FALSE(info.how.empty());
    if (plain.has(info.id)) continue;
    CHECK(fact.spread > 0);
    CHECK(fact.spread < 0.45 * fact.mm);
    CHECK_FALSE(fact.working.note.empty());
  }
  CHECK_THROWS_AS(factOf("no_such_measure", plain), std::out_of_range);
}

TEST_CASE("a body can be completed from nothing, or from any single measure") {
  CHECK(completeBody({}).mm("waist") == Approx(690.2).margin(0.1));  // the mean of the data set
  for (const MeasureInfo& info : measureTable()) {
    MeasureSet one;
    one.set(info.id, {(info.lowest + info.highest) / 2, "", ""});
    const Body body = completeBody(one);
    for (const Fact& f : body.facts()) CHECK(std::isfinite(f.mm));
  }
}

TEST_CASE("the order of the tape: girths down, heights down, spans and arcs, back, extras") {
  const auto rows = measuresInTapeOrder();
  CHECK(rows.size() == measureTable().size());
  CHECK(rows.front()->id == "upper_bust");
  for (size_t i = 1; i < rows.size(); ++i) CHECK(rows[i - 1]->group <= rows[i]->group);
  const auto at = [&](std::string_view id) {
    return std::find_if(rows.begin(), rows.end(), [&](const MeasureInfo* r) { return r->id == id; }) - rows.begin();
  };
  CHECK(at("waist") < at("shoulder_to_bust"));
  CHECK(at("waist_to_hip") < at("bust_span"));
  CHECK(at("cup_in") < at("back_waist_length"));
  CHECK(at("shoulder_width") < at("stature"));
}
