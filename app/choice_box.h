// app/choice_box.h
//
// A combo box with our own arrow: a chevron in the lesser ink, drawn so that it is sharp at every scaling.
#pragma once

#include <QComboBox>
#include <QPainter>
#include <QWheelEvent>

namespace armure {

class ChoiceBox : public QComboBox {
 public:
  using QComboBox::QComboBox;

 protected:
  void paintEvent(QPaintEvent* event) override {
    QComboBox::paintEvent(event);
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    QColor ink = palette().color(QPalette::Text);
    ink.setAlphaF(0.6f);
    p.setPen(QPen(ink, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    const QPointF tip(width() - 13.0, height() / 2.0 + 2.5);
    p.drawPolyline(QPolygonF{tip + QPointF(-4, -4), tip, tip + QPointF(4, -4)});
  }
  // The wheel scrolls the tray; it must not change a choice in passing.
  void wheelEvent(QWheelEvent* event) override { event->ignore(); }
};

}  // namespace armure
