#include "tryon/trial.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <utility>

#include "layers/recipe.h"
#include "measure/measure_table.h"

namespace armure {
namespace {

using Eigen::Vector3d;

constexpr double kOff = 4;  // mm from the skin at the start
// How firm the body is, N/mm2 per mm of depth, between the form's levels. Guesses of ours, no source.
constexpr double kRibs = 0.0015, kWaist = 0.0005, kHip = 0.0008, kBreast = 0.0003;
constexpr double kClothWeight = 4e-6;  // N/mm2: 400 g/m2 of shell and strength layer; common practice, no source
// N/mm and N mm of a shell with its strength layer: a firm cloth gives less along its grain. Ours, no source.
constexpr double kAlongGrain = 65, kAcrossGrain = 45, kShear = 21, kBending = 1;
// Cloth that presses is held by friction against sliding up and down. At rest cloth holds cloth at 0.3 and more (from
// memory); she breathes and walks, and it creeps: a third of that is ours. It gives by kGives at 0.7 of what it holds,
// so that the energy stays smooth.
constexpr double kFriction = 0.1, kGives = 1;  // mm
// Over the breasts no mesh is wider than this, mm: from 12 mm up the bust point of a deep cup depends on the mesh.
constexpr double kOverBreasts = 10;
// As she is put into it: the breast swollen by a part of its depth and so much firmer, cloth so much stiffer to bend.
// With less, trials of 14 cm over the upper bust fold over; with these a few still do, and gathers should.
constexpr double kSwollen = 0.15, kFirmer = 30, kStiffer = 30;
// At rest when no vertex would go further than this, mm, or when the energy would not fall by more than this part:
// cloth that is slack over the cleft creeps on for a long time, with nothing to gain and nothing else moving. Roughly:
// enough to go on from with a finer mesh.
constexpr double kRoughly = 1.5, kRoughFall = 2e-3, kFully = 0.3, kFall = 5e-4;
constexpr double kBonesEnd = 60;  // mm above the chest line, where a garment goes on up to the shoulders; ours
constexpr double kStrap = 1;      // N/mm for each vertex of an edge that hangs on a strap; ours
constexpr double kHold = 0.08;    // N/mm a vertex at the waist, before it is known how hard the cloth presses; ours

std::vector<LevelHeight> heightsOf(const BodyForm& form) {
  return {{std::string(level::kBust), form.yOf(id::kBust)},
          {std::string(level::kUnderbust), form.yOf(id::kUnderbust)},
          {std::string(level::kWaist), form.yOf(id::kWaist)},
          {std::string(level::kHighHip), form.yOf(id::kHighHip)},
          {std::string(level::kHip), form.yOf(id::kHip)}};
}

// Along what runs down: panel seams and openings, from `top` downwards.
void addBone(SolidScene& scene, const SewnPattern::Line& line, double top) {
  if (line.role != EdgeRole::Seam && !isCentre(line.role)) return;
  Bone bone;
  double last = 0;
  for (size_t i = 0; i < line.at.size(); ++i) {
    if (scene.start()[static_cast<size_t>(line.vertices[i])].y() < top) continue;
    if (!bone.vertices.empty()) bone.lengths.push_back(line.at[i] - last);
    bone.vertices.push_back(line.vertices[i]);
    last = line.at[i];
  }
  if (bone.vertices.size() < 2) return;
  bone.bending /= 2;  // each seam has two sides
  bone.stretching /= 2;
  scene.addBone(std::move(bone));
}

// How many layers are sewn to a piece of the shell and are stretched with it.
int linings(const Pattern& pattern, const std::string& piece) {
  return static_cast<int>(std::count_if(pattern.pieces.begin(), pattern.pieces.end(), [&](const Piece& p) {
    const LayerRecipe* recipe = findLayer(p.layer);
    return recipe && recipe->firm && p.source == piece;
  }));
}

// Draws the edges of openings to the middle with a tension, N/mm, and says which vertices.
void lace(SolidScene& scene, const SewnPattern& sewn, double tension, std::vector<bool>& laced) {
  for (const SewnPattern::Line& l : sewn.lines()) {
    if (l.role != EdgeRole::Opening) continue;
    for (size_t i = 0; i < l.vertices.size(); ++i) {
      const double before = i > 0 ? l.at[i] - l.at[i - 1] : 0, after = i + 1 < l.at.size() ? l.at[i + 1] - l.at[i] : 0;
      scene.pull(l.vertices[i], 0, tension * (before + after) / 2, 0);
      laced[static_cast<size_t>(l.vertices[i])] = true;
    }
  }
}

std::vector<std::string> wornPieces(const Pattern& pattern) {
  std::vector<std::string> ids;
  for (const Piece& p : pattern.pieces)
    if (isWorn(p)) ids.push_back(p.id);
  return ids;
}

// `round`: the vertices of `sewn` as they were put on.
std::vector<Grip> gripsOf(const LaidCloth& laid, const SewnPattern& sewn, const std::vector<Vector3d>& round) {
  std::vector<Vector3d> pressures;
  for (const double p : laid.pressure) pressures.emplace_back(p, 0, 0);
  pressures = carriedOver(laid.sewn, pressures, sewn);
  const std::vector<double> areas = sewn.mesh().areas();
  std::vector<Grip> grips;
  for (size_t v = 0; v < round.size(); ++v)
    grips.push_back({round[v].y(), kFriction * std::max(0.0, pressures[v].x()) * areas[v]});
  return grips;
}

}  // namespace

Trial::Trial(const Pattern& pattern, const Body& body, const TryOnOptions& options)
    : pattern_(pattern),
      form_(body, options.breasts),
      skin_(form_),
      heights_(heightsOf(form_)),
      laced_(options.laced),
      stop_(options.stop) {
  std::shared_ptr<const LaidCloth> from = options.from;
  if (!from || from->pieces != wornPieces(pattern)) {
    SewnPattern coarse(pattern, std::max(options.spacing, options.coarse));
    const std::vector<Vector3d> round = laidRound(coarse, pattern_, skin_, form_.shoulder(), heights_, kOff);
    rested(coarse, round, {}, Stage::PutOn);
    if (stopped_) return;
    rested(std::move(coarse), laid_->positions, gripsOf(*laid_, laid_->sewn, round), Stage::Roughly);
    if (stopped_) return;
    from = laid_;
  }
  const SewnPattern even(pattern, std::max(options.spacing, options.coarse));
  SewnPattern fine(pattern, options.spacing, finerOverBreasts(*from, even, options.spacing));
  const std::vector<Vector3d> round = laidRound(fine, pattern_, skin_, form_.shoulder(), heights_, kOff);
  std::vector<Vector3d> start = carriedOver(from->sewn, from->positions, fine);
  // Friction goes by how hard the cloth presses, which is known only when it has come to rest: twice.
  const std::vector<Grip> grips = gripsOf(*from, fine, round);
  rested(std::move(fine), std::move(start), grips, Stage::Roughly);
  if (stopped_) return;
  rested(laid_->sewn, laid_->positions, gripsOf(*laid_, laid_->sewn, round), Stage::Fully);
}

Trial::Breast Trial::breast() const {
  const double y = form_.yOf(id::kBust);
  const FormSection s = form_.section(y);
  if (s.breastDepth <= 0) return {};
  double angle = 0;
  for (int i = 0; i < 5; ++i) angle = std::asin(std::min(1.0, s.breastX / skin_.radius(angle, y)));
  return {skin_.skin(angle, y), s.breastDepth, std::hypot(form_.yOf(id::kUnderbust) - y, s.breastDepth)};
}

// A disc on each piece round what came to lie nearest to the bust point, as far as it is from there to the underbust.
SewnPattern::Spacings Trial::finerOverBreasts(const LaidCloth& laid, const SewnPattern& now, double spacing) const {
  const Breast breast = this->breast();
  std::map<size_t, std::pair<double, Vec2>> nearest;  // by piece, how far and where, flat
  for (const SewnMesh::Triangle& t : laid.sewn.mesh().triangles)
    for (size_t i = 0; i < 3; ++i) {
      const double far = (laid.positions[static_cast<size_t>(t.vertices[i])] - breast.bustPoint).norm();
      auto& best = nearest.try_emplace(static_cast<size_t>(t.piece), far, t.flat[i]).first->second;
      if (far < best.first) best = {far, t.flat[i]};
    }
  const std::vector<Vec2> middlesBefore = middlesOf(laid.sewn.mesh()), middlesNow = middlesOf(now.mesh());
  SewnPattern::Spacings all;
  for (const auto& [piece, place] : nearest) {
    const auto& [far, flat] = place;
    if (far >= breast.reach) continue;
    const Vec2 centre = flat + (middlesNow[piece] - middlesBefore[piece]);
    all.emplace(now.pieces()[piece], MeshSpacing(spacing, kOverBreasts, centre, breast.reach - far));
  }
  return all;
}

void Trial::rested(SewnPattern sewn, std::vector<Vector3d> start, const std::vector<Grip>& grips, Stage stage) {
  for (const Half half : {Half::Front, Half::Back}) {
    for (const int v : centreVertices(sewn, pattern_, half)) start[static_cast<size_t>(v)].x() = 0;
    for (const int v : openingVertices(sewn, half))
      start[static_cast<size_t>(v)].x() = gapAt(start[static_cast<size_t>(v)].y()) / 2;
  }
  SolidScene scene(sewn.mesh(), std::move(start));
  dress(scene, sewn, stage);
  if (grips.empty()) holdAtWaist(scene, sewn);
  for (size_t v = 0; v < grips.size(); ++v)
    if (grips[v].most > 0) scene.hold(static_cast<int>(v), 1, grips[v].y, grips[v].most / kGives, grips[v].most);
  SettleOptions settling;
  settling.stopAt = stage == Stage::Fully ? kFully : kRoughly;
  settling.stopFall = stage == Stage::Fully ? kFall : kRoughFall;
  settling.stop = stop_;
  rest_ = settle(scene, settling);
  stopped_ = rest_.stopped;
  steps_ += rest_.steps;
  std::vector<std::string> worn = wornPieces(pattern_);
  laid_ =
      std::make_shared<const LaidCloth>(LaidCloth{std::move(worn), std::move(sewn), rest_.positions, rest_.pressure});
}

std::vector<int> Trial::openingVertices(const SewnPattern& sewn, Half half) const {
  std::vector<int> all;
  for (const SewnPattern::Line& l : sewn.lines())
    if (l.role == EdgeRole::Opening && pattern_.pieces[l.piece].half == half)
      all.insert(all.end(), l.vertices.begin(), l.vertices.end());
  return all;
}

// How far the opening stands open at a height, mm: straight between the levels.
double Trial::gapAt(double y) const {
  double above = -HUGE_VAL, below = HUGE_VAL, gapAbove = 0, gapBelow = 0;
  for (const LevelHeight& h : heights_) {
    const PatternLevel* l = pattern_.level(h.level);
    if (!l) continue;
    if (h.y <= y && h.y > above) above = h.y, gapAbove = l->gaps.opening;
    if (h.y >= y && h.y < below) below = h.y, gapBelow = l->gaps.opening;
  }
  if (above == -HUGE_VAL) return gapBelow;
  if (below == HUGE_VAL) return gapAbove;
  return below > above ? gapAbove + (gapBelow - gapAbove) * (y - above) / (below - above) : gapAbove;
}

void Trial::dress(SolidScene& scene, const SewnPattern& sewn, Stage stage) const {
  const double bending = stage == Stage::PutOn ? kStiffer * kBending : kBending;
  for (size_t i = 0; i < sewn.pieces().size(); ++i) {
    const Piece& p = pattern_.pieces[sewn.pieces()[i]];
    const double layers = 1 + linings(pattern_, p.id);
    const Cloth cloth{layers * kAlongGrain, layers * kAcrossGrain, layers * kShear};
    const Vec2 grain = p.grainBottom - p.grainTop;
    scene.setCloth(static_cast<int>(i), cloth, layers * bending, layers * kClothWeight,
                   dot(grain, grain) > 0 ? grain : Vec2{0, 1});
  }
  scene.body = touching(scene, stage);
  std::vector<bool> laced(scene.start().size(), false);
  if (laced_) lace(scene, sewn, *laced_ / kPerCm, laced);
  for (const Half half : {Half::Front, Half::Back})
    for (const int v : centreVertices(sewn, pattern_, half))
      if (!laced[static_cast<size_t>(v)]) scene.fix(v, 0);
  for (const SewnPattern::Line& l : sewn.lines()) {
    if (isSewn(l.role) || isCentre(l.role)) addBone(scene, l, form_.top() - kBonesEnd);
    // A strap that is sewn on there carries it.
    if (l.role == EdgeRole::Strap)
      for (const int v : l.vertices) scene.hold(v, 1, scene.start()[static_cast<size_t>(v)].y(), kStrap);
  }
}

SolidScene::Body Trial::touching(const SolidScene& scene, Stage stage) const {
  struct Flesh {
    double firm = 0, swollen = 0;  // N/mm2 per mm; mm
  };
  std::vector<Flesh> flesh;  // by where the cloth begins: it slides by far less than a zone is wide
  const Breast breast = this->breast();
  for (const Vector3d& p : scene.start()) {
    Flesh here{firmness(p.y(), skin_.place(p).angle), 0};
    const double far = (p - breast.bustPoint).norm();
    if (stage == Stage::PutOn && far < breast.reach) {
      here.firm *= kFirmer;
      here.swollen = kSwollen * breast.depth * (1 + std::cos(std::numbers::pi * far / breast.reach)) / 2;
    }
    flesh.push_back(here);
  }
  return [this, flesh = std::move(flesh)](int vertex, const Vector3d& p) {
    const Flesh& here = flesh[static_cast<size_t>(vertex)];
    const RadialBody::Place flat = skin_.place(p), place = flat.depth + here.swollen > 0 ? skin_.nearest(p) : flat;
    return Touch{place.depth + here.swollen, place.outwards, here.firm};
  };
}

void Trial::holdAtWaist(SolidScene& scene, const SewnPattern& sewn) const {
  for (const size_t i : sewn.pieces())
    for (const Mark& m : pattern_.pieces[i].levelMarks())
      if (m.id == level::kWaist)
        for (const Anchor* a : {&m.a, &m.b})
          if (const auto spot = sewn.spot(i, *a))
            scene.hold(spot->part < 0.5 ? spot->from : spot->to, 1, form_.yOf(id::kWaist), kHold);
}

double Trial::firmness(double y, double angle) const {
  const double bust = form_.yOf(id::kBust), under = form_.yOf(id::kUnderbust), waist = form_.yOf(id::kWaist);
  if (y < under) return angle < std::numbers::pi / 3 && y > bust - (under - bust) ? kBreast : kRibs;
  if (y < waist) return kRibs + (kWaist - kRibs) * (y - under) / (waist - under);
  return kWaist + (kHip - kWaist) * std::min(1.0, (y - waist) / (form_.yOf(id::kHighHip) - waist));
}

Vector3d Trial::at(const SewnPattern::Spot& s) const {
  const auto p = [&](int v) { return rest_.positions[static_cast<size_t>(v)]; };
  return (1 - s.part) * p(s.from) + s.part * p(s.to);
}

}  // namespace armure
