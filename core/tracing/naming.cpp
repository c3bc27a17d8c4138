#include "tracing/naming.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

#include "pattern/marks.h"
#include "tracing/outlines.h"
#include "tracing/piece_tracer.h"
#include "tracing/rings.h"
#include "tracing/seam_tracer.h"

namespace armure {
namespace {

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
    movePiece(p, Motion::translation({x - left, -depthOf(p, shared).value_or(top)}));
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

std::optional<Problem> addSeams(Pattern& pattern, const std::vector<NamedSeam>& names) {
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const Dart& d : pattern.pieces[i].darts) {
      Seam seam{d.id, verbatim(d.id), {i, {{d.legs[0].id, false}}}, {i, {{d.legs[1].id, true}}}};
      seam.kind = SeamKind::Dart;
      seam.notches = notchesOf(pattern, seam);
      pattern.seams.push_back(std::move(seam));
    }
  for (const NamedSeam& s : names) {
    Result<Seam> seam = tracedSeam(pattern, s);
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
  return tracedPattern(real, outlinesOf(real), names);
}

Result<Pattern> tracedPattern(const LineDrawing& real, const std::vector<TracedOutline>& outlines,
                              const TracingNames& names) {
  Pattern pattern;
  if (names.pieces.empty()) return Problem{"pieces", "none is named", "name the outlines that are pieces"};
  for (const NamedPiece& named : names.pieces) {
    for (const Piece& p : pattern.pieces)
      if (p.id == named.id) return Problem{verbatim(named.id), "two pieces are called so", "give each its own name"};
    Result<Piece> piece = tracedPiece(real, outlines, scaledPiece(named, names.scale));
    if (!piece.ok()) return piece.problem();
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
  addTracedLevels(pattern, opening);
  return pattern;
}

}  // namespace armure
