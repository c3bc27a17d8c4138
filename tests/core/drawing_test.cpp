// One drawing for screen, paper and SVG: what it shows of a piece, where, and the right way up.
#include "prepare/drawing.h"

#include <numbers>

#include "prepare/marks.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

size_t count(const std::vector<DrawnLine>& lines, LineRole role) {
  size_t n = 0;
  for (const DrawnLine& l : lines) n += l.role == role;
  return n;
}

}  // namespace

TEST_CASE("every line of a piece is drawn once, in its role") {
  const Design d = designOf(orderWith({{"dial.side", "0.5"}, {"balance.keep", "balanced"}}));
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i) {
    const Piece& p = d.pattern.pieces[i];
    INFO(p.id);
    const std::vector<DrawnLine> lines = drawnLines(p, d.cutOutlines[i]);
    size_t mouths = 0, folds = 0;
    for (const Edge& e : p.edges) mouths += e.role == EdgeRole::Mouth, folds += e.role == EdgeRole::Fold;
    CHECK(count(lines, LineRole::Cut) == 1);
    CHECK(count(lines, LineRole::Sewn) + count(lines, LineRole::Fold) == p.lines() - mouths);
    CHECK(count(lines, LineRole::Fold) == folds);
    CHECK(count(lines, LineRole::Level) == p.levelLines().size());
    CHECK(count(lines, LineRole::Notch) == notchStrokes(p).size());
    CHECK(count(lines, LineRole::Point) == p.darts.size());
    // Every notch runs from the sewing line to the cutting line.
    Polyline cut = d.cutOutlines[i], sewn = p.outline(0.01);
    cut.push_back(cut.front()), sewn.push_back(sewn.front());
    for (const DrawnLine& l : lines)
      if (l.role == LineRole::Notch && distanceToPolyline(l.path.start(), cut) > 0.5) {
        CHECK(distanceToPolyline(l.path.start(), sewn) < 0.1);
        CHECK(distanceToPolyline(l.path.end(), cut) < 0.1);
      }
    CHECK(count(lines, LineRole::Grain) == 3);  // the line and both barbs of its arrow
    // The ring about the point of a dart: everywhere at its radius.
    for (const DrawnLine& l : lines)
      if (l.role == LineRole::Point)
        for (int k = 0; k <= 16; ++k)
          CHECK(distance(l.path.pointAt(l.path.length() * k / 16), p.darts[0].point()) == Approx(1.5).margin(1e-3));
    CHECK(count(drawnLines(p, {}), LineRole::Cut) == 0);
  }
}

TEST_CASE("what is written on a piece is never upside down, stands inside it and says what each edge gets") {
  const Design d = designOf(orderWith({{"dial.side", "0.5"}}));
  const Boning boning = boningOf(d.pattern, d.block, d.rules);
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i)
    for (int turn = 0; turn < 8; ++turn) {
      const Motion m = Motion::rotationAbout({50, 60}, turn * std::numbers::pi / 4);
      size_t pieceTexts = 0, edges = 0, levels = 0;
      for (const DrawnText& t : drawnTexts({d.pattern, d.rules, boning}, i, m)) {
        CHECK(std::abs(std::remainder(t.angleRad, 2 * std::numbers::pi)) <= std::numbers::pi / 2 + 1e-6);
        CHECK(!t.text.empty());
        CHECK((t.height >= 2.5 && t.height <= 8));
        pieceTexts += t.role == TextRole::Piece;
        edges += t.role == TextRole::Edge;
        levels += t.role == TextRole::Level;
      }
      const Piece& p = d.pattern.pieces[i];
      CHECK(pieceTexts == labelLines(p, d.rules).size() + 1);  // and which way is up
      CHECK(edges == p.edges.size() - p.darts.size());         // nothing along a mouth
      CHECK(levels == p.levelLines().size() + 1);              // and the grain
    }
}
