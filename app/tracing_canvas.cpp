#include "app/tracing_canvas.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/scene_parts.h"
#include "geometry/path_distance.h"
#include "render/pattern_painter.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kReach = 9;  // px

}  // namespace

std::vector<Path> edgePaths(const TracingSession& session, const NamedPiece& piece) {
  const double k = session.names().scale;
  const auto at = outlineAt(session.outlines(), k * piece.at);
  if (!at) return {};
  const TracedOutline& outline = session.outlines()[*at];
  std::vector<double> from;
  for (const NamedEdge& e : piece.edges) from.push_back(placeOnOutline(outline, k * e.from));
  return cutAtPlaces(outline.path, from);
}

TracingCanvas::TracingCanvas(TracingSession& session, const Theme& theme, QWidget* parent)
    : QWidget(parent), session_(session), theme_(theme) {
  setObjectName("tracingCanvas");
  setAccessibleName("The drawing");
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(420, 320);
  measure();
  connect(&session, &TracingSession::changed, this, [this] {
    measure();
    update();
  });
  connect(&session, &TracingSession::pickedChanged, this, qOverload<>(&QWidget::update));
}

void TracingCanvas::measure() {
  Vec2 low{HUGE_VAL, HUGE_VAL}, high{-HUGE_VAL, -HUGE_VAL};
  for (const TracedOutline& o : session_.outlines())
    for (const Vec2 p : (o.cutting ? *o.cutting : o.path).flattened(1)) {
      if (o.isTestSquare) break;
      low = {std::min(low.x, p.x), std::min(low.y, p.y)};
      high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    }
  box_ = low.x <= high.x ? QRectF(low.x, low.y, high.x - low.x, high.y - low.y) : QRectF(0, 0, 100, 100);
}

QTransform TracingCanvas::view() const {
  constexpr double kMargin = 28;
  const double fit = std::min((width() - 2 * kMargin) / std::max(1.0, box_.width()),
                              (height() - 2 * kMargin) / std::max(1.0, box_.height()));
  QTransform t;
  t.translate(width() / 2.0 + shift_.x(), height() / 2.0 + shift_.y());
  t.scale(fit * zoom_, fit * zoom_);
  t.translate(-box_.center().x(), -box_.center().y());
  return t;
}

void TracingCanvas::askForPlace(bool asked) {
  asked_ = asked;
  setCursor(asked ? Qt::CrossCursor : Qt::ArrowCursor);
}

void TracingCanvas::showMark(std::optional<Vec2> mark) {
  mark_ = mark;
  update();
}

void TracingCanvas::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme_.paper);
  paintPieces(p);
  paintInside(p);
  paintEdges(p);
  if (mark_) {
    p.setPen(QPen(theme_.attention, 2));
    p.drawEllipse(toScreen(*mark_), 5, 5);
  }
}

void TracingCanvas::paintPieces(QPainter& p) const {
  const QTransform t = view();
  const double k = session_.names().scale;
  p.setPen(Qt::NoPen);
  for (const TracedOutline& o : session_.outlines()) {
    if (o.isTestSquare) continue;
    const QPainterPath path = t.map(toQt(o.path));
    p.fillPath(path, theme_.panelLight);
    p.setPen(QPen(theme_.hairline, 1));
    if (o.cutting) p.drawPath(t.map(toQt(*o.cutting)));
    p.drawPath(path);
    p.setPen(Qt::NoPen);
  }
  for (const NamedPiece& piece : session_.names().pieces) {
    const auto at = outlineAt(session_.outlines(), k * piece.at);
    if (!at) continue;
    const bool picked = piece.id == session_.picked().piece;
    p.fillPath(t.map(toQt(session_.outlines()[*at].path)), picked ? theme_.tape : theme_.tint);
  }
}

// Levels, grain and notches, and what each piece is called.
void TracingCanvas::paintInside(QPainter& p) const {
  const double k = session_.names().scale;
  for (const NamedPiece& piece : session_.names().pieces) {
    p.setFont(uiFont(TextSize::Small));
    for (const NamedLevel& l : piece.levels) {
      p.setPen(QPen(theme_.secondInk, 1, Qt::DotLine));
      const QPointF a = toScreen(k * l.a), b = toScreen(k * l.b);
      p.drawLine(a, b);
      p.setPen(theme_.secondInk);
      p.drawText((a + b) / 2 + QPointF(-18, -3), q(l.id).replace('_', ' '));
    }
    p.setPen(QPen(theme_.secondInk, 1));
    const QPointF top = toScreen(k * piece.grainTop), bottom = toScreen(k * piece.grainBottom);
    p.drawLine(top, bottom);
    const QLineF grain(bottom, top);
    for (const double side : {25.0, -25.0}) {
      QLineF barb(top, bottom);
      barb.setAngle(barb.angle() + side);
      barb.setLength(8);
      if (grain.length() > 1) p.drawLine(barb);
    }
    for (const NamedNotch& n : piece.notches) p.drawEllipse(toScreen(k * n.at), 2.5, 2.5);
    p.setFont(uiFont(TextSize::Body, true));
    p.setPen(theme_.ink);
    p.drawText(QRectF(namePlace(piece) - QPointF(60, 10), QSizeF(120, 20)), Qt::AlignCenter, q(piece.id));
  }
}

// Between the two levels that are furthest apart, so that no level's name is written over.
QPointF TracingCanvas::namePlace(const NamedPiece& piece) const {
  const double k = session_.names().scale;
  std::vector<Vec2> middles;
  for (const NamedLevel& l : piece.levels) middles.push_back(k * lerp(l.a, l.b, 0.5));
  const Vec2 down = piece.grainBottom - piece.grainTop;
  std::ranges::sort(middles, {}, [&](Vec2 m) { return dot(m, down); });
  Vec2 best = k * piece.at;
  double most = 0;
  for (size_t i = 1; i < middles.size(); ++i)
    if (const double d = distance(middles[i - 1], middles[i]); d > most)
      most = d, best = lerp(middles[i - 1], middles[i], 0.5);
  return toScreen(best);
}

void TracingCanvas::paintEdges(QPainter& p) const {
  const QTransform t = view();
  const TracedEdge& picked = session_.picked();
  const std::vector<TracedEdge> partners = partnersOf(session_.names(), picked);
  for (const NamedPiece& piece : session_.names().pieces) {
    const std::vector<Path> paths = edgePaths(session_, piece);
    for (size_t i = 0; i < paths.size(); ++i) {
      const NamedEdge& e = piece.edges[i];
      const TracedEdge name{piece.id, e.id};
      const bool loose = isSewn(e.role) && !seamWith(session_.names(), name);
      QPen pen(loose ? theme_.attention : theme_.ink, 1.6);
      if (e.role == EdgeRole::Fold) pen.setStyle(Qt::DashDotLine);
      if (name == picked) pen = QPen(theme_.working, 4);
      if (std::ranges::find(partners, name) != partners.end()) pen = QPen(theme_.working, 3, Qt::DashLine);
      p.setPen(pen);
      p.drawPath(t.map(toQt(paths[i])));
      p.setPen(Qt::NoPen);
      p.setBrush(theme_.ink);
      p.drawEllipse(toScreen(paths[i].start()), 2.5, 2.5);
      p.setBrush(Qt::NoBrush);
    }
  }
}

TracedEdge TracingCanvas::edgeNear(QPointF at) const {
  TracedEdge best;
  double least = kReach;
  for (const NamedPiece& piece : session_.names().pieces) {
    const std::vector<Path> paths = edgePaths(session_, piece);
    for (size_t i = 0; i < paths.size(); ++i) {
      const QPointF mm = view().inverted().map(at);
      const Vec2 foot = paths[i].pointAt(nearestPlace(paths[i], {mm.x(), mm.y()}));
      if (const double d = QLineF(toScreen(foot), at).length(); d < least)
        least = d, best = {piece.id, piece.edges[i].id};
    }
  }
  if (!best.piece.empty()) return best;
  const QPointF mm = view().inverted().map(at);
  const auto outline = outlineAt(session_.outlines(), {mm.x(), mm.y()});
  for (const NamedPiece& piece : session_.names().pieces)
    if (outline && outlineAt(session_.outlines(), session_.names().scale * piece.at) == outline) return {piece.id, ""};
  return {};
}

void TracingCanvas::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  dragged_ = event->position();
  moved_ = false;
}

void TracingCanvas::mouseMoveEvent(QMouseEvent* event) {
  if (!dragged_) return;
  const QPointF by = event->position() - *dragged_;
  if (!moved_ && by.manhattanLength() < 5) return;
  moved_ = true;
  shift_ += by;
  dragged_ = event->position();
  update();
}

void TracingCanvas::mouseReleaseEvent(QMouseEvent* event) {
  if (!dragged_) return;
  dragged_.reset();
  if (moved_) return;
  const QPointF at = event->position();
  if (!asked_) {
    const TracedEdge edge = edgeNear(at);
    if (!edge.piece.empty()) session_.pick(edge);
    return;
  }
  // The end of a line near by, else the place itself.
  const QPointF mm = view().inverted().map(at);
  Vec2 said{mm.x(), mm.y()};
  double least = kReach;
  for (const DrawnShape& s : session_.drawing().shapes)
    for (const Cubic& c : s.path.cubics())
      for (const Vec2 end : {c.p0, c.p3})
        if (const double d = QLineF(toScreen(end), at).length(); d < least) least = d, said = end;
  emit placeSaid(said);
}

void TracingCanvas::wheelEvent(QWheelEvent* event) {
  const double factor = std::pow(1.0015, event->angleDelta().y());
  const double before = zoom_;
  zoom_ = std::clamp(zoom_ * factor, 0.5, 40.0);
  const QPointF off = event->position() - rect().center() - shift_;
  shift_ -= (zoom_ / before - 1) * off;
  update();
}

// Left and right go round the piece, up and down to the piece before and after.
void TracingCanvas::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Right:
      return stepEdge(1);
    case Qt::Key_Left:
      return stepEdge(-1);
    case Qt::Key_Plus:
    case Qt::Key_Minus:
      zoom_ = std::clamp(zoom_ * (event->key() == Qt::Key_Plus ? 1.2 : 1 / 1.2), 0.5, 40.0);
      return update();
    case Qt::Key_Up:
    case Qt::Key_Down: {
      const auto& pieces = session_.names().pieces;
      if (pieces.empty()) return;
      const auto at = std::ranges::find(pieces, session_.picked().piece, &NamedPiece::id) - pieces.begin();
      const auto n = static_cast<std::ptrdiff_t>(pieces.size());
      const auto to = (at + (event->key() == Qt::Key_Down ? 1 : n - 1)) % n;
      return session_.pick({pieces[static_cast<size_t>(to)].id, ""});
    }
    default:
      return QWidget::keyPressEvent(event);
  }
}

void TracingCanvas::stepEdge(int by) {
  const NamedPiece* piece = pieceNamed(session_.names(), session_.picked().piece);
  if (!piece || piece->edges.empty()) return;
  const auto n = static_cast<std::ptrdiff_t>(piece->edges.size());
  auto at = std::ranges::find(piece->edges, session_.picked().edge, &NamedEdge::id) - piece->edges.begin();
  at = at == n ? (by > 0 ? 0 : n - 1) : (at + by + n) % n;
  session_.pick({piece->id, piece->edges[static_cast<size_t>(at)].id});
}

}  // namespace armure
