// What the sheet must not pass over: movements that are not told, layers that differ from their shell, shoulders and
// armholes off the body; and what a garment must do at its ends.
#include <fmt/format.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "recalc/idle.h"
#include "rules/nearest.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order inStyle(const char* style, std::initializer_list<std::pair<const char*, const char*>> choices = {}) {
  Order o = orderWith(choices);
  o.style = style;
  o.choices.emplace("balance.keep", "balanced");
  return o;
}

const CheckRow* failing(const Design& d, CheckKind kind) {
  for (const CheckRow& r : d.sheet.rows)
    if (r.kind == kind && r.fails()) return &r;
  return nullptr;
}

double longestAway(const Path& a, const Path& b) {
  double most = 0;
  const std::vector<Vec2> line = b.flattened(0.02);
  for (int i = 0; i <= 60; ++i) {
    const Vec2 p = a.pointAt(a.length() * i / 60);
    double least = 1e9;
    for (size_t k = 0; k + 1 < line.size(); ++k) {
      const Vec2 d = line[k + 1] - line[k];
      const double t = std::clamp(dot(p - line[k], d) / std::max(dot(d, d), 1e-18), 0.0, 1.0);
      least = std::min(least, distance(p, line[k] + t * d));
    }
    most = std::max(most, least);
  }
  return most;
}

double edgeLength(const Pattern& p, const std::string& piece, const std::string& edge) {
  return pieceOf(p, piece).edge(edge).path.length();
}

}  // namespace

TEST_CASE(
    "every edge that differs from the draft is told, with its greatest distance; the summary is the largest of all") {
  for (const Preset& style : styleTable()) {
    const Design d = designOf(inStyle(std::string(style.id).c_str()));
    INFO(style.id);
    double largest = 0;
    for (size_t p = 0; p < d.pattern.shellPieces(); ++p)  // layers are made from the shell
      for (size_t e = 0; e < d.pattern.pieces[p].edges.size(); ++e) {
        const Edge &is = d.pattern.pieces[p].edges[e], &was = d.drafted->pieces[p].edges[e];
        const double away = std::max(longestAway(is.path, was.path), longestAway(was.path, is.path));
        if (away < 0.05) continue;
        largest = std::max(largest, away);
        const auto told = std::find_if(d.balanced->moves.begin(), d.balanced->moves.end(),
                                       [&](const EdgeMove& m) { return m.piece == p && m.edge == is.id; });
        INFO(d.pattern.pieces[p].id << "." << is.id << " " << away);
        REQUIRE(told != d.balanced->moves.end());
        CHECK(told->largest > away - 0.1);
        if (isFree(is.role)) CHECK(away < 6.1);  // beyond, the sheet would have failed
      }
    CHECK(d.balanced->certificate.largestMove > largest - 0.1);
    CHECK_FALSE(failing(d, CheckKind::FreeEdge));
  }
}

TEST_CASE("a free edge that is redrawn further than allowed fails, with what would help") {
  Order o = inStyle("covered-round", {{"balance.free_limit", "0.01 mm"}});
  const Design d = designOf(o);
  const CheckRow* row = failing(d, CheckKind::FreeEdge);
  REQUIRE(row);
  CHECK(row->limit == Approx(0.01));
  CHECK_FALSE(row->remedy.empty());
}

TEST_CASE("layers inside the cup are as long as the shell they lie on, once balanced") {
  for (const char* style : {"plunge-v-cups", "gathered-cup", "cup-two-pieces", "cup-three-pieces", "moulded-cup"}) {
    const Design d = designOf(inStyle(style, {{"cup.inside", "both"}}));
    INFO(style);
    REQUIRE_FALSE(d.pattern.layerLines.empty());
    for (const LayerLine& l : d.pattern.layerLines)
      CHECK(d.pattern.layerLength(l) == Approx(d.pattern.shellLength(l)).margin(1e-3));
    CHECK_FALSE(failing(d, CheckKind::Layer));
  }
  // Measured without the list of lines: both halves of the lining's cup line against the frame's.
  const Design d = designOf(inStyle("cup-two-pieces", {{"cup.inside", "lining"}}));
  CHECK(edgeLength(d.pattern, "cup-lining-inner", "cup-1") ==
        Approx(edgeLength(d.pattern, "front-1", "cup-1")).margin(0.01));
  CHECK(edgeLength(d.pattern, "cup-lining-outer", "cup-2") ==
        Approx(edgeLength(d.pattern, "front-2", "cup-2")).margin(0.01));
  CHECK(pieceOf(d.pattern, "cup-lining-inner").edge("cup-1").role == EdgeRole::Raw);  // caught in the seam, no hem
}

TEST_CASE("a layer that differs from its shell fails") {
  Design d = designOf(inStyle("cup-two-pieces", {{"cup.inside", "lining"}}));
  for (Piece& p : d.pattern.pieces)
    if (p.id == "cup-lining-inner")
      for (Edge& e : p.edges)
        if (e.id == "cup-1")
          e.path =
              e.path.transformed(Motion::translation({0, 0})) + Path::line(e.path.end(), e.path.end() + Vec2{2, 0});
  const Sheet sheet = balanceSheet({d.pattern, d.cutOutlines, d.block.intakes, d.body});
  CHECK(std::any_of(sheet.rows.begin(), sheet.rows.end(), [](const CheckRow& r) {
    return r.kind == CheckKind::Layer && r.fails() && r.amount == Approx(2);
  }));
}

TEST_CASE("a pad never runs over the shoulder") {
  const Design d = designOf(inStyle("strap-neckline", {{"cup.inside", "pad"}}));
  for (const char* id : {"pad-inner", "pad-outer"}) {
    const Piece& pad = pieceOf(d.pattern, id);
    for (const Edge& e : pad.edges) CHECK_FALSE(e.id.starts_with("shoulder"));
    double top = 1e9, bottom = -1e9;
    for (Vec2 p : pad.outline(0.1)) top = std::min(top, p.y), bottom = std::max(bottom, p.y);
    CHECK(bottom - top < 250);
  }
  CHECK(d.sheet.pass());
}

TEST_CASE("shoulder and armhole stay as long as on the body, whatever the lines take in on their way up") {
  for (const char* style : {"covered-round", "covered-v", "covered-square", "sweetheart-yoke", "plunge-net-yoke",
                            "strap-neckline", "sheer-inserts"}) {
    for (const char* held : {"", "2 in", "3 in"}) {
      Order o = inStyle(style);
      if (*held) o.choices["hold.top.princess"] = held;
      const auto made = recalc(o);
      if (!made.ok()) continue;  // refused with a reason
      INFO(style << " " << held);
      double shoulder[2] = {0, 0}, armhole[2] = {0, 0};
      for (const Seam& s : made->pattern.seams)
        if (s.id.starts_with("shoulder"))
          for (const SeamSide* side : {&s.a, &s.b})
            shoulder[made->pattern.pieces[side->piece].half == Half::Back] += made->pattern.sidePath(*side).length();
      for (const Piece& p : made->pattern.pieces)
        for (const Edge& e : p.edges)
          if (e.role == EdgeRole::Armhole && p.layer == "shell") armhole[p.half == Half::Back] += e.path.length();
      CHECK(shoulder[0] == Approx(shoulder[1]).margin(0.5));
      if (std::string(style) == "covered-round") {  // from the neck point to the shoulder point, as measured
        const double out = inches(7.5) - inches(3.25), down = inches(1);
        CHECK(shoulder[0] == Approx(std::hypot(out, down)).margin(*held ? 2.5 : 2));
      }
      for (const CheckRow& r : made->sheet.rows)
        if (r.kind == CheckKind::Body && r.verdict == Verdict::Fail) CHECK_FALSE(r.remedy.empty());
      if (!*held) CHECK_FALSE(failing(*made, CheckKind::Body));
    }
  }
}

TEST_CASE("what was measured of armhole and side is held against the pieces, as advice") {
  Order o = inStyle("covered-round");
  o.measures.set("armhole", {inches(26), "26 in"});
  o.measures.set("side_length", {inches(9), "9 in"});
  o.choices["side.school"] = "as-in-front";  // which leaves the side measured out of the draft
  const Design d = designOf(o);
  int told = 0;
  for (const CheckRow& r : d.sheet.rows)
    if (r.kind == CheckKind::Body && r.verdict == Verdict::Advice) {
      ++told;
      CHECK_FALSE(r.remedy.empty());
    }
  CHECK(told >= 2);
  CHECK(d.sheet.pass());  // advice keeps nothing from being cut
}

TEST_CASE("fuller busts are advised, not failed: all untouched styles on a cup of 14 cm") {
  Order o = inStyle("sweetheart-zip");
  for (const RealBody& body : realBodies()) {
    o.measures = measuresOf(body, 140);
    const auto made = recalc(o);
    if (!made.ok()) continue;
    INFO(body.upperBust);
    for (const CheckRow& r : made->sheet.rows)
      if (r.kind == CheckKind::Intake || r.kind == CheckKind::Curve) CHECK_FALSE(r.fails());
    CHECK(made->sheet.pass());
  }
}

TEST_CASE("the bust closes over a ready-made cup as drafted, but for what laying its halves together costs") {
  for (double bust : {36.0, 40.5, 44.0}) {
    Order o = inStyle("moulded-cup");
    o.choices["balance.keep"] = "drafted";
    o.measures.set("bust", {inches(bust), ""});
    o.measures.set("upper_bust", {inches(bust - 4), ""});
    o.measures.set("hip", {inches(bust + 2), ""});
    const auto made = recalc(o);
    REQUIRE(made.ok());
    for (const PatternLevel& l : made->pattern.levels)
      if (l.id == level::kBust) CHECK(std::abs(made->pattern.closedGirth(l) - l.finishedGirth) < 20);
    o.choices["balance.keep"] = "balanced";
    CHECK(designOf(o).sheet.pass());
  }
}

TEST_CASE("straight skirts stand upright from the hip, and pegs come in from there by what was asked") {
  const auto hemAndHip = [](const Order& o) {
    const Design d = designOf(o);
    double hem = 0, hip = 0;
    for (const Piece& p : d.pattern.pieces)
      for (const Edge& e : p.edges)
        if (e.role == EdgeRole::Hem && p.layer == "shell")
          hem += distance(e.path.start(), e.path.end()) * p.girthWeight();
    for (const PatternLevel& l : d.pattern.levels)
      if (l.id == level::kHip) hip = l.finishedGirth - l.gaps.swing;
    CHECK(d.sheet.pass());
    return std::pair{hem, hip};
  };
  for (const char* opening : {"zip", "lacing"}) {
    const auto [hem, hip] =
        hemAndHip(inStyle("straight-skirt", {{"opening.kind", opening}, {"skirt.kind", "straight"}}));
    INFO(opening);
    CHECK(hem == Approx(hip).margin(3));
    CHECK(hem < hip + 1);
    const auto [pegged, same] = hemAndHip(
        inStyle("straight-skirt",
                {{"opening.kind", opening}, {"skirt.kind", "peg"}, {"skirt.to", "knee"}, {"skirt.peg", "1.5 in"}}));
    CHECK(pegged == Approx(same - 4 * inches(1.5)).margin(6));
  }
}

TEST_CASE("an opening ends where it is told to: laced above, sewn below; under a yoke at the yoke") {
  const Design d =
      designOf(inStyle("straight-skirt", {{"opening.kind", "lacing"}, {"opening.end", "hip"}, {"waist.seam", "none"}}));
  const Piece& back = pieceOf(d.pattern, "back-1");
  CHECK(back.edge("opening").role == EdgeRole::Opening);
  CHECK(back.edge("centre-back").role == EdgeRole::Centre);
  CHECK(std::any_of(back.marks.begin(), back.marks.end(), [](const Mark& n) { return n.id == "opening-end"; }));
  for (const PatternLevel& l : d.pattern.levels) {
    if (l.id == level::kWaist) CHECK(l.gaps.opening == Approx(inches(2)).margin(0.1));
    if (l.id == level::kHip) CHECK(l.gaps.opening == Approx(0).margin(0.1));
  }
  CHECK(d.sheet.pass());
  const Design waist =
      designOf(inStyle("straight-skirt", {{"opening.kind", "zip"}, {"opening.end", "waist"}, {"waist.seam", "level"}}));
  for (const Piece& p : waist.pattern.pieces)
    if (p.id.starts_with("skirt"))
      for (const Edge& e : p.edges) CHECK(e.role != EdgeRole::Opening);
  const Design yoke = designOf(inStyle("sweetheart-yoke", {{"opening.kind", "lacing"}}));
  for (const PatternLevel& l : yoke.pattern.levels)
    if (l.id == level::kWaist) CHECK(l.gaps.opening == Approx(inches(2)).margin(0.1));
  CHECK(yoke.sheet.pass());
}

TEST_CASE("where a seam lands on a smooth line there is a notch: the cup's princess seam on frame and band") {
  const Design d = designOf(inStyle("cup-three-pieces", {{"cup.frame", "one-piece"}}));
  const auto marked = [&](const char* piece) {
    const Piece& p = pieceOf(d.pattern, piece);
    return std::count_if(p.marks.begin(), p.marks.end(), [](const Mark& n) { return n.id.starts_with("seam-"); });
  };
  CHECK(marked("front-1") >= 1);
  CHECK(marked("band-inner") >= 1);
}

TEST_CASE("a pattern with a mark on an edge that is gone is no pattern") {
  Design d = designOf(inStyle("sweetheart-yoke", {{"back.slope", "3.5 in"}}));
  CHECK_FALSE(patternProblem(d.pattern));
  Pattern broken = d.pattern;
  broken.pieces.front().marks.push_back(notchMark("lost", {"no-such-edge", 3}));
  CHECK(english(patternProblem(broken)->what).find("gone") != std::string::npos);
  broken = d.pattern;
  broken.pieces.front().marks.push_back(notchMark("far", {broken.pieces.front().edges.front().id, 1e6}));
  CHECK(patternProblem(broken));
  broken = d.pattern;
  broken.seams.front().a.chain.front().edge = "no-such-edge";
  CHECK(patternProblem(broken));
  broken = d.pattern;
  broken.seams.front().notches.front().a += 0.01;
  CHECK(english(patternProblem(broken)->what).find("not struck on both sides") != std::string::npos);
  broken = d.pattern;
  broken.pieces.front().edges.pop_back();
  CHECK(patternProblem(broken));
}

TEST_CASE("choices that were refused or dropped before are balanced: dependent rows, crumbs of cubics") {
  // Rows that follow from others, with sides that follow each other.
  Order o =
      inStyle("covered-square", {{"waist.seam", "level"}, {"seam.waist-1", "follow-b"}, {"seam.side", "follow-b"}});
  for (const RealBody& body : realBodies()) {
    o.measures = measuresOf(body, 80);
    const auto made = recalc(o);
    REQUIRE(made.ok());
    CHECK((made->balanced->certificate.converged || !made->balanced->unreachable.empty()));
  }
  // A level mark a thousandth of a millimetre beside a joint: a bridge of 1/8 in, a side of 1/16 in.
  for (const auto& [style, key] : {std::pair{"long-shaping-cups", "cup.bridge"}, {"covered-v", "top.side"}})
    for (int sixteenths = 2; sixteenths <= 8; ++sixteenths) {
      const auto made = recalc(inStyle(style, {{key, fmt::format("{}/16 in", sixteenths).c_str()}}));
      if (!made.ok()) continue;
      INFO(style << " " << sixteenths);
      CHECK(made->balanced->certificate.converged);
    }
}

TEST_CASE("every key of a length keeps every spelling in one form that is read back in any unit") {
  for (const RuleInfo& rule : ruleTable()) {
    if (rule.kind != RuleKind::Length) continue;
    const double inchValue = std::clamp(1.5, rule.lowest / kMmPerInch, rule.highest / kMmPerInch);
    const std::string decimal = fmt::format("{:.4f}", inchValue);
    std::string comma = decimal;
    std::replace(comma.begin(), comma.end(), '.', ',');
    for (const std::string& text : {decimal, comma, decimal + " ", "\t" + decimal, decimal + "″", decimal + " in ",
                                    decimal + "\xC2\xA0in", fmt::format("{:.3f}cm", inchValue * 2.54)}) {
      const Result<std::string> kept = checkChoice(rule.key, text, Unit::Inch);
      if (!kept.ok()) continue;  // rounded past a bound
      INFO(rule.key << " " << text);
      CHECK(checkChoice(rule.key, *kept, Unit::Millimetre).value() == *kept);
      CHECK(*parseLength(*kept, Unit::Millimetre) == Approx(*parseLength(text, Unit::Inch)).margin(1e-9));
    }
  }
  CHECK_FALSE(checkChoice("intake.centre_share", "0.04 cm", Unit::Inch).ok());  // a share has no unit
}

TEST_CASE("what may have been meant is the nearest word") {
  // F. J. Damerau 1964: one letter wrong, missing, too many, or two exchanged are four fifths of all slips.
  CHECK(editDistance("hem.lenght", "hem.length") == 1);
  CHECK(editDistance("waist", "wiast") == 1);
  CHECK(editDistance("kitten", "sitting") == 3);
  CHECK(editDistance("", "abc") == 3);
  CHECK(*nearest("pricness", {"side", "princess", "back-line"}) == "princess");
  CHECK_FALSE(nearest("zzzzzz", {"side", "princess"}));
}

TEST_CASE("idle is what changes nothing; what counts is not called so") {
  const auto keys = [](const Order& o) {
    std::vector<std::string> all;
    for (const Idle& i : idleIn(o, designOf(o))) all.push_back(i.key);
    return all;
  };
  const auto has = [](const std::vector<std::string>& all, const char* key) {
    return std::find(all.begin(), all.end(), key) != all.end();
  };
  const auto idle =
      keys(inStyle("covered-round", {{"intake.top", "2 in"}, {"seam.cup-1", "both"}, {"hem.length", "4 in"}}));
  CHECK(has(idle, "intake.top"));
  CHECK(has(idle, "seam.cup-1"));
  CHECK_FALSE(has(idle, "hem.length"));
  // A choice that agrees with the rule is not idle: another would change something.
  CHECK_FALSE(has(keys(inStyle("sweetheart-zip", {{"top.shape", "sweetheart"}})), "top.shape"));
}
