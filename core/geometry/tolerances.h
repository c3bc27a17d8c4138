// core/geometry/tolerances.h
//
// What counts as the same place, as nothing, as smooth: every tolerance of the geometry, with its reason. Lengths in
// millimetres, at the size of a garment (up to 2 m, where a double is good to 2e-13); angles in radians. Distances that
// have a meaning for a maker (what a fold must be clear of, how near a notch may lie to a corner) stand where they are
// used, rules of thumb in the table of rules, limits of the balance sheet in sheet/sheet.h.
#pragma once

namespace armure::tolerance {

// Arithmetic on coordinates: what is left of a length that should be nothing after some thousand operations.
inline constexpr double kRounding = 1e-9;
// A stretch shorter than this is none, and two edges of a piece meet within it: a thousand times what rounding leaves,
// a thousandth of what an export keeps (1e-5 is its last digit).
inline constexpr double kNothing = 1e-6;
// Two places that were found in different ways (along an edge, by a crossing, by turning a piece) are one: as much as
// nested Newton steps on arc lengths may differ, and a hundredth of what a pencil draws.
inline constexpr double kSamePlace = 1e-3;
// A level that crosses less of a piece only touches its corner.
inline constexpr double kLeastLevel = 0.02;
// Curves as polygons: in files; for outlines to cut and to be checked, which are remade with every change; for asking
// which side a point lies on.
inline constexpr double kFileFlatness = 0.005, kOutlineFlatness = 0.02, kCoarseFlatness = 0.05;
// Angles: two directions that are one; a dart that is closed.
inline constexpr double kSmooth = 1e-6, kShut = 1e-9;

}  // namespace armure::tolerance
