#include "garment/garment.h"

#include "cups/cut_cup.h"
#include "pieces/cutting.h"
#include "pieces/modesty.h"

namespace armure {
namespace {

void number(Pattern& pattern) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    pattern.pieces[i].number = static_cast<int>(i) + 1;
    pattern.pieces[i].of = static_cast<int>(pattern.pieces.size());
  }
}

}  // namespace

Result<Pattern> makeGarment(const Block& block, const Rules& rules) {
  Result<Pattern> cut = cutPieces(block, rules);
  if (!cut.ok()) return cut;
  Pattern pattern = std::move(cut).value();
  if (auto problem = setCutCup(pattern, block, rules)) return *problem;
  addModestyPanels(pattern, block, rules);
  number(pattern);
  return pattern;
}

}  // namespace armure
