#include "garment/sketch.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "garment/worn.h"

namespace armure {
namespace {

constexpr double kWide = 0.36;
constexpr double kFalls = 0.5;  // of what a skirt is wider than the hip is seen
constexpr double kLaces = 22;   // mm between two
constexpr double kGathers = 6;  // mm of ease in a seam: more is gathered
constexpr double kFold = 42;    // mm of the edge to a fold of what hangs from it
constexpr size_t kInFold = 8;   // points of the wave in one

bool isOfBand(const Pattern& pattern, const Seam& s) {
  return pattern.pieces[s.a.piece].part == Part::ShoulderBand || pattern.pieces[s.b.piece].part == Part::ShoulderBand;
}

// How far the side stands from the centre: by height, and by how far down the side seam.
class SideLine {
 public:
  SideLine(const Pattern& pattern, const WornHalf& half, double hip) : hip_(hip) {
    for (const Seam& s : pattern.seams)
      if (half.shows(s.a.piece) != half.shows(s.b.piece) && s.kind == SeamKind::Plain && !isOfBand(pattern, s))
        add(pattern, half, half.shows(s.a.piece) ? s.a : s.b);
    std::sort(points_.begin(), points_.end(), [](Vec2 a, Vec2 b) { return a.y < b.y; });
    for (size_t i = 0; i < points_.size(); ++i)
      down_.push_back(i == 0 ? 0 : down_.back() + distance(points_[i - 1], points_[i]));
  }

  // Above its upper end the body is as wide as there.
  double flatAt(double y) const { return points_.empty() ? 1 : at(placeOf(y)).x; }
  // The part of the side seam that lies above a height.
  double partAt(double y) const {
    if (points_.empty()) return 0;
    const Place p = placeOf(y);
    return (down_[p.i] + p.t * (down_[std::min(p.i + 1, down_.size() - 1)] - down_[p.i])) / std::max(down_.back(), 1.0);
  }
  double flatAtPart(double part) const {
    if (points_.empty()) return 1;
    const auto next = std::upper_bound(down_.begin(), down_.end(), part * down_.back());
    if (next == down_.end()) return points_.back().x;
    const auto i = static_cast<size_t>(next - down_.begin()) - 1;
    return at({i, (part * down_.back() - down_[i]) / (down_[i + 1] - down_[i])}).x;
  }
  double hip() const { return hip_; }

 private:
  struct Place {
    size_t i = 0;
    double t = 0;  // from point i to the next
  };

  Place placeOf(double y) const {
    const auto below = std::lower_bound(points_.begin(), points_.end(), y, [](Vec2 p, double h) { return p.y < h; });
    if (below == points_.begin()) return {0, 0};
    if (below == points_.end()) return {points_.size() - 1, 0};
    const auto i = static_cast<size_t>(below - points_.begin()) - 1;
    return {i, (y - points_[i].y) / std::max(points_[i + 1].y - points_[i].y, 1e-9)};
  }
  Vec2 at(Place p) const { return p.t == 0 ? points_[p.i] : lerp(points_[p.i], points_[p.i + 1], p.t); }

  void add(const Pattern& pattern, const WornHalf& half, const SeamSide& side) {
    const Piece& p = pattern.pieces[side.piece];
    for (size_t l = 0; l < p.lines(); ++l)
      if (side.uses(p.lineAt(l).id))
        for (const Vec2 at : half.line(side.piece, l)) points_.push_back(at);
  }

  Polyline points_;
  std::vector<double> down_;  // the seam above each point
  double hip_;
};

class ViewSketch {
 public:
  ViewSketch(const Pattern& pattern, const Block& block, const WornHalf& half, const SideLine& mine,
             const SideLine& other, bool front)
      : pattern_(pattern),
        half_(half),
        mine_(mine),
        other_(other),
        opening_((front ? block.front : block.back).opening),
        shoulder_(lerp((front ? block.front : block.back).shoulder.start(),
                       (front ? block.front : block.back).shoulder.end(), 0.5)) {}

  Sketch draw() && {
    addBand();
    for (const size_t i : half_.pieces())
      add(pattern_.pieces[i].cloth.empty() ? SketchStroke::Outline : SketchStroke::Sheer, seen(half_.outline(i)));
    for (const size_t i : half_.pieces()) addLines(i);
    for (const Seam& s : pattern_.seams) addGathers(s);
    addStraps();
    addTrims();
    addLaces();
    return std::move(sketch_);
  }

 private:
  Vec2 put(Vec2 p) const {
    const double flat = std::max(mine_.flatAt(p.y), 1.0);
    const double all = seenWidth(p.y, flat + other_.flatAtPart(mine_.partAt(p.y)));
    return {kWide * all * std::sin(std::numbers::pi / 2 * std::clamp(p.x / flat, 0.0, 1.0)), p.y};
  }
  // Both halves together, `flat` of cloth: a skirt falls in folds.
  double seenWidth(double y, double flat) const {
    const double hip = mine_.flatAt(mine_.hip()) + other_.flatAt(other_.hip());
    return y > mine_.hip() && flat > hip ? hip + kFalls * (flat - hip) : flat;
  }
  Polyline seen(Polyline line) const {
    for (Vec2& p : line) p = put(p);
    return line;
  }

  void addLines(size_t piece) {
    const Piece& p = pattern_.pieces[piece];
    for (size_t l = 0; l < p.lines(); ++l)
      if (const auto stroke = strokeOf(piece, p.lineAt(l))) add(*stroke, seen(half_.line(piece, l)));
  }

  // Nothing for a fold, and for the second side of a seam.
  std::optional<SketchStroke> strokeOf(size_t piece, const Edge& edge) const {
    if (edge.role == EdgeRole::Fold || edge.role == EdgeRole::Raw || edge.role == EdgeRole::Mouth) return std::nullopt;
    if (isCentre(edge.role)) return SketchStroke::Seam;
    for (const Seam& s : pattern_.seams) {
      const bool a = s.a.piece == piece && s.a.uses(edge.id), b = s.b.piece == piece && s.b.uses(edge.id);
      if (!a && !b) continue;
      const size_t partner = (a ? s.b : s.a).piece;
      if (!half_.shows(partner)) return SketchStroke::Edge;
      return a ? std::optional(SketchStroke::Seam) : std::nullopt;
    }
    return SketchStroke::Edge;
  }

  // Short strokes from the seam into the gathered cloth, between the notches.
  void addGathers(const Seam& s) {
    constexpr int kStrokes = 7;
    if (!half_.shows(s.a.piece)) return;
    for (const PlannedEase& e : s.eases) {
      if (std::abs(e.amount) < kGathers) continue;
      const SeamSide& full = e.amount > 0 ? s.a : s.b;
      if (!half_.shows(full.piece)) continue;
      const Polyline whole = half_.outline(full.piece);
      Vec2 middle{};
      for (const Vec2 p : whole) middle = middle + p / static_cast<double>(whole.size());
      const double length = pattern_.sidePath(full).length();
      const auto at = [&](const std::string& notch, double end) {
        const SeamNotch* n = s.notch(notch);
        return !n ? end : &full == &s.a ? n->a : n->b;
      };
      const double from = at(e.from, 0), to = at(e.to, length);
      for (int i = 0; i < kStrokes; ++i) {
        const Vec2 p = onSide(full, from + (to - from) * (i + 0.5) / kStrokes);
        add(SketchStroke::Lacing, {put(p), put(lerp(p, middle, 0.4))});
      }
    }
  }
  Vec2 onSide(const SeamSide& side, double along) const {
    const Anchor place = pattern_.placeOnSide(side, along);
    return onEdge(side.piece, place.edge, place.at);
  }
  Vec2 onEdge(size_t piece, std::string_view edge, double at) const {
    const Piece& p = pattern_.pieces[piece];
    size_t l = 0;
    while (p.lineAt(l).id != edge) ++l;
    const Polyline line = half_.line(piece, l);
    const double part = at / std::max(p.lineAt(l).path.length(), 1e-9);
    return line[static_cast<size_t>(std::lround(part * static_cast<double>(line.size() - 1)))];
  }

  // A band round both arms: over the edge it is sewn to, and out past the side.
  void addBand() {
    for (const Seam& s : pattern_.seams) {
      const bool a = pattern_.pieces[s.a.piece].part == Part::ShoulderBand;
      if (!a && pattern_.pieces[s.b.piece].part != Part::ShoulderBand) continue;
      const Piece& band = pattern_.pieces[(a ? s.a : s.b).piece];
      const SeamSide& under = a ? s.b : s.a;
      if (!half_.shows(under.piece)) continue;
      for (const Edge& e : band.edges)
        if (isCentre(e.role)) bandDepth_ = e.path.length();
      const Piece& p = pattern_.pieces[under.piece];
      for (size_t l = 0; l < p.lines(); ++l)
        if (under.uses(p.lineAt(l).id))
          for (const Vec2 at : seen(half_.line(under.piece, l))) band_.push_back(at);
    }
    if (band_.empty()) return;
    std::sort(band_.begin(), band_.end(), [](Vec2 x, Vec2 y) { return x.x < y.x; });
    const double depth = 0.85 * bandDepth_, wide = band_.back().x;
    const Vec2 arm = band_.back() + Vec2{0.42 * wide, 0.2 * depth};
    Polyline all;
    for (const Vec2 p : band_) all.push_back({p.x * 1.02, p.y});
    all.push_back(arm);
    all.push_back(arm + Vec2{-0.08 * arm.x, -depth});
    for (size_t i = band_.size(); i-- > 0;)
      all.push_back({band_[i].x * 1.22, band_[i].y - depth * (1 - 0.25 * band_[i].x / wide)});
    add(SketchStroke::Outline, all);
    all.push_back(all.front());
    add(SketchStroke::Edge, all);
  }

  // What is sewn on falls from its stretch, in a fold for each few centimetres of the edge; what lies flat is a line.
  void addTrims() {
    for (const Attachment& a : pattern_.attachments) {
      if (a.trim.empty() || pattern_.pieces[a.piece].part == Part::Trim || !half_.shows(a.piece)) continue;
      const auto folds = std::max<size_t>(2, static_cast<size_t>(std::lround((a.to - a.from) / kFold)));
      Polyline sewn;
      for (size_t i = 0; i <= folds * kInFold; ++i) {
        const double t = static_cast<double>(i) / static_cast<double>(folds * kInFold);
        sewn.push_back(put(onEdge(a.piece, a.edge, a.from + t * (a.to - a.from))));
      }
      if (a.reach.way == ReachWay::Flat)
        add(SketchStroke::Edge, sewn);
      else
        addHanging(sewn, a.reach, a.full > 1);
    }
    addOverArms();
    for (Polyline& fold : folds_) add(SketchStroke::Lacing, std::move(fold));
  }

  void addHanging(const Polyline& sewn, const Reach& reach, bool isFull) {
    constexpr double kWave = 0.05;                     // of how far it hangs
    constexpr double kSpreads = 0.04, kFlares = 0.16;  // wider below than above: a frill, a flounce
    const bool falls = reach.way == ReachWay::Down;
    const Vec2 way = reach.way == ReachWay::Up ? Vec2{-0.05, -1} : Vec2{0.3, 0.95};  // beside the arm
    Polyline free;
    for (size_t i = 0; i < sewn.size(); ++i) {
      const double wave = 1 - kWave * (1 - std::cos(2 * std::numbers::pi * static_cast<double>(i) / kInFold));
      const Vec2 at = sewn[i];
      free.push_back(falls ? Vec2{at.x * (1 + (isFull ? kSpreads : kFlares)), at.y + reach.mm * wave}
                           : at + reach.mm * way);
    }
    for (size_t i = kInFold; falls && i + 1 < sewn.size(); i += kInFold)
      folds_.push_back({lerp(sewn[i], free[i], 0.05), lerp(sewn[i], free[i], 0.85)});
    Polyline all = sewn;
    all.insert(all.end(), free.rbegin(), free.rend());
    add(SketchStroke::Outline, all);
    add(SketchStroke::Edge, free);
    add(SketchStroke::Seam, sewn);
  }

  // What is free over the arm goes on from the outermost place of its stretches, out and up.
  void addOverArms() {
    constexpr double kOut = 0.42, kUp = 0.12;  // of how far out it leaves the edge
    constexpr size_t kFolds = 4;
    for (const Attachment& loose : pattern_.attachments) {
      if (loose.loose <= 0) continue;
      Vec2 leaves{};
      for (const Attachment& a : pattern_.attachments)
        if (a.trim == loose.trim && half_.shows(a.piece))
          for (const double at : {a.from, a.to})
            if (const Vec2 p = put(onEdge(a.piece, a.edge, at)); p.x > leaves.x) leaves = p;
      if (leaves.x <= 0) continue;
      Polyline sewn;
      for (size_t i = 0; i <= kFolds * kInFold; ++i) {
        const double t = static_cast<double>(i) / (kFolds * kInFold);
        sewn.push_back(leaves + leaves.x * Vec2{kOut * t, -kUp * std::sin(std::numbers::pi / 2 * t)});
      }
      addHanging(sewn, loose.reach, true);
    }
  }

  // From where it is sewn on to the middle of the shoulder.
  void addStraps() {
    constexpr double kHalf = 8;  // mm, half its width as drawn
    for (const Attachment& a : pattern_.attachments) {
      if (pattern_.pieces[a.attached.piece].part != Part::Strap || !half_.shows(a.piece)) continue;
      const Vec2 at = onEdge(a.piece, a.edge, (a.from + a.to) / 2);
      for (const double off : {-kHalf, kHalf})
        add(SketchStroke::Edge, {put(at + Vec2{off, 0}), put(shoulder_ + Vec2{off, 0})});
    }
  }

  void addLaces() {
    if (!opening_.isLaced()) return;
    Polyline edge;
    for (const size_t i : half_.pieces())
      for (size_t l = 0; l < pattern_.pieces[i].lines(); ++l)
        if (pattern_.pieces[i].lineAt(l).role == EdgeRole::Opening)
          for (const Vec2 p : seen(half_.line(i, l))) edge.push_back(p);
    if (edge.empty()) return;
    std::sort(edge.begin(), edge.end(), [](Vec2 a, Vec2 b) { return a.y < b.y; });
    const auto at = [&](double y) {
      const auto p = std::lower_bound(edge.begin(), edge.end(), y, [](Vec2 q, double h) { return q.y < h; });
      return p == edge.end() ? edge.back().x : p->x;
    };
    for (double y = edge.front().y + kLaces / 2; y + kLaces < edge.back().y; y += kLaces) {
      const Vec2 a{at(y), y}, b{at(y + kLaces), y + kLaces};
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

  const Pattern& pattern_;
  const WornHalf& half_;
  const SideLine &mine_, &other_;
  const Opening& opening_;
  const Vec2 shoulder_;
  Polyline band_;
  std::vector<Polyline> folds_;  // of what is sewn on, over all of it
  double bandDepth_ = 0;
  Sketch sketch_;
};

}  // namespace

SketchExtent extentOf(const GarmentSketch& sketch) {
  SketchExtent e{1, HUGE_VAL, -HUGE_VAL};
  for (const Sketch* view : {&sketch.front, &sketch.back})
    for (const SketchLine& line : view->lines)
      for (const Vec2 p : line.points) {
        e.reach = std::max(e.reach, std::abs(p.x));
        e.top = std::min(e.top, p.y);
        e.bottom = std::max(e.bottom, p.y);
      }
  return e;
}

GarmentSketch sketchOf(const Pattern& pattern, const Block& block) {
  const WornHalf front(pattern, block, true), back(pattern, block, false);
  const SideLine frontSide(pattern, front, block.levels.at(level::kHem).front),
      backSide(pattern, back, block.levels.at(level::kHem).back);
  return {ViewSketch(pattern, block, front, frontSide, backSide, true).draw(),
          ViewSketch(pattern, block, back, backSide, frontSide, false).draw()};
}

}  // namespace armure
