#include "operations/join_stretch.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>
#include <utility>

#include "geometry/tolerances.h"
#include "operations/crossing.h"
#include "operations/darts.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

// A side cut in two `along` it; the edge there is divided.
std::pair<SeamSide, SeamSide> cutSide(Pattern& pattern, const SeamSide& side, double along) {
  SeamSide upper{side.piece, {}}, lower{side.piece, {}};
  double before = 0;
  for (const EdgeUse& use : side.chain) {
    const double length = pattern.pieces[side.piece].edge(use.edge).path.length(), within = along - before;
    before += length;
    if (within > tolerance::kSamePlace && within < length - tolerance::kSamePlace) {
      const auto [first, second] = splitEdge(pattern.pieces[side.piece], use, within);
      upper.chain.push_back(first);
      lower.chain.push_back(second);
    } else {
      (within >= length - tolerance::kSamePlace ? upper : lower).chain.push_back(use);
    }
  }
  return {upper, lower};
}

// Closes one stretch of a seam for good; the other is a dart of the one piece, with the seam's id.
enum class Stretch { Upper, Lower };
Joined joinPart(Pattern& pattern, std::string_view seamId, double alongA, double alongB, Stretch closed,
                const Message& name) {
  constexpr double kBeside = 1;  // mm: a notch nearer the cut goes with what is closed
  Seam& open = seamOf(pattern, seamId);
  const auto [upA, downA] = cutSide(pattern, open.a, alongA);
  const auto [upB, downB] = cutSide(pattern, open.b, alongB);
  const bool above = closed == Stretch::Upper;
  const Seam joined{open.id + (above ? "-above" : "-below"), open.name, above ? upA : downA, above ? upB : downB};
  open.a = above ? downA : upA;
  open.b = above ? downB : upB;
  std::erase_if(open.notches, [&](const SeamNotch& n) {
    return above ? n.a <= alongA + kBeside || n.b <= alongB + kBeside
                 : n.a >= alongA - kBeside || n.b >= alongB - kBeside;
  });
  if (above)
    for (SeamNotch& n : open.notches) n.a -= alongA, n.b -= alongB;
  pattern.seams.push_back(joined);
  const Joined done = joinPieces(pattern, joined.id, name);
  makeDart(pattern, seamId);
  return done;
}

constexpr double kLeastLaid = 20;     // mm: laid by one end, any two edges run together for a while
constexpr double kLeastTogether = 5;  // mm: edges that run together for less do not close
constexpr double kTogether = 0.05;    // mm: nearer, they are one line

// How far from their starts two paths run together, arc lengths on either. A corner may have been cut a little short.
struct Together {
  double a = 0, b = 0;
};
// As far as both run together, in strides, and to the millimetre between the last stride and the next.
Together together(const Path& a, const Path& b, double stride) {
  Together done;
  const auto goOn = [&](double along) {
    const Path::Foot found = b.footNear(a.pointAt(along), done.b + along - done.a);
    if (found.distance >= kTogether) return false;
    done = {along, found.at};
    return true;
  };
  goOn(0);  // at the very end the one may be the longer
  for (double along = stride; along <= a.length() && goOn(along);) along += stride;
  // They part before so many millimetres more.
  const double from = done.a;
  int together = 0, apart = static_cast<int>(std::min(std::ceil(stride), std::floor(a.length() - from) + 1));
  while (apart - together > 1) {
    const int middle = (together + apart) / 2;
    (goOn(from + middle) ? together : apart) = middle;
  }
  return done;
}

// Whether one is the other, bend by bend.
bool isOneLine(const Path& a, const Path& b) {
  if (a.cubics().size() != b.cubics().size()) return false;
  for (size_t i = 0; i < a.cubics().size(); ++i) {
    const Cubic &p = a.cubics()[i], &q = b.cubics()[i];
    const double apart =
        std::max({distance(p.p0, q.p0), distance(p.p1, q.p1), distance(p.p2, q.p2), distance(p.p3, q.p3)});
    if (apart >= kTogether) return false;
  }
  return true;
}

// From both ends. Where little is left between, a stride may have stepped over where they part: a dart is no shorter
// than the least stride.
std::pair<Together, Together> togetherAtEnds(const Path& a, const Path& b) {
  constexpr double kStride = 16, kLeastStride = 4;  // mm
  if (isOneLine(a, b)) return {{a.length(), b.length()}, {a.length(), b.length()}};
  for (const double stride : {kStride, kLeastStride}) {
    const Together top = together(a, b, stride), bottom = together(a.reversed(), b.reversed(), stride);
    if (stride < kStride || top.a + bottom.a < a.length() - 2 * kStride) return {top, bottom};
  }
  return {};
}

}  // namespace

Joined joinAbove(Pattern& pattern, std::string_view seamId, double below, const Message& name) {
  const Seam& seam = seamOf(pattern, seamId);
  const SeamNotch* notch = seam.notch(level::kBust);
  const SeamNotch bust =
      notch ? *notch : SeamNotch{"", pattern.sidePath(seam.a).length() / 2, pattern.sidePath(seam.b).length() / 2};
  return joinPart(pattern, seamId, bust.a + below, bust.b + below, Stretch::Upper, name);
}

std::optional<Joined> joinLeavingDart(Pattern& pattern, std::string_view seamId, const Message& name) {
  const Seam seam = seamOf(pattern, seamId);
  if (seam.a.piece == seam.b.piece) throw std::invalid_argument("join: both sides of " + seam.id + " are of one piece");
  const Path a = pattern.sidePath(seam.a), b = pattern.sidePath(seam.b);
  Path laid;
  Together above, below;
  const std::array<Motion, 3> motions{Motion(), closedAt(pattern, seam, true), closedAt(pattern, seam, false)};
  for (size_t i = 0; i < motions.size(); ++i) {
    const Path moved = b.transformed(motions[i]);
    const double least = i == 0 ? kLeastTogether : kLeastLaid;
    auto [top, bottom] = togetherAtEnds(a, moved);
    if (top.a < least) top = {};
    if (bottom.a < least) bottom = {};
    if (top.a + bottom.a <= above.a + below.a && !laid.empty()) continue;
    laid = moved;
    above = top;
    below = bottom;
    if (above.a > a.length() - kLeastTogether) break;  // all of it: nothing can be longer
  }
  if (above.a > a.length() - kLeastTogether) return joinPieces(pattern, seamId, name);
  if (above.a > kLeastTogether && below.a > kLeastTogether) {
    const Path left = a.sub(above.a, a.length() - below.a), right = laid.sub(above.b, laid.length() - below.b);
    const Vec2 from = lerp(left.start(), right.start(), 0.5), to = lerp(left.end(), right.end(), 0.5);
    const PointedDart dart{seam.id, seam.name, withEnds(left, from, to), withEnds(right, from, to)};
    const Joined done = joinPieces(pattern, seamId, name);
    cutPointedDart(pattern, seam.a.piece - (seam.b.piece < seam.a.piece ? 1 : 0), dart);
    return done;
  }
  if (above.a > kLeastTogether) return joinPart(pattern, seamId, above.a, above.b, Stretch::Upper, name);
  if (below.a > kLeastTogether)
    return joinPart(pattern, seamId, a.length() - below.a, b.length() - below.b, Stretch::Lower, name);
  return std::nullopt;
}

}  // namespace armure
