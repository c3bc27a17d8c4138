// core/sheet/sheet.h
//
// The balance sheet: every check that tells whether the pieces fit together and fit the client. It is computed from the
// finished pieces alone, by code that shares nothing with their construction but the Bezier arithmetic (measure.h).
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "balance/balance.h"
#include "measure/estimate.h"
#include "pattern/pattern.h"

namespace armure {

// Limits, in one place.
namespace limits {
inline constexpr double kLengthMm = 0.5;     // stretches, seams, corners, girths
inline constexpr double kJoinDegrees = 3.0;  // how much a line may turn where it crosses a closed seam
inline constexpr double kRadiusMm = 12.0;    // tightest radius on a sewn edge
inline constexpr double kClosedMm = 1e-6;    // edges of a piece meet
// Front and back side as pinned. Common practice, no source: 3/16 in can be seen and eased; beyond 1 in the seam leans.
inline constexpr double kSideShapeMm = 4.7625, kSideLeanMm = 25.4;
inline constexpr int kMostBends = 4;         // changes of bend a panel seam has by design, at the most
inline constexpr double kNarrowMm = 20.0;    // a narrower panel is flagged
inline constexpr double kTooNarrowMm = 8.0;  // nobody can sew it: less than two seams lie apart
inline constexpr double kShoulderMm = 2.0;   // shoulder against the body's
inline constexpr double kArmholeMm = 3.0;    // armhole against the block's
inline constexpr double kMeasuredMm = 3.0;   // armhole and side against the tape
inline constexpr double kRimMm = 6.0;        // a ready-made cup's rim against its opening: what eases in over it
inline constexpr double kBridgeMm = 6.0;     // the bridge between two cups, 1/8 in to each side
inline constexpr double kCupRadiusMm = 8.0;  // tightest radius on a cup line
inline constexpr double kTrimMm = 0.1;       // what is sewn on, against its edge
inline constexpr double kBiasGives = 0.1;    // woven cloth on the bias, of its width; common practice, no source
inline constexpr double kMeantCornerDegrees = 15.0;  // where a sewn line turns by more, a corner is meant
}  // namespace limits

// Wish: something asked of the balancing that cannot be. FreeEdge: what balancing did to edges that are not sewn.
// Layer: linings and pads against the shell they lie on. Trim: what is sewn on against its edge. Body: shoulder,
// armhole and side against the block and the tape. Idle: choices and measures without effect.
enum class CheckKind {
  Wish,
  Stretch,
  Seam,
  Girth,
  Join,
  Corner,
  Curve,
  Sides,
  Piece,
  FreeEdge,
  Layer,
  Trim,
  Body,
  Intake,
  Facts,
  Idle
};
std::string_view checkName(CheckKind kind);  // "stretch", "seam", "girth", ...

// What a row says. Only what fails keeps the pieces from being cut: marks, exit codes and the word "passes" mean that.
enum class Verdict {
  Pass,
  Fail,    // it will not go together, not close, or not fit
  Advice,  // unusual, with what would change it
  Note,    // worth knowing
};
std::string_view verdictName(Verdict verdict);  // "pass", "fail", "advice", "note"

// What a number of a row is.
enum class Quantity { Length, Angle, Count };

struct CheckRow {
  CheckKind kind{};
  Verdict verdict = Verdict::Pass;
  Message subject;    // "Princess seam, bust to underbust"
  Message detail;     // what was found, in words
  double amount = 0;  // how far off: mm, degrees or a count
  double limit = 0;
  Quantity quantity = Quantity::Length;
  Message remedy;                        // what would mend it; empty when it passes
  std::string piece, edge, seam, level;  // ids; empty where it does not apply
  Vec2 spot;                             // where to look, in the axes of the piece

  bool fails() const { return verdict == Verdict::Fail; }
  bool passes() const { return verdict == Verdict::Pass; }
};

struct Sheet {
  std::vector<CheckRow> rows;  // failing first, then advice, notes, passing, each in the order of the checks
  size_t count(Verdict verdict) const;
  size_t failing() const { return count(Verdict::Fail); }
  bool pass() const { return failing() == 0; }
};

// What shoulder and armhole have to be, mm, as the body and the choices have them (the outline of the half with every
// intake closed); 0 where the garment has none. A fold taken out of the armhole by choice is taken off.
struct UpperLengths {
  double shoulderFront = 0, shoulderBack = 0, armholeFront = 0, armholeBack = 0;
};

// One half of the body, where left and right are not alike; `pattern` stands for both, as long as this is the one.
struct SheetHalf {
  BodySide side = BodySide::Both;
  const Pattern& pattern;
  UpperLengths upper;
};

struct SheetInput {
  const Pattern& pattern;
  const std::vector<Polyline>& cutOutlines;  // in the order of the pieces
  const std::vector<Intake>& intakes;
  const Body& body;
  const Balanced* balanced = nullptr;  // where the pieces are balanced: what moved, and what cannot be
  double freeLimit = 6;                // mm a free edge may be redrawn by
  UpperLengths upper = {};
  double cupRim = 0;  // mm of a ready-made cup's rim, to be sewn into the cup line; 0 where it was not measured
  // What is checked of each half: side, shoulder, armhole, cup rim. Empty: the pattern is one, with `upper`.
  std::vector<SheetHalf> halves = {};
};
Sheet balanceSheet(const SheetInput& input);

// Rows for what the order holds that has no effect, after the notes; see recalc/idle.h.
void addIdleRows(Sheet& sheet, const std::vector<std::pair<std::string, Message>>& keysAndReasons);

}  // namespace armure
