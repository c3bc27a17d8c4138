#include "io/svg.h"

#include <fmt/format.h>

#include <algorithm>
#include <numbers>

#include "prepare/arrange.h"
#include "prepare/cut_outlines.h"
#include "prepare/marks.h"
#include "prepare/paper.h"

namespace armure {
namespace {

constexpr double kMargin = 15, kSquareSpace = 12, kWidest = 880;  // mm

// As text of an XML document, which may hold no control characters (XML 1.0, section 2.2).
std::string escaped(const std::string& text) {
  std::string out;
  for (char c : text) {
    const auto byte = static_cast<unsigned char>(c);
    if (byte < 0x20 || byte == 0x7F)
      out += ' ';
    else if (c == '&')
      out += "&amp;";
    else if (c == '<')
      out += "&lt;";
    else if (c == '>')
      out += "&gt;";
    else if (c == '"')
      out += "&quot;";
    else
      out += c;
  }
  return out;
}

std::string num(double v) {
  std::string s = fmt::format("{:.4f}", v);
  while (s.back() == '0') s.pop_back();
  if (s.back() == '.') s.pop_back();
  return s == "-0" ? "0" : s;
}

std::string pointText(Vec2 p) { return num(p.x) + " " + num(p.y); }

std::string pathData(const Path& path) {
  std::string d = "M" + pointText(path.start());
  for (const Cubic& c : path.cubics())
    d += fmt::format(" C{} {} {}", pointText(c.p1), pointText(c.p2), pointText(c.p3));
  return d;
}

std::string lineElement(Vec2 a, Vec2 b) {
  return fmt::format("<line x1=\"{}\" y1=\"{}\" x2=\"{}\" y2=\"{}\"/>\n", num(a.x), num(a.y), num(b.x), num(b.y));
}

std::string group(std::string_view id, std::string_view style, const std::string& content) {
  return fmt::format("<g id=\"{}\" {}>\n{}</g>\n", id, style, content);
}

struct Layers {
  std::string cut, sewn, fold, levels, notches, grain, labels;
};

// How far a text along this direction is turned, in (-180, 180]; a half turn is written one way only.
double degrees(Vec2 along) {
  const double turn = angleBetween({1, 0}, along) * 180 / std::numbers::pi;
  return turn < -180 + 1e-6 ? turn + 360 : turn;
}

void addPiece(Layers& layers, const Design& design, size_t i, const Motion& m, LengthFormat units) {
  const Piece& p = design.pattern.pieces[i];
  std::string cut;
  for (Vec2 q : design.cutOutlines[i]) cut += (cut.empty() ? "" : " ") + num(m.apply(q).x) + "," + num(m.apply(q).y);
  layers.cut += fmt::format("<polygon id=\"cut-{}\" points=\"{}\"/>\n", p.id, cut);
  for (const Edge& e : p.edges) {
    std::string& layer = e.role == EdgeRole::Fold ? layers.fold : layers.sewn;
    layer += fmt::format("<path id=\"{}.{}\" d=\"{}\"/>\n", p.id, e.id, pathData(e.path.transformed(m)));
    const double half = e.path.length() / 2;
    const Vec2 d = e.path.tangentAt(half);
    const Vec2 at = m.apply(e.path.pointAt(half) + 5.0 * Vec2{-d.y, d.x}), along = m.applyToDirection(d);
    layers.labels += fmt::format(
        "<text x=\"{0}\" y=\"{1}\" font-size=\"3\" text-anchor=\"middle\" transform=\"rotate({2} {0} "
        "{1})\">{3}</text>\n",
        num(at.x), num(at.y), num(degrees(along)), escaped(edgeNote(design.pattern, i, e, units)));
  }
  for (const LevelLine& l : p.levelLines()) layers.levels += lineElement(m.apply(l.a), m.apply(l.b));
  for (const Stroke& s : notchStrokes(p)) layers.notches += lineElement(m.apply(s.from), m.apply(s.to));
  layers.grain += lineElement(m.apply(p.grainTop), m.apply(p.grainBottom));
  Vec2 at = m.apply(labelPoint(p)) + Vec2{4, -8};
  for (const std::string& text : labelLines(p)) {
    layers.labels +=
        fmt::format("<text x=\"{}\" y=\"{}\" font-size=\"4.5\">{}</text>\n", num(at.x), num(at.y), escaped(text));
    at.y += 6;
  }
}

std::string testSquares(double y) {
  const auto square = [](double x, double top, double side, const char* name) {
    return fmt::format(
        "<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\"/>\n<text x=\"{}\" y=\"{}\" font-size=\"4\" stroke=\"none\" "
        "fill=\"#23272D\">{}</text>\n",
        num(x), num(top), num(side), num(side), num(x + 4), num(top + 8), name);
  };
  return square(kMargin, y, kTestSquareMm, "100 mm") +
         square(kMargin + kTestSquareMm + 20, y, kTestSquareInchMm, "4 in");
}

}  // namespace

std::string patternSvg(const Order& order, const Design& design) {
  const PaperLayout layout = layOutOnPaper(design.pattern, design.cutOutlines, kWidest);
  const double squaresY = kMargin + layout.height + kSquareSpace;
  const double width = std::max(layout.width, 2 * kTestSquareInchMm + 20) + 2 * kMargin,
               height = squaresY + kTestSquareInchMm + kMargin;
  Layers layers;
  const Motion margin = Motion::translation({kMargin, kMargin});
  for (size_t i = 0; i < design.pattern.pieces.size(); ++i)
    addPiece(layers, design, i, layout.motions[i].then(margin), order.units);
  std::string out = fmt::format(
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" "
      "height=\"{1}mm\" viewBox=\"0 0 {0} {1}\">\n<title>{2}</title>\n",
      num(width), num(height), escaped(order.title));
  out += group("cut", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.5\"", layers.cut);
  out += group("sewn", "fill=\"none\" stroke=\"#2D4F8B\" stroke-width=\"0.3\" stroke-dasharray=\"4 2\"", layers.sewn);
  out +=
      group("fold", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.3\" stroke-dasharray=\"10 2 2 2\"", layers.fold);
  out += group("levels", "stroke=\"#6E675B\" stroke-width=\"0.2\" stroke-dasharray=\"1 2\"", layers.levels);
  out += group("notches", "stroke=\"#23272D\" stroke-width=\"0.4\"", layers.notches);
  out += group("grain", "stroke=\"#23272D\" stroke-width=\"0.3\"", layers.grain);
  out += group("labels", "font-family=\"Lato, sans-serif\" fill=\"#23272D\"", layers.labels);
  out += group("test-squares", "fill=\"none\" stroke=\"#23272D\" stroke-width=\"0.3\" font-family=\"Lato, sans-serif\"",
               testSquares(squaresY));
  return out + "</svg>\n";
}

}  // namespace armure
