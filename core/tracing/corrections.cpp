#include "tracing/corrections.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <set>

#include "quotable.h"

namespace armure {
namespace {

std::optional<Problem> wrongId(const std::string& id) {
  const auto plain = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' || c == '_';
  };
  if (!id.empty() && id.size() <= 60 && std::ranges::all_of(id, plain)) return std::nullopt;
  return Problem{"name", msg("\"{}\" cannot be one", quotable(id)), "letters, figures and hyphens"};
}

NamedEdge* edgeOf(TracingNames& names, const TracedEdge& edge) {
  NamedPiece* p = pieceNamed(names, edge.piece);
  if (!p) return nullptr;
  const auto found = std::ranges::find(p->edges, edge.edge, &NamedEdge::id);
  return found == p->edges.end() ? nullptr : &*found;
}

bool uses(const NamedSide& side, const TracedEdge& edge) {
  return side.piece == edge.piece && std::ranges::find(side.edges, edge.edge) != side.edges.end();
}

std::string freeSeamId(const TracingNames& names, const std::string& wanted) {
  std::set<std::string> known;
  for (const NamedSeam& s : names.seams) known.insert(s.id);
  for (const NamedPiece& p : names.pieces)
    for (const NamedDart& d : p.darts) known.insert(d.id);
  std::string id = wanted;
  for (int n = 2; known.contains(id); ++n) id = fmt::format("{}-{}", wanted, n);
  return id;
}

Problem noEdge(const TracedEdge& edge) {
  return {verbatim(edge.piece), msg("there is no edge {}", quotable(edge.edge)), "pick an edge of the drawing"};
}

}  // namespace

const NamedPiece* pieceNamed(const TracingNames& names, std::string_view id) {
  const auto found = std::ranges::find(names.pieces, id, &NamedPiece::id);
  return found == names.pieces.end() ? nullptr : &*found;
}

NamedPiece* pieceNamed(TracingNames& names, std::string_view id) {
  const auto found = std::ranges::find(names.pieces, id, &NamedPiece::id);
  return found == names.pieces.end() ? nullptr : &*found;
}

const NamedEdge* edgeNamed(const TracingNames& names, const TracedEdge& edge) {
  const NamedPiece* p = pieceNamed(names, edge.piece);
  if (!p) return nullptr;
  const auto found = std::ranges::find(p->edges, edge.edge, &NamedEdge::id);
  return found == p->edges.end() ? nullptr : &*found;
}

const NamedSeam* seamWith(const TracingNames& names, const TracedEdge& edge) {
  const auto found =
      std::ranges::find_if(names.seams, [&](const NamedSeam& s) { return uses(s.a, edge) || uses(s.b, edge); });
  return found == names.seams.end() ? nullptr : &*found;
}

std::vector<TracedEdge> partnersOf(const TracingNames& names, const TracedEdge& edge) {
  const NamedSeam* s = seamWith(names, edge);
  std::vector<TracedEdge> partners;
  if (!s) return partners;
  const NamedSide& other = uses(s->a, edge) ? s->b : s->a;
  for (const std::string& id : other.edges) partners.push_back({other.piece, id});
  return partners;
}

Result<TracingNames> renamedPiece(TracingNames names, const std::string& piece, const std::string& id) {
  if (auto wrong = wrongId(id)) return *wrong;
  if (id == piece) return names;
  if (pieceNamed(names, id)) return Problem{"name", msg("another piece is called {}", id), "give each its own name"};
  NamedPiece* p = pieceNamed(names, piece);
  if (!p) return Problem{verbatim(piece), "there is no such piece", "pick an outline"};
  p->id = p->name = id;
  for (NamedSeam& s : names.seams)
    for (NamedSide* side : {&s.a, &s.b})
      if (side->piece == piece) side->piece = id;
  return names;
}

Result<TracingNames> renamedEdge(TracingNames names, const TracedEdge& edge, const std::string& id) {
  if (auto wrong = wrongId(id)) return *wrong;
  if (id == edge.edge) return names;
  NamedEdge* e = edgeOf(names, edge);
  if (!e) return noEdge(edge);
  if (edgeNamed(names, {edge.piece, id}))
    return Problem{"name", msg("another edge of {} is called {}", edge.piece, id), "give each its own name"};
  e->id = id;
  for (NamedSeam& s : names.seams) {
    bool mine = false;
    for (NamedSide* side : {&s.a, &s.b})
      if (side->piece == edge.piece)
        for (std::string& use : side->edges)
          if (use == edge.edge) use = id, mine = true;
    // A seam whose edges are called alike is called so too.
    if (mine && s.a.edges.size() == 1 && s.a.edges == s.b.edges && s.id != id) {
      s.id.clear();
      s.id = s.name = freeSeamId(names, id);
    }
  }
  return names;
}

TracingNames withoutPiece(TracingNames names, const std::string& piece) {
  std::erase_if(names.pieces, [&](const NamedPiece& p) { return p.id == piece; });
  std::vector<TracedEdge> left;
  for (const NamedSeam& s : names.seams)
    for (const auto& [mine, other] : {std::pair{&s.a, &s.b}, {&s.b, &s.a}})
      if (mine->piece == piece)
        for (const std::string& e : other->edges) left.push_back({other->piece, e});
  for (const TracedEdge& e : left) names = notSewn(std::move(names), e);
  return names;
}

TracingNames withRole(TracingNames names, const TracedEdge& edge, EdgeRole role) {
  NamedEdge* e = edgeOf(names, edge);
  if (!e) return names;
  e->role = role;
  if (role == EdgeRole::Fold) e->allowance = 0;
  if (NamedPiece* p = pieceNamed(names, edge.piece)) {
    const bool fold = std::ranges::any_of(p->edges, [](const NamedEdge& x) { return x.role == EdgeRole::Fold; });
    if (fold) p->copies = 1;
    if (!fold && p->copies == 1) p->copies = 2;
  }
  if (!isSewn(role))
    std::erase_if(names.seams, [&](const NamedSeam& s) {
      return s.kind != SeamKind::Shoulder && (uses(s.a, edge) || uses(s.b, edge));
    });
  return names;
}

Result<TracingNames> sewn(TracingNames names, const TracedEdge& a, const TracedEdge& b) {
  for (const TracedEdge& e : {a, b})
    if (!edgeNamed(names, e)) return noEdge(e);
  if (a == b) return Problem{verbatim(a.piece), "an edge is not sewn to itself", "pick another edge"};
  for (const TracedEdge& e : {a, b}) {
    std::erase_if(names.seams, [&](const NamedSeam& s) { return uses(s.a, e) || uses(s.b, e); });
    NamedEdge* edge = edgeOf(names, e);
    if (!isSewn(edge->role)) names = withRole(std::move(names), e, EdgeRole::Seam);
  }
  NamedSeam s;
  s.id = s.name = freeSeamId(names, a.edge == b.edge ? a.edge : a.edge + "-" + b.edge);
  s.a = {a.piece, {a.edge}};
  s.b = {b.piece, {b.edge}};
  names.seams.push_back(std::move(s));
  return names;
}

TracingNames notSewn(TracingNames names, const TracedEdge& edge) {
  std::erase_if(names.seams, [&](const NamedSeam& s) { return uses(s.a, edge) || uses(s.b, edge); });
  return names;
}

Result<TracingNames> splitAt(TracingNames names, const TracedEdge& edge, Vec2 at) {
  NamedPiece* p = pieceNamed(names, edge.piece);
  if (!p || !edgeNamed(names, edge)) return noEdge(edge);
  const auto place = std::ranges::find(p->edges, edge.edge, &NamedEdge::id);
  NamedEdge second = *place;
  second.from = at;
  for (int n = 2;; ++n) {
    second.id = fmt::format("{}-{}", edge.edge, n);
    if (!edgeNamed(names, {edge.piece, second.id})) break;
  }
  if (isSewn(second.role)) second.role = EdgeRole::Top;
  p->edges.insert(place + 1, std::move(second));
  return names;
}

Result<TracingNames> oneWithNext(TracingNames names, const TracedEdge& edge) {
  NamedPiece* p = pieceNamed(names, edge.piece);
  if (!p || !edgeNamed(names, edge)) return noEdge(edge);
  if (p->edges.size() < 2) return Problem{verbatim(edge.piece), "has one edge only", "split it where another begins"};
  const auto place = std::ranges::find(p->edges, edge.edge, &NamedEdge::id);
  const auto next = place + 1 == p->edges.end() ? p->edges.begin() : place + 1;
  const TracedEdge gone{edge.piece, next->id};
  p->edges.erase(next);
  for (NamedSeam& s : names.seams)
    for (NamedSide* side : {&s.a, &s.b})
      if (side->piece == gone.piece && side->edges.size() > 1) std::erase(side->edges, gone.edge);
  return notSewn(std::move(names), gone);
}

}  // namespace armure
