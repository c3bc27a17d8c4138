#include "draft/line_paths.h"

namespace armure {

Path edgeOfGap(const Path& gap, double position, double part) {
  std::vector<Cubic> cubics;
  cubics.reserve(gap.cubics().size());
  const auto place = [&](Vec2 p) { return Vec2{position + part * p.x, p.y}; };
  for (const Cubic& c : gap.cubics()) cubics.push_back({place(c.p0), place(c.p1), place(c.p2), place(c.p3)});
  return Path(std::move(cubics));
}

std::pair<Path, Path> edgesAbout(const std::vector<Station>& middle, const std::vector<Station>& gap) {
  const Path m = monotonePath(middle), g = monotonePath(gap);
  std::vector<Cubic> centre, outer;
  for (size_t i = 0; i < m.cubics().size(); ++i) {
    const Cubic &a = m.cubics()[i], &b = g.cubics()[i];
    const auto moved = [&](double part) {
      const auto add = [&](Vec2 p, Vec2 q) { return Vec2{p.x + part * q.x, p.y}; };
      return Cubic{add(a.p0, b.p0), add(a.p1, b.p1), add(a.p2, b.p2), add(a.p3, b.p3)};
    };
    centre.push_back(moved(-0.5));
    outer.push_back(moved(0.5));
  }
  return {Path(std::move(centre)), Path(std::move(outer))};
}

std::vector<Station> withStationsAt(const std::vector<Station>& line, const std::vector<double>& depths) {
  const std::vector<double> slope = monotoneSlopes(line);
  std::vector<Station> out;
  for (size_t i = 0; i < line.size(); ++i) {
    out.push_back({line[i].y, line[i].x, slope[i], true});
    if (i + 1 == line.size()) break;
    const double h = line[i + 1].y - line[i].y, rise = line[i + 1].x - line[i].x;
    for (double y : depths) {
      if (y <= line[i].y + 1e-9 || y >= line[i + 1].y - 1e-9) continue;
      const double t = (y - line[i].y) / h, a = h * slope[i], b = h * slope[i + 1];
      const double c2 = 3 * rise - 2 * a - b, c3 = a + b - 2 * rise;
      out.push_back({y, line[i].x + t * (a + t * (c2 + t * c3)), (a + t * (2 * c2 + 3 * t * c3)) / h, true});
    }
  }
  return out;
}

void extend(std::vector<Station>& s, double topY, double bottomY) {
  const std::vector<double> slope = monotoneSlopes(s);
  const auto straight = [](const Station& from, double m, double y) {
    return Station{y, from.x + m * (y - from.y), m, true};
  };
  Station& first = s.front();
  first.slope = slope.front();
  first.slopeGiven = true;
  Station& last = s.back();
  last.slope = slope.back();
  last.slopeGiven = true;
  const Station above = straight(first, first.slope, topY), below = straight(last, last.slope, bottomY);
  if (topY < s.front().y - 1e-6) s.insert(s.begin(), above);
  if (bottomY > s.back().y + 1e-6) s.push_back(below);
}

}  // namespace armure
