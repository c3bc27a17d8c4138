// core/prepare/lists.h
//
// What is cut and what is bought: every piece with its cloth and how often, every bone with the length it is cut to,
// and the notions an opening, a cup line or an edge needs. All of it is read off the finished pattern; nothing is
// counted by hand. Lengths in mm. Rules are common practice, no source.
//
//   const CutList list = cutList(design.pattern, design.block, design.rules);
//   for (const BoneLine& b : list.bones) ... b.count, b.cutLength, b.kind->name ...
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "message.h"
#include "parts/bones/bones.h"
#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

struct CutPiece {
  size_t piece = 0;  // index into Pattern::pieces
  std::string id;    // of the piece as it is exported: "front-1", "lining-front-1"
  Message name;
  std::string layer;  // "shell", "lining": a piece of the shell that is cut again for a layer has a line for each
  std::string cloth;  // the id of the cloth: "satin"
  int copies = 0;
  bool mirrored = false;  // half of the copies are the mirror image of the others
  bool onFold = false;
};

struct BoneLine {
  const BoneKind* kind = nullptr;
  double width = 0, channelLength = 0, cutLength = 0;
  double stockLength = 0;  // the longest ready-made one that is no longer than that
  int count = 0;
  std::string seam;          // the seam it lies beside, or
  std::string piece;         // the piece it lies in
  bool inAllowance = false;  // carried by the seam's own allowance; else it needs a casing
};

struct Notion {
  std::string_view id;  // "zip", "busk", "hook-tape", "eyelets", "loops", "lace", "wire", "casing", "waist-stay"
  Message name;
  int count = 0;
  double length = 0;  // of each; 0 where it is only counted
  Message note;       // how it came to be
};

// A cloth and how wide it lies.
struct ClothLine {
  std::string cloth;  // its id
  double width = 0;
  ListedCloth as = {};  // all that is known of it
};

struct CutList {
  std::vector<CutPiece> pieces;
  std::vector<BoneLine> bones;  // by kind and length, the longest first; one line for each channel
  std::vector<Notion> notions;
  std::vector<ClothLine> cloths;  // in the order in which the pieces name them
};
// Only the pieces and their cloths.
CutList pieceList(const Pattern& pattern, const Rules& rules);
CutList cutList(const Pattern& pattern, const Block& block, const Rules& rules);

// Whether half of a piece's copies are the mirror image of the others. A strap is the same either way round.
bool isMirrored(const Piece& piece);

// The id of the cloth a piece is cut of in a layer: what the maker chose for the piece, or for the layer; else what the
// piece is of by itself (net), or the layer by its recipe; else satin.
std::string clothOf(const Piece& piece, std::string_view layer, const Rules& rules);

}  // namespace armure
