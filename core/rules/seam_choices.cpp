#include "rules/seam_choices.h"

#include <fmt/format.h>

#include <algorithm>
#include <utility>
#include <vector>

#include "rules/shaping_keys.h"

namespace armure {
namespace {

constexpr std::string_view kSeamPrefix = "seam.", kLockPrefix = "lock.", kEase = "ease";
constexpr std::array<std::pair<std::string_view, SeamWish>, 6> kWords{{
    {"both", SeamWish::Both},
    {"follow-a", SeamWish::FollowA},
    {"follow-b", SeamWish::FollowB},
    {"leave", SeamWish::Leave},
    {"trim-top", SeamWish::TrimTop},
    {"trim-hem", SeamWish::TrimHem},
}};
// Where a panel seam can carry a notch, and its ends, from the top down.
constexpr std::array<std::string_view, 5> kPlaces{"top", "bust", "underbust", "waist", "hem"};

std::vector<std::string_view> words(std::string_view text) {
  std::vector<std::string_view> all;
  for (size_t at = 0; at < text.size();) {
    const size_t end = std::min(text.find(' ', at), text.size());
    if (end > at) all.push_back(text.substr(at, end - at));
    at = end + 1;
  }
  return all;
}

size_t placeOf(std::string_view word) {
  return static_cast<size_t>(std::find(kPlaces.begin(), kPlaces.end(), word) - kPlaces.begin());
}

bool isSeam(std::string_view id) { return id == "side" || isPanelLine(id); }

bool isPiece(std::string_view id) {
  for (const std::string_view half : {"front-", "back-"})
    if (id.starts_with(half) && id.size() == half.size() + 1) return id.back() >= '1' && id.back() <= '9';
  return false;
}

}  // namespace

std::string seamChoiceText(const SeamChoice& choice) {
  for (const auto& [word, wish] : kWords)
    if (wish == choice.wish) return std::string(word);
  return fmt::format("{} {} {}", kEase, choice.from, choice.to);
}

std::optional<SeamChoice> parseSeamChoice(std::string_view text) {
  for (const auto& [word, wish] : kWords)
    if (word == text) return SeamChoice{wish, "top", "hem"};
  const std::vector<std::string_view> parts = words(text);
  if (parts.empty() || parts[0] != kEase || parts.size() != 3) return std::nullopt;
  const size_t from = placeOf(parts[1]), to = placeOf(parts[2]);
  if (to >= kPlaces.size() || from >= to) return std::nullopt;
  return SeamChoice{SeamWish::Ease, std::string(parts[1]), std::string(parts[2])};
}

std::string seamKey(std::string_view seam) { return fmt::format("{}{}", kSeamPrefix, seam); }
std::string lockKey(const EdgeName& edge) { return fmt::format("{}{}.{}", kLockPrefix, edge.piece, edge.edge); }

std::optional<std::string> seamOfKey(std::string_view key) {
  if (!key.starts_with(kSeamPrefix)) return std::nullopt;
  const std::string_view seam = key.substr(kSeamPrefix.size());
  return isSeam(seam) ? std::optional(std::string(seam)) : std::nullopt;
}

std::optional<EdgeName> lockOfKey(std::string_view key) {
  if (!key.starts_with(kLockPrefix)) return std::nullopt;
  const std::string_view rest = key.substr(kLockPrefix.size());
  const size_t dot = rest.find('.');
  if (dot == std::string_view::npos) return std::nullopt;
  const std::string_view piece = rest.substr(0, dot), edge = rest.substr(dot + 1);
  if (!isPiece(piece) || !isSeam(edge)) return std::nullopt;
  return EdgeName{std::string(piece), std::string(edge)};
}

}  // namespace armure
