#include "layers/recipe.h"

#include <algorithm>
#include <array>
#include <map>

#include "layers/cup_trace.h"
#include "operations/grain.h"
#include "parts/cups/rules.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

// From the skin outwards last.
constexpr std::array kLayers{
    LayerRecipe{.id = "lining",
                .name = "Cup lining",
                .from = LayerFrom::CupTrace,
                .wanted = row::when(key::kCupInside, {CupInside::Lining, CupInside::Both}),
                .allowances = LayerAllowance::ByRule,
                .allowance = key::kAllowanceLining},
    LayerRecipe{.id = "pad",
                .name = "Cup pad",
                .from = LayerFrom::CupTrace,
                .wanted = row::when(key::kCupInside, {CupInside::Pad, CupInside::Both}),
                .allowances = LayerAllowance::None,
                .belowArmhole = true,
                .firm = false},
};

// The chosen pieces of the shell with the seams between them; an edge whose other side is not among them is only cut.
class ShellCopy {
 public:
  ShellCopy(const Pattern& shell, const LayerRecipe& recipe, const Rules& rules)
      : shell_(shell), recipe_(recipe), rules_(rules) {}

  Layer make() && {
    layer_.id = recipe_.id;
    for (size_t i = 0; i < shell_.shellPieces(); ++i)
      if (partsOf({shell_.pieces[i].part}) & recipe_.parts) copy(i);
    for (const Seam& s : shell_.seams) copy(s);
    for (const auto& [from, to] : at_) leaveRaw(from, to);
    return std::move(layer_);
  }

 private:
  void copy(size_t i) {
    const size_t to = at_[i] = layer_.pattern.pieces.size();
    Piece p = shell_.pieces[i];
    p.source = p.id;
    p.id = idOf(p.id);
    p.name = msg("{}, {}", known(recipe_.name), p.name);
    p.layer = layer_.id;
    p.cloth.clear();
    p.copies *= recipe_.doubled;
    for (Edge& e : p.edges) {
      e.allowance = allowanceOf(e);
      layer_.lines.push_back({verbatim(e.id), {{to, e.id}}, {{i, e.id}}, 0, {}, {}, true});
    }
    for (Dart& d : p.darts) d.id = idOf(d.id);
    std::erase_if(p.marks, [](const Mark& m) { return m.isLevel(); });
    layer_.pattern.pieces.push_back(std::move(p));
  }

  void copy(const Seam& s) {
    if (!at_.contains(s.a.piece) || !at_.contains(s.b.piece)) return;
    Seam mine = s;
    mine.id = idOf(s.id);
    mine.name = msg("{}, {}", known(recipe_.name), s.name);
    mine.a.piece = at_.at(s.a.piece);
    mine.b.piece = at_.at(s.b.piece);
    layer_.pattern.seams.push_back(std::move(mine));
  }

  std::string idOf(const std::string& id) const { return layer_.id + "-" + id; }

  double allowanceOf(const Edge& e) const {
    if (e.role == EdgeRole::Fold || recipe_.allowances == LayerAllowance::None) return 0;
    return recipe_.allowances == LayerAllowance::ByRule ? rules_.length(recipe_.allowance) : e.allowance;
  }

  void leaveRaw(size_t from, size_t to) {
    for (const Seam& s : shell_.seams)
      for (const SeamSide* side : {&s.a, &s.b}) {
        if (side->piece != from || at_.contains((side == &s.a ? s.b : s.a).piece)) continue;
        for (Edge& e : layer_.pattern.pieces[to].edges)
          if (side->uses(e.id)) e.role = EdgeRole::Raw;
      }
  }

  const Pattern& shell_;
  const LayerRecipe& recipe_;
  const Rules& rules_;
  std::map<size_t, size_t> at_;  // piece of the shell -> piece of the layer
  Layer layer_;
};

}  // namespace

std::span<const LayerRecipe> layerTable() { return kLayers; }

const LayerRecipe* findLayer(std::string_view id) {
  const auto found = std::ranges::find(kLayers, id, &LayerRecipe::id);
  return found == std::end(kLayers) ? nullptr : &*found;
}

bool isWanted(const LayerRecipe& recipe, const Rules& rules) {
  return recipe.wanted.empty() ||
         (recipe.wanted.holdsFor(rules.value(recipe.wanted.key).choice) && rules.counts(*findRule(recipe.wanted.key)));
}

bool needsPanels(const Rules& rules) {
  return std::any_of(kLayers.begin(), kLayers.end(),
                     [&](const LayerRecipe& r) { return r.from == LayerFrom::CupTrace && isWanted(r, rules); });
}

Result<Layer> deriveLayer(const Pattern& shell, const LayerRecipe& recipe, const LayerSources& sources,
                          const Block& block, const Rules& rules) {
  Result<Layer> made = recipe.from == LayerFrom::CupTrace ? traceCup(shell, recipe, sources, block, rules)
                                                          : Result<Layer>(ShellCopy(shell, recipe, rules).make());
  if (!made.ok()) return made;
  Layer layer = std::move(made).value();
  fitLayer(shell, layer);
  return layer;
}

}  // namespace armure
