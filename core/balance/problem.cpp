#include "balance/problem.h"

#include <algorithm>
#include <cmath>

#include "balance/walk.h"
#include "geometry/tolerances.h"
#include "operations/crossing.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

// Marks on an edge, and levels across a leg of a dart, as arc lengths from its start.
std::vector<double> cutsOf(const Piece& piece, const Edge& edge) {
  std::vector<double> cuts;
  for (const Mark& m : piece.marks)
    for (const Anchor* anchor : {&m.a, &m.b})
      if (anchor->edge == edge.id) cuts.push_back(anchor->at);
  for (const Dart& d : piece.darts)
    for (const size_t k : {size_t{0}, size_t{1}})
      if (&d.legs[k] == &edge)
        for (const Mark& m : piece.levelMarks())
          if (const auto c = Piece::crossing(d, piece.line(m))) cuts.push_back(c->onLeg[k]);
  return cuts;
}

constexpr double kArm = 10;             // mm: what an angle is multiplied by to stand among lengths
constexpr double kMeantCorner = 0.262;  // rad, 15 degrees: more is a corner the draft means

// Corners that are tied to each other: which follow from which.
class Ties {
 public:
  using Corner = std::pair<size_t, size_t>;  // piece, and its edge that starts there

  // False when they were tied already.
  bool tie(Corner a, Corner b) {
    const Corner ra = root(a), rb = root(b);
    if (ra == rb) return false;
    parent_[ra] = rb;
    return true;
  }

 private:
  Corner root(Corner c) {
    while (parent_.contains(c)) c = parent_.at(c);
    return c;
  }
  std::map<Corner, Corner> parent_;
};

// Whether a seam is a dart's and ends in its point there, where its one leg meets the other.
bool isPoint(const Pattern& pattern, const Seam& seam, const SeamEnd& end) {
  return seam.kind == SeamKind::Dart && end.across >= pattern.pieces[seam.a.piece].edges.size();
}

// What the two sides may do: give way or not.
std::pair<bool, bool> givesWay(SeamWish wish) {
  switch (wish) {
    case SeamWish::Both:
    case SeamWish::Ease:
      return {true, true};
    case SeamWish::FollowA:
      return {false, true};
    case SeamWish::FollowB:
      return {true, false};
    case SeamWish::Leave:
    case SeamWish::TrimTop:
    case SeamWish::TrimHem:
      break;
  }
  return {false, false};
}

// Whether the wish asks that the stretches fit.
bool isFitted(SeamWish wish) {
  return wish != SeamWish::Leave && wish != SeamWish::TrimTop && wish != SeamWish::TrimHem;
}

// The stretches from one notch to another; empty where they are not in order on this seam.
std::pair<size_t, size_t> between(const std::vector<Stretch>& all, const std::string& from, const std::string& to) {
  size_t first = 0, last = 0;
  while (first < all.size() && all[first].from != from) ++first;
  while (last < all.size() && all[last].to != to) ++last;
  return last < all.size() && first <= last ? std::pair{first, last + 1} : std::pair{size_t{0}, size_t{0}};
}

// What of the difference between two notches is eased in: all of it, or as much as the limit allows.
std::vector<PlannedEase> easesFor(const std::vector<Stretch>& all, const SeamChoice& choice, double limit) {
  if (choice.wish != SeamWish::Ease) return {};
  const auto [first, last] = between(all, choice.from, choice.to);
  double difference = 0;
  for (size_t i = first; i < last; ++i) difference += all[i].mismatch();
  if (first == last) return {};
  return {{choice.from, choice.to, std::clamp(difference, -limit, limit)}};
}

}  // namespace

SeamChoice BalanceOptions::choiceOf(std::string_view seam) const {
  const auto it = seams.find(seam);
  return it == seams.end() ? SeamChoice{} : it->second;
}

BalanceProblem::BalanceProblem(const Pattern& drafted, const BalanceOptions& options)
    : drafted_(drafted), options_(options) {
  collectEdges();
  for (const Seam& seam : drafted.seams)
    if (takesPart(seam.a.piece)) collectStretches(seam);
  collectLengths();
  collectGirths();
  collectCorners();
  collectJoins();
  collectPattern();
}

void BalanceProblem::collectEdges() {
  for (const Seam& seam : drafted_.seams) {
    if (!takesPart(seam.a.piece)) continue;
    const auto [a, b] = givesWay(options_.choiceOf(seam.id).wish);
    for (const auto& [side, gives] : {std::pair{&seam.a, a}, {&seam.b, b}})
      for (const EdgeUse& use : side->chain) {
        const Piece& piece = drafted_.pieces.at(side->piece);
        addEdge(side->piece, edgePlace(piece, use.edge), !gives || options_.locks.contains({piece.id, use.edge}));
      }
  }
  for (const PrescribedLength& l : options_.lengths)
    for (const PieceEdge& e : l.edges) addEdge(e.piece, edgePlace(drafted_.pieces.at(e.piece), e.edge), false);
  for (BalancedEdge& e : edges_) {
    if (!e.offset) continue;
    e.offset = unknowns_;
    unknowns_ += e.moving.unknowns();
  }
}

// An edge that is sewn twice moves only if both seams let it.
void BalanceProblem::addEdge(size_t piece, size_t edge, bool held) {
  if (const auto known = find(piece, edge)) {
    if (held) edges_[*known].offset.reset();
    return;
  }
  const Piece& p = drafted_.pieces.at(piece);
  edges_.push_back({piece, edge, MovingEdge(p.lineAt(edge).path, cutsOf(p, p.lineAt(edge))),
                    held ? std::nullopt : std::optional<Eigen::Index>(0)});
}

// An edge that runs against its neighbours in a chain is as long either way.
void BalanceProblem::collectLengths() {
  for (const PrescribedLength& l : options_.lengths) {
    BalanceRow row{Family::Stretch, l.what, ""};
    for (const PieceEdge& e : l.edges) {
      const size_t edge = *find(e.piece, edgePlace(drafted_.pieces[e.piece], e.edge));
      row.lengths.push_back({edge, 0, edges_[edge].moving.joints() - 1, 1});
    }
    row.constant = -l.mm;
    rows_.push_back(std::move(row));
  }
}

std::optional<size_t> BalanceProblem::find(size_t piece, size_t edge) const {
  for (size_t i = 0; i < edges_.size(); ++i)
    if (edges_[i].piece == piece && edges_[i].edge == edge) return i;
  return std::nullopt;
}

// The edges of a side between two places of it.
std::vector<LengthTerm> BalanceProblem::terms(const SeamSide& side, double from, double to, double factor) const {
  std::vector<LengthTerm> out;
  const Piece& piece = drafted_.pieces[side.piece];
  double before = 0;
  for (const EdgeUse& use : side.chain) {
    const size_t state = *find(side.piece, edgePlace(piece, use.edge));
    const double length = piece.edge(use.edge).path.length();
    const double a = std::clamp(from - before, 0.0, length), b = std::clamp(to - before, 0.0, length);
    before += length;
    if (b - a < tolerance::kSamePlace) continue;
    const MovingEdge& moving = edges_[state].moving;
    const size_t ja = moving.jointAt(use.reversed ? length - b : a), jb = moving.jointAt(use.reversed ? length - a : b);
    out.push_back({state, ja, jb, factor});
  }
  return out;
}

void BalanceProblem::collectStretches(const Seam& seam) {
  const SeamChoice choice = options_.choiceOf(seam.id);
  if (!isFitted(choice.wish)) return;
  Seam planned = seam;
  const std::vector<PlannedEase> asked = easesFor(walk(drafted_, seam).stretches, choice, options_.easeLimit);
  planned.eases.insert(planned.eases.end(), asked.begin(), asked.end());
  const Walk w = walk(drafted_, planned);
  std::vector<PlannedEase>& eases = eases_[seam.id];
  double a = 0, b = 0;
  for (const Stretch& s : w.stretches) {
    if (s.plannedEase != 0) eases.push_back({s.from, s.to, s.plannedEase});
    BalanceRow row{Family::Stretch, msg("{}, {} to {}", seam.name, s.from, s.to), seam.id};
    row.lengths = terms(seam.a, a, a + s.lengthA, 1);
    for (const LengthTerm& t : terms(seam.b, b, b + s.lengthB, -1)) row.lengths.push_back(t);
    row.constant = -s.plannedEase;
    rows_.push_back(std::move(row));
    a += s.lengthA;
    b += s.lengthB;
  }
}

Foot BalanceProblem::footOf(size_t piece, const Anchor& anchor) const {
  const Piece& p = drafted_.pieces[piece];
  const auto state = find(piece, edgePlace(p, anchor.edge));
  if (!state || !anchor.onOutline()) return {std::nullopt, 0, p.point(anchor)};
  return {state, edges_[*state].moving.jointAt(anchor.at), p.point(anchor)};
}

void BalanceProblem::collectGirths() {
  for (const PatternLevel& l : drafted_.levels) {
    if (!l.ring) continue;
    BalanceRow row{Family::Girth, msg("{} girth", l.name), ""};
    row.constant = l.gaps.sum() - l.finishedGirth;
    if (const auto off = options_.tooWide.find(l.id); off != options_.tooWide.end()) row.constant += off->second;
    for (size_t i = 0; i < drafted_.pieces.size(); ++i) {
      const Piece& p = drafted_.pieces[i];
      if (p.layer != "shell") continue;
      for (const Mark& m : p.levelMarks()) {
        if (m.id != l.id) continue;
        row.widths.push_back({footOf(i, m.a), footOf(i, m.b), p.girthWeight()});
        for (size_t d = 0; d < p.darts.size(); ++d) takeDart(row, i, d, p.line(m));
      }
    }
    rows_.push_back(std::move(row));
  }
}

// Less what a dart takes out of a level: as drafted, and where a leg moves by d, square to it n, the place where the
// level u crosses it goes along the level by dot(n, d) / dot(n, u).
void BalanceProblem::takeDart(BalanceRow& row, size_t piece, size_t dart, const LevelLine& level) const {
  const Piece& p = drafted_.pieces[piece];
  const auto crossing = Piece::crossing(p.darts[dart], level);
  if (!crossing) return;
  row.constant -= crossing->taken() * p.girthWeight();
  const Vec2 u = unit(level.b - level.a);
  const double sign = crossing->along[1] > crossing->along[0] ? 1 : -1;
  for (const size_t k : {size_t{0}, size_t{1}}) {
    const auto leg = find(piece, p.edges.size() + 2 * dart + k);
    if (!leg || !edges_[*leg].offset) continue;
    const Vec2 along = p.darts[dart].legs[k].path.tangentAt(crossing->onLeg[k]), n{-along.y, along.x};
    const double factor = (k == 1 ? -sign : sign) * p.girthWeight() / dot(n, u);
    row.corners.push_back({*leg, edges_[*leg].moving.jointAt(crossing->onLeg[k]), n, factor});
  }
}

void BalanceProblem::collectCorners() {
  for (size_t i = 0; i < edges_.size(); ++i) {
    if (!edges_[i].offset) continue;
    addCorner(i, true);
    addCorner(i, false);
  }
}

// What ties an end of a moving edge to the edge next to it.
void BalanceProblem::addCorner(size_t i, bool atStart) {
  const BalancedEdge& e = edges_[i];
  const Piece& piece = drafted_.pieces[e.piece];
  const size_t other = atStart ? piece.previous(e.edge) : piece.next(e.edge);
  const Edge& next = piece.lineAt(other);
  const auto known = find(e.piece, other);
  const bool moves = known && edges_[*known].offset;
  if (!moves && (isFree(next.role) || next.role == EdgeRole::Raw)) return;  // these follow
  const size_t joint = atStart ? 0 : e.moving.joints() - 1;
  const Message what = msg("{}, corner of {} and {}", piece.name, piece.lineAt(e.edge).id, next.id);
  if (moves && atStart) return;  // told once, from the end of the edge before
  std::vector<Vec2> directions{{1, 0}, {0, 1}};
  if (next.role == EdgeRole::Fold) {
    const Vec2 along = atStart ? next.path.endTangent() : next.path.startTangent();
    directions = {{-along.y, along.x}};
  }
  for (const Vec2 d : directions) {
    BalanceRow row{Family::Corner, what, ""};
    row.corners.push_back({i, joint, d, 1});
    if (moves) row.corners.push_back({*known, 0, d, -1});
    rows_.push_back(std::move(row));
  }
}

std::optional<TurnTerm> BalanceProblem::turnOf(size_t piece, size_t edge, bool atStart, double factor) const {
  const auto known = find(piece, edge);
  if (!known || !edges_[*known].offset) return std::nullopt;
  const MovingEdge& moving = edges_[*known].moving;
  const Cubic& c = atStart ? moving.cubics().front() : moving.cubics().back();
  return TurnTerm{*known, atStart ? 0 : moving.joints() - 1, atStart ? c.startTangent() : c.endTangent(),
                  factor * kArm};
}

// Rows tie corners to each other; one that ties corners which are tied already follows from the others.
void BalanceProblem::collectJoins() {
  Ties ties;
  const auto cornerOf = [this](const SeamSide& side, const SeamEnd& end) {
    return Ties::Corner{side.piece, end.atItsStart ? end.across : mineAt(side, end)};
  };
  const auto add = [&](Message what, double turn, const std::vector<std::optional<TurnTerm>>& terms) {
    BalanceRow row{Family::Join, std::move(what), ""};
    for (const auto& t : terms)
      if (t) row.turns.push_back(*t);
    row.constant = turn * kArm;
    if (!row.turns.empty()) rows_.push_back(std::move(row));
  };
  for (const Seam& seam : drafted_.seams)
    for (const bool atTop : {true, false}) {
      const SeamEnd a = seamEnd(drafted_, seam.a, atTop), b = seamEnd(drafted_, seam.b, atTop);
      if (a.acrossRole != b.acrossRole || !isSewn(a.acrossRole) || isPoint(drafted_, seam, a)) continue;
      const double turn = turnAcross(drafted_, seam, atTop);
      if (std::abs(turn) > kMeantCorner || !ties.tie(cornerOf(seam.a, a), cornerOf(seam.b, b))) continue;
      std::vector<std::optional<TurnTerm>> terms;
      for (const auto& [side, end] : {std::pair{&seam.a, &a}, {&seam.b, &b}}) {
        const double sign = end->atItsStart ? -1 : 1;
        terms.push_back(turnOf(side->piece, end->across, end->atItsStart, sign));
        terms.push_back(turnOf(side->piece, mineAt(*side, *end), !end->atItsStart, -sign));
      }
      add(atTop ? msg("{}, join at the upper end", seam.name) : msg("{}, join at the lower end", seam.name), turn,
          terms);
    }
  for (const BalancedEdge& e : edges_) {
    const Piece& piece = drafted_.pieces[e.piece];
    const size_t next = piece.next(e.edge);
    const Edge &here = piece.lineAt(e.edge), &after = piece.lineAt(next);
    if (here.role != after.role || !isSewn(after.role)) continue;
    const double turn = angleBetween(here.path.endTangent(), after.path.startTangent());
    if (std::abs(turn) > kMeantCorner) continue;
    add(msg("{}, {} and {} run on", piece.name, here.id, after.id), turn,
        {turnOf(e.piece, next, true, 1), turnOf(e.piece, e.edge, false, -1)});
  }
}

double largestMovement(const BalanceProblem& problem, const Eigen::VectorXd& x) {
  double most = 0;
  for (size_t e = 0; e < problem.edges().size(); ++e)
    for (size_t j = 0; j < problem.edges()[e].moving.joints(); ++j)
      most = std::max(most, norm(MovingEdge::displacement(problem.part(x, e), j)));
  return most;
}

size_t BalanceProblem::mineAt(const SeamSide& side, const SeamEnd& end) const {
  const Piece& piece = drafted_.pieces[side.piece];
  return end.atItsStart ? piece.previous(end.across) : piece.next(end.across);
}

void BalanceProblem::leaveOut(Family family) {
  std::erase_if(rows_, [&](const BalanceRow& r) { return r.family == family; });
  collectPattern();
}

// Which rows are found at which edge.
void BalanceProblem::collectPattern() {
  rowsOf_.assign(edges_.size(), {});
  const auto note = [&](size_t edge, size_t row) {
    auto& rows = rowsOf_[edge];
    const auto r = static_cast<Eigen::Index>(row);
    if (edges_[edge].offset && (rows.empty() || rows.back() != r)) rows.push_back(r);
  };
  for (size_t r = 0; r < rows_.size(); ++r) {
    for (const LengthTerm& t : rows_[r].lengths) note(t.edge, r);
    for (const WidthTerm& t : rows_[r].widths)
      for (const Foot* f : {&t.a, &t.b})
        if (f->edge) note(*f->edge, r);
    for (const CornerTerm& t : rows_[r].corners) note(t.edge, r);
    for (const TurnTerm& t : rows_[r].turns) note(t.edge, r);
  }
}

}  // namespace armure
