// Layers by recipe: derived from the shell as it is, by a pure function, and held against it.
#include <algorithm>
#include <catch2/catch.hpp>

#include "garment/garment.h"
#include "layers/recipe.h"
#include "parts/cups/rules.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"

using namespace armure;
using namespace armure::testing;

namespace {

// A strength layer of all panels, cut double, with the seam allowance all round.
constexpr LayerRecipe kStrength{.id = "strength",
                                .name = "Strength layer",
                                .from = LayerFrom::ShellPieces,
                                .allowances = LayerAllowance::ByRule,
                                .allowance = key::kAllowanceSeam,
                                .parts = partsOf({Part::Panel, Part::Skirt}),
                                .doubled = 2};

Layer derived(const Design& d, const LayerRecipe& recipe) {
  auto layer = deriveLayer(shellOf(d.pattern), recipe, d.sources, d.block, d.rules);
  if (!layer.ok()) FAIL(layer.problem().text());
  return std::move(layer).value();
}

Order balancedIn(std::string_view style) {
  Order o = plainOrder();
  o.style = style;
  o.choices["balance.keep"] = "balanced";
  return o;
}

double lengthOf(const Pattern& pattern, const std::vector<PieceEdge>& edges) {
  double sum = 0;
  for (const PieceEdge& e : edges) sum += pattern.pieces[e.piece].edge(e.edge).path.length();
  return sum;
}

double apart(const Path& a, const Path& b) {
  double most = 0;
  for (const double part : {0.0, 0.25, 0.5, 0.75, 1.0})
    most = std::max(most, distance(a.pointAt(part * a.length()), b.pointAt(part * b.length())));
  return most;
}

}  // namespace

TEST_CASE("a layer of the shell's pieces has their edges, in every style") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    const Design d = designOf(balancedIn(style.id));
    const Pattern shell = shellOf(d.pattern);
    const Layer layer = derived(d, kStrength);
    size_t panels = 0;
    for (const Piece& p : shell.pieces) panels += p.part == Part::Panel || p.part == Part::Skirt;
    REQUIRE(layer.pattern.pieces.size() == panels);
    for (const Piece& p : layer.pattern.pieces) {
      INFO(p.id);
      const auto from =
          std::find_if(shell.pieces.begin(), shell.pieces.end(), [&](const Piece& s) { return s.id == p.source; });
      REQUIRE(from != shell.pieces.end());
      CHECK(p.copies == 2 * from->copies);
      CHECK(p.girthWeight() == from->girthWeight());
      for (const Edge& e : p.edges) {
        CHECK(apart(e.path, from->edge(e.id).path) < 1e-6);
        CHECK(e.allowance == (e.role == EdgeRole::Fold ? 0 : d.rules.length(key::kAllowanceSeam)));
      }
    }
  }
}

TEST_CASE("in a layer every sewn edge is sewn once or only cut, and the garment with it is sound") {
  for (const Preset& style : styleTable()) {
    INFO(style.id);
    const Design d = designOf(balancedIn(style.id));
    Pattern garment = shellOf(d.pattern);
    const size_t before = garment.pieces.size();
    addLayer(garment, derived(d, kStrength));
    CHECK(patternProblem(garment) == std::nullopt);
    for (size_t i = before; i < garment.pieces.size(); ++i)
      for (const Edge& e : garment.pieces[i].edges) {
        int sewn = 0;
        for (const Seam& s : garment.seams)
          for (const SeamSide* side : {&s.a, &s.b}) sewn += side->piece == i && side->uses(e.id);
        INFO(garment.pieces[i].id << "." << e.id);
        CHECK(sewn == (isSewn(e.role) ? 1 : 0));
        if (e.role == EdgeRole::Raw) CHECK(sewn == 0);
      }
    for (const LayerLine& l : garment.layerLines)
      CHECK(lengthOf(garment, l.layer) == Approx(garment.shellLength(l)).margin(1e-6));
    for (size_t i = 0; i < before; ++i)
      CHECK(garment.pieces[i].edges.front().path.cubics() == d.pattern.pieces[i].edges.front().path.cubics());
  }
}

TEST_CASE("deriving is pure: the same twice, and girths do not see it") {
  const Design d = designOf(balancedIn("straps-shaped"));
  const Layer once = derived(d, kStrength), twice = derived(d, kStrength);
  REQUIRE(once.pattern.pieces.size() == twice.pattern.pieces.size());
  for (size_t i = 0; i < once.pattern.pieces.size(); ++i)
    for (size_t e = 0; e < once.pattern.pieces[i].edges.size(); ++e)
      CHECK(once.pattern.pieces[i].edges[e].path.cubics() == twice.pattern.pieces[i].edges[e].path.cubics());
  Pattern garment = shellOf(d.pattern);
  std::vector<double> girths;
  for (const PatternLevel& l : garment.levels) girths.push_back(garment.closedGirth(l));
  addLayer(garment, once);
  for (size_t i = 0; i < girths.size(); ++i) CHECK(garment.closedGirth(garment.levels[i]) == girths[i]);
}

TEST_CASE("a pad or a lining changes nothing of the shell, drafted or balanced") {
  for (const char* keep : {"drafted", "balanced"})
    for (const char* style : {"strap-neckline", "cup-cross-seam", "gathered-cup", "sweetheart-zip", "plunge-v-cups"}) {
      Order o = plainOrder();
      o.style = style;
      o.choices["balance.keep"] = keep;
      o.choices["cup.inside"] = "none";
      const Design without = designOf(o);
      o.choices["cup.inside"] = "both";
      const Design with = designOf(o);
      INFO(style << ", " << keep);
      REQUIRE(with.pattern.shellPieces() == without.pattern.shellPieces());
      for (size_t i = 0; i < with.pattern.shellPieces(); ++i)
        for (size_t e = 0; e < with.pattern.pieces[i].lines(); ++e)
          CHECK(with.pattern.pieces[i].lineAt(e).path.cubics() == without.pattern.pieces[i].lineAt(e).path.cubics());
    }
}

TEST_CASE("linings and pads say of which piece they were made, and fit it") {
  for (const char* kind : {"princess", "two", "cross", "gathered", "moulded"}) {
    Order o = orderWith({{"cup.kind", kind}, {"cup.inside", "both"}, {"balance.keep", "balanced"}});
    const Design d = designOf(o);
    INFO(kind);
    int layers = 0;
    for (const Piece& p : d.pattern.pieces) {
      if (p.layer != "cup-lining" && p.layer != "pad") continue;
      ++layers;
      INFO(p.id << " of " << p.source);
      CHECK(std::any_of(d.pattern.pieces.begin(), d.pattern.pieces.end(),
                        [&](const Piece& s) { return s.layer == "shell" && s.id == p.source; }));
    }
    CHECK(layers == 4);
    REQUIRE_FALSE(d.pattern.layerLines.empty());
    for (const LayerLine& l : d.pattern.layerLines)
      CHECK(lengthOf(d.pattern, l.layer) == Approx(d.pattern.shellLength(l)).margin(0.5));
  }
}

TEST_CASE("the proposal of a drafted order is what balancing makes of it, layers and all") {
  Order o = plainOrder();
  o.style = "strap-neckline";
  o.choices["balance.keep"] = "drafted";
  const Balanced b = proposal(designOf(o));
  o.choices["balance.keep"] = "balanced";
  const Design kept = designOf(o);
  REQUIRE(b.pattern.pieces.size() == kept.pattern.pieces.size());
  for (size_t i = 0; i < b.pattern.pieces.size(); ++i)
    for (size_t e = 0; e < b.pattern.pieces[i].edges.size(); ++e)
      CHECK(apart(b.pattern.pieces[i].edges[e].path, kept.pattern.pieces[i].edges[e].path) < 1e-4);
}

TEST_CASE("straps and panels behind a lacing are attached where they are sewn on") {
  for (const char* style : {"straps-shaped", "cup-three-pieces", "reducing-four-lines"}) {
    Order o = balancedIn(style);
    if (std::string(style) == "reducing-four-lines") o.choices["modesty.kind"] = "panel";
    const Design d = designOf(o);
    INFO(style);
    REQUIRE_FALSE(d.pattern.attachments.empty());
    for (const Attachment& a : d.pattern.attachments) {
      INFO(a.id);
      const Edge& on = d.pattern.pieces[a.piece].edge(a.edge);
      const Piece& attached = d.pattern.pieces[a.attached.piece];
      CHECK(a.attached.piece >= d.pattern.shellPieces());
      CHECK(a.piece < d.pattern.shellPieces());
      CHECK((attached.part == Part::Strap ? on.role == EdgeRole::Top : on.role == EdgeRole::Opening));
      CHECK(a.to - a.from <= attached.edge(a.attached.edge).path.length() + 0.5);
      CHECK(a.to > a.from);
    }
    Pattern broken = d.pattern;
    broken.attachments.front().to = 1e5;
    CHECK(english(patternProblem(broken)->what).find("beyond the end") != std::string::npos);
    broken.attachments.front().edge = "gone";
    CHECK(english(patternProblem(broken)->what).find("gone") != std::string::npos);
  }
}

TEST_CASE("under covered shoulders pads and linings are closed round and fit the panels they lie on") {
  for (const char* style : {"covered-round", "covered-v", "sheer-inserts", "blouse-flared"}) {
    INFO(style);
    Order o = orderWith({{"cup.inside", "both"}, {"balance.keep", "balanced"}});
    o.style = style;
    const Design d = designOf(o);
    CHECK(d.sheet.pass());
    const Piece& pad = pieceOf(d.pattern, "pad-inner");
    for (const Edge& e : pad.edges) CHECK((e.role == EdgeRole::Raw || e.role == EdgeRole::Seam));
  }
}
