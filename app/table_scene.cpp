#include "app/table_scene.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "alter/differences.h"
#include "app/block_scene.h"
#include "app/line_marks.h"
#include "app/scene_parts.h"
#include "prepare/arrange.h"
#include "prepare/drawing.h"
#include "prepare/marks.h"
#include "prepare/paper.h"
#include "render/pattern_painter.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kTableWidest = 880, kBelowSheets = 30;  // mm

class PieceScene {
 public:
  PieceScene(const Design& design, const SceneOptions& options) : design_(design), options_(options) {
    if (options.boned) boning_ = boningOf(design.pattern, design.block, design.rules);
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
    if (options_.version.pattern)
      differences_ = differences(design_.pattern, *options_.version.pattern, options_.version.at);
    scene_.arrangement = arrangement;
    scene_.crowded = !cutLines && design_.pattern.shellPieces() > 7;
    for (size_t i = 0; i < design_.pattern.pieces.size(); ++i)  // taped, what is sewn on is seen where it is sewn
      if (cutLines || design_.pattern.pieces[i].part != Part::Trim) addPiece(i, arrangement[i], cutLines);
    if (!cutLines) addSewnOn();
    partLabels();
    if (!options_.lines.empty()) addLineMarks(scene_, design_, options_);
    return std::move(scene_);
  }

 private:
  void add(Ink mark, QPainterPath path, Selection target = {}) {
    scene_.items.push_back({mark, std::move(path), std::move(target)});
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

  // The old edges thin, and an arrow where each moved most, ten times as long as it moved.
  void addBefore(size_t i, const Motion& m) {
    constexpr double kLarger = 10;
    const Balanced& b = *options_.balanced;
    const std::vector<Piece>& before = (design_.drafted ? *design_.drafted : design_.pattern).pieces;
    const auto was = std::ranges::find(before, b.pattern.pieces[i].id, &Piece::id);
    if (was == before.end()) return;
    for (const EdgeMove& move : b.moves) {
      if (move.piece != i) continue;
      const Path& path = was->edge(move.edge).path;
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

  // Edges that lie elsewhere in the other version, and by how much, where it is most.
  void addVersion(size_t i, const Motion& m) {
    constexpr double kTold = 0.7, kBeside = 9;  // mm
    const Piece& piece = design_.pattern.pieces[i];
    for (const EdgeDifference& d : differences_) {
      if (d.piece != i) continue;
      const auto other = std::ranges::find(options_.version.pattern->pieces, piece.id, &Piece::id);
      const Motion laid =
          laidOn(design_.pattern, piece, *options_.version.pattern, *other, options_.version.at).then(m);
      const QPainterPath path = toQt(other->edge(d.edge).path, laid);
      scene_.bounds = scene_.bounds.united(path.boundingRect());
      add(Ink::Other, path);
      if (d.largest >= kTold)
        scene_.labels.push_back({LabelKind::Movement, toQt(m.apply(d.at + (d.largest + kBeside) * unit(d.by))),
                                 QString::fromStdString(formatLengthWithUnit(d.largest, options_.moves))});
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
    for (const DrawnLine& l :
         drawnLines(p, cut ? design_.cutOutlines[i] : Polyline{}, design_.rules.option(key::kNotchKind)))
      addLine(i, p, l, m);
    if (boning_)
      for (const DrawnLine& l : drawnBoning(*boning_, i)) addLine(i, p, l, m);
    if (options_.balanced) addBefore(i, m);
    addVersion(i, m);
    const Vec2 at = m.apply(labelPoint(p));
    scene_.labels.push_back({LabelKind::PieceNumber, toQt(at), QString::number(p.number), 0, {0, -13}});
    if (scene_.crowded) return;  // there is no room for names
    QString name = words(p.name);
    // What is sewn on lies across: its own name in a line, and what of it the piece is below.
    p.part == Part::Trim ? name.replace(", ", ",\n") : name.replace(' ', '\n');
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
        if (options_.combs) add(Ink::Comb, combPath(l.path, m));
        return;
      case LineRole::Channel:
        return add(Ink::Construction, toQt(l.path, m), {.working = l.id, .piece = p.id});
      case LineRole::Eyelet:
      case LineRole::Point:
      case LineRole::Notch:
        return add(Ink::Notch, toQt(l.path, m));
      case LineRole::Grain:
        return add(Ink::Grain, toQt(l.path, m));
    }
  }

  // A wave along every stretch that something is sewn to.
  void addSewnOn() {
    constexpr double kWave = 14, kHigh = 4.5, kClear = 1.5;  // mm
    constexpr int kInWave = 8;
    for (const Attachment& a : design_.pattern.attachments) {
      if (a.trim.empty() || design_.pattern.pieces[a.piece].part == Part::Trim) continue;
      const Path& edge = design_.pattern.pieces[a.piece].edge(a.edge).path;
      const int steps = kInWave * std::max(1, static_cast<int>((a.to - a.from) / kWave));
      QPainterPath wave;
      for (int i = 0; i <= steps; ++i) {
        const double at = a.from + (a.to - a.from) * i / steps;
        const Vec2 along = edge.tangentAt(at), out{along.y, -along.x};  // the cloth lies on its right
        const double high = kClear + kHigh * (1 - std::cos(2 * std::numbers::pi * i / kInWave)) / 2;
        const QPointF p = toQt(scene_.arrangement[a.piece].apply(edge.pointAt(at) + high * out));
        i == 0 ? wave.moveTo(p) : wave.lineTo(p);
      }
      add(Ink::Construction, wave, {.working = "trim." + a.trim});
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
  std::optional<Boning> boning_ = {};  // where bones are seen
  const SceneOptions options_;
  std::vector<EdgeDifference> differences_ = {};  // to the other version
  TableScene scene_;
};

// In rows so wide that the whole is hardly higher than wide: long pieces, or many, are not pressed into a column.
Arrangement sideBySide(const Design& design) {
  constexpr double kWider = 1.4, kHigh = 1.15, kMostWide = 20 * kTableWidest;
  for (double widest = kTableWidest;; widest *= kWider) {
    PaperLayout laid = layOutOnPaper(design.pattern, design.cutOutlines, widest);
    if (laid.height <= kHigh * laid.width || widest > kMostWide) return std::move(laid.motions);
  }
}

// Where the pieces lie on their sheets; those that are left out side by side below them.
Arrangement asPrinted(const Design& design, const Sheets& sheets) {
  const PaperLayout& laid = sheets.layout;
  std::vector<size_t> out;
  for (size_t i = 0; i < design.pattern.pieces.size(); ++i)
    if (std::ranges::find(laid.pieces, i) == laid.pieces.end()) out.push_back(i);
  const PaperLayout below = layOutOnPaper(design.pattern, design.cutOutlines, out, std::max(kTableWidest, laid.width));
  const Motion down = Motion::translation({0, laid.height + 2 * kBelowSheets});
  Arrangement all(design.pattern.pieces.size());
  for (size_t k = 0; k < laid.pieces.size(); ++k) all[laid.pieces[k]] = laid.motions[k];
  for (size_t k = 0; k < out.size(); ++k) all[out[k]] = below.motions[k].then(down);
  return all;
}

}  // namespace

QPointF TableScene::place(const Design& design, const std::string& piece, Vec2 point) const {
  for (size_t i = 0; i < arrangement.size(); ++i)
    if (design.pattern.pieces[i].id == piece) return toQt(arrangement[i].apply(point));
  return toQt(point);
}

TableScene makeScene(const Design& design, TableMode mode, const SceneOptions& options) {
  if (mode == TableMode::OnTheBlock) return blockScene(design, options);
  if (mode == TableMode::Taped) {
    TableScene scene =
        PieceScene(design, options)
            .taped(tape(options.balanced ? options.balanced->pattern : design.pattern, options.openSeams));
    const double beside = options.lines.empty() ? 15 : 30;  // room for the length beside a handle
    scene.bounds.adjust(-beside, -15, beside, 15);
    return scene;
  }
  const bool laid = options.sheets && !options.sheets->layout.pieces.empty();
  TableScene scene =
      PieceScene(design, options).pieces(laid ? asPrinted(design, *options.sheets) : sideBySide(design), true);
  if (laid && options.sheets->layout.pieces.size() < design.pattern.pieces.size())
    scene.labels.push_back(
        {LabelKind::Note, {0, options.sheets->layout.height + kBelowSheets}, "Left out, not printed:"});
  if (laid && options.sheets->paper.width > 0) {
    for (const Tile& t : options.sheets->tiling.tiles) {
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
