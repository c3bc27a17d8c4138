#include "operations/both_sides.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <stdexcept>

#include "geometry/path_distance.h"
#include "geometry/polygon.h"
#include "geometry/tolerances.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kAlike = 0.01;  // mm
// Balancing moves the ends of a fold by some tenths of a millimetre, on each half by itself; they meet half way.
constexpr double kFoldApart = 1;  // mm
constexpr std::string_view kLeft = "-left", kRight = "-right";

std::string with(const std::string& id, std::string_view ending) { return id + std::string(ending); }

// Path b moved by so much.
bool samePath(const Path& a, const Path& b, Vec2 by) {
  if (a.cubics().size() != b.cubics().size()) return false;
  for (size_t i = 0; i < a.cubics().size(); ++i) {
    const Cubic &x = a.cubics()[i], &y = b.cubics()[i];
    for (const auto& [p, q] : {std::pair{x.p0, y.p0}, {x.p1, y.p1}, {x.p2, y.p2}, {x.p3, y.p3}})
      if (distance(p, q + by) > kAlike) return false;
  }
  return true;
}

bool samePiece(const Piece& a, const Piece& b) {
  if (a.lines() != b.lines()) return false;
  // What is sewn on lies beside the shell, further out where that is wider.
  const Vec2 by = a.part == Part::Trim ? a.edges.front().path.start() - b.edges.front().path.start() : Vec2{};
  for (size_t i = 0; i < a.lines(); ++i)
    if (!samePath(a.lineAt(i).path, b.lineAt(i).path, by)) return false;
  return true;
}

// The larger of two: of what is cut once for both sides, so that it is long enough for either.
const Piece& larger(const Piece& a, const Piece& b) {
  constexpr double kFlat = 0.1;  // mm
  return std::abs(signedArea(a.outline(kFlat))) >= std::abs(signedArea(b.outline(kFlat))) ? a : b;
}

// Over a line: what lies on one side of it comes to lie on the other.
class Mirror {
 public:
  Mirror(Vec2 on, Vec2 along) {
    const double turn = angleBetween(along, {0, 1});
    motion_ = Motion::translation(-on).then(Motion::rotationAbout({}, turn)).then(Motion::mirrorX());
    motion_ = motion_.then(Motion::rotationAbout({}, -turn)).then(Motion::translation(on));
  }
  const Motion& motion() const { return motion_; }

 private:
  Motion motion_;
};

Edge turnedOver(const Edge& e, const Motion& m) {
  Edge out = e;
  out.path = e.path.transformed(m).reversed();
  return out;
}

// The piece turned over: clockwise again, every mark at its place of the cloth.
Piece turnedOver(const Piece& p, const Motion& m) {
  Piece out = p;
  for (size_t i = 0; i < p.lines(); ++i) out.lineAt(i) = turnedOver(p.lineAt(i), m);
  std::ranges::reverse(out.edges);
  for (Dart& d : out.darts) std::swap(d.legs[0], d.legs[1]);
  for (Mark& k : out.marks) {
    for (Anchor* a : {&k.a, &k.b})
      if (!a->edge.empty()) {
        a->at = p.edge(a->edge).path.length() - a->at;
        a->offset.x = -a->offset.x;
      }
    if (k.isLevel()) std::swap(k.a, k.b);
  }
  out.grainTop = m.apply(p.grainTop);
  out.grainBottom = m.apply(p.grainBottom);
  return out;
}

// A piece on the fold and its other half as one: along the left half's outline from one end of the fold to the other,
// and back along the right half's.
class Unfolding {
 public:
  Unfolding(const Piece& left, const Piece& right) : left_(left), right_(right) {}

  Result<Piece> unfolded() {
    if (std::ranges::count(left_.edges, EdgeRole::Fold, &Edge::role) > 1)
      return Problem{left_.name, "has a keyhole on its fold and cannot be unfolded",
                     "alter both sides, or leave the keyhole out"};
    const size_t fold = edgePlace(left_, left_.onFold);
    const Path& axis = left_.edges[fold].path;
    const Path& other = right_.edge(right_.onFold).path;
    if (std::abs(axis.length() - other.length()) > kFoldApart)
      return Problem{left_.name, "is not as long on the fold on both sides of the body",
                     "lengthen or shorten both sides, or let the alteration run out at the centre"};
    // The right half is brought onto the same fold, then turned over it.
    const Motion onto = endsTogether(axis, other);
    const Mirror mirror(axis.start(), axis.end() - axis.start());
    const Piece mine = turnedOver(right_, onto.then(mirror.motion()));
    Piece out = left_;
    out.splitOf = left_.id;
    out.edges.clear();
    out.darts.clear();
    out.marks.clear();
    out.onFold.clear();
    out.symmetry = Symmetry::Once;
    add(out, left_, fold, kLeft);
    add(out, mine, edgePlace(mine, right_.onFold), kRight);
    const size_t turn = left_.edges.size() - 1;
    meetHalfWay(out.edges[turn - 1], out.edges[turn]);
    meetHalfWay(out.edges.back(), out.edges.front());
    addMarks(out, mine);
    return out;
  }

 private:
  static void add(Piece& out, const Piece& half, size_t fold, std::string_view ending) {
    const size_t n = half.edges.size();
    for (size_t k = 1; k < n; ++k) {
      Edge e = half.edges[(fold + k) % n];
      e.id = with(e.id, ending);
      e.side = ending == kLeft ? BodySide::Left : BodySide::Right;
      out.edges.push_back(std::move(e));
    }
    for (Dart d : half.darts) {
      d.splitOf = d.id;
      d.id = with(d.id, ending);
      if (d.isOpen()) d.mouth = with(d.mouth, ending);
      for (Edge& leg : d.legs) leg.id = with(leg.id, ending);
      out.darts.push_back(std::move(d));
    }
  }

  static void meetHalfWay(Edge& before, Edge& after) {
    const Vec2 at = lerp(before.path.end(), after.path.start(), 0.5);
    before.path = withEnds(before.path, before.path.start(), at);
    after.path = withEnds(after.path, at, after.path.end());
  }

  // Notches of both; a level that began on the fold runs from side to side.
  void addMarks(Piece& out, const Piece& mine) const {
    for (const auto& [half, ending] : {std::pair{&left_, kLeft}, {&mine, kRight}})
      for (Mark m : half->marks) {
        const bool atFold = m.a.edge == half->onFold || m.b.edge == half->onFold;
        if (m.isLevel() && atFold) continue;
        if (m.isNotch() && m.a.edge == half->onFold) continue;
        for (Anchor* a : {&m.a, &m.b})
          if (!a->edge.empty()) a->edge = with(a->edge, ending);
        out.marks.push_back(std::move(m));
      }
    for (const Mark& m : left_.levelMarks()) {
      const bool begins = m.a.edge == left_.onFold, ends = m.b.edge == left_.onFold;
      if (!begins && !ends) continue;
      for (const Mark& k : mine.levelMarks()) {
        if (k.id != m.id || (begins ? k.b.edge : k.a.edge) != right_.onFold) continue;
        Mark whole = m;
        const auto outer = [](Anchor a, std::string_view ending) {
          a.edge = with(a.edge, ending);
          return a;
        };
        whole.a = begins ? outer(k.a, kRight) : outer(m.a, kLeft);
        whole.b = begins ? outer(m.b, kLeft) : outer(k.b, kRight);
        out.marks.push_back(std::move(whole));
        break;
      }
    }
  }

  const Piece &left_, &right_;
};

// Where the pieces of a half have come to lie in the whole, and what their edges are called there.
struct Places {
  std::vector<size_t> piece;
  std::vector<std::string> ending;  // of edge ids; empty on pieces that fell in two
};

class Joining {
 public:
  Joining(const Pattern& left, const Pattern& right)
      : left_(left), right_(right), out_(left), differs_(differing(left, right)) {}

  Result<Pattern> whole() {
    out_.pieces.clear();
    out_.seams.clear();
    out_.layerLines.clear();
    out_.attachments.clear();
    out_.supplies.clear();
    out_.trims.clear();
    for (size_t i = 0; i < left_.pieces.size(); ++i)
      if (auto problem = addPiece(i)) return *problem;
    for (size_t i = 0; i < out_.pieces.size(); ++i) {
      out_.pieces[i].number = static_cast<int>(i) + 1;
      out_.pieces[i].of = static_cast<int>(out_.pieces.size());
    }
    for (size_t i = 0; i < left_.seams.size(); ++i) addSeam(left_.seams[i], right_.seams[i]);
    for (size_t i = 0; i < left_.pieces.size(); ++i) sewCentres(i);
    addTrims();
    addLines();
    nameSources();
    for (size_t i = 0; i < out_.levels.size(); ++i) mean(out_.levels[i], left_.levels[i], right_.levels[i]);
    return std::move(out_);
  }

 private:
  // Which pieces have to come apart: those that are not alike, and all that are sewn to them.
  static std::vector<bool> differing(const Pattern& left, const Pattern& right) {
    std::vector<bool> all;
    for (size_t i = 0; i < left.pieces.size(); ++i) all.push_back(!samePiece(left.pieces[i], right.pieces[i]));
    for (bool more = true; more;) {
      more = false;
      for (const Seam& s : left.seams)
        if (all[s.a.piece] != all[s.b.piece]) more = all[s.a.piece] = all[s.b.piece] = true;
    }
    return all;
  }

  std::optional<Problem> addPiece(size_t i) {
    const Piece &l = left_.pieces[i], &r = right_.pieces[i];
    const bool once = l.symmetry == Symmetry::Once && l.part == Part::Trim;
    if (!differs_[i] || once) {
      place(once ? larger(l, r) : l, mine_, "");
      theirs_.piece.push_back(mine_.piece.back());
      theirs_.ending.push_back("");
      return std::nullopt;
    }
    if (l.symmetry == Symmetry::Once)
      return Problem{l.name, "is drawn whole: nothing it is sewn to can be altered on one side of the body",
                     "alter both sides, or keep the base with half of it, on the fold"};
    if (l.symmetry == Symmetry::OnFold) {
      Result<Piece> piece = Unfolding(l, r).unfolded();
      if (!piece.ok()) return piece.problem();
      place(*piece, mine_, std::string(kLeft));
      theirs_.piece.push_back(mine_.piece.back());
      theirs_.ending.push_back(std::string(kRight));
      return std::nullopt;
    }
    place(half(l, kLeft), mine_, "");
    place(half(turnedOver(r, Motion::mirrorX().then(Motion::translation({-kBesideShell, 0}))), kRight), theirs_, "");
    return std::nullopt;
  }

  static Piece half(Piece p, std::string_view ending) {
    p.splitOf = p.id;
    p.side = ending == kLeft ? BodySide::Left : BodySide::Right;
    p.id = with(p.id, ending);
    p.name = onSide(p.name, p.side);
    p.symmetry = Symmetry::Once;
    p.copies = std::max(1, p.copies / 2);
    for (AlsoCut& also : p.alsoCut) also.copies = std::max(1, also.copies / 2);
    for (Dart& d : p.darts) {  // a dart and the seam that sews it have one id
      d.splitOf = d.id;
      d.id = with(d.id, ending);
    }
    return p;
  }

  void place(Piece p, Places& where, std::string ending) {
    where.piece.push_back(out_.pieces.size());
    where.ending.push_back(std::move(ending));
    out_.pieces.push_back(std::move(p));
  }

  SeamSide side(const SeamSide& s, const Places& where, bool turned) const {
    SeamSide out = s;
    out.piece = where.piece[s.piece];
    for (EdgeUse& use : out.chain) {
      use.edge += where.ending[s.piece];
      if (turned) use.reversed = !use.reversed;
    }
    return out;
  }

  void addSeam(const Seam& l, const Seam& r) {
    if (!differs_[l.a.piece]) {
      Seam s = l;
      s.a.piece = mine_.piece[l.a.piece];
      s.b.piece = mine_.piece[l.b.piece];
      out_.seams.push_back(std::move(s));
      return;
    }
    for (const auto& [from, where, ending, turned] :
         {std::tuple{&l, &mine_, kLeft, false}, {&r, &theirs_, kRight, true}}) {
      Seam s = *from;
      s.splitOf = from->id;
      s.side = ending == kLeft ? BodySide::Left : BodySide::Right;
      s.id = with(from->id, ending);
      s.name = onSide(from->name, s.side);
      s.a = side(from->a, *where, turned);
      s.b = side(from->b, *where, turned);
      s.notches = notchesOf(out_, s);
      out_.seams.push_back(std::move(s));
    }
  }

  // What was sewn to its own mirror image is a seam of two pieces now.
  void sewCentres(size_t i) {
    const Piece& half = left_.pieces[i];
    if (half.symmetry != Symmetry::Pair || !differs_[i]) return;
    for (const Edge& e : half.edges) {
      if (e.role != EdgeRole::Centre) continue;
      Seam s;
      s.id = half.id + "-" + e.id;
      s.splitOf = s.id;
      s.name = msg("centre seam of {}", half.name);
      const bool up = e.path.end().y < e.path.start().y;
      s.a = {mine_.piece[i], {{e.id, up}}};
      s.b = {theirs_.piece[i], {{e.id, !up}}};
      for (const SeamSide* side : {&s.a, &s.b}) edgeOf(out_.pieces[side->piece], e.id).role = EdgeRole::Seam;
      s.notches = notchesOf(out_, s);
      out_.seams.push_back(std::move(s));
    }
  }
  static Edge& edgeOf(Piece& p, std::string_view id) { return p.lineAt(edgePlace(p, id)); }

  // Layers name the piece of the shell they were made from by its id.
  void nameSources() {
    for (Piece& p : out_.pieces) {
      if (p.source.empty()) continue;
      const Places& from = p.side == BodySide::Right ? theirs_ : mine_;
      for (size_t i = 0; i < left_.pieces.size(); ++i)
        if (left_.pieces[i].id == p.source) {
          p.source = out_.pieces[from.piece[i]].id;
          break;
        }
    }
  }

  void addTrims() {
    for (const auto& [half, where, ending] : {std::tuple{&left_, &mine_, kLeft}, {&right_, &theirs_, kRight}})
      for (Trim t : half->trims) {
        const Seam* seam = half->seam(t.seam);
        if (!seam) continue;
        const bool apart = differs_[t.piece];
        if (!apart && half == &right_) continue;
        if (apart) t.seam = with(t.seam, ending);
        t.piece = where->piece[t.piece];
        out_.trims.push_back(std::move(t));
      }
  }

  void addLines() {
    for (const auto& [half, where, ending] : {std::tuple{&left_, &mine_, kLeft}, {&right_, &theirs_, kRight}}) {
      const auto edge = [&, w = where](const PieceEdge& e) {
        return PieceEdge{w->piece[e.piece], e.edge + w->ending[e.piece]};
      };
      for (LayerLine line : half->layerLines) {
        const Seam* seam = line.seam.empty() ? nullptr : half->seam(line.seam);
        const bool ofApart = seam ? differs_[seam->a.piece] : differs_[line.shell.front().piece];
        if (!ofApart && !differs_[line.layer.front().piece] && half == &right_) continue;
        for (auto* edges : {&line.layer, &line.shell})
          for (PieceEdge& e : *edges) e = edge(e);
        if (!line.seam.empty() && ofApart) line.seam = with(line.seam, ending);
        out_.layerLines.push_back(std::move(line));
      }
      for (Attachment a : half->attachments) {
        const bool apart = differs_[a.piece] || differs_[a.attached.piece];
        if (!apart && half == &right_) continue;
        const size_t host = a.piece;
        const double length = half->pieces[a.piece].edge(a.edge).path.length();
        const PieceEdge on = edge({a.piece, a.edge});
        if (apart) a.id = with(a.id, ending);
        a.attached = edge(a.attached);
        a.piece = on.piece;
        a.edge = on.edge;
        if (ending == kRight && differs_[host]) std::tie(a.from, a.to) = std::pair{length - a.to, length - a.from};
        out_.attachments.push_back(std::move(a));
      }
      for (Supply supply : half->supplies) {  // of each half what is for its side
        supply.count = (supply.count + 1) / 2;
        out_.supplies.push_back(std::move(supply));
      }
    }
  }

  static void mean(PatternLevel& out, const PatternLevel& l, const PatternLevel& r) {
    const auto both = [](double a, double b) { return (a + b) / 2; };
    out.bodyGirth = both(l.bodyGirth, r.bodyGirth);
    out.finishedGirth = both(l.finishedGirth, r.finishedGirth);
    out.gaps = {both(l.gaps.opening, r.gaps.opening), both(l.gaps.skin, r.gaps.skin),
                both(l.gaps.gathers, r.gaps.gathers), both(l.gaps.swing, r.gaps.swing)};
    out.ring = l.ring && r.ring;
  }

  const Pattern &left_, &right_;
  Pattern out_;
  const std::vector<bool> differs_;
  Places mine_, theirs_;
};

}  // namespace

PieceEdge inWhole(const Pattern& whole, const Piece& ofHalf, std::string_view edge, BodySide side) {
  const auto found = std::ranges::find_if(whole.pieces, [&](const Piece& p) {
    return chosenAs(p) == ofHalf.id && (p.side == BodySide::Both || p.side == side);
  });
  if (found == whole.pieces.end()) throw std::invalid_argument("in whole: a piece the whole has not");
  std::string id(edge);
  if (!hasEdge(*found, edge)) id += side == BodySide::Left ? kLeft : kRight;
  return {static_cast<size_t>(found - whole.pieces.begin()), std::move(id)};
}

const std::string& inWhole(const Pattern& whole, const Seam& ofHalf, BodySide side) {
  for (const Seam& s : whole.seams)
    if (chosenAs(s) == ofHalf.id && (s.side == BodySide::Both || s.side == side)) return s.id;
  throw std::invalid_argument("in whole: a seam the whole has not");
}

bool sameHalves(const Pattern& left, const Pattern& right) {
  return left.pieces.size() == right.pieces.size() && std::ranges::equal(left.pieces, right.pieces, samePiece);
}

Result<Pattern> bothSides(const Pattern& left, const Pattern& right) {
  if (left.pieces.size() != right.pieces.size() || left.seams.size() != right.seams.size() ||
      left.levels.size() != right.levels.size())
    throw std::invalid_argument("both sides: not the same garment");
  if (sameHalves(left, right)) return left;
  return Joining(left, right).whole();
}

}  // namespace armure
