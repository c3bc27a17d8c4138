#include "operations/darts.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

// Turns the list of edges so that those of the seam come last, in one run.
size_t bringLast(Piece& piece, const Seam& seam) {
  const auto sewn = [&](const Edge& e) { return seam.a.uses(e.id) || seam.b.uses(e.id); };
  const size_t n = piece.edges.size();
  size_t last = 0;
  while (last < n && !(sewn(piece.edges[last]) && !sewn(piece.edges[(last + 1) % n]))) ++last;
  if (last == n) throw std::invalid_argument("dart: the sides of " + seam.id + " are no edges of the outline");
  std::rotate(piece.edges.begin(), piece.edges.begin() + static_cast<std::ptrdiff_t>((last + 1) % n),
              piece.edges.end());
  const auto count = static_cast<size_t>(std::count_if(piece.edges.begin(), piece.edges.end(), sewn));
  if (!std::all_of(piece.edges.end() - static_cast<std::ptrdiff_t>(count), piece.edges.end(), sewn))
    throw std::invalid_argument("dart: the sides of " + seam.id + " do not stand beside each other");
  return n - count;
}

// The edges of one side, one behind the other, as one leg; marks go with them.
Edge legOf(Piece& piece, size_t from, size_t to) {
  Edge leg = piece.edges[from];
  leg.allowance = 0;
  EdgeMap map{{.was = leg.id, .is = leg.id}};
  for (size_t i = from + 1; i < to; ++i) {
    map.push_back({.was = piece.edges[i].id, .is = leg.id, .start = leg.path.length()});
    leg.path = leg.path + piece.edges[i].path;
  }
  if (map.size() > 1) carryMarks(piece, map);
  return leg;
}

// Two stretches of a level that ended on the legs are one line across the dart; but not where it runs along the mouth:
// there the dart takes nothing out of it that its two stretches had.
void uniteLevels(Piece& piece, const Dart& dart) {
  const auto onLeg = [&](const Anchor& a) {
    return (a.edge == dart.legs[0].id && a.at > tolerance::kSamePlace) ||
           (a.edge == dart.legs[1].id && a.at < dart.legs[1].path.length() - tolerance::kSamePlace);
  };
  for (size_t i = 0; i < piece.marks.size(); ++i)
    for (size_t k = 0; k < piece.marks.size(); ++k) {
      Mark &first = piece.marks[i], &second = piece.marks[k];
      if (i == k || !first.isLevel() || !second.isLevel() || first.id != second.id) continue;
      if (!onLeg(first.b) || !onLeg(second.a)) continue;
      first.b = second.b;
      piece.marks.erase(piece.marks.begin() + static_cast<std::ptrdiff_t>(k));
      return uniteLevels(piece, dart);
    }
}

// A level that crosses the dart ends on its legs.
void divideLevels(Piece& piece, const Dart& dart) {
  std::vector<Mark> beyond;
  for (Mark& m : piece.levelMarks()) {
    const auto c = Piece::crossing(dart, piece.line(m));
    if (!c) continue;
    const size_t near = c->along[0] <= c->along[1] ? 0 : 1, far = 1 - near;
    Mark second = m;
    m.b = {dart.legs[near].id, c->onLeg[near], {}};
    second.a = {dart.legs[far].id, c->onLeg[far], {}};
    beyond.push_back(std::move(second));
  }
  piece.marks.insert(piece.marks.end(), beyond.begin(), beyond.end());
}

constexpr double kNotch = 0.01;  // mm: a notch as near is at the joint, to rounding

// A place on a path, or the joint beside it: a crumb between the two bends as it likes.
double orJoint(const Path& path, double at, double beside) {
  double joint = 0, nearest = at;
  for (const Cubic& c : path.cubics()) {
    joint += Path(c).length();
    if (std::abs(joint - at) < beside) nearest = joint;
  }
  return nearest;
}

// Balancing takes hold of a leg at its joints and at its notches: they are the same places.
void notchAtJoints(Piece& piece, const Dart& dart) {
  for (Mark& m : piece.notches())
    for (const Edge& leg : dart.legs)
      if (m.a.edge == leg.id) m.a.at = orJoint(leg.path, m.a.at, kNotch);
}

// A leg that runs down from the point, begun anew at `tip`; from `until` on it stays.
Path begunAt(const Path& leg, Vec2 tip, double until) {
  const Vec2 to = leg.pointAt(until), on = leg.tangentAt(until);
  const double third = distance(tip, to) / 3;
  return Path(Cubic{tip, tip + third * unit(to - tip), to - third * on, to}) + leg.sub(until, leg.length());
}

}  // namespace

void makeDart(Pattern& pattern, std::string_view id) {
  Seam& seam = seamOf(pattern, id);
  if (seam.a.piece != seam.b.piece) throw std::invalid_argument("dart: the sides of " + seam.id + " are of two pieces");
  Piece& piece = pattern.pieces[seam.a.piece];
  const std::string first = piece.edges.front().id;
  const size_t start = bringLast(piece, seam);
  SeamSide& early = seam.a.uses(piece.edges[start].id) ? seam.a : seam.b;
  SeamSide& late = &early == &seam.a ? seam.b : seam.a;
  const size_t middle = start + early.chain.size(), end = piece.edges.size();
  Dart dart{seam.id, seam.id + "-mouth", {legOf(piece, start, middle), legOf(piece, middle, end)}};
  while (hasEdge(piece, dart.mouth)) dart.mouth += "-2";
  early.chain = {{dart.legs[0].id, early.chain.front().reversed}};
  late.chain = {{dart.legs[1].id, late.chain.front().reversed}};
  seam.kind = SeamKind::Dart;
  uniteLevels(piece, dart);
  piece.edges.erase(piece.edges.begin() + static_cast<std::ptrdiff_t>(start), piece.edges.end());
  piece.edges.push_back({dart.mouth, EdgeRole::Mouth, piece.edges.back().allowance,
                         Path::line(dart.legs[0].path.start(), dart.legs[1].path.end())});
  notchAtJoints(piece, dart);
  piece.darts.push_back(std::move(dart));
  // As they stood, where the first of them is still there.
  const auto was = std::find_if(piece.edges.begin(), piece.edges.end(), [&](const Edge& e) { return e.id == first; });
  if (was != piece.edges.end()) std::rotate(piece.edges.begin(), was, piece.edges.end());
  if (!seam.notches.empty()) seam.notches = notchesOf(pattern, seam);
}

void slitDart(Pattern& pattern, std::string_view id) {
  for (Piece& piece : pattern.pieces)
    for (size_t d = 0; d < piece.darts.size(); ++d) {
      if (piece.darts[d].id != id || !piece.darts[d].isOpen()) continue;
      const Dart dart = piece.darts[d];
      divideLevels(piece, dart);
      const auto mouth = piece.edges.begin() + static_cast<std::ptrdiff_t>(edgePlace(piece, dart.mouth));
      const auto at = piece.edges.erase(mouth);
      piece.edges.insert(at, dart.legs.begin(), dart.legs.end());
      piece.darts.erase(piece.darts.begin() + static_cast<std::ptrdiff_t>(d));
      return;
    }
  throw std::out_of_range("no open dart " + std::string(id));
}

void cutPointedDart(Pattern& pattern, size_t piece, const PointedDart& cut) {
  if (distance(cut.left.start(), cut.right.start()) > tolerance::kNothing ||
      distance(cut.left.end(), cut.right.end()) > tolerance::kNothing)
    throw std::invalid_argument("dart: the legs of " + cut.id + " do not meet");
  Piece& p = pattern.pieces.at(piece);
  Dart dart{cut.id, "", {}};
  dart.legs[0] = {cut.id + "-1", EdgeRole::Seam, 0, cut.left};
  dart.legs[1] = {cut.id + "-2", EdgeRole::Seam, 0, cut.right.reversed()};
  for (Edge& leg : dart.legs)
    while (hasEdge(p, leg.id)) leg.id += "-leg";
  std::vector<Mark> notches;
  for (const Mark& m : p.levelMarks())
    if (const auto c = Piece::crossing(dart, p.line(m)))
      for (const size_t k : {size_t{0}, size_t{1}})
        notches.push_back(notchMark(m.id, {dart.legs[k].id, c->onLeg[k], {}}));
  p.marks.insert(p.marks.end(), notches.begin(), notches.end());
  notchAtJoints(p, dart);
  p.darts.push_back(dart);
  Seam seam{cut.id, cut.name, {piece, {{dart.legs[0].id, false}}}, {piece, {{dart.legs[1].id, true}}}};
  seam.kind = SeamKind::Dart;
  seam.notches = notchesOf(pattern, seam);
  pattern.seams.push_back(std::move(seam));
}

void shortenDart(Pattern& pattern, std::string_view id, double clear, double until) {
  for (Piece& piece : pattern.pieces)
    for (Dart& dart : piece.darts) {
      if (dart.id != id) continue;
      // The one leg runs to the point, the other away from it; pointed at both ends, the upper point is the start.
      const bool open = dart.isOpen();
      const Path first = open ? dart.legs[0].path.reversed() : dart.legs[0].path;
      const Path second = open ? dart.legs[1].path : dart.legs[1].path.reversed();
      constexpr double kCrumb = 4;  // mm: a joint as near is meant
      const double nearly = std::min({until, 0.9 * first.length(), 0.9 * second.length()});
      const std::array<double, 2> from{orJoint(first, nearly, kCrumb), orJoint(second, nearly, kCrumb)};
      const Vec2 point = first.start();
      const Vec2 middle = unit(unit(first.pointAt(from[0]) - point) + unit(second.pointAt(from[1]) - point));
      const Vec2 tip = point + std::min(clear, 0.6 * nearly) * middle;
      const std::array<Path, 2> drawn{begunAt(first, tip, from[0]), begunAt(second, tip, from[1])};
      for (const size_t k : {size_t{0}, size_t{1}}) {
        Edge& leg = dart.legs[k];
        const bool towards = (k == 0) == open;  // it runs to the point
        const double was = leg.path.length(), is = drawn[k].length();
        const double kept = was - from[k] + kNotch;
        carryMarks(piece, {towards ? EdgePart{.was = leg.id, .from = 0, .to = kept, .is = leg.id}
                                   : EdgePart{.was = leg.id, .from = was - kept, .is = leg.id, .start = is - kept}});
        leg.path = towards ? drawn[k].reversed() : drawn[k];
      }
      notchAtJoints(piece, dart);
      Seam& seam = seamOf(pattern, id);
      seam.notches = notchesOf(pattern, seam);
      return;
    }
  throw std::out_of_range("no dart " + std::string(id));
}

}  // namespace armure
