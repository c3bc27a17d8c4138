// io/dxf_reader.h
//
// The lines of a DXF file, read by dxflib: lines, polylines with their bulges, arcs, circles, ellipses, splines, points
// left out, texts, blocks and where they are inserted. Millimetres by the header's $INSUNITS (or, in files of cut
// pieces, by the text "Units: METRIC" or "ENGLISH" of ASTM D6673, from memory); without either a unit is a millimetre.
// The layer of each line is kept: D6673 has the boundary on 1, notches on 4, the mirror line on 6, grain on 7, the
// sewn line on 14 (from memory).
#pragma once

#include <string>
#include <string_view>

#include "result.h"
#include "tracing/line_drawing.h"

namespace armure {

// `name` is the file, in Problems.
Result<LineDrawing> parseDxf(std::string_view text, const std::string& name);

// Either kind by what it begins with: SVG is XML, DXF begins with a group code.
Result<LineDrawing> parseDrawing(std::string_view text, const std::string& name);

}  // namespace armure
