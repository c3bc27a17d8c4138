#include "rules/shaping_keys.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <vector>

#include "quotable.h"

namespace armure {
namespace {

constexpr size_t kMostLines = 4;
constexpr std::array<std::string_view, 5> kHeldLevels{"top", "underbust", "waist", "high_hip", "hem"};
// Levels of the draft that a level of the maker's own must not be called.
constexpr std::array<std::string_view, 8> kLevels{"top",   "chest",    "bust", "underbust",
                                                  "waist", "high_hip", "hip",  "hem"};

struct KindInfo {
  ShapingKind kind;
  std::string_view prefix, name;
};
constexpr std::array<KindInfo, 6> kShapingKinds{{
    {ShapingKind::Hold, "hold", "held"},
    {ShapingKind::Guide, "guide", "guide"},
    {ShapingKind::Share, "share", "share"},
    {ShapingKind::Rail, "rail", "level"},
    {ShapingKind::Girth, "girth", "girth"},
    {ShapingKind::Swing, "swing", "swing"},
}};
// In the order of the kinds. A side may stand out: only there is less than nothing held.
constexpr std::array<ShapingForm, 6> kForms{{
    {"hold.LEVEL.LINE", "what the line takes in there is held; the others share the rest", inches(-8), inches(8)},
    {"guide.LEVEL.LINE", "the middle of the line stands this far from the centre there", inches(0.5), inches(30)},
    {"share.LEVEL.LINE", "this part of what the line takes in there lies towards the centre", 0, 1},
    {"rail.LEVEL", "a level of your own, this far above the waist; negative below", inches(-8), inches(8)},
    {"girth.LEVEL", "the finished girth of a level of your own", inches(10), inches(90)},
    {"swing.EDGE.LINE", "the panel edge on that side of the line (centre or side) is swung out by this", 0, inches(14)},
}};

const ShapingForm& formOf(ShapingKind kind) { return kForms[static_cast<size_t>(kind)]; }

const KindInfo& infoOf(ShapingKind kind) {
  return *std::find_if(kShapingKinds.begin(), kShapingKinds.end(), [&](const KindInfo& k) { return k.kind == kind; });
}

bool isOwnLevel(std::string_view level) {
  const auto plain = [](char c) { return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '_'; };
  return !level.empty() && level.size() <= 24 && level[0] >= 'a' && level[0] <= 'z' &&
         std::all_of(level.begin(), level.end(), plain) &&
         std::find(kLevels.begin(), kLevels.end(), level) == kLevels.end();
}

bool isLine(std::string_view line, bool sideToo) {
  return (sideToo && (line == kFrontSide || line == kBackSide)) || isPanelLine(line);
}

}  // namespace

bool isDraftedLevel(std::string_view level) {
  return std::find(kHeldLevels.begin(), kHeldLevels.end(), level) != kHeldLevels.end();
}

std::string lineId(bool front, size_t place) {
  if (place == 0) return front ? "princess" : "back-line";
  return fmt::format("{}-{}", front ? "front-line" : "back-line", place + 1);
}

bool isPanelLine(std::string_view id) {
  for (bool front : {true, false})
    for (size_t i = 0; i < kMostLines; ++i)
      if (lineId(front, i) == id) return true;
  return false;
}

Message lineName(bool front, size_t place) {
  if (place == 0) return front ? "princess line" : "back line";
  return front ? msg("front line {}", place + 1) : msg("back line {}", place + 1);
}

std::string ShapingKey::text() const {
  const std::string key = fmt::format("{}.{}", infoOf(kind).prefix, level);
  return line.empty() ? key : key + "." + line;
}

std::span<const ShapingForm> shapingForms() { return kForms; }

std::optional<ShapingKey> parseShapingKey(std::string_view key) {
  const size_t first = key.find('.');
  if (first == std::string_view::npos) return std::nullopt;
  const auto kind = std::find_if(kShapingKinds.begin(), kShapingKinds.end(),
                                 [&](const KindInfo& k) { return k.prefix == key.substr(0, first); });
  if (kind == kShapingKinds.end()) return std::nullopt;
  const std::string_view rest = key.substr(first + 1);
  const size_t second = rest.find('.');
  const std::string_view level = rest.substr(0, second);
  if (kind->kind == ShapingKind::Rail || kind->kind == ShapingKind::Girth) {
    if (second != std::string_view::npos || !isOwnLevel(level)) return std::nullopt;
    return ShapingKey{kind->kind, std::string(level), {}};
  }
  if (second == std::string_view::npos) return std::nullopt;
  const std::string_view line = rest.substr(second + 1);
  if (kind->kind == ShapingKind::Swing) {
    const bool panelLine = isPanelLine(line) && (level == kCentreEdge || level == kSideEdge);
    if (!panelLine && !(isLine(line, true) && level == kCentreEdge)) return std::nullopt;
    return ShapingKey{kind->kind, std::string(level), std::string(line)};
  }
  if ((!isDraftedLevel(level) && !isOwnLevel(level)) || !isLine(line, kind->kind == ShapingKind::Hold))
    return std::nullopt;
  return ShapingKey{kind->kind, std::string(level), std::string(line)};
}

Result<double> shapingValue(const ShapingKey& key, std::string_view value, Unit bareUnit) {
  const ShapingForm& info = formOf(key.kind);
  if (key.kind == ShapingKind::Share) {
    const Result<double> part = parseNumber(value);
    if (!part.ok()) return Problem{verbatim(key.text()), part.problem().what, part.problem().remedy};
    if (*part >= info.lowest && *part <= info.highest) return *part;
    return Problem{verbatim(key.text()), msg("\"{}\" is out of range", quotable(value)),
                   msg("give a part between {} and {}", info.lowest, info.highest)};
  }
  const Result<double> mm = parseLength(value, bareUnit);
  if (!mm.ok()) return Problem{verbatim(key.text()), mm.problem().what, mm.problem().remedy};
  const bool side = key.line == kFrontSide || key.line == kBackSide;
  const double lowest = key.kind == ShapingKind::Hold && !side ? 0 : info.lowest;
  if (*mm < lowest - 1e-6 || *mm > info.highest + 1e-6)
    return Problem{verbatim(key.text()), msg("\"{}\" is out of range", quotable(value)),
                   msg("give a length between {} and {}", Length{lowest}, Length{info.highest})};
  return *mm;
}

Message shapingName(const ShapingKey& key) {
  std::string line = key.line, level = key.level;
  std::replace(line.begin(), line.end(), '-', ' ');
  std::replace(level.begin(), level.end(), '_', ' ');
  return line.empty() ? msg("{} {}", level, known(infoOf(key.kind).name))
                      : msg("{} {} at the {}", line, known(infoOf(key.kind).name), level);
}

}  // namespace armure
