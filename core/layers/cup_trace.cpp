#include "layers/cup_trace.h"

#include <algorithm>
#include <set>

#include "operations/grain.h"
#include "operations/join.h"
#include "parts/cups/cup_line.h"
#include "parts/cups/rules.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kAboveChest = inches(2);             // where a pad ends at the armhole
constexpr std::string_view kInside = "princess-cup";  // the seam between both traced pieces

bool isCupLine(std::string_view seam) { return seam.starts_with("cup-"); }

// Whether any edge of a seam's side of this pattern is the edge.
const SeamSide* sideOf(const Seam& seam, size_t piece, std::string_view edge) {
  for (const SeamSide* side : {&seam.a, &seam.b})
    if (side->piece == piece && side->uses(edge)) return side;
  return nullptr;
}

// Which lines of a layer lie on which of the shell.
class LayerLines {
 public:
  // `traced` has the two pieces before they were renamed; in the layer the inner one comes first.
  LayerLines(const Pattern& shell, const Pattern& traced, const CupLine& cupLine, bool cutAbove)
      : shell_(shell), traced_(traced), cupLine_(cupLine), cutAbove_(cutAbove), seam_(*traced.seam(kInside)) {
    for (const Seam& s : shell.seams)
      if (isCupLine(s.id)) cups_.insert(s.b.piece);
  }

  std::vector<LayerLine> make() && {
    if (cups_.empty()) {
      onPanels();
    } else {
      onCups();
    }
    return std::move(lines_);
  }

 private:
  const Piece& tracedPiece(bool inner) const { return traced_.pieces[(inner ? seam_.a : seam_.b).piece]; }
  static size_t placeOf(bool inner) { return inner ? 0 : 1; }

  void add(Message name, std::vector<PieceEdge> layer, std::vector<PieceEdge> shell, double uncovered) {
    if (!layer.empty() && !shell.empty())
      lines_.push_back({std::move(name), std::move(layer), std::move(shell), uncovered, {}, {}, true});
  }

  // What of a traced piece lies along the upper edge of the garment.
  void upperEdges(bool inner, std::vector<PieceEdge>& into) const {
    for (const Edge& e : tracedPiece(inner).edges)
      if (e.role != EdgeRole::Cup && !isCentre(e.role) && !(inner ? seam_.a : seam_.b).uses(e.id))
        into.push_back({placeOf(inner), e.id});
  }

  // Over a cut cup: each part of the cup line as long as the frame's, and the upper edge as long as the cup's. On the
  // frame a band or a cross seam may have cut a part in two: cup-1, cup-1-2.
  void onCups() {
    for (const bool inner : {true, false})
      for (const Edge& e : tracedPiece(inner).edges) {
        if (e.role != EdgeRole::Cup) continue;
        std::vector<PieceEdge> frame;
        for (const Seam& s : shell_.seams)
          if (isCupLine(s.id))
            for (const EdgeUse& use : s.a.chain)
              if (use.edge == e.id || use.edge.starts_with(e.id + "-")) frame.push_back({s.a.piece, use.edge});
        add("cup line", {{placeOf(inner), e.id}}, std::move(frame), 0);
      }
    std::vector<PieceEdge> layer, upper;
    for (const bool inner : {true, false}) upperEdges(inner, layer);
    for (const size_t c : cups_)
      for (const Edge& e : shell_.pieces[c].edges)
        if (!isWithinCup(c, e.id) && !isCentre(e.role) && e.role != EdgeRole::Mouth) upper.push_back({c, e.id});
    if (!cutAbove_) add("upper edge", std::move(layer), std::move(upper), 0);
  }

  bool isWithinCup(size_t piece, std::string_view edge) const {
    return std::any_of(shell_.seams.begin(), shell_.seams.end(), [&](const Seam& s) {
      return sideOf(s, piece, edge) && (isCupLine(s.id) || (cups_.contains(s.a.piece) && cups_.contains(s.b.piece)));
    });
  }

  // Over a cup in the princess seam: that seam down to the underbust notch, if it still has one, and the upper edges
  // beside it from where the cup line begins to where it ends.
  void onPanels() {
    const Seam& princess = shell_.seams.front();
    const double skipped = cutAbove_ || isClosed() ? princessAbove() : 0;
    for (const bool inner : {true, false}) {
      const SeamSide& side = inner ? seam_.a : seam_.b;
      LayerLine line{"princess seam", {}, {}, skipped, princess.id, std::string(level::kUnderbust), inner};
      for (const EdgeUse& use : side.chain) line.layer.push_back({placeOf(inner), use.edge});
      if (princess.notch(level::kUnderbust)) lines_.push_back(std::move(line));
    }
    if (cutAbove_ || isClosed() || cupLine_.through.size() != 2) return;
    for (const bool inner : {true, false}) {
      const LineThrough& through = inner ? cupLine_.through.front() : cupLine_.through.back();
      const Anchor& end = inner ? through.from : through.to;
      const Path& edge = shell_.pieces[through.piece].edge(end.edge).path;
      std::vector<PieceEdge> layer;
      upperEdges(inner, layer);
      if (layer.size() == 1)
        add("upper edge", std::move(layer), {{through.piece, end.edge}}, inner ? end.at : edge.length() - end.at);
    }
  }

  // Whether the cup line begins and ends on the princess seam, which goes on above it.
  bool isClosed() const {
    const LineThrough& inner = cupLine_.through.front();
    return inner.from.edge == inner.to.edge;
  }

  // How much of the princess seam lies above the pad.
  double princessAbove() const {
    const SeamNotch* under = shell_.seams.front().notch(level::kUnderbust);
    return (under ? under->a : 0) - traced_.sidePath(seam_.a).length();
  }

  const Pattern &shell_, &traced_;
  const CupLine& cupLine_;
  const bool cutAbove_;
  const Seam& seam_;
  std::set<size_t> cups_;  // the pieces of the cup
  std::vector<LayerLine> lines_;
};

// The piece of the shell a traced one was made from: the cup's, or the panel it lies on.
std::string sourceOf(const Pattern& shell, const Piece& traced, const LineThrough& through) {
  for (const Piece& p : shell.pieces)
    if (p.id == traced.id) return p.id;
  return shell.pieces[through.piece].id;
}

// Both traced pieces as one layer.
Layer layerFrom(const Pattern& shell, const Pattern& traced, const CupLine& line, bool cutAbove,
                const LayerRecipe& recipe, double allowance) {
  Layer layer{std::string(recipe.id), {}, LayerLines(shell, traced, line, cutAbove).make()};
  const Message name = known(recipe.name);
  Seam seam = *traced.seam(kInside);
  for (SeamSide* side : {&seam.a, &seam.b}) {
    const bool inner = side == &seam.a;
    Piece p = traced.pieces[side->piece];
    p.source = sourceOf(shell, p, inner ? line.through.front() : line.through.back());
    p.id = layer.id + (inner ? "-inner" : "-outer");
    p.name = inner ? msg("{}, inner", name) : msg("{}, outer", name);
    p.part = Part::Pad;
    p.layer = layer.id;
    p.cloth.clear();
    if (!p.onFold.empty()) cutInPairs(p);  // where the cups touch
    for (Edge& e : p.edges) {
      e.allowance = allowance;
      if (isCentre(e.role)) e.role = kBetweenCups;
      if (!side->uses(e.id) && e.role != kBetweenCups) e.role = e.role == EdgeRole::Cup ? EdgeRole::Raw : EdgeRole::Top;
    }
    std::erase_if(p.marks, [&](const Mark& m) { return m.isLevel() || p.edge(m.a.edge).role != EdgeRole::Seam; });
    layGrain(p);
    layer.pattern.pieces.push_back(std::move(p));
    side->piece = inner ? 0 : 1;
  }
  seam.id = layer.id + "-princess";
  seam.name = msg("{} seam", name);
  layer.pattern.seams.push_back(std::move(seam));
  return layer;
}

bool reachesShoulder(const Piece& piece) {
  return std::any_of(piece.edges.begin(), piece.edges.end(),
                     [](const Edge& e) { return e.id.starts_with("shoulder"); });
}

// The place on the outline, but for one edge, that a straight line from a point meets first.
struct Met {
  Anchor place;
  Vec2 point;
};
std::optional<Met> firstMet(const Piece& piece, std::string_view but, Vec2 from, Vec2 direction) {
  constexpr double kAway = 1;  // mm
  std::optional<Met> nearest;
  for (const Edge& e : piece.edges) {
    if (e.id == but) continue;
    for (double s : e.path.crossings(from, direction)) {
      const Vec2 p = e.path.pointAt(s);
      if (dot(p - from, direction) < kAway) continue;
      if (!nearest || distance(p, from) < distance(nearest->point, from)) nearest = Met{{e.id, s}, p};
    }
  }
  return nearest;
}

// Cuts off what of both traced pieces lies above the pad. False where no such line is found; they stay whole then.
bool cutAboveTop(Pattern& traced, const Block& block) {
  const Seam& seam = *traced.seam(kInside);
  const double top = block.levels.at(level::kTop).front, chest = block.levels.at(level::kChest).front;
  const Path a = traced.sidePath(seam.a);
  const std::vector<double> met = a.crossings({0, top}, {1, 0});
  if (met.empty()) return false;
  const double along = met.front(), there = along + traced.sidePath(seam.b).length() - a.length();
  if (along < 5 || there < 5) return false;
  const Piece &inner = traced.pieces[seam.a.piece], &outer = traced.pieces[seam.b.piece];
  const Vec2 onInner = a.pointAt(along), onOuter = traced.sidePath(seam.b).pointAt(there);
  const auto left = firstMet(inner, seam.a.chain.front().edge, onInner, {-1, 0});
  // At the armhole 2 in above the chest line, or level where the armhole does not reach so high.
  std::optional<Met> right;
  for (const Edge& e : outer.edges)
    if (e.role == EdgeRole::Armhole)
      for (double s : e.path.crossings({0, chest - kAboveChest}, {1, 0}))
        if (!right) right = Met{{e.id, s}, e.path.pointAt(s)};
  if (!right) right = firstMet(outer, seam.b.chain.front().edge, onOuter, {1, 0});
  if (!left || !right) return false;
  DividingLine line{"pad-top", "Upper edge of the pad", "above the pad", EdgeRole::Top, 0, {}};
  // What is kept lies to the right as the line travels out from the centre.
  line.through.push_back(
      {seam.a.piece, left->place, traced.placeOnSide(seam.a, along), Path::line(left->point, onInner)});
  // Level on the inner piece; on the outer one it runs on from there, the seam closed, and up to the armhole.
  const Vec2 onward = rotated({1, 0}, angleBetween(a.tangentAt(along), traced.sidePath(seam.b).tangentAt(there)));
  const double third = distance(onOuter, right->point) / 3;
  const Path rise(
      Cubic{onOuter, onOuter + third * onward, right->point - third * unit(right->point - onOuter), right->point});
  line.through.push_back({seam.b.piece, traced.placeOnSide(seam.b, there), right->place, rise});
  dividePieces(traced, line, {{"above-inner", "Above", Part::Panel}, {"above-outer", "Above", Part::Panel}});
  return true;
}

}  // namespace

Result<Layer> traceCup(const Pattern& shell, const LayerRecipe& recipe, const LayerSources& sources, const Block& block,
                       const Rules& rules) {
  Pattern traced = sources.panels;
  const Result<CupLine>& line = sources.cupLine.value();
  if (!line.ok()) return line.problem();
  const bool across = line->through.size() > 2;
  const std::string crossed = traced.seams[1].id + "-cup";
  std::vector<PieceName> names{{"cup-inner", "Inner cup", Part::Cup}, {"cup-outer", "Outer cup", Part::Cup}};
  if (across) names.push_back({"cup-beyond", "Outer cup"});
  dividePieces(traced, {"cup", "Cup line", "in the cup", EdgeRole::Cup, 0, line->through}, names);
  if (across) joinPieces(traced, crossed, "Outer cup");
  const Seam& seam = *traced.seam(kInside);
  const bool high = reachesShoulder(traced.pieces[seam.a.piece]) || reachesShoulder(traced.pieces[seam.b.piece]);
  const bool cut = recipe.belowArmhole && high && cutAboveTop(traced, block);
  const double allowance = recipe.allowances == LayerAllowance::ByRule ? rules.length(recipe.allowance) : 0;
  return layerFrom(shell, traced, *line, cut, recipe, allowance);
}

}  // namespace armure
