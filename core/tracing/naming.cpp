#include "tracing/naming.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>
#include <tuple>

#include "geometry/path_distance.h"
#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "tracing/outlines.h"

namespace armure {
namespace {

constexpr double kAtCorner = 0.75;   // mm: a place so near to a corner is the corner
constexpr double kOffOutline = 6;    // mm: a place further from the outline was not meant on it
constexpr double kFoldStraight = 1;  // mm

struct KnownLevel {
  std::string_view id;
  const char* name;
};
constexpr std::array<KnownLevel, 9> kKnownLevels{{{"top", "Top edge"},
                                                  {"chest", "Chest"},
                                                  {"bust", "Bust"},
                                                  {"underbust", "Underbust"},
                                                  {"waist", "Waist"},
                                                  {"high_hip", "High hip"},
                                                  {"hip", "Hip"},
                                                  {"knee", "Knee"},
                                                  {"hem", "Hem"}}};

Message levelName(const std::string& id) {
  const auto row = std::ranges::find(kKnownLevels, id, &KnownLevel::id);
  return row == kKnownLevels.end() ? verbatim(id) : known(row->name);
}

// A piece whose outline is cut into its edges; still as it lies in the drawing.
class PieceTracer {
 public:
  PieceTracer(const LineDrawing& drawing, const std::vector<TracedOutline>& outlines, const NamedPiece& names)
      : drawing_(drawing), outlines_(outlines), names_(names) {}

  Result<Piece> traced() {
    const auto found = outlineAt(outlines_, names_.at);
    if (!found) return problem("no outline lies round the place it was named at", "click inside a closed outline");
    outline_ = &outlines_[*found];
    start();
    for (const auto step : {&PieceTracer::cutEdges, &PieceTracer::fold, &PieceTracer::cutDarts,
                            &PieceTracer::markLevels, &PieceTracer::markNotches})
      if (auto fault = (this->*step)()) return *fault;
    return std::move(piece_);
  }

 private:
  Problem problem(Message what, Message remedy) const {
    return {names_.name.empty() ? verbatim(names_.id) : verbatim(names_.name), std::move(what), std::move(remedy)};
  }

  void start() {
    piece_.id = names_.id;
    piece_.name = verbatim(names_.name.empty() ? names_.id : names_.name);
    piece_.half = names_.half;
    piece_.part = names_.part;
    piece_.ordinal = names_.ordinal;
    piece_.copies = names_.copies;
    piece_.grainTop = names_.grainTop;
    piece_.grainBottom = names_.grainBottom;
  }

  // On the outline, at a corner where it is next to one.
  double placeOf(Vec2 at) const {
    const double s = nearestPlace(outline_->path, at), length = outline_->path.length();
    const auto off = [&](double corner) { return std::min(std::abs(s - corner), length - std::abs(s - corner)); };
    const double corner = *std::ranges::min_element(outline_->corners, {}, off);
    return off(corner) < kAtCorner ? corner : s;
  }

  std::optional<Problem> cutEdges() {
    if (names_.edges.empty()) return problem("no edge of it is named", "say where its edges begin");
    const Path& path = outline_->path;
    const double length = path.length();
    std::vector<double> at;
    for (const NamedEdge& e : names_.edges) {
      at.push_back(placeOf(e.from));
      if (distance(path.pointAt(at.back()), e.from) > kOffOutline)
        return problem(msg("the edge {} does not begin on its outline", e.id), "click on the outline");
    }
    size_t falls = 0;
    for (size_t i = 0; i < at.size(); ++i) {
      const double next = at[(i + 1) % at.size()];
      if (next <= at[i] + tolerance::kNothing) ++falls;
      for (size_t k = 0; k < i; ++k)
        if (names_.edges[k].id == names_.edges[i].id)
          return problem(msg("two edges are called {}", names_.edges[i].id), "give each its own name");
    }
    if (falls > 1)
      return problem("its edges do not follow each other clockwise",
                     "name them in the order one walks round the piece");
    for (size_t i = 0; i < at.size(); ++i) {
      const double from = at[i], to = at[(i + 1) % at.size()];
      Path part = to > from + tolerance::kNothing        ? path.sub(from, to)
                  : from >= length - tolerance::kNothing ? path.sub(0, to)
                  : to <= tolerance::kNothing            ? path.sub(from, length)
                                                         : path.sub(from, length) + path.sub(0, to);
      piece_.edges.push_back({names_.edges[i].id, names_.edges[i].role, names_.edges[i].allowance, std::move(part)});
    }
    // They meet to the last digit.
    for (size_t i = 0; i < piece_.edges.size(); ++i) {
      Edge& e = piece_.edges[i];
      e.path = withEnds(e.path, e.path.start(), piece_.edges[(i + 1) % piece_.edges.size()].path.start());
    }
    return std::nullopt;
  }

  // On a fold the other half lies beyond a straight line.
  std::optional<Problem> fold() {
    for (Edge& e : piece_.edges) {
      if (e.role == EdgeRole::Mouth) e.path = Path::line(e.path.start(), e.path.end());
      if (e.role != EdgeRole::Fold) continue;
      // A second one lies on the same line: the fold runs on beyond a hole.
      const Edge& first = piece_.onFold.empty() ? e : piece_.edge(piece_.onFold);
      const Vec2 along = unit(first.path.end() - first.path.start());
      for (const Vec2 p : e.path.flattened(tolerance::kCoarseFlatness))
        if (std::abs(cross(along, p - first.path.start())) > kFoldStraight)
          return problem(msg("its edge {} is no fold: it does not lie on one straight line", e.id),
                         "name it a seam or an opening");
      e.path = Path::line(e.path.start(), e.path.end());
      e.allowance = 0;
      if (piece_.onFold.empty()) piece_.onFold = e.id;
    }
    piece_.symmetry = !piece_.onFold.empty() ? Symmetry::OnFold : piece_.copies == 1 ? Symmetry::Once : Symmetry::Pair;
    return std::nullopt;
  }

  // Lines of the drawing inside the outline that pass a place, by their distance.
  std::vector<std::pair<double, const Path*>> linesPast(Vec2 at) const {
    std::vector<std::pair<double, const Path*>> lines;
    for (const size_t i : outline_->inside) {
      const DrawnShape& shape = drawing_.shapes[i];
      if (shape.closed) continue;
      const double d = distance(shape.path.pointAt(nearestPlace(shape.path, at)), at);
      if (d < kOffOutline) lines.emplace_back(d, &shape.path);
    }
    return lines;
  }

  // The two lines that meet in a point and pass both places best; a level may pass them, too, but meets neither.
  std::optional<std::pair<Path, Path>> legsOf(const NamedDart& named) const {
    const auto ends = [](const Path& p) { return std::array{p.start(), p.end()}; };
    const Path *first = nullptr, *second = nullptr;
    double least = HUGE_VAL;
    for (const auto& [da, a] : linesPast(named.first))
      for (const auto& [db, b] : linesPast(named.second)) {
        if (a == b || da + db >= least) continue;
        for (const Vec2 p : ends(*a))
          for (const Vec2 q : ends(*b))
            if (distance(p, q) < kAtCorner) least = da + db, first = a, second = b;
      }
    if (!first) return std::nullopt;
    return std::pair{smoothed(*first, tolerance::kOutlineFlatness), smoothed(*second, tolerance::kOutlineFlatness)};
  }

  std::optional<Problem> cutDarts() {
    for (const NamedDart& named : names_.darts) {
      auto legs = legsOf(named);
      if (!legs)
        return problem(msg("a leg of the dart {} is not drawn", named.id),
                       "click on the two lines the dart is sewn along, which meet at its point");
      auto& [a, b] = *legs;
      Dart dart;
      dart.id = named.id;
      const Edge* mouth = mouthOf(a, b);
      if (auto fault = mouth ? layOpen(*mouth, a, b) : layPointed(a, b)) return fault;
      if (mouth) dart.mouth = mouth->id;
      dart.legs[0] = {named.id + "-1", EdgeRole::Seam, 0, a};
      dart.legs[1] = {named.id + "-2", EdgeRole::Seam, 0, b};
      piece_.darts.push_back(std::move(dart));
    }
    return std::nullopt;
  }

  // The mouth whose ends two legs begin at.
  const Edge* mouthOf(const Path& a, const Path& b) const {
    const auto touches = [](const Path& leg, Vec2 at) {
      return std::min(distance(leg.start(), at), distance(leg.end(), at)) < kAtCorner;
    };
    for (const Edge& e : piece_.edges) {
      if (e.role != EdgeRole::Mouth) continue;
      const Vec2 p = e.path.start(), q = e.path.end();
      if ((touches(a, p) && touches(b, q)) || (touches(b, p) && touches(a, q))) return &e;
    }
    return nullptr;
  }

  // The first leg runs from where the mouth begins to the point, the second back.
  std::optional<Problem> layOpen(const Edge& mouth, Path& a, Path& b) const {
    const Vec2 from = mouth.path.start(), to = mouth.path.end();
    if (std::min(distance(a.start(), from), distance(a.end(), from)) >
        std::min(distance(b.start(), from), distance(b.end(), from)))
      std::swap(a, b);
    if (distance(a.end(), from) < distance(a.start(), from)) a = a.reversed();
    if (distance(b.start(), to) < distance(b.end(), to)) b = b.reversed();
    if (distance(a.end(), b.start()) > kAtCorner) return legsApart();
    a = withEnds(a, from, a.end());
    b = withEnds(b, a.end(), to);
    return std::nullopt;
  }

  // From the upper point down along the left leg, and up again along the right.
  std::optional<Problem> layPointed(Path& a, Path& b) const {
    const auto up = [&](const Path& p) { return dot(p.end() - p.start(), names_.grainTop - names_.grainBottom) > 0; };
    if (up(a)) a = a.reversed();
    if (up(b)) b = b.reversed();
    if (distance(a.start(), b.start()) > kAtCorner || distance(a.end(), b.end()) > kAtCorner) return legsApart();
    const Vec2 down = a.end() - a.start();
    if (cross(down, a.pointAt(a.length() / 2) - b.pointAt(b.length() / 2)) < 0) std::swap(a, b);
    b = withEnds(b.reversed(), a.end(), a.start());
    return std::nullopt;
  }
  Problem legsApart() const {
    return problem("the legs of a dart do not meet at its point", "click on both legs of one dart");
  }

  // The place of a line of the piece next to a point; mouths are folded away.
  std::optional<Anchor> onLine(Vec2 at) const {
    std::optional<Anchor> best;
    double least = kOffOutline;
    for (size_t i = 0; i < piece_.lines(); ++i) {
      const Edge& e = piece_.lineAt(i);
      if (e.role == EdgeRole::Mouth) continue;
      const double s = nearestPlace(e.path, at), d = distance(e.path.pointAt(s), at);
      if (d < least - tolerance::kRounding) least = d, best = Anchor{e.id, s, {}};
    }
    return best;
  }

  std::optional<Problem> markLevels() {
    for (const NamedLevel& l : names_.levels) {
      const auto a = onLine(l.a), b = onLine(l.b);
      if (!a || !b)
        return problem(msg("the {} does not end on its outline", levelName(l.id)),
                       "click where the level meets its edges");
      piece_.marks.push_back({MarkKind::Level, l.id, *a, *b, false});
    }
    return std::nullopt;
  }

  std::optional<Problem> markNotches() {
    for (const NamedNotch& n : names_.notches) {
      const auto at = onLine(n.at);
      if (!at) return problem(msg("the notch {} is not on its outline", n.id), "click on the outline");
      piece_.marks.push_back(notchMark(n.id, *at, n.doubled));
    }
    return std::nullopt;
  }

  const LineDrawing& drawing_;
  const std::vector<TracedOutline>& outlines_;
  const NamedPiece& names_;
  const TracedOutline* outline_ = nullptr;
  Piece piece_;
};

// The left half of the body, however it was drawn.
void mirror(Piece& p) {
  const Motion m = Motion::mirrorX();
  const auto turned = [&](Edge& e) { e.path = e.path.transformed(m).reversed(); };
  std::map<std::string, double> lengths;
  for (size_t i = 0; i < p.lines(); ++i) lengths[p.lineAt(i).id] = p.lineAt(i).path.length();
  for (size_t i = 0; i < p.lines(); ++i) turned(p.lineAt(i));
  std::ranges::reverse(p.edges);
  for (Dart& d : p.darts) std::swap(d.legs[0], d.legs[1]);
  for (Mark& k : p.marks) {
    for (Anchor* anchor : {&k.a, &k.b})
      if (!anchor->edge.empty()) anchor->at = lengths[anchor->edge] - anchor->at;
    if (k.isLevel()) std::swap(k.a, k.b);
  }
  p.grainTop = m.apply(p.grainTop);
  p.grainBottom = m.apply(p.grainBottom);
}

void move(Piece& p, const Motion& m) {
  for (size_t i = 0; i < p.lines(); ++i) p.lineAt(i).path = p.lineAt(i).path.transformed(m);
  p.grainTop = m.apply(p.grainTop);
  p.grainBottom = m.apply(p.grainBottom);
}

// Grain upright, its top above; where levels lie far from square to it, as on the bias, by them.
void putUpright(Piece& p) {
  constexpr double kOnBias = 0.5;  // radians
  double angle = angleBetween(p.grainBottom - p.grainTop, {0, 1});
  double across = 0;
  int count = 0;
  for (const LevelLine& l : p.levelLines()) {
    const Vec2 along = rotated(l.b - l.a, angle);
    across += std::remainder(angleBetween(along, {1, 0}), std::numbers::pi);
    ++count;
  }
  if (count > 0 && std::abs(across / count) > kOnBias) angle += across / count;
  move(p, Motion::rotationAbout({}, angle));
  for (Mark& m : p.marks)
    if (m.isLevel() && p.line(m).b.x < p.line(m).a.x) std::swap(m.a, m.b);
}

// Depth of the level all pieces are laid by.
std::optional<double> depthOf(const Piece& p, std::string_view level) {
  const auto l = p.level(level);
  return l ? std::optional((l->a.y + l->b.y) / 2) : std::nullopt;
}

// From the centre front to the centre back, at one depth of the level most of them have.
void layInOrder(std::vector<Piece>& pieces) {
  std::map<std::string, int> times;
  for (const Piece& p : pieces)
    for (const LevelLine& l : p.levelLines()) ++times[l.level];
  std::string shared = times.contains("waist") ? "waist" : "";
  for (const auto& [id, n] : times)
    if (shared.empty() || (shared != "waist" && n > times[shared])) shared = id;
  double x = 0;
  for (Piece& p : pieces) {
    const Polyline outline = p.outline(0.5);
    double left = HUGE_VAL, right = -HUGE_VAL, top = HUGE_VAL;
    for (const Vec2 q : outline) {
      left = std::min(left, q.x);
      right = std::max(right, q.x);
      top = std::min(top, q.y);
    }
    move(p, Motion::translation({x - left, -depthOf(p, shared).value_or(top)}));
    x += right - left + kBesideShell;
  }
}

bool comesBefore(const Piece& a, const Piece& b) {
  const auto rank = [](const Piece& p) {
    return std::tuple(p.half == Half::Back ? 1 : 0, static_cast<int>(p.part),
                      p.half == Half::Back ? -p.ordinal : p.ordinal);
  };
  return rank(a) < rank(b);
}

// Joins named sides to seams.
class SeamTracer {
 public:
  SeamTracer(const Pattern& pattern, const NamedSeam& names) : pattern_(pattern), names_(names) {}

  Result<Seam> traced() const {
    Result<SeamSide> a = side(names_.a), b = side(names_.b);
    if (!a.ok()) return a.problem();
    if (!b.ok()) return b.problem();
    Seam seam;
    seam.id = names_.id;
    seam.name = verbatim(names_.name.empty() ? names_.id : names_.name);
    seam.kind = names_.kind;
    seam.a = std::move(a).value();
    seam.b = std::move(b).value();
    // Walked from its upper end; a cup line from the centre front. The partner runs against it round its piece.
    if (startsLower(seam.a)) turn(seam.a);
    if (seam.b.chain.front().reversed == seam.a.chain.front().reversed) turn(seam.b);
    if (names_.ease != 0) seam.eases.push_back({"top", "hem", names_.ease});
    const double la = pattern_.sidePath(seam.a).length(), lb = pattern_.sidePath(seam.b).length();
    if (std::abs(la - lb - names_.ease) > kMostUneven)
      return fault(msg("its sides differ by {}", Length{std::abs(la - lb - names_.ease)}),
                   "name the edges that are sewn to each other, or say its ease");
    seam.notches = notchesOf(pattern_, seam);
    return seam;
  }

 private:
  Problem fault(Message what, Message remedy) const {
    return {names_.name.empty() ? verbatim(names_.id) : verbatim(names_.name), std::move(what), std::move(remedy)};
  }

  Result<SeamSide> side(const NamedSide& named) const {
    SeamSide out;
    const auto piece = std::ranges::find(pattern_.pieces, named.piece, &Piece::id);
    if (piece == pattern_.pieces.end()) return fault(msg("there is no piece {}", named.piece), "name the piece first");
    out.piece = static_cast<size_t>(piece - pattern_.pieces.begin());
    if (named.edges.empty()) return fault("one side names no edge", "click on the edges that are sewn");
    for (const std::string& id : named.edges) {
      const auto edge = std::ranges::find(piece->edges, id, &Edge::id);
      if (edge == piece->edges.end()) return fault(msg("{} has no edge {}", piece->name, id), "name the edge first");
      if (!isSewn(edge->role) && names_.kind != SeamKind::Shoulder)
        return fault(msg("the edge {} of {} is not one that is sewn", id, piece->name), "make it a seam");
      out.chain.push_back({id, false});
    }
    if (out.chain.size() > 1 && runsOn(*piece, out.chain[1].edge, out.chain[0].edge))
      for (EdgeUse& use : out.chain) use.reversed = true;
    for (size_t i = 0; i + 1 < out.chain.size(); ++i) {
      const bool back = out.chain[i].reversed;
      if (!runsOn(*piece, out.chain[back ? i + 1 : i].edge, out.chain[back ? i : i + 1].edge))
        return fault(msg("its edges on {} do not follow each other", piece->name), "name them from the upper end down");
    }
    return out;
  }
  static bool runsOn(const Piece& piece, const std::string& first, const std::string& second) {
    return distance(piece.edge(first).path.end(), piece.edge(second).path.start()) <= tolerance::kNothing;
  }

  // Of a chain of one edge: whether its start is its lower end, or of a line that runs across the one further out.
  bool startsLower(const SeamSide& s) const {
    if (s.chain.size() > 1) return false;  // said by their order
    const Path path = pattern_.sidePath(s);
    const Piece& piece = pattern_.pieces[s.piece];
    const Vec2 along = path.end() - path.start();
    const EdgeRole role = piece.edge(s.chain.front().edge).role;
    const double steep = role == EdgeRole::Cup || role == EdgeRole::Yoke ? 3 : 0.5;
    return std::abs(along.y) > steep * std::abs(along.x) ? along.y < 0 : along.x < 0;
  }
  static void turn(SeamSide& s) {
    for (EdgeUse& use : s.chain) use.reversed = !use.reversed;
    if (s.chain.size() > 1) std::ranges::reverse(s.chain);
  }

  const Pattern& pattern_;
  const NamedSeam& names_;
};

constexpr double kHere = 2;  // mm: a level ends at a corner

bool isAtDart(const Piece& p, const Anchor& end) {
  return std::ranges::any_of(p.darts, [&](const Dart& d) {
    return std::ranges::any_of(d.legs, [&](const Edge& leg) {
      return leg.id == end.edge ||
             std::min(distance(leg.path.start(), p.point(end)), distance(leg.path.end(), p.point(end))) < kHere;
    });
  });
}

// The edges a level ends on: at a corner both.
std::vector<const Edge*> edgesAt(const Piece& p, const Anchor& end) {
  std::vector<const Edge*> found;
  const Vec2 at = p.point(end);
  for (const Edge& e : p.edges)
    if (e.id == end.edge || std::min(distance(e.path.start(), at), distance(e.path.end(), at)) < kHere)
      found.push_back(&e);
  return found;
}

// Whether beyond an edge the level goes on, on the piece sewn to it.
bool goesOn(const Pattern& pattern, size_t piece, const Edge& edge, const std::string& level) {
  for (const Seam& s : pattern.seams)
    for (const auto& [mine, other] : {std::pair{&s.a, &s.b}, {&s.b, &s.a}})
      if (mine->piece == piece && mine->uses(edge.id))
        for (const Mark& k : pattern.pieces[other->piece].levelMarks())
          if (k.id == level) return true;
  return false;
}

// How far a level ends from the centre its piece lies at, both halves: skin, where a plunge leaves it open. Nothing
// where the piece has no centre.
std::optional<double> offCentre(const Piece& p, Vec2 end) {
  for (const Edge& e : p.edges)
    if (isCentre(e.role) && e.role != EdgeRole::Opening)
      return 2 * std::abs(cross(unit(e.path.end() - e.path.start()), end - e.path.start()));
  return std::nullopt;
}

// Follows a level from piece to piece: it is a ring where its line goes on from the centre front to the centre back.
void closeRing(const Pattern& pattern, PatternLevel& level) {
  bool front = false, back = false;
  double skin = 0;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    for (const Mark& m : p.levelMarks()) {
      if (m.id != level.id) continue;
      front = front || p.half != Half::Back;
      back = back || p.half != Half::Front;
      for (const Anchor* end : {&m.a, &m.b}) {
        if (isAtDart(p, *end)) continue;
        const auto edges = edgesAt(p, *end);
        if (std::ranges::any_of(edges, [&](const Edge* e) { return isCentre(e->role); })) continue;
        if (std::ranges::any_of(edges, [&](const Edge* e) { return goesOn(pattern, i, *e, level.id); })) continue;
        const auto gap = offCentre(p, p.point(*end));
        if (!gap || end != &m.a || p.half != Half::Front) return;
        skin = *gap;
      }
    }
  }
  level.ring = front && back;
  if (level.ring) level.gaps.skin = skin;
}

void addLevels(Pattern& pattern, double opening) {
  std::map<std::string, std::pair<double, int>> depths;
  for (const Piece& p : pattern.pieces)
    for (const LevelLine& l : p.levelLines()) {
      auto& [sum, count] = depths[l.level];
      sum += (l.a.y + l.b.y) / 2;
      ++count;
    }
  std::vector<std::pair<double, std::string>> order;
  for (const auto& [id, d] : depths) order.emplace_back(d.first / d.second, id);
  std::ranges::sort(order);
  for (const auto& [depth, id] : order) {
    PatternLevel l;
    l.id = id;
    l.name = levelName(id);
    closeRing(pattern, l);
    if (l.ring) l.gaps.opening = opening;
    l.finishedGirth = pattern.closedGirth(l);
    l.bodyGirth = l.finishedGirth;
    pattern.levels.push_back(std::move(l));
  }
}

std::optional<Problem> addSeams(Pattern& pattern, const std::vector<NamedSeam>& names) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const Dart& d : pattern.pieces[i].darts) {
      Seam seam{d.id, verbatim(d.id), {i, {{d.legs[0].id, false}}}, {i, {{d.legs[1].id, true}}}};
      seam.kind = SeamKind::Dart;
      seam.notches = notchesOf(pattern, seam);
      pattern.seams.push_back(std::move(seam));
    }
  for (const NamedSeam& s : names) {
    Result<Seam> seam = SeamTracer(pattern, s).traced();
    if (!seam.ok()) return seam.problem();
    if (pattern.seam(s.id)) return Problem{verbatim(s.id), "two seams are called so", "give each its own name"};
    pattern.seams.push_back(std::move(seam).value());
  }
  return std::nullopt;
}

// Every edge that is sewn is in one seam.
std::optional<Problem> unsewn(const Pattern& pattern) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const Edge& e : pattern.pieces[i].edges) {
      if (!isSewn(e.role)) continue;
      const auto times = std::ranges::count_if(pattern.seams, [&](const Seam& s) {
        return (s.a.piece == i && s.a.uses(e.id)) || (s.b.piece == i && s.b.uses(e.id));
      });
      if (times == 0)
        return Problem{pattern.pieces[i].name, msg("its edge {} is sewn to nothing", e.id),
                       "say what it joins, or make it a top edge, hem, opening or armhole"};
      if (times > 1)
        return Problem{pattern.pieces[i].name, msg("its edge {} is in two seams", e.id), "leave it in one of them"};
    }
  return std::nullopt;
}

NamedPiece scaledPiece(NamedPiece p, double k) {
  for (Vec2* at : {&p.at, &p.grainTop, &p.grainBottom}) *at = k * *at;
  for (NamedEdge& e : p.edges) e.from = k * e.from;
  for (NamedLevel& l : p.levels) l.a = k * l.a, l.b = k * l.b;
  for (NamedNotch& n : p.notches) n.at = k * n.at;
  for (NamedDart& d : p.darts) d.first = k * d.first, d.second = k * d.second;
  return p;
}

}  // namespace

TracingNames scaledNames(TracingNames names, double factor) {
  for (NamedPiece& p : names.pieces) p = scaledPiece(std::move(p), factor);
  return names;
}

Result<double> scaleByLength(Vec2 from, Vec2 to, double length) {
  constexpr double kMost = 1000;
  const double drawn = distance(from, to);
  const double factor = drawn > 0 ? length / drawn : 0;
  if (!(factor >= 1 / kMost) || !(factor <= kMost))
    return Problem{"scale", msg("{} cannot be what is {} in the drawing", Length{length}, Length{drawn}),
                   "choose two places further apart, and the length between them on the paper"};
  return factor;
}

Result<Pattern> tracedPattern(const LineDrawing& drawing, const TracingNames& names) {
  const LineDrawing real = names.scale == 1 ? drawing : scaled(drawing, names.scale);
  const std::vector<TracedOutline> outlines = outlinesOf(real);
  Pattern pattern;
  if (names.pieces.empty()) return Problem{"pieces", "none is named", "name the outlines that are pieces"};
  for (const NamedPiece& named : names.pieces) {
    for (const Piece& p : pattern.pieces)
      if (p.id == named.id) return Problem{verbatim(named.id), "two pieces are called so", "give each its own name"};
    Result<Piece> piece = PieceTracer(real, outlines, scaledPiece(named, names.scale)).traced();
    if (!piece.ok()) return piece.problem();
    if (named.mirrored) mirror(piece.value());
    putUpright(piece.value());
    pattern.pieces.push_back(std::move(piece).value());
  }
  std::ranges::stable_sort(pattern.pieces, comesBefore);
  layInOrder(pattern.pieces);
  if (auto fault = addSeams(pattern, names.seams)) return *fault;
  return finishTraced(std::move(pattern), names.opening);
}

Result<Pattern> finishTraced(Pattern pattern, double opening) {
  if (pattern.pieces.empty()) return Problem{"pieces", "there are none", "name the outlines that are pieces"};
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    pattern.pieces[i].number = static_cast<int>(i) + 1;
    pattern.pieces[i].of = static_cast<int>(pattern.pieces.size());
  }
  if (auto fault = patternProblem(pattern)) return *fault;
  if (auto fault = unsewn(pattern)) return *fault;
  for (Seam& s : pattern.seams) s.notches = notchesOf(pattern, s);
  pattern.levels.clear();
  addLevels(pattern, opening);
  return pattern;
}

}  // namespace armure
