// core/solid/sewn_mesh.h
//
// Flat pieces, meshed and sewn: where two corners are sewn together there is one vertex in space, while each triangle
// keeps the flat shape it was cut with.
//
//   Sewing sewing;
//   const int front = sewing.add(meshOutline(a, 12)), back = sewing.add(meshOutline(b, 12));
//   sewing.sew({front, 3}, {back, 0});        // and so on along the seam
//   const SewnMesh mesh = sewing.done();
//   mesh.vertexOf({front, 3}) == mesh.vertexOf({back, 0})
#pragma once

#include <array>
#include <vector>

#include "solid/plane_mesh.h"

namespace armure {

struct PieceVertex {
  int piece = 0, vertex = 0;
};

struct SewnMesh {
  struct Triangle {
    int piece = 0;
    std::array<int, 3> vertices;
    std::array<Vec2, 3> flat;  // as cut, mm
  };
  // Two triangles of one piece that share a side: its ends, then the corner on either side. Seams are no hinges.
  struct Hinge {
    int piece = 0;
    std::array<int, 4> vertices;
    std::array<Vec2, 4> flat;
  };
  int vertices = 0;
  std::vector<Triangle> triangles;
  std::vector<Hinge> hinges;

  std::vector<std::vector<int>> numbers;  // of the vertices, by piece and its own vertex

  int vertexOf(PieceVertex v) const { return numbers[static_cast<size_t>(v.piece)][static_cast<size_t>(v.vertex)]; }
  std::vector<double> areas() const;  // by vertex, a third of the triangles that meet there; mm2
};

class Sewing {
 public:
  int add(PlaneMesh piece);  // the piece's number
  void sew(PieceVertex a, PieceVertex b);
  SewnMesh done() const;

 private:
  size_t place(PieceVertex v) const { return starts_[static_cast<size_t>(v.piece)] + static_cast<size_t>(v.vertex); }
  size_t root(size_t place) const;

  std::vector<PlaneMesh> pieces_;
  std::vector<size_t> starts_, parents_;  // of each piece's vertices; a forest of those sewn together
};

}  // namespace armure
