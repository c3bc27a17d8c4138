// io/svg_text.h
//
// Numbers and points as they are written in an SVG: to 1e-4 mm, in no locale.
#pragma once

#include <string>

#include "geometry/vec.h"

namespace armure {

std::string svgNumber(double v);
std::string svgPoint(Vec2 p);  // "x y"

}  // namespace armure
