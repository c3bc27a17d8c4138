#include "draft/princess.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "draft/line_paths.h"
#include "draft/upper_block.h"
#include "geometry/spline.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

class Princess {
 public:
  Princess(const Block& block, const Body& body, const Rules& rules, const Shaping& shaping, double position,
           const PlaceBelow& below, double topY, double bottomY)
      : block_(block),
        rules_(rules),
        shaping_(shaping),
        position_(position),
        below_(below),
        topY_(topY),
        bottomY_(bottomY),
        goesUp_(goesUp(rules, true)),
        end_(endOfFirstLine(body, rules, true, block.levels.at(level::kChest).front)),
        topX_(rules.guide(level::kTop, lineId(true, 0)).value_or(crossingTop())) {}

  PanelLine draw() && {
    const double share = centreShare();
    PanelLine line{lineId(true, 0), lineName(true, 0), position_, {}, {}, {}, {}, guides(share), {}};
    line.toCentre = edge(share, true);
    line.toSide = edge(share, false);
    if (end_ && !goesUp_ && end_->y < depth(level::kTop) - kLeastApart) line.onward = onward();
    return line;
  }

 private:
  double depth(std::string_view id) const { return block_.levels.at(id).front; }
  bool closed() const { return block_.plan.line(SectionKind::Frame, true, 0) == LineKind::None; }
  bool isDart() const { return block_.plan.line(SectionKind::Bodice, true, 0) == LineKind::Dart; }

  double centreShare() const {
    if (rules_.option(key::kDistributionSchool) == DistributionSchool::MiddlePiece) return 0.5;
    if (rules_.option(key::kIntakeShare) == IntakeShare::Rule) return rules_.share(key::kIntakeCentreShare);
    return balancedShare();
  }

  // Sum of the squares of the differences of corresponding stretches of both edges, from the top edge to the hem.
  double imbalance(double share) const {
    const Path a = edge(share, true), b = edge(share, false);
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

  // What part of the intake on a level lies on one side of the line, outwards: as on the whole line, or as given there
  // by hand.
  double partAt(std::string_view level, double centrePart, bool towardsCentre) const {
    const double share = rules_.shareAt(level, lineId(true, 0)).value_or(centrePart);
    return towardsCentre ? -share : 1 - share;
  }

  // The edge of the piece towards the centre, or of that towards the side, with half the dart's corner in it.
  Path edge(double centrePart, bool towardsCentre) const {
    const double part = partAt(level::kTop, centrePart, towardsCentre);
    // Half of the dart's turn above and below, so that the closed edge is smooth; a dart has all of it at its point.
    const double halfCorner = towardsCentre || isDart() ? 0 : block_.dart.angle / 2;
    const double top = depth(level::kTop), bust = depth(level::kBust), under = depth(level::kUnderbust);
    const double rounding = rules_.length(key::kBustRounding);
    const double roundedAbove =
        rules_.isDefault(key::kBustRoundingAbove) ? rounding : rules_.length(key::kBustRoundingAbove);
    const double up = std::min(roundedAbove, 0.6 * (bust - top)) * std::cos(halfCorner);
    const double down = std::min(rounding, 0.6 * (under - bust)) * std::cos(halfCorner);
    const double corner = std::tan(halfCorner), topX = topX_ + part * shaping_.at(level::kTop).taken[0];
    const double aim = (position_ - corner * up - topX) / (bust - up - top);
    std::vector<Station> above =
        goesUp_ ? aboveTop(centrePart, part, corner, up)
                : std::vector<Station>{{top, topX, aim, true}, {bust, position_, corner, true, up}};
    std::vector<Station> below{{bust, position_, -corner, true, 0, down}};
    addBelow(below, centrePart, towardsCentre);
    // The slope at the underbust follows from where the leg is aimed, not from the bust point itself.
    std::vector<Station> aimed = below;
    aimed.front() = {bust + down, position_ - corner * down};
    below[1].slope = closed() ? 0 : monotoneSlopes(aimed)[1];
    below[1].slopeGiven = true;
    extend(above, topY_, bust);
    extend(below, bust, bottomY_);
    return monotonePath(above) + monotonePath(below);
  }

  // Up to its end on the shoulder or armhole: what the line takes in grows evenly from the bust point to the top edge,
  // and on from there to what the rule gives it at its end: what is held at the top edge by hand does not run on up to
  // the shoulder. Its middle runs in the parabola of crossingTop() to where, with the intake closed, the line ends half
  // way.
  std::vector<Station> aboveTop(double centrePart, double part, double corner, double up) const {
    const double top = depth(level::kTop), bust = depth(level::kBust), reach = bust - end_->y;
    const double taken = shaping_.at(level::kTop).taken[0], atEnd = shoulderDartAt(rules_, bust, end_->y);
    const double below = -taken / (bust - top), above = (taken - atEnd) / (top - end_->y);  // by depth
    const double endX = end_->x + centrePart * atEnd - position_;
    const double shift = topX_ - crossingTop();  // where the maker placed it
    const auto station = [&](double y, double gap, double slope) {
      const double t = (bust - y) / reach;
      return Station{y, position_ + endX * t * t + shift + part * gap, -2 * endX * t / reach + part * slope, true};
    };
    return {
        station(end_->y, atEnd, above), station(top, taken, (below + above) / 2), {bust, position_, corner, true, up}};
  }

  // Where the line stands on every level below the bust it is drawn through: by rule, or as placed; below the last
  // placed level it keeps its distance from the rule.
  std::vector<PanelLine::Guide> placesBelow(double centrePart) const {
    std::vector<PanelLine::Guide> places;
    double shift = 0;
    for (const ShapedLevel& l : shaping_.levels) {
      if (l.id == level::kTop || !l.drawn) continue;
      // A frame in one piece: straight down from the underbust.
      const double byRule = below_(closed() ? shaping_.at(level::kUnderbust) : l, centrePart);
      const auto guide = rules_.guide(l.id, lineId(true, 0));
      if (guide) shift = *guide - byRule;
      places.push_back({l.id, byRule + shift, guide.has_value()});
    }
    return places;
  }

  // By rules of thumb the line ends upright at the hem.
  void addBelow(std::vector<Station>& stations, double centrePart, bool towardsCentre) const {
    for (const PanelLine::Guide& place : placesBelow(centrePart)) {
      const ShapedLevel& l = shaping_.at(place.level);
      const bool byThumb = !sharesOut(rules_) && rules_.option(key::kLinesBelow) == FirstLineBelow::Upright;
      const bool upright = l.id == level::kHem && (byThumb || block_.plan.runsOutBelow(true));
      stations.push_back({l.y, place.x + partAt(l.id, centrePart, towardsCentre) * l.taken[0], 0, upright});
    }
  }

  std::vector<PanelLine::Guide> guides(double centrePart) const {
    std::vector<PanelLine::Guide> all = placesBelow(centrePart);
    all.pop_back();  // the hem
    all.insert(all.begin(), {std::string(level::kTop), topX_, rules_.guide(level::kTop, lineId(true, 0)).has_value()});
    return all;
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
  const double position_;
  const PlaceBelow& below_;
  const double topY_, bottomY_;
  const bool goesUp_;
  const std::optional<Vec2> end_;
  const double topX_;
};

}  // namespace

PanelLine drawPrincess(const Block& block, const Body& body, const Rules& rules, const Shaping& shaping,
                       double position, const PlaceBelow& below, double topY, double bottomY) {
  return Princess(block, body, rules, shaping, position, below, topY, bottomY).draw();
}

}  // namespace armure
