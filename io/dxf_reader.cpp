#include "io/dxf_reader.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <map>
#include <numbers>
#include <sstream>

#include "io/svg_path.h"
#include "io/svg_reader.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr int kDeepestBlock = 16;  // blocks in blocks
constexpr double kMillion = 1e6;   // mm: no drawing is larger

// What stands in a block, or in the drawing itself; y still up.
struct Entities {
  std::vector<DrawnShape> shapes;
  std::vector<DrawnWord> words;
  std::vector<std::pair<std::string, DL_InsertData>> inserts;  // with their layer
  Vec2 base;
};

Cubic moved(const Cubic& c, const auto& m) { return {m(c.p0), m(c.p1), m(c.p2), m(c.p3)}; }

// A circle's arc anticlockwise (y up) between two angles.
std::vector<Cubic> circleArc(Vec2 centre, double radius, double from, double to) {
  while (to <= from) to += 2 * std::numbers::pi;
  const auto at = [&](double a) { return centre + radius * Vec2{std::cos(a), std::sin(a)}; };
  const double middle = (from + to) / 2;
  std::vector<Cubic> cubics = ellipticalArc(at(from), {radius, radius}, 0, false, true, at(middle));
  for (const Cubic& c : ellipticalArc(at(middle), {radius, radius}, 0, false, true, at(to))) cubics.push_back(c);
  return cubics;
}

// From one vertex to the next with a bulge: the tangent of a quarter of the arc's angle, + anticlockwise.
std::vector<Cubic> bulged(Vec2 from, Vec2 to, double bulge) {
  if (std::abs(bulge) < 1e-9) return {Cubic::line(from, to)};
  const double angle = 4 * std::atan(bulge), radius = distance(from, to) / 2 / std::abs(std::sin(angle / 2));
  return ellipticalArc(from, {radius, radius}, 0, std::abs(angle) > std::numbers::pi, bulge > 0, to);
}

// A B-spline at even steps of its parameter; smoothed again by who recognises the outlines. C. de Boor, "On calculating
// with B-splines", J. Approximation Theory 6 (1972), 50.
std::vector<Vec2> splinePoints(size_t degree, const std::vector<double>& knots, const std::vector<Vec2>& control,
                               const std::vector<double>& weights) {
  constexpr int kSteps = 24;  // in each span
  std::vector<Vec2> points;
  if (degree < 1 || degree > 10 || control.size() <= degree || knots.size() < control.size() + degree + 1)
    return points;
  const auto at = [&](size_t span, double u) {
    std::vector<Vec3> d;  // homogeneous
    for (size_t j = 0; j <= degree; ++j) {
      const size_t i = span - degree + j;
      d.push_back({weights[i] * control[i].x, weights[i] * control[i].y, weights[i]});
    }
    for (size_t r = 1; r <= degree; ++r)
      for (size_t j = degree; j >= r; --j) {
        const size_t i = span - degree + j;
        const double over = knots[i + degree + 1 - r] - knots[i];
        const double t = over > 0 ? (u - knots[i]) / over : 0;
        d[j] = {(1 - t) * d[j - 1].x + t * d[j].x, (1 - t) * d[j - 1].y + t * d[j].y,
                (1 - t) * d[j - 1].z + t * d[j].z};
      }
    return Vec2{d[degree].x / d[degree].z, d[degree].y / d[degree].z};
  };
  for (size_t span = degree; span < control.size(); ++span) {
    const double u0 = knots[span], u1 = knots[span + 1];
    if (!(u1 > u0)) continue;
    for (int k = points.empty() ? 0 : 1; k <= kSteps; ++k) points.push_back(at(span, u0 + (u1 - u0) * k / kSteps));
  }
  return points;
}

class Collector : public DL_CreationAdapter {
 public:
  std::map<std::string, Entities> blocks;
  Entities drawing;
  int insUnits = 0;
  bool isMetric = false, isEnglish = false;
  std::map<std::string, int> left;

  void setVariableInt(const std::string& key, int value, int) override {
    if (key == "$INSUNITS") insUnits = value;
  }
  void addBlock(const DL_BlockData& b) override {
    flush();
    here_ = &blocks[b.name];
    here_->base = {b.bpx, b.bpy};
  }
  void endBlock() override {
    flush();
    here_ = &drawing;
  }
  void addLine(const DL_LineData& l) override { add({Cubic::line({l.x1, l.y1}, {l.x2, l.y2})}, false); }
  void addArc(const DL_ArcData& a) override {
    const double turn = std::numbers::pi / 180;
    if (a.radius > 0) add(circleArc({a.cx, a.cy}, a.radius, a.angle1 * turn, a.angle2 * turn), false);
  }
  void addCircle(const DL_CircleData& c) override {
    if (c.radius > 0) add(circleArc({c.cx, c.cy}, c.radius, 0, 2 * std::numbers::pi), true);
  }
  void addEllipse(const DL_EllipseData& e) override {
    double to = e.angle2;
    if (!std::isfinite(e.angle1) || !std::isfinite(to) || std::abs(to - e.angle1) > 100) return;
    while (to <= e.angle1) to += 2 * std::numbers::pi;
    const Vec2 major{e.mx, e.my}, minor = e.ratio * Vec2{-e.my, e.mx};
    const auto laid = [&](Vec2 p) { return Vec2{e.cx, e.cy} + p.x * major + p.y * minor; };
    std::vector<Cubic> cubics;
    for (const Cubic& c : circleArc({}, 1, e.angle1, to)) cubics.push_back(moved(c, laid));
    add(std::move(cubics), to - e.angle1 > 2 * std::numbers::pi - 1e-6);
  }
  void addPolyline(const DL_PolylineData& p) override {
    flush();
    polyline_ = true;
    closed_ = (p.flags & 1) != 0;
    layer_ = layer();
  }
  void addVertex(const DL_VertexData& v) override {
    if (polyline_ && vertices_.size() < kMostCurves) vertices_.push_back({{v.x, v.y}, v.bulge});
  }
  void addSpline(const DL_SplineData& s) override {
    flush();
    spline_ = true;
    degree_ = s.degree;
    closed_ = (s.flags & 1) != 0;
    layer_ = layer();
  }
  void addControlPoint(const DL_ControlPointData& p) override {
    if (spline_ && control_.size() < kMostCurves) control_.push_back({p.x, p.y}), weights_.push_back(p.w > 0 ? p.w : 1);
  }
  void addKnot(const DL_KnotData& k) override {
    if (spline_ && knots_.size() < kMostCurves) knots_.push_back(k.k);
  }
  void addInsert(const DL_InsertData& i) override {
    flush();
    if (here_->inserts.size() < kMostCurves) here_->inserts.emplace_back(layer(), i);
  }
  void addText(const DL_TextData& t) override {
    flush();
    word({t.ipx, t.ipy}, t.text);
  }
  void addMText(const DL_MTextData& t) override {
    flush();
    word({t.ipx, t.ipy}, t.text);
  }
  void addHatch(const DL_HatchData&) override { ++left["hatch"]; }
  void addImage(const DL_ImageData&) override { ++left["picture"]; }
  void addSolid(const DL_SolidData&) override { ++left["solid"]; }
  void endEntity() override { flush(); }
  void endSequence() override { flush(); }

  // What is gathered of a polyline or a spline is a line of the drawing.
  void flush() {
    if (polyline_ && vertices_.size() > 1) {
      std::vector<Cubic> cubics;
      for (size_t i = 0; i + (closed_ ? 0 : 1) < vertices_.size(); ++i) {
        const auto& [from, bulge] = vertices_[i];
        const Vec2 to = vertices_[(i + 1) % vertices_.size()].first;
        if (distance(from, to) > 0)
          for (const Cubic& c : bulged(from, to, bulge)) cubics.push_back(c);
      }
      keep(std::move(cubics), closed_, layer_);
    }
    if (spline_) {
      std::vector<Cubic> cubics;
      const std::vector<Vec2> points = splinePoints(degree_, knots_, control_, weights_);
      for (size_t i = 1; i < points.size(); ++i)
        if (distance(points[i - 1], points[i]) > 0) cubics.push_back(Cubic::line(points[i - 1], points[i]));
      keep(std::move(cubics), closed_, layer_);
    }
    polyline_ = spline_ = false;
    vertices_.clear();
    control_.clear();
    weights_.clear();
    knots_.clear();
  }

  size_t cubics() const { return cubics_; }

 private:
  std::string layer() { return quotable(getAttributes().getLayer()); }
  void add(std::vector<Cubic> cubics, bool closed) {
    flush();
    keep(std::move(cubics), closed, layer());
  }
  void keep(std::vector<Cubic> cubics, bool closed, const std::string& layer) {
    for (size_t i = 1; i < cubics.size(); ++i) cubics[i].p0 = cubics[i - 1].p3;
    const auto sound = [](const Cubic& c) {
      return std::ranges::all_of(std::array{c.p0, c.p1, c.p2, c.p3}, [](Vec2 p) {
        return std::isfinite(p.x) && std::isfinite(p.y) && std::abs(p.x) < kMillion && std::abs(p.y) < kMillion;
      });
    };
    cubics_ += cubics.size();
    if (cubics.empty() || cubics_ > kMostCurves || !std::ranges::all_of(cubics, sound)) return;
    here_->shapes.push_back({Path(std::move(cubics)), closed, {}, layer});
  }
  void word(Vec2 at, const std::string& text) {
    std::string upper = text;
    std::ranges::transform(upper, upper.begin(), [](char c) { return c >= 'a' && c <= 'z' ? char(c - 32) : c; });
    if (upper.find("UNITS") != std::string::npos) {
      isMetric = isMetric || upper.find("METRIC") != std::string::npos;
      isEnglish = isEnglish || upper.find("ENGLISH") != std::string::npos;
    }
    if (here_->words.size() < kMostWords && std::isfinite(at.x) && std::isfinite(at.y))
      here_->words.push_back({at, quotable(text)});
  }

  Entities* here_ = &drawing;
  bool polyline_ = false, spline_ = false, closed_ = false;
  std::string layer_;
  std::vector<std::pair<Vec2, double>> vertices_;
  size_t degree_ = 3;
  std::vector<Vec2> control_;
  std::vector<double> weights_, knots_;
  size_t cubics_ = 0;
};

struct DrawnUnit {
  double mm = 1;
  Message said;
};
DrawnUnit unitOf(const Collector& c) {
  switch (c.insUnits) {
    case 1:
      return {25.4, "its unit is an inch, by its header"};
    case 2:
      return {304.8, "its unit is a foot, by its header"};
    case 4:
      return {1, "its unit is a millimetre, by its header"};
    case 5:
      return {10, "its unit is a centimetre, by its header"};
    case 6:
      return {1000, "its unit is a metre, by its header"};
    default:
      break;
  }
  if (c.isEnglish && !c.isMetric) return {25.4, "its unit is an inch, by a text in it"};
  if (c.isMetric) return {1, "its unit is a millimetre, by a text in it"};
  return {1, "it does not say its unit: a millimetre is taken"};
}

// Lays entities out, blocks where they are inserted, as a drawing with y down.
class Layout {
 public:
  Layout(const Collector& from, double mm) : from_(from), mm_(mm) {}

  LineDrawing laid() {
    add(
        from_.drawing, [](Vec2 p) { return p; }, 0, "");
    // A file of pieces that are blocks and are inserted nowhere: each is laid as it stands.
    if (drawing_.shapes.empty())
      for (const auto& [name, block] : from_.blocks)
        if (name.empty() || name.front() != '*')
          add(
              block, [](Vec2 p) { return p; }, 0, name);
    return std::move(drawing_);
  }
  bool tooMuch() const { return cubics_ > kMostCurves; }

 private:
  void add(const Entities& e, const std::function<Vec2(Vec2)>& m, int depth, const std::string& id) {
    if (depth > kDeepestBlock || tooMuch()) return;
    const auto placed = [&](Vec2 p) {
      const Vec2 q = m(p);
      return Vec2{mm_ * q.x, -mm_ * q.y};
    };
    for (const DrawnShape& s : e.shapes) {
      std::vector<Cubic> cubics;
      for (const Cubic& c : s.path.cubics()) {
        cubics.push_back(moved(c, placed));
        if (cubics.size() > 1) cubics.back().p0 = cubics[cubics.size() - 2].p3;
      }
      cubics_ += cubics.size();
      if (tooMuch()) return;
      if (!std::isfinite(cubics.back().p3.x) || std::abs(cubics.back().p3.x) > kMillion) continue;
      if (s.closed) cubics.back().p3 = cubics.front().p0;
      drawing_.shapes.push_back({Path(std::move(cubics)), s.closed, id, s.layer});
    }
    for (const DrawnWord& w : e.words)
      if (drawing_.words.size() < kMostWords) drawing_.words.push_back({placed(w.at), w.text});
    for (const auto& [layer, i] : e.inserts) {
      const auto block = from_.blocks.find(i.name);
      if (block == from_.blocks.end() || &block->second == &e) continue;
      const Vec2 base = block->second.base;
      const double turn = i.angle * std::numbers::pi / 180;
      const auto inner = [=](Vec2 p) {
        return rotated({i.sx * (p.x - base.x), i.sy * (p.y - base.y)}, turn) + Vec2{i.ipx, i.ipy};
      };
      add(
          block->second, [&](Vec2 p) { return m(inner(p)); }, depth + 1, quotable(i.name));
    }
  }

  const Collector& from_;
  double mm_;
  LineDrawing drawing_;
  size_t cubics_ = 0;
};

}  // namespace

Result<LineDrawing> parseDxf(std::string_view text, const std::string& name) {
  if (text.find('\0') != std::string_view::npos)
    return Problem{verbatim(name), "is a binary DXF", "export it again as text (ASCII)"};
  Collector collected;
  std::istringstream stream{std::string(text)};
  DL_Dxf reader;
  if (!reader.in(stream, &collected)) return Problem{verbatim(name), "is no DXF that can be read", "export it again"};
  collected.flush();
  const DrawnUnit drawn = unitOf(collected);
  Layout layout(collected, drawn.mm);
  LineDrawing drawing = layout.laid();
  if (layout.tooMuch() || collected.cubics() > kMostCurves)
    return Problem{verbatim(name), msg("has more than {} curves", static_cast<long long>(kMostCurves)),
                   "leave out what is no pattern"};
  if (drawing.shapes.empty())
    return Problem{verbatim(name), "no line is drawn in it", "export the pattern as lines and polylines (R12 ASCII)"};
  drawing.units = drawn.said;
  for (const auto& [what, count] : collected.left)
    drawing.left.push_back(msg("{} × {}: not read", count, verbatim(what)));
  return drawing;
}

Result<LineDrawing> parseDrawing(std::string_view text, const std::string& name) {
  const size_t first = text.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
  const bool xml = first != std::string_view::npos && text[first] == '<';
  return xml ? parseSvg(text, name) : parseDxf(text, name);
}

}  // namespace armure
