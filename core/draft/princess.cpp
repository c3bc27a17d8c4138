#include "draft/princess.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "draft/line_paths.h"
#include "draft/upper_block.h"
#include "geometry/spline.h"

namespace armure {
namespace {

class Princess {
 public:
  Princess(const Block& block, const Body& body, const Rules& rules, const Shaping& shaping, double position,
           double topY, double bottomY)
      : block_(block),
        rules_(rules),
        shaping_(shaping),
        position_(position),
        topY_(topY),
        bottomY_(bottomY),
        end_(endAbove(body)),
        topX_(rules.guide(level::kTop, lineId(true, 0)).value_or(crossingTop())) {}

  PrincessLine draw() && {
    const double share = centreShare();
    PanelLine line{lineId(true, 0), lineName(true, 0), position_, {}, {}, {}, {}, guides(), {}};
    line.toCentre = edge(-share, 0);
    line.toSide = edge(1 - share, block_.dart.angle / 2);
    if (end_) line.onward = onward();
    return {std::move(line), share, topX_};
  }

 private:
  double depth(std::string_view id) const { return block_.levels.at(id).front; }

  double centreShare() const {
    if (rules_.option("distribution.school") == "middle-piece") return 0.5;
    if (rules_.option("intake.share") == "rule") return rules_.share("intake.centre_share");
    return balancedShare();
  }

  // Sum of the squares of the differences of corresponding stretches of both edges, from the top edge to the hem.
  double imbalance(double share) const {
    const Path a = edge(-share, 0), b = edge(1 - share, block_.dart.angle / 2);
    const double top = depth(level::kTop) - 1e-6, hem = depth(level::kHem) + 1e-6;
    double sum = 0;
    for (size_t i = 0; i < std::min(a.cubics().size(), b.cubics().size()); ++i) {
      if (a.cubics()[i].p0.y < top || a.cubics()[i].p3.y > hem) continue;
      const double off = Path(a.cubics()[i]).length() - Path(b.cubics()[i]).length();
      sum += off * off;
    }
    return sum;
  }

  // Golden section (J. Kiefer, "Sequential minimax search for a maximum", Proc. AMS 4 (1953), 502-506).
  double balancedShare() const {
    constexpr double kGolden = 0.6180339887498949, kGood = 1e-4;
    double low = 0.05, high = 0.95;
    double a = high - kGolden * (high - low), b = low + kGolden * (high - low);
    double fa = imbalance(a), fb = imbalance(b);
    while (high - low > kGood) {
      if (fa < fb) {
        high = b;
        b = a;
        fb = fa;
        a = high - kGolden * (high - low);
        fa = imbalance(a);
      } else {
        low = a;
        a = b;
        fa = fb;
        b = low + kGolden * (high - low);
        fb = imbalance(b);
      }
    }
    return (low + high) / 2;
  }

  Path edge(double part, double halfCorner) const {
    const double top = depth(level::kTop), bust = depth(level::kBust), under = depth(level::kUnderbust);
    const double rounding = rules_.length("bust.rounding");
    const double up = std::min(rounding, 0.6 * (bust - top)) * std::cos(halfCorner);
    const double down = std::min(rounding, 0.6 * (under - bust)) * std::cos(halfCorner);
    const double corner = std::tan(halfCorner), topX = topX_ + part * shaping_.at(level::kTop).taken[0];
    const double aim = (position_ - corner * up - topX) / (bust - up - top);
    std::vector<Station> above{{top, topX, aim, true}, {bust, position_, corner, true, up}};
    std::vector<Station> below{{bust, position_, -corner, true, 0, down}};
    addBelow(below, part);
    // The slope at the underbust follows from where the leg is aimed, not from the bust point itself.
    std::vector<Station> aimed = below;
    aimed.front() = {bust + down, position_ - corner * down};
    below[1].slope = monotoneSlopes(aimed)[1];
    below[1].slopeGiven = true;
    extend(above, topY_, bust);
    extend(below, bust, bottomY_);
    return monotonePath(above) + monotonePath(below);
  }

  // Every level below the bust the line is drawn through. By rules of thumb it ends upright at the hem.
  void addBelow(std::vector<Station>& stations, double part) const {
    double shift = 0;
    for (const ShapedLevel& l : shaping_.levels) {
      if (l.id == level::kTop || !l.drawn) continue;
      if (const auto guide = rules_.guide(l.id, lineId(true, 0))) shift = *guide - position_;
      const bool upright = l.id == level::kHem && !sharesOut(rules_);
      stations.push_back({l.y, position_ + shift + part * l.taken[0], 0, upright});
    }
  }

  std::vector<PanelLine::Guide> guides() const {
    std::vector<PanelLine::Guide> all{
        {std::string(level::kTop), topX_, rules_.guide(level::kTop, lineId(true, 0)).has_value()}};
    double x = position_;
    for (const ShapedLevel& l : shaping_.levels) {
      if (l.id == level::kTop || l.id == level::kHem || !l.drawn) continue;
      const auto guide = rules_.guide(l.id, lineId(true, 0));
      x = guide.value_or(x);
      all.push_back({l.id, x, guide.has_value()});
    }
    return all;
  }

  // The middle of the armhole or of the shoulder, where the line goes there.
  std::optional<Vec2> endAbove(const Body& body) const {
    const std::string_view where = rules_.option("princess.above");
    if (where == "top") return std::nullopt;
    const UpperPoints p = upperPoints(body, rules_, true, depth(level::kChest));
    return where == "shoulder" ? lerp(p.neck, p.shoulder, 0.5) : p.armholeMiddle;
  }

  // Upright at the bust point, then straight on towards its end: a parabola x = position + (end - position) t^2.
  double crossingTop() const {
    if (!end_) return position_;
    const double bust = depth(level::kBust), t = (bust - depth(level::kTop)) / (bust - end_->y);
    return position_ + (end_->x - position_) * t * t;
  }
  Path onward() const {
    const double bust = depth(level::kBust), top = depth(level::kTop);
    const double t = (bust - top) / (bust - end_->y);
    const double slope = -2 * (end_->x - position_) * t / (bust - end_->y);
    const double endSlope = -2 * (end_->x - position_) / (bust - end_->y);
    return monotonePath({{end_->y, end_->x, endSlope, true}, {top, topX_, slope, true}});
  }

  const Block& block_;
  const Rules& rules_;
  const Shaping& shaping_;
  const double position_, topY_, bottomY_;
  const std::optional<Vec2> end_;
  const double topX_;
};

}  // namespace

PrincessLine drawPrincess(const Block& block, const Body& body, const Rules& rules, const Shaping& shaping,
                          double position, double topY, double bottomY) {
  return Princess(block, body, rules, shaping, position, topY, bottomY).draw();
}

}  // namespace armure
