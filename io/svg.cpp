#include "io/svg.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <vector>

#include "io/document_html.h"
#include "io/print_words.h"
#include "io/svg_text.h"
#include "prepare/arrange.h"
#include "prepare/drawing.h"
#include "prepare/paper.h"
#include "units/language.h"

namespace armure {
namespace {

constexpr double kMargin = 15, kSquareSpace = 12, kWidest = 880;  // mm
constexpr double kWordsWidth = 200, kWordsHeight = 130;           // mm, of what is said beside the squares
constexpr std::string_view kLabels = "labels";

std::string pathData(const Path& path) {
  std::string d = "M" + svgPoint(path.start());
  for (const Cubic& c : path.cubics()) d += fmt::format(" C{} {} {}", svgPoint(c.p1), svgPoint(c.p2), svgPoint(c.p3));
  return d;
}

std::string group(std::string_view id, std::string_view style, const std::string& content) {
  return fmt::format("<g id=\"{}\" {}>\n{}</g>\n", id, style, content);
}

// A group of the file: which roles lie in it, and how they look.
struct Group {
  std::string_view id, style;
  std::vector<LineRole> roles;
};
const Group kGroups[] = {
    {"cut", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.5\"", {LineRole::Cut}},
    {"sewn", "fill=\"none\" stroke=\"#2D4F8B\" stroke-width=\"0.3\" stroke-dasharray=\"4 2\"", {LineRole::Sewn}},
    {"fold", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.3\" stroke-dasharray=\"10 2 2 2\"", {LineRole::Fold}},
    {"levels", "fill=\"none\" stroke=\"#6E675B\" stroke-width=\"0.2\" stroke-dasharray=\"1 2\"", {LineRole::Level}},
    {"notches", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.4\"", {LineRole::Notch, LineRole::Point}},
    {"channels",
     "fill=\"none\" stroke=\"#6E675B\" stroke-width=\"0.25\" stroke-dasharray=\"2 1.5\"",
     {LineRole::Channel}},
    {"eyelets", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.3\"", {LineRole::Eyelet}},
    {"grain", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.3\"", {LineRole::Grain}},
};

// How far a text is turned, in (-180, 180]; a half turn is written one way only.
double degrees(double angleRad) {
  const double turn = std::remainder(angleRad, 2 * std::numbers::pi) * 180 / std::numbers::pi;
  return turn < -180 + 1e-6 ? turn + 360 : turn;
}

// A piece in the axes of the sheet; its id stands before those of its edges.
std::string lineElement(const Piece& piece, const DrawnLine& l, const Motion& m) {
  if (l.role == LineRole::Cut) {
    std::string points;
    for (Vec2 q : l.outline)
      points += (points.empty() ? "" : " ") + svgNumber(m.apply(q).x) + "," + svgNumber(m.apply(q).y);
    return fmt::format("<polygon id=\"cut-{}\" points=\"{}\"/>\n", piece.id, points);
  }
  const bool edge = l.role == LineRole::Sewn || l.role == LineRole::Fold;
  const std::string id = edge ? fmt::format(" id=\"{}.{}\"", piece.id, l.id) : "";
  return fmt::format("<path{} d=\"{}\"/>\n", id, pathData(l.path.transformed(m)));
}

std::string textElement(const DrawnText& t, LengthFormat units) {
  const std::string turn = t.angleRad == 0
                               ? ""
                               : fmt::format(" transform=\"rotate({} {} {})\"", svgNumber(degrees(t.angleRad)),
                                             svgNumber(t.at.x), svgNumber(t.at.y));
  return fmt::format("<text x=\"{}\" y=\"{}\" font-size=\"{}\" text-anchor=\"middle\"{}>{}</text>\n", svgNumber(t.at.x),
                     svgNumber(t.at.y), svgNumber(t.height), turn, escapedXml(say(t.text, units)));
}

std::string testSquares(double y) {
  const auto square = [](double x, double top, double side, const char* name) {
    return fmt::format(
        "<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\"/>\n<text x=\"{}\" y=\"{}\" font-size=\"4\" stroke=\"none\" "
        "fill=\"#23272D\">{}</text>\n",
        svgNumber(x), svgNumber(top), svgNumber(side), svgNumber(side), svgNumber(x + 4), svgNumber(top + 8), name);
  };
  return square(kMargin, y, kTestSquareMm, "100 mm") +
         square(kMargin + kTestSquareMm + 20, y, kTestSquareInchMm, "4 in");
}

}  // namespace

std::string svgNumber(double v) {
  std::string s = fmt::format("{:.4f}", v);
  while (s.back() == '0') s.pop_back();
  if (s.back() == '.') s.pop_back();
  return s == "-0" ? "0" : s;
}

std::string svgPoint(Vec2 p) { return svgNumber(p.x) + " " + svgNumber(p.y); }

namespace {

// Everything of one piece, by the group it goes to.
struct DrawnPiece {
  std::map<std::string_view, std::string> groups;
};

DrawnPiece drawnPiece(const Design& design, const Labelling& labelling, const Boning& boning, size_t i, const Motion& m,
                      LengthFormat units) {
  const Piece& piece = design.pattern.pieces[i];
  std::vector<DrawnLine> lines = drawnLines(piece, design.cutOutlines[i], design.rules.option(key::kNotchKind));
  for (DrawnLine& l : drawnBoning(boning, i)) lines.push_back(std::move(l));
  DrawnPiece drawn;
  for (const Group& g : kGroups)
    for (const DrawnLine& l : lines)
      if (std::ranges::find(g.roles, l.role) != g.roles.end()) drawn.groups[g.id] += lineElement(piece, l, m);
  for (const DrawnText& t : drawnTexts(labelling, i, m)) drawn.groups[kLabels] += textElement(t, units);
  return drawn;
}

// A piece within a group of lines: plainly by its id among the cut lines; "sewn.front-1", so that it is no edge's id.
std::string pieceGroup(const Piece& piece, std::string_view layer, const std::string& content) {
  const std::string id = layer == kGroups[0].id ? piece.id : fmt::format("{}.{}", layer, piece.id);
  return fmt::format("<g id=\"{}\" data-layer=\"{}\">\n<title>{}</title>\n{}</g>\n", id, layer,
                     escapedXml(english(piece.name)), content);
}

// What is said beside the pieces, in lines of so many letters, from `at` down.
std::string wordsElement(const Order& order, const Design& design, Vec2 at) {
  constexpr size_t kLetters = 110;
  std::string out;
  const auto line = [&](const std::string& text, double height) {
    out += fmt::format("<text x=\"{}\" y=\"{}\" font-size=\"{}\">{}</text>\n", svgNumber(at.x), svgNumber(at.y),
                       svgNumber(height), escapedXml(text));
    at.y += 1.5 * height;
  };
  line(printTitle(order), 6.5);
  line(printSubtitle(order), 4);
  std::vector<PrintWords> said = printFacts(order, design);
  for (PrintWords& w : printCautions(order, design)) said.push_back(std::move(w));
  for (const PrintWords& w : said)
    for (const std::string& l : wrappedLines(w.text, kLetters)) line(l, w.heading ? 4 : 3.4);
  return out;
}

}  // namespace

std::string patternSvg(const Order& order, const Design& design, const std::vector<size_t>& pieces) {
  const PaperLayout layout =
      layOutOnPaper(design.pattern, design.cutOutlines, pieces.empty() ? allPieces(design.pattern) : pieces, kWidest);
  const double squaresY = kMargin + layout.height + kSquareSpace,
               wordsX = 2 * kMargin + kTestSquareMm + 20 + kTestSquareInchMm;
  const double width = std::max(layout.width + 2 * kMargin, wordsX + kWordsWidth + kMargin),
               height = squaresY + std::max(kTestSquareInchMm, kWordsHeight) + kMargin;
  const Boning boning = boningOf(design.pattern, design.block, design.rules);
  const Labelling labelling{design.pattern, design.rules, boning, orderLines(order, design)};
  std::map<std::string_view, std::string> groups;
  for (size_t k = 0; k < layout.pieces.size(); ++k) {
    const Motion m = layout.motions[k].then(Motion::translation({kMargin, kMargin}));
    for (const auto& [layer, content] : drawnPiece(design, labelling, boning, layout.pieces[k], m, order.units).groups)
      groups[layer] += pieceGroup(design.pattern.pieces[layout.pieces[k]], layer, content);
  }
  std::string out = fmt::format(
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" "
      "height=\"{1}mm\" viewBox=\"0 0 {0} {1}\">\n<title>{2}</title>\n",
      svgNumber(width), svgNumber(height), escapedXml(order.title));
  for (const Group& g : kGroups) out += group(g.id, g.style, groups[g.id]);
  out += group(kLabels, "font-family=\"Lato, sans-serif\" fill=\"#23272D\"", groups[kLabels]);
  out += group("order", "font-family=\"Lato, sans-serif\" fill=\"#23272D\"",
               wordsElement(order, design, {wordsX, squaresY + 6}));
  out += group("test-squares", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.3\" font-family=\"Lato, sans-serif\"",
               testSquares(squaresY));
  return out + "</svg>\n";
}

}  // namespace armure
