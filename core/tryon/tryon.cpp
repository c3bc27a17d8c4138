#include "tryon/tryon.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "measure/measure_table.h"
#include "solid/equilibrium.h"
#include "tryon/laid_round.h"
#include "tryon/radial_body.h"
#include "tryon/sewn_pattern.h"

namespace armure {
namespace {

using Eigen::Vector3d;

constexpr double kOff = 4;  // mm from the skin at the start
// How firm the body is, N/mm2 per mm of depth, between the form's levels. Guesses of ours, no source.
constexpr double kRibs = 0.0015, kWaist = 0.0005, kHip = 0.0008, kBreast = 0.0003;
constexpr double kClothWeight = 4e-6;  // N/mm2: 400 g/m2 of shell and strength layer; common practice, no source
constexpr double kHold = 0.02;         // N/mm a vertex at the waist: friction and flesh keep it there; ours

std::vector<LevelHeight> heightsOf(const BodyForm& form) {
  return {{std::string(level::kBust), form.yOf(id::kBust)},
          {std::string(level::kUnderbust), form.yOf(id::kUnderbust)},
          {std::string(level::kWaist), form.yOf(id::kWaist)},
          {std::string(level::kHighHip), form.yOf(id::kHighHip)},
          {std::string(level::kHip), form.yOf(id::kHip)}};
}

std::optional<double> median(std::vector<double> all) {
  if (all.empty()) return std::nullopt;
  const auto middle = all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2);
  std::nth_element(all.begin(), middle, all.end());
  return *middle;
}

class Trial {
 public:
  Trial(const Pattern& pattern, const Body& body, const TryOnOptions& options)
      : pattern_(pattern),
        form_(body),
        skin_(form_),
        heights_(heightsOf(form_)),
        sewn_(pattern, std::max(options.spacing, options.coarse)),
        span_(body.mm(id::kBustSpan)) {
    rest_ = rested(laidRound(sewn_, pattern_, skin_, heights_, kOff));
    steps_ = rest_.steps;
    if (options.spacing >= options.coarse) return;
    SewnPattern fine(pattern, options.spacing);
    std::vector<Vector3d> start = carriedOver(sewn_, rest_.positions, fine);
    sewn_ = std::move(fine);
    rest_ = rested(std::move(start));
    steps_ += rest_.steps;
  }

  TryOn told() const {
    TryOn t;
    t.vertices = sewn_.mesh().vertices;
    t.steps = steps_;
    t.settled = rest_.settled;
    tellLevels(t);
    tellBustPoint(t);
    tellTop(t);
    return t;
  }

 private:
  Rest rested(std::vector<Vector3d> start) const {
    for (const Half half : {Half::Front, Half::Back}) {
      for (const int v : centreVertices(sewn_, pattern_, half)) start[static_cast<size_t>(v)].x() = 0;
      for (const int v : openingVertices(half))
        start[static_cast<size_t>(v)].x() = gapAt(start[static_cast<size_t>(v)].y()) / 2;
    }
    SolidScene scene(sewn_.mesh(), std::move(start));
    dress(scene);
    return settle(scene, {});
  }

  std::vector<int> openingVertices(Half half) const {
    std::vector<int> all;
    for (const SewnPattern::Line& l : sewn_.lines())
      if (l.role == EdgeRole::Opening && pattern_.pieces[l.piece].half == half)
        all.insert(all.end(), l.vertices.begin(), l.vertices.end());
    return all;
  }

  // How far the opening stands open at a height, mm: straight between the levels.
  double gapAt(double y) const {
    double above = -HUGE_VAL, below = HUGE_VAL, gapAbove = 0, gapBelow = 0;
    for (const LevelHeight& h : heights_)
      for (const PatternLevel& l : pattern_.levels) {
        if (l.id != h.level) continue;
        if (h.y <= y && h.y > above) above = h.y, gapAbove = l.gaps.opening;
        if (h.y >= y && h.y < below) below = h.y, gapBelow = l.gaps.opening;
      }
    if (above == -HUGE_VAL) return gapBelow;
    if (below == HUGE_VAL) return gapAbove;
    return below > above ? gapAbove + (gapBelow - gapAbove) * (y - above) / (below - above) : gapAbove;
  }

  void dress(SolidScene& scene) const {
    for (size_t i = 0; i < sewn_.pieces().size(); ++i) scene.setCloth(static_cast<int>(i), Cloth{}, 1, kClothWeight);
    std::vector<double> firm;  // where the cloth begins: it slides by far less than a zone is wide
    for (const Vector3d& p : scene.start()) firm.push_back(firmness(p.y(), skin_.place(p).angle));
    scene.body = [this, firm = std::move(firm)](int vertex, const Vector3d& p) {
      const RadialBody::Place place = skin_.place(p);
      return Touch{place.depth, place.outwards, firm[static_cast<size_t>(vertex)]};
    };
    for (const int v : centreVertices(sewn_, pattern_, Half::Front)) scene.fix(v, 0);
    for (const int v : centreVertices(sewn_, pattern_, Half::Back)) scene.fix(v, 0);
    for (const SewnPattern::Line& l : sewn_.lines())
      if (isSewn(l.role) || isCentre(l.role)) addBone(scene, l);
    for (const size_t i : sewn_.pieces())
      for (const Mark& m : pattern_.pieces[i].levelMarks())
        if (m.id == level::kWaist)
          for (const Anchor* a : {&m.a, &m.b})
            if (const auto spot = sewn_.spot(i, *a))
              scene.hold(spot->part < 0.5 ? spot->from : spot->to, 1, form_.yOf(id::kWaist), kHold);
  }

  // Along what runs down: panel seams and openings.
  static void addBone(SolidScene& scene, const SewnPattern::Line& line) {
    if (line.role != EdgeRole::Seam && !isCentre(line.role)) return;
    Bone bone{line.vertices, {}};
    for (size_t i = 0; i + 1 < line.at.size(); ++i) bone.lengths.push_back(line.at[i + 1] - line.at[i]);
    bone.bending /= 2;  // each seam has two sides
    bone.stretching /= 2;
    scene.addBone(std::move(bone));
  }

  double firmness(double y, double angle) const {
    const double bust = form_.yOf(id::kBust), under = form_.yOf(id::kUnderbust), waist = form_.yOf(id::kWaist);
    if (y < under) return angle < std::numbers::pi / 3 && y > bust - (under - bust) ? kBreast : kRibs;
    if (y < waist) return kRibs + (kWaist - kRibs) * (y - under) / (waist - under);
    return kWaist + (kHip - kWaist) * std::min(1.0, (y - waist) / (form_.yOf(id::kHighHip) - waist));
  }

  Vector3d at(const SewnPattern::Spot& s) const {
    const auto p = [&](int v) { return rest_.positions[static_cast<size_t>(v)]; };
    return (1 - s.part) * p(s.from) + s.part * p(s.to);
  }

  void tellLevels(TryOn& t) const {
    constexpr double kFront = 60, kBack = 120;  // degrees from centre front
    for (const LevelHeight& h : heights_) {
      std::vector<double> front, side, back;
      for (const size_t i : sewn_.pieces())
        for (const Mark& m : pattern_.pieces[i].levelMarks())
          for (const Anchor* a : {&m.a, &m.b}) {
            const auto spot = h.level == m.id ? sewn_.spot(i, *a) : std::nullopt;
            if (!spot) continue;
            const double angle = degreesRound(at(*spot));
            (angle < kFront ? front : angle < kBack ? side : back).push_back(at(*spot).y() - h.y);
          }
      if (!front.empty() || !side.empty() || !back.empty())
        t.levels.push_back({h.level, median(front), median(side), median(back), pressureNear(h.y)});
    }
  }

  double degreesRound(const Vector3d& p) const { return skin_.place(p).angle * 180 / std::numbers::pi; }

  // kPa.
  double pressureNear(double y) const {
    constexpr double kNear = 15, kKpa = 1000;  // mm; kPa in a N/mm2
    double sum = 0;
    int count = 0;
    for (size_t v = 0; v < rest_.positions.size(); ++v) {
      if (std::abs(rest_.positions[v].y() - y) > kNear || rest_.pressure[v] <= 0) continue;
      sum += rest_.pressure[v];
      ++count;
    }
    return count > 0 ? kKpa * sum / count : 0;
  }

  // Where the princess line, or the line that runs over the bust point, carries its bust notch.
  void tellBustPoint(TryOn& t) const {
    double nearest = HUGE_VAL;
    for (const size_t i : sewn_.pieces()) {
      const Piece& p = pattern_.pieces[i];
      if (p.half == Half::Back) continue;
      for (const Mark& m : p.levelMarks()) {
        if (m.id != level::kBust) continue;
        for (const Anchor* a : {&m.a, &m.b}) {
          const auto spot = sewn_.spot(i, *a);
          if (!spot) continue;
          const Vector3d here = at(*spot);
          const double aside = std::abs(here.x() - span_ / 2);
          if (aside >= nearest) continue;
          nearest = aside;
          t.bustPoint = here.y() - form_.yOf(id::kBust);
        }
      }
    }
  }

  void tellTop(TryOn& t) const {
    constexpr double kPerCm = 10;  // N/cm in a N/mm
    std::vector<double> tension(rest_.positions.size(), 0), count(rest_.positions.size(), 0);
    for (size_t i = 0; i < rest_.cloth.size(); ++i)
      for (const int v : sewn_.mesh().triangles[i].vertices) {
        tension[static_cast<size_t>(v)] += std::max(0.0, rest_.cloth[i].tension[0] + rest_.cloth[i].tension[1]);
        count[static_cast<size_t>(v)] += 1;
      }
    for (const SewnPattern::Line& l : sewn_.lines()) {
      if (l.role != EdgeRole::Top) continue;
      for (const int v : l.vertices) {
        const auto i = static_cast<size_t>(v);
        const RadialBody::Place place = skin_.place(rest_.positions[i]);
        t.top.push_back({pattern_.pieces[l.piece].id, l.edge, place.angle * 180 / std::numbers::pi, -place.depth,
                         count[i] > 0 ? kPerCm * tension[i] / count[i] : 0});
      }
    }
    std::sort(t.top.begin(), t.top.end(), [](const EdgeStand& a, const EdgeStand& b) { return a.angle < b.angle; });
  }

  const Pattern& pattern_;
  const BodyForm form_;
  const RadialBody skin_;
  const std::vector<LevelHeight> heights_;
  SewnPattern sewn_;
  const double span_;
  Rest rest_;
  int steps_ = 0;
};

}  // namespace

Result<TryOn> tryOn(const Pattern& pattern, const Body& body, const TryOnOptions& options) {
  for (const Piece& p : pattern.pieces) {
    const bool overShoulder =
        std::any_of(p.edges.begin(), p.edges.end(), [](const Edge& e) { return e.role == EdgeRole::Armhole; });
    if (p.layer == "shell" && (overShoulder || p.part == Part::Yoke))
      return Problem{p.name, "it goes over the shoulder, and the form ends under the arms",
                     "try on a garment that ends at a top edge below the shoulders"};
  }
  try {
    return Trial(pattern, body, options).told();
  } catch (const std::invalid_argument& e) {  // a piece whose outline crosses itself: the sheet names it
    return Problem{"The pattern", msg("a piece cannot be laid on the body: {}", std::string(e.what())),
                   "mend what fails on the balance sheet first"};
  }
}

}  // namespace armure
