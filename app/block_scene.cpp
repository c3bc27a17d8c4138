#include "app/block_scene.h"

#include "app/scene_parts.h"
#include "parts/edges/style_line.h"
#include "parts/edges/upper_outline.h"
#include "parts/opening/rules.h"
#include "render/pattern_painter.h"
#include "render/words.h"
#include "rules/draft_rules.h"

namespace armure {
namespace {

constexpr double kBetweenHalves = 70;  // mm between the halves of the block
constexpr double kLabelSpace = 75;     // mm for the level names on the left
constexpr double kGuide = 3.2;         // half a diagonal of a guide, mm
constexpr double kHandle = 2.6;        // half side of a handle, mm

QPainterPath squareAt(QPointF p) {
  QPainterPath path;
  path.addRect(p.x() - kHandle, p.y() - kHandle, 2 * kHandle, 2 * kHandle);
  return path;
}

class BlockScene {
 public:
  BlockScene(const Design& design, const SceneOptions& options)
      : design_(design), block_(design.block), boundaries_(design.block), options_(options) {}

  TableScene make() && {
    double frontWidth = 0, backWidth = 0;
    for (const HalfLevel& l : block_.front.levels) frontWidth = std::max(frontWidth, l.side);
    for (const HalfLevel& l : block_.back.levels) backWidth = std::max(backWidth, l.side);
    const Motion back = Motion::mirrorX().then(Motion::translation({frontWidth + kBetweenHalves + backWidth, 0}));
    const double right = frontWidth + kBetweenHalves + backWidth;
    StyleLine top = topEdge(block_, design_.rules);
    const StyleLine hem = endLine(block_, design_.rules);
    for (const bool front : {true, false}) raise(top, front);
    scene_.crowded = design_.pattern.shellPieces() > 7;
    addLevelLines(right, frontWidth);
    addHalf(block_.front, {}, top, hem);
    addHalf(block_.back, back, top, hem);
    addSideHandles(block_.front, {}, top.depth[boundaries_.side()], hem.depth[boundaries_.side()]);
    addSideHandles(block_.back, back, top.sideDepthOnBack, hem.sideDepthOnBack);
    addGuides(block_.front, {});
    addGuides(block_.back, back);
    addCupCircle();
    add(Ink::Handle, squareAt(toQt(block_.dart.apex)), {.working = "dart.side", .level = "bust"});
    scene_.labels.push_back({LabelKind::Note, toQt(block_.dart.apex), "bust point", 0, {-42, -11}});
    const double bottom = block_.levels.at(level::kHem).front;
    // While shaping, what is cut away later need not be seen.
    const bool covered = goesUp(design_.rules, true) || goesUp(design_.rules, false) || !options_.guides ||
                         design_.rules.option(key::kPrincessAbove) != LineEnd::Top;
    const double above = covered ? -12 : block_.levels.at(level::kTop).front - 45;
    scene_.bounds = QRectF(-kLabelSpace, above, right + kLabelSpace + 15, bottom + 12 - above);
    return std::move(scene_);
  }

 private:
  void add(Ink mark, QPainterPath path, Selection target = {}) {
    scene_.items.push_back({mark, std::move(path), std::move(target)});
  }

  void addCombOf(const Path& path, const Motion& m) {
    if (options_.combs) add(Ink::Comb, combPath(path, m));
  }

  void addLevelLines(double right, double frontWidth) {
    for (const Level& l : block_.levels.all) {
      if (l.beyondHem) continue;
      const Selection target{.working = l.readOff ? "front." + l.id + ".side" : "girth." + l.id, .level = l.id};
      // One line where both halves stand equally high, else one on each half.
      const double middle = frontWidth + kBetweenHalves / 2;
      // Below the bust it may rise towards the side.
      const Vec2 side = block_.frontSideAt(l.front);
      QPainterPath path =
          linePath({0, l.front}, {side.y < l.front ? block_.front.lines.back().toSideX(l.front) : middle, l.front});
      if (side.y < l.front) {
        path.lineTo(toQt(side));
        path.lineTo(middle, side.y);
      }
      path.moveTo(middle, l.back);
      path.lineTo(right, l.back);
      add(Ink::LevelLine, path, target);
      const bool crowded = l.id == level::kHighHip && block_.levels.at(level::kHem).front - l.front < 18;
      scene_.labels.push_back({LabelKind::LevelName, QPointF(-kLabelSpace, l.front - (crowded ? 4 : 0)),
                               words(l.name).toLower() + (l.estimated() ? QStringLiteral(" *") : QString())});
    }
  }

  // The boundary at which a line of a half stands.
  size_t boundaryOf(bool front, size_t line) const { return front ? line + 1 : boundaries_.centreBack() - 1 - line; }

  void addHalf(const HalfBlock& half, const Motion& m, const StyleLine& top, const StyleLine& hem) {
    const bool front = half.front;
    const size_t centre = front ? 0 : boundaries_.centreBack(), side = boundaries_.side();
    const double sideTop = front ? top.depth[side] : top.sideDepthOnBack,
                 sideHem = front ? hem.depth[side] : hem.sideDepthOnBack;
    if (front) addDart();
    const bool up = goesUp(design_.rules, front);
    addUpperOutline(half, m);
    for (const Path* covered : {&half.neck, &half.shoulder, &half.armhole})
      add(Ink::Construction, toQt(*covered, m),
          {.working = covered == &half.armhole ? half.id + ".armhole" : half.id + ".shoulder"});
    const Path centreLine = half.centre.betweenDepths(top.depth[centre], hem.depth[centre]);
    add(half.opening.isFold() ? Ink::Fold : Ink::Edge, toQt(centreLine, m), {.working = half.id + ".waist.side"});
    // Where the top edge and the hem meet each line, from the centre out.
    std::vector<std::pair<Vec2, size_t>> tops{{centreLine.start(), centre}}, hems{{centreLine.end(), centre}};
    for (size_t i = 0; i < half.lines.size(); ++i) addLine(half, i, m, top, hem, tops, hems);

    const Path upperSide = half.side.betweenDepths(sideTop, front ? block_.dart.upper.y : sideHem);
    const Selection sideTarget{.working = half.id + ".waist.side", .seam = "side", .level = "waist"};
    add(Ink::Edge, toQt(upperSide, m), sideTarget);
    addCombOf(upperSide, m);
    Vec2 sideEnd = upperSide.end();
    if (front) {
      const Path below = block_.sideBelowDart.betweenDepths(block_.dart.lower.y, block_.frontSideAt(sideHem).y);
      add(Ink::Edge, toQt(below, m), sideTarget);
      addCombOf(below, m);
      sideEnd = below.end();
    }
    tops.emplace_back(upperSide.start(), side);
    hems.emplace_back(sideEnd, side);
    const double round = front ? 1 : -1;  // going round from centre front, x falls on the back
    for (const auto& [style, ends, isTop] : {std::tuple{&top, &tops, true}, {&hem, &hems, false}}) {
      if (isTop && up) continue;
      const Selection target{.working = isTop ? "girth.top" : "front.hem.side", .level = isTop ? "top" : "hem"};
      for (size_t i = 0; i + 1 < ends->size(); i += 2) {
        const auto& [a, at] = (*ends)[i];
        const auto& [b, bt] = (*ends)[i + 1];
        const double third = (b.x - a.x) / 3;
        add(Ink::Edge,
            toQt(Path(Cubic{a, a + Vec2{third, third * style->slope[at] * round},
                            b - Vec2{third, third * style->slope[bt] * round}, b}),
                 m),
            target);
      }
    }
    addNumbers(half, m, front);
  }

  // On a half that goes up over the shoulder its lines end on the neckline, the shoulder or the armhole.
  void raise(StyleLine& top, bool front) const {
    const auto outline = upperOutline(block_, design_.rules, front);
    if (!outline) return;
    const HalfBlock& half = front ? block_.front : block_.back;
    top.depth[front ? 0 : boundaries_.centreBack()] = outline->front().path.start().y;
    top.plunge = front ? Path() : top.plunge;
    for (size_t i = 0; i < half.lines.size(); ++i)
      if (const auto met = meetOutline(opened(*outline, half, i), half.lines[i].toCentre))
        top.depth[boundaryOf(front, i)] = half.lines[i].toCentre.pointAt(met->first).y;
  }

  // The outline panel by panel, moved out by what the lines take in.
  void addUpperOutline(const HalfBlock& half, const Motion& m) {
    const auto outline = upperOutline(block_, design_.rules, half.front);
    if (!outline) return;
    for (size_t i = 0; i <= half.lines.size(); ++i) {
      const UpperOutline part = opened(*outline, half, i);
      const Path whole = wholeOutline(part);
      const auto from = meetOutline(part, i == 0 ? half.centre : half.lines[i - 1].toSide);
      const auto to = i == half.lines.size() ? std::optional(std::pair(0.0, whole.length()))
                                             : meetOutline(part, half.lines[i].toCentre);
      if (from && to && to->second > from->second)
        add(Ink::Edge, toQt(whole.sub(from->second, to->second), m), {.working = half.id + ".armhole"});
    }
  }

  // A panel line: its gap, both edges, and where top edge and hem end at them.
  void addLine(const HalfBlock& half, size_t i, const Motion& m, const StyleLine& top, const StyleLine& hem,
               std::vector<std::pair<Vec2, size_t>>& tops, std::vector<std::pair<Vec2, size_t>>& hems) {
    const PanelLine& line = half.lines[i];
    const size_t at = boundaryOf(half.front, i);
    const Selection target{.working = half.id + ".underbust.intake", .seam = line.id, .level = "underbust"};
    const auto part = [&](const Path& toCentre, const Path& toSide, double from, double to) {
      const Path a = toCentre.betweenDepths(from, to), b = toSide.betweenDepths(from, to);
      QPainterPath gap = toQt(a, m);
      gap.connectPath(toQt(b.reversed(), m));
      gap.closeSubpath();
      add(Ink::IntakeFill, gap, {.working = half.id + ".underbust.intake", .level = "underbust"});
      add(Ink::Edge, toQt(a, m), target);
      add(Ink::Edge, toQt(b, m), target);
      addCombOf(a, m);
      addCombOf(b, m);
      return std::pair{a, b};
    };
    if (!line.onward.empty()) add(Ink::Construction, toQt(line.onward, m), target);
    const bool crossed = !line.toSideBelow.empty();
    const auto upper = part(line.toCentre, line.toSide, top.depth[at], crossed ? line.toSide.end().y : hem.depth[at]);
    const auto lower =
        crossed ? part(line.toCentreBelow, line.toSideBelow, line.toSideBelow.start().y, hem.depth[at]) : upper;
    tops.emplace_back(upper.first.start(), at);
    tops.emplace_back(upper.second.start(), at);
    hems.emplace_back(lower.first.end(), at);
    hems.emplace_back(lower.second.end(), at);
  }

  static QString centreWord(const Opening& o) {
    switch (o.kind) {
      case OpeningKind::Fold:
        return "fold";
      case OpeningKind::Seam:
        return "seam";
      case OpeningKind::Busk:
        return "busk";
      case OpeningKind::Hooks:
        return "hook tape";
      case OpeningKind::Zip:
        return "zip";
      case OpeningKind::ZipLaced:
        return "zip, laced";
      case OpeningKind::Lacing:
      case OpeningKind::VLacing:
        return "lacing";
      case OpeningKind::Loops:
      case OpeningKind::VLoops:
        return "loops";
    }
    return {};
  }

  void addDart() {
    const SideDart& d = block_.dart;
    QPainterPath wedge(toQt(d.apex));
    wedge.lineTo(toQt(d.upper));
    wedge.lineTo(toQt(d.lower));
    wedge.closeSubpath();
    constexpr double kAboveDart = 7;  // mm: a narrow dart has no room for its name
    const Selection target{.working = "dart.side", .level = "bust"};
    add(Ink::IntakeFill, wedge, target);
    add(Ink::Edge, linePath(toQt(d.upper), toQt(d.apex)), target);
    add(Ink::Edge, linePath(toQt(d.apex), toQt(d.lower)), target);
    scene_.labels.push_back({LabelKind::Note, toQt(lerp(d.apex, d.upper, 0.75) + Vec2{0, -kAboveDart}), "side dart"});
  }

  void addNumbers(const HalfBlock& half, const Motion& m, bool front) {
    const double y = lerp({0, half.at(level::kUnderbust).y}, {0, half.at(level::kWaist).y}, 0.5).y;
    const double side = front ? block_.sideBelowDart.xAtDepth(y) : half.side.xAtDepth(y);
    const double a = half.centre.xAtDepth(y);
    double from = a;
    for (size_t i = 0; i <= half.lines.size(); ++i) {
      const bool last = i == half.lines.size();
      const double to = last ? side : half.lines[i].toCentreX(y);
      for (const Piece& p : design_.pattern.pieces)
        if (p.id == half.id + "-" + std::to_string(i + 1))
          scene_.labels.push_back(
              {LabelKind::PieceNumber, toQt(m.apply({(from + to) / 2, y})), QString::number(p.number)});
      if (!last) from = half.lines[i].toSideX(y);
    }
    scene_.labels.push_back({LabelKind::Note,
                             toQt(m.apply({a, y})),
                             QString("centre %1, %2").arg(QString::fromStdString(half.id), centreWord(half.opening)),
                             -1.5707963,
                             {front ? 11.0 : 13.0, 0}});
  }

  // How far the cup reaches about the bust point; in the way while lines are shaped.
  void addCupCircle() {
    if (options_.guides) return;
    const double radius = block_.levels.at(level::kUnderbust).front - block_.levels.at(level::kBust).front;
    QPainterPath circle;
    circle.addEllipse(toQt(block_.dart.apex), radius, radius);
    add(Ink::Construction, circle, {.working = "cup.circle", .level = "bust"});
  }

  // The points at which a panel line is guided, within the garment.
  void addGuides(const HalfBlock& half, const Motion& m) {
    if (!options_.guides || design_.isTraced()) return;
    const double sign = m.applyToDirection({1, 0}).x;
    for (const PanelLine& line : half.lines)
      for (const PanelLine::Guide& g : line.guides) {
        const HalfLevel& l = half.at(g.level);
        if (block_.levels.at(g.level).beyondHem) continue;
        QPainterPath diamond;
        const QPointF at = toQt(m.apply({g.x, l.y}));
        diamond.addPolygon(QPolygonF{
            {at + QPointF(0, -kGuide), at + QPointF(kGuide, 0), at + QPointF(0, kGuide), at + QPointF(-kGuide, 0)}});
        diamond.closeSubpath();
        scene_.items.push_back(
            {Ink::Guide,
             diamond,
             {.working = half.id + "." + g.level + ".side", .seam = line.id, .level = g.level},
             GuideHandle{ShapingKey{ShapingKind::Guide, g.level, line.id}.text(), {sign, 0}, g.x, g.placed}});
      }
  }

  void addSideHandles(const HalfBlock& half, const Motion& m, double top, double hem) {
    for (const HalfLevel& l : half.levels) {
      const Level& level = block_.levels.at(l.level);
      if (level.readOff || l.y < top - 1e-6 || l.y > hem + 1e-6) continue;
      const Vec2 at = half.front && l.y > block_.dart.upper.y ? block_.frontSideAt(l.y) : Vec2{l.side, l.y};
      add(Ink::Handle, squareAt(toQt(m.apply(at))), {.working = half.id + "." + l.level + ".side", .level = l.level});
    }
  }

  const Design& design_;
  const Block& block_;
  const Boundaries boundaries_;
  const SceneOptions& options_;
  TableScene scene_;
};

}  // namespace

TableScene blockScene(const Design& design, const SceneOptions& options) { return BlockScene(design, options).make(); }

}  // namespace armure
