#include "prepare/drawing.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>

#include "prepare/label_place.h"
#include "prepare/marks.h"

namespace armure {
namespace {

constexpr double kRing = 1.5;  // mm: radius of the ring round the point of a dart

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

constexpr double kName = 7.5, kLine = 5, kEdge = 4.2, kLevelName = 3.6;  // mm: heights of texts
constexpr double kLetter = 0.52;  // of its height: how wide a letter is on average
constexpr double kLeading = 1.25;

// Everything that is drawn across a piece and a label had better not lie on.
LinesAcross drawnAcross(const Labelling& l, size_t piece, const Motion& m) {
  const Piece& p = l.pattern.pieces[piece];
  LinesAcross lines;
  const auto moved = [&](Polyline line) {
    for (Vec2& q : line) q = m.apply(q);
    return line;
  };
  for (const Channel& c : l.boning.channels)
    if (c.piece == piece)
      for (const double aside : {-c.width / 2, c.width / 2}) lines.heavy.push_back(moved(c.line(aside)));
  for (const Dart& d : p.darts)
    for (const Edge& leg : d.legs) lines.heavy.push_back(moved(leg.path.flattened(1)));
  lines.heavy.push_back(moved({p.grainTop, p.grainBottom}));
  for (const LevelLine& level : p.levelLines()) lines.light.push_back(moved({level.a, level.b}));
  return lines;
}

void addLabel(const Labelling& l, size_t piece, const Motion& m, std::vector<DrawnText>& texts) {
  const Piece& p = l.pattern.pieces[piece];
  std::vector<Message> lines = labelLines(p, l.rules);
  lines.insert(lines.end(), l.order.begin(), l.order.end());
  double width = 0, height = 0;
  for (size_t i = 0; i < lines.size(); ++i) {
    const double h = i == 0 ? kName : kLine;
    width = std::max(width, kLetter * h * static_cast<double>(english(lines[i]).size()));
    height += kLeading * h;
  }
  Polyline outline = p.outline(0.5);
  for (Vec2& q : outline) q = m.apply(q);
  const LabelPlace place = labelPlace(outline, drawnAcross(l, piece, m), width, height);
  const double angle = place.turned ? -std::numbers::pi / 2 : 0;
  double down = -height / 2 * place.scale;
  for (size_t i = 0; i < lines.size(); ++i) {
    const double h = place.scale * (i == 0 ? kName : kLine);
    down += h;
    texts.push_back({TextRole::Piece, place.middle + rotated({0, down}, angle), h, angle, std::move(lines[i])});
    down += (kLeading - 1) * h;
  }
}

// Which way is up, and how the grain lies.
void addGrainNotes(const Piece& p, const Motion& m, std::vector<DrawnText>& texts) {
  const Vec2 top = m.apply(p.grainTop), bottom = m.apply(p.grainBottom);
  texts.push_back({TextRole::Piece, top + Vec2{0, -2}, kEdge, 0, Message("up")});
  const Reading read = reading(unit(bottom - top));
  const Vec2 aside = rotated({0, -1.5}, read.angleRad);
  texts.push_back({TextRole::Level, lerp(top, bottom, 0.5) + aside, kLevelName, read.angleRad,
                   isOnBias(p) ? Message("grain: this piece lies on the bias") : Message("grain, lengthwise")});
}

// Inside the sewn line, read from whichever side it is not upside down.
void addEdgeNotes(const Pattern& pattern, size_t i, const Motion& m, std::vector<DrawnText>& texts) {
  constexpr double kInside = 6, kHeight = kEdge;  // mm
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
  constexpr double kAbove = 0.8, kHeight = kLevelName;  // mm
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

std::vector<DrawnLine> drawnLines(const Piece& piece, const Polyline& cutOutline, NotchKind notches) {
  std::vector<DrawnLine> lines;
  if (!cutOutline.empty()) lines.push_back({LineRole::Cut, "", {}, cutOutline});
  for (const LevelLine& l : piece.levelLines()) lines.push_back({LineRole::Level, l.level, Path::line(l.a, l.b)});
  for (size_t i = 0; i < piece.lines(); ++i) {
    const Edge& e = piece.lineAt(i);
    if (e.role == EdgeRole::Mouth) continue;  // folded away when the dart is sewn
    lines.push_back({e.role == EdgeRole::Fold ? LineRole::Fold : LineRole::Sewn, e.id, e.path});
  }
  for (const DartPoint& p : dartPoints(piece)) lines.push_back({LineRole::Point, "", ring(p.at, kRing)});
  for (const Stroke& s : notchStrokes(piece, cutOutline, notches))
    lines.push_back({LineRole::Notch, "", Path::line(s.from, s.to)});
  addGrain(piece, lines);
  return lines;
}

Boning boningOf(const Pattern& pattern, const Block& block, const Rules& rules) {
  constexpr double kInto = 8, kAtEnd = 0.5;  // mm
  Boning boning{channelsOf(pattern, block, rules), eyeletsOf(pattern, block, rules)};
  for (const Attachment& a : pattern.attachments) {
    const bool isTrim = !a.trim.empty();
    if (!isTrim && pattern.pieces[a.attached.piece].part != Part::Strap) continue;
    const Path& edge = pattern.pieces[a.piece].edge(a.edge).path;
    const double length = edge.length();
    for (const double at : {a.from, a.to}) {
      if (isTrim && (at < kAtEnd || at > length - kAtEnd)) continue;  // it goes on beyond the seam
      const Vec2 along = edge.tangentAt(at), from = edge.pointAt(at);
      boning.placements.push_back({a.piece, Path::line(from, from + kInto * Vec2{-along.y, along.x})});
    }
  }
  return boning;
}

std::vector<DrawnLine> drawnBoning(const Boning& boning, size_t piece) {
  constexpr double kEyelet = 2;  // mm
  std::vector<DrawnLine> lines;
  for (const Channel& c : boning.channels)
    if (c.piece == piece)
      for (const double aside : {-c.width / 2, c.width / 2})
        if (c.drawnAside == 0 || c.drawnAside * aside > 0)
          lines.push_back({LineRole::Channel, c.id, Path::polyline(c.line(aside))});
  for (const Placement& p : boning.placements)
    if (p.piece == piece) lines.push_back({LineRole::Notch, "", p.tick});
  for (const EyeletRow& row : boning.eyelets)
    if (row.piece == piece)
      for (const Vec2 at : row.places) lines.push_back({LineRole::Eyelet, "", ring(at, kEyelet)});
  return lines;
}

std::optional<Vec2> bustPointOn(const Piece& piece) {
  if (piece.half != Half::Front || piece.part != Part::Panel) return std::nullopt;
  for (const Mark& n : piece.notches())
    if (n.id == level::kBust && piece.edge(n.a.edge).role == EdgeRole::Seam) return piece.point(n.a);
  return std::nullopt;
}

std::string patternVersion(const std::vector<Polyline>& cutOutlines) {
  std::uint64_t hash = 14695981039346656037ULL;
  for (const Polyline& outline : cutOutlines)
    for (const Vec2 p : outline)
      for (const double v : {p.x, p.y}) {
        hash ^= static_cast<std::uint64_t>(std::llround(v * 10));
        hash *= 1099511628211ULL;
      }
  return fmt::format("{:06x}", hash & 0xFFFFFF);
}

std::vector<DrawnText> drawnTexts(const Labelling& l, size_t piece, const Motion& motion) {
  const Piece& p = l.pattern.pieces.at(piece);
  std::vector<DrawnText> texts;
  addLabel(l, piece, motion, texts);
  addEdgeNotes(l.pattern, piece, motion, texts);
  addLevelNames(l.pattern, piece, motion, texts);
  addGrainNotes(p, motion, texts);
  if (l.rules.option(key::kCutFor) == CutFor::Toile)
    if (const auto bust = bustPointOn(p))
      texts.push_back({TextRole::Level, motion.apply(*bust) + Vec2{0, -4}, kEdge, 0, Message("bust point")});
  return texts;
}

}  // namespace armure
