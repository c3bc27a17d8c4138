// io/document_html.h
//
// A sheet of words and tables as one HTML file that needs nothing else: its style and its drawing are in it. It says
// nothing to any server and loads nothing.
#pragma once

#include <string>

#include "garment/sketch.h"
#include "prepare/document.h"
#include "units/length.h"

namespace armure {

// `figure` stands where a section asks for the drawing: markup, written as it is.
std::string documentHtml(const Document& document, LengthFormat units, const std::string& figure);

// The small drawing, front and back, as an inline SVG.
std::string sketchSvg(const GarmentSketch& sketch);

// Text as it stands in XML and HTML; control characters become spaces (XML 1.0, section 2.2).
std::string escapedXml(const std::string& text);

}  // namespace armure
