#include "prepare/arrange.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "balance/fit.h"
#include "geometry/polygon.h"

namespace armure {

namespace {

// Lays `b` on the right of `a`, both walked downwards, as near as it goes without lying over it: the best fit, moved
// out by as much as any two points that are sewn together would overlap.
Motion layBeside(const Path& a, const Path& b, double gap) {
  constexpr int kSamples = 65;
  const Motion fit = bestFit(a, b);
  const Vec2 down = unit(a.end() - a.start()), right{down.y, -down.x};
  const std::vector<Vec2> pa = evenPoints(a, kSamples), pb = evenPoints(b, kSamples);
  double overlap = -HUGE_VAL;
  for (size_t i = 0; i < pa.size(); ++i) overlap = std::max(overlap, dot(pa[i] - fit.apply(pb[i]), right));
  return fit.then(Motion::translation((overlap + gap) * right));
}

// A gathered edge cannot be laid along what it is gathered into.
bool isGathered(const Pattern& pattern, const Seam& seam) {
  constexpr double kGathered = 0.1;  // of the length
  return std::abs(seam.ease()) > kGathered * pattern.sidePath(seam.a).length();
}

// What does not lie with the panels: all of it, where part of it cannot.
struct Apart {
  bool cups = false, skirts = false;
  bool bars(const Piece& p) const { return (cups && isCup(p)) || (skirts && p.part == Part::Skirt); }
};

// Lays pieces against each other, group by group.
class Taper {
 public:
  Taper(const Pattern& pattern, const std::set<std::string>& open, const Apart& apart)
      : pattern_(pattern),
        open_(open),
        apart_(apart),
        out_{Arrangement(pattern.pieces.size()), {}},
        lies_(pattern.pieces.size(), false) {
    out_.group.assign(pattern.pieces.size(), 0);
    for (const Piece& p : pattern.pieces) outlines_.push_back(p.outline(1.0));
  }

  Taped tape() && {
    size_t group = 0;
    for (size_t i = 0; i < lies_.size(); ++i)
      if (!lies_[i]) fill(i, group++);
    for (size_t g = 1; g < group; ++g) layAside(g);
    return std::move(out_);
  }

 private:
  // Seam by seam, each piece to the first one it is sewn to: so panels come before the cups set into them. By the
  // shoulder only what hangs by nothing else.
  void fill(size_t first, size_t group) {
    place(first, Motion(), group);
    const auto isShoulder = [](const Seam& s) { return s.kind == SeamKind::Shoulder; };
    for (bool more = true; more;) {
      more = false;
      for (const Seam& seam : pattern_.seams)
        if (!isShoulder(seam) && layAlong(seam, group)) more = true;
      for (const Seam& seam : pattern_.seams)
        if (!more && isShoulder(seam) && layAlong(seam, group)) more = true;
    }
  }

  // Lays the piece beyond a seam where it is free and there is room for it.
  bool layAlong(const Seam& seam, size_t group) {
    const bool onward = lies_[seam.a.piece];
    const size_t from = onward ? seam.a.piece : seam.b.piece, to = onward ? seam.b.piece : seam.a.piece;
    if (!lies_[from] || lies_[to] || out_.group[from] != group || isGathered(pattern_, seam)) return false;
    // Only from what was begun with in the first group: there it goes from the centre front on.
    if (group == 0 && (!onward || apart_.bars(pattern_.pieces[to]))) return false;
    const Motion m = laid(seam, onward);
    if (overlaps(to, m, group)) return false;
    place(to, m, group);
    return true;
  }

  void place(size_t piece, const Motion& m, size_t group) {
    out_.motions[piece] = m;
    out_.group[piece] = group;
    lies_[piece] = true;
    for (Vec2& p : outlines_[piece]) p = m.apply(p);
  }

  // A side of a seam; where the same two panels are sewn together again further down, below a cup, with that.
  Path wholeSide(const Seam& seam, bool ofA) const {
    const Path side = pattern_.sidePath(ofA ? seam.a : seam.b);
    for (const Seam& below : pattern_.seams) {
      if (&below == &seam || below.kind != SeamKind::Plain || seam.kind != SeamKind::Plain ||
          below.a.piece != seam.a.piece || below.b.piece != seam.b.piece || !isPanel(seam.a.piece) ||
          !isPanel(seam.b.piece))
        continue;
      const Path rest = pattern_.sidePath(ofA ? below.a : below.b);
      if (dot(rest.start() - side.end(), side.endTangent()) > 0)
        return side + Path::line(side.end(), rest.start()) + rest;
    }
    return side;
  }

  bool isPanel(size_t piece) const { return pattern_.pieces[piece].part == Part::Panel; }

  Motion laid(const Seam& seam, bool onward) const {
    constexpr double kApart = 70;  // mm
    const double gap = open_.contains(seam.id) ? kApart : 0;
    const SeamSide &fixed = onward ? seam.a : seam.b, &moving = onward ? seam.b : seam.a;
    const Path a = wholeSide(seam, &fixed == &seam.a).transformed(out_.motions[fixed.piece]),
               b = wholeSide(seam, &moving == &seam.a);
    // To the left of what lies there, everything runs the other way.
    return onward ? layBeside(a, b, gap) : layBeside(a.reversed(), b.reversed(), gap);
  }

  bool overlaps(size_t piece, const Motion& m, size_t group) const {
    constexpr double kShared = 120;  // mm^2: less is where corners of bent edges meet
    Polyline outline = outlines_[piece];
    for (Vec2& p : outline) p = m.apply(p);
    const Box box = boxRound(outline);
    for (size_t i = 0; i < lies_.size(); ++i)
      if (lies_[i] && out_.group[i] == group && box.meets(boxRound(outlines_[i])) &&
          sharedArea(outline, outlines_[i]) > kShared)
        return true;
    return false;
  }

  Box boxOf(size_t group) const {
    Polyline all;
    for (size_t i = 0; i < lies_.size(); ++i)
      if (out_.group[i] == group) all.insert(all.end(), outlines_[i].begin(), outlines_[i].end());
    return boxRound(all);
  }

  // Beside all groups before it; skirts below.
  void layAside(size_t group) {
    constexpr double kBeside = 40;  // mm
    const Box own = boxOf(group);
    const size_t first = static_cast<size_t>(std::ranges::find(out_.group, group) - out_.group.begin());
    Box before = boxOf(0);
    for (size_t g = 1; g < group; ++g) {
      const Box box = boxOf(g);
      before.high = {std::max(before.high.x, box.high.x), std::max(before.high.y, box.high.y)};
    }
    const bool below = pattern_.pieces[first].part == Part::Skirt;
    const Motion aside = below ? Motion::translation({before.low.x - own.low.x, before.high.y + kBeside - own.low.y})
                               : Motion::translation({before.high.x + kBeside - own.low.x, 0});
    for (size_t i = 0; i < lies_.size(); ++i) {
      if (out_.group[i] != group) continue;
      out_.motions[i] = out_.motions[i].then(aside);
      for (Vec2& p : outlines_[i]) p = aside.apply(p);
    }
  }

  const Pattern& pattern_;
  const std::set<std::string>& open_;
  const Apart& apart_;
  Taped out_;
  std::vector<bool> lies_;
  std::vector<Polyline> outlines_;  // as they lie
};

}  // namespace

Taped tape(const Pattern& pattern, const std::set<std::string>& open) {
  Apart apart;
  while (true) {
    Taped t = Taper(pattern, open, apart).tape();
    bool cups = false, skirts = false;
    for (size_t i = 0; i < pattern.pieces.size(); ++i) {
      cups = cups || (t.group[i] > 0 && isCup(pattern.pieces[i]));
      skirts = skirts || (t.group[i] > 0 && pattern.pieces[i].part == Part::Skirt);
    }
    if (apart.cups == cups && apart.skirts == skirts) return t;
    apart = {apart.cups || cups, apart.skirts || skirts};
  }
}

std::vector<size_t> allPieces(const Pattern& pattern) {
  std::vector<size_t> all(pattern.pieces.size());
  std::iota(all.begin(), all.end(), 0);
  return all;
}

Motion upright(const Piece& piece) {
  return Motion::rotationAbout(piece.grainTop, angleBetween(piece.grainBottom - piece.grainTop, {0, 1}));
}

void PaperLayout::add(size_t piece, const Polyline& cutOutline, const Motion& motion) {
  pieces.push_back(piece);
  motions.push_back(motion);
  outlines.emplace_back();
  outlines.back().reserve(cutOutline.size());
  for (const Vec2 p : cutOutline) outlines.back().push_back(motion.apply(p));
  boxes.push_back(boxRound(outlines.back()));
}

PaperLayout layOutOnPaper(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, double widest,
                          double spacing) {
  return layOutOnPaper(pattern, cutOutlines, allPieces(pattern), widest, spacing);
}

PaperLayout layOutOnPaper(const Pattern& pattern, const std::vector<Polyline>& cutOutlines,
                          const std::vector<size_t>& pieces, double widest, double spacing) {
  constexpr double kEdge = 6;  // mm, so that no line falls on the edge of a sheet
  PaperLayout layout;
  double x = kEdge, y = kEdge, rowHeight = 0;
  for (const size_t i : pieces) {
    const Motion turn = upright(pattern.pieces[i]);
    Polyline turned = cutOutlines[i];
    for (Vec2& p : turned) p = turn.apply(p);
    const Box box = boxRound(turned);
    if (x > kEdge && x + box.width() + kEdge > widest) {
      x = kEdge;
      y += rowHeight + spacing;
      rowHeight = 0;
    }
    layout.add(i, cutOutlines[i], turn.then(Motion::translation(Vec2{x, y} - box.low)));
    x += box.width() + spacing;
    rowHeight = std::max(rowHeight, box.height());
    layout.width = std::max(layout.width, x - spacing + kEdge);
    layout.height = std::max(layout.height, y + rowHeight + kEdge);
  }
  return layout;
}

}  // namespace armure
