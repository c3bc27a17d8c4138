#include "tracing/outlines.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "geometry/path_distance.h"
#include "geometry/tolerances.h"
#include "pattern/outline_parts.h"
#include "tracing/line_joiner.h"

namespace armure {
namespace {

constexpr double kSmooth = 0.02;        // mm: how near a curve stays to the short lines it was drawn with
constexpr double kLeastPiece = 1200;    // mm^2: a matchbox
constexpr double kAllowanceMost = 110;  // mm

Path walkedFrom(const DrawnShape& s, const WalkedShape& end) { return end.start ? s.path : s.path.reversed(); }

// Cubics whose ends meet to the last digit.
Path closedUp(std::vector<Cubic> cubics) {
  for (size_t i = 0; i < cubics.size(); ++i) cubics[i].p3 = cubics[(i + 1) % cubics.size()].p0;
  std::erase_if(cubics, [](const Cubic& c) { return c.length() < tolerance::kNothing; });
  for (size_t i = 0; i < cubics.size(); ++i) cubics[i].p3 = cubics[(i + 1) % cubics.size()].p0;
  return Path(std::move(cubics));
}

double turnBetween(const Cubic& a, const Cubic& b) { return std::abs(angleBetween(a.endTangent(), b.startTangent())); }

// Begins at its sharpest corner, so that smoothing does not have to run over its start.
Path fromSharpest(const Path& closed) {
  std::vector<Cubic> cubics = closed.cubics();
  size_t best = 0;
  double most = -1;
  for (size_t i = 0; i < cubics.size(); ++i)
    if (const double t = turnBetween(cubics[(i + cubics.size() - 1) % cubics.size()], cubics[i]); t > most + 1e-9)
      most = t, best = i;
  std::rotate(cubics.begin(), cubics.begin() + static_cast<long>(best), cubics.end());
  return Path(std::move(cubics));
}

// Arc lengths of the joints of a smoothed path that are corners; the start always.
std::vector<double> cornersOf(const Path& path) {
  std::vector<double> at{0};
  double s = 0;
  const auto& cubics = path.cubics();
  for (size_t i = 0; i + 1 < cubics.size(); ++i) {
    s += cubics[i].length();
    if (turnBetween(cubics[i], cubics[i + 1]) > kCorner) at.push_back(s);
  }
  return at;
}

// Turned so that it runs clockwise, the lines between its corners with it.
TracedOutline clockwise(TracedOutline o) {
  if (signedArea(o.polygon()) >= 0) return o;
  const double length = o.path.length();
  o.path = o.path.reversed();
  std::vector<double> corners{0};
  for (size_t i = o.corners.size(); i-- > 1;) corners.push_back(length - o.corners[i]);
  o.corners = std::move(corners);
  std::ranges::reverse(o.ids);
  std::ranges::reverse(o.layers);
  return o;
}

TracedOutline ofClosed(const DrawnShape& shape) {
  TracedOutline o;
  o.path = smoothed(fromSharpest(closedUp(shape.path.cubics())), kSmooth);
  o.corners = cornersOf(o.path);
  o.ids.assign(o.corners.size(), shape.id);
  o.layers.assign(o.corners.size(), shape.layer);
  return clockwise(std::move(o));
}

TracedOutline ofChain(const std::vector<DrawnShape>& shapes, const std::vector<WalkedShape>& chain) {
  TracedOutline o;
  std::vector<Cubic> cubics;
  std::vector<size_t> firsts;  // cubic each line begins with
  for (const WalkedShape& e : chain) {
    firsts.push_back(cubics.size());
    Path part = smoothed(walkedFrom(shapes[e.shape], e), kSmooth);
    cubics.insert(cubics.end(), part.cubics().begin(), part.cubics().end());
  }
  o.path = closedUp(std::move(cubics));
  double s = 0;
  for (size_t k = 0; k < chain.size(); ++k) {
    o.corners.push_back(s);
    o.ids.push_back(shapes[chain[k].shape].id);
    o.layers.push_back(shapes[chain[k].shape].layer);
    const size_t to = k + 1 < chain.size() ? firsts[k + 1] : o.path.cubics().size();
    for (size_t i = firsts[k]; i < to; ++i) s += o.path.cubics()[i].length();
  }
  return clockwise(std::move(o));
}

// Whether an outline lies in another, or on it, as on a fold.
bool holds(const Polyline& outer, const Polyline& inner) {
  constexpr double kOn = 0.5;  // mm
  Polyline ring = outer;
  ring.push_back(ring.front());
  return std::ranges::all_of(inner, [&](Vec2 p) { return contains(outer, p) || distanceToPolyline(p, ring) < kOn; });
}

// The furthest a point of the outer outline is from the inner one.
double farthestApart(Polyline inner, const Polyline& outer) {
  inner.push_back(inner.front());
  double most = 0;
  for (const Vec2 p : outer) most = std::max(most, distanceToPolyline(p, inner));
  return most;
}

bool isSquare(const TracedOutline& o) {
  if (o.corners.size() != 4) return false;
  const double side = o.path.length() / 4;
  for (const double test : {100.0, 101.6, 50.0, 50.8, 25.4, 20.0})
    if (std::abs(side - test) < 0.25 && std::abs(signedArea(o.polygon()) - side * side) < side) return true;
  return false;
}

// Shapes that lie in an outline or on it: their middle and both ends do.
std::vector<size_t> within(const Polyline& polygon, const LineDrawing& drawing) {
  constexpr double kOn = 1;  // mm
  Polyline ring = polygon;
  ring.push_back(ring.front());
  const auto lies = [&](Vec2 p) { return contains(polygon, p) || distanceToPolyline(p, ring) < kOn; };
  std::vector<size_t> found;
  for (size_t i = 0; i < drawing.shapes.size(); ++i) {
    const Path& p = drawing.shapes[i].path;
    if (lies(p.pointAt(p.length() / 2)) && (lies(p.start()) || lies(p.end()))) found.push_back(i);
  }
  return found;
}

struct Candidate {
  TracedOutline outline;
  Polyline polygon;
  double area = 0;
};

std::vector<Candidate> candidatesIn(const LineDrawing& drawing) {
  std::vector<Candidate> all;
  const auto add = [&](TracedOutline o) {
    Polyline polygon = o.polygon();
    const double area = signedArea(polygon);
    if (area >= kLeastPiece && isSimple(polygon)) all.push_back({std::move(o), std::move(polygon), area});
  };
  for (const DrawnShape& s : drawing.shapes)
    if ((s.closed || distance(s.path.start(), s.path.end()) <= kMeets) && s.path.length() > kMeets) add(ofClosed(s));
  for (const auto& chain : joinedOutlines(drawing.shapes)) add(ofChain(drawing.shapes, chain));
  std::ranges::sort(all, {}, &Candidate::area);
  return all;
}

// From the left to the right, row by row: rows overlap in height by half of the lower piece at least.
void sortAsRead(std::vector<TracedOutline>& outlines) {
  struct Place {
    double left, top, bottom;
    size_t number;
  };
  std::vector<Place> places;
  for (size_t i = 0; i < outlines.size(); ++i) {
    Place p{HUGE_VAL, HUGE_VAL, -HUGE_VAL, i};
    for (const Vec2 q : outlines[i].polygon()) {
      p.left = std::min(p.left, q.x);
      p.top = std::min(p.top, q.y);
      p.bottom = std::max(p.bottom, q.y);
    }
    places.push_back(p);
  }
  std::ranges::sort(places, {}, &Place::top);
  std::vector<TracedOutline> sorted;
  for (size_t i = 0; i < places.size();) {
    const double middle = (places[i].top + places[i].bottom) / 2;
    size_t to = i + 1;
    while (to < places.size() && places[to].top < middle) ++to;
    std::sort(places.begin() + static_cast<long>(i), places.begin() + static_cast<long>(to),
              [](const Place& a, const Place& b) { return a.left < b.left; });
    for (; i < to; ++i) sorted.push_back(std::move(outlines[places[i].number]));
  }
  outlines = std::move(sorted);
}

}  // namespace

std::vector<TracedOutline> outlinesOf(const LineDrawing& drawing) {
  const std::vector<Candidate> all = candidatesIn(drawing);
  std::vector<TracedOutline> out;
  std::vector<bool> isCutting(all.size(), false);
  for (size_t i = 0; i < all.size(); ++i) {
    if (isCutting[i]) continue;
    TracedOutline o = all[i].outline;
    // The smallest outline round it, at an allowance's distance, is what is cut. On a fold both are one.
    for (size_t k = i + 1; k < all.size() && !o.cutting; ++k) {
      if (isCutting[k] || !holds(all[k].polygon, all[i].polygon)) continue;
      if (farthestApart(all[i].polygon, all[k].polygon) > kAllowanceMost) continue;
      o.cutting = all[k].outline.path;
      isCutting[k] = true;
    }
    o.isTestSquare = isSquare(o);
    o.inside = within(all[i].polygon, drawing);
    out.push_back(std::move(o));
  }
  sortAsRead(out);
  return out;
}

double placeOnOutline(const TracedOutline& outline, Vec2 point) {
  const double s = nearestPlace(outline.path, point), length = outline.path.length();
  const auto off = [&](double corner) { return std::min(std::abs(s - corner), length - std::abs(s - corner)); };
  const double corner = *std::ranges::min_element(outline.corners, {}, off);
  return off(corner) < kAtCorner ? corner : s;
}

std::vector<Path> cutAtPlaces(const Path& closed, const std::vector<double>& places) {
  const double length = closed.length();
  size_t falls = 0;
  for (size_t i = 0; i < places.size(); ++i)
    if (places[(i + 1) % places.size()] <= places[i] + tolerance::kNothing) ++falls;
  if (falls != 1) return {};
  std::vector<Path> parts;
  for (size_t i = 0; i < places.size(); ++i) {
    const double from = places[i], to = places[(i + 1) % places.size()];
    parts.push_back(to > from + tolerance::kNothing        ? closed.sub(from, to)
                    : from >= length - tolerance::kNothing ? closed.sub(0, to)
                    : to <= tolerance::kNothing            ? closed.sub(from, length)
                                                           : closed.sub(from, length) + closed.sub(0, to));
  }
  return parts;
}

std::optional<size_t> outlineAt(const std::vector<TracedOutline>& outlines, Vec2 point) {
  std::optional<size_t> best;
  double least = HUGE_VAL;
  for (size_t i = 0; i < outlines.size(); ++i) {
    const Polyline polygon = outlines[i].polygon();
    const double area = signedArea(polygon);
    if (area < least && contains(polygon, point)) least = area, best = i;
  }
  return best;
}

}  // namespace armure
