// core/cutting/panels.h
//
// The panels of the block before anything is cut: each between two of its lines, with its whole drafted edges laid
// where the piece will lie, the side bust dart closed. Cutting (cutting.h) finds the style lines on them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "draft/block.h"
#include "geometry/path.h"
#include "parts/edges/upper_outline.h"
#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

// A whole drafted edge of a panel, from above the top edge to below the hem, and where on it things are (arc lengths).
struct DraftedEdge {
  std::string id;
  EdgeRole role = EdgeRole::Seam;
  double allowance = 0;
  Path path;
  double top = 0, bust = 0, underbust = 0, waist = 0, hem = 0;
  double onOutline = 0;  // where the upper outline is met, arc length along it, on a half that goes up
};

struct Panel {
  std::string id;
  Message name;
  const HalfBlock* half = nullptr;
  int ordinal = 1;  // counted from the centre of the half
  size_t leftBoundary = 0, rightBoundary = 1;
  Motion still, lower;  // from the half's axes to where the panel lies, above and below the bust
  DraftedEdge left, right;
  UpperOutline upper;  // on the paper, from the centre to the side; empty on a strapless half

  bool goesUp() const { return !upper.empty(); }
};

// What goes up over the shoulder, by half; nothing where the half is strapless.
struct UpperOutlines {
  const std::optional<UpperOutline>& front;
  const std::optional<UpperOutline>& back;
};

// From centre front to centre back: the panels of the front half, then those of the back half, mirrored and beside it.
// They refer to `block`.
std::vector<Panel> layOutPanels(const Block& block, const Rules& rules, const UpperOutlines& upper);

}  // namespace armure
