#include "layers/recipe.h"

#include <algorithm>
#include <array>
#include <map>

#include "layers/cup_trace.h"
#include "layers/reshape.h"
#include "operations/grain.h"
#include "parts/cups/rules.h"
#include "rules/layer_rules.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr Parts kAllParts =
    partsOf({Part::Panel, Part::Cup, Part::CupBand, Part::Yoke, Part::Insert, Part::Skirt, Part::ShoulderBand});
constexpr Parts kPlainParts = partsOf({Part::Panel, Part::Yoke, Part::Insert, Part::Skirt, Part::ShoulderBand});

constexpr std::array kLayers{
    LayerRecipe{.id = "overlay",
                .name = "Overlay",
                .use = LayerUse::Bonded,
                .wanted = row::when(key::kLayerOverlay, {LayerReach::All, LayerReach::Panels}),
                .parts = kAllParts,
                .panelsOnly = row::when(key::kLayerOverlay, {LayerReach::Panels}),
                .firm = false,
                .cloth = "lace",
                .place = -1},
    LayerRecipe{.id = "interfacing",
                .name = "Interfacing",
                .use = LayerUse::Fused,
                .wanted = kIsInterfaced,
                .parts = kAllParts,
                .doubledWhen = row::when(key::kLayerInterfacing, {LayerPlies::Doubled}),
                .trimmedWhen = row::when(key::kInterfacingEdges, {LayerEdges::Trimmed}),
                .biasWhen = row::when(key::kInterfacingGrain, {LayerGrain::Bias}),
                .firm = false,
                .cloth = "light-interfacing",
                .place = 1},
    LayerRecipe{.id = "strength",
                .name = "Strength layer",
                .use = LayerUse::Mounted,
                .wanted = row::when(key::kLayerStrength, {LayerReach::All, LayerReach::Panels}),
                .parts = kAllParts,
                .panelsOnly = row::when(key::kLayerStrength, {LayerReach::Panels}),
                .cloth = "firm-cotton",
                .place = 2},
    LayerRecipe{.id = "net",
                .name = "Net",
                .use = LayerUse::Mounted,
                .wanted = row::when(key::kLayerNet, {LayerPlies::Single, LayerPlies::Doubled}),
                .parts = kAllParts,
                .doubledWhen = row::when(key::kLayerNet, {LayerPlies::Doubled}),
                .sheerToo = true,
                .firm = false,
                .cloth = "stiff-net",
                .place = 3},
    LayerRecipe{.id = "foam",
                .name = "Foam",
                .use = LayerUse::Inlaid,
                .wanted = row::when(key::kLayerFoam, {FoamReach::Cups}),
                .allowances = LayerAllowance::None,
                .parts = partsOf({Part::Cup, Part::CupBand}),
                .firm = false,
                .cloth = "cup-foam",
                .place = 4},
    LayerRecipe{.id = "pad",
                .name = "Cup pad",
                .from = LayerFrom::CupTrace,
                .use = LayerUse::Inlaid,
                .wanted = row::when(key::kCupInside, {CupInside::Pad, CupInside::Both}),
                .allowances = LayerAllowance::None,
                .belowArmhole = true,
                .firm = false,
                .cloth = "wadding",
                .place = 5},
    LayerRecipe{.id = "facing-top",
                .name = "Facing of the top edge",
                .from = LayerFrom::TopStrip,
                .use = LayerUse::Facing,
                .wanted = row::when(key::kLayerFacing, {FacingReach::Top, FacingReach::Both}),
                .parts = kAllParts,
                .depth = key::kFacingDepth,
                .cloth = "satin",
                .place = 6},
    LayerRecipe{.id = "facing-opening",
                .name = "Facing of the opening",
                .from = LayerFrom::OpeningStrip,
                .use = LayerUse::Facing,
                .wanted = row::when(key::kLayerFacing, {FacingReach::Opening, FacingReach::Both}),
                .parts = kPlainParts,
                .depth = key::kFacingDepth,
                .cloth = "satin",
                .place = 6},
    LayerRecipe{.id = "cup-lining",
                .name = "Cup lining",
                .from = LayerFrom::CupTrace,
                .wanted = row::when(key::kCupInside, {CupInside::Lining, CupInside::Both}),
                .allowances = LayerAllowance::ByRule,
                .allowance = key::kAllowanceLining,
                .cloth = "soft-cotton",
                .place = 7},
    LayerRecipe{.id = "lining",
                .name = "Lining",
                .wanted = kIsLined,
                .parts = kAllParts,
                .panelsOnly = row::when(key::kLayerLining, {LayerReach::Panels}),
                .joinedWhen = row::when(key::kLiningJoins, {LayerJoins::WhereFlat}),
                .biasWhen = row::when(key::kLiningGrain, {LayerGrain::Bias}),
                .shorter = key::kLiningShorter,
                .cloth = "soft-cotton",
                .place = 8},
};

constexpr std::string_view kSheer = "net";  // pieces of net are of one layer

bool holds(const Condition& c, const Rules& rules) {
  return !c.empty() && c.holdsFor(rules.value(c.key).choice) && rules.counts(*findRule(c.key));
}

bool isTrimmed(const LayerRecipe& recipe, const Rules& rules) { return holds(recipe.trimmedWhen, rules); }
int timesCut(const LayerRecipe& recipe, const Rules& rules) {
  return recipe.doubled * (holds(recipe.doubledWhen, rules) ? 2 : 1);
}

// Whether the layer has this piece of the shell.
bool takes(const LayerRecipe& recipe, const Piece& p, const Rules& rules) {
  if (p.cloth == kSheer && !recipe.sheerToo) return false;
  const Parts parts = holds(recipe.panelsOnly, rules) ? recipe.parts & kPlainParts : recipe.parts;
  return (partsOf({p.part}) & parts) != 0;
}

// The chosen pieces of the shell with the seams between them; an edge whose other side is not among them is only cut.
class ShellCopy {
 public:
  ShellCopy(const Pattern& shell, const LayerRecipe& recipe, const Rules& rules)
      : shell_(shell), recipe_(recipe), rules_(rules) {}

  Layer make() && {
    layer_.id = recipe_.id;
    for (size_t i = 0; i < shell_.shellPieces(); ++i)
      if (takes(recipe_, shell_.pieces[i], rules_)) copy(i);
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
    p.alsoCut.clear();
    p.copies *= timesCut(recipe_, rules_);
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
    if (e.role == EdgeRole::Fold || recipe_.allowances == LayerAllowance::None || isTrimmed(recipe_, rules_)) return 0;
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

std::vector<const LayerRecipe*> layersOf(const Rules& rules) {
  std::vector<const LayerRecipe*> all{nullptr};
  for (const LayerRecipe& r : kLayers)
    if (isWanted(r, rules)) all.push_back(&r);
  const std::vector<std::string>& order = rules.layerOrder();
  const auto placeOf = [&](const LayerRecipe* r) {
    const auto named = std::ranges::find(order, r ? r->id : std::string_view("shell"));
    return std::pair(named != order.end() ? named - order.begin() : static_cast<std::ptrdiff_t>(order.size()),
                     r ? r->place : 0);
  };
  std::ranges::stable_sort(all, {}, placeOf);
  return all;
}

bool isAsShell(const LayerRecipe& recipe, const Rules& rules) {
  return recipe.from == LayerFrom::ShellPieces && recipe.allowances == LayerAllowance::AsShell &&
         !isTrimmed(recipe, rules) && !holds(recipe.joinedWhen, rules) && !holds(recipe.biasWhen, rules) &&
         (recipe.shorter.text.empty() || rules.length(recipe.shorter) <= 0);
}

void alsoCut(Pattern& shell, const LayerRecipe& recipe, const Rules& rules) {
  for (Piece& p : shell.pieces)
    if (p.layer == "shell" && takes(recipe, p, rules))
      p.alsoCut.push_back({std::string(recipe.id), p.copies * timesCut(recipe, rules)});
}

Pattern everyLayer(const Pattern& garment, const Rules& rules) {
  Pattern all = garment;
  for (const LayerRecipe* recipe : layersOf(rules)) {
    if (!recipe || !isAsShell(*recipe, rules)) continue;
    Layer layer = ShellCopy(garment, *recipe, rules).make();
    if (!layer.pattern.pieces.empty()) addLayer(all, std::move(layer));
  }
  for (Piece& p : all.pieces) p.alsoCut.clear();
  return all;
}

namespace {

// What the recipe does to the copied pieces. Lines of pieces it joined are theirs no more.
std::optional<Problem> reshape(Layer& layer, const LayerRecipe& recipe, const Rules& rules) {
  if (recipe.from == LayerFrom::TopStrip || recipe.from == LayerFrom::OpeningStrip) {
    const EdgeRole along = recipe.from == LayerFrom::TopStrip ? EdgeRole::Top : EdgeRole::Opening;
    layer.lines.clear();
    return keepStrip(layer.pattern, along, rules.length(recipe.depth));
  }
  if (!recipe.shorter.text.empty() && rules.length(recipe.shorter) > 0) {
    layer.lines.clear();
    if (auto problem = endShort(layer.pattern, EdgeRole::Hem, rules.length(recipe.shorter))) return problem;
  }
  if (holds(recipe.joinedWhen, rules) && !joinWhereFlat(layer.pattern).empty()) layer.lines.clear();
  if (holds(recipe.biasWhen, rules))
    for (Piece& p : layer.pattern.pieces) layOnBias(p);
  return std::nullopt;
}

Result<Layer> copied(const Pattern& shell, const LayerRecipe& recipe, const Rules& rules) {
  Layer layer = ShellCopy(shell, recipe, rules).make();
  if (auto problem = reshape(layer, recipe, rules)) return *problem;
  return layer;
}

}  // namespace

Result<Layer> deriveLayer(const Pattern& shell, const LayerRecipe& recipe, const LayerSources& sources,
                          const Block& block, const Rules& rules) {
  if (recipe.from != LayerFrom::CupTrace) return copied(shell, recipe, rules);
  Result<Layer> made = traceCup(shell, recipe, sources, block, rules);
  if (!made.ok()) return made;
  Layer layer = std::move(made).value();
  fitLayer(shell, layer);
  return layer;
}

}  // namespace armure
