#include "pattern/handles.h"

#include <algorithm>

#include "rules/rule_table.h"

namespace armure {

void Handles::put(std::string_view key, const Place& place, Vec2 axis, double mm) {
  for (const LineHandle& h : handles_)
    if (h.piece == place.piece && distance(h.at, place.at) < 1) return;
  handles_.push_back({std::string(key), place.piece, place.at, axis, mm});
}

void Handles::add(LengthKey key, const std::optional<Place>& place, Vec2 axis) {
  addAt(findRule(key.text)->stage, key, place, axis);
}

void Handles::addAt(std::string_view stage, LengthKey key, const std::optional<Place>& place, Vec2 axis) {
  if (place && stage == stage_ && rules_.counts(*findRule(key.text))) put(key.text, *place, axis, rules_.length(key));
}

void Handles::addPlaced(const std::string& key, const Place& place, Vec2 axis, double mm) { put(key, place, axis, mm); }

void Handles::addShare(ShareKey key, const Place& place, Vec2 axis, double mm, double sharePerMm) {
  handles_.push_back({std::string(key.text), place.piece, place.at, axis, mm, sharePerMm});
}

void Handles::addPlacedShare(const std::string& key, const Place& place, Vec2 axis, double mm, double sharePerMm) {
  handles_.push_back({key, place.piece, place.at, axis, mm, sharePerMm});
}

bool Handles::has(std::string_view key) const {
  return std::any_of(handles_.begin(), handles_.end(), [&](const LineHandle& h) { return h.key == key; });
}

}  // namespace armure
