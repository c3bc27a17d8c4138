// app/words.h
//
// How small lengths and places are written in the window.
#pragma once

#include <QString>
#include <string>

namespace armure {

// Small differences are told in millimetres, whatever the order's unit: an eighth of an inch hides them.
inline QString millimetres(double v) { return QString::number(v, 'f', 1) + " mm"; }

// "high hip" for high_hip.
inline QString placeName(const std::string& id) { return QString::fromStdString(id).replace('_', ' '); }

}  // namespace armure
