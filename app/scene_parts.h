// app/scene_parts.h
//
// Lines that every drawing of the table is made of.
#pragma once

#include <QPainterPath>

#include "geometry/path.h"
#include "geometry/vec.h"

namespace armure {

QPainterPath linePath(QPointF a, QPointF b);

// How strongly a path is bent, as a comb on it (geometry/comb.h), moved with it.
QPainterPath combPath(const Path& path, const Motion& m);

}  // namespace armure
