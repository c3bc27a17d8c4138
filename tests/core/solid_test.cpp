// Cloth in space: what comes to rest against the closed formulas of thin shells on cylinder, cone and sphere. Its
// meshes and its membrane: cloth_test.cpp.
#include "solid/equilibrium.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <numbers>

#include "tests/support/outlines.h"

using namespace armure;
using namespace armure::testing;
using Eigen::Vector3d;
using std::numbers::pi;

namespace {

constexpr double kRigid = 10;  // N/mm3: the cloth sinks in by some hundredths of a millimetre

constexpr double kHeavy = 1e-4;  // N/mm2: fifty times what a strong cloth weighs

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
