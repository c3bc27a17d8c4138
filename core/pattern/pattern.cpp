#include "pattern/pattern.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "pattern/outline_parts.h"

namespace armure {

std::string_view roleName(EdgeRole role) {
  switch (role) {
    case EdgeRole::Seam:
      return "seam";
    case EdgeRole::Fold:
      return "fold";
    case EdgeRole::Top:
      return "top";
    case EdgeRole::Hem:
      return "hem";
    case EdgeRole::Cup:
      return "cup";
    case EdgeRole::Yoke:
      return "yoke";
    case EdgeRole::Armhole:
      return "armhole";
    case EdgeRole::Strap:
      return "strap";
    case EdgeRole::Raw:
      return "raw";
    case EdgeRole::Mouth:
      return "mouth";
    case EdgeRole::Opening:
    case EdgeRole::Centre:
      break;
  }
  return "opening";
}

bool isSewn(EdgeRole role) { return role == EdgeRole::Seam || role == EdgeRole::Cup || role == EdgeRole::Yoke; }

bool isFree(EdgeRole role) {
  return role == EdgeRole::Top || role == EdgeRole::Hem || role == EdgeRole::Armhole || role == EdgeRole::Strap;
}

bool isCup(const Piece& piece) {
  return piece.part == Part::Cup || piece.part == Part::CupBand || piece.part == Part::CupCover;
}

bool isCentre(EdgeRole role) { return role == EdgeRole::Fold || role == EdgeRole::Opening || role == EdgeRole::Centre; }

const Edge& Piece::edge(std::string_view edgeId) const {
  for (const Edge& e : edges)
    if (e.id == edgeId) return e;
  for (const Dart& d : darts)
    for (const Edge& e : d.legs)
      if (e.id == edgeId) return e;
  throw std::out_of_range(fmt::format("piece {}: no edge {}", id, edgeId));
}

namespace {

// The dart of a mouth, an index.
size_t dartOfMouth(const Piece& piece, const Edge& mouth) {
  for (size_t d = 0; d < piece.darts.size(); ++d)
    if (piece.darts[d].mouth == mouth.id) return d;
  throw std::out_of_range(fmt::format("piece {}: no dart at the mouth {}", piece.id, mouth.id));
}

size_t placeOfMouth(const Piece& piece, const Dart& dart) {
  for (size_t i = 0; i < piece.edges.size(); ++i)
    if (piece.edges[i].id == dart.mouth) return i;
  throw std::out_of_range(fmt::format("piece {}: no mouth {}", piece.id, dart.mouth));
}

}  // namespace

size_t Piece::next(size_t i) const {
  const size_t n = edges.size();
  if (i >= n) {
    const size_t d = (i - n) / 2, first = n + 2 * d;
    if (i == first) return first + 1;
    return darts[d].isOpen() ? (placeOfMouth(*this, darts[d]) + 1) % n : first;
  }
  const size_t after = (i + 1) % n;
  return edges[after].role == EdgeRole::Mouth ? n + 2 * dartOfMouth(*this, edges[after]) : after;
}

size_t Piece::previous(size_t i) const {
  const size_t n = edges.size();
  if (i >= n) {
    const size_t d = (i - n) / 2, first = n + 2 * d;
    if (i != first) return first;
    return darts[d].isOpen() ? (placeOfMouth(*this, darts[d]) + n - 1) % n : first + 1;
  }
  const size_t before = (i + n - 1) % n;
  return edges[before].role == EdgeRole::Mouth ? n + 2 * dartOfMouth(*this, edges[before]) + 1 : before;
}

std::optional<DartCrossing> Piece::crossing(const Dart& dart, const LevelLine& l) {
  DartCrossing out;
  const double width = l.width();
  for (const size_t k : {size_t{0}, size_t{1}}) {
    const Path& leg = dart.legs[k].path;
    bool met = false;
    for (const double s : leg.crossings(l.a, l.b - l.a)) {
      const double along = dot(leg.pointAt(s) - l.a, unit(l.b - l.a));
      if (along < 0 || along > width) continue;
      out.onLeg[k] = s;
      out.along[k] = along;
      met = true;
    }
    if (!met) return std::nullopt;
  }
  return out;
}

double Piece::taken(const LevelLine& level) const {
  double sum = 0;
  for (const Dart& d : darts)
    if (const auto c = crossing(d, level)) sum += c->taken();
  return sum;
}

Mark notchMark(std::string id, Anchor at, bool doubled) {
  return {MarkKind::Notch, std::move(id), std::move(at), {}, doubled};
}

Vec2 Piece::point(const Anchor& anchor) const {
  const Path& path = edge(anchor.edge).path;
  const Vec2 on = path.pointAt(anchor.at);
  if (anchor.onOutline()) return on;
  const Vec2 along = path.tangentAt(anchor.at),
             into{-along.y, along.x};  // a clockwise outline has the piece on its right
  return on + anchor.offset.x * along + anchor.offset.y * into;
}

LevelLine Piece::line(const Mark& level) const { return {level.id, point(level.a), point(level.b)}; }

std::vector<LevelLine> Piece::levelLines() const {
  std::vector<LevelLine> lines;
  for (const Mark& m : levelMarks()) lines.push_back(line(m));
  return lines;
}

const Mark* Piece::levelMark(std::string_view levelId) const {
  for (const Mark& m : marks)
    if (m.isLevel() && m.id == levelId) return &m;
  return nullptr;
}

std::optional<LevelLine> Piece::level(std::string_view levelId) const {
  const Mark* m = levelMark(levelId);
  return m ? std::optional(line(*m)) : std::nullopt;
}

Polyline Piece::outline(double tolerance) const {
  Polyline points;
  for (const Edge& e : edges) {
    const Polyline line = e.path.flattened(tolerance);
    points.insert(points.end(), line.begin(), line.end() - 1);
  }
  return points;
}

size_t Pattern::shellPieces() const {
  return static_cast<size_t>(
      std::count_if(pieces.begin(), pieces.end(), [](const Piece& p) { return p.layer == "shell"; }));
}

double Pattern::right() const {
  double right = 0;
  for (const Piece& p : pieces)
    for (const Edge& e : p.edges) right = std::max({right, e.path.start().x, e.path.end().x});
  return right;
}

const Seam* Pattern::seam(std::string_view id) const {
  for (const Seam& s : seams)
    if (s.id == id) return &s;
  return nullptr;
}

const PatternLevel* Pattern::level(std::string_view id) const {
  const auto found = std::ranges::find(levels, id, &PatternLevel::id);
  return found == levels.end() ? nullptr : &*found;
}

Message Pattern::levelName(std::string_view id) const {
  const PatternLevel* found = level(id);
  return found ? found->name : verbatim(id);
}

double Pattern::closedGirth(const PatternLevel& l) const {
  double sum = l.gaps.sum();
  for (const Piece& p : pieces)
    if (p.layer == "shell")
      for (const Mark& mark : p.levelMarks())
        if (mark.id == l.id) {
          const LevelLine line = p.line(mark);
          sum += (line.width() - p.taken(line)) * p.girthWeight();
        }
  return sum;
}

bool SeamSide::uses(std::string_view edge) const {
  return std::any_of(chain.begin(), chain.end(), [&](const EdgeUse& u) { return u.edge == edge; });
}

double Seam::ease() const {
  double sum = 0;
  for (const PlannedEase& e : eases) sum += e.amount;
  return sum;
}

const SeamNotch* Seam::notch(std::string_view called) const {
  const auto found = std::ranges::find(notches, called, &SeamNotch::id);
  return found == notches.end() ? nullptr : &*found;
}

Path Pattern::sidePath(const SeamSide& side) const {
  Path path;
  for (const EdgeUse& use : side.chain) {
    const Path& edge = pieces.at(side.piece).edge(use.edge).path;
    const Path walked = use.reversed ? edge.reversed() : edge;
    path = path.empty() ? walked : path + walked;
  }
  return path;
}

double Pattern::alongSide(const SeamSide& side, const Anchor& place) const {
  double before = 0;
  for (const EdgeUse& use : side.chain) {
    const double length = pieces.at(side.piece).edge(use.edge).path.length();
    if (use.edge == place.edge) return before + (use.reversed ? length - place.at : place.at);
    before += length;
  }
  throw std::out_of_range(fmt::format("piece {}: edge {} is not on this side", pieces.at(side.piece).id, place.edge));
}

Anchor Pattern::placeOnSide(const SeamSide& side, double along) const {
  double before = 0;
  for (const EdgeUse& use : side.chain) {
    const double length = pieces.at(side.piece).edge(use.edge).path.length(), within = along - before;
    if (within <= length || &use == &side.chain.back()) return {use.edge, use.reversed ? length - within : within};
    before += length;
  }
  throw std::out_of_range("a side without edges");
}

std::optional<size_t> Pattern::panel(Half half, int ordinal) const {
  for (size_t i = 0; i < pieces.size(); ++i)
    if (pieces[i].part == Part::Panel && pieces[i].half == half && pieces[i].ordinal == ordinal) return i;
  return std::nullopt;
}

double Pattern::layerLength(const LayerLine& line) const {
  double sum = 0;
  for (const PieceEdge& e : line.layer) sum += pieces.at(e.piece).edge(e.edge).path.length();
  return sum;
}

double Pattern::shellLength(const LayerLine& line) const {
  double sum = -line.uncovered;
  for (const PieceEdge& e : line.shell) sum += pieces.at(e.piece).edge(e.edge).path.length();
  if (const Seam* s = line.seam.empty() ? nullptr : seam(line.seam))
    if (const SeamNotch* n = s->notch(line.notch)) sum += line.ofA ? n->a : n->b;
  return sum;
}

namespace {

Problem fault(const Message& piece, Message what) {
  return {piece, std::move(what), "this is a fault of the program: please keep the order file, and choose otherwise"};
}

// Legs meet in the point, and the outline at the mouth's ends; every mouth belongs to one dart.
std::optional<Problem> dartProblem(const Piece& p) {
  for (const Dart& d : p.darts) {
    if (d.legs[0].path.empty() || d.legs[1].path.empty())
      return fault(p.name, msg("a leg of its dart {} is empty", d.id));
    const auto mouth = std::find_if(p.edges.begin(), p.edges.end(), [&](const Edge& e) { return e.id == d.mouth; });
    if (d.isOpen() && (mouth == p.edges.end() || mouth->role != EdgeRole::Mouth))
      return fault(p.name, msg("the mouth of its dart {} is gone", d.id));
    const Vec2 from = d.isOpen() ? mouth->path.start() : d.legs[1].path.end(),
               to = d.isOpen() ? mouth->path.end() : d.legs[0].path.start();
    if (!(distance(d.legs[0].path.end(), d.legs[1].path.start()) <= tolerance::kNothing &&
          distance(d.legs[0].path.start(), from) <= tolerance::kNothing &&
          distance(d.legs[1].path.end(), to) <= tolerance::kNothing))
      return fault(p.name, msg("the legs of its dart {} do not meet", d.id));
  }
  for (const Edge& e : p.edges)
    if (e.role == EdgeRole::Mouth &&
        std::count_if(p.darts.begin(), p.darts.end(), [&](const Dart& d) { return d.mouth == e.id; }) != 1)
      return fault(p.name, msg("its mouth {} belongs to no dart, or to several", e.id));
  return std::nullopt;
}

// By its area, which by Green's theorem is a sum over its cubics: half the integral of x dy - y dx, of each in closed
// form by its control points.
bool runsClockwise(const Piece& p) {
  double area = 0;
  for (const Edge& e : p.edges)
    for (const Cubic& c : e.path.cubics())
      area += 6 * cross(c.p0, c.p1) + 3 * cross(c.p0, c.p2) + cross(c.p0, c.p3) + 3 * cross(c.p1, c.p2) +
              3 * cross(c.p1, c.p3) + 6 * cross(c.p2, c.p3);
  return area > 0;
}

std::optional<Problem> pieceProblem(const Piece& p) {
  const auto find = [&](std::string_view id) -> const Edge* {
    for (size_t i = 0; i < p.lines(); ++i)
      if (p.lineAt(i).id == id) return &p.lineAt(i);
    return nullptr;
  };
  if (p.edges.empty()) return fault(p.name, "it has no edges");
  if (auto problem = dartProblem(p)) return problem;
  for (size_t i = 0; i < p.edges.size(); ++i) {
    const Edge &e = p.edges[i], &next = p.edges[(i + 1) % p.edges.size()];
    if (e.path.empty()) return fault(p.name, msg("its edge {} is empty", e.id));
    if (find(e.id) != &e) return fault(p.name, msg("two of its edges are called {}", e.id));
    if (!(distance(e.path.end(), next.path.start()) <= tolerance::kNothing))
      return fault(p.name, msg("its edges {} and {} do not meet", e.id, next.id));
  }
  if (!runsClockwise(p)) return fault(p.name, "its outline is turned inside out");
  if (!p.onFold.empty() && !find(p.onFold)) return fault(p.name, "the fold it is cut on is gone");
  for (const Mark& m : p.marks)
    for (const Anchor* anchor : {&m.a, &m.b}) {
      if (m.isNotch() && anchor == &m.b) continue;
      const Message what = m.isNotch() ? msg("the notch {}", m.id) : msg("the level {}", m.id);
      const Edge* e = find(anchor->edge);
      if (!e) return fault(p.name, msg("{} lies on an edge that is gone ({})", what, anchor->edge));
      if (!(anchor->at >= -tolerance::kSamePlace && anchor->at <= e->path.length() + tolerance::kSamePlace))
        return fault(p.name, msg("{} lies beyond the end of its edge {}", what, anchor->edge));
    }
  return std::nullopt;
}

// Every notch of a seam is struck on both of its sides, where the seam says.
std::optional<Problem> notchProblem(const Pattern& pattern, const Seam& seam) {
  const auto isStruck = [&](const SeamSide& side, const std::string& id, double at) {
    return std::ranges::any_of(pattern.pieces[side.piece].notches(), [&](const Mark& n) {
      return n.id == id && side.uses(n.a.edge) && std::abs(pattern.alongSide(side, n.a) - at) <= tolerance::kSamePlace;
    });
  };
  for (const SeamNotch& n : seam.notches)
    if (!isStruck(seam.a, n.id, n.a) || !isStruck(seam.b, n.id, n.b))
      return fault(seam.name, msg("its notch {} is not struck on both sides", n.id));
  return std::nullopt;
}

}  // namespace

bool isSplit(const Pattern& pattern) {
  return std::ranges::any_of(pattern.pieces, [](const Piece& p) { return !p.splitOf.empty(); });
}

std::optional<Problem> patternProblem(const Pattern& pattern) {
  for (const Piece& p : pattern.pieces)
    if (auto problem = pieceProblem(p)) return problem;
  const auto has = [&](size_t piece, std::string_view id) {
    if (piece >= pattern.pieces.size()) return false;
    return hasEdge(pattern.pieces[piece], id);
  };
  for (const Piece& p : pattern.pieces)
    for (const Dart& d : p.darts)
      if (const Seam* s = pattern.seam(d.id); !s || s->kind != SeamKind::Dart)
        return fault(p.name, msg("its dart {} is not sewn", d.id));
  for (const Seam& s : pattern.seams)
    for (const SeamSide* side : {&s.a, &s.b}) {
      if (side->chain.empty()) return fault(s.name, "one of its sides is empty");
      for (const EdgeUse& use : side->chain)
        if (!has(side->piece, use.edge)) return fault(s.name, msg("it names an edge that is gone ({})", use.edge));
    }
  for (const Seam& s : pattern.seams)
    if (auto problem = notchProblem(pattern, s)) return problem;
  for (const LayerLine& l : pattern.layerLines)
    for (const std::vector<PieceEdge>* line : {&l.layer, &l.shell})
      for (const PieceEdge& e : *line)
        if (!has(e.piece, e.edge)) return fault(l.name, msg("it names an edge that is gone ({})", e.edge));
  for (const Attachment& a : pattern.attachments) {
    if (!has(a.piece, a.edge) || !has(a.attached.piece, a.attached.edge))
      return fault(a.name, "it is sewn to an edge that is gone");
    const double length = pattern.pieces[a.piece].edge(a.edge).path.length();
    if (!(a.from >= -tolerance::kSamePlace && a.from <= a.to && a.to <= length + tolerance::kSamePlace))
      return fault(a.name, msg("it reaches beyond the end of the edge {}", a.edge));
  }
  return std::nullopt;
}

}  // namespace armure
