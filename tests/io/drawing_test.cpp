// Drawings read from files: what SVG and DXF say of lines, curves, units and places; and every style written as either
// and read back as pieces, seams and levels.
#include "geometry/polygon.h"
#include "tests/support/tracing.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "io/base_file.h"
#include "io/dxf_reader.h"
#include "io/svg.h"
#include "io/svg_path.h"
#include "io/svg_reader.h"
#include "io/tracing_json.h"
#include "pattern/marks.h"
#include "prepare/arrange.h"
#include "recalc/bases.h"
#include "rules/presets.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "tracing/guess.h"

using namespace armure;
using namespace armure::testing;

namespace {

// As patternSvg lays them.
std::vector<Motion> onSheet(const Design& design) {
  std::vector<Motion> motions = layOutOnPaper(design.pattern, design.cutOutlines, 880).motions;
  for (Motion& m : motions) m = m.then(Motion::translation({15, 15}));
  return motions;
}

bool endsInHem(const Pattern& pattern, const std::string& level) {
  for (const Piece& p : pattern.pieces)
    for (const Mark& m : p.levelMarks())
      for (const Anchor* end : {&m.a, &m.b})
        if (m.id == level && p.layer == "shell" && p.edge(end->edge).role == EdgeRole::Hem) return true;
  return false;
}

void checkSame(const Result<Pattern>& read, const Pattern& was) {
  constexpr double kBack = 0.05;  // mm
  INFO((read.ok() ? "" : read.problem().text()));
  REQUIRE(read.ok());
  CHECK_FALSE(patternProblem(*read));
  for (const Piece& p : was.pieces) {
    if (p.layer != "shell") continue;
    INFO(p.id);
    const auto is = std::ranges::find(read->pieces, p.id, &Piece::id);
    REQUIRE(is != read->pieces.end());
    CHECK(strayOf(*is, p) <= kBack);
    CHECK(is->onFold == p.onFold);
    CHECK(is->symmetry == p.symmetry);
  }
  for (const Seam& s : was.seams) {
    if (was.pieces[s.a.piece].layer != "shell" || s.kind == SeamKind::Dart) continue;
    INFO("seam " << s.id);
    const Seam* is = read->seam(s.id);
    REQUIRE(is);
    CHECK(read->pieces[is->a.piece].id == was.pieces[s.a.piece].id);
    CHECK(read->sidePath(is->a).length() == Approx(was.sidePath(s.a).length()).margin(kBack));
    CHECK(read->sidePath(is->b).length() == Approx(was.sidePath(s.b).length()).margin(kBack));
    std::vector<SeamNotch> notches = notchesOf(was, s);
    REQUIRE(is->notches.size() == notches.size());
    // Which end of a cup line is the inner one its drawing does not say.
    if (is->a.chain.front().reversed != s.a.chain.front().reversed) {
      std::ranges::reverse(notches);
      for (SeamNotch& n : notches) {
        n.a = was.sidePath(s.a).length() - n.a;
        n.b = was.sidePath(s.b).length() - n.b;
      }
    }
    for (size_t i = 0; i < notches.size(); ++i) {
      CHECK(is->notches[i].id == notches[i].id);
      CHECK(is->notches[i].a == Approx(notches[i].a).margin(kBack));
      CHECK(is->notches[i].b == Approx(notches[i].b).margin(kBack));
    }
  }
  for (const PatternLevel& l : was.levels) {
    if (!l.ring || l.gaps.gathers != 0) continue;  // gathered cloth has no width to be measured
    if (endsInHem(was, l.id)) continue;            // where it rises over the level the pieces make no ring
    INFO("level " << l.id);
    const PatternLevel* is = read->level(l.id);
    REQUIRE(is);
    CHECK(is->ring);
    CHECK(read->closedGirth(*is) - is->gaps.sum() == Approx(was.closedGirth(l) - l.gaps.sum()).margin(0.2));
  }
}

}  // namespace

TEST_CASE("every style is read back from SVG and DXF with the names given") {
  size_t n = 0;
  for (const Preset& style : styleTable()) {
    Order order = plainOrder();
    order.style = style.id;
    order.choices = choicesOfNewOrders();
    order.measures = allMeasuresOf(realBodies()[(7 * n++) % realBodies().size()], 90);
    const Design design = designOf(order);
    const std::vector<Motion> motions = onSheet(design);
    const TracingNames names = namesOf(design.pattern, motions);
    {
      INFO(style.id << " as SVG");
      const Result<LineDrawing> drawing = parseSvg(patternSvg(order, design), "x.svg");
      REQUIRE(drawing.ok());
      checkSame(tracedPattern(*drawing, names), design.pattern);
    }
    {
      INFO(style.id << " as DXF");
      const Result<LineDrawing> drawing = parseDxf(dxfOf(design.pattern, design.cutOutlines, motions), "x.dxf");
      REQUIRE(drawing.ok());
      checkSame(tracedPattern(*drawing, names), design.pattern);
    }
  }
}

namespace {

LineDrawing svgOf(const std::string& body,
                  const std::string& head = "viewBox='0 0 100 100' width='100mm' height='100mm'") {
  const Result<LineDrawing> d =
      parseSvg("<svg xmlns='http://www.w3.org/2000/svg' " + head + ">" + body + "</svg>", "x.svg");
  INFO((d.ok() ? "" : d.problem().text()));
  REQUIRE(d.ok());
  return *d;
}

double lengthOf(const Subpath& s) {
  double sum = 0;
  for (const Cubic& c : s.cubics) sum += c.length();
  return sum;
}

std::string dxfOf(const std::string& entities, const std::string& header = "") {
  return "0\nSECTION\n2\nHEADER\n" + header + "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities + "0\nENDSEC\n0\nEOF\n";
}

LineDrawing readDxf(const std::string& text) {
  const Result<LineDrawing> d = parseDxf(text, "x.dxf");
  INFO((d.ok() ? "" : d.problem().text()));
  REQUIRE(d.ok());
  return *d;
}

}  // namespace

TEST_CASE("an SVG path is drawn command by command") {
  // Against the closed forms of what each command draws.
  const auto one = [](const char* d) {
    const SvgPath p = parseSvgPath(d);
    REQUIRE(p.subpaths.size() == 1);
    CHECK(p.whole);
    return p.subpaths.front();
  };
  CHECK(lengthOf(one("M 0 0 L 30 40")) == Approx(50));
  CHECK(lengthOf(one("m10,10 l30,40")) == Approx(50));
  CHECK(lengthOf(one("M0 0H30V40h-30z")) == Approx(140));
  CHECK(one("M0 0H30V40h-30z").closed);
  CHECK(lengthOf(one("M0,0 3e1,4.0e+1")) == Approx(50));  // what follows a move is drawn to
  CHECK(lengthOf(one("M10 0 A 10 10 0 0 1 0 10")) == Approx(5 * std::numbers::pi).epsilon(1e-3));
  CHECK(lengthOf(one("M10 0 A 10 10 0 1 0 0 10")) == Approx(15 * std::numbers::pi).epsilon(1e-3));
  CHECK(lengthOf(one("M-10 0a10 10 0 0120 0")) == Approx(10 * std::numbers::pi).epsilon(1e-3));  // flags run together
  CHECK(lengthOf(one("M0 0 A 1 1 0 0 1 20 0")) == Approx(10 * std::numbers::pi).epsilon(1e-3));  // radii grown
  CHECK(lengthOf(one("M0 0A0 5 0 0 1 20 0")) == Approx(20));
  // The parabola y = x^2 from -1 to 1: 2 (sqrt(5)/2 + asinh(2)/4) at scale 1.
  CHECK(lengthOf(one("M-1 1Q0 -1 1 1")) == Approx(std::sqrt(5.0) + std::asinh(2.0) / 2));
  // T and S mirror the handle before them.
  const Subpath t = one("M0 0Q10 10 20 0T40 0"), s = one("M0 0C0 10 20 10 20 0S40 -10 40 0");
  REQUIRE(t.cubics.size() == 2);
  CHECK(distance(t.cubics[1].p1, {20 + 20.0 / 3, -20.0 / 3}) < 1e-9);
  CHECK(distance(s.cubics[1].p1, {20, -10}) < 1e-9);
  // What is before an error is drawn.
  const SvgPath broken = parseSvgPath("M0 0L10 0L20 nonsense");
  CHECK_FALSE(broken.whole);
  REQUIRE(broken.subpaths.size() == 1);
  CHECK(lengthOf(broken.subpaths[0]) == Approx(10));
  CHECK(parseSvgPath("").subpaths.empty());
  CHECK_FALSE(parseSvgPath("L").whole);
  CHECK(parseSvgPath("M0 0L10 0M20 0L30 0").subpaths.size() == 2);
}

TEST_CASE("an SVG is as large as its page says") {
  const auto length = [](const LineDrawing& d) { return d.shapes.at(0).path.length(); };
  const std::string line = "<line x1='0' y1='0' x2='10' y2='0'/>";
  CHECK(length(svgOf(line)) == Approx(10));
  CHECK(length(svgOf(line, "viewBox='0 0 100 100' width='10in' height='10in'")) == Approx(25.4));
  CHECK(length(svgOf(line, "viewBox='0 0 100 100' width='100cm'")) == Approx(100));
  CHECK(length(svgOf(line, "width='100' height='100'")) == Approx(254.0 / 96));  // CSS: 96 to the inch
  CHECK(length(svgOf(line, "")) == Approx(254.0 / 96));
  CHECK(length(svgOf(line, "viewBox='50 50 72 72' width='72pt' height='72pt'")) == Approx(254.0 / 72));
  CHECK(svgOf(line, "viewBox='5 0 100 100' width='100mm' height='100mm'").shapes[0].path.start().x == Approx(-5));
}

TEST_CASE("transforms of groups add up, and hidden parts are not there") {
  const LineDrawing d = svgOf(
      "<g id='sewn' transform='translate(10 20) rotate(90)'><g transform='scale(2)'>"
      "<polyline id='side' points='0,0 5,0 5,5'/></g></g><g style='display: none'><rect width='9' height='9'/></g>"
      "<path display='none' d='M0 0L1 1'/><image/><circle cx='50' cy='50' r='10'/><ellipse rx='4' ry='0'/>"
      "<text x='3' y='4'>Front <tspan>1</tspan></text>");
  REQUIRE(d.shapes.size() == 2);
  CHECK(d.shapes[0].id == "side");
  CHECK(d.shapes[0].layer == "sewn");
  CHECK(distance(d.shapes[0].path.start(), {10, 20}) < 1e-9);
  CHECK(distance(d.shapes[0].path.pointAt(10), {10, 30}) < 1e-9);
  CHECK(distance(d.shapes[0].path.end(), {0, 30}) < 1e-9);
  CHECK(d.shapes[1].closed);
  CHECK(d.shapes[1].path.length() == Approx(20 * std::numbers::pi).epsilon(1e-3));
  REQUIRE(d.words.size() == 1);
  CHECK(d.words[0].text == "Front 1");
  CHECK(d.left.size() == 1);  // the picture
  const LineDrawing skewed = svgOf("<path transform='matrix(1 0 0 -1 0 10) skewX(45)' d='M0 0L0 10'/>");
  CHECK(distance(skewed.shapes[0].path.end(), {10, 0}) < 1e-9);
}

TEST_CASE("what is no drawing is refused and says so") {
  for (const char* text : {"", "<html/>", "<svg", "no drawing", "<svg xmlns='http://www.w3.org/2000/svg'/>",
                           "<svg><path d='M1e9 0L2e9 0'/></svg>", "0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n"}) {
    INFO(text);
    const Result<LineDrawing> d = parseDrawing(text, "x");
    REQUIRE_FALSE(d.ok());
    CHECK_FALSE(d.problem().remedy.empty());
  }
  CHECK_FALSE(parseDxf(std::string("AC\0binary", 9), "x").ok());
}

TEST_CASE("a DXF is read entity by entity, its y turned down") {
  const LineDrawing d =
      readDxf(dxfOf("0\nLINE\n8\n14\n10\n0\n20\n0\n11\n30\n21\n40\n"
                    "0\nARC\n8\n1\n10\n0\n20\n0\n40\n10\n50\n0\n51\n90\n"
                    "0\nCIRCLE\n8\n1\n10\n0\n20\n0\n40\n10\n"
                    "0\nTEXT\n8\n1\n10\n5\n20\n6\n40\n3\n1\nFront\n"));
  REQUIRE(d.shapes.size() == 3);
  CHECK(d.shapes[0].layer == "14");
  CHECK(distance(d.shapes[0].path.end(), {30, -40}) < 1e-9);
  CHECK(d.shapes[1].path.length() == Approx(5 * std::numbers::pi).epsilon(1e-3));
  CHECK(distance(d.shapes[1].path.start(), {10, 0}) < 1e-9);
  CHECK(distance(d.shapes[1].path.end(), {0, -10}) < 1e-9);
  CHECK(d.shapes[2].closed);
  CHECK(d.shapes[2].path.length() == Approx(20 * std::numbers::pi).epsilon(1e-3));
  REQUIRE(d.words.size() == 1);
  CHECK(distance(d.words[0].at, {5, -6}) < 1e-9);
}

TEST_CASE("bulges of a DXF polyline are arcs, splines and ellipses curves") {
  // A bulge of 1 is half a circle over the chord; of tan(pi/8) a quarter.
  const LineDrawing d =
      readDxf(dxfOf("0\nLWPOLYLINE\n8\n1\n90\n2\n70\n1\n10\n0\n20\n0\n42\n1.0\n10\n20\n20\n0\n42\n1.0\n"
                    "0\nLWPOLYLINE\n8\n1\n90\n2\n70\n0\n10\n0\n20\n0\n42\n0.41421356237\n10\n20\n20\n0\n"
                    "0\nELLIPSE\n8\n1\n10\n0\n20\n0\n11\n10\n21\n0\n40\n1.0\n41\n0.0\n42\n3.14159265359\n"
                    "0\nSPLINE\n8\n1\n70\n8\n71\n3\n72\n8\n73\n4\n40\n0\n40\n0\n40\n0\n40\n0\n40\n1\n40\n1\n40\n1\n"
                    "40\n1\n10\n0\n20\n0\n10\n0\n20\n10\n10\n20\n20\n10\n10\n20\n20\n0\n"));
  REQUIRE(d.shapes.size() == 4);
  CHECK(d.shapes[0].closed);
  CHECK(d.shapes[0].path.length() == Approx(20 * std::numbers::pi).epsilon(1e-3));
  CHECK(d.shapes[1].path.length() == Approx(std::numbers::pi / 2 * 20 / std::sqrt(2.0)).epsilon(1e-3));
  CHECK(d.shapes[2].path.length() == Approx(10 * std::numbers::pi).epsilon(1e-3));
  // One Bezier cubic, as a B-spline without inner knots is.
  const Cubic bezier{{0, 0}, {0, -10}, {20, -10}, {20, 0}};
  CHECK(d.shapes[3].path.length() == Approx(bezier.length()).epsilon(1e-3));
  CHECK(distance(d.shapes[3].path.pointAt(d.shapes[3].path.length() / 2), bezier.at(0.5)) < 0.01);
}

TEST_CASE("units of a DXF, and blocks where they are inserted") {
  const std::string line = "0\nLINE\n8\n1\n10\n0\n20\n0\n11\n10\n21\n0\n";
  const auto length = [&](const char* header) { return readDxf(dxfOf(line, header)).shapes.at(0).path.length(); };
  CHECK(length("") == Approx(10));
  CHECK(length("9\n$INSUNITS\n70\n1\n") == Approx(254));
  CHECK(length("9\n$INSUNITS\n70\n4\n") == Approx(10));
  CHECK(length("9\n$INSUNITS\n70\n5\n") == Approx(100));
  const std::string english = "0\nTEXT\n8\n1\n10\n0\n20\n0\n40\n3\n1\nUnits: ENGLISH\n";
  CHECK(readDxf(dxfOf(line + english)).shapes.at(0).path.length() == Approx(254));
  const std::string blocks =
      "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n1\n2\nfront\n70\n0\n10\n1\n20\n0\n" + line + "0\nENDBLK\n0\nENDSEC\n";
  const LineDrawing placed =
      readDxf(blocks + dxfOf("0\nINSERT\n8\n1\n2\nfront\n10\n100\n20\n0\n41\n2\n42\n2\n50\n90\n"));
  REQUIRE(placed.shapes.size() == 1);
  CHECK(placed.shapes[0].id == "front");
  CHECK(distance(placed.shapes[0].path.start(), {100, 2}) < 1e-9);
  CHECK(distance(placed.shapes[0].path.end(), {100, -18}) < 1e-9);
  CHECK(readDxf(blocks + dxfOf("")).shapes.size() == 1);  // inserted nowhere: as it stands
  // A block in itself ends.
  const std::string loop = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n1\n2\na\n70\n0\n10\n0\n20\n0\n" + line +
                           "0\nINSERT\n8\n1\n2\nb\n10\n1\n20\n0\n0\nENDBLK\n0\nBLOCK\n8\n1\n2\nb\n70\n0\n10\n0\n20\n0\n"
                           "0\nINSERT\n8\n1\n2\na\n10\n1\n20\n0\n0\nENDBLK\n0\nENDSEC\n";
  CHECK(readDxf(loop + dxfOf("0\nINSERT\n8\n1\n2\na\n10\n0\n20\n0\n")).shapes.size() < 20);
}

TEST_CASE("what is said of a drawing is written and read again, and so is the base it makes") {
  Order order = plainOrder();
  order.style = "reducing-three-lines";
  const Design design = designOf(order);
  const std::vector<Motion> motions = onSheet(design);
  TracingNames names = namesOf(design.pattern, motions);
  names.opening = 40;
  names.scale = 1.25;
  names.pieces[0].mirrored = true;
  names.pieces[0].darts = {{"dart", {1, 2}, {3, 4}}};
  names.made = order.measures;
  const std::string text = tracingText(names);
  const Result<TracingFile> again = parseTracing(text, "names.json");
  REQUIRE(again.ok());
  CHECK(again->names == names);
  CHECK(tracingText(again->names) == text);

  const Result<LineDrawing> drawing = parseSvg(patternSvg(order, design), "x.svg");
  const Result<Pattern> shell = tracedPattern(*drawing, namesOf(design.pattern, motions));
  REQUIRE(shell.ok());
  const Result<BasePattern> base = baseFromDrawing(*shell, 25, order.measures, "kept", "2026-11-30");
  INFO((base.ok() ? "" : base.problem().text()));
  REQUIRE(base.ok());
  const std::string file = baseText({*base, {}, {}});
  const Result<BaseFile> read = parseBase(file, "x.armure-base");
  INFO((read.ok() ? "" : read.problem().text()));
  REQUIRE(read.ok());
  CHECK(read->base == *base);
  CHECK(baseText(*read) == file);
  checkSame(*read->base.traced.shell, *shell);
}

TEST_CASE("names and traced bases that cannot be meant are refused with their place") {
  const std::string head = R"({"format":"armure-tracing","version":1,"pieces":[)";
  for (const auto& [text, what] : std::vector<std::pair<std::string, std::string>>{
           {"{}", "does not say"},
           {R"({"format":"armure-tracing","version":9})", "version"},
           {head + R"({"id":""}]})", "id"},
           {head + R"({"id":"a.b"}]})", "id"},
           {head + R"({"id":"a","half":"left"}]})", "left"},
           {head + R"({"id":"a","at":[1]}]})", "at"},
           {head + R"({"id":"a","grain":[[1,1],[1,1]]}]})", "grain"},
           {head + R"({"id":"a","copies":0}]})", "copies"},
           {head + R"({"id":"a","edges":[{"id":"b","role":"zip"}]}]})", "zip"},
           {head + R"(],"seams":[{"id":"s","a":{"piece":"x","edges":[]}}]})", "edges"},
           {R"({"format":"armure-tracing","version":1,"scale":0})", "scale"}}) {
    INFO(text);
    const Result<TracingFile> file = parseTracing(text, "n.json");
    REQUIRE_FALSE(file.ok());
    CHECK_THAT(file.problem().text(), Catch::Contains(what));
  }
  const auto base = [](const std::string& traced) {
    return parseBase(R"({"format":"armure-base","version":1,"name":"x","traced":)" + traced + "}", "x.armure-base");
  };
  for (const char* traced :
       {"[]", "{}", R"({"pieces":[]})", R"({"pieces":[{"id":"a"}]})",
        R"({"pieces":[{"id":"a","edges":[{"id":"e","curves":[[[0,0],[1,0],[2,0],[3,0]]]}]}]})",
        R"({"pieces":[{"id":"a","edges":[{"id":"e","curves":[[[0,0],[1,0],[2,0]]]}]}]})",
        R"({"pieces":[{"id":"a","edges":[{"id":"e","curves":[[[0,0],[1e9,0],[2,0],[3,0]]]}]}]})"}) {
    INFO(traced);
    CHECK_FALSE(base(traced).ok());
  }
}

TEST_CASE("names that say no grain of a piece are written and read without one") {
  TracingNames names;
  NamedPiece p;
  p.id = "front";
  p.at = {10, 10};
  names.pieces = {p};
  const std::string text = tracingText(names);
  CHECK(text.find("grain") == std::string::npos);
  const auto read = parseTracing(text, "names");
  REQUIRE(read.ok());
  CHECK(read->names == names);
}
