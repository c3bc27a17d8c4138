#include "draft/block.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <functional>
#include <numeric>
#include <stdexcept>

#include "draft/further_lines.h"
#include "draft/line_paths.h"
#include "draft/shared_out.h"
#include "draft/upper_block.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kAbove = 60, kBelow = 25;  // mm: lines are drawn this far past top edge and hem, to be cut
constexpr double kLeastBesideSide = 40;     // mm between the last line and the side

std::string lowered(std::string name) {
  name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
  return name;
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

  bool byThumb() const { return rules_.option("distribution.school") == "thumb"; }

  // Options of a count are "1", "2", ...
  size_t lineCount(std::string_view key) const { return static_cast<size_t>(rules_.option(key).front() - '0'); }

  // The first line stands at half the span; the others each half a span further, or evenly between it and the side.
  // Where half spans do not fit they are set evenly after all.
  std::vector<double> positions(size_t count, double side, double waistShare) const {
    const double first = body_.mm(id::kBustSpan) / 2;
    const double even = (side - first) / static_cast<double>(count);
    // At the waist the side stands out by what is taken in there, about as the rules of thumb have it.
    const double atWaist =
        waistShare + rules_.length("intake.waist") + static_cast<double>(count - 1) * rules_.length("intake.further");
    const bool fits = first * static_cast<double>(count) < std::min(side, atWaist) - kLeastBesideSide;
    const double step = rules_.option("lines.spacing") == "half-span" && fits ? first : even;
    std::vector<double> x;
    for (size_t i = 0; i < count; ++i) x.push_back(first + step * static_cast<double>(i));
    return x;
  }

  void draftFront() {
    HalfBlock& f = block_.front;
    const double bustSide = level(level::kBust).frontShare;
    const std::vector<double> at = positions(lineCount("lines.front"), bustSide, level(level::kWaist).frontShare);
    setDart(at.front(), bustSide);
    const std::vector<LineTaking> takings =
        byThumb() ? frontByThumb(at) : sharedOut(f, at.size(), bustSide, [](double) { return 0.0; });
    drawPrincess(at.front(), takings.front());
    drawFurtherFront(at, takings);
    f.centre = Path::line({0, topY()}, {0, bottomFront()});
    for (const Level& l : block_.levels.all)
      if (!l.readOff) addLevel(f, l, l.front, l.frontShare, 0);
    drawFrontSide();
    readOff(f, level(level::kChest), level(level::kChest).front, f.side);
    readOff(f, level(level::kHem), level(level::kHem).front, block_.sideBelowDart);
  }

  // Rules of thumb: the princess line by its rules, every further line by its own, running out at bust and hem; the
  // side takes what is left.
  std::vector<LineTaking> frontByThumb(const std::vector<double>& at) {
    std::vector<LineTaking> takings(at.size());
    const double under = level(level::kUnderbust).front, waist = level(level::kWaist).front;
    double furtherWaist = 0, furtherUnder = 0;
    for (size_t i = 1; i < at.size(); ++i) {
      const double below = onLowerLeg(at[i]).y, taken = rules_.length("intake.further");
      takings[i].waist = taken;
      takings[i].under = taken * (under - below) / (waist - below);
      furtherWaist += takings[i].waist;
      furtherUnder += takings[i].under;
    }
    takings[0].top = rules_.length("intake.top");
    takings[0].waist = rules_.length("intake.waist");
    takings[0].hem = rules_.length("intake.hem");
    const double waistSide = level(level::kWaist).frontShare + takings[0].waist + furtherWaist;
    const Vec2 dartEnd = block_.dart.lower;
    const double width = straightSide(dartEnd.y, dartEnd.x, waist, waistSide, under);
    takings[0].under = underbustIntake("front", width, level(level::kUnderbust).frontShare, 0, furtherUnder);
    return takings;
  }

  // Where the side dart's lower leg is met at the distance of `x` from the bust point.
  Vec2 onLowerLeg(double x) const {
    return Motion::rotationAbout(block_.dart.apex, block_.dart.angle).apply({x, block_.dart.apex.y});
  }

  std::vector<LineTaking> sharedOut(const HalfBlock& half, size_t count, double width,
                                    const std::function<double(double)>& centreIntake) {
    const bool front = half.id == "front";
    std::vector<std::string> ids;
    for (size_t i = 0; i < count; ++i) ids.push_back(lineId(front, i));
    SharedOut out = shareOut(block_.levels, rules_, front, ids, width,
                             front ? block_.dart.lower.y : level(level::kBust).back, centreIntake);
    block_.workings.insert(block_.workings.end(), out.workings.begin(), out.workings.end());
    block_.intakes.insert(block_.intakes.end(), out.atSide.begin(), out.atSide.end());
    return std::move(out.takings);
  }

  static std::string lineId(bool front, size_t i) {
    const std::string first = front ? "princess" : "back-line";
    return i == 0 ? first : fmt::format("{}-{}", front ? "front-line" : "back-line", i + 1);
  }
  static std::string lineName(bool front, size_t i) {
    if (i == 0) return front ? "princess line" : "back line";
    return fmt::format("{} line {}", front ? "front" : "back", i + 1);
  }

  // Lays the quarter underbust on its line and takes what is left over as the intake of this half, less what is taken
  // in at its centre. The side runs straight from bust (on the front: from the lower leg of the dart) to waist. A side
  // that would stand nearer than the quarter leaves nothing to take in: the intake is 0 and the side moves out.
  double underbustIntake(std::string_view half, double width, double share, double centreIntake, double further) {
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
      if (further > 0) w.terms.push_back({'-', "the further lines", further, Source::Computed});
      w.note =
          "the side runs straight from the bust, below the side dart, to the waist; the quarter underbust is laid on "
          "the line and what is left over is "
          "the intake; common practice";
      const double left = width - share - centreIntake - further;
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
  void drawPrincess(double position, const LineTaking& taking) {
    const double centreShare = rules_.share("intake.centre_share");
    PanelLine line{lineId(true, 0), lineName(true, 0), position, {}, {}, {}, {}};
    line.toCentre = princessEdge(position, -centreShare, 0, taking);
    line.toSide = princessEdge(position, 1 - centreShare, block_.dart.angle / 2, taking);
    block_.front.lines.push_back(std::move(line));
  }

  Path princessEdge(double position, double part, double halfCorner, const LineTaking& taking) const {
    const double top = level(level::kTop).front, bust = level(level::kBust).front,
                 under = level(level::kUnderbust).front;
    const double rounding = rules_.length("bust.rounding");
    const double up = std::min(rounding, 0.6 * (bust - top)) * std::cos(halfCorner);
    const double down = std::min(rounding, 0.6 * (under - bust)) * std::cos(halfCorner);
    const double corner = std::tan(halfCorner), topX = position + part * taking.top;
    const double aim = (position - corner * up - topX) / (bust - up - top);
    std::vector<Station> above{{top, topX, aim, true}, {bust, position, corner, true, up}};
    std::vector<Station> below{{bust, position, -corner, true, 0, down}};
    addBelow(below, position, part, taking, &Level::front);
    // The slope at the underbust follows from where the leg is aimed, not from the bust point itself.
    std::vector<Station> aimed = below;
    aimed.front() = {bust + down, position - corner * down};
    below[1].slope = monotoneSlopes(aimed)[1];
    below[1].slopeGiven = true;
    extend(above, topY(), bust);
    extend(below, bust, bottomFront());
    return monotonePath(above) + monotonePath(below);
  }

  // Underbust, waist, high hip where something was shared out there, hem.
  void addBelow(std::vector<Station>& s, double position, double part, const LineTaking& taking,
                double Level::*depth) const {
    const double hem = level(level::kHem).*depth, highHip = level(level::kHighHip).*depth;
    s.push_back({level(level::kUnderbust).*depth, position + part * taking.under});
    s.push_back({level(level::kWaist).*depth, position + part * taking.waist});
    if (!byThumb() && highHip < hem - kLeastApart) s.push_back({highHip, position + part * taking.highHip});
    s.push_back({hem, position + part * taking.hem, 0, byThumb()});
  }

  bool spacedEvenly(const std::vector<double>& at) const {
    return rules_.option("lines.spacing") == "even" || at.size() < 2 || std::abs(at[1] - 2 * at[0]) > 1e-9;
  }

  // The lines beyond the bust point: nothing is taken in above the dart; below it both edges start on its lower leg.
  // Above and below they run so that the closed line is smooth, half of the turn on either side.
  void drawFurtherFront(const std::vector<double>& at, const std::vector<LineTaking>& takings) {
    const double top = level(level::kTop).front, bust = level(level::kBust).front;
    const double corner = std::tan(block_.dart.angle / 2), share = 1 - rules_.share("intake.centre_share");
    const auto below = levelsBelow(block_.levels, takings, true, !byThumb(), [](double) { return 0.0; });
    std::vector<double> topTakings(at.size(), 0);
    topTakings[0] = takings[0].top;
    const auto atTop =
        furtherEdges(at, topTakings, share, level(level::kTop).frontShare + takings[0].top, spacedEvenly(at));
    for (size_t i = 1; i < at.size(); ++i) {
      const Vec2 start = onLowerLeg(at[i]);
      std::vector<Station> above{{top, atTop[i - 1].toCentre}, {bust, at[i], corner, true}};
      extend(above, topY(), bust);
      std::vector<EdgePair> edges;
      for (const LevelBelow& b : below)
        edges.push_back(furtherEdges(at, b.takings, share, b.side, spacedEvenly(at))[i - 1]);
      auto [centre, outer] = sweptEdges({{start.y, start.x, -corner, true}}, {{start.y, 0, 0, true}}, below, edges,
                                        start.y, bottomFront());
      const Path upper = monotonePath(above);
      block_.front.lines.push_back(
          {lineId(true, i), lineName(true, i), at[i], upper, upper, std::move(centre), std::move(outer)});
    }
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
    const double bust = level(level::kBust).back;
    const double width = level(level::kBust).backShare + centreIntake(bust);
    const std::vector<double> at = positions(lineCount("lines.back"), width, level(level::kWaist).backShare);
    const std::vector<LineTaking> takings =
        byThumb() ? backByThumb(at.size(), centreIntake) : sharedOut(b, at.size(), width, centreIntake);
    const Path gap = backGap(takings[0]);
    b.lines.push_back(
        {lineId(false, 0), lineName(false, 0), at[0], edgeOfGap(gap, at[0], -0.5), edgeOfGap(gap, at[0], 0.5), {}, {}});
    drawFurtherBack(at, takings, centreIntake);
    for (const Level& l : block_.levels.all)
      if (!l.readOff) addLevel(b, l, l.back, l.backShare, centreIntake(l.back));
    b.side = sidePath(b, topY(), bottomBack());
    for (std::string_view id : {level::kChest, level::kHem}) readOff(b, level(id), level(id).back, b.side);
  }

  // Back lines beyond the first: from the line's start, where nothing is taken in yet.
  void drawFurtherBack(const std::vector<double>& at, const std::vector<LineTaking>& takings,
                       const std::function<double(double)>& centreIntake) {
    const auto below = levelsBelow(block_.levels, takings, false, !byThumb(), centreIntake);
    const double bust = level(level::kBust).back, start = std::min(backStart(), bust);
    const std::vector<double> nothing(at.size(), 0);
    const double top = level(level::kTop).back;
    const auto upper =
        furtherEdges(at, nothing, 0.5, level(level::kBust).backShare + centreIntake(bust), spacedEvenly(at));
    const auto atTop =
        furtherEdges(at, nothing, 0.5, level(level::kTop).backShare + centreIntake(top), spacedEvenly(at));
    for (size_t i = 1; i < at.size(); ++i) {
      std::vector<Station> middle{{start, upper[i - 1].toCentre}}, gap{{start, 0, 0, true}};
      if (top < start - kLeastApart) {
        middle.insert(middle.begin(), {top, atTop[i - 1].toCentre});
        gap.insert(gap.begin(), {top, 0, 0, true});
      }
      std::vector<EdgePair> edges;
      for (const LevelBelow& b : below)
        edges.push_back(furtherEdges(at, b.takings, 0.5, b.side, spacedEvenly(at))[i - 1]);
      auto [centre, outer] = sweptEdges(std::move(middle), std::move(gap), below, edges, topY(), bottomBack());
      block_.back.lines.push_back(
          {lineId(false, i), lineName(false, i), at[i], std::move(centre), std::move(outer), {}, {}});
    }
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

  double backStart() const {
    return std::min(level(level::kChest).back + rules_.length("back.start"), level(level::kUnderbust).back - 15);
  }

  // The first back line by its rules, on the underbust line what is left over there; every further one by its own.
  template <typename CentreIntake>
  std::vector<LineTaking> backByThumb(size_t count, const CentreIntake& centreIntake) {
    const double waist = level(level::kWaist).back, bust = level(level::kBust).back,
                 under = level(level::kUnderbust).back;
    std::vector<LineTaking> takings(count);
    double furtherWaist = 0, furtherUnder = 0;
    for (size_t i = 1; i < count; ++i) {
      takings[i].waist = rules_.length("intake.further");
      takings[i].under = takings[i].waist * (under - backStart()) / (waist - backStart());
      furtherWaist += takings[i].waist;
      furtherUnder += takings[i].under;
    }
    takings[0].waist = rules_.length("back.intake_waist");
    const double waistSide = level(level::kWaist).backShare + takings[0].waist + furtherWaist + centreIntake(waist);
    const double width =
        straightSide(bust, level(level::kBust).backShare + centreIntake(bust), waist, waistSide, under);
    takings[0].under =
        underbustIntake("back", width, level(level::kUnderbust).backShare, centreIntake(under), furtherUnder);
    return takings;
  }

  // A back line's gap: nothing above its start, most at the waist; by rules of thumb it ends above the hem.
  Path backGap(const LineTaking& taking) const {
    const double waist = level(level::kWaist).back, hem = level(level::kHem).back;
    std::vector<Station> s{{backStart(), 0, 0, true}};
    if (byThumb()) {
      const double end = std::max(hem - rules_.length("back.end"), waist + 0.5 * (hem - waist));
      s.push_back({level(level::kUnderbust).back, taking.under});
      s.push_back({waist, taking.waist});
      s.push_back({end, 0, 0, true});
    } else {
      addBelow(s, 0, 1, taking, &Level::back);
    }
    extend(s, topY(), bottomBack());
    return monotonePath(s);
  }

  void addLevel(HalfBlock& half, const Level& l, double y, double share, double centreIntake) {
    HalfLevel h{l.id, y, share, centreIntake, intakesAt(half, y), 0};
    Working w{fmt::format("{}.{}.side", half.id, l.id),
              fmt::format("{}, {}: the side stands at", half.id == "front" ? "Front" : "Back", lowered(l.name)),
              {},
              0,
              ""};
    w.terms.push_back({'+', shareLabel(l, share), share, Source::Computed});
    if (std::abs(centreIntake) > 1e-9)
      w.terms.push_back({'+', "centre back taken in", centreIntake, rules_.value("centre_back.waist").source});
    for (size_t i = 0; i < half.lines.size(); ++i)
      if (std::abs(h.intakes[i]) > 1e-9) w.terms.push_back({'+', half.lines[i].name, h.intakes[i], Source::Computed});
    for (const Term& t : w.terms) w.result += t.mm;
    w.note = fmt::format("from centre {}: finished share + every intake taken out of this half, given back at the side",
                         half.id);
    h.side = w.result;
    half.levels.push_back(h);
    block_.workings.push_back(std::move(w));
  }

  static std::vector<double> intakesAt(const HalfBlock& half, double y) {
    std::vector<double> all;
    for (const PanelLine& line : half.lines) all.push_back(line.intakeAtDepth(y));
    return all;
  }

  // A level whose girth the draft gives: the smooth side line is read there, and the share is what the pieces leave.
  void readOff(HalfBlock& half, const Level& l, double y, const Path& sideLine) {
    const bool front = half.id == "front";
    HalfLevel h{l.id,
                y,
                0,
                front ? 0 : half.centre.xAtDepth(y) - block_.openingGap / 2,
                intakesAt(half, y),
                sideLine.xAtDepth(y)};
    h.share = h.side - h.lineIntake() - h.centreIntake;
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
        double from = half->centre.xAtDepth(l.y);
        for (size_t i = 0; i <= half->lines.size(); ++i) {
          const bool last = i == half->lines.size();
          const double width = (last ? l.side : half->lines[i].toCentreX(l.y)) - from;
          if (!last) from = half->lines[i].toSideX(l.y);
          if (width >= kLeastWidth) continue;
          const std::string panel = i == 0 ? "centre" : last ? "side" : std::to_string(i + 1);
          return Problem{fmt::format("{} {}, {}", panel, half->id, l.level),
                         fmt::format("the panel is only {:.0f} mm wide there", width),
                         "take less into this half, use fewer lines, check the bust span, or measure again"};
        }
      }
    }
    return std::nullopt;
  }

  void recordIntakes() {
    for (const HalfBlock* half : {&block_.front, &block_.back})
      for (size_t i = 0; i < half->lines.size(); ++i) {
        const bool isPrincess = half == &block_.front && i == 0;
        const double cap = rules_.length(isPrincess ? "cap.princess" : "cap.other");
        std::string name = half->lines[i].name;
        name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
        for (const HalfLevel& l : half->levels)
          if (!level(l.level).beyondHem)
            block_.intakes.push_back({half->id, half->lines[i].id, l.level, l.intakes[i], cap, name, ""});
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
