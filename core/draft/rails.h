// core/draft/rails.h
//
// The rails: every level of the block as one strip from centre front to centre back, as wide as the block. Panels are
// solid, what is taken in are gaps between them; where front and back meet there is a gap too, or, where the body below
// is wider than the bust, an overlap. Moving intake from one line to another leaves the strip's end where it is; the
// girth it closes to is a mark on it.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "draft/block.h"

namespace armure {

// Lengths and places in mm along the strip, 0 at centre front.
struct RailPanel {
  int place = 0;  // counted from centre front, 1 the first
  double from = 0, to = 0;
};

struct RailGap {
  std::string line;
  Message name;                       // id as in rules/shaping_keys.h
  double from = 0, to = 0;            // at the side: from > to where front and back overlap
  double taken = 0;                   // at the side of one half: how far the side stands inside the block
  std::optional<double> wished = {};  // by the school
  double cap = 0;
  bool held = false;
  bool movable = false;  // whether something can be taken in there by hand
  bool beyondCap() const { return taken > cap + 1e-9; }
};

struct Rail {
  std::string level;
  Message name;
  bool own = false;                    // added by the maker
  double depth = 0;                    // of the level on the front
  double length = 0;                   // of the strip: half the block
  double openFront = 0, openBack = 0;  // what stays open at either end, mm of one half
  std::vector<RailPanel> panels;
  std::vector<RailGap> gaps;  // from centre front to centre back; at the side two, the front's and the back's
  double bodyGirth = 0, finishedGirth = 0;
  // What is less than the body; negative where there is more.
  double reduction() const { return bodyGirth - finishedGirth; }
  double percent() const { return bodyGirth > 0 ? 100 * reduction() / bodyGirth : 0; }
};

// One rail for top edge, bust, underbust, waist, high hip where the garment reaches it, and every level of the maker's
// own; from the top down.
std::vector<Rail> railsOf(const Block& block, const Rules& rules);

// The choice that sets the finished girth of a rail: its key, and what the key's length is for that girth; nothing
// where the girth cannot be set. For a level of the maker's own it is the girth itself, else ease, reduction or spring.
struct GirthChoice {
  std::string key;
  double mm = 0;
};
std::optional<GirthChoice> girthChoice(const Rail& rail, const Rules& rules, double finishedGirth);

}  // namespace armure
