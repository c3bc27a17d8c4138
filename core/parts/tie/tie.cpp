#include "parts/tie/tie.h"

#include <utility>

#include "draft/levels.h"
#include "parts/straps/strap_end.h"
#include "parts/tie/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kLeastSides = 10;  // mm beside a shaped end

Piece tiePiece(const Pattern& pattern, const TrimChoice& trim, double length) {
  const double wide = trim.length(tie::kWide), seam = trim.length(tie::kSeam);
  const StrapEnd end = trim.option(tie::kEnd);
  const Vec2 a = besideAll(pattern), b = a + Vec2{2 * wide, 0},
             down{0, length - strapEndDepth(end, 2 * wide)};  // its tip lies at its length
  Piece p = trimPiece(trim, 1, 1);
  p.edges = {{"sewn", EdgeRole::Raw, seam, Path::line(a, b)},
             {"right", EdgeRole::Raw, seam, Path::line(b, b + down)},
             {"free", EdgeRole::Raw, seam, strapEnd(b + down, a + down, end)},
             {"left", EdgeRole::Raw, seam, Path::line(a + down, a)}};
  p.grainTop = a + Vec2{wide, 0.2 * length};
  p.grainBottom = a + Vec2{wide, 0.8 * length};
  return p;
}

}  // namespace

std::optional<Problem> addTie(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                              const Rules&) {
  const bool belt = trim.option(tie::kWhat) == tie::TieIs::Belt;
  const PatternLevel* waist = pattern.level(level::kWaist);
  if (belt && !waist)
    return Problem{trim.title(), "the garment does not reach the waist", "take ties, or a longer garment"};
  const double round = belt ? waist->finishedGirth : 0, length = round + trim.length(tie::kLong);
  if (strapEndDepth(trim.option(tie::kEnd), 2 * trim.length(tie::kWide)) > length - kLeastSides)
    return Problem{trim.title(), msg("{} long it is shorter than its shaped end", Length{length}),
                   "make it longer or narrower, or its end straight"};
  Piece piece = tiePiece(pattern, trim, length);
  piece.copies = belt ? 1 : 2;
  piece.symmetry = belt ? Symmetry::Once : Symmetry::Pair;
  const PieceEdge attached{pattern.pieces.size(), "sewn"};
  pattern.pieces.push_back(std::move(piece));
  const double wide = trim.length(tie::kWide);
  placeOn(pattern, about(stretch, stretch.from + wide / 2, wide), trim, attached);
  Working w{"trim." + trim.id(), msg("{}, long", trim.title()), {}, length, {}};
  if (belt) w.terms.push_back({'+', "the closed waist", round, Source::Computed});
  w.terms.push_back(trim.term(tie::kLong));
  w.note = msg("cut {} wide and folded lengthwise; common practice", Length{2 * wide});
  pattern.workings.push_back(std::move(w));
  return std::nullopt;
}

}  // namespace armure
