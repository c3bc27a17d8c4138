// core/garment/dart_dial.h
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
#include "pieces/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

struct DialPart {
  std::string_view id;    // "top", "side", "ease", "underbust", "centre", "gathers"
  std::string_view name;  // "at the top edge"
  std::string_view key;   // of the rule that sets it as a part of the side bust dart's turn; empty where it follows
  double angleRad = 0;
};

// All parts, clockwise from the top; those of no angle too. Their sum is what the pattern takes in about the bust point.
std::vector<DialPart> dartDial(const Block& block, const Rules& rules);

// Sets the darts and the ease the rules ask for into the panels as cut. Fails when more is moved than there is, or when
// a dart should go to a centre that is on the fold or must stay straight.
std::optional<Problem> setDial(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
