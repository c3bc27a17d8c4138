// core/balance/sheet.h
//
// The balance sheet: every check that tells whether the pieces fit together and fit the client. It is computed from the
// finished pieces alone, by code that shares nothing with their construction but the Bezier arithmetic.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "balance/walk.h"
#include "measure/estimate.h"
#include "pieces/pattern.h"

namespace armure {

// Limits, in one place.
namespace limits {
inline constexpr double kLengthMm = 0.5;     // stretches, seams, corners, girths
inline constexpr double kJoinDegrees = 3.0;  // how much a line may turn where it crosses a closed seam
inline constexpr double kRadiusMm = 12.0;    // tightest radius on a sewn edge
inline constexpr double kClosedMm = 1e-6;    // edges of a piece meet
// Front and back side as pinned. Common practice, no source: 3/16 in can be seen and eased; beyond 1 in the seam leans.
inline constexpr double kSideShapeMm = 4.7625, kSideLeanMm = 25.4;
inline constexpr int kMostBends = 4;                 // changes of bend a panel seam has by design, at the most
inline constexpr double kNarrowMm = 20.0;            // a narrower panel is flagged
inline constexpr double kBridgeMm = 6.0;             // the bridge between two cups, 1/8 in to each side
inline constexpr double kCupRadiusMm = 8.0;          // tightest radius on a cup line
inline constexpr double kMeantCornerDegrees = 15.0;  // where a sewn line turns by more, a corner is meant
}  // namespace limits

// Wish: something asked of the balancing that cannot be.
enum class CheckKind { Wish, Stretch, Seam, Girth, Join, Corner, Curve, Sides, Piece, Intake, Facts };
std::string_view checkName(CheckKind kind);  // "stretch", "seam", "girth", ...

// What a number of a row is.
enum class Quantity { Length, Angle, Count };

struct CheckRow {
  CheckKind kind{};
  bool pass = true;
  std::string subject;  // "Princess seam, bust to underbust"
  std::string detail;   // what was found, in words, without numbers that have a unit
  double amount = 0;    // how far off: mm, degrees or a count
  double limit = 0;
  Quantity quantity = Quantity::Length;
  std::string remedy;                    // what would mend it; empty when it passes
  std::string piece, edge, seam, level;  // ids; empty where it does not apply
  Vec2 spot;                             // where to look, in the axes of the piece
  bool note = false;                     // true: says what cannot be checked, neither passes nor fails
};

struct Sheet {
  std::vector<CheckRow> rows;  // failing first, then notes, then passing, each in the order of the checks
  size_t failing() const;
  bool pass() const { return failing() == 0; }
};

// Computes the sheet. `cutOutlines` go with the pieces, in the same order. `unreachable` is what balancing says cannot
// be, in words: each becomes a failing row at the head.
Sheet balanceSheet(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const std::vector<Intake>& intakes,
                   const Body& body, const std::vector<std::string>& unreachable = {});

}  // namespace armure
