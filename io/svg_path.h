// io/svg_path.h
//
// The "d" of an SVG path (SVG 2, 9.3): every command, absolute and relative, arcs as cubics.
#pragma once

#include <string_view>
#include <vector>

#include "geometry/cubic.h"

namespace armure {

struct Subpath {
  std::vector<Cubic> cubics;
  bool closed = false;
};

// As far as it can be read: what follows an error is left out, as the standard says (9.5.4), and `whole` is false.
struct SvgPath {
  std::vector<Subpath> subpaths;
  bool whole = true;
};
SvgPath parseSvgPath(std::string_view d);

// An elliptical arc as cubics of a quarter turn at the most, by its end points (SVG 2, B.2.4); radii that do not reach
// are grown (B.2.5). `turnRad` is how the ellipse lies.
std::vector<Cubic> ellipticalArc(Vec2 from, Vec2 radii, double turnRad, bool large, bool sweep, Vec2 to);

}  // namespace armure
