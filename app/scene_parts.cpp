#include "app/scene_parts.h"

#include <QPolygonF>

#include "geometry/comb.h"
#include "render/pattern_painter.h"

namespace armure {

QPainterPath linePath(QPointF a, QPointF b) {
  QPainterPath path(a);
  path.lineTo(b);
  return path;
}

QPainterPath combPath(const Path& path, const Motion& m) {
  QPainterPath comb;
  QPolygonF tips;
  for (const CombTooth& tooth : curvatureComb(path)) {
    comb.moveTo(toQt(m.apply(tooth.foot)));
    comb.lineTo(toQt(m.apply(tooth.tip)));
    tips << toQt(m.apply(tooth.tip));
  }
  comb.addPolygon(tips);
  return comb;
}

}  // namespace armure
