#include "garment/sketch.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "style/style_line.h"

namespace armure {
namespace {

constexpr double kWide = 0.36;
constexpr int kAlong = 28;     // points along a line
constexpr double kLaces = 22;  // mm between two

class HalfSketch {
 public:
  HalfSketch(const Block& block, const Rules& rules, bool front)
      : block_(block),
        rules_(rules),
        front_(front),
        half_(front ? block.front : block.back),
        at_(block),
        top_(topEdge(block, rules)),
        hem_(hemLine(block, rules)) {}

  Sketch draw() && {
    const Polyline top = across(top_), bottom = across(hem_);
    Polyline outline = top;
    const Polyline side = boundary(lines(), top.back().y, bottom.back().y);
    outline.insert(outline.end(), side.begin(), side.end());
    outline.insert(outline.end(), bottom.rbegin(), bottom.rend());
    const Polyline centre = boundary(kCentre, bottom.front().y, top.front().y);
    outline.insert(outline.end(), centre.begin(), centre.end());
    add(SketchStroke::Outline, outline);
    add(SketchStroke::Edge, top);
    add(SketchStroke::Edge, bottom);
    add(SketchStroke::Edge, side);
    const bool cups = front_ && rules_.option("cup.kind") != "princess";
    for (size_t i = 0; i < half_.lines.size(); ++i) {
      if (i == 0 && cups) continue;
      add(SketchStroke::Seam, boundary(i, depthAt(top_, i), depthAt(hem_, i)));
    }
    if (cups) drawCup();
    drawCentre(top.front().y, bottom.front().y);
    return std::move(sketch_);
  }

 private:
  static constexpr size_t kCentre = static_cast<size_t>(-1);

  size_t lines() const { return half_.lines.size(); }
  double bust() const { return half_.at(level::kBust).y; }
  double under() const { return half_.at(level::kUnderbust).y; }

  // The boundary (style_line.h) of a line of this half; lines() is the side, kCentre the centre.
  size_t boundaryOf(size_t line) const {
    if (line == kCentre) return front_ ? 0 : at_.centreBack();
    if (line == lines()) return at_.side();
    return front_ ? line + 1 : at_.centreBack() - 1 - line;
  }
  double depthAt(const StyleLine& style, size_t line) const {
    const size_t b = boundaryOf(line);
    return !front_ && b == at_.side() ? style.sideDepthOnBack : style.depth[b];
  }
  double slopeAt(const StyleLine& style, size_t line) const {
    return (front_ ? 1 : -1) * style.slope[boundaryOf(line)];
  }

  static double sideOf(const Block& block, bool front, double y) {
    if (!front) return block.back.side.xAtDepth(y);
    if (y <= block.dart.upper.y) return block.front.side.xAtDepth(y);
    return y < block.dart.lower.y ? block.dart.upper.x : block.sideBelowDart.xAtDepth(y);
  }

  // How far from the middle a line stands on a level, what lies between closed.
  static double closed(const Block& block, bool front, size_t line, double y) {
    const HalfBlock& half = front ? block.front : block.back;
    const double centre = half.centre.xAtDepth(y), from = half.opening.isLaced() ? 0 : centre;
    if (line == kCentre) return centre - from;
    double taken = 0;
    for (size_t i = 0; i < line && i < half.lines.size(); ++i) taken += half.lines[i].intakeAtDepth(y);
    return (line == half.lines.size() ? sideOf(block, front, y) : half.lines[line].toCentreX(y)) - taken - from;
  }
  double closed(size_t line, double y) const { return closed(block_, front_, line, y); }

  // Below the bust the back stands higher by the side bust dart.
  double onOther(double y) const {
    const double from = bust(), to = under();
    const double part = std::clamp((y - from) / (to - from), 0.0, 1.0);
    return y + (front_ ? -1 : 1) * part * block_.levels.sideDart;
  }

  Vec2 put(double c, double y) const {
    const double mine = closed(lines(), y);
    const HalfBlock& other = front_ ? block_.back : block_.front;
    const double all = mine + closed(block_, !front_, other.lines.size(), onOther(y));
    return {kWide * all * std::sin(std::numbers::pi / 2 * std::clamp(c / mine, 0.0, 1.0)), y};
  }

  Polyline boundary(size_t line, double from, double to) const {
    Polyline out;
    for (int i = 0; i <= kAlong; ++i) {
      const double y = from + (to - from) * i / kAlong;
      out.push_back(put(closed(line, y), y));
    }
    return out;
  }

  // Top edge or hem from the centre to the side.
  Polyline across(const StyleLine& style) const {
    Polyline out;
    size_t from = kCentre;
    if (front_ && !style.plunge.empty()) {
      const double length = style.plunge.length(), centre = half_.centre.xAtDepth(bust());
      Vec2 p;
      for (int i = 0; i <= kAlong; ++i) {
        p = style.plunge.pointAt(length * i / kAlong);
        out.push_back(put(p.x - centre, p.y));
      }
      runOn(out, {p.x - centre, p.y}, {closed(0, depthAt(style, 0)), depthAt(style, 0)}, style);
      from = 0;
    }
    while (from != lines()) {
      const size_t next = from == kCentre ? 0 : from + 1;
      const double a = depthAt(style, from), b = depthAt(style, next);
      const double ca = closed(from, a), cb = closed(next, b);
      for (int i = out.empty() ? 0 : 1; i <= kAlong; ++i) {
        const double t = static_cast<double>(i) / kAlong;
        const double y = hermite(a, b, (cb - ca) * slopeAt(style, from), (cb - ca) * slopeAt(style, next), t);
        out.push_back(put(ca + t * (cb - ca), y));
      }
      from = next;
    }
    return out;
  }

  static double hermite(double a, double b, double da, double db, double t) {
    return a * (1 + 2 * t) * (1 - t) * (1 - t) + da * t * (1 - t) * (1 - t) + b * t * t * (3 - 2 * t) +
           db * t * t * (t - 1);
  }

  // From a plunge on to the first line.
  void runOn(Polyline& out, Vec2 from, Vec2 to, const StyleLine& style) const {
    const Vec2 d = style.plunge.endTangent();
    const double reach = distance(from, to) / 3;
    const Cubic c{from, from + reach * d, to - reach * unit({1, slopeAt(style, 0)}), to};
    for (int i = 1; i <= kAlong; ++i) {
      const Vec2 p = c.at(static_cast<double>(i) / kAlong);
      out.push_back(put(p.x, p.y));
    }
  }

  // The cup line in (distance from the centre, depth), by the formulas of cups/cut_cup.h on the closed half.
  void drawCup() {
    const std::string_view kind = rules_.option("cup.kind");
    const double bridge = rules_.length("cup.bridge"), apex = closed(0, bust()), lowest = closed(0, under());
    const double total = closed(lines(), depthAt(top_, lines()));
    const double inner = apex - bridge;
    const double outer = std::min(apex + inner + rules_.length("cup.outer_extra"), closed(1, bust()) - 10);
    constexpr double k = 0.55;
    const double rise = under() - bust();
    const double sideTop = depthAt(top_, lines());
    const Path line(std::vector<Cubic>{
        Cubic::line({bridge, depthAt(top_, kCentre) - 60}, {bridge, bust()}),
        Cubic{{bridge, bust()},
              {bridge, bust() + k * rise},
              {lowest - k * (lowest - bridge), under()},
              {lowest, under()}},
        Cubic{{lowest, under()}, {lowest + k * (outer - lowest), under()}, {outer, bust() + k * rise}, {outer, bust()}},
        Cubic::line({outer, bust()}, {std::max(outer, total - rules_.length("cup.side")), sideTop})});
    const Polyline edge = across(top_);
    Polyline cup;
    const double length = line.length();
    for (int i = 0; i <= 4 * kAlong; ++i) {
      const Vec2 p = line.pointAt(length * i / (4 * kAlong));
      const Vec2 q = put(p.x, p.y);
      if (q.y > heightOf(edge, q.x) - 0.5) cup.push_back(q);
    }
    add(SketchStroke::Seam, cup);
    const bool band = kind == "three", cross = kind == "cross" || kind == "four";
    const double bandDepth = depthAt(top_, 0) + rules_.length("cup.band_middle");
    if (kind != "cross") add(SketchStroke::Seam, boundary(0, band ? bandDepth : depthAt(top_, 0), under()));
    if (rules_.option("cup.frame") != "one-piece") add(SketchStroke::Seam, boundary(0, under(), depthAt(hem_, 0)));
    if (band) add(SketchStroke::Seam, {put(bridge, bandDepth), put(apex, bandDepth + 2), put(outer, bandDepth)});
    if (cross)
      add(SketchStroke::Seam, {put(bridge, bust() - rules_.length("cup.cross_centre")), put(apex, bust()),
                               put(outer, bust() + rules_.length("cup.cross_side"))});
  }

  // y of a line over the figure at x; far above where it does not reach.
  static double heightOf(const Polyline& line, double x) {
    for (size_t i = 0; i + 1 < line.size(); ++i) {
      const Vec2 a = line[i], b = line[i + 1];
      if ((a.x <= x && x <= b.x) || (b.x <= x && x <= a.x))
        return std::abs(b.x - a.x) < 1e-9 ? std::min(a.y, b.y) : a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x);
    }
    return line.empty() || x < line.front().x ? (line.empty() ? -1e9 : line.front().y) : -1e9;
  }

  void drawCentre(double from, double to) {
    const Opening& o = half_.opening;
    if (o.isFold()) return;
    add(SketchStroke::Seam, boundary(kCentre, from, to));
    if (!o.isLaced()) return;
    for (double y = from + kLaces / 2; y + kLaces < to; y += kLaces) {
      const Vec2 a = put(closed(kCentre, y), y), b = put(closed(kCentre, y + kLaces), y + kLaces);
      sketch_.lines.push_back({SketchStroke::Lacing, {a, {-b.x, b.y}}});
      sketch_.lines.push_back({SketchStroke::Lacing, {{-a.x, a.y}, b}});
    }
  }

  // A line and its mirror image.
  void add(SketchStroke stroke, Polyline points) {
    if (points.size() < 2) return;
    Polyline mirrored = points;
    for (Vec2& p : mirrored) p.x = -p.x;
    sketch_.lines.push_back({stroke, std::move(points)});
    sketch_.lines.push_back({stroke, std::move(mirrored)});
  }

  const Block& block_;
  const Rules& rules_;
  const bool front_;
  const HalfBlock& half_;
  const Boundaries at_;
  const StyleLine top_, hem_;
  Sketch sketch_;
};

}  // namespace

GarmentSketch sketchOf(const Block& block, const Rules& rules) {
  return {HalfSketch(block, rules, true).draw(), HalfSketch(block, rules, false).draw()};
}

}  // namespace armure
