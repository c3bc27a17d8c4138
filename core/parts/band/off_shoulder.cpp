#include "parts/band/off_shoulder.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "geometry/arc.h"
#include "measure/measure_table.h"
#include "operations/sew.h"
#include "parts/band/rules.h"
#include "parts/edges/rules.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kStraight = 1e-3;  // rad: less is drawn as if it were this
constexpr double kMostAngle = 2.8;  // rad: more would not lie on one sheet

class BandMaker {
 public:
  BandMaker(Pattern& pattern, const Body& body, const Rules& rules) : pattern_(pattern), body_(body), rules_(rules) {}

  std::optional<Problem> make() && {
    front_ = lineFrom(pattern_, topOf(atCentreFront()), "side");
    const Seam& side = *pattern_.seam("side");
    back_ = lineFrom(pattern_, topOf(side.b.piece), "side");
    const double arm = body_.mm("bicep") / 2, hold = rules_.length(key::kOffHold);
    upper_ = (body_.mm("round_shoulder") - hold) / 2;
    lower_ = lengthOfLine(pattern_, front_) + arm + lengthOfLine(pattern_, back_);
    depth_ = rules_.length(key::kOffDepth);
    angle_ = (lower_ - upper_) / depth_;
    if (std::abs(angle_) < kStraight) angle_ = kStraight;
    if (std::abs(angle_) > kMostAngle)
      return Problem{"Off-shoulder band",
                     msg("{:.0f} mm deep it would have to be {:.0f} mm longer at one edge than at the other", depth_,
                         std::abs(lower_ - upper_)),
                     "make it deeper, or measure the round-shoulder girth and the upper arm"};
    radius_ = upper_ / angle_;
    addPiece(arm);
    tell(arm);
    return std::nullopt;
  }

 private:
  // The piece whose upper edge begins at the centre front: the first panel, or the cup where the cups touch.
  size_t atCentreFront() const {
    const auto has = [](const Piece& p, auto&& which) { return std::any_of(p.edges.begin(), p.edges.end(), which); };
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      const Piece& p = pattern_.pieces[i];
      if (p.half == Half::Front && has(p, [](const Edge& e) { return e.role == EdgeRole::Top; }) &&
          has(p, [](const Edge& e) { return isCentre(e.role); }))
        return i;
    }
    return pattern_.panel(Half::Front, 1).value();
  }

  SewnEdge topOf(size_t piece) const {
    for (const Edge& e : pattern_.pieces[piece].edges)
      if (e.role == EdgeRole::Top) return {piece, {e.id, false}};
    throw std::out_of_range("no upper edge on " + pattern_.pieces[piece].id);
  }

  EdgeRole centre(Half half) const {
    if (const auto piece = pattern_.panel(half, 1))
      for (const Edge& e : pattern_.pieces[*piece].edges)
        if (e.role == EdgeRole::Fold || e.role == EdgeRole::Centre) return e.role;
    return EdgeRole::Opening;
  }

  void addPiece(double arm) {
    double top = HUGE_VAL;
    for (const Piece& p : pattern_.pieces)
      for (const Edge& e : p.edges) top = std::min(top, e.path.start().y);
    const Vec2 o{pattern_.right() + kBesideShell, top - radius_};
    const double outer = radius_ + depth_, allowance = rules_.length(key::kAllowanceYoke);
    const auto at = [&](double radius, double a) { return onCircle(o, radius, a); };
    Piece band;
    band.id = "shoulder-band";
    band.name = "Shoulder band";
    band.part = Part::ShoulderBand;
    const EdgeRole atFront = centre(Half::Front), atBack = centre(Half::Back);
    const auto centreAllowance = [&](EdgeRole role) { return role == EdgeRole::Fold ? 0 : allowance; };
    band.edges.push_back({"top", EdgeRole::Top, rules_.length(key::kAllowanceTop), arc(o, radius_, 0, angle_)});
    band.edges.push_back({"back", atBack, centreAllowance(atBack), Path::line(at(radius_, angle_), at(outer, angle_))});
    std::vector<SewnEdge> onFront, onBack;
    const size_t place = pattern_.pieces.size();
    double a = angle_;
    const auto add = [&](const std::string& id, EdgeRole role, double length, double width) {
      const double b = a - length / outer;
      band.edges.push_back({id, role, width, arc(o, outer, a, b)});
      a = b;
    };
    for (size_t i = back_.size(); i-- > 0;) {
      add(fmt::format("band-back-{}", i + 1), EdgeRole::Yoke, lengthOfLine(pattern_, {back_[i]}), allowance);
      onBack.insert(onBack.begin(), {place, {band.edges.back().id, true}});
    }
    add("arm", EdgeRole::Armhole, arm, rules_.length(key::kAllowanceArmhole));
    for (size_t i = front_.size(); i-- > 0;) {
      add(fmt::format("band-front-{}", i + 1), EdgeRole::Yoke, lengthOfLine(pattern_, {front_[i]}), allowance);
      onFront.insert(onFront.begin(), {place, {band.edges.back().id, true}});
    }
    band.edges.back().path = withEnds(band.edges.back().path, band.edges.back().path.start(), at(outer, 0));
    band.edges.push_back({"front", atFront, centreAllowance(atFront), Path::line(at(outer, 0), at(radius_, 0))});
    for (size_t i = 0; i + 1 < band.edges.size(); ++i)
      band.edges[i].path = withEnds(band.edges[i].path, band.edges[i].path.start(), band.edges[i + 1].path.start());
    if (atFront == EdgeRole::Fold) {
      band.onFold = "front";
      band.symmetry = Symmetry::OnFold;
      band.copies = 1;
    }
    const double middle = angle_ / 2;
    band.grainTop = at(radius_ + 0.15 * depth_, middle);
    band.grainBottom = at(radius_ + 0.85 * depth_, middle);
    pattern_.pieces.push_back(std::move(band));
    for (const auto* line : {&front_, &back_})
      for (const SewnEdge& e : *line)
        for (Edge& edge : pattern_.pieces[e.piece].edges)
          if (edge.id == e.use.edge) {
            edge.role = EdgeRole::Yoke;
            edge.allowance = allowance;
          }
    sewLines(pattern_, front_, onFront, "band-front", "Band seam, front");
    sewLines(pattern_, back_, onBack, "band-back", "Band seam, back");
  }

  void tell(double arm) {
    const auto fact = [&](std::string_view id, double factor) {
      const Fact& f = body_.fact(id);
      return Term{'+', msg("half the {}", known(findMeasure(id)->name)), f.mm * factor, f.source};
    };
    pattern_.workings.push_back({"off.upper",
                                 "Off-shoulder band, its upper edge from centre to centre",
                                 {fact("round_shoulder", 0.5), rules_.term(key::kOffHold, '-', 0.5)},
                                 upper_,
                                 "shorter than the way round both arms, so that it stays up; common practice"});
    pattern_.workings.push_back({"off.lower",
                                 "Off-shoulder band, its lower edge",
                                 {{'+', "upper edge of the front", lengthOfLine(pattern_, front_), Source::Computed},
                                  {'+', "half the upper arm", arm, body_.fact("bicep").source},
                                  {'+', "upper edge of the back", lengthOfLine(pattern_, back_), Source::Computed}},
                                 lower_,
                                 "sewn to the upper edges, free over the arm; a cone laid flat; common practice"});
  }

  Pattern& pattern_;
  const Body& body_;
  const Rules& rules_;
  std::vector<SewnEdge> front_, back_;
  double upper_ = 0, lower_ = 0, depth_ = 0, angle_ = 0, radius_ = 0;
};

}  // namespace

std::optional<Problem> addShoulderBand(Pattern& pattern, const Body& body, const Rules& rules) {
  if (rules.option(key::kCoverKind) != CoverKind::OffShoulder) return std::nullopt;
  return BandMaker(pattern, body, rules).make();
}

}  // namespace armure
