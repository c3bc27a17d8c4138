#include "prepare/arrange.h"

#include <algorithm>

#include "balance/fit.h"

namespace armure {

Box boxRound(const Polyline& points) {
  Box box{points.front(), points.front()};
  for (Vec2 p : points) {
    box.low = {std::min(box.low.x, p.x), std::min(box.low.y, p.y)};
    box.high = {std::max(box.high.x, p.x), std::max(box.high.y, p.y)};
  }
  return box;
}

Box joined(const Box& a, const Box& b) {
  return {{std::min(a.low.x, b.low.x), std::min(a.low.y, b.low.y)}, {std::max(a.high.x, b.high.x), std::max(a.high.y, b.high.y)}};
}

Arrangement tape(const Pattern& pattern) {
  Arrangement motions(pattern.pieces.size());
  for (const Seam& seam : pattern.seams) {
    if (seam.b.piece != seam.a.piece + 1) continue;
    const Path fixed = pattern.sidePath(seam.a).transformed(motions[seam.a.piece]);
    motions[seam.b.piece] = bestFit(fixed, pattern.sidePath(seam.b));
  }
  return motions;
}

PaperLayout layOutOnPaper(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, double widest, double spacing) {
  PaperLayout layout;
  double x = 0, y = 0, rowHeight = 0;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& piece = pattern.pieces[i];
    const double lean = angleBetween(piece.grainBottom - piece.grainTop, {0, 1});
    const Motion upright = Motion::rotationAbout(piece.grainTop, lean);
    Polyline turned = cutOutlines[i];
    for (Vec2& p : turned) p = upright.apply(p);
    const Box box = boxRound(turned);
    if (x > 0 && x + box.width() > widest) {
      x = 0;
      y += rowHeight + spacing;
      rowHeight = 0;
    }
    const Vec2 shift = Vec2{x, y} - box.low;
    layout.motions.push_back(upright.then(Motion::translation(shift)));
    layout.boxes.push_back({box.low + shift, box.high + shift});
    x += box.width() + spacing;
    rowHeight = std::max(rowHeight, box.height());
    layout.width = std::max(layout.width, x - spacing);
    layout.height = std::max(layout.height, y + rowHeight);
  }
  return layout;
}

}  // namespace armure
