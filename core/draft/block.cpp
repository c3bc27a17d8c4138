#include "draft/block.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "draft/upper_block.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kAbove = 60, kBelow = 25;  // mm: lines are drawn this far past top edge and hem, to be cut
constexpr double kLeastApart = 4;           // mm: nearer levels are not both stations of a line

// The gap of a line as a path: x is the whole intake, y the depth. Its edges are scaled copies.
Path edgeOfGap(const Path& gap, double position, double part) {
  std::vector<Cubic> cubics;
  cubics.reserve(gap.cubics().size());
  const auto place = [&](Vec2 p) { return Vec2{position + part * p.x, p.y}; };
  for (const Cubic& c : gap.cubics()) cubics.push_back({place(c.p0), place(c.p1), place(c.p2), place(c.p3)});
  return Path(std::move(cubics));
}

PanelLine lineFromGap(std::string id, std::string name, const Path& gap, double position, double centreShare) {
  return {std::move(id), std::move(name), edgeOfGap(gap, position, -centreShare), edgeOfGap(gap, position, 1 - centreShare)};
}

// Continues a list of stations straight, up and down.
void extend(std::vector<Station>& s, double topY, double bottomY) {
  const std::vector<double> slope = monotoneSlopes(s);
  const auto straight = [](const Station& from, double m, double y) {
    return Station{y, from.x + m * (y - from.y), m, true};
  };
  Station& first = s.front();
  first.slope = slope.front();
  first.slopeGiven = true;
  Station& last = s.back();
  last.slope = slope.back();
  last.slopeGiven = true;
  const Station above = straight(first, first.slope, topY), below = straight(last, last.slope, bottomY);
  if (topY < s.front().y - 1e-6) s.insert(s.begin(), above);
  if (bottomY > s.back().y + 1e-6) s.push_back(below);
}

class Drafter {
 public:
  Drafter(const Body& body, const Rules& rules, Levels levels) : body_(body), rules_(rules) { block_.levels = std::move(levels); }

  Result<Block> draft() && {
    block_.workings = block_.levels.workings;
    block_.front.id = "front";
    block_.back.id = "back";
    block_.openingGap = rules_.option("opening.kind") == "lacing" ? rules_.length("opening.gap") : 0;
    draftFront();
    draftBack();
    if (const auto narrow = narrowPanel()) return *narrow;
    drawUpperBlock(block_.front, body_, rules_, block_.workings);
    drawUpperBlock(block_.back, body_, rules_, block_.workings);
    recordIntakes();
    return std::move(block_);
  }

 private:
  const Level& level(std::string_view id) const { return block_.levels.at(id); }
  double topY() const { return level(level::kTop).front - kAbove; }
  double bottomFront() const { return level(level::kHem).front + kBelow; }
  double bottomBack() const { return level(level::kHem).back + kBelow; }

  void draftFront() {
    HalfBlock& f = block_.front;
    const double bustSide = level(level::kBust).frontShare;
    const double waistIntake = rules_.length("intake.waist");
    const double waistSide = level(level::kWaist).frontShare + waistIntake;
    const double underIntake = underbustIntake(bustSide, waistSide);
    const double position = body_.mm(id::kBustSpan) / 2;
    const Path gap = princessGap(underIntake, waistIntake);
    f.line = lineFromGap("princess", "princess line", gap, position, rules_.share("intake.centre_share"));
    f.centre = Path::line({0, topY()}, {0, bottomFront()});
    for (const Level& l : block_.levels.all) addLevel(f, l, l.front, l.frontShare, 0);
    f.side = sidePath(f, topY(), bottomFront());
    openDart(position);
  }

  // Lays the quarter underbust on its line and takes what is left over as the intake. The side runs straight from bust to
  // waist. A side that stands nearer than the quarter leaves nothing to take in: the intake is 0 and the side moves out.
  double underbustIntake(double bustSide, double waistSide) {
    const Level &bust = level(level::kBust), &under = level(level::kUnderbust), &waist = level(level::kWaist);
    Working w{"front.underbust.intake", "Underbust intake of the princess line", {}, 0, ""};
    if (!rules_.isDefault("intake.underbust")) {
      w.terms = {rules_.term("intake.underbust")};
      w.note = "a fixed amount, set by the maker";
    } else {
      const double width = bustSide + (waistSide - bustSide) * (under.front - bust.front) / (waist.front - bust.front);
      w.terms = {{'+', "width of the front on the underbust line", width, Source::Computed},
                 {'-', "quarter underbust", under.frontShare, Source::Computed}};
      w.note = "the side runs straight from bust to waist; the quarter underbust is laid on the line and what is left over is "
               "the intake; common practice";
      if (width < under.frontShare) {
        w.terms.push_back({'+', "the side moves out, nothing is taken in", under.frontShare - width, Source::Computed});
      }
    }
    for (const Term& t : w.terms) w.result += t.sign == '-' ? -t.mm : t.mm;
    if (std::abs(w.result) < 1e-9) w.result = 0;
    block_.workings.push_back(w);
    return w.result;
  }

  Path princessGap(double underIntake, double waistIntake) const {
    const double top = level(level::kTop).front, bust = level(level::kBust).front;
    const double rounding = rules_.length("bust.rounding");
    const double roundingUp = std::min(rounding, 0.6 * (bust - top));
    const double roundingDown = std::min(rounding, 0.6 * (level(level::kUnderbust).front - bust));
    const double topIntake = rules_.length("intake.top");
    const double aim = -topIntake / (bust - roundingUp - top);  // the upper leg aims at where the rounding begins
    std::vector<Station> s{{top, topIntake, aim, true},
                           {bust, 0, 0, true, roundingUp, roundingDown},
                           {level(level::kUnderbust).front, underIntake},
                           {level(level::kWaist).front, waistIntake},
                           {level(level::kHem).front, rules_.length("intake.hem")}};
    extend(s, topY(), bottomFront());
    return monotonePath(s);
  }

  void draftBack() {
    HalfBlock& b = block_.back;
    const double waist = level(level::kWaist).back, hem = level(level::kHem).back, chest = level(level::kChest).back;
    const double start = std::min(chest + rules_.length("back.start"), waist - 60);
    const double end = std::max(hem - rules_.length("back.end"), waist + 0.5 * (hem - waist));
    std::vector<Station> s{{start, 0, 0, true}, {waist, rules_.length("back.intake_waist")}, {end, 0, 0, true}};
    extend(s, topY(), bottomBack());
    b.line = lineFromGap("back_line", "back line", monotonePath(s), body_.mm(id::kBustSpan) / 2, 0.5);
    if (block_.openingGap > 0) {
      b.centre = Path::line({block_.openingGap / 2, topY()}, {block_.openingGap / 2, bottomBack()});
    } else {
      std::vector<Station> c{{chest, 0, 0, true}, {waist, rules_.length("centre_back.waist")}, {hem, 0, 0, true}};
      extend(c, topY(), bottomBack());
      b.centre = monotonePath(c);
    }
    for (const Level& l : block_.levels.all) addLevel(b, l, l.back, l.backShare, b.centre.xAtDepth(l.back) - block_.openingGap / 2);
    b.side = sidePath(b, topY(), bottomBack());
  }

  void addLevel(HalfBlock& half, const Level& l, double y, double share, double centreIntake) {
    HalfLevel h{l.id, y, share, centreIntake, half.line.intakeAtDepth(y), 0};
    Working w{fmt::format("{}.{}.side", half.id, l.id), fmt::format("{}, {}: the side stands at", half.id == "front" ? "Front" : "Back", l.name), {}, 0, ""};
    w.terms.push_back({'+', shareLabel(l, share), share, Source::Computed});
    if (std::abs(centreIntake) > 1e-9) w.terms.push_back({'+', "centre back taken in", centreIntake, rules_.value("centre_back.waist").source});
    if (std::abs(h.lineIntake) > 1e-9) w.terms.push_back({'+', half.line.name, h.lineIntake, Source::Computed});
    for (const Term& t : w.terms) w.result += t.mm;
    w.note = fmt::format("from centre {}: finished share + every intake taken out of this half, given back at the side", half.id);
    h.side = w.result;
    half.levels.push_back(h);
    block_.workings.push_back(std::move(w));
  }

  static std::string shareLabel(const Level& l, double share) {
    const double quarter = l.finishedGirth / 4;
    const double more = (share - quarter) / kMmPerInch;
    if (std::abs(more) < 0.005) return "finished quarter";
    return fmt::format("finished quarter {} {:.3g} in", more > 0 ? "+" : "-", std::abs(more));
  }

  static Path sidePath(const HalfBlock& half, double top, double bottom) {
    std::vector<Station> s;
    for (const HalfLevel& l : half.levels)
      if (s.empty() || l.y - s.back().y >= kLeastApart) s.push_back({l.y, l.side});
    extend(s, top, bottom);
    return monotonePath(s);
  }

  // The wedge: upper leg on the bust line, lower leg as long, `sideDart` apart at the side: angle = 2 asin(w / 2L).
  void openDart(double position) {
    SideDart& d = block_.dart;
    const double bust = level(level::kBust).front;
    d.apex = {position, bust};
    d.upper = {block_.front.at(level::kBust).side, bust};
    const double leg = distance(d.apex, d.upper);
    d.angle = 2 * std::asin(std::min(1.0, block_.levels.sideDart / (2 * leg)));
    d.lower = Motion::rotationAbout(d.apex, d.angle).apply(d.upper);
    std::vector<Station> s{{d.lower.y, d.lower.x}};
    for (const HalfLevel& l : block_.front.levels)
      if (l.y >= s.back().y + kLeastApart && l.y > bust + 1) s.push_back({l.y, l.side});
    extend(s, d.lower.y, bottomFront());
    block_.sideBelowDart = monotonePath(s);
  }

  // Panels that have shrunk away cannot be drawn.
  std::optional<Problem> narrowPanel() const {
    constexpr double kLeastWidth = 8;  // mm
    for (const HalfBlock* half : {&block_.front, &block_.back}) {
      for (const HalfLevel& l : half->levels) {
        const double inner = half->line.toCentre.xAtDepth(l.y) - half->centre.xAtDepth(l.y);
        const double outer = l.side - half->line.toSide.xAtDepth(l.y);
        const double width = std::min(inner, outer);
        if (width >= kLeastWidth) continue;
        const std::string_view panel = inner < outer ? "centre" : "side";
        return Problem{fmt::format("{} {}, {}", panel, half->id, l.level), fmt::format("the panel is only {:.0f} mm wide there", width),
                       "take less into this half, check the bust span, or measure again"};
      }
    }
    return std::nullopt;
  }

  void recordIntakes() {
    for (const HalfBlock* half : {&block_.front, &block_.back}) {
      const bool isPrincess = half->line.id == "princess";
      for (const HalfLevel& l : half->levels)
        block_.intakes.push_back({half->id, half->line.id, l.level, l.lineIntake, rules_.length(isPrincess ? "cap.princess" : "cap.other")});
    }
  }

  const Body& body_;
  const Rules& rules_;
  Block block_;
};

}  // namespace

const HalfLevel& HalfBlock::at(std::string_view level) const {
  for (const HalfLevel& l : levels)
    if (l.level == level) return l;
  throw std::out_of_range(fmt::format("HalfBlock: no level {}", level));
}

const Working* Block::working(std::string_view key) const {
  for (const Working& w : workings)
    if (w.key == key) return &w;
  return nullptr;
}

Result<Block> draftBlock(const Body& body, const Rules& rules) {
  Result<Levels> levels = layOutLevels(body, rules);
  if (!levels.ok()) return levels.problem();
  return Drafter(body, rules, std::move(levels).value()).draft();
}

}  // namespace armure
