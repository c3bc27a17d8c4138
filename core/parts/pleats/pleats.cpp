#include "parts/pleats/pleats.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

#include "geometry/tolerances.h"
#include "geometry/unfold.h"
#include "parts/pleats/rules.h"
#include "parts/trims/sewn_on.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr double kFlat = 0.01;    // mm from the curve
constexpr double kOnFold = 1e-3;  // mm

class Pleated {
 public:
  Pleated(Pattern& pattern, size_t over, const TrimChoice& trim)
      : pattern_(pattern), over_(pattern.pieces[over]), trim_(trim) {}

  std::optional<Problem> make() && {
    lay();
    const double depth = trim_.length(pleats::kDeep), apart = (right_ - left_) / (count() + 1);
    if (apart < depth)
      return Problem{trim_.title(),
                     msg("{} pleats, {} deep, lie over each other on {}", count(), Length{depth}, over_.name),
                     "take fewer of them, or less deep"};
    std::vector<FoldedPleat> folds;
    for (int k = 1; k <= count(); ++k) folds.push_back({left_ + k * apart, depth});
    Polyline flat = unfolded(ring_, folds);
    Piece p = draw(std::move(flat));
    mark(p, folds);
    tell();
    pattern_.pieces.push_back(std::move(p));
    return std::nullopt;
  }

 private:
  int count() const { return static_cast<int>(std::lround(trim_.number(pleats::kCount))); }
  bool crosswise() const { return trim_.option(pleats::kRuns) == pleats::Runs::Crosswise; }
  bool inwards() const { return trim_.option(pleats::kLie) == pleats::Lies::Forth; }

  // Folds always run down and lie under to the left: the piece is turned so that they do, and back again.
  Vec2 turned(Vec2 p) const {
    if (crosswise()) p = {p.y, -p.x};
    return inwards() ? Vec2{-p.x, p.y} : p;
  }
  Vec2 back(Vec2 p) const {
    if (inwards()) p = {-p.x, p.y};
    return crosswise() ? Vec2{-p.y, p.x} : p;
  }

  void lay() {
    std::vector<AllowanceEdge> edges;
    for (const Edge& e : over_.edges) {
      const bool fold = e.role == EdgeRole::Fold;
      edges.push_back({e.path.flattened(kFlat), fold ? 0 : trim_.length(pleats::kSeam), fold});
    }
    ring_ = cutOutline(edges);
    const auto sewn = [&](Vec2 p) { return turned(p).x; };
    const auto [least, most] = std::ranges::minmax(over_.outline(kFlat), {}, sewn);
    sewn_ = turned(most).x - turned(least).x;
    for (Vec2& p : ring_) p = turned(p);
    if (signedArea(ring_) < 0) std::ranges::reverse(ring_);
    const auto [low, high] = std::ranges::minmax(ring_, {}, &Vec2::x);
    left_ = low.x;
    right_ = high.x;
  }

  // Beside everything else, its outline clockwise: one edge round, and the fold where it has one.
  Piece draw(Polyline flat) {
    for (Vec2& p : flat) p = back(p);
    if (signedArea(flat) < 0) std::ranges::reverse(flat);
    const auto leftmost = std::ranges::min(flat, {}, &Vec2::x), topmost = std::ranges::min(flat, {}, &Vec2::y);
    beside_ = besideAll(pattern_) - Vec2{leftmost.x, topmost.y};
    Piece p = trimPiece(trim_, 1, 1);
    p.symmetry = over_.symmetry;
    p.copies = over_.symmetry == Symmetry::OnFold ? 1 : 2;
    p.source = over_.id;
    p.edges = over_.onFold.empty() ? apart(flat) : onFold(flat);
    if (!over_.onFold.empty()) p.onFold = "fold";
    for (Edge& e : p.edges) e.path = e.path.transformed(Motion::translation(beside_));
    for (Vec2& at : flat) at = at + beside_;
    const auto middle = (leftmost + std::ranges::max(flat, {}, &Vec2::x) - beside_) / 2;
    const Vec2 top = std::ranges::min(flat, {}, &Vec2::y), low = std::ranges::max(flat, {}, &Vec2::y);
    p.grainTop = {middle.x + beside_.x, top.y + 0.3 * (low.y - top.y)};
    p.grainBottom = {middle.x + beside_.x, top.y + 0.8 * (low.y - top.y)};
    return p;
  }

  // From its highest corner down, and up again.
  static std::vector<Edge> apart(Polyline flat) {
    std::ranges::rotate(flat, std::ranges::min_element(flat, {}, &Vec2::y));
    const auto low = std::ranges::max_element(flat, {}, &Vec2::y);
    Polyline up(low, flat.end());
    up.push_back(flat.front());
    return {{"right", EdgeRole::Raw, 0, Path::polyline({flat.begin(), low + 1})},
            {"left", EdgeRole::Raw, 0, Path::polyline(up)}};
  }

  // From the end of the fold round to its start, clockwise: a fold on the left runs up, one on the right down.
  std::vector<Edge> onFold(Polyline flat) const {
    const double fold = foldWhenFlat(), sign = fold > std::ranges::min(flat, {}, &Vec2::x).x + kOnFold ? -1 : 1;
    const auto alongFold = [&](Vec2 at) { return std::abs(at.x - fold) < kOnFold ? sign * at.y : HUGE_VAL; };
    std::ranges::rotate(flat, std::ranges::min_element(flat, {}, alongFold));
    const auto last = std::ranges::max_element(flat, {}, [&](Vec2 at) {
      const double y = alongFold(at);
      return y == HUGE_VAL ? -HUGE_VAL : y;
    });
    const Polyline round(flat.begin(), last + 1);
    return {{"round", EdgeRole::Raw, 0, Path::polyline(round)},
            {"fold", EdgeRole::Fold, 0, Path::line(round.back(), round.front())}};
  }

  // x of the piece's own fold, which lies beyond all pleats or before them.
  double foldWhenFlat() const {
    const Vec2 at = over_.edge(over_.onFold).path.start();
    Vec2 flat = turned(at);
    if (!crosswise() && flat.x > (left_ + right_) / 2) flat.x += 2 * count() * trim_.length(pleats::kDeep);
    return back(flat).x;
  }

  // The fold of each pleat and the line it is laid to, wherever they meet the outline.
  void mark(Piece& p, const std::vector<FoldedPleat>& folds) const {
    double shift = 0;
    int pleat = 0;
    for (const FoldedPleat& f : folds) {
      ++pleat;
      for (const double x : {f.at + shift, f.at + shift + 2 * f.depth}) {
        const Vec2 on = back({x, 0}) + beside_, way = back({0, 1});
        for (const Edge& e : p.edges) {
          if (e.role == EdgeRole::Fold) continue;
          for (const double at : e.path.crossings(on, way))
            p.marks.push_back(notchMark(fmt::format("pleat-{}", pleat), {e.id, at}));
        }
      }
      shift += 2 * f.depth;
    }
  }

  void tell() {
    const double wide = right_ - left_, deep = trim_.length(pleats::kDeep);
    pattern_.workings.push_back(
        {"trim." + trim_.id(),
         msg("{}, the cloth before pleating", trim_.title()),
         {{'+', over_.name, sewn_, Source::Computed},
          {'+', "its allowances", wide - sewn_, Source::Computed},
          trim_.term(pleats::kDeep, '+', 2 * count())},
         wide + 2 * count() * deep,
         msg("{} pleats, {} deep; as wide as the piece once they are laid; common practice", count(), Length{deep})});
  }

  Pattern& pattern_;
  const Piece over_;  // as it is: the pattern grows
  const TrimChoice& trim_;
  Polyline ring_;  // what covers the piece with its allowances, turned
  double left_ = 0, right_ = 0, sewn_ = 0;
  Vec2 beside_;
};

}  // namespace

std::optional<Problem> addPleats(Pattern& pattern, const TrimChoice& trim, const Rules&) {
  const size_t shell = pattern.shellPieces();
  const auto end = pattern.pieces.begin() + static_cast<std::ptrdiff_t>(shell);
  const auto over = std::ranges::find(pattern.pieces.begin(), end, trim.on(), &Piece::id);
  if (over == end) {
    Listed ids{{}, Listed::By::Or};
    for (auto p = pattern.pieces.begin(); p != end; ++p) ids.all.push_back(verbatim(p->id));
    return Problem{trim.title(), msg("this garment has no piece \"{}\"", quotable(trim.on())),
                   msg("choose one of {}", std::move(ids))};
  }
  return Pleated(pattern, static_cast<size_t>(over - pattern.pieces.begin()), trim).make();
}

}  // namespace armure
