// render/print_layers.h
//
// What of a pattern is drawn on which layer of a print, so that a reader of the PDF can show and print some of them
// alone: optional content, ISO 32000-1, section 8.11.
#pragma once

#include <array>
#include <string_view>

#include "prepare/drawing.h"

namespace armure {

// Everything: in one go, as on a printer. Frame: the sheets themselves, with what is said on them.
enum class PrintLayer { Everything, Frame, Cut, Sewn, Levels, Notches, Bones, Grain, Labels };

struct PrintLayerInfo {
  PrintLayer layer{};
  std::string_view name;
};
// Those that can be shown and hidden, in the order they lie on each other.
inline constexpr std::array<PrintLayerInfo, 7> kPrintLayers{{{PrintLayer::Levels, "Levels"},
                                                             {PrintLayer::Bones, "Bones and eyelets"},
                                                             {PrintLayer::Grain, "Grain"},
                                                             {PrintLayer::Notches, "Notches"},
                                                             {PrintLayer::Sewn, "Sewing lines"},
                                                             {PrintLayer::Cut, "Cutting lines"},
                                                             {PrintLayer::Labels, "Labels"}}};

constexpr PrintLayer printLayerOf(LineRole role) {
  switch (role) {
    case LineRole::Level:
      return PrintLayer::Levels;
    case LineRole::Sewn:
      return PrintLayer::Sewn;
    case LineRole::Notch:
    case LineRole::Point:
      return PrintLayer::Notches;
    case LineRole::Grain:
      return PrintLayer::Grain;
    case LineRole::Channel:
    case LineRole::Eyelet:
      return PrintLayer::Bones;
    case LineRole::Cut:
    case LineRole::Fold:
      break;
  }
  return PrintLayer::Cut;
}

constexpr bool isDrawnOn(PrintLayer layer, PrintLayer of) { return layer == PrintLayer::Everything || layer == of; }

}  // namespace armure
