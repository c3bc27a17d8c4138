// Bodies at the edges of what can be a body, and orders at the edges of what can be chosen: a pattern or an
// explanation, never an exception, a NaN or a piece that cannot be cut.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "measure/measure_table.h"
#include "parts/cups/rules.h"
#include "parts/skirt/rules.h"
#include "prepare/marks.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

double part(std::mt19937& r) { return static_cast<double>(r()) / 4294967295.0; }

void checkSound(const Design& d) {
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i) {
    const Piece& p = d.pattern.pieces[i];
    for (const Edge& e : p.edges)
      for (const Cubic& c : e.path.cubics())
        for (Vec2 q : {c.p0, c.p1, c.p2, c.p3}) REQUIRE((std::isfinite(q.x) && std::isfinite(q.y)));
    for (const LevelLine& l : p.levelLines()) REQUIRE(l.width() > 0);
    REQUIRE(d.cutOutlines[i].size() > 3);
  }
  for (const CheckRow& r : d.sheet.rows) REQUIRE(std::isfinite(r.amount));
}

}  // namespace

TEST_CASE("any measures within the table's bounds give a pattern or an explanation") {
  std::mt19937 random(101);
  size_t drafted = 0, explained = 0;
  for (int i = 0; i < 1500; ++i) {
    MeasureSet m;
    for (const MeasureInfo& info : measureTable()) {
      const bool needed = info.need == Need::Required;
      if (!needed && part(random) < 0.5) continue;
      m.set(info.id, {info.lowest + (info.highest - info.lowest) * part(random), "", ""});
    }
    Order o;
    o.measures = m;
    o.style = styleTable()[random() % styleTable().size()].id;
    const auto r = recalc(o);
    if (r.ok()) {
      ++drafted;
      checkSound(*r);
    } else {
      ++explained;
      REQUIRE_FALSE(r.problem().where.empty());
      REQUIRE_FALSE(r.problem().what.empty());
      REQUIRE_FALSE(r.problem().remedy.empty());
    }
  }
  CHECK(explained > 0);
  INFO(drafted << " drafted, " << explained << " explained");
  CHECK(drafted + explained == 1500);
}

TEST_CASE("any choices within their ranges give a pattern or an explanation") {
  std::mt19937 random(102);
  size_t drafted = 0;
  for (int i = 0; i < 600; ++i) {
    Order o = plainOrder();
    for (const RuleInfo& rule : ruleTable()) {
      if (rule.key == "breast.shape") continue;  // nothing is drafted from it
      if (rule.key == "hem.at") continue;        // by turns, below
      if (part(random) < 0.6) continue;
      const std::string key(rule.key);
      if (rule.kind == RuleKind::Option) {
        o.choices[key] = std::string(rule.options[random() % rule.options.size()].id);
      } else {
        const double v = rule.lowest + (rule.highest - rule.lowest) * part(random);
        o.choices[key] = rule.kind == RuleKind::Share ? std::to_string(v) : std::to_string(v) + " mm";
      }
    }
    if (i % 9 == 4) o.choices["hem.at"] = "waist";
    if (i % 9 == 7) o.choices["hem.at"] = "waist-point";
    const auto r = recalc(o);
    if (!r.ok()) {
      REQUIRE_FALSE(r.problem().remedy.empty());
      continue;
    }
    ++drafted;
    checkSound(*r);
    // Whole seams agree and girths are right, whatever was chosen.
    if (r->rules.option(key::kCupKind) != CupKind::Princess)
      continue;  // a seam divided at the bust fits once it is balanced
    if (r->rules.option(key::kWaistSeam) != WaistSeam::None || r->rules.option(key::kHemAt) != HemAt::Below ||
        r->rules.share(key::kDialSide) > 0 || r->rules.share(key::kDialEase) > 0)
      continue;  // nor does one divided at the waist or beside a dart
    if (r->rules.option(key::kFrontLinesAre) != LinesAre::Seams) continue;  // nor a level straight across its darts
    for (const CheckRow& row : r->sheet.rows) {
      const bool panels = row.seam.empty() || row.seam == "side" || isPanelLine(row.seam);
      const Seam* seam = r->pattern.seam(row.seam);
      if (!panels || (seam && seam->kind == SeamKind::Dart)) continue;  // shoulders, yokes, darts fit once balanced
      INFO(row.subject << " " << row.amount);
      if (row.kind == CheckKind::Seam || row.kind == CheckKind::Corner) REQUIRE_FALSE(row.fails());
      if (row.kind == CheckKind::Girth) REQUIRE_FALSE(row.fails());
    }
  }
  CHECK(drafted > 100);  // most orders thrown together like this ask for what cannot be
}

TEST_CASE("every edge's allowance is kept all round, over random bodies") {
  for (const Order& o : randomOrders(60, 103)) {
    const auto d = recalc(o);
    if (!d.ok()) continue;
    for (size_t i = 0; i < d->pattern.pieces.size(); ++i) {
      Polyline ring = d->cutOutlines[i];
      ring.push_back(ring.front());
      for (const Edge& e : d->pattern.pieces[i].edges) {
        if (e.path.tightestLeftRadius() < e.allowance) continue;  // the sheet says so
        // Beside a fold, where nothing is cut, the fold itself is nearer to a bridge between two cups.
        if (!d->pattern.pieces[i].onFold.empty() && e.path.length() < 2 * e.allowance) continue;
        // Away from the corners, where a neighbour with less allowance may be nearer.
        for (double at : {0.4, 0.5, 0.6}) {
          INFO(o.title << " " << d->pattern.pieces[i].id << "." << e.id);
          REQUIRE(distanceToPolyline(e.path.pointAt(at * e.path.length()), ring) == Approx(e.allowance).margin(0.3));
        }
      }
    }
  }
}

TEST_CASE("levels lie on the edges of their pieces, and grain and label lie inside") {
  for (const Order& o : randomOrders(60, 104)) {
    const auto d = recalc(o);
    if (!d.ok()) continue;
    for (const Piece& p : d->pattern.pieces) {
      Polyline ring = p.outline(0.01);
      const auto inside = [&](Vec2 q) {
        bool in = false;  // crossing number
        for (size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
          if ((ring[i].y > q.y) != (ring[j].y > q.y) &&
              q.x < (ring[j].x - ring[i].x) * (q.y - ring[i].y) / (ring[j].y - ring[i].y) + ring[i].x)
            in = !in;
        return in;
      };
      INFO(o.title << " " << p.id);
      REQUIRE(inside(lerp(p.grainTop, p.grainBottom, 0.5)));
      REQUIRE(inside(labelPoint(p)));
      Polyline closed = ring;
      closed.push_back(closed.front());
      for (const LevelLine& l : p.levelLines()) {
        REQUIRE(distanceToPolyline(l.a, closed) < 0.02);
        REQUIRE(distanceToPolyline(l.b, closed) < 0.02);
        REQUIRE(l.a.x < l.b.x);  // from the left edge to the right one
      }
    }
  }
}

TEST_CASE("the order in which choices are made does not matter") {
  const std::vector<std::pair<std::string, std::string>> steps{
      {"hem.length", "6 in"}, {"top.shape", "sweetheart"}, {"opening.kind", "lacing"}, {"intake.waist", "2 in"}};
  Order forward = plainOrder(), backward = plainOrder();
  for (const auto& [key, value] : steps) forward.choices[key] = value;
  for (auto it = steps.rbegin(); it != steps.rend(); ++it) backward.choices[it->first] = it->second;
  CHECK(forward == backward);
  const Design a = *recalc(forward), b = *recalc(backward);
  for (size_t i = 0; i < a.pattern.pieces.size(); ++i) CHECK(a.cutOutlines[i] == b.cutOutlines[i]);
}
