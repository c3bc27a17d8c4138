// app/tracing_canvas.h
//
// The drawing on the table: its outlines as pieces, their edges by what becomes of them, levels, notches and grain, and
// what is picked. A click picks an edge, or a piece; while a place is asked for, it gives the place.
#pragma once

#include <QTransform>
#include <QWidget>
#include <optional>

#include "app/tracing_session.h"
#include "render/theme.h"

namespace armure {

class TracingCanvas : public QWidget {
  Q_OBJECT
 public:
  TracingCanvas(TracingSession& session, const Theme& theme, QWidget* parent = nullptr);

  // While a place is asked for a click says it: at a corner or the end of a line where one is near.
  void askForPlace(bool asked);
  void showMark(std::optional<Vec2> mark);  // the first of two places
  QPointF toScreen(Vec2 mm) const { return view().map(QPointF(mm.x, mm.y)); }
  QSize sizeHint() const override { return {760, 640}; }

 signals:
  void placeSaid(Vec2 mm);  // at the drawing's true size

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QTransform view() const;
  void measure();  // the box round everything drawn
  void paintPieces(QPainter& p) const;
  void paintEdges(QPainter& p) const;
  QPointF namePlace(const NamedPiece& piece) const;
  void paintInside(QPainter& p) const;
  TracedEdge edgeNear(QPointF at) const;
  void stepEdge(int by);

  TracingSession& session_;
  const Theme& theme_;
  QRectF box_;
  double zoom_ = 1;
  QPointF shift_;
  std::optional<QPointF> dragged_;
  bool moved_ = false, asked_ = false;
  std::optional<Vec2> mark_;
};

// The edges of a named piece as they lie in the drawing at its true size, in their order; empty where its outline is
// not there.
std::vector<Path> edgePaths(const TracingSession& session, const NamedPiece& piece);

}  // namespace armure
