#include "laying/search.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace armure {
namespace {

constexpr double kNothing = 1e-6;        // mm: shorter by less is not shorter
constexpr double kLeastShorter = 0.002;  // of the best length: the smallest step that is tried
constexpr int kPatience = 100;           // rounds without less overlap
constexpr int kMostExchanged = 4;        // pairs, before another attempt
constexpr int kLinesAcross = 12;         // beside those where an item touches another

}  // namespace

LayingSearch::LayingSearch(StripProblem problem, unsigned seed) : table_(std::move(problem)), random_(seed) {
  const size_t n = table_.items();
  shortest_ = shortestLength(this->problem());
  for (size_t i = 0; i < n; ++i)
    if (!isFree(i)) shortest_ = std::max(shortest_, end(i, *this->problem().items[i].locked));
  weights_.assign(n, {});
  std::vector<size_t> order(n);
  std::iota(order.begin(), order.end(), 0);
  const auto by = [&](const auto& measure) {
    std::ranges::stable_sort(order, std::greater<>(), measure);
    const StripLayout layout = pressed(laidInOrder(order));
    if (best_.items.empty() || layout.length < best_.length - kNothing) best_ = layout;
  };
  by([&](size_t i) { return table_.area(i); });
  by([&](size_t i) { return table_.box(i, 0).width(); });
  by([&](size_t i) { return table_.box(i, 0).height(); });
  if (n > 0) attempt(0);
}

bool LayingSearch::isShortest() const { return best_.length <= shortest_ + kNothing; }

void LayingSearch::offer(const StripLayout& layout) {
  constexpr double kShared = 0.5, kSame = 1e-3;  // mm^2, mm
  if (layout.items.size() != table_.items() || table_.length(layout.items) >= best_.length - kNothing) return;
  for (size_t i = 0; i < layout.items.size(); ++i) {
    const LaidItem& laid = layout.items[i];
    if (laid.turn >= table_.turns(i)) return;
    const auto& locked = problem().items[i].locked;
    if (locked && (locked->turn != laid.turn || distance(locked->at, laid.at) > kSame)) return;
    const Box room = table_.room(i, laid.turn, HUGE_VAL);
    if (laid.at.x < room.low.x - kSame || laid.at.y < room.low.y - kSame || laid.at.y > room.high.y + kSame) return;
  }
  StripLayout offered{layout.items, table_.length(layout.items)};
  if (worstOverlap(problem(), offered) > kShared) return;
  best_ = std::move(offered);
  attempt(0);
}

// Each item in turn at the place nearest the strip's beginning among those that lie already.
StripLayout LayingSearch::laidInOrder(const std::vector<size_t>& order) const {
  StripLayout layout{Items(table_.items()), 0};
  std::vector<double> lies(table_.items() + 1, 0);
  lies.back() = 1;
  for (size_t i = 0; i < table_.items(); ++i)
    if (const auto& locked = problem().items[i].locked) {
      layout.items[i] = *locked;
      lies[i] = 1;
    }
  for (const size_t i : order) {
    if (!isFree(i)) continue;
    layout.items[i] = leftmost(i, layout.items, lies);
    lies[i] = 1;
  }
  layout.length = table_.length(layout.items);
  return layout;
}

LaidItem LayingSearch::leftmost(size_t item, const Items& all, std::span<const double> weights) const {
  LaidItem best;
  double bestEnd = HUGE_VAL;
  const auto tryLine = [&](Axis axis, const LaidItem& on, const Box& room) {
    for (const LinePlace& place : table_.along(axis, item, on, room, all, weights)) {
      LaidItem laid = on;
      (axis == Axis::X ? laid.at.x : laid.at.y) = place.at;
      if (place.over > 0 || end(item, laid) >= bestEnd - kNothing) continue;
      best = laid;
      bestEnd = end(item, laid);
    }
  };
  for (size_t turn = 0; turn < table_.turns(item); ++turn) {
    const Box room = table_.room(item, turn, HUGE_VAL);
    if (room.width() < 0) continue;
    for (const double x : table_.contacts(Axis::X, item, turn, all, weights))
      if (x + table_.box(item, turn).high.x < bestEnd) tryLine(Axis::Y, {turn, {x, room.low.y}}, room);
    for (const double y : table_.contacts(Axis::Y, item, turn, all, weights)) tryLine(Axis::X, {turn, {0, y}}, room);
    for (int k = 1; k < kLinesAcross && room.height() > 0; ++k)
      tryLine(Axis::X, {turn, {0, room.low.y + room.height() * k / kLinesAcross}}, room);
  }
  return best;
}

StripLayout LayingSearch::pressed(StripLayout layout) const {
  constexpr int kRounds = 20;
  for (int round = 0; round < kRounds; ++round) {
    const bool moved = pressOnce(layout.items);
    if (!bringInLast(layout.items) && !moved) break;
  }
  layout.length = table_.length(layout.items);
  return layout;
}

// Every item to the left, where it lies across, the leftmost first. Whether any moved.
bool LayingSearch::pressOnce(Items& items) const {
  std::vector<size_t> order(items.size());
  std::iota(order.begin(), order.end(), 0);
  std::ranges::stable_sort(order, {}, [&](size_t i) { return items[i].at.x + table_.box(i, items[i].turn).low.x; });
  const std::vector<double> all(items.size() + 1, 1);
  bool moved = false;
  for (const size_t i : order) {
    if (!isFree(i)) continue;
    const Box room = table_.room(i, items[i].turn, HUGE_VAL);
    const std::vector<LinePlace> places = table_.along(Axis::X, i, items[i], room, items, all);
    if (places.empty() || places.front().over > 0 || places.front().at >= items[i].at.x - kNothing) continue;
    items[i].at.x = places.front().at;
    moved = true;
  }
  return moved;
}

// The item that ends last to wherever it ends sooner. Whether there was such a place.
bool LayingSearch::bringInLast(Items& items) const {
  size_t last = 0;
  for (size_t i = 1; i < items.size(); ++i)
    if (end(i, items[i]) > end(last, items[last])) last = i;
  if (items.empty() || !isFree(last)) return false;
  const LaidItem sooner = leftmost(last, items, std::vector<double>(items.size() + 1, 1));
  if (end(last, sooner) >= end(last, items[last]) - kNothing) return false;
  items[last] = sooner;
  return true;
}

// Begins anew from the best layout, some pairs exchanged, on a shorter strip.
void LayingSearch::attempt(size_t exchanged) {
  items_ = best_.items;
  target_ = std::max(shortest_, best_.length * (1 - shorter_));
  for (std::vector<double>& w : weights_) w.assign(items_.size() + 1, 1);
  for (size_t k = 0; k < exchanged; ++k) exchangeTwo();
  for (size_t i = 0; i < items_.size(); ++i)
    if (isFree(i)) bringWithin(i);
  leastOver_ = HUGE_VAL;
  idle_ = 0;
}

void LayingSearch::bringWithin(size_t item) {
  LaidItem& laid = items_[item];
  for (size_t turn = 0; table_.room(item, laid.turn, target_).width() < 0 && turn < table_.turns(item); ++turn)
    laid.turn = turn;
  const Box room = table_.room(item, laid.turn, target_);
  laid.at = {std::clamp(laid.at.x, room.low.x, std::max(room.low.x, room.high.x)),
             std::clamp(laid.at.y, room.low.y, room.high.y)};
}

// Two of different outlines change places.
void LayingSearch::exchangeTwo() {
  for (int tries = 0; tries < 20; ++tries) {
    const size_t i = pick(items_.size()), j = pick(items_.size());
    if (!isFree(i) || !isFree(j) || problem().items[i].outline == problem().items[j].outline) continue;
    const auto middle = [&](size_t k) {
      const Box& b = table_.box(k, items_[k].turn);
      return items_[k].at + 0.5 * (b.low + b.high);
    };
    const Vec2 between = middle(j) - middle(i);
    items_[i].at = items_[i].at + between;
    items_[j].at = items_[j].at - between;
    return;
  }
}

double LayingSearch::overlap(size_t item) const { return table_.over(item, items_[item], items_, weights_[item]); }

void LayingSearch::step() {
  if (isShortest() || items_.empty()) return;
  std::vector<size_t> order;
  for (size_t i = 0; i < items_.size(); ++i)
    if (isFree(i)) order.push_back(i);
  for (size_t i = order.size(); i > 1; --i) std::swap(order[i - 1], order[pick(i)]);
  for (const size_t i : order)
    if (overlap(i) > 0) moveItem(i);
  const double over = reweigh();
  if (over == 0) {
    const StripLayout found = pressed({items_, 0});
    if (found.length < best_.length - kNothing) best_ = found;
    return attempt(0);
  }
  idle_ = over < leastOver_ ? 0 : idle_ + 1;
  leastOver_ = std::min(leastOver_, over);
  if (idle_ <= kPatience) return;
  // A little shorter, or as short as can be, or anything between.
  const double most = std::max(kLeastShorter, 1 - shortest_ / best_.length);
  shorter_ = kLeastShorter * std::pow(most / kLeastShorter, between(0, 1));
  attempt(1 + pick(kMostExchanged));
}

// To the best of the places on a few lines, along and across the strip, by chance and where it lies now; and from there
// along both.
void LayingSearch::moveItem(size_t item) {
  constexpr int kAlong = 3, kAcross = 2;
  const LaidItem now = items_[item];
  LaidItem least = now;
  double over = overlap(item);
  for (size_t turn = 0; turn < table_.turns(item); ++turn) {
    const Box room = table_.room(item, turn, target_);
    if (room.width() < 0) continue;
    const Vec2 held{std::clamp(now.at.x, room.low.x, room.high.x), std::clamp(now.at.y, room.low.y, room.high.y)};
    tryLine(Axis::X, item, {turn, held}, least, over);
    tryLine(Axis::Y, item, {turn, held}, least, over);
    for (int k = 0; k < kAlong && over > 0; ++k)
      tryLine(Axis::X, item, {turn, {held.x, between(room.low.y, room.high.y)}}, least, over);
    for (int k = 0; k < kAcross && over > 0; ++k)
      tryLine(Axis::Y, item, {turn, {between(room.low.x, room.high.x), held.y}}, least, over);
    if (over == 0) break;
  }
  for (int k = 0; k < 2 && over > 0; ++k) {
    tryLine(Axis::X, item, least, least, over);
    tryLine(Axis::Y, item, least, least, over);
  }
  items_[item] = least;
}

void LayingSearch::tryLine(Axis axis, size_t item, const LaidItem& through, LaidItem& least, double& over) const {
  const Box room = table_.room(item, through.turn, target_);
  const LaidItem line = through;
  for (const LinePlace& place : table_.along(axis, item, line, room, items_, weights_[item])) {
    LaidItem laid = line;
    (axis == Axis::X ? laid.at.x : laid.at.y) = place.at;
    const double there = place.over > 0 ? table_.over(item, laid, items_, weights_[item]) : 0;
    if (there >= over) continue;
    least = laid;
    over = there;
  }
}

// Pairs that lie over each other weigh more from now on, by how deep they do. The sum of all depths.
double LayingSearch::reweigh() {
  const size_t n = items_.size();
  std::vector<std::tuple<size_t, size_t, double>> pairs;
  double sum = 0, deepest = 0;
  const auto add = [&](size_t i, size_t j, double depth) {
    if (depth <= 0) return;
    pairs.emplace_back(i, j, depth);
    sum += depth;
    deepest = std::max(deepest, depth);
  };
  for (size_t i = 0; i < n; ++i) {
    for (size_t j = 0; j < i; ++j) add(i, j, table_.depth(i, items_[i], j, items_[j]));
    add(i, n, table_.depth(i, items_[i], n, {}));
  }
  for (const auto& [i, j, depth] : pairs) {
    weights_[i][j] += depth / deepest;
    if (j < n) weights_[j][i] = weights_[i][j];
  }
  return sum;
}

}  // namespace armure
