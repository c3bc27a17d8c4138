// core/balance/balance.h
//
// Balancing: the smallest change of the pieces that makes every seam fit and every girth right at once.
//
// Unknowns. Every sewn edge is cut into cubics at its notches and level marks. At each joint j it has a displacement
// d_j and a change of tangent m_j (both vectors). With r1, r2 the drafted lengths of the handles,
//   p0' = p0 + d_j     p1' = p1 + d_j + r1 m_j     p2' = p2 + d_k - r2 m_k     p3' = p3 + d_k      (k the next joint)
// so that every joint stays smooth whatever the unknowns are. Folds, openings and centre seams do not move.
//
// Objective. With l_j the length that falls to a joint, h the chord of a cubic and L0 = 100 mm,
//   f = 1/2 sum_j (l_j / L0) |d_j|^2  +  1/2 phi sum_cubics integral |d''|^2 / L0
// the second term with d as the cubic Hermite interpolant of d_j, m_j over h (a beam's bending energy): the character
// of a line stays, no bends are added. phi = 5e5 mm^4.
//
// Constraints. Every stretch of every seam: length on side a - length on side b = planned ease. Every level that runs
// round: sum of the widths + opening = finished girth. Lengths by Gauss-Legendre, with the exact derivative
//   dL/dp_i = integral B_i'(t) T(t) dt,   T the unit tangent, B_i the Bernstein polynomials.
//
// Method. x the unknowns, H the Hessian of f, c the constraints, J their derivative:
//   x_(k+1) = H^-1 J' (J H^-1 J')^-1 (J x_k - c)
// the minimum of f on the linearised constraints (Gauss-Newton; J. Nocedal, S. Wright, Numerical Optimization, 2nd ed.,
// 18.1), the step halved while it makes the constraints worse. Where 40 steps do not end it, or an edge would move by
// more than 30 mm, the pieces stay as drafted and the result says so. It has converged when every constraint holds to
// 1e-7 mm and no unknown moves by more than 1e-6 mm; then H x = J' lambda holds as well, which is stationarity. H falls
// apart into one small block for each edge.
//
// Afterwards the lines that run on across a seam (top edge, hem) follow its corners and are turned, half on either
// side, so that they cross without a kink.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "pieces/pattern.h"

namespace armure {

// Which side of a seam gives way.
enum class SeamWish { Both, FollowA, FollowB, Leave };

struct BalanceOptions {
  std::map<std::string, SeamWish, std::less<>> seams;  // by seam id; both sides where none is given
};

// As the order has them.
BalanceOptions balanceOptions(const Rules& rules);

// How far an edge moved, and where most.
struct EdgeMove {
  size_t piece = 0;
  std::string edge;
  double largest = 0;  // mm, at a joint
  Vec2 at, by;         // where, on the balanced piece, and which way
  std::string near;    // the notch or level there, or empty
};

struct BalanceCertificate {
  bool converged = false;
  int iterations = 0;
  double worstStretch = 0, worstGirth = 0;  // mm, of the constraints that were set
  double stationarity = 0;                  // largest component of H x - J' lambda
  double largestMove = 0;                   // mm
};

struct Balanced {
  Pattern pattern;
  std::vector<EdgeMove> moves;           // of the sewn edges that moved, the largest first
  std::vector<std::string> unreachable;  // what cannot be brought to fit with these options, in words
  BalanceCertificate certificate;
};

// The same result in any order of the pieces' edges and on any machine to 1e-6 mm. Throws std::out_of_range when a seam
// names an edge the pattern lacks.
Balanced balance(const Pattern& drafted, const BalanceOptions& options = {});

}  // namespace armure
