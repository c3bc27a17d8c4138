#include "render/pattern_painter.h"

#include <numbers>

#include "prepare/arrange.h"
#include "prepare/marks.h"
#include "render/theme.h"

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

void drawGrain(QPainter& painter, const Piece& piece, const Motion& m) {
  const Vec2 top = m.apply(piece.grainTop), bottom = m.apply(piece.grainBottom);
  const Vec2 up = unit(top - bottom), across{-up.y, up.x};
  painter.drawLine(toQt(top), toQt(bottom));
  // One arrow, at the top: the pieces lie with it towards the wearer's shoulders.
  painter.drawLine(toQt(top), toQt(top - 5 * up + 2 * across));
  painter.drawLine(toQt(top), toQt(top - 5 * up - 2 * across));
}

void drawEdgeNotes(QPainter& painter, const Order& order, const Design& design, size_t i, const Motion& m) {
  constexpr double kInside = 6;  // mm from the sewn line
  for (const Edge& e : design.pattern.pieces[i].edges) {
    const double at = e.path.length() * (e.role == EdgeRole::Top || e.role == EdgeRole::Hem ? 0.5 : 0.36);
    const Vec2 direction = e.path.tangentAt(at);
    const Vec2 inside{-direction.y, direction.x};
    const double angle = angleBetween({1, 0}, m.applyToDirection(direction));
    const bool upsideDown = std::abs(angle) > std::numbers::pi / 2 + 1e-9;
    const Vec2 base = m.apply(e.path.pointAt(at) + (upsideDown ? kInside - 3.0 : kInside) * inside);
    drawTextMm(painter, base, 3.6, QString::fromStdString(edgeNote(design.pattern, i, e, order.units)),
               upsideDown ? angle + std::numbers::pi : angle, Qt::AlignHCenter);
  }
}

void drawLabel(QPainter& painter, const Piece& piece, const Motion& m) {
  Vec2 at = m.apply(labelPoint(piece)) + Vec2{0, -16};
  double height = 6;
  for (const std::string& line : labelLines(piece)) {
    drawTextMm(painter, at, height, QString::fromStdString(line), 0, Qt::AlignHCenter);
    at.y += height * 1.25;
    height = 4.2;
  }
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

void drawPrintedPiece(QPainter& painter, const Order& order, const Design& design, size_t i, const Motion& m) {
  const Theme& theme = lightTheme();  // paper is always light
  const Piece& piece = design.pattern.pieces[i];
  painter.setBrush(Qt::NoBrush);
  painter.setPen(pen(theme.ink, 0.5));
  painter.drawPolygon(toQt(design.cutOutlines[i], m));
  for (const Edge& e : piece.edges) {
    painter.setPen(e.role == EdgeRole::Fold ? dashed(theme.ink, 0.35, {10, 2, 2, 2})
                                            : dashed(theme.working, 0.35, {4, 1.6}));
    painter.drawPath(toQt(e.path, m));
  }
  painter.setPen(dashed(theme.secondInk, 0.2, {1, 2}));
  for (const LevelLine& l : piece.levelLines()) painter.drawLine(toQt(m.apply(l.a)), toQt(m.apply(l.b)));
  painter.setPen(pen(theme.ink, 0.45));
  for (const Stroke& s : notchStrokes(piece)) painter.drawLine(toQt(m.apply(s.from)), toQt(m.apply(s.to)));
  painter.setPen(pen(theme.ink, 0.3));
  drawGrain(painter, piece, m);
  painter.setPen(theme.ink);
  drawLabel(painter, piece, m);
  painter.setPen(theme.secondInk);
  drawEdgeNotes(painter, order, design, i, m);
  for (const LevelLine& l : piece.levelLines()) {
    const auto level = std::find_if(design.pattern.levels.begin(), design.pattern.levels.end(),
                                    [&](const PatternLevel& x) { return x.id == l.level; });
    const QString name = QString::fromStdString(level->name).toLower() +
                         (level->estimated() ? QStringLiteral(" (estimated)") : QString());
    const Vec2 along = m.applyToDirection(unit(l.b - l.a));
    drawTextMm(painter, m.apply(lerp(l.a, l.b, 0.5)) + Vec2{0, -0.8}, 3, name, angleBetween({1, 0}, along),
               Qt::AlignHCenter);
  }
}

}  // namespace armure
