#include "tracing/piece_tracer.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

#include "geometry/path_distance.h"
#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

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

  std::optional<Problem> cutEdges() {
    if (names_.edges.empty()) return problem("no edge of it is named", "say where its edges begin");
    const Path& path = outline_->path;
    std::vector<double> at;
    std::set<std::string> ids;
    for (const NamedEdge& e : names_.edges) {
      at.push_back(placeOnOutline(*outline_, e.from));
      if (distance(path.pointAt(at.back()), e.from) > kOffOutline)
        return problem(msg("the edge {} does not begin on its outline", e.id), "click on the outline");
      if (!ids.insert(e.id).second) return problem(msg("two edges are called {}", e.id), "give each its own name");
    }
    std::vector<Path> parts = cutAtPlaces(path, at);
    if (parts.empty())
      return problem("its edges do not follow each other clockwise",
                     "name them in the order one walks round the piece");
    for (size_t i = 0; i < parts.size(); ++i) {
      const NamedEdge& e = names_.edges[i];
      piece_.edges.push_back({e.id, e.role, e.allowance, std::move(parts[i])});
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
        return problem(msg("the {} does not end on its outline", tracedLevelName(l.id)),
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
  movePiece(p, Motion::rotationAbout({}, angle));
  for (Mark& m : p.marks)
    if (m.isLevel() && p.line(m).b.x < p.line(m).a.x) std::swap(m.a, m.b);
}

}  // namespace

Message tracedLevelName(const std::string& id) {
  const auto row = std::ranges::find(kKnownLevels, id, &KnownLevel::id);
  return row == kKnownLevels.end() ? verbatim(id) : known(row->name);
}

void movePiece(Piece& p, const Motion& m) {
  for (size_t i = 0; i < p.lines(); ++i) p.lineAt(i).path = p.lineAt(i).path.transformed(m);
  p.grainTop = m.apply(p.grainTop);
  p.grainBottom = m.apply(p.grainBottom);
}

Result<Piece> tracedPiece(const LineDrawing& drawing, const std::vector<TracedOutline>& outlines,
                          const NamedPiece& names) {
  Result<Piece> piece = PieceTracer(drawing, outlines, names).traced();
  if (!piece.ok()) return piece;
  if (names.mirrored) mirror(piece.value());
  putUpright(piece.value());
  return piece;
}

}  // namespace armure
