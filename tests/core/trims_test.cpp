// What is sewn on: lines and stretches, frills and flounces against their formulas, on real bodies; what is left out.
// Radii of rings: common practice, no source; arc length of Archimedes' spiral, and of circles, by numerical quadrature
// of a reference library (Boost.Math, gauss_kronrod).
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numbers>

#include "garment/trim_makers.h"
#include "parts/trims/handles.h"
#include "prepare/lists.h"
#include "recalc/idle.h"
#include "recalc/recalc.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/sewn_on.h"

using namespace armure;
using namespace armure::testing;

TEST_CASE("a frill is as full as it is said, in lengths the cloth can give") {
  const Design d =
      recalc(sewnOn(plainOrder(), {{"frill.1.on", "top"}, {"frill.1.full", "2.5"}, {"frill.1.deep", "3"}})).value();
  const Piece& strip = pieceOf(d, "frill-1");
  const double edge = wholeStretch(d, "frill-1");
  CHECK(sewnLength(d, "frill-1") == Approx(2.5 * edge).margin(0.1));
  CHECK(strip.edge("end").path.length() == Approx(inches(3)));
  CHECK(strip.edge("sewn").path.length() <= inches(54 - 1));
  CHECK(strip.copies == std::ceil(2.5 * edge / inches(53)));
  CHECK(std::ranges::distance(strip.notches()) == 3);
  CHECK_FALSE(patternProblem(d.pattern));
  // Counted among what is cut, on the cloth of the shell, in a cloth of its own where one is chosen.
  const CutList list = pieceList(d.pattern, d.rules);
  const auto cut = std::ranges::find(list.pieces, "frill-1", &CutPiece::id);
  REQUIRE(cut != list.pieces.end());
  CHECK(cut->cloth == "satin");
  Order lace = sewnOn(plainOrder(), {{"frill.1.on", "top"}, {"cloth.of.frill-1", "velvet"}});
  const Design of = recalc(lace).value();
  CHECK(clothOf(pieceOf(of, "frill-1"), "trim", of.rules) == "velvet");
}

TEST_CASE("pleats take what their depth and count say, and by fullness their depth follows") {
  for (const auto& [how, times] : {std::pair{"knife", 2.0}, {"box", 4.0}}) {
    INFO(how);
    const Design d =
        recalc(
            sewnOn(plainOrder(),
                   {{"frill.1.on", "hem"}, {"frill.1.how", how}, {"frill.1.pleat", "1/2"}, {"frill.1.pleats", "24"}}))
            .value();
    const Piece& strip = pieceOf(d, "frill-1");
    const double edge = wholeStretch(d, "frill-1");
    const auto notches = std::ranges::distance(strip.notches());
    const double pleats = strip.copies * static_cast<double>(notches) / (times == 2 ? 2 : 4);
    CHECK(pleats == Approx(24).margin(strip.copies));
    CHECK(sewnLength(d, "frill-1") == Approx(edge + pleats * times * inches(0.5)).margin(0.1));
    // The two lines of a knife pleat lie apart by twice its depth.
    std::vector<double> at;
    for (const Mark& n : strip.notches()) at.push_back(n.a.at);
    std::ranges::sort(at);
    CHECK(at[1] - at[0] == Approx(inches(1)));
    CHECK(at.back() < strip.edge("sewn").path.length());
  }
  const Design full =
      recalc(sewnOn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.how", "knife"}, {"frill.1.full", "3"}})).value();
  CHECK(sewnLength(full, "frill-1") == Approx(3 * wholeStretch(full, "frill-1")).margin(0.1));
  // The fold lies before the line it is laid to, or behind it.
  for (const auto& [lie, first] : {std::pair{"to-end", false}, {"to-start", true}}) {
    const Design d =
        recalc(sewnOn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.how", "knife"}, {"frill.1.lie", lie}})).value();
    const auto before = [](const Mark* a, const Mark* b) { return a->a.at < b->a.at; };
    std::vector<const Mark*> notches;
    for (const Mark& n : pieceOf(d, "frill-1").notches()) notches.push_back(&n);
    std::ranges::sort(notches, before);
    CHECK(notches[0]->doubled == first);
    CHECK(notches[1]->doubled != first);
  }
  const Order over = sewnOn(
      plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.how", "box"}, {"frill.1.pleat", "4"}, {"frill.1.pleats", "40"}});
  CHECK(idleReason(over, "frill.1.on").find("over each other") != std::string::npos);
}

TEST_CASE("a double frill is cut twice as deep; interfacing covers its finished depth") {
  const Design d = recalc(sewnOn(plainOrder(), {{"frill.1.on", "top"},
                                                {"frill.1.cut", "folded"},
                                                {"frill.1.deep", "10"},
                                                {"frill.1.full", "3"},
                                                {"frill.1.stiff", "interfaced"}}))
                       .value();
  CHECK(pieceOf(d, "frill-1").edge("end").path.length() == Approx(inches(20)));
  CHECK(pieceOf(d, "frill-1").edge("free").role == EdgeRole::Raw);
  const Piece& stiff = pieceOf(d, "interfacing-frill-1");
  CHECK(stiff.layer == "interfacing");
  CHECK(stiff.edge("end").path.length() == Approx(inches(10)));
  CHECK(stiff.copies == pieceOf(d, "frill-1").copies);
}

TEST_CASE("the inner edge of a ring is the edge it is sewn to, its area that of a ring") {
  for (const char* cut : {"rings", "halves"}) {
    for (const char* turns : {"0.4", "1", "1.5", "3"}) {
      INFO(cut << " " << turns);
      const Design d = recalc(sewnOn(plainOrder(), {{"flounce.1.on", "hem"},
                                                    {"flounce.1.turns", turns},
                                                    {"flounce.1.long", "8"},
                                                    {"flounce.1.cut", cut}}))
                           .value();
      const Piece& ring = pieceOf(d, "flounce-1");
      const double edge = wholeStretch(d, "flounce-1"), each = edge / ring.copies;
      CHECK(sewnLength(d, "flounce-1") == Approx(edge).margin(0.1));
      const double outer = ring.edge("free").path.length(), inner = ring.edge("sewn").path.length();
      // A sector of angle a between radii r and R = r + l: outer - inner = a l, area = (outer + inner) / 2 * l.
      const double angle = (outer - inner) / inches(8), radius = inner / angle;
      CHECK(std::abs(signedArea(ring.outline(0.001))) == Approx((outer + inner) / 2 * inches(8)).epsilon(1e-5));
      CHECK(radius == Approx(each / angle).epsilon(1e-6));
      // Slit open, a whole turn is laid so much wider as its allowances need at the inner edge.
      const double asked = std::atof(turns) * 2 * std::numbers::pi / ring.copies;
      CHECK(angle <= asked + 1e-6);
      CHECK(isSimple(d.cutOutlines[static_cast<size_t>(&ring - d.pattern.pieces.data())]));
      if (asked < 5.5) CHECK(radius == Approx(edge / (2 * std::numbers::pi * std::atof(turns))).margin(0.01));
    }
  }
}

TEST_CASE("a spiral's inner edge is as long as the edge, its turns clear of each other") {
  const Design d = recalc(sewnOn(plainOrder(), {{"flounce.1.on", "hem"},
                                                {"flounce.1.turns", "1"},
                                                {"flounce.1.long", "2"},
                                                {"flounce.1.cut", "spiral"}}))
                       .value();
  const Piece& p = pieceOf(d, "flounce-1");
  const double edge = wholeStretch(d, "flounce-1");
  CHECK(p.copies == 1);
  CHECK(p.edge("sewn").path.length() == Approx(edge).margin(0.1));
  CHECK(isSimple(p.outline(0.05)));
  CHECK(isSimple(d.cutOutlines[static_cast<size_t>(&p - d.pattern.pieces.data())]));
  // Against numerical quadrature of sqrt(r^2 + b^2), r from the drawn ends.
  const double rise = (inches(2) + inches(0.5) + inches(0.375) + 0.5) / (2 * std::numbers::pi),
               turn = 2 * std::numbers::pi;
  const auto lengthFrom = [&](double r0) {
    return boost::math::quadrature::gauss_kronrod<double, 31>::integrate(
        [&](double phi) { return std::hypot(r0 + rise * phi, rise); }, 0.0, turn, 15, 1e-12);
  };
  const auto working = std::ranges::find(d.pattern.workings, "trim.flounce-1", &Working::key);
  REQUIRE(working != d.pattern.workings.end());
  CHECK(lengthFrom(working->result) == Approx(edge).margin(0.01));
}

TEST_CASE("a flounce that grows is as long at either end as it is said, and cut in pairs") {
  const Design d = recalc(sewnOn(plainOrder(), {{"flounce.1.on", "hem"},
                                                {"flounce.1.long", "4"},
                                                {"flounce.1.grows", "6"},
                                                {"flounce.1.turns", "1"}}))
                       .value();
  const Piece& p = pieceOf(d, "flounce-1");
  CHECK(p.symmetry == Symmetry::Pair);
  CHECK(p.copies == 2);
  CHECK(p.edge("start").path.length() == Approx(inches(4)).margin(0.01));
  CHECK(p.edge("end").path.length() == Approx(inches(10)).margin(0.01));
  CHECK(sewnLength(d, "flounce-1") == Approx(wholeStretch(d, "flounce-1")).margin(0.1));
}

TEST_CASE("a trim begins and ends between the marks it is given, on as many sides as it has") {
  const Order all = sewnOn(plainOrder(), {{"frill.1.on", "hem"}});
  const Design d = recalc(all).value();
  const std::vector<GarmentLine> lines = garmentLines(d.pattern);
  const auto hem = std::ranges::find(lines, "hem", &GarmentLine::id);
  REQUIRE(hem != lines.end());
  CHECK(hem->marks.front().id == "start");
  CHECK(hem->marks.back().at == Approx(hem->length()));
  CHECK(hem->runsOver[0]);  // on the fold in front
  const auto side = std::ranges::find(hem->marks, "side", &LineMark::id);
  REQUIRE(side != hem->marks.end());
  const Design part =
      recalc(
          sewnOn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.from", "side - 2"}, {"frill.1.to", "side + 1 1/2"}}))
          .value();
  CHECK(wholeStretch(part, "frill-1") == Approx(2 * inches(3.5)));
  CHECK(pieceOf(part, "frill-1").copies % 2 == 0);  // one on either side
  const Design front = recalc(sewnOn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.to", "side"}})).value();
  CHECK(wholeStretch(front, "frill-1") == Approx(2 * side->at));
  CHECK(pieceOf(front, "frill-1").copies % 2 == std::lround(std::ceil(2.5 * 2 * side->at / inches(53))) % 2);
  // It follows its edge.
  Order longer = all;
  longer.choices["hem.length"] = "6 in";
  CHECK(wholeStretch(recalc(longer).value(), "frill-1") > wholeStretch(d, "frill-1") + 5);
  CHECK(placeAlong(*hem, side->at + 1, 3) == "side");
  CHECK(placeAlong(*hem, 50, 3) == "start + 50.0 mm");
}

TEST_CASE("what cannot be sewn on is left out and says why") {
  CHECK(idleReason(sewnOn(plainOrder(), {{"frill.1.on", "armhole"}}), "frill.1.on").find("no line") !=
        std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.from", "elbow"}}), "frill.1.on")
            .find("no mark") != std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"frill.1.deep", "4"}}), "frill.1.deep").find("sewn to nothing") !=
        std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"flounce.1.on", "hem"}, {"flounce.1.turns", "12"}, {"flounce.1.seam", "2"}}),
                   "flounce.1.on")
            .find("too short") != std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"frill.1.on", "hem"}, {"frill.1.pleat", "1"}}), "frill.1.pleat")
            .find("beside other choices") != std::string::npos);
  CHECK(idleReason(sewnOn(plainOrder(), {{"frill.1.on", "hem"}}), "frill.1.on").empty());
  for (const auto& [key, value] : {std::pair{"frill.1.full", "0.5"},
                                   {"frill.1.how", "tucked"},
                                   {"frill.1.on", "Hem!"},
                                   {"frill.1.from", "side + far"},
                                   {"frill.1.from", "side + -3"}})
    CHECK_FALSE(checkChoice(key, value, Unit::Inch).ok());
  CHECK_FALSE(isChoiceKey("frill.1.sleeve"));
  CHECK_FALSE(isChoiceKey("ruff.1.on"));
  CHECK(english(trimKeyName(*parseTrimKey("frill.neck.deep"))) == "Frill neck: Deep");
}

TEST_CASE("a sleeve's cap is the armhole with its ease, front and back, and both notches meet") {
  const std::vector<RealBody> bodies = realBodies();
  const char* const styles[] = {"covered-round",   "covered-v",     "covered-square",
                                "sweetheart-yoke", "blouse-flared", "covered-gored"};
  for (size_t b = 0; b < bodies.size(); b += 16)
    for (const char* style : styles) {
      INFO(style << " " << b);
      Order order;
      order.style = style;
      order.measures = allMeasuresOf(bodies[b], 120);
      order = sewnOn(order, {{"sleeve.1.on", "armhole"}, {"sleeve.1.ease", "1 1/4"}, {"sleeve.1.notch", "3"}});
      const Design d = recalc(order).value();
      const Piece& sleeve = pieceOf(d, "sleeve-1");
      const Path &front = sleeve.edge("cap-front").path, &back = sleeve.edge("cap-back").path;
      // The armhole measured again, half by half.
      double armhole[2] = {0, 0};
      for (size_t i = 0; i < d.pattern.shellPieces(); ++i)
        for (const Edge& e : d.pattern.pieces[i].edges)
          if (e.role == EdgeRole::Armhole) armhole[d.pattern.pieces[i].half == Half::Back] += e.path.length();
      const double whole = armhole[0] + armhole[1];
      CHECK(front.length() + back.length() == Approx(whole + inches(1.25)).margin(0.1));
      CHECK(front.length() == Approx(armhole[0] * (1 + inches(1.25) / whole)).margin(0.1));
      // Below the notches cap and armhole are alike.
      int notches = 0;
      for (const Attachment& a : d.pattern.attachments)
        if (a.trim == "sleeve-1" && std::abs(a.full - 1) < 1e-9) ++notches;
      CHECK(notches >= 2);
      for (const Mark& n : sleeve.notches()) {
        if (n.id == "front") CHECK(n.a.at == Approx(inches(3)).margin(0.5));
        if (n.id == "back") CHECK(back.length() - n.a.at == Approx(inches(3)).margin(0.5));
      }
      CHECK(sleeve.edge("under-front").path.length() == Approx(sleeve.edge("under-back").path.length()).margin(0.01));
      CHECK(distance(front.start(), back.end()) == Approx(d.body.mm("bicep") + inches(2)).margin(0.01));
      CHECK(std::abs(front.endTangent().y) < 1e-9);  // no point at the crown
    }
}

TEST_CASE("a collar's neck edge is the neckline, its free edge as much shorter or longer as is said") {
  for (const auto& [shape, differs] : {std::pair{"stand", -inches(1) / 2}, {"turned", inches(3) / 2}}) {
    INFO(shape);
    Order order = sewnOn(plainOrder(), {{"collar.1.on", "top"},
                                        {"collar.1.shape", shape},
                                        {"collar.1.high", "2"},
                                        {"collar.1.overlap", "0"},
                                        {"collar.1.wider", "3"}});
    order.style = "covered-round";
    const Design d = recalc(order).value();
    const Piece& collar = pieceOf(d, "collar-1");
    const double neck = wholeStretch(d, "collar-1") / 2;
    CHECK(collar.symmetry == Symmetry::OnFold);
    CHECK(collar.edge("sewn").path.length() == Approx(neck).margin(0.1));
    CHECK(collar.edge("free").path.length() == Approx(neck + differs).margin(0.1));
    CHECK(collar.edge("end").path.length() == Approx(inches(2)).margin(0.01));
    CHECK(pieceOf(d, "collar-1-under").edge("sewn").path.length() == Approx(neck).margin(0.1));
    CHECK_FALSE(patternProblem(d.pattern));
  }
  Order flat = sewnOn(plainOrder(), {{"collar.1.on", "top"}, {"collar.1.tighter", "0"}, {"collar.1.overlap", "1"}});
  flat.style = "covered-round";
  const Piece straight = pieceOf(recalc(flat).value(), "collar-1");
  CHECK(straight.edge("free").path.length() == Approx(straight.edge("sewn").path.length() + inches(1)).margin(0.1));
  Order closed = sewnOn(
      plainOrder(),
      {{"collar.1.on", "top"}, {"collar.1.high", "1/2"}, {"collar.1.shape", "turned"}, {"collar.1.wider", "24"}});
  closed.style = "covered-round";
  CHECK(idleReason(closed, "collar.1.on").find("cannot differ") != std::string::npos);
}

TEST_CASE("on every style the sewn edges fit to a tenth of a millimetre, and the sheet says so") {
  const std::vector<RealBody> bodies = realBodies();
  size_t b = 5;
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    Order order;
    order.style = std::string(style.id);
    order.measures = allMeasuresOf(bodies[b = (b + 17) % bodies.size()], 140);
    const Result<Design> bare = recalc(order);
    if (!bare.ok()) continue;
    for (const GarmentLine& line : garmentLines(bare->pattern)) {
      order.choices["frill.1.on"] = line.id;
      order.choices["flounce.1.on"] = line.id;
      const Result<Design> d = recalc(order);
      REQUIRE(d.ok());
      CHECK_FALSE(patternProblem(d->pattern));
      for (const char* id : {"frill-1", "flounce-1"})
        CHECK(sewnLength(*d, id) == Approx((id[1] == 'r' ? 2.5 : 1) * wholeStretch(*d, id)).margin(0.1));
      for (const CheckRow& r : d->sheet.rows)
        if (r.kind == CheckKind::Trim) CHECK(r.passes());
      CHECK(d->sheet.failing() == bare->sheet.failing());
    }
  }
}
