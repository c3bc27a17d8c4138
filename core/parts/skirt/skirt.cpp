#include "parts/skirt/skirt.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <utility>

#include "draft/levels.h"
#include "measure/measure_table.h"
#include "operations/divide.h"
#include "operations/grain.h"
#include "parts/edges/rules.h"
#include "parts/skirt/rules.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kSixPanels = 6;          // edges that swing out on one half of a skirt of six panels, zip at the back
constexpr double kLeastBelowBodice = 45;  // mm a skirt must be longer than the bodice
constexpr double kStep = 120;             // mm between the joints of an edge that is drawn anew
constexpr double kMiss = 1e-3;            // mm

Vec2 downOf(const Piece& p) { return unit(p.grainBottom - p.grainTop); }

// How far an edge is moved out at a distance below the waist, and how fast that grows.
struct Swing {
  double out = 0, slope = 0;
};
using SwingAt = std::function<Swing(double below)>;

// Evenly from the waist on, after a short run-in without a corner: t + (e^-kt - 1) / k, scaled to 1 at the end.
Swing evenly(double amount, double below, double length) {
  constexpr double kRunIn = 6;
  const double t = below / length, all = 1 + (std::exp(-kRunIn) - 1) / kRunIn;
  return {amount * (t + (std::exp(-kRunIn * t) - 1) / kRunIn) / all,
          amount * (1 - std::exp(-kRunIn * t)) / all / length};
}

class SkirtMaker {
 public:
  SkirtMaker(Pattern& pattern, const PanelPlan& plan, const Body& body, const Rules& rules)
      : pattern_(pattern), body_(body), rules_(rules), kind_(rules.option(key::kSkirtKind)) {
    for (const Section& s : plan.sections)
      if (s.kind == SectionKind::Skirt)
        for (const PlannedLine& line : s.lines)
          if (line.kind != LineKind::Seam) uncut_.push_back(line.id);
  }

  std::optional<Problem> make() && {
    const double waistToHem = stemLength();
    double length = waistToHem;
    if (hasSkirt(rules_)) {
      length = endOfSkirt().mm;
      if (length < waistToHem + kLeastBelowBodice)
        return Problem{"Skirt", "it would end above the hip", "measure from the waist to its hem again"};
      extra_ = length - waistToHem;
    }
    length_ = length;
    for (Piece& p : pattern_.pieces)
      if (hemPlace(p) < p.edges.size()) remake(p);
    settleGirths();
    tell(waistToHem);
    return std::nullopt;
  }

 private:
  // How far below the waist it is to end.
  Term endOfSkirt() const {
    const SkirtEnd end = rules_.option(key::kSkirtTo);
    if (end == SkirtEnd::Length) return rules_.term(key::kSkirtLength);
    const Fact& f = body_.fact(end == SkirtEnd::Knee ? "waist_to_knee" : "waist_to_floor");
    return {'+', known(findMeasure(f.id)->name), f.mm, f.source};
  }

  // From the waist to the hem as cut, down the centre front.
  double stemLength() const {
    const Piece& p = pattern_.pieces.front();
    const size_t hem = hemPlace(p);
    const Path& left = p.edges[(hem + 1) % p.edges.size()].path;
    const Mark* waist = p.levelMark(level::kWaist);
    return waist && waist->a.edge == p.edges[(hem + 1) % p.edges.size()].id
               ? waist->a.at
               : left.length() / 2;  // this edge runs up from the hem
  }

  void remake(Piece& p) {
    const size_t n = p.edges.size(), hem = hemPlace(p), right = (hem + n - 1) % n, left = (hem + 1) % n;
    const std::vector<LevelLine> levels = p.levelLines();
    const auto waist = p.level(level::kWaist), hip = p.level(level::kHip);
    if (!waist) return;
    const Vec2 down = downOf(p), across{down.y, -down.x};
    const Path r = remade(p, right, p.edges[right].path, waist->b, hip ? &hip->b : nullptr, down, across);
    const Path l = remade(p, left, p.edges[left].path.reversed(), waist->a, hip ? &hip->a : nullptr, down, -across);
    const std::string& leftId = p.edges[left].id;
    carryMarks(p, {{.was = leftId, .is = leftId, .start = extra_}});
    p.edges[right].path = r;
    p.edges[left].path = l.reversed();
    p.edges[hem].path = hemBetween(r, l);
    settleLevels(p, levels);
    size_t i = 0;
    for (const LevelLine& now : p.levelLines())
      grown_[now.level] += (now.width() - levels[i++].width()) * p.girthWeight();
  }

  // Whether an edge is only to be sewn up, for the line it follows is not cut below the waist.
  bool isUncut(const Edge& edge) const { return std::find(uncut_.begin(), uncut_.end(), edge.id) != uncut_.end(); }

  // An edge that runs down, continued and swung out towards `aside`. Its length is what it was and the extra. A
  // straight or pegged skirt is no wider than the hip: from there on its edges stand upright.
  Path remade(const Piece& piece, size_t place, const Path& path, Vec2 waist, const Vec2* hip, Vec2 down, Vec2 aside) {
    const Edge& edge = piece.edges[place];
    const double from = nearOn(path, waist).value_or(path.length() / 2);
    const bool straightOn = isCentre(edge.role) || isUncut(edge);
    const auto hipAt = hip && isUpright() && !straightOn ? nearOn(path, *hip) : std::nullopt;
    const Path longer =
        hipAt ? uprightFrom(path, from, *hipAt, down) : continued(path, straightOn ? path.endTangent() : down);
    const SwingAt swing = swingOf(piece, place, longer.length() - from);
    if (!swing) return longer;
    return swung(longer, from, aside, swing).sub(0, longer.length());
  }

  bool isUpright() const { return kind_ == SkirtKind::Straight || kind_ == SkirtKind::Peg; }

  // The path down to the hip, which it reaches upright, then straight down. What comes above the hip is drawn anew from
  // half way between waist and hip.
  Path uprightFrom(const Path& path, double waist, double hip, Vec2 down) const {
    const double start = (waist + hip) / 2, third = (hip - start) / 3;
    const Vec2 a = path.pointAt(start), b = path.pointAt(hip);
    Path whole = path.sub(0, start) + Path(Cubic{a, a + third * path.tangentAt(start), b - third * down, b});
    constexpr double kLongest = 150;  // mm: joints for the balancing to take hold of
    const double rest = path.length() + extra_ - whole.length();
    const int parts = std::max(1, static_cast<int>(std::ceil(rest / kLongest)));
    for (int i = 0; i < parts; ++i) whole = whole + Path::line(whole.end(), whole.end() + (rest / parts) * down);
    return whole;
  }

  Path continued(const Path& path, Vec2 down) const {
    if (extra_ <= 0) return path;
    constexpr double kTurns = 0.35;  // of the length added: there it has come upright
    const double bend = std::min(kTurns * extra_, 220.0);
    const Vec2 c = path.end(), t = path.endTangent(), d = c + 0.5 * bend * (t + down);
    const Path curve(Cubic{c, c + bend / 3 * t, d - bend / 3 * down, d});
    const double rest = extra_ - curve.length();
    Path whole = path + curve;
    constexpr double kLongest = 150;  // mm: joints for the balancing to take hold of
    const int parts = std::max(1, static_cast<int>(std::ceil(rest / kLongest)));
    for (int i = 0; i < parts; ++i) whole = whole + Path::line(whole.end(), whole.end() + (rest / parts) * down);
    return whole;
  }

  // By how much an edge is swung out at the hem: as the maker's hand has it, or by rule.
  double flareOf(const Piece& piece, size_t edge) {
    const auto place = swingKeyOf(piece, edge);
    if (place)
      if (const auto byHand = rules_.swing(place->level, place->line)) {
        placed_.emplace_back(*place, *byHand);
        return *byHand;
      }
    return byRule();
  }
  double byRule() const {
    if (kind_ == SkirtKind::Flare) return rules_.length(key::kSkirtFlare);
    double edges = 0;
    for (const Seam& s : pattern_.seams) edges += s.kind == SeamKind::Plain ? 2 : 0;
    edges -= 2 * static_cast<double>(uncut_.size());
    return rules_.length(key::kSkirtGore) * std::min(1.0, kSixPanels / edges) * length_ / body_.mm("waist_to_floor");
  }

  SwingAt swingOf(const Piece& piece, size_t place, double below) {
    const Edge& edge = piece.edges[place];
    if (isCentre(edge.role) || isUncut(edge)) return nullptr;
    if (kind_ == SkirtKind::Flare || kind_ == SkirtKind::Gored)
      return [=, amount = flareOf(piece, place)](double s) { return evenly(amount, s, below); };
    if (kind_ == SkirtKind::Peg && edge.id == "side") {
      const double amount = -rules_.length(key::kSkirtPeg), from = below - extra_;  // from just below the hip
      const double to = std::min(below, std::max(from + 1, below - length_ + body_.mm("waist_to_knee")));
      return [=](double s) {
        const double t = std::clamp((s - from) / (to - from), 0.0, 1.0);
        return Swing{amount * t * t * (3 - 2 * t), amount * 6 * t * (1 - t) / (to - from)};
      };
    }
    return nullptr;
  }

  // The path below `from`, moved aside: Hermite cubics through joints at even distances.
  static Path swung(const Path& path, double from, Vec2 aside, const SwingAt& swing) {
    const double length = path.length();
    const int parts = std::max(4, static_cast<int>(std::ceil((length - from) / kStep)));
    const double step = (length - from) / parts;
    std::vector<Cubic> cubics = path.sub(0, from).cubics();
    Vec2 p = path.pointAt(from), d = path.tangentAt(from);
    for (int i = 1; i <= parts; ++i) {
      const double s = step * i;
      const Swing w = swing(s);
      const Vec2 q = path.pointAt(from + s) + w.out * aside, e = path.tangentAt(from + s) + w.slope * aside;
      cubics.push_back({i == 1 ? cubics.back().p3 : p, p + step / 3 * d, q - step / 3 * e, q});
      p = q;
      d = e;
    }
    // An edge swung in is shorter than it was: it runs on straight.
    Path whole(std::move(cubics));
    const double missing = length - whole.length();
    return missing > 0 ? whole + Path::line(whole.end(), whole.end() + (missing + kMiss) * whole.endTangent()) : whole;
  }

  // Levels below the waist end on the new edges; what the pieces have grown by there stands off the body.
  void settleGirths() {
    for (PatternLevel& l : pattern_.levels)
      if (l.ring) l.gaps.swing -= grown_[l.id];
  }

  void tell(double stem) {
    double round = 0;
    for (const Piece& p : pattern_.pieces)
      for (const Edge& e : p.edges)
        if (e.role == EdgeRole::Hem) round += e.path.length() * p.girthWeight();
    pattern_.workings.push_back(
        {"skirt.round",
         "Hem, all round",
         {{'+', "the hems of all panels", round, Source::Computed}},
         round,
         "every panel edge is swung about the waist with its length kept, so that the hem stays "
         "one smooth line; common practice"});
    if (kind_ == SkirtKind::Flare || kind_ == SkirtKind::Gored)
      pattern_.workings.push_back({std::string(kSwingWorking),
                                   "Each panel edge, swung out at the hem",
                                   {rules_.term(kind_ == SkirtKind::Flare ? key::kSkirtFlare : key::kSkirtGore)},
                                   byRule(),
                                   "a half panel's part at the floor, less where there are more panels than six or the "
                                   "skirt ends higher; common practice"});
    for (const auto& [place, mm] : placed_)
      pattern_.workings.push_back({"rule." + place.text(),
                                   shapingName(place),
                                   {{'+', shapingName(place), mm, Source::ByHand}},
                                   mm,
                                   "set by the maker; the other edges are swung out by rule"});
    if (!hasSkirt(rules_)) return;
    pattern_.workings.push_back({"skirt.below_hip",
                                 "Skirt, below the hip",
                                 {endOfSkirt(), {'-', "waist to below the hip, as drafted", stem, Source::Computed}},
                                 extra_,
                                 "the panels run on from just below the hip; common practice"});
  }

  Pattern& pattern_;
  const Body& body_;
  const Rules& rules_;
  const SkirtKind kind_;
  std::vector<std::string> uncut_;  // lines that are no seams below the waist
  double extra_ = 0, length_ = 0;
  std::vector<std::pair<ShapingKey, double>> placed_;  // edges swung out as the maker's hand has it, mm
  std::map<std::string, double> grown_;                // by level: how much wider the remade pieces are, all round, mm
};

}  // namespace

std::optional<ShapingKey> swingKeyOf(const Piece& piece, size_t edge) {
  const size_t n = piece.edges.size(), hem = hemPlace(piece);
  if (hem == n || (piece.part != Part::Panel && piece.part != Part::Skirt)) return std::nullopt;
  const bool right = edge == (hem + n - 1) % n, left = edge == (hem + 1) % n;
  const std::string& id = piece.edges[edge].id;
  if ((!right && !left) || piece.edges[edge].role != EdgeRole::Seam) return std::nullopt;
  // Pieces follow each other from the centre front to the centre back.
  const bool front = piece.half == Half::Front, outwards = right == front;
  if (outwards && id.starts_with("side"))
    return ShapingKey{ShapingKind::Swing, std::string(kCentreEdge), std::string(front ? kFrontSide : kBackSide)};
  if (!isPanelLine(id)) return std::nullopt;
  return ShapingKey{ShapingKind::Swing, std::string(outwards ? kCentreEdge : kSideEdge), id};
}

std::optional<Problem> addSkirt(Pattern& pattern, const Block& block, const Body& body, const Rules& rules) {
  if (rules.option(key::kSkirtKind) == SkirtKind::None || !goesBelowWaist(rules)) return std::nullopt;
  return SkirtMaker(pattern, block.plan, body, rules).make();
}

std::optional<Problem> markSlit(Pattern& pattern, const Rules& rules) {
  const RuleInfo& rule = *findRule(key::kSkirtSlit.text);
  const double slit = rules.length(key::kSkirtSlit);
  if (slit <= 0 || !rules.counts(rule)) return std::nullopt;
  for (Piece& p : pattern.pieces) {
    if (p.half != Half::Back || p.layer != "shell") continue;
    for (const Edge& e : p.edges) {
      const bool down = e.path.end().y > e.path.start().y;
      const Edge& below = down ? p.edges[(edgePlace(p, e.id) + 1) % p.edges.size()]
                               : p.edges[(edgePlace(p, e.id) + p.edges.size() - 1) % p.edges.size()];
      if (below.role != EdgeRole::Hem || (e.role != EdgeRole::Centre && e.role != EdgeRole::Opening)) continue;
      const double length = e.path.length();
      if (slit > length - 20) return Problem{"Skirt", "the slit is longer than the seam it opens", "make it shorter"};
      p.marks.push_back(notchMark("slit-end", {e.id, down ? length - slit : slit, {}}, true));
      return std::nullopt;
    }
  }
  return Problem{"Skirt", "there is no seam at the centre back for the slit",
                 "let the centre back be sewn or opened, or leave the slit away (skirt.slit)"};
}

}  // namespace armure
