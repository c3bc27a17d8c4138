// core/rules/layer_rules.h
//
// What can be chosen of the layers that lie on the shell: whether a garment has one, how far it reaches, how often it
// is cut, how it lies. The recipes themselves are in layers/recipe.h. All of it common practice, no source.
#pragma once

#include <array>

#include "parts/cups/rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class LayerReach { None, All, Panels };
inline constexpr std::array kLiningReach{
    row::of(LayerReach::None, "none", "none", "a single layer, its seams bound or cased"),
    row::of(LayerReach::All, "all", "all pieces", "the shell's own pieces cut again; sheer parts stay single"),
    row::of(LayerReach::Panels, "panels", "without the cups", "up to the cup line, which is caught in the cup's seam"),
};
inline constexpr std::array kStrengthReach{
    row::of(LayerReach::None, "none", "none", "where the shell's own cloth is firm enough"),
    row::of(LayerReach::All, "all", "all pieces", "firm woven under the cups as well"),
    row::of(LayerReach::Panels, "panels", "without the cups", "firm below, soft over the bust"),
};
inline constexpr std::array kOverlayReach{
    row::of(LayerReach::None, "none", "none", "the shell shows"),
    row::of(LayerReach::All, "all", "all pieces", "bonded to the shell, then cut with it as one cloth"),
    row::of(LayerReach::Panels, "panels", "without the cups", "the cups stay plain or are covered by hand"),
};

enum class LayerPlies { None, Single, Doubled };
inline constexpr std::array kInterfacingPlies{
    row::of(LayerPlies::None, "none", "none", "a cloth that stands by itself"),
    row::of(LayerPlies::Single, "single", "single", "light, on the shell"),
    row::of(LayerPlies::Doubled, "doubled", "doubled", "twice, for support"),
};
inline constexpr std::array kNetPlies{
    row::of(LayerPlies::None, "none", "none", "no net under the shell"),
    row::of(LayerPlies::Single, "single", "single", "one layer of net or mesh"),
    row::of(LayerPlies::Doubled, "doubled", "doubled", "two, their grain crossed by a quarter turn or not"),
};

enum class LayerEdges { AsShell, Trimmed };
inline constexpr std::array kLayerEdges{
    row::of(LayerEdges::AsShell, "as-shell", "as the shell", "caught in every seam"),
    row::of(LayerEdges::Trimmed, "trimmed", "to the sewn line", "kept out of the seams, which stay thin"),
};

enum class LayerJoins { AsShell, WhereFlat };
inline constexpr std::array kLayerJoins{
    row::of(LayerJoins::AsShell, "as-shell", "as the shell", "a seam wherever the shell has one"),
    row::of(LayerJoins::WhereFlat, "where-flat", "joined where nothing is taken in",
            "pieces whose edges lie flat on each other are cut in one; a straight centre seam is laid on the fold"),
};

enum class LayerGrain { AsShell, Bias };
inline constexpr std::array kLayerGrains{
    row::of(LayerGrain::AsShell, "as-shell", "as the shell", "lengthwise"),
    row::of(LayerGrain::Bias, "bias", "on the bias", "gives round the body; takes more cloth"),
};

enum class FoamReach { None, Cups };
inline constexpr std::array kFoams{
    row::of(FoamReach::None, "none", "none", "no foam"),
    row::of(FoamReach::Cups, "cups", "in the cups", "the cup's own pieces, butted edge to edge without allowance"),
};

enum class FacingReach { None, Top, Opening, Both };
inline constexpr std::array kFacings{
    row::of(FacingReach::None, "none", "none", "the lining or a binding finishes the edges"),
    row::of(FacingReach::Top, "top", "at the top edge", "a strip of each piece below its upper edge"),
    row::of(FacingReach::Opening, "opening", "beside the opening", "where eyelets or a busk want a second cloth"),
    row::of(FacingReach::Both, "both", "both", "top edge and opening"),
};

namespace key {
inline constexpr OptionKey<LayerReach> kLayerLining{"layer.lining"};
inline constexpr LengthKey kLiningShorter{"layer.lining_shorter"};
inline constexpr OptionKey<LayerJoins> kLiningJoins{"layer.lining_joins"};
inline constexpr OptionKey<LayerGrain> kLiningGrain{"layer.lining_grain"};
inline constexpr OptionKey<LayerReach> kLayerStrength{"layer.strength"};
inline constexpr OptionKey<LayerPlies> kLayerInterfacing{"layer.interfacing"};
inline constexpr OptionKey<LayerEdges> kInterfacingEdges{"layer.interfacing_edges"};
inline constexpr OptionKey<LayerGrain> kInterfacingGrain{"layer.interfacing_grain"};
inline constexpr OptionKey<LayerPlies> kLayerNet{"layer.net"};
inline constexpr OptionKey<LayerReach> kLayerOverlay{"layer.overlay"};
inline constexpr OptionKey<FoamReach> kLayerFoam{"layer.foam"};
inline constexpr OptionKey<FacingReach> kLayerFacing{"layer.facing"};
inline constexpr LengthKey kFacingDepth{"layer.facing_depth"};
}  // namespace key

inline constexpr Condition kIsLined = row::when(key::kLayerLining, {LayerReach::All, LayerReach::Panels});
inline constexpr Condition kIsInterfaced = row::when(key::kLayerInterfacing, {LayerPlies::Single, LayerPlies::Doubled});

inline constexpr std::array kLayerRules{
    row::option(key::kLayerOverlay, "Prepare", "Layers", "Overlay", kOverlayReach,
                "lace or net over the shell, on the outside"),
    row::option(key::kLayerInterfacing, "Prepare", "Layers", "Interfacing", kInterfacingPlies, "fused or basted to it"),
    row::onlyWhen({kIsInterfaced}, row::option(key::kInterfacingEdges, "Prepare", "Layers", "Interfacing, edges",
                                               kLayerEdges, "how far it reaches at the seams")),
    row::seldom(row::onlyWhen({kIsInterfaced}, row::option(key::kInterfacingGrain, "Prepare", "Layers",
                                                           "Interfacing, grain", kLayerGrains, "how it is laid"))),
    row::option(key::kLayerStrength, "Prepare", "Layers", "Strength layer", kStrengthReach,
                "the firm woven cloth that carries the strain"),
    row::option(key::kLayerNet, "Prepare", "Layers", "Net", kNetPlies, "net or mesh under the shell"),
    row::onlyWhen({kIsCut}, row::option(key::kLayerFoam, "Prepare", "Layers", "Foam", kFoams, "shaped with the cup")),
    row::option(key::kLayerLining, "Prepare", "Layers", "Lining", kLiningReach, "next to the skin"),
    row::onlyWhen({kIsLined}, row::length(key::kLiningShorter, "Prepare", "Layers", "Lining, shorter", 0, 0, 12,
                                          "at the hem; 1/2 to 1 in where it must not show")),
    row::seldom(row::onlyWhen({kIsLined}, row::option(key::kLiningJoins, "Prepare", "Layers", "Lining, pieces",
                                                      kLayerJoins, "fewer seams where the shell's are straight"))),
    row::seldom(row::onlyWhen({kIsLined}, row::option(key::kLiningGrain, "Prepare", "Layers", "Lining, grain",
                                                      kLayerGrains, "how it is laid"))),
    row::option(key::kLayerFacing, "Prepare", "Layers", "Facings", kFacings, "strips that finish an edge"),
    row::onlyWhen({row::when(key::kLayerFacing, {FacingReach::Top, FacingReach::Opening, FacingReach::Both})},
                  row::length(key::kFacingDepth, "Prepare", "Layers", "Facings, deep", 2, 1, 4, "1 1/2 to 3 in")),
};

}  // namespace armure
