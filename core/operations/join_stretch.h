// core/operations/join_stretch.h
//
// Closing one stretch of a seam for good and sewing what stays open as a dart: how a panel line becomes a waist dart.
//
//   princess, closed from the top edge to below the bust point  -> one front, a dart open at the hem
//   back line, together at both ends                            -> one back, a dart pointed at both ends
//
// What is closed is closed as by joinPieces (join.h); the dart is of the kind darts.h describes.
#pragma once

#include <optional>
#include <string_view>

#include "operations/join.h"

namespace armure {

// Closes a seam for good from its upper end down to `below` mm under its bust notch; what lies open below is a dart of
// the one piece, with the seam's id. Both pieces are laid together at the upper end of the seam. Throws as joinPieces.
Joined joinAbove(Pattern& pattern, std::string_view seam, double below, const Message& name);

// Two pieces become one where the edges of their seam run together; the stretch where they stand apart becomes a dart
// of it, with the seam's id: open at the seam's lower or upper end, or pointed at both where they run together at both
// ends. So a waist dart is made of a panel line. Side b's piece stays where it lies or is laid by one of its ends,
// whichever lets the edges run together for longest.
// Nothing, and the pattern as it was, where they do so at neither end for 5 mm as they lie, or 20 mm laid. Throws as
// joinPieces.
std::optional<Joined> joinLeavingDart(Pattern& pattern, std::string_view seam, const Message& name);

}  // namespace armure
