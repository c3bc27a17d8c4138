#include "prepare/arrange.h"

#include <algorithm>
#include <cmath>

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

namespace {

// Lays `b` on the right of `a`, both walked downwards, as near as it goes without lying over it: the best fit, moved
// out by as much as any two points that are sewn together would overlap.
Motion layBeside(const Path& a, const Path& b, double gap) {
  constexpr int kSamples = 65;
  const Motion fit = bestFit(a, b);
  const Vec2 down = unit(a.end() - a.start()), right{down.y, -down.x};
  const std::vector<Vec2> pa = evenPoints(a, kSamples), pb = evenPoints(b, kSamples);
  double overlap = -HUGE_VAL;
  for (size_t i = 0; i < pa.size(); ++i) overlap = std::max(overlap, dot(pa[i] - fit.apply(pb[i]), right));
  return fit.then(Motion::translation((overlap + gap) * right));
}

// A gathered edge cannot be laid along what it is gathered into.
bool isGathered(const Pattern& pattern, const Seam& seam) {
  constexpr double kGathered = 0.1;  // of the length
  return std::abs(seam.ease()) > kGathered * pattern.sidePath(seam.a).length();
}

}  // namespace

Arrangement tape(const Pattern& pattern, const std::set<std::string>& open) {
  constexpr double kApart = 70;  // mm
  Arrangement motions(pattern.pieces.size());
  // Seam by seam, each piece to the first one it is sewn to: so panels come before the cups set into them.
  std::vector<bool> lies(pattern.pieces.size(), false);
  if (!lies.empty()) lies.front() = true;
  for (bool more = true; more;) {
    more = false;
    for (const Seam& seam : pattern.seams) {
      if (!lies[seam.a.piece] || lies[seam.b.piece] || isGathered(pattern, seam)) continue;
      const Path fixed = pattern.sidePath(seam.a).transformed(motions[seam.a.piece]);
      motions[seam.b.piece] = layBeside(fixed, pattern.sidePath(seam.b), open.contains(seam.id) ? kApart : 0);
      lies[seam.b.piece] = more = true;
    }
  }
  // What is sewn to nothing lies beside them.
  constexpr double kBeside = 40;
  double right = -HUGE_VAL;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    Polyline outline = pattern.pieces[i].outline(1.0);
    for (Vec2& p : outline) p = motions[i].apply(p);
    const Box box = boxRound(outline);
    if (!lies[i]) {
      motions[i] = Motion::translation({right + kBeside - box.low.x, 0});
      right += kBeside + box.width();
    } else {
      right = std::max(right, box.high.x);
    }
  }
  return motions;
}

PaperLayout layOutOnPaper(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, double widest,
                          double spacing) {
  constexpr double kEdge = 6;  // mm, so that no line falls on the edge of a sheet
  PaperLayout layout;
  double x = kEdge, y = kEdge, rowHeight = 0;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& piece = pattern.pieces[i];
    const double lean = angleBetween(piece.grainBottom - piece.grainTop, {0, 1});
    const Motion upright = Motion::rotationAbout(piece.grainTop, lean);
    Polyline turned = cutOutlines[i];
    for (Vec2& p : turned) p = upright.apply(p);
    const Box box = boxRound(turned);
    if (x > kEdge && x + box.width() + kEdge > widest) {
      x = kEdge;
      y += rowHeight + spacing;
      rowHeight = 0;
    }
    const Vec2 shift = Vec2{x, y} - box.low;
    layout.motions.push_back(upright.then(Motion::translation(shift)));
    layout.boxes.push_back({box.low + shift, box.high + shift});
    x += box.width() + spacing;
    rowHeight = std::max(rowHeight, box.height());
    layout.width = std::max(layout.width, x - spacing + kEdge);
    layout.height = std::max(layout.height, y + rowHeight + kEdge);
  }
  return layout;
}

}  // namespace armure
