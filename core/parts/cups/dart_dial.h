// core/parts/cups/dart_dial.h
//
// The dial about the bust point: one total angle, and how much of it sits where. The panels beside the princess line
// leave open what the line takes in above the bust point and below it; the side bust dart has been closed into the
// latter. The maker may leave a part of that turn as a dart at the side, as ease there, as a dart to the centre front,
// or lay it above. Whatever is moved, the sum stays.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "draft/block.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

struct DialPart {
  std::string_view id;    // "top", "side", "ease", "underbust", "centre", "gathers"
  std::string_view name;  // "at the top edge"
  std::string_view key;   // of the rule that sets it as a part of the side bust dart's turn; empty where it follows
  double angleRad = 0;
};

// All parts, clockwise from the top; those of no angle too. Their sum is what the pattern takes in about the bust
// point.
std::vector<DialPart> dartDial(const Block& block, const Rules& rules);

// Where a part points from the bust point, as one looks at the front: of length 1.
Vec2 dialDirection(std::string_view part);

// The bust point on the pieces: where the princess seam, in the cup or out of it, has its bust notch.
struct DialCentre {
  size_t piece = 0;
  Vec2 at;
};
std::optional<DialCentre> dialCentre(const Pattern& pattern);

inline constexpr double kDialRadius = 26;  // mm, as it is drawn on the table
// A handle of the dial stands this far from the bust point, and this much further for the whole of its share.
inline constexpr double kDialHandle = 34, kDialReach = 50;

// Sets the darts and the ease the rules ask for into the panels as cut. Fails when more is moved than there is, or when
// the centre front a dart should go to ends above it.
std::optional<Problem> setDial(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
