// Balancing: every seam fits and every girth is right with the smallest movement; derivatives against differences.
#include <Eigen/Core>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "balance/balance.h"
#include "balance/moving_edge.h"
#include "balance/walk.h"
#include "operations/crossing.h"
#include "pattern/marks.h"
#include "prepare/cut_outlines.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

Sheet sheetOf(const Design& d, const Balanced& b) {
  return balanceSheet({b.pattern, cutOutlines(b.pattern), d.block.intakes, d.body});
}

// Failing rows of the kinds that balancing answers for.
std::vector<std::string> failing(const Sheet& sheet) {
  std::vector<std::string> all;
  for (const CheckRow& r : sheet.rows) {
    const bool mine = r.kind == CheckKind::Stretch || r.kind == CheckKind::Seam || r.kind == CheckKind::Girth ||
                      r.kind == CheckKind::Join || r.kind == CheckKind::Corner;
    if (mine && r.fails()) all.push_back(english(r.subject));
  }
  return all;
}

BalanceOptions allSeams(const Pattern& p, SeamWish wish) {
  BalanceOptions options;
  for (const Seam& s : p.seams) options.seams[s.id] = {wish};
  return options;
}

}  // namespace

TEST_CASE("balanced, every stretch, seam, girth, join and corner passes, and the certificate says how") {
  std::vector<double> moves;
  for (const Order& o : randomOrders(120, 91)) {
    const auto made = recalc(o);
    if (!made.ok()) continue;
    const Balanced b = balance(made->pattern);
    INFO(o.title << " " << o.style);
    CHECK(b.unreachable.empty());
    CHECK(b.certificate.converged);
    CHECK(b.certificate.worstStretch < 1e-7);
    CHECK(b.certificate.worstGirth < 1e-7);
    CHECK(b.certificate.stationarity < 1e-4);
    for (const std::string& row : failing(sheetOf(*made, b))) CHECK(row == "");
    for (const Piece& p : b.pattern.pieces)
      for (size_t i = 0; i < p.edges.size(); ++i)
        CHECK(distance(p.edges[i].path.end(), p.edges[(i + 1) % p.edges.size()].path.start()) < 1e-9);
    moves.push_back(b.certificate.largestMove);
  }
  std::sort(moves.begin(), moves.end());
  WARN("largest movement, mm: median " << moves[moves.size() / 2] << ", 95 % " << moves[moves.size() * 95 / 100]
                                       << ", most " << moves.back());
  CHECK(moves.size() > 100);
  CHECK(moves[moves.size() / 2] < 3);
  CHECK(moves.back() < 15);
}

TEST_CASE("folds, openings and centre seams do not move") {
  for (const char* style : {"reducing-four-lines", "shaping-front-laced", "sweetheart-zip"}) {
    Order o = plainOrder();
    o.style = style;
    const Design d = designOf(o);
    const Balanced b = balance(d.pattern);
    for (size_t i = 0; i < d.pattern.pieces.size(); ++i)
      for (const Edge& e : d.pattern.pieces[i].edges)
        if (e.role == EdgeRole::Fold || e.role == EdgeRole::Opening || e.role == EdgeRole::Centre)
          CHECK(b.pattern.pieces[i].edge(e.id).path.cubics() == e.path.cubics());
  }
}

TEST_CASE("what is balanced already does not move") {
  const Design d = designOf(plainOrder());
  const Balanced once = balance(d.pattern), twice = balance(once.pattern);
  CHECK(once.certificate.largestMove > 0.1);
  CHECK(twice.certificate.largestMove < 1e-3);
  CHECK(twice.moves.empty());
}

TEST_CASE("the movement is the smallest: another point that fits as well has moved no less") {
  // Any other feasible point: the same problem started from edges that were pushed about, measured from the draft.
  const Design d = designOf(plainOrder());
  const Balanced best = balance(d.pattern);
  const auto energy = [&](const Pattern& p) {
    double sum = 0;
    for (size_t i = 0; i < p.pieces.size(); ++i)
      for (const Edge& e : p.pieces[i].edges) {
        if (e.role != EdgeRole::Seam) continue;
        const Path& was = d.pattern.pieces[i].edge(e.id).path;
        for (int k = 0; k <= 40; ++k) {
          const double off = distance(e.path.pointAt(e.path.length() * k / 40), was.pointAt(was.length() * k / 40));
          sum += off * off;
        }
      }
    return sum;
  };
  const double least = energy(best.pattern);
  Dice dice(8);
  for (int round = 0; round < 10; ++round) {
    Pattern pushed = d.pattern;
    for (Piece& p : pushed.pieces)
      for (Edge& e : p.edges) {
        if (e.role != EdgeRole::Seam) continue;
        const MovingEdge edge(e.path, {});
        Eigen::VectorXd x = Eigen::VectorXd::Zero(edge.unknowns());
        for (Eigen::Index j = 1; j + 1 < edge.unknowns() / 4; ++j) {
          x(4 * j) = dice.between(-1.5, 1.5);
          x(4 * j + 1) = dice.between(-1.5, 1.5);
        }
        const Path moved = edge.path(x);
        const double stretched = moved.length() / e.path.length();
        for (Mark& n : p.notches())
          if (n.a.edge == e.id) n.a.at *= stretched;
        e.path = moved;
      }
    for (Piece& p : pushed.pieces)  // its levels no longer lie where they did
      std::erase_if(p.marks, [](const Mark& m) { return m.isLevel(); });
    for (PatternLevel& l : pushed.levels) l.ring = false;
    for (Seam& s : pushed.seams)
      for (SeamNotch& n : s.notches) {
        const auto scale = [&](const SeamSide& side) {
          return pushed.sidePath(side).length() / d.pattern.sidePath(side).length();
        };
        n.a *= scale(s.a);
        n.b *= scale(s.b);
      }
    CHECK(energy(balance(pushed).pattern) > least);
  }
}

TEST_CASE("one side follows the other: the leader does not move, the seam fits all the same") {
  const Design d = designOf(plainOrder());
  for (const SeamWish wish : {SeamWish::FollowA, SeamWish::FollowB}) {
    BalanceOptions options;
    options.seams["princess"] = {wish};
    const Balanced b = balance(d.pattern, options);
    CHECK(failing(sheetOf(d, b)).empty());
    const Seam& seam = d.pattern.seams[0];
    const SeamSide& leader = wish == SeamWish::FollowA ? seam.a : seam.b;
    CHECK(b.pattern.sidePath(leader).cubics() == d.pattern.sidePath(leader).cubics());
  }
}

TEST_CASE("a seam that is left stays as it was and fails as it did; the others fit") {
  const Design d = designOf(plainOrder());
  BalanceOptions options;
  options.seams["princess"] = {SeamWish::Leave};
  const Balanced b = balance(d.pattern, options);
  for (const SeamSide* side : {&d.pattern.seams[0].a, &d.pattern.seams[0].b})
    CHECK(b.pattern.sidePath(*side).cubics() == d.pattern.sidePath(*side).cubics());
  const auto rows = failing(sheetOf(d, b));
  CHECK_FALSE(rows.empty());
  for (const std::string& row : rows) CHECK(row.find("Princess") != std::string::npos);
}

TEST_CASE("planned ease is kept, a wrong girth is put right, and what cannot be reached is named") {
  const Design d = designOf(plainOrder());
  Pattern eased = d.pattern;
  eased.seams[1].eases = {{"top", "hem", 3}};
  const Balanced b = balance(eased);
  CHECK(b.certificate.converged);
  const auto length = [](const Balanced& r, const SeamSide& side) { return r.pattern.sidePath(side).length(); };
  CHECK(length(b, eased.seams[1].a) - length(b, eased.seams[1].b) == Approx(3).margin(1e-6));

  Pattern wide = d.pattern;
  for (PatternLevel& l : wide.levels)
    if (l.id == "waist") l.finishedGirth += 6;
  const Balanced closed = balance(wide);
  for (const PatternLevel& l : closed.pattern.levels)
    if (l.id == "waist") CHECK(closed.pattern.closedGirth(l) == Approx(l.finishedGirth).margin(1e-6));

  const Balanced stuck = balance(wide, allSeams(wide, SeamWish::Leave));
  REQUIRE(stuck.unreachable.size() == 1);
  const std::string said = english(wordsOf(stuck.unreachable[0], wide).line());
  CHECK(said.find("Waist girth: 6.0 mm") != std::string::npos);
  CHECK(said.find("the side edge of the side front") != std::string::npos);
}

TEST_CASE("the order keeps the balanced pieces when it says so, and which side gives way") {
  Order o = plainOrder();
  const Design drafted = designOf(o);
  CHECK_FALSE(drafted.balanced);
  o.choices["balance.keep"] = "balanced";
  o.choices["seam.princess"] = "follow-a";
  const Design kept = designOf(o);
  REQUIRE(kept.balanced);
  REQUIRE(kept.drafted);
  CHECK(failing(kept.sheet).empty());
  CHECK(kept.pattern.sidePath(kept.pattern.seams[0].a).cubics() ==
        drafted.pattern.sidePath(drafted.pattern.seams[0].a).cubics());
  CHECK(checkChoice("seam.side", "leave", Unit::Inch).ok());
  CHECK(checkChoice("seam.side", "ease  bust underbust", Unit::Inch).value() == "ease bust underbust");
  CHECK_FALSE(checkChoice("seam.side", "ease waist bust", Unit::Inch).ok());  // from the top down
  CHECK(checkChoice("lock.front-2.side", "yes", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("lock.front-2.side", "perhaps", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("lock.Front 2.side", "yes", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("seam.side", "glue", Unit::Inch).ok());
  CHECK_FALSE(checkChoice("seam.", "leave", Unit::Inch).ok());
}

TEST_CASE("an edge that is held does not move; the other side makes the seam fit") {
  const Design d = designOf(plainOrder());
  BalanceOptions options;
  options.locks = {{"front-1", "princess"}};
  const Balanced b = balance(d.pattern, options);
  CHECK(failing(sheetOf(d, b)).empty());
  CHECK(b.pattern.pieces[0].edge("princess").path.cubics() == d.pattern.pieces[0].edge("princess").path.cubics());

  // The other side is asked to lead, and this one is held: both stay, and the two choices are named.
  options.seams["princess"] = {SeamWish::FollowB};
  const Balanced stuck = balance(d.pattern, options);
  REQUIRE_FALSE(stuck.unreachable.empty());
  for (const Unreachable& u : stuck.unreachable) {
    CHECK(u.seam == "princess");
    CHECK(u.held == std::vector<EdgeName>{{"front-1", "princess"}, {"front-2", "princess"}});
    const std::string text = english(wordsOf(u, d.pattern).line());
    CHECK(text.find("Princess seam") != std::string::npos);
    CHECK(text.find("the princess edge of the centre front") != std::string::npos);
    CHECK(text.find("the princess edge of the side front") != std::string::npos);
  }
  CHECK_FALSE(stuck.certificate.converged);
}

TEST_CASE("a difference is kept as ease between two notches, up to the limit") {
  const Design d = designOf(plainOrder());
  const Seam& seam = d.pattern.seams[0];
  double drafted = 0;
  for (const Stretch& s : walk(d.pattern, seam).stretches)
    if (s.from == "bust" && s.to == "underbust") drafted = s.mismatch();
  REQUIRE(std::abs(drafted) > 0.6);  // worth easing
  BalanceOptions options;
  options.seams[seam.id] = {SeamWish::Ease, "bust", "underbust"};
  for (const double limit : {20.0, 0.25}) {
    options.easeLimit = limit;
    const Balanced b = balance(d.pattern, options);
    CHECK(failing(sheetOf(d, b)).empty());
    for (const Stretch& s : walk(b.pattern, b.pattern.seams[0]).stretches) {
      const bool here = s.from == "bust";
      CHECK(s.mismatch() == Approx(0).margin(1e-6));
      CHECK(std::abs(s.plannedEase) == Approx(here ? std::min(limit, std::abs(drafted)) : 0).margin(1e-6));
    }
    CHECK(std::abs(b.pattern.seams[0].ease()) <= limit + 1e-9);
  }
}

TEST_CASE("trimmed at one end, the seam fits, no line is bent, and the cut is told") {
  const Design d = designOf(plainOrder());
  for (const SeamWish wish : {SeamWish::TrimTop, SeamWish::TrimHem}) {
    BalanceOptions options = allSeams(d.pattern, SeamWish::Leave);
    options.seams["side"] = {wish};
    Pattern uneven = d.pattern;  // the side of the back left longer, as a draft without trimming would
    Piece& back = uneven.pieces[2];
    for (Edge& e : back.edges)
      if (e.id == "side") {
        const Vec2 down = e.path.startTangent();
        const Vec2 corner = e.path.start() - 4 * down;
        e.path = Path::line(corner, e.path.start()) + e.path;
        carryMarks(back, {{.was = "side", .is = "side", .start = 4}});
        for (Edge& hem : back.edges)
          if (hem.role == EdgeRole::Hem) hem.path = Path::line(hem.path.start(), corner);
      }
    const Balanced b = balance(uneven, options);
    const Walk w = walk(b.pattern, b.pattern.seams[1]);
    CHECK(w.mismatch() == Approx(0).margin(1e-9));
    for (const Stretch& s : w.stretches) CHECK(s.mismatch() == Approx(0).margin(1e-6));
    REQUIRE(b.pattern.trims.size() > d.pattern.trims.size());
    CHECK(b.pattern.trims.back().amount == Approx(4).margin(0.01));
    CHECK(b.pattern.trims.back().atTop == (wish == SeamWish::TrimTop));
    CHECK(b.pattern.trims.back().piece == 2);
    // Side a is as it was.
    CHECK(b.pattern.sidePath(b.pattern.seams[1].a).cubics() == d.pattern.sidePath(d.pattern.seams[1].a).cubics());
    for (const Piece& p : b.pattern.pieces)
      for (size_t i = 0; i < p.edges.size(); ++i)
        CHECK(distance(p.edges[i].path.end(), p.edges[(i + 1) % p.edges.size()].path.start()) < 1e-9);
  }
}

TEST_CASE("each movement says what asked for it") {
  const Design d = designOf(plainOrder());
  const Balanced b = balance(d.pattern);
  REQUIRE_FALSE(b.moves.empty());
  for (const EdgeMove& m : b.moves) {
    INFO(m.edge << " " << m.why);
    const bool free = isFree(b.pattern.pieces[m.piece].edge(m.edge).role);
    const bool asked =
        english(m.why).find(" to ") != std::string::npos || english(m.why).find("girth") != std::string::npos;
    CHECK((free ? m.why == "the corners beside it" : asked));
    CHECK(m.seam.empty() == free);
    CHECK(m.across <= m.largest + 0.5);
  }
}

TEST_CASE("whatever is wished of every seam, what can fit fits, what is left stays, and the rest is named") {
  Dice dice(77);
  const auto pick = [&](size_t n) { return static_cast<size_t>(dice.between(0, 0.999999) * static_cast<double>(n)); };
  size_t fitted = 0, named = 0;
  for (const Order& o : randomOrders(60, 78)) {
    const auto made = recalc(o);
    if (!made.ok()) continue;
    BalanceOptions options;
    std::string wishes;
    for (const Seam& s : made->pattern.seams) {
      const SeamWish all[] = {SeamWish::Both,  SeamWish::Both,    SeamWish::FollowA, SeamWish::FollowB,
                              SeamWish::Leave, SeamWish::TrimTop, SeamWish::TrimHem, SeamWish::Ease};
      options.seams[s.id] = {all[pick(8)], "bust", "waist"};
      for (const bool atTop : {true, false})  // only a free edge can be trimmed; elsewhere it is named
        if (isSewn(seamEnd(made->pattern, s.a, atTop).acrossRole) &&
            options.seams[s.id].wish == (atTop ? SeamWish::TrimTop : SeamWish::TrimHem))
          options.seams[s.id].wish = SeamWish::Both;
      if (pick(5) == 0) options.locks.insert({made->pattern.pieces[s.a.piece].id, s.a.chain[0].edge});
      wishes += s.id + "=" + seamChoiceText(options.seams[s.id]) + " ";
    }
    INFO(o.title << " " << o.style << " " << wishes);
    const Balanced b = balance(made->pattern, options);
    for (const Unreachable& u : b.unreachable) INFO(english(wordsOf(u, b.pattern).line()));
    named += b.unreachable.empty() ? 0 : 1;
    for (const Seam& s : b.pattern.seams) {
      const SeamWish wish = options.choiceOf(s.id).wish;
      const Walk now = walk(b.pattern, s);
      if (wish == SeamWish::Leave) {
        for (const SeamSide* side : {&s.a, &s.b})
          CHECK(b.pattern.sidePath(*side).cubics() == made->pattern.sidePath(*side).cubics());
        continue;
      }
      if (!b.unreachable.empty()) continue;
      for (const Stretch& stretch : now.stretches) CHECK(std::abs(stretch.mismatch()) < 1e-5);
      CHECK(std::abs(now.mismatch()) < 1e-5);
      ++fitted;
    }
    for (const Piece& p : b.pattern.pieces) {
      if (options.locks.empty()) break;
      for (const Edge& e : p.edges) {
        if (!options.locks.contains({p.id, e.id})) continue;
        const SeamWish wish = options.choiceOf(e.id).wish;
        if (wish == SeamWish::TrimTop || wish == SeamWish::TrimHem) continue;  // cut, but not bent
        for (const Piece& q : made->pattern.pieces)
          if (q.id == p.id) CHECK(e.path.cubics() == q.edge(e.id).path.cubics());
      }
      for (size_t i = 0; i < p.edges.size(); ++i)
        CHECK(distance(p.edges[i].path.end(), p.edges[(i + 1) % p.edges.size()].path.start()) < 1e-9);
    }
  }
  CHECK(fitted > 60);
  CHECK(named > 0);  // both sides held, or a girth that no edge is left to make
}

TEST_CASE("what cannot be balanced stands at the head of the sheet, with what would mend it") {
  Order o = plainOrder();
  o.choices["balance.keep"] = "balanced";
  o.choices["seam.princess"] = "follow-b";
  o.choices["lock.front-1.princess"] = "yes";
  const Design d = designOf(o);
  REQUIRE_FALSE(d.sheet.rows.empty());
  const CheckRow& first = d.sheet.rows.front();
  CHECK(first.kind == CheckKind::Wish);
  CHECK(first.fails());
  CHECK(english(first.subject) == "Cannot be balanced: Princess seam");
  CHECK(english(first.detail).find("held with these choices") != std::string::npos);
  CHECK(first.seam == "princess");
  CHECK_FALSE(first.remedy.empty());
}

TEST_CASE("what is sewn on at its end cannot be trimmed there, and that is said") {
  Order order = plainOrder();
  order.choices["cup.kind"] = "two";
  const Design d = designOf(order);
  BalanceOptions options;
  options.seams["princess-cup"] = {SeamWish::TrimHem, "", ""};
  const Balanced b = balance(d.pattern, options);
  REQUIRE(b.unreachable.size() == 1);
  CHECK(b.unreachable[0].seam == "princess-cup");
  CHECK(english(wordsOf(b.unreachable[0], b.pattern).line())
            .starts_with("Princess seam in the cup: it is sewn on at its lower end"));
  CHECK(b.pattern.trims.size() == d.pattern.trims.size());
}
