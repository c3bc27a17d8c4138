#include "rules/seam_choices.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <utility>
#include <vector>

namespace armure {
namespace {

constexpr std::string_view kSeamPrefix = "seam.", kLockPrefix = "lock.", kEase = "ease";
constexpr std::array<std::pair<std::string_view, SeamWish>, 6> kWishes{{
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

size_t holdPlace(std::string_view word) {
  return static_cast<size_t>(std::find(kPlaces.begin(), kPlaces.end(), word) - kPlaces.begin());
}

// The words ids of seams, pieces and edges are made of, and numbers up to kMostParts.
constexpr std::array<std::string_view, 39> kWords{
    "arm",      "armhole", "back",   "band",    "below",    "centre",  "cover", "cross", "cup",      "dart",
    "end",      "fold",    "free",   "front",   "gathered", "halter",  "hem",   "inner", "insert",   "keyhole",
    "left",     "line",    "lining", "modesty", "neck",     "opening", "outer", "pad",   "princess", "right",
    "shoulder", "side",    "skirt",  "spread",  "strap",    "top",     "upper", "waist", "yoke"};
constexpr int kMostParts = 12;
constexpr std::array<std::string_view, 18> kSeams{
    "princess",    "front-line-2", "front-line-3", "front-line-4", "side",         "back-line",
    "back-line-2", "back-line-3",  "back-line-4",  "shoulder",     "princess-cup", "cup-1",
    "cup-2",       "cross-1",      "waist-1",      "waist-2",      "yoke-front-1", "yoke-back-1"};

bool isWord(std::string_view part) {
  if (std::find(kWords.begin(), kWords.end(), part) != kWords.end()) return true;
  int number = 0;
  const auto [end, error] = std::from_chars(part.data(), part.data() + part.size(), number);
  return error == std::errc() && end == part.data() + part.size() && part.front() != '0' && part.front() != '-' &&
         number <= kMostParts;
}

bool isId(std::string_view id) {
  if (id.empty() || (id.front() >= '0' && id.front() <= '9')) return false;
  for (size_t at = 0; at <= id.size();) {
    const size_t end = std::min(id.find('-', at), id.size());
    if (end == at || !isWord(id.substr(at, end - at))) return false;
    at = end + 1;
  }
  return true;
}

}  // namespace

std::string seamChoiceText(const SeamChoice& choice) {
  for (const auto& [word, wish] : kWishes)
    if (wish == choice.wish) return std::string(word);
  return fmt::format("{} {} {}", kEase, choice.from, choice.to);
}

std::optional<SeamChoice> parseSeamChoice(std::string_view text) {
  for (const auto& [word, wish] : kWishes)
    if (word == text) return SeamChoice{wish, "top", "hem"};
  const std::vector<std::string_view> parts = words(text);
  if (parts.empty() || parts[0] != kEase || parts.size() != 3) return std::nullopt;
  const size_t from = holdPlace(parts[1]), to = holdPlace(parts[2]);
  if (to >= kPlaces.size() || from >= to) return std::nullopt;
  return SeamChoice{SeamWish::Ease, std::string(parts[1]), std::string(parts[2])};
}

std::span<const std::string_view> seamExamples() { return kSeams; }

std::string seamKey(std::string_view seam) { return fmt::format("{}{}", kSeamPrefix, seam); }
std::string lockKey(const EdgeName& edge) { return fmt::format("{}{}.{}", kLockPrefix, edge.piece, edge.edge); }

std::optional<std::string> seamOfKey(std::string_view key) {
  if (!key.starts_with(kSeamPrefix)) return std::nullopt;
  const std::string_view seam = key.substr(kSeamPrefix.size());
  return isId(seam) ? std::optional(std::string(seam)) : std::nullopt;
}

std::optional<EdgeName> lockOfKey(std::string_view key) {
  if (!key.starts_with(kLockPrefix)) return std::nullopt;
  const std::string_view rest = key.substr(kLockPrefix.size());
  const size_t dot = rest.find('.');
  if (dot == std::string_view::npos) return std::nullopt;
  const std::string_view piece = rest.substr(0, dot), edge = rest.substr(dot + 1);
  if (!isId(piece) || !isId(edge)) return std::nullopt;
  return EdgeName{std::string(piece), std::string(edge)};
}

}  // namespace armure
