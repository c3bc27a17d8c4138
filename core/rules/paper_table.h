// core/rules/paper_table.h
//
// The papers a pattern goes on, one row each: what the rule paper.size offers, what the command line and the print
// know.
#pragma once

#include <array>
#include <string_view>

namespace armure {

struct PaperSize {
  std::string_view id, label, note, name;
  double width = 0, height = 0;  // mm, portrait; no height: as long as the pattern; nothing: as large as it
};

// Common practice, no source: the wider of two usual rolls, 36 and 24 in.
inline constexpr double kRollWidth = 36 * 25.4;

// A-series: ISO 216:2007, table of trimmed sizes. Letter: ANSI/ASME Y14.1, 8 1/2 x 11 in.
inline constexpr std::array<PaperSize, 6> kPaperTable{{
    {"full", "one sheet, full size", "for a plotter or a copy shop", "full size"},
    {"a4", "A4 sheets", "tiled, 210 x 297 mm (ISO 216)", "A4", 210, 297},
    {"letter", "Letter sheets", "tiled, 8 1/2 x 11 in", "Letter", 8.5 * 25.4, 11 * 25.4},
    {"a3", "A3 sheets", "tiled, 297 x 420 mm (ISO 216)", "A3", 297, 420},
    {"a0", "A0 sheets", "tiled, 841 x 1189 mm (ISO 216); one is enough for most bodices", "A0", 841, 1189},
    {"roll", "a roll", "of a plotter, of a given width: 36 or 24 in, or any", "a roll", kRollWidth, 0},
}};

}  // namespace armure
