#include "laying/laying_table.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "laying/wrapped.h"

namespace armure {
namespace {

constexpr double kRounding = 1e-9;  // mm
constexpr double kWidest = 1e-6;    // mm beyond the strip: rounding (strip.cpp, tooWide)

// A stretch of a line on which an item lies over what weighs this much.
struct Weighed {
  double from = 0, to = 0, weight = 0;
};

// Of the ends of stretches, and the wish, those that are least far, by weight, from where all is clear; of equals the
// one nearest to the wish. Within [low, high].
std::vector<LinePlace> leastOver(const std::vector<Weighed>& stretches, double low, double high, double wish,
                                 size_t most) {
  std::vector<LinePlace> places{{low, 0}, {high, 0}};
  if (wish > low && wish < high) places.push_back({wish, 0});
  for (const Weighed& s : stretches) {
    if (s.from > low && s.from < high) places.push_back({s.from, 0});
    if (s.to > low && s.to < high) places.push_back({s.to, 0});
  }
  for (LinePlace& p : places)
    for (const Weighed& s : stretches)
      if (p.at > s.from + kRounding && p.at < s.to - kRounding)
        p.over += s.weight * std::min(p.at - s.from, s.to - p.at);
  const size_t kept = std::min(most, places.size());
  std::partial_sort(places.begin(), places.begin() + static_cast<std::ptrdiff_t>(kept), places.end(),
                    [wish](const LinePlace& a, const LinePlace& b) {
                      return a.over != b.over ? a.over < b.over : std::abs(a.at - wish) < std::abs(b.at - wish);
                    });
  places.resize(kept);
  return places;
}

}  // namespace

LayingTable::LayingTable(StripProblem problem) : problem_(std::move(problem)) {
  if (tooWide(problem_)) throw std::invalid_argument("LayingTable: an item is wider than the strip");
  for (const StripItem& item : problem_.items) {
    if (item.turns.empty()) throw std::invalid_argument("LayingTable: an item without a turn");
    shapeOf_.emplace_back();
    for (const Turn& turn : item.turns) shapeOf_.back().push_back(shapeFor(item.outline, turn));
    area_.push_back(std::abs(signedArea(problem_.outlines[item.outline])));
  }
  if (problem_.within.empty()) return;
  const Box round = boxRound(problem_.within);
  for (const Polyline& ring : outsideOf(problem_.within, {{0, 0}, {round.high.x, problem_.width}})) {
    outside_.push_back(shapes_.size());
    shapes_.push_back({wrapped(ring, 0), boxRound(ring)});
  }
}

size_t LayingTable::shapeFor(size_t outline, const Turn& turn) {
  for (const Known& k : known_)
    if (k.outline == outline && k.turn.mirrored == turn.mirrored && k.turn.angleRad == turn.angleRad) return k.shape;
  Polyline ring;
  for (const Vec2 p : problem_.outlines[outline]) ring.push_back(turned(turn).apply(p));
  shapes_.push_back({wrapped(ring, problem_.tolerance), boxRound(ring)});
  known_.push_back({outline, turn, shapes_.size() - 1});
  return shapes_.size() - 1;
}

const NoFit& LayingTable::noFit(size_t first, size_t second) const {
  if (noFits_.empty()) noFits_.resize(shapes_.size() * shapes_.size());
  std::unique_ptr<NoFit>& made = noFits_[first * shapes_.size() + second];
  if (!made) made = std::make_unique<NoFit>(shapes_[first].wrapped, shapes_[second].wrapped, problem_.gap);
  return *made;
}

Box LayingTable::room(size_t item, size_t turn, double length) const {
  const Box& b = box(item, turn);
  const double slack = problem_.width - b.height();
  if (slack < -kWidest) return {{0, 0}, {-1, 0}};
  Box room{-b.low, {length - b.high.x, -b.low.y + std::max(0.0, slack)}};
  if (problem_.items[item].atEdge) room.low.y = room.high.y = problem_.width - b.high.y;
  return room;
}

double LayingTable::depth(size_t i, const LaidItem& a, size_t j, const LaidItem& b) const {
  if (j < items()) return noFit(shape(j, b), shape(i, a)).depth(a.at - b.at);
  double deepest = 0;
  for (const size_t o : outside_) deepest = std::max(deepest, noFit(o, shape(i, a)).depth(a.at));
  return deepest;
}

double LayingTable::over(size_t i, const LaidItem& laid, const std::vector<LaidItem>& all,
                         std::span<const double> weights) const {
  double sum = 0;
  for (size_t j = 0; j < all.size(); ++j)
    if (j != i && weights[j] > 0)
      sum += weights[j] * noFit(shape(j, all[j]), shape(i, laid)).depth(laid.at - all[j].at);
  if (!outside_.empty()) sum += weights[items()] * depth(i, laid, items(), {});
  return sum;
}

std::vector<LinePlace> LayingTable::along(Axis axis, size_t i, const LaidItem& laid, const Box& room,
                                          const std::vector<LaidItem>& all, std::span<const double> weights,
                                          std::optional<double> wish) const {
  constexpr size_t kMost = 3;
  const bool x = axis == Axis::X;
  const double low = x ? room.low.x : room.low.y, high = x ? room.high.x : room.high.y;
  if (high < low) return {};
  std::vector<Weighed> stretches;
  const auto add = [&](const NoFit& region, Vec2 from, double weight) {
    intervals_.clear();
    region.along(axis, x ? laid.at.y - from.y : laid.at.x - from.x, intervals_);
    const double shift = x ? from.x : from.y;
    for (const Interval& in : intervals_)
      if (in.to + shift > low && in.from + shift < high) stretches.push_back({in.from + shift, in.to + shift, weight});
  };
  for (size_t j = 0; j < all.size(); ++j)
    if (j != i && weights[j] > 0) add(noFit(shape(j, all[j]), shape(i, laid)), all[j].at, weights[j]);
  for (const size_t o : outside_) add(noFit(o, shape(i, laid)), {}, weights[items()]);
  return leastOver(stretches, low, high, wish.value_or(low), kMost);
}

std::vector<double> LayingTable::contacts(Axis axis, size_t i, size_t turn, const std::vector<LaidItem>& all,
                                          std::span<const double> weights) const {
  constexpr double kSame = 0.01;  // mm
  const auto on = [&](Vec2 p) { return axis == Axis::X ? p.x : p.y; };
  const Box strip = room(i, turn, HUGE_VAL);
  std::vector<double> values{on(strip.low)};
  if (std::isfinite(on(strip.high))) values.push_back(on(strip.high));
  for (size_t j = 0; j < all.size(); ++j) {
    if (j == i || weights[j] == 0) continue;
    const Box& b = noFit(shape(j, all[j]), shapeOf_[i][turn]).box();
    for (const double v : {on(all[j].at + b.low), on(all[j].at + b.high)})
      if (v > on(strip.low) && v < on(strip.high)) values.push_back(v);
  }
  std::sort(values.begin(), values.end());
  values.erase(std::unique(values.begin(), values.end(), [](double a, double b) { return b - a < kSame; }),
               values.end());
  return values;
}

double LayingTable::length(const std::vector<LaidItem>& all) const {
  double end = 0;
  for (size_t i = 0; i < all.size(); ++i) end = std::max(end, all[i].at.x + box(i, all[i].turn).high.x);
  return end;
}

}  // namespace armure
