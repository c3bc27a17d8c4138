// render/layered_pdf.h
//
// Several PDFs of the same pages as one whose pages have them as layers that can be shown and hidden (optional content,
// ISO 32000-1, 8.11), and which asks to be printed at its own size (/PrintScaling /None, 12.2).
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace armure {

struct PdfLayer {
  std::string_view name;
  std::string pdf;  // as many pages as the first, of the same sizes
};

// `base` is always shown. Throws std::runtime_error for what is no PDF.
std::string layeredPdf(const std::string& base, const std::vector<PdfLayer>& layers);

}  // namespace armure
