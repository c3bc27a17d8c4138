// core/parts/sleeve/rules.h
//
// What can be chosen of a plain sleeve, set into the armhole as it is drafted. Rows of the table of trims
// (rules/trims.h). Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::sleeve {

enum class EndsAt { Short, Elbow, Wrist, Length };
inline constexpr std::array kEnds{
    row::of(EndsAt::Short, "short", "above the elbow", "a third of the arm's length"),
    row::of(EndsAt::Elbow, "elbow", "at the elbow", "half of the arm's length"),
    row::of(EndsAt::Wrist, "wrist", "at the wrist", "the arm's length"),
    row::of(EndsAt::Length, "length", "at a length", "as long as is set"),
};

enum class Below { Fitted, Straight, Flared };
inline constexpr std::array kBelows{
    row::of(Below::Fitted, "fitted", "fitted", "narrows evenly to the wrist"),
    row::of(Below::Straight, "straight", "straight", "as wide as at the upper arm"),
    row::of(Below::Flared, "flared", "flared", "wider towards its hem"),
};

inline constexpr OptionKey<EndsAt> kEndsAt{"ends"};
inline constexpr LengthKey kLong{"long"};
inline constexpr LengthKey kRoom{"room"};
inline constexpr LengthKey kEase{"ease"};
inline constexpr LengthKey kNotch{"notch"};
inline constexpr OptionKey<Below> kBelow{"below"};
inline constexpr LengthKey kWrist{"wrist"};
inline constexpr LengthKey kFlare{"flare"};
inline constexpr LengthKey kFlounce{"flounce"};
inline constexpr NumberKey kTurns{"turns"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kHem{"hem"};

inline constexpr std::array kRows{
    row::option(kEndsAt, "Lines", "Sleeve", "Ends", kEnds, "how far it reaches from the shoulder point"),
    row::onlyWhen({row::when(kEndsAt, {EndsAt::Length})},
                  row::length(kLong, "Lines", "Sleeve", "Long", 10, 3, 36, "from the shoulder point down the arm")),
    row::length(kRoom, "Lines", "Sleeve", "Room at the arm", 2, 0.25, 10, "wider than the upper arm: 1 1/2 to 3 in"),
    row::length(kEase, "Lines", "Sleeve", "Ease of the cap", 1.25, 0, 3,
                "longer than the armhole, shared out between both notches: 1 to 1 1/2 in"),
    row::length(kNotch, "Lines", "Sleeve", "Notches", 3, 1, 6,
                "so far from the side, on armhole and cap alike; below them nothing is eased"),
    row::option(kBelow, "Lines", "Sleeve", "Below the cap", kBelows, "how wide it is towards its hem"),
    row::onlyWhen({row::when(kBelow, {Below::Fitted})}, row::length(kWrist, "Lines", "Sleeve", "Room at the wrist", 1,
                                                                    0, 6, "so that the hand goes through")),
    row::onlyWhen({row::when(kBelow, {Below::Flared})},
                  row::length(kFlare, "Lines", "Sleeve", "Flared by", 4, 0.25, 30, "at its hem, in all")),
    row::length(kFlounce, "Lines", "Sleeve", "Flounce at its hem", 0, 0, 40, "how long; 18 to 25 in; 0: without"),
    row::number(kTurns, "Lines", "Sleeve", "Flounce, turns", 1, 0.1, 4,
                "1: one ring, its inner radius the sleeve's hem / 2 pi; counts where there is a flounce"),
    row::length(kSeam, "Lines", "Sleeve", "Seam allowance", 0.5, 0, 2, "at the cap and under the arm"),
    row::length(kHem, "Lines", "Sleeve", "Hem allowance", 1, 0, 4, "1 to 2 in"),
};

}  // namespace armure::sleeve
