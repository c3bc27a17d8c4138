// core/prepare/marks.h
//
// What is written and struck on a piece besides its outlines: notch strokes and the lines of its label. Shared by every
// way of drawing a piece, so that screen, print and files say the same.
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"
#include "rules/prepare_rules.h"
#include "rules/rules.h"

namespace armure {

// A short stroke across the allowance, from the sewn line outwards; mm.
struct Stroke {
  Vec2 from, to;
};

// Notch strokes of a piece, from the sewn line to the cutting line; a double notch gives two, 3 mm apart. Without an
// outline to cut, or an allowance, they are 6 mm long, or as long as the allowance.
// A triangle stands on the cutting line besides, pointing out.
std::vector<Stroke> notchStrokes(const Piece& piece, const Polyline& cutOutline = {}, NotchKind kind = NotchKind::Slit);

// Where a notch is struck: from the sewn line square out to the cutting line, however far off that is (one stroke for a
// double notch). Nothing for a notch whose edge has no allowance.
struct NotchStroke {
  std::string id;
  Vec2 sewn, cut;
};
std::vector<NotchStroke> strokesToCut(const Piece& piece, const Polyline& cutOutline);

// Whether a notch lies on the leg of a dart, within the cloth: it is marked through it, not cut.
bool isOnLeg(const Piece& piece, const Mark& notch);

// Where the darts of a piece end: the point to mark through the cloth; of a pointed one, both.
struct DartPoint {
  std::string dart;
  Vec2 at;
};
std::vector<DartPoint> dartPoints(const Piece& piece);

// "plain" or "gathered": more than kMostEase has to be drawn in, not eased. Common practice, no source.
inline constexpr double kMostEase = 6;  // mm
std::string_view kindOf(const Seam& seam);

// "Centre front", "2 of 4", then for every layer it is cut for what is cut of which cloth, and by which custom its
// allowances are to be understood.
std::vector<Message> labelLines(const Piece& piece, const Rules& rules);

// Whether its grain is drawn for the bias: about half a right angle from upright.
bool isOnBias(const Piece& piece);

// "1/2 in, joins 2" for an edge: its allowance, and whether it is still to be added on the cloth, and the number of the
// piece it is sewn to, if any. Nothing for the mouth of a dart, which is folded away.
Message edgeNote(const Pattern& pattern, size_t piece, const Edge& edge);

// A point well inside the piece, for its label: the middle between waist and underbust.
Vec2 labelPoint(const Piece& piece);

}  // namespace armure
