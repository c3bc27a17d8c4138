#include "layers/layer.h"

#include <algorithm>

#include "balance/moved_pattern.h"
#include "balance/problem.h"
#include "balance/solve.h"

namespace armure {
namespace {

constexpr double kMostMovement = 30;  // mm

double leftOf(const Pattern& pattern) {
  double left = HUGE_VAL;
  for (const Piece& p : pattern.pieces)
    for (const Edge& e : p.edges) left = std::min(left, e.path.start().x);
  return left;
}

void moveBy(Piece& piece, const Motion& motion) {
  for (Edge& e : piece.edges) e.path = e.path.transformed(motion);
  for (Dart& d : piece.darts)
    for (Edge& leg : d.legs) leg.path = leg.path.transformed(motion);
  piece.grainTop = motion.apply(piece.grainTop);
  piece.grainBottom = motion.apply(piece.grainBottom);
}

}  // namespace

void addLayer(Pattern& garment, Layer layer) {
  const size_t first = garment.pieces.size();
  const Motion aside = Motion::translation({garment.right() + kBesideShell - leftOf(layer.pattern), 0});
  for (Piece& p : layer.pattern.pieces) {
    moveBy(p, aside);
    garment.pieces.push_back(std::move(p));
  }
  for (Seam& s : layer.pattern.seams) {
    s.a.piece += first;
    s.b.piece += first;
    garment.seams.push_back(std::move(s));
  }
  for (LayerLine& l : layer.lines) {
    for (PieceEdge& e : l.layer) e.piece += first;
    garment.layerLines.push_back(std::move(l));
  }
}

void fitLayer(const Pattern& shell, Layer& layer) {
  BalanceOptions options;
  for (const LayerLine& line : layer.lines) options.lengths.push_back({line.name, line.layer, shell.shellLength(line)});
  if (options.lengths.empty()) return;
  const BalanceProblem problem(layer.pattern, options);
  const Solution s = solve(problem);
  if (!s.ended || !s.conflicts.empty() || !s.x.allFinite() || largestMovement(problem, s.x) > kMostMovement) return;
  Pattern fitted = movedPattern(layer.pattern, problem, s.x);
  // Where its shape is lost the layer stays as derived.
  if (!patternProblem(fitted)) layer.pattern = std::move(fitted);
}

Pattern shellOf(const Pattern& garment) {
  Pattern shell = garment;
  const size_t count = garment.shellPieces();
  shell.pieces.resize(count);
  std::erase_if(shell.seams, [&](const Seam& s) { return s.a.piece >= count || s.b.piece >= count; });
  shell.layerLines.clear();
  shell.attachments.clear();
  shell.supplies.clear();
  return shell;
}

}  // namespace armure
