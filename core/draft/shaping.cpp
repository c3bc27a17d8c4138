#include "draft/shaping.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <stdexcept>

#include "distribute/distribution.h"
#include "draft/shaping_wishes.h"
#include "parts/cups/rules.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

constexpr double kNoBound = 1e6;        // mm: as far as it must
constexpr double kSideTakesRest = 0.2;  // weight of the side where the lines have rules of their own

Message curesText(const Miss& miss) {
  if (miss.amount < 0)
    return msg("what is held takes {:.0f} mm more than there is: release a line, or hold it at less", -miss.amount);
  return msg("the caps leave {:.0f} mm to the side: {}, or {:.0f} mm more for every cap, or {:.0f} mm less reduction",
             miss.amount, moreLines(miss.cures.moreLines), miss.cures.higherCap, miss.cures.lessReduction);
}

class HalfShaper {
 public:
  HalfShaper(const Levels& levels, const Rules& rules, const ShapingFrame& frame)
      : levels_(levels), rules_(rules), frame_(frame), shares_(sharesOut(rules)) {}

  Shaping shape() && {
    Wishes wishes = wishesOf(levels_, rules_, frame_);
    out_.levels = std::move(wishes.levels);
    out_.workings = std::move(wishes.workings);
    out_.atSide = {};
    const DistributionProblem p = problem();
    const Distribution d = distribute(p);
    for (size_t l = 0; l < p.levels.size(); ++l) take(p, d, l);
    if (frame_.straightPast) straightenUnderbust();
    finishHem();
    return std::move(out_);
  }

 private:
  size_t lines() const { return frame_.starts.size(); }
  bool isAbsent(size_t line) const { return line < frame_.absent.size() && frame_.absent[line]; }
  const char* half() const { return frame_.front ? "front" : "back"; }
  std::string sideId() const { return std::string(frame_.front ? kFrontSide : kBackSide); }
  double cap(size_t line) const {
    return rules_.length(frame_.front && line == 0 ? key::kCapPrincess : key::kCapOther);
  }

  // The bust itself, where nothing is taken in, stands among the levels: what is done above and below it does not
  // reach past it.
  DistributionProblem problem() {
    DistributionProblem p;
    for (size_t i = 0; i < lines(); ++i) p.lines.push_back({lineId(frame_.front, i), 1});
    p.lines.push_back({sideId(), shares_ ? 1 : kSideTakesRest});
    const Level& bust = levels_.at(level::kBust);
    const double bustY = frame_.front ? bust.front : bust.back;
    bool bustDone = false;
    for (size_t l = 0; l < out_.levels.size(); ++l) {
      const ShapedLevel& s = out_.levels[l];
      if (s.id == level::kHem) continue;
      if (!bustDone && s.y > bustY) {
        addBust(p, bustY);
        bustDone = true;
      }
      addLevel(p, s);
      shapedOf_.push_back(l);
    }
    return p;
  }

  void addBust(DistributionProblem& p, double y) {
    p.levels.push_back({std::string(level::kBust), y, 0});
    p.cells.insert(p.cells.end(), lines() + 1, {0, 0, 0});
    shapedOf_.push_back(kNothing);
  }

  void addLevel(DistributionProblem& p, const ShapedLevel& s) const {
    const bool top = s.id == level::kTop;
    p.levels.push_back({s.id, s.y, std::accumulate(s.wished.begin(), s.wished.end(), s.sideWished)});
    for (size_t i = 0; i < lines(); ++i) {
      const double high = top && i > 0 ? 0 : shares_ ? std::max(cap(i), 0.0) : std::max(cap(i), s.wished[i]);
      TakingCell cell{s.wished[i], 0, high};
      const bool given = (frame_.firstClosed && i == 0 && !top) || isAbsent(i);
      if (given) cell.low = cell.high = s.wished[i];
      p.cells.push_back(isAbsent(i) ? cell : held(s.id, lineId(frame_.front, i), cell));
      if (top && i > 0) p.cells.back() = {0, 0, 0};
    }
    const double high = shares_ && !top ? rules_.length(key::kCapSide) : kNoBound;
    p.cells.push_back(held(s.id, sideId(), {s.sideWished, -kNoBound, high}));
  }

  TakingCell held(const std::string& level, const std::string& line, TakingCell cell) const {
    if (const auto mm = rules_.held(level, line)) cell.low = cell.high = *mm;
    return cell;
  }

  void take(const DistributionProblem& p, const Distribution& d, size_t l) {
    if (shapedOf_[l] == kNothing) return;
    ShapedLevel& s = out_.levels[shapedOf_[l]];
    const auto from = d.intakes.begin() + static_cast<std::ptrdiff_t>(l * p.lines.size());
    s.taken.assign(from, from + static_cast<std::ptrdiff_t>(lines()));
    Message cures;
    for (const Miss& miss : d.misses)
      if (miss.level == l) cures = curesText(miss);
    // The girth is kept: whatever the lines do not take is the side's, and the sheet says so.
    s.side = p.levels[l].drop - std::accumulate(s.taken.begin(), s.taken.end(), 0.0);
    const Level& level = levels_.at(s.id);
    const double sideCap = rules_.length(key::kCapSide);
    if ((shares_ || !cures.empty()) && s.id != level::kTop && s.side > 0 && !level.beyondHem)
      out_.atSide.push_back(
          {half(), "side", s.id, s.side, sideCap, frame_.front ? "Side, front half" : "Side, back half", cures});
  }

  // Where the underbust was not taken the side stands on the straight line from the bust to the waist.
  void straightenUnderbust() {
    const ShapedLevel& waist = out_.at(level::kWaist);
    const Vec2 from = frame_.sideFrom, to{frame_.width - waist.side, waist.y};
    for (ShapedLevel& under : out_.levels)
      if (under.id == level::kUnderbust)
        under.side = under.sideWished =
            frame_.tracedSide ? frame_.tracedSide(under.y)
                              : frame_.width - (from.x + (to.x - from.x) * (under.y - from.y) / (to.y - from.y));
  }

  // At the hem no girth is prescribed: the lines end as the school wishes, in proportion to what they take above.
  void finishHem() {
    ShapedLevel& hem = out_.levels.back();
    hem.taken = hem.wished;
    if (shares_ && !frame_.runsOutBelow) {
      hem.taken = out_.at(level::kHighHip).taken;
      if (frame_.firstClosed) hem.taken[0] = hem.wished[0];
    }
    for (size_t i = 0; i < lines(); ++i)
      if (const auto held = rules_.held(level::kHem, lineId(frame_.front, i)); held && !isAbsent(i))
        hem.taken[i] = *held;
  }

  static constexpr size_t kNothing = static_cast<size_t>(-1);
  const Levels& levels_;
  const Rules& rules_;
  const ShapingFrame& frame_;
  const bool shares_;
  Shaping out_;
  std::vector<size_t> shapedOf_;  // by level of the problem: which level of the shaping it is
};

}  // namespace

const ShapedLevel* Shaping::find(std::string_view level) const {
  for (const ShapedLevel& l : levels)
    if (l.id == level) return &l;
  return nullptr;
}

const ShapedLevel& Shaping::at(std::string_view level) const {
  if (const ShapedLevel* l = find(level)) return *l;
  throw std::out_of_range(fmt::format("Shaping: no level {}", level));
}

bool sharesOut(const Rules& rules) {
  const auto school = rules.option(key::kDistributionSchool);
  return school == DistributionSchool::Even || school == DistributionSchool::SideWeighted ||
         school == DistributionSchool::FlatFront;
}

Shaping shapeHalf(const Levels& levels, const Rules& rules, const ShapingFrame& frame) {
  return HalfShaper(levels, rules, frame).shape();
}

}  // namespace armure
