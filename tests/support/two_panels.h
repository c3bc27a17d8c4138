// tests/support/two_panels.h
//
// A drawing of two panels, made for tests, and the names of what its lines are.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "tracing/line_drawing.h"
#include "tracing/naming.h"

namespace armure::testing {

inline DrawnShape lineOf(Vec2 a, Vec2 b, std::string layer = "", std::string id = "") {
  return {Path::line(a, b), false, std::move(id), std::move(layer)};
}

inline DrawnShape closedOf(std::vector<Vec2> points, std::string layer = "") {
  points.push_back(points.front());
  return {Path::polyline(points), true, "", std::move(layer)};
}

// Two oblongs that are sewn along a side: 200 by 300 and 150 by 300, a fold on the left of the first, an opening on the
// right of the second, levels at 100 and 200.
inline LineDrawing twoPanels() {
  LineDrawing d;
  const auto panel = [&](double x, double width) {
    const Vec2 a{x, 0}, b{x + width, 0}, c{x + width, 300}, e{x, 300};
    for (const auto& [from, to] : {std::pair{a, b}, {b, c}, {c, e}}) d.shapes.push_back(lineOf(from, to, "sewn"));
    d.shapes.push_back(lineOf(e, a, x == 0 ? "fold" : "sewn"));
    for (const double y : {100.0, 200.0}) d.shapes.push_back(lineOf({x, y}, {x + width, y}, "levels"));
    d.shapes.push_back(lineOf({x + width / 2, 250}, {x + width / 2, 50}, "grain"));
  };
  panel(0, 200);
  panel(260, 150);
  return d;
}

inline TracingNames namedPanels() {
  const auto panel = [](std::string id, double x, double width, Half half, bool fold) {
    NamedPiece p{.id = id, .name = id, .at = {x + width / 3, 150}, .half = half};
    p.copies = fold ? 1 : 2;
    p.grainTop = {x + width / 2, 50};
    p.grainBottom = {x + width / 2, 250};
    p.edges = {{"top", {x, 0}, EdgeRole::Top, 10},
               {"right", {x + width, 0}, fold ? EdgeRole::Seam : EdgeRole::Opening, 10},
               {"hem", {x + width, 300}, EdgeRole::Hem, 10},
               {"left", {x, 300}, fold ? EdgeRole::Fold : EdgeRole::Seam, fold ? 0.0 : 10}};
    p.levels = {{"bust", {x, 100}, {x + width, 100}}, {"waist", {x, 200}, {x + width, 200}}};
    return p;
  };
  TracingNames names;
  names.pieces = {panel("front", 0, 200, Half::Front, true), panel("back", 260, 150, Half::Back, false)};
  names.seams = {{"side", "Side seam", {"front", {"right"}}, {"back", {"left"}}}};
  return names;
}

}  // namespace armure::testing
