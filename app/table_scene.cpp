#include "app/table_scene.h"

#include "app/line_marks.h"
#include "geometry/comb.h"
#include "parts/edges/style_line.h"
#include "parts/edges/upper_outline.h"
#include "parts/opening/rules.h"
#include "prepare/arrange.h"
#include "prepare/drawing.h"
#include "prepare/marks.h"
#include "prepare/paper.h"
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

QPainterPath linePath(QPointF a, QPointF b) {
  QPainterPath path(a);
  path.lineTo(b);
  return path;
}

class SceneMaker {
 public:
  SceneMaker(const Design& design, const SceneOptions& options)
      : design_(design), block_(design.block), boundaries_(design.block), options_(options) {}

  TableScene onTheBlock() && {
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

  // Taped; what lies in another group than the piece it is sewn to is tied to it, notch to notch.
  TableScene taped(const Taped& laid) && {
    const Pattern& pattern = options_.balanced ? options_.balanced->pattern : design_.pattern;
    for (const Seam& s : pattern.seams) {
      if (laid.group[s.a.piece] == laid.group[s.b.piece]) continue;
      const Path a = pattern.sidePath(s.a).transformed(laid.motions[s.a.piece]),
                 b = pattern.sidePath(s.b).transformed(laid.motions[s.b.piece]);
      add(Ink::Tie, linePath(toQt(a.start()), toQt(b.start())));
      for (const SeamNotch& n : s.notches) add(Ink::Tie, linePath(toQt(a.pointAt(n.a)), toQt(b.pointAt(n.b))));
      add(Ink::Tie, linePath(toQt(a.end()), toQt(b.end())));
    }
    return std::move(*this).pieces(laid.motions, false);
  }

  TableScene pieces(const Arrangement& arrangement, bool cutLines) && {
    scene_.arrangement = arrangement;
    scene_.crowded = !cutLines && design_.pattern.shellPieces() > 7;
    for (size_t i = 0; i < design_.pattern.pieces.size(); ++i) addPiece(i, arrangement[i], cutLines);
    partLabels();
    if (!options_.lines.empty()) addLineMarks(scene_, design_, options_);
    return std::move(scene_);
  }

 private:
  void add(Ink mark, QPainterPath path, Selection target = {}) {
    scene_.items.push_back({mark, std::move(path), std::move(target)});
  }

  void addLevelLines(double right, double frontWidth) {
    for (const Level& l : block_.levels.all) {
      if (l.beyondHem) continue;
      const Selection target{.working = l.readOff ? "front." + l.id + ".side" : "girth." + l.id, .level = l.id};
      // One line where both halves stand equally high, else one on each half.
      const double middle = frontWidth + kBetweenHalves / 2;
      QPainterPath path = linePath({0, l.front}, {middle, l.front});
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
    addComb(upperSide, m);
    Vec2 sideEnd = upperSide.end();
    if (front) {
      const Path below = block_.sideBelowDart.betweenDepths(block_.dart.lower.y, sideHem);
      add(Ink::Edge, toQt(below, m), sideTarget);
      addComb(below, m);
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
      addComb(a, m);
      addComb(b, m);
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
    if (!options_.guides) return;
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

  // Cups lie over each other where they are laid into their frame; their numbers and names step aside.
  void partLabels() {
    constexpr double kLabelWide = 34, kLabelHigh = 26;  // mm
    std::vector<SceneLabel>& all = scene_.labels;
    for (size_t i = 0; i < all.size(); ++i)
      for (size_t j = i + 1; j < all.size(); ++j) {
        if (all[i].kind != LabelKind::PieceNumber || all[j].kind != LabelKind::PieceNumber) continue;
        const QPointF apart = all[j].at - all[i].at;
        if (std::abs(apart.x()) >= kLabelWide || std::abs(apart.y()) >= kLabelHigh) continue;
        const double by = std::copysign((kLabelWide - std::abs(apart.x())) / 2, apart.x());
        const QPointF a = all[i].at, b = all[j].at;
        for (SceneLabel& l : all) {
          if (l.at == a)
            l.at += QPointF(-by, 0);
          else if (l.at == b)
            l.at += QPointF(by, 0);
        }
      }
  }

  void addComb(const Path& path, const Motion& m) {
    if (!options_.combs) return;
    QPainterPath comb;
    QPolygonF tips;
    for (const CombTooth& tooth : curvatureComb(path)) {
      comb.moveTo(toQt(m.apply(tooth.foot)));
      comb.lineTo(toQt(m.apply(tooth.tip)));
      tips << toQt(m.apply(tooth.tip));
    }
    comb.addPolygon(tips);
    add(Ink::Comb, comb);
  }

  void addSideHandles(const HalfBlock& half, const Motion& m, double top, double hem) {
    for (const HalfLevel& l : half.levels) {
      const Level& level = block_.levels.at(l.level);
      if (level.readOff || l.y < top - 1e-6 || l.y > hem + 1e-6) continue;
      add(Ink::Handle, squareAt(toQt(m.apply({l.side, l.y}))),
          {.working = half.id + "." + l.level + ".side", .level = l.level});
    }
  }

  // The old edges thin, and an arrow where each moved most, ten times as long as it moved.
  void addBefore(size_t i, const Motion& m) {
    constexpr double kLarger = 10;
    const Balanced& b = *options_.balanced;
    const Pattern& before = design_.drafted ? *design_.drafted : design_.pattern;
    for (const EdgeMove& move : b.moves) {
      if (move.piece != i) continue;
      const Path& path = before.pieces[i].edge(move.edge).path;
      add(Ink::Before, toQt(path, m));
      const Vec2 from = move.at - move.by, tip = from + kLarger * move.by, along = unit(move.by);
      const Vec2 across{-along.y, along.x};
      QPainterPath arrow = linePath(toQt(m.apply(from)), toQt(m.apply(tip)));
      arrow.addPath(linePath(toQt(m.apply(tip - 4 * along + 2 * across)), toQt(m.apply(tip))));
      arrow.addPath(linePath(toQt(m.apply(tip)), toQt(m.apply(tip - 4 * along - 2 * across))));
      add(Ink::Moved, arrow);
      constexpr double kTold = 1;  // mm; a smaller movement has no number on the table
      if (move.largest >= kTold)
        scene_.labels.push_back({LabelKind::Movement, toQt(m.apply(tip + 8 * along)),
                                 QString::fromStdString(formatLengthWithUnit(move.largest, options_.moves))});
    }
  }

  void addPiece(size_t i, const Motion& m, bool cutLine) {
    const Piece& p = options_.balanced ? options_.balanced->pattern.pieces[i] : design_.pattern.pieces[i];

    const QPolygonF outline = toQt(p.outline(0.05), m);
    QPainterPath fill;
    fill.addPolygon(outline);
    fill.closeSubpath();
    add(i % 2 == 0 ? Ink::PieceFill : Ink::PieceFillDeep, fill, {.piece = p.id});
    scene_.bounds = scene_.bounds.united(fill.boundingRect());
    const bool cut = cutLine && (!options_.balanced || design_.balanced);  // a proposal has no outline to cut yet
    for (const DrawnLine& l : drawnLines(p, cut ? design_.cutOutlines[i] : Polyline{})) addLine(i, p, l, m);
    if (options_.balanced) addBefore(i, m);
    const Vec2 at = m.apply(labelPoint(p));
    scene_.labels.push_back({LabelKind::PieceNumber, toQt(at), QString::number(p.number), 0, {0, -13}});
    if (scene_.crowded) return;  // there is no room for names
    const QString name = words(p.name).replace(' ', '\n');
    const double below = 15 + 8.0 * std::max(0, static_cast<int>(name.count('\n')) - 1);  // three lines stand lower
    scene_.labels.push_back({LabelKind::PieceName, toQt(at), name, 0, {0, below}});
  }

  void addLine(size_t i, const Piece& p, const DrawnLine& l, const Motion& m) {
    switch (l.role) {
      case LineRole::Cut: {
        QPainterPath cut;
        cut.addPolygon(toQt(l.outline, m));
        cut.closeSubpath();
        scene_.bounds = scene_.bounds.united(cut.boundingRect());
        return add(Ink::CutLine, cut);
      }
      case LineRole::Level:
        return add(Ink::LevelLine, toQt(l.path, m), {.working = "girth." + l.id, .piece = p.id, .level = l.id});
      case LineRole::Fold:
        return add(Ink::Fold, toQt(l.path, m), edgeTarget(i, l.id));
      case LineRole::Sewn:
        add(Ink::Edge, toQt(l.path, m), edgeTarget(i, l.id));
        return addComb(l.path, m);
      case LineRole::Point:
      case LineRole::Notch:
        return add(Ink::Notch, toQt(l.path, m));
      case LineRole::Grain:
        return add(Ink::Grain, toQt(l.path, m));
    }
  }

  Selection edgeTarget(size_t piece, const std::string& edge) const {
    Selection target{.piece = design_.pattern.pieces[piece].id, .edge = edge};
    for (const Seam& s : design_.pattern.seams)
      for (const SeamSide* side : {&s.a, &s.b})
        if (side->piece == piece && side->uses(edge)) target.seam = s.id;
    return target;
  }

  const Design& design_;
  const Block& block_;
  const Boundaries boundaries_;
  const SceneOptions options_;
  TableScene scene_;
};

}  // namespace

QPointF TableScene::place(const Design& design, const std::string& piece, Vec2 point) const {
  for (size_t i = 0; i < arrangement.size(); ++i)
    if (design.pattern.pieces[i].id == piece) return toQt(arrangement[i].apply(point));
  return toQt(point);
}

TableScene makeScene(const Design& design, TableMode mode, const SceneOptions& options) {
  if (mode == TableMode::OnTheBlock) return SceneMaker(design, options).onTheBlock();
  if (mode == TableMode::Taped) {
    TableScene scene =
        SceneMaker(design, options)
            .taped(tape(options.balanced ? options.balanced->pattern : design.pattern, options.openSeams));
    const double beside = options.lines.empty() ? 15 : 30;  // room for the length beside a handle
    scene.bounds.adjust(-beside, -15, beside, 15);
    return scene;
  }
  const PaperLayout layout = layOutOnPaper(design.pattern, design.cutOutlines, 880);
  TableScene scene = SceneMaker(design, options).pieces(layout.motions, true);
  if (const PaperSize* size = findPaper(options.paper)) {
    for (const Tile& t : tile(layout, *size).tiles) {
      QPainterPath frame;
      frame.addRect(QRectF(toQt(t.area.low), toQt(t.area.high)));
      scene.items.push_back({Ink::PageFrame, frame, {}});
      scene.labels.push_back({LabelKind::Note, toQt(t.area.low) + QPointF(16, 8), QString::fromStdString(t.name)});
      scene.bounds = scene.bounds.united(frame.boundingRect());
    }
  }
  scene.bounds.adjust(-15, -15, 15, 15);
  return scene;
}

}  // namespace armure
