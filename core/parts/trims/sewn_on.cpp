#include "parts/trims/sewn_on.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kNothing = 1e-6;  // mm

}  // namespace

std::string trimCloth(std::string_view piece, const Rules& rules) {
  if (rules.option(key::kCutFor) == CutFor::Toile) return rules.chosenCloth("toile").value_or("calico");
  for (const std::string_view of : {piece, std::string_view("trim"), std::string_view("shell")})
    if (auto chosen = rules.chosenCloth(of)) return *chosen;
  return "satin";
}

double trimClothWidth(const TrimChoice& trim, const Rules& rules) {
  const std::string id = trimCloth(trim.id(), rules);
  const bool asShell = id == rules.chosenCloth("shell").value_or("satin");
  if (asShell && !rules.isDefault(key::kClothWidth)) return rules.length(key::kClothWidth);
  const ListedCloth* cloth = rules.cloth(id);
  return cloth ? cloth->width : rules.length(key::kClothWidth);
}

Piece trimPiece(const TrimChoice& trim, int part, int parts) {
  Piece p;
  p.id = parts > 1 ? fmt::format("{}-{}", trim.id(), part) : trim.id();
  p.name = parts > 1 ? msg("{}, part {}", trim.title(), part) : trim.title();
  p.part = Part::Trim;
  p.layer = "trim";
  p.symmetry = Symmetry::Once;
  return p;
}

Symmetry symmetryOn(const TrimStretch& stretch) { return stretch.count() == 2 ? Symmetry::Pair : Symmetry::Once; }

std::vector<Edge> rectangle(Vec2 corner, double length, double deep, double allowance) {
  const Vec2 across{length, 0}, down{0, deep};
  return {{"sewn", EdgeRole::Raw, allowance, Path::line(corner, corner + across)},
          {"end", EdgeRole::Raw, allowance, Path::line(corner + across, corner + across + down)},
          {"free", EdgeRole::Raw, allowance, Path::line(corner + across + down, corner + down)},
          {"start", EdgeRole::Raw, allowance, Path::line(corner + down, corner)}};
}

void grainDown(Piece& piece, Vec2 corner, double length, double deep) {
  piece.grainTop = corner + Vec2{length / 2, 0.2 * deep};
  piece.grainBottom = corner + Vec2{length / 2, 0.8 * deep};
}

Vec2 besideAll(const Pattern& pattern) {
  double top = HUGE_VAL;
  for (const Piece& p : pattern.pieces)
    for (const Edge& e : p.edges) top = std::min(top, e.path.start().y);
  return {pattern.right() + kBesideShell, top};
}

void layAlong(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const PieceEdge& attached,
              Along line, Along onEdge, Reach reach) {
  const double full = (onEdge.to - onEdge.from) / (line.to - line.from);
  double start = 0;
  for (size_t k = 0; k < stretch.line.edges.size(); ++k) {
    const SewnEdge& e = stretch.line.edges[k];
    const double end = stretch.line.ends[k], length = end - start;
    const double low = std::max(line.from, start), high = std::min(line.to, end);
    if (high - low > kNothing) {
      Attachment a{trim.id(), trim.title(), e.piece, e.use.edge, low - start, high - start, attached};
      if (e.use.reversed) std::tie(a.from, a.to) = std::pair{length - a.to, length - a.from};
      const double onLow = onEdge.from + full * (low - line.from), onHigh = onEdge.from + full * (high - line.from);
      a.onFrom = std::min(onLow, onHigh);
      a.onTo = std::max(onLow, onHigh);
      a.full = std::abs(full);
      a.reach = reach;
      a.trim = trim.id();
      pattern.attachments.push_back(std::move(a));
    }
    start = end;
  }
}

void placeOn(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const PieceEdge& attached) {
  const size_t first = pattern.attachments.size();
  layAlong(pattern, stretch, trim, attached, {stretch.from, stretch.to}, {0, stretch.half()}, {0, ReachWay::Flat});
  for (size_t i = first; i < pattern.attachments.size(); ++i) {
    Attachment& a = pattern.attachments[i];
    a.onFrom = a.onTo = a.full = 0;
  }
}

void sewOn(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, Piece piece, const std::string& edge,
           double from, double each, Reach reach) {
  const int copies = piece.symmetry == Symmetry::Pair ? piece.copies / 2 : piece.copies / stretch.count();
  const PieceEdge attached{pattern.pieces.size(), edge};
  const double length = piece.edge(edge).path.length();
  pattern.pieces.push_back(std::move(piece));
  // Along the whole the left half begins where the right one ends.
  const double left = stretch.isOver() && stretch.over[0] ? stretch.half() : 0, begin = stretch.from - left;
  for (int k = 0; k < copies; ++k) {
    const double a = begin + from + k * each, low = std::max(a, stretch.from), high = std::min(a + each, stretch.to);
    if (high - low > kNothing)
      layAlong(pattern, stretch, trim, attached, {low, high}, {(low - a) * length / each, (high - a) * length / each},
               reach);
  }
}

}  // namespace armure
