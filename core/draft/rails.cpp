#include "draft/rails.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "rules/draft_rules.h"

namespace armure {
namespace {

// How wide a half of the block is, as at the bust before anything is taken in there.
double widthOf(const HalfBlock& half) {
  const HalfLevel& bust = half.at(level::kBust);
  return bust.share + bust.centreIntake;
}

class RailMaker {
 public:
  RailMaker(const Block& block, const Rules& rules, const Level& level) : block_(block), rules_(rules), level_(level) {}

  Rail make() && {
    const double front = widthOf(block_.front), back = widthOf(block_.back);
    rail_.level = level_.id;
    rail_.name = level_.name;
    rail_.own = level_.own;
    rail_.depth = level_.front;
    rail_.length = front + back;
    rail_.bodyGirth = level_.bodyGirth;
    rail_.finishedGirth = level_.finishedGirth;
    addHalf(block_.front);
    addHalf(block_.back);
    // Back pieces were counted from centre back.
    std::sort(rail_.panels.begin(), rail_.panels.end(),
              [](const RailPanel& a, const RailPanel& b) { return a.place < b.place; });
    std::stable_sort(rail_.gaps.begin(), rail_.gaps.end(),
                     [this](const RailGap& a, const RailGap& b) { return orderOf(a.line) < orderOf(b.line); });
    return std::move(rail_);
  }

 private:
  bool canHold(bool front, size_t line) const {
    if (level_.readOff || level_.beyondHem || level_.id == level::kBust) return false;
    return level_.id != level::kTop || (front && line == 0);
  }

  // Where a place of a half lies on the strip: the back is counted from the other end.
  double placeOf(const HalfBlock& half, double x) const { return half.front ? x : rail_.length - x; }

  void addHalf(const HalfBlock& half) {
    const bool front = half.front;
    const HalfLevel& l = half.at(level_.id);
    const size_t lines = half.lines.size();
    double from = half.centre.xAtDepth(l.y);
    (front ? rail_.openFront : rail_.openBack) = from;
    const int all = static_cast<int>(block_.front.lines.size() + block_.back.lines.size()) + 2;
    for (size_t i = 0; i <= lines; ++i) {
      const bool last = i == lines;
      const double to = last ? l.side : half.lines[i].toCentreX(l.y);
      const int place = front ? static_cast<int>(i) + 1 : all - static_cast<int>(i);
      rail_.panels.push_back(
          {place, std::min(placeOf(half, from), placeOf(half, to)), std::max(placeOf(half, from), placeOf(half, to))});
      if (last) break;
      const double next = half.lines[i].toSideX(l.y);
      addLine(half, l, i, to, next);
      from = next;
    }
    addSide(half, l);
  }

  void addLine(const HalfBlock& half, const HalfLevel& l, size_t i, double toCentre, double toSide) {
    const bool front = half.front;
    RailGap gap{lineId(front, i), lineName(front, i)};
    gap.from = placeOf(half, front ? toCentre : toSide);
    gap.to = placeOf(half, front ? toSide : toCentre);
    gap.taken = l.intakes[i];
    if (!l.wished.empty()) gap.wished = l.wished[i];
    gap.cap = rules_.length(front && i == 0 ? key::kCapPrincess : key::kCapOther);
    gap.held = rules_.held(level_.id, gap.line).has_value();
    gap.movable = canHold(front, i);
    rail_.gaps.push_back(std::move(gap));
  }

  void addSide(const HalfBlock& half, const HalfLevel& l) {
    const bool front = half.front;
    RailGap gap{std::string(front ? kFrontSide : kBackSide), front ? "Side, front half" : "Side, back half"};
    const double width = widthOf(half), middle = widthOf(block_.front);
    gap.from = front ? placeOf(half, l.side) : middle;
    gap.to = front ? middle : placeOf(half, l.side);
    gap.taken = width - l.side;
    if (!l.wished.empty()) gap.wished = l.sideWished;
    gap.cap = rules_.length(key::kCapSide);
    gap.held = rules_.held(level_.id, gap.line).has_value();
    gap.movable = canHold(front, 0);
    rail_.gaps.push_back(std::move(gap));
  }

  // From centre front to centre back.
  int orderOf(const std::string& line) const {
    if (line == kFrontSide) return 10;
    if (line == kBackSide) return 11;
    for (size_t i = 0; i < block_.front.lines.size(); ++i)
      if (lineId(true, i) == line) return static_cast<int>(i);
    for (size_t i = 0; i < block_.back.lines.size(); ++i)
      if (lineId(false, i) == line) return 20 - static_cast<int>(i);
    return 30;
  }

  const Block& block_;
  const Rules& rules_;
  const Level& level_;
  Rail rail_;
};

}  // namespace

std::vector<Rail> railsOf(const Block& block, const Rules& rules) {
  constexpr std::array<std::string_view, 5> kShown{level::kTop, level::kBust, level::kUnderbust, level::kWaist,
                                                   level::kHighHip};
  std::vector<Rail> rails;
  for (const Level& l : block.levels.all) {
    const bool shown = l.own || std::find(kShown.begin(), kShown.end(), l.id) != kShown.end();
    if (shown && !l.beyondHem) rails.push_back(RailMaker(block, rules, l).make());
  }
  return rails;
}

std::optional<GirthChoice> girthChoice(const Rail& rail, const Rules& rules, double finishedGirth) {
  const double less = rail.bodyGirth - finishedGirth;
  if (rail.own) return GirthChoice{ShapingKey{ShapingKind::Girth, rail.level, ""}.text(), finishedGirth};
  if (rail.level == level::kTop) return GirthChoice{"hold.top", less};
  if (rail.level == level::kBust) return GirthChoice{"ease.bust", -less};
  if (rail.level == level::kUnderbust) return GirthChoice{"reduction.underbust", less};
  if (rail.level == level::kHighHip) return GirthChoice{"spring.high_hip", -less};
  if (rail.level != level::kWaist) return std::nullopt;
  if (rules.option(key::kDistributionSchool) == DistributionSchool::QuarterMinus)
    return GirthChoice{"reduction.quarter", less / 4};
  return GirthChoice{"reduction.waist", less};
}

}  // namespace armure
