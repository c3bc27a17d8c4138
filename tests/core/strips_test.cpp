// Strips, rings and unfolded pleats by themselves: for many amounts against their closed formulas. Fullness and pleats
// are common practice, no source; area and arc length of a ring's sector are closed formulas.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "geometry/unfold.h"
#include "parts/straps/strap_end.h"
#include "parts/trims/ring.h"
#include "parts/trims/strip.h"
#include "rules/trims.h"
#include "tests/support/bodies.h"
#include "tests/support/sewn_on.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("lengths of a strip are equal, none longer than the cloth gives, together as full as is asked") {
  std::mt19937 random(7);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
  for (int i = 0; i < 300; ++i) {
    const StripAsked asked{.covers = between(60, 4000), .longest = between(300, 1500), .full = between(1, 5)};
    const StripPlan plan = planStrip(asked);
    INFO(asked.covers << " " << asked.longest << " " << asked.full);
    CHECK(plan.length <= asked.longest + 1e-6);
    CHECK(plan.lengths * plan.length == Approx(asked.full * asked.covers));
    CHECK(plan.lengths * plan.each == Approx(asked.covers));
    CHECK((plan.lengths == 1 || (plan.lengths - 1) * asked.longest < asked.full * asked.covers));
    CHECK(plan.perLength == 0);
  }
}

TEST_CASE("pleats take twice their depth, box pleats four times, by count as by fullness") {
  std::mt19937 random(8);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
  for (int i = 0; i < 200; ++i)
    for (const auto& [how, times] : {std::pair{strip::Drawn::Knife, 2.0}, {strip::Drawn::Box, 4.0}}) {
      StripAsked asked{.covers = between(200, 3000),
                       .longest = between(500, 1500),
                       .full = between(1.3, 4),
                       .how = how,
                       .pleat = between(5, 40)};
      const StripPlan full = planStrip(asked);
      CHECK(full.lengths * full.length == Approx(asked.full * asked.covers));
      CHECK(full.length == Approx(full.each + full.perLength * times * full.pleat));
      asked.pleats = std::floor(between(4, 60));
      const StripPlan counted = planStrip(asked);
      CHECK(counted.pleat == asked.pleat);
      CHECK(std::abs(counted.perLength * counted.lengths - asked.pleats) <= counted.lengths / 2.0 + 1e-9);
      CHECK(counted.length == Approx(counted.each + counted.perLength * times * asked.pleat));
    }
}

TEST_CASE("what the cloth gives: its width across, its diagonal on the bias, arm spans along") {
  CHECK(longestStrip(1372, strip::Grain::Across, 100, 12) == Approx(1372 - 24));
  CHECK(longestStrip(1372, strip::Grain::Bias, 100, 12) == Approx((1372 - 24) * std::numbers::sqrt2 - 100));
  CHECK(longestStrip(1372, strip::Grain::Along, 100, 12) > 3000);
  CHECK(longestStrip(80, strip::Grain::Across, 10, 12) > 0);  // a ribbon: never nothing
}

TEST_CASE("a ring's inner edge is the edge, whatever the cloth divides it into") {
  std::mt19937 random(9);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
  int made = 0;
  for (int i = 0; i < 300; ++i) {
    const RingAsked asked{.edge = between(200, 3000),
                          .turns = between(0.1, 6),
                          .halves = i % 2 == 0,
                          .longest = between(40, 700),
                          .seam = between(0, 20),
                          .hem = between(0, 20),
                          .clothWidth = between(700, 1600)};
    const auto ring = planRing(asked);
    if (!ring) {
      CHECK(asked.edge / (2 * std::numbers::pi * asked.turns) < leastRingRadius(asked.seam));
      continue;
    }
    ++made;
    CHECK(ring->pieces * ring->angle * ring->radius == Approx(asked.edge));
    CHECK(ring->pieces >= (asked.halves ? 2 : 1) * asked.turns - 1e-9);
    CHECK(ring->angle < 2 * std::numbers::pi);
    CHECK(ring->radius >= leastRingRadius(asked.seam) - 1e-9);
    // Its ends have room for their seam at the inner cutting line, unless it is cut smaller anyway.
    const double inner = ring->radius - asked.seam, open = 2 * std::numbers::pi - ring->angle;
    if (open < std::numbers::pi) CHECK(inner * std::sin(open / 2) >= asked.seam);
  }
  CHECK(made > 150);
}

TEST_CASE("unfolded, any outline grows by twice what lies over its pleats, and folds back onto itself") {
  std::mt19937 random(10);
  const auto between = [&](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
  for (int i = 0; i < 60; ++i) {
    // A panel: wavy above, slanted below, its sides leaning.
    Polyline ring{{0, between(0, 20)},      {40, between(-15, 15)},  {90, between(-15, 15)}, {150, between(0, 20)},
                  {150, between(200, 260)}, {80, between(230, 260)}, {0, between(200, 260)}};
    const double depth = between(3, 12);
    std::vector<FoldedPleat> pleats;
    for (const double at : {35.0, 70.0, 105.0}) pleats.push_back({at, depth});
    const Polyline flat = unfolded(ring, pleats);
    double over = 0;
    for (const FoldedPleat& p : pleats)
      over += sharedArea(ring, {{p.at - depth, -100}, {p.at, -100}, {p.at, 400}, {p.at - depth, 400}});
    CHECK(signedArea(flat) == Approx(signedArea(ring) + 2 * over).epsilon(1e-6));
    CHECK(isSimple(flat));
    // Folded again every corner lies on the outline or on a fold of it.
    for (const Vec2 corner : flat) {
      double x = corner.x;
      for (const FoldedPleat& p : pleats) {
        if (x <= p.at) break;
        x = x <= p.at + depth ? 2 * p.at - x : x - 2 * depth;
        if (x < p.at && corner.x <= p.at + depth) break;
      }
      Polyline closed = ring;
      closed.push_back(ring.front());
      CHECK(distanceToPolyline({x, corner.y}, closed) < 0.01);
    }
  }
}

TEST_CASE("a strap's end: half a circle, or two slants, from corner to corner outwards") {
  const Vec2 from{40, 100}, to{0, 100};
  for (const StrapEnd end : {StrapEnd::Straight, StrapEnd::Curved, StrapEnd::Pointed}) {
    const Path path = strapEnd(from, to, end);
    CHECK(path.start() == from);
    CHECK(path.end() == to);
    double lowest = 100;
    for (const Vec2 p : path.flattened(0.01)) lowest = std::max(lowest, p.y);
    CHECK(lowest - 100 == Approx(strapEndDepth(end, 40)).margin(0.01));
  }
  CHECK(strapEnd(from, to, StrapEnd::Curved).length() == Approx(20 * std::numbers::pi).epsilon(1e-3));
  CHECK(strapEnd(from, to, StrapEnd::Pointed).length() == Approx(2 * std::hypot(20, 20)));
}

TEST_CASE("keys of every kind read back, with their fields; forms tell what each takes") {
  for (const TrimKindInfo& kind : trimKinds()) {
    INFO(kind.id);
    for (const RuleInfo& field : kind.fields) {
      const TrimKey key{kind.kind, "one", std::string(field.key)};
      const auto read = parseTrimKey(key.text());
      REQUIRE(read);
      CHECK(read->kind == kind.kind);
      CHECK(read->name == "one");
      CHECK(read->field == field.key);
      CHECK(field.group == kind.fields.front().group);
      // Its default is one of its own values.
      const RuleValue value = defaultValue(field, Figure::Medium);
      if (field.kind != RuleKind::Option) CHECK((value.number >= field.lowest && value.number <= field.highest));
      if (field.kind == RuleKind::Option) CHECK(checkTrimChoice(key, value.option, Unit::Inch).ok());
      CHECK_FALSE(checkTrimChoice(key, "as you like", Unit::Inch).ok());
    }
    const auto of = std::ranges::count_if(
        trimForms(), [&](const TrimForm& f) { return f.form.starts_with(std::string(kind.id) + ".NAME."); });
    CHECK(of == static_cast<long>(kind.fields.size()) + (kind.onPiece ? 1 : 3));
  }
}

TEST_CASE("what cannot be made says what is wrong and what would be right") {
  const auto reason = [](std::initializer_list<std::pair<const char*, const char*>> choices,
                         const char* style = nullptr) {
    Order order = sewnOn(plainOrder(), choices);
    if (style) order.style = style;
    order.measures.set("bicep", {inches(13), ""});
    order.measures.set("round_shoulder", {inches(43), ""});
    return idleReason(order, choices.begin()->first);
  };
  const auto says = [](const std::string& text, const char* part) { return text.find(part) != std::string::npos; };
  CHECK(says(reason({{"hanging-sleeve.1.on", "top"}}), "other side of the body"));
  CHECK(says(reason({{"hanging-sleeve.1.on", "armhole"}, {"hanging-sleeve.1.to", "start + 1"}}, "covered-round"),
             "too short to hang"));
  CHECK(says(reason({{"ruffle.1.on", "top"}, {"ruffle.1.from", "side - 1"}, {"ruffle.1.to", "side"}}),
             "nothing is left"));
  CHECK(says(
      reason({{"ruffle.1.on", "top"}, {"ruffle.1.how", "box"}, {"ruffle.1.pleat", "6"}, {"ruffle.1.pleats", "60"}}),
      "over each other"));
  CHECK(says(reason({{"collar.1.on", "top"}, {"collar.1.shape", "high"}, {"collar.1.dart", "3"}}, "covered-round"),
             "go through a collar"));
  CHECK(says(reason({{"garter-tabs.1.on", "hem"}, {"garter-tabs.1.to", "start + 2"}, {"garter-tabs.1.wide", "3"}}),
             "do not go beside each other"));
  CHECK(says(reason({{"pocket.1.on", "side"}, {"pocket.1.from", "end - 1"}}), "is only"));
  CHECK(says(reason({{"godet.1.on", "side"}, {"godet.1.high", "2"}, {"godet.1.wide", "60"}}), "cannot be"));
  CHECK(says(reason({{"pleats.1.on", "hem"}}), "no piece"));
  CHECK(says(reason({{"tie.1.on", "hem"}, {"tie.1.end", "curved"}, {"tie.1.wide", "12"}, {"tie.1.long", "6"}}),
             "shorter than its shaped end"));
  CHECK(says(reason({{"collar.1.on", "top"},
                     {"collar.1.shape", "high"},
                     {"collar.1.tighter", "6"},
                     {"collar.1.dart", "1/2"},
                     {"collar.1.to", "start + 2"}},
                    "covered-round"),
             "cannot differ"));
  CHECK(says(
      reason({{"collar.1.on", "top"}, {"collar.1.shape", "high"}, {"collar.1.tighter", "4"}, {"collar.1.dart", "1/2"}},
             "covered-round"),
      "cannot take"));
}
