#include "parts/trims/sewn_on.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kNothing = 1e-6;  // mm

// What one copy of the trim's edge covers, in mm along the line; attachments for every edge of the line it lies on.
class Covering {
 public:
  Covering(Pattern& pattern, const TrimStretch& stretch, Attachment as)
      : pattern_(pattern), stretch_(stretch), as_(std::move(as)) {}

  // Along the whole of the stretch: where the left half begins on it.
  double left() const { return stretch_.over[0] ? stretch_.half() : 0; }

  void cover(double from, double to) {
    const double begin = stretch_.from - left(), low = std::max(from + begin, stretch_.from),
                 high = std::min(to + begin, stretch_.to);
    double start = 0;
    for (size_t k = 0; k < stretch_.line.edges.size(); ++k) {
      const double end = stretch_.line.ends[k], a = std::max(low, start), b = std::min(high, end);
      if (b - a > kNothing) add(stretch_.line.edges[k], a - start, b - start, end - start, a - begin - from);
      start = end;
    }
  }

 private:
  // `from` to `to` as the line walks the edge; `before` of what the copy covers lies before it.
  void add(const SewnEdge& e, double from, double to, double length, double before) {
    Attachment a = as_;
    a.piece = e.piece;
    a.edge = e.use.edge;
    std::tie(a.from, a.to) = e.use.reversed ? std::pair{length - to, length - from} : std::pair{from, to};
    a.onFrom = before * a.full;
    a.onTo = (before + to - from) * a.full;
    pattern_.attachments.push_back(std::move(a));
  }

  Pattern& pattern_;
  const TrimStretch& stretch_;
  Attachment as_;
};

}  // namespace

double trimClothWidth(const TrimChoice& trim, const Rules& rules) {
  const auto own = rules.chosenCloth(trim.id());
  if (!own && !rules.isDefault(key::kClothWidth)) return rules.length(key::kClothWidth);
  const std::string of = own ? *own : rules.chosenCloth("trim").value_or(rules.chosenCloth("shell").value_or("satin"));
  const ListedCloth* cloth = rules.cloth(of);
  return cloth ? cloth->width : rules.length(key::kClothWidth);
}

Piece trimPiece(const TrimChoice& trim, int part, int parts) {
  Piece p;
  p.id = parts > 1 ? fmt::format("{}-{}", trim.id(), part) : trim.id();
  p.name = parts > 1 ? msg("{}, part {}", trim.title(), part) : trim.title();
  p.part = Part::Trim;
  p.layer = "trim";
  p.symmetry = Symmetry::Once;
  return p;
}

Vec2 besideAll(const Pattern& pattern) {
  double top = HUGE_VAL;
  for (const Piece& p : pattern.pieces)
    for (const Edge& e : p.edges) top = std::min(top, e.path.start().y);
  return {pattern.right() + kBesideShell, top};
}

void sewOn(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, Piece piece, const std::string& edge,
           double from, double each, double full, double hangs) {
  const size_t place = pattern.pieces.size();
  const int copies = piece.symmetry == Symmetry::Pair ? piece.copies / 2 : piece.copies / stretch.count();
  Attachment as{piece.id, piece.name, 0, {}, 0, 0, {place, edge}};
  as.full = full;
  as.hangs = hangs;
  as.trim = trim.id();
  pattern.pieces.push_back(std::move(piece));
  Covering covering(pattern, stretch, std::move(as));
  for (int k = 0; k < copies; ++k) covering.cover(from + k * each, from + (k + 1) * each);
}

}  // namespace armure
