#include "parts/peplum/peplum.h"

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

#include "geometry/arc.h"
#include "parts/peplum/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kAsFlat = 1e-3;   // rad: less is drawn as if it were this
constexpr double kMostAngle = 6;   // rad: nearly a whole ring
constexpr double kLeastPart = 10;  // mm of hem: less has no piece of its own
constexpr int kCubics = 24;        // along a hem whose length changes

// One of its pieces: what it is sewn to along the line, what stretch of its front or its back it is, and its ends.
struct PeplumPart {
  Message name;
  double from = 0, to = 0;     // mm along the line
  double first = 0, last = 0;  // how long the front or the back is at its ends, mm
  bool foldFirst = false, foldLast = false, joinedFirst = false, joinedLast = false;
  double begins = 0, ends = 1;  // parts of the front or the back
  double sewn() const { return to - from; }
  double share() const { return ends - begins; }
  // At a part of it from its first end, and how fast that changes.
  double lengthAt(double t) const {
    const double u = begins + t * share();
    return first + (last - first) * u * u * (3 - 2 * u);
  }
  double slopeAt(double t) const {
    const double u = begins + t * share();
    return share() * (last - first) * 6 * u * (1 - u);
  }
};

class Peplum {
 public:
  Peplum(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim)
      : pattern_(pattern), stretch_(stretch), trim_(trim) {}

  std::optional<Problem> make() && {
    std::vector<PeplumPart> all;
    for (const PeplumPart& s : sections()) divide(s, all);
    for (const PeplumPart& s : all)
      if (angleOf(s) > kMostAngle)
        return Problem{trim_.title(), msg("{} wider, {} would be more than a ring", Length{flare()}, s.name),
                       "let it widen by less, or make it longer"};
    for (size_t k = 0; k < all.size(); ++k) add(all[k], static_cast<int>(k) + 1, static_cast<int>(all.size()));
    tell(all.size());
    return std::nullopt;
  }

 private:
  double flare() const { return trim_.length(peplum::kFlare); }
  double angleOf(const PeplumPart& s) const { return s.share() * std::max(kAsFlat, 2 * flare() / (s.first + s.last)); }

  // Of a front or a back as many pieces as are asked for, each of the same ring.
  void divide(const PeplumPart& whole, std::vector<PeplumPart>& all) const {
    const auto pieces = std::max(1, static_cast<int>(std::lround(trim_.number(peplum::kPieces))));
    for (int k = 0; k < pieces; ++k) {
      PeplumPart s = whole;
      s.begins = static_cast<double>(k) / pieces;
      s.ends = (k + 1.0) / pieces;
      s.from = whole.from + s.begins * whole.sewn();
      s.to = whole.from + s.ends * whole.sewn();
      if (k > 0) s.foldFirst = false, s.joinedFirst = true;
      if (k + 1 < pieces) s.foldLast = false, s.joinedLast = true;
      if (pieces > 1) s.name = msg("{} {}", whole.name, k + 1);
      all.push_back(std::move(s));
    }
  }

  std::vector<PeplumPart> sections() const {
    const double front = trim_.length(peplum::kFront), side = trim_.length(peplum::kSide),
                 back = trim_.length(peplum::kBack);
    const bool fold[2] = {stretch_.over[0] && !stretch_.apart, stretch_.over[1] && !stretch_.apart};
    const bool seam[2] = {stretch_.over[0] && stretch_.apart, stretch_.over[1] && stretch_.apart};
    const LineMark* mark = stretch_.line.side();
    const double at = mark ? mark->at : stretch_.to;
    std::vector<PeplumPart> all;
    if (at - stretch_.from > kLeastPart)
      all.push_back({"its front", stretch_.from, std::min(at, stretch_.to), front, side, fold[0], false, seam[0]});
    if (stretch_.to - at > kLeastPart)
      all.push_back({"its back", std::max(at, stretch_.from), stretch_.to, side, back});
    if (all.empty())  // a little to either side of the side seam
      all.push_back({"its side", stretch_.from, stretch_.to, side, side});
    if (all.size() == 2) all[0].joinedLast = all[1].joinedFirst = true;
    if (all.size() == 1 && at >= stretch_.to) all[0].last = mark ? side : back;
    PeplumPart& last = all.back();
    last.joinedLast = seam[1] || (fold[1] && last.foldFirst);  // one edge of a piece lies on the fold
    last.foldLast = fold[1] && !last.foldFirst;
    return all;
  }

  void add(const PeplumPart& s, int part, int parts) {
    const double angle = angleOf(s), radius = s.sewn() / angle, longest = std::max(s.lengthAt(0), s.lengthAt(1));
    const Vec2 o = besideAll(pattern_) + Vec2{radius * std::sin(std::min(angle / 2, 1.57)) + longest, -radius};
    const auto outer = [&](double a) {
      const double t = a / angle + 0.5, l = s.lengthAt(t);
      const Vec2 out{std::sin(a), std::cos(a)};
      return CurvePoint{o + (radius + l) * out, s.slopeAt(t) / angle * out + (radius + l) * Vec2{out.y, -out.x}};
    };
    const double seam = trim_.length(peplum::kSeam), hem = trim_.length(peplum::kHem);
    Path sewn = arc(o, radius, -angle / 2, angle / 2), free = curve(outer, angle / 2, -angle / 2, angle / kCubics);
    const Path end = Path::line(sewn.end(), free.start()), start = Path::line(free.end(), sewn.start());
    Piece p = trimPiece(trim_, part, parts);
    p.name = parts > 1 ? msg("{}, {}", trim_.title(), s.name) : trim_.title();
    const auto side = [&](const char* id, bool fold, bool joined, const Path& path) {
      p.edges.push_back({id,
                         fold     ? EdgeRole::Fold
                         : joined ? EdgeRole::Raw
                                  : EdgeRole::Hem,
                         fold     ? 0
                         : joined ? seam
                                  : hem,
                         path});
    };
    p.edges.push_back({"sewn", EdgeRole::Raw, seam, std::move(sewn)});
    side("end", s.foldLast, s.joinedLast, end);
    p.edges.push_back({"free", EdgeRole::Hem, hem, std::move(free)});
    side("start", s.foldFirst, s.joinedFirst, start);
    const bool onFold = s.foldFirst || s.foldLast;
    if (onFold) p.onFold = s.foldFirst ? "start" : "end";
    p.symmetry = onFold ? Symmetry::OnFold : Symmetry::Pair;
    p.copies = onFold ? 1 : 2;
    const double l = s.lengthAt(0.5);
    p.grainTop = o + Vec2{0, radius + 0.15 * l};
    p.grainBottom = o + Vec2{0, radius + 0.85 * l};
    const double length = p.edges.front().path.length();
    const PieceEdge attached{pattern_.pieces.size(), "sewn"};
    pattern_.pieces.push_back(std::move(p));
    layAlong(pattern_, stretch_, trim_, attached, {s.from, s.to}, {0, length}, {l, ReachWay::Down});
  }

  void tell(size_t pieces) {
    pattern_.workings.push_back({"trim." + trim_.id(),
                                 msg("{}, half of its upper edge", trim_.title()),
                                 {{'+', stretch_.line.name, stretch_.half(), Source::Computed}},
                                 stretch_.half(),
                                 msg("in {} pieces on either side, each {} wider at its hem; {} long in front, {} at "
                                     "the side, {} behind; common "
                                     "practice",
                                     static_cast<int>(pieces), Length{flare()}, Length{trim_.length(peplum::kFront)},
                                     Length{trim_.length(peplum::kSide)}, Length{trim_.length(peplum::kBack)})});
  }

  Pattern& pattern_;
  const TrimStretch& stretch_;
  const TrimChoice& trim_;
};

}  // namespace

std::optional<Problem> addPeplum(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                 const Rules&) {
  return Peplum(pattern, stretch, trim).make();
}

}  // namespace armure
