// The numerics of balancing: derivatives, the optimum against a reference solver, any start and order, and what each
// family of constraints is for.
#include <ceres/ceres.h>

#include <Eigen/Core>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>
#include <thread>

#include "balance/balance.h"
#include "balance/moved_pattern.h"
#include "balance/solve.h"
#include "balance/walk.h"
#include "prepare/cut_outlines.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

Design designOf(const Order& o) {
  auto d = recalc(o);
  if (!d.ok()) FAIL(d.problem().text());
  return std::move(d).value();
}

struct Dice {
  std::mt19937 random;
  explicit Dice(unsigned seed) : random(seed) {}
  double between(double a, double b) { return a + (b - a) * static_cast<double>(random()) / 4294967295.0; }
};

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
  for (size_t e = 0; e < problem.edges().size(); ++e) {
    const Eigen::Index offset = *problem.edges()[e].offset;
    for (Eigen::Index i = 0; i < problem.edges()[e].moving.unknowns(); ++i) {
      Eigen::VectorXd more = x, less = x;
      more(offset + i) += 1e-4;
      less(offset + i) -= 1e-4;
      const Eigen::VectorXd slope = (problem.values(more) - problem.values(less)) / 2e-4;
      for (Eigen::Index r = 0; r < slope.size(); ++r) {
        const auto& rows = linear.rows[e];
        const auto at = std::find(rows.begin(), rows.end(), r);
        const double ours = at == rows.end() ? 0 : linear.slopes[e](i, at - rows.begin());
        CHECK(ours == Approx(slope(r)).margin(1e-6));
      }
    }
  }
}

// The reference: the Ceres Solver (S. Agarwal, K. Mierle and others, ceres-solver.org), given the same problem in its
// own terms. The objective is written as squares by hand (a beam's energy with end curvatures s0, s1 over a length l is
// l ((s0 + s1)^2 / 4 + (s1 - s0)^2 / 12)), lengths by five-point Gauss-Legendre on eight parts of each cubic,
// derivatives by Ceres' automatic differentiation, the constraints by the method of multipliers (Nocedal,
// Wright, 17.3).
namespace {

struct Shared {
  const BalanceProblem* problem;
  Eigen::VectorXd multipliers;
  double penalty = 1e3;
};

template <class T>
struct Point {
  T x, y;
};

template <class T>
T lengthOf(const std::array<Point<T>, 4>& p) {
  constexpr double kNodes[5] = {0, 0.5384693101056831, -0.5384693101056831, 0.9061798459386640, -0.9061798459386640};
  constexpr double kWeights[5] = {0.5688888888888889, 0.4786286704993665, 0.4786286704993665, 0.2369268850561891,
                                  0.2369268850561891};
  constexpr int kParts = 8;
  T sum(0);
  for (int part = 0; part < kParts; ++part)
    for (int k = 0; k < 5; ++k) {
      const double t = (part + 0.5 + 0.5 * kNodes[k]) / kParts, u = 1 - t;
      const double b[3] = {3 * u * u, 6 * u * t, 3 * t * t};
      T dx(0), dy(0);
      for (size_t i = 0; i < 3; ++i) {
        dx += b[i] * (p[i + 1].x - p[i].x);
        dy += b[i] * (p[i + 1].y - p[i].y);
      }
      sum += (kWeights[k] / 2 / kParts) * sqrt(dx * dx + dy * dy);
    }
  return sum;
}

struct Everything {
  std::shared_ptr<Shared> shared;

  template <class T>
  bool operator()(T const* const* parameters, T* residuals) const {
    const T* x = parameters[0];
    size_t next = 0;
    for (const BalancedEdge& e : shared->problem->edges()) {
      const T* mine = x + *e.offset;
      const auto& cubics = e.moving.cubics();
      for (size_t j = 0; j < e.moving.joints(); ++j) {
        const double before = j > 0 ? e.moving.along(j) - e.moving.along(j - 1) : 0;
        const double after = j < cubics.size() ? e.moving.along(j + 1) - e.moving.along(j) : 0;
        const double weight = std::sqrt((before + after) / 2 / 100);
        for (size_t c = 0; c < 2; ++c) residuals[next++] = weight * mine[4 * j + c];
      }
      for (size_t i = 0; i < cubics.size(); ++i) {
        const double l = e.moving.along(i + 1) - e.moving.along(i), stiff = std::sqrt(5e5 / 100 * l);
        for (size_t c = 0; c < 2; ++c) {
          const T rise = mine[4 * (i + 1) + c] - mine[4 * i + c];
          const T m0 = mine[4 * i + 2 + c], m1 = mine[4 * (i + 1) + 2 + c];
          const T s0 = 6.0 * rise / (l * l) - (4.0 * m0 + 2.0 * m1) / l;
          const T s1 = -6.0 * rise / (l * l) + (2.0 * m0 + 4.0 * m1) / l;
          residuals[next++] = stiff * (s0 + s1) / 2.0;
          residuals[next++] = stiff * (s1 - s0) / std::sqrt(12.0);
        }
      }
    }
    for (size_t r = 0; r < shared->problem->rows().size(); ++r) {
      const double shift = shared->multipliers(static_cast<Eigen::Index>(r)) / shared->penalty;
      residuals[next++] = std::sqrt(shared->penalty) * (value(shared->problem->rows()[r], x) + shift);
    }
    return true;
  }

  template <class T>
  T value(const BalanceRow& row, const T* x) const {
    T sum(row.constant);
    for (const LengthTerm& t : row.lengths) {
      const BalancedEdge& e = shared->problem->edges()[t.edge];
      for (size_t i = t.from; i < t.to; ++i) sum += t.factor * lengthOf(moved(e, i, x));
    }
    for (const WidthTerm& t : row.widths) {
      const Point<T> a = place(t.a, x), b = place(t.b, x);
      sum += t.factor * sqrt((b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y));
    }
    return sum;
  }

  template <class T>
  std::array<Point<T>, 4> moved(const BalancedEdge& e, size_t i, const T* x) const {
    const Cubic& c = e.moving.cubics()[i];
    const T *a = x + *e.offset + 4 * i, *b = a + 4;
    const double r1 = distance(c.p0, c.p1), r2 = distance(c.p2, c.p3);
    return {Point<T>{c.p0.x + a[0], c.p0.y + a[1]},
            {c.p1.x + a[0] + r1 * a[2], c.p1.y + a[1] + r1 * a[3]},
            {c.p2.x + b[0] - r2 * b[2], c.p2.y + b[1] - r2 * b[3]},
            {c.p3.x + b[0], c.p3.y + b[1]}};
  }

  template <class T>
  Point<T> place(const Foot& f, const T* x) const {
    if (!f.edge) return {T(f.still.x), T(f.still.y)};
    const BalancedEdge& e = shared->problem->edges()[*f.edge];
    const size_t last = e.moving.cubics().size();
    return f.joint < last ? moved(e, f.joint, x)[0] : moved(e, last - 1, x)[3];
  }
};

Eigen::VectorXd solvedByCeres(const BalanceProblem& problem) {
  auto shared = std::make_shared<Shared>();
  shared->problem = &problem;
  shared->multipliers = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(problem.rows().size()));
  Eigen::VectorXd x = Eigen::VectorXd::Zero(problem.unknowns());
  size_t residuals = problem.rows().size();
  for (const BalancedEdge& e : problem.edges()) residuals += 2 * e.moving.joints() + 4 * e.moving.cubics().size();
  for (int round = 0; round < 12; ++round) {
    auto* cost = new ceres::DynamicAutoDiffCostFunction<Everything, 16>(new Everything{shared});  // the problem owns it
    cost->AddParameterBlock(static_cast<int>(x.size()));
    cost->SetNumResiduals(static_cast<int>(residuals));
    ceres::Problem reference;
    reference.AddResidualBlock(cost, nullptr, x.data());
    ceres::Solver::Options options;
    options.linear_solver_type = ceres::DENSE_QR;
    options.function_tolerance = 1e-15;
    options.parameter_tolerance = 1e-12;
    options.gradient_tolerance = 1e-12;
    options.max_num_iterations = 30;
    ceres::Solver::Summary summary;
    ceres::Solve(options, &reference, &summary);
    REQUIRE(summary.IsSolutionUsable());
    const Eigen::VectorXd left = problem.values(x);
    if (left.cwiseAbs().maxCoeff() < 1e-9) break;
    shared->multipliers += shared->penalty * left;
  }
  return x;
}

}  // namespace

TEST_CASE("the optimum agrees with Ceres on the same problem") {
  for (const char* style : {"sweetheart-zip", "straight-laced"}) {
    Order o = plainOrder();
    o.style = style;
    const Design d = designOf(o);
    const BalanceProblem problem(d.pattern, {});
    const Solution ours = solve(problem);
    const Eigen::VectorXd reference = solvedByCeres(problem);
    REQUIRE(ours.ended);
    CHECK(problem.values(reference).cwiseAbs().maxCoeff() < 1e-6);
    CHECK((ours.x - reference).cwiseAbs().maxCoeff() < 1e-4);
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
      std::reverse(piece.notches.begin(), piece.notches.end());
      std::reverse(piece.levels.begin(), piece.levels.end());
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
    for (const auto& other : two) CHECK(other[i].unknowns == one[i].unknowns);
}

namespace {

Edge edgeOf(std::string id, EdgeRole role, Path path) { return {std::move(id), role, 10, std::move(path)}; }

// A piece with a dart sewn inside it: legs of different length from the top edge to its point.
Pattern withDart() {
  Piece p;
  p.id = p.name = "cup";
  const Vec2 point{105, 90};
  p.edges = {edgeOf("top", EdgeRole::Top, Path::line({0, 0}, {80, 0})),
             edgeOf("leg-1", EdgeRole::Seam, Path::line({80, 0}, point)),
             edgeOf("leg-2", EdgeRole::Seam, Path::line(point, {120, 3})),
             edgeOf("top-2", EdgeRole::Top, Path::line({120, 3}, {200, 0})),
             edgeOf("right", EdgeRole::Opening, Path::line({200, 0}, {200, 200})),
             edgeOf("hem", EdgeRole::Hem, Path::line({200, 200}, {0, 200})),
             edgeOf("left", EdgeRole::Opening, Path::line({0, 200}, {0, 0}))};
  Pattern out;
  out.pieces = {p};
  out.seams = {{"dart", "Dart", {0, {{"leg-1", false}}}, {0, {{"leg-2", true}}}}};
  return out;
}

// Two pieces sewn along a chain of two edges on the left one; beside the seam the right one has a fold.
Pattern withChain() {
  Piece left, right;
  left.id = left.name = "left";
  left.edges = {edgeOf("top", EdgeRole::Top, Path::line({0, 0}, {100, 0})),
                edgeOf("upper", EdgeRole::Seam, Path::line({100, 0}, {112, 90})),
                edgeOf("lower", EdgeRole::Seam, Path::line({112, 90}, {100, 200})),
                edgeOf("hem", EdgeRole::Hem, Path::line({100, 200}, {0, 200})),
                edgeOf("opening", EdgeRole::Opening, Path::line({0, 200}, {0, 0}))};
  left.notches = {{"underbust", "upper", 60, false}, {"waist", "lower", 30, false}};
  right.id = right.name = "right";
  right.quantity = 1;
  right.onFold = "fold";
  right.edges = {edgeOf("fold", EdgeRole::Fold, Path::line({200, 208}, {200, 0})),
                 edgeOf("seam", EdgeRole::Seam, Path(Cubic{{200, 0}, {240, 60}, {240, 140}, {260, 200}})),
                 edgeOf("hem", EdgeRole::Hem, Path::line({260, 200}, {200, 208}))};
  right.notches = {{"underbust", "seam", 58, false}, {"waist", "seam", 130, false}};
  Pattern out;
  out.pieces = {left, right};
  out.seams = {{"joint",
                "Joint",
                {0, {{"upper", false}, {"lower", false}}},
                {1, {{"seam", false}}},
                {},
                {{"underbust", 60, 58}, {"waist", 120.8, 130}}}};
  return out;
}

void checkClosed(const Pattern& pattern) {
  for (const Piece& p : pattern.pieces)
    for (size_t i = 0; i < p.edges.size(); ++i)
      CHECK(distance(p.edges[i].path.end(), p.edges[(i + 1) % p.edges.size()].path.start()) < 1e-7);
}

}  // namespace

TEST_CASE("a dart sewn inside a piece is a seam like any other; its legs keep their point") {
  const Pattern p = withDart();
  CHECK(std::abs(walk(p, p.seams[0]).mismatch()) > 4);
  const Balanced b = balance(p);
  CHECK(b.certificate.converged);
  CHECK(b.certificate.worstCorner < 1e-7);
  CHECK(walk(b.pattern, b.pattern.seams[0]).mismatch() == Approx(0).margin(1e-6));
  checkClosed(b.pattern);
}

TEST_CASE("a side can be a chain of edges, and beside a fold the corner slides along it") {
  const Pattern p = withChain();
  const Balanced b = balance(p);
  CHECK(b.certificate.converged);
  for (const Stretch& s : walk(b.pattern, b.pattern.seams[0]).stretches) CHECK(s.mismatch() == Approx(0).margin(1e-6));
  checkClosed(b.pattern);
  const Path& fold = b.pattern.pieces[1].edge("fold").path;
  for (const Cubic& c : fold.cubics())
    for (const Vec2 q : {c.p0, c.p1, c.p2, c.p3}) CHECK(q.x == Approx(200).margin(1e-9));
  // Walked over both edges, the notch on the second of them is found.
  CHECK(p.alongSide(p.seams[0].a, {"lower", 30}) == Approx(p.pieces[0].edge("upper").path.length() + 30));
  const EdgePlace place = p.placeOnSide(p.seams[0].a, p.pieces[0].edge("upper").path.length() + 30);
  CHECK(place.edge == "lower");
  CHECK(place.at == Approx(30));
}

TEST_CASE("rows that fight are named, all of them and no others") {
  const Design d = designOf(plainOrder());
  Pattern torn = d.pattern;
  for (const PatternLevel& l : d.pattern.levels)
    if (l.id == "waist") {
      torn.levels.push_back(l);  // the waist is asked to be two things at once
      torn.levels.back().name = "Waist again";
      torn.levels.back().finishedGirth += 4;
    }
  const Balanced b = balance(torn);
  REQUIRE(b.unreachable.size() == 1);
  CHECK(b.unreachable[0].find("Waist girth") != std::string::npos);
  CHECK(b.unreachable[0].find("Waist again girth") != std::string::npos);
  CHECK(b.unreachable[0].find("Princess") == std::string::npos);
  CHECK_FALSE(b.certificate.converged);
}

TEST_CASE("without any one family of constraints something fails that is checked") {
  const Design d = designOf(plainOrder());
  const auto worst = [](const Pattern& p, CheckKind kind, const Body& body) {
    double most = 0;
    for (const CheckRow& r : balanceSheet(p, cutOutlines(p), {}, body).rows)
      if (r.kind == kind && !r.note && !r.pass) most = std::max(most, r.amount);
    return most;
  };
  const auto solved = [&](const Pattern& p, Family removed) {
    BalanceProblem problem(p, {});
    problem.leaveOut(removed);
    return movedPattern(p, problem, solve(problem).x);
  };
  CHECK(worst(solved(d.pattern, Family::Stretch), CheckKind::Stretch, d.body) > limits::kLengthMm);
  // Girths: the widths that balancing changes by the way add up on the full figure.
  Order full = plainOrder();
  full.measures.set("bust", {1050, "", ""});
  const Design f = designOf(full);
  const Pattern noGirths = solved(f.pattern, Family::Girth);
  CHECK(worst(noGirths, CheckKind::Girth, f.body) > limits::kLengthMm);
  // Corners: the legs of a dart come apart at its point.
  const Pattern dart = withDart();
  const Pattern torn = solved(dart, Family::Corner);
  CHECK(distance(torn.pieces[0].edge("leg-1").path.end(), torn.pieces[0].edge("leg-2").path.start()) >
        limits::kClosedMm);
  // With all of them everything passes.
  for (const CheckKind kind :
       {CheckKind::Stretch, CheckKind::Girth, CheckKind::Seam, CheckKind::Corner, CheckKind::Join})
    CHECK(worst(balance(f.pattern).pattern, kind, f.body) == 0);
}
