// core/parts/edges/upper_outline.h
//
// The upper edge of a half that goes up over the shoulder: neckline, shoulder and armhole as one chain from the centre
// round to the side. A strapless half has none; its upper edge is a style line (style_line.h).
//
// Drawn on the half's own axes with every intake closed, as it is worn: the shoulder is as long and the armhole as wide
// as the body asks, whatever a line takes in on its way up. Laid on the block, each panel's part is moved out by what
// the lines nearer to the centre take in at its height. So what the dart up to the shoulder took is given back, there
// and at every height of the armhole (common practice, no source).
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "draft/block.h"
#include "draft/upper_block.h"

namespace armure {

enum class UpperPart { Neck, Shoulder, Armhole };

struct UpperStretch {
  UpperPart part{};
  Path path;
};

using UpperOutline = std::vector<UpperStretch>;  // from the centre to the side, each beginning where the last one ends

// The outline of a half; nothing for a strapless one. The neckline begins at the centre's guide x = 0.
//   covered   round, V or square at the depth of the block's neck, or along the style's upper edge to beyond the
//             princess line and from there up; behind, where the back edge is scooped or in a V, as deep as that
//   straps    the upper edge of the style up to where it rises, then in a curve to a strap at the shoulder point
//   halter    (front only) to a strap beside the neck; the armhole runs from there straight to the side
std::optional<UpperOutline> upperOutline(const Block& block, const Rules& rules, bool front);

// The outline as the panel between the lines `from - 1` and `from` of the half sees it: moved out by what the first
// `from` lines take in. Cubics keep their number; each is sheared by what is taken in at its ends.
UpperOutline opened(const UpperOutline& outline, const HalfBlock& half, size_t from);

// The outline as one path.
Path wholeOutline(const UpperOutline& outline);

// Where an edge that runs down the half meets the outline first, going up: arc lengths along the edge and along the
// outline. The outline is looked for a little beyond its ends, which lie on the centre and the side themselves.
std::optional<std::pair<double, double>> meetOutline(const UpperOutline& outline, const Path& edge);

// A part of an outline without crumbs: a line that meets it beside one of its joints leaves a cubic of a few
// millimetres at an end, which could not be drawn on across a seam. Its neighbour reaches to the end instead.
Path withoutCrumbs(const Path& path);

}  // namespace armure
