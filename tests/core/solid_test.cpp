// Cloth in space: meshes against areas, the membrane against differences of its energy, and what comes to rest against
// the closed formulas of thin shells on cylinder, cone and sphere.
#include "solid/equilibrium.h"

#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <numbers>
#include <random>

#include "solid/block_cholesky.h"

using namespace armure;
using Eigen::Vector3d;
using std::numbers::pi;

namespace {

constexpr double kRigid = 10;  // N/mm3: the cloth sinks in by some hundredths of a millimetre

constexpr double kHeavy = 1e-4;  // N/mm2: fifty times what a strong cloth weighs

// Corners along a polygon's sides, about `step` apart.
std::vector<Vec2> sampled(const std::vector<Vec2>& corners, double step) {
  std::vector<Vec2> all;
  for (size_t i = 0; i < corners.size(); ++i) {
    const Vec2 a = corners[i], b = corners[(i + 1) % corners.size()];
    const int parts = std::max(1, static_cast<int>(std::round(distance(a, b) / step)));
    for (int k = 0; k < parts; ++k) all.push_back(lerp(a, b, static_cast<double>(k) / parts));
  }
  return all;
}

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

// A half sleeve on half a cylinder that stands upright, its sides on the plane of symmetry x = 0.
struct Sleeve {
  double radius = 120, girthRatio = 1.0525, height = 150, step = 14, stiffness = kRigid;
  double flatRadius() const { return radius / girthRatio; }

  Rest settled(double startOff = 3, double tilt = 0) const {
    const PlaneMesh flat =
        meshOutline(sampled({{0, 0}, {pi * flatRadius(), 0}, {pi * flatRadius(), height}, {0, height}}, step), step);
    Sewing sewing;
    sewing.add(flat);
    std::vector<Vector3d> start;
    for (const Vec2 p : flat.vertices) {
      const double angle = p.x / flatRadius(), r = radius + startOff + tilt * p.y / height;
      start.push_back({r * std::sin(angle), p.y, r * std::cos(angle)});
    }
    SolidScene scene(sewing.done(), start);
    scene.body = [r = radius, k = stiffness](int, const Vector3d& p) {
      const double d = std::hypot(p.x(), p.z());
      return Touch{r - d, Vector3d(p.x() / d, 0, p.z() / d), k};
    };
    for (size_t i = 0; i < flat.vertices.size(); ++i)
      if (std::min(flat.vertices[i].x, pi * flatRadius() - flat.vertices[i].x) < 1e-9)
        scene.fix(static_cast<int>(i), 0);
    scene.hold(0, 1, 0, 1);
    Rest rest = settle(scene, {.stopAt = 1e-3});
    REQUIRE(rest.settled);
    return rest;
  }
};

double meanStrain(const Rest& rest) {
  double sum = 0;
  for (const auto& s : rest.cloth) sum += s.greater;
  return sum / static_cast<double>(rest.cloth.size());
}

double mean(const std::vector<double>& values) {
  double sum = 0;
  for (const double v : values) sum += v;
  return sum / static_cast<double>(values.size());
}

// A sphere's half cut into gores, all round, sewn; on a rigid sphere.
struct Gored {
  int gores = 6;
  double radius = 80, step = 8, shrink = 1;

  struct Laid {
    Rest rest;
    SewnMesh mesh;
  };

  Laid settled(double stiffness = kRigid) const {
    const double length = shrink * radius * pi / 2;  // from the pole to the rim
    const int parts = static_cast<int>(std::round(length / step));
    std::vector<Vec2> outline{{0, 0}};
    const auto half = [&](int i) { return shrink * radius * std::sin(pi / 2 * i / parts) * pi / gores; };
    for (int i = 1; i <= parts; ++i) outline.push_back({half(i), length * i / parts});
    const int rim = static_cast<int>(std::round(2 * half(parts) / step));
    for (int i = 1; i < rim; ++i) outline.push_back({half(parts) * (1 - 2.0 * i / rim), length});
    for (int i = parts; i >= 1; --i) outline.push_back({-half(i), length * i / parts});
    const PlaneMesh flat = meshOutline(outline, step);
    const int left = parts + rim;  // the first corner of the left side, at the rim
    Sewing sewing;
    for (int g = 0; g < gores; ++g) sewing.add(flat);
    for (int g = 0; g < gores; ++g) {
      const int next = (g + 1) % gores;
      sewing.sew({g, 0}, {next, 0});
      for (int i = 1; i <= parts; ++i) sewing.sew({g, i}, {next, left + parts - i});
    }
    const SewnMesh mesh = sewing.done();
    std::vector<Vector3d> start(static_cast<size_t>(mesh.vertices));
    for (int g = 0; g < gores; ++g)
      for (size_t i = 0; i < flat.vertices.size(); ++i) {
        const Vec2 p = flat.vertices[i];
        const double polar = p.y / (shrink * radius), around = 2 * pi * g / gores;
        const double across = polar > 1e-9 ? p.x / (shrink * radius * std::sin(polar)) : 0, r = radius + 1;
        start[static_cast<size_t>(mesh.vertexOf({g, static_cast<int>(i)}))] = {
            r * std::sin(polar) * std::cos(around + across), r * (1 - std::cos(polar)),
            r * std::sin(polar) * std::sin(around + across)};
      }
    SolidScene scene(mesh, start);
    for (int g = 0; g < gores; ++g) scene.setCloth(g, {}, 0.1, kHeavy);
    scene.body = [r = radius, stiffness](int, const Vector3d& p) {
      const Vector3d from = p - Vector3d(0, r, 0);
      return Touch{r - from.norm(), from.normalized(), stiffness};
    };
    for (int axis : {0, 2}) scene.fix(mesh.vertexOf({0, 0}), axis);
    scene.hold(mesh.vertexOf({0, parts}), 2, start[static_cast<size_t>(mesh.vertexOf({0, parts}))].z(), 0.1);
    if (shrink < 1)
      for (int g = 0; g < gores; ++g)
        for (int i = parts; i <= left; ++i) scene.fix(mesh.vertexOf({g, i}), 1);  // the rim is held down
    Rest rest = settle(scene, {.stopAt = 0.1});
    REQUIRE(rest.settled);
    return {std::move(rest), mesh};
  }
};

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
  CHECK(mean(mesh.areas()) == Approx(300.0 / 9));
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

namespace {

// A triangle that hangs by nothing but what the test gives it, in a plane; where its first corner comes to.
double settledAt(const std::function<void(SolidScene&)>& hung) {
  const PlaneMesh flat{{{0, 0}, {10, 0}, {0, 10}}, {{0, 1, 2}}};
  Sewing sewing;
  sewing.add(flat);
  SolidScene scene(sewing.done(), {{0, 0, 0}, {10, 0, 0}, {0, 10, 0}});
  scene.setCloth(0, {}, 1, 0.01);  // 0.5 N in all
  for (int v = 0; v < 3; ++v)
    for (const int axis : {0, 2}) scene.fix(v, axis);
  hung(scene);
  const Rest rest = settle(scene, {.stopAt = 1e-6});
  CHECK(rest.settled);
  return rest.positions[0].y();
}

}  // namespace

TEST_CASE("a hold stands against its force and gives way beyond") {
  // Alone a spring gives by force over stiffness; one that can hold no more than twice the weight, by 0.577 of the most
  // over the stiffness.
  CHECK(settledAt([](SolidScene& s) { s.hold(0, 1, 0, 2); }) == Approx(0.25).epsilon(1e-3));
  CHECK(settledAt([](SolidScene& s) { s.hold(0, 1, 0, 2, 1); }) == Approx(0.5 / std::sqrt(3)).epsilon(1e-3));
  // Two that are too weak let it down to a firm one below.
  const double down = settledAt([](SolidScene& s) {
    s.hold(0, 1, 0, 1, 0.2);
    s.hold(0, 1, 30, 5);
  });
  CHECK(down > 29.9);
}

TEST_CASE("what is pulled goes where the force is met, and no further than its stop") {
  CHECK(settledAt([](SolidScene& s) {
          s.hold(0, 1, 0, 2);
          s.pull(0, 1, 1.5, -100);  // against a weight of half a newton
        }) == Approx(-0.5).epsilon(1e-3));
  CHECK(settledAt([](SolidScene& s) { s.pull(0, 1, 8, -20); }) == Approx(-20).margin(1));
}

TEST_CASE("a sheet bent to a cylinder takes its stiffness over twice the radius squared") {
  const double radius = 50;
  const PlaneMesh flat = meshOutline(sampled({{0, 0}, {90, 0}, {90, 60}, {0, 60}}, 4), 4);
  Sewing sewing;
  sewing.add(flat);
  std::vector<Vector3d> bent;
  for (const Vec2 p : flat.vertices)
    bent.push_back({radius * std::sin(p.x / radius), p.y, radius * std::cos(p.x / radius)});
  SolidScene scene(sewing.done(), bent);
  scene.setCloth(0, {.alongGrain = 1e-12, .acrossGrain = 1e-12, .shear = 1e-12}, 2);
  const Rest rest = settle(scene, {.longestStep = 1e-9, .mostSteps = 1});
  CHECK(rest.energy == Approx(2 / (2 * radius * radius) * 90 * 60).epsilon(0.05));
}

TEST_CASE("a sleeve on a rigid cylinder stretches by the ratio of the girths, and presses as Laplace says") {
  for (const double step : {24.0, 14.0, 10.0}) {
    const Sleeve sleeve{.step = step};
    const Rest rest = sleeve.settled();
    // The flat sides of a coarse mesh lie inside the round: shorter by step^2 / 24 r^2.
    const double chord = step * step / (24 * sleeve.radius * sleeve.radius);
    CHECK(meanStrain(rest) == Approx(sleeve.girthRatio - 1 - chord).epsilon(0.02));
    double tension = 0;
    for (const auto& s : rest.cloth) tension += s.tension[0] * (1 + s.greater) / static_cast<double>(rest.cloth.size());
    CHECK(mean(rest.pressure) == Approx(tension / sleeve.radius).epsilon(0.02));
  }
}

TEST_CASE("a sleeve on a soft cylinder comes to rest where its tension and the foundation agree") {
  const Sleeve sleeve{.step = 10, .stiffness = 0.0008};
  const Rest rest = sleeve.settled();
  // p = k (r - rho) per flat area, T = C (l^2 - 1) / 2 l with l = rho / r0: by bisection.
  const double r0 = sleeve.flatRadius();
  double low = r0, high = sleeve.radius;
  for (int i = 0; i < 100; ++i) {
    const double rho = (low + high) / 2, l = rho / r0, tension = Cloth{}.alongGrain * (l * l - 1) / 2 * l;
    (tension / r0 < sleeve.stiffness * (sleeve.radius - rho) ? low : high) = rho;
  }
  CHECK(meanStrain(rest) == Approx(low / r0 - 1).epsilon(0.02));
  double radius = 0;
  for (const Vector3d& p : rest.positions)
    radius += std::hypot(p.x(), p.z()) / static_cast<double>(rest.positions.size());
  CHECK(radius == Approx(low).margin(0.1));
}

TEST_CASE("from three starts a sleeve comes to the same rest") {
  const Sleeve sleeve{.step = 14, .stiffness = 0.0008};
  const Rest a = sleeve.settled(3), b = sleeve.settled(12), c = sleeve.settled(-4, 20);
  for (size_t i = 0; i < a.positions.size(); ++i) {
    CHECK((a.positions[i] - b.positions[i]).norm() < 0.3);
    CHECK((a.positions[i] - c.positions[i]).norm() < 0.3);
  }
}

TEST_CASE("a cone on its cone is not stretched at all") {
  const double slant = 260, from = 90, apex = 0.5;  // mm along the side; half angle, rad
  const double sector = pi * std::sin(apex);        // of the half cone, laid flat
  std::vector<Vec2> outline;
  const auto at = [](double r, double angle) { return Vec2{r * std::cos(angle), r * std::sin(angle)}; };
  constexpr int kAround = 24, kAlong = 12;
  for (int i = 0; i < kAround; ++i) outline.push_back(at(from, sector * i / kAround));
  for (int i = 0; i < kAlong; ++i) outline.push_back(at(from + (slant - from) * i / kAlong, sector));
  for (int i = kAround; i > 0; --i) outline.push_back(at(slant, sector * i / kAround));
  for (int i = kAlong; i > 0; --i) outline.push_back(at(from + (slant - from) * i / kAlong, 0));
  const PlaneMesh flat = meshOutline(outline, 12);
  Sewing sewing;
  sewing.add(flat);
  std::vector<Vector3d> start;
  for (const Vec2 p : flat.vertices) {
    const double r = std::hypot(p.x, p.y), around = std::atan2(p.y, p.x) / std::sin(apex);
    const double radius = r * std::sin(apex) + 2;
    start.push_back({radius * std::sin(around), r * std::cos(apex), radius * std::cos(around)});
  }
  SolidScene scene(sewing.done(), start);
  scene.setCloth(0, {}, 0.01, kHeavy);  // it lies on the cone by its weight
  scene.body = [apex](int, const Vector3d& p) {
    const double d = std::hypot(p.x(), p.z());
    const double depth = (p.y() * std::tan(apex) - d) * std::cos(apex);
    return Touch{depth, Vector3d(p.x() / d * std::cos(apex), -std::sin(apex), p.z() / d * std::cos(apex)), kRigid};
  };
  for (size_t i = 0; i < flat.vertices.size(); ++i) {
    const double angle = std::atan2(flat.vertices[i].y, flat.vertices[i].x);
    if (std::min(angle, sector - angle) < 1e-9) scene.fix(static_cast<int>(i), 0);
  }
  const Rest rest = settle(scene, {.stopAt = 0.1});
  CHECK(rest.settled);
  CHECK(std::abs(meanStrain(rest)) < 0.001);
}

TEST_CASE("half a sphere of gores lies on its sphere, the closer the more gores") {
  double worst[2] = {0, 0};
  for (const int gores : {6, 12}) {
    const Rest rest = Gored{.gores = gores, .step = gores == 6 ? 10.0 : 7.0}.settled().rest;
    CHECK(std::abs(meanStrain(rest)) < 0.01);
    for (const auto& s : rest.cloth) worst[gores == 12] = std::max(worst[gores == 12], s.greater);
  }
  WARN("stretched by at most " << 100 * worst[0] << " and " << 100 * worst[1] << " % with 6 and 12 gores");
  CHECK(worst[0] < 0.02);
  CHECK(worst[1] < worst[0]);
}

TEST_CASE("a sphere is pressed by its cloth's tension over both radii") {
  const Gored gored{.gores = 12, .radius = 80, .step = 7, .shrink = 0.97};
  const auto [rest, mesh] = gored.settled();
  // Clear of the rim, which is held down, by triangle, weighted by area: the pressure on the cloth as stretched, and
  // the forces by width as stretched over both radii.
  double pressing = 0, carried = 0;
  for (size_t i = 0; i < mesh.triangles.size(); ++i) {
    const auto& flat = mesh.triangles[i].flat;
    const double area = std::abs(cross(flat[1] - flat[0], flat[2] - flat[0])) / 2;
    double lowest = 0, pressure = 0;
    for (const int v : mesh.triangles[i].vertices) {
      lowest = std::max(lowest, rest.positions[static_cast<size_t>(v)].y());
      pressure += rest.pressure[static_cast<size_t>(v)] / 3;
    }
    if (lowest > 0.8 * gored.radius) continue;
    const ClothTriangle::State& s = rest.cloth[i];
    pressing += area * pressure;
    const double ratio = (1 + s.greater) / (1 + s.lesser);
    carried += area * (s.tension[0] * ratio + s.tension[1] / ratio) / gored.radius;
  }
  CHECK(pressing == Approx(carried).epsilon(0.02));
}

TEST_CASE("a bone hanging from its end is stretched by its weight's force, and stays straight") {
  // A strip of cloth, 20 mm wide, hung by its upper end; a bone down its middle carries what hangs on it.
  const PlaneMesh flat = meshOutline({{0, 0}, {10, 0}, {20, 0}, {20, 100}, {10, 100}, {0, 100}}, 1000);
  Sewing sewing;
  sewing.add(flat);
  std::vector<Vector3d> start;
  for (const Vec2 p : flat.vertices) start.push_back({p.x, p.y, 0});
  constexpr double kWeight = 0.01;  // N/mm2: 20 N in all
  for (const double stretching : {2000.0, 8000.0}) {
    SolidScene scene(sewing.done(), start);
    scene.setCloth(0, {.alongGrain = 1e-3, .acrossGrain = 1e-3, .shear = 1e-3}, 0, kWeight);
    scene.addBone({.vertices = {1, 4}, .lengths = {100}, .bending = 1, .stretching = stretching});
    for (int v = 0; v < 6; ++v)
      for (int axis = 0; axis < 3; ++axis)
        if (v != 4 || axis != 1) scene.fix(v, axis);
    const Rest rest = settle(scene, {.stopAt = 1e-6});
    CHECK(rest.settled);
    // Its own vertex bears a third of the triangles that meet there.
    const double force = kWeight * scene.mesh().areas()[4];
    CHECK(rest.positions[4].y() - 100 == Approx(100 * force / stretching).epsilon(0.01));
  }
}
