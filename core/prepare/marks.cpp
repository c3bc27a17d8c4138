#include "prepare/marks.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "layers/recipe.h"
#include "pattern/outline_parts.h"
#include "prepare/lists.h"

namespace armure {

bool isOnLeg(const Piece& piece, const Mark& notch) { return edgePlace(piece, notch.a.edge) >= piece.edges.size(); }

namespace {

// How far it is from a place on the sewn line, straight out, to the cutting line; nothing where that is not met.
std::optional<double> reachToCut(Vec2 from, Vec2 out, const Polyline& cutOutline) {
  double nearest = HUGE_VAL;
  for (size_t i = 0; i < cutOutline.size(); ++i) {
    const Vec2 a = cutOutline[i], side = cutOutline[(i + 1) % cutOutline.size()] - a;
    const double parallel = cross(out, side);
    if (std::abs(parallel) < 1e-12) continue;
    const double reach = cross(a - from, side) / parallel, part = cross(a - from, out) / parallel;
    if (reach > 0 && part >= 0 && part <= 1) nearest = std::min(nearest, reach);
  }
  return nearest < HUGE_VAL ? std::optional(nearest) : std::nullopt;
}

// Straight out of a clockwise outline.
Vec2 outwards(const Edge& e, double at) {
  const Vec2 along = e.path.tangentAt(at);
  return {along.y, -along.x};
}

}  // namespace

std::vector<Stroke> notchStrokes(const Piece& piece, const Polyline& cutOutline, NotchKind kind) {
  constexpr double kApart = 3, kLength = 6, kTriangle = 4;
  std::vector<Stroke> strokes;
  for (const Mark& n : piece.notches()) {
    const Edge& e = piece.edge(n.a.edge);
    if (isOnLeg(piece, n)) continue;
    const auto strike = [&](double at) {
      const Vec2 p = e.path.pointAt(at), out = outwards(e, at);
      const double otherwise = e.allowance > 0 ? std::min(kLength, e.allowance) : kLength;
      const auto reach = e.allowance > 0 ? reachToCut(p, out, cutOutline) : std::nullopt;
      const Vec2 cut = p + reach.value_or(otherwise) * out, aside = kTriangle / 2 * Vec2{-out.y, out.x};
      strokes.push_back({p, cut});
      if (kind == NotchKind::Slit || cutOutline.empty()) return;
      strokes.push_back({cut - aside, cut + kTriangle * out});
      strokes.push_back({cut + kTriangle * out, cut + aside});
    };
    if (n.doubled) {
      strike(n.a.at - kApart / 2);
      strike(n.a.at + kApart / 2);
    } else {
      strike(n.a.at);
    }
  }
  return strokes;
}

std::vector<NotchStroke> strokesToCut(const Piece& piece, const Polyline& cutOutline) {
  std::vector<NotchStroke> strokes;
  for (const Mark& n : piece.notches()) {
    const Edge& e = piece.edge(n.a.edge);
    if (e.allowance <= 0) continue;
    const Vec2 from = piece.point(n.a), out = outwards(e, n.a.at);
    if (const auto reach = reachToCut(from, out, cutOutline)) strokes.push_back({n.id, from, from + *reach * out});
  }
  return strokes;
}

std::vector<DartPoint> dartPoints(const Piece& piece) {
  std::vector<DartPoint> points;
  for (const Dart& d : piece.darts) {
    if (!d.isOpen()) points.push_back({d.id, d.legs[0].path.start()});
    points.push_back({d.id, d.point()});
  }
  return points;
}

std::string_view kindOf(const Seam& seam) { return std::abs(seam.ease()) > kMostEase ? "gathered" : "plain"; }

bool isOnBias(const Piece& piece) {
  const double lean = std::abs(angleBetween(piece.grainBottom - piece.grainTop, {0, 1}));
  return std::abs(lean - std::numbers::pi / 4) < 0.2;
}

std::vector<Message> labelLines(const Piece& piece, const Rules& rules) {
  std::vector<Message> lines{piece.name, msg("{} of {}", piece.number, piece.of)};
  const auto cut = [&](std::string_view layer, int copies) {
    const std::string id = clothOf(piece, layer, rules);
    const ListedCloth* listed = rules.cloth(id);
    const Message cloth = listed ? clothName(*listed) : verbatim(id);
    const Message name = layer == "shell"   ? Message("shell")
                         : findLayer(layer) ? known(findLayer(layer)->name)
                                            : verbatim(layer);
    if (!piece.onFold.empty()) return msg("cut {} on the fold: {}, {}", copies, name, cloth);
    if (piece.side != BodySide::Both) return msg("cut {}, this side up: {}, {}", copies, name, cloth);
    if (isMirrored(piece)) return msg("cut {}, mirrored: {}, {}", copies, name, cloth);
    return msg("cut {}, all alike: {}, {}", copies, name, cloth);
  };
  lines.push_back(cut(piece.layer, piece.copies));
  for (const AlsoCut& again : piece.alsoCut) lines.push_back(cut(again.layer, again.copies));
  switch (rules.option(key::kAllowanceCustom)) {
    case AllowanceCustom::OnPaper:
      lines.emplace_back("allowances are on the paper");
      break;
    case AllowanceCustom::SideAndHem:
      lines.emplace_back("side, hem and opening on the paper; add the others on the cloth");
      break;
    case AllowanceCustom::OnCloth:
      lines.emplace_back("no allowances on the paper: add them on the cloth");
  }
  return lines;
}

namespace {

// "1/2 in", or what is still to be added.
Message allowanceNote(const Edge& edge) {
  if (edge.onCloth > 0) return msg("add {} on the cloth", Length{edge.onCloth});
  return msg("{}", Length{edge.allowance});
}

}  // namespace

Message edgeNote(const Pattern& pattern, size_t piece, const Edge& edge) {
  if (edge.role == EdgeRole::Fold) return Message("fold");
  if (edge.role == EdgeRole::Mouth) return "";
  const Message allowance = allowanceNote(edge);
  if (edge.role == EdgeRole::Centre) return msg("{}, joins its mirror image", allowance);
  if (edge.role == EdgeRole::Opening) return msg("{}, opening", allowance);
  for (const Seam& s : pattern.seams)
    for (const auto& [side, other] : {std::pair{&s.a, &s.b}, {&s.b, &s.a}})
      if (side->piece == piece && side->uses(edge.id))
        return msg("{}, joins {}", allowance, pattern.pieces[other->piece].number);
  return allowance;
}

Vec2 labelPoint(const Piece& piece) {
  const auto waist = piece.level(level::kWaist), under = piece.level(level::kUnderbust);
  if (!waist || !under) {  // beside the grain
    const Vec2 down = unit(piece.grainBottom - piece.grainTop);
    return lerp(piece.grainTop, piece.grainBottom, 0.5) + 12 * Vec2{down.y, -down.x};
  }
  return lerp(lerp(waist->a, waist->b, 0.58), lerp(under->a, under->b, 0.58), 0.5);
}

}  // namespace armure
