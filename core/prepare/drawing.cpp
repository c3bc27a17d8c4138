#include "prepare/drawing.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "prepare/marks.h"

namespace armure {
namespace {

constexpr double kRing = 1.5;       // mm: radius of the ring round the point of a dart
constexpr double kLabelAbove = 16;  // mm: the first line of the label over its place

// As four cubics, their handles 4/3 (sqrt 2 - 1) of the radius: off by less than 0.0003 of it (M. Goldapp,
// "Approximation of circular arcs by cubic polynomials", CAGD 8 (1991); from memory).
Path ring(Vec2 middle, double radius) {
  const double handle = 4.0 / 3 * (std::numbers::sqrt2 - 1) * radius;
  std::vector<Cubic> cubics;
  for (int quarter = 0; quarter < 4; ++quarter) {
    const double turn = quarter * std::numbers::pi / 2;
    const auto at = [&](Vec2 p) { return middle + rotated(p, turn); };
    cubics.push_back({at({radius, 0}), at({radius, handle}), at({handle, radius}), at({0, radius})});
  }
  cubics.back().p3 = cubics.front().p0;
  for (size_t i = 0; i + 1 < cubics.size(); ++i) cubics[i].p3 = cubics[i + 1].p0;
  return Path(std::move(cubics));
}

void addGrain(const Piece& piece, std::vector<DrawnLine>& lines) {
  constexpr double kBarb = 6, kWide = 2.4;  // mm
  const Vec2 top = piece.grainTop, up = unit(top - piece.grainBottom), across{-up.y, up.x};
  lines.push_back({LineRole::Grain, "", Path::line(piece.grainBottom, top)});
  for (const double side : {kWide, -kWide})
    lines.push_back({LineRole::Grain, "", Path::line(top - kBarb * up + side * across, top)});
}

// A direction as the angle of a text along it, and whether that would stand on its head.
struct Reading {
  double angleRad = 0;
  bool upsideDown = false;
};
Reading reading(Vec2 along) {
  const double angle = angleBetween({1, 0}, along);
  const bool upsideDown = std::abs(angle) > std::numbers::pi / 2 + 1e-9;
  return {upsideDown ? angle + std::numbers::pi : angle, upsideDown};
}

void addLabel(const Piece& piece, const Motion& m, std::vector<DrawnText>& texts) {
  Vec2 at = m.apply(labelPoint(piece)) + Vec2{0, -kLabelAbove};
  double height = 6;
  for (Message& line : labelLines(piece)) {
    texts.push_back({TextRole::Piece, at, height, 0, std::move(line)});
    at.y += height * 1.25;
    height = 4.2;
  }
}

// Inside the sewn line, read from whichever side it is not upside down.
void addEdgeNotes(const Pattern& pattern, size_t i, const Motion& m, std::vector<DrawnText>& texts) {
  constexpr double kInside = 6, kHeight = 3.6;  // mm
  for (const Edge& e : pattern.pieces[i].edges) {
    Message note = edgeNote(pattern, i, e);
    if (note.empty()) continue;
    const double at = e.path.length() * (e.role == EdgeRole::Top || e.role == EdgeRole::Hem ? 0.5 : 0.36);
    const Vec2 along = e.path.tangentAt(at), inside{-along.y, along.x};
    const Reading read = reading(m.applyToDirection(along));
    const Vec2 base = m.apply(e.path.pointAt(at) + (read.upsideDown ? kInside - 3.0 : kInside) * inside);
    texts.push_back({TextRole::Edge, base, kHeight, read.angleRad, std::move(note)});
  }
}

void addLevelNames(const Pattern& pattern, size_t i, const Motion& m, std::vector<DrawnText>& texts) {
  constexpr double kAbove = 0.8, kHeight = 3;  // mm
  for (const LevelLine& l : pattern.pieces[i].levelLines()) {
    const auto level = std::find_if(pattern.levels.begin(), pattern.levels.end(),
                                    [&](const PatternLevel& x) { return x.id == l.level; });
    if (level == pattern.levels.end()) continue;
    const Reading read = reading(m.applyToDirection(unit(l.b - l.a)));
    texts.push_back({TextRole::Level, m.apply(lerp(l.a, l.b, 0.5)) + Vec2{0, -kAbove}, kHeight, read.angleRad,
                     level->estimated() ? msg("{} (estimated)", level->name) : level->name});
  }
}

}  // namespace

std::vector<DrawnLine> drawnLines(const Piece& piece, const Polyline& cutOutline) {
  std::vector<DrawnLine> lines;
  if (!cutOutline.empty()) lines.push_back({LineRole::Cut, "", {}, cutOutline});
  for (const LevelLine& l : piece.levelLines()) lines.push_back({LineRole::Level, l.level, Path::line(l.a, l.b)});
  for (size_t i = 0; i < piece.lines(); ++i) {
    const Edge& e = piece.lineAt(i);
    if (e.role == EdgeRole::Mouth) continue;  // folded away when the dart is sewn
    lines.push_back({e.role == EdgeRole::Fold ? LineRole::Fold : LineRole::Sewn, e.id, e.path});
  }
  for (const DartPoint& p : dartPoints(piece)) lines.push_back({LineRole::Point, "", ring(p.at, kRing)});
  for (const Stroke& s : notchStrokes(piece, cutOutline))
    lines.push_back({LineRole::Notch, "", Path::line(s.from, s.to)});
  addGrain(piece, lines);
  return lines;
}

Boning boningOf(const Pattern& pattern, const Block& block, const Rules& rules) {
  return {channelsOf(pattern, block, rules), eyeletsOf(pattern, block, rules)};
}

std::vector<DrawnLine> drawnBoning(const Boning& boning, size_t piece) {
  constexpr double kEyelet = 2;  // mm
  std::vector<DrawnLine> lines;
  for (const Channel& c : boning.channels)
    if (c.piece == piece)
      for (const double aside : {-c.width / 2, c.width / 2})
        lines.push_back({LineRole::Channel, c.id, Path::polyline(c.line(aside))});
  for (const EyeletRow& row : boning.eyelets)
    if (row.piece == piece)
      for (const Vec2 at : row.places) lines.push_back({LineRole::Eyelet, "", ring(at, kEyelet)});
  return lines;
}

std::vector<DrawnText> drawnTexts(const Pattern& pattern, size_t piece, const Motion& motion) {
  std::vector<DrawnText> texts;
  addLabel(pattern.pieces.at(piece), motion, texts);
  addEdgeNotes(pattern, piece, motion, texts);
  addLevelNames(pattern, piece, motion, texts);
  return texts;
}

}  // namespace armure
