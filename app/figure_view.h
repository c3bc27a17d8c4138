// app/figure_view.h
//
// The figure of the stage Client: the client's body as her measures make it, from front, back and side, beside the
// standard figure of the same bust. The current measure is lit; a click on a measure goes to its field.
#pragma once

#include <QWidget>
#include <optional>

#include "app/order_session.h"
#include "render/figure_painter.h"

namespace armure {

class FigureView : public QWidget {
  Q_OBJECT
 public:
  explicit FigureView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

  // Where a measure lies on the screen; for tests and for pointing at it.
  std::optional<QPointF> placeOf(std::string_view measure) const;

 signals:
  void measureChosen(const std::string& id);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void refresh();  // puts itself off while not seen
  FigurePainter painter() const;
  QRectF drawingArea() const;
  std::string lit() const;
  void drawLegend(QPainter& painter) const;

  OrderSession& session_;
  const Theme* theme_;
  MeasureSet shown_;
  MeasuredFigure figure_, ideal_;
  std::pair<double, double> beside_{};  // bust and stature of the ideal figure
  std::string hovered_;
};

}  // namespace armure
