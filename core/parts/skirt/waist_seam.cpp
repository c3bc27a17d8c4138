#include "parts/skirt/waist_seam.h"

#include <algorithm>
#include <cmath>

#include "draft/levels.h"
#include "operations/divide.h"
#include "operations/grain.h"
#include "parts/edges/rules.h"
#include "parts/skirt/rules.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

class WaistCutter {
 public:
  WaistCutter(Pattern& pattern, const Block& block, const Rules& rules)
      : pattern_(pattern),
        rules_(rules),
        ends_(!goesBelowWaist(rules)),
        point_(pointOf(rules, ends_)),
        above_(rules.option(key::kHemAt) == HemAt::Above ? rules.length(key::kHemAboveWaist) : 0),
        half_(block.levels.at(level::kWaist).frontShare) {}

  std::optional<Problem> cut() && {
    DividingLine line =
        ends_ ? DividingLine{"hem", "Hem", "", EdgeRole::Hem, rules_.length(key::kAllowanceHem), {}}
              : DividingLine{"waist", "Waist seam", "in the skirt", EdgeRole::Seam, rules_.length(key::kAllowanceWaist),
                             {}};
    std::vector<PieceName> names;
    double x = 0;
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      const Piece& p = pattern_.pieces[i];
      const auto waist = p.level(level::kWaist);
      if (!waist || p.layer != "shell") continue;
      const bool front = p.half == Half::Front;
      const double to = x + waist->width();
      auto through = across(i, *waist, front ? dipAt(x) : Dip{}, front ? dipAt(to) : Dip{});
      x = to;
      if (!through)
        return Problem{p.name, "the waist seam does not meet both its edges",
                       "make the point less deep, or lengthen the garment"};
      if (runsThroughDart(p, through->path))
        return Problem{p.name, msg("the {} runs through a dart", ends_ ? Message("hem") : Message("waist seam")),
                       "make the dart shorter, the point less deep, or sew the dart as a seam"};
      line.through.push_back(std::move(*through));
      names.push_back({"skirt-" + p.id, msg("Skirt, {}", p.name), Part::Skirt});
    }
    if (line.through.empty()) return std::nullopt;
    std::reverse(line.through.begin(), line.through.end());  // from the right to the left: what lies below is the left
    std::reverse(names.begin(), names.end());
    dividePieces(pattern_, line, names);
    if (ends_) {
      keepFirst(pattern_, pattern_.pieces.size() - names.size());
      if (above_ > 0) {
        std::erase_if(pattern_.levels, [](const PatternLevel& l) { return l.id == level::kWaist; });
      } else {
        for (const LineThrough& t : line.through) layAlongHem(pattern_.pieces[t.piece]);
      }
    }
    for (const LineThrough& t : line.through) layGrain(pattern_.pieces[t.piece]);
    if (ends_) return std::nullopt;
    for (size_t i = pattern_.pieces.size() - names.size(); i < pattern_.pieces.size(); ++i)
      layGrain(pattern_.pieces[i]);
    std::vector<size_t> order;
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) order.push_back(i);
    std::reverse(order.end() - static_cast<std::ptrdiff_t>(names.size()), order.end());
    reorderPieces(pattern_, order);
    return std::nullopt;
  }

 private:
  // How far below the waist the seam stands, and how it runs, down for each mm towards the centre front.
  struct Dip {
    double down = 0, slope = 0;
  };
  Dip dipAt(double x) const {
    const double rest = std::max(0.0, 1 - x / half_);
    return {point_ * rest * rest, 2 * point_ * rest / half_};
  }

  std::optional<LineThrough> across(size_t index, const LevelLine& waist, Dip left, Dip right) const {
    const Piece& p = pattern_.pieces[index];
    std::optional<Anchor> from, to;
    for (const Edge& e : p.edges) {
      if (isFree(e.role)) continue;
      if (const auto s = nearOn(e.path, waist.b); s && !from) from = Anchor{e.id, *s + right.down - above_, {}};
      if (const auto s = nearOn(e.path, waist.a); s && !to) to = Anchor{e.id, *s - left.down + above_, {}};
    }
    if (!from || !to || from->edge == to->edge) return std::nullopt;
    const Path &r = p.edge(from->edge).path, &l = p.edge(to->edge).path;
    const auto within = [](double at, const Path& path) { return at > 5 && at < path.length() - 5; };
    if (!within(from->at, r) || !within(to->at, l)) return std::nullopt;
    const Vec2 a = r.pointAt(from->at), b = l.pointAt(to->at);
    const Vec2 tr = r.tangentAt(from->at), tl = -l.tangentAt(to->at);  // both down
    const auto towards = [](Vec2 down, double slope) { return rotated(Vec2{-down.y, down.x}, -std::atan(slope)); };
    const double third = distance(a, b) / 3;
    return LineThrough{index, *from, *to,
                       Path(Cubic{a, a + third * towards(tr, right.slope), b - third * towards(tl, left.slope), b})};
  }

  // Where the piece ends at the waist its waist runs from corner to corner; the hem, which is curved, may have cut it.
  // Above a point it ends so at the side alone.
  void layAlongHem(Piece& piece) const {
    const size_t n = piece.edges.size(), hem = hemPlace(piece);
    if (hem == n) return;
    const Edge &right = piece.edges[(hem + n - 1) % n], &left = piece.edges[(hem + 1) % n];
    const bool whole = point_ == 0 || piece.half == Half::Back;
    const Mark* was = piece.levelMark(level::kWaist);
    if (!whole && (right.id != "side" || !was)) return;
    const Anchor from = whole ? Anchor{left.id, 0, {}} : was->a;
    std::erase_if(piece.marks, [](const Mark& m) { return m.isLevel() && m.id == level::kWaist; });
    piece.marks.push_back(
        {MarkKind::Level, std::string(level::kWaist), from, {right.id, right.path.length(), {}}, false});
  }

  static double pointOf(const Rules& rules, bool ends) {
    if (ends) return rules.option(key::kHemAt) == HemAt::WaistPoint ? rules.length(key::kHemDip) : 0;
    return rules.option(key::kWaistSeam) == WaistSeam::Pointed ? rules.length(key::kWaistPoint) : 0;
  }

  Pattern& pattern_;
  const Rules& rules_;
  const bool ends_;                    // there: what lies below is not part of the garment
  const double point_, above_, half_;  // mm: the point below the waist; how far above it a cropped bodice ends
};

}  // namespace

std::optional<Problem> cutWaist(Pattern& pattern, const Block& block, const Rules& rules) {
  if (rules.option(key::kWaistSeam) == WaistSeam::None && goesBelowWaist(rules)) return std::nullopt;
  return WaistCutter(pattern, block, rules).cut();
}

}  // namespace armure
