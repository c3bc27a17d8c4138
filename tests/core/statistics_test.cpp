// The regressions: against the data set itself, an independent least-squares solver, and rows held back.
#include <Eigen/Dense>
#include <catch2/catch.hpp>
#include <map>
#include <random>

#include "measure/body_statistics.h"
#include "measure/measure_table.h"
#include "measure/predict.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

const std::map<std::string_view, double RealBody::*> kColumns{
    {"stature", &RealBody::stature},           {"weight", &RealBody::weight},
    {"shoulder_width", &RealBody::biacromial}, {"round_shoulder", &RealBody::roundShoulder},
    {"upper_bust", &RealBody::upperBust},      {"waist", &RealBody::waist},
    {"high_hip", &RealBody::highHip},          {"hip", &RealBody::hip}};

struct Fit {
  Eigen::VectorXd coefficients;  // constant first
  double spread;
};

// Ordinary least squares by Eigen's QR on the rows of the data set.
Fit leastSquares(const std::vector<RealBody>& rows, std::string_view y, const std::vector<std::string_view>& x) {
  Eigen::MatrixXd a(rows.size(), x.size() + 1);
  Eigen::VectorXd b(rows.size());
  for (Eigen::Index i = 0; i < a.rows(); ++i) {
    const RealBody& row = rows[static_cast<size_t>(i)];
    a(i, 0) = 1;
    for (size_t k = 0; k < x.size(); ++k) a(i, static_cast<Eigen::Index>(k) + 1) = row.*kColumns.at(x[k]);
    b(i) = row.*kColumns.at(y);
  }
  const Eigen::VectorXd c = a.colPivHouseholderQr().solve(b);
  return {c, std::sqrt((a * c - b).squaredNorm() / static_cast<double>(a.rows() - a.cols()))};
}

// Root mean square error on held-back rows: ten folds, every tenth row held back in turn.
double heldBackError(const std::vector<RealBody>& rows, std::string_view y, const std::vector<std::string_view>& x) {
  double sum = 0;
  for (size_t fold = 0; fold < 10; ++fold) {
    std::vector<RealBody> fitted;
    for (size_t i = 0; i < rows.size(); ++i)
      if (i % 10 != fold) fitted.push_back(rows[i]);
    const Fit fit = leastSquares(fitted, y, x);
    for (size_t i = fold; i < rows.size(); i += 10) {
      double predicted = fit.coefficients(0);
      for (size_t k = 0; k < x.size(); ++k)
        predicted += fit.coefficients(static_cast<Eigen::Index>(k) + 1) * rows[i].*kColumns.at(x[k]);
      sum += std::pow(predicted - rows[i].*kColumns.at(y), 2);
    }
  }
  return std::sqrt(sum / static_cast<double>(rows.size()));
}

}  // namespace

// Heinz, Peterson, Johnson, Kerk, Journal of Statistics Education 11(2), 2003; 130 women, data/bodies.
TEST_CASE("means and covariances of the table are those of the data set it names") {
  const auto rows = realBodies();
  REQUIRE(rows.size() == kStatisticsSample);
  const auto mean = [&](auto column) {
    double sum = 0;
    for (const RealBody& r : rows) sum += r.*column;
    return sum / static_cast<double>(rows.size());
  };
  for (const auto& [a, columnA] : kColumns) {
    CHECK(statisticsMean(a) == Approx(mean(columnA)).margin(1e-3));
    for (const auto& [b, columnB] : kColumns) {
      double sum = 0;
      for (const RealBody& r : rows) sum += (r.*columnA - mean(columnA)) * (r.*columnB - mean(columnB));
      CHECK(statisticsCovariance(a, b) == Approx(sum / 129).margin(1e-3));
    }
  }
  CHECK_THROWS_AS(statisticsMean("bust"), std::out_of_range);
}

TEST_CASE("regression on any subset is least squares on the rows") {
  const auto rows = realBodies();
  std::mt19937 random(31);
  for (int round = 0; round < 60; ++round) {
    std::vector<std::string_view> ids(statisticsMeasures().begin(), statisticsMeasures().end());
    std::shuffle(ids.begin(), ids.end(), random);
    const std::string_view target = ids.back();
    ids.resize(random() % 8);
    const Regression mine = regress(target, ids);
    const Fit reference = leastSquares(rows, target, ids);
    CHECK(mine.spread == Approx(reference.spread).epsilon(1e-4));
    CHECK(mine.constant == Approx(reference.coefficients(0)).epsilon(1e-3).margin(0.05));
    for (size_t k = 0; k < ids.size(); ++k)
      CHECK(mine.parts[k].coefficient ==
            Approx(reference.coefficients(static_cast<Eigen::Index>(k) + 1)).epsilon(1e-3).margin(1e-4));
  }
  const std::vector<std::string_view> itself{"waist", "hip"};
  CHECK_THROWS_AS(regress("hip", itself), std::invalid_argument);
}

TEST_CASE("the stated spread is the error on rows held back, to a tenth") {
  const auto rows = realBodies();
  for (std::string_view target : statisticsMeasures()) {
    for (const std::vector<std::string_view>& given : {std::vector<std::string_view>{"stature", "waist", "hip"},
                                                       {"stature", "upper_bust", "waist", "high_hip", "hip"}}) {
      std::vector<std::string_view> x;
      for (std::string_view g : given)
        if (g != target) x.push_back(g);
      const double stated = regress(target, x).spread, error = heldBackError(rows, target, x);
      INFO(target << " from " << x.size() << ": stated " << stated << ", held back " << error);
      CHECK(error == Approx(stated).epsilon(0.1));
    }
  }
}

TEST_CASE("two thirds of the real bodies lie within one spread of what their other measures lead one to expect") {
  for (std::string_view target : statisticsMeasures()) {
    int within = 0;
    for (const RealBody& row : realBodies()) {
      const MeasureSet all = allMeasuresOf(row, 80);
      const Prediction p = predict(target, Known(all).without("bust"));
      within += std::abs(row.*kColumns.at(target) - p.mm) <= p.spread;
    }
    INFO(target << ": " << within << " of 130");
    CHECK(within > 0.6 * 130);  // 0.683 for a normal distribution
    CHECK(within < 0.82 * 130);
  }
}

TEST_CASE("a prediction never looks at the measure itself, and is never surer without its inputs") {
  for (const MeasureInfo& info : measureTable()) {
    Known plain(plainFigure());
    const Prediction before = predict(info.id, plain);
    plain.set(info.id, 1234.5);
    CHECK(predict(info.id, plain).mm == before.mm);
    double sum = 0;
    for (const Term& t : before.terms) sum += t.sign == '-' ? -t.mm : t.mm;
    CHECK(sum == Approx(before.mm).margin(1e-6));
    CHECK(predict(info.id, Known{}).spread >= before.spread - 1e-9);
  }
}
