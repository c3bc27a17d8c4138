// How the table is drawn: each mark in its pen, labels, the spot a row of the sheet speaks of, the walker's finger.
// What is drawn is in table_scene.h, how it is worked in table_view.cpp.
#include <QPainter>
#include <cmath>
#include <numbers>

#include "app/table_view.h"
#include "render/pattern_painter.h"

namespace armure {
namespace {

QPen cosmetic(const QColor& color, double pixels, Qt::PenStyle style = Qt::SolidLine) {
  QPen pen(color, pixels, style, Qt::FlatCap, Qt::RoundJoin);
  pen.setCosmetic(true);
  return pen;
}

QPen dashes(QPen pen, const QList<qreal>& pattern) {
  pen.setDashPattern(pattern);
  return pen;
}

QColor mixed(const QColor& ground, const QColor& over, double part) {
  const auto mix = [&](int a, int b) { return static_cast<int>(std::lround(a + part * (b - a))); };
  return {mix(ground.red(), over.red()), mix(ground.green(), over.green()), mix(ground.blue(), over.blue())};
}

bool isFill(Ink mark) { return mark == Ink::PieceFill || mark == Ink::PieceFillDeep; }

}  // namespace

void TableView::drawItem(QPainter& p, const SceneItem& item) const {
  const bool selected = isSelected(item);
  const QColor ink = selected ? theme_->working : theme_->ink;
  p.setBrush(Qt::NoBrush);
  switch (item.mark) {
    case Ink::PieceFill:
    case Ink::PieceFillDeep: {
      const bool chosen = !session_.selection().piece.empty() && session_.selection().piece == item.target.piece &&
                          session_.selection().edge.empty();
      const QColor& fill = chosen ? theme_->tape : item.mark == Ink::PieceFill ? theme_->tint : theme_->tintDeep;
      // The lines drawn along its edges smooth it; that and the plain colour take a tenth of the time.
      p.setRenderHint(QPainter::Antialiasing, false);
      p.fillPath(item.path, mixed(theme_->paper, fill, 0.55));
      p.setRenderHint(QPainter::Antialiasing);
      return;
    }
    case Ink::IntakeFill: {
      QBrush hatch(selected ? theme_->working : theme_->secondInk, Qt::BDiagPattern);
      hatch.setTransform(transform_.inverted());  // the hatching keeps its width on screen
      p.setOpacity(selected ? 0.6 : 0.35);
      p.fillPath(item.path, hatch);
      p.setOpacity(1);
      return;
    }
    case Ink::Edge:
      p.setPen(cosmetic(ink, selected ? 2.6 : 1.7));
      return drawEdge(p, item.path);
    case Ink::Fold:
      p.setPen(dashes(cosmetic(ink, selected ? 2.6 : 1.7), {10, 2, 2, 2}));
      break;
    case Ink::CutLine:
      p.setPen(cosmetic(theme_->secondInk, 1));
      break;
    case Ink::Construction:
      p.setPen(dashes(cosmetic(selected ? theme_->working : theme_->secondInk, 1), {4, 3}));
      break;
    case Ink::Before:
      p.setPen(dashes(cosmetic(theme_->secondInk, 1), {5, 3}));
      break;
    case Ink::Other:
      p.setPen(dashes(cosmetic(theme_->working, 1.8), {6, 3}));
      break;
    case Ink::Moved:
      p.setPen(cosmetic(theme_->working, 1.6));
      break;
    case Ink::LevelLine:
      p.setPen(dashes(cosmetic(selected ? theme_->working : theme_->secondInk, selected ? 1.8 : 1), {1, 3}));
      break;
    case Ink::Notch:
      p.setPen(cosmetic(theme_->ink, 1.4));
      break;
    case Ink::Tie:
      p.setPen(cosmetic(theme_->secondInk, 0.6));
      break;
    case Ink::Handle:
      p.setPen(cosmetic(theme_->working, selected ? 2.2 : 1.4));
      p.setBrush(selected ? theme_->working : theme_->paper);
      break;
    case Ink::Guide:
      p.setPen(cosmetic(theme_->working, selected ? 2.2 : 1.2));
      p.setBrush(selected || item.guide->placed ? theme_->working : theme_->paper);
      break;
    case Ink::Dial: {
      QColor fill = theme_->working;
      fill.setAlphaF(selected ? 0.45f : 0.22f);
      p.fillPath(item.path, fill);
      p.setPen(cosmetic(theme_->working, 1));
      break;
    }
    case Ink::Comb:
      p.setPen(cosmetic(theme_->working, 0.7));
      p.setOpacity(0.6);
      p.drawPath(item.path);
      p.setOpacity(1);
      return;
    case Ink::Grain:
      p.setPen(cosmetic(theme_->secondInk, 1));
      break;
    case Ink::PageFrame:
      p.setPen(dashes(cosmetic(theme_->working, 1), {2, 4}));
      break;
  }
  p.drawPath(item.path);
}

// As straight lines, which the painter draws several times faster than a path of curves; a curve is cut finely enough
// for nobody to see it.
void TableView::drawEdge(QPainter& p, const QPainterPath& path) const {
  QList<QLineF> lines;
  for (const QPolygonF& part : path.toSubpathPolygons(transform_))
    for (qsizetype i = 0; i + 1 < part.size(); ++i) lines.emplace_back(part[i], part[i + 1]);
  p.save();
  p.resetTransform();
  p.drawLines(lines);
  p.restore();
}

void TableView::drawLabel(QPainter& p, const SceneLabel& label) const {
  const QPointF at = transform_.map(label.at) + label.pixels;
  p.save();
  p.translate(at);
  p.rotate(label.angleRad * 180 / std::numbers::pi);
  const QRectF room(-160, -28, 320, 56);  // up to three lines
  switch (label.kind) {
    case LabelKind::LevelName:
      p.setFont(uiFont(TextSize::Small));
      p.setPen(theme_->secondInk);
      p.drawText(QPointF(0, 4), label.text);
      break;
    case LabelKind::PieceNumber: {
      QFont font = uiFont(TextSize::Title, true);
      font.setPixelSize(scene_.crowded ? 15 : 22);
      p.setFont(font);
      p.setPen(theme_->secondInk);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
    }
    case LabelKind::PieceName:
      p.setFont(uiFont(TextSize::Body));
      p.setPen(theme_->ink);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
    case LabelKind::Movement: {
      p.setFont(uiFont(TextSize::Small));
      const QRectF box = QFontMetricsF(p.font()).boundingRect(label.text).adjusted(-3, 0, 3, 0);
      QColor ground = theme_->paper;
      ground.setAlphaF(0.85f);
      p.fillRect(box.translated(-box.center()), ground);
      p.setPen(theme_->working);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
    }
    case LabelKind::Note:
      p.setFont(uiFont(TextSize::Small));
      p.setPen(theme_->secondInk);
      p.drawText(room, Qt::AlignCenter, label.text);
      break;
  }
  p.restore();
}

// A ring round the place a row of the balance sheet speaks of.
void TableView::drawSpot(QPainter& p) const {
  const auto row = session_.selection().row;
  if (!row || !session_.design() || mode_ == TableMode::OnTheBlock) return;
  const CheckRow& r = session_.design()->sheet.rows[*row];
  if (r.piece.empty()) return;
  const QPointF at = transform_.map(scene_.place(*session_.design(), r.piece, r.spot));
  p.setPen(QPen(r.fails() ? theme_->attention : theme_->working, 2.5));
  p.setBrush(Qt::NoBrush);
  p.drawEllipse(at, 15, 15);
}

// The two points that are sewn together under the walker's finger.
void TableView::drawFingers(QPainter& p) const {
  if (mode_ == TableMode::OnTheBlock) return;
  for (const Finger& f : fingers_) {
    if (f.piece >= scene_.arrangement.size()) continue;
    const QPointF at = transform_.map(toQt(scene_.arrangement[f.piece].apply(f.at)));
    p.setPen(QPen(theme_->working, 2));
    p.setBrush(theme_->tape);
    p.drawEllipse(at, 6, 6);
  }
}

void TableView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme_->paper);
  if (session_.problem() && session_.design()) p.setOpacity(0.45);
  p.save();
  p.setTransform(transform_, true);
  // Where pieces lie over each other all lines are seen.
  for (const bool fills : {true, false})
    for (const SceneItem& item : scene_.items)
      if (isFill(item.mark) == fills) drawItem(p, item);
  p.restore();
  for (const SceneLabel& label : scene_.labels) drawLabel(p, label);
  drawSpot(p);
  drawFingers(p);
  p.setOpacity(1);
  if (!session_.design()) {
    p.setFont(uiFont(TextSize::Heading));
    p.setPen(theme_->secondInk);
    p.drawText(rect().adjusted(60, 60, -60, -60), Qt::AlignCenter | Qt::TextWordWrap,
               "Nothing on the table yet.\nGive bust, waist and hip, and the block is drawn; the rest is estimated "
               "until it is measured.");
  }
  if (hasFocus()) {
    p.setPen(QPen(theme_->working, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
}

}  // namespace armure
