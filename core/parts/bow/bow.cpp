#include "parts/bow/bow.h"

#include <fmt/format.h>

#include <utility>

#include "parts/bow/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kKnotRound = 1.0 / 3;  // of the bow's height: what the knot draws it in to

struct BowStrip {
  const char* id;
  Message name;
  double length = 0, deep = 0;
};

// Ids and names beside the trim's own: the ring is the bow itself.
void add(Pattern& pattern, const TrimChoice& trim, const BowStrip& strip, int count) {
  const Vec2 a = besideAll(pattern);
  Piece p = trimPiece(trim, 1, 1);
  if (*strip.id) p.id = fmt::format("{}-{}", trim.id(), strip.id);
  p.name = msg("{}, {}", trim.title(), strip.name);
  p.edges = rectangle(a, strip.length, strip.deep, trim.length(bow::kSeam));
  p.copies = count;
  p.symmetry = count == 2 ? Symmetry::Pair : Symmetry::Once;
  grainDown(p, a, strip.length, strip.deep);
  pattern.pieces.push_back(std::move(p));
}

}  // namespace

std::optional<Problem> addBow(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                              const Rules&) {
  const double wide = trim.length(bow::kWide), high = trim.length(bow::kHigh), knot = trim.length(bow::kKnot),
               tails = trim.length(bow::kTails);
  const int count = stretch.over[0] ? 1 : 2;
  const PieceEdge attached{pattern.pieces.size(), "sewn"};
  add(pattern, trim, {"", "ring", 2 * wide, 2 * high}, count);
  add(pattern, trim, {"knot", "knot", 2 * kKnotRound * high, 2 * knot}, count);
  if (tails > 0) add(pattern, trim, {"tails", "tails", 2 * tails, high}, count);
  const double here = count == 1 ? knot / 2 : knot;  // the other half of it lies beyond the centre
  placeOn(pattern, about(stretch, stretch.from + here / 2, here), trim, attached);
  pattern.workings.push_back({"trim." + trim.id(),
                              msg("{}, its ring", trim.title()),
                              {trim.term(bow::kWide, '+', 2)},
                              2 * wide,
                              msg("{} deep, folded lengthwise; the knot {} by {}; common practice", Length{2 * high},
                                  Length{2 * kKnotRound * high}, Length{2 * knot})});
  return std::nullopt;
}

}  // namespace armure
