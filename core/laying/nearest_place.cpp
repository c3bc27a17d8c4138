#include "laying/nearest_place.h"

#include <algorithm>
#include <cmath>

namespace armure {
namespace {

constexpr double kFarthest = 500, kStep = 5, kFine = 0.5;  // mm: between the lines that are tried

class PlaceFinder {
 public:
  PlaceFinder(const LayingTable& table, size_t item, const LaidItem& wish, const std::vector<LaidItem>& all)
      : table_(table), item_(item), wish_(wish), all_(all), weights_(all.size() + 1, 1) {
    room_ = table.room(item, wish.turn, HUGE_VAL);
    if (room_.width() < 0) return;
    wish_.at = {std::max(wish.at.x, room_.low.x), std::clamp(wish.at.y, room_.low.y, room_.high.y)};
    around(wish_.at, kFarthest, kStep);
    if (found_ && distance_ > 0) around(found_->at, kStep, kFine);
  }

  std::optional<LaidItem> found() const { return found_; }
  bool isAsWished() const { return found_ && distance_ == 0; }

  // Against what lies within `snap` mm along the axis.
  void snap(Axis axis, double snap) {
    const double now = axis == Axis::X ? found_->at.x : found_->at.y;
    for (const double by : {-snap, snap}) {
      for (const LinePlace& p : table_.along(axis, item_, *found_, room_, all_, weights_, now + by / 2)) {
        if (p.over > 0 || std::abs(p.at - now) > snap || isFree(axis, p.at, by)) continue;
        (axis == Axis::X ? found_->at.x : found_->at.y) = p.at;
        return;
      }
    }
  }

 private:
  // Whether it could go on a little in the direction of `by`: then it lies against nothing.
  bool isFree(Axis axis, double at, double by) const {
    LaidItem on = *found_;
    (axis == Axis::X ? on.at.x : on.at.y) = at + (by < 0 ? -0.1 : 0.1);
    const double across = axis == Axis::X ? on.at.x : on.at.y;
    const double low = axis == Axis::X ? room_.low.x : room_.low.y,
                 high = axis == Axis::X ? room_.high.x : room_.high.y;
    return across > low && across < high && table_.over(item_, on, all_, weights_) == 0;
  }

  void around(Vec2 middle, double farthest, double step) {
    for (double off = 0; off <= farthest; off += step) {
      if (found_ && off > distance_ && step == kStep) return;
      for (const double by : {off, -off}) {
        take(Axis::X, {wish_.turn, {wish_.at.x, middle.y + by}}, wish_.at.x);
        take(Axis::Y, {wish_.turn, {middle.x + by, wish_.at.y}}, wish_.at.y);
      }
    }
  }

  void take(Axis axis, const LaidItem& through, double wish) {
    const Vec2 at = through.at;
    if (at.x < room_.low.x || at.y < room_.low.y || at.y > room_.high.y) return;
    for (const LinePlace& p : table_.along(axis, item_, through, room_, all_, weights_, wish)) {
      LaidItem laid = through;
      (axis == Axis::X ? laid.at.x : laid.at.y) = p.at;
      const double far = distance(laid.at, wish_.at);
      if (p.over > 0 || (found_ && far >= distance_)) continue;
      found_ = laid;
      distance_ = far;
    }
  }

  const LayingTable& table_;
  size_t item_;
  LaidItem wish_;
  const std::vector<LaidItem>& all_;
  std::vector<double> weights_;
  Box room_;
  std::optional<LaidItem> found_;
  double distance_ = 0;
};

}  // namespace

std::optional<LaidItem> nearestPlace(const LayingTable& table, size_t item, const LaidItem& wish,
                                     const std::vector<LaidItem>& all, double snap) {
  PlaceFinder finder(table, item, wish, all);
  if (finder.isAsWished()) {
    finder.snap(Axis::X, snap);
    finder.snap(Axis::Y, snap);
  }
  return finder.found();
}

}  // namespace armure
