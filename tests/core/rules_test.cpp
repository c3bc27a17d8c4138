// Rules of thumb: precedence, and that every one of them does what it says and nothing is a dead number.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "draft/ranges.h"
#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/opening/rules.h"
#include "parts/yoke/rules.h"
#include "prepare/arrange.h"
#include "prepare/lists.h"
#include "prepare/sewing.h"
#include "rules/draft_rules.h"
#include "rules/prepare_rules.h"
#include "rules/rule_search.h"
#include "rules/rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// A few hundred numbers that describe a design: block, pieces, outlines.
std::vector<double> fingerprint(const Design& d) {
  std::vector<double> numbers;
  const auto add = [&](Vec2 p) {
    numbers.push_back(p.x);
    numbers.push_back(p.y);
  };
  for (const HalfBlock* half : {&d.block.front, &d.block.back}) {
    for (const Path* path : {&half->neck, &half->shoulder, &half->armhole}) {
      add(path->start());
      add(path->cubics().front().p3);
      add(path->end());
    }
    for (const HalfLevel& l : half->levels) numbers.push_back(l.side);
  }
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges)
      for (const Cubic& c : e.path.cubics()) {
        add(c.p0);
        add(c.p1);
        add(c.p2);
      }
  for (const Polyline& outline : d.cutOutlines) {
    add(boxRound(outline).low);
    add(boxRound(outline).high);
    numbers.push_back(signedArea(outline));
  }
  for (const Piece& p : d.pattern.pieces) add(p.grainTop);
  for (const Intake& i : d.block.intakes) numbers.push_back(i.cap);
  const CutList list = cutList(d.pattern, d.block, d.rules);
  for (const BoneLine& b : list.bones)
    numbers.insert(numbers.end(), {b.width, b.cutLength, static_cast<double>(b.kind - kBoneKinds.data())});
  for (const Notion& n : list.notions) numbers.insert(numbers.end(), {static_cast<double>(n.count), n.length});
  for (const ClothLine& c : list.cloths) numbers.push_back(c.width);
  for (const CutPiece& c : list.pieces) numbers.push_back(c.copies);
  for (const SewingStep& step : sewingOrder(d.pattern, d.block, d.rules))
    numbers.push_back(static_cast<double>(step.work));
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges) numbers.push_back(e.onCloth);
  return numbers;
}

bool differ(const Design& a, const Design& b) {
  const auto x = fingerprint(a), y = fingerprint(b);
  if (x.size() != y.size()) return true;
  for (size_t i = 0; i < x.size(); ++i)
    if (std::abs(x[i] - y[i]) > 1e-6) return true;
  return false;
}

// The plain order with everything set so that `rule` counts.
Order orderFor(const RuleInfo& rule) {
  Order o = plainOrder();
  o.measures.set("armhole", {inches(16.5), "16 1/2 in", ""});
  o.measures.set("front_bust_arc", {inches(19), "19 in", ""});
  o.choices["opening.kind"] = "lacing";  // so that it stays open whatever the front is
  const auto meet = [&](const Condition& c) { o.choices[std::string(c.key)] = std::string(optionsOf(c).front()); };
  if (!rule.also.empty()) meet(rule.also);
  if (!rule.conditions().empty()) meet(rule.conditions().front());
  if (rule.key == "opening.kind") o.choices["opening.front"] = "busk";
  if (rule.key.starts_with("modesty.") || rule.key == "allowance.modesty") o.choices["modesty.kind"] = "panel";
  if (rule.key == "allowance.busk") {
    o.choices["opening.kind"] = "lacing";
    o.choices["opening.front"] = "busk";
  }
  if (rule.key == "underbust.untaken") {
    o.measures.erase("underbust");
    o.choices["intake.underbust"] = "2.5 in";
  }
  if (rule.key.starts_with("skirt.")) o.choices["skirt.kind"] = rule.key == "skirt.lines" ? "straight" : "peg";
  if (rule.key == "skirt.flare") o.choices["skirt.kind"] = "flare";
  if (rule.key == "skirt.gore") o.choices["skirt.kind"] = "gored";
  if (rule.key == "skirt.kind") o.choices.erase("skirt.kind");
  if (rule.key == "lines.spacing" || rule.key.starts_with("intake.further"))
    o.choices["lines.front"] = o.choices["lines.back"] = "2";
  for (const char* covered :
       {"princess.armhole", "back.intake_shoulder", "yoke.", "keyhole.", "insert.", "allowance.yoke"})
    if (rule.key.starts_with(covered)) o.choices["cover.kind"] = "covered";
  if (rule.key == "insert.shoulder") o.choices["insert.kind"] = "shoulder";
  if (rule.key == "gather.to") o.choices["gather.strip"] = "0.5 in";  // many slashes, so that where they end shows
  if (rule.key == "dial.centre") o.choices["opening.front"] = "seam";
  if (rule.key == "mould.inner") o.choices["mould.inner"] = "3 in";           // less than up to the bridge
  if (rule.key == "opening.start") o.choices["opening.start"] = "10 in";      // below the upper edge
  if (rule.key == "bones.straight") o.choices["bones.straight"] = "0 in";     // straight lines alone
  if (rule.key == "layer.lining_joins") o.choices["opening.front"] = "seam";  // straight: it is laid on the fold
  if (rule.key == "cap.side") o.choices["distribution.school"] = "even";
  return o;
}

}  // namespace

TEST_CASE("every rule of thumb changes the pattern when it is changed") {
  for (const RuleInfo& rule : ruleTable()) {
    if (rule.key == "paper.size" || rule.key == "paper.roll" || rule.key == "balance.free_limit")
      continue;                                                          // of the paper, and of the sheet
    if (rule.key == "skirt.slit" || rule.key == "notch.kind") continue;  // a notch, and how it is cut
    if (rule.key == "binding.wide") continue;                            // told beside its length
    if (rule.key == "breast.shape") continue;                            // of the body it is tried on
    if (rule.key == "mould.rim") continue;                               // held against the opening by the sheet
    INFO(rule.key);
    Order o = orderFor(rule);
    if (rule.key == "balance.ease_limit") {  // counts where a difference is eased in
      o.choices["balance.keep"] = "balanced";
      o.choices["balance.ease_limit"] = "0 mm";
      o.choices["seam.princess"] = "ease bust underbust";
    }
    const Design before = designOf(o);
    bool changed = false;
    if (rule.kind == RuleKind::Option) {
      for (const RuleOption& option : rule.options) {
        o.choices[std::string(rule.key)] = std::string(option.id);
        changed = changed || differ(before, designOf(o));
      }
    } else if (rule.kind == RuleKind::Share) {
      o.choices[std::string(rule.key)] = "0.45";
      changed = differ(before, designOf(o));
    } else {
      const double value = before.rules.value(rule.key).number;
      const bool coarse = rule.key == "mould.offset" || rule.key == "bones.straight";  // cups come in sizes
      const double step = inches(!coarse ? 0.25 : rule.key == "mould.offset" ? 2 : 0.5);
      const double nudged = value + step <= rule.highest ? value + step : value - step;
      o.choices[std::string(rule.key)] = std::to_string(nudged) + " mm";
      changed = differ(before, designOf(o));
    }
    CHECK(changed);
  }
}

TEST_CASE("a rule that does not count changes nothing") {
  for (const RuleInfo& rule : ruleTable()) {
    if (rule.conditions().empty() || rule.kind != RuleKind::Length) continue;
    INFO(rule.key);
    const std::string key(rule.conditions().front().key);
    for (const RuleOption& option : findRule(key)->options) {
      Order o = orderFor(rule);
      o.choices[key] = std::string(option.id);
      if (key == "opening.kind") o.choices["opening.front"] = "busk";
      const Rules rules(o.choices, o.style, o.school, Figure::Medium);
      if (rules.counts(rule)) continue;
      const Result<Design> before = recalc(o);
      if (!before.ok()) continue;  // a wide V in front leaves no centre panel
      o.choices[std::string(rule.key)] = std::to_string((rule.lowest + rule.highest) / 2) + " mm";
      CHECK_FALSE(differ(*before, designOf(o)));
    }
  }
}

TEST_CASE("the maker's choice comes before the style, the style before the school, the school before the default") {
  const auto option = [](const Choices& choices, const char* style, const char* school) {
    return std::string(Rules(choices, style, school, Figure::Medium).value("share.rule").option);
  };
  CHECK(option({}, "straight-zip", "quarter-grid") == "breast-in-front");
  CHECK(option({}, "straight-zip", "quarter-grid-equal") == "equal");
  CHECK(option({{"share.rule", "front-plus"}}, "straight-zip", "quarter-grid-equal") == "front-plus");
  const Rules styled({{"hem.length", "6 in"}}, "sweetheart-raised-laced", "quarter-grid", Figure::Medium);
  CHECK(styled.length(key::kHemLength) == Approx(inches(6)));
  CHECK(styled.option(key::kHemShape) == HemShape::Raised);
  CHECK(styled.value("hem.length").source == Source::ByHand);
  CHECK(styled.value("neck.width").source == Source::Rule);
}

TEST_CASE("defaults follow the figure") {
  const auto top = [](Figure f) { return Rules({}, "straight-zip", "quarter-grid", f).length(key::kIntakeTop); };
  // Common practice, no source: over-bust intake 1 to 1 1/2 in on a small bust, 1 1/2 to 2 1/2 on a full one.
  CHECK((top(Figure::Small) >= inches(1) && top(Figure::Small) <= inches(1.5)));
  CHECK((top(Figure::Full) >= inches(1.5) && top(Figure::Full) <= inches(2.5)));
  CHECK(top(Figure::Small) < top(Figure::Medium));
  CHECK(top(Figure::Medium) < top(Figure::Full));
}

TEST_CASE("unknown keys, styles and values are a programmer's mistake") {
  const Rules rules({}, "no-such-style", "no-such-school", Figure::Small);  // unknown presets set nothing
  CHECK(rules.option(key::kTopShape) == TopShape::Straight);
  CHECK_THROWS_AS(rules.value("no.such.rule"), std::out_of_range);
  CHECK_THROWS_AS(Rules({{"hem.length", "soon"}}, "straight-zip", "quarter-grid", Figure::Small),
                  std::invalid_argument);
}

TEST_CASE("keys and ids are unique, and every row says why") {
  std::set<std::string_view> keys;
  for (const RuleInfo& r : ruleTable()) {
    INFO(r.key);
    CHECK(keys.insert(r.key).second);
    CHECK_FALSE(r.label.empty());
    CHECK_FALSE(r.reason.empty());
    CHECK((r.stage == "Block" || r.stage == "Shape" || r.stage == "Cups" || r.stage == "Lines" ||
           r.stage == "Balance" || r.stage == "Prepare"));
    for (const RuleOption& o : r.options) CHECK_FALSE(o.reason.empty());
  }
  std::set<std::string_view> ids;
  for (const auto& table : {styleTable(), schoolTable()})
    for (const Preset& p : table) {
      CHECK(ids.insert(p.id).second);
      CHECK_FALSE(p.description.empty());
    }
}

TEST_CASE("every option reads back as its enumerator; conditions name options that are there") {
  for (const RuleInfo& rule : ruleTable()) {
    INFO(rule.key);
    std::set<int> seen;
    for (const RuleOption& option : rule.options) {
      const Rules rules({{std::string(rule.key), std::string(option.id)}}, "straight-zip", "quarter-grid",
                        Figure::Medium);
      CHECK(rules.value(rule.key).choice == option.value);
      CHECK(rules.value(rule.key).option == option.id);
      CHECK(seen.insert(option.value).second);
    }
    for (const Condition& c : rule.conditions()) {
      REQUIRE(findRule(c.key));
      CHECK(findRule(c.key)->kind == RuleKind::Option);
      unsigned known = 0;
      for (const RuleOption& option : findRule(c.key)->options) known |= 1U << option.value;
      CHECK((c.options & ~known) == 0);
      CHECK(c.options != 0);
    }
  }
}

TEST_CASE("how far a rule can go: the parts of one dart, a dart's room, an opening's length") {
  const Order o = plainOrder();
  const Body body = completeBody(o.measures);
  const auto range = [&](const char* key, const Choices& choices) {
    return rangeOf(*findRule(key), Rules(choices, o.style, o.school, figureOf(body)), body);
  };
  CHECK(range("dial.ease", {}).highest == 1);
  CHECK(range("dial.ease", {{"dial.side", "0.6"}}).highest == Approx(0.4));
  CHECK(range("dial.foot", {{"dial.side", "0.6"}, {"dial.ease", "0.3"}}).highest == Approx(0.1));
  // A part that does not count takes nothing: the centre front is on the fold.
  CHECK(range("dial.foot", {{"dial.centre", "0.6"}}).highest == 1);
  CHECK(range("shoulder.slope_front", {}).highest == findRule("shoulder.slope_front")->highest);
  for (const char* key : {"dart.side", "opening.start", "top.below_shoulder"}) {
    INFO(key);
    const RuleRange r = range(key, {});
    CHECK(r.lowest == findRule(key)->lowest);
    CHECK(r.highest <= findRule(key)->highest);
    Order most = o;
    if (std::string(key) == "top.below_shoulder") most.choices["top.from"] = "shoulder";
    most.choices["opening.end"] = "waist";
    most.choices[key] = std::to_string(r.highest - 0.01) + " mm";
    const auto made = recalc(most);
    INFO((made.ok() ? "" : made.problem().text()));
    CHECK(made.ok());
  }
}

TEST_CASE("all options in force fit, until one takes away what another needs") {
  const auto fit = [](const Choices& choices) {
    return Rules(choices, "straight-zip", "quarter-grid", Figure::Medium).allFit();
  };
  CHECK(fit({}));
  CHECK(fit({{"front.lines", "darts"}}));
  CHECK_FALSE(fit({{"front.lines", "darts"}, {"cup.kind", "two"}}));
  CHECK_FALSE(fit({{"cup.kind", "whole"}, {"cover.kind", "covered"}}));
}

TEST_CASE("an option that needs others is offered only beside them, and says what it needs") {
  const RuleInfo& insert = *findRule("insert.kind");
  const auto optionOf = [](Choices choices) {
    return [rules = Rules(choices, "straight-zip", "quarter-grid", Figure::Medium)](std::string_view key) {
      return rules.value(key).choice;
    };
  };
  CHECK(optionFits(insert.options[1], optionOf({})));  // at the centre front
  CHECK_FALSE(optionFits(insert.options[2], optionOf({})));
  CHECK(optionFits(insert.options[2], optionOf({{"cover.kind", "covered"}})));
  CHECK(english(missingFor(insert.options[2], optionOf({}))) == "cover.kind = covered");
  CHECK(missingFor(insert.options[2], optionOf({{"cover.kind", "covered"}})).empty());
  // One cannot sew both openings shut, one after the other.
  const RuleInfo &back = *findRule("opening.kind"), &front = *findRule("opening.front");
  const auto fits = [&](const RuleInfo& rule, std::string_view id, Choices choices) {
    const auto option =
        std::find_if(rule.options.begin(), rule.options.end(), [&](const RuleOption& o) { return o.id == id; });
    return optionFits(*option, optionOf(std::move(choices)));
  };
  // A cut cup leaves the centre front to an insert only below covered shoulders: one of two things is needed.
  CHECK_FALSE(fits(insert, "centre", {{"cup.kind", "two"}}));
  CHECK(fits(insert, "centre", {{"cup.kind", "two"}, {"cover.kind", "covered"}}));
  CHECK(english(missingFor(insert.options[1], optionOf({{"cup.kind", "two"}}))) ==
        "cup.kind = princess or cover.kind = covered");
  CHECK_FALSE(fits(back, "fold", {}));
  CHECK(fits(back, "fold", {{"opening.front", "busk"}}));
  CHECK(fits(front, "seam", {}));
  CHECK_FALSE(fits(front, "seam", {{"opening.front", "busk"}, {"opening.kind", "fold"}}));
  for (const RuleInfo& rule : ruleTable())
    for (const RuleOption& option : rule.options)
      for (const Condition& c : option.needs)
        if (!c.empty()) CHECK_FALSE(optionsOf(c).empty());
}

TEST_CASE("a rule follows another where that one is chosen and it is not") {
  const auto front = [](const Choices& choices) {
    return Rules(choices, "straight-zip", "quarter-grid", Figure::Medium).length(key::kOpeningFrontTop);
  };
  CHECK(front({}) == Approx(inches(3)));
  CHECK(front({{"opening.gap_top", "5 in"}}) == Approx(inches(5)));
  CHECK(front({{"opening.gap_top", "5 in"}, {"opening.front_top", "2 in"}}) == Approx(inches(2)));
}

TEST_CASE("no range leaves the bounds of its row, on any body and for any style") {
  const std::vector<RealBody> bodies = realBodies();
  for (size_t b = 0; b < bodies.size(); b += 12)
    for (const Preset& style : styleTable()) {
      Order o = plainOrder();
      o.measures = measuresOf(bodies[b], 95);
      o.style = style.id;
      const auto made = recalc(o);
      if (!made.ok()) continue;
      for (const RuleInfo& rule : ruleTable()) {
        const RuleRange range = rangeOf(rule, made->rules, made->body);
        INFO(style.id << ' ' << rule.key);
        CHECK((rule.lowest <= range.lowest && range.lowest <= range.highest && range.highest <= rule.highest));
        // What the style and the figure bring lies within.
        const double value = made->rules.value(rule.key).number;
        if (made->rules.counts(rule) && rule.kind != RuleKind::Option && !rule.fromMeasures)
          CHECK((range.lowest - 1e-6 <= value && value <= range.highest + 1e-6));
      }
    }
}

TEST_CASE("a typed key reads what its text reads") {
  const Rules rules({{"yoke.back", "net"}, {"cover.kind", "covered"}, {"hem.length", "6 in"}, {"dial.side", "0.25"}},
                    "straight-zip", "quarter-grid", Figure::Full);
  CHECK(rules.option(key::kYokeBack) == YokeKind::Net);
  CHECK(rules.option(key::kYokeFront) == YokeKind::None);
  CHECK(rules.option(key::kOpeningKind) == OpeningKind::Zip);
  CHECK(rules.option(key::kOpeningFront) == OpeningKind::Fold);  // the same enumeration, other options
  CHECK(rules.length(key::kHemLength) == Approx(inches(6)));
  CHECK(rules.share(key::kDialSide) == 0.25);
  CHECK(rules.option(key::kPaperSize) == rules.value("paper.size").option);
  CHECK(rules.counts(*findRule("yoke.fold")));
  CHECK_FALSE(rules.counts(*findRule("cup.bridge")));
  CHECK(optionsOf(kIsCut).size() + 1 == findRule("cup.kind")->options.size());  // all but the bust in the seam
}

TEST_CASE("a rule is found by the words a maker has for it") {
  const auto keys = [](std::string_view words) {
    std::vector<std::string> found;
    for (const RuleInfo* rule : rulesNamed(words)) found.emplace_back(rule->key);
    return found;
  };
  CHECK(keys("").empty());
  CHECK(keys("no such thing").empty());
  // Those called so come first; every word must be there, in any order and any letters.
  CHECK(keys("back line, waist").front() == "back.intake_waist");
  CHECK(keys("WAIST back").front() == "back.intake_waist");
  const std::vector<std::string> slits = keys("slit");
  CHECK(std::ranges::find(slits, "skirt.slit") != slits.end());
  // By an option, and by the key.
  const std::vector<std::string> sweetheart = keys("sweetheart");
  CHECK(std::ranges::find(sweetheart, "top.shape") != sweetheart.end());
  CHECK(keys("cup.bridge_wider") == std::vector<std::string>{"cup.bridge_wider"});
  for (const RuleInfo& rule : ruleTable()) {
    const std::vector<std::string> own = keys(rule.label);
    CHECK(std::ranges::find(own, rule.key) != own.end());
  }
}

TEST_CASE("what a rule counts with is said, all of it") {
  CHECK(english(conditionOf(*findRule("hem.length"))) == "hem.at = below");
  CHECK(english(conditionOf(*findRule("back.start"))) == "back.lines = seams or darts");
  const std::string both = english(conditionOf(*findRule("back.end")));
  CHECK(both.find("distribution.school = ") != std::string::npos);
  CHECK(both.find(" and back.lines = ") != std::string::npos);
  CHECK(english(conditionOf(*findRule("neck.width"))).empty());
}
