#include "balance/fit.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace armure {
namespace {

std::vector<Vec2> evenly(const Path& path, int samples) {
  const double length = path.length();
  std::vector<Vec2> points;
  points.reserve(static_cast<size_t>(samples));
  for (int i = 0; i < samples; ++i) points.push_back(path.pointAt(length * i / (samples - 1)));
  return points;
}

Vec2 mean(const std::vector<Vec2>& points) {
  Vec2 sum;
  for (Vec2 p : points) sum = sum + p;
  return sum / static_cast<double>(points.size());
}

Motion fit(const std::vector<Vec2>& a, const std::vector<Vec2>& b) {
  const Vec2 ca = mean(a), cb = mean(b);
  double c = 0, d = 0;
  for (size_t i = 0; i < a.size(); ++i) {
    c += cross(b[i] - cb, a[i] - ca);
    d += dot(b[i] - cb, a[i] - ca);
  }
  return Motion::rotationAbout(cb, std::atan2(c, d)).then(Motion::translation(ca - cb));
}

}  // namespace

SeamEnd seamEnd(const Pattern& pattern, const SeamSide& side, bool atTop) {
  const Piece& piece = pattern.pieces.at(side.piece);
  size_t i = 0;
  while (piece.edges.at(i).id != side.edge) ++i;
  // Walking clockwise the seam either leaves the corner or arrives at it.
  const bool leaves = atTop != side.reversed;
  const size_t n = piece.edges.size();
  const Edge& mine = piece.edges[i];
  const Edge& across = piece.edges[leaves ? (i + n - 1) % n : (i + 1) % n];
  const Edge &before = leaves ? across : mine, &after = leaves ? mine : across;
  SeamEnd end;
  end.corner = after.path.start();
  end.acrossRole = across.role;
  end.angleRad = std::numbers::pi - angleBetween(before.path.endTangent(), after.path.startTangent());
  for (const Notch& notch : piece.notches)
    if (notch.edge == mine.id && notch.id == level::kUnderbust)
      end.fromUnderbust = leaves ? notch.at : mine.path.length() - notch.at;
  return end;
}

Motion bestFit(const Path& a, const Path& b, int samples) { return fit(evenly(a, samples), evenly(b, samples)); }

double shapeDifference(const Path& a, const Path& b, int samples) {
  const std::vector<Vec2> pa = evenly(a, samples), pb = evenly(b, samples);
  const Motion m = fit(pa, pb);
  double worst = 0;
  for (size_t i = 0; i < pa.size(); ++i) worst = std::max(worst, distance(pa[i], m.apply(pb[i])));
  return worst;
}

}  // namespace armure
