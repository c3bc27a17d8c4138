#include "io/svg_reader.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>
#include <pugixml.hpp>

#include "io/svg_path.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr int kDeepestGroup = 64;  // groups in groups
constexpr double kCssPerInch = 96;

// x' = a x + c y + e, y' = b x + d y + f.
struct Affine {
  double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
  Vec2 operator()(Vec2 p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
  // First `inner`, then this.
  Affine operator*(const Affine& inner) const {
    return {a * inner.a + c * inner.b, b * inner.a + d * inner.b,     a * inner.c + c * inner.d,
            b * inner.c + d * inner.d, a * inner.e + c * inner.f + e, b * inner.e + d * inner.f + f};
  }
};

std::vector<double> numbersIn(std::string_view text) {
  std::vector<double> all;
  const char *at = text.data(), *end = at + text.size();
  while (at < end) {
    while (at < end && std::string_view("+-.0123456789").find(*at) == std::string_view::npos) ++at;
    if (at < end && *at == '+') ++at;
    double v = 0;
    const auto [to, error] = std::from_chars(at, end, v);
    if (error == std::errc() && std::isfinite(v)) all.push_back(v);
    at = error == std::errc() ? to : at + 1;
  }
  return all;
}

Affine ofFunction(std::string_view name, const std::vector<double>& v) {
  const auto at = [&](size_t i, double otherwise) { return i < v.size() ? v[i] : otherwise; };
  if (name == "matrix" && v.size() == 6) return {v[0], v[1], v[2], v[3], v[4], v[5]};
  if (name == "translate") return {1, 0, 0, 1, at(0, 0), at(1, 0)};
  if (name == "scale") return {at(0, 1), 0, 0, at(1, at(0, 1)), 0, 0};
  const double angle = at(0, 0) * std::numbers::pi / 180;
  if (name == "skewX") return {1, 0, std::tan(angle), 1, 0, 0};
  if (name == "skewY") return {1, std::tan(angle), 0, 1, 0, 0};
  if (name != "rotate") return {};
  const double cosine = std::cos(angle), sine = std::sin(angle), x = at(1, 0), y = at(2, 0);
  return Affine{1, 0, 0, 1, x, y} * Affine{cosine, sine, -sine, cosine, 0, 0} * Affine{1, 0, 0, 1, -x, -y};
}

Affine transformOf(std::string_view text) {
  Affine all;
  while (true) {
    const size_t open = text.find('('), close = text.find(')', open);
    if (open == std::string_view::npos || close == std::string_view::npos) return all;
    std::string_view name = text.substr(0, open);
    name.remove_prefix(std::min(name.find_first_not_of(" ,\t\r\n"), name.size()));
    name = name.substr(0, name.find_last_not_of(" \t\r\n") + 1);
    all = all * ofFunction(name, numbersIn(text.substr(open + 1, close - open - 1)));
    text.remove_prefix(close + 1);
  }
}

// A length in millimetres by its unit; nothing for a share or one without a unit.
std::optional<double> absolute(std::string_view text) {
  double v = 0;
  const auto [to, error] = std::from_chars(text.data(), text.data() + text.size(), v);
  if (error != std::errc() || !(v > 0) || !std::isfinite(v)) return std::nullopt;
  const std::string_view unit = text.substr(static_cast<size_t>(to - text.data()));
  if (unit == "mm") return v;
  if (unit == "cm") return 10 * v;
  if (unit == "in") return 25.4 * v;
  if (unit == "pt") return 25.4 / 72 * v;
  if (unit == "pc") return 25.4 / 6 * v;
  if (unit == "Q") return v / 4;
  if (unit == "px") return 25.4 / kCssPerInch * v;
  return std::nullopt;
}

std::string_view localName(const pugi::xml_node& node) {
  std::string_view name = node.name();
  if (const size_t colon = name.rfind(':'); colon != std::string_view::npos) name.remove_prefix(colon + 1);
  return name;
}

bool isHidden(const pugi::xml_node& node) {
  std::string style = node.attribute("style").value();
  std::erase(style, ' ');
  return std::string_view(node.attribute("display").value()) == "none" ||
         style.find("display:none") != std::string::npos;
}

class DrawingReader {
 public:
  Result<LineDrawing> read(const pugi::xml_node& svg, const std::string& file) {
    Affine units = pageUnits(svg);
    walk(svg, units, "", 0);
    if (tooMuch_)
      return Problem{verbatim(file), msg("has more than {} curves", static_cast<long long>(kMostCurves)),
                     "leave out what is no pattern"};
    for (const auto& [what, count] : left_) drawing_.left.push_back(msg("{} × {}: not read", count, verbatim(what)));
    if (brokenPaths_ > 0)
      drawing_.left.push_back(msg("{} paths end in an error; what is before it is read", brokenPaths_));
    if (drawing_.shapes.empty())
      return Problem{verbatim(file), "no line is drawn in it", "export the pattern as lines, not as a picture"};
    return std::move(drawing_);
  }

 private:
  // User units to millimetres.
  Affine pageUnits(const pugi::xml_node& svg) {
    const std::vector<double> box = numbersIn(svg.attribute("viewBox").value());
    const auto width = absolute(svg.attribute("width").value()), height = absolute(svg.attribute("height").value());
    double scale = 25.4 / kCssPerInch;
    drawing_.units = "96 units are an inch: the file does not say how wide it is";
    if (box.size() == 4 && box[2] > 0 && box[3] > 0 && (width || height)) {
      const double x = width ? *width / box[2] : HUGE_VAL, y = height ? *height / box[3] : HUGE_VAL;
      scale = std::min(x, y);
      drawing_.units = msg("one unit is {} mm, by the width of the page", scale);
    } else if (width || height) {
      drawing_.units = "96 units are an inch";
    }
    const double left = box.size() == 4 ? box[0] : 0, top = box.size() == 4 ? box[1] : 0;
    return {scale, 0, 0, scale, -scale * left, -scale * top};
  }

  void walk(const pugi::xml_node& parent, const Affine& m, const std::string& layer, int depth) {
    if (depth > kDeepestGroup) return;
    for (const pugi::xml_node& node : parent.children()) {
      if (tooMuch_) return;
      if (node.type() != pugi::node_element || isHidden(node)) continue;
      const std::string_view name = localName(node);
      const Affine here = m * transformOf(node.attribute("transform").value());
      if (name == "g" || name == "a" || name == "svg" || name == "switch") {
        const std::string id = labelOf(node);
        walk(node, here, id.empty() ? layer : id, depth + 1);
      } else if (name == "text" || name == "tspan") {
        addWords(node, here);
      } else if (!addShape(name, node, here, layer)) {
        tellLeft(name);
      }
    }
  }

  // What a group is called by whoever drew it: editors keep that in a label of their own, and our own drawings (svg.h)
  // say of a piece's group in which layer it is.
  static std::string labelOf(const pugi::xml_node& node) {
    if (const pugi::xml_attribute layer = node.attribute("data-layer")) return quotable(layer.value());
    for (const pugi::xml_attribute& a : node.attributes()) {
      std::string_view name = a.name();
      if (const size_t colon = name.rfind(':'); colon != std::string_view::npos && name.substr(colon + 1) == "label")
        return quotable(a.value());
    }
    return quotable(node.attribute("id").value());
  }

  void tellLeft(std::string_view name) {
    for (const std::string_view silent : {"title", "desc", "metadata", "defs", "style", "namedview"})
      if (name == silent) return;
    if (left_.size() < 20 || left_.contains(std::string(name))) ++left_[quotable(std::string(name))];
  }

  void addWords(const pugi::xml_node& node, const Affine& m) {
    std::string text;
    for (const pugi::xml_node& part : node.children()) {
      if (part.type() == pugi::node_pcdata || part.type() == pugi::node_cdata) text += part.value();
      if (part.type() == pugi::node_element && localName(part) == "tspan") {
        if (part.attribute("x")) {
          addWords(part, m);
        } else {
          text += part.child_value();
        }
      }
    }
    if (text.empty() || drawing_.words.size() >= kMostWords) return;
    drawing_.words.push_back({m({node.attribute("x").as_double(), node.attribute("y").as_double()}), quotable(text)});
  }

  bool addShape(std::string_view name, const pugi::xml_node& node, const Affine& m, const std::string& layer) {
    const auto number = [&](const char* what) {
      const std::vector<double> v = numbersIn(node.attribute(what).value());
      return v.empty() ? 0.0 : v.front();
    };
    if (name == "path") {
      const SvgPath path = parseSvgPath(node.attribute("d").value());
      if (!path.whole) ++brokenPaths_;
      for (const Subpath& s : path.subpaths) add(s, node, m, layer);
      return true;
    }
    if (name == "polygon" || name == "polyline") {
      add(ofPoints(numbersIn(node.attribute("points").value()), name == "polygon"), node, m, layer);
      return true;
    }
    if (name == "line") {
      add(ofPoints({number("x1"), number("y1"), number("x2"), number("y2")}, false), node, m, layer);
      return true;
    }
    if (name == "rect") {
      const double x = number("x"), y = number("y"), w = number("width"), h = number("height");
      if (w > 0 && h > 0) add(ofPoints({x, y, x + w, y, x + w, y + h, x, y + h}, true), node, m, layer);
      return true;
    }
    if (name == "circle" || name == "ellipse") {
      const Vec2 c{number("cx"), number("cy")};
      const Vec2 r = name == "circle" ? Vec2{number("r"), number("r")} : Vec2{number("rx"), number("ry")};
      if (!(r.x > 0 && r.y > 0)) return true;
      Subpath round{ellipticalArc(c - Vec2{r.x, 0}, r, 0, false, true, c + Vec2{r.x, 0}), true};
      for (const Cubic& q : ellipticalArc(c + Vec2{r.x, 0}, r, 0, false, true, c - Vec2{r.x, 0}))
        round.cubics.push_back(q);
      add(round, node, m, layer);
      return true;
    }
    return false;
  }

  static Subpath ofPoints(const std::vector<double>& v, bool closed) {
    Subpath s;
    s.closed = closed;
    const auto at = [&](size_t i) { return Vec2{v[2 * i], v[2 * i + 1]}; };
    const size_t count = v.size() / 2;
    for (size_t i = 0; i + 1 < count; ++i)
      if (distance(at(i), at(i + 1)) > 0) s.cubics.push_back(Cubic::line(at(i), at(i + 1)));
    if (closed && count > 1 && distance(at(count - 1), at(0)) > 0)
      s.cubics.push_back(Cubic::line(at(count - 1), at(0)));
    return s;
  }

  void add(const Subpath& s, const pugi::xml_node& node, const Affine& m, const std::string& layer) {
    std::vector<Cubic> cubics;
    for (const Cubic& c : s.cubics) {
      Cubic q{m(c.p0), m(c.p1), m(c.p2), m(c.p3)};
      if (!cubics.empty()) q.p0 = cubics.back().p3;
      for (const Vec2 p : {q.p0, q.p1, q.p2, q.p3})
        if (!std::isfinite(p.x) || !std::isfinite(p.y) || std::abs(p.x) > 1e6 || std::abs(p.y) > 1e6) return;
      cubics.push_back(q);
    }
    if (cubics.empty()) return;
    cubics_ += cubics.size();
    if (cubics_ > kMostCurves) tooMuch_ = true;
    if (tooMuch_) return;
    if (s.closed) cubics.back().p3 = cubics.front().p0;
    drawing_.shapes.push_back({Path(std::move(cubics)), s.closed, quotable(node.attribute("id").value()), layer});
  }

  LineDrawing drawing_;
  std::map<std::string, int> left_;  // elements that are not read
  int brokenPaths_ = 0;
  size_t cubics_ = 0;
  bool tooMuch_ = false;
};

}  // namespace

Result<LineDrawing> parseSvg(std::string_view text, const std::string& name) {
  pugi::xml_document doc;
  const pugi::xml_parse_result parsed = doc.load_buffer(text.data(), text.size());
  if (!parsed)
    return Problem{verbatim(name),
                   msg("is no SVG that can be read ({}, at byte {})", verbatim(parsed.description()),
                       static_cast<long long>(parsed.offset)),
                   "export it again as plain SVG"};
  const pugi::xml_node svg = doc.document_element();
  if (localName(svg) != "svg") return Problem{verbatim(name), "is XML, but no SVG", "choose an .svg or .dxf file"};
  return DrawingReader().read(svg, name);
}

}  // namespace armure
