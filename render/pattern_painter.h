// render/pattern_painter.h
//
// Drawing pieces with QPainter, in millimetres: the caller scales the painter. Used by the screen, the PDF and the
// printer.
#pragma once

#include <QPainter>
#include <QPainterPath>
#include <QString>

#include "order/order.h"
#include "prepare/arrange.h"
#include "prepare/drawing.h"
#include "recalc/recalc.h"
#include "render/print_layers.h"

namespace armure {

QPointF toQt(Vec2 p);
QPainterPath toQt(const Path& path, const Motion& motion = {});
QPolygonF toQt(const Polyline& line, const Motion& motion = {});

// Text whose capital height is about 0.72 of `heightMm`; `at` is the start of the baseline. Turned by `angleRad`.
void drawTextMm(QPainter& painter, Vec2 at, double heightMm, const QString& text, double angleRad = 0,
                Qt::AlignmentFlag align = Qt::AlignLeft);
// Wrapped text in a box; returns the height used, mm.
double drawParagraphMm(QPainter& painter, const Box& box, double heightMm, const QString& text, bool bold = false);

// A piece as it is printed: cut line, sewn line, fold, levels, notches, grain with its arrow, label, what each edge
// gets; of a layer, only what is drawn on it.
void drawPrintedPiece(QPainter& painter, const Order& order, const Design& design, const Labelling& labelling,
                      size_t piece, const Motion& motion, PrintLayer layer = PrintLayer::Everything);

}  // namespace armure
