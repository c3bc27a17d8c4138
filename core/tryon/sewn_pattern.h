// core/tryon/sewn_pattern.h
//
// The shell of a pattern as a mesh: every piece filled with triangles, both sides of each seam and each dart sampled
// alike, by arc length between their notches and the joints of their chains, and sewn. One half of the garment, from
// centre front to centre back; what hangs free (skirts of their own, straps, frills) is left out.
//
//   const SewnPattern sewn(pattern, 14);
//   sewn.spot(piece, {.edge = "side", .at = 120})   // between which vertices a place on an edge lies
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "pattern/pattern.h"
#include "solid/plane_mesh.h"
#include "solid/sewn_mesh.h"

namespace armure {

// Whether a piece is part of what is tried on: of the shell, and not what hangs free.
bool isWorn(const Piece& piece);

class SewnPattern {
 public:
  // Vertices are about `spacing` mm apart, on some pieces otherwise. Throws std::invalid_argument for a piece that
  // cannot be meshed, as meshOutline does.
  using Spacings = std::map<size_t, MeshSpacing>;  // by piece of the pattern
  SewnPattern(const Pattern& pattern, double spacing, const Spacings& otherwise = {});

  // An edge of a piece, or a leg of one of its darts, as sampled: vertices of the mesh in the order the edge runs.
  struct Line {
    size_t piece = 0;  // of the pattern
    std::string edge;
    EdgeRole role{};
    std::vector<double> at;     // arc length from the start of the edge, mm
    std::vector<int> vertices;  // of the mesh
  };
  // Between two vertices, `part` of the way from the first.
  struct Spot {
    int from = 0, to = 0;
    double part = 0;
  };

  const SewnMesh& mesh() const { return mesh_; }
  const std::vector<Line>& lines() const { return lines_; }
  // By piece of the mesh, the pattern's.
  const std::vector<size_t>& pieces() const { return pieces_; }
  // Nothing where the piece is not worn on the form or has no such edge.
  std::optional<Spot> spot(size_t piece, const Anchor& anchor) const;

 private:
  SewnMesh mesh_;
  std::vector<Line> lines_;
  std::vector<size_t> pieces_;
};

}  // namespace armure
