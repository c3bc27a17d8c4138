#include "solid/plane_mesh.h"

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Triangulation_face_base_with_info_2.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>

#include <algorithm>
#include <cmath>
#include <deque>
#include <numbers>
#include <stdexcept>

#include "geometry/box.h"

namespace armure {
namespace {

struct FaceInfo {
  int depth = -1;  // how many outlines lie between the face and the plane round the piece
};
using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
using Vertices = CGAL::Triangulation_vertex_base_with_info_2<int, Kernel>;
using Faces =
    CGAL::Triangulation_face_base_with_info_2<FaceInfo, Kernel, CGAL::Constrained_triangulation_face_base_2<Kernel>>;
using Triangulation =
    CGAL::Constrained_Delaunay_triangulation_2<Kernel, CGAL::Triangulation_data_structure_2<Vertices, Faces>,
                                               CGAL::No_constraint_intersection_requiring_constructions_tag>;

// Even-odd, for points that are not near the outline.
bool isInside(Vec2 p, const std::vector<Vec2>& outline) {
  bool inside = false;
  for (size_t i = 0; i < outline.size(); ++i) {
    const Vec2 a = outline[i], b = outline[(i + 1) % outline.size()];
    if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (p.y - a.y) / (b.y - a.y) * (b.x - a.x)) inside = !inside;
  }
  return inside;
}

// Of a hexagonal grid over a box, as far from its top as from its bottom.
template <typename Take>
void eachOfGrid(const Box& box, double spacing, const Take& take) {
  const double rise = spacing * std::numbers::sqrt3 / 2;
  const int rows = static_cast<int>((box.high.y - box.low.y) / rise);
  const double first = box.low.y + ((box.high.y - box.low.y) - rows * rise) / 2;
  for (int row = 0; row <= rows; ++row)
    for (double x = box.low.x + (row % 2 ? spacing / 2 : 0); x < box.high.x; x += spacing)
      take(Vec2{x, first + row * rise});
}

std::vector<Vec2> pointsInside(const std::vector<Vec2>& outline, const MeshSpacing& spacing) {
  constexpr double kClear = 0.6;  // of the spacing
  const Box box = boxRound(outline);
  const auto isClear = [&](Vec2 p) {
    const double far = kClear * spacing.at(p);
    for (size_t i = 0; i < outline.size(); ++i)
      if (distanceToSegment(p, outline[i], outline[(i + 1) % outline.size()]) < far) return false;
    return true;
  };
  std::vector<Vec2> points;
  if (spacing.fine < spacing.plain)
    eachOfGrid(box, spacing.fine, [&](Vec2 p) {
      if (spacing.isFine(p) && isInside(p, outline) && isClear(p)) points.push_back(p);
    });
  const size_t fine = points.size();
  eachOfGrid(box, spacing.plain, [&](Vec2 p) {
    const auto isNear = [&](Vec2 q) { return distance(p, q) < kClear * spacing.plain; };
    if (spacing.isFine(p) || !isInside(p, outline) || !isClear(p)) return;
    if (std::none_of(points.begin(), points.begin() + static_cast<std::ptrdiff_t>(fine), isNear)) points.push_back(p);
  });
  return points;
}

// Numbers the faces by the outlines between them and the plane outside.
void findDepths(Triangulation& all) {
  std::deque<Triangulation::Face_handle> front{all.infinite_face()};
  all.infinite_face()->info().depth = 0;
  while (!front.empty()) {
    const auto face = front.front();
    front.pop_front();
    for (int i = 0; i < 3; ++i) {
      const auto next = face->neighbor(i);
      if (next->info().depth >= 0) continue;
      const bool crosses = all.is_constrained({face, i});
      next->info().depth = face->info().depth + (crosses ? 1 : 0);
      if (crosses)
        front.push_back(next);
      else
        front.push_front(next);
    }
  }
}

}  // namespace

PlaneMesh meshOutline(const std::vector<Vec2>& outline, const MeshSpacing& spacing) {
  if (outline.size() < 3) throw std::invalid_argument("an outline to be meshed has fewer than three corners");
  if (!(spacing.fine > 0)) throw std::invalid_argument("a mesh needs a spacing");
  PlaneMesh mesh;
  mesh.vertices = outline;
  Triangulation all;
  try {
    std::vector<Triangulation::Vertex_handle> corners;
    for (size_t i = 0; i < outline.size(); ++i) {
      const size_t before = all.number_of_vertices();
      corners.push_back(all.insert({outline[i].x, outline[i].y}));
      if (all.number_of_vertices() == before) throw std::invalid_argument("two corners of an outline coincide");
      corners.back()->info() = static_cast<int>(i);
    }
    for (size_t i = 0; i < corners.size(); ++i) all.insert_constraint(corners[i], corners[(i + 1) % corners.size()]);
  } catch (const Triangulation::Intersection_of_constraints_exception&) {
    throw std::invalid_argument("an outline to be meshed crosses itself");
  }
  for (const Vec2 p : pointsInside(outline, spacing)) {
    all.insert({p.x, p.y})->info() = static_cast<int>(mesh.vertices.size());
    mesh.vertices.push_back(p);
  }
  findDepths(all);
  for (auto face = all.finite_faces_begin(); face != all.finite_faces_end(); ++face)
    if (face->info().depth % 2 == 1)
      mesh.triangles.push_back({face->vertex(0)->info(), face->vertex(1)->info(), face->vertex(2)->info()});
  return mesh;
}

}  // namespace armure
