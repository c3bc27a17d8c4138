#include "balance/layers.h"

#include <algorithm>
#include <map>
#include <set>

#include "balance/moved_pattern.h"
#include "balance/problem.h"
#include "balance/solve.h"

namespace armure {
namespace {

constexpr double kMostMovement = 30;  // mm

// The pieces of one layer by themselves; `places` are where they stand in the whole pattern.
struct LayerPattern {
  Pattern pattern;
  std::vector<size_t> places;
};

LayerPattern layerOf(const Pattern& whole, const std::string& layer) {
  LayerPattern out;
  std::map<size_t, size_t> at;
  for (size_t i = 0; i < whole.pieces.size(); ++i) {
    if (whole.pieces[i].layer != layer) continue;
    at[i] = out.places.size();
    out.places.push_back(i);
    out.pattern.pieces.push_back(whole.pieces[i]);
  }
  for (Seam s : whole.seams) {
    if (!at.contains(s.a.piece) || !at.contains(s.b.piece)) continue;
    s.a.piece = at.at(s.a.piece);
    s.b.piece = at.at(s.b.piece);
    out.pattern.seams.push_back(std::move(s));
  }
  return out;
}

// Where a seam of the layer ends in the whole pattern.
Seam* seamOf(Pattern& whole, const Seam& part) {
  for (Seam& s : whole.seams)
    if (s.id == part.id) return &s;
  return nullptr;
}

void fitLayer(const Pattern& drafted, Pattern& balanced, const std::string& layer) {
  LayerPattern part = layerOf(drafted, layer);
  BalanceOptions options;
  for (const LayerLine& line : balanced.layerLines) {
    if (balanced.pieces[line.layer.front().piece].layer != layer) continue;
    PrescribedLength wanted{line.name, {}, balanced.shellLength(line)};
    for (const PieceEdge& e : line.layer) {
      const auto at = std::find(part.places.begin(), part.places.end(), e.piece) - part.places.begin();
      wanted.edges.push_back({static_cast<size_t>(at), e.edge});
    }
    options.lengths.push_back(std::move(wanted));
  }
  const BalanceProblem problem(part.pattern, options);
  const Solution s = solve(problem);
  if (!s.ended || !s.conflicts.empty() || !s.x.allFinite() || largestMovement(problem, s.x) > kMostMovement) return;
  Pattern fitted = movedPattern(part.pattern, problem, s.x);
  // Where its shape is lost the layer stays as drafted, and the sheet says where it does not fit.
  if (patternProblem(fitted)) return;
  for (size_t i = 0; i < part.places.size(); ++i) balanced.pieces[part.places[i]] = std::move(fitted.pieces[i]);
  for (const Seam& seam : fitted.seams)
    if (Seam* whole = seamOf(balanced, seam)) whole->notches = seam.notches;
}

}  // namespace

void fitLayers(const Pattern& drafted, Pattern& balanced) {
  std::set<std::string> layers;
  for (const LayerLine& line : balanced.layerLines) layers.insert(balanced.pieces[line.layer.front().piece].layer);
  for (const std::string& layer : layers) fitLayer(drafted, balanced, layer);
}

}  // namespace armure
