// The numerics of balancing: derivatives, any start, any order of the pieces, several threads.
#include <Eigen/Core>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>
#include <thread>

#include "balance/balance.h"
#include "balance/solve.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Eigen::VectorXd anyPoint(const BalanceProblem& problem, Dice& dice, double displacement) {
  Eigen::VectorXd x(problem.unknowns());
  for (Eigen::Index i = 0; i < x.size(); ++i)
    x(i) = dice.between(-1, 1) * (i % 4 < 2 ? displacement : 0.01 * displacement);
  return x;
}

// Largest distance between the same points of the same edges.
double apart(const Pattern& a, const Pattern& b) {
  double most = 0;
  for (const Piece& p : a.pieces)
    for (const Piece& q : b.pieces) {
      if (p.id != q.id) continue;
      for (const Edge& e : p.edges) {
        const auto &one = e.path.cubics(), &other = q.edge(e.id).path.cubics();
        REQUIRE(one.size() == other.size());
        for (size_t i = 0; i < one.size(); ++i)
          most = std::max({most, distance(one[i].p0, other[i].p0), distance(one[i].p1, other[i].p1),
                           distance(one[i].p2, other[i].p2), distance(one[i].p3, other[i].p3)});
      }
    }
  return most;
}

}  // namespace

TEST_CASE("the derivative of a cubic's length agrees with central differences to 1e-6") {
  Dice dice(3);
  for (int round = 0; round < 100; ++round) {
    Cubic c{{0, 0}, {dice.between(-20, 20), 30}, {dice.between(-20, 20), 60}, {dice.between(-20, 20), 95}};
    const LengthGradient g = lengthGradient(c);
    CHECK(g.length == Approx(c.length()).margin(1e-8));
    Vec2* points[] = {&c.p0, &c.p1, &c.p2, &c.p3};
    for (int i = 0; i < 4; ++i)
      for (double Vec2::*axis : {&Vec2::x, &Vec2::y}) {
        constexpr double kStep = 1e-4;
        const double was = points[i]->*axis;
        points[i]->*axis = was + kStep;
        const double more = c.length();
        points[i]->*axis = was - kStep;
        const double less = c.length();
        points[i]->*axis = was;
        CHECK(g.by[i].*axis == Approx((more - less) / (2 * kStep)).margin(1e-6));
      }
  }
}

TEST_CASE("the derivative of a moved edge's length agrees with central differences to 1e-6") {
  const Design d = designOf(plainOrder());
  Dice dice(4);
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges) {
      if (e.role != EdgeRole::Seam) continue;
      const MovingEdge edge(e.path, {40, 120, 200});
      Eigen::VectorXd x(edge.unknowns());
      for (Eigen::Index i = 0; i < x.size(); ++i) x(i) = dice.between(-1, 1) * (i % 4 < 2 ? 2 : 0.02);
      Eigen::VectorXd gradient = Eigen::VectorXd::Zero(x.size()), unused = gradient;
      const size_t from = edge.jointAt(40), to = edge.jointAt(200);
      edge.length(from, to, x, 1, gradient);
      for (Eigen::Index i = 0; i < x.size(); ++i) {
        Eigen::VectorXd more = x, less = x;
        more(i) += 1e-4;
        less(i) -= 1e-4;
        const double slope = (edge.length(from, to, more, 0, unused) - edge.length(from, to, less, 0, unused)) / 2e-4;
        CHECK(gradient(i) == Approx(slope).margin(1e-6));
      }
      CHECK(edge.path(Eigen::VectorXd::Zero(x.size())).length() == Approx(e.path.length()).margin(1e-6));
    }
}

TEST_CASE("a moved edge stays smooth at every joint, whatever moves it") {
  const Design d = designOf(plainOrder());
  Dice dice(6);
  const MovingEdge edge(d.pattern.pieces[1].edge("princess").path, {60, 150, 220});
  Eigen::VectorXd x(edge.unknowns());
  for (Eigen::Index i = 0; i < x.size(); ++i) x(i) = dice.between(-1, 1) * (i % 4 < 2 ? 3 : 0.05);
  const Path moved = edge.path(x);
  for (size_t i = 1; i < moved.cubics().size(); ++i)
    CHECK(std::abs(angleBetween(moved.cubics()[i - 1].endTangent(), moved.cubics()[i].startTangent())) < 1e-3);
}

TEST_CASE("the derivatives of every constraint agree with central differences to 1e-6") {
  Order o = plainOrder();
  o.style = "shaping-two-lines";
  const Design d = designOf(o);
  const BalanceProblem problem(d.pattern, {});
  Dice dice(12);
  const Eigen::VectorXd x = anyPoint(problem, dice, 1.5);
  const Linearised linear = problem.linearised(x);
  CHECK((linear.residual - problem.residual(x)).cwiseAbs().maxCoeff() < 1e-9);
  for (size_t e = 0; e < problem.edges().size(); ++e) {
    const Eigen::Index offset = *problem.edges()[e].offset;
    for (Eigen::Index i = 0; i < problem.edges()[e].moving.unknowns(); ++i) {
      Eigen::VectorXd more = x, less = x;
      more(offset + i) += 1e-4;
      less(offset + i) -= 1e-4;
      const Eigen::VectorXd slope = (problem.residual(more) - problem.residual(less)) / 2e-4;
      for (Eigen::Index r = 0; r < slope.size(); ++r) {
        const auto& rows = linear.rows[e];
        const auto at = std::find(rows.begin(), rows.end(), r);
        const double ours = at == rows.end() ? 0 : linear.jacobian[e](i, at - rows.begin());
        CHECK(ours == Approx(slope(r)).margin(1e-6));
      }
    }
  }
}

TEST_CASE("any start ends at the same place, a near one in fewer steps") {
  const Design d = designOf(plainOrder());
  const BalanceProblem problem(d.pattern, {});
  const Solution first = solve(problem);
  Dice dice(5);
  for (int round = 0; round < 5; ++round) {
    const Solution other = solve(problem, anyPoint(problem, dice, 2));
    CHECK(other.ended);
    CHECK((other.x - first.x).cwiseAbs().maxCoeff() < 1e-5);
  }
  const Solution again = solve(problem, first.x);
  CHECK(again.iterations <= 2);
  CHECK(again.iterations < first.iterations);
  CHECK((again.x - first.x).cwiseAbs().maxCoeff() < 1e-6);
}

TEST_CASE("a chain of drags ends where each order by itself would") {
  Dice dice(31);
  int compared = 0;
  for (const Preset& style : styleTable()) {
    Order o = plainOrder();
    o.style = style.id;
    o.choices["balance.keep"] = "balanced";
    Design before = designOf(o);
    std::vector<const RuleInfo*> lengths;
    for (const RuleInfo& rule : ruleTable())
      if (rule.kind == RuleKind::Length && (rule.stage == "Cups" || rule.stage == "Lines") && before.rules.counts(rule))
        lengths.push_back(&rule);
    for (int step = 0; step < 6; ++step) {
      const RuleInfo& rule =
          *lengths.at(static_cast<size_t>(dice.between(0, 0.999) * static_cast<double>(lengths.size())));
      const double value = std::clamp(before.rules.value(rule.key).number + dice.between(-12, 12), rule.lowest + 0.1,
                                      rule.highest - 0.1);
      o.choices[std::string(rule.key)] = formatExact(value, Unit::Millimetre) + " mm";
      INFO(style.id << ", " << rule.key << " " << value);
      auto warm = recalc(o, &before), cold = recalc(o);
      REQUIRE(warm.ok() == cold.ok());
      if (!warm.ok()) continue;
      CHECK(apart(warm->pattern, cold->pattern) < 1e-4);
      CHECK(warm->balanced->unreachable == cold->balanced->unreachable);
      CHECK(warm->sheet.failing() == cold->sheet.failing());
      before = std::move(warm).value();
      ++compared;
    }
  }
  CHECK(compared > 100);
}

TEST_CASE("the result does not hang on the order of pieces, edges and seams") {
  for (const Order& o : randomOrders(12, 44)) {
    const auto made = recalc(o);
    if (!made.ok()) continue;
    const Pattern& p = made->pattern;
    Pattern turned = p;
    const size_t n = turned.pieces.size();
    std::reverse(turned.pieces.begin(), turned.pieces.end());
    for (Piece& piece : turned.pieces) {
      std::rotate(piece.edges.begin(), piece.edges.begin() + 1, piece.edges.end());
      std::reverse(piece.marks.begin(), piece.marks.end());
    }
    std::reverse(turned.seams.begin(), turned.seams.end());
    std::reverse(turned.levels.begin(), turned.levels.end());
    for (Seam& s : turned.seams) {
      s.a.piece = n - 1 - s.a.piece;
      s.b.piece = n - 1 - s.b.piece;
      std::swap(s.a, s.b);
      for (SeamNotch& notch : s.notches) std::swap(notch.a, notch.b);
    }
    CHECK(apart(balance(p).pattern, balance(turned).pattern) < 1e-5);
  }
}

TEST_CASE("two threads that balance at once give, to the last bit, what one gives") {
  std::vector<Pattern> drafted;
  for (const Order& o : randomOrders(8, 45))
    if (const auto made = recalc(o); made.ok()) drafted.push_back(made->pattern);
  std::vector<Balanced> one, two[2];
  for (const Pattern& p : drafted) one.push_back(balance(p));
  const auto work = [&](std::vector<Balanced>* out) {
    for (const Pattern& p : drafted) out->push_back(balance(p));
  };
  std::thread a(work, &two[0]), b(work, &two[1]);
  a.join();
  b.join();
  for (size_t i = 0; i < one.size(); ++i)
    for (const auto& other : two) CHECK(other[i].end == one[i].end);
}
