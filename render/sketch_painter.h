// render/sketch_painter.h
//
// Draws the small drawing of a garment (core/garment/sketch.h): front and back side by side, filled and lined in the
// colours of the theme.
#pragma once

#include <QPainter>

#include "garment/sketch.h"
#include "render/theme.h"

namespace armure {

// Both views, as large as `area` lets them be.
void drawSketch(QPainter& painter, const GarmentSketch& sketch, QRectF area, const Theme& theme);

}  // namespace armure
