#include "prepare/cloth_laying.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "laying/search.h"

namespace armure {
namespace {

constexpr double kOnFold = 1e-3;  // mm: an edge that lies on the fold of the cloth

// A point mirrored on the line through a and b.
Vec2 mirroredOn(Vec2 a, Vec2 b, Vec2 p) {
  const Vec2 along = unit(b - a);
  return a + 2 * dot(p - a, along) * along - (p - a);
}

// How a piece may lie with its grain along the cloth, its top towards the cloth's beginning: `mirrored` or not, turned
// round where the cloth may be.
std::vector<Turn> turnsOf(const Piece& piece, bool mirrored, const ListedCloth& cloth) {
  Vec2 grain = piece.grainBottom - piece.grainTop;
  if (mirrored) grain.x = -grain.x;
  const double along = angleBetween(grain, {1, 0}), off = cloth.offGrain * std::numbers::pi / 180;
  const std::vector<double> leans = off > 0 ? std::vector<double>{0, off, -off} : std::vector<double>{0};
  std::vector<Turn> turns;
  for (const double lean : leans) {
    turns.push_back({along + lean, mirrored});
    if (!cloth.oneWay) turns.push_back({along + lean + std::numbers::pi, mirrored});
  }
  return turns;
}

// Of those the ones in which a piece's fold lies along the strip's far edge.
std::vector<Turn> turnsOnFold(const Piece& piece, const Polyline& cutOutline, const ListedCloth& cloth) {
  const Path& fold = piece.edge(piece.onFold).path;
  std::vector<Turn> all;
  for (const bool mirrored : {false, true}) {
    for (const Turn& turn : turnsOf(piece, mirrored, cloth)) {
      const Motion m = turned(turn);
      double edge = -HUGE_VAL;
      for (const Vec2 p : cutOutline) edge = std::max(edge, m.apply(p).y);
      const bool lies =
          std::abs(m.apply(fold.start()).y - edge) < kOnFold && std::abs(m.apply(fold.end()).y - edge) < kOnFold;
      if (lies) all.push_back(turn);
    }
  }
  return all;
}

// The turn nearest to one that is wished for: a piece's grain leans a little otherwise once the piece has changed.
std::optional<size_t> nearestTurn(const std::vector<Turn>& turns, const Turn& wish) {
  constexpr double kMostOff = 15 * std::numbers::pi / 180;
  std::optional<size_t> nearest;
  double least = kMostOff;
  for (size_t t = 0; t < turns.size(); ++t) {
    const double off = std::abs(std::remainder(turns[t].angleRad - wish.angleRad, 2 * std::numbers::pi));
    if (turns[t].mirrored != wish.mirrored || off > least) continue;
    nearest = t;
    least = off;
  }
  return nearest;
}

// As it lies mirrored about the fold, y -> width - y: R(a) becomes R(180 - a), and what was mirrored is not.
Turn mirroredTurn(const Turn& turn) { return {std::numbers::pi - turn.angleRad, !turn.mirrored}; }

class ClothLayer {
 public:
  ClothLayer(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const CutList& list, ClothLaying& to)
      : pattern_(pattern), cutOutlines_(cutOutlines), list_(list), to_(to) {}

  void lay(bool folded) {
    to_.folded = folded;
    to_.unfit.reset();
    to_.items.clear();
    to_.problem = {};
    to_.problem.width = folded ? to_.width / 2 : to_.width;
    to_.problem.gap = to_.cloth.as.apart;
    to_.problem.within = to_.cloth.as.remnant;
    to_.outlines.assign(list_.pieces.size(), {});
    for (size_t i = 0; i < list_.pieces.size(); ++i)
      if (list_.pieces[i].cloth == to_.cloth.cloth) add(i);
    if (const auto item = tooWide(to_.problem)) to_.unfit = tooWideFor(to_.items[*item]);
  }

  // Locks the items that are kept in their places, one after the other.
  void keep(const std::vector<KeptPlace>& kept) {
    for (const KeptPlace& place : kept)
      if (place.cloth == to_.cloth.cloth)
        if (const Message reason = lock(place); !reason.empty()) to_.loosened.push_back({place, reason});
  }

 private:
  const Piece& piece(size_t cut) const { return pattern_.pieces[list_.pieces[cut].piece]; }
  const Polyline& outline(size_t cut) const { return cutOutlines_[list_.pieces[cut].piece]; }

  void add(size_t cut) {
    const CutPiece& c = list_.pieces[cut];
    const Piece& p = piece(cut);
    to_.outlines[cut] = wholeOutline(p, outline(cut));
    if (to_.folded && c.onFold) {
      const std::vector<Turn> turns = turnsOnFold(p, outline(cut), to_.cloth.as);
      for (int copy = 1; copy <= c.copies && !turns.empty(); ++copy)
        item({cut, copy, false, true}, outline(cut), turns);
      if (!turns.empty()) return;
    }
    const bool alike = c.mirrored || p.part == Part::Strap;
    for (int copy = 1; copy <= c.copies; ++copy) {
      const bool twice = to_.folded && alike && copy < c.copies;
      const bool mirrored = c.mirrored && copy % 2 == 0;
      item({cut, copy, twice, false}, to_.outlines[cut], turnsOf(p, mirrored, to_.cloth.as));
      if (twice) ++copy;
    }
  }

  void item(ClothItem which, const Polyline& outline, std::vector<Turn> turns) {
    auto known = std::ranges::find(to_.items, which.piece, &ClothItem::piece);
    size_t number = to_.problem.outlines.size();
    if (known != to_.items.end())
      number = to_.problem.items[static_cast<size_t>(known - to_.items.begin())].outline;
    else
      to_.problem.outlines.push_back(outline);
    to_.problem.items.push_back({number, std::move(turns), which.onFold, std::nullopt});
    to_.items.push_back(which);
  }

  // Nothing, or why it cannot be kept.
  Message lock(const KeptPlace& place) {
    size_t item = 0;
    bool second = false;  // of two cut at once
    for (; item < to_.items.size(); ++item) {
      const ClothItem& i = to_.items[item];
      second = i.twice && i.copy + 1 == place.copy;
      if (list_.pieces[i.piece].id == place.piece && (i.copy == place.copy || second)) break;
    }
    if (item == to_.items.size()) return "no such copy is cut of this cloth";
    Turn turn{place.degrees * std::numbers::pi / 180, place.mirrored};
    Vec2 at = place.at;
    if (second) {
      turn = mirroredTurn(turn);
      at.y = to_.width - at.y;
    }
    StripItem& locked = to_.problem.items[item];
    const std::optional<size_t> near = nearestTurn(locked.turns, turn);
    if (!near) return "it does not lie on its grain there";
    locked.locked = LaidItem{*near, at};
    if (isClear(item)) return {};
    locked.locked.reset();
    return "it lies beyond the cloth there, or over another piece that is kept";
  }

  bool isClear(size_t item) const {
    constexpr double kShared = 1;  // mm^2
    const auto laid = [&](size_t i) { return laidOutline(to_.problem, i, *to_.problem.items[i].locked); };
    const Polyline outline = laid(item);
    const Box box = boxRound(outline);
    if (box.low.x < -kOnFold || box.low.y < -kOnFold || box.high.y > to_.problem.width + kOnFold) return false;
    if (to_.problem.items[item].atEdge && box.high.y < to_.problem.width - kOnFold) return false;
    if (!to_.problem.within.empty() &&
        std::abs(signedArea(outline)) - sharedArea(outline, to_.problem.within) > kShared)
      return false;
    for (size_t i = 0; i < to_.problem.items.size(); ++i)
      if (i != item && to_.problem.items[i].locked && sharedArea(outline, laid(i)) > kShared) return false;
    return true;
  }

  Problem tooWideFor(const ClothItem& item) const {
    double width = HUGE_VAL;
    for (const Turn& turn : turnsOf(piece(item.piece), false, to_.cloth.as)) {
      Polyline laid;
      for (const Vec2 p : to_.outlines[item.piece]) laid.push_back(turned(turn).apply(p));
      width = std::min(width, boxRound(laid).height());
    }
    return {msg("{}, {}", clothName(to_.cloth.as), Length{to_.width}),
            msg("{} is {} wide across the grain: it has no room on it", list_.pieces[item.piece].name, Length{width}),
            "a wider cloth, or the piece divided by a seam"};
  }

  const Pattern& pattern_;
  const std::vector<Polyline>& cutOutlines_;
  const CutList& list_;
  ClothLaying& to_;
};

}  // namespace

Polyline wholeOutline(const Piece& piece, const Polyline& cutOutline) {
  if (piece.symmetry != Symmetry::OnFold) return cutOutline;
  const Path& fold = piece.edge(piece.onFold).path;
  const Vec2 a = fold.start(), b = fold.end();
  const Vec2 along = unit(b - a);
  // The side of the outline that lies on the fold, and the chain from its end round to its beginning.
  const size_t n = cutOutline.size();
  size_t side = n;
  double longest = 0;
  for (size_t i = 0; i < n; ++i) {
    const Vec2 p = cutOutline[i], q = cutOutline[(i + 1) % n];
    if (std::abs(cross(p - a, along)) > kOnFold || std::abs(cross(q - a, along)) > kOnFold) continue;
    if (distance(p, q) <= longest) continue;
    longest = distance(p, q);
    side = i;
  }
  if (side == n) return cutOutline;
  Polyline whole;
  for (size_t k = 1; k <= n; ++k) whole.push_back(cutOutline[(side + k) % n]);
  for (size_t k = n - 1; k-- > 1;) whole.push_back(mirroredOn(a, b, whole[k]));
  return whole;
}

std::vector<ClothPlacement> ClothLaying::placements(const StripLayout& layout) const {
  std::vector<ClothPlacement> all;
  for (size_t i = 0; i < layout.items.size(); ++i) {
    const ClothItem& item = items[i];
    const LaidItem& laid = layout.items[i];
    const Turn turn = problem.items[i].turns[laid.turn];
    all.push_back({item.piece, item.copy, turn, laid.at, i});
    if (item.twice) all.push_back({item.piece, item.copy + 1, mirroredTurn(turn), {laid.at.x, width - laid.at.y}, i});
  }
  return all;
}

KeptPlace ClothLaying::keptAt(const CutList& list, size_t item, const LaidItem& laid) const {
  const Turn& turn = problem.items[item].turns.at(laid.turn);
  return {cloth.cloth, list.pieces[items[item].piece].id,      items[item].copy,
          laid.at,     turn.angleRad * 180 / std::numbers::pi, turn.mirrored};
}

double ClothLaying::utilisation(const StripLayout& layout) const {
  double area = 0;
  for (const ClothItem& item : items) area += (item.twice ? 2 : 1) * std::abs(signedArea(outlines[item.piece]));
  return layout.length > 0 ? area / (width * layout.length) : 0;
}

bool ClothLaying::isEnough(const StripLayout& layout) const {
  return problem.within.empty() || layout.length <= boxRound(problem.within).high.x + kOnFold;
}

StripLayout quickLayout(const ClothLaying& laying) {
  constexpr int kRounds = 30;
  LayingSearch search(laying.problem);
  for (int i = 0; i < kRounds && !search.isShortest(); ++i) search.step();
  return search.best();
}

std::vector<ClothLaying> clothLayings(const Pattern& pattern, const std::vector<Polyline>& cutOutlines,
                                      const CutList& list, const std::vector<KeptPlace>& kept) {
  std::vector<ClothLaying> all;
  for (const ClothLine& cloth : list.cloths) {
    ClothLaying laying;
    laying.cloth = cloth;
    const std::vector<Vec2>& remnant = cloth.as.remnant;
    laying.width = remnant.empty() ? cloth.width : boxRound(remnant).high.y;
    ClothLayer layer(pattern, cutOutlines, list, laying);
    layer.lay(cloth.as.folded && remnant.empty());
    if (laying.unfit && laying.folded) layer.lay(false);
    layer.keep(kept);
    all.push_back(std::move(laying));
  }
  return all;
}

}  // namespace armure
