// app/rails_layout.h
//
// Where everything on the rails lies on the screen, and what lies under the pointer. No painting, no session.
#pragma once

#include <QRectF>
#include <optional>
#include <vector>

#include "draft/rails.h"

namespace armure {

// A place on the rails one can stand on: a gap, the height of a level of the maker's own, or the girth at the end.
struct RailStop {
  enum class Kind { Height, Gap, Girth };
  size_t rail = 0;
  Kind kind = Kind::Gap;
  size_t gap = 0;
  bool operator==(const RailStop&) const = default;
};

// A side of a gap, to be dragged; towards centre front or towards centre back.
struct GapSide {
  size_t rail = 0, gap = 0;
  bool towardsBack = false;
};

class RailsLayout {
 public:
  RailsLayout() = default;
  // Lays the rails out within `area`.
  RailsLayout(const std::vector<Rail>& rails, const QRectF& area);

  double x(double mm) const { return left_ + mm * scale_; }
  double mmPerPixel() const { return 1 / scale_; }
  QRectF strip(size_t rail) const;  // from centre front to centre back
  QRectF gapRect(size_t rail, size_t gap) const;
  QRectF nameRect(size_t rail) const;
  QRectF removeRect(size_t rail) const;  // takes a level of the maker's own away
  QRectF totalsRect(size_t rail) const;
  double markX(size_t rail) const;  // where the finished girth stands on the strip

  std::optional<GapSide> sideAt(QPointF at) const;
  std::optional<size_t> markAt(QPointF at) const;
  std::optional<RailStop> stopAt(QPointF at) const;

  // Every stop of a rail, from left to right.
  std::vector<RailStop> stops(size_t rail) const;
  QRectF stopRect(const RailStop& stop) const;

 private:
  const std::vector<Rail>* rails_ = nullptr;
  QRectF area_;
  double left_ = 0, scale_ = 1, row_ = 40;
};

}  // namespace armure
