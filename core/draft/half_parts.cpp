#include "draft/half_parts.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "draft/line_paths.h"
#include "draft/upper_block.h"
#include "geometry/spline.h"
#include "measure/measure_table.h"
#include "parts/edges/rules.h"
#include "parts/opening/rules.h"
#include "rules/draft_rules.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kAbove = 60, kBelow = 25;  // mm: lines are drawn this far past top edge and hem, to be cut
constexpr double kRunsOutAbove = 25;        // mm above the hem, or the hip of a skirt: what is not cut to the hem
constexpr double kLeastBesideSide = 40;     // mm between the last line and the side
constexpr double kLeastBesideGap = 30;      // mm between a lacing gap and the first back line

Message shareLabel(const Level& l, double share) {
  const double quarter = l.finishedGirth / 4;
  const double more = (share - quarter) / kMmPerInch;
  if (std::abs(more) < 0.005) return "finished quarter";
  return msg("finished quarter {:+.3g} in", more);
}

}  // namespace

double HalfParts::topY() const { return goesUp(rules_, front_) ? -kAbove : depth(level::kTop) - kAbove; }
double HalfParts::bottomY() const {
  const double point = rules_.option(key::kHemShape) == HemShape::Dipped ? rules_.length(key::kHemDip) : 0;
  return std::max(depth(level::kHem) + point, depth(level::kHip)) + kBelow;
}

void HalfParts::drawCentre() {
  const bool dips = front_ && rules_.option(key::kTopShape) == TopShape::Sweetheart;
  const double top = front_ ? level(level::kTop).front + (dips ? rules_.length(key::kTopDip) : 0)
                            : level(level::kChest).back + rules_.length(key::kBackSlope);
  HalfBlock& h = half();
  h.opening = openingOf(rules_, front_, top, depth(level::kHem), endOfOpening());
  if (!goesBelowWaist(rules_)) {  // as wide at the waist as was asked for the hem: straight on below
    Opening& o = h.opening;
    const double further = (depth(level::kHem) - top) / (depth(level::kWaist) - top);
    o.hemGap = std::max(0.0, o.topGap + further * (o.hemGap - o.topGap));
  }
  const double above = topY(), below = bottomY();
  const double taken =
      h.opening.isShaped() ? rules_.length(front_ ? key::kCentreFrontWaist : key::kCentreBackWaist) : 0;
  if (taken == 0) {
    h.centre = edgeOfGap(above, below);
    return;
  }
  std::vector<Station> c{
      {depth(level::kChest), 0, 0, true}, {depth(level::kWaist), taken}, {depth(level::kHem), 0, 0, true}};
  extend(c, above, below);
  h.centre = monotonePath(c);
}

// Where the opening ends by rule: a depth beyond the hem where it runs through.
double HalfParts::endOfOpening() const {
  const auto end = rules_.option(key::kOpeningEnd);
  if (end == OpeningEnd::Waist) return depth(level::kWaist);
  if (end == OpeningEnd::HighHip) return depth(level::kHighHip);
  if (end == OpeningEnd::Hip || (end == OpeningEnd::ByLength && hasSkirt(rules_))) return depth(level::kHip);
  return 1e6;
}

// Half the gap out from the centre; straight but where it narrows towards an end.
Path HalfParts::edgeOfGap(double above, double below) const {
  const Opening& o = half().opening;
  const auto at = [&](double y) { return Vec2{o.gapAt(y) / 2, y}; };
  const bool narrows = o.isLaced() && (o.startsBelow(above) || o.endsAbove(below));
  if (!narrows) return Path::line(at(above), at(below));
  constexpr int kParts = 4;  // of each stretch over which it narrows
  constexpr double kStep = 0.01;
  std::vector<double> depths{above, below};
  for (int i = 0; i <= kParts; ++i) {
    const double part = o.narrowing() * i / kParts;
    if (o.startsBelow(above)) depths.push_back(o.startY + part);
    if (o.endsAbove(below)) depths.push_back(o.endY - part);
  }
  std::sort(depths.begin(), depths.end());
  std::vector<Station> stations;
  for (double y : depths)
    if (y >= above && y <= below && (stations.empty() || y > stations.back().y + 1))
      stations.push_back({y, at(y).x, (at(y + kStep).x - at(y - kStep).x) / (2 * kStep), true});
  return monotonePath(stations);
}

double HalfParts::centreIntake(double y) const { return half().centre.xAtDepth(y) - half().opening.gapAt(y) / 2; }

size_t HalfParts::lineCount() const { return block_.plan.bodice(front_).lines.size(); }

std::vector<double> HalfParts::positions(double width) const {
  const auto count = static_cast<double>(lineCount());
  // A back line keeps clear of a gap; the princess line cannot, it goes through the bust point.
  const Opening& o = half().opening;
  const double gap = std::max(o.topGap, o.hemGap) / 2;
  double first = body_.mm(id::kBustSpan) / 2;
  if (!front_) {
    // Many lines on a narrow back divide it evenly from the centre on.
    if (lineCount() > 1) first = std::min(first, gap + (width - gap) / (count + 1));
    first = std::max(first, gap > 0 ? gap + kLeastBesideGap : 0);
  }
  const double even = (width - first) / count;
  // About where the side stands at the waist.
  const double drop = width - share(level::kWaist);
  const double atWaist = sharesOut(rules_) ? width - drop / (count + 1)
                                           : share(level::kWaist) + count * rules_.length(key::kIntakeFurther);
  const bool fits = first * count < std::min(width, atWaist) - kLeastBesideSide;
  const double step = rules_.option(key::kLinesSpacing) == LineSpacing::HalfSpan && fits ? first : even;
  std::vector<double> x;
  for (size_t i = 0; i < lineCount(); ++i) x.push_back(first + step * static_cast<double>(i));
  return x;
}

bool HalfParts::spacedEvenly(const std::vector<double>& at) const {
  return rules_.option(key::kLinesSpacing) == LineSpacing::Even || at.size() < 2 || std::abs(at[1] - 2 * at[0]) > 1e-9;
}

double HalfParts::firstBelow(const ShapedLevel& l, double position, double part) const {
  if (rules_.option(key::kLinesBelow) == FirstLineBelow::Upright) return position;
  const double bust = depth(level::kBust);
  const auto open = [&](double y) { return half().opening.gapAt(y) / 2; };
  const double panel = position - half().centre.xAtDepth(bust);
  const double ratio = (shareBelow(block_.levels, front_, l.id) - open(l.y)) / (share(level::kBust) - open(bust));
  return half().centre.xAtDepth(l.y) + panel * ratio + part * l.taken[0];
}

HalfParts::FurtherLine HalfParts::furtherLine(size_t i, const std::vector<double>& at,
                                              const std::vector<LevelBelow>& below) const {
  FurtherLine line;
  double shift = 0;
  for (const LevelBelow& b : below) {
    const double first = half().lines.front().toSideX(b.y);
    EdgePair pair = furtherEdges(at, b.takings, first, b.side, spacedEvenly(at))[i - 1];
    const auto guide = rules_.guide(b.id, lineId(front_, i));
    if (guide) shift = *guide - (pair.toCentre + pair.toSide) / 2;
    const double off = shift + aside(b.id, i, b.takings[i]);
    line.edges.push_back({pair.toCentre + off, pair.toSide + off});
    line.placed.push_back(guide || rules_.shareAt(b.id, lineId(front_, i)));
    if (b.id != level::kHem)
      line.guides.push_back({b.id, (pair.toCentre + pair.toSide) / 2 + shift, guide.has_value()});
  }
  return line;
}

double HalfParts::aside(std::string_view level, size_t line, double taken) const {
  const auto share = rules_.shareAt(level, lineId(front_, line));
  return share ? (0.5 - *share) * taken : 0;
}

double HalfParts::topOf(size_t i, double byRule) const {
  return rules_.guide(level::kTop, lineId(front_, i)).value_or(byRule);
}

void HalfParts::shape(ShapingFrame frame) {
  for (const PlannedLine& line : block_.plan.bodice(front_).lines) frame.absent.push_back(line.kind == LineKind::None);
  frame.runsOutBelow = block_.plan.runsOutBelow(front_);
  frame.straightPast = level(level::kUnderbust).follows;
  shaping_ = shapeHalf(block_.levels, rules_, frame);
  if (frame.straightPast) {
    const ShapedLevel& s = shaping_.at(level::kUnderbust);
    Level& under = block_.levels.at(level::kUnderbust);
    (front_ ? under.frontShare : under.backShare) =
        frame.width - s.side - frame.centreIntake(s.y) - std::accumulate(s.taken.begin(), s.taken.end(), 0.0);
  }
  runOut(frame.runsOutBelow);
  block_.workings.insert(block_.workings.end(), shaping_.workings.begin(), shaping_.workings.end());
  block_.intakes.insert(block_.intakes.end(), shaping_.atSide.begin(), shaping_.atSide.end());
}

void HalfParts::passStraight(Vec2 from) {
  Level& under = block_.levels.at(level::kUnderbust);
  if (!under.follows) return;
  const auto taken = [&](double y) {
    const std::vector<double> all = intakesAt(y);
    return std::accumulate(all.begin(), all.end(), centreIntake(y));
  };
  const double y = depth(level::kUnderbust), waist = depth(level::kWaist);
  const double to = share(level::kWaist) + taken(waist);
  const double side = from.x + (to - from.x) * (y - from.y) / (waist - from.y);
  (front_ ? under.frontShare : under.backShare) = side - taken(y);
}

// Lines that are not cut to the hem run out above it, so that the piece is whole there.
void HalfParts::runOut(bool aboveSkirtHem) {
  const bool darts = block_.plan.bodice(front_).lines.front().kind == LineKind::Dart;
  if (!aboveSkirtHem && !(darts && goesBelowWaist(rules_))) return;
  const double waist = shaping_.at(level::kWaist).y;
  ShapedLevel& hem = shaping_.levels.back();
  const double above = aboveSkirtHem ? kRunsOutAbove : rules_.length(key::kBackEnd);
  for (double held : hem.taken)
    if (held > 0) return;  // the maker holds it there
  const double last = std::max(shaping_.levels[shaping_.levels.size() - 2].y + kLeastApart, (waist + hem.y) / 2);
  hem.y = std::max(hem.y - above, last);
}

std::vector<double> HalfParts::intakesAt(double y) const {
  std::vector<double> all;
  for (const PanelLine& line : half().lines) all.push_back(line.intakeAtDepth(y));
  return all;
}

void HalfParts::addLevel(const Level& l) {
  HalfBlock& h = half();
  const double y = depth(l.id), taken = centreIntake(y);
  HalfLevel out{l.id, y, share(l.id), taken, intakesAt(y), 0};
  Working w{fmt::format("{}.{}.side", h.id, l.id),
            front_ ? msg("Front, {}: the side stands at", l.name) : msg("Back, {}: the side stands at", l.name),
            {},
            0,
            ""};
  w.terms.push_back({'+', l.follows ? Message("share, read off the straight side") : shareLabel(l, out.share),
                     out.share, Source::Computed});
  if (std::abs(taken) > 1e-9)
    w.terms.push_back({'+', front_ ? "centre front taken in" : "centre back taken in", taken,
                       rules_.value(front_ ? key::kCentreFrontWaist : key::kCentreBackWaist).source});
  for (size_t i = 0; i < h.lines.size(); ++i) {
    const bool byHand = rules_.held(l.id, h.lines[i].id).has_value();
    if (std::abs(out.intakes[i]) > 1e-9 || byHand)
      w.terms.push_back({'+', h.lines[i].name, out.intakes[i], byHand ? Source::ByHand : Source::Computed});
  }
  for (const Term& t : w.terms) w.result += t.mm;
  w.note = front_ ? "from centre front: finished share + every intake taken out of this half, given back at the side"
                  : "from centre back: finished share + every intake taken out of this half, given back at the side";
  out.side = w.result;
  if (const ShapedLevel* shaped = shaping_.find(l.id)) {
    out.wished = shaped->wished;
    out.sideTaken = shaped->side;
    out.sideWished = shaped->sideWished;
  }
  h.levels.push_back(std::move(out));
  block_.workings.push_back(std::move(w));
}

void HalfParts::readOff(std::string_view id, const Path& sideLine) {
  HalfBlock& h = half();
  Level& l = block_.levels.at(id);
  const double y = depth(id);
  HalfLevel out{l.id, y, 0, centreIntake(y), intakesAt(y), sideLine.xAtDepth(y)};
  out.share = out.side - out.lineIntake() - out.centreIntake;
  (front_ ? l.frontShare : l.backShare) = out.share;
  block_.workings.push_back(
      {fmt::format("{}.{}.side", h.id, l.id),
       front_ ? msg("Front, {}: the side stands at", l.name) : msg("Back, {}: the side stands at", l.name),
       {{'+', "read off the smooth side line", out.side, Source::Computed}},
       out.side,
       "no girth is prescribed here; the line runs on between measured levels"});
  const auto below =
      std::find_if(h.levels.begin(), h.levels.end(), [&](const HalfLevel& other) { return other.y > y; });
  h.levels.insert(below, std::move(out));
}

}  // namespace armure
