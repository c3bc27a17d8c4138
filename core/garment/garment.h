// core/garment/garment.h
//
// From the block to all pieces of the garment, in two steps between which the shell may be balanced:
//
//   Result<Shell> shell = makeShell(block, body, rules);            // panels cut, cups set in, yokes, skirt
//   Pattern balanced = balance(shell->pattern, options).pattern;
//   Result<Pattern> all = dress(balanced, shell->sources, block, body, rules);  // layers, panels behind lacing, straps
#pragma once

#include "layers/recipe.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Measures beyond those of every draft that what was chosen needs: for skirts, off-shoulder bands, halters.
std::vector<std::string_view> furtherMeasures(const Rules& rules);

struct Shell {
  Pattern pattern;
  LayerSources sources;  // of the layers the rules ask for
};

// The shell as drafted. Fails with the first thing that keeps a piece from being drawn, naming it and what would be
// right.
Result<Shell> makeShell(const Block& block, const Body& body, const Rules& rules);

// The whole garment on a shell, drafted or balanced: its layers by their recipes, what lies behind a lacing, straps;
// every piece numbered. The shell's pieces come first and stay as they are. Of a body whose sides are not alike, `side`
// is the half that is made: what is sewn on is cut apart at the centre then. Pure.
Result<Pattern> dress(Pattern shell, const LayerSources& sources, const Block& block, const Body& body,
                      const Rules& rules, BodySide side = BodySide::Both);

// Both, as drafted.
Result<Pattern> makeGarment(const Block& block, const Body& body, const Rules& rules);

}  // namespace armure
