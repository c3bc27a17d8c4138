#include "draft/block.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
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
  return {std::move(id), std::move(name), edgeOfGap(gap, position, -centreShare),
          edgeOfGap(gap, position, 1 - centreShare)};
}

std::string lowered(std::string name) {
  name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
  return name;
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
  Drafter(const Body& body, const Rules& rules, Levels levels) : body_(body), rules_(rules) {
    block_.levels = std::move(levels);
  }

  Result<Block> draft() && {
    block_.workings = block_.levels.workings;
    block_.front.id = "front";
    block_.back.id = "back";
    block_.openingGap = rules_.option("opening.kind") == "lacing" ? rules_.length("opening.gap") : 0;
    draftFront();
    draftBack();
    finishReadOff();
    if (const auto narrow = narrowPanel()) return *narrow;
    drawUpperBlock(block_.front, body_, rules_, block_.workings);
    drawUpperBlock(block_.back, body_, rules_, block_.workings);
    recordIntakes();
    return std::move(block_);
  }

 private:
  const Level& level(std::string_view id) const { return block_.levels.at(id); }
  double topY() const { return level(level::kTop).front - kAbove; }
  double bottomFront() const { return std::max(level(level::kHem).front, level(level::kHip).front) + kBelow; }
  double bottomBack() const { return std::max(level(level::kHem).back, level(level::kHip).back) + kBelow; }

  void draftFront() {
    HalfBlock& f = block_.front;
    const double bustSide = level(level::kBust).frontShare;
    const double waistIntake = rules_.length("intake.waist");
    const double waistSide = level(level::kWaist).frontShare + waistIntake;
    const double position = body_.mm(id::kBustSpan) / 2;
    setDart(position, bustSide);
    const Vec2 dartEnd = block_.dart.lower;
    const double underWidth =
        straightSide(dartEnd.y, dartEnd.x, level(level::kWaist).front, waistSide, level(level::kUnderbust).front);
    const double underIntake = underbustIntake("front", underWidth, level(level::kUnderbust).frontShare, 0);
    drawPrincess(position, underIntake, waistIntake);
    f.centre = Path::line({0, topY()}, {0, bottomFront()});
    for (const Level& l : block_.levels.all)
      if (!l.readOff) addLevel(f, l, l.front, l.frontShare, 0);
    drawFrontSide();
    readOff(f, level(level::kChest), level(level::kChest).front, f.side);
    readOff(f, level(level::kHem), level(level::kHem).front, block_.sideBelowDart);
  }

  // Lays the quarter underbust on its line and takes what is left over as the intake of this half, less what is taken
  // in at its centre. The side runs straight from bust (on the front: from the lower leg of the dart) to waist. A side
  // that would stand nearer than the quarter leaves nothing to take in: the intake is 0 and the side moves out.
  double underbustIntake(std::string_view half, double width, double share, double centreIntake) {
    const bool front = half == "front";
    Working w{fmt::format("{}.underbust.intake", half),
              fmt::format("Underbust intake of the {}", front ? "princess line" : "back line"),
              {},
              0,
              ""};
    if (front && !rules_.isDefault("intake.underbust")) {
      w.terms = {rules_.term("intake.underbust")};
      w.note = "a fixed amount, set by the maker";
    } else {
      w.terms = {{'+', fmt::format("width of the {} on the underbust line", half), width, Source::Computed},
                 {'-', "quarter underbust", share, Source::Computed}};
      if (centreIntake > 0) w.terms.push_back({'-', "centre back taken in", centreIntake, Source::Computed});
      w.note =
          "the side runs straight from the bust, below the side dart, to the waist; the quarter underbust is laid on "
          "the line and what is left over is "
          "the intake; common practice";
      const double left = width - share - centreIntake;
      if (left < 0) w.terms.push_back({'+', "the side moves out, nothing is taken in", -left, Source::Computed});
    }
    for (const Term& t : w.terms) w.result += t.sign == '-' ? -t.mm : t.mm;
    if (std::abs(w.result) < 1e-9) w.result = 0;
    block_.workings.push_back(w);
    return w.result;
  }

  // Where a straight side from bust to waist stands on the underbust line.
  static double straightSide(double bustY, double bustSide, double waistY, double waistSide, double y) {
    return bustSide + (waistSide - bustSide) * (y - bustY) / (waistY - bustY);
  }

  // The wedge: upper leg on the bust line, lower leg as long, `sideDart` apart at the side: angle = 2 asin(w / 2L).
  void setDart(double position, double bustSide) {
    SideDart& d = block_.dart;
    const double bust = level(level::kBust).front;
    d.apex = {position, bust};
    d.upper = {bustSide, bust};
    d.angle = 2 * std::asin(std::min(1.0, block_.levels.sideDart / (2 * distance(d.apex, d.upper))));
    d.lower = Motion::rotationAbout(d.apex, d.angle).apply(d.upper);
  }

  // Both edges of the princess line. At the bust point they meet; above and below they leave it along a leg that is
  // aimed `bust.rounding` away from it, which rounds the point. The side front's edge is drawn with the corner of the
  // dart in it, half above and half below, so that closing the dart leaves a smooth edge.
  void drawPrincess(double position, double underIntake, double waistIntake) {
    const double centreShare = rules_.share("intake.centre_share");
    PanelLine& line = block_.front.line;
    line.id = "princess";
    line.name = "princess line";
    line.toCentre = princessEdge(position, -centreShare, 0, underIntake, waistIntake);
    line.toSide = princessEdge(position, 1 - centreShare, block_.dart.angle / 2, underIntake, waistIntake);
  }

  Path princessEdge(double position, double part, double halfCorner, double underIntake, double waistIntake) const {
    const double top = level(level::kTop).front, bust = level(level::kBust).front,
                 under = level(level::kUnderbust).front;
    const double rounding = rules_.length("bust.rounding");
    const double up = std::min(rounding, 0.6 * (bust - top)) * std::cos(halfCorner);
    const double down = std::min(rounding, 0.6 * (under - bust)) * std::cos(halfCorner);
    const double corner = std::tan(halfCorner), topX = position + part * rules_.length("intake.top");
    const double aim = (position - corner * up - topX) / (bust - up - top);
    std::vector<Station> above{{top, topX, aim, true}, {bust, position, corner, true, up}};
    std::vector<Station> below{{bust, position, -corner, true, 0, down},
                               {under, position + part * underIntake},
                               {level(level::kWaist).front, position + part * waistIntake},
                               {level(level::kHem).front, position + part * rules_.length("intake.hem"), 0, true}};
    // The slope at the underbust follows from where the leg is aimed, not from the bust point itself.
    std::vector<Station> aimed = below;
    aimed.front() = {bust + down, position - corner * down};
    below[1].slope = monotoneSlopes(aimed)[1];
    below[1].slopeGiven = true;
    extend(above, topY(), bust);
    extend(below, bust, bottomFront());
    return monotonePath(above) + monotonePath(below);
  }

  // The front side above and below the dart. Where the dart is, both run in the direction halfway between them once the
  // dart is closed, so that the closed side is smooth.
  void drawFrontSide() {
    const SideDart& d = block_.dart;
    const HalfBlock& f = block_.front;
    const HalfLevel &top = f.at(level::kTop), &under = f.at(level::kUnderbust);
    const Vec2 above = d.upper - Vec2{top.side, top.y}, below = Vec2{under.side, under.y} - d.lower;
    const Vec2 through = unit(unit(above) + unit(rotated(below, -d.angle)));
    const Vec2 throughBelow = rotated(through, d.angle);
    const double secant = above.x / above.y, slope = through.x / through.y;
    std::vector<Station> upper{{top.y, top.side, 2 * secant - slope, true}, {d.upper.y, d.upper.x, slope, true}};
    extend(upper, topY(), d.upper.y);
    block_.front.side = monotonePath(upper);
    std::vector<Station> lower{{d.lower.y, d.lower.x, throughBelow.x / throughBelow.y, true}};
    for (const HalfLevel& l : f.levels)
      if (l.y >= lower.back().y + kLeastApart) lower.push_back({l.y, l.side});
    extend(lower, d.lower.y, bottomFront());
    block_.sideBelowDart = monotonePath(lower);
  }

  void draftBack() {
    HalfBlock& b = block_.back;
    b.centre = centreBack();
    const auto centreIntake = [&](double y) { return b.centre.xAtDepth(y) - block_.openingGap / 2; };
    b.line = lineFromGap("back_line", "back line", backGap(centreIntake), body_.mm(id::kBustSpan) / 2, 0.5);
    for (const Level& l : block_.levels.all)
      if (!l.readOff) addLevel(b, l, l.back, l.backShare, centreIntake(l.back));
    b.side = sidePath(b, topY(), bottomBack());
    for (std::string_view id : {level::kChest, level::kHem}) readOff(b, level(id), level(id).back, b.side);
  }

  Path centreBack() const {
    const double half = block_.openingGap / 2;
    if (half > 0) return Path::line({half, topY()}, {half, bottomBack()});
    std::vector<Station> c{{level(level::kChest).back, 0, 0, true},
                           {level(level::kWaist).back, rules_.length("centre_back.waist")},
                           {level(level::kHem).back, 0, 0, true}};
    extend(c, topY(), bottomBack());
    return monotonePath(c);
  }

  // The back line's gap: nothing above its start and below its end, most at the waist, on the underbust line what is
  // left over there.
  template <typename CentreIntake>
  Path backGap(const CentreIntake& centreIntake) {
    const double waist = level(level::kWaist).back, hem = level(level::kHem).back, chest = level(level::kChest).back;
    const double bust = level(level::kBust).back, under = level(level::kUnderbust).back;
    const double start = std::min(chest + rules_.length("back.start"), under - 15);
    const double end = std::max(hem - rules_.length("back.end"), waist + 0.5 * (hem - waist));
    const double intake = rules_.length("back.intake_waist");
    const double waistSide = level(level::kWaist).backShare + intake + centreIntake(waist);
    const double width =
        straightSide(bust, level(level::kBust).backShare + centreIntake(bust), waist, waistSide, under);
    const double underIntake = underbustIntake("back", width, level(level::kUnderbust).backShare, centreIntake(under));
    std::vector<Station> s{{start, 0, 0, true}, {under, underIntake}, {waist, intake}, {end, 0, 0, true}};
    extend(s, topY(), bottomBack());
    return monotonePath(s);
  }

  void addLevel(HalfBlock& half, const Level& l, double y, double share, double centreIntake) {
    HalfLevel h{l.id, y, share, centreIntake, half.line.intakeAtDepth(y), 0};
    Working w{fmt::format("{}.{}.side", half.id, l.id),
              fmt::format("{}, {}: the side stands at", half.id == "front" ? "Front" : "Back", lowered(l.name)),
              {},
              0,
              ""};
    w.terms.push_back({'+', shareLabel(l, share), share, Source::Computed});
    if (std::abs(centreIntake) > 1e-9)
      w.terms.push_back({'+', "centre back taken in", centreIntake, rules_.value("centre_back.waist").source});
    if (std::abs(h.lineIntake) > 1e-9) w.terms.push_back({'+', half.line.name, h.lineIntake, Source::Computed});
    for (const Term& t : w.terms) w.result += t.mm;
    w.note = fmt::format("from centre {}: finished share + every intake taken out of this half, given back at the side",
                         half.id);
    h.side = w.result;
    half.levels.push_back(h);
    block_.workings.push_back(std::move(w));
  }

  // A level whose girth the draft gives: the smooth side line is read there, and the share is what the pieces leave.
  void readOff(HalfBlock& half, const Level& l, double y, const Path& sideLine) {
    const bool front = half.id == "front";
    HalfLevel h{l.id,
                y,
                0,
                front ? 0 : half.centre.xAtDepth(y) - block_.openingGap / 2,
                half.line.intakeAtDepth(y),
                sideLine.xAtDepth(y)};
    h.share = h.side - h.lineIntake - h.centreIntake;
    (front ? block_.levels.at(l.id).frontShare : block_.levels.at(l.id).backShare) = h.share;
    const auto below =
        std::find_if(half.levels.begin(), half.levels.end(), [&](const HalfLevel& other) { return other.y > y; });
    half.levels.insert(below, h);
    block_.workings.push_back({fmt::format("{}.{}.side", half.id, l.id),
                               fmt::format("{}, {}: the side stands at", front ? "Front" : "Back", lowered(l.name)),
                               {{'+', "read off the smooth side line", h.side, Source::Computed}},
                               h.side,
                               "no girth is prescribed here; the line runs on between measured levels"});
  }

  // Once both halves stand, the levels that were read off have their girth.
  void finishReadOff() {
    for (Level& l : block_.levels.all)
      if (l.readOff) {
        l.finishedGirth = 2 * (l.frontShare + l.backShare);
        if (l.bodyGirth == 0) l.bodyGirth = l.finishedGirth;
      }
  }

  static std::string shareLabel(const Level& l, double share) {
    const double quarter = l.finishedGirth / 4;
    const double more = (share - quarter) / kMmPerInch;
    if (std::abs(more) < 0.005) return "finished quarter";
    return fmt::format("finished quarter {} {:.3g} in", more > 0 ? "+" : "-", std::abs(more));
  }

  static Path sidePath(const HalfBlock& half, double top, double bottom) {
    std::vector<Station> s;
    for (const HalfLevel& l : half.levels) s.push_back({l.y, l.side});
    extend(s, top, bottom);
    return monotonePath(s);
  }

  // Panels that have shrunk away cannot be drawn.
  std::optional<Problem> narrowPanel() const {
    constexpr double kLeastWidth = 8;  // mm
    for (const HalfBlock* half : {&block_.front, &block_.back}) {
      for (const HalfLevel& l : half->levels) {
        if (level(l.level).beyondHem) continue;
        const double inner = half->line.toCentre.xAtDepth(l.y) - half->centre.xAtDepth(l.y);
        const double outer = l.side - half->line.toSide.xAtDepth(l.y);
        const double width = std::min(inner, outer);
        if (width >= kLeastWidth) continue;
        const std::string_view panel = inner < outer ? "centre" : "side";
        return Problem{fmt::format("{} {}, {}", panel, half->id, l.level),
                       fmt::format("the panel is only {:.0f} mm wide there", width),
                       "take less into this half, check the bust span, or measure again"};
      }
    }
    return std::nullopt;
  }

  void recordIntakes() {
    for (const HalfBlock* half : {&block_.front, &block_.back}) {
      const bool isPrincess = half->line.id == "princess";
      for (const HalfLevel& l : half->levels)
        if (!level(l.level).beyondHem)
          block_.intakes.push_back({half->id, half->line.id, l.level, l.lineIntake,
                                    rules_.length(isPrincess ? "cap.princess" : "cap.other")});
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
