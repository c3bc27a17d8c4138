#include "draft/ranges.h"

#include <algorithm>

#include "draft/levels.h"
#include "draft/opening.h"
#include "draft/upper_block.h"
#include "measure/measure_table.h"
#include "parts/edges/rules.h"
#include "parts/inserts/rules.h"
#include "parts/opening/rules.h"
#include "parts/yoke/rules.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

constexpr double kClothBeside = 15;      // mm of shoulder on either side of an insert
constexpr double kShortestKeyhole = 20;  // mm

// What the others leave of a whole.
double leftOf(const RuleInfo& rule, const Rules& rules) {
  double left = 1;
  for (const RuleInfo& other : ruleTable())
    if (other.whole == rule.whole && other.key != rule.key && rules.counts(other))
      left -= rules.value(other.key).number;
  return left;
}

// The shoulder as it is drawn, and what an insert takes of it.
class Shoulder {
 public:
  Shoulder(const Rules& rules, const Body& body) : rules_(rules) {
    const UpperPoints p = upperPoints(body, rules, true, body.mm(id::kShoulderToBust));
    whole_ = distance(p.neck, p.shoulder) - rules.length(key::kCoverNarrow);
    halfWidth_ = p.shoulder.x;
    const bool inserted = rules.counts(*findRule(key::kInsertShoulder.text));
    insert_ = inserted ? rules.length(key::kInsertShoulder) : 0;
    wedge_ = inserted && rules.option(key::kInsertShoulderAs) == ShoulderInsert::Wedge;
  }
  double mostOfInsert() const {
    if (rules_.option(key::kPrincessAbove) != LineEnd::Shoulder) return whole_ - kClothBeside;
    const double inner = rules_.isDefault(key::kPrincessShoulder) ? whole_ / 2 : rules_.length(key::kPrincessShoulder);
    return wedge_ ? 2 * (std::min(inner, whole_ - inner) - kClothBeside) : whole_ - inner - kClothBeside;
  }
  double furthestPrincess() const { return whole_ - kClothBeside - (wedge_ ? insert_ / 2 : insert_); }
  double nearestPrincess() const { return kClothBeside + (wedge_ ? insert_ / 2 : 0); }
  // A shoulder of 2 in, or twice what an insert and the cloth beside it need.
  double widestNeck() const { return halfWidth_ - std::max(inches(2), 2 * (insert_ + kClothBeside)); }

 private:
  const Rules& rules_;
  double whole_ = 0, halfWidth_ = 0, insert_ = 0;
  bool wedge_ = false;
};

// Down from the shoulder line to where a keyhole of this half ends at the latest; nothing where there is none.
std::optional<double> endOfKeyhole(const Rules& rules, const Body& body, bool front) {
  const auto kind = rules.option(key::kKeyholeKind);
  const bool here = kind == KeyholeKind::Both || kind == (front ? KeyholeKind::Front : KeyholeKind::Back);
  if (!here || !rules.counts(*findRule(key::kKeyholeKind.text))) return std::nullopt;
  const Result<Levels> levels = layOutLevels(body, rules);
  if (!levels.ok()) return std::nullopt;
  const auto depth = [&](std::string_view level) { return front ? levels->at(level).front : levels->at(level).back; };
  const LengthKey below = front ? key::kYokeBelowFront : key::kYokeBelowBack;
  if (rules.option(front ? key::kYokeFront : key::kYokeBack) == YokeKind::None) return depth(level::kChest);
  return rules.counts(*findRule(below.text)) ? rules.length(below) : depth(level::kTop);
}

double deepestNeck(const Rules& rules, const Body& body, bool front, double otherwise) {
  const auto end = endOfKeyhole(rules, body, front);
  return end ? *end - rules.length(key::kKeyholeAbove) - rules.length(key::kKeyholeFrom) - kShortestKeyhole : otherwise;
}

// What both necks leave of the centre for it.
double roomForKeyhole(const Rules& rules, const Body& body, double otherwise) {
  double room = otherwise;
  for (const bool front : {true, false})
    if (const auto end = endOfKeyhole(rules, body, front))
      room = std::min(room, *end - rules.length(front ? key::kNeckDepthFront : key::kNeckDepthBack) - kShortestKeyhole);
  return room;
}

}  // namespace

RuleRange rangeOf(const RuleInfo& rule, const Rules& rules, const Body& body) {
  RuleRange range{rule.lowest, rule.highest};
  const auto atMost = [&](double most) { range.highest = std::clamp(most, range.lowest, range.highest); };
  const auto atLeast = [&](double least) { range.lowest = std::clamp(least, range.lowest, range.highest); };
  const auto is = [&](auto key) { return rule.key == key.text; };
  if (!rule.whole.empty()) atMost(leftOf(rule, rules));
  if (is(key::kDartSide)) atMost(mostSideDart(body));
  if (is(key::kNeckWidth)) atMost(Shoulder(rules, body).widestNeck());
  if (is(key::kInsertShoulder)) atMost(Shoulder(rules, body).mostOfInsert());
  if (is(key::kPrincessShoulder)) {
    atMost(Shoulder(rules, body).furthestPrincess());
    atLeast(Shoulder(rules, body).nearestPrincess());
  }
  if (is(key::kNeckDepthFront)) atMost(deepestNeck(rules, body, true, rule.highest));
  if (is(key::kNeckDepthBack)) atMost(deepestNeck(rules, body, false, rule.highest));
  if (is(key::kKeyholeFrom)) atMost(roomForKeyhole(rules, body, rule.highest) - rules.length(key::kKeyholeAbove));
  if (is(key::kKeyholeAbove)) atMost(roomForKeyhole(rules, body, rule.highest) - rules.length(key::kKeyholeFrom));
  if (is(key::kTopAboveChest))
    if (const Result<Levels> levels = layOutLevels(body, rules); levels.ok())
      atLeast(kLeastBetweenLevels + levels->at(level::kChest).front - levels->at(level::kBust).front);
  if (is(key::kTopBelowShoulder)) atMost(body.mm(id::kShoulderToBust) - kLeastBetweenLevels);
  // An opening that begins below the waist is no way into a bodice.
  if (is(key::kOpeningStart))
    atMost(std::min(body.mm(id::kShoulderToWaist), body.mm(id::kBackWaistLength)) - kShortestOpening);
  // What is in force is within it: it was drafted.
  const double value = rules.value(rule.key).number;
  return {std::min(range.lowest, value), std::max(range.highest, value)};
}

}  // namespace armure
