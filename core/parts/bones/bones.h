// core/parts/bones/bones.h
//
// Channels for bones, laid on the finished pieces: beside every upright seam and dart of the panels, beside every
// opening, and between them where a panel is wide. A channel lies within its piece with all of its width, so that it
// ends short of the edges and stays clear of the cup line. Where to lay them is common practice, no source:
//
//   seam      on the piece of side a, touching the seam
//   centre    on a centre seam, one for both halves
//   opening   touching the edge, or clear of the tape of a zip; in a laced one a second beyond the eyelets
//   panel     along the grain, evenly, so that no two are further apart at the waist than bones.apart
//
// They end at the hip, and where the panels run on as a skirt at the high hip.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "draft/block.h"
#include "parts/bones/rules.h"
#include "pattern/pattern.h"

namespace armure {

// A channel: a band of a piece between two lines of stitches.
struct Channel {
  std::string id;         // "bone-princess", "bone-front-1-opening"
  size_t piece = 0;       // index into Pattern::pieces
  std::string seam;       // the seam it lies beside; empty where it lies beside none
  Polyline middle;        // from its upper end down, on the axes of the piece
  double width = 0;       // mm, between the lines of stitches
  std::string_view kind;  // of bone: the id of a row of kBoneKinds
  int count = 2;          // how many the garment has: two, or one on a fold or a centre seam
  std::string chosenAs;   // by which it is switched off: its id where both halves are alike
  int drawnAside = 0;     // on a fold only one line of stitches lies on the piece: that of this sign (see line)

  double length() const;
  Polyline line(double aside) const;  // beside the middle: to the right of it as it runs where that is less than 0
};

// All channels of a finished pattern: of its shell, seam by seam, then piece by piece. None where the garment has no
// bones.
std::vector<Channel> channelsOf(const Pattern& pattern, const Block& block, const Rules& rules);

// Between the lines of stitches of a channel, mm.
double channelWidth(const Rules& rules);

// How far a line strays from the straight line between its ends, mm.
double strayOf(const Polyline& line);

// What is cut for a channel: its length less what the bone is shorter at both ends; never less than nothing.
double cutLength(const Channel& channel, const Rules& rules);

// Whether an id is of the form channels have.
bool isBoneId(std::string_view id);

// How the bone of a channel comes to its length; nothing where the garment has none of this id.
std::optional<Working> boneWorking(const Pattern& pattern, const Block& block, const Rules& rules, std::string_view id);

// The longest ready-made bone of a kind that is no longer than `length`, mm; `length` itself where it is cut from the
// metre.
double stockLength(const BoneKind& kind, double length);

// The row of the table; throws std::out_of_range for an unknown id.
const BoneKind& boneKind(std::string_view id);

}  // namespace armure
