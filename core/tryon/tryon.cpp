#include "tryon/tryon.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "measure/measure_table.h"
#include "pattern/outline_parts.h"
#include "tryon/trial.h"

namespace armure {
namespace {

using Eigen::Vector3d;

constexpr double kKpa = 1000;           // kPa in a N/mm2
constexpr double kMostVertices = 1200;  // of a half: a long skirt is meshed more widely

std::optional<double> median(std::vector<double> all) {
  if (all.empty()) return std::nullopt;
  const auto middle = all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2);
  std::nth_element(all.begin(), middle, all.end());
  return *middle;
}

// A mean by vertex of what is told by triangle.
class VertexMean {
 public:
  explicit VertexMean(size_t count) : sum_(count, 0), weight_(count, 0) {}
  void add(const SewnMesh::Triangle& t, double value) {
    for (const int v : t.vertices) {
      sum_[static_cast<size_t>(v)] += value;
      weight_[static_cast<size_t>(v)] += 1;
    }
  }
  std::vector<double> done() && {
    for (size_t i = 0; i < sum_.size(); ++i)
      if (weight_[i] > 0) sum_[i] /= weight_[i];
    return std::move(sum_);
  }

 private:
  std::vector<double> sum_, weight_;
};

// Reads off a trial what makers ask.
class Teller {
 public:
  Teller(const Trial& trial, double span) : trial_(trial), span_(span) {
    const auto count = static_cast<size_t>(trial.sewn().mesh().vertices);
    VertexMean tension(count), stretch(count), slack(count);
    for (size_t i = 0; i < trial.rest().cloth.size(); ++i) {
      const ClothTriangle::State& s = trial.rest().cloth[i];
      const SewnMesh::Triangle& t = trial.sewn().mesh().triangles[i];
      tension.add(t, std::max(0.0, s.tension[0] + s.tension[1]));
      stretch.add(t, std::max(0.0, s.greater));
      slack.add(t, std::max(0.0, -s.lesser));
    }
    for (const Vector3d& p : trial.rest().positions) {
      const RadialBody::Place place = trial.skin().nearest(p);
      off_.push_back(-place.depth);
      angle_.push_back(place.angle * 180 / std::numbers::pi);
    }
    tension_ = std::move(tension).done();
    stretch_ = std::move(stretch).done();
    slack_ = std::move(slack).done();
  }

  TryOn told() const {
    TryOn t;
    t.vertices = trial_.sewn().mesh().vertices;
    t.steps = trial_.steps();
    t.settled = trial_.rest().settled;
    t.laid = trial_.laid();
    tellLevels(t);
    tellBustPoint(t);
    t.top = along(EdgeRole::Top);
    t.hem = along(EdgeRole::Hem);
    t.armhole = along(EdgeRole::Armhole);
    tellOpening(t);
    tellSide(t);
    tellCups(t);
    tellCloth(t.cloth);
    tellSkin(t.skin);
    return t;
  }

 private:
  const Vector3d& at(int v) const { return trial_.rest().positions[static_cast<size_t>(v)]; }

  void tellLevels(TryOn& t) const {
    for (const LevelHeight& h : trial_.heights()) {
      std::vector<double> front, side, back;
      for (const size_t i : trial_.sewn().pieces())
        for (const Mark& m : trial_.pattern().pieces[i].levelMarks())
          for (const Anchor* a : {&m.a, &m.b}) {
            const auto spot = h.level == m.id ? trial_.sewn().spot(i, *a) : std::nullopt;
            if (!spot) continue;
            const bool behind = trial_.pattern().pieces[i].half == Half::Back;
            (onSideSeam(i, a->edge) ? side : behind ? back : front).push_back(trial_.at(*spot).y() - h.y);
          }
      if (front.empty() && side.empty() && back.empty()) continue;
      LevelSeat seat{h.level, trial_.pattern().levelName(h.level), median(front), median(side), median(back), h.y};
      tellPressure(seat, h.y);
      t.levels.push_back(std::move(seat));
    }
  }

  // Of the cloth near a height: how hard it presses, and what its tension round the body would press on a cylinder of
  // the body's mean radius there.
  void tellPressure(LevelSeat& seat, double y) const {
    constexpr double kNear = 20;  // mm
    double pressing = 0, tension = 0, radius = 0, area = 0;
    const auto mean = [](const std::vector<double>& by, int v, int w) {
      return (by[static_cast<size_t>(v)] + by[static_cast<size_t>(w)]) / 2;
    };
    for (const SewnMesh::Triangle& t : trial_.sewn().mesh().triangles) {
      const double third = std::abs(cross(t.flat[1] - t.flat[0], t.flat[2] - t.flat[0])) / 6;
      for (size_t i = 0; i < 3; ++i) {  // by the middles of its sides: right for what is quadratic over it
        const int v = t.vertices[i], w = t.vertices[(i + 1) % 3];
        const Vector3d p = (at(v) + at(w)) / 2;
        const double weight = third * std::max(0.0, 1 - std::abs(p.y() - y) / kNear);
        tension += weight * mean(tension_, v, w);
        radius += weight * std::hypot(p.x(), p.z() - trial_.skin().middle(p.y()));
        pressing += weight * mean(trial_.rest().pressure, v, w);
        area += weight;
      }
    }
    if (area <= 0) return;
    seat.pressure = kKpa * pressing / area;
    seat.laplace = kKpa * (tension / area) / (radius / area);
  }

  // Where the princess line, or the line that runs over the bust point, carries its bust notch.
  void tellBustPoint(TryOn& t) const {
    double nearest = HUGE_VAL;
    for (const size_t i : trial_.sewn().pieces()) {
      const Piece& p = trial_.pattern().pieces[i];
      if (p.half == Half::Back) continue;
      for (const Mark& m : p.levelMarks()) {
        if (m.id != level::kBust) continue;
        for (const Anchor* a : {&m.a, &m.b}) {
          const auto spot = trial_.sewn().spot(i, *a);
          if (!spot) continue;
          const Vector3d here = trial_.at(*spot);
          const double aside = std::abs(here.x() - span_ / 2);
          if (aside >= nearest) continue;
          nearest = aside;
          t.bustPoint = here.y() - trial_.form().yOf(id::kBust);
        }
      }
    }
  }

  std::vector<EdgeStand> along(EdgeRole role) const {
    std::vector<EdgeStand> all;
    for (const SewnPattern::Line& l : trial_.sewn().lines()) {
      if (l.role != role) continue;
      for (const int v : l.vertices) {
        const auto i = static_cast<size_t>(v);
        all.push_back({trial_.pattern().pieces[l.piece].id, l.edge, v, angle_[i], off_[i], kPerCm * tension_[i]});
      }
    }
    std::sort(all.begin(), all.end(), [](const EdgeStand& a, const EdgeStand& b) { return a.angle < b.angle; });
    return all;
  }

  // Across the edges of openings, from the cloth beside them: the traction on the edge, square to it.
  void tellOpening(TryOn& t) const {
    std::vector<std::vector<size_t>> round(trial_.rest().positions.size());
    const std::vector<SewnMesh::Triangle>& triangles = trial_.sewn().mesh().triangles;
    for (size_t i = 0; i < triangles.size(); ++i)
      for (const int v : triangles[i].vertices) round[static_cast<size_t>(v)].push_back(i);
    for (const SewnPattern::Line& l : trial_.sewn().lines()) {
      if (l.role != EdgeRole::Opening) continue;
      const Path& path = trial_.pattern().pieces[l.piece].edge(l.edge).path;
      for (size_t k = 0; k < l.vertices.size(); ++k) {
        const Vec2 run = unit(path.tangentAt(l.at[k])), across{run.y, -run.x};
        const Vector3d& place = at(l.vertices[k]);
        double sum = 0;
        const std::vector<size_t>& near = round[static_cast<size_t>(l.vertices[k])];
        for (const size_t i : near) {
          const Eigen::Vector3d& n = trial_.rest().cloth[i].tension;
          sum += across.x * across.x * n[0] + across.y * across.y * n[1] +
                 std::numbers::sqrt2 * across.x * across.y * n[2];
        }
        t.opening.push_back(
            {place.y(), kPerCm * sum / static_cast<double>(std::max<size_t>(1, near.size())), 2 * place.x()});
      }
    }
    std::sort(t.opening.begin(), t.opening.end(), [](const auto& a, const auto& b) { return a.y < b.y; });
  }

  bool onSideSeam(size_t piece, const std::string& edge) const {
    const Pattern& pattern = trial_.pattern();
    return std::any_of(pattern.seams.begin(), pattern.seams.end(), [&](const Seam& s) {
      const auto uses = [&](const SeamSide& side) { return side.piece == piece && side.uses(edge); };
      return isSideSeam(pattern, s) && (uses(s.a) || uses(s.b));
    });
  }

  // The seam between front and back: the straight line through it, seen from the side, by least squares.
  void tellSide(TryOn& t) const {
    std::vector<Vec2> line;  // (z, y)
    const Pattern& pattern = trial_.pattern();
    for (const Seam& s : pattern.seams) {
      if (!isSideSeam(pattern, s)) continue;
      for (const EdgeUse& use : s.a.chain)
        for (const SewnPattern::Line& l : trial_.sewn().lines())
          if (l.piece == s.a.piece && l.edge == use.edge)
            for (const int v : l.vertices) line.push_back({at(v).z(), at(v).y()});
    }
    if (line.size() < 3) return;
    Vec2 mean;
    for (const Vec2 p : line) mean = mean + p / static_cast<double>(line.size());
    double zy = 0, yy = 0;
    for (const Vec2 p : line) {
      zy += (p.x - mean.x) * (p.y - mean.y);
      yy += (p.y - mean.y) * (p.y - mean.y);
    }
    if (yy <= 0) return;
    Plumb plumb{std::atan(zy / yy) * 180 / std::numbers::pi, 0};
    for (const Vec2 p : line) plumb.wander = std::max(plumb.wander, std::abs(p.x - mean.x - zy / yy * (p.y - mean.y)));
    t.side = plumb;
  }

  // Over the breast: how much room there is between cloth and skin, and how much of the breast is pressed in.
  void tellCups(TryOn& t) const {
    constexpr double kUnsure = 0.15, kMl = 1000;  // of the breast's volume; mm3
    const BodyForm& form = trial_.form();
    const double bust = form.yOf(id::kBust), under = form.yOf(id::kUnderbust);
    const FormSection s = form.section(bust);
    if (s.breastDepth <= 0) return;
    double room = 0, pressed = 0;
    for (const SewnMesh::Triangle& part : trial_.sewn().mesh().triangles) {
      Vector3d middle = Vector3d::Zero();
      double off = 0;
      for (const int v : part.vertices) {
        middle += at(v) / 3;
        off += off_[static_cast<size_t>(v)] / 3;
      }
      // Over the cleft cloth stands off whatever the cup holds.
      const bool over = middle.y() > bust - (under - bust) && middle.y() < under && middle.z() > s.axis &&
                        middle.x() > s.breastX - s.breastInner / 2 && middle.x() < s.breastX + s.breastOuter;
      if (!over) continue;
      const double area = std::abs(cross(part.flat[1] - part.flat[0], part.flat[2] - part.flat[0])) / 2;
      (off > 0 ? room : pressed) += area * std::abs(off);
    }
    // A quarter of an ellipsoid below, as much above.
    const double breast =
        2.0 / 3 * std::numbers::pi / 2 * (s.breastInner + s.breastOuter) / 2 * s.breastDepth * 2 * (under - bust);
    const double empty = 2 * room / kMl, full = 2 * pressed / kMl, unsure = kUnsure * 2 * breast / kMl;
    t.cups = CupRoom{std::max(0.0, empty - unsure), empty + unsure, std::max(0.0, full - unsure), full + unsure};
  }

  void tellCloth(ClothPicture& cloth) const {
    for (size_t v = 0; v < trial_.rest().positions.size(); ++v) {
      const Vector3d& p = trial_.rest().positions[v];
      cloth.points.push_back({p.x(), p.y(), p.z()});
      cloth.pressure.push_back(kKpa * trial_.rest().pressure[v]);
    }
    cloth.angle = angle_;
    cloth.off = off_;
    cloth.stretch = stretch_;
    cloth.slack = slack_;
    for (const SewnMesh::Triangle& t : trial_.sewn().mesh().triangles)
      cloth.triangles.push_back({t.vertices, trial_.sewn().pieces()[static_cast<size_t>(t.piece)]});
    for (const SewnPattern::Line& l : trial_.sewn().lines())
      (isSewn(l.role) ? cloth.seams : cloth.edges).push_back(l.vertices);
  }

  // As deep as the cloth near a place presses the skin in, mm.
  double pressedIn(const Vector3d& place) const {
    constexpr double kNear = 20, kClear = 2;  // mm
    double sum = 0, weight = 0;
    for (size_t v = 0; v < trial_.rest().positions.size(); ++v) {
      const Vector3d& p = trial_.rest().positions[v];
      const double far = (p - Vector3d(std::abs(place.x()), place.y(), place.z())).squaredNorm() / (kNear * kNear);
      if (far > 4) continue;
      const double w = std::exp(-2 * far);
      sum += w * std::max(0.0, trial_.rest().depth[v]);
      weight += w;
    }
    const double mean = weight > 0.05 ? sum / weight : 0;
    return mean + std::min(kClear, mean);  // so that it does not come through between the points of the cloth
  }

  // Pressed in where the cloth presses.
  void tellSkin(SkinPicture& skin) const {
    constexpr int kAround = 96;
    constexpr double kDown = 6, kBelow = 40;  // mm
    skin.columns = kAround + 1;
    double lowest = trial_.form().bottom();
    for (const Vector3d& p : trial_.rest().positions) lowest = std::max(lowest, p.y());
    for (double y = trial_.skin().top(); y <= std::min(trial_.skin().bottom(), lowest + kBelow); y += kDown)
      for (int i = 0; i <= kAround; ++i) {
        const double angle = 2 * std::numbers::pi * i / kAround - std::numbers::pi;
        const Vector3d p = trial_.skin().skin(angle, y, -pressedIn(trial_.skin().skin(angle, y)));
        skin.points.push_back({p.x(), p.y(), p.z()});
      }
  }

  const Trial& trial_;
  const double span_;
  std::vector<double> angle_, off_, tension_, stretch_, slack_;  // by vertex
};

// So that no shell has more vertices than can be laid at once.
double widened(double spacing, const Pattern& pattern) {
  double area = 0;  // of a half, mm2
  for (const Piece& p : pattern.pieces)
    if (isWorn(p)) area += std::abs(signedArea(p.outline(1)));
  const double perVertex = std::sqrt(3) / 2;  // of the square of the spacing, in a grid of equal triangles
  return std::max(spacing, std::sqrt(area / (perVertex * kMostVertices)));
}

}  // namespace

const LevelSeat* TryOn::level(std::string_view id) const {
  const auto found = std::ranges::find(levels, id, &LevelSeat::level);
  return found == levels.end() ? nullptr : &*found;
}

Result<TryOn> tryOn(const Pattern& pattern, const Body& body, const TryOnOptions& options) {
  const bool opens = std::any_of(pattern.levels.begin(), pattern.levels.end(),
                                 [](const PatternLevel& l) { return l.gaps.opening > 0; });
  if (options.laced && !opens)
    return Problem{"The opening", "it has no lacing that could be drawn", "choose lacing, or try it without a tension"};
  try {
    TryOnOptions wide = options;
    wide.spacing = widened(options.spacing, pattern);
    wide.coarse = std::max(options.coarse, wide.spacing > options.spacing ? 1.7 * wide.spacing : 0);
    const Trial trial(pattern, body, wide);
    if (trial.stopped()) return Problem{"Trying on", "it was stopped", "try again"};
    TryOn told = Teller(trial, body.mm(id::kBustSpan)).told();
    told.laced = options.laced;
    return told;
  } catch (const std::invalid_argument& e) {  // a piece whose outline crosses itself: the sheet names it
    return Problem{"The pattern", msg("a piece cannot be laid on the body: {}", std::string(e.what())),
                   "mend what fails on the balance sheet first"};
  }
}

}  // namespace armure
