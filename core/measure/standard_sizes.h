// core/measure/standard_sizes.h
//
// Standard sizes to start a client from when she cannot be measured, and the ideal figure a client's is drawn beside.
// Girths of women by EN 13402-3:2004, "Size designation of clothes. Measurements and intervals", from memory; stature
// 168 cm, the middle of its three. Everything else is estimated like any missing measure, and marked so.
#pragma once

#include <span>
#include <string>

#include "measure/measure_set.h"
#include "message.h"

namespace armure {

struct StandardSize {
  double bust, waist, hip;  // mm
};

std::span<const StandardSize> standardSizes();

// "bust 92, waist 76, hip 100 cm".
Message standardSizeName(const StandardSize& size);

// Bust, waist, hip and stature of the size, typed in centimetres, each noted as not taken on a client.
MeasureSet standardMeasures(const StandardSize& size);

// The standard figure of this bust, between the sizes, with this stature; beyond them the first or last size scaled.
MeasureSet idealFigure(double bustMm, double statureMm);

}  // namespace armure
