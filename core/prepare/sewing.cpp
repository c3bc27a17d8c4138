#include "prepare/sewing.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>
#include <set>

#include "layers/recipe.h"
#include "parts/bones/bones.h"
#include "parts/bones/eyelets.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kRunsOn = std::numbers::pi / 4;  // a line that turns by less at a corner goes on there

bool isShellSeam(const Pattern& pattern, const Seam& s) {
  const size_t count = pattern.shellPieces();
  return s.a.piece < count && s.b.piece < count;
}

// The seam an edge is sewn in, by its place; and the piece on its other side.
struct Across {
  size_t seam = 0, piece = 0;
};

class Enclosures {
 public:
  explicit Enclosures(const Pattern& pattern) : pattern_(pattern) {}

  std::vector<std::pair<size_t, size_t>> find() && {
    for (size_t i = 0; i < pattern_.seams.size(); ++i) {
      const Seam& s = pattern_.seams[i];
      if (!isShellSeam(pattern_, s)) continue;
      if (s.kind == SeamKind::Dart) {
        dart(i);
        continue;
      }
      for (const bool upper : {true, false}) end(i, upper);
    }
    return {pairs_.begin(), pairs_.end()};
  }

 private:
  std::optional<Across> across(size_t piece, std::string_view edge, size_t but) const {
    for (size_t i = 0; i < pattern_.seams.size(); ++i) {
      if (i == but || !isShellSeam(pattern_, pattern_.seams[i])) continue;
      const Seam& s = pattern_.seams[i];
      if (s.a.piece == piece && s.a.uses(edge)) return Across{i, s.b.piece};
      if (s.b.piece == piece && s.b.uses(edge)) return Across{i, s.a.piece};
    }
    return std::nullopt;
  }

  // The line beyond an end of a side.
  const Edge& beyond(const SeamSide& side, bool upper) const {
    return pattern_.pieces[side.piece].lineAt(lineBeyond(pattern_, side, upper));
  }

  // Three pieces meet at the end: both lines beyond it are sewn to a third. Where that one's line runs on there, and
  // turns less than those of the two, the seam ends on it.
  void end(size_t i, bool upper) {
    const Seam& s = pattern_.seams[i];
    const Edge &a = beyond(s.a, upper), &b = beyond(s.b, upper);
    const auto onA = across(s.a.piece, a.id, i), onB = across(s.b.piece, b.id, i);
    if (!onA || !onB || onA->piece != onB->piece || onA->seam == onB->seam) return;
    const double turn = turnBetween(onA->piece, pattern_.seams[onA->seam], pattern_.seams[onB->seam]);
    if (turn > kRunsOn || turn > turnBetween(s.a.piece, s, pattern_.seams[onA->seam]) ||
        turn > turnBetween(s.b.piece, s, pattern_.seams[onB->seam]))
      return;
    pairs_.insert({i, onA->seam});
    pairs_.insert({i, onB->seam});
  }

  // The least a piece's outline turns where its edges in two seams follow each other; radians.
  double turnBetween(size_t piece, const Seam& one, const Seam& other) const {
    const Piece& p = pattern_.pieces[piece];
    double least = HUGE_VAL;
    for (size_t k = 0; k < p.lines(); ++k) {
      const Edge &e = p.lineAt(k), &f = p.lineAt(p.next(k));
      const auto in = [&](const Seam& s, const Edge& x) {
        return (s.a.piece == piece && s.a.uses(x.id)) || (s.b.piece == piece && s.b.uses(x.id));
      };
      if ((in(one, e) && in(other, f)) || (in(other, e) && in(one, f)))
        least = std::min(least, std::abs(angleBetween(e.path.endTangent(), f.path.startTangent())));
    }
    return least;
  }

  // Before whatever its mouth lies in.
  void dart(size_t i) {
    const Seam& s = pattern_.seams[i];
    const Piece& p = pattern_.pieces[s.a.piece];
    for (const Dart& d : p.darts) {
      if (d.id != s.id || !d.isOpen()) continue;
      const size_t mouth = edgePlace(p, d.mouth), n = p.edges.size();
      for (const size_t beside : {(mouth + 1) % n, (mouth + n - 1) % n})
        if (const auto there = across(s.a.piece, p.edges[beside].id, i)) pairs_.insert({i, there->seam});
    }
  }

  const Pattern& pattern_;
  std::set<std::pair<size_t, size_t>> pairs_;
};

Work workOf(const Pattern& pattern, const Seam& s) {
  if (s.kind == SeamKind::Dart) return Work::Darts;
  if (s.kind == SeamKind::Shoulder) return Work::Shoulders;
  const Piece &a = pattern.pieces[s.a.piece], &b = pattern.pieces[s.b.piece];
  const auto one = [&](Part part) { return (a.part == part) != (b.part == part); };
  const auto any = [&](Part part) { return a.part == part || b.part == part; };
  if (any(Part::CupCover)) return Work::Covers;
  if (isCup(a) && isCup(b)) return Work::CupSeams;
  if (isCup(a) != isCup(b)) return Work::SetCups;
  if (any(Part::ShoulderBand)) return Work::SetBand;
  if (any(Part::Insert)) return Work::Inserts;
  if (isSideSeam(pattern, s)) return Work::Sides;
  if (one(Part::Skirt)) return Work::Waist;
  if (one(Part::Yoke)) return Work::SetYokes;
  if (a.part == Part::Yoke) return Work::YokeSeams;
  if (a.part == Part::Skirt) return Work::SkirtSeams;
  return a.half == Half::Back ? Work::BackPanels : Work::FrontPanels;
}

// Something to sew: a seam of two pieces, or of one and its mirror image.
struct Task {
  Work work{};
  SewnSeam seam;
  std::optional<size_t> place;  // in Pattern::seams
};

std::vector<Task> seamTasks(const Pattern& pattern) {
  std::vector<Task> tasks;
  for (size_t i = 0; i < pattern.seams.size(); ++i) {
    const Seam& s = pattern.seams[i];
    if (!isShellSeam(pattern, s)) continue;
    tasks.push_back({workOf(pattern, s), {s.id, s.name, pattern.sidePath(s.a).length(), s.ease(), s.notches}, i});
  }
  for (size_t i = 0; i < pattern.shellPieces(); ++i) {
    const Piece& p = pattern.pieces[i];
    for (const Edge& e : p.edges) {
      if (e.role != EdgeRole::Centre) continue;
      const Work work = isCup(p)                ? Work::CupSeams
                        : p.part == Part::Yoke  ? Work::YokeSeams
                        : p.part == Part::Skirt ? Work::SkirtSeams
                        : p.half == Half::Back  ? Work::BackPanels
                                                : Work::FrontPanels;
      tasks.push_back({work, {p.id + "." + e.id, msg("centre seam of {}", p.name), e.path.length(), 0, {}}, {}});
    }
  }
  return tasks;
}

// A facing is sewn where its edge is finished.
std::optional<Work> workFor(LayerUse use) {
  switch (use) {
    case LayerUse::Fused:
      return Work::Fuse;
    case LayerUse::Bonded:
      return Work::Bond;
    case LayerUse::Mounted:
      return Work::Mount;
    case LayerUse::Inlaid:
      return Work::Pads;
    case LayerUse::Facing:
      return std::nullopt;
    case LayerUse::Lining:
      break;
  }
  return Work::LiningSeams;
}

// What closes an opening and is set in one go; lacing is seen by its eyelets.
void addClosing(OpeningKind kind, std::set<Work>& works) {
  switch (kind) {
    case OpeningKind::Zip:
    case OpeningKind::ZipLaced:
    case OpeningKind::Hooks:
      works.insert(Work::Zip);
      return;
    case OpeningKind::Busk:
      works.insert(Work::Busk);
      return;
    case OpeningKind::Fold:
    case OpeningKind::Seam:
    case OpeningKind::Lacing:
    case OpeningKind::VLacing:
    case OpeningKind::Loops:
    case OpeningKind::VLoops:
      break;
  }
}

bool opens(const Pattern& pattern, Half half) {
  for (size_t i = 0; i < pattern.shellPieces(); ++i)
    for (const Edge& e : pattern.pieces[i].edges)
      if (pattern.pieces[i].half == half && e.role == EdgeRole::Opening) return true;
  return false;
}

// The works beside seams that this garment needs.
std::set<Work> furtherWorks(const Pattern& pattern, const Block& block, const Rules& rules) {
  std::set<Work> works;
  const bool toile = rules.option(key::kCutFor) == CutFor::Toile;
  for (const LayerRecipe* recipe : layersOf(rules)) {
    if (!recipe || toile) continue;
    if (const auto work = workFor(recipe->use)) works.insert(*work);
    if (recipe->use == LayerUse::Lining) works.insert(Work::SetLining);
  }
  for (const Channel& c : channelsOf(pattern, block, rules)) {
    const Seam* s = c.seam.empty() ? nullptr : pattern.seam(c.seam);
    works.insert(s && workOf(pattern, *s) == Work::Sides ? Work::SideBones : Work::Bones);
  }
  if (opens(pattern, Half::Back)) addClosing(block.back.opening.kind, works);
  if (opens(pattern, Half::Front)) addClosing(block.front.opening.kind, works);
  if (!eyeletsOf(pattern, block, rules).empty()) works.insert(Work::Eyelets);
  if (const PatternLevel* waist = pattern.level(level::kWaist); waist && waist->ring) works.insert(Work::WaistStay);
  for (const Piece& p : pattern.pieces) {
    if (p.part == Part::Strap) works.insert(Work::Straps);
    if (p.part == Part::Trim) works.insert(Work::Trims);
    if (p.part == Part::Modesty) works.insert(Work::Modesty);
    if (p.part == Part::CupCover) works.insert(Work::Covers);
    for (const Edge& e : p.edges)
      if (p.layer == "shell" && e.role == EdgeRole::Hem) works.insert(Work::Hem);
  }
  if (!works.contains(Work::SetLining)) works.insert(Work::Edges);
  return works;
}

}  // namespace

std::vector<std::pair<size_t, size_t>> enclosures(const Pattern& pattern) { return Enclosures(pattern).find(); }

std::vector<SewingStep> sewingOrder(const Pattern& pattern, const Block& block, const Rules& rules) {
  const bool early = rules.option(key::kSidesSewn) == SidesSewn::WithPanels;
  const auto rank = [&](Work w) { return early ? workRow(w).sidesWithPanels : workRow(w).rank; };
  std::vector<Task> tasks = seamTasks(pattern);
  for (const Work w : furtherWorks(pattern, block, rules))
    if (std::ranges::find(tasks, w, &Task::work) == tasks.end()) tasks.push_back({w, {}, {}});
  const auto before = enclosures(pattern);
  std::vector<SewingStep> steps;
  std::set<size_t> sewn;  // seams
  const auto isFree = [&](const Task& t) {
    return !t.place || std::ranges::all_of(before, [&](const auto& pair) {
      return pair.second != *t.place || sewn.contains(pair.first);
    });
  };
  while (!tasks.empty()) {
    auto next = tasks.end();
    for (auto t = tasks.begin(); t != tasks.end(); ++t)
      if (isFree(*t) && (next == tasks.end() || rank(t->work) < rank(next->work))) next = t;
    if (next == tasks.end()) next = tasks.begin();  // seams that enclose each other cannot be; none is lost
    if (steps.empty() || steps.back().work != next->work)
      steps.push_back({next->work, known(workRow(next->work).words), {}});
    if (!next->seam.seam.empty()) steps.back().seams.push_back(next->seam);
    if (next->place) sewn.insert(*next->place);
    tasks.erase(next);
  }
  return steps;
}

}  // namespace armure
