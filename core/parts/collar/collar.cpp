#include "parts/collar/collar.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

#include "geometry/arc.h"
#include "operations/darts.h"
#include "parts/collar/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kAsFlat = 1e-4;    // rad: less is drawn as if it were this
constexpr double kMostAngle = 2.6;  // rad: half of it, so that the whole does not meet itself
constexpr double kLeastEdge = 20;   // mm
constexpr double kLeastTaken = 1;   // mm: less is not sewn as a dart
constexpr double kBluntest = 0.8;   // of its length that a dart takes: blunter, it cannot be sewn to a point
constexpr double kBelowDart = 6;    // mm of collar left below a dart

// A stretch of an upper edge between two darts, square to their legs, which lean by so much, rad: sewn, it runs on
// without a point.
Path between(const Path& edge, double from, double to, double leanStart, double leanEnd) {
  const Vec2 a = edge.pointAt(from), b = edge.pointAt(to);
  const double third = distance(a, b) / 3;
  return Path(Cubic{a, a + third * rotated(edge.tangentAt(from), leanStart),
                    b - third * rotated(edge.tangentAt(to), -leanEnd), b});
}

class Collar {
 public:
  Collar(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim)
      : pattern_(pattern), stretch_(stretch), trim_(trim) {}

  std::optional<Problem> make() && {
    if (stretch_.isRing())
      return Problem{trim_.title(), "the neckline has no opening", "open the garment in front or behind"};
    measure();
    if (free_ - (isHigh() ? trim_.length(collar::kTighter) / 2 : 0) < kLeastEdge || angle_ > kMostAngle)
      return Problem{trim_.title(), msg("{} high its edge cannot differ by so much", Length{high_}),
                     "make it higher, or let its edges differ by less"};
    Piece outer = draw(0);
    Piece under = draw(1);
    if (isHigh() && takenByDart() > kBluntest * trim_.length(collar::kDartLong))
      return Problem{
          trim_.title(),
          msg("darts of {} cannot take {} each", Length{trim_.length(collar::kDartLong)}, Length{takenByDart()}),
          "make the darts longer, take more of them, or let the collar be less tight"};
    if (isHigh() && trim_.length(collar::kDartLong) > high_ - kBelowDart)
      return Problem{
          trim_.title(),
          msg("darts of {} go through a collar {} high", Length{trim_.length(collar::kDartLong)}, Length{high_}),
          "make the darts shorter, or the collar higher"};
    tell();
    const double length = outer.edge("sewn").path.length();
    const size_t place = pattern_.pieces.size();
    pattern_.pieces.push_back(std::move(outer));
    if (isHigh()) cutDarts(place);
    // From the fold outwards the sewn edge runs backwards on a stand, forwards on one that is turned.
    const bool forwards = isTurned() == foldsAtStart();
    layAlong(pattern_, stretch_, trim_, {place, "sewn"}, {stretch_.from, stretch_.to},
             forwards ? Along{0, length} : Along{length, 0}, {high_, isTurned() ? ReachWay::Down : ReachWay::Up});
    pattern_.pieces.push_back(std::move(under));
    if (isHigh()) cutDarts(place + 1);
    return std::nullopt;
  }

 private:
  bool isTurned() const { return trim_.option(collar::kShape) == collar::CollarShape::Turned; }
  bool isHigh() const { return trim_.option(collar::kShape) == collar::CollarShape::High; }
  int darts() const { return std::max(1, static_cast<int>(std::lround(trim_.number(collar::kDarts)))); }  // of the half
  double takenByDart() const { return trim_.length(collar::kTighter) / 2 / darts(); }
  bool onFold() const { return stretch_.over[0] || stretch_.over[1]; }
  bool foldsAtStart() const { return !stretch_.over[1]; }

  void measure() {
    high_ = trim_.length(collar::kHigh);
    sewn_ = stretch_.half();
    free_ = sewn_ + (isTurned() ? trim_.length(collar::kWider) : isHigh() ? 0 : -trim_.length(collar::kTighter)) / 2;
    angle_ = std::max(kAsFlat, std::abs(free_ - sewn_) / high_);
    inner_ = std::min(free_, sewn_) / angle_;
  }

  // The edges clockwise from the upper one, its fold (or its end at the middle) on the left.
  Piece draw(int side) const {
    const Vec2 o = besideAll(pattern_) + Vec2{0, side * (2 * high_ + kBesideShell) - inner_};
    const double outer = inner_ + high_, sewnAt = isTurned() ? inner_ : outer;
    const double angle = sewn_ / sewnAt, whole = angle + trim_.length(collar::kOverlap) / sewnAt;
    const double allowance = trim_.length(collar::kSeam);
    Piece p = trimPiece(trim_, 1, 1);
    const auto add = [&](const char* id, EdgeRole role, Path path) {
      p.edges.push_back({id, role, allowance, std::move(path)});
    };
    const auto along = [&](double radius, double from, double to, bool sewn) {
      if (!sewn) return add("free", EdgeRole::Hem, arc(o, radius, from, to));
      const bool on = from < to;  // the overlap lies beyond the opening
      if (on) add("sewn", EdgeRole::Raw, arc(o, radius, 0, angle));
      if (whole - angle > 1e-9)
        add("overlap", EdgeRole::Hem, on ? arc(o, radius, angle, whole) : arc(o, radius, whole, angle));
      if (!on) add("sewn", EdgeRole::Raw, arc(o, radius, angle, 0));
    };
    along(inner_, 0, whole, isTurned());
    add("end", EdgeRole::Hem, Path::line(p.edges.back().path.end(), onCircle(o, outer, whole)));
    along(outer, whole, 0, !isTurned());
    add("middle", onFold() ? EdgeRole::Fold : EdgeRole::Hem,
        Path::line(p.edges.back().path.end(), p.edges.front().path.start()));
    if (onFold()) {
      p.edges.back().allowance = 0;
      p.onFold = "middle";
      p.symmetry = Symmetry::OnFold;
      p.copies = 1;
    } else {
      p.symmetry = Symmetry::Pair;
      p.copies = 2;
    }
    p.grainTop = onCircle(o, inner_ + 0.15 * high_, whole / 2);
    p.grainBottom = onCircle(o, inner_ + 0.85 * high_, whole / 2);
    if (side == 0) return p;
    p.id += "-under";
    p.name = msg("{}, under side", trim_.title());
    p.source = trim_.id();
    return p;
  }

  // Of its upper edge, evenly along the neck, each taking its part of what it is to be tighter by.
  void cutDarts(size_t place) {
    Piece& piece = pattern_.pieces[place];
    const int count = darts();
    const double taken = takenByDart(), deep = trim_.length(collar::kDartLong);
    if (taken < kLeastTaken) return;
    const auto free = std::ranges::find(piece.edges, "free", &Edge::id);
    const Edge whole = *free;
    const double lean = std::atan(taken / 2 / deep);  // of a leg
    std::vector<Edge> edges;
    std::vector<Seam> seams;
    double from = 0;
    for (int k = 0; k < count; ++k) {
      const double at = (k + 0.5) * sewn_ / count;
      const Vec2 along = whole.path.tangentAt(at), point = whole.path.pointAt(at) + deep * Vec2{-along.y, along.x};
      edges.push_back(whole);
      edges.back().id = fmt::format("free-{}", k + 1);
      edges.back().path = between(whole.path, from, at - taken / 2, k > 0 ? lean : 0, lean);
      from = at + taken / 2;
      const std::string id = fmt::format("dart-{}-{}", piece.id, k + 1);
      const Vec2 left = edges.back().path.end(), right = whole.path.pointAt(from);
      edges.push_back({id + "-1", EdgeRole::Seam, 0, Path::line(left, point)});
      edges.push_back({id + "-2", EdgeRole::Seam, 0, Path::line(point, right)});
      seams.push_back(
          {id, msg("{}, dart {}", trim_.title(), k + 1), {place, {{id + "-1", false}}}, {place, {{id + "-2", true}}}});
    }
    edges.push_back(whole);
    edges.back().path = between(whole.path, from, whole.path.length(), lean, 0);
    const auto rest = piece.edges.erase(free);
    piece.edges.insert(rest, edges.begin(), edges.end());
    for (Seam& seam : seams) {
      const std::string id = seam.id;
      pattern_.seams.push_back(std::move(seam));
      makeDart(pattern_, id);
    }
  }

  void tell() {
    pattern_.workings.push_back({"trim." + trim_.id(),
                                 msg("{}, half of its neck edge", trim_.title()),
                                 {{'+', stretch_.line.name, sewn_, Source::Computed}},
                                 sewn_,
                                 msg("half of its free edge {}, {} high, {} over; cut twice; common practice",
                                     Length{free_ - (isHigh() ? trim_.length(collar::kTighter) / 2 : 0)}, Length{high_},
                                     Length{trim_.length(collar::kOverlap)})});
  }

  Pattern& pattern_;
  const TrimStretch& stretch_;
  const TrimChoice& trim_;
  double high_ = 0, sewn_ = 0, free_ = 0, angle_ = 0, inner_ = 0;  // mm, rad: of the half
};

}  // namespace

std::optional<Problem> addCollar(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                 const Rules&) {
  return Collar(pattern, stretch, trim).make();
}

}  // namespace armure
