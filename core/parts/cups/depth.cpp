#include "parts/cups/depth.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "draft/dart.h"

namespace armure {
namespace {

using std::numbers::pi;

struct Point3 {
  double x, y, z;
};

double apart(Point3 a, Point3 b) {
  return std::sqrt(std::pow(a.x - b.x, 2) + std::pow(a.y - b.y, 2) + std::pow(a.z - b.z, 2));
}

// Where tapes of the given lengths end in one direction: short steps along the surface, shorter where it is steep.
std::vector<Point3> tapeEnds(const HeightMap& surface, const std::vector<double>& radii, double angle) {
  constexpr double kStep = 1;  // mm of tape, about
  const double c = std::cos(angle), s = std::sin(angle);
  std::vector<Point3> ends;
  double t = 0, laid = 0, step = kStep;
  Point3 here{0, 0, surface(0, 0)};
  for (double radius : radii) {
    while (true) {
      const Point3 next{(t + step) * c, (t + step) * s, surface((t + step) * c, (t + step) * s)};
      const double length = apart(here, next);
      if (length > 2 * kStep && step > 1e-4) {
        step /= 2;
        continue;
      }
      if (laid + length >= radius) {
        const double part = length > 0 ? (radius - laid) / length : 0;
        ends.push_back(
            {here.x + part * (next.x - here.x), here.y + part * (next.y - here.y), here.z + part * (next.z - here.z)});
        break;
      }
      laid += length;
      t += step;
      here = next;
      if (length < kStep / 2) step = std::min(kStep, 2 * step);
    }
  }
  return ends;
}

// Where an edge stands `radii` (ascending) away from its point at `from`, going up or down it; its far end where it
// never is.
std::vector<Vec2> awayFrom(const Path& path, double from, const std::vector<double>& radii, bool up) {
  constexpr double kFlat = 1e-3;  // mm
  const std::vector<Vec2> line = (up ? path.sub(0, from).reversed() : path.sub(from, path.length())).flattened(kFlat);
  const Vec2 centre = line.front();
  std::vector<Vec2> places;
  size_t i = 0;
  for (double radius : radii) {
    while (i + 2 < line.size() && distance(line[i + 1], centre) < radius) ++i;
    // On the segment: |a + t d|^2 = r^2, the larger root.
    const Vec2 a = line[i] - centre, d = line[i + 1] - line[i];
    const double p = dot(a, d), n = dot(d, d), q = p * p - n * (dot(a, a) - radius * radius);
    places.push_back(line[i] + (q >= 0 && n > 0 ? std::clamp((std::sqrt(q) - p) / n, 0.0, 1.0) : 1.0) * d);
  }
  return places;
}

// Of a full turn about the bust point, what one edge leaves on its piece's side, by radius.
std::vector<double> leftBeside(const Path& edge, double bust, const std::vector<double>& radii, bool pieceOnLeft) {
  const Vec2 centre = edge.pointAt(bust);
  const std::vector<Vec2> up = awayFrom(edge, bust, radii, true), down = awayFrom(edge, bust, radii, false);
  std::vector<double> left;
  for (size_t i = 0; i < radii.size(); ++i) {
    const double between = angleBetween(up[i] - centre, down[i] - centre);
    const double clockwise = std::remainder(between - pi, 2 * pi) + pi;  // from up round the right to down
    left.push_back(pieceOnLeft ? 2 * pi - clockwise : clockwise);
  }
  return left;
}

double ringRadius(double angle, double radius) { return radius * (1 - angle / (2 * pi)); }

double placeAtDepth(const Path& path, Vec2 point) {
  double best = 0, least = HUGE_VAL;
  for (double s : path.crossings(point, {1, 0}))
    if (const double d = distance(path.pointAt(s), point); d < least) least = d, best = s;
  return best;
}

}  // namespace

double coneIntake(double baseRadius, double slant) { return 2 * pi * (1 - baseRadius / slant); }

double coneDepth(double angleRad, double slant) {
  const double a = ringRadius(angleRad, slant);
  return std::sqrt(std::max(0.0, slant * slant - a * a));
}

double revolvedVolume(const std::vector<double>& radii, const std::vector<double>& rings) {
  double volume = 0, r0 = 0, a0 = 0;
  for (size_t i = 0; i < radii.size(); ++i) {
    const double a1 = rings[i] / (2 * pi), dr = radii[i] - r0, da = a1 - a0;
    const double height = std::sqrt(std::max(0.0, dr * dr - da * da));
    volume += pi * height * (a0 * a0 + a0 * a1 + a1 * a1) / 3;
    r0 = radii[i];
    a0 = a1;
  }
  return volume;
}

std::vector<double> ringLengths(const HeightMap& surface, const std::vector<double>& radii, int directions) {
  std::vector<std::vector<Point3>> ends;
  for (int i = 0; i < directions; ++i) ends.push_back(tapeEnds(surface, radii, 2 * pi * i / directions));
  std::vector<double> lengths(radii.size(), 0);
  for (size_t i = 0; i < ends.size(); ++i)
    for (size_t k = 0; k < radii.size(); ++k) lengths[k] += apart(ends[i][k], ends[(i + 1) % ends.size()][k]);
  return lengths;
}

double cupReach(const Block& block) {
  const HalfLevel& under = block.front.at(level::kUnderbust);
  const Path centre = closeSideDart(block).toCentre.front();
  return distance(block.dart.apex, {centre.xAtDepth(under.y), under.y});
}

BreastRings breastRings(const BodyForm& form, double bustX, double reach) {
  constexpr int kStations = 24, kDirections = 48;
  BreastRings rings;
  for (int i = 1; i <= kStations; ++i) rings.radii.push_back(reach * i / kStations);
  const double y = form.yOf("bust");
  // No cup houses what lies above the line under the arms.
  const auto front = [&](double dx, double dy) { return form.frontAt(bustX + dx, std::max(form.top(), y + dy)); };
  rings.lengths = ringLengths(front, rings.radii, kDirections);
  return rings;
}

CupDepth cupDepth(const Block& block, const BreastRings& breast) {
  const ClosedFront closed = closeSideDart(block);
  const Path &centre = closed.toCentre.front(), &side = closed.toSide.front();
  const std::vector<double>& radii = breast.radii;
  const std::vector<double> inner = leftBeside(centre, placeAtDepth(centre, block.dart.apex), radii, true),
                            outer = leftBeside(side, placeAtDepth(side, block.dart.apex), radii, false);
  CupDepth depth;
  std::vector<double> patternRings;
  for (size_t i = 0; i < radii.size(); ++i) {
    DepthStation s;
    s.radius = radii[i];
    s.bodyAngleRad = std::max(0.0, 2 * pi - breast.lengths[i] / radii[i]);
    s.patternAngleRad = std::max(0.0, 2 * pi - inner[i] - outer[i]);
    s.bodyDepth = coneDepth(s.bodyAngleRad, s.radius);
    s.patternDepth = coneDepth(s.patternAngleRad, s.radius);
    patternRings.push_back(2 * pi * ringRadius(s.patternAngleRad, s.radius));
    depth.stations.push_back(s);
  }
  depth.bodyVolume = revolvedVolume(radii, breast.lengths);
  depth.patternVolume = revolvedVolume(radii, patternRings);
  return depth;
}

CupDepth cupDepth(const Block& block, const BodyForm& form) {
  return cupDepth(block, breastRings(form, block.dart.apex.x, cupReach(block)));
}

Message depthInWords(const CupDepth& depth) {
  constexpr double kAsDeep = 1.6;  // mm, 1/16 in
  const double off = depth.difference();
  if (std::abs(off) <= kAsDeep) return "As deep as the breast at the underbust.";
  if (off < 0)
    return msg(
        "{} shallower than the breast at the underbust: take more in below the bust point, or make the side bust dart "
        "larger.",
        Length{-off});
  return msg(
      "{} deeper than the breast at the underbust: take less in below the bust point, or make the side bust dart "
      "smaller.",
      Length{off});
}

}  // namespace armure
