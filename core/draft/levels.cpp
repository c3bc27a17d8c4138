#include "draft/levels.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <utility>

#include "draft/own_level.h"
#include "draft/upper_block.h"
#include "measure/measure_table.h"
#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/skirt/rules.h"
#include "rules/draft_rules.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kChestAboveBust = inches(0.5);  // the chest line lies no lower; common practice, no source
constexpr double kLeastBelowChest = 12;          // mm: measured, it may lie a little lower than that
constexpr double kBelowHip = 25;                 // mm: where a skirt runs on
constexpr double kDrawnBelowWaist = 114.3;       // mm: what ends at the waist is drawn further and cut there
// What is below a garment that ends at the waist bends none of its lines by what was not measured: mean girths over the
// mean waist of the bodies in data/bodies (69.0, 83.2, 95.4 cm); heights common practice, no source.
constexpr double kHighHipOfWaist = 1.206, kHipOfWaist = 1.383, kToHighHip = 100, kToHip = 200;
constexpr double kLeastAboveBack = 40;  // mm from the shoulder line to the back's top edge

Term measureTerm(const Body& body, std::string_view measure, char sign = '+', double factor = 1) {
  const Fact& f = body.fact(measure);
  const Message name = known(findMeasure(measure)->name);
  Message label = factor == 1 ? name : msg("{} x {:.4g}", name, factor);
  return {sign, std::move(label), f.mm * factor, f.source};
}

double sum(const std::vector<Term>& terms) {
  double total = 0;
  for (const Term& t : terms) total += t.sign == '-' ? -t.mm : t.mm;
  return total;
}

Working worked(std::string key, Message title, std::vector<Term> terms, Message note) {
  const double result = sum(terms);
  return {std::move(key), std::move(title), std::move(terms), result, std::move(note)};
}

Working chestByRule(const Body& body, const Rules& rules) {
  const std::string key = "height.chest";
  const Message title = "Chest line stands at";
  const auto school = rules.option(key::kChestSchool);
  if (school == ChestSchool::BustSixth)
    return worked(key, title,
                  {rules.term(key::kShoulderSlopeFront), measureTerm(body, id::kBust, '+', 1.0 / 6),
                   rules.term(key::kChestAddition)},
                  "shoulder slope + a sixth of the bust + a fixed amount; common practice");
  if (school == ChestSchool::ArmholeHalf && body.has(id::kArmhole))
    return worked(key, title, {measureTerm(body, id::kArmhole, '+', 0.5)},
                  "half the round armhole, down from the shoulder line; common practice");
  if (school == ChestSchool::ArmholeSloped && body.has(id::kArmhole))
    return worked(key, title, {rules.term(key::kShoulderSlopeFront), measureTerm(body, id::kArmhole, '+', 0.5)},
                  "shoulder slope + half the round armhole; common practice");
  return worked(key, title, {measureTerm(body, id::kShoulderToBust), rules.term(key::kChestAboveBust, '-')},
                "bust point height less a fixed amount; common practice");
}

// A rule of thumb knows nothing of where the bust point is; the line stays above it.
Working chestHeight(const Body& body, const Rules& rules) {
  if (body.has(id::kShoulderToChest))
    return worked("height.chest", "Chest line stands at", {measureTerm(body, id::kShoulderToChest)},
                  "measured on the client");
  Working w = chestByRule(body, rules);
  const double lowest = body.mm(id::kShoulderToBust) - kChestAboveBust;
  if (w.result <= lowest) return w;
  w.terms.push_back({'-', "kept half an inch above the bust point", w.result - lowest, Source::Computed});
  w.result = lowest;
  return w;
}

// How much longer the front is than the back, from the shoulder line to the waist.
double frontSurplus(const Body& body) { return body.mm(id::kShoulderToWaist) - body.mm(id::kBackWaistLength); }

// Where the side was not measured its estimate may ask for a dart the body cannot have: it is no wider than all of the
// front's surplus, and no less than a part of it.
Working estimatedDart(Working w, double surplus) {
  constexpr double kLeastPart = 0.25;
  const double low = std::max(0.0, kLeastPart * surplus), high = std::max(0.0, surplus);
  const double kept = std::clamp(w.result, low, high);
  if (kept == w.result) return w;
  w.terms.push_back({kept > w.result ? '+' : '-', "the side is estimated: kept within the front's surplus",
                     std::abs(kept - w.result), Source::Rule});
  w.result = kept;
  return w;
}

Working sideDart(const Body& body, const Rules& rules, const Working& chest) {
  const std::string key = "dart.side";
  const Message title = "Side bust dart, wide at the side";
  if (!rules.isDefault(key::kDartSide)) return worked(key, title, {rules.term(key::kDartSide)}, "set by the maker");
  if (rules.option(key::kSideSchool) == SideSchool::AsInFront)
    return worked(key, title, {measureTerm(body, id::kShoulderToWaist), measureTerm(body, id::kBackWaistLength, '-')},
                  "front waist length less back waist length; common practice");
  const Fact& side = body.fact(id::kSideLength);
  Working w = worked(key, title,
                     {measureTerm(body, id::kShoulderToWaist),
                      {'-', "chest line", chest.result, Source::Computed},
                      measureTerm(body, id::kSideLength, '-')},
                     "front chest line to waist less the length of the side; common practice");
  return side.source == Source::Estimated ? estimatedDart(std::move(w), frontSurplus(body)) : w;
}

// Where the back's chest line stands, so that its side is as long as the front's once the dart is closed.
Working backChest(const Body& body, const Working& chest, double dart, double rise) {
  return worked(
      "height.chest_back", "Chest line of the back stands at",
      {{'+', "chest line of the front", chest.result, Source::Computed},
       {'-', "front waist length less back waist length", rise + dart, body.fact(id::kBackWaistLength).source},
       {'+', "side bust dart", dart, Source::Computed}},
      "back waist length less the length of the side; common practice");
}

struct Heights {
  double top, chest, bust, underbust, waist, highHip, hip, hem;
};

double topDepth(const Body& body, const Rules& rules, const Heights& h) {
  switch (rules.option(key::kTopFrom)) {
    case TopFrom::Chest:
      break;
    case TopFrom::Bust:
      return h.bust - rules.length(key::kTopAboveBust);
    case TopFrom::Mirrored:
      return h.bust - (h.underbust - h.bust);
    case TopFrom::Cup:
      return h.bust - body.mm(id::kCupUp);
    case TopFrom::Shoulder:
      return rules.length(key::kTopBelowShoulder);
  }
  return h.chest - rules.length(key::kTopAboveChest);
}

// Where the garment ends, if its hem, drawn that far down, is at `hem`.
double endOf(const Rules& rules, double waist, double hem) {
  const double above = rules.option(key::kHemAt) == HemAt::Above ? rules.length(key::kHemAboveWaist) : 0;
  return goesBelowWaist(rules) ? hem : waist - above;
}

// Where the princess line ends above, and what rises beside it.
std::optional<Problem> endOfLineProblem(const Body& body, const Rules& rules, const Heights& h) {
  const bool aimed = rules.option(key::kPrincessAbove) == LineEnd::Armhole && !rules.isDefault(key::kPrincessArmhole);
  if (goesUp(rules, true) || aimed)
    if (const auto end = endOfFirstLine(body, rules, true, h.chest); end && h.top - end->y < kLeastBetweenLevels)
      return Problem{
          "Top edge",
          msg("at {} it is not clearly below the end of the princess line at {}", Length{h.top}, Length{end->y}),
          "let it stand lower (top.from), or let the line end higher (princess.armhole) or on the shoulder "
          "(princess.above)"};
  if (rules.option(key::kCoverKind) == CoverKind::Covered && rules.option(key::kNeckShape) == NeckShape::Edge &&
      rules.option(key::kPrincessAbove) == LineEnd::Armhole)
    return Problem{"Neckline", "along the upper edge it would rise across a princess line that ends in the armhole",
                   "let the line end on the shoulder (princess.above), or choose another neckline (neck.shape)"};
  return std::nullopt;
}

Result<Heights> findHeights(const Body& body, const Rules& rules, const Working& chest, double dart) {
  Heights h{};
  h.chest = chest.result;
  h.bust = body.mm(id::kShoulderToBust);
  h.underbust = body.mm(id::kShoulderToUnderbust);
  h.top = topDepth(body, rules, h);
  h.waist = body.mm(id::kShoulderToWaist);
  const bool below = goesBelowWaist(rules);
  h.highHip = h.waist + (below ? body.mm(id::kWaistToHighHip) : kToHighHip);
  h.hip = h.waist + (below ? body.mm(id::kWaistToHip) : kToHip);
  h.hem = hasSkirt(rules) ? h.hip + kBelowHip
          : below         ? h.waist + rules.length(key::kHemLength)
                          : h.waist + kDrawnBelowWaist;
  const auto tooClose = [&](const char* upper, double yu, const char* lower, double yl,
                            double least = kLeastBetweenLevels) {
    return Problem{
        lower, msg("the {} line at {} is not clearly below the {} line at {}", lower, Length{yl}, upper, Length{yu}),
        msg("at least {:.0f} mm are needed; measure both heights again", least)};
  };
  if (h.bust - h.chest < kLeastBelowChest) return tooClose("chest", h.chest, "bust", h.bust, kLeastBelowChest);
  if (h.bust - h.top < kLeastBetweenLevels) return tooClose("top edge", h.top, "bust", h.bust);
  if (h.underbust - h.bust < kLeastBetweenLevels) return tooClose("bust", h.bust, "underbust", h.underbust);
  if (h.waist - h.underbust < kLeastBetweenLevels) return tooClose("underbust", h.underbust, "waist", h.waist);
  if (h.hip - h.highHip < kLeastBetweenLevels) return tooClose("high hip", h.highHip, "hip", h.hip);
  if (h.top < kLeastBetweenLevels) return tooClose("shoulder", 0, "top edge", h.top);
  if (const double end = endOf(rules, h.waist, h.hem); end - h.underbust < kLeastBetweenLevels)
    return tooClose("underbust", h.underbust, "lower edge", end);
  if (auto problem = endOfLineProblem(body, rules, h)) return *problem;
  const double surplus = frontSurplus(body);
  const bool byHand = !rules.isDefault(key::kDartSide);
  if (surplus < 0 && !byHand)
    return Problem{
        verbatim(id::kBackWaistLength), msg("the back waist length is {} more than the front one", Length{-surplus}),
        "the front is the longer one by the side bust dart; measure both again, or set the side bust dart by hand"};
  if (dart < 0)
    return Problem{
        verbatim(id::kSideLength),
        msg("the side is {} longer than the front from its chest line to the waist", Length{-dart}),
        "the front is the longer one by the side bust dart; measure the side and the chest line again, or let "
        "the back stand as in front (side.school)"};
  if (const double above = h.top - std::max(0.0, surplus - dart); above < kLeastAboveBack)
    return Problem{verbatim(id::kSideLength), msg("the side leaves only {} above the back's top edge", Length{above}),
                   "measure the side and the back waist length again, or let the back stand as in front (side.school)"};
  if (const double most = mostSideDart(body); dart > most)
    return Problem{
        "dart.side",
        msg("a side bust dart of {} does not fit between bust and underbust, {} apart", Length{dart},
            Length{h.underbust - h.bust}),
        msg("at most {}; measure the side, front and back waist length again, or set the dart by hand", Length{most})};
  return h;
}

// Divides half of each finished girth between front and back.
class Sharer {
 public:
  Sharer(const Body& body, const Rules& rules) : body_(body), rules_(rules), rule_(rules.option(key::kShareRule)) {}

  void divide(Level& l) const {
    const double half = l.finishedGirth / 2, quarter = l.finishedGirth / 4;
    double back = quarter;
    if (rule_ == ShareRule::FrontPlus) back = quarter - rules_.length(key::kShareFrontPlus);
    if (rule_ == ShareRule::FrontArcs) back = half - frontArc(l).value_or(quarter * 2) / 2;
    if (rule_ == ShareRule::BreastInFront && isOnBreast(l))
      back = rules_.option(key::kChestQuarter) == ChestQuarter::Bust
                 ? body_.mm(id::kUpperBust) / 4
                 : (body_.mm(id::kUpperBust) - rules_.length(key::kHoldTop)) / 4;
    l.backShare = back;
    l.frontShare = half - back;
  }

 private:
  static bool isOnBreast(const Level& l) { return l.id == level::kTop || l.id == level::kBust; }
  std::optional<double> frontArc(const Level& l) const {
    const std::string_view arc = l.id == level::kUnderbust ? id::kFrontUnderbustArc
                                 : l.id == level::kBust    ? id::kFrontBustArc
                                                           : "";
    return !arc.empty() && body_.has(arc) ? std::optional(body_.mm(arc)) : std::nullopt;
  }
  const Body& body_;
  const Rules& rules_;
  ShareRule rule_;
};

bool taken(const Body& body, std::initializer_list<std::string_view> measures) {
  return std::none_of(measures.begin(), measures.end(),
                      [&](std::string_view m) { return body.fact(m).source == Source::Estimated; });
}

}  // namespace

const Level& Levels::at(std::string_view id) const {
  for (const Level& l : all)
    if (l.id == id) return l;
  throw std::out_of_range(fmt::format("Levels: no level {}", id));
}

Level& Levels::at(std::string_view id) { return const_cast<Level&>(std::as_const(*this).at(id)); }

double mostSideDart(const Body& body) {
  constexpr double kReach = 0.7;  // of the way from bust to underbust
  return kReach * (body.mm(id::kShoulderToUnderbust) - body.mm(id::kShoulderToBust));
}

bool hasSkirt(const Rules& rules) {
  const auto kind = rules.option(key::kSkirtKind);
  if (!goesBelowWaist(rules)) return false;
  return kind == SkirtKind::Straight || kind == SkirtKind::Peg || kind == SkirtKind::Gored;
}

bool goesBelowWaist(const Rules& rules) { return rules.option(key::kHemAt) == HemAt::Below; }

Result<Levels> layOutLevels(const Body& body, const Rules& rules) {
  Levels out;
  const Working chest = chestHeight(body, rules);
  const Working dart = sideDart(body, rules, chest);
  out.sideDart = dart.result;
  out.sideFoot = rules.share(key::kDialFoot) * dart.result;
  out.backRise = frontSurplus(body) - out.sideDart;
  const Result<Heights> heights = findHeights(body, rules, chest, dart.result);
  if (!heights.ok()) return heights.problem();
  const Heights h = heights.value();

  const auto girth = [&](std::string_view key, const Message& name, std::vector<Term> terms, Message note) {
    out.workings.push_back(
        worked(fmt::format("girth.{}", key), msg("{}, finished girth", name), std::move(terms), std::move(note)));
    return out.workings.back().result;
  };
  const auto add = [&](std::string_view key, Message name, double y, double bodyGirth, double finished, bool girthTaken,
                       bool heightTaken) {
    const double back = y - out.backRise - (y > h.bust ? out.sideDart : 0);
    out.all.push_back({std::string(key), std::move(name), y, back, bodyGirth, finished, 0, 0, girthTaken, heightTaken});
  };

  const bool byBust = rules.option(key::kChestQuarter) == ChestQuarter::Bust;
  const double top =
      byBust ? girth(level::kTop, "Top edge", {measureTerm(body, id::kBust), rules.term(key::kEaseBust)},
                     "a quarter bust on the chest line too; common practice")
             : girth(level::kTop, "Top edge", {measureTerm(body, id::kUpperBust), rules.term(key::kHoldTop, '-')},
                     "closes to a little less than the upper bust, so that it holds");
  const double bust =
      girth(level::kBust, "Bust", {measureTerm(body, id::kBust), rules.term(key::kEaseBust)}, "body + ease");
  const double under =
      girth(level::kUnderbust, "Underbust",
            {measureTerm(body, id::kUnderbust), rules.term(key::kReductionUnderbust, '-')}, "body - reduction");
  const bool byQuarter = rules.option(key::kDistributionSchool) == DistributionSchool::QuarterMinus;
  const double waist =
      girth(level::kWaist, "Waist",
            {measureTerm(body, id::kWaist),
             byQuarter ? rules.term(key::kReductionQuarter, '-', 4) : rules.term(key::kReductionWaist, '-')},
            byQuarter ? "natural waist - the same off each of four quarters" : "natural waist - reduction");
  const auto belowWaist = [&](std::string_view key, const Message& name, std::string_view measure, Term spring,
                              double ofWaist) {
    if (goesBelowWaist(rules))
      return girth(key, name, {measureTerm(body, measure), std::move(spring)}, "body + spring");
    return girth(key, name, {measureTerm(body, id::kWaist, '+', ofWaist)},
                 "below the garment: its lines run on towards it");
  };
  const double highHip =
      belowWaist(level::kHighHip, "High hip", id::kHighHip, rules.term(key::kSpringHighHip), kHighHipOfWaist);
  const double hip = belowWaist(level::kHip, "Hip", id::kHip, rules.term(key::kSpringHip), kHipOfWaist);

  const bool upper = taken(body, {id::kUpperBust}),
             heightsTaken = taken(body, {id::kShoulderToBust, id::kShoulderToUnderbust, id::kShoulderToWaist});
  add(level::kTop, "Top edge", h.top, body.mm(id::kUpperBust), top, upper, heightsTaken);
  add(level::kChest, "Chest", h.chest, body.mm(id::kUpperBust), 0, upper, heightsTaken);
  add(level::kBust, "Bust", h.bust, body.mm(id::kBust), bust, true, taken(body, {id::kShoulderToBust}));
  add(level::kUnderbust, "Underbust", h.underbust, body.mm(id::kUnderbust), under, taken(body, {id::kUnderbust}),
      taken(body, {id::kShoulderToUnderbust}));
  add(level::kWaist, "Waist", h.waist, body.mm(id::kWaist), waist, true, taken(body, {id::kShoulderToWaist}));
  const bool highHipGirth = taken(body, {id::kHighHip}), highHipHeight = taken(body, {id::kWaistToHighHip});
  add(level::kHighHip, "High hip", h.highHip, body.mm(id::kHighHip), highHip, highHipGirth, highHipHeight);
  add(level::kHip, "Hip", h.hip, body.mm(id::kHip), hip, true, taken(body, {id::kWaistToHip}));
  add(level::kHem, "Hem", h.hem, 0, 0, highHipGirth, highHipHeight);
  const double end = goesBelowWaist(rules) ? h.hem : h.waist;
  const std::vector<OwnLevel> ownLevels = rules.ownLevels();
  std::vector<Level> made;
  for (const OwnLevel& own : ownLevels) {
    Result<MadeLevel> l = makeOwnLevel(out, endOf(rules, h.waist, h.hem), own);
    if (!l.ok()) return l.problem();
    if (!made.empty() && l->level.front - made.back().front < kLeastFromOwn)
      return Problem{verbatim("rail." + own.id), msg("two levels of your own stand within {:.0f} mm", kLeastFromOwn),
                     "move one of them, or take it away"};
    made.push_back(std::move(l->level));
    made.back().back = made.back().front - out.backRise - out.sideDart;
    out.workings.push_back(std::move(l->working));
  }
  out.all.insert(out.all.end(), made.begin(), made.end());
  for (Level& l : out.all) l.beyondHem = l.front > end + 1e-9;
  out.at(level::kChest).readOff = out.at(level::kHem).readOff = true;
  out.at(level::kUnderbust).follows =
      !out.at(level::kUnderbust).girthTaken && rules.option(key::kUnderbustUntaken) == UntakenUnderbust::Straight;

  const Sharer sharer(body, rules);
  for (Level& l : out.all)
    if (!l.readOff) sharer.divide(l);
  std::stable_sort(out.all.begin(), out.all.end(), [](const Level& a, const Level& b) { return a.front < b.front; });
  out.workings.push_back(chest);
  out.workings.push_back(dart);
  if (out.sideFoot > 0)
    out.workings.push_back(
        worked("rule.dial.foot", "Taken off the foot of the front's side",
               {{'+', msg("side bust dart x {:.4g}", rules.share(key::kDialFoot)), out.sideFoot, Source::Computed}},
               "below the bust the levels rise by it towards the side, where the front is as long as the back; common "
               "practice"));
  out.workings.push_back(worked(
      "cup.circle", "Circle of the cup radius about the bust point",
      {measureTerm(body, id::kShoulderToUnderbust), measureTerm(body, id::kShoulderToBust, '-')},
      "how far the upper edge must cover; where it crosses the princess line above, what that takes in there sits; "
      "common practice"));
  out.workings.push_back(backChest(body, chest, out.sideDart, out.backRise));
  return out;
}

}  // namespace armure
