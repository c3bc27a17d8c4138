#include "tracing/line_joiner.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>
#include <set>
#include <utility>

namespace armure {
namespace {

using End = WalkedShape;  // an end of a shape, where lines of an outline meet

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

}  // namespace

std::vector<std::vector<WalkedShape>> joinedOutlines(const std::vector<DrawnShape>& shapes) {
  return Joiner(shapes).outlines();
}

}  // namespace armure
