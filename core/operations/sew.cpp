#include "operations/sew.h"

#include <fmt/format.h>

#include <cmath>
#include <optional>
#include <stdexcept>

#include "operations/crossing.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kSame = 4;  // mm: ends of edges this near each other are meant to meet

double lengthOf(const Pattern& pattern, const SewnEdge& e) {
  return pattern.pieces.at(e.piece).edge(e.use.edge).path.length();
}

// Divides the edge at place i of a line `along` mm from where the line walks it. Other edges of the line on the same
// piece keep their names.
void divide(Pattern& pattern, std::vector<SewnEdge>& line, size_t i, double along) {
  const auto [first, second] = splitEdge(pattern.pieces[line[i].piece], line[i].use, along);
  const SewnEdge rest{line[i].piece, second};
  line[i].use = first;
  line.insert(line.begin() + static_cast<std::ptrdiff_t>(i) + 1, rest);
}

}  // namespace

double lengthOfLine(const Pattern& pattern, const std::vector<SewnEdge>& line) {
  double sum = 0;
  for (const SewnEdge& e : line) sum += lengthOf(pattern, e);
  return sum;
}

void sewLines(Pattern& pattern, std::vector<SewnEdge> a, std::vector<SewnEdge> b, const std::string& id,
              const Message& name, SeamKind kind) {
  if (a.empty() || b.empty()) throw std::invalid_argument("sew: a line without edges, " + id);
  const double scale = lengthOfLine(pattern, b) / lengthOfLine(pattern, a);
  std::vector<Seam> made;
  for (size_t i = 0; i < a.size() && i < b.size(); ++i) {
    const double la = lengthOf(pattern, a[i]) * scale, lb = lengthOf(pattern, b[i]);
    const bool last = i + 1 == a.size() && i + 1 == b.size();
    if (!last && la > lb + kSame && i + 1 < b.size()) divide(pattern, a, i, lb / scale);
    if (!last && lb > la + kSame && i + 1 < a.size()) divide(pattern, b, i, la);
    if (!made.empty() && made.back().a.piece == a[i].piece && made.back().b.piece == b[i].piece) {
      made.back().a.chain.push_back(a[i].use);
      made.back().b.chain.push_back(b[i].use);
      continue;
    }
    made.push_back({made.empty() ? id : fmt::format("{}-{}", id, made.size() + 1),
                    name,
                    {a[i].piece, {a[i].use}},
                    {b[i].piece, {b[i].use}},
                    {},
                    {},
                    kind});
  }
  for (Seam& s : made) pattern.seams.push_back(std::move(s));
}

std::vector<SewnEdge> lineFrom(const Pattern& pattern, const SewnEdge& first, std::string_view stop) {
  std::vector<SewnEdge> line{first};
  const EdgeRole role = pattern.pieces.at(first.piece).edge(first.use.edge).role;
  for (;;) {
    const SewnEdge& last = line.back();
    const Piece& piece = pattern.pieces[last.piece];
    const std::string next = piece.edges[(edgePlace(piece, last.use.edge) + 1) % piece.edges.size()].id;
    std::optional<SewnEdge> onward;
    for (const Seam& s : pattern.seams)
      for (const bool a : {true, false}) {
        const SeamSide &mine = a ? s.a : s.b, &other = a ? s.b : s.a;
        if (mine.piece != last.piece || !mine.uses(next) || s.id == stop) continue;
        for (const bool atTop : {true, false}) {
          const SeamEnd here = seamEnd(pattern, mine, atTop), there = seamEnd(pattern, other, atTop);
          if (piece.lineAt(here.across).id != last.use.edge || here.atItsStart) continue;
          if (there.acrossRole == role && there.atItsStart)
            onward = SewnEdge{other.piece, {pattern.pieces[other.piece].lineAt(there.across).id, false}};
        }
      }
    const bool closes = onward && onward->piece == first.piece && onward->use.edge == first.use.edge;
    if (!onward || closes || line.size() > pattern.pieces.size()) return line;
    line.push_back(*onward);
  }
}

}  // namespace armure
