#include "geometry/unfold.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/clipper_grid.h"

namespace armure {
namespace {

namespace clip = ClipperLib;

constexpr double kFar = 1e4;  // mm: beyond every piece

// What of the ring lies between two x, moved by x -> sign * x + shift.
void addStrip(clip::Paths& all, const Polyline& ring, double from, double to, double sign, double shift) {
  clip::Clipper cut;
  cut.AddPath(toGrid(ring), clip::ptSubject, true);
  cut.AddPath(toGrid({{from, -kFar}, {to, -kFar}, {to, kFar}, {from, kFar}}), clip::ptClip, true);
  clip::Paths strips;
  cut.Execute(clip::ctIntersection, strips, clip::pftNonZero, clip::pftNonZero);
  for (const clip::Path& path : strips) {
    Polyline moved = fromGrid(path);
    for (Vec2& p : moved) p.x = sign * p.x + shift;
    if (signedArea(moved) < 0) std::ranges::reverse(moved);
    all.push_back(toGrid(moved));
  }
}

// Strips that share a border then share it on the grid.
FoldedPleat onGrid(const FoldedPleat& pleat) {
  const auto rounded = [](double x) { return std::round(x * kClipperGrid) / kClipperGrid; };
  return {rounded(pleat.at), rounded(pleat.depth)};
}

}  // namespace

Polyline unfolded(const Polyline& ring, const std::vector<FoldedPleat>& pleats) {
  clip::Paths strips;
  double from = -kFar, shift = 0;
  for (const FoldedPleat& asked : pleats) {
    const FoldedPleat pleat = onGrid(asked);
    addStrip(strips, ring, from, pleat.at, 1, shift);
    addStrip(strips, ring, pleat.at - pleat.depth, pleat.at, -1, 2 * pleat.at + shift);
    from = pleat.at - pleat.depth;
    shift += 2 * pleat.depth;
  }
  addStrip(strips, ring, from, kFar, 1, shift);
  clip::Clipper unite;
  unite.AddPaths(strips, clip::ptSubject, true);
  clip::Paths whole;
  unite.Execute(clip::ctUnion, whole, clip::pftNonZero, clip::pftNonZero);
  Polyline largest;
  for (const clip::Path& path : whole) {
    Polyline one = fromGrid(path);
    if (largest.empty() || std::abs(signedArea(one)) > std::abs(signedArea(largest))) largest = std::move(one);
  }
  if (signedArea(largest) < 0) std::ranges::reverse(largest);
  return largest;
}

}  // namespace armure
