// The lines of a garment that something can be sewn to, on every style: their lengths, marks and other sides.
#include <catch2/catch.hpp>
#include <set>

#include "parts/trims/lines.h"
#include "pattern/outline_parts.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

double lengthOf(const Pattern& pattern, const std::vector<SewnEdge>& edges) {
  double sum = 0;
  for (const SewnEdge& e : edges) sum += pattern.pieces[e.piece].edge(e.use.edge).path.length();
  return sum;
}

// Where an edge of a line begins as the line walks it.
Vec2 startOf(const Pattern& pattern, const SewnEdge& e) {
  const Path& path = pattern.pieces[e.piece].edge(e.use.edge).path;
  return e.use.reversed ? path.end() : path.start();
}
Vec2 endOf(const Pattern& pattern, const SewnEdge& e) {
  const Path& path = pattern.pieces[e.piece].edge(e.use.edge).path;
  return e.use.reversed ? path.start() : path.end();
}

}  // namespace

TEST_CASE("lines are as long as their edges, their marks in order, their ids each once") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order order = plainOrder();
    order.style = std::string(style.id);
    const Design d = designOf(order);
    std::set<std::string> ids;
    for (const GarmentLine& line : garmentLines(d.pattern)) {
      INFO(line.id);
      CHECK(ids.insert(line.id).second);
      CHECK(line.length() == Approx(lengthOf(d.pattern, line.edges)));
      CHECK(line.marks.front().id == "start");
      CHECK(line.marks.back().id == "end");
      CHECK(line.marks.back().at == Approx(line.length()));
      for (size_t i = 0; i + 1 < line.marks.size(); ++i) CHECK(line.marks[i].at <= line.marks[i + 1].at + 1e-6);
      if (line.isSeam()) {
        CHECK(line.partnerEnds.back() == Approx(lengthOf(d.pattern, line.partner)));
        CHECK_FALSE((line.runsOver[0] || line.runsOver[1]));
      }
      // Edges of one piece hang together.
      for (size_t k = 0; k + 1 < line.edges.size(); ++k)
        if (line.edges[k].piece == line.edges[k + 1].piece)
          CHECK(distance(endOf(d.pattern, line.edges[k]), startOf(d.pattern, line.edges[k + 1])) < 1e-6);
    }
    CHECK(ids.contains("hem"));
    CHECK(ids.contains("top"));
  }
}

TEST_CASE("openings and seams run down, upper edges and hems outwards from the centre") {
  const Design d = designOf(orderWith({{"opening.front", "hooks"}}));
  int openings = 0;
  for (const GarmentLine& line : garmentLines(d.pattern)) {
    INFO(line.id);
    const Vec2 from = startOf(d.pattern, line.edges.front()), to = endOf(d.pattern, line.edges.back());
    if (line.id.starts_with("opening")) {
      ++openings;
      CHECK(from.y < to.y);
    }
    if (line.isSeam()) CHECK(from.y < to.y);
    if (line.id == "top" || line.id == "hem") CHECK(from.x < to.x);
  }
  CHECK(openings == 2);
}

TEST_CASE("a stretch on the other side of a seam is as long; one about a place stays on its line") {
  const Design d = designOf(plainOrder());
  TrimChoice trim(TrimKind::Edging, "1");
  trim.set("on", "princess");
  trim.set("from", "waist");
  const TrimStretch stretch = stretchOf(d.pattern, trim).value();
  const TrimStretch other = onPartner(stretch);
  CHECK(other.half() == Approx(stretch.half()).margin(0.5));
  CHECK(other.line.edges.front().piece != stretch.line.edges.front().piece);
  CHECK(onPartner(other).from == Approx(stretch.from));
  for (const double at : {0.0, 100.0, stretch.line.length()}) {
    const TrimStretch short_ = about(stretch, at, 20);
    CHECK(short_.half() == Approx(20));
    CHECK(short_.from >= 0);
    CHECK(short_.to <= stretch.line.length());
  }
}

TEST_CASE("an opening beside a dart that ends in the waist seam is a line of its own") {
  const Design d = designOf(orderWith({{"opening.kind", "zip"}}));
  Order order = plainOrder();
  order.style = "dress-with-slit";  // its back has a dart, open at the waist, and its skirt another
  const Design dress = designOf(order);
  for (const Design* of : {&d, &dress})
    for (const GarmentLine& line : garmentLines(of->pattern))
      for (const SewnEdge& e : line.edges) CHECK(hasEdge(of->pattern.pieces[e.piece], e.use.edge));
}
