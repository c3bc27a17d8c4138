#include "io/pieces_json.h"
#include "io/version.h"

#include <array>
#include <cmath>
#include <nlohmann/json.hpp>
#include <utility>

#include "geometry/tolerances.h"
#include "layers/recipe.h"
#include "prepare/cut_outlines.h"
#include "prepare/drawing.h"
#include "prepare/lists.h"
#include "prepare/marks.h"

namespace armure {
namespace {

using Json = nlohmann::ordered_json;

double rounded(double v) {
  const double r = std::round(v * 1e5) / 1e5;
  return r == 0 ? 0 : r;  // no "-0.0"
}

Json point(Vec2 p) { return Json::array({rounded(p.x), rounded(p.y)}); }

Json points(const Polyline& line) {
  Json out = Json::array();
  for (Vec2 p : line) out.push_back(point(p));
  return out;
}

Json curves(const Path& path) {
  Json beziers = Json::array();
  for (const Cubic& c : path.cubics())
    beziers.push_back(Json::array({point(c.p0), point(c.p1), point(c.p2), point(c.p3)}));
  return beziers;
}

Json edgeJson(const Edge& e) {
  const Polyline line =
      e.role == EdgeRole::Fold ? Polyline{e.path.start(), e.path.end()} : e.path.flattened(tolerance::kFileFlatness);
  return {{"id", e.id},
          {"role", roleName(e.role)},
          {"allowance", rounded(e.allowance)},
          {"points", points(line)},
          {"beziers", curves(e.path)}};
}

// How far off the middle of a mouth one cuts: its roof has no one allowance.
double beyondMouth(const Edge& mouth, Polyline cutOutline) {
  cutOutline.push_back(cutOutline.front());
  return distanceToPolyline(lerp(mouth.path.start(), mouth.path.end(), 0.5), cutOutline);
}

// Both legs from the mouth, or the upper point, to the point; the one that a level meets first comes first, asked of
// the level on which the dart takes most.
Json dartJson(const Piece& p, const Dart& d) {
  std::array<Path, 2> legs{d.legs[0].path, d.legs[1].path.reversed()};
  std::optional<DartCrossing> widest;
  for (const LevelLine& l : p.levelLines())
    if (const auto c = Piece::crossing(d, l); c && (!widest || c->taken() > widest->taken())) widest = c;
  if (widest && widest->along[0] > widest->along[1]) std::swap(legs[0], legs[1]);
  Json lines = Json::array(), beziers = Json::array();
  for (const Path& leg : legs) {
    lines.push_back(points(leg.flattened(tolerance::kFileFlatness)));
    beziers.push_back(curves(leg));
  }
  return {{"id", d.id},
          {"kind", d.isOpen() ? "open" : "pointed"},
          {"legs", std::move(lines)},
          {"beziers", std::move(beziers)}};
}

// The bones and eyelets of one piece.
void addBoning(Json& marks, const Boning& boning, size_t piece) {
  for (const Channel& c : boning.channels)
    if (c.piece == piece)
      marks.push_back({{"id", c.id}, {"kind", "channel"}, {"points", points(c.middle)}, {"width", rounded(c.width)}});
  for (const EyeletRow& row : boning.eyelets)
    if (row.piece == piece && !row.loops)
      for (size_t k = 0; k < row.places.size(); ++k)
        marks.push_back({{"id", "eyelet-" + std::to_string(k + 1)},
                         {"kind", "eyelet"},
                         {"points", Json::array({point(row.places[k])})}});
}

Json pieceJson(const Piece& p, const std::string& cloth, const Polyline& cutOutline,
               const std::vector<const Attachment*>& sewnOn) {
  Json edges = Json::array(), levels = Json::array(), notches = Json::array();
  for (const Edge& e : p.edges) {
    edges.push_back(edgeJson(e));
    if (e.role == EdgeRole::Mouth) edges.back()["allowance"] = rounded(beyondMouth(e, cutOutline));
  }
  for (const LevelLine& l : p.levelLines()) {
    levels.push_back({{"id", l.level}, {"a", point(l.a)}, {"b", point(l.b)}, {"width", rounded(l.width())}});
    if (!p.darts.empty()) levels.back()["taken"] = rounded(p.taken(l));
  }
  for (const Mark& n : p.notches())
    if (!isOnLeg(p, n))
      notches.push_back(
          {{"id", n.id}, {"edge", n.a.edge}, {"at", rounded(n.a.at)}, {"kind", n.doubled ? "double" : "single"}});
  Json piece = {{"id", p.id},
                {"name", english(p.name)},
                {"number", p.number},
                {"of", p.of},
                {"layer", p.layer},
                {"quantity", p.symmetry == Symmetry::Pair ? 2 : 1},
                {"copies", p.copies},
                {"girthWeight", p.girthWeight()},
                {"onFold", p.onFold.empty() ? Json() : Json(p.onFold)},
                {"grain", Json::array({point(p.grainTop), point(p.grainBottom)})},
                {"edges", std::move(edges)},
                {"levels", std::move(levels)},
                {"notches", std::move(notches)},
                {"cutOutline", points(cutOutline)}};
  piece["cloth"] = cloth;
  if (!p.source.empty()) piece["source"] = p.source;
  Json marks = Json::array();
  for (const NotchStroke& s : strokesToCut(p, cutOutline))
    marks.push_back({{"id", s.id}, {"kind", "notch"}, {"points", Json::array({point(s.sewn), point(s.cut)})}});
  for (const DartPoint& d : dartPoints(p))
    marks.push_back({{"id", d.dart}, {"kind", "point"}, {"points", Json::array({point(d.at)})}});
  for (const Attachment* a : sewnOn)
    marks.push_back({{"id", a->id},
                     {"kind", "placement"},
                     {"points", points(p.edge(a->edge).path.sub(a->from, a->to).flattened(tolerance::kFileFlatness))}});
  piece["marks"] = std::move(marks);
  for (const Dart& d : p.darts) piece["darts"].push_back(dartJson(p, d));
  return piece;
}

// The outlines of all pieces: those of the design, and for what is cut again, behind them, its own.
std::vector<Polyline> outlinesOf(const Design& design, const Pattern& all) {
  std::vector<Polyline> outlines = design.cutOutlines;
  if (all.pieces.size() == outlines.size()) return outlines;
  Pattern further;
  further.pieces.assign(all.pieces.begin() + static_cast<std::ptrdiff_t>(outlines.size()), all.pieces.end());
  for (Polyline& outline : cutOutlines(further, design.rules.option(key::kCornerKind)))
    outlines.push_back(std::move(outline));
  return outlines;
}

Json sideJson(const Pattern& pattern, const SeamSide& side) {
  Json edges = Json::array();
  for (const EdgeUse& use : side.chain) edges.push_back({{"id", use.edge}, {"reversed", use.reversed}});
  return {{"piece", pattern.pieces[side.piece].id}, {"edges", std::move(edges)}};
}

Json seamJson(const Pattern& pattern, const Seam& s) {
  Json notches = Json::array();
  for (const SeamNotch& n : s.notches) notches.push_back({{"id", n.id}, {"a", rounded(n.a)}, {"b", rounded(n.b)}});
  Json seam{{"id", s.id},
            {"kind", kindOf(s)},
            {"a", sideJson(pattern, s.a)},
            {"b", sideJson(pattern, s.b)},
            {"ease", rounded(std::abs(s.ease()))},
            {"easeSide", s.ease() < 0 ? "b" : "a"},
            {"notches", std::move(notches)}};
  // Where the ease lies; an addition of ours that other readers may ignore.
  for (const PlannedEase& e : s.eases)
    seam["eased"].push_back({{"from", e.from},
                             {"to", e.to},
                             {"ease", rounded(std::abs(e.amount))},
                             {"easeSide", e.amount < 0 ? "b" : "a"}});
  return seam;
}

}  // namespace

std::string piecesJson(const Order& order, const Design& design) {
  const Pattern pattern = everyLayer(design.pattern, design.rules);
  const std::vector<Polyline> outlines = outlinesOf(design, pattern);
  Json levels = Json::array(), pieces = Json::array(), seams = Json::array();
  for (const PatternLevel& l : pattern.levels) {
    if (!l.ring) continue;
    levels.push_back({{"id", l.id},
                      {"name", english(l.name)},
                      {"bodyGirth", rounded(l.bodyGirth)},
                      {"finishedGirth", rounded(l.finishedGirth)},
                      {"closedGirth", rounded(pattern.closedGirth(l))},
                      {"openingGap", rounded(l.gaps.sum())},
                      {"ease", rounded(l.ease())},
                      {"reduction", rounded(l.reduction())},
                      {"gaps",
                       {{"opening", rounded(l.gaps.opening)},
                        {"skin", rounded(l.gaps.skin)},
                        {"gathers", rounded(l.gaps.gathers)},
                        {"swing", rounded(l.gaps.swing)}}},
                      {"estimated", l.estimated()},
                      {"girthTaken", l.girthTaken},
                      {"heightTaken", l.heightTaken}});
  }
  const Boning boning = boningOf(pattern, design.block, design.rules);
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    std::vector<const Attachment*> sewnOn;
    for (const Attachment& a : pattern.attachments)
      if (a.piece == i) sewnOn.push_back(&a);
    pieces.push_back(pieceJson(pattern.pieces[i], clothOf(pattern.pieces[i], pattern.pieces[i].layer, design.rules),
                               outlines[i], sewnOn));
    addBoning(pieces.back()["marks"], boning, i);
  }
  for (const Seam& s : pattern.seams)
    if (s.kind != SeamKind::Dart) seams.push_back(seamJson(pattern, s));
  const Json doc{
      {"format", "armure-pieces"},
      {"version", 1},
      {"generator", "armure " + std::string(programVersion())},
      {"units", "mm"},
      {"garment", {{"name", order.title}, {"school", order.school}, {"style", order.style}, {"client", order.client}}},
      {"levels", std::move(levels)},
      {"pieces", std::move(pieces)},
      {"seams", std::move(seams)}};
  return doc.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace armure
