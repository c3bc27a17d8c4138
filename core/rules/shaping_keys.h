// core/rules/shaping_keys.h
//
// Choices about one place of the draft rather than the whole: what the maker's hand sets on the rails and on the table.
// They are kept among the choices of an order, so that they are undone, saved and scripted like any other.
//
//   hold.<level>.<line>    what the line takes in there is held at this length; the others share the rest
//   guide.<level>.<line>   the middle of the line stands this far from the centre there, instead of by rule
//   share.<level>.<line>   this part of what the line takes in there lies towards the centre, from 0 to 1
//   swing.<edge>.<line>    the panel edge on that side of the line, centre or side, is swung out by this at the hem of
//   a
//                          flared skirt, instead of by rule
//   rail.<level>           a level of the maker's own stands this far above the waist (negative: below)
//   girth.<level>          its finished girth, instead of one between its neighbours
//
// Lines: princess, front-line-2 to -4, front-side; back-line, back-line-2 to -4, back-side. Levels: top, underbust,
// waist, high_hip, hem, or one of the maker's own (small letters, figures and _, beginning with a letter).
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "result.h"
#include "units/length.h"

namespace armure {

enum class ShapingKind { Hold, Guide, Share, Rail, Girth, Swing };

struct ShapingKey {
  ShapingKind kind{};
  std::string level;  // of a swing: which edge, kCentreEdge or kSideEdge
  std::string line;   // for a hold, a guide, a share or a swing
  std::string text() const;
};

// The forms of the keys, for lists.
struct ShapingForm {
  std::string_view form, reason;  // "hold.LEVEL.LINE", one line on what it does
  double lowest, highest;         // mm, or the share
};
std::span<const ShapingForm> shapingForms();

// The key, or nothing when it is not of these forms or names a line that cannot be.
std::optional<ShapingKey> parseShapingKey(std::string_view key);

// Whether a level is one every draft can shape: top, underbust, waist, high_hip, hem.
bool isDraftedLevel(std::string_view level);

// The value in mm, or the share. The Problem says what would be right.
Result<double> shapingValue(const ShapingKey& key, std::string_view value, Unit bareUnit);

// "Held at the waist: princess", for undo and lists.
Message shapingName(const ShapingKey& key);

// The line's id: 0 is the first from the centre.
std::string lineId(bool front, size_t place);
// Whether a panel line can have this id.
bool isPanelLine(std::string_view id);
// "princess line", "front line 2", "back line".
Message lineName(bool front, size_t place);
// Which edge of a line: of the panel towards the centre, or towards the side. A side has the panel's own alone.
inline constexpr std::string_view kCentreEdge = "centre", kSideEdge = "side";
inline constexpr std::string_view kFrontSide = "front-side", kBackSide = "back-side";

}  // namespace armure
