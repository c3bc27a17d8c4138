// From the balanced pattern to the first cut, for every style: layers, bones, notches, lists and the order of sewing
// hold together. Figures of the trade are common practice, no source.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <set>

#include "layers/recipe.h"
#include "parts/bones/bones.h"
#include "prepare/drawing.h"
#include "prepare/lists.h"
#include "prepare/marks.h"
#include "prepare/sewing.h"
#include "recalc/job_sheet.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

constexpr double kShorter = inches(0.5);

bool inside(const Polyline& ring, Vec2 p) {
  double turned = 0;
  for (size_t i = 0; i < ring.size(); ++i) turned += angleBetween(ring[i] - p, ring[(i + 1) % ring.size()] - p);
  return std::abs(turned) > 3;
}

Order styled(std::string_view style, size_t body, double cup = 95) {
  Order o = plainOrder();
  o.style = style;
  o.measures = measuresOf(realBodies()[body], cup);
  o.choices["balance.keep"] = "balanced";
  return o;
}

Order layered(std::string_view style, size_t body) {
  Order o = styled(style, body);
  o.choices.insert({{"layer.lining", "all"},
                    {"layer.lining_shorter", "0.5 in"},
                    {"layer.strength", "all"},
                    {"layer.interfacing", "doubled"},
                    {"layer.interfacing_edges", "trimmed"},
                    {"layer.overlay", "panels"},
                    {"layer.net", "single"},
                    {"layer.foam", "cups"},
                    {"layer.facing", "opening"},
                    {"layer.facing_depth", "1 in"},
                    {"cup.inside", style == "reducing-four-lines" ? "none" : "both"}});  // no room for one there
  return o;
}

double lengthOf(const Piece& p, const std::string& edge) { return p.edge(edge).path.length(); }

// Whether an edge lies beside the hem, so that a layer that is shorter there loses some of it.
int endsAtHem(const Piece& p, size_t i) {
  const size_t n = p.edges.size();
  return p.edges[i].role == EdgeRole::Mouth
             ? 0
             : (p.edges[(i + 1) % n].role == EdgeRole::Hem) + (p.edges[(i + n - 1) % n].role == EdgeRole::Hem);
}

void layersFollowTheShell(const Design& d) {
  const Pattern all = everyLayer(d.pattern, d.rules);
  std::map<std::string, const Piece*> shell;
  for (const Piece& p : all.pieces)
    if (p.layer == "shell") shell[p.id] = &p;
  std::set<std::string> layers;
  for (const Piece& p : all.pieces) {
    layers.insert(p.layer);
    if (p.layer == "shell" || p.source.empty() || p.part == Part::Pad) continue;  // traced ones: layers_test
    INFO(p.id);
    REQUIRE(shell.contains(p.source));
    const Piece& from = *shell.at(p.source);
    for (size_t i = 0; i < p.edges.size(); ++i) {
      const Edge& e = p.edges[i];
      const auto its = std::ranges::find(from.edges, e.id, &Edge::id);
      if (its == from.edges.end()) continue;  // the inner edge of a facing
      const double lost = lengthOf(from, e.id) - e.path.length();
      INFO(e.id);
      if (e.role == EdgeRole::Mouth) continue;  // narrower where its dart is shorter
      if (p.layer == "lining" && e.role != EdgeRole::Hem)
        CHECK(lost == Approx(kShorter * endsAtHem(p, i)).margin(0.5));
      else if (p.layer != "lining" && p.layer != "facing-opening")
        CHECK(std::abs(lost) < 0.5);
      else if (p.layer == "facing-opening" && e.role == EdgeRole::Opening)
        CHECK(std::abs(lost) < 0.5);
    }
  }
  for (const char* layer : {"shell", "strength", "interfacing", "lining"}) CHECK(layers.contains(layer));
  for (const Seam& s : all.seams) {
    if (all.pieces[s.a.piece].layer == "shell") continue;
    INFO(s.id);
    CHECK(all.pieces[s.a.piece].layer == all.pieces[s.b.piece].layer);
    CHECK(all.sidePath(s.a).length() - all.sidePath(s.b).length() == Approx(s.ease()).margin(0.5));
  }
  const auto fault = patternProblem(all);
  INFO((fault ? fault->text() : ""));
  CHECK_FALSE(fault);
}

void channelsFit(const Design& d) {
  const std::vector<Channel> channels = channelsOf(d.pattern, d.block, d.rules);
  CHECK(channels.size() >= 3);
  std::set<std::string> ids;
  for (const Channel& c : channels) {
    INFO(c.id);
    CHECK(ids.insert(c.id).second);
    const Piece& p = d.pattern.pieces[c.piece];
    const Polyline outline = p.outline(0.02);
    size_t out = 0;
    Polyline closed = outline;
    closed.push_back(closed.front());
    for (const double aside : {-c.width / 2, 0.0, c.width / 2})
      for (const Vec2 q : c.line(aside)) out += !inside(outline, q) && distanceToPolyline(q, closed) > 0.3;
    CHECK((out == 0 || !p.onFold.empty()));
    CHECK(c.length() >= 28);
    CHECK(cutLength(c, d.rules) == Approx(std::max(0.0, c.length() - 2 * inches(0.375))).margin(1e-9));
    const auto working = boneWorking(d.pattern, d.block, d.rules, c.id);
    REQUIRE(working);
    CHECK(working->result == Approx(c.length() - 2 * inches(0.375)).margin(0.1));
    // Nothing beside a fold is counted once but what lies on it.
    if (c.count == 1) CHECK((p.symmetry != Symmetry::Pair || c.seam.empty()));
  }
}

void notchesReachTheScissors(const Design& d) {
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i) {
    Polyline cut = d.cutOutlines[i], sewn = d.pattern.pieces[i].outline(0.01);
    cut.push_back(cut.front()), sewn.push_back(sewn.front());
    for (const NotchStroke& s : strokesToCut(d.pattern.pieces[i], d.cutOutlines[i])) {
      CHECK(distanceToPolyline(s.sewn, sewn) < 0.1);
      CHECK(distanceToPolyline(s.cut, cut) < 0.1);
    }
  }
}

// No step before what it encloses; every seam once.
void sewnInOrder(const Design& d) {
  std::map<std::string, size_t> at;
  size_t number = 0;
  for (const SewingStep& step : sewingOrder(d.pattern, d.block, d.rules))
    for (const SewnSeam& s : step.seams) CHECK(at.emplace(s.seam, number++).second);
  const size_t count = d.pattern.shellPieces();
  for (const Seam& s : d.pattern.seams)
    if (s.a.piece < count && s.b.piece < count) CHECK(at.contains(s.id));
  for (const auto& [first, then] : enclosures(d.pattern)) {
    INFO(d.pattern.seams[first].id << " before " << d.pattern.seams[then].id);
    CHECK(at.at(d.pattern.seams[first].id) < at.at(d.pattern.seams[then].id));
  }
}

void listNamesEverything(const Design& d) {
  const CutList list = cutList(d.pattern, d.block, d.rules);
  const Pattern all = everyLayer(d.pattern, d.rules);
  std::map<std::string, int> copies;
  for (const CutPiece& c : list.pieces) {
    CHECK(copies.emplace(c.id, c.copies).second);
    CHECK(std::ranges::find(list.cloths, c.cloth, &ClothLine::cloth) != list.cloths.end());
  }
  CHECK(copies.size() == all.pieces.size());
  for (const Piece& p : all.pieces) {
    INFO(p.id);
    REQUIRE(copies.contains(p.id));
    CHECK(copies.at(p.id) == p.copies);
  }
}

}  // namespace

TEST_CASE("every style, with every layer it can have, is ready to cut") {
  for (const size_t body : {7u, 90u})
    for (const Preset& style : styleTable()) {
      const auto made = recalc(layered(style.id, body));
      INFO(style.id << ", body " << body << (made.ok() ? "" : made.problem().text()));
      CHECK(made.ok());
      if (!made.ok()) continue;
      layersFollowTheShell(*made);
      channelsFit(*made);
      notchesReachTheScissors(*made);
      sewnInOrder(*made);
      listNamesEverything(*made);
    }
}

TEST_CASE("layers are added, taken away, ordered and doubled by choice") {
  const Design plain = designOf(orderWith({{"layer.lining", "none"}}));
  CHECK(std::ranges::all_of(plain.pattern.pieces, [](const Piece& p) { return p.alsoCut.empty(); }));
  const Design d = designOf(orderWith({{"layer.lining", "all"},
                                       {"layer.interfacing", "doubled"},
                                       {"layers.order", "lining shell"},
                                       {"cloth.of.lining", "velvet"},
                                       {"cloth.of.front-2", "own-1"},
                                       {"cloth.own-1.name", "Grey flannel"},
                                       {"cloth.own-1.width", "28 in"}}));
  std::vector<std::string_view> ids;
  for (const LayerRecipe* r : layersOf(d.rules)) ids.push_back(r ? r->id : "shell");
  CHECK(ids == std::vector<std::string_view>{"lining", "shell", "interfacing"});
  const CutList list = cutList(d.pattern, d.block, d.rules);
  for (const CutPiece& c : list.pieces) {
    const Piece& p = d.pattern.pieces[c.piece];
    if (c.layer == "lining") CHECK((c.cloth == "velvet" && c.copies == p.copies));
    if (c.layer == "interfacing") CHECK(c.copies == 2 * p.copies);
    if (c.layer == "shell") CHECK(c.cloth == (p.id == "front-2" ? "own-1" : "satin"));
  }
  const auto own = std::ranges::find(list.cloths, "own-1", &ClothLine::cloth);
  REQUIRE(own != list.cloths.end());
  CHECK(own->width == Approx(inches(28)));
  CHECK(own->as.name == "Grey flannel");
}

TEST_CASE("a lining without cups is only cut along the cup line; one on the bias keeps its shape") {
  const Design d = designOf(orderWith(
      {{"cup.kind", "two"}, {"layer.lining", "panels"}, {"layer.lining_grain", "bias"}, {"dart.side", "1 in"}}));
  size_t raw = 0, pieces = 0;
  for (const Piece& p : d.pattern.pieces) {
    if (p.layer != "lining") continue;
    ++pieces;
    CHECK(p.part == Part::Panel);
    CHECK(isOnBias(p));
    const Piece& from = pieceOf(d.pattern, p.source);
    CHECK_FALSE(isOnBias(from));
    for (const Edge& e : p.edges) {
      raw += e.role == EdgeRole::Raw;
      CHECK(e.path.length() == Approx(lengthOf(from, e.id)).margin(1e-6));
    }
  }
  CHECK(pieces >= 2);
  CHECK(raw >= 2);  // both parts of the cup line
}

TEST_CASE("where nothing is taken in, the lining is cut in one") {
  const Design d = designOf(orderWith({{"opening.front", "seam"},
                                       {"opening.kind", "zip"},
                                       {"layer.lining", "all"},
                                       {"layer.lining_joins", "where-flat"},
                                       {"centre_front.waist", "0 in"}}));
  const Piece& shell = pieceOf(d.pattern, "front-1");
  const Piece& lining = pieceOf(d.pattern, "lining-front-1");
  CHECK(shell.onFold.empty());
  CHECK_FALSE(lining.onFold.empty());  // the centre front is straight
  CHECK(lining.copies == 1);
  CHECK(lining.edge(lining.onFold).allowance == 0);
}

TEST_CASE("a layer that cannot be as short as asked says by how much it can") {
  Order o = orderWith({{"layer.lining", "all"}, {"layer.lining_shorter", "12 in"}, {"hem.at", "waist"}});
  const auto made = recalc(o);
  REQUIRE_FALSE(made.ok());
  CHECK(made.problem().text().find("choose at most") != std::string::npos);
}

TEST_CASE("a facing is as long as its edge and as deep as asked") {
  const Design d = designOf(orderWith({{"layer.facing", "top"}, {"layer.facing_depth", "2 in"}}));
  size_t facings = 0;
  for (const Piece& p : d.pattern.pieces) {
    if (p.layer != "facing-top") continue;
    ++facings;
    INFO(p.id);
    const Piece& from = pieceOf(d.pattern, p.source);
    CHECK(lengthOf(p, "top") == Approx(lengthOf(from, "top")).margin(1e-6));
    const auto& edges = p.edges;
    const auto top = std::ranges::find(edges, "top", &Edge::id) - edges.begin();
    const Edge& beside = edges[(static_cast<size_t>(top) + 1) % edges.size()];
    CHECK(beside.path.length() == Approx(inches(2)).margin(1e-6));
  }
  CHECK(facings >= 2);
}

TEST_CASE("a toile is of one cloth, wide where it may be let out, with its levels and bust point") {
  const Design d = designOf(orderWith({{"cut.for", "toile"}, {"layer.lining", "all"}, {"toile.side", "2.5 in"}}));
  const CutList list = cutList(d.pattern, d.block, d.rules);
  REQUIRE(list.cloths.size() == 1);
  CHECK(list.cloths.front().cloth == "calico");
  for (const CutPiece& c : list.pieces) CHECK(c.layer != "lining");
  CHECK(pieceOf(d.pattern, "front-2").edge("side").allowance == Approx(inches(2.5)));
  CHECK(pieceOf(d.pattern, "front-1").edge("princess").allowance == Approx(inches(1)));
  const Boning boning = boningOf(d.pattern, d.block, d.rules);
  size_t bust = 0;
  for (size_t i = 0; i < d.pattern.pieces.size(); ++i)
    for (const DrawnText& t : drawnTexts({d.pattern, d.rules, boning}, i, Motion())) bust += t.text == "bust point";
  CHECK(bust >= 1);
}

TEST_CASE("by custom allowances are on the paper, in part, or on the cloth; none is lost") {
  const auto made = [](const char* custom) { return designOf(orderWith({{"allowance.custom", custom}})); };
  const Design paper = made("paper"), part = made("side-and-hem"), cloth = made("cloth");
  for (size_t i = 0; i < paper.pattern.pieces.size(); ++i)
    for (size_t k = 0; k < paper.pattern.pieces[i].edges.size(); ++k) {
      const Edge &a = paper.pattern.pieces[i].edges[k], &b = part.pattern.pieces[i].edges[k],
                 &c = cloth.pattern.pieces[i].edges[k];
      CHECK(a.onCloth == 0);
      CHECK(b.allowance + b.onCloth == Approx(a.allowance));
      CHECK(c.onCloth == Approx(a.allowance));
      if (a.id == "side" || a.role == EdgeRole::Hem) CHECK(b.onCloth == 0);
      if (a.id == "princess") CHECK(b.allowance == 0);
    }
  const LengthFormat inch{Unit::Inch, 8};
  CHECK(say(edgeNote(cloth.pattern, 0, pieceOf(cloth.pattern, "front-1").edge("princess")), inch) ==
        "add 1/2 in on the cloth, joins 2");
}

TEST_CASE("bones are placed and taken away by hand") {
  const auto channels = [](const Order& o) {
    const Design d = designOf(o);
    return channelsOf(d.pattern, d.block, d.rules);
  };
  const auto has = [](const std::vector<Channel>& all, std::string_view id) {
    return std::ranges::find(all, id, &Channel::id) != all.end();
  };
  const auto before = channels(plainOrder());
  REQUIRE(has(before, "bone-princess"));
  const Order changed = orderWith({{"bone.at.front-2.1", "0.25"}, {"bone.off.bone-princess", "yes"}});
  const auto after = channels(changed);
  CHECK_FALSE(has(after, "bone-princess"));
  REQUIRE(has(after, "bone-front-2-own-1"));
  // A quarter of the width from the edge nearer the centre, at every level between the edges that run down.
  const Design d = designOf(changed);
  const Channel& own = *std::ranges::find(after, "bone-front-2-own-1", &Channel::id);
  const LevelLine waist = *pieceOf(d.pattern, "front-2").level(level::kWaist);
  const Vec2 wanted = lerp(waist.a, waist.b, 0.25);
  CHECK(distanceToPolyline(wanted, own.middle) < 2);
}

TEST_CASE("binding and piping are as long as their edges, and say how") {
  const Design d = designOf(orderWith({{"binding.edges", "both"}, {"piping.seams", "seams"}}));
  const CutList list = cutList(d.pattern, d.block, d.rules);
  double top = 0, hem = 0, seams = 0;
  for (const Piece& p : d.pattern.pieces)
    for (const Edge& e : p.edges) {
      const double both = 2 * e.path.length();  // a pair, or one on the fold: both halves
      if (p.layer != "shell") continue;
      if (e.role == EdgeRole::Top || e.role == EdgeRole::Armhole) top += both;
      if (e.role == EdgeRole::Hem) hem += both;
    }
  for (const Seam& s : d.pattern.seams)
    if (s.id != "side") seams += 2 * (d.pattern.sidePath(s.a).length() + inches(1));
  const auto binding = std::ranges::find(list.notions, "binding", &Notion::id);
  const auto piping = std::ranges::find(list.notions, "piping", &Notion::id);
  REQUIRE((binding != list.notions.end() && piping != list.notions.end()));
  CHECK(binding->length == Approx(top + hem + inches(4)).margin(0.1));
  CHECK(piping->length == Approx(seams).margin(0.1));
}

TEST_CASE("the sides are sewn last, or with the panels") {
  const auto works = [](const char* sides) {
    const Design d = designOf(orderWith({{"sewing.sides", sides}, {"opening.kind", "zip"}, {"layer.lining", "all"}}));
    std::vector<Work> all;
    for (const SewingStep& s : sewingOrder(d.pattern, d.block, d.rules)) all.push_back(s.work);
    return all;
  };
  const auto before = [](const std::vector<Work>& all, Work a, Work b) {
    return std::ranges::find(all, a) < std::ranges::find(all, b);
  };
  const auto last = works("last"), early = works("with-panels");
  CHECK(before(last, Work::Bones, Work::SetLining));
  CHECK(before(last, Work::Zip, Work::Sides));
  CHECK(before(last, Work::FrontPanels, Work::Sides));
  CHECK(before(early, Work::Sides, Work::Bones));
  CHECK(before(early, Work::SetLining, Work::Zip));
}

TEST_CASE("where straps are sewn on is drawn on the pieces, as wide as the strap") {
  const Design d = designOf(orderWith({{"strap.kind", "straight"}, {"strap.width", "1 in"}}));
  const Boning boning = boningOf(d.pattern, d.block, d.rules);
  REQUIRE(boning.placements.size() == 4);  // in front and behind, at either side
  for (size_t i = 0; i < 4; i += 2) {
    const Placement &from = boning.placements[i], &to = boning.placements[i + 1];
    REQUIRE(from.piece == to.piece);
    CHECK(distance(from.tick.start(), to.tick.start()) == Approx(inches(1)).margin(0.5));
    Polyline outline = d.pattern.pieces[to.piece].outline(0.02);
    CHECK(inside(outline, lerp(from.tick.end(), to.tick.end(), 0.5)));
    outline.push_back(outline.front());
    CHECK(distanceToPolyline(to.tick.start(), outline) < 0.05);
  }
}
