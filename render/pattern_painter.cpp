#include "render/pattern_painter.h"

#include <numbers>

#include "prepare/drawing.h"
#include "render/theme.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kDegrees = 180 / std::numbers::pi;
constexpr int kGlyphPixels = 100;  // text is set at this size and scaled down

QFont printFont(bool bold) {
  QFont font = uiFont(TextSize::Body, bold);
  font.setPixelSize(kGlyphPixels);
  // Any letter spacing makes Qt set no ligatures, so that text can be copied and searched in the PDF.
  font.setLetterSpacing(QFont::AbsoluteSpacing, 0.2);
  return font;
}

QPen pen(const QColor& color, double width, Qt::PenStyle style = Qt::SolidLine) {
  QPen p(color, width, style);
  p.setCapStyle(Qt::FlatCap);
  p.setJoinStyle(Qt::MiterJoin);
  return p;
}

QPen dashed(const QColor& color, double width, QList<qreal> mm) {
  QPen p = pen(color, width);
  for (qreal& d : mm) d /= width;  // Qt counts dashes in line widths
  p.setDashPattern(mm);
  return p;
}

QPen penOf(LineRole role, const Theme& theme) {
  switch (role) {
    case LineRole::Cut:
      return pen(theme.ink, 0.5);
    case LineRole::Level:
      return dashed(theme.secondInk, 0.2, {1, 2});
    case LineRole::Sewn:
      return dashed(theme.working, 0.35, {4, 1.6});
    case LineRole::Fold:
      return dashed(theme.ink, 0.35, {10, 2, 2, 2});
    case LineRole::Channel:
      return dashed(theme.secondInk, 0.25, {2, 1.5});
    case LineRole::Eyelet:
    case LineRole::Point:
    case LineRole::Notch:
      return pen(theme.ink, 0.45);
    case LineRole::Grain:
      break;
  }
  return pen(theme.ink, 0.3);
}

}  // namespace

QPointF toQt(Vec2 p) { return {p.x, p.y}; }

QPainterPath toQt(const Path& path, const Motion& m) {
  QPainterPath out(toQt(m.apply(path.start())));
  for (const Cubic& c : path.cubics()) out.cubicTo(toQt(m.apply(c.p1)), toQt(m.apply(c.p2)), toQt(m.apply(c.p3)));
  return out;
}

QPolygonF toQt(const Polyline& line, const Motion& m) {
  QPolygonF out;
  out.reserve(static_cast<qsizetype>(line.size()));
  for (Vec2 p : line) out.append(toQt(m.apply(p)));
  return out;
}

void drawTextMm(QPainter& painter, Vec2 at, double heightMm, const QString& text, double angleRad,
                Qt::AlignmentFlag align) {
  const QFont font = printFont(false);
  const double width = QFontMetricsF(font).horizontalAdvance(text);
  painter.save();
  painter.translate(toQt(at));
  painter.rotate(angleRad * kDegrees);
  painter.scale(heightMm / kGlyphPixels, heightMm / kGlyphPixels);
  painter.setFont(font);
  painter.drawText(QPointF(align == Qt::AlignHCenter ? -width / 2 : align == Qt::AlignRight ? -width : 0, 0), text);
  painter.restore();
}

double drawParagraphMm(QPainter& painter, const Box& box, double heightMm, const QString& text, bool bold) {
  const double scale = heightMm / kGlyphPixels;
  painter.save();
  painter.translate(toQt(box.low));
  painter.scale(scale, scale);
  painter.setFont(printFont(bold));
  QRectF used;
  painter.drawText(QRectF(0, 0, box.width() / scale, box.height() / scale),
                   Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, text, &used);
  painter.restore();
  return used.height() * scale;
}

void drawPrintedPiece(QPainter& painter, const Order& order, const Design& design, const Labelling& labelling, size_t i,
                      const Motion& m, PrintLayer layer) {
  const Theme& theme = lightTheme();  // paper is always light
  painter.setBrush(Qt::NoBrush);
  const auto draw = [&](const std::vector<DrawnLine>& lines) {
    for (const DrawnLine& l : lines) {
      if (!isDrawnOn(layer, printLayerOf(l.role))) continue;
      painter.setPen(penOf(l.role, theme));
      if (l.role == LineRole::Cut) {
        painter.drawPolygon(toQt(l.outline, m));
      } else {
        painter.drawPath(toQt(l.path, m));
      }
    }
  };
  draw(drawnLines(design.pattern.pieces[i], design.cutOutlines[i], design.rules.option(key::kNotchKind)));
  draw(drawnBoning(labelling.boning, i));
  if (!isDrawnOn(layer, PrintLayer::Labels)) return;
  for (const DrawnText& t : drawnTexts(labelling, i, m)) {
    painter.setPen(t.role == TextRole::Piece ? theme.ink : theme.secondInk);
    drawTextMm(painter, t.at, t.height, words(t.text, order.units), t.angleRad, Qt::AlignHCenter);
  }
}

}  // namespace armure
