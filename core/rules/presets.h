// core/rules/presets.h
//
// Styles, schools and kinds of garment: named sets of choices, as data; the styles one file each, in the folder
// styles/. A school says how to draft, a style what to make, a kind how tight it is. The order of precedence is: the
// maker's own choice, the style, the school, the kind, the rule's default.
#pragma once

#include <span>
#include <string_view>

namespace armure {

struct PresetChoice {
  std::string_view key;
  std::string_view value;  // as in an order file: an option's id, or a length with its unit
};

struct Preset {
  std::string_view id, name, description;
  std::span<const PresetChoice> choices;
};

std::span<const Preset> styleTable();
std::span<const Preset> schoolTable();
std::span<const Preset> kindTable();

// The preset, or nullptr.
const Preset* findStyle(std::string_view id);
const Preset* findSchool(std::string_view id);
const Preset* findKind(std::string_view id);  // by the options of the rule "garment.kind"

inline constexpr std::string_view kDefaultStyle = "sweetheart-zip";
inline constexpr std::string_view kDefaultSchool = "quarter-grid";

}  // namespace armure
