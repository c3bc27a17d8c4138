// core/parts/skirt/skirt.h
//
// What lies below the waist: hems flared from the waist, and skirts as panels that run on from the hip, straight,
// pegged at the knee or flared. The seam at the waist: waist_seam.h.
//
// Every panel edge is continued to the same length below its waist notch on both its sides, so that seams fit by
// construction; the edge is swung out (or in) evenly about the waist, its length kept, so that the corner rises by
// itself and the hem stays one smooth line. What is swung out at a level is more finished girth there. Every edge may
// have an amount of its own (swing.EDGE.LINE); as lengths are kept, the seams fit all the same.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "draft/block.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Continues and swings the panels as the rules ask.
std::optional<Problem> addSkirt(Pattern& pattern, const Block& block, const Body& body, const Rules& rules);

// The working that says by how much every edge is swung out by rule.
inline constexpr std::string_view kSwingWorking = "skirt.swing";

// The choice that swings an edge beside the hem of a panel out by an amount of its own; nothing for a centre, or an
// edge that is not beside the hem.
std::optional<ShapingKey> swingKeyOf(const Piece& piece, size_t edge);

// Marks where the slit of the skirt begins, on the centre back.
std::optional<Problem> markSlit(Pattern& pattern, const Rules& rules);

}  // namespace armure
