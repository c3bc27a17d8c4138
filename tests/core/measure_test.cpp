// Measures, estimates and questions.
#include <Eigen/Dense>
#include <catch2/catch.hpp>

#include "measure/estimate.h"
#include "measure/measure_table.h"
#include "measure/plausibility.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Fit {
  Eigen::VectorXd coefficients;
  double deviation;
};

// Ordinary least squares by Eigen's QR, on the data set shipped in data/bodies.
Fit regress(const std::vector<RealBody>& bodies, double RealBody::*y, std::vector<double RealBody::*> x) {
  Eigen::MatrixXd a(bodies.size(), x.size() + 1);
  Eigen::VectorXd b(bodies.size());
  for (Eigen::Index i = 0; i < a.rows(); ++i) {
    const RealBody& body = bodies[static_cast<size_t>(i)];
    a(i, 0) = 1;
    for (size_t k = 0; k < x.size(); ++k) a(i, static_cast<Eigen::Index>(k) + 1) = body.*x[k];
    b(i) = body.*y;
  }
  const Eigen::VectorXd c = a.colPivHouseholderQr().solve(b);
  return {c, std::sqrt((a * c - b).squaredNorm() / static_cast<double>(a.rows() - a.cols()))};
}

bool asked(const MeasureSet& measures, std::string_view about) {
  for (const Question& q : questionsAbout(*resolveBody(measures)))
    if (q.measure == about) return true;
  return false;
}

MeasureSet plainWith(const char* id, double inch) {
  MeasureSet m = plainFigure();
  m.set(id, {inches(inch), "", ""});
  return m;
}

}  // namespace

TEST_CASE("the regressions are those of the data set they name") {
  // Heinz, Peterson, Johnson, Kerk, Journal of Statistics Education 11(2), 2003; 130 women, data/bodies.
  const auto bodies = realBodies();
  REQUIRE(bodies.size() == 130);
  const Fit highHip = regress(bodies, &RealBody::highHip, {&RealBody::waist, &RealBody::hip});
  const Fit shoulders = regress(bodies, &RealBody::biacromial, {&RealBody::stature, &RealBody::upperBust});
  MeasureSet m = inInches({{"bust", 36}, {"waist", 28}, {"hip", 38}, {"stature", 66}});
  const Body body = *resolveBody(m);
  CHECK(body.mm("high_hip") ==
        Approx(highHip.coefficients(0) + highHip.coefficients(1) * inches(28) + highHip.coefficients(2) * inches(38))
            .margin(0.2));
  CHECK(body.fact("high_hip").spread == Approx(highHip.deviation).epsilon(0.01));
  CHECK(body.mm("shoulder_width") == Approx(shoulders.coefficients(0) + shoulders.coefficients(1) * inches(66) +
                                            shoulders.coefficients(2) * body.mm("upper_bust"))
                                         .margin(0.2));
  CHECK(body.fact("shoulder_width").spread == Approx(shoulders.deviation).epsilon(0.01));
}

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
    return r.problem().where;
  };
  CHECK(problem(inInches({{"bust", 36}, {"hip", 38}})) == "waist");
  CHECK(problem(plainWith("waist", 48)) == "waist");  // over the bust by 30 cm
  CHECK(problem(plainWith("bust", 4000 / 2.54)) == "bust");
  CHECK(problem(plainWith("hip", -38)) == "hip");
  MeasureSet nan = plainFigure();
  nan.set("hip", {std::nan(""), "", ""});
  CHECK(problem(nan) == "hip");
}

TEST_CASE("questions are asked where they should be, and not where not") {
  CHECK(questionsAbout(*resolveBody(plainFigure())).empty());
  CHECK(asked(plainWith("underbust", 37), "underbust"));
  CHECK(asked(plainWith("back_waist_length", 18.5), "back_waist_length"));
  CHECK(asked(plainWith("bust_span", 10), "bust_span"));
  CHECK(asked(plainWith("waist", 14 * 1.2), "waist"));  // a half noted
  CHECK(asked(plainWith("shoulder_to_underbust", 10.4), "shoulder_to_bust"));
  CHECK(asked(plainWith("waist_to_high_hip", 7), "waist_to_high_hip") == false);
}

TEST_CASE("the figure follows full less upper bust") {
  const auto figure = [](double upper) { return figureOf(*resolveBody(plainWith("upper_bust", upper))); };
  CHECK(figure(34) == Figure::Small);
  CHECK(figure(33) == Figure::Medium);
  CHECK(figure(31) == Figure::Full);
}
