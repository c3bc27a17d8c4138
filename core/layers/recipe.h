// core/layers/recipe.h
//
// The layers a garment can have on its shell, one row each: what a layer is made from, when an order has it, with which
// allowances. A layer is derived from the finished shell by a pure function; nothing about it is drafted or balanced
// beside the shell. To add one, add a row.
//
//   for (const LayerRecipe* recipe : layersOf(rules))         // from the outside inwards, as the maker orders them
//     if (isAsShell(*recipe, rules)) alsoCut(shell, *recipe, rules);
//     else ... deriveLayer(shell, *recipe, sources, block, rules) ...
//
// A layer whose pieces are the shell's as they are has none of its own: the shell's pieces say that they are cut again
// of its cloth (Piece::alsoCut), and are printed once. everyLayer() writes them out.
#pragma once

#include <initializer_list>
#include <optional>
#include <span>
#include <string_view>

#include "draft/block.h"
#include "layers/layer.h"
#include "parts/cups/cup_line.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

enum class LayerFrom {
  ShellPieces,  // the same pieces again, with what is sewn between them
  CupTrace,     // the place of the cup on the panels as they were cut, whatever the cup itself is made of
  TopStrip,     // of each of the shell's pieces, a strip along its top edge
  OpeningStrip,
};

// How a layer comes together with the shell.
enum class LayerUse {
  Fused,    // to the shell's pieces before they are sewn
  Bonded,   // the two are one cloth from then on
  Mounted,  // basted to the shell and sewn as one with it
  Inlaid,   // sewn into the cups
  Facing,   // along an edge
  Lining,   // sewn together like the shell, and to it at the upper edge
};

enum class LayerAllowance { AsShell, ByRule, None };  // none: edges butt

// A bit for every part.
using Parts = unsigned;
constexpr Parts partsOf(std::initializer_list<Part> parts) {
  Parts bits = 0;
  for (const Part p : parts) bits |= 1U << static_cast<unsigned>(p);
  return bits;
}

struct LayerRecipe {
  std::string_view id, name;  // "lining", "Cup lining"
  LayerFrom from = LayerFrom::ShellPieces;
  LayerUse use = LayerUse::Lining;
  Condition wanted = {};  // an order has the layer while this holds; always where it is empty
  LayerAllowance allowances = LayerAllowance::AsShell;
  LengthKey allowance = {};     // by rule
  Parts parts = 0;              // of the shell's pieces: those of these parts
  Condition panelsOnly = {};    // while it holds, only those of them that are no cups
  int doubled = 1;              // how often each piece is cut for every one of the shell
  Condition doubledWhen = {};   // twice as often while this holds
  Condition trimmedWhen = {};   // without allowances while this holds
  Condition joinedWhen = {};    // its pieces are joined where they lie flat on each other
  Condition biasWhen = {};      // and lie on the bias
  LengthKey shorter = {};       // by this at the hem
  LengthKey depth = {};         // of a strip
  bool sheerToo = false;        // has the shell's pieces of net, too
  bool belowArmhole = false;    // of a trace that goes over the shoulder: it ends level with the top edge
  bool firm = true;             // takes its part of the strain when worn; foam does not
  std::string_view cloth = {};  // what it is cut of where the maker chooses nothing (rules/prepare_choices.h)
  int place = 0;                // among the layers, from the outside inwards; the shell is 0
};

std::span<const LayerRecipe> layerTable();
const LayerRecipe* findLayer(std::string_view id);  // nothing for the shell
bool isWanted(const LayerRecipe& recipe, const Rules& rules);

// The layers of the order, from the outside inwards: as the maker put them (Rules::layerOrder), the others after their
// places. nullptr stands for the shell.
std::vector<const LayerRecipe*> layersOf(const Rules& rules);

// Whether every piece of the layer is one of the shell's, unchanged.
bool isAsShell(const LayerRecipe& recipe, const Rules& rules);
// Notes on the shell's pieces that they are cut again for the layer.
void alsoCut(Pattern& shell, const LayerRecipe& recipe, const Rules& rules);
// The garment with every piece of every layer: those cut again, too. Pieces cut again keep the number of the shell's.
Pattern everyLayer(const Pattern& garment, const Rules& rules);

// What layers are made from beside the shell: the panels before cups were set in, and where their line runs or why it
// cannot. Empty where no layer asks for them.
struct LayerSources {
  Pattern panels;
  std::optional<Result<CupLine>> cupLine = {};
};
bool needsPanels(const Rules& rules);

// The layer, fitted to the shell. Pure: the same shell, recipe and sources make the same layer. Fails where a line the
// recipe follows does not find its place.
Result<Layer> deriveLayer(const Pattern& shell, const LayerRecipe& recipe, const LayerSources& sources,
                          const Block& block, const Rules& rules);

}  // namespace armure
