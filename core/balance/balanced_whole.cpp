#include "balance/balanced_whole.h"

#include <algorithm>

#include "geometry/path_distance.h"
#include "operations/both_sides.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

class WholeMoves {
 public:
  WholeMoves(const Pattern& whole, const Balanced& half, BodySide side) : whole_(whole), half_(half), side_(side) {}

  EdgeMove move(EdgeMove m) const {
    const Piece& p = half_.pattern.pieces[m.piece];
    const Path& was = p.edge(m.edge).path;
    PieceEdge there = inWhole(whole_, p, m.edge, side_);
    const Path& is = whole_.pieces[there.piece].edge(there.edge).path;
    m.piece = there.piece;
    m.edge = std::move(there.edge);
    m.seam = seam(m.seam);
    if (side_ == BodySide::Right) turnOver(m, was, is);
    return m;
  }

  Unreachable unreachable(Unreachable u) const {
    u.seam = seam(u.seam);
    for (Message& row : u.rows) row = onSide(row, side_);
    for (EdgeName& e : u.held)
      for (const Piece& p : half_.pattern.pieces)
        if (p.id == e.piece && hasEdge(p, e.edge)) {
          PieceEdge there = inWhole(whole_, p, e.edge, side_);
          e = {whole_.pieces[there.piece].id, std::move(there.edge)};
          break;
        }
    return u;
  }

 private:
  std::string seam(const std::string& id) const {
    const Seam* of = half_.pattern.seam(id);
    return of ? inWhole(whole_, *of, side_) : id;
  }

  // The piece was turned over: its edges run the other way, and what pointed to the left of one points to its right.
  static void turnOver(EdgeMove& m, const Path& was, const Path& is) {
    const double s = nearestPlace(was, m.at);
    const double t = std::clamp(is.length() - s, 0.0, is.length());
    const Vec2 before = was.tangentAt(s), now = is.tangentAt(t);
    const double along = dot(m.by, before), aside = cross(before, m.by);
    m.at = is.pointAt(t);
    m.by = -along * now + aside * Vec2{-now.y, now.x};
  }

  const Pattern& whole_;
  const Balanced& half_;
  BodySide side_;
};

BalanceCertificate worse(const BalanceCertificate& a, const BalanceCertificate& b) {
  const auto most = [](double x, double y) { return std::max(x, y); };
  return {a.converged && b.converged,
          std::max(a.iterations, b.iterations),
          most(a.worstStretch, b.worstStretch),
          most(a.worstGirth, b.worstGirth),
          most(a.worstCorner, b.worstCorner),
          most(a.worstJoin, b.worstJoin),
          most(a.stationarity, b.stationarity),
          most(a.largestMove, b.largestMove),
          most(a.largestAcross, b.largestAcross)};
}

}  // namespace

Balanced balancedWhole(const Balanced& left, const Balanced& right, Pattern whole) {
  Balanced out;
  out.pattern = std::move(whole);
  for (const auto& [half, side] : {std::pair{&left, BodySide::Left}, {&right, BodySide::Right}}) {
    const WholeMoves of(out.pattern, *half, side);
    for (const EdgeMove& m : half->moves) {
      if (m.edge == half->pattern.pieces[m.piece].onFold) continue;  // no edge of the unfolded piece
      EdgeMove moved = of.move(m);
      // A pair that is alike on both sides stayed one, and was told with the left half.
      const bool told = side == BodySide::Right && out.pattern.pieces[moved.piece].splitOf.empty();
      if (!told) out.moves.push_back(std::move(moved));
    }
    for (const Unreachable& u : half->unreachable) out.unreachable.push_back(of.unreachable(u));
  }
  std::ranges::stable_sort(out.moves, std::greater{}, &EdgeMove::largest);
  out.certificate = worse(left.certificate, right.certificate);
  return out;
}

}  // namespace armure
