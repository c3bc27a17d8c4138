#include "garment/sketch.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "parts/band/rules.h"
#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/edges/style_line.h"
#include "parts/edges/upper_outline.h"
#include "parts/inserts/rules.h"
#include "parts/skirt/rules.h"
#include "parts/straps/rules.h"
#include "parts/yoke/rules.h"

namespace armure {
namespace {

constexpr double kWide = 0.36;
constexpr int kAlong = 28;     // points along a line
constexpr double kLaces = 22;  // mm between two

class HalfSketch {
 public:
  HalfSketch(const Block& block, const Body& body, const Rules& rules, bool front)
      : block_(block),
        body_(body),
        rules_(rules),
        front_(front),
        half_(front ? block.front : block.back),
        at_(block),
        top_(topEdge(block, rules)),
        hem_(hemLine(block, rules)),
        upper_(upperOutline(block, rules, front)) {}

  Sketch draw() && {
    const Polyline top = upper_ ? overShoulder() : across(top_), bottom = across(hem_);
    Polyline outline = top;
    const Polyline side = boundary(lines(), top.back().y, bottom.back().y);
    outline.insert(outline.end(), side.begin(), side.end());
    const Polyline skirt = skirtSide(bottom), below = skirtHem(bottom);
    outline.insert(outline.end(), skirt.begin(), skirt.end());
    outline.insert(outline.end(), below.rbegin(), below.rend());
    const Polyline centre = boundary(kCentre, bottom.front().y, top.front().y);
    outline.insert(outline.end(), centre.begin(), centre.end());
    if (rules_.option(key::kCoverKind) == CoverKind::OffShoulder) drawBand(top);
    add(SketchStroke::Outline, outline);
    add(SketchStroke::Edge, top);
    add(SketchStroke::Edge, below);
    add(SketchStroke::Edge, side);
    add(SketchStroke::Edge, skirt);
    const bool cups = front_ && rules_.option(key::kCupKind) != CupKind::Princess;
    for (size_t i = 0; i < half_.lines.size(); ++i) {
      if (i == 0 && cups) continue;
      add(SketchStroke::Seam, boundary(i, upperEnd(top, i), depthAt(hem_, i)));
    }
    for (size_t i = 0; i < half_.lines.size(); ++i) add(SketchStroke::Seam, skirtLine(i));
    if (cups) drawCup();
    drawUpper(top);
    drawWaist();
    drawDarts();
    drawCentre(top.front().y, below.front().y);
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

  // Above the side's upper end the body is as wide as there.
  Vec2 put(double c, double y) const {
    const double at = std::max(y, depthAt(top_, lines()));
    const double mine = closed(lines(), at);
    const HalfBlock& other = front_ ? block_.back : block_.front;
    const double all = mine + closed(block_, !front_, other.lines.size(), onOther(at));
    return {kWide * all * std::sin(std::numbers::pi / 2 * std::clamp(c / mine, 0.0, 1.0)), y};
  }

  // Neck, shoulder and armhole, from the centre to the side.
  Polyline overShoulder() const {
    Polyline out;
    for (const UpperStretch& s : *upper_) {
      const double length = s.path.length();
      for (int i = out.empty() ? 0 : 1; i <= kAlong; ++i) {
        const Vec2 p = s.path.pointAt(length * i / kAlong);
        out.push_back(put(p.x, p.y));
      }
    }
    return out;
  }

  // Where a line ends above: on a style line, or where the upper outline is met going up.
  double upperEnd(const Polyline& top, size_t line) const {
    if (!upper_) return depthAt(top_, line);
    const bool yoke = rules_.option(front_ ? key::kYokeFront : key::kYokeBack) != YokeKind::None;
    double y = bust();
    const double stop = yoke && rules_.option(key::kCoverKind) == CoverKind::Covered ? depthAt(top_, line) : 0;
    while (y > stop) {
      const Vec2 p = put(closed(line, y), y);
      if (p.y < heightOf(top, p.x)) break;
      y -= 4;
    }
    return y;
  }

  // How much wider the skirt is at a depth than the body above it. For the eye: cloth falls in folds.
  double wider(double y) const {
    const auto kind = rules_.option(key::kSkirtKind);
    const double hem = half_.at(level::kHem).y, waist = half_.at(level::kWaist).y;
    const double end = skirtEnd();
    if (kind == SkirtKind::Flare)
      return 1 + 0.16 * rules_.length(key::kSkirtFlare) / 25.4 * std::max(0.0, y - waist) / (end - waist);
    if (kind == SkirtKind::Gored)
      return 1 + 0.11 * rules_.length(key::kSkirtGore) / 25.4 * std::max(0.0, y - waist) / (end - waist);
    if (kind == SkirtKind::Peg)
      return 1 - 0.06 * rules_.length(key::kSkirtPeg) / 25.4 * std::clamp((y - hem) / 300, 0.0, 1.0);
    return 1;
  }
  double skirtEnd() const {
    const double hem = half_.at(level::kHem).y;
    if (!hasSkirt(rules_)) return hem;
    return half_.at(level::kWaist).y +
           body_.mm(rules_.option(key::kSkirtTo) == SkirtEnd::Knee ? "waist_to_knee" : "waist_to_floor");
  }
  Vec2 stemOf(Vec2 onBodice) const { return {onBodice.x / wider(onBodice.y), onBodice.y}; }
  Vec2 onSkirt(Vec2 stem, double y) const { return {stem.x * wider(y), y}; }

  Polyline skirtLine(size_t line) const {
    Polyline out;
    if (!hasSkirt(rules_)) return out;
    const double from = depthAt(hem_, line), to = skirtEnd();
    const Vec2 stem = put(closed(line, from), from);
    for (int i = 0; i <= kAlong; ++i) out.push_back(onSkirt(stem, from + (to - from) * i / kAlong));
    return out;
  }
  Polyline skirtSide(const Polyline& bottom) const {
    Polyline out;
    if (!hasSkirt(rules_)) return out;
    for (int i = 0; i <= kAlong; ++i)
      out.push_back(onSkirt(stemOf(bottom.back()), bottom.back().y + (skirtEnd() - bottom.back().y) * i / kAlong));
    return out;
  }
  Polyline skirtHem(const Polyline& bottom) const {
    if (!hasSkirt(rules_)) return bottom;
    Polyline out;
    for (Vec2 p : bottom) out.push_back(onSkirt(stemOf(p), skirtEnd() - 0.04 * p.x));
    return out;
  }

  Polyline boundary(size_t line, double from, double to) const {
    Polyline out;
    for (int i = 0; i <= kAlong; ++i) {
      const double y = from + (to - from) * i / kAlong;
      const Vec2 p = put(closed(line, y), y);
      out.push_back(rules_.option(key::kSkirtKind) == SkirtKind::None ? p : Vec2{p.x * wider(y), y});
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
        const Vec2 p = put(ca + t * (cb - ca), y);
        out.push_back(&style == &hem_ ? Vec2{p.x * wider(y), p.y} : p);
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

  // The cup line in (distance from the centre, depth), by the formulas of parts/cups/cut_cup.h on the closed half.
  void drawCup() {
    const auto kind = rules_.option(key::kCupKind);
    const double bridge = rules_.length(key::kCupBridge), apex = closed(0, bust()), lowest = closed(0, under());
    const double total = closed(lines(), depthAt(top_, lines()));
    const double inner = apex - bridge;
    const double outer = std::min(apex + inner + rules_.length(key::kCupOuterExtra), closed(1, bust()) - 10);
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
        Cubic::line({outer, bust()}, {std::max(outer, total - rules_.length(key::kCupSide)), sideTop})});
    const Polyline edge = across(top_);
    Polyline cup;
    const double length = line.length();
    for (int i = 0; i <= 4 * kAlong; ++i) {
      const Vec2 p = line.pointAt(length * i / (4 * kAlong));
      const Vec2 q = put(p.x, p.y);
      if (q.y > heightOf(edge, q.x) - 0.5) cup.push_back(q);
    }
    add(SketchStroke::Seam, cup);
    if (kind == CupKind::Gathered)
      for (int i = -3; i <= 3; ++i) {
        const double c = apex + i * (outer - bridge) / 9, y = under() - 6 - 1.1 * i * i;
        add(SketchStroke::Lacing, {put(c, y), put(apex + 0.6 * (c - apex), y - 0.45 * rise)});
      }
    const bool band = kind == CupKind::Three || kind == CupKind::Gathered,
               cross = kind == CupKind::Cross || kind == CupKind::Four;
    const double bandDepth = depthAt(top_, 0) + rules_.length(key::kCupBandMiddle);
    if (kind == CupKind::Moulded) add(SketchStroke::Seam, boundary(0, bust() + 12, under()));
    if (kind != CupKind::Cross && kind != CupKind::Gathered && kind != CupKind::Moulded)
      add(SketchStroke::Seam, boundary(0, band ? bandDepth : depthAt(top_, 0), under()));
    if (rules_.option(key::kCupFrame) != CupFrame::OnePiece)
      add(SketchStroke::Seam, boundary(0, under(), depthAt(hem_, 0)));
    if (band) add(SketchStroke::Seam, {put(bridge, bandDepth), put(apex, bandDepth + 2), put(outer, bandDepth)});
    if (cross)
      add(SketchStroke::Seam, {put(bridge, bust() - rules_.length(key::kCupCrossCentre)), put(apex, bust()),
                               put(outer, bust() + rules_.length(key::kCupCrossSide))});
  }

  // Yoke, keyhole, inserts and straps.
  void drawUpper(const Polyline& top) {
    const bool covered = upper_ && rules_.option(key::kCoverKind) == CoverKind::Covered;
    if (covered && rules_.option(front_ ? key::kYokeFront : key::kYokeBack) != YokeKind::None) {
      Polyline line;
      for (Vec2 p : across(top_))
        if (p.y > heightOf(top, p.x) + 1) line.push_back(p);
      add(SketchStroke::Seam, line);
    }
    if (covered && rules_.option(key::kKeyholeKind) == (front_ ? KeyholeKind::Front : KeyholeKind::Back)) {
      const double from = top.front().y + rules_.length(key::kKeyholeFrom),
                   to = depthAt(top_, kCentre) - rules_.length(key::kKeyholeAbove);
      Polyline hole;
      for (int i = 0; i <= kAlong && to > from + 10; ++i) {
        const double t = static_cast<double>(i) / kAlong;
        hole.push_back({rules_.length(key::kKeyholeWidth) * std::sin(std::numbers::pi * t), from + t * (to - from)});
      }
      add(SketchStroke::Edge, hole);
    }
    const auto insert = rules_.option(key::kInsertKind);
    if (front_ && (insert == InsertKind::Centre || insert == InsertKind::Both))
      add(SketchStroke::Seam,
          {put(rules_.length(key::kInsertTop), top.front().y), put(rules_.length(key::kInsertHem), skirtEnd())});
    if (covered && (insert == InsertKind::Shoulder || insert == InsertKind::Both)) {
      const Path& arm = upper_->back().path;
      const Vec2 outer = upper_->at(1).path.end(), inner = upper_->at(1).path.start();
      const Vec2 a = outer + rules_.length(key::kInsertShoulder) * unit(inner - outer),
                 b = arm.pointAt(0.62 * arm.length());
      Polyline line;
      const Path curve(Cubic{a, a + Vec2{0, 0.4 * (b.y - a.y)}, b - Vec2{15, 25}, b});
      for (int i = 0; i <= kAlong; ++i) {
        const Vec2 p = curve.pointAt(curve.length() * i / kAlong);
        line.push_back(put(p.x, p.y));
      }
      add(SketchStroke::Seam, line);
    }
    if (!upper_ && rules_.option(key::kStrapKind) != StrapKind::None) {
      const Vec2 shoulder = lerp(half_.shoulder.start(), half_.shoulder.end(), 0.5);
      const double y = depthAt(top_, 0), half = rules_.length(key::kStrapWidth) / 2;
      for (const double off : {-half, half})
        add(SketchStroke::Edge, {put(closed(0, y) + off, y), put(shoulder.x + off, shoulder.y)});
    }
  }

  // A band round both arms: over the upper edge and out past the side.
  void drawBand(const Polyline& top) {
    const double depth = 0.85 * rules_.length(key::kOffDepth);
    const Vec2 arm = top.back() + Vec2{0.42 * top.back().x, 0.2 * depth};
    Polyline band;
    for (Vec2 p : top) band.push_back({p.x * 1.02, p.y});
    band.push_back(arm);
    band.push_back(arm + Vec2{-0.08 * arm.x, -depth});
    for (size_t i = top.size(); i-- > 0;)
      band.push_back({top[i].x * 1.22, top[i].y - depth * (1 - 0.25 * top[i].x / top.back().x)});
    add(SketchStroke::Outline, band);
    band.push_back(band.front());
    add(SketchStroke::Edge, band);
  }

  void drawWaist() {
    if (rules_.option(key::kWaistSeam) == WaistSeam::None) return;
    const double y = half_.at(level::kWaist).y, all = closed(lines(), y);
    const double point =
        front_ && rules_.option(key::kWaistSeam) == WaistSeam::Pointed ? rules_.length(key::kWaistPoint) : 0;
    Polyline line;
    for (int i = 0; i <= kAlong; ++i) {
      const double t = static_cast<double>(i) / kAlong, from = closed(kCentre, y);
      line.push_back(put(from + t * (all - from), y + point * (1 - t) * (1 - t)));
    }
    add(SketchStroke::Seam, line);
  }

  void drawDarts() {
    if (!front_ || rules_.option(key::kCupKind) != CupKind::Princess) return;
    const double y = bust(), apex = closed(0, y);
    if (rules_.share(key::kDialSide) > 0) add(SketchStroke::Seam, {put(apex + 25, y), put(closed(1, y), y + 8)});
    if (rules_.share(key::kDialCentre) > 0) add(SketchStroke::Seam, {put(apex - 25, y), put(0, y + 4)});
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
  const Body& body_;
  const Rules& rules_;
  const bool front_;
  const HalfBlock& half_;
  const Boundaries at_;
  const StyleLine top_, hem_;
  const std::optional<UpperOutline> upper_;
  Sketch sketch_;
};

}  // namespace

GarmentSketch sketchOf(const Block& block, const Body& body, const Rules& rules) {
  return {HalfSketch(block, body, rules, true).draw(), HalfSketch(block, body, rules, false).draw()};
}

}  // namespace armure
