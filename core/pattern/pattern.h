// core/pattern/pattern.h
//
// The pattern: pieces, the seams that join them, and the levels they are measured on. What is drawn, printed, walked
// and exported is this and nothing else.
//
// All pieces lie as seen from the outside of the garment, centre front to the left, centre back to the right: the left
// half of the body. Each boundary runs clockwise: top edge, right edge down, hem, left edge up. Millimetres, y down.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <ranges>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "body_side.h"
#include "draft/block.h"
#include "geometry/path.h"
#include "geometry/polygon.h"
#include "result.h"

namespace armure {

// Centre: sewn to its own mirror image, so that it is in no seam of two pieces.
// Cup, Yoke: sewn, along a cup line or the lower edge of a yoke. Armhole, Strap: finished edges. Raw: only cut, and
// caught in a seam of another layer: the lower edge of a cup's lining. Mouth: of an open dart, straight; folded away
// when the dart is sewn.
enum class EdgeRole { Seam, Fold, Top, Hem, Opening, Centre, Cup, Yoke, Armhole, Strap, Raw, Mouth };
// As in the exports: "seam", "fold", ...; a centre seam is an "opening" there, sewn up.
std::string_view roleName(EdgeRole role);
// Whether an edge of this role is sewn to another piece's.
bool isSewn(EdgeRole role);
// Whether it is a finished edge that is drawn anew when the pieces beside it move: top edge, hem, armhole, strap.
bool isFree(EdgeRole role);
// Whether it lies at the centre of a half: a fold, a seam with the mirrored piece, or the edge of an opening.
bool isCentre(EdgeRole role);

struct Edge {
  std::string id;  // unique in its piece
  EdgeRole role = EdgeRole::Seam;
  double allowance = 0;  // outside the sewn line
  Path path;
  double onCloth = 0;              // and what is added on the cloth, where the paper does not have it
  BodySide side = BodySide::Both;  // on which half of the body, on a piece that lies on both
};

// A place on a piece: the arc length from the start of one of its edges, and from there an offset into the cloth (x
// along the edge, y square to it into the piece), which is nothing for a place on the outline. It is kept as this and
// computed to a point (Piece::point), so that it goes where its edge goes.
struct Anchor {
  std::string edge;
  double at = 0;  // mm
  Vec2 offset = {};

  bool onOutline() const { return offset == Vec2{}; }
};

// What is marked on a piece. A level runs from `a` on the left edge to `b` on the right one, and may cross a piece more
// than once (a frame beside its cup on either side); a notch is struck at `a`.
enum class MarkKind { Level, Notch };

struct Mark {
  MarkKind kind{};
  std::string id;  // of the level; of the level the notch marks, or what else: "gather-1", "opening-end"
  Anchor a, b = {};
  bool doubled = false;  // a notch of two strokes

  bool isNotch() const { return kind == MarkKind::Notch; }
  bool isLevel() const { return kind == MarkKind::Level; }
};
Mark notchMark(std::string id, Anchor at, bool doubled = false);

// A level's mark, computed.
struct LevelLine {
  std::string level;
  Vec2 a, b;
  double width() const { return distance(a, b); }  // straight; the half width on a piece cut on the fold
};

// A dart: sewn inside one piece, by the pattern's seam of the same id (SeamKind::Dart). Its legs run as the outline
// would if the dart were slit open, with the cloth on their right: the first to the point, the second back from it.
// An open dart's legs begin and end where its mouth does, an edge of the piece. A dart without a mouth is pointed at
// both ends: its legs run from the upper point to the lower and back.
struct Dart {
  std::string id;
  std::string mouth;           // id of the edge, or empty
  std::array<Edge, 2> legs{};  // of role Seam, without allowance
  std::string splitOf = {};    // as Piece::splitOf

  bool isOpen() const { return !mouth.empty(); }
  Vec2 point() const { return legs[0].path.end(); }
};

// Where a level crosses both legs of a dart: on either leg, as arc length from its start, and along the level; mm.
struct DartCrossing {
  std::array<double, 2> onLeg{}, along{};
  double taken() const { return std::abs(along[1] - along[0]); }
};

// Which half of the body a piece covers; Both where it goes over the shoulder or round the arm.
enum class Half { Front, Back, Both };

// What part of the garment a piece is.
enum class Part { Panel, Cup, CupBand, CupCover, Yoke, Insert, Skirt, ShoulderBand, Strap, Modesty, Pad, Trim };

// How it lies in the garment: a pair mirrored on each other, once on the fold, or once as it is.
enum class Symmetry { Pair, OnFold, Once };

// That a piece is cut again, as it is, for another layer.
struct AlsoCut {
  std::string layer;
  int copies = 0;
};

struct Piece {
  std::string id;
  Message name;
  Half half = Half::Both;
  Part part = Part::Panel;
  int ordinal = 0;  // of a panel, or what was cut from it: counted from the centre of its half, from 1
  int number = 0, of = 0;
  std::string layer = "shell";
  std::string cloth = {};   // what it is cut of, where that is not the cloth of its layer: "net"
  std::string source = {};  // of a layer's piece: the id of the shell's piece it was made from
  Symmetry symmetry = Symmetry::Pair;
  int copies = 2;  // how many to cut: a mirrored pair is 2, a doubled one 4, one on the fold 1
  std::vector<AlsoCut> alsoCut = {};
  // On which half of the body it lies, where left and right are not alike; then the id of the piece that stands for
  // both, by which things are chosen for it.
  BodySide side = BodySide::Both;
  std::string splitOf = {};
  std::string onFold;  // id of the fold edge, or empty
  Vec2 grainTop, grainBottom;
  std::vector<Edge> edges;       // the outline, clockwise
  std::vector<Mark> marks;       // in no order
  std::vector<Dart> darts = {};  // sewn in it

  const Edge& edge(std::string_view id) const;  // of the outline, or a leg of a dart; throws std::out_of_range
  // Everything that can be sewn, by number: the edges of the outline and, after them, the legs of the darts.
  size_t lines() const { return edges.size() + 2 * darts.size(); }
  const Edge& lineAt(size_t i) const { return i < edges.size() ? edges[i] : leg(i - edges.size()); }
  Edge& lineAt(size_t i) { return const_cast<Edge&>(std::as_const(*this).lineAt(i)); }
  // The line that begins where line i ends, and the one that ends where it begins, clockwise with the darts slit open:
  // at a mouth the outline runs on along its dart's legs.
  size_t next(size_t i) const;
  size_t previous(size_t i) const;
  Vec2 point(const Anchor& anchor) const;  // throws std::out_of_range for an edge the piece lacks
  // Its marks of one kind, as a view: for (const Mark& n : piece.notches()) ...
  auto notches() const { return std::views::filter(marks, &Mark::isNotch); }
  auto notches() { return std::views::filter(marks, &Mark::isNotch); }
  auto levelMarks() const { return std::views::filter(marks, &Mark::isLevel); }
  auto levelMarks() { return std::views::filter(marks, &Mark::isLevel); }
  LevelLine line(const Mark& level) const;
  std::vector<LevelLine> levelLines() const;
  // The first mark of a level; nothing when the level does not cross the piece.
  const Mark* levelMark(std::string_view id) const;
  std::optional<LevelLine> level(std::string_view id) const;
  // How often a width counts in the girth: a pair is on both halves, a piece on the fold has its other half beyond it.
  double girthWeight() const { return symmetry == Symmetry::Once ? 1 : 2; }
  Polyline outline(double tolerance) const;  // the sewn outline, flattened, not closed
  // What its darts take out of a level, mm: the straight width between both legs of each dart the level crosses.
  double taken(const LevelLine& level) const;
  // Nothing where the level does not cross both legs.
  static std::optional<DartCrossing> crossing(const Dart& dart, const LevelLine& level);

 private:
  const Edge& leg(size_t k) const { return darts[k / 2].legs[k % 2]; }
};

// Whether an edge of a piece is on this half of the body; on either, where both are alike.
inline bool isOn(BodySide side, const Piece& piece, const Edge& edge) {
  const auto on = [&](BodySide of) { return of == BodySide::Both || of == side; };
  return on(piece.side) && on(edge.side);
}
// The id by which a maker chooses things for a piece, a seam or a dart: of what stands for both halves.
template <typename Part>
const std::string& chosenAs(const Part& part) {
  return part.splitOf.empty() ? part.id : part.splitOf;
}

// Whether it houses the bust: a piece of a cut cup, its upper band, the cover of a ready-made one.
bool isCup(const Piece& piece);

// An edge as a seam uses it.
struct EdgeUse {
  std::string edge;
  bool reversed = false;  // walked against the way it runs in its piece
};

// One side of a seam: a chain of edges of one piece, each starting where the one before ends, walked from the upper end
// down (a cup line from centre front outwards, a dart from its mouth or its point).
struct SeamSide {
  size_t piece = 0;  // index into Pattern::pieces
  std::vector<EdgeUse> chain;

  bool uses(std::string_view edge) const;
};

// Between two notches of a seam ("top" and "hem" are its ends) side a is meant to be `amount` mm longer and is eased
// in; negative where side b is.
struct PlannedEase {
  std::string from = "top", to = "hem";
  double amount = 0;
};

struct SeamNotch {
  std::string id;
  double a = 0, b = 0;  // arc length along either side from the upper end, mm
};

// What a seam is. A dart's sides are the legs of one piece's dart; all others are of edges of the outline.
enum class SeamKind { Plain, Shoulder, Dart };

struct Seam {
  std::string id;
  Message name;
  SeamSide a, b;
  std::vector<PlannedEase> eases = {};
  std::vector<SeamNotch> notches = {};  // from the top down
  SeamKind kind = SeamKind::Plain;
  BodySide side = BodySide::Both;  // as of pieces
  std::string splitOf = {};

  double ease() const;                                    // planned in the whole seam, mm
  const SeamNotch* notch(std::string_view called) const;  // the first so called; nullptr where there is none
};

// An edge of a piece, by the piece's place in the pattern.
struct PieceEdge {
  size_t piece = 0;
  std::string edge;
};

// How far what is sewn on reaches from its edge as it is worn, mm, and which way; Flat: it lies on the garment or in
// it.
enum class ReachWay { Down, AlongArm, Up, Flat };
struct Reach {
  double mm = 0;
  ReachWay way = ReachWay::Down;
};

// Anything further sewn to a stretch of an edge, whether that edge is in a seam or not: a strap on the upper edge, a
// panel behind an opening. It is no seam: nothing is walked or balanced along it, and the stretch keeps what else it
// is. Made on the finished shell, so that no operation has to carry it.
struct Attachment {
  std::string id;    // "strap-front"
  Message name;      // "Strap, front end"
  size_t piece = 0;  // whose edge it is sewn to, from `from` to `to`, arc lengths, mm
  std::string edge;
  double from = 0, to = 0;
  PieceEdge attached;  // the edge sewn on; this edge itself where that is bought and no piece
  // Of a trim: which stretch of the edge sewn on lies there, mm, so many times as long; 0 where nothing is compared.
  double onFrom = 0, onTo = 0, full = 0;
  Reach reach = {};       // from the edge
  std::string trim = {};  // and of which it is: "frill-1"
  double loose = 0;       // of the edge sewn on, what beside its stretches is sewn to nothing: over the arm, mm
};

// What is bought for something sewn on, beside cloth: braid, bones, a ready-made lace.
struct Supply {
  std::string_view id;  // "braid"
  Message name;
  int count = 0;
  double length = 0;  // of each, mm; 0 where it is only counted
  Message note;       // how it came to be
};

// A line of a layer and the shell's it lies on: both are to be equally long. `uncovered` is what the layer leaves of
// the shell's edges, mm; with a notch, the shell's line is one side of a seam and counts from its upper end to that
// notch.
struct LayerLine {
  Message name;  // "cup line, inner", "upper edge"
  std::vector<PieceEdge> layer, shell;
  double uncovered = 0;
  std::string seam = {}, notch = {};  // where the shell's line is side `ofA` of this seam, down to the notch
  bool ofA = true;
};

// What was cut off a piece at the end of a seam so that both sides are equally long.
struct Trim {
  std::string seam;
  bool atTop = false;
  size_t piece = 0;
  double amount = 0;  // mm along the edge
};

// What closing the side bust dart did: the part of the front below it was turned about the bust point.
struct Closing {
  double angleRad = 0, width = 0;  // of the wedge; width at the side, mm
  double changed = 0;              // largest change of a piece's width on a level against the block, mm
};

// What stands between the widths of the pieces on a level and its finished girth, all round, mm; each by its own rule.
struct Gaps {
  double opening = 0;  // of a lacing: open by the rule of the opening
  double skin = 0;     // what a plunge leaves open between the cups
  double gathers = 0;  // spanned by cloth that is gathered or moulded and has no width of its own
  double swing = 0;    // less than nothing: what a skirt stands off by below the waist
  double sum() const { return opening + skin + gathers + swing; }
};

// The finished girth is fixed when the block is drawn: body + ease - reduction. Nothing that is done to the pieces
// changes it; what they measure closed (Pattern::closedGirth) is held against it.
struct PatternLevel {
  std::string id;
  Message name;
  double bodyGirth = 0, finishedGirth = 0;
  Gaps gaps = {};
  bool girthTaken = true, heightTaken = true;  // else estimated, or between its neighbours
  bool ring = false;                           // crosses every piece, so that its girth can be measured on them

  double ease() const { return std::max(0.0, finishedGirth - bodyGirth); }
  double reduction() const { return std::max(0.0, bodyGirth - finishedGirth); }
  bool estimated() const { return !girthTaken || !heightTaken; }
};

// Further pieces, straps, linings and the like, lie this far from what is on the table already; mm.
inline constexpr double kBesideShell = 60;

struct Pattern {
  std::vector<PatternLevel> levels;
  std::vector<Piece> pieces;  // of the shell from centre front to centre back, then other layers
  std::vector<Seam> seams;
  std::vector<LayerLine> layerLines = {};
  std::vector<Attachment> attachments = {};
  std::vector<Supply> supplies = {};
  std::vector<Trim> trims;
  Closing closing;
  std::vector<Working> workings = {};  // of what was done to the pieces after they were cut

  size_t shellPieces() const;  // they come first
  // The place of a panel, counted from the centre of its half from 1; nothing where there is none any more.
  std::optional<size_t> panel(Half half, int ordinal) const;
  double right() const;                         // x of the rightmost corner: what is added lies beyond it
  const Seam* seam(std::string_view id) const;  // nullptr when there is none of this id
  // Both lengths of a line of a layer, mm.
  double layerLength(const LayerLine& line) const;
  double shellLength(const LayerLine& line) const;
  // Sum of the widths on the pieces of the shell, less what darts take, + the gaps.
  // nullptr where the pattern has no such level.
  const PatternLevel* level(std::string_view id) const;
  Message levelName(std::string_view id) const;  // the id itself where there is none
  double closedGirth(const PatternLevel& level) const;
  // A side as a path from its upper end down. Throws std::out_of_range for an edge the piece lacks.
  Path sidePath(const SeamSide& side) const;
  // Arc length from the upper end of a side to a place on one of its edges.
  double alongSide(const SeamSide& side, const Anchor& place) const;
  // The other way round; a place between two edges is on the first of them.
  Anchor placeOnSide(const SeamSide& side, double along) const;
};

// Whether a piece was on the fold and is both halves now.
inline bool isUnfolded(const Piece& piece) { return piece.side == BodySide::Both && !piece.splitOf.empty(); }
// Whether its edge nearer the centre is its right one: of a back, and of the right half of a front.
inline bool hasCentreOnRight(const Piece& piece) {
  return (piece.half == Half::Back) != (piece.side == BodySide::Right);
}
// Whether left and right are not alike, so that there are pieces of one of them.
bool isSplit(const Pattern& pattern);

// What is wrong with a pattern as a whole, or nothing: edges that seams, notches, folds or layers name and no piece
// has, marks beyond the end of their edge, outlines that do not close or are turned inside out, darts whose legs do not
// meet, seams whose chain is broken, attachments beyond the end of their edge. Operations keep all
// of this; where one does not, the pattern must not be cut, and the Problem says which piece.
std::optional<Problem> patternProblem(const Pattern& pattern);

}  // namespace armure
