// core/garment/worn.h
//
// One half of the finished pieces as they hang on the body, seen from the front or from behind: every piece upright,
// both sides of every seam on one line, the centre in the middle. It is the least-squares fit
//
//   minimise  sum over pieces, over pairs (i, j) of places on the piece:  sum over x and y of
//             c (X_i - X_j - p_i + p_j)^2 / |p_i - p_j|^2,   c = the fourth power of the direction's cosine + 0.02
//             + 0.02 (width of every level across cloth that is not round, as on the piece)^2
//   subject to  X_i = X_j for places sewn together,  x given at the centre
//
// of all outlines at once, p being the pieces upright: widths are kept between places side by side, heights between
// places above each other, and nothing turns. Linear in the unknowns:
// one symmetric system a coordinate, solved by a Cholesky factorisation. For the eye only; nothing is measured here.
#pragma once

#include <map>
#include <vector>

#include "draft/block.h"
#include "geometry/polygon.h"
#include "pattern/pattern.h"

namespace armure {

class WornHalf {
 public:
  // The pieces of the shell of one half; `block` says how far a lacing stands open.
  WornHalf(const Pattern& pattern, const Block& block, bool front);

  // The pieces that are seen, as places in the pattern.
  const std::vector<size_t>& pieces() const { return pieces_; }
  bool shows(size_t piece) const { return turned_.contains(piece); }
  // A line of a piece (Piece::lineAt) from its start to its end; x = 0 at the centre, y down from the shoulder line,
  // mm. Empty where it is not drawn: the mouth of a dart.
  Polyline line(size_t piece, size_t line) const;
  // All round a piece, its darts closed.
  Polyline outline(size_t piece) const;

 private:
  struct Place {
    size_t node = 0;
    double at = 0;  // arc length along the line
  };

  struct Fit;
  struct Between;

  void layNodes();
  void laySeam(const Seam& seam);
  void layOpenLines();
  void mergeCorners();
  void fitPiece(size_t piece, Fit& fit) const;
  Between between(size_t piece, const Anchor& place) const;
  void keepLevels(size_t piece, Fit& fit) const;
  std::map<size_t, Vec2> centre(const Opening& opening) const;
  void solve(const Opening& opening);
  size_t root(size_t node) const;
  Vec2 upright(size_t piece, Vec2 p) const;

  const Pattern& pattern_;
  const bool front_;
  std::vector<size_t> pieces_;
  std::map<size_t, Motion> turned_;                                // by piece: upright
  std::map<std::pair<size_t, size_t>, std::vector<Place>> lines_;  // by piece and line, along it
  mutable std::vector<size_t> parent_;                             // of nodes that are one: union-find
  std::vector<Vec2> solved_;                                       // by node
};

}  // namespace armure
