#include "balance/balance.h"

#include <algorithm>
#include <cmath>

#include "balance/fit.h"
#include "balance/moved_pattern.h"
#include "balance/problem.h"
#include "balance/solve.h"
#include "geometry/path_distance.h"
#include "operations/crossing.h"
#include "rules/prepare_rules.h"
#include "rules/rules.h"

namespace armure {
namespace {

constexpr double kHolds = 1e-7;       // mm: a constraint
constexpr double kMostMovement = 30;  // mm
constexpr double kReported = 1e-3;    // mm: smaller movements are not worth a line
constexpr double kNear = 1;           // mm: a movement is named after the notch or corner this near

// Where no end was reached, or only by moving edges further than anybody would cut, the pieces stay as drafted.
void refuseWild(const BalanceProblem& problem, Solution& s, std::vector<Unreachable>& unreachable) {
  const double most = largestMovement(problem, s.x);
  if (s.ended && std::isfinite(most) && most <= kMostMovement) return;
  const Unreachable::Why why = s.ended ? Unreachable::Why::TooFar : Unreachable::Why::NoShape;
  unreachable.push_back({.why = why, .mm = s.ended ? most : 0});
  s.x.setZero();
  s.there = problem.linearised(s.x);
  s.conflicts.clear();
}

BalanceCertificate certify(const BalanceProblem& problem, const Solution& s) {
  BalanceCertificate c;
  for (size_t r = 0; r < problem.rows().size(); ++r) {
    const Family family = problem.rows()[r].family;
    double& worst = family == Family::Stretch  ? c.worstStretch
                    : family == Family::Girth  ? c.worstGirth
                    : family == Family::Corner ? c.worstCorner
                                               : c.worstJoin;
    worst = std::max(worst, std::abs(s.there.residual(static_cast<Eigen::Index>(r))));
  }
  c.iterations = s.iterations;
  c.converged = s.ended && std::max({c.worstStretch, c.worstGirth, c.worstCorner, c.worstJoin}) < kHolds;
  c.stationarity = s.stationarity;
  return c;
}

EdgeName nameOf(const Pattern& pattern, const BalancedEdge& e) {
  const Piece& piece = pattern.pieces[e.piece];
  return {piece.id, piece.lineAt(e.edge).id};
}

Eigen::VectorXd asVector(const std::vector<double>& v) {
  return Eigen::Map<const Eigen::VectorXd>(v.data(), static_cast<Eigen::Index>(v.size()));
}

BalanceEnd endOf(const Pattern& pattern, const BalanceProblem& problem, const Solution& s) {
  BalanceEnd end;
  for (const BalancedEdge& e : problem.edges())
    if (e.offset)
      end.edges[nameOf(pattern, e)].assign(s.x.data() + *e.offset, s.x.data() + *e.offset + e.moving.unknowns());
  end.lambda.assign(s.lambda.data(), s.lambda.data() + s.lambda.size());
  return end;
}

Eigen::VectorXd startOf(const Pattern& pattern, const BalanceProblem& problem, const BalanceEnd& end) {
  Eigen::VectorXd x = Eigen::VectorXd::Zero(problem.unknowns());
  for (const BalancedEdge& e : problem.edges()) {
    const auto known = e.offset ? end.edges.find(nameOf(pattern, e)) : end.edges.end();
    if (known != end.edges.end() && static_cast<Eigen::Index>(known->second.size()) == e.moving.unknowns())
      x.segment(*e.offset, e.moving.unknowns()) = asVector(known->second);
  }
  return x;
}

template <typename T>
void addOnce(std::vector<T>& list, const T& item) {
  if (std::find(list.begin(), list.end(), item) == list.end()) list.push_back(item);
}

// Edges of a row that may not move.
std::vector<EdgeName> heldIn(const Pattern& pattern, const BalanceProblem& problem, const BalanceRow& row) {
  std::vector<EdgeName> held;
  const auto note = [&](size_t edge) {
    const BalancedEdge& e = problem.edges()[edge];
    if (!e.offset) addOnce(held, nameOf(pattern, e));
  };
  for (const LengthTerm& t : row.lengths) note(t.edge);
  for (const WidthTerm& t : row.widths)
    for (const Foot* f : {&t.a, &t.b})
      if (f->edge) note(*f->edge);
  return held;
}

// A conflict of rows, and what is held in them; about one seam where several stretches of it stand alone.
Unreachable unreachableOf(const Pattern& pattern, const BalanceProblem& problem, const Conflict& conflict) {
  Unreachable out{.why = Unreachable::Why::Conflict, .mm = conflict.residual};
  for (const size_t r : conflict.rows) {
    addOnce(out.rows, problem.rows()[r].what);
    for (const EdgeName& e : heldIn(pattern, problem, problem.rows()[r])) addOnce(out.held, e);
  }
  out.seam = problem.rows()[conflict.rows.front()].seam;
  return out;
}

// Whether two conflicts are told in the same words: stretches of one seam that each stand alone are one.
bool sameConflict(const Unreachable& a, const Unreachable& b) {
  const bool alone = a.rows.size() == 1 && b.rows.size() == 1 && !a.seam.empty();
  return a.seam == b.seam && a.held == b.held && (alone || a.rows == b.rows);
}

void tellConflicts(const Pattern& pattern, const BalanceProblem& problem, const Solution& s, Balanced& out) {
  const auto first = static_cast<std::ptrdiff_t>(out.unreachable.size());
  for (const Conflict& c : s.conflicts) {
    const Unreachable next = unreachableOf(pattern, problem, c);
    const auto same = std::find_if(out.unreachable.begin() + first, out.unreachable.end(),
                                   [&](const Unreachable& u) { return sameConflict(u, next); });
    if (same == out.unreachable.end()) {
      out.unreachable.push_back(next);
    } else {
      same->mm = std::max(same->mm, next.mm);
    }
  }
}

std::string nameNear(const Piece& piece, Vec2 at) {
  for (const LevelLine& l : piece.levelLines())
    if (distance(l.a, at) < kNear || distance(l.b, at) < kNear) return l.level;
  for (const auto& [role, name] : {std::pair{EdgeRole::Top, "top"}, {EdgeRole::Hem, "hem"}})
    for (const Edge& e : piece.edges)
      if (e.role == role && (distance(e.path.start(), at) < kNear || distance(e.path.end(), at) < kNear)) return name;
  return "";
}

std::string seamOf(const Pattern& pattern, size_t piece, const std::string& edge) {
  for (const Seam& s : pattern.seams)
    for (const SeamSide* side : {&s.a, &s.b})
      if (side->piece == piece && side->uses(edge)) return s.id;
  return "";
}

// The row that asked for most of a movement: the one whose share points furthest its way.
Message reasonFor(const BalanceProblem& problem, const Solution& s, size_t edge, size_t joint, Vec2 by) {
  const std::vector<Vec2> shares = sharesOfRows(problem, s, edge, joint);
  size_t most = 0;
  for (size_t r = 1; r < shares.size(); ++r)
    if (dot(shares[r], by) > dot(shares[most], by)) most = r;
  return shares.empty() ? Message() : problem.rows()[most].what;
}

EdgeMove moveOf(const Pattern& drafted, const Pattern& balanced, const BalanceProblem& problem, const Solution& s,
                size_t edge) {
  const BalancedEdge& e = problem.edges()[edge];
  const Edge& before = drafted.pieces[e.piece].lineAt(e.edge);
  EdgeMove move{e.piece, before.id, seamOf(drafted, e.piece, before.id), 0, 0, {}, {}, "", ""};
  const Eigen::VectorXd x = problem.part(s.x, edge);
  size_t most = 0;
  for (size_t j = 0; j < e.moving.joints(); ++j) {
    const Vec2 d = MovingEdge::displacement(x, j);
    const Vec2 along = before.path.tangentAt(e.moving.along(j));
    move.across = std::max(move.across, std::abs(cross(along, d)));
    if (norm(d) <= move.largest) continue;
    move.largest = norm(d);
    move.by = d;
    most = j;
  }
  for (size_t i = 0; i < e.moving.cubics().size(); ++i) {
    const Cubic &was = e.moving.cubics()[i], is = e.moving.moved(i, x);
    for (const double t : {0.25, 0.5, 0.75}) {
      const Vec2 d = is.at(t) - was.at(t);
      move.across = std::max(move.across, std::abs(cross(unit(was.derivative(t)), d)));
      move.largest = std::max(move.largest, norm(d));
    }
  }
  if (move.largest < kReported) return move;
  move.at = e.moving.movedJoint(most, x);
  move.near = nameNear(balanced.pieces[e.piece], move.at);
  move.why = reasonFor(problem, s, edge, most, move.by);
  return move;
}

// Whether two paths lie beside each other within kReported for certain: no point of a cubic moves further than the
// control point that moves most.
bool besideEachOther(const Path& a, const Path& b) {
  return std::equal(a.cubics().begin(), a.cubics().end(), b.cubics().begin(), b.cubics().end(),
                    [](const Cubic& x, const Cubic& y) {
                      return distance(x.p0, y.p0) < kReported && distance(x.p1, y.p1) < kReported &&
                             distance(x.p2, y.p2) < kReported && distance(x.p3, y.p3) < kReported;
                    });
}

// Edges that took no part in the problem and yet are not what they were: free edges.
void reportFollowers(const Pattern& drafted, const BalanceProblem& problem, Balanced& out) {
  for (size_t p = 0; p < drafted.pieces.size(); ++p)
    for (size_t e = 0; e < drafted.pieces[p].lines(); ++e) {
      const Edge &was = drafted.pieces[p].lineAt(e), &is = out.pattern.pieces[p].lineAt(e);
      const auto known = problem.find(p, e);
      if ((known && problem.edges()[*known].offset) || besideEachOther(was.path, is.path)) continue;
      const Farthest there = farthestFrom(is.path, was.path), back = farthestFrom(was.path, is.path);
      const Farthest& most = there.distance >= back.distance ? there : back;
      if (most.distance < kReported) continue;
      EdgeMove move{p, was.id, seamOf(drafted, p, was.id), most.distance, most.distance, most.at, most.by, "", ""};
      move.near = nameNear(out.pattern.pieces[p], move.at);
      move.why = "the corners beside it";
      out.certificate.largestMove = std::max(out.certificate.largestMove, move.largest);
      out.certificate.largestAcross = std::max(out.certificate.largestAcross, move.across);
      out.moves.push_back(std::move(move));
    }
}

void report(const Pattern& drafted, const BalanceProblem& problem, const Solution& s, Balanced& out) {
  for (size_t e = 0; e < problem.edges().size(); ++e) {
    if (!problem.edges()[e].offset) continue;
    EdgeMove move = moveOf(drafted, out.pattern, problem, s, e);
    out.certificate.largestMove = std::max(out.certificate.largestMove, move.largest);
    out.certificate.largestAcross = std::max(out.certificate.largestAcross, move.across);
    if (move.largest >= kReported) out.moves.push_back(std::move(move));
  }
  reportFollowers(drafted, problem, out);
  std::stable_sort(out.moves.begin(), out.moves.end(),
                   [](const EdgeMove& a, const EdgeMove& b) { return a.largest > b.largest; });
  tellConflicts(drafted, problem, s, out);
}

// Whether a seam ends at a free edge on both sides: elsewhere the corner is sewn to something, and nothing can be cut
// off.
bool endsFree(const Pattern& pattern, const Seam& seam, bool atTop) {
  for (const SeamSide* side : {&seam.a, &seam.b}) {
    const EdgeRole role = seamEnd(pattern, *side, atTop).acrossRole;
    if (isSewn(role) || role == EdgeRole::Centre) return false;
  }
  return true;
}

void finishSeams(const BalanceOptions& options, Pattern& pattern, std::vector<Unreachable>& unreachable) {
  for (size_t i = 0; i < pattern.seams.size(); ++i) {
    const SeamWish wish = options.choiceOf(pattern.seams[i].id).wish;
    if (wish != SeamWish::TrimTop && wish != SeamWish::TrimHem) continue;
    const bool atTop = wish == SeamWish::TrimTop;
    if (endsFree(pattern, pattern.seams[i], atTop)) {
      trimSeam(pattern, i, atTop);
    } else {
      unreachable.push_back({.why = Unreachable::Why::SewnOn, .seam = pattern.seams[i].id, .atTop = atTop});
    }
  }
  trueAcrossSeams(pattern);
}

// What a dart takes out of a level is known to the problem to the first order of its legs' movement only; near its
// point, where the legs run along each other, that is not enough. The problem is solved and what came out wrong on each
// level is given back to it, until nothing is.
// What it is solved from at last goes on in `from`.
std::map<std::string, double, std::less<>> tooWideByDarts(const Pattern& drafted, const BalanceOptions& asked,
                                                          BalanceEnd& from) {
  constexpr int kRounds = 8;
  constexpr double kRight = 0.02;  // mm
  BalanceOptions options = asked;
  if (std::ranges::none_of(drafted.pieces, [](const Piece& p) { return p.layer == "shell" && !p.darts.empty(); }))
    return options.tooWide;
  const BalanceEnd start = from;
  for (int round = 0; round < kRounds; ++round) {
    const BalanceProblem problem(drafted, options);
    Solution s = solve(problem, startOf(drafted, problem, from), asVector(from.lambda));
    std::vector<Unreachable> wild;
    refuseWild(problem, s, wild);
    if (!wild.empty() || !s.conflicts.empty()) {
      from = start;
      return asked.tooWide;
    }
    from = endOf(drafted, problem, s);
    const Pattern moved = movedPattern(drafted, problem, s.x);
    double worst = 0;
    for (const PatternLevel& l : moved.levels) {
      if (!l.ring) continue;
      const double off = moved.closedGirth(l) - l.finishedGirth;
      options.tooWide[l.id] += off;
      worst = std::max(worst, std::abs(off));
    }
    if (worst < kRight) break;
  }
  return options.tooWide;
}

}  // namespace

BalanceOptions balanceOptions(const Rules& rules) {
  BalanceOptions options;
  for (const auto& [seam, choice] : rules.seamChoices()) options.seams[seam] = choice;
  options.locks = rules.locks();
  options.easeLimit = rules.length(key::kBalanceEaseLimit);
  return options;
}

Balanced balance(const Pattern& drafted, const BalanceOptions& asked, const BalanceEnd& start) {
  BalanceOptions options = asked;
  BalanceEnd from = start;
  if (options.tooWide.empty()) options.tooWide = tooWideByDarts(drafted, asked, from);
  const BalanceProblem problem(drafted, options);
  Solution s = solve(problem, startOf(drafted, problem, from), asVector(from.lambda));
  Balanced out;
  refuseWild(problem, s, out.unreachable);
  out.pattern = movedPattern(drafted, problem, s.x);
  finishSeams(options, out.pattern, out.unreachable);
  out.certificate = certify(problem, s);
  out.end = endOf(drafted, problem, s);
  report(drafted, problem, s, out);
  return out;
}

}  // namespace armure
