#include "cutting/uncut_lines.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "operations/crossing.h"
#include "operations/darts.h"
#include "operations/grain.h"
#include "operations/join.h"
#include "operations/join_stretch.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

Part partOf(SectionKind section) { return section == SectionKind::Skirt ? Part::Skirt : Part::Panel; }

Message nameOf(SectionKind section, bool front) {
  if (section == SectionKind::Skirt) return front ? "Skirt, front" : "Skirt, back";
  if (section == SectionKind::Frame) return "Frame, front";
  return front ? "Front" : "Back";
}

// A piece moved across, at every depth by as much as two edges stand apart there: `from`, its own, comes to lie on
// `to`. Depths and widths go by `down`; heights are kept.
class Shifter {
 public:
  Shifter(const Path& from, const Path& to, Vec2 down) : from_(from), to_(to), down_(down), across_{down.y, -down.x} {}

  static constexpr double kInLine = 0.02;  // rad
  // As smooth as it was: where handles on both sides of a joint were in line they are again.
  Path apply(const Path& path) const {
    std::vector<Cubic> cubics;
    for (const Cubic& c : path.cubics()) cubics.push_back({moved(c.p0), moved(c.p1), moved(c.p2), moved(c.p3)});
    for (size_t i = 0; i + 1 < cubics.size(); ++i) {
      const Cubic &was = path.cubics()[i], &next = path.cubics()[i + 1];
      if (std::abs(angleBetween(was.endTangent(), next.startTangent())) > kInLine) continue;
      Cubic &a = cubics[i], &b = cubics[i + 1];
      const Vec2 along = unit(a.endTangent() + b.startTangent());
      a.p2 = a.p3 - distance(a.p2, a.p3) * along;
      b.p1 = b.p0 + distance(b.p0, b.p1) * along;
    }
    return Path(std::move(cubics));
  }
  Vec2 moved(Vec2 p) const { return p + (at(to_, p) - at(from_, p)) * across_; }

 private:
  // How far across the path lies at the depth of a point; beyond its ends as at them.
  double at(const Path& path, Vec2 p) const {
    const double depth = dot(p, down_), top = dot(path.start(), down_), bottom = dot(path.end(), down_);
    if (depth <= top) return dot(path.start(), across_);
    if (depth >= bottom) return dot(path.end(), across_);
    const std::vector<double> found = path.crossings(p, across_);
    return found.empty() ? dot(path.end(), across_) : dot(path.pointAt(found.front()), across_);
  }

  const Path &from_, &to_;
  const Vec2 down_, across_;
};

// The edges of a side that has come to lie on a path, along that path exactly, each as long a part of it as it is of
// the side; the neighbours of the side meet it.
void lieOn(Piece& piece, const SeamSide& side, const Path& path) {
  double whole = 0, from = 0;
  for (const EdgeUse& use : side.chain) whole += piece.edge(use.edge).path.length();
  for (const EdgeUse& use : side.chain) {
    Path& edge = piece.edges[edgePlace(piece, use.edge)].path;
    const bool last = &use == &side.chain.back();
    const double to = last ? path.length() : from + edge.length() / whole * path.length();
    const Path part = path.sub(from, to);
    edge = use.reversed ? part.reversed() : part;
    from = to;
  }
  const size_t n = piece.edges.size();
  size_t first = edgePlace(piece, side.chain.front().edge), last = edgePlace(piece, side.chain.back().edge);
  if (side.chain.front().reversed) std::swap(first, last);
  Path &before = piece.edges[(first + n - 1) % n].path, &after = piece.edges[(last + 1) % n].path;
  before = withEnds(before, before.start(), piece.edges[first].path.start());
  after = withEnds(after, piece.edges[last].path.end(), after.end());
}

// What a line that is not there would take in goes to the side: all that lies beyond it is moved in.
void moveIn(Pattern& pattern, Seam seam) {
  if (pattern.pieces[seam.a.piece].ordinal > pattern.pieces[seam.b.piece].ordinal) std::swap(seam.a, seam.b);
  const SeamSide &inner = seam.a, &outer = seam.b;
  const Motion laid = closedAt(pattern, seam, false);
  const Path to = pattern.sidePath(inner), from = pattern.sidePath(outer).transformed(laid);
  const Piece& kept = pattern.pieces[inner.piece];
  const Shifter shifter(from, to, unit(kept.grainBottom - kept.grainTop));
  Piece& p = pattern.pieces[outer.piece];
  std::vector<LevelLine> levels = p.levelLines();
  for (LevelLine& l : levels) {
    l.a = shifter.moved(laid.apply(l.a));
    l.b = shifter.moved(laid.apply(l.b));
  }
  for (size_t i = 0; i < p.lines(); ++i) p.lineAt(i).path = shifter.apply(p.lineAt(i).path.transformed(laid));
  p.grainTop = laid.apply(p.grainTop);
  p.grainBottom = laid.apply(p.grainBottom);
  lieOn(p, outer, to);
  settleLevels(p, levels);
}

// The hem of a skirt that has become one piece: one line, square to the centre and to the side. What the panels' own
// hems did where they met says nothing any more.
void drawHem(Piece& piece) {
  const size_t n = piece.edges.size();
  for (size_t i = 0; i < n; ++i) {
    if (piece.edges[i].role != EdgeRole::Hem) continue;
    piece.edges[i].path = hemBetween(piece.edges[(i + n - 1) % n].path, piece.edges[(i + 1) % n].path.reversed());
  }
}

// The princess dart ends below the bust point, so that no point shows; from the underbust on its legs stay.
void endBelowBust(Pattern& pattern, const std::string& id, double clear) {
  const Seam* seam = pattern.seam(id);
  if (!seam || seam->kind != SeamKind::Dart) return;
  const SeamNotch* under = seam->notch(level::kUnderbust);
  shortenDart(pattern, id, clear, under ? std::min(under->a, under->b) : 3 * clear);
}

// The lines of one section of a half, from the centre out.
std::optional<Problem> sew(Pattern& pattern, const Section& section, const Rules& rules) {
  const Half half = section.front ? Half::Front : Half::Back;
  std::string centre;  // the id of the panel beside the centre
  for (const Piece& p : pattern.pieces)
    if (p.part == partOf(section.kind) && p.half == half && p.ordinal == 1) centre = p.id;
  for (const PlannedLine& line : section.lines) {
    if (line.kind == LineKind::Seam) continue;
    const Seam* seam = seamOutwards(pattern, partOf(section.kind), half, 1);
    if (!seam) continue;
    const std::string id = seam->id;
    const size_t left = std::min(seam->a.piece, seam->b.piece);
    if (line.kind == LineKind::None) moveIn(pattern, *seam);
    if (!joinLeavingDart(pattern, id, nameOf(section.kind, section.front)))
      return Problem{line.name, "it takes something in at both its ends, and cannot lie in one piece",
                     "let it be a seam, or let it take nothing in at one end"};
    Piece& whole = pattern.pieces[left];
    whole.id = centre;
    whole.ordinal = 1;
    if (section.kind == SectionKind::Skirt) drawHem(whole);
    if (section.kind == SectionKind::Bodice && section.front && &line == &section.lines.front())
      endBelowBust(pattern, id, rules.length(key::kBustRounding));
    layGrain(whole);
  }
  return std::nullopt;
}

}  // namespace

std::optional<Problem> sewUncutLines(Pattern& pattern, const PanelPlan& plan, const Rules& rules) {
  // A frame that is closed for good has become one piece with its cup.
  const auto isSewnHere = [](const Section& s) {
    const bool dart = s.lines.front().kind == LineKind::Dart;
    return s.kind == SectionKind::Skirt || s.kind == SectionKind::Bodice || (s.kind == SectionKind::Frame && dart);
  };
  for (const Section& section : plan.sections)
    if (isSewnHere(section))
      if (auto problem = sew(pattern, section, rules)) return problem;
  uniteSeams(pattern, "line");  // the yoke's and the waist's, where they run on
  return std::nullopt;
}

}  // namespace armure
