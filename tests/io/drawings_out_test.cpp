// What is drawn for others: DXF, layouts on cloth as SVG, and the words beside the pieces.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <pugixml.hpp>
#include <set>
#include <sstream>

#include "io/cloth_svg.h"
#include "io/dxf_reader.h"
#include "io/dxf_writer.h"
#include "io/print_words.h"
#include "io/svg.h"
#include "prepare/arrange.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

Order said() {
  Order order = plainOrder();
  order.title = "Crème & <brûlée>";
  order.client = "Ottiline Fenn";
  order.date = "2026-10-01";
  order.choices["reduction.waist"] = "2 in";
  return order;
}

// Group codes and values, as they stand.
std::vector<std::pair<int, std::string>> pairsOf(const std::string& dxf) {
  std::vector<std::pair<int, std::string>> pairs;
  std::istringstream lines(dxf);
  for (std::string code, value; std::getline(lines, code) && std::getline(lines, value);)
    pairs.emplace_back(std::stoi(code), value);
  return pairs;
}

std::string all(const std::vector<PrintWords>& words) {
  std::string text;
  for (const PrintWords& w : words) text += w.text + "\n";
  return text;
}

}  // namespace

TEST_CASE("a DXF is pairs of lines in ASCII, of release 12, in millimetres, and every layer it uses is in its table") {
  const Order order = said();
  const std::string dxf = patternDxf(order, recalc(order).value());
  CHECK(std::ranges::all_of(dxf, [](char c) { return c == '\n' || (c >= ' ' && c < 0x7F); }));
  const auto pairs = pairsOf(dxf);
  CHECK(pairs.front() == std::pair(0, std::string("SECTION")));
  CHECK(pairs.back() == std::pair(0, std::string("EOF")));
  std::set<std::string> listed, used;
  std::string entity, variable;
  std::map<std::string, std::string> header;
  for (const auto& [code, value] : pairs) {
    if (code == 0) entity = value;
    if (code == 9) variable = value;
    if (!variable.empty() && (code == 1 || code == 70)) {
      header[variable] = value;
      variable.clear();
    }
    if (entity == "LAYER" && code == 2) listed.insert(value);
    if (entity != "LAYER" && code == 8) used.insert(value);
  }
  CHECK(header["$ACADVER"] == "AC1009");
  CHECK(header["$INSUNITS"] == "4");
  for (const std::string& layer : used) CHECK(listed.contains(layer));
  for (const char* layer : {"1", "4", "6", "7", "8", "14", "15"}) CHECK(used.contains(layer));
  CHECK_FALSE(dxf.find("LWPOLYLINE") != std::string::npos);  // of a later release
}

TEST_CASE("a DXF read back has every piece's cutting line where it lies, to a hundredth") {
  for (const char* style : {"sweetheart-laced", "covered-round", "straight-skirt"}) {
    Order order = said();
    order.style = style;
    order.measures = allMeasuresOf(realBodies()[21], 150);
    const Design design = recalc(order).value();
    const LineDrawing drawing = parseDxf(patternDxf(order, design), "p.dxf").value();
    const PaperLayout layout = layOutOnPaper(design.pattern, design.cutOutlines, 880);
    size_t cut = 0;
    for (const auto& shape : drawing.shapes) {
      if (shape.layer != "1" || !shape.closed) continue;
      ++cut;
      double best = HUGE_VAL;
      for (const Polyline& outline : layout.outlines) {
        Polyline ring = outline;
        ring.push_back(ring.front());
        double worst = 0;
        for (const Cubic& c : shape.path.cubics()) worst = std::max(worst, distanceToPolyline(c.p0, ring));
        best = std::min(best, worst);
      }
      CHECK(best < 0.01);
    }
    CHECK(cut == design.pattern.pieces.size());
  }
}

TEST_CASE("a DXF of some pieces has no other") {
  const Order order = said();
  const std::string dxf = patternDxf(order, recalc(order).value(), {0, 2});
  std::set<std::string> blocks;
  std::string entity;
  for (const auto& [code, value] : pairsOf(dxf)) {
    if (code == 0) entity = value;
    if (entity == "BLOCK" && code == 2) blocks.insert(value);
  }
  CHECK(blocks.size() == 2);
}

TEST_CASE("letters beyond ASCII are written by their numbers") {
  Order order = said();
  order.title = "Ægir\tΩ 😀";
  const std::string dxf = patternDxf(order, recalc(order).value());
  CHECK(dxf.find("\\U+00C6gir \\U+03A9 ?") != std::string::npos);
}

TEST_CASE("an SVG has a group of each piece's lines in every layer, each id once, and markup in names is text") {
  const Order order = said();
  const Design design = recalc(order).value();
  pugi::xml_document svg;
  REQUIRE(svg.load_string(patternSvg(order, design).c_str()));
  std::map<std::string, std::string> titles;
  size_t ids = 0;
  for (const pugi::xpath_node& node : svg.select_nodes("//*[@id]")) {
    titles[node.node().attribute("id").value()] = node.node().child_value("title");
    ++ids;
  }
  CHECK(ids == titles.size());
  for (const Piece& piece : design.pattern.pieces) {
    CHECK(titles.at(piece.id) == english(piece.name));
    for (const char* layer : {"sewn.", "notches.", "grain.", "labels."}) CHECK(titles.contains(layer + piece.id));
  }
  CHECK(std::string(svg.child("svg").child_value("title")) == order.title);
  pugi::xml_document some;
  REQUIRE(some.load_string(patternSvg(order, design, {1}).c_str()));
  CHECK(some.select_nodes("//*[@data-layer='cut']").size() == 1);
}

TEST_CASE("the words beside the pieces say whose they are, what was estimated and what fails") {
  Order order = said();
  order.measures.erase("high_hip");
  order.choices["balance.keep"] = "balanced";
  const Design design = recalc(order).value();
  CHECK(printTitle(order) == order.title);
  CHECK(printTitle(Order{}) == "Untitled order");
  CHECK(printSubtitle(order).find("Ottiline Fenn · 2026-10-01 · ") == 0);
  const std::string facts = all(printFacts(order, design));
  CHECK(facts.find("high hip") != std::string::npos);
  CHECK(facts.find("±") != std::string::npos);
  CHECK(facts.find("every check passes") != std::string::npos);
  CHECK(all(printCautions(order, design)).find("2 in") == std::string::npos);  // the waists, not the wish
  CHECK(all(printCautions(order, design)).find("no medical advice") != std::string::npos);
  const Order plain = plainOrder();
  CHECK(printCautions(plain, recalc(plain).value()).empty());

  Order failing = plain;
  failing.choices["balance.keep"] = "drafted";
  const Design drafted = recalc(failing).value();
  REQUIRE(drafted.sheet.failing() > 0);
  CHECK(all(printFacts(failing, drafted)).find("to mend before cutting") != std::string::npos);
}

TEST_CASE("long texts are divided between words") {
  CHECK(wrappedLines("", 10) == std::vector<std::string>{""});
  CHECK(wrappedLines("one two three", 7) == std::vector<std::string>{"one two", "three"});
  CHECK(wrappedLines("incomprehensibly long", 5) == std::vector<std::string>{"incomprehensibly", "long"});
  const std::string text = "a bodice is cut of a cloth that lies folded along its length";
  std::string joined;
  for (const std::string& line : wrappedLines(text, 12)) {
    CHECK(line.size() <= 12);
    joined += (joined.empty() ? "" : " ") + line;
  }
  CHECK(joined == text);
}

TEST_CASE("a drawing of the cloths has each of them with all its copies, within it") {
  const Order order = said();
  const Design design = recalc(order).value();
  const CutList list = pieceList(design.pattern, design.rules);
  std::vector<OnCloth> cloths;
  size_t copies = 0;
  for (ClothLaying& laying : clothLayings(design.pattern, design.cutOutlines, list)) {
    StripLayout layout = quickLayout(laying);
    copies += laying.placements(layout).size();
    cloths.push_back({std::move(laying), std::move(layout)});
  }
  pugi::xml_document svg;
  REQUIRE(svg.load_string(clothSvg(design.pattern, list, cloths, order.units).c_str()));
  const double wide = svg.child("svg").attribute("width").as_double();
  for (const OnCloth& c : cloths) {
    CHECK(svg.select_nodes(("//*[@id='" + c.laying.cloth.cloth + "']").c_str()).size() == 1);
    CHECK(wide >= c.layout.length);
  }
  CHECK(svg.select_nodes("/svg/g/g/title").size() == copies);
  // One that nothing has room on says so.
  Order narrow = order;
  narrow.choices["cloth.satin.width"] = "10 in";
  narrow.style = "covered-gored";
  const Design wider = recalc(narrow).value();
  const CutList cut = pieceList(wider.pattern, wider.rules);
  ClothLaying unfit = clothLayings(wider.pattern, wider.cutOutlines, cut).front();
  REQUIRE(unfit.unfit);
  CHECK(clothSvg(wider.pattern, cut, {{unfit, {}}}, order.units).find("no room") != std::string::npos);
}
