// core/draft/princess.h
//
// The princess line: the first front line, through the bust point. At the bust point its two edges meet; above and
// below they leave it along a leg that is aimed `bust.rounding` away from it, which rounds the point. The side front's
// edge is drawn with the corner of the side bust dart in it, half above and half below, so that closing the dart leaves
// a smooth edge.
#pragma once

#include <functional>

#include "draft/block.h"
#include "draft/shaping.h"

namespace armure {

// `position` is half the span. Above the bust the line runs straight up, or in a curve towards the middle of the
// armhole or the shoulder (the rule "princess.above"). `below` says where it stands on a level further down, given the
// part of what it takes in that lies towards the centre; the maker's guides come before it. How an intake is divided is
// a rule, or the part for which both edges agree best: least squares of the differences of their stretches, by golden
// section.
using PlaceBelow = std::function<double(const ShapedLevel& level, double centrePart)>;
PanelLine drawPrincess(const Block& block, const Body& body, const Rules& rules, const Shaping& shaping,
                       double position, const PlaceBelow& below, double topY, double bottomY);

}  // namespace armure
