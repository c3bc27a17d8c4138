// Cloth before it lies on anything: meshes against areas, factors by blocks against dense ones, the membrane against
// differences of its energy.
#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <numeric>
#include <random>

#include "solid/block_cholesky.h"
#include "solid/equilibrium.h"
#include "tests/support/outlines.h"

using namespace armure;
using namespace armure::testing;
using Eigen::Vector3d;
using std::numbers::pi;

namespace {

double areaOf(const PlaneMesh& mesh) {
  double sum = 0;
  for (const auto& t : mesh.triangles) {
    const auto at = [&](int i) { return mesh.vertices[static_cast<size_t>(t[static_cast<size_t>(i)])]; };
    const double area = cross(at(1) - at(0), at(2) - at(0)) / 2;
    CHECK(area > 0);
    sum += area;
  }
  return sum;
}

}  // namespace

TEST_CASE("an outline is filled with triangles, its corners kept and in their order") {
  const std::vector<Vec2> corners = sampled({{0, 0}, {200, 0}, {200, 80}, {120, 60}, {90, 200}, {0, 150}}, 11);
  for (const double spacing : {6.0, 12.0, 24.0, 90.0}) {
    const PlaneMesh mesh = meshOutline(corners, spacing);
    REQUIRE(mesh.vertices.size() >= corners.size());
    for (size_t i = 0; i < corners.size(); ++i) CHECK(mesh.vertices[i] == corners[i]);
    double area = 0;  // by the shoelace formula
    for (size_t i = 0; i < corners.size(); ++i) area += cross(corners[i], corners[(i + 1) % corners.size()]) / 2;
    CHECK(areaOf(mesh) == Approx(area).epsilon(1e-12));
    // Euler: a disc has one more vertex than edges less triangles.
    CHECK(2 * mesh.vertices.size() == mesh.triangles.size() + corners.size() + 2);
  }
  std::vector<Vec2> turned(corners.rbegin(), corners.rend());
  CHECK(meshOutline(turned, 12).triangles.size() == meshOutline(corners, 12).triangles.size());
  CHECK_THROWS_AS(meshOutline({{0, 0}, {1, 0}}, 1), std::invalid_argument);
  CHECK_THROWS_AS(meshOutline({{0, 0}, {10, 0}, {10, 10}, {10, 0}}, 1), std::invalid_argument);
  CHECK_THROWS_AS(meshOutline({{0, 0}, {10, 10}, {10, 0}, {0, 10}}, 1), std::invalid_argument);
  CHECK_THROWS_AS(meshOutline(corners, 0), std::invalid_argument);
}

TEST_CASE("near a place a mesh is finer, and no coarser anywhere for it") {
  const std::vector<Vec2> corners = sampled({{0, 0}, {240, 0}, {240, 300}, {0, 300}}, 10);
  const Vec2 centre{120, 150};
  const MeshSpacing spacing(20, 10, centre, 60);
  const PlaneMesh mesh = meshOutline(corners, spacing);
  CHECK(areaOf(mesh) == Approx(240.0 * 300).epsilon(1e-12));
  double longestNear = 0, longest = 0, area = 0;
  int near = 0;
  for (const auto& t : mesh.triangles) {
    const auto at = [&](int i) { return mesh.vertices[static_cast<size_t>(t[static_cast<size_t>(i)])]; };
    const bool isNear = distance(at(0), centre) < 45 && distance(at(1), centre) < 45 && distance(at(2), centre) < 45;
    for (int i = 0; i < 3; ++i) {
      const double side = distance(at(i), at((i + 1) % 3));
      longest = std::max(longest, side);
      if (isNear) longestNear = std::max(longestNear, side);
    }
    if (isNear) ++near, area += cross(at(1) - at(0), at(2) - at(0)) / 2;
  }
  CHECK(longestNear == Approx(10).epsilon(1e-9));
  CHECK(area / near == Approx(std::sqrt(3) / 4 * 100).epsilon(1e-9));  // equal sides of 10
  CHECK(longest < 2 * 20);
  CHECK(meshOutline(corners, MeshSpacing(10, 20, centre, 60)).vertices.size() ==
        meshOutline(corners, 10).vertices.size());
}

TEST_CASE("a factor by blocks solves as a dense one does") {
  std::mt19937 random(5);
  std::normal_distribution<double> any;
  for (const int vertices : {1, 7, 40}) {
    std::vector<std::vector<int>> elements;
    for (int i = 0; i < 2 * vertices && vertices > 3; ++i) {
      std::vector<int> e(4);
      for (int& v : e) v = static_cast<int>(random() % static_cast<unsigned>(vertices));
      std::sort(e.begin(), e.end());
      e.erase(std::unique(e.begin(), e.end()), e.end());
      std::shuffle(e.begin(), e.end(), random);
      elements.push_back(e);
    }
    BlockMatrix matrix(vertices, elements);
    BlockCholesky factor(matrix);
    std::vector<std::array<bool, 3>> held(static_cast<size_t>(vertices), {false, false, false});
    held.back()[1] = true;
    for (int run = 0; run < 2; ++run) {  // the second with other numbers in the same places
      matrix.clear();
      Eigen::MatrixXd dense = Eigen::MatrixXd::Zero(3 * vertices, 3 * vertices);
      for (size_t i = 0; i < elements.size(); ++i) {
        const auto n = static_cast<Eigen::Index>(3 * elements[i].size());
        const Eigen::MatrixXd root = Eigen::MatrixXd::NullaryExpr(n, n, [&] { return any(random); });
        const Eigen::MatrixXd local = root * root.transpose();
        matrix.add(i, local);
        for (Eigen::Index r = 0; r < n; ++r)
          for (Eigen::Index c = 0; c < n; ++c)
            dense(3 * elements[i][static_cast<size_t>(r / 3)] + r % 3,
                  3 * elements[i][static_cast<size_t>(c / 3)] + c % 3) += local(r, c);
      }
      for (int v = 0; v < vertices; ++v)
        for (int axis = 0; axis < 3; ++axis) matrix.diagonal(v, axis) += 1, dense(3 * v + axis, 3 * v + axis) += 1;
      matrix.isolate(held);
      const Eigen::Index alone = 3 * vertices - 2;
      dense.row(alone).setZero();
      dense.col(alone).setZero();
      dense(alone, alone) = 1;
      Eigen::VectorXd right = Eigen::VectorXd::NullaryExpr(3 * vertices, [&] { return any(random); });
      right[alone] = 0;
      REQUIRE(factor.compute(matrix));
      const Eigen::VectorXd x = factor.solve(right);
      CHECK((x - dense.llt().solve(right)).norm() < 1e-9 * (1 + x.norm()));
      CHECK(x[alone] == 0);
    }
    matrix.diagonal(0, 0) -= 1e6;
    CHECK_FALSE(factor.compute(matrix));
  }
}

TEST_CASE("sewn corners are one vertex, seams are no hinges") {
  const PlaneMesh square = meshOutline({{0, 0}, {10, 0}, {10, 10}, {0, 10}}, 100);
  Sewing sewing;
  const int a = sewing.add(square), b = sewing.add(square), c = sewing.add(square);
  sewing.sew({a, 1}, {b, 0});
  sewing.sew({a, 2}, {b, 3});
  sewing.sew({c, 0}, {b, 0});
  const SewnMesh mesh = sewing.done();
  CHECK(mesh.vertices == 9);
  CHECK(mesh.vertexOf({a, 1}) == mesh.vertexOf({c, 0}));
  CHECK(mesh.triangles.size() == 6);
  CHECK(mesh.hinges.size() == 3);  // a diagonal each
  const std::vector<double> areas = mesh.areas();
  CHECK(std::accumulate(areas.begin(), areas.end(), 0.0) == Approx(300.0 / 9 * static_cast<double>(areas.size())));
}

TEST_CASE("the membrane's force is the slope of its energy, its stiffness pushes nowhere away from rest") {
  std::mt19937 random(1);
  const auto part = [&] { return static_cast<double>(random()) / 4294967296.0 - 0.5; };
  const Cloth cloth{.alongGrain = 60, .acrossGrain = 40, .shear = 15, .relaxed = 0.05};
  const Eigen::Matrix3d c = stiffnessOf(cloth);
  double off = 0, least = 0;
  for (int round = 0; round < 300; ++round) {
    const ClothTriangle t({Vec2{0, 0}, {10 + part(), part()}, {part(), 9 + part()}});
    Eigen::Matrix3d x;
    x << 0, 10 + 3 * part(), 3 * part(), 0, 3 * part(), 9 + 3 * part(), 3 * part(), 3 * part(), 3 * part();
    const ClothTriangle::Energy e = t.energy(x, c, cloth.relaxed);
    CHECK(e.value == Approx(t.value(x, c, cloth.relaxed)));
    for (int i = 0; i < 9; ++i) {
      constexpr double kStep = 1e-5;
      Eigen::Matrix3d more = x, less = x;
      more(i % 3, i / 3) += kStep;
      less(i % 3, i / 3) -= kStep;
      const double slope = (t.value(more, c, cloth.relaxed) - t.value(less, c, cloth.relaxed)) / (2 * kStep);
      off = std::max(off, std::abs(slope - e.gradient[i]) / (1 + std::abs(slope)));
    }
    const Eigen::SelfAdjointEigenSolver<Eigen::Matrix<double, 9, 9>> values(e.hessian);
    least = std::min(least, values.eigenvalues()[0] / values.eigenvalues()[8]);
  }
  CHECK(off < 1e-7);
  CHECK(least > -1e-12);
}

TEST_CASE("cloth pulled along and across its grain takes what it is said to, pressed a twentieth") {
  const Cloth cloth{.alongGrain = 60, .acrossGrain = 40, .shear = 15, .relaxed = 0.05};
  const ClothTriangle t({Vec2{0, 0}, {10, 0}, {0, 10}});
  const auto stretched = [&](double u, double v) {
    Eigen::Matrix3d x;
    x << 0, 10 * (1 + u), 0, 0, 0, 10 * (1 + v), 0, 0, 0;
    return t.state(x, stiffnessOf(cloth), cloth.relaxed);
  };
  CHECK(stretched(1e-4, 0).tension[0] == Approx(60 * 1e-4).epsilon(1e-3));
  CHECK(stretched(0, 1e-4).tension[1] == Approx(40 * 1e-4).epsilon(1e-3));
  CHECK(stretched(-1e-4, 0).tension[0] == Approx(-3 * 1e-4).epsilon(1e-3));
  CHECK(stretched(0.02, -0.03).greater == Approx(0.02));
  CHECK(stretched(0.02, -0.03).lesser == Approx(-0.03));
  CHECK(t.area() == Approx(50));
  CHECK_THROWS_AS(ClothTriangle({Vec2{0, 0}, {1, 1}, {2, 2}}), std::invalid_argument);
}

TEST_CASE("a piece cut across the grain or on the bias takes what its cloth takes that way") {
  const Cloth cloth{.alongGrain = 60, .acrossGrain = 40, .shear = 15};
  const Eigen::Matrix3d across = stiffnessOf(cloth, {0, 3}), bias = stiffnessOf(cloth, {1, 1});
  CHECK(across(0, 0) == Approx(40));
  CHECK(across(1, 1) == Approx(60));
  CHECK(across(2, 2) == Approx(30));
  // Lengthened on the bias by e, a square is sheared by e and longer by e / 2 both ways: R. M. Jones, Mechanics of
  // Composite Materials, 1975, transformed stiffness of a ply, from memory.
  CHECK(bias(0, 0) == Approx((60 + 40) / 4.0 + 15));
  CHECK(bias.isApprox(bias.transpose()));
  CHECK((stiffnessOf(cloth, {-1, 0}) - stiffnessOf(cloth)).norm() < 1e-9);
}
