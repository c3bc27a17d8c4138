#include "tracing/seam_tracer.h"

#include <algorithm>
#include <cmath>

#include "geometry/tolerances.h"
#include "pattern/marks.h"

namespace armure {
namespace {

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

}  // namespace

Result<Seam> tracedSeam(const Pattern& pattern, const NamedSeam& names) { return SeamTracer(pattern, names).traced(); }

}  // namespace armure
