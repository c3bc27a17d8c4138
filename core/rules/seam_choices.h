// core/rules/seam_choices.h
//
// Choices about one seam, kept among the choices of an order:
//
//   seam.<seam>           which side gives way when the pieces are balanced, or what else happens to the difference:
//                         both | follow-a | follow-b | leave | trim-top | trim-hem | ease <from> <to>
//   lock.<piece>.<edge>   "yes": this edge is held as drafted
//
// Side a of a seam is the one nearer to centre front. <from> and <to> are notches, "top" or "hem".
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace armure {

// What becomes of the difference between the two sides of a seam.
enum class SeamWish {
  Both,     // both sides give way
  FollowA,  // side a stays, side b is made to fit it
  FollowB,
  Leave,    // nothing is done to this seam
  TrimTop,  // walked from the hem up: notches of side b are marked anew, what is left over is cut off at the top
  TrimHem,  // walked from the top down, cut off at the hem
  Ease,     // between two notches the longer side is eased in, up to a limit; elsewhere both give way
};

struct SeamChoice {
  SeamWish wish = SeamWish::Both;
  std::string from = "top", to = "hem";  // of the ease
  bool operator==(const SeamChoice&) const = default;
};

// "both", "ease bust underbust", ...
std::string seamChoiceText(const SeamChoice& choice);
// The choice, or nothing when the text is none of the above.
std::optional<SeamChoice> parseSeamChoice(std::string_view text);

// An edge of a piece, by ids.
struct EdgeName {
  std::string piece, edge;
  auto operator<=>(const EdgeName&) const = default;
};

std::string seamKey(std::string_view seam);
std::string lockKey(const EdgeName& edge);
// The seam or the edge of such a key, or nothing: an id is made of the words garments are made of (side, princess,
// cup-1, shoulder; front-1, yoke-back), joined by hyphens. Which of them an order has shows once it is drafted; a
// choice for another is idle.
std::optional<std::string> seamOfKey(std::string_view key);
std::optional<EdgeName> lockOfKey(std::string_view key);
inline constexpr std::string_view kLocked = "yes";
// Some seams garments have, for suggestions.
std::span<const std::string_view> seamExamples();

// How a key of either form is written, and what it does, for lists.
struct SeamForm {
  std::string_view form, values, reason;
};
inline constexpr std::array<SeamForm, 2> kSeamForms{{
    {"seam.SEAM", "both|follow-a|follow-b|leave|trim-top|trim-hem|ease FROM TO",
     "what becomes of the difference between the two sides of the seam"},
    {"lock.PIECE.EDGE", "yes", "the edge is held as drafted when the pieces are balanced"},
}};

}  // namespace armure
