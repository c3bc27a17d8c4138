// io/svg_reader.h
//
// The lines of an SVG file (Scalable Vector Graphics 2, W3C Candidate Recommendation of 2018-10-04): paths, polygons,
// polylines, lines, rectangles, circles and ellipses with their transforms, and where words stand. Millimetres by the
// file's width and viewBox; without a width in absolute units, by 96 user units to the inch (CSS Values 4, 6.2).
// Nothing is drawn, fetched or run: pictures, styles, scripts, symbols and links are left and told.
#pragma once

#include <string>
#include <string_view>

#include "result.h"
#include "tracing/line_drawing.h"

namespace armure {

// `name` is the file, in Problems.
Result<LineDrawing> parseSvg(std::string_view text, const std::string& name);

}  // namespace armure
