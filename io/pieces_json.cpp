#include "io/pieces_json.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "prepare/cut_outlines.h"
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

Json edgeJson(const Edge& e) {
  Json beziers = Json::array();
  for (const Cubic& c : e.path.cubics())
    beziers.push_back(Json::array({point(c.p0), point(c.p1), point(c.p2), point(c.p3)}));
  const Polyline line =
      e.role == EdgeRole::Fold ? Polyline{e.path.start(), e.path.end()} : e.path.flattened(kExportTolerance);
  return {{"id", e.id},
          {"role", roleName(e.role)},
          {"allowance", rounded(e.allowance)},
          {"points", points(line)},
          {"beziers", std::move(beziers)}};
}

Json pieceJson(const Piece& p, const Polyline& cutOutline) {
  Json edges = Json::array(), levels = Json::array(), notches = Json::array();
  for (const Edge& e : p.edges) edges.push_back(edgeJson(e));
  for (const LevelLine& l : p.levelLines())
    levels.push_back({{"id", l.level}, {"a", point(l.a)}, {"b", point(l.b)}, {"width", rounded(l.width())}});
  for (const Mark& n : p.notches())
    notches.push_back(
        {{"id", n.id}, {"edge", n.a.edge}, {"at", rounded(n.a.at)}, {"kind", n.doubled ? "double" : "single"}});
  Json piece = {{"id", p.id},
                {"name", p.name},
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
  if (!p.cloth.empty()) piece["cloth"] = p.cloth;
  Json marks = Json::array();
  for (const NotchStroke& s : strokesToCut(p, cutOutline))
    marks.push_back({{"id", s.id}, {"kind", "notch"}, {"points", Json::array({point(s.sewn), point(s.cut)})}});
  piece["marks"] = std::move(marks);
  return piece;
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
  const Pattern& pattern = design.pattern;
  Json levels = Json::array(), pieces = Json::array(), seams = Json::array();
  for (const PatternLevel& l : pattern.levels) {
    if (!l.ring) continue;
    levels.push_back({{"id", l.id},
                      {"name", l.name},
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
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    pieces.push_back(pieceJson(pattern.pieces[i], design.cutOutlines[i]));
  for (const Seam& s : pattern.seams) seams.push_back(seamJson(pattern, s));
  const Json doc{
      {"format", "armure-pieces"},
      {"version", 1},
      {"generator", "armure " ARMURE_VERSION},
      {"units", "mm"},
      {"garment", {{"name", order.title}, {"school", order.school}, {"style", order.style}, {"client", order.client}}},
      {"levels", std::move(levels)},
      {"pieces", std::move(pieces)},
      {"seams", std::move(seams)}};
  return doc.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace armure
