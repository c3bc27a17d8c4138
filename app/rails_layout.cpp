#include "app/rails_layout.h"

#include <algorithm>
#include <cmath>

namespace armure {
namespace {

constexpr double kNames = 92, kTotals = 176;  // px beside the strips
constexpr double kStripHeight = 20, kLeastRow = 34, kMostRow = 46;
constexpr double kReach = 5;  // px the pointer may be off a side

}  // namespace

RailsLayout::RailsLayout(const std::vector<Rail>& rails, const QRectF& area) : rails_(&rails), area_(area) {
  double longest = 1;
  for (const Rail& r : rails) longest = std::max(longest, r.length);
  left_ = area.left() + kNames;
  scale_ = std::max(50.0, area.width() - kNames - kTotals) / longest;
  row_ = std::clamp(area.height() / static_cast<double>(std::max<size_t>(1, rails.size())), kLeastRow, kMostRow);
}

QRectF RailsLayout::strip(size_t rail) const {
  return {left_, area_.top() + static_cast<double>(rail) * row_ + 8, (*rails_)[rail].length * scale_, kStripHeight};
}

QRectF RailsLayout::gapRect(size_t rail, size_t gap) const {
  const RailGap& g = (*rails_)[rail].gaps[gap];
  const double a = x(std::min(g.from, g.to)), b = x(std::max(g.from, g.to));
  const QRectF s = strip(rail);
  return {a, s.top(), b - a, s.height()};
}

QRectF RailsLayout::nameRect(size_t rail) const {
  return {area_.left(), strip(rail).top() - 2, kNames - 8, kStripHeight + 4};
}

QRectF RailsLayout::removeRect(size_t rail) const {
  const QRectF n = nameRect(rail);
  return {n.right() - 18, n.center().y() - 9, 18, 18};
}

QRectF RailsLayout::totalsRect(size_t rail) const {
  const QRectF s = strip(rail);
  return {area_.right() - kTotals + 14, s.top() - 4, kTotals - 14, row_};
}

double RailsLayout::markX(size_t rail) const { return x((*rails_)[rail].finishedGirth / 2); }

std::optional<GapSide> RailsLayout::sideAt(QPointF at) const {
  std::optional<GapSide> best;
  double nearest = kReach;
  for (size_t r = 0; r < rails_->size(); ++r) {
    const QRectF s = strip(r);
    if (at.y() < s.top() || at.y() > s.bottom() + 2) continue;
    for (size_t g = 0; g < (*rails_)[r].gaps.size(); ++g) {
      const RailGap& gap = (*rails_)[r].gaps[g];
      if (!gap.movable) continue;
      for (const bool towardsBack : {false, true}) {
        // Between the two gaps of the side nothing can be dragged: front and back meet there.
        if ((gap.line == kFrontSide && towardsBack) || (gap.line == kBackSide && !towardsBack)) continue;
        const double off = at.x() - x(towardsBack ? gap.to : gap.from);
        // Of two sides on one spot the one the pointer stands beyond.
        const double bias = (towardsBack ? off < 0 : off > 0) ? 0.01 : 0;
        if (std::abs(off) + bias >= nearest) continue;
        nearest = std::abs(off) + bias;
        best = GapSide{r, g, towardsBack};
      }
    }
  }
  return best;
}

std::optional<size_t> RailsLayout::markAt(QPointF at) const {
  for (size_t r = 0; r < rails_->size(); ++r) {
    const QRectF s = strip(r);
    // The knob above the strip; on the strip itself the sides of the gaps come first.
    if (std::abs(at.x() - markX(r)) <= kReach && at.y() > s.top() - 10 && at.y() < s.top() + 1) return r;
  }
  return std::nullopt;
}

std::vector<RailStop> RailsLayout::stops(size_t rail) const {
  std::vector<RailStop> out;
  const Rail& r = (*rails_)[rail];
  if (r.own) out.push_back({rail, RailStop::Kind::Height, 0});
  for (size_t g = 0; g < r.gaps.size(); ++g)
    if (r.gaps[g].movable) out.push_back({rail, RailStop::Kind::Gap, g});
  out.push_back({rail, RailStop::Kind::Girth, 0});
  return out;
}

QRectF RailsLayout::stopRect(const RailStop& stop) const {
  switch (stop.kind) {
    case RailStop::Kind::Height:
      return nameRect(stop.rail);
    case RailStop::Kind::Gap: {
      const QRectF g = gapRect(stop.rail, stop.gap);
      const double spread = std::max(0.0, 6 - g.width()) / 2;
      return g.adjusted(-spread, 0, spread, 0);
    }
    case RailStop::Kind::Girth:
      break;
  }
  return totalsRect(stop.rail).adjusted(0, 0, 0, -8);
}

std::optional<RailStop> RailsLayout::stopAt(QPointF at) const {
  for (size_t r = 0; r < rails_->size(); ++r)
    for (const RailStop& stop : stops(r)) {
      QRectF rect = stopRect(stop);
      if (stop.kind == RailStop::Kind::Gap) rect.adjust(-3, -2, 3, 14);  // with its number
      if (rect.contains(at)) return stop;
    }
  return std::nullopt;
}

}  // namespace armure
