// core/pattern/handles.h
//
// The places at which a maker takes hold of a line: on the pieces, each for one rule, with the way along which its
// length grows. Every part of the garment says its own (core/parts/<part>/handles.h); the window draws them on the
// taped figure and turns a drag into a choice.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "pattern/places.h"
#include "rules/rules.h"

namespace armure {

struct LineHandle {
  std::string key;        // of the rule: "top.plunge"
  size_t piece = 0;       // index
  Vec2 at;                // in the axes of the piece
  Vec2 axis;              // of length 1, there: one mm along it makes the rule one mm longer
  double mm = 0;          // the rule now
  double sharePerMm = 0;  // of a rule that is a share: how much of it one mm makes; 0 for a length
};

namespace way {
inline constexpr Vec2 kUp{0, -1}, kDown{0, 1}, kOut{1, 0}, kIn{-1, 0};
}  // namespace way

// The handles of one stage, while they are collected. What it refers to must outlive it.
class Handles {
 public:
  Handles(const Pattern& pattern, const Rules& rules, std::string_view stage)
      : pattern_(pattern), rules_(rules), places_(pattern), stage_(stage) {}

  const Pattern& pattern() const { return pattern_; }
  const Rules& rules() const { return rules_; }
  const Places& places() const { return places_; }

  bool isOf(std::string_view stage) const { return stage_ == stage; }
  // A handle for a rule, where the rule is of this stage and counts and the place is there. One place, one handle: the
  // first stands.
  void add(LengthKey key, const std::optional<Place>& place, Vec2 axis);
  // Also at a stage that is not the rule's own.
  void addAt(std::string_view stage, LengthKey key, const std::optional<Place>& place, Vec2 axis);
  // For one place the hand sets (rules/shaping_keys.h), where a rule would make it `mm`.
  void addPlaced(const std::string& key, const Place& place, Vec2 axis, double mm);
  // For a share; shown wherever it is added.
  void addShare(ShareKey key, const Place& place, Vec2 axis, double mm, double sharePerMm);
  void addPlacedShare(const std::string& key, const Place& place, Vec2 axis, double mm, double sharePerMm);
  bool has(std::string_view key) const;
  std::vector<LineHandle> take() && { return std::move(handles_); }

 private:
  void put(std::string_view key, const Place& place, Vec2 axis, double mm);

  const Pattern& pattern_;
  const Rules& rules_;
  const Places places_;
  const std::string_view stage_;
  std::vector<LineHandle> handles_;
};

}  // namespace armure
