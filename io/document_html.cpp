#include "io/document_html.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "units/language.h"

namespace armure {
namespace {

constexpr std::string_view kStyle =
    "body{font-family:Lato,sans-serif;color:#23272D;background:#fff;margin:12mm;font-size:10pt}"
    "h1{font-size:18pt;margin:0 0 2mm}h2{font-size:12pt;margin:6mm 0 1.5mm;border-bottom:1px solid #D3C9B6}"
    "p{margin:1mm 0}table{border-collapse:collapse;width:100%}"
    "th{text-align:left;color:#6E675B;font-weight:normal;padding:0.6mm 3mm 0.6mm 0}"
    "td{padding:0.6mm 3mm 0.6mm 0;vertical-align:top;border-top:1px solid #EDE6D8}";

std::string rowHtml(const std::vector<Message>& cells, LengthFormat units, std::string_view tag) {
  std::string html = "<tr>";
  for (const Message& cell : cells)
    html += fmt::format("<{0}>{1}</{0}>", tag, escapedXml(cell.empty() ? std::string() : say(cell, units)));
  return html + "</tr>\n";
}

std::string tableHtml(const DocumentTable& table, LengthFormat units) {
  if (table.rows.empty()) return {};
  std::string html = "<table width=\"100%\" cellspacing=\"0\" cellpadding=\"3\">\n<thead>" +
                     rowHtml(table.head, units, "th") + "</thead>\n<tbody>\n";
  for (const auto& row : table.rows) html += rowHtml(row, units, "td");
  return html + "</tbody>\n</table>\n";
}

std::string pathOf(const SketchLine& line, double aside) {
  std::string d;
  for (const Vec2 p : line.points) d += fmt::format("{}{:.1f} {:.1f}", d.empty() ? "M" : " L", p.x + aside, p.y);
  return d;
}

std::string strokeOf(const SketchLine& line, double aside) {
  const std::string d = pathOf(line, aside);
  switch (line.stroke) {
    case SketchStroke::Outline:
      return fmt::format("<path d=\"{} Z\" fill=\"#E8D9BC\" stroke=\"none\"/>\n", d);
    case SketchStroke::Sheer:
      return fmt::format("<path d=\"{} Z\" fill=\"#E8D9BC\" fill-opacity=\"0.45\" stroke=\"none\"/>\n", d);
    case SketchStroke::Edge:
      return fmt::format("<path d=\"{}\" fill=\"none\" stroke=\"#23272D\" stroke-width=\"3\"/>\n", d);
    case SketchStroke::Seam:
      return fmt::format("<path d=\"{}\" fill=\"none\" stroke=\"#23272D\" stroke-width=\"1.8\"/>\n", d);
    case SketchStroke::Lacing:
      break;
  }
  return fmt::format("<path d=\"{}\" fill=\"none\" stroke=\"#6E675B\" stroke-width=\"1.4\"/>\n", d);
}

}  // namespace

std::string escapedXml(const std::string& text) {
  std::string out;
  for (const char c : text) {
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

std::string documentHtml(const Document& document, LengthFormat units, const std::string& figure) {
  const std::string title = escapedXml(say(document.title, units));
  std::string html = fmt::format(
      "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<title>{}</title>\n<style>{}</style>\n"
      "</head>\n<body>\n<h1>{}</h1>\n<p>",
      title, kStyle, title);
  for (size_t i = 0; i < document.facts.size(); ++i)
    html += (i > 0 ? " · " : "") + escapedXml(say(document.facts[i], units));
  html += "</p>\n";
  for (const DocumentSection& s : document.sections) {
    html += fmt::format("<h2>{}</h2>\n", escapedXml(say(s.title, units)));
    if (s.figure) html += "<p>" + figure + "</p>\n";
    for (const Message& p : s.paragraphs) html += fmt::format("<p>{}</p>\n", escapedXml(say(p, units)));
    html += tableHtml(s.table, units);
  }
  return html + "</body>\n</html>\n";
}

std::string sketchSvg(const GarmentSketch& sketch) {
  const SketchExtent f = extentOf(sketch);
  const double wide = 4.4 * f.reach, high = f.bottom - f.top;
  std::string svg = fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"90mm\" height=\"{:.1f}mm\" viewBox=\"{:.1f} {:.1f} {:.1f} "
      "{:.1f}\" role=\"img\" aria-label=\"front and back\">\n",
      90 * high / wide, -1.05 * f.reach, f.top - 4, wide, high + 8);
  for (const bool front : {true, false})
    for (const SketchLine& l : (front ? sketch.front : sketch.back).lines)
      svg += strokeOf(l, front ? 0 : 2.25 * f.reach);
  return svg + "</svg>";
}

}  // namespace armure
