// core/prepare/drawing.h
//
// One piece as it is drawn, in millimetres: every line with its role, every text with its place. Screen, paper and SVG
// are back ends of this; none of them decides what a piece shows, only how a role looks.
//
//   for (const DrawnLine& l : drawnLines(piece, cutOutline)) pens[l.role].draw(l.path, motion);
//   for (const DrawnText& t : drawnTexts({pattern, rules, boning}, 2, motion)) write(say(t.text, language), t);
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "geometry/path.h"
#include "parts/bones/bones.h"
#include "parts/bones/eyelets.h"
#include "pattern/pattern.h"
#include "rules/prepare_rules.h"

namespace armure {

// Sewn: an edge, or a leg of a dart. Point: the ring round the point of a dart. Grain: the line and its one arrow, at
// the top: the pieces lie with it towards the wearer's shoulders.
// Channel: the two lines of stitches a bone lies between. Eyelet: a ring where one is set, or a loop sewn in.
enum class LineRole { Cut, Level, Sewn, Fold, Point, Notch, Grain, Channel, Eyelet };

struct DrawnLine {
  LineRole role{};
  std::string id;         // of the edge or the level it is; else empty
  Path path;              // in the axes of the piece
  Polyline outline = {};  // of a cut line, which is closed, instead of a path
};

// The lines of a piece, those that lie below others first. Without a cut outline there is no cut line.
std::vector<DrawnLine> drawnLines(const Piece& piece, const Polyline& cutOutline, NotchKind notches = NotchKind::Slit);

// Where what is sewn to an edge begins or ends: a stroke square into the piece.
struct Placement {
  size_t piece = 0;
  Path tick;
};

// The bones, eyelets and places of straps of a finished pattern, found once for all of its pieces.
struct Boning {
  std::vector<Channel> channels;
  std::vector<EyeletRow> eyelets;
  std::vector<Placement> placements = {};
};
Boning boningOf(const Pattern& pattern, const Block& block, const Rules& rules);
// Those of one piece, as they are drawn on it.
std::vector<DrawnLine> drawnBoning(const Boning& boning, size_t piece);

enum class TextRole { Piece, Edge, Level };

struct DrawnText {
  TextRole role{};
  Vec2 at;              // the middle of its baseline, where the motion lays it
  double height = 0;    // mm, of the font; capitals are about 0.7 of it
  double angleRad = 0;  // never upside down
  Message text;
};

// What labels are made from: the finished pattern, the rules, what is drawn across the pieces, and what stands on each
// of them of the order (its name, client, date, version).
struct Labelling {
  const Pattern& pattern;
  const Rules& rules;
  const Boning& boning;
  std::vector<Message> order = {};
};

// What is written on a piece that lies as the motion says: name, number, how many to cut of what, the order; along each
// edge its allowance and what it joins; on each level its name; which way is up, and how the grain lies. The label lies
// where it crosses least (label_place.h).
std::vector<DrawnText> drawnTexts(const Labelling& labelling, size_t piece, const Motion& motion);

// A few letters that change with the pieces: two prints of one version are alike. FNV-1a over the cut outlines to 0.1
// mm (G. Fowler, L. C. Noll, K.-P. Vo; from memory).
std::string patternVersion(const std::vector<Polyline>& cutOutlines);

// The place of the bust point on the panels beside it, by their notch.
std::optional<Vec2> bustPointOn(const Piece& piece);

}  // namespace armure
