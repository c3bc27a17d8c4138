#include "tracing/outlines.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>
#include <set>

#include "geometry/tolerances.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kMeets = 0.1;          // mm: ends of two lines of one outline
constexpr double kSmooth = 0.02;        // mm: how near a curve stays to the short lines it was drawn with
constexpr double kLeastPiece = 1200;    // mm^2: a matchbox
constexpr double kAllowanceMost = 110;  // mm

// An end of a shape: where lines of an outline meet.
struct End {
  size_t shape = 0;
  bool start = true;
};

Path walkedFrom(const DrawnShape& s, const End& end) { return end.start ? s.path : s.path.reversed(); }

// Open lines joined to outlines: what hangs loose at an end falls away, and of what is left the outer boundary is
// walked.
class Joiner {
 public:
  explicit Joiner(const std::vector<DrawnShape>& shapes) : shapes_(shapes), alive_(shapes.size(), false) {
    for (size_t i = 0; i < shapes.size(); ++i)
      alive_[i] = !shapes[i].closed && shapes[i].path.length() > kMeets &&
                  distance(shapes[i].path.start(), shapes[i].path.end()) > kMeets;
    placeEnds();
  }

  // Chains of ends, each walked from its start.
  std::vector<std::vector<End>> outlines() {
    prune();
    dropChords();
    prune();
    std::vector<std::vector<End>> all;
    for (size_t i = 0; i < shapes_.size(); ++i) {
      if (!alive_[i]) continue;
      const std::set<size_t> part = component(i);
      if (auto chain = outerBoundary(part); !chain.empty()) all.push_back(std::move(chain));
      for (const size_t s : part) alive_[s] = false;
    }
    return all;
  }

 private:
  void placeEnds() {
    // Nodes on a grid of the tolerance, so that thousands of lines are no trouble.
    std::map<std::pair<long, long>, std::vector<size_t>> grid;
    const auto nodeAt = [&](Vec2 p) {
      const long x = std::lround(p.x / kMeets), y = std::lround(p.y / kMeets);
      for (long dx = -1; dx <= 1; ++dx)
        for (long dy = -1; dy <= 1; ++dy)
          if (const auto cell = grid.find({x + dx, y + dy}); cell != grid.end())
            for (const size_t n : cell->second)
              if (distance(nodes_[n], p) <= kMeets) return n;
      grid[{x, y}].push_back(nodes_.size());
      nodes_.push_back(p);
      return nodes_.size() - 1;
    };
    at_.resize(shapes_.size());
    for (size_t i = 0; i < shapes_.size(); ++i) {
      if (!alive_[i]) continue;
      at_[i] = {nodeAt(shapes_[i].path.start()), nodeAt(shapes_[i].path.end())};
    }
    ends_.resize(nodes_.size());
    for (size_t i = 0; i < shapes_.size(); ++i) {
      if (!alive_[i]) continue;
      ends_[at_[i].first].push_back({i, true});
      ends_[at_[i].second].push_back({i, false});
    }
  }

  // Lines that run from corner to corner of an outline are no part of it: of two between the same corners (a channel
  // beside a seam) the one that meets fewer lines of its own layer there; a straight one (a level) where lines pass it
  // at both ends that meet more of theirs. It may lie outside a hollow edge, so that the boundary would run along it.
  void dropChords() {
    std::vector<std::pair<long, size_t>> byCompany;
    for (size_t i = 0; i < shapes_.size(); ++i)
      if (alive_[i]) byCompany.emplace_back(company(i), i);
    std::ranges::sort(byCompany);
    const auto twin = [&](size_t i, const End& e) {
      return e.shape != i &&
             std::minmax(at_[e.shape].first, at_[e.shape].second) == std::minmax(at_[i].first, at_[i].second);
    };
    for (const auto& [count, i] : byCompany) {
      const auto passed = [&, least = count, line = i](size_t node) {
        const auto ends = living(node);
        return ends.size() > 2 &&
               std::ranges::any_of(ends, [&](const End& e) { return company(e.shape) > least || twin(line, e); });
      };
      const auto ends = living(at_[i].first);
      const bool straight = shapes_[i].path.cubics().size() == 1 && isStraight(shapes_[i].path.cubics().front());
      const bool hasTwin = std::ranges::any_of(ends, [&, line = i](const End& e) { return twin(line, e); });
      if ((straight || hasTwin) && passed(at_[i].first) && passed(at_[i].second)) alive_[i] = false;
    }
  }
  long company(size_t shape) const {
    long count = 0;
    for (const size_t node : {at_[shape].first, at_[shape].second})
      for (const End& e : ends_[node])
        if (e.shape != shape && shapes_[e.shape].layer == shapes_[shape].layer) ++count;
    return count;
  }

  size_t nodeOf(const End& e) const { return e.start ? at_[e.shape].first : at_[e.shape].second; }
  std::vector<End> living(size_t node) const {
    std::vector<End> out;
    for (const End& e : ends_[node])
      if (alive_[e.shape]) out.push_back(e);
    return out;
  }

  void prune() {
    std::vector<size_t> loose;
    for (size_t n = 0; n < nodes_.size(); ++n)
      if (living(n).size() == 1) loose.push_back(n);
    while (!loose.empty()) {
      const auto ends = living(loose.back());
      loose.pop_back();
      if (ends.size() != 1) continue;
      const End other{ends.front().shape, !ends.front().start};
      alive_[ends.front().shape] = false;
      if (living(nodeOf(other)).size() == 1) loose.push_back(nodeOf(other));
    }
  }

  std::set<size_t> component(size_t from) const {
    std::set<size_t> part{from};
    std::vector<size_t> next{from};
    while (!next.empty()) {
      const size_t s = next.back();
      next.pop_back();
      for (const size_t node : {at_[s].first, at_[s].second})
        for (const End& e : living(node))
          if (part.insert(e.shape).second) next.push_back(e.shape);
    }
    return part;
  }

  Vec2 leaving(const End& e) const {
    const Path& p = shapes_[e.shape].path;
    return e.start ? p.startTangent() : -p.endTangent();
  }

  // From the leftmost place of the part, always along the line furthest to the left as one walks: clockwise round the
  // outside. A line walked both ways is a bridge, and falls away.
  std::vector<End> outerBoundary(const std::set<size_t>& part) {
    for (size_t tries = 0; tries <= part.size(); ++tries) {
      std::vector<End> chain = walkOutside(part);
      std::map<size_t, int> walked;
      for (const End& e : chain) ++walked[e.shape];
      bool bridge = false;
      for (const auto& [shape, times] : walked)
        if (times > 1) alive_[shape] = false, bridge = true;
      if (!bridge) return chain;
      prune();
    }
    return {};
  }

  std::vector<End> walkOutside(const std::set<size_t>& part) const {
    std::optional<size_t> first;
    for (const size_t s : part)
      if (alive_[s])
        for (const size_t n : {at_[s].first, at_[s].second})
          if (!first || nodes_[n].x < nodes_[*first].x ||
              (nodes_[n].x == nodes_[*first].x && nodes_[n].y < nodes_[*first].y))
            first = n;
    if (!first) return {};
    std::vector<End> chain;
    Vec2 back{-1, 0};  // where we come from; the next line is the first one clockwise from there
    size_t node = *first;
    std::optional<End> begun;
    while (chain.size() <= 2 * part.size()) {
      std::optional<End> best;
      double least = 0;
      for (const End& e : living(node)) {
        if (!chain.empty() && e.shape == chain.back().shape && e.start != chain.back().start && living(node).size() > 1)
          continue;  // straight back
        double turn = angleBetween(back, leaving(e));
        if (turn <= 1e-9) turn += 2 * std::numbers::pi;
        if (best && turn >= least) continue;
        least = turn, best = e;
      }
      if (!best) return {};
      if (begun && best->shape == begun->shape && best->start == begun->start) return chain;
      if (!begun) begun = best;
      chain.push_back(*best);
      const End arrived{best->shape, !best->start};
      node = nodeOf(arrived);
      back = leaving(arrived);
    }
    return {};
  }

  const std::vector<DrawnShape>& shapes_;
  std::vector<bool> alive_;
  std::vector<Vec2> nodes_;
  std::vector<std::pair<size_t, size_t>> at_;  // nodes of the start and the end of a shape
  std::vector<std::vector<End>> ends_;         // by node
};

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
  o.ids.assign(o.corners.size(), {});
  o.layers.assign(o.corners.size(), shape.layer);
  if (o.corners.size() == 1) o.ids.front() = shape.id;
  return clockwise(std::move(o));
}

TracedOutline ofChain(const std::vector<DrawnShape>& shapes, const std::vector<End>& chain) {
  TracedOutline o;
  std::vector<Cubic> cubics;
  std::vector<size_t> firsts;  // cubic each line begins with
  for (const End& e : chain) {
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
  for (const auto& chain : Joiner(drawing.shapes).outlines()) add(ofChain(drawing.shapes, chain));
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
