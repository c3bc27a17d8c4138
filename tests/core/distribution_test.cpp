// Sharing out the drop: the quadratic program against an independent solver, and what a maker expects of it.
#include <Eigen/Dense>
#include <catch2/catch.hpp>
#include <limits>
#include <random>

#include "distribute/distribution.h"
#include "distribute/quadratic.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

constexpr double kNone = std::numeric_limits<double>::infinity();

// A reference that shares nothing with the solver but Eigen: the augmented Lagrangian for the equalities (R. T.
// Rockafellar 1973), projected Gauss-Seidel for the bounds. Slow and plain.
Eigen::VectorXd reference(const QuadraticProgram& q) {
  const Eigen::Index n = q.c.size();
  constexpr double kPenalty = 50;
  const Eigen::MatrixXd g = q.G + kPenalty * q.A.transpose() * q.A;
  Eigen::VectorXd x = Eigen::VectorXd::Zero(n), multiplier = Eigen::VectorXd::Zero(q.b.size());
  for (int outer = 0; outer < 4000; ++outer) {
    const Eigen::VectorXd c = q.c + q.A.transpose() * (multiplier + kPenalty * q.b);
    double moved = 0;
    for (int sweep = 0; sweep < 200; ++sweep) {
      moved = 0;
      for (Eigen::Index i = 0; i < n; ++i) {
        const double next = std::clamp(x(i) + (c(i) - g.row(i).dot(x)) / g(i, i), q.low(i), q.high(i));
        moved = std::max(moved, std::abs(next - x(i)));
        x(i) = next;
      }
      if (moved < 1e-12) break;
    }
    const Eigen::VectorXd off = q.b - q.A * x;
    multiplier += kPenalty * off;
    if (off.norm() < 1e-11 && moved < 1e-11) break;
  }
  return x;
}

QuadraticProgram randomProgram(Dice& dice, int n, int m) {
  QuadraticProgram q;
  Eigen::MatrixXd half(n, n);
  for (int i = 0; i < n * n; ++i) half(i) = dice.between(-1, 1);
  q.G = half * half.transpose() + 0.5 * Eigen::MatrixXd::Identity(n, n);
  q.A = Eigen::MatrixXd(m, n);
  for (int i = 0; i < m * n; ++i) q.A(i) = dice.between(-1, 1);
  q.c = q.low = q.high = Eigen::VectorXd(n);
  Eigen::VectorXd inside(n);  // the program has a solution: some point satisfies everything
  for (int i = 0; i < n; ++i) {
    q.c(i) = dice.between(-20, 20);
    q.low(i) = dice.between(-3, 0);
    q.high(i) = dice.between(0, 3);
    inside(i) = dice.between(q.low(i), q.high(i));
    if (dice.between(0, 1) < 0.2) q.high(i) = kNone;
  }
  q.b = q.A * inside;
  return q;
}

// A back and front half rolled into one: lines of a corset on six levels.
DistributionProblem corset(Dice& dice, size_t lines) {
  DistributionProblem p;
  const char* names[] = {"top", "bust", "underbust", "waist", "high_hip", "hip"};
  for (size_t i = 0; i < lines; ++i) p.lines.push_back({"line" + std::to_string(i), dice.between(0.3, 3)});
  double y = 200;
  for (const char* name : names) {
    p.levels.push_back({name, y += dice.between(40, 120), 0});
    double most = 0, least = 0;
    for (size_t i = 0; i < lines; ++i) {
      const bool side = i + 1 == lines;
      TakingCell c{dice.between(0, 30), side ? -60.0 : 0.0, side ? 80 : dice.between(25, 45)};
      if (dice.between(0, 1) < 0.1) c.low = c.high = dice.between(0, 20);
      p.cells.push_back(c);
      least += c.low;
      most += c.high;
    }
    p.levels.back().drop = dice.between(least, most);
  }
  return p;
}

double sum(const DistributionProblem& p, const Distribution& d, size_t level) {
  double total = 0;
  for (size_t i = 0; i < p.lines.size(); ++i) total += d.intakes[level * p.lines.size() + i];
  return total;
}

}  // namespace

TEST_CASE("a worked example: the projection of a point on a plane, within a box") {
  // min (x-3)^2 + (y-1)^2 with x + y = 2: by hand (2, 0); with x <= 1.5: (1.5, 0.5).
  QuadraticProgram q{2 * Eigen::MatrixXd::Identity(2, 2),  Eigen::Vector2d(6, 2),
                     Eigen::MatrixXd::Ones(1, 2),          Eigen::VectorXd::Constant(1, 2),
                     Eigen::VectorXd::Constant(2, -kNone), Eigen::VectorXd::Constant(2, kNone)};
  CHECK((solveQuadratic(q)->x - Eigen::Vector2d(2, 0)).norm() < 1e-12);
  q.high(0) = 1.5;
  const auto bounded = solveQuadratic(q);
  CHECK((bounded->x - Eigen::Vector2d(1.5, 0.5)).norm() < 1e-12);
  CHECK(bounded->bound(0) < 0);  // it presses against its high bound
  q.high(1) = 0.4;
  CHECK_FALSE(solveQuadratic(q));  // 1.5 + 0.4 < 2
}

TEST_CASE("random programs agree with an independent solver to 1e-6 and satisfy the conditions of optimality") {
  Dice dice(11);
  for (int round = 0; round < 150; ++round) {
    const int n = 2 + round % 9, m = round % 3;
    const QuadraticProgram q = randomProgram(dice, n, std::min(m, n - 1));
    const auto mine = solveQuadratic(q);
    REQUIRE(mine);
    INFO("round " << round);
    CHECK((mine->x - reference(q)).cwiseAbs().maxCoeff() < 1e-6);
    // Karush, Kuhn and Tucker: gradient = A' u + v, v pressing only where a bound is met.
    const Eigen::VectorXd gradient = q.G * mine->x - q.c;
    CHECK((gradient - q.A.transpose() * mine->equality - mine->bound).cwiseAbs().maxCoeff() < 1e-8);
    if (q.b.size() > 0) CHECK((q.A * mine->x - q.b).cwiseAbs().maxCoeff() < 1e-9);
    for (int i = 0; i < n; ++i) {
      CHECK(mine->x(i) >= q.low(i));
      CHECK(mine->x(i) <= q.high(i));
      if (mine->bound(i) > 0) CHECK(mine->x(i) == q.low(i));
      if (mine->bound(i) < 0) CHECK(mine->x(i) == q.high(i));
    }
  }
}

TEST_CASE("programs that cannot be are refused, wrong ones thrown out") {
  QuadraticProgram q{Eigen::MatrixXd::Identity(2, 2), Eigen::Vector2d(0, 0), Eigen::MatrixXd::Zero(0, 2),
                     Eigen::VectorXd::Zero(0),        Eigen::Vector2d(1, 0), Eigen::Vector2d(0, 1)};
  CHECK_FALSE(solveQuadratic(q));  // low above high
  q.low(0) = 0;
  CHECK(solveQuadratic(q));
  q.G(1, 1) = -1;
  CHECK_THROWS_AS(solveQuadratic(q), std::invalid_argument);
  q.c = Eigen::VectorXd::Zero(3);
  CHECK_THROWS_AS(solveQuadratic(q), std::invalid_argument);
}

TEST_CASE("every level takes its drop to 1e-9, every intake stays within its bounds, held ones stay where they are") {
  Dice dice(12);
  for (int round = 0; round < 400; ++round) {
    const DistributionProblem p = corset(dice, 2 + static_cast<size_t>(round % 9));
    const Distribution d = distribute(p);
    CHECK(d.misses.empty());
    for (size_t l = 0; l < p.levels.size(); ++l) {
      CHECK(sum(p, d, l) == Approx(p.levels[l].drop).margin(1e-9));
      for (size_t i = 0; i < p.lines.size(); ++i) {
        const double x = d.intakes[l * p.lines.size() + i];
        CHECK(x >= p.cell(l, i).low);
        CHECK(x <= p.cell(l, i).high);
      }
    }
  }
}

TEST_CASE("the distribution does not depend on the order of the lines") {
  Dice dice(13);
  for (int round = 0; round < 60; ++round) {
    const DistributionProblem p = corset(dice, 6);
    DistributionProblem turned = p;
    std::reverse(turned.lines.begin(), turned.lines.end());
    for (size_t l = 0; l < p.levels.size(); ++l)
      std::reverse(turned.cells.begin() + static_cast<long>(6 * l),
                   turned.cells.begin() + static_cast<long>(6 * l + 6));
    const Distribution a = distribute(p), b = distribute(turned);
    for (size_t l = 0; l < p.levels.size(); ++l)
      for (size_t i = 0; i < 6; ++i) CHECK(a.intakes[6 * l + i] == Approx(b.intakes[6 * l + 5 - i]).margin(1e-8));
  }
}

TEST_CASE("a wish that adds up is granted as it is") {
  Dice dice(14);
  DistributionProblem p = corset(dice, 4);
  for (size_t l = 0; l < p.levels.size(); ++l) {
    p.levels[l].drop = 0;
    for (size_t i = 0; i < 4; ++i) {
      TakingCell& c = p.cells[4 * l + i];
      c = {dice.between(2, 20), 0, 40};
      p.levels[l].drop += c.wish;
    }
  }
  const Distribution d = distribute(p);
  for (size_t k = 0; k < p.cells.size(); ++k) CHECK(d.intakes[k] == Approx(p.cells[k].wish).margin(1e-9));
}

TEST_CASE("what is dragged to one line is taken from the others, by their weights") {
  // One level, no smoothness: the surplus is shared in proportion to 1 / weight (by hand).
  DistributionProblem p;
  p.lines = {{"a", 1}, {"b", 1}, {"c", 2}};
  p.levels = {{"waist", 400, 60}};
  p.cells = {{20, 0, 80}, {20, 0, 80}, {20, 0, 80}};
  p.cells[0].low = p.cells[0].high = 35;  // dragged
  Distribution d = distribute(p);
  CHECK(d.intakes[0] == 35);
  CHECK(d.intakes[1] == Approx(20 - 10));
  CHECK(d.intakes[2] == Approx(20 - 5));
  p.cells[1].low = p.cells[1].high = 25;  // two held: the last takes what is left
  d = distribute(p);
  CHECK(d.intakes[2] == Approx(0).margin(1e-12));
}

TEST_CASE("smoothness keeps a line from jumping between neighbouring levels") {
  DistributionProblem p;
  p.lines = {{"a", 1}, {"b", 1}};
  p.levels = {{"underbust", 300, 20}, {"waist", 400, 60}, {"high_hip", 500, 20}};
  for (int l = 0; l < 3; ++l)
    for (int i = 0; i < 2; ++i) p.cells.push_back({10, 0, 100});
  p.cells[2].low = p.cells[2].high = 50;  // at the waist, line a is held far from its wish
  p.smoothness = 0;
  const Distribution rough = distribute(p);
  p.smoothness = 2;
  const Distribution smooth = distribute(p);
  CHECK(std::abs(smooth.intakes[2] - smooth.intakes[0]) < std::abs(rough.intakes[2] - rough.intakes[0]));
  CHECK(smooth.intakes[0] + smooth.intakes[1] == Approx(20));
}

TEST_CASE("when the caps make a drop impossible, the miss and its three cures are told, and each cure suffices") {
  Dice dice(15);
  for (int round = 0; round < 200; ++round) {
    DistributionProblem p = corset(dice, 5);
    for (TakingCell& c : p.cells)
      if (c.low == c.high) c.high = c.low + 10;
    double most = 0;
    for (size_t i = 0; i < 5; ++i) most += p.cell(3, i).high;
    p.levels[3].drop = most + dice.between(5, 60);
    const Distribution d = distribute(p);
    REQUIRE(d.misses.size() == 1);
    const Miss& miss = d.misses.front();
    CHECK(miss.level == 3);
    CHECK(miss.amount == Approx(p.levels[3].drop - most));
    CHECK(sum(p, d, 3) == Approx(most));  // it takes all it can

    DistributionProblem less = p;
    less.levels[3].drop -= miss.cures.lessReduction / 4;  // a quarter of it falls on each quarter of the garment
    CHECK(distribute(less).misses.empty());
    DistributionProblem higher = p;
    for (size_t i = 0; i < 5; ++i) higher.cells[15 + i].high += miss.cures.higherCap + 1e-9;
    CHECK(distribute(higher).misses.empty());
    DistributionProblem more;
    more.smoothness = p.smoothness;
    more.levels = p.levels;
    more.lines = p.lines;
    const double cap = most / 5;
    for (int extra = 0; extra < miss.cures.moreLines; ++extra) more.lines.push_back({"new", 1});
    for (size_t l = 0; l < p.levels.size(); ++l)
      for (size_t i = 0; i < more.lines.size(); ++i)
        more.cells.push_back(i < 5 ? p.cell(l, i) : TakingCell{0, 0, cap + 1e-9});
    CHECK(distribute(more).misses.empty());
  }
}

TEST_CASE("a problem that does not fit together is thrown out") {
  Dice dice(16);
  DistributionProblem p = corset(dice, 3);
  p.cells.pop_back();
  CHECK_THROWS_AS(distribute(p), std::invalid_argument);
  p = corset(dice, 3);
  p.lines[1].weight = 0;
  CHECK_THROWS_AS(distribute(p), std::invalid_argument);
  p = corset(dice, 3);
  p.levels[2].y = p.levels[1].y;
  CHECK_THROWS_AS(distribute(p), std::invalid_argument);
}
