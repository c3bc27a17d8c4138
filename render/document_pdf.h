// render/document_pdf.h
//
// A sheet of words and tables as a PDF: set by Qt from its HTML, on A4, as many pages as it needs.
#pragma once

#include <string>

#include "garment/sketch.h"
#include "prepare/document.h"
#include "units/length.h"

namespace armure {

// A QGuiApplication must be there. `sketch` stands where a section asks for the drawing.
std::string documentPdf(const Document& document, LengthFormat units, const GarmentSketch& sketch);

}  // namespace armure
