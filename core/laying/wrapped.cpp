#include "laying/wrapped.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "geometry/clipper_grid.h"

namespace armure {
namespace {

namespace clip = ClipperLib;

// Keeps of the corners between `from` and `to` (counted on beyond the end of the ring) those that are needed; returns
// the greatest distance of one that is not.
double keepNeeded(const Polyline& ring, size_t from, size_t to, double tolerance, std::vector<bool>& kept) {
  const Vec2 a = ring[from % ring.size()], b = ring[to % ring.size()];
  double farthest = 0;
  size_t corner = from;
  for (size_t i = from + 1; i < to; ++i)
    if (const double d = distanceToSegment(ring[i % ring.size()], a, b); d > farthest) {
      farthest = d;
      corner = i;
    }
  if (farthest <= tolerance) return farthest;
  kept[corner % ring.size()] = true;
  return std::max(keepNeeded(ring, from, corner, tolerance, kept), keepNeeded(ring, corner, to, tolerance, kept));
}

Polyline clockwise(Polyline ring) {
  if (signedArea(ring) < 0) std::reverse(ring.begin(), ring.end());
  return ring;
}

// Moved out on all sides; at an acute corner no farther than three times as much.
Polyline movedOut(const Polyline& ring, double by) {
  if (by < 1 / kClipperGrid) return ring;
  clip::ClipperOffset offset(3);
  offset.AddPath(toGrid(ring), clip::jtMiter, clip::etClosedPolygon);
  clip::Paths out;
  offset.Execute(out, by * kClipperGrid);
  if (out.empty()) return ring;
  return clockwise(
      fromGrid(*std::ranges::max_element(out, {}, [](const clip::Path& p) { return std::abs(clip::Area(p)); })));
}

}  // namespace

Polyline wrapped(const Polyline& outline, double tolerance) {
  const Polyline ring = clockwise(outline);
  if (ring.size() < 3 || signedArea(ring) < 1e-6) throw std::invalid_argument("wrapped: an outline without area");
  // From the leftmost corner and the one farthest from it: both are on the hull.
  const auto left = std::ranges::min_element(ring, {}, &Vec2::x);
  const auto far = std::ranges::max_element(ring, {}, [&](Vec2 p) { return distance(p, *left); });
  const size_t a = static_cast<size_t>(left - ring.begin()), b = static_cast<size_t>(far - ring.begin());
  std::vector<bool> kept(ring.size(), false);
  kept[a] = kept[b] = true;
  const size_t n = ring.size();
  const double cut = std::max(keepNeeded(ring, a, a + (b + n - a) % n, tolerance, kept),
                              keepNeeded(ring, b, b + (a + n - b) % n, tolerance, kept));
  Polyline few;
  for (size_t i = 0; i < n; ++i)
    if (kept[i]) few.push_back(ring[i]);
  if (few.size() < 3 || !isSimple(few)) return ring;
  return movedOut(few, cut);
}

std::vector<Polyline> outsideOf(const Polyline& ring, const Box& box) {
  const double middle = (boxRound(ring).low.y + boxRound(ring).high.y) / 2;
  std::vector<Polyline> outside;
  // Cut along the middle of the ring, so that none of what is left runs round it.
  for (const auto& [top, bottom] : {std::pair(box.low.y, middle), std::pair(middle, box.high.y)}) {
    if (bottom - top < 1 / kClipperGrid) continue;
    clip::Clipper clipper;
    clipper.AddPath(toGrid({{box.low.x, top}, {box.high.x, top}, {box.high.x, bottom}, {box.low.x, bottom}}),
                    clip::ptSubject, true);
    clipper.AddPath(toGrid(ring), clip::ptClip, true);
    clip::Paths left;
    clipper.Execute(clip::ctDifference, left, clip::pftNonZero, clip::pftNonZero);
    for (const clip::Path& p : left)
      if (clip::Area(p) > kClipperGrid) outside.push_back(fromGrid(p));
  }
  return outside;
}

}  // namespace armure
