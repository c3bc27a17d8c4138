#include "tryon/findings.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "measure/measure_table.h"
#include "rules/draft_rules.h"
#include "units/length.h"

namespace armure {
namespace {

// Up to these nothing is said. Ours.
constexpr double kLevelOff = 9, kBustPointOff = 8;           // mm
constexpr double kEdgeOff = 5, kHemOff = 9, kCleftOff = 20;  // mm
constexpr double kPressing =
    4.5;  // kPa: where the third class of compression stockings begins (RAL-GZ 387, from memory)
constexpr double kSlack = 0.03, kEmpty = 25, kFull = 20;  // part; ml
constexpr double kUnevenGap = 12;                         // mm
constexpr double kLean = 3, kWander = 9, kUneven = 4;     // degrees; mm; N/cm
constexpr double kStep = kMmPerInch / 8;                  // a change is in eighths
constexpr int kMostOfAKind = 2;                           // the weightiest; one change mends the lesser ones as well

struct Sector {
  const char* where;
  double from, to;  // degrees from centre front
};
constexpr std::array kSectors{Sector{"between the breasts", 0, 22}, Sector{"over the breasts", 22, 75},
                              Sector{"under the arms", 75, 108}, Sector{"behind", 108, 162},
                              Sector{"at the centre back", 162, 181}};

constexpr double kNeckOff = 12;  // mm, of necklines and armholes
constexpr std::array kRound{Sector{"in front", 0, 90}, Sector{"behind", 90, 181}};

double inEighths(double mm) { return kStep * std::max(1.0, std::round(mm / kStep)); }

class Finder {
 public:
  Finder(const TryOn& t, const Pattern& pattern, const Body& body, const Rules& rules)
      : t_(t), pattern_(pattern), body_(body), rules_(rules) {}

  std::vector<Finding> all() && {
    if (!t_.settled)
      add(FindingKind::Settling, "The cloth was still moving when it was stopped: take the figures as rough.", 10);
    bustPoint();
    levels();
    edge(t_.top, true);
    edge(t_.hem, false);
    neckAndArmholes();
    pressure();
    slack();
    cups();
    opening();
    side();
    std::stable_sort(found_.begin(), found_.end(),
                     [](const Finding& a, const Finding& b) { return a.weight > b.weight; });
    std::map<FindingKind, int> said;
    std::erase_if(found_, [&](const Finding& f) { return ++said[f.kind] > kMostOfAKind; });
    return std::move(found_);
  }

 private:
  Finding& add(FindingKind kind, Message text, double weight, int vertex = -1) {
    return found_.emplace_back(Finding{kind, std::move(text), weight, vertex, {}});
  }

  // A rule or a measure brought to a length.
  static Mending to(std::string_view key, const Message& name, double mm, bool isMeasure = false) {
    return {std::string(key), fmt::format("{:.4g} in", mm / kMmPerInch), isMeasure, mm,
            msg("{}: {}", name, Length{mm})};
  }
  std::optional<Mending> rule(LengthKey key, double mm) const {
    const RuleInfo& info = *findRule(key.text);
    if (!rules_.counts(info) || mm < info.lowest || mm > info.highest) return std::nullopt;
    return to(key.text, known(info.label), mm);
  }

  void bustPoint() {
    if (!t_.bustPoint || std::abs(*t_.bustPoint) < kBustPointOff) return;
    const double off = *t_.bustPoint;
    Finding& f = add(FindingKind::BustPoint,
                     off > 0 ? msg("The bust point of the pattern lies {} lower than the body's: over the breast the "
                                   "front is too short below it.",
                                   Length{off})
                             : msg("The bust point of the pattern lies {} higher than the body's: over the breast the "
                                   "front is too long below it.",
                                   Length{-off}),
                     std::abs(off) / kBustPointOff);
    const double wanted = body_.mm(id::kShoulderToBust) - inEighths(std::abs(off)) * (off > 0 ? 1 : -1);
    f.mending = to(id::kShoulderToBust, known(findMeasure(id::kShoulderToBust)->name), wanted, true);
  }

  void levels() {
    for (const LevelSeat& l : t_.levels) {
      const Message& name = l.name;
      const bool front = l.front && std::abs(*l.front) > 2 * kLevelOff && l.level != level::kBust;
      for (const auto& [off, where] : {std::pair{l.side, "at the side"}, {l.back, "behind"}})
        if (off && std::abs(*off) > kLevelOff) {
          Finding& f = add(FindingKind::Level,
                           *off > 0 ? msg("{} {} sits {} lower than the body has it.", name, where, Length{*off})
                                    : msg("{} {} sits {} higher than the body has it.", name, where, Length{-*off}),
                           std::abs(*off) / kLevelOff);
          if (l.level == level::kBust && rules_.option(key::kSideSchool) == SideSchool::AsInFront)
            f.mending = Mending{std::string(key::kSideSchool.text), "side-length", false, 0,
                                "Back and side stand by the length of the side"};
        }
      if (front)
        add(FindingKind::Level,
            *l.front > 0 ? msg("{} in front sits {} lower than the body has it: below the breasts the cloth goes "
                               "straight down where the tape went in.",
                               name, Length{*l.front})
                         : msg("{} in front sits {} higher than the body has it.", name, Length{-*l.front}),
            std::abs(*l.front) / (2 * kLevelOff));
    }
  }

  // What covers the shoulders has its upper edge at the neck.
  bool isAtNeck(const EdgeStand& e) const {
    constexpr double kAboveBust = 95;  // mm
    const LevelSeat* bust = t_.level(level::kBust);
    return bust && t_.cloth.points[static_cast<size_t>(e.vertex)].y < bust->y - kAboveBust;
  }

  // The place of a sector that stands off most; nothing where the edge does not run there.
  template <typename Counts>
  static const EdgeStand* mostOff(const std::vector<EdgeStand>& line, const Sector& sector, const Counts& counts) {
    const EdgeStand* most = nullptr;
    for (const EdgeStand& e : line)
      if (e.angle >= sector.from && e.angle < sector.to && counts(e) && (!most || e.off > most->off)) most = &e;
    return most;
  }

  void neckAndArmholes() {
    for (const Sector& sector : kRound) {
      const EdgeStand* neck = mostOff(t_.top, sector, [&](const EdgeStand& e) { return isAtNeck(e); });
      if (neck && neck->off > kNeckOff)
        add(FindingKind::Edge, msg("The neckline stands {} off the body {}.", Length{neck->off}, sector.where),
            neck->off / kNeckOff, neck->vertex);
      const EdgeStand* arm = mostOff(t_.armhole, sector, [](const EdgeStand&) { return true; });
      if (arm && arm->off > kNeckOff)
        add(FindingKind::Edge, msg("The armhole stands {} off the body {}.", Length{arm->off}, sector.where),
            arm->off / kNeckOff, arm->vertex);
    }
  }

  void edge(const std::vector<EdgeStand>& line, bool isTop) {
    for (const Sector& sector : kSectors) {
      const EdgeStand* most = mostOff(line, sector, [&](const EdgeStand& e) { return !isTop || !isAtNeck(e); });
      const bool isCleft = sector.from == 0;
      const double limit = !isTop ? kHemOff : isCleft ? kCleftOff : kEdgeOff;
      if (!most || most->off < limit) continue;
      Finding& f = add(FindingKind::Edge,
                       isTop ? msg("The top edge stands {} off the body {}.", Length{most->off}, sector.where)
                             : msg("The hem stands {} off the body {}.", Length{most->off},
                                   isCleft             ? "in front"
                                   : sector.from == 22 ? "beside the front"
                                                       : sector.where),
                       most->off / limit, most->vertex);
      const bool shaped = sector.to > 180 && rules_.length(key::kCentreBackWaist) > 0;
      if (shaped) {
        f.mending = rule(key::kCentreBackWaist, 0);
      } else if (isTop && !isCleft) {
        f.mending = rule(key::kHoldTop, rules_.length(key::kHoldTop) + inEighths(kMmPerInch / 2));
      } else if (!isTop) {
        f.mending = rule(key::kSpringHighHip, rules_.length(key::kSpringHighHip) - inEighths(kMmPerInch / 2));
      }
    }
  }

  void pressure() {
    for (const LevelSeat& l : t_.levels) {
      if (l.pressure < kPressing) continue;
      Finding& f =
          add(FindingKind::Pressure,
              msg("It presses {:.1f} kPa near the {} line ({:.1f} by the tension of the cloth there): more than "
                  "firm. Loosen at once on pain, numbness, dizziness or short breath.",
                  l.pressure, l.name, l.laplace),
              l.pressure / kPressing);
      const LengthKey key = l.level == level::kUnderbust ? key::kReductionUnderbust : key::kReductionWaist;
      const bool isReduced = l.level == level::kUnderbust || l.level == level::kWaist;
      if (isReduced && rules_.length(key) > kStep) f.mending = rule(key, rules_.length(key) - kMmPerInch / 2);
    }
  }

  // Where the cloth, on average over a field of the figure, is longer than it lies.
  void slack() {
    struct Band {
      const char* where;
      std::string_view from, to;
    };
    constexpr std::array kBands{Band{"above the bust", "", level::kBust},
                                Band{"under the bust", level::kBust, level::kUnderbust},
                                Band{"above the waist", level::kUnderbust, level::kWaist},
                                Band{"below the waist", level::kWaist, level::kHighHip}};
    constexpr std::array kSides{Sector{"In front", 0, 60}, Sector{"At the side", 60, 115}, Sector{"Behind", 115, 181}};
    const auto heightOf = [&](std::string_view level) -> std::optional<double> {
      if (level.empty()) return -HUGE_VAL;
      const LevelSeat* seat = t_.level(level);
      return seat ? std::optional(seat->y) : std::nullopt;
    };
    for (const Band& band : kBands) {
      const auto from = heightOf(band.from), to = heightOf(band.to);
      if (!from || !to) continue;  // it ends above
      for (const Sector& side : kSides) {
        double sum = 0;
        int count = 0, worst = -1;
        for (size_t v = 0; v < t_.cloth.points.size(); ++v) {
          const double y = t_.cloth.points[v].y, degrees = t_.cloth.angle[v];
          if (y < *from || y > *to || degrees < side.from || degrees >= side.to) continue;
          sum += t_.cloth.slack[v];
          ++count;
          if (worst < 0 || t_.cloth.slack[v] > t_.cloth.slack[static_cast<size_t>(worst)]) worst = static_cast<int>(v);
        }
        if (count == 0 || sum / count < kSlack) continue;
        add(FindingKind::Slack,
            msg("{} the cloth is slack {}, by {:.1f} % on average: it will wrinkle there.", side.where, band.where,
                100 * sum / count),
            sum / count / kSlack, worst);
      }
    }
  }

  void cups() {
    if (!t_.cups) return;
    const auto rounded = [](double ml) { return 5 * std::round(ml / 5); };
    if (t_.cups->emptyLeast > kEmpty)
      add(FindingKind::Cups,
          msg("There is room over the breasts, both together: between {:.0f} and {:.0f} ml.",
              rounded(t_.cups->emptyLeast), rounded(t_.cups->emptyMost)),
          t_.cups->emptyLeast / kEmpty / 2);
    if (t_.cups->pressedLeast > kFull)
      add(FindingKind::Cups,
          msg("The cups are small for the breasts: they press both in, together by between {:.0f} and {:.0f} ml.",
              rounded(t_.cups->pressedLeast), rounded(t_.cups->pressedMost)),
          t_.cups->pressedLeast / kFull / 2);
  }

  // Means over the upper, the middle and the lower part of the opening.
  template <typename Value>
  std::array<double, 3> byThirds(const Value& value) const {
    const size_t third = t_.opening.size() / 3;
    std::array<double, 3> part{};
    for (size_t i = 0; i < 3 * third; ++i) part[i / third] += value(t_.opening[i]) / static_cast<double>(third);
    return part;
  }

  // Laced evenly: how far it stands open.
  void gap() {
    const auto part = byThirds([](const OpeningPull& o) { return o.gap; });
    const auto [least, most] = std::minmax({part[0], part[1], part[2]});
    if (most - least < kUnevenGap) return;
    add(FindingKind::Opening,
        msg("Laced with {:.1f} N/cm it stands open by {} above, {} in the middle and {} below.", *t_.laced,
            Length{part[0]}, Length{part[1]}, Length{part[2]}),
        (most - least) / kUnevenGap);
  }

  // A gap stays even where the opening pulls evenly.
  void opening() {
    bool open = false;
    for (const PatternLevel& l : pattern_.levels) open = open || l.gaps.opening > 1;
    if (!open || t_.opening.size() < 6) return;
    if (t_.laced) return gap();
    const auto part = byThirds([](const OpeningPull& o) { return o.tension; });
    const auto [least, most] = std::minmax({part[0], part[1], part[2]});
    if (most - least < kUneven) return;
    Finding& f = add(FindingKind::Opening,
                     msg("The lacing pulls {:.1f} N/cm above, {:.1f} in the middle and {:.1f} below: laced evenly, the "
                         "gap will not stay even.",
                         std::max(0.0, part[0]), std::max(0.0, part[1]), std::max(0.0, part[2])),
                     (most - least) / kUneven);
    if (part[0] < part[1] / 2)
      f.mending = rule(key::kHoldTop, rules_.length(key::kHoldTop) + kMmPerInch / 2);
    else if (part[2] < part[1] / 2)
      f.mending = rule(key::kSpringHighHip, rules_.length(key::kSpringHighHip) - kMmPerInch / 2);
  }

  void side() {
    if (!t_.side) return;
    if (std::abs(t_.side->lean) > kLean)
      add(FindingKind::Side,
          t_.side->lean > 0
              ? msg("Seen from the side, the side seam runs forward below, by {:.0f} degrees.", t_.side->lean)
              : msg("Seen from the side, the side seam runs back below, by {:.0f} degrees.", -t_.side->lean),
          std::abs(t_.side->lean) / kLean);
    if (t_.side->wander > kWander)
      add(FindingKind::Side,
          msg("Seen from the side, the side seam lies up to {} beside a straight line.", Length{t_.side->wander}),
          t_.side->wander / kWander);
  }

  const TryOn& t_;
  const Pattern& pattern_;
  const Body& body_;
  const Rules& rules_;
  std::vector<Finding> found_;
};

}  // namespace

std::vector<Finding> findingsOf(const TryOn& tried, const Pattern& pattern, const Body& body, const Rules& rules) {
  return Finder(tried, pattern, body, rules).all();
}

}  // namespace armure
