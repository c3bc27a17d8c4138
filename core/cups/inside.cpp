#include "cups/inside.h"

#include <algorithm>

#include "cups/cup_line.h"
#include "pieces/grain.h"
#include "pieces/join.h"

namespace armure {
namespace {

constexpr double kBeside = 60;  // mm

// Adds both traced pieces as one layer.
void addLayer(Pattern& pattern, const Pattern& traced, const std::string& layer, const std::string& name,
              double allowance) {
  const Seam* seam = traced.seam("princess-cup");
  const size_t inner = seam->a.piece, outer = seam->b.piece, first = pattern.pieces.size();
  double left = HUGE_VAL;
  for (size_t i : {inner, outer})
    for (const Edge& e : traced.pieces[i].edges) left = std::min(left, e.path.start().x);
  const Motion aside = Motion::translation({pattern.right() + kBeside - left, 0});
  for (size_t i : {inner, outer}) {
    Piece p = traced.pieces[i];
    p.id = layer + (i == inner ? "-inner" : "-outer");
    p.name = name + (i == inner ? ", inner" : ", outer");
    p.layer = layer;
    p.cloth.clear();
    p.levels.clear();
    for (Edge& e : p.edges) {
      e.path = e.path.transformed(aside);
      e.allowance = allowance;
      const bool sewn = (i == inner ? seam->a : seam->b).uses(e.id);
      if (!sewn) e.role = e.role == EdgeRole::Cup ? EdgeRole::Hem : EdgeRole::Top;
    }
    std::erase_if(p.notches, [&](const Notch& n) { return p.edge(n.edge).role != EdgeRole::Seam; });
    layGrain(p);
    pattern.pieces.push_back(std::move(p));
  }
  Seam s = *seam;
  s.id = layer + "-princess";
  s.name = name + " seam";
  s.a.piece = first;
  s.b.piece = first + 1;
  pattern.seams.push_back(std::move(s));
}

}  // namespace

std::optional<Problem> addInside(Pattern& pattern, const Pattern& panels, const Block& block, const Rules& rules) {
  const std::string_view kind = rules.option("cup.inside");
  if (kind == "none") return std::nullopt;
  Pattern traced = panels;
  Result<CupLine> line = cupLine(traced, block, rules);
  if (!line.ok()) return line.problem();
  const bool across = line->through.size() > 2;
  const std::string crossed = traced.seams[1].id + "-cup";
  std::vector<PieceName> names{{"cup-inner", "Inner cup"}, {"cup-outer", "Outer cup"}};
  if (across) names.push_back({"cup-beyond", "Outer cup"});
  dividePieces(traced, {"cup", "Cup line", "in the cup", EdgeRole::Cup, 0, line->through}, names);
  if (across) joinPieces(traced, crossed, "Outer cup");
  if (kind != "lining") addLayer(pattern, traced, "pad", "Cup pad", 0);
  if (kind != "pad") addLayer(pattern, traced, "lining", "Cup lining", rules.length("allowance.lining"));
  return std::nullopt;
}

}  // namespace armure
