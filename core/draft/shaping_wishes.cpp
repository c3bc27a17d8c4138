#include "draft/shaping_wishes.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "draft/upper_block.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

// What part of the drop each line and, last, the side is wished to take. Common practice, no source.
std::vector<double> schoolParts(DistributionSchool school, bool front, size_t lines) {
  std::vector<double> parts(lines + 1, 1);
  if (school == DistributionSchool::SideWeighted) std::iota(parts.begin(), parts.end(), 1.0);
  if (school == DistributionSchool::FlatFront && front) {
    parts.front() = 0.4;
    parts.back() = 2;
  }
  const double sum = std::accumulate(parts.begin(), parts.end(), 0.0);
  for (double& part : parts) part /= sum;
  return parts;
}

class WishMaker {
 public:
  WishMaker(const Levels& levels, const Rules& rules, const ShapingFrame& frame)
      : levels_(levels), rules_(rules), frame_(frame) {}

  Wishes make() && {
    layOutLevels();
    if (sharesOut(rules_)) {
      byParts();
    } else {
      byRules();
    }
    if (frame_.firstClosed) closeBelow();
    if (frame_.tracedSide) traceSide();
    // A back line does not begin above the bust; above it only the first front line takes in, against gaping.
    if (ShapedLevel* top = find(level::kTop)) {
      top->wished.assign(lines(), 0);
      top->wished.front() = frontIsInOne(rules_)   ? 0
                            : goesUp(rules_, true) ? shoulderDartAt(rules_, depth(level::kBust), top->y)
                            : middlePiece()        ? 2 * rules_.length(key::kMiddleTop)
                                                   : topIntake(top->y);
      top->sideWished = drop(*top) - top->wished.front();
    }
    if (frame_.runsOutBelow)  // a line that is closed for good needs not run out
      std::fill(out_.levels.back().wished.begin() + (frame_.firstClosed ? 1 : 0), out_.levels.back().wished.end(), 0);
    for (ShapedLevel& l : out_.levels) leaveToSide(l);
    return std::move(out_);
  }

 private:
  // What lines that are not there would take.
  void leaveToSide(ShapedLevel& l) const {
    for (size_t i = 0; i < frame_.absent.size(); ++i) {
      if (!frame_.absent[i]) continue;
      l.sideWished += l.wished[i];
      l.wished[i] = 0;
    }
  }

  // At a depth above the bust: the rule's own amount, or what a dart from the shoulder line to the bust point has
  // there.
  double topIntake(double y) const {
    if (rules_.option(key::kIntakeTopBy) == TopIntake::Edge) return rules_.length(key::kIntakeTop);
    const double bust = depth(level::kBust);
    return rules_.length(key::kIntakeShoulderDart) * (bust - y) / bust;
  }

  size_t lines() const { return frame_.starts.size(); }
  bool front() const { return frame_.front; }
  const char* half() const { return front() ? "front" : "back"; }
  bool middlePiece() const {
    return front() && rules_.option(key::kDistributionSchool) == DistributionSchool::MiddlePiece;
  }
  double depth(std::string_view id) const { return front() ? levels_.at(id).front : levels_.at(id).back; }
  double share(std::string_view id) const { return front() ? levels_.at(id).frontShare : levels_.at(id).backShare; }
  double drop(const ShapedLevel& l) const { return frame_.width - share(l.id) - frame_.centreIntake(l.y); }

  ShapedLevel* find(std::string_view id) {
    for (ShapedLevel& l : out_.levels)
      if (l.id == id) return &l;
    return nullptr;
  }
  ShapedLevel& at(std::string_view id) { return *find(id); }

  // The high hip counts where the drop is shared out there too, or where a hand holds something; a hem above it is as
  // if there were none.
  void layOutLevels() {
    const double hem = depth(level::kHem), highHip = depth(level::kHighHip);
    const auto add = [&](std::string_view id, double y, bool drawn) {
      out_.levels.push_back({std::string(id), y, drawn, {}, std::vector<double>(lines(), 0), 0, 0});
    };
    if (front()) add(level::kTop, depth(level::kTop), true);
    for (const Level& l : levels_.all) {
      const double y = front() ? l.front : l.back;
      if (l.id == level::kUnderbust || l.id == level::kWaist || l.own) add(l.id, y, true);
      if (l.id == level::kHighHip) {
        const bool within = highHip < hem - kLeastApart;
        if (sharesOut(rules_) || (rules_.anyHeld(level::kHighHip) && within)) add(l.id, y, within);
      }
    }
    std::stable_sort(out_.levels.begin(), out_.levels.end(),
                     [](const ShapedLevel& a, const ShapedLevel& b) { return a.y < b.y; });
    add(level::kHem, hem, true);
  }

  // In parts of the drop. On the underbust the side would run straight from the bust to where it is wished at the
  // waist, and so between the two; the lines share the rest. Else the side hooks in below a full bust.
  void byParts() {
    const std::vector<double> parts = schoolParts(rules_.option(key::kDistributionSchool), front(), lines());
    const ShapedLevel& waist = at(level::kWaist);
    const double waistSide = drop(waist) * parts.back();
    for (ShapedLevel& l : out_.levels) {
      if (l.id == level::kTop || l.id == level::kHem) continue;
      const double all = drop(l);
      l.sideWished = all * parts.back();
      if (l.y < waist.y) {
        const double down = (l.y - frame_.sideFrom.y) / (waist.y - frame_.sideFrom.y);
        l.sideWished = std::min(all, down * waistSide);
      }
      // Where the body is wider than the bust there is nothing to take in: the side stands out.
      if (all < l.sideWished || all < 0) l.sideWished = all;
      for (size_t i = 0; i < lines(); ++i) l.wished[i] = (all - l.sideWished) * parts[i] / (1 - parts.back());
      noteDrop(l, all);
    }
  }

  void noteDrop(const ShapedLevel& l, double all) {
    const Level& level = levels_.at(l.id);
    out_.workings.push_back(
        {fmt::format("{}.{}.intake", half(), level.id),
         front() ? msg("Front, {}: to be taken in", level.name) : msg("Back, {}: to be taken in", level.name),
         {{'+', "width of the block, as at the bust", frame_.width, Source::Computed},
          {'-', "finished share and centre", frame_.width - all, Source::Computed}},
         all,
         "shared out among the lines and the side by the school chosen; what each line takes stands "
         "in the working of the side; common practice"});
  }

  // Every line by its own rule. Between waist and hem a line runs out evenly.
  void byRules() {
    ShapedLevel &waist = at(level::kWaist), &under = at(level::kUnderbust), &hem = out_.levels.back();
    const bool byQuarter = rules_.option(key::kDistributionSchool) == DistributionSchool::QuarterMinus;
    const double more = byQuarter ? rules_.length(key::kReductionQuarter) / static_cast<double>(lines() + 1) : 0;
    const double further = rules_.length(key::kIntakeFurther);
    const double first = middlePiece() ? 2 * rules_.length(key::kMiddleUnderbust)
                         : front()     ? rules_.length(key::kIntakeWaist)
                                       : rules_.length(key::kBackIntakeWaist);
    waist.wished.assign(lines(), further + more);
    waist.wished[0] = first + (middlePiece() ? 0 : more);
    hem.wished.assign(lines(), rules_.length(key::kIntakeFurtherHem));
    // A dart of the front runs out above the hem where nothing else is asked for.
    const bool runsOut = !front() || (frontIsInOne(rules_) && rules_.isDefault(key::kIntakeHem));
    hem.wished[0] = runsOut ? 0 : middlePiece() ? first : rules_.length(key::kIntakeHem);
    for (ShapedLevel& l : out_.levels) {
      if (l.id == level::kTop || l.id == level::kHem || l.id == level::kWaist) continue;
      for (size_t i = 1; i < lines(); ++i)
        l.wished[i] = l.y < waist.y ? waist.wished[i] * (l.y - frame_.starts[i]) / (waist.y - frame_.starts[i])
                                    : hem.wished[i] + (waist.wished[i] - hem.wished[i]) *
                                                          std::max(0.0, (hem.y - l.y) / (hem.y - waist.y));
    }
    under.wished[0] = middlePiece() ? mirroredIntake() : underbustIntake(under, waist);
    for (ShapedLevel& l : out_.levels) {
      if (l.id == level::kTop || l.id == level::kHem) continue;
      if (l.id != level::kWaist && l.id != level::kUnderbust) l.wished[0] = firstBetween(l, under, waist, hem);
      l.sideWished = drop(l) - std::accumulate(l.wished.begin(), l.wished.end(), 0.0);
    }
  }

  // The first line takes on every level what it takes at the underbust, within its cap; the side takes the difference.
  void closeBelow() {
    const double taken = std::min(at(level::kUnderbust).wished[0], rules_.length(key::kCapPrincess));
    for (ShapedLevel& l : out_.levels) {
      if (l.id == level::kTop) continue;
      const double others = std::accumulate(l.wished.begin() + 1, l.wished.end(), 0.0);
      l.wished[0] = taken;
      if (l.id != level::kHem) l.sideWished = drop(l) - taken - others;
    }
  }

  // The side has the shape of the other half's; the first line takes what that and the others leave. Where they leave
  // nothing the side moves out, for the girth is kept.
  void traceSide() {
    for (ShapedLevel& l : out_.levels) {
      if (l.id == level::kTop || l.id == level::kHem) continue;
      const double others = std::accumulate(l.wished.begin() + 1, l.wished.end(), 0.0);
      l.wished[0] = std::max(0.0, drop(l) - frame_.tracedSide(l.y) - others);
      l.sideWished = drop(l) - l.wished[0] - others;
    }
  }

  double mirroredIntake() {
    out_.workings.push_back(
        {"front.underbust.intake",
         "Underbust intake of the princess line",
         {rules_.term(key::kMiddleUnderbust, '+', 2)},
         2 * rules_.length(key::kMiddleUnderbust),
         "the middle piece loses this beside the line, and the side front mirrors it; common practice"});
    return out_.workings.back().result;
  }

  // Between two levels that have a rule.
  static double firstBetween(const ShapedLevel& l, const ShapedLevel& under, const ShapedLevel& waist,
                             const ShapedLevel& hem) {
    const ShapedLevel &a = l.y < waist.y ? under : waist, &b = l.y < waist.y ? waist : hem;
    return a.wished[0] + (b.wished[0] - a.wished[0]) * (l.y - a.y) / (b.y - a.y);
  }

  // Lays the quarter underbust on its line and takes what is left over as the intake of the first line, less what is
  // taken in at the centre and by the others. The side runs straight from the bust (on the front: from the lower leg
  // of the dart) to the waist. A side that would stand nearer than the quarter leaves nothing to take in: the intake
  // is 0 and the side moves out.
  double underbustIntake(const ShapedLevel& under, const ShapedLevel& waist) {
    const double waistSide = share(level::kWaist) + frame_.centreIntake(waist.y) +
                             std::accumulate(waist.wished.begin(), waist.wished.end(), 0.0);
    const Vec2 from = frame_.sideFrom;
    const double width = from.x + (waistSide - from.x) * (under.y - from.y) / (waist.y - from.y);
    const double further = std::accumulate(under.wished.begin() + 1, under.wished.end(), 0.0);
    const double centre = frame_.centreIntake(under.y);
    Working w{fmt::format("{}.underbust.intake", half()),
              front() ? "Underbust intake of the princess line" : "Underbust intake of the back line",
              {},
              0,
              ""};
    if (front() && !rules_.isDefault(key::kIntakeUnderbust)) {
      w.terms = {rules_.term(key::kIntakeUnderbust)};
      w.note = "a fixed amount, set by the maker";
    } else {
      w.terms = {{'+', front() ? "width of the front on the underbust line" : "width of the back on the underbust line",
                  width, Source::Computed},
                 {'-', "quarter underbust", share(level::kUnderbust), Source::Computed}};
      if (centre > 0)
        w.terms.push_back({'-', front() ? "centre front taken in" : "centre back taken in", centre, Source::Computed});
      if (further > 0) w.terms.push_back({'-', "the further lines", further, Source::Computed});
      w.note =
          "the side runs straight from the bust, below the side dart, to the waist; the quarter underbust is laid on "
          "the line and what is left over is the intake; common practice";
      double left = width - share(level::kUnderbust);
      left -= centre;
      left -= further;
      if (left < 0) w.terms.push_back({'+', "the side moves out, nothing is taken in", -left, Source::Computed});
    }
    for (const Term& t : w.terms) w.result += t.sign == '-' ? -t.mm : t.mm;
    if (std::abs(w.result) < 1e-9) w.result = 0;
    out_.workings.push_back(w);
    return out_.workings.back().result;
  }

  const Levels& levels_;
  const Rules& rules_;
  const ShapingFrame& frame_;
  Wishes out_;
};

}  // namespace

Wishes wishesOf(const Levels& levels, const Rules& rules, const ShapingFrame& frame) {
  return WishMaker(levels, rules, frame).make();
}

}  // namespace armure
